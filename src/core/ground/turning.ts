/**
 * Turning on the ground: what the third wheel and the tail do behind (or ahead of) the main axle. Metres, degrees; no
 * side slip of the mains.
 */
import { needNumbers, needPositive } from '../guard';
import { SLACK, tanDeg } from '../constants';

const atanDeg = (x: number): number => (Math.atan(x) * 180) / Math.PI;

export interface GroundTurn {
  axleRadiusM: number;
  insideWheelRadiusM: number;
  outsideWheelRadiusM: number;
  thirdWheelRadiusM: number;
  swingOutsideM: number;
  thirdWheelAngleDeg: number;
}

/**
 * Least turn by steering at its limit (R = L/tan δ) or by pivoting on the inside wheel (R = t/2).
 * Source: rigid body turning about a point on the line of the mains.
 * @param input wheelbase and track in metres; `steerLimitDeg` 0 to 90
 * @returns `insideWheelRadiusM` negative when the turn centre lies between the mains; `swingOutsideM` negative when the
 * third wheel stays inside
 * @throws BadNumber when a number handed in is none
 * @example
 * groundTurn({ wheelbaseM: 6, trackM: 2.5, steerLimitDeg: 22, method: 'pivot' })
 * // { axleRadiusM: 1.25, insideWheelRadiusM: 0, outsideWheelRadiusM: 2.5, thirdWheelRadiusM: 6.1288,
 * // swingOutsideM: 3.6288, thirdWheelAngleDeg: 78.232 }
 */
export function groundTurn(input: {
  wheelbaseM: number;
  trackM: number;
  steerLimitDeg: number;
  method: 'steer' | 'pivot';
}): GroundTurn {
  needNumbers('groundTurn', input);
  needPositive('groundTurn', { steerLimitDeg: input.steerLimitDeg });
  const half = input.trackM / 2;
  const axleRadiusM =
    input.method === 'pivot'
      ? half
      : input.steerLimitDeg >= 90 - SLACK
        ? 0
        : input.wheelbaseM / tanDeg(input.steerLimitDeg);
  const thirdWheelRadiusM = Math.hypot(axleRadiusM, input.wheelbaseM);
  const outsideWheelRadiusM = axleRadiusM + half;
  return {
    axleRadiusM,
    insideWheelRadiusM: axleRadiusM - half,
    outsideWheelRadiusM,
    thirdWheelRadiusM,
    swingOutsideM: thirdWheelRadiusM - outsideWheelRadiusM,
    thirdWheelAngleDeg: axleRadiusM === 0 ? 90 : atanDeg(input.wheelbaseM / axleRadiusM),
  };
}

export interface Corner {
  tailBeyondEdgeM: number;
  tailFromCentrelineM: number;
  insideWheelBeyondCornerM: number;
}

/**
 * A 90° taxiway corner: how far the tail goes beyond the outer edge when the axle centre follows the centreline, or the
 * inside wheel hugs the inner corner. For a nosewheel the same figures hold for the nosewheel over the second leg's
 * edge.
 * Source: rigid body turning about a point on the line of the mains.
 * @param input `turnRadiusM` of the axle centre, at least half the track
 * @returns metres, positive beyond the edge or the corner
 * @throws BadNumber when a number handed in is none
 * @example
 * taxiCorner({ wheelbaseM: 6, trackM: 2.5, turnRadiusM: 8, taxiwayWidthM: 10, technique: 'centreline' })
 * // { tailBeyondEdgeM: -3, tailFromCentrelineM: 2, insideWheelBeyondCornerM: -2.5074 }
 */
export function taxiCorner(input: {
  wheelbaseM: number;
  trackM: number;
  turnRadiusM: number;
  taxiwayWidthM: number;
  technique: 'centreline' | 'hugInside';
}): Corner {
  needNumbers('taxiCorner', input);
  const { turnRadiusM: r, taxiwayWidthM: width } = input;
  const tailRadius = Math.hypot(r, input.wheelbaseM);
  const inner = r - input.trackM / 2;
  const hug = input.technique === 'hugInside';
  const tailFromCentrelineM = hug ? tailRadius - inner / Math.SQRT2 - width / 2 : tailRadius - r;
  return {
    tailBeyondEdgeM: tailFromCentrelineM - width / 2,
    tailFromCentrelineM,
    insideWheelBeyondCornerM: hug ? 0 : (r - width / 2) * Math.SQRT2 - inner,
  };
}

/**
 * The angle a turn wants of the third wheel against its limit: steers, warns `warnBeforeDeg` before, or casters free.
 * Source: rigid body turning about a point on the line of the mains.
 * @returns degrees needed, and the state
 * @throws BadNumber when a number handed in is none
 * @example
 * casterState({ wheelbaseM: 6, turnRadiusM: 16, steerLimitDeg: 22, warnBeforeDeg: 3 })
 * // { neededDeg: 20.556, state: 'warn' }
 */
export function casterState(input: {
  wheelbaseM: number;
  turnRadiusM: number;
  steerLimitDeg: number;
  warnBeforeDeg: number;
}): { neededDeg: number; state: 'steers' | 'warn' | 'casters' } {
  needNumbers('casterState', input);
  const neededDeg = atanDeg(input.wheelbaseM / input.turnRadiusM);
  return {
    neededDeg,
    state:
      neededDeg > input.steerLimitDeg
        ? 'casters'
        : neededDeg > input.steerLimitDeg - input.warnBeforeDeg
          ? 'warn'
          : 'steers',
  };
}
