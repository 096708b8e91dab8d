import { medianOf } from '../../constants';
import { type OddCode, type Oddity, type Unreadable, odd, unreadable } from '../read-words';

/**
 * Channels a trace may have, each in one unit: degrees, feet, knots, feet a minute, g, rpm, inches of mercury, degrees
 * Celsius, 0 or 1 for gear down. A 2 is the second engine's.
 */
export const CHANNELS = [
  'lat',
  'lon',
  'altGps',
  'altPressure',
  'altEllipsoid',
  'altMsl',
  'ias',
  'tas',
  'gs',
  'track',
  'headingMag',
  'headingTrue',
  'vs',
  'pitch',
  'bank',
  'nz',
  'rpm',
  'rpm2',
  'map',
  'map2',
  'fuelFlow',
  'fuelFlow2',
  'cht',
  'egt',
  'flap',
  'gear',
  'oilTemp',
  'oilPress',
  'volts',
  'amps',
] as const;
export type Channel = (typeof CHANNELS)[number];

export interface Gap {
  fromS: number;
  toS: number;
}
/**
 * A read file: seconds from its first good sample, one column a channel, NaN where nothing was recorded. Times rise
 * strictly.
 */
export interface Trace {
  format: 'csv' | 'gpx' | 'igc' | 'kml' | 'nmea';
  rows: number;
  rateHz: number;
  /** UTC instant of the first sample, ms; null when the file has a time of day or elapsed time only. */
  startUtcMs: number | null;
  tS: Float64Array;
  channels: Partial<Record<Channel, Float64Array>>;
  gaps: Gap[];
  warnings: Oddity[];
  /** Of a table: what each column was taken for. */
  columns?: ColumnTold[];
}
/** A column of a table, what it was taken for, by what, and how sure that is. */
export interface ColumnTold {
  header: string;
  /** A channel, or `time:` and its shape; null = not used. */
  as: string | null;
  by: 'name' | 'name-part' | 'values' | 'said' | null;
  /** 0 to 1; null of what is not used. */
  confidence: number | null;
  unit: string | null;
  unitBy: 'header' | 'values' | 'assumed' | 'said' | null;
}
export type ReadProblem = {
  ok: false;
  code: 'empty' | 'too-large' | 'not-a-trace' | 'no-position' | 'no-time' | 'dangerous' | 'columns';
  why: Unreadable;
  headers?: string[];
  /** Line of the file the reason is about, from 1. */
  line?: number;
};
export type ReadResult = { ok: true; trace: Trace } | ReadProblem;

/** Longer than this between two samples is a gap: nothing is invented across it. Seconds. */
export const GAP_S = 3;
/**
 * Further than this from the middle of the file a time is a slip, not a flight; and no calendar reaches beyond the
 * second.
 */
const FLIGHT_MS = 10 * 86_400_000;
const CALENDAR_MS = 8.64e15;
/** Closer than this two rows tell one time. */
const LEAST_STEP_MS = 1;
export const problem = (code: ReadProblem['code'], why: Unreadable, headers?: string[]): ReadProblem => ({
  ok: false,
  code,
  why,
  ...(headers ? { headers } : {}),
});

/** Notes of what was odd, counted by kind. */
export class Warnings {
  private readonly kept = new Map<string, Oddity>();
  add(what: OddCode, count = 1): void {
    const kind = what.code === 'unit-assumed' ? `${what.code} ${what.params.channel}` : what.code;
    const known = this.kept.get(kind);
    if (known) known.count += count;
    else this.kept.set(kind, { ...what, count });
  }
  list(): Oddity[] {
    return [...this.kept.values()];
  }
}

/** Some thousand values spread over a column: their middle is the column's. */
function spread(x: Float64Array): Float64Array {
  const each = Math.max(1, Math.floor(x.length / 4000));
  return each === 1
    ? x
    : Float64Array.from({ length: Math.ceil(x.length / each) }, (_, i) => x[i * each] ?? Number.NaN);
}

/**
 * Puts raw columns into a trace: rows without a time or, where positions exist, before the first position are left out;
 * repeated times and times that go back are dropped and counted; impossible positions become missing. @param timeMs
 * absolute or relative, NaN where unreadable
 */
export function assemble(
  format: Trace['format'],
  timeMs: Float64Array,
  columns: Partial<Record<Channel, Float64Array>>,
  absolute: boolean,
  warnings: Warnings,
): ReadResult {
  const n = timeMs.length;
  const { lat, lon } = columns;
  if (lat && lon) {
    let wrong = 0;
    for (let i = 0; i < n; i++) {
      const a = lat[i] ?? Number.NaN;
      const o = lon[i] ?? Number.NaN;
      if (Number.isNaN(a) && Number.isNaN(o)) continue;
      if (!(Math.abs(a) <= 90 && Math.abs(o) <= 180) || (a === 0 && o === 0)) {
        lat[i] = lon[i] = Number.NaN;
        wrong++;
      }
    }
    if (wrong > 0) warnings.add(odd('position-impossible'), wrong);
  }
  const middle = medianOf(spread(timeMs).filter((t) => Math.abs(t) <= CALENDAR_MS)) ?? Number.NaN;
  let noFlight = 0;
  const keep = new Int32Array(n);
  let kept = 0;
  let last = -Infinity;
  let noTime = 0;
  let repeated = 0;
  let back = 0;
  let begun = !lat || !lon;
  for (let i = 0; i < n; i++) {
    const t = timeMs[i] ?? Number.NaN;
    if (!Number.isFinite(t)) {
      noTime++;
      continue;
    }
    if (!(Math.abs(t - middle) <= FLIGHT_MS)) {
      noFlight++;
      continue;
    }
    if (!begun && !Number.isNaN(lat?.[i] ?? Number.NaN)) begun = true;
    if (!begun) continue;
    if (t < last) {
      back++;
      continue;
    }
    if (t - last < LEAST_STEP_MS) {
      repeated++;
      continue;
    }
    last = t;
    keep[kept++] = i;
  }
  if (noFlight > 0) warnings.add(odd('time-impossible'), noFlight);
  if (noTime > 0) warnings.add(odd('time-missing'), noTime);
  if (repeated > 0) warnings.add(odd('time-repeated'), repeated);
  if (back > 0) warnings.add(odd('time-back'), back);
  if (!lat || !lon) return problem('no-position', unreadable('no-position-columns'));
  if (kept < 2) return problem('empty', unreadable('few-rows'));
  const first = timeMs[keep[0] ?? 0] ?? 0;
  const tS = new Float64Array(kept);
  for (let i = 0; i < kept; i++) tS[i] = ((timeMs[keep[i] ?? 0] ?? 0) - first) / 1000;
  const channels: Trace['channels'] = {};
  for (const [name, column] of Object.entries(columns) as [Channel, Float64Array][]) {
    const out = new Float64Array(kept);
    let any = false;
    for (let i = 0; i < kept; i++) {
      const v = column[keep[i] ?? 0] ?? Number.NaN;
      out[i] = v;
      if (v === v) any = true;
    }
    if (any) channels[name] = out;
  }
  if (!channels.lat || !channels.lon) return problem('no-position', unreadable('no-positions'));
  const steps = new Float64Array(kept - 1);
  const gaps: Gap[] = [];
  for (let i = 1; i < kept; i++) {
    const step = (tS[i] ?? 0) - (tS[i - 1] ?? 0);
    steps[i - 1] = step;
    if (step > GAP_S) gaps.push({ fromS: tS[i - 1] ?? 0, toS: tS[i] ?? 0 });
  }
  if (gaps.length > 0) warnings.add(odd('gap', { seconds: GAP_S }), gaps.length);
  return {
    ok: true,
    trace: {
      format,
      rows: kept,
      rateHz: Math.round((1 / (medianOf(spread(steps)) ?? Number.NaN)) * 100) / 100,
      startUtcMs: absolute ? first : null,
      tS,
      channels,
      gaps,
      warnings: warnings.list(),
    },
  };
}
