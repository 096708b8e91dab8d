/**
 * Validity of something dated. Days are calendar days at the aerodrome, written ISO; a day named as the last is still
 * valid. Source of the method: 14 CFR 61.56 and 61.57, FCL.060 and FCL.740, as the packs cite them.
 */
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
const parsed = new Map<string, number>();
const MOST_PARSED = 20_000;
/** Midnight UTC of a date; the same few hundred days are asked for again and again. */
function utc(iso: string): number {
  const day = iso.length === 10 ? iso : iso.slice(0, 10);
  const known = parsed.get(day);
  if (known !== undefined) return known;
  const ms = Date.parse(`${day}T00:00:00Z`);
  if (parsed.size >= MOST_PARSED) parsed.clear();
  parsed.set(day, ms);
  return ms;
}
const iso = (ms: number): string => new Date(ms).toISOString().slice(0, 10);
const monthLength = (year: number, month: number): number => new Date(Date.UTC(year, month + 1, 0)).getUTCDate();

/** `date` plus whole days. */
export const addDays = (date: string, days: number): string => iso(utc(date) + days * DAY_MS);
/** Whole days from `from` to `to`; negative when `to` is earlier. */
export const daysBetween = (from: string, to: string): number => Math.round((utc(to) - utc(from)) / DAY_MS);

/**
 * Last valid day: months first (the day cut to the length of the month it lands in), then days, then the end of that
 * month.
 */
export function validThrough(fromDate: string, { days, months, monthEnd }: Period): string {
  const [y, m, d] = fromDate.slice(0, 10).split('-').map(Number) as [number, number, number];
  const whole = y * 12 + (m - 1) + (months ?? 0);
  const [year, month] = [Math.floor(whole / 12), whole % 12];
  const at = addDays(iso(Date.UTC(year, month, Math.min(d, monthLength(year, month)))), days ?? 0);
  if (!monthEnd) return at;
  const [ey, em] = at.split('-').map(Number) as [number, number];
  return iso(Date.UTC(ey, em - 1, monthLength(ey, em - 1)));
}

/** `date` plus whole months, the day cut to the length of the month it lands in. */
export const addMonths = (date: string, months: number): string =>
  validThrough(date, { days: null, months, monthEnd: false });

/** Current, expiring (fewer than `warnDays` left) or expired on a day. */
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

/** Days since the newest event not after `onDate`; the day itself is 0. */
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
