/**
 * Free time of people and aeroplanes. Spans are half-open: one ends where the next may begin. Instants are UTC, ISO.
 */
import { addDays } from '../recency/dates';
import { later, localInstant, minutesBetween, weekday } from './time';

export interface Span {
  from: string;
  to: string;
}
/** Somebody or something is taken for a time. */
export interface Hold extends Span {
  holder: string;
  bookingId: string;
}
/** A weekly window in which a person can be booked, in local minutes of the day, between two dates. */
export interface Weekly {
  person: string;
  weekday: number;
  fromMin: number;
  toMin: number;
  validFrom: string;
  validUntil: string | null;
}
/** A time a person is away, or an aeroplane is down. `to` null = until further notice. */
export interface Away {
  who: string;
  from: string;
  to: string | null;
  why: string;
}

/** @returns true where two spans share a moment; ends that touch do not */
export const overlaps = (a: Span, b: Span): boolean => a.from < b.to && b.from < a.to;

/**
 * Holds in the way of a span, for any of the holders.
 * @returns the holds
 */
export const conflictsOf = <H extends Hold>(
  span: Span,
  holders: readonly string[],
  holds: readonly H[],
  except: string | null = null,
): H[] =>
  holds
    .filter((h) => h.bookingId !== except && holders.includes(h.holder) && overlaps(span, h))
    .sort((a, b) => a.from.localeCompare(b.from));
/**
 * Times away in the way of a span.
 * @returns the times away
 * @example
 * awayIn({ from: '2026-11-24T13:15:00.000Z', to: '2026-11-24T15:15:00.000Z' }, ['a'], [{ who: 'a',
 * from: '2026-11-24T15:00:00.000Z', to: '2026-11-24T16:00:00.000Z', why: 'x' }])
 * // [{ who: 'a', from: '2026-11-24T15:00:00.000Z', to: '2026-11-24T16:00:00.000Z', why: 'x' }]
 */
export const awayIn = <A extends Away>(span: Span, who: readonly string[], away: readonly A[]): A[] =>
  away.filter((a) => who.includes(a.who) && a.from < span.to && (a.to === null || a.to > span.from));

/**
 * The windows of a person on a local day; null = nothing is kept, so any time of the day will do.
 * @returns instants, in order; empty = closed that day
 */
export function windowsOn(person: string, date: string, weekly: readonly Weekly[], timeZone: string): Span[] | null {
  const own = weekly.filter(
    (w) => w.person === person && w.validFrom <= date && (w.validUntil === null || w.validUntil >= date),
  );
  if (own.length === 0) return null;
  return own
    .filter((w) => w.weekday === weekday(date))
    .sort((a, b) => a.fromMin - b.fromMin)
    .map((w) => ({ from: localInstant(date, w.fromMin, timeZone), to: localInstant(date, w.toMin, timeZone) }));
}
/**
 * Does a span lie within what a person keeps open that day? Windows that touch count as one.
 * @returns true where it does
 * @example withinWindows({ from: '2026-11-24T07:00:00.000Z', to: '2026-11-24T09:00:00.000Z' }, null) // true
 */
export function withinWindows(span: Span, windows: readonly Span[] | null): boolean {
  if (windows === null) return true;
  let reached = span.from;
  for (const w of windows) if (w.from <= reached && w.to > reached) reached = w.to;
  return reached >= span.to;
}

export interface SlotAsk {
  minutes: number;
  holders: readonly string[];
  /** Of the holders, those with weekly windows. */
  people: readonly string[];
  holds: readonly Hold[];
  away: readonly Away[];
  weekly: readonly Weekly[];
  timeZone: string;
  /** First and last local day looked at. */
  fromDate: string;
  toDate: string;
  notBefore: string;
  /** Hours of the day in which flying is done, from the sun or the house: local day to span; null = none that day. */
  dayOf: (date: string) => Span | null;
  stepMin: number;
  except?: string | null;
}
/**
 * Every start, on the step, at which all holders are free for so long. In order of time.
 * @returns instants
 */
export function freeSlots(ask: SlotAsk): Span[] {
  const found: Span[] = [];
  const known = new Set<string>();
  for (let date = ask.fromDate; date <= ask.toDate; date = addDays(date, 1)) {
    const day = ask.dayOf(date);
    if (!day) continue;
    const windows = ask.people.map((p) => windowsOn(p, date, ask.weekly, ask.timeZone));
    const taken = ask.holds.filter(
      (h) => h.bookingId !== (ask.except ?? null) && ask.holders.includes(h.holder) && overlaps(day, h),
    );
    const gone = ask.away.filter((a) => ask.holders.includes(a.who));
    const midnight = localInstant(date, 0, ask.timeZone);
    // On a day of 24 hours the clock runs with the instants; on the two others each time is looked up.
    const plain = minutesBetween(midnight, localInstant(date, 1440, ask.timeZone)) === 1440;
    for (let at = 0; at < 1440; at += ask.stepMin) {
      const from = plain ? later(midnight, at) : localInstant(date, at, ask.timeZone);
      const span = { from, to: later(from, ask.minutes) };
      if (from < day.from || span.to > day.to || from < ask.notBefore) continue;
      // The hour that is not names the same instants as the one after it.
      if (known.has(from)) continue;
      if (
        taken.some((h) => overlaps(span, h)) ||
        awayIn(span, ask.holders, gone).length > 0 ||
        !windows.every((w) => withinWindows(span, w))
      )
        continue;
      known.add(from);
      found.push(span);
    }
  }
  return found;
}
/**
 * The free start nearest to a wished one; of two as near the later.
 * @returns instants; null when there is none
 * @example
 * nearestSlot([{ from: '2026-11-24T09:00:00.000Z', to: '2026-11-24T09:00:00.000Z' },
 * { from: '2026-11-24T11:00:00.000Z', to: '2026-11-24T11:00:00.000Z' }], '2026-11-24T10:15:00.000Z')
 * // { from: '2026-11-24T11:00:00.000Z', to: '2026-11-24T11:00:00.000Z' }
 */
export function nearestSlot(slots: readonly Span[], wished: string): Span | null {
  const at = Date.parse(wished);
  let best: Span | null = null;
  for (const s of slots)
    if (best === null || Math.abs(Date.parse(s.from) - at) <= Math.abs(Date.parse(best.from) - at)) best = s;
  return best;
}
