import { later, localInstant, type Span, type Split } from '@/core/schedule';
import { sunTimes } from '@/core/sun';
import type { House } from '@/domain/programme';
import type { Aerodrome } from '@/domain/sheet';
import type { Transaction } from 'sequelize';
import { homeAerodrome, newestContent } from '../../rules/content';

export const airKey = (airframeId: string): string => `a:${airframeId}`;
export interface SchoolFacts {
  house: House;
  aerodrome: Aerodrome;
  zone: string;
}
export async function schoolFacts(t?: Transaction): Promise<SchoolFacts> {
  const [house, aerodrome] = [await newestContent('house', 'house', t), await homeAerodrome(t)];
  if (!house) throw new Error('no house rules are set up in this data folder');
  return { house: house.body, aerodrome, zone: aerodrome.timeZone };
}

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
