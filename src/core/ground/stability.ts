/**
 * Directional stability on the ground: does the nose come back after a disturbance, or does it go round? A planar model of
 * tyres and fin, and the airspeed below which the rudder alone no longer holds a crosswind with the tail up. Metres,
 * kilograms, seconds; without propeller wash, brakes or the limit of a tyre's grip.
 */
import { MS_PER_KT } from '../constants';
import { needNumbers, needPositive } from '../guard';

export interface GroundBody {
  massKg: number;
  /** Main axle ahead of the centre of gravity: + on a tailwheel type, - on a nosewheel type. */
  mainsXM: number;
  thirdWheelXM: number;
  /** Both main tyres together, N a radian of slip. */
  corneringMainsNPerRad: number;
  /** 0 = free to caster, or off the ground. */
  corneringThirdNPerRad: number;
  finAreaM2: number;
  /** Centre of the fin behind the centre of gravity. */
  finArmM: number;
  finLiftSlopePerRad: number;
  airDensityKgM3: number;
}
export interface Eigenvalue {
  re: number;
  im: number;
}
export interface LinearModel {
  /** Rows of v (m/s, + right), r (rad/s, + nose right), heading (rad), y (m, + right). */
  stateMatrix: number[][] | null;
  /** Of sideways and yawing motion, per second, the least stable first. */
  eigenvalues: Eigenvalue[] | null;
  lambdaMaxPerS: number | null;
  timeToDoubleS: number | null;
  /** Of the slower of the two. */
  timeToHalfS: number | null;
  stable: boolean | null;
}

/**
 * The linear model at one ground speed in still air: what a small swerve does by itself. Each wheel and the fin resist
 * the sideways motion at their place, tyres as C/V and the fin as ½ρV·S·a; the friction limit does not enter.
 * Source: planar two-state vehicle dynamics (sideslip and yaw rate), eigenvalues of a 2 × 2 matrix.
 * @param body wheels and fin, see {@link GroundBody}
 * @param groundSpeedMs m/s, also the airspeed
 * @param yawInertiaKgM2 about the centre of gravity
 * @returns all null without speed, mass or inertia; `timeToDoubleS` null when it is stable or neutral
 * @throws BadNumber when a number handed in is none
 * @example
 * linearModel(lightTailwheel, 10, 1150).timeToHalfS // 0.404
 */
export function linearModel(body: GroundBody, groundSpeedMs: number, yawInertiaKgM2: number): LinearModel {
  needNumbers('linearModel', { ...body, groundSpeedMs, yawInertiaKgM2 });
  const { massKg: m } = body;
  if (groundSpeedMs <= 0 || m <= 0 || yawInertiaKgM2 <= 0)
    return {
      stateMatrix: null,
      eigenvalues: null,
      lambdaMaxPerS: null,
      timeToDoubleS: null,
      timeToHalfS: null,
      stable: null,
    };
  const dampers = [
    [body.corneringMainsNPerRad / groundSpeedMs, body.mainsXM],
    [body.corneringThirdNPerRad / groundSpeedMs, body.thirdWheelXM],
    [0.5 * body.airDensityKgM3 * groundSpeedMs * body.finAreaM2 * body.finLiftSlopePerRad, -body.finArmM],
  ] as const;
  const sum = (power: number) => dampers.reduce((a, [c, x]) => a + c * x ** power, 0);
  const [s0, s1, s2] = [sum(0), sum(1), sum(2)];
  const [a, b] = [-s0 / m, -groundSpeedMs - s1 / m];
  const [c, d] = [-s1 / yawInertiaKgM2, -s2 / yawInertiaKgM2];
  const half = (a + d) / 2;
  const inside = half * half - (a * d - b * c);
  const root = Math.sqrt(Math.abs(inside));
  const eigenvalues: Eigenvalue[] =
    inside >= 0
      ? [
          { re: half + root, im: 0 },
          { re: half - root, im: 0 },
        ]
      : [
          { re: half, im: root },
          { re: half, im: -root },
        ];
  const lambda = eigenvalues[0]?.re ?? 0;
  return {
    stateMatrix: [
      [a, b, 0, 0],
      [c, d, 0, 0],
      [0, 1, 0, 0],
      [1, 0, groundSpeedMs, 0],
    ],
    eigenvalues,
    lambdaMaxPerS: lambda,
    timeToDoubleS: lambda > 0 ? Math.LN2 / lambda : null,
    timeToHalfS: lambda < 0 ? Math.LN2 / -lambda : null,
    stable: lambda < 0,
  };
}

export interface UnstableBand {
  unstable: boolean;
  fromMs: number | null;
  /** null = the fin never takes over. */
  toMs: number | null;
}

/**
 * Ground speeds between which the linear model diverges by itself: below them the steered third wheel holds it, above
 * them the fin does.
 * Source: sign of the determinant of the two-state model, a quadratic in the square of the speed.
 * @param body wheels and fin
 * @returns `fromMs` 0 with a free third wheel; all null where no speed diverges
 * @throws BadNumber when a number handed in is none, or the mass is not above 0
 * @example
 * unstableBand(lightTailwheel) // { unstable: true, fromMs: 23.09, toMs: 26.87 }
 */
export function unstableBand(body: GroundBody): UnstableBand {
  needNumbers('unstableBand', body);
  needPositive('unstableBand', { massKg: body.massKg });
  const { massKg: m, mainsXM: x, thirdWheelXM: t, corneringMainsNPerRad: cm, corneringThirdNPerRad: ct } = body;
  const fin = 0.5 * body.airDensityKgM3 * body.finAreaM2 * body.finLiftSlopePerRad;
  const l = body.finArmM;
  const a = m * fin * l;
  const b = fin * (cm * (x + l) ** 2 + ct * (t + l) ** 2) - m * (cm * x + ct * t);
  const c = cm * ct * (x - t) ** 2;
  const none: UnstableBand = { unstable: false, fromMs: null, toMs: null };
  if (b >= 0) return none;
  if (a === 0) return { unstable: true, fromMs: Math.sqrt(c / -b), toMs: null };
  const inside = b * b - 4 * a * c;
  if (inside <= 0) return none;
  // The lesser root by the product of both: no difference of near numbers.
  const far = (-b + Math.sqrt(inside)) / (2 * a);
  return { unstable: true, fromMs: Math.sqrt(c / (a * far)), toMs: Math.sqrt(far) };
}

export interface RudderFadeInput {
  /** + from the right; its size counts. */
  crosswindKt: number;
  headwindKt: number;
  /** At which the two moments are given. */
  groundSpeedKt: number;
  massKg: number;
  yawInertiaKgM2: number;
  mainsXM: number;
  finAreaM2: number;
  finArmM: number;
  finLiftSlopePerRad: number;
  /** What a degree of rudder does of a degree of sideslip, 0 to 1. */
  rudderEffectiveness: number;
  rudderMaxDeg: number;
  /** 0 leaves the body out. */
  bodySideAreaM2: number;
  bodySideSlopePerRad: number;
  bodyCentreXM: number;
  /** What the rudder must still be able to give, °/s²; 0 = bare balance. */
  reserveYawAccelDegS2: number;
  airDensityKgM3: number;
}
export interface RudderFade {
  /** Along the runway; null without any power in the rudder. */
  fadeAirspeedKt: number | null;
  fadeGroundSpeedKt: number | null;
  momentAvailableNm: number;
  momentNeededNm: number;
  holds: boolean;
}
const RAD = Math.PI / 180;

/**
 * The airspeed below which full rudder no longer holds the heading in a crosswind with the tail up, by moments about the
 * main axle: the rolling mains carry the side force. Without propeller wash, brakes or tailwheel; the lift of the fin
 * is taken as linear.
 * Source: balance of yawing moments; with a reserve the one root above the balance, by bisection.
 * @param i see {@link RudderFadeInput}
 * @throws BadNumber when a number handed in is none, or mass, inertia or density are not above 0
 * @example
 * rudderFade({ ...tailwheelUp, crosswindKt: 10 }).fadeAirspeedKt // 40.9
 */
export function rudderFade(i: RudderFadeInput): RudderFade {
  needNumbers('rudderFade', i);
  needPositive('rudderFade', {
    massKg: i.massKg,
    yawInertiaKgM2: i.yawInertiaKgM2,
    airDensityKgM3: i.airDensityKgM3,
  });
  const wind = Math.abs(i.crosswindKt) * MS_PER_KT;
  const fin = i.finAreaM2 * i.finLiftSlopePerRad * (i.finArmM + i.mainsXM);
  // Both per unit of dynamic pressure, the second per radian of sideslip too.
  const gives = fin * i.rudderEffectiveness * i.rudderMaxDeg * RAD;
  const wants = Math.abs(fin + i.bodySideAreaM2 * i.bodySideSlopePerRad * (i.mainsXM - i.bodyCentreXM));
  const reserve = (i.yawInertiaKgM2 + i.massKg * i.mainsXM ** 2) * i.reserveYawAccelDegS2 * RAD;
  const at = (along: number) => {
    const q = 0.5 * i.airDensityKgM3 * (along * along + wind * wind);
    return { available: q * gives, needed: q * wants * Math.atan2(wind, along) + reserve };
  };
  const holdsBeta = wants > 0 ? gives / wants : Infinity;
  const balance = wind === 0 || holdsBeta >= Math.PI / 2 ? 0 : wind / Math.tan(holdsBeta);
  let fade: number | null = gives > 0 ? balance : null;
  if (fade !== null && reserve > 0) {
    const short = (v: number): boolean => {
      const m = at(v);
      return m.available < m.needed;
    };
    let [low, high] = [balance, Math.max(1, 2 * balance)];
    while (short(high) && high < 1e4) high *= 2;
    if (!short(low)) high = low;
    for (let k = 0; k < 80 && high > low; k++) {
      const mid = (low + high) / 2;
      if (short(mid)) low = mid;
      else high = mid;
    }
    fade = high < 1e4 ? high : null;
  }
  const along = Math.max(0, i.groundSpeedKt + i.headwindKt) * MS_PER_KT;
  const m = at(along);
  return {
    fadeAirspeedKt: fade === null ? null : fade / MS_PER_KT,
    fadeGroundSpeedKt: fade === null ? null : Math.max(0, fade / MS_PER_KT - i.headwindKt),
    momentAvailableNm: m.available,
    momentNeededNm: m.needed,
    holds: fade !== null && along >= fade,
  };
}

export type FadeGuard = 'printed' | 'runs-out' | 'contradicts-demonstrated';
/** A fade speed this share of the three-point stall and above is no speed to lower the tail at. */
const NEAR_STALL = 0.95;

/**
 * May a fade speed be shown? Not above 0.95 of the stall in the three-point attitude: there the rudder runs out before
 * the tail can safely come down. And not where the model says that the crosswind the type has demonstrated could not
 * be held until a third less of it.
 * @param fadeAirspeedKt from {@link rudderFade} in today's wind
 * @param threePointStallKt stall in the three-point attitude, same kind of speed
 * @param demonstrated crosswind of the sheet, and the crosswind the model still holds at that stall speed, kt; null where
 * the sheet has none
 * @returns why it is withheld, or that it may be printed
 * @throws BadNumber when a number handed in is none
 * @example
 * fadeGuard(40.9, 38, null) // 'runs-out'
 */
export function fadeGuard(
  fadeAirspeedKt: number | null,
  threePointStallKt: number,
  demonstrated: { crosswindKt: number; modelHoldsKt: number } | null,
): FadeGuard {
  needNumbers('fadeGuard', { fadeAirspeedKt, threePointStallKt, demonstrated });
  if (demonstrated && Math.abs(demonstrated.modelHoldsKt - demonstrated.crosswindKt) > demonstrated.crosswindKt / 3)
    return 'contradicts-demonstrated';
  return fadeAirspeedKt === null || fadeAirspeedKt > NEAR_STALL * threePointStallKt ? 'runs-out' : 'printed';
}
