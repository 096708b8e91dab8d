/**
 * Two recordings of one flight against each other: by how much the clock of one is off the other's. Their tracks are laid
 * over each other at every lag, positions and velocities; the lag is then sharpened between whole seconds, and its
 * uncertainty is what parts of the flight say apart from each other.
 */
import { M_PER_DEG, cosDeg, median, norm180 } from '../../constants';
import type { Trace } from '../read';

export interface Aligned {
  ok: true;
  /** Seconds of the first recording at the second's zero. */
  offsetS: number;
  /** One sigma. */
  sdS: number;
  /** Of the velocities, 0 to 1. */
  correlation: number;
  overlapS: number;
  /** Between the two positions once aligned, the middle one, metres. */
  apartM: number;
  /** By how much the second's clock is ahead, seconds; null where one of them has no date. */
  clockAheadS: number | null;
}
export type NotAligned = { ok: false; code: 'no-overlap' | 'not-one-flight' | 'not-plain' };

/** Slower than this a velocity says nothing, m/s. */
const MOVING_MS = 8;
/** Flying seen by both, at least, seconds. */
const LEAST_S = 120;
const LEAST_CORRELATION = 0.97;
/** At any other lag they must be this much further apart, and these metres. */
const STANDS_OUT = 1.5;
const RIVAL_M = 25;
/** Further apart than this is as good as anywhere, metres. */
const CLIPPED_M = 1500;
/** Two receivers in one aeroplane are never further apart, metres. */
const MOST_APART_M = 60;
/** Lags this close are the same peak, seconds. */
const SAME_PEAK_S = 15;
const SHORT_GAP_S = 3;

/** Positions so many times a second, by the line between the rows on either side; missing across a gap. Metres. */
interface Course {
  n: number;
  hz: number;
  east: Float64Array;
  north: Float64Array;
}
function courseOf(t: Trace, lat0: number, lon0: number, hz: number): Course {
  const { lat, lon } = t.channels;
  const n = Math.max(1, Math.floor((t.tS[t.rows - 1] ?? 0) * hz) + 1);
  const east = new Float64Array(n).fill(Number.NaN);
  const north = new Float64Array(n).fill(Number.NaN);
  const scale = M_PER_DEG * cosDeg(lat0);
  let j = 0;
  for (let k = 0; k < n; k++) {
    const s = k / hz;
    while (j + 1 < t.rows - 1 && (t.tS[j + 1] ?? 0) < s) j++;
    const [ta, tb] = [t.tS[j] ?? 0, t.tS[j + 1] ?? 0];
    if (!(tb > ta) || tb - ta > SHORT_GAP_S) continue;
    const w = (s - ta) / (tb - ta);
    const at = (x: Float64Array | undefined, zero: number) => {
      const [a, b] = [norm180((x?.[j] ?? Number.NaN) - zero), norm180((x?.[j + 1] ?? Number.NaN) - zero)];
      return a + (b - a) * w;
    };
    north[k] = at(lat, lat0) * M_PER_DEG;
    east[k] = at(lon, lon0) * scale;
  }
  return { n, hz, east, north };
}
/** Metres a second over two seconds about each moment; nought where it hardly moves or is not known. */
function velocity(x: Float64Array, hz: number): Float64Array {
  const r = Math.max(1, hz);
  return x.map((_, i) => {
    const d = (x[i + r] ?? Number.NaN) - (x[i - r] ?? Number.NaN);
    return d === d ? (d * hz) / (2 * r) : Number.NaN;
  });
}

interface Lag {
  lag: number;
  /** Between the two while both move: root of the mean square, a slip of a receiver clipped, metres. */
  metres: number;
  /** Of the velocities, -1 to 1. */
  correlation: number;
  seconds: number;
}
/** Every lag at which both fly long enough, the nearest first. */
function lags(a: Course, b: Course, around: number | null): Lag[] {
  const [ae, an] = [velocity(a.east, a.hz), velocity(a.north, a.hz)];
  const [be, bn] = [velocity(b.east, b.hz), velocity(b.north, b.hz)];
  const least = LEAST_S * a.hz;
  const out: Lag[] = [];
  const [from, to] = around === null ? [least - b.n, a.n - least] : [around - 30 * a.hz, around + 30 * a.hz];
  for (let lag = Math.ceil(from); lag <= to; lag++) {
    let [ab, aa, bb, square, n] = [0, 0, 0, 0, 0];
    for (let i = Math.max(0, lag); i < Math.min(a.n, lag + b.n); i++) {
      const j = i - lag;
      const [x, y, u, v] = [ae[i] ?? 0, an[i] ?? 0, be[j] ?? 0, bn[j] ?? 0];
      const p = x * u + y * v;
      const [va, vb] = [x * x + y * y, u * u + v * v];
      const d = ((a.east[i] ?? 0) - (b.east[j] ?? 0)) ** 2 + ((a.north[i] ?? 0) - (b.north[j] ?? 0)) ** 2;
      if (p !== p || d !== d || (va < MOVING_MS ** 2 && vb < MOVING_MS ** 2)) continue;
      ab += p;
      aa += va;
      bb += vb;
      square += Math.min(d, CLIPPED_M ** 2);
      n++;
    }
    if (n >= least)
      out.push({ lag, metres: Math.sqrt(square / n), correlation: ab / Math.sqrt(aa * bb), seconds: n / a.hz });
  }
  return out.sort((x, y) => x.metres - y.metres);
}

/** Middle of the squares of the distance at a lag, the steady part of it taken away, over a stretch of the first. */
function misfit(a: Course, b: Course, lagS: number, from: number, to: number): { m2: number; apartM: number } | null {
  const de: number[] = [];
  const dn: number[] = [];
  const each = Math.max(1, Math.floor((to - from) / 1500));
  for (let i = from; i < to; i += each) {
    const s = i / a.hz - lagS;
    const k = Math.floor(s * b.hz);
    const w = s * b.hz - k;
    if (k < 0 || k + 1 >= b.n) continue;
    const e = (b.east[k] ?? 0) * (1 - w) + (b.east[k + 1] ?? 0) * w - (a.east[i] ?? 0);
    const n = (b.north[k] ?? 0) * (1 - w) + (b.north[k + 1] ?? 0) * w - (a.north[i] ?? 0);
    const speed = Math.hypot((a.east[i + 1] ?? 0) - (a.east[i] ?? 0), (a.north[i + 1] ?? 0) - (a.north[i] ?? 0)) * a.hz;
    if (e !== e || n !== n || !(speed > MOVING_MS)) continue;
    de.push(e);
    dn.push(n);
  }
  if (de.length < 30) return null;
  const [me, mn] = [median(de), median(dn)];
  const squares = de.map((e, i) => (e - me) ** 2 + ((dn[i] ?? 0) - mn) ** 2).sort((x, y) => x - y);
  // The furthest tenth are slips of a receiver.
  const kept = squares.slice(0, Math.ceil(0.9 * squares.length));
  return { m2: kept.reduce((x, y) => x + y, 0) / kept.length, apartM: Math.hypot(me, mn) + Math.sqrt(median(squares)) };
}
/** The lag of least misfit near one, by thirds; NaN where there is nothing to fit. */
function sharpened(a: Course, b: Course, nearS: number, from: number, to: number): number {
  let [low, high] = [nearS - 2.5, nearS + 2.5];
  for (let round = 0; round < 14; round++) {
    const [x, y] = [low + (high - low) / 3, high - (high - low) / 3];
    const [fx, fy] = [misfit(a, b, x, from, to), misfit(a, b, y, from, to)];
    if (!fx || !fy) return Number.NaN;
    if (fx.m2 < fy.m2) high = y;
    else low = x;
  }
  return (low + high) / 2;
}

/**
 * By how much one recording of a flight is off another in time. Their clocks are believed only as a place to look first:
 * a clock may be an hour off, or have no date at all.
 *
 * Method: the lag of least mean square distance, held against the normalised cross-correlation of the velocities; then
 * least squares between the seconds.
 * @param a recording whose time is kept
 * @param b recording to be set against it
 * @returns offset in seconds with its sigma, or why the two do not belong together
 * @example
 * alignTraces(trace, trace)
 * // { ok: true, offsetS: 0, sdS: 0.2, correlation: 1, apartM: 0, ... }
 */
export function alignTraces(a: Trace, b: Trace): Aligned | NotAligned {
  const lat0 = a.channels.lat?.find((v) => v === v) ?? 0;
  const lon0 = a.channels.lon?.find((v) => v === v) ?? 0;
  const longest = Math.max(a.tS[a.rows - 1] ?? 0, b.tS[b.rows - 1] ?? 0);
  // Of a long flight every other second finds the peak as well.
  const coarse = longest > 5000 ? 0.5 : 1;
  const [ca, cb] = [courseOf(a, lat0, lon0, coarse), courseOf(b, lat0, lon0, coarse)];
  const byClock = a.startUtcMs === null || b.startUtcMs === null ? null : (b.startUtcMs - a.startUtcMs) / 1000;
  const clocks = byClock !== null && Math.abs(byClock) < 86_400;
  const near = clocks ? lags(ca, cb, Math.round(byClock * coarse)) : [];
  const fits = (l: Lag | undefined): l is Lag =>
    l !== undefined && l.metres < MOST_APART_M + 40 / coarse && l.correlation > LEAST_CORRELATION;
  const found = fits(near[0]) ? near : lags(ca, cb, null);
  const [best] = found;
  if (!best) return { ok: false, code: 'no-overlap' };
  if (!fits(best)) return { ok: false, code: 'not-one-flight' };
  const rival = found.find((l) => Math.abs(l.lag - best.lag) > SAME_PEAK_S * coarse);
  if (found !== near && rival && rival.metres < STANDS_OUT * best.metres + RIVAL_M)
    return { ok: false, code: 'not-plain' };
  const [fa, fb] = [courseOf(a, lat0, lon0, 4), courseOf(b, lat0, lon0, 4)];
  const nearS = best.lag / coarse;
  const offsetS = sharpened(fa, fb, nearS, 0, fa.n);
  const fit = misfit(fa, fb, offsetS, 0, fa.n);
  if (!fit || !(fit.apartM < MOST_APART_M)) return { ok: false, code: 'not-one-flight' };
  const [from, to] = [Math.max(0, offsetS * fa.hz), Math.min(fa.n, (offsetS + fb.n / fb.hz) * fa.hz)];
  const parts = Array.from({ length: PARTS }, (_, k) =>
    sharpened(
      fa,
      fb,
      offsetS,
      Math.round(from + ((to - from) * k) / PARTS),
      Math.round(from + ((to - from) * (k + 1)) / PARTS),
    ),
  ).filter(Number.isFinite);
  const middle = parts.length > 1 ? median(parts) : offsetS;
  const spread = parts.length > 2 ? 1.4826 * median(parts.map((p) => Math.abs(p - middle))) : LONE_SD_S;
  return {
    ok: true,
    offsetS,
    sdS: Math.hypot(LEAST_SD_S, spread / Math.sqrt(Math.max(1, parts.length))),
    correlation: best.correlation,
    overlapS: best.seconds,
    apartM: fit.apartM,
    clockAheadS: clocks ? byClock - offsetS : null,
  };
}
const PARTS = 6;
/** Two receivers are not late by the same: no position tells this from a clock. */
const LEAST_SD_S = 0.2;
const LONE_SD_S = 0.5;
