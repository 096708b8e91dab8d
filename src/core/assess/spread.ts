/**
 * Where landings lie and where they are going: bias, spread, trend, control limits, whose they were. Metres, degrees,
 * knots as given.
 */
import { slopesOf } from './slopes';
import { needNumbers } from '../guard';
import { SLACK, median, medianOf } from '../constants';
import { normalQuantile, tQuantile } from './distributions';

type Seen = number | null | undefined;
const known = (xs: readonly Seen[]): number[] =>
  xs.filter((x): x is number => typeof x === 'number' && Number.isFinite(x));
const meanOf = (xs: readonly number[]): number => xs.reduce((a, b) => a + b, 0) / xs.length;

export interface Bias {
  n: number;
  mean: number | null;
  sd: number | null;
  lower: number | null;
  upper: number | null;
  flag: boolean;
}
/**
 * Mean with its t interval. Flagged when the interval excludes 0 and the mean is beyond the practical size.
 * Source: Student's t interval about the mean.
 * @param values in one unit; null is skipped
 * @param practicalSize smallest mean worth a word, same unit, >= 0
 * @returns no interval with fewer than two values
 * @throws BadNumber when a number handed in is none
 * @example bias([0, 0], 1) // { n: 2, mean: 0, sd: 0, lower: 0, upper: 0, flag: false }
 */
export function bias(values: readonly Seen[], practicalSize: number, confidence = 0.95): Bias {
  needNumbers('bias', { values, practicalSize, confidence });
  const xs = known(values);
  const n = xs.length;
  if (n === 0) return { n, mean: null, sd: null, lower: null, upper: null, flag: false };
  const mean = meanOf(xs);
  if (n < 2) return { n, mean, sd: null, lower: null, upper: null, flag: false };
  const sd = Math.sqrt(xs.reduce((a, x) => a + (x - mean) ** 2, 0) / (n - 1));
  const half = (tQuantile((1 + confidence) / 2, n - 1) * sd) / Math.sqrt(n);
  const [lower, upper] = [mean - half, mean + half];
  return { n, mean, sd, lower, upper, flag: (lower > 0 || upper < 0) && Math.abs(mean) > practicalSize };
}

export interface TouchdownSpread {
  n: number;
  meanLateralM: number | null;
  meanAlongM: number | null;
  medianLateralM: number | null;
  medianAlongM: number | null;
  madLateralM: number | null;
  madAlongM: number | null;
  /**
   * Half axes of the 1-sigma ellipse, which holds 39 % in two dimensions; the 2-sigma one is twice as large and holds
   * 86 %.
   */
  majorSd: number | null;
  minorSd: number | null;
  /** From along the runway, positive towards the right, in (-90, 90]; null for a circle. */
  majorAngleDeg: number | null;
}
/**
 * Touchdown spread: means, medians, median absolute deviations and the covariance ellipse (classical, n-1; the medians
 * are the robust part).
 * Source: median, median absolute deviation and the axes of the covariance.
 * @param lateralM right of the line positive; @param alongM beyond the touchdown point positive; a pair with a null is skipped
 * @returns metres, with counts; null statistics where too few landings were measured
 * @throws BadNumber when a number handed in is none
 */
export function touchdownSpread(lateralM: readonly Seen[], alongM: readonly Seen[]): TouchdownSpread {
  needNumbers('touchdownSpread', { lateralM, alongM });
  const pairs = lateralM.flatMap((x, i): [number, number][] => {
    const y = alongM[i];
    return typeof x === 'number' && typeof y === 'number' ? [[x, y]] : [];
  });
  const n = pairs.length;
  const xs = pairs.map(([x]) => x);
  const ys = pairs.map(([, y]) => y);
  const [mx, my] = [medianOf(xs), medianOf(ys)];
  const base = {
    n,
    meanLateralM: n ? meanOf(xs) : null,
    meanAlongM: n ? meanOf(ys) : null,
    medianLateralM: mx,
    medianAlongM: my,
    madLateralM: mx === null ? null : medianOf(xs.map((x) => Math.abs(x - mx))),
    madAlongM: my === null ? null : medianOf(ys.map((y) => Math.abs(y - my))),
  };
  if (n < 3) return { ...base, majorSd: null, minorSd: null, majorAngleDeg: null };
  const [ax, ay] = [meanOf(xs), meanOf(ys)];
  const cov = (f: (p: [number, number]) => number) => pairs.reduce((a, p) => a + f(p), 0) / (n - 1);
  const sxx = cov(([x]) => (x - ax) ** 2);
  const syy = cov(([, y]) => (y - ay) ** 2);
  const sxy = cov(([x, y]) => (x - ax) * (y - ay));
  const half = Math.hypot((sxx - syy) / 2, sxy);
  const mid = (sxx + syy) / 2;
  const angle = half < SLACK ? null : (0.5 * Math.atan2(2 * sxy, syy - sxx) * 180) / Math.PI;
  return {
    ...base,
    majorSd: Math.sqrt(Math.max(0, mid + half)),
    minorSd: Math.sqrt(Math.max(0, mid - half)),
    majorAngleDeg: angle === null ? null : angle <= -90 + SLACK ? 90 : angle,
  };
}

/**
 * Points of an ellipse of `sigma` standard deviations, for drawing: [lateral, along] in metres. Empty without an
 * ellipse.
 * @returns metres
 * @throws BadNumber when a number handed in is none
 */
export function ellipsePoints(s: TouchdownSpread, sigma: number, steps = 60): [number, number][] {
  needNumbers('ellipsePoints', { s, sigma, steps });
  const { majorSd, minorSd, meanLateralM, meanAlongM } = s;
  if (majorSd === null || minorSd === null || meanLateralM === null || meanAlongM === null) return [];
  const a = ((s.majorAngleDeg ?? 0) * Math.PI) / 180;
  return Array.from({ length: steps + 1 }, (_, i): [number, number] => {
    const t = (2 * Math.PI * i) / steps;
    const [u, v] = [sigma * majorSd * Math.cos(t), sigma * minorSd * Math.sin(t)];
    return [meanLateralM + u * Math.sin(a) + v * Math.cos(a), meanAlongM + u * Math.cos(a) - v * Math.sin(a)];
  });
}

export interface Trend {
  slope: number | null;
  intercept: number | null;
  lower: number | null;
  upper: number | null;
}
/**
 * Theil-Sen: the median of all pair slopes, with Sen's interval (rank based, ties allowed for).
 * Source: Theil (1950) and Sen (1968): the median of all pairwise slopes.
 * @param y null is skipped with its x
 * @returns all null when no two points have different x
 * @throws BadNumber when a number handed in is none
 * @example theilSen([0, 1, 2], [1, 1, 1]) // { slope: 0, intercept: 1, lower: 0, upper: 0 }
 */
export function theilSen(x: readonly number[], y: readonly Seen[], confidence = 0.95): Trend {
  needNumbers('theilSen', { x, y, confidence });
  const points = x.flatMap((a, i): [number, number][] => {
    const b = y[i];
    return typeof b === 'number' ? [[a, b]] : [];
  });
  const n = points.length;
  const slopes = slopesOf(
    points.map((p) => p[0]),
    points.map((p) => p[1]),
  );
  const { count } = slopes;
  if (count === 0) return { slope: null, intercept: null, lower: null, upper: null };
  const slope = (slopes.at(Math.floor((count - 1) / 2)) + slopes.at(Math.ceil((count - 1) / 2))) / 2;
  const tied = (of: number[]) => {
    const c = new Map<number, number>();
    for (const v of of) c.set(v, (c.get(v) ?? 0) + 1);
    return [...c.values()].reduce((s, k) => s + k * (k - 1) * (2 * k + 5), 0);
  };
  const variance = (n * (n - 1) * (2 * n + 5) - tied(points.map((p) => p[0])) - tied(points.map((p) => p[1]))) / 18;
  const c = normalQuantile((1 + confidence) / 2) * Math.sqrt(Math.max(0, variance));
  const round = (v: number) => Math.floor(v + 0.5);
  return {
    slope,
    intercept: median(points.map((p) => p[1])) - slope * median(points.map((p) => p[0])),
    lower: slopes.at(Math.max(0, round((count - c) / 2) - 1)),
    upper: slopes.at(Math.min(count - 1, round((count + c) / 2))),
  };
}

export interface EwmaPoint {
  z: number;
  lower: number;
  upper: number;
  signal: boolean;
}
/**
 * Exponentially weighted mean with its control limits. A null repeats the last point and does not count on. @param
 * sigma sd of one value
 * @returns smoothed values with their limits, and the first index outside them
 * @throws BadNumber when a number handed in is none
 */
export function ewma(
  values: readonly Seen[],
  centre: number,
  sigma: number,
  lam = 0.3,
  limitL = 3,
): { points: EwmaPoint[]; firstSignal: number | null } {
  needNumbers('ewma', { values, centre, sigma, lam, limitL });
  let z = centre;
  let i = 0;
  const points = values.map((x): EwmaPoint => {
    if (typeof x === 'number') {
      z = lam * x + (1 - lam) * z;
      i++;
    }
    const half = limitL * sigma * Math.sqrt((lam / (2 - lam)) * (1 - (1 - lam) ** (2 * i)));
    return { z, lower: centre - half, upper: centre + half, signal: z < centre - half || z > centre + half };
  });
  const first = points.findIndex((p) => p.signal);
  return { points, firstSignal: first < 0 ? null : first };
}

/** The pilot's part of a landing at each level of intervention, as the debrief weighs it. */
export const PILOTS_PART = [1, 0.75, 0.25, 0] as const;
/**
 * How much of the flying was the pilot's: mean weight over landings with a level.
 * @returns landings counted, the sum of weights and their mean 0 to 1; null without one
 * @throws BadNumber when a number handed in is none
 */
export function authorship(
  levels: readonly (number | null)[],
  weights: readonly number[] | Readonly<Record<string, number>> = PILOTS_PART,
): { counted: number; sum: number; share: number | null } {
  needNumbers('authorship', { levels, weights });
  const at = weights as Readonly<Record<string, number>>;
  const parts = levels.flatMap((l) => (l === null ? [] : [at[String(l)] ?? 0]));
  const sum = parts.reduce((a, b) => a + b, 0);
  return { counted: parts.length, sum, share: parts.length === 0 ? null : sum / parts.length };
}
