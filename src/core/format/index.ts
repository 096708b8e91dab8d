/**
 * The one formatter for numbers, units and times. Uses only glyphs of the shipped fonts (no arrows, no minus sign
 * U+2212).
 */
const NBSP = '\u00a0';

/**
 * A rounded number with its unit, e.g. `62 mph`. `digits` decimals; null prints a dash.
 * @returns number and unit, kept together on a line
 * @example withUnit(81, 'm') // '81 m'
 */
export function withUnit(value: number | null, unit: string, digits = 0): string {
  return value === null || !Number.isFinite(value) ? '\u2013' : `${fixed(value, digits)}${NBSP}${unit}`;
}

/**
 * Rounded, never "-0".
 * @returns the number
 * @example fixed(150) // '150'
 */
export function fixed(value: number, digits = 0): string {
  if (!Number.isFinite(value)) return '\u2013';
  const text = value.toFixed(digits);
  return Number(text) === 0 ? text.replace('-', '') : text;
}

/**
 * A value of any kind as text: never `[object Object]`.
 * @returns the text
 * @example plain({ a: 1 }) // '{"a":1}'
 */
export function plain(value: unknown): string {
  if (value === null || value === undefined) return '';
  return typeof value === 'object' ? JSON.stringify(value) : String(value as string | number | boolean);
}

/** Rounding noise that must not move a number by a whole step. */
const NOISE = 1e-9;
/**
 * Rounded up: what is needed, what is blowing, speeds that keep away from a stall.
 * @returns the number, without its unit
 * @example upTo(12.1) // '13'
 */
export const upTo = (value: number, digits = 0): string =>
  fixed(Math.ceil(value * 10 ** digits - NOISE) / 10 ** digits, digits);
/**
 * Rounded down: limits, steps, what is in hand.
 * @returns the number, without its unit
 * @example downTo(12.9) // '12'
 */
export const downTo = (value: number, digits = 0): string =>
  fixed(Math.floor(value * 10 ** digits + NOISE) / 10 ** digits, digits);
/**
 * Values beside their limit, in as few decimals as it takes for each to stand to the limit as it does: values rounded
 * up, the limit down, and no number that contradicts the verdict printed beside it.
 * @returns the limit first, then the values as given
 * @example besideLimit(12, 12.4) // ['12', '13']
 * @example besideLimit(12.5, 12.3) // ['12.5', '12.3']
 */
export function besideLimit(limit: number, ...values: number[]): string[] {
  const shown = (digits: number) => [downTo(limit, digits), ...values.map((v) => upTo(v, digits))];
  for (const digits of [0, 1, 2]) {
    const [l = '', ...vs] = shown(digits);
    if (vs.every((v, i) => (values[i] ?? 0) > limit + NOISE === Number(v) > Number(l))) return [l, ...vs];
  }
  return shown(3);
}

/**
 * Crosswind in words: `7 kt from the right`, `no crosswind`.
 * @returns the words, without a full stop
 * @example crosswindWords(-7.4) // '7 kt from the left'
 */
export function crosswindWords(kt: number): string {
  if (!Number.isFinite(kt)) return 'crosswind not known';
  const rounded = Math.round(Math.abs(kt));
  return rounded === 0 ? 'no crosswind' : `${rounded}${NBSP}kt from the ${kt > 0 ? 'right' : 'left'}`;
}

/**
 * Headwind in words, tailwind named as one.
 * @returns the words, without a full stop
 * @example headwindWords(-3) // '3 kt tail'
 */
export function headwindWords(kt: number): string {
  if (!Number.isFinite(kt)) return 'headwind not known';
  // A headwind helps and is rounded down; a tailwind does not and is rounded up.
  const rounded = kt > 0 ? Math.floor(kt + NOISE) : Math.ceil(-kt - NOISE);
  return rounded === 0 ? 'no headwind' : `${rounded}${NBSP}kt ${kt > 0 ? 'head' : 'tail'}`;
}

/**
 * A distance that is needed, rounded up to whole metres.
 * @returns metres with the unit; a dash for null
 * @example metresUp(81) // '81 m'
 */
export const metresUp = (m: number | null): string => withUnit(m === null ? null : Math.ceil(m), 'm');

/**
 * Time in hand, rounded down: `2 h 42`.
 * @returns hours and minutes
 * @example hoursText(85.38461538461539) // '1 h 25'
 */
export const hoursText = (minutes: number): string =>
  !Number.isFinite(minutes)
    ? '\u2013'
    : `${Math.floor(minutes / 60)} h ${String(Math.floor(minutes % 60)).padStart(2, '0')}`;

/**
 * Three-figure direction, `045`; north is 360.
 * @returns three figures
 * @example direction(220) // '220'
 */
export const direction = (deg: number): string =>
  !Number.isFinite(deg) ? '\u2013' : String(Math.round(deg) % 360 === 0 ? 360 : Math.round(deg) % 360).padStart(3, '0');

/**
 * `260/11 G17`, `VRB/03`, `calm`.
 * @returns as a report writes it
 * @example windText({ variable: false, fromDeg: 260, kt: 11, gustKt: 17 }) // '260/11 G17'
 */
export function windText(wind: {
  variable: boolean;
  fromDeg: number | null;
  kt: number;
  gustKt: number | null;
}): string {
  if (!Number.isFinite(wind.kt)) return 'not known';
  if (wind.kt === 0 && wind.gustKt === null) return 'calm';
  const from = wind.variable || wind.fromDeg === null ? 'VRB' : direction(wind.fromDeg);
  return `${from}/${String(Math.round(wind.kt)).padStart(2, '0')}${wind.gustKt === null || !Number.isFinite(wind.gustKt) ? '' : ` G${Math.round(wind.gustKt)}`}`;
}

/**
 * `14 Nov 2026`, from an ISO date or instant, in UTC.
 * @returns day, month and year
 * @example dateText('2026-10-06') // '6 Oct 2026'
 */
export function dateText(iso: string): string {
  const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
  const [year, month, day] = iso.slice(0, 10).split('-');
  return `${Number(day)} ${months[Number(month) - 1] ?? ''} ${year}`;
}

/**
 * `3 min`, `2 h 05`, `4 days`.
 * @returns with its unit
 * @example ageText(25) // '25 min'
 */
export function ageText(minutes: number): string {
  if (!Number.isFinite(minutes)) return '\u2013';
  if (minutes < 60) return `${Math.max(0, Math.round(minutes))}${NBSP}min`;
  if (minutes < 48 * 60)
    return `${Math.floor(minutes / 60)}${NBSP}h${NBSP}${String(Math.round(minutes % 60)).padStart(2, '0')}`;
  return `${Math.round(minutes / 1440)} days`;
}

/**
 * `a, b and c`.
 * @returns the words joined
 * @example list(['F2']) // 'F2'
 */
export function list(words: readonly string[]): string {
  if (words.length < 2) return words[0] ?? '';
  return `${words.slice(0, -1).join(', ')} and ${words[words.length - 1] ?? ''}`;
}

/**
 * `1 landing`, `3 landings`.
 * @returns count and word
 * @example plural(1, 'day') // '1 day'
 */
export const plural = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/**
 * The calendar date of an instant at a place, ISO. @param timeZone an IANA name, e.g. `Europe/Lisbon`
 * @returns `2026-11-24`
 * @example localDate('2026-07-01T23:30:00Z', 'Europe/Lisbon') // '2026-07-02'
 */
export function localDate(iso: string, timeZone: string): string {
  const part = parts(iso, timeZone);
  return `${part('year')}-${part('month')}-${part('day')}`;
}
/**
 * `14 Nov 2026 09:05 WET`: date and time of an instant at a place.
 * @returns with the zone named
 * @example localText('2026-03-29T00:30:00Z', 'Europe/Lisbon') // '29 Mar 2026 00:30 WET'
 */
export function localText(iso: string, timeZone: string): string {
  const part = parts(iso, timeZone);
  return `${dateText(localDate(iso, timeZone))} ${part('hour')}:${part('minute')} ${part('timeZoneName')}`;
}
/**
 * `14:25`: the clock of a place, for a screen that has said its zone.
 * @returns hours and minutes; with seconds where they are asked for
 * @example localTime('2026-07-01T08:05:30Z', 'Europe/Lisbon') // '09:05'
 */
export function localTime(iso: string, timeZone: string, seconds = false): string {
  const part = parts(iso, timeZone);
  return `${part('hour')}:${part('minute')}${seconds ? `:${part('second')}` : ''}`;
}
/**
 * `WET`: what the zone of a place is called on that day.
 * @returns its abbreviation
 * @example zoneText('2026-07-01T08:05:00Z', 'Europe/Lisbon') // 'WEST'
 */
export const zoneText = (iso: string, timeZone: string): string => parts(iso, timeZone)('timeZoneName');

/** A formatter is dear to make and the same for every instant of a zone. */
const formats = new Map<string, Intl.DateTimeFormat>();
function parts(iso: string, timeZone: string): (type: string) => string {
  const format =
    formats.get(timeZone) ??
    new Intl.DateTimeFormat('en-GB', {
      timeZone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
      hourCycle: 'h23',
      timeZoneName: 'short',
    });
  formats.set(timeZone, format);
  const found = format.formatToParts(new Date(iso));
  return (type) => found.find((p) => p.type === type)?.value ?? '';
}
