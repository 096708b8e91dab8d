/**
 * How slowly an approach can be flown and still be rounded out: what the wing gives, what the round-out needs, and the
 * speed that trials at height support. Knots calibrated; ft/min down. A trial result is never a gate.
 */
import { FT_PER_MIN_PER_MS, G_MS2, M_PER_FT } from '../constants';
import { needNumbers, needPositive } from '../guard';

/**
 * Load factor wing and elevator can give in the flare: (V/Vs)²·(1 + k·T/W), at most what the elevator holds.
 * @param i speeds of one kind, the stall in this configuration with power off; `powerLiftK` and `elevatorLimitN` of the
 * sheet, the latter null where it has none
 * @returns null without speed or stall speed
 * @throws BadNumber when a number handed in is none
 * @example
 * loadAvailable({ speedKt: 42, stallSpeedKt: 33, thrustToWeight: 0.08, powerLiftK: 1.2, elevatorLimitN: 1.45 })
 * // { nAvail: 1.45, limitedBy: 'elevator' }
 */
export function loadAvailable(i: {
  speedKt: number;
  stallSpeedKt: number;
  thrustToWeight: number;
  powerLiftK: number;
  elevatorLimitN: number | null;
}): { nAvail: number | null; limitedBy: 'wing' | 'elevator' | null } {
  needNumbers('loadAvailable', i);
  if (i.speedKt <= 0 || i.stallSpeedKt <= 0) return { nAvail: null, limitedBy: null };
  const wing = (i.speedKt / i.stallSpeedKt) ** 2 * (1 + i.powerLiftK * i.thrustToWeight);
  return i.elevatorLimitN !== null && i.elevatorLimitN < wing
    ? { nAvail: i.elevatorLimitN, limitedBy: 'elevator' }
    : { nAvail: wing, limitedBy: 'wing' };
}

/**
 * Load factor that rounds a sink out within a height: 1 + w²/(2·g·h).
 * @param sinkFpm positive down; an upward one needs nothing
 * @param roundOutHeightFt from the first pull to level
 * @returns null without height
 * @throws BadNumber when a number handed in is none
 * @example
 * loadNeeded(800, 12) // 1.23023
 */
export function loadNeeded(sinkFpm: number, roundOutHeightFt: number): number | null {
  needNumbers('loadNeeded', { sinkFpm, roundOutHeightFt });
  if (roundOutHeightFt <= 0) return null;
  return 1 + (Math.max(0, sinkFpm) / FT_PER_MIN_PER_MS) ** 2 / (2 * G_MS2 * roundOutHeightFt * M_PER_FT);
}

export const ARRESTS = ['fully', 'partly', 'not'] as const;
/** One trial at height; the flap is the same in all of a sheet. What was not noted is null. */
export interface SlowTrial {
  speedKt: number | null;
  /** 0 idle to 1 full. */
  powerShare: number | null;
  arrested: (typeof ARRESTS)[number] | null;
}
export type SlowRefusal =
  | 'too-few-trials'
  | 'one-outcome'
  | 'no-idle-trial'
  | 'speed-has-no-effect'
  | 'bound-never-reached'
  | 'extrapolation'
  | 'too-few-arrests-below';
export interface SlowFit {
  refused: boolean;
  reason: SlowRefusal | null;
  /** Of a constant, of the speed and of the power, as scaled in here. */
  coefficients: [number, number, number] | null;
  /** Where the fitted chance itself is 99 %. */
  speed99Kt: number | null;
  /** Where its lower 90 % bound is. */
  lowerBoundSpeedKt: number | null;
  floorKt: number;
  trialResultKt: number | null;
  governedBy: 'trials' | 'floor' | null;
  trialsUsed: number;
  arrestedCount: number;
  arrestedAtOrBelow: number | null;
}
const LEAST_TRIALS = 5;
const LEAST_ARRESTS = 3;
/** Without a speed of the handbook the floor is this much of the stall. */
const FLOOR_OF_STALL = 1.2;
/** Chance of a full arrest that is asked, as a logit. */
const ASKED = Math.log(99);
/** One-sided 90 % of a normal distribution. */
const Z90 = 1.2815515655446004;
const PRIOR_SD = [5, 2.5, 2.5] as const;
const SPEED_ABOUT = 1.2;
const SPEED_SCALE = 0.1;
const POWER_ABOUT = 0.3;
const POWER_SCALE = 0.2;
const SLACK_RANGE = 1e-9;

type V3 = [number, number, number];
type M3 = [V3, V3, V3];
const dot = (a: V3, b: V3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** Inverse of a symmetric, positive matrix, by cofactors. */
function inverse([[a, b, c], [, d, e], [, , f]]: M3): M3 {
  const [A, B, C] = [d * f - e * e, c * e - b * f, b * e - c * d];
  const det = a * A + b * B + c * C;
  const [D, E, F] = [a * f - c * c, b * c - a * e, a * d - b * b];
  return [
    [A / det, B / det, C / det],
    [B / det, D / det, E / det],
    [C / det, E / det, F / det],
  ];
}
const times = (m: M3, v: V3): V3 => [dot(m[0], v), dot(m[1], v), dot(m[2], v)];
interface Row {
  z: V3;
  yes: boolean;
}
function likelihood(rows: readonly Row[], b: V3): number {
  // ln(1 + e^x) without overflow.
  const soft = (x: number) => Math.max(0, x) + Math.log1p(Math.exp(-Math.abs(x)));
  const data = rows.reduce((a, r) => a + (r.yes ? dot(b, r.z) : 0) - soft(dot(b, r.z)), 0);
  return data - b.reduce((a, x, j) => a + (x / (PRIOR_SD[j] ?? 1)) ** 2 / 2, 0);
}
/** The most likely coefficients and their covariance: Newton's method on a function with one maximum. */
function fitted(rows: readonly Row[]): { b: V3; covariance: M3 } {
  let b: V3 = [0, 0, 0];
  const curved = (at: V3): { slope: V3; covariance: M3 } => {
    const slope: V3 = [0, 0, 0];
    const h: M3 = [
      [0, 0, 0],
      [0, 0, 0],
      [0, 0, 0],
    ];
    for (const { z, yes } of rows) {
      const p = 1 / (1 + Math.exp(-dot(at, z)));
      for (const j of [0, 1, 2] as const) {
        slope[j] += z[j] * ((yes ? 1 : 0) - p);
        for (const k of [0, 1, 2] as const) h[j][k] += p * (1 - p) * z[j] * z[k];
      }
    }
    for (const j of [0, 1, 2] as const) {
      slope[j] -= at[j] / PRIOR_SD[j] ** 2;
      h[j][j] += 1 / PRIOR_SD[j] ** 2;
    }
    return { slope, covariance: inverse(h) };
  };
  for (let k = 0; k < 200; k++) {
    const { slope, covariance } = curved(b);
    let step = times(covariance, slope);
    const now = likelihood(rows, b);
    const next = (): V3 => [b[0] + step[0], b[1] + step[1], b[2] + step[2]];
    for (let half = 0; half < 60 && likelihood(rows, next()) < now; half++)
      step = [step[0] / 2, step[1] / 2, step[2] / 2];
    b = next();
    if (Math.hypot(...step) < 1e-10) break;
  }
  return { b, covariance: curved(b).covariance };
}
/** Scaled speed at which the lower bound of the chance first is what is asked; null where it never is. */
function boundAt({ b, covariance: c }: ReturnType<typeof fitted>, power: number): number | null {
  const a = b[0] + b[2] * power - ASKED;
  const z2 = Z90 * Z90;
  const square = b[1] ** 2 - z2 * c[1][1];
  const half = a * b[1] - z2 * (c[0][1] + c[1][2] * power);
  const rest = a * a - z2 * (c[0][0] + 2 * c[0][2] * power + c[2][2] * power ** 2);
  const inside = half * half - square * rest;
  if (inside < 0) return null;
  const roots =
    Math.abs(square) < 1e-14
      ? [-rest / (2 * half)]
      : [(-half - Math.sqrt(inside)) / square, (-half + Math.sqrt(inside)) / square];
  const real = roots.filter((z) => Number.isFinite(z) && a + b[1] * z >= 0);
  return real.length === 0 ? null : Math.min(...real);
}

const scaledPoint = (t: { speedKt: number; powerShare: number }, stallSpeedKt: number): V3 => [
  1,
  (t.speedKt / stallSpeedKt - SPEED_ABOUT) / SPEED_SCALE,
  (t.powerShare - POWER_ABOUT) / POWER_SCALE,
];
/** Trials that lack nothing. */
const usable = (trials: readonly SlowTrial[]): { speedKt: number; powerShare: number; yes: boolean }[] =>
  trials.flatMap(({ speedKt, powerShare, arrested }) =>
    speedKt !== null && powerShare !== null && arrested !== null && ARRESTS.includes(arrested)
      ? { speedKt, powerShare, yes: arrested === 'fully' }
      : [],
  );

/**
 * The slowest approach speed that trials at height support, at one power: where the lower 90 % bound of the chance of a
 * full arrest reaches 99 %, never below the handbook's speed or, without one, 1.2 of the stall, gust added. Partly counts
 * as not arrested. Refused, with the first reason that holds, rather than guessed; what is computed by then is given.
 * Source: logistic regression on V/Vs and power with a weak normal prior; delta method on the logit.
 * @param trials rows lacking something are left out
 * @param asked stall speed with the same flap, power off, at today's mass; the power it is asked for, 0 to 1; the
 * handbook's speed or null; what is added for gusts
 * @throws BadNumber when a number handed in is none, or the stall speed is not above 0
 * @example
 * slowestApproach(fourTrials, { stallSpeedKt: 33, powerShare: 0.3, handbookSpeedKt: null, gustAdditiveKt: 0 })
 * // { refused: true, reason: 'too-few-trials', floorKt: 39.6, trialsUsed: 4, … }
 */
export function slowestApproach(
  trials: readonly SlowTrial[],
  asked: { stallSpeedKt: number; powerShare: number; handbookSpeedKt: number | null; gustAdditiveKt: number },
): SlowFit {
  needNumbers('slowestApproach', { trials, asked });
  needPositive('slowestApproach', { stallSpeedKt: asked.stallSpeedKt });
  const used = usable(trials);
  const arrestedCount = used.filter((t) => t.yes).length;
  const floorKt = (asked.handbookSpeedKt ?? FLOOR_OF_STALL * asked.stallSpeedKt) + asked.gustAdditiveKt;
  const so: SlowFit = {
    refused: true,
    reason: null,
    coefficients: null,
    speed99Kt: null,
    lowerBoundSpeedKt: null,
    floorKt,
    trialResultKt: null,
    governedBy: null,
    trialsUsed: used.length,
    arrestedCount,
    arrestedAtOrBelow: null,
  };
  if (used.length < LEAST_TRIALS) return { ...so, reason: 'too-few-trials' };
  if (arrestedCount === 0 || arrestedCount === used.length) return { ...so, reason: 'one-outcome' };
  if (!used.some((t) => t.powerShare === 0)) return { ...so, reason: 'no-idle-trial' };
  const inKt = (z: number) => (SPEED_ABOUT + SPEED_SCALE * z) * asked.stallSpeedKt;
  const power = (asked.powerShare - POWER_ABOUT) / POWER_SCALE;
  const fit = fitted(used.map((t) => ({ z: scaledPoint(t, asked.stallSpeedKt), yes: t.yes })));
  so.coefficients = fit.b;
  if (fit.b[1] <= 0) return { ...so, reason: 'speed-has-no-effect' };
  so.speed99Kt = inKt((ASKED - fit.b[0] - fit.b[2] * power) / fit.b[1]);
  const bound = boundAt(fit, power);
  if (bound === null) return { ...so, reason: 'bound-never-reached' };
  const lower = inKt(bound);
  so.lowerBoundSpeedKt = lower;
  const outside = (x: number, xs: readonly number[]): boolean =>
    x < Math.min(...xs) - SLACK_RANGE || x > Math.max(...xs) + SLACK_RANGE;
  const speeds = used.map((t) => t.speedKt);
  const powers = used.map((t) => t.powerShare);
  if (outside(lower, speeds) || outside(asked.powerShare, powers)) return { ...so, reason: 'extrapolation' };
  const answer = Math.max(lower, floorKt);
  so.arrestedAtOrBelow = used.filter((t) => t.yes && t.speedKt <= answer + SLACK_RANGE).length;
  if (so.arrestedAtOrBelow < LEAST_ARRESTS) return { ...so, reason: 'too-few-arrests-below' };
  return { ...so, refused: false, trialResultKt: answer, governedBy: lower >= floorKt ? 'trials' : 'floor' };
}

/**
 * The fitted chance of a full arrest at a point, and how well it is known, as the variance of its logit.
 * @returns null with fewer than two usable trials
 * @throws BadNumber when a number handed in is none
 * @example
 * spreadAt([], { stallSpeedKt: 33 }, { speedKt: 42, powerShare: 0 }) // null
 */
export function spreadAt(
  trials: readonly SlowTrial[],
  asked: { stallSpeedKt: number },
  at: { speedKt: number; powerShare: number },
): { chance: number; variance: number } | null {
  needNumbers('spreadAt', { trials, at });
  needPositive('spreadAt', { stallSpeedKt: asked.stallSpeedKt });
  const rows = usable(trials).map((t) => ({ z: scaledPoint(t, asked.stallSpeedKt), yes: t.yes }));
  if (rows.length < 2) return null;
  const { b, covariance } = fitted(rows);
  const z = scaledPoint(at, asked.stallSpeedKt);
  return { chance: 1 / (1 + Math.exp(-dot(b, z))), variance: dot(z, times(covariance, z)) };
}
