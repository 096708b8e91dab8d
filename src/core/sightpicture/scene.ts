/**
 * The picture as polygons on a glass in front of the eye. The glass moves with the aeroplane: the cowling stands still,
 * the world moves. A pinhole view along the longitudinal axis, tipped down by a fixed angle; degrees in, glass units
 * out (half the width is 1).
 */
import { cosDeg, sinDeg, tanDeg } from '../constants';
import { type ProfilePoint, fullProfile, noseDepression } from './nose';

export interface Eye {
  x: number;
  y: number;
  zM: number;
  pitchDeg: number;
  bankDeg: number;
  headingDeg: number;
}
export interface Ground {
  lengthM: number;
  widthM: number;
  aimPointM: number;
  /** Rising in the direction of landing, per cent. */
  slopePct: number;
  landmark: { name: string; alongM: number } | null;
}
export interface GlassPoint {
  x: number;
  y: number;
}
export interface Shape {
  id: 'runway' | 'centreline' | 'threshold' | 'aim' | 'landmark' | 'furrow' | 'nose' | 'part';
  points: GlassPoint[];
  closed: boolean;
  name: string | null;
}
export interface Scene {
  shapes: Shape[];
  horizon: [GlassPoint, GlassPoint];
  references: { name: string; at: GlassPoint }[];
  aim: GlassPoint | null;
}
interface Vec {
  f: number;
  r: number;
  d: number;
}

/** Half the width of the view in the air and on the ground, degrees; and how far the glass is tipped down. */
export const AIR_VIEW_DEG = 26;
export const GROUND_VIEW_DEG = 46;
const TIP_DEG = 5;
const NEAR = 0.02;

const fromAngles = (p: ProfilePoint): Vec => ({
  f: cosDeg(p.depressionDeg) * cosDeg(p.azimuthDeg),
  r: cosDeg(p.depressionDeg) * sinDeg(p.azimuthDeg),
  d: sinDeg(p.depressionDeg),
});
/** Body axes to the glass: tipped down, so that the nose and the ground before it are in the picture. */
const toGlass = (v: Vec): Vec => ({
  f: v.f * cosDeg(TIP_DEG) + v.d * sinDeg(TIP_DEG),
  r: v.r,
  d: -v.f * sinDeg(TIP_DEG) + v.d * cosDeg(TIP_DEG),
});
/** Horizon frame, ahead along the heading, to body axes: pitch, then bank. */
function toBody(v: Vec, eye: Pick<Eye, 'pitchDeg' | 'bankDeg'>): Vec {
  const f = v.f * cosDeg(eye.pitchDeg) - v.d * sinDeg(eye.pitchDeg);
  const d1 = v.f * sinDeg(eye.pitchDeg) + v.d * cosDeg(eye.pitchDeg);
  return {
    f,
    r: v.r * cosDeg(eye.bankDeg) + d1 * sinDeg(eye.bankDeg),
    d: -v.r * sinDeg(eye.bankDeg) + d1 * cosDeg(eye.bankDeg),
  };
}

/** Cuts a line or polygon by one plane: what lies where `inside` is positive stays. */
function clip(points: readonly Vec[], closed: boolean, inside: (v: Vec) => number): Vec[] {
  const out: Vec[] = [];
  const n = points.length;
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const a = points[i];
    const b = points[(i + 1) % n];
    if (!a || !b) continue;
    const da = inside(a);
    const db = inside(b);
    if (da > 0) out.push(a);
    if (da > 0 !== db > 0) {
      const t = da / (da - db);
      out.push({ f: a.f + t * (b.f - a.f), r: a.r + t * (b.r - a.r), d: a.d + t * (b.d - a.d) });
    }
  }
  const last = points[n - 1];
  if (!closed && last && inside(last) > 0) out.push(last);
  return out;
}
/** Nothing behind the eye and nothing far beside the glass: what is left has coordinates a drawing can hold. */
function clipToView(points: readonly Vec[], closed: boolean, wide: number): Vec[] {
  return [
    (v: Vec) => v.f - NEAR,
    (v: Vec) => wide * v.f - v.r,
    (v: Vec) => wide * v.f + v.r,
    (v: Vec) => wide * v.f - v.d,
    (v: Vec) => wide * v.f + v.d,
  ].reduce<Vec[]>((left, inside) => (left.length > 1 ? clip(left, closed, inside) : []), [...points]);
}

/**
 * Everything in the view.
 * Source: pinhole projection along the longitudinal axis.
 * @param profile the nose as this eye has it
 * @param parts lines between two body directions; `references` body directions with a name
 * @returns polygons and lines in shares of the picture
 */
export function scene(input: {
  /** Half the width of the view, degrees. */
  halfViewDeg: number;
  eye: Eye;
  ground: Ground;
  profile: readonly ProfilePoint[];
  parts: readonly { name: string; from: ProfilePoint; to: ProfilePoint }[];
  references: readonly { name: string; at: ProfilePoint }[];
}): Scene {
  const { eye, ground } = input;
  const scale = 1 / tanDeg(input.halfViewDeg);
  const onGlass = (v: Vec): GlassPoint => ({ x: (v.r / v.f) * scale, y: (v.d / v.f) * scale });
  const h = eye.headingDeg;
  /** A ground point (x along, y right, z up above the threshold) as the eye has it. */
  const see = (x: number, y: number, z: number): Vec => {
    const dx = x - eye.x;
    const dy = y - eye.y;
    return toGlass(
      toBody({ f: dx * cosDeg(h) + dy * sinDeg(h), r: -dx * sinDeg(h) + dy * cosDeg(h), d: eye.zM - z }, eye),
    );
  };
  const up = (x: number): number => Math.max(0, Math.min(x, ground.lengthM)) * (ground.slopePct / 100);
  const half = ground.widthM / 2;
  const shapes: Shape[] = [];
  const add = (id: Shape['id'], points: Vec[], closed: boolean, name: string | null = null) => {
    const seen = clipToView(points, closed, 3 / scale).map(onGlass);
    if (seen.length > 1) shapes.push({ id, points: seen, closed, name });
  };
  const far = (azimuthDeg: number): Vec => toGlass(toBody({ f: cosDeg(azimuthDeg), r: sinDeg(azimuthDeg), d: 0 }, eye));
  const horizon: [GlassPoint, GlassPoint] = [onGlass(far(-50)), onGlass(far(50))];
  // Furrows beside the runway give the ground a direction and a speed.
  for (const side of [-1, 1])
    for (const k of [1, 2, 4, 7])
      add(
        'furrow',
        [see(-2500, side * (half + 30 * k), 0), see(ground.lengthM + 2500, side * (half + 30 * k), 0)],
        false,
      );
  for (let x = Math.ceil((eye.x - 100) / 200) * 200; x < eye.x + 1600; x += 200)
    for (const side of [-1, 1])
      add('furrow', [see(x, side * (half + 30), up(x)), see(x, side * (half + 210), up(x))], false);
  add(
    'runway',
    [
      see(0, -half, 0),
      see(0, half, 0),
      see(ground.lengthM, half, up(ground.lengthM)),
      see(ground.lengthM, -half, up(ground.lengthM)),
    ],
    true,
    'runway',
  );
  for (let i = 0; i < 5; i++)
    for (const side of [-1, 1]) {
      const a = side * (half * (0.16 + i * 0.16));
      add(
        'threshold',
        [
          see(6, a, up(6)),
          see(6, a + side * half * 0.08, up(6)),
          see(26, a + side * half * 0.08, up(26)),
          see(26, a, up(26)),
        ],
        true,
      );
    }
  for (let x = 40; x + 30 < ground.lengthM; x += 60)
    add(
      'centreline',
      [see(x, -0.25, up(x)), see(x, 0.25, up(x)), see(x + 30, 0.25, up(x)), see(x + 30, -0.25, up(x))],
      true,
    );
  for (const side of [-1, 1]) {
    const a = side * half * 0.35;
    const b = side * half * 0.65;
    add(
      'aim',
      [
        see(ground.aimPointM - 8, a, up(ground.aimPointM)),
        see(ground.aimPointM - 8, b, up(ground.aimPointM)),
        see(ground.aimPointM + 14, b, up(ground.aimPointM)),
        see(ground.aimPointM + 14, a, up(ground.aimPointM)),
      ],
      true,
      'aim point',
    );
  }
  if (ground.landmark)
    add(
      'landmark',
      [
        see(ground.landmark.alongM, -half - 14, up(ground.landmark.alongM)),
        see(ground.landmark.alongM, -half - 14, up(ground.landmark.alongM) + 8),
      ],
      false,
      ground.landmark.name,
    );
  for (const p of input.parts) add('part', [toGlass(fromAngles(p.from)), toGlass(fromAngles(p.to))], false, p.name);
  const nose = fullProfile(input.profile);
  const first = nose[0];
  const last = nose[nose.length - 1];
  if (first && last) {
    // Denser than the table, so that a straight line on the body is a curve on the glass; then down out of the picture.
    const edge: ProfilePoint[] = [];
    for (let a = Math.max(-80, first.azimuthDeg); a <= Math.min(80, last.azimuthDeg) + 1e-9; a += 2)
      edge.push({ azimuthDeg: a, depressionDeg: noseDepression(nose, a) });
    const points = edge
      .map((p) => toGlass(fromAngles(p)))
      .filter((v) => v.f > NEAR)
      .map(onGlass);
    const left = points[0];
    const right = points[points.length - 1];
    if (left && right)
      shapes.push({
        id: 'nose',
        points: [...points, { x: right.x, y: 4 }, { x: left.x, y: 4 }],
        closed: true,
        name: 'nose',
      });
  }
  const aimVec = see(ground.aimPointM, 0, up(ground.aimPointM));
  return {
    shapes,
    horizon,
    aim: aimVec.f > NEAR ? onGlass(aimVec) : null,
    references: input.references
      .map((r) => ({ name: r.name, v: toGlass(fromAngles(r.at)) }))
      .filter((r) => r.v.f > NEAR)
      .map((r) => ({ name: r.name, at: onGlass(r.v) })),
  };
}

/**
 * The eye on the ground in the landing attitude, so far right of the centreline.
 * Source: pinhole projection along the longitudinal axis.
 * @returns metres and degrees
 * @example
 * groundEye({ eyeHeightM: 1.75, pitchDeg: 12, crabDeg: 0, offsetM: 2, eyeLateralM: 0, alongM: 100 })
 * // { x: 100, y: 2, zM: 1.75, pitchDeg: 12, bankDeg: 0, headingDeg: 0 }
 */
export const groundEye = (input: {
  eyeHeightM: number;
  pitchDeg: number;
  crabDeg: number;
  offsetM: number;
  eyeLateralM: number;
  alongM: number;
}): Eye => ({
  x: input.alongM,
  y: input.offsetM + input.eyeLateralM,
  zM: input.eyeHeightM,
  pitchDeg: input.pitchDeg,
  bankDeg: 0,
  headingDeg: input.crabDeg,
});
