/**
 * When an engine may be made to seem stopped, or the question asked: the house's floor and, in a twin, the speeds below
 * which it is never done.
 */
import { SLACK } from '../constants';

export interface SimulatedFailure {
  /** Above the ground; null = not known. */
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
  | 'feather-below-3000';
const LEAST_FLOOR_FT = 500;
const FEATHER_FT = 3000;

/**
 * May a failure be simulated here? On the ground only in a twin at or below half Vmca; in the air never below the floor
 * nor, in a twin, below Vsse; a real feathering never below 3000 ft above ground. Every reason against it is named.
 */
export function simulatedFailureAllowed(s: SimulatedFailure): {
  allowed: boolean;
  reasons: SimulatedReason[];
  floorFt: number;
} {
  const floorFt = Math.max(LEAST_FLOOR_FT, s.houseFloorFt);
  const reasons: SimulatedReason[] = [];
  if (!s.airborne) {
    if (s.twin && s.speed === null) reasons.push('speed-not-known');
    else if (s.twin && s.speed !== null && s.speed > s.twin.vmca / 2 + SLACK)
      reasons.push('above-half-vmca-on-the-ground');
  } else {
    if (s.heightAglFt === null) reasons.push('height-not-known');
    else if (s.heightAglFt < floorFt - SLACK) reasons.push('below-the-floor');
    if (s.twin && s.speed === null) reasons.push('speed-not-known');
    else if (s.twin && s.speed !== null && s.speed < s.twin.vsse - SLACK) reasons.push('below-vsse');
    if (s.realFeather && s.heightAglFt !== null && s.heightAglFt < FEATHER_FT - SLACK)
      reasons.push('feather-below-3000');
  }
  return { allowed: reasons.length === 0, reasons, floorFt };
}
