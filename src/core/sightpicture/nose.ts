/**
 * What the pilot sees over the nose. Degrees; azimuth positive right, depression positive below; full rotation, no
 * small-angle shortcut. A cowling profile gives, for each azimuth, how far below the longitudinal axis the nose ends.
 */
import { needNumbers } from '../guard';
import { M_PER_FT, SLACK, cosDeg, sinDeg, tanDeg } from '../constants';

export interface ProfilePoint {
  azimuthDeg: number;
  depressionDeg: number;
}
const deg = (rad: number): number => (rad * 180) / Math.PI;

const whole = new WeakMap<readonly ProfilePoint[], ProfilePoint[]>();
/**
 * The profile with its left half: a table without negative azimuths is mirrored. Ascending azimuth. Kept per table: a
 * scan asks for it thousands of times.
 * Source: rotation of directions through pitch and bank, no small-angle shortcut.
 * @returns degrees
 */
export function fullProfile(profile: readonly ProfilePoint[]): readonly ProfilePoint[] {
  const known = whole.get(profile) ?? mirrored(profile);
  whole.set(profile, known);
  return known;
}
function mirrored(profile: readonly ProfilePoint[]): ProfilePoint[] {
  const left = profile.some((p) => p.azimuthDeg < 0)
    ? []
    : profile
        .filter((p) => p.azimuthDeg > 0)
        .map((p) => ({ azimuthDeg: -p.azimuthDeg, depressionDeg: p.depressionDeg }));
  return [...left, ...profile].sort((a, b) => a.azimuthDeg - b.azimuthDeg);
}

/**
 * Depression at which the nose ends at a body azimuth: linear between points, held flat beyond its ends.
 * Source: rotation of directions through pitch and bank, no small-angle shortcut.
 * @returns degrees below the longitudinal axis
 * @throws BadNumber when a number handed in is none
 * @example
 * noseDepression([{ azimuthDeg: 0, depressionDeg: 4 }, { azimuthDeg: 8, depressionDeg: 6 }, { azimuthDeg: 20,
 * depressionDeg: 14 }, { azimuthDeg: 60, depressionDeg: 35 }], 8)
 * // 6
 */
export function noseDepression(profile: readonly ProfilePoint[], bodyAzimuthDeg: number): number {
  needNumbers('noseDepression', { profile, bodyAzimuthDeg });
  const rows = fullProfile(profile);
  const first = rows[0];
  const last = rows[rows.length - 1];
  if (!first || !last) return 0;
  if (bodyAzimuthDeg <= first.azimuthDeg) return first.depressionDeg;
  const i = rows.findIndex((r) => r.azimuthDeg >= bodyAzimuthDeg);
  if (i < 0) return last.depressionDeg;
  const high = rows[i] ?? last;
  const low = rows[i - 1] ?? first;
  return high.azimuthDeg === low.azimuthDeg
    ? high.depressionDeg
    : low.depressionDeg +
        ((bodyAzimuthDeg - low.azimuthDeg) / (high.azimuthDeg - low.azimuthDeg)) *
          (high.depressionDeg - low.depressionDeg);
}

export interface PointSeen {
  depressionDeg: number;
  bodyAzimuthDeg: number;
  bodyDepressionDeg: number;
  noseDepressionDeg: number;
  visible: boolean;
  marginDeg: number;
}
export interface Attitude {
  pitchDeg: number;
  bankDeg: number;
}

/**
 * Is a direction (azimuth from the heading, depression below the horizon) above the nose?
 * Source: rotation of directions through pitch and bank, no small-angle shortcut.
 * @returns visible or not, with the margin in degrees
 * @throws BadNumber when a number handed in is none
 */
export function directionVisible(
  profile: readonly ProfilePoint[],
  attitude: Attitude,
  azimuthDeg: number,
  depressionDeg: number,
): PointSeen {
  needNumbers('directionVisible', { profile, attitude, azimuthDeg, depressionDeg });
  const x = cosDeg(depressionDeg) * cosDeg(azimuthDeg);
  const y = cosDeg(depressionDeg) * sinDeg(azimuthDeg);
  const z = sinDeg(depressionDeg);
  const x1 = x * cosDeg(attitude.pitchDeg) - z * sinDeg(attitude.pitchDeg);
  const z1 = x * sinDeg(attitude.pitchDeg) + z * cosDeg(attitude.pitchDeg);
  const yb = y * cosDeg(attitude.bankDeg) + z1 * sinDeg(attitude.bankDeg);
  const zb = -y * sinDeg(attitude.bankDeg) + z1 * cosDeg(attitude.bankDeg);
  const bodyAzimuthDeg = deg(Math.atan2(yb, x1));
  const bodyDepressionDeg = deg(Math.atan2(zb, Math.hypot(x1, yb)));
  const noseDepressionDeg = noseDepression(profile, bodyAzimuthDeg);
  return {
    depressionDeg,
    bodyAzimuthDeg,
    bodyDepressionDeg,
    noseDepressionDeg,
    visible: bodyDepressionDeg < noseDepressionDeg,
    marginDeg: noseDepressionDeg - bodyDepressionDeg,
  };
}

/**
 * Is a ground point visible over the nose? `eyeHeightM` above the point, `distanceM` horizontal, azimuth with offset
 * and crab together.
 * Source: rotation of directions through pitch and bank, no small-angle shortcut.
 * @returns visible or not, with the margin in degrees
 * @throws BadNumber when a number handed in is none
 */
export function pointVisible(
  input: { profile: readonly ProfilePoint[]; eyeHeightM: number; distanceM: number; azimuthDeg: number } & Attitude,
): PointSeen {
  needNumbers('pointVisible', input);
  return directionVisible(input.profile, input, input.azimuthDeg, deg(Math.atan2(input.eyeHeightM, input.distanceM)));
}

/**
 * A direction fixed to the airframe, seen in the horizon frame; negative depression is above the horizon.
 * Source: rotation of directions through pitch and bank, no small-angle shortcut.
 * @returns degrees
 * @throws BadNumber when a number handed in is none
 * @example
 * bodyToHorizon({ azimuthDeg: 8, depressionDeg: 6 }, { pitchDeg: 0, bankDeg: 0 })
 * // { azimuthDeg: 8, depressionDeg: 6 }
 */
export function bodyToHorizon(point: ProfilePoint, attitude: Attitude): ProfilePoint {
  needNumbers('bodyToHorizon', { point, attitude });
  const x = cosDeg(point.depressionDeg) * cosDeg(point.azimuthDeg);
  const y = cosDeg(point.depressionDeg) * sinDeg(point.azimuthDeg);
  const z = sinDeg(point.depressionDeg);
  const y1 = y * cosDeg(attitude.bankDeg) - z * sinDeg(attitude.bankDeg);
  const z1 = y * sinDeg(attitude.bankDeg) + z * cosDeg(attitude.bankDeg);
  const X = x * cosDeg(attitude.pitchDeg) + z1 * sinDeg(attitude.pitchDeg);
  const Z = -x * sinDeg(attitude.pitchDeg) + z1 * cosDeg(attitude.pitchDeg);
  return { azimuthDeg: deg(Math.atan2(y1, X)), depressionDeg: deg(Math.atan2(Z, Math.hypot(X, y1))) };
}

/**
 * The cowling seen in the horizon frame, in order of body azimuth, mirrored points included.
 * Source: rotation of directions through pitch and bank, no small-angle shortcut.
 * @returns degrees
 */
export const rotateProfile = (profile: readonly ProfilePoint[], attitude: Attitude): ProfilePoint[] =>
  fullProfile(profile).map((p) => bodyToHorizon(p, attitude));

const SCAN_DEG = 0.05;

/** Least azimuth in [0, 90] to a side at which a point is visible; null when none is. Scanned, then bisected. */
function leastAzimuth(sees: (azimuthDeg: number) => boolean): number | null {
  if (sees(0)) return 0;
  for (let i = 1; i <= 90 / SCAN_DEG; i++) {
    if (!sees(i * SCAN_DEG)) continue;
    return bisect((i - 1) * SCAN_DEG, i * SCAN_DEG, sees);
  }
  return null;
}

/** Where a condition turns true between `low` (false) and `high` (true). */
function bisect(low: number, high: number, holds: (x: number) => boolean): number {
  let a = low;
  let b = high;
  for (let i = 0; i < 50; i++) {
    const mid = (a + b) / 2;
    if (holds(mid)) b = mid;
    else a = mid;
  }
  return (a + b) / 2;
}

export interface SightGate extends Attitude {
  heightFt: number;
  distanceM: number;
}

/**
 * Least offset angle that keeps the aim point beside the nose at every gate down to a height.
 * Source: rotation of directions through pitch and bank, no small-angle shortcut.
 * @returns 0 when straight in works, null when no angle up to 90° does; the gate that needs most
 * @throws BadNumber when a number handed in is none
 */
export function leastOffset(input: {
  profile: readonly ProfilePoint[];
  gates: readonly SightGate[];
  downToFt: number;
  side: 'left' | 'right';
}): { offsetDeg: number | null; governingGate: number | null } {
  needNumbers('leastOffset', input);
  const sign = input.side === 'left' ? -1 : 1;
  let best = 0;
  let governingGate: number | null = null;
  for (const [i, g] of input.gates.entries()) {
    if (g.heightFt < input.downToFt - SLACK) continue;
    const a = leastAzimuth(
      (az) =>
        pointVisible({
          profile: input.profile,
          pitchDeg: g.pitchDeg,
          bankDeg: g.bankDeg,
          eyeHeightM: g.heightFt * M_PER_FT,
          distanceM: g.distanceM,
          azimuthDeg: sign * az,
        }).visible,
    );
    if (a === null) return { offsetDeg: null, governingGate: null };
    if (a > best + 1e-6) {
      best = a;
      governingGate = i;
    }
  }
  return { offsetDeg: best, governingGate };
}

export interface ThresholdLost {
  noseBelowHorizonDeg: number;
  lostAtHeightFt: number | null;
  state: 'lostAt' | 'neverVisible' | 'neverLost';
}

/**
 * Eye height at which the threshold goes under the nose on a straight-in, wings level: h = A·tan D·tan γ/(tan D − tan
 * γ).
 * Source: rotation of directions through pitch and bank, no small-angle shortcut.
 * @returns degrees, ft, and whether it is lost, never seen or never lost
 * @throws BadNumber when a number handed in is none
 */
export function thresholdLost(input: {
  profile: readonly ProfilePoint[];
  pitchDeg: number;
  slopeDeg: number;
  aimPastThresholdM: number;
}): ThresholdLost {
  needNumbers('thresholdLost', input);
  const noseBelowHorizonDeg = noseDepression(input.profile, 0) - input.pitchDeg;
  if (noseBelowHorizonDeg <= input.slopeDeg + SLACK)
    return { noseBelowHorizonDeg, lostAtHeightFt: null, state: 'neverVisible' };
  if (input.aimPastThresholdM === 0) return { noseBelowHorizonDeg, lostAtHeightFt: null, state: 'neverLost' };
  const d = tanDeg(noseBelowHorizonDeg);
  const g = tanDeg(input.slopeDeg);
  return {
    noseBelowHorizonDeg,
    lostAtHeightFt: (input.aimPastThresholdM * d * g) / (d - g) / M_PER_FT,
    state: 'lostAt',
  };
}

export interface EdgeSeen {
  nearestM: number | null;
  farthestM: number | null;
  wedgeDeg: number;
}
export interface RunwayEdges {
  left: EdgeSeen;
  right: EdgeSeen;
  equalWedgeOffsetM: number | null;
}
export interface EdgesInput extends Attitude {
  profile: readonly ProfilePoint[];
  /** Nose right positive. */
  crabDeg: number;
  eyeHeightM: number;
  /** From the aeroplane's centreline, right positive. */
  eyeLateralM: number;
  /** Aeroplane right of the runway centreline. */
  offsetM: number;
  runwayWidthM: number;
  lookAheadM: number;
  /** How far to the side the pilot looks, from the runway direction. */
  maxAzimuthDeg: number;
}
const EDGE_SCAN_DEG = 0.1;

/** One edge: where along the runway it is seen, and in how many degrees of azimuth. */
function edgeSeen(input: EdgesInput, side: -1 | 1, offsetM: number): EdgeSeen {
  const lateral = input.runwayWidthM / 2 - side * (offsetM + input.eyeLateralM);
  const sees = (psi: number): boolean =>
    directionVisible(
      input.profile,
      input,
      side * psi - input.crabDeg,
      deg(Math.atan2(input.eyeHeightM * sinDeg(psi), lateral)),
    ).visible;
  const ahead = (psi: number): number => (psi <= 0 ? Infinity : psi >= 90 ? 0 : lateral / tanDeg(psi));
  const steps = Math.ceil(input.maxAzimuthDeg / EDGE_SCAN_DEG);
  let wedgeDeg = 0;
  let nearestM: number | null = null;
  let farthestM: number | null = null;
  let from: number | null = sees(0) ? 0 : null;
  const close = (start: number, end: number) => {
    wedgeDeg += end - start;
    nearestM = Math.min(nearestM ?? Infinity, ahead(end));
    farthestM = Math.max(farthestM ?? 0, Math.min(input.lookAheadM, ahead(start)));
  };
  for (let i = 1; i <= steps; i++) {
    const a = (i - 1) * (input.maxAzimuthDeg / steps);
    const b = i * (input.maxAzimuthDeg / steps);
    const now = sees(b);
    if (now && from === null) from = bisect(a, b, sees);
    else if (!now && from !== null) {
      close(
        from,
        bisect(a, b, (x) => !sees(x)),
      );
      from = null;
    }
  }
  if (from !== null) close(from, input.maxAzimuthDeg);
  return { nearestM, farthestM, wedgeDeg };
}

/**
 * Runway edges seen on the ground in the landing attitude, and the offset of a pilot who makes both wedges equal.
 * Source: rotation of directions through pitch and bank, no small-angle shortcut.
 * @returns distances ahead along the runway, null when no part of the edge is seen; `equalWedgeOffsetM` null when the
 * wedges do not tell
 * @throws BadNumber when a number handed in is none
 */
export function runwayEdges(input: EdgesInput): RunwayEdges {
  needNumbers('runwayEdges', input);
  if (!(input.maxAzimuthDeg > 0) || input.maxAzimuthDeg > 180)
    throw new RangeError('a look to the side is above 0° and at most 180°');
  const difference = (offsetM: number): number =>
    edgeSeen(input, 1, offsetM).wedgeDeg - edgeSeen(input, -1, offsetM).wedgeDeg;
  const reach = input.runwayWidthM / 2 - 0.5;
  return {
    left: edgeSeen(input, -1, input.offsetM),
    right: edgeSeen(input, 1, input.offsetM),
    equalWedgeOffsetM: equalWedges(difference, -reach - input.eyeLateralM, reach - input.eyeLateralM),
  };
}

function equalWedges(difference: (offsetM: number) => number, low: number, high: number): number | null {
  if (!(difference(low) > 0) || !(difference(high) < 0)) return null;
  let a = low;
  let b = high;
  for (let i = 0; i < 40; i++) {
    const mid = (a + b) / 2;
    if (difference(mid) > 0) a = mid;
    else b = mid;
  }
  const at = (a + b) / 2;
  const flat = Math.abs(difference(at - 0.025)) <= 1e-6 && Math.abs(difference(at + 0.025)) <= 1e-6;
  return flat ||
    Math.abs(difference(Math.min(high, at + 0.05))) <= 1e-6 ||
    Math.abs(difference(Math.max(low, at - 0.05))) <= 1e-6
    ? null
    : at;
}
