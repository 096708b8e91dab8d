import { later, localInstant, type Span, type Split } from '@/core/schedule';
import { sunTimes } from '@/core/sun';
import type { House } from '@/domain/programme';
import type { Aerodrome } from '@/domain/sheet';
import type { Transaction } from 'sequelize';
import { aerodromeAt, newestContent } from '../../rules/content';

export const airKey = (airframeId: string): string => `a:${airframeId}`;
/** What the schedule asks of the school: its rules, the aerodrome of a flight, and the zone all its times are said in. */
export interface SchoolFacts {
  house: House;
  /** Where the flight in question is flown. */
  aerodrome: Aerodrome;
  /** Of home, wherever it is flown. */
  zone: string;
}
/** @param at code of the aerodrome of the flight; null = home */
export async function schoolFacts(t?: Transaction, at: string | null = null): Promise<SchoolFacts> {
  const [house, home] = [await newestContent('house', 'house', t), await aerodromeAt(null, t)];
  if (!house) throw new Error('no house rules are set up in this data folder');
  return { house: house.body, aerodrome: at === null ? home : await aerodromeAt(at, t), zone: home.timeZone };
}
/** The same school for a flight at another of its aerodromes. */
export const schoolAt = async (school: SchoolFacts, at: string | null): Promise<SchoolFacts> =>
  at === null || at === school.aerodrome.ident ? school : { ...school, aerodrome: await aerodromeAt(at) };

/** Hours in which bookings lie on a local day: the house’s, and by day only where the house does not fly at night. */
export function openHours(date: string, { house, aerodrome, zone }: SchoolFacts): Span | null {
  const { schedule } = house;
  const span = {
    from: localInstant(date, schedule.openFromMin, zone),
    to: localInstant(date, schedule.openToMin, zone),
  };
  if (schedule.nightFlying) return span;
  const sun = sunTimes(date, aerodrome);
  if (sun.always === 'night') return null;
  // The brief may be held before sunrise and the debrief after sunset; the flight itself is checked apart.
  return span;
}
/** The part of a booking spent flying: between brief and preparation, and the debrief. */
export const flightSpan = (startsAt: string, split: Split): Span => ({
  from: later(startsAt, split.brief + split.prepare),
  to: later(startsAt, split.brief + split.prepare + split.flight),
});
