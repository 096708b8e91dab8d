/**
 * The eye and the seat: a cowling profile for another eye height, from a tape on the hangar floor, and with a margin
 * kept. Degrees, metres.
 */
import { needNumbers } from '../guard';
import { tanDeg } from '../constants';
import { type ProfilePoint, directionVisible } from './nose';

const atanDeg = (x: number): number => (Math.atan(x) * 180) / Math.PI;

/** Kept in every answer: a cushion, a posture and a tape are worth about this much. */
export const SIGHT_MARGIN_DEG = 3;

/**
 * The nose taken higher by a margin, so that what is called visible stays visible.
 * Source: lines from the eye over the cowling to the ground.
 * @returns degrees
 */
export const withMargin = (profile: readonly ProfilePoint[], marginDeg = SIGHT_MARGIN_DEG): ProfilePoint[] =>
  profile.map((p) => ({ ...p, depressionDeg: p.depressionDeg - marginDeg }));

/**
 * The profile seen by an eye raised (positive) or lowered in the same seat: every limiting edge is taken at the
 * distance of the nose. Edges at the side are nearer and gain more, so the answer is on the careful side for a raised
 * eye.
 * Source: lines from the eye over the cowling to the ground.
 * @param noseToEyeM horizontal, metres, above 0
 * @param raiseM metres; 0.05 m at 1.9 m is 1.5°
 * @returns degrees
 * @throws BadNumber when a number handed in is none
 * @example
 * raiseEye([{ azimuthDeg: 0, depressionDeg: 5 }], 1.9, 0.05)
 * // [{ azimuthDeg: 0, depressionDeg: 6.4926 }]
 */
export function raiseEye(profile: readonly ProfilePoint[], noseToEyeM: number, raiseM: number): ProfilePoint[] {
  needNumbers('raiseEye', { profile, noseToEyeM, raiseM });
  if (!(noseToEyeM > 0) || raiseM === 0) return [...profile];
  return profile.map((p) => ({ ...p, depressionDeg: atanDeg(tanDeg(p.depressionDeg) + raiseM / noseToEyeM) }));
}

/**
 * Looking along an azimuth from the heading, the nearest place on the ground that the eye sees, so many metres away.
 */
export interface Walk {
  azimuthDeg: number;
  distanceM: number;
}

/**
 * A cowling profile from a tape: somebody walks out along an azimuth until the pilot sees their shoe; three wheels
 * down, level floor.
 * Source: lines from the eye over the cowling to the ground.
 * @param eyeHeightM eye above the floor, above 0
 * @param groundPitchDeg of the longitudinal axis on three wheels
 * @returns directions in body axes, ascending azimuth; walks with no distance are left out
 * @throws BadNumber when a number handed in is none
 */
export function profileFromWalk(input: {
  eyeHeightM: number;
  groundPitchDeg: number;
  walks: readonly Walk[];
}): ProfilePoint[] {
  needNumbers('profileFromWalk', input);
  return input.walks
    .filter((w) => w.distanceM > 0)
    .map((w) => {
      const seen = directionVisible(
        [],
        { pitchDeg: input.groundPitchDeg, bankDeg: 0 },
        w.azimuthDeg,
        atanDeg(input.eyeHeightM / w.distanceM),
      );
      return { azimuthDeg: seen.bodyAzimuthDeg, depressionDeg: seen.bodyDepressionDeg };
    })
    .sort((a, b) => a.azimuthDeg - b.azimuthDeg);
}
