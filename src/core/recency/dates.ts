/**
 * Validity of something dated. Days are calendar days at the aerodrome, written ISO; a day named as the last is still
 * valid. Source of the method: 14 CFR 61.56 and 61.57, FCL.060 and FCL.740, as the packs cite them.
 */
import { addDays as daysLater, addMonths as monthsLater, formatISO, lastDayOfMonth, parseISO } from 'date-fns';
import { LRUCache } from 'lru-cache';
import { needNumbers } from '../guard';

export interface Period {
  days: number | null;
  months: number | null;
  /** Pushed to the last day of that month. */
  monthEnd: boolean;
}
export type RecencyStatus = 'current' | 'expiring' | 'expired';
/** Days before the end from which something is said to expire. */
export const WARN_DAYS = 30;

const DAY_MS = 86_400_000;
/** A calendar day as the package counts it, and back. */
const dayOf = (iso: string): Date => parseISO(iso.slice(0, 10));
const iso = (day: Date): string => formatISO(day, { representation: 'date' });
/** A page of a school asks for the same few hundred days again and again. */
const known = new LRUCache<string, string>({ max: 20_000 });
const midnights = new LRUCache<string, number>({ max: 20_000 });
/** Midnight UTC of a day, ms; the time of an instant is left out. */
function midnight(of: string): number {
  const before = midnights.get(of);
  if (before !== undefined) return before;
  const ms = Date.parse(of.slice(0, 10));
  midnights.set(of, ms);
  return ms;
}
function remembered(asked: string, find: () => string): string {
  const before = known.get(asked);
  if (before !== undefined) return before;
  const found = find();
  known.set(asked, found);
  return found;
}

/**
 * `date` plus whole days.
 * Source: calendar months and days, as 14 CFR 61.56 and FCL.740 count them.
 * @returns an ISO date
 * @example addDays('2026-11-10', 90) // '2027-02-08'
 */
export const addDays = (date: string, days: number): string =>
  remembered(`${date} ${days}`, () => iso(daysLater(dayOf(date), days)));
/**
 * Whole days from `from` to `to`; negative when `to` is earlier. Asked thousands of times for a page: two midnights UTC.
 * Source: calendar months and days, as 14 CFR 61.56 and FCL.740 count them.
 * @returns days
 * @example daysBetween('2026-11-24', '2026-11-30') // 6
 */
export const daysBetween = (from: string, to: string): number => Math.round((midnight(to) - midnight(from)) / DAY_MS);

/**
 * Last valid day: months first (the day cut to the length of the month it lands in), then days, then the end of that
 * month.
 * Source: calendar months and days, as 14 CFR 61.56 and FCL.740 count them.
 * @returns an ISO date
 * @example validThrough('2026-12-31', { days: null, months: -3, monthEnd: false }) // '2026-09-30'
 */
export function validThrough(fromDate: string, { days, months, monthEnd }: Period): string {
  return remembered(`${fromDate} ${months ?? 0} ${days ?? 0} ${monthEnd}`, () => {
    const through = daysLater(monthsLater(dayOf(fromDate), months ?? 0), days ?? 0);
    return iso(monthEnd ? lastDayOfMonth(through) : through);
  });
}

/**
 * `date` plus whole months, the day cut to the length of the month it lands in.
 * Source: calendar months and days, as 14 CFR 61.56 and FCL.740 count them.
 * @returns an ISO date
 * @example addMonths('2026-12-31', -3) // '2026-09-30'
 */
export const addMonths = (date: string, months: number): string =>
  validThrough(date, { days: null, months, monthEnd: false });

/**
 * Current, expiring (fewer than `warnDays` left) or expired on a day.
 * Source: calendar months and days, as 14 CFR 61.56 and FCL.740 count them.
 * @returns an ISO date, days left and the state
 * @throws BadNumber when a number handed in is none
 * @example
 * validity({ days: 90, months: null, monthEnd: false, fromDate: '2026-11-04', onDate: '2026-11-24' })
 * // { validThrough: '2027-02-02', daysLeft: 70, status: 'current' }
 */
export function validity(i: Period & { fromDate: string; onDate: string; warnDays?: number }): {
  validThrough: string;
  daysLeft: number;
  status: RecencyStatus;
} {
  needNumbers('validity', { days: i.days, months: i.months, warnDays: i.warnDays });
  const through = validThrough(i.fromDate, i);
  const daysLeft = daysBetween(i.onDate, through);
  return {
    validThrough: through,
    daysLeft,
    status: daysLeft < 0 ? 'expired' : daysLeft < (i.warnDays ?? WARN_DAYS) ? 'expiring' : 'current',
  };
}

/**
 * Days since the newest event not after `onDate`; the day itself is 0.
 * Source: calendar months and days, as 14 CFR 61.56 and FCL.740 count them.
 * @returns days, and the date of the event; nulls when there is none
 */
export function daysSince(
  eventDates: readonly string[],
  onDate: string,
): { daysSinceLast: number | null; lastDate: string | null } {
  const last =
    eventDates
      .filter((d) => d <= onDate)
      .sort()
      .at(-1) ?? null;
  return { daysSinceLast: last === null ? null : daysBetween(last, onDate), lastDate: last };
}
