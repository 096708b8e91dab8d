import type { TraceContext } from '@/domain/trace';
import { norm180 } from '../../constants';
import { type Placed, type RunwayFrame, surfaceFt } from './frame';

/** A stay in the corridor of a runway, aligned with it: rows from and to. */
export interface Pass {
  frame: RunwayFrame;
  from: number;
  to: number;
}

const ALIGNED_DEG = 35;
const CORRIDOR_FT = 400;
export const BEFORE_M = 3000;
const BEYOND_M = 900;

/** Height above the surface of a runway, before it above its threshold. */
export const above = (p: Placed, f: RunwayFrame, elevationFt: number, i: number): number =>
  (p.heightFt?.[i] ?? Number.NaN) + elevationFt - surfaceFt(f, i);

const aligned = (p: Placed, f: RunwayFrame, i: number): boolean =>
  Math.abs(norm180((p.trackDeg[i] ?? 0) - f.end.trueBearingDeg)) < ALIGNED_DEG;
const inCorridor = (f: RunwayFrame, i: number): boolean => {
  const x = f.along[i] ?? Number.NaN;
  return (
    x > -BEFORE_M && x < f.lengthM + BEYOND_M && Math.abs(f.lateral[i] ?? Number.NaN) < 90 + 0.05 * Math.max(0, -x)
  );
};
/** On the track of a landing or take-off of this end, and in its corridor. */
export const alongIt = (p: Placed, f: RunwayFrame, i: number): boolean => aligned(p, f, i) && inCorridor(f, i);

export function passesOf(p: Placed, context: TraceContext): Pass[] {
  const out: Pass[] = [];
  for (const frame of p.frames) {
    let from = -1;
    let last = -1;
    for (let i = 0; i < p.n; i++) {
      const x = frame.along[i] ?? Number.NaN;
      const y = Math.abs(frame.lateral[i] ?? Number.NaN);
      const gs = p.gsKt[i] ?? 0;
      const rolling = x > -80 && x < frame.lengthM + 80 && y < frame.widthM / 2 + 12;
      const low = p.heightFt === null || !(above(p, frame, context.aerodrome.elevationFt, i) > CORRIDOR_FT);
      // Slow and not on the runway is taxiing; slow on it belongs to the pass that brought it there.
      const inside = (gs < 8 ? rolling : aligned(p, frame, i)) && low && inCorridor(frame, i) && (gs >= 20 || rolling);
      if (inside) {
        if (from < 0) from = i;
        last = i;
      } else if (from >= 0 && (p.tS[i] ?? 0) - (p.tS[last] ?? 0) > 4) {
        out.push({ frame, from, to: last });
        from = -1;
      }
    }
    if (from >= 0) out.push({ frame, from, to: last });
  }
  return out.filter((x) => (p.tS[x.to] ?? 0) - (p.tS[x.from] ?? 0) > 4).sort((a, b) => a.from - b.from);
}
