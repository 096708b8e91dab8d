/**
 * Recordings of one flight made one: on the rows of the faster, each quantity from the sensor that knows it better, and
 * what one of them missed from the other.
 */
import { M_PER_DEG, cosDeg, medianOf, norm180, norm360 } from '../../constants';
import { calmNoise } from '../find/noise';
import { CHANNELS, type Channel, GAP_S, type Gap, type Trace } from '../read';
import { odd } from '../read-words';
import { type Aligned, type NotAligned, alignTraces } from './align';

export interface Merged {
  ok: true;
  trace: Trace;
  aligned: Aligned;
  /** Seconds of the merged recording at the zero of each. */
  startsS: readonly [number, number];
  /** Of each channel, which recording it is from: 0 the first, 1 the second. */
  from: Partial<Record<Channel, 0 | 1>>;
}

/** Angles, and how each is written. */
const ROUND: ReadonlyMap<Channel, (deg: number) => number> = new Map([
  ['lon', norm180],
  ['bank', norm180],
  ['track', norm360],
  ['headingMag', norm360],
  ['headingTrue', norm360],
]);
const STEPS: ReadonlySet<Channel> = new Set(['flap', 'gear']);
const PLACE: readonly Channel[] = ['lat', 'lon'];
/** Heights from the one that holds best to the one that wanders most; one of them is kept. */
const HEIGHTS: readonly Channel[] = ['altPressure', 'altMsl', 'altGps', 'altEllipsoid'];
/** A slower one between whose rows more than this many would be drawn says nothing of a touch. */
const DRAWN = 3;
/** Slower than this a load misses the knock it is recorded for, rows a second. */
const FELT_HZ = 3.5;
/** The slower one is taken only where it shakes less than this share of the faster. */
const PLAINLY = 0.5;

interface Source {
  trace: Trace;
  /** Seconds of the merged time at this recording's zero. */
  zeroS: number;
}

/** A column at a time of the merged recording; missing across a gap and where it was not recorded. */
function reader({ trace, zeroS }: Source, channel: Channel): (s: number) => number {
  const x = trace.channels[channel];
  let j = 0;
  return (s) => {
    const t = s - zeroS;
    if (!x || t < -1e-6 || t > (trace.tS[trace.rows - 1] ?? 0) + 1e-6) return Number.NaN;
    while (j > 0 && (trace.tS[j] ?? 0) > t) j--;
    while (j + 1 < trace.rows - 1 && (trace.tS[j + 1] ?? 0) <= t) j++;
    const [ta, tb] = [trace.tS[j] ?? 0, trace.tS[j + 1] ?? 0];
    const [a, b] = [x[j] ?? Number.NaN, x[j + 1] ?? Number.NaN];
    if (Math.abs(t - ta) < 1e-6) return a;
    if (Math.abs(t - tb) < 1e-6) return b;
    if (tb - ta > GAP_S) return Number.NaN;
    if (STEPS.has(channel)) return a;
    const w = (t - ta) / (tb - ta);
    return ROUND.get(channel)?.(a + norm180(b - a) * w) ?? a + (b - a) * w;
  };
}

/** What a column shakes by in a second: a fast one may be averaged. */
const shake = (t: Trace, channel: Channel): number => {
  const x = t.channels[channel];
  return x ? calmNoise(x) / Math.sqrt(Math.max(0.2, t.rateHz)) : Infinity;
};
function better(a: Trace, b: Trace, channel: Channel): 0 | 1 {
  if (!b.channels[channel]) return 0;
  if (!a.channels[channel]) return 1;
  // The first is the faster.
  return shake(b, channel) < PLAINLY * shake(a, channel) ? 1 : 0;
}

/** Whose rows are kept: the faster one's, and rather those that feel a touch. */
const worth = (t: Trace): number => t.rateHz * (t.channels.nz && t.rateHz >= FELT_HZ ? 3 : 1);
/** With a satellite's height under its own name: in a track file the height is one, in a table it seldom is. */
function plain(t: Trace): Trace {
  const { altMsl, ...rest } = t.channels;
  return t.format === 'csv' || !altMsl ? t : { ...t, channels: { ...rest, altGps: rest.altGps ?? altMsl } };
}

/** Times of the merged recording: those of the first, and the second's where the first has none. */
function timesOf(a: Source, b: Source): number[] {
  const covered = a.trace.gaps.map((g) => ({ from: g.fromS + a.zeroS, to: g.toS + a.zeroS }));
  const [first, last] = [a.zeroS + (a.trace.tS[0] ?? 0), a.zeroS + (a.trace.tS[a.trace.rows - 1] ?? 0)];
  const extra: number[] = [];
  for (const t of b.trace.tS) {
    const s = t + b.zeroS;
    if (s < first - 0.5 || s > last + 0.5 || covered.some((g) => s > g.from + 0.5 && s < g.to - 0.5)) extra.push(s);
  }
  return [...Array.from(a.trace.tS, (t) => t + a.zeroS), ...extra].sort((x, y) => x - y);
}

/**
 * One recording out of two of the same flight. The rows are the faster one's, with the other's where it has none; a
 * quantity both recorded is the faster one's unless the other shakes plainly less; of several heights the one that holds
 * best is kept. Nothing is invented where neither recorded.
 * @returns the merged recording, where each quantity is from, and how the two were aligned; or why they are not one
 * @example
 * mergeTraces(panel, tablet)
 * // { ok: true, trace: { rows: 36210, ... }, from: { lat: 1, ias: 0 }, aligned: { offsetS: 12.4, ... } }
 */
export function mergeTraces(one: Trace, two: Trace): Merged | NotAligned {
  const aligned = alignTraces(one, two);
  if (!aligned.ok) return aligned;
  const swapped = worth(two) > 1.2 * worth(one);
  const [a, b]: [Source, Source] = swapped
    ? [
        { trace: plain(two), zeroS: aligned.offsetS },
        { trace: plain(one), zeroS: 0 },
      ]
    : [
        { trace: plain(one), zeroS: 0 },
        { trace: plain(two), zeroS: aligned.offsetS },
      ];
  const times = timesOf(a, b);
  const zero = times[0] ?? 0;
  const tS = Float64Array.from(times, (t) => t - zero);
  const slow = b.trace.rateHz * DRAWN < a.trace.rateHz;
  const height =
    (slow ? HEIGHTS.find((c) => a.trace.channels[c]) : undefined) ??
    HEIGHTS.find((c) => a.trace.channels[c] ?? b.trace.channels[c]);
  const place = better({ ...a.trace, channels: inMetres(a.trace) }, { ...b.trace, channels: inMetres(b.trace) }, 'lat');
  const from: Merged['from'] = {};
  const channels: Trace['channels'] = {};
  for (const channel of CHANNELS) {
    if (!a.trace.channels[channel] && !b.trace.channels[channel]) continue;
    if (HEIGHTS.includes(channel) && channel !== height) continue;
    // Drawn between slow rows, a load would show knocks as nobody felt them.
    const drawn = channel === 'nz' && slow && b.trace.rateHz < FELT_HZ;
    if (drawn && !a.trace.channels.nz) continue;
    const chosen = drawn ? 0 : PLACE.includes(channel) ? place : better(a.trace, b.trace, channel);
    const [main, spare] = chosen === 0 ? [a, b] : [b, a];
    const isHeight = HEIGHTS.includes(channel);
    // Any height does where this one is missing: what the two differ by is taken away.
    const stands = isHeight ? (HEIGHTS.find((c) => spare.trace.channels[c]) ?? channel) : channel;
    const column = Float64Array.from(times, reader(main, channel));
    fillIn(column, times, reader(spare, stands), isHeight);
    channels[channel] = column;
    from[channel] = swapped ? ((1 - chosen) as 0 | 1) : chosen;
  }
  const gaps: Gap[] = [];
  for (let i = 1; i < tS.length; i++)
    if ((tS[i] ?? 0) - (tS[i - 1] ?? 0) > GAP_S) gaps.push({ fromS: tS[i - 1] ?? 0, toS: tS[i] ?? 0 });
  const base = one.startUtcMs ?? (two.startUtcMs === null ? null : two.startUtcMs - 1000 * aligned.offsetS);
  // A gap told by one of them is told again only where both have it.
  const said = [...one.warnings, ...two.warnings].filter((w) => w.code !== 'gap');
  const warnings = gaps.length > 0 ? [...said, { ...odd('gap', { seconds: GAP_S }), count: gaps.length }] : said;
  return {
    ok: true,
    aligned,
    startsS: [Math.round(-zero * 100) / 100, Math.round((aligned.offsetS - zero) * 100) / 100],
    from,
    trace: {
      format: 'csv',
      rows: tS.length,
      rateHz: a.trace.rateHz,
      startUtcMs: base === null ? null : base + 1000 * zero,
      tS,
      channels,
      gaps,
      warnings,
    },
  };
}

/** Where a column is missing, the other's; a height moved by what the two differ where both are. */
function fillIn(column: Float64Array, times: readonly number[], fill: (s: number) => number, level: boolean): void {
  const other = Float64Array.from(times, fill);
  let off = 0;
  if (level) {
    const both = Array.from(column, (v, i) => v - (other[i] ?? Number.NaN)).filter((d) => d === d);
    const middle = medianOf(both);
    if (middle === null) return;
    off = middle;
  }
  for (let i = 0; i < column.length; i++)
    if (Number.isNaN(column[i] ?? Number.NaN)) column[i] = (other[i] ?? Number.NaN) + off;
}

/** A latitude as metres, for its noise. */
function inMetres(t: Trace): Trace['channels'] {
  const { lat, lon } = t.channels;
  if (!lat || !lon) return {};
  const [lat0, scale] = [lat[0] ?? 0, cosDeg(lat[0] ?? 0)];
  const [lon0] = lon;
  return { lat: lat.map((v, i) => (v - lat0 + norm180((lon[i] ?? 0) - (lon0 ?? 0)) * scale) * M_PER_DEG) };
}
