import { FT_PER_MIN_PER_MS, G_MS2, M_PER_FT, MS_PER_KT, W_PER_HP } from '../constants';
import { needNumbers, needPositive } from '../guard';
import { loadAvailable } from './trials';

export interface SlowBody {
  massKg: number;
  wingAreaM2: number;
  /** With this flap and gear. */
  cd0: number;
  inducedK: number;
  airDensityKgM3: number;
  /** Power off, this flap, at this mass, true. */
  stallTasKt: number;
  powerHp: number;
  /** null = 0.75 */
  propEfficiency: number | null;
  staticThrustN: number | null;
  powerLiftK: number;
  elevatorLimitN: number | null;
}

/**
 * Sink and path at a speed and power, with what the wing and elevator can still give.
 * Source: drag polar, thrust = η·P/V up to the static thrust, lift of the wash as of the sheet.
 * @param powerShare 0 idle to 1 full
 * @returns sink positive down; the path null where it is steeper than straight down
 * @throws BadNumber when a number handed in is none, or speed, mass, area, density or stall speed are not above 0
 * @example
 * slowSink(esteva, 45, 0).limitedBy // 'elevator'
 */
export function slowSink(
  body: SlowBody,
  tasKt: number,
  powerShare: number,
): { sinkFpm: number; pathDeg: number | null; nAvail: number | null; limitedBy: 'wing' | 'elevator' | null } {
  needNumbers('slowSink', { ...body, tasKt, powerShare });
  needPositive('slowSink', {
    tasKt,
    massKg: body.massKg,
    wingAreaM2: body.wingAreaM2,
    airDensityKgM3: body.airDensityKgM3,
    stallTasKt: body.stallTasKt,
  });
  const v = tasKt * MS_PER_KT;
  const weight = body.massKg * G_MS2;
  const shaft = ((body.propEfficiency ?? 0.75) * body.powerHp * W_PER_HP * powerShare) / v;
  const thrust = body.staticThrustN === null ? shaft : Math.min(shaft, body.staticThrustN * powerShare);
  const q = 0.5 * body.airDensityKgM3 * v * v * body.wingAreaM2;
  // The wash carries its part of the weight.
  const cl = weight / q / (1 + body.powerLiftK * (thrust / weight));
  const steep = (q * (body.cd0 + body.inducedK * cl * cl) - thrust) / weight;
  const load = loadAvailable({
    speedKt: tasKt,
    stallSpeedKt: body.stallTasKt,
    thrustToWeight: thrust / weight,
    powerLiftK: body.powerLiftK,
    elevatorLimitN: body.elevatorLimitN,
  });
  return {
    sinkFpm: v * steep * FT_PER_MIN_PER_MS,
    pathDeg: Math.abs(steep) > 1 ? null : (Math.asin(steep) * 180) / Math.PI,
    ...load,
  };
}

export interface StopHeight {
  /** Below it a stop of the engine cannot be flared; null = not within the range looked at. */
  heightFt: number | null;
  /** Of which: nose lowered to gain speed, and the flare. */
  gainFt: number;
  flareFt: number;
  /** To which the nose is lowered. */
  speedKt: number;
}
/** From the stop to the nose going down, seconds. */
const NOTICES_S = 1.5;
const MOST_GAIN_KT = 40;

/**
 * The height below which a stop of the engine cannot be flared: height is traded for a speed whose flare is possible, and
 * what the two need together is least.
 * Source: energy of the speed gained, idle sink meanwhile, and the height n = 1 + w²/(2·g·h) of a flare with idle power.
 * @param body in the approach configuration
 * @param tasKt approach speed
 * @param powerShare with which it is flown
 * @throws BadNumber as {@link slowSink}
 * @example
 * stopHeight(esteva, 80, 0).gainFt // 0
 */
export function stopHeight(body: SlowBody, tasKt: number, powerShare: number): StopHeight {
  const before = slowSink(body, tasKt, powerShare);
  const noticed = (Math.max(0, before.sinkFpm) / 60) * (powerShare > 0 ? NOTICES_S : 0);
  let best: StopHeight = { heightFt: null, gainFt: 0, flareFt: 0, speedKt: tasKt };
  for (let gain = 0; gain <= MOST_GAIN_KT; gain += 0.5) {
    const speedKt = tasKt + gain;
    const idle = slowSink(body, speedKt, 0);
    if (idle.nAvail === null || idle.nAvail <= 1.01) continue;
    const w = Math.max(0, idle.sinkFpm) / FT_PER_MIN_PER_MS;
    const flareFt = (w * w) / (2 * G_MS2 * (idle.nAvail - 1)) / M_PER_FT;
    const energy = ((speedKt ** 2 - tasKt ** 2) * MS_PER_KT ** 2) / (2 * G_MS2);
    // A dive no steeper than the energy: what drag takes meanwhile is the idle sink over the time it lasts.
    const time = ((speedKt - tasKt) * MS_PER_KT) / (0.25 * G_MS2);
    const gainFt = energy / M_PER_FT + (gain > 0 ? (w * time) / M_PER_FT : 0) + noticed;
    const heightFt = gainFt + flareFt;
    if (best.heightFt === null || heightFt < best.heightFt) best = { heightFt, gainFt, flareFt, speedKt };
  }
  return best;
}
