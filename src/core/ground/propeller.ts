/**
 * What a propeller at power does to an aeroplane that rolls: thrust, wash over the tail and the turn in it, and the moments
 * that swing the nose. SI; turns +1 = clockwise seen from the cockpit, moments + nose right.
 */
import { needNumbers, needPositive } from '../guard';

export interface Propeller {
  /** Of one engine, at the shaft. */
  powerW: number;
  /** 1 clockwise, -1 anticlockwise; 0 = two that turn opposite ways, or a share that is not known. */
  turns: number;
  count: number;
  diameterM: number;
  /** Turns a second times 2π. */
  speedRadS: number;
  inertiaKgM2: number;
}
export interface Wash {
  /** All propellers. */
  thrustN: number;
  /** Behind the disc, over the tail. */
  washMs: number;
  /** How far the wash turns, at two thirds of the radius. */
  swirlDeg: number;
  /** Of one engine. */
  torqueNm: number;
}
const RAD = Math.PI / 180;
/** Share of the shaft's power that goes into pushing air back. */
const DISC_SHARE = 0.6;
const SWIRL_AT = 2 / 3;

/**
 * Thrust and wash of a propeller by the momentum of the air through its disc.
 * P·share = T·(V + v), T = 2·ρ·A·(V + v)·v; the wash is V + 2v; the torque leaves as swirl.
 * Source: actuator disc; 0.6 of the shaft's power into the air, as propellers reach at take-off speeds.
 * @param p one propeller; power 0 = none
 * @param airspeedMs m/s, 0 or more
 * @param densityKgM3 above 0
 * @throws BadNumber when a number handed in is none, or diameter, turning or density are not above 0
 * @example
 * discWash({ powerW: 100000, turns: 1, count: 1, diameterM: 1.9, speedRadS: 260, inertiaKgM2: 1.2 }, 0, 1.225)
 * // { thrustN: 2924.3, washMs: 41.0355, swirlDeg: 11.7318, torqueNm: 384.615 }
 */
export function discWash(p: Propeller, airspeedMs: number, densityKgM3: number): Wash {
  needNumbers('discWash', { ...p, airspeedMs, densityKgM3 });
  needPositive('discWash', { diameterM: p.diameterM, speedRadS: p.speedRadS, densityKgM3 });
  if (p.powerW <= 0) return { thrustN: 0, washMs: airspeedMs, swirlDeg: 0, torqueNm: 0 };
  const area = (Math.PI * p.diameterM ** 2) / 4;
  const flow = densityKgM3 * area;
  // Power into the air rises steadily with the speed it is given.
  let [low, high] = [0, 200];
  for (let k = 0; k < 50; k++) {
    const v = (low + high) / 2;
    if (2 * flow * (airspeedMs + v) ** 2 * v > DISC_SHARE * p.powerW) high = v;
    else low = v;
  }
  const given = (low + high) / 2;
  const washMs = airspeedMs + 2 * given;
  const torqueNm = p.powerW / p.speedRadS;
  const around = torqueNm / (flow * (airspeedMs + given) * SWIRL_AT * (p.diameterM / 2));
  return {
    thrustN: p.count * 2 * flow * (airspeedMs + given) * given,
    washMs,
    swirlDeg: Math.atan2(around, washMs) / RAD,
    torqueNm,
  };
}

/**
 * Moment of a disc that meets the air at an angle: the blade going down meets more of it. M = T·V·sin α / ω.
 * Source: blade speed across the disc, each blade's thrust with the square of its speed.
 * @param thrustN all propellers @param incidenceDeg of the thrust line over the path, tail down positive
 * @returns N·m, + nose right: a clockwise one swings to the left
 * @throws BadNumber when a number handed in is none, or the turning is not above 0
 * @example
 * discMoment(2000, 15, 12, { turns: 1, speedRadS: 260 }) // -23.9897
 */
export function discMoment(
  thrustN: number,
  airspeedMs: number,
  incidenceDeg: number,
  p: Pick<Propeller, 'turns' | 'speedRadS'>,
): number {
  needNumbers('discMoment', { thrustN, airspeedMs, incidenceDeg, ...p });
  needPositive('discMoment', { speedRadS: p.speedRadS });
  return (-p.turns * thrustN * airspeedMs * Math.sin(incidenceDeg * RAD)) / p.speedRadS;
}

/**
 * Moment of a turning propeller whose axis is pitched: M = I·ω·q. Tail up swings a clockwise one to the left.
 * Source: gyroscopic precession.
 * @param noseDownDegS rate at which the nose goes down
 * @returns N·m, + nose right
 * @throws BadNumber when a number handed in is none
 * @example
 * gyroMoment(10, { turns: 1, count: 1, speedRadS: 260, inertiaKgM2: 1.2 }) // -54.4543
 */
export function gyroMoment(
  noseDownDegS: number,
  p: Pick<Propeller, 'turns' | 'count' | 'speedRadS' | 'inertiaKgM2'>,
): number {
  needNumbers('gyroMoment', { noseDownDegS, ...p });
  return -p.turns * p.count * p.inertiaKgM2 * p.speedRadS * noseDownDegS * RAD;
}

export interface RollBody {
  rollInertiaKgM2: number;
  wingAreaM2: number;
  spanM: number;
  airDensityKgM3: number;
  airspeedMs: number;
}
/** Rolling moment the wing gives against a roll: by the speed its tips add, shared along the span. */
const ROLL_DAMPING = 0.45;

/**
 * How far an aeroplane in the air is rolled by its engine when power comes on and no aileron is given.
 * I·dp/dt = Q(t) − d·p, d = ½·ρ·V·S·b²·0.45/2. Source: roll with the damping of the wing, stepped.
 * @param torqueNm of the propeller at the power that is set, all engines that turn one way
 * @param overS in which the power comes on, evenly; 0 = at once
 * @param afterS seconds
 * @returns bank and rate, degrees
 * @throws BadNumber when a number handed in is none, or inertia, area, span, density or speed are not above 0
 * @example
 * torqueRoll({ rollInertiaKgM2: 6000, wingAreaM2: 22, spanM: 11.3, airDensityKgM3: 1.225, airspeedMs: 45 }, 0, 0, 1)
 * // { bankDeg: 0, rateDegS: 0 }
 */
export function torqueRoll(
  body: RollBody,
  torqueNm: number,
  overS: number,
  afterS: number,
): { bankDeg: number; rateDegS: number } {
  needNumbers('torqueRoll', { ...body, torqueNm, overS, afterS });
  needPositive('torqueRoll', { ...body });
  const { rollInertiaKgM2: inertia, wingAreaM2, spanM, airDensityKgM3, airspeedMs } = body;
  const damps = (0.25 * airDensityKgM3 * airspeedMs * wingAreaM2 * spanM ** 2 * ROLL_DAMPING) / inertia;
  const steps = Math.max(1, Math.ceil(afterS / 0.005));
  const h = Math.max(0, afterS) / steps;
  let [bank, rate] = [0, 0];
  for (let k = 0; k < steps; k++) {
    // Power in the middle of the step; between, the roll dies away by itself.
    const share = overS <= 0 ? 1 : Math.min(1, ((k + 0.5) * h) / overS);
    const ends = (torqueNm * share) / inertia / damps;
    const stays = Math.exp(-damps * h);
    bank += ends * h + ((rate - ends) * (1 - stays)) / damps;
    rate = ends + (rate - ends) * stays;
  }
  return { bankDeg: bank / RAD, rateDegS: rate / RAD };
}
