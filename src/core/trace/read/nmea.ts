/**
 * NMEA 0183 as receivers write it: fixes of RMC and GGA (and VTG, HDT) sentences joined by their time of day. A sentence
 * whose check sum is wrong is left out. Knots, true degrees, metres above the sea.
 */
import { type Channel, type ReadResult, Warnings, assemble, problem } from './trace';
import { odd, unreadable } from '../read-words';

const DAY_MS = 86_400_000;
const M_TO_FT = 1 / 0.3048;
const SENTENCE = /^\$(?:G[A-Z]|[A-Z]{2})(RMC|GGA|VTG|HDT),/;
/** Any sentence of a receiver, of use or not. */
const ANY = /^\$[A-Z]{2}[A-Z]{3},.*\*[0-9A-F]{2}$|^\$(?:G[A-Z]|[A-Z]{2})(RMC|GGA|VTG|HDT),/;
/** Is this a text of such sentences? */
export const isNmea = (start: string): boolean =>
  start
    .split(/\r?\n/)
    .slice(0, 40)
    .some((l) => ANY.test(l.trim()));

function sound(line: string): boolean {
  const star = line.lastIndexOf('*');
  if (star < 0) return true;
  let sum = 0;
  for (let i = 1; i < star; i++) sum ^= line.charCodeAt(i);
  return Number.parseInt(line.slice(star + 1, star + 3), 16) === sum;
}
const number = (t: string | undefined): number => (t === undefined || t.trim() === '' ? Number.NaN : Number(t));
/** `4130.1234,N` to degrees. */
function angle(value: string | undefined, side: string | undefined): number {
  const x = number(value);
  const whole = Math.floor(x / 100);
  return (whole + (x - 100 * whole) / 60) * (side === 'S' || side === 'W' ? -1 : 1);
}
function clockOf(t: string | undefined): number {
  const m = /^(\d{2})(\d{2})(\d{2})(\.\d+)?$/.exec(t ?? '');
  return m ? (Number(m[1]) * 3600 + Number(m[2]) * 60 + Number(m[3]) + Number(m[4] ?? 0)) * 1000 : Number.NaN;
}

interface Fix {
  clock: number;
  dateMs: number;
  values: Partial<Record<Channel, number>>;
}
/** What one sentence adds to its fix; null when it says that it has none. */
function told(kind: string, f: readonly string[]): { clock: number; dateMs: number; values: Fix['values'] } | null {
  const none = { clock: Number.NaN, dateMs: Number.NaN };
  if (kind === 'RMC') {
    if (f[2] === 'V') return null;
    const d = /^(\d{2})(\d{2})(\d{2})$/.exec(f[9] ?? '');
    return {
      clock: clockOf(f[1]),
      dateMs: d ? Date.UTC(2000 + Number(d[3]), Number(d[2]) - 1, Number(d[1])) : Number.NaN,
      values: { lat: angle(f[3], f[4]), lon: angle(f[5], f[6]), gs: number(f[7]), track: number(f[8]) },
    };
  }
  if (kind === 'GGA')
    return f[6] === '0' || f[6] === ''
      ? null
      : {
          clock: clockOf(f[1]),
          dateMs: Number.NaN,
          values: { lat: angle(f[2], f[3]), lon: angle(f[4], f[5]), altGps: number(f[9]) * M_TO_FT },
        };
  if (kind === 'VTG') return { ...none, values: { track: number(f[1]), gs: number(f[5]) } };
  return { ...none, values: { headingTrue: number(f[1]) } };
}

export function readNmea(text: string): ReadResult {
  const warnings = new Warnings();
  const fixes: Fix[] = [];
  let bad = 0;
  let date = Number.NaN;
  for (const raw of text.split(/\r?\n/)) {
    // A logger may put its own stamp before the sentence.
    const line = raw.slice(Math.max(0, raw.indexOf('$')));
    const kind = SENTENCE.exec(line)?.[1];
    if (!kind) continue;
    if (!sound(line)) {
      bad++;
      continue;
    }
    const t = told(kind, line.replace(/\*.*$/, '').split(','));
    if (!t) continue;
    if (!Number.isNaN(t.dateMs)) date = t.dateMs;
    let fix = fixes[fixes.length - 1];
    if (!fix || (!Number.isNaN(t.clock) && t.clock !== fix.clock)) {
      if (Number.isNaN(t.clock)) continue;
      fix = { clock: t.clock, dateMs: date, values: {} };
      fixes.push(fix);
    }
    fix.dateMs = date;
    for (const [c, v] of Object.entries(t.values) as [Channel, number][]) if (!Number.isNaN(v)) fix.values[c] = v;
  }
  if (bad > 0) warnings.add(odd('record-broken'), bad);
  if (fixes.length === 0)
    return bad > 0 ? problem('not-a-trace', unreadable('fixes-unreadable')) : problem('empty', unreadable('no-fixes'));
  const n = fixes.length;
  // The first fixes may come before the first date.
  const first = fixes.find((f) => !Number.isNaN(f.dateMs))?.dateMs ?? Number.NaN;
  const absolute = !Number.isNaN(first);
  if (!absolute) warnings.add(odd('date-missing'));
  const ms = new Float64Array(n).fill(Number.NaN);
  const columns: Partial<Record<Channel, Float64Array>> = {};
  let days = 0;
  let before = Number.NaN;
  fixes.forEach((f, i) => {
    // Without a date, or where GGA comes before the new day's RMC: the clock itself tells midnight.
    if (f.clock < before - DAY_MS / 2) days++;
    before = f.clock;
    ms[i] = (absolute ? first : 0) + days * DAY_MS + f.clock;
    for (const [c, v] of Object.entries(f.values) as [Channel, number][])
      (columns[c] ??= new Float64Array(n).fill(Number.NaN))[i] = v;
  });
  if (days > 0) warnings.add(odd('midnight'), days);
  return assemble('nmea', ms, columns, absolute, warnings);
}
