/** Times as files write them. Milliseconds; NaN for what cannot be read. */

const DAY_MS = 86_400_000;
const CLOCK = /^(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,6}))?)?\s*(am|pm)?$/i;

/** A time of day to ms after midnight; also HHMMSS. */
export function clockMs(text: string): number {
  const t = text.trim();
  const found = CLOCK.exec(t) ?? /^(\d{2})(\d{2})(\d{2})(?:\.(\d{1,6}))?$/.exec(t);
  if (!found) return Number.NaN;
  const [h, m, s] = [Number(found[1]), Number(found[2]), Number(found[3] ?? 0)];
  const half = found[5]?.toLowerCase();
  const hour = half === 'pm' && h < 12 ? h + 12 : half === 'am' && h === 12 ? 0 : h;
  if (hour > 24 || m > 59 || s > 60) return Number.NaN;
  return ((hour * 60 + m) * 60 + s) * 1000 + (found[4] ? Number(`0.${found[4]}`) * 1000 : 0);
}

/**
 * A date to ms UTC at its midnight: year first, or day and month with a four-digit year last (the day first unless that
 * cannot be).
 */
export function dateMs(text: string): number {
  const t = text.trim();
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/.exec(t) ?? /^(\d{4})(\d{2})(\d{2})$/.exec(t);
  if (iso) return day(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const other = /^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4})$/.exec(t);
  if (!other) return Number.NaN;
  const [a, b, y] = [Number(other[1]), Number(other[2]), Number(other[3])];
  return b > 12 ? day(y, a, b) : day(y, b, a);
}
function day(y: number, m: number, d: number): number {
  if (m < 1 || m > 12 || d < 1 || d > 31) return Number.NaN;
  const ms = Date.UTC(y, m - 1, d);
  // 31 April is no day.
  return new Date(ms).getUTCDate() === d ? ms : Number.NaN;
}

/** `+01:00`, `-3`, `Z` to minutes; NaN when it is none. */
export function offsetMin(text: string): number {
  const t = text.trim();
  if (/^(z|utc|gmt)$/i.test(t)) return 0;
  const found = /^([+-]?)(\d{1,2})(?::?(\d{2}))?$/.exec(t);
  if (!found) return Number.NaN;
  const min = Number(found[2]) * 60 + Number(found[3] ?? 0);
  return min > 14 * 60 ? Number.NaN : found[1] === '-' ? -min : min;
}

export interface Instant {
  ms: number;
  /** False = a time of day without a date. */
  dated: boolean;
  /** False = no zone was said. */
  zoned: boolean;
}
/** A date and a time in one cell, with or without a zone; or a time of day alone. Null when unreadable. */
export function instant(text: string): Instant | null {
  const t = text.trim();
  const found =
    /^(\d{4}[-/.]\d{1,2}[-/.]\d{1,2}|\d{1,2}[-/.]\d{1,2}[-/.]\d{4}|\d{8})[T\s]+(\d{1,2}:\d{2}(?::\d{2}(?:[.,]\d{1,6})?)?|\d{6}(?:\.\d{1,6})?)\s*(z|utc|gmt|[+-]\d{1,2}(?::?\d{2})?)?$/i.exec(
      t,
    );
  if (found) {
    const date = dateMs(found[1] ?? '');
    const clock = clockMs(found[2] ?? '');
    const zone = found[3] ? offsetMin(found[3]) : 0;
    const ms = date + clock - zone * 60_000;
    return Number.isFinite(ms) ? { ms, dated: true, zoned: found[3] !== undefined } : null;
  }
  const clock = clockMs(t);
  return Number.isNaN(clock) ? null : { ms: clock, dated: false, zoned: false };
}

/** Times of day made to run on past midnight: a fall of more than twelve hours is a new day. In place. */
export function unwrapDays(ms: Float64Array): number {
  let days = 0;
  let before = Number.NaN;
  let crossed = 0;
  for (let i = 0; i < ms.length; i++) {
    const t = ms[i] ?? Number.NaN;
    if (Number.isNaN(t)) continue;
    if (t - before < -DAY_MS / 2) {
      days++;
      crossed++;
    } else if (t - before > DAY_MS / 2 && days > 0) days--;
    before = t;
    ms[i] = t + days * DAY_MS;
  }
  return crossed;
}
