import { needNumbers, needPositive } from '../guard';
import { G_MS2, MS_PER_KT, M_PER_FT, SLACK, cosDeg, median } from '../constants';
import { type Flown, type Polar, dragAt } from '../energy';

export interface DecelerationInput {
  /** True airspeeds at the two gates. */
  v1Kt: number;
  v2Kt: number;
  /** Along the ground between them. */
  distanceM: number;
  heightLossFt: number;
  /** Negative = tailwind. */
  headwindKt: number;
  polar: Polar;
  /** Increments of the configuration held on this segment. */
  deltaCd0: readonly number[];
  massKg: number;
  wingAreaM2: number;
  rhoKgM3: number;
}
export interface Deceleration {
  timeS: number | null;
  slopeDeg: number | null;
  airPathDeg: number | null;
  neededMs2: number | null;
  availableMs2: number | null;
  canSlow: 'yes' | 'tight' | 'no' | null;
  /** Metres before the second gate where slowing must begin at the very latest. */
  latestStartM: number | null;
  comfortableStartM: number | null;
}
const NO_WAY: Deceleration = {
  timeS: null,
  slopeDeg: null,
  airPathDeg: null,
  neededMs2: null,
  availableMs2: null,
  canSlow: null,
  latestStartM: null,
  comfortableStartM: null,
};
const deg = (rad: number): number => (rad * 180) / Math.PI;
/** Share in hand that makes slowing comfortable; between it and none is *tight*. */
const MARGIN = 1.2;

/**
 * Can it slow that fast: a = (V₁ − V₂)/Δt against g·(D/W − sin γ) at idle, γ the descent through the air.
 * Distance is flown at the mean ground speed. All null when the wind stops it over the ground.
 * Source: energy balance at idle on the drag polar of the sheet.
 * @returns seconds, degrees, m/s², metres, and whether it can slow
 * @throws BadNumber when a number handed in is none
 */
export function deceleration(input: DecelerationInput): Deceleration {
  needNumbers('deceleration', input);
  needPositive('deceleration', { distanceM: input.distanceM });
  const meanMs = ((input.v1Kt + input.v2Kt) / 2) * MS_PER_KT;
  const groundMs = meanMs - input.headwindKt * MS_PER_KT;
  if (groundMs <= 1e-6) return NO_WAY;
  const timeS = input.distanceM / groundMs;
  const dropM = input.heightLossFt * M_PER_FT;
  const sinAir = dropM / timeS / meanMs;
  const lostMs = (input.v1Kt - input.v2Kt) * MS_PER_KT;
  const neededMs2 = lostMs / timeS;
  const flown: Flown = {
    polar: input.polar,
    massKg: input.massKg,
    wingAreaM2: input.wingAreaM2,
    rhoKgM3: input.rhoKgM3,
    tasKt: meanMs / MS_PER_KT,
    deltaCd0: input.deltaCd0,
  };
  const { dragN, weightN } = dragAt(flown);
  const availableMs2 = G_MS2 * (dragN / weightN - sinAir);
  const base = {
    timeS,
    slopeDeg: deg(Math.atan(dropM / input.distanceM)),
    airPathDeg: deg(Math.asin(sinAir)),
    neededMs2,
    availableMs2,
  };
  if (lostMs <= 0) return { ...base, canSlow: 'yes', latestStartM: 0, comfortableStartM: 0 };
  const latestStartM = availableMs2 > 0 ? (groundMs * lostMs) / availableMs2 : null;
  const canSlow =
    availableMs2 >= MARGIN * neededMs2 - SLACK ? 'yes' : availableMs2 >= neededMs2 - SLACK ? 'tight' : 'no';
  return { ...base, canSlow, latestStartM, comfortableStartM: latestStartM === null ? null : MARGIN * latestStartM };
}

export interface ScheduleGate {
  name: string;
  /** Along the path to the threshold. */
  distanceM: number;
  heightFt: number;
  /** Indicated, kt. */
  targetKt: number;
  flapDeg: number;
  gear: 'up' | 'down' | 'fixed';
  targetCasKt: number;
  /** Stall, CAS, of this configuration at today's mass; null = not on the sheet (no margin judged). */
  vsCasKt: number | null;
  sanctionedRatio: number | null;
}
export interface ScheduleInput {
  /** In flying order. */
  gates: readonly ScheduleGate[];
  vfe: readonly { flapDeg: number; vfeKt: number }[];
  vloExtendKt: number | null;
  vleKt: number | null;
  school: 'constant' | 'reducing';
  slopeMinDeg: number;
  slopeMaxDeg: number;
  /** Planned at every gate but the last. */
  bankDeg: number;
}
export const SCHEDULE_CODES = [
  'flapNoLimit',
  'flapAboveLimit',
  'gearAboveLimit',
  'targetAboveLimit',
  'notFalling',
  'slope',
  'stallMargin',
  'stallMarginBank',
] as const;
export type ScheduleCode = (typeof SCHEDULE_CODES)[number];
export interface ScheduleFinding {
  gate: number;
  code: ScheduleCode;
  value: number;
  limit: number | null;
}

/**
 * Findings on an approach schedule, by gate and then in the order of {@link SCHEDULE_CODES}. Limits compare with the
 * indicated target, stall margins with CAS. A lever is *selected* where its setting grows and *held* where it was there
 * before; the first gate's settings count as held.
 * @returns a code a finding, with the gate, the value and its limit
 * @throws BadNumber when a number handed in is none
 */
export function scheduleFindings(input: ScheduleInput): ScheduleFinding[] {
  needNumbers('scheduleFindings', input);
  for (const g of input.gates) if (g.vsCasKt !== null) needPositive('scheduleFindings', { vsCasKt: g.vsCasKt });
  const rows = [...input.vfe].sort((a, b) => a.flapDeg - b.flapDeg);
  const flapLimit = (flapDeg: number): number | null | 'beyond' =>
    flapDeg <= 0 ? null : (rows.find((r) => r.flapDeg >= flapDeg - SLACK)?.vfeKt ?? 'beyond');
  return input.gates.flatMap((g, gate) => {
    const before = input.gates[gate - 1];
    const found: ScheduleFinding[] = [];
    const add = (code: ScheduleCode, value: number, limit: number | null) => found.push({ gate, code, value, limit });
    const vfe = flapLimit(g.flapDeg);
    const flapSelected = before !== undefined && g.flapDeg > before.flapDeg;
    const gearSelected = before !== undefined && g.gear === 'down' && before.gear === 'up';
    const over = (limit: number | null): limit is number => limit !== null && g.targetKt > limit + SLACK;
    if (vfe === 'beyond') add('flapNoLimit', g.flapDeg, null);
    const vfeKt = vfe === 'beyond' ? null : vfe;
    if (flapSelected && over(vfeKt)) add('flapAboveLimit', g.targetKt, vfeKt);
    if (gearSelected && over(input.vloExtendKt)) add('gearAboveLimit', g.targetKt, input.vloExtendKt);
    const held = [!flapSelected ? vfeKt : null, g.gear === 'down' && !gearSelected ? input.vleKt : null].filter(over);
    if (held.length > 0) add('targetAboveLimit', g.targetKt, Math.min(...held));
    if (before && input.school === 'reducing' && g.targetKt >= before.targetKt - SLACK)
      add('notFalling', g.targetKt, before.targetKt);
    if (before) {
      const slopeDeg = deg(Math.atan(((before.heightFt - g.heightFt) * M_PER_FT) / (before.distanceM - g.distanceM)));
      if (slopeDeg < input.slopeMinDeg - SLACK) add('slope', slopeDeg, input.slopeMinDeg);
      else if (slopeDeg > input.slopeMaxDeg + SLACK) add('slope', slopeDeg, input.slopeMaxDeg);
    }
    if (g.vsCasKt !== null) {
      const ratio = g.targetCasKt / g.vsCasKt;
      const least = g.sanctionedRatio === null ? 1.3 : Math.min(1.3, g.sanctionedRatio);
      if (ratio < least - SLACK) add('stallMargin', ratio, least);
      const banked = ratio * Math.sqrt(cosDeg(input.bankDeg));
      if (gate < input.gates.length - 1 && banked < 1.1 - SLACK) add('stallMarginBank', banked, 1.1);
    }
    return found;
  });
}

export interface PlateauInput {
  /** Airspeed as recorded, time rising, from one gate to the next. */
  samples: readonly { tS: number; speedKt: number }[];
  finalSpeedKt: number;
  /** Lost per second by the falling line, positive. */
  scheduledRateKtS: number;
  /** Step of the recorded speed. */
  resolutionKt: number;
  gustSpreadKt: number;
  /** True when the speed is a recorded airspeed. */
  airData: boolean;
}
export interface PlateauResult {
  status: 'plateau' | 'none' | 'not-seen';
  plateaus: { startS: number; endS: number; meanKt: number }[];
  worstRateKtS: number | null;
  thresholdKtS: number;
}
const WINDOW_S = 8;
const GAP_S = 3;

/**
 * Plateaus in a speed that should keep falling: over a sliding 8 s regression the speed falls more slowly than a third
 * of the scheduled rate, or rises, while above the final speed. Widened by the indicator's resolution and the gust
 * spread.
 * @returns *not-seen* without air data, slower than 2 Hz, or with no unbroken 8 s
 * @throws BadNumber when a number handed in is none
 */
export function speedPlateaus(input: PlateauInput): PlateauResult {
  needNumbers('speedPlateaus', input);
  const { samples } = input;
  const thresholdKtS = input.scheduledRateKtS / 3 - (0.5 * input.resolutionKt + 0.25 * input.gustSpreadKt) / WINDOW_S;
  const unseen: PlateauResult = { status: 'not-seen', plateaus: [], worstRateKtS: null, thresholdKtS };
  const steps = samples.slice(1).map((s, i) => s.tS - (samples[i]?.tS ?? s.tS));
  if (!input.airData || samples.length < 2 || median(steps) > 0.5 + SLACK) return unseen;
  let unbrokenFrom = samples[0]?.tS ?? 0;
  let first = 0;
  let everLong = false;
  let judged = false;
  let worst: number | null = null;
  const windows: { startS: number; endS: number }[] = [];
  samples.forEach((s, j) => {
    if (j > 0 && (steps[j - 1] ?? 0) > GAP_S + SLACK) unbrokenFrom = s.tS;
    if (unbrokenFrom > s.tS - WINDOW_S + SLACK) return;
    everLong = true;
    while ((samples[first]?.tS ?? Infinity) < s.tS - WINDOW_S - SLACK) first++;
    const inside = samples.slice(first, j + 1);
    if (!inside.every((w) => w.speedKt > input.finalSpeedKt + 0.5 * input.resolutionKt + SLACK)) return;
    judged = true;
    const slope = regressionSlope(inside);
    worst = worst === null ? slope : Math.max(worst, slope);
    if (-slope < thresholdKtS - SLACK) windows.push({ startS: s.tS - WINDOW_S, endS: s.tS });
  });
  if (!judged) return everLong ? { ...unseen, status: 'none' } : unseen;
  const joined: { startS: number; endS: number }[] = [];
  for (const w of windows) {
    const last = joined[joined.length - 1];
    if (last && w.startS <= last.endS + SLACK) last.endS = w.endS;
    else joined.push({ ...w });
  }
  const plateaus = joined.map((w) => {
    const inside = samples.filter((s) => s.tS >= w.startS - SLACK && s.tS <= w.endS + SLACK);
    return { ...w, meanKt: inside.reduce((a, s) => a + s.speedKt, 0) / inside.length };
  });
  return { status: plateaus.length > 0 ? 'plateau' : 'none', plateaus, worstRateKtS: worst, thresholdKtS };
}

function regressionSlope(points: readonly { tS: number; speedKt: number }[]): number {
  const n = points.length;
  const meanT = points.reduce((a, p) => a + p.tS, 0) / n;
  const meanV = points.reduce((a, p) => a + p.speedKt, 0) / n;
  const top = points.reduce((a, p) => a + (p.tS - meanT) * (p.speedKt - meanV), 0);
  const bottom = points.reduce((a, p) => a + (p.tS - meanT) ** 2, 0);
  return bottom === 0 ? 0 : top / bottom;
}

export interface SlopeLights {
  angleDeg: number;
  whites: number;
  slope: 'high' | 'on' | 'low';
  speed: 'fast' | 'on' | 'slow';
  finding: 'fastAndHigh' | 'slowAndLow' | 'fastAndLow' | 'slowAndHigh' | null;
}

/**
 * Four-unit slope lights read together with speed. Units change at θ0 − 30′, − 10′, + 10′, + 30′; a unit shows white
 * above its setting.
 * Source: ICAO Annex 14, volume I, chapter 5 (PAPI).
 * @param heightFt eye above the lights, ft
 * @param distanceM horizontal to the lights, m, > 0
 * @param speedDevKt flown less target, kt
 * @returns the angle in degrees, white units 0 to 4, and what they say with the speed
 * @throws BadNumber when a number handed in is none
 * @example
 * slopeLights({ heightFt: 300, distanceM: 1300, nominalDeg: 3.5, speedDevKt: 0, fastTolKt: 1, slowTolKt: 1 })
 * // { angleDeg: 4.0235, whites: 4, slope: 'high', speed: 'on', finding: null }
 */
export function slopeLights(input: {
  heightFt: number;
  distanceM: number;
  nominalDeg: number;
  speedDevKt: number;
  fastTolKt: number;
  slowTolKt: number;
}): SlopeLights {
  needNumbers('slopeLights', input);
  const angleDeg = deg(Math.atan((input.heightFt * M_PER_FT) / input.distanceM));
  const whites = [-0.5, -1 / 6, 1 / 6, 0.5].filter((off) => angleDeg > input.nominalDeg + off).length;
  const slope = whites >= 3 ? 'high' : whites === 2 ? 'on' : 'low';
  const speed = input.speedDevKt > input.fastTolKt ? 'fast' : input.speedDevKt < -input.slowTolKt ? 'slow' : 'on';
  const finding =
    slope === 'on' || speed === 'on'
      ? null
      : speed === 'fast'
        ? slope === 'high'
          ? 'fastAndHigh'
          : 'fastAndLow'
        : slope === 'high'
          ? 'slowAndHigh'
          : 'slowAndLow';
  return { angleDeg, whites, slope, speed, finding };
}
