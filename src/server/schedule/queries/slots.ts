import { addDays, daysBetween } from '@/core/recency';
import {
  bestSlots,
  bookingMinutes,
  freeSlots,
  type LearnedSplit,
  localClock,
  localInstant,
  nearestSlot,
  type RankedSlot,
  type Span,
  type Split,
  windFit,
  type WindNeed,
} from '@/core/schedule';
import { sunTimes } from '@/core/sun';
import { ProposeForm } from '@/domain/schedule';
import type { TypeSheet } from '@/domain/sheet';
import type { Transaction } from 'sequelize';
import { checkoutHead } from '../../checkout/queries/head';
import { checkoutRecord } from '../../checkout/queries/record';
import { type CurrentUser, may, personKey } from '../../floor/auth/permissions';
import { keptAerodrome } from '../../rules/content';
import { userById } from '../../floor/auth/session-user';
import { nowIso } from '../../floor/clock';
import { problem, type Result, zodProblems } from '../../floor/result';
import type { Told } from '../../floor/sentences';
import * as ask from '../../floor/statements/schedule';
import { parsedSheet } from '../../hangar/sheets';
import { localToday } from '../../rules/today';
import { told } from '../sentences';
import { airKey, type SchoolFacts, schoolFacts, flightSpan, openHours } from './day';
import { awayRows, holdsBetween, weeklyRows } from './holds';
import { learnedSplit, splitOf } from './split';
import { aloneNeed, lessonNeed, windAtSlot } from './wind';

export async function airframeSheet(
  airframeId: string,
  t?: Transaction,
): Promise<{ registration: string; sheet: TypeSheet } | null> {
  const found = await ask.airframeSheet.one({ airframeId }, t);
  return found ? { registration: found.registration, sheet: parsedSheet(found.id, found.sheet) } : null;
}

export interface SlotAround {
  minutes: number;
  holders: string[];
  people: string[];
  except: string | null;
}
/** Free starts for some holders over some days. */
export async function slotsFor(
  school: SchoolFacts,
  ask: SlotAround,
  fromDate: string,
  days: number,
  t?: Transaction,
): Promise<Span[]> {
  const toDate = addDays(fromDate, days - 1);
  const [from, to] = [localInstant(fromDate, 0, school.zone), localInstant(addDays(toDate, 1), 0, school.zone)];
  return freeSlots({
    ...ask,
    holds: await holdsBetween(from, to, t),
    away: await awayRows(t),
    weekly: await weeklyRows(t),
    timeZone: school.zone,
    fromDate,
    toDate,
    notBefore: nowIso(),
    stepMin: school.house.schedule.stepMin,
    dayOf: (d) => openHours(d, school),
  });
}
const LOOK_DAYS = 21;
const DAY_MS = 86_400_000;
/** The free start nearest to a wished one, in the three weeks around it. */
export async function nearestFree(
  school: SchoolFacts,
  ask: SlotAround,
  wished: string,
  t?: Transaction,
): Promise<Span | null> {
  const today = await localToday(t);
  const wishedDay = localClock(wished, school.zone).date;
  const from = (days: number) => (addDays(wishedDay, -days) < today ? today : addDays(wishedDay, -days));
  // Within a day of the wish nothing outside these three days can be nearer.
  const close =
    wishedDay < today
      ? null
      : nearestSlot(await slotsFor(school, ask, from(1), daysBetween(from(1), wishedDay) + 2, t), wished);
  if (close && Math.abs(Date.parse(close.from) - Date.parse(wished)) <= DAY_MS) return close;
  const first = from(7);
  return nearestSlot(await slotsFor(school, ask, first, LOOK_DAYS, t), wished);
}

/** Does the flight of a booking lie between sunrise and sunset, or in night the house flies in? */
export function daylightProblem(school: SchoolFacts, startsAt: string, split: Split): Told | null {
  if (school.house.schedule.nightFlying) return null;
  const flight = flightSpan(startsAt, split);
  const sun = sunTimes(localClock(flight.from, school.zone).date, school.aerodrome);
  const clock = (iso: string) => {
    const m = localClock(iso, school.zone).minutes;
    return `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`;
  };
  if (sun.sunset !== null && flight.to > sun.sunset)
    return told('after-sunset', { at: clock(flight.to), sunset: clock(sun.sunset) });
  if (sun.sunrise !== null && flight.from < sun.sunrise)
    return told('before-sunrise', { at: clock(flight.from), sunrise: clock(sun.sunrise) });
  return null;
}

export interface Proposal extends RankedSlot {
  minutes: number;
  split: Split;
}
export interface Proposals {
  minutes: number;
  split: LearnedSplit;
  need: WindNeed;
  best: Proposal[];
  free: number;
}
/** The best three slots for a lesson or a flight, by the wind of each and what it asks of it. */
export async function proposeSlots(user: CurrentUser, form: unknown): Promise<Result<Proposals>> {
  const parsed = ProposeForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const ask = parsed.data;
  const aerodrome = await keptAerodrome(ask.aerodrome);
  if (aerodrome === undefined) return problem('aerodrome', told('aerodrome-unknown'));
  const school = await schoolFacts(undefined, aerodrome);
  const head = ask.checkoutId === null ? null : await checkoutHead(ask.checkoutId);
  const pilotId = head?.pilotId ?? ask.pilotId;
  if (!may.book(user, { pilotId })) return problem('', told('not-found'));
  const frame = ask.airframeId === null ? null : await airframeSheet(ask.airframeId);
  if (!frame) return problem('airframeId', told('choose-aeroplane'));
  const instructor = ask.instructorId === null ? null : await userById(ask.instructorId);
  if (ask.kind === 'lesson' && !instructor) return problem('instructorId', told('choose-instructor'));
  if (pilotId === null) return problem('pilotId', told('choose-pilot'));
  const split = await learnedSplit(frame.sheet.code, school.house);
  const minutes =
    ask.minutes ??
    (ask.kind === 'lesson' ? bookingMinutes(split) : Math.ceil((split.prepare + split.flight) / 15) * 15);
  const people = [`p:${pilotId}`, ...(instructor ? [personKey(instructor)] : [])];
  const parts = splitOf(ask.kind, minutes, split);
  const need =
    head && ask.kind === 'lesson'
      ? await lessonNeed(await checkoutRecord(head), instructor, await localToday(), school.house)
      : await aloneNeed(pilotId, frame.sheet, await localToday(), school.house);
  const free = (
    await slotsFor(
      school,
      { minutes, holders: [...people, airKey(ask.airframeId ?? '')], people, except: null },
      ask.fromDate,
      ask.days,
    )
  ).filter((s) => daylightProblem(school, s.from, parts) === null);
  const ranked = free.map((s): Proposal => ({
    ...s,
    minutes,
    split: parts,
    fit: windFit(windAtSlot(school, frame.sheet, flightSpan(s.from, parts).from, ask.surface), need),
  }));
  return { ok: true, minutes, split, need, best: bestSlots(ranked), free: free.length };
}
