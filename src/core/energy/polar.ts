import { needNumbers, needPositive } from '../guard';
import { FT_PER_MIN_PER_MS, G_MS2, MS_PER_KT, W_PER_HP, sinDeg } from '../constants';

/** Parabolic drag polar CD = cd0 + k·CL². Dimensionless. */
export interface Polar {
  cd0: number;
  k: number;
}

/**
 * Polar from the published best glide: CL_g = 2mg/(ρSV²), cd0 = CL_g/(2·(L/D)max), k = 1/(4·cd0·(L/D)max²).
 * The cosine of the glide angle is taken as 1.
 * Source: parabolic drag polar fitted to the best glide of the handbook.
 * @param ldMax best glide ratio, > 0
 * @param bestGlideKt true airspeed at `rhoKgM3`, kt, > 0
 * @returns coefficients without a unit
 * @throws BadNumber when a number handed in is none
 * @example
 * polarFromGlide({ ldMax: 9, bestGlideKt: 87.8, massKg: 2400, wingAreaM2: 24, rhoKgM3: 1.225 })
 * // { clBestGlide: 0.78478, cd0: 0.043599, k: 0.070791 }
 */
export function polarFromGlide(input: {
  ldMax: number;
  bestGlideKt: number;
  massKg: number;
  wingAreaM2: number;
  rhoKgM3: number;
}): Polar & { clBestGlide: number } {
  needNumbers('polarFromGlide', input);
  needPositive('polarFromGlide', input);
  const v = input.bestGlideKt * MS_PER_KT;
  const clBestGlide = (2 * input.massKg * G_MS2) / (input.rhoKgM3 * input.wingAreaM2 * v ** 2);
  const cd0 = clBestGlide / (2 * input.ldMax);
  return { clBestGlide, cd0, k: 1 / (4 * cd0 * input.ldMax ** 2) };
}

export interface Flown {
  polar: Polar;
  massKg: number;
  wingAreaM2: number;
  rhoKgM3: number;
  tasKt: number;
  /** Flap, gear, propeller increments that apply. */
  deltaCd0: readonly number[];
}
export interface DragState {
  cl: number;
  cd: number;
  dragN: number;
  weightN: number;
}

/**
 * Lift and drag coefficients and drag at a true airspeed.
 * Source: parabolic drag polar fitted to the best glide of the handbook.
 * @param loadFactor lift in weights (1 straight, 1/cos φ in a turn)
 * @param slipCd drag coefficient added by sideslip
 * @returns coefficients without a unit, drag in newtons
 * @throws BadNumber when a number handed in is none
 * @example
 * dragAt({ polar: { cd0: 0.05, k: 0.063 }, massKg: 560, wingAreaM2: 16.2, rhoKgM3: 1.18, tasKt: 60,
 * deltaCd0: [] }, 1)
 * // { cl: 0.60306, cd: 0.072912, dragN: 663.97, weightN: 5491.7 }
 */
export function dragAt(flown: Flown, loadFactor = 1, slipCd = 0): DragState {
  needNumbers('dragAt', { flown, loadFactor, slipCd });
  needPositive('dragAt', {
    massKg: flown.massKg,
    wingAreaM2: flown.wingAreaM2,
    rhoKgM3: flown.rhoKgM3,
    tasKt: flown.tasKt,
  });
  const v = flown.tasKt * MS_PER_KT;
  const weightN = flown.massKg * G_MS2;
  const qS = 0.5 * flown.rhoKgM3 * v ** 2 * flown.wingAreaM2;
  const cl = (loadFactor * weightN) / qS;
  const cd = flown.polar.cd0 + flown.deltaCd0.reduce((a, b) => a + b, 0) + slipCd + flown.polar.k * cl ** 2;
  return { cl, cd, dragN: qS * cd, weightN };
}

export interface Glide {
  cl: number;
  cd: number;
  dragN: number;
  glideRatio: number;
  sinkFpm: number | null;
  descentAngleDeg: number | null;
}

/**
 * Power-off sink at a speed, also in a turn (sink = V·D/W, which is n·V·CD/CL) and in a slip (k_β·sin²β).
 * Source: parabolic drag polar fitted to the best glide of the handbook.
 * @returns sink and angle null when drag exceeds weight: no steady glide
 * @throws BadNumber when a number handed in is none
 */
export function glide(
  flown: Flown,
  turn: { loadFactor: number; kBeta: number; sideslipDeg: number } = { loadFactor: 1, kBeta: 0, sideslipDeg: 0 },
): Glide {
  needNumbers('glide', { flown, turn });
  const { cl, cd, dragN, weightN } = dragAt(flown, turn.loadFactor, turn.kBeta * sinDeg(turn.sideslipDeg) ** 2);
  const steep = dragN / weightN;
  const steady = steep <= 1;
  return {
    cl,
    cd,
    dragN,
    glideRatio: weightN / dragN,
    sinkFpm: steady ? flown.tasKt * MS_PER_KT * steep * FT_PER_MIN_PER_MS : null,
    descentAngleDeg: steady ? (Math.asin(steep) * 180) / Math.PI : null,
  };
}

export interface Powered {
  thrustN: number;
  dragN: number;
  gammaDeg: number | null;
  verticalSpeedFpm: number | null;
}

/**
 * Flight path with power: sin γ = (T − D)/W, T = min(η·P/V, static thrust cap).
 * Source: parabolic drag polar fitted to the best glide of the handbook.
 * @param eta propeller efficiency; null = 0.75
 * @param staticThrustN cap, N; null = none
 * @returns angle and vertical speed positive up; null when |T − D| > W
 * @throws BadNumber when a number handed in is none
 */
export function powered(
  flown: Flown,
  power: { powerHp: number; eta: number | null; staticThrustN: number | null },
): Powered {
  needNumbers('powered', { flown, power });
  const v = flown.tasKt * MS_PER_KT;
  const { dragN, weightN } = dragAt(flown);
  const thrustN = Math.min(((power.eta ?? 0.75) * power.powerHp * W_PER_HP) / v, power.staticThrustN ?? Infinity);
  const sinGamma = (thrustN - dragN) / weightN;
  if (Math.abs(sinGamma) > 1) return { thrustN, dragN, gammaDeg: null, verticalSpeedFpm: null };
  return {
    thrustN,
    dragN,
    gammaDeg: (Math.asin(sinGamma) * 180) / Math.PI,
    verticalSpeedFpm: v * sinGamma * FT_PER_MIN_PER_MS,
  };
}
