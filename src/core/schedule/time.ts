import { TZDate } from '@date-fns/tz';
import { getISODay, parseISO } from 'date-fns';
import { LRUCache } from 'lru-cache';

/** Local clock times of a place as UTC instants and back. Daylight saving comes from the zone's own rules. */
const two = (n: number): string => String(n).padStart(2, '0');
const MIN_MS = 60_000;

/**
 * The instant of a local clock time. A time that does not exist (the clock jumps over it) is taken as much later as the
 * jump; a time that happens twice is the first.
 * Source: the zone's own rules (IANA), by the date-fns packages.
 * @param date ISO, local; @param minutes since local midnight, 0 to 1440
 * @returns an ISO instant, UTC
 * @example localInstant('2026-01-12', 8, 'Europe/Lisbon') // '2026-01-12T00:08:00.000Z'
 */
export function localInstant(date: string, minutes: number, timeZone: string): string {
  const key = `${timeZone} ${date.slice(0, 10)} ${minutes}`;
  const before = known.get(key);
  if (before !== undefined) return before;
  const instant = lookUp(date, minutes, timeZone);
  known.set(key, instant);
  return instant;
}
/** Zone rules are slow to ask and never change while a process runs; a schedule asks the same few times again and again. */
const known = new LRUCache<string, string>({ max: 20_000 });

function lookUp(date: string, minutes: number, timeZone: string): string {
  const [y, m, d] = date.slice(0, 10).split('-').map(Number) as [number, number, number];
  const ms = new TZDate(y, m - 1, d, Math.floor(minutes / 60), minutes % 60, 0, 0, timeZone).getTime();
  const clock = (at: number) => {
    const c = new TZDate(at, timeZone);
    return `${c.getDate()} ${c.getHours()}:${c.getMinutes()}`;
  };
  const earlier = SET_BACK_MIN.map((min) => ms - min * MIN_MS).find((at) => clock(at) === clock(ms));
  return new Date(earlier ?? ms).toISOString();
}
/** By how much clocks are set back anywhere, minutes, the most first. */
const SET_BACK_MIN = [120, 60, 30];

/**
 * Local date and minutes since local midnight of an instant.
 * Source: the zone's own rules (IANA), by the date-fns packages.
 * @returns an ISO date, and minutes since midnight
 * @example localClock('2026-01-12T00:08:00.000Z', 'Europe/Lisbon') // { date: '2026-01-12', minutes: 8 }
 */
export function localClock(instant: string, timeZone: string): { date: string; minutes: number } {
  const at = new TZDate(new Date(instant).getTime(), timeZone);
  return {
    date: `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`,
    minutes: at.getHours() * 60 + at.getMinutes(),
  };
}

/**
 * `09:30`, local.
 * @returns hours and minutes, local
 * @example clockText('2026-07-01T08:05:00Z', 'Europe/Lisbon') // '09:05'
 */
export const clockText = (instant: string, timeZone: string): string =>
  minutesText(localClock(instant, timeZone).minutes);
/**
 * `09:30`, from minutes since midnight.
 * @returns hours and minutes
 * @example minutesText(545) // '09:05'
 */
export const minutesText = (minutes: number): string => `${two(Math.floor(minutes / 60))}:${two(minutes % 60)}`;
/**
 * Minutes since midnight of `09:30`; null when it is no time.
 * @returns minutes since midnight
 * @example readClock('9.30', 1, ['09:30', '9.30', '0930', '24:00', '24:01', '9:60', '', 'noon']) // 570
 */
export function readClock(text: string): number | null {
  const found = /^([01]?\d|2[0-4])[:.h]?([0-5]\d)$/.exec(text.trim());
  if (!found) return null;
  const minutes = Number(found[1]) * 60 + Number(found[2]);
  return minutes <= 1440 ? minutes : null;
}

/**
 * Monday = 1 to Sunday = 7.
 * Source: the zone's own rules (IANA), by the date-fns packages.
 * @returns 1 to 7
 * @example weekday('2026-11-23') // 1
 */
export const weekday = (date: string): number => getISODay(parseISO(date.slice(0, 10)));
export const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const;
/**
 * `Tue 24 Nov`.
 * @returns weekday, day and month
 * @example dayText('2028-02-29') // 'Tue 29 Feb'
 */
export function dayText(date: string): string {
  const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
  return `${(WEEKDAYS[weekday(date) - 1] ?? '').slice(0, 3)} ${Number(date.slice(8, 10))} ${months[Number(date.slice(5, 7)) - 1] ?? ''}`;
}
/**
 * Minutes from one instant to another.
 * @returns min, negative when `to` is earlier
 * @example minutesBetween('2026-11-24T00:00:00.000Z', '2026-11-25T00:00:00.000Z') // 1440
 */
export const minutesBetween = (from: string, to: string): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / MIN_MS);
/**
 * An instant so many minutes later.
 * @returns an ISO instant
 * @example later('2026-11-24T00:00:00.000Z', 15) // '2026-11-24T00:15:00.000Z'
 */
export const later = (instant: string, minutes: number): string =>
  new Date(Date.parse(instant) + minutes * MIN_MS).toISOString();
