/**
 * When an engine may be made to seem stopped, or the question asked: the house's floor and, in a twin, the speeds below
 * which it is never done.
 */
import { SLACK } from '../constants';
import { isNumber } from '../guard';

export interface SimulatedFailure {
  /** Above the ground; null, or no number, = not known. */
  heightAglFt: number | null;
  /** The house's floor above ground, ft; never less than 500 in effect. */
  houseFloorFt: number;
  twin: { vsse: number; vmca: number } | null;
  /** In the unit of the twin's speeds; null = not known. */
  speed: number | null;
  airborne: boolean;
  /** The engine is really stopped and feathered, not throttled. */
  realFeather: boolean;
}
export type SimulatedReason =
  | 'height-not-known'
  | 'below-the-floor'
  | 'speed-not-known'
  | 'below-vsse'
  | 'above-half-vmca-on-the-ground'
  | 'feather-below-3000'
  | 'limit-not-known';
const LEAST_FLOOR_FT = 500;
const FEATHER_FT = 3000;

/**
 * May a failure be simulated here? On the ground only in a twin at or below half Vmca; in the air never below the floor
 * nor, in a twin, below Vsse; a real feathering never below 3000 ft above ground. Every reason against it is named. A
 * height, speed or limit that is no number is not known, and what is not known forbids.
 * Source: the school's floors and the sheet's asymmetric speeds.
 * @returns whether it may be simulated there, and each rule that speaks against it
 * @example simulatedFailureAllowed({ heightAglFt: NaN, houseFloorFt: 500, twin: null, speed: null, airborne: true, realFeather: false }).allowed // false
 */
export function simulatedFailureAllowed(s: SimulatedFailure): {
  allowed: boolean;
  reasons: SimulatedReason[];
  floorFt: number;
} {
  const floorFt = Math.max(LEAST_FLOOR_FT, isNumber(s.houseFloorFt) ? s.houseFloorFt : FEATHER_FT);
  const heightFt = isNumber(s.heightAglFt) ? s.heightAglFt : null;
  const speed = isNumber(s.speed) ? s.speed : null;
  const reasons: SimulatedReason[] = [];
  if (!isNumber(s.houseFloorFt) || (s.twin && !(isNumber(s.twin.vsse) && isNumber(s.twin.vmca))))
    reasons.push('limit-not-known');
  if (!s.airborne) {
    if (s.twin && speed === null) reasons.push('speed-not-known');
    else if (s.twin && speed !== null && speed > s.twin.vmca / 2 + SLACK) reasons.push('above-half-vmca-on-the-ground');
  } else {
    if (heightFt === null) reasons.push('height-not-known');
    else if (heightFt < floorFt - SLACK) reasons.push('below-the-floor');
    if (s.twin && speed === null) reasons.push('speed-not-known');
    else if (s.twin && speed !== null && speed < s.twin.vsse - SLACK) reasons.push('below-vsse');
    if (s.realFeather && heightFt !== null && heightFt < FEATHER_FT - SLACK) reasons.push('feather-below-3000');
  }
  return { allowed: reasons.length === 0, reasons, floorFt };
}
