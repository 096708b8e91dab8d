import { needNumbers } from '../guard';
import { M_PER_FT } from '../constants';
import { type ProfilePoint, bodyToHorizon, directionVisible } from './nose';

export interface SideView {
  profile: readonly ProfilePoint[];
  parts: readonly { name: string; from: ProfilePoint; to: ProfilePoint }[];
  pitchDeg: number;
}
export interface SideInput {
  /** Of the eye over the field, and from the track to the runway's centreline. */
  heightFt: number;
  spacingM: number;
  /** + right: the side the runway is on. */
  side: 'left' | 'right';
  bankDeg: number;
}
export interface SideSeen {
  /** Below the horizon, of the runway abeam. */
  belowDeg: number;
  /** Fixed to the airframe. */
  bodyAzimuthDeg: number;
  bodyDepressionDeg: number;
  visible: boolean;
  /** Where the sill, the wing or the cowling ends in that direction. */
  edgeDepressionDeg: number;
  /** The part it lies on or nearest to, and how far down it, 0 top to 1 foot; null = none on that side. */
  part: { name: string; share: number; offDeg: number } | null;
}
/** Farther than this from a part and it is no mark for it. */
const NEAR_DEG = 12;

/**
 * Where the runway lies abeam on downwind, in the horizon frame and on the airframe: at which part, and how far down it.
 * Source: rotation of directions through pitch and bank.
 * @param view from one seat
 * @param i see {@link SideInput}; spacing above 0
 * @returns null without a spacing
 * @throws BadNumber when a number handed in is none
 * @example
 * sideSeen({ profile, parts: [], pitchDeg: 0 }, { heightFt: 1000, spacingM: 900, side: 'left', bankDeg: 0 })
 * // { belowDeg: 18.71, … }
 */
export function sideSeen(view: SideView, i: SideInput): SideSeen | null {
  needNumbers('sideSeen', { view, i });
  if (i.spacingM <= 0) return null;
  const belowDeg = (Math.atan2(i.heightFt * M_PER_FT, i.spacingM) * 180) / Math.PI;
  const way = i.side === 'left' ? -1 : 1;
  const at = directionVisible(view.profile, { pitchDeg: view.pitchDeg, bankDeg: i.bankDeg }, way * 90, belowDeg);
  const near = view.parts
    .flatMap((p) => {
      if (Math.sign(p.from.azimuthDeg) !== way && Math.sign(p.to.azimuthDeg) !== way) return [];
      return [{ name: p.name, ...onLine(p.from, p.to, at.bodyAzimuthDeg, at.bodyDepressionDeg) }];
    })
    .sort((a, b) => a.offDeg - b.offDeg)[0];
  return {
    belowDeg,
    bodyAzimuthDeg: at.bodyAzimuthDeg,
    bodyDepressionDeg: at.bodyDepressionDeg,
    visible: at.visible,
    edgeDepressionDeg: at.noseDepressionDeg,
    part: near && near.offDeg <= NEAR_DEG ? near : null,
  };
}

/** The point of a part nearest a direction, by angle in the window: how far down it, and how far away. */
function onLine(from: ProfilePoint, to: ProfilePoint, azimuthDeg: number, depressionDeg: number) {
  const [dx, dy] = [to.azimuthDeg - from.azimuthDeg, to.depressionDeg - from.depressionDeg];
  const length = dx * dx + dy * dy;
  const t =
    length === 0
      ? 0
      : Math.max(
          0,
          Math.min(1, ((azimuthDeg - from.azimuthDeg) * dx + (depressionDeg - from.depressionDeg) * dy) / length),
        );
  const share = from.depressionDeg <= to.depressionDeg ? t : 1 - t;
  return {
    share,
    offDeg: Math.hypot(from.azimuthDeg + t * dx - azimuthDeg, from.depressionDeg + t * dy - depressionDeg),
  };
}

/** A part in the horizon frame, as drawn in the side window. */
export const partInWindow = (
  part: { from: ProfilePoint; to: ProfilePoint },
  pitchDeg: number,
  bankDeg: number,
): [ProfilePoint, ProfilePoint] => [
  bodyToHorizon(part.from, { pitchDeg, bankDeg }),
  bodyToHorizon(part.to, { pitchDeg, bankDeg }),
];
