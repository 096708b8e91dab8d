import type { FoundEvent } from '@/domain/trace';
import { type Placed, type RunwayFrame, smoothed } from './frame';
import { BEFORE_M } from './passes';
import { highest, indexAt, orNull, round } from './sample';
import { approachStart } from './stay-events';

/** A pass is looked at below the second; what never came below the first is none. */
const LOW_FT = 300;

/** Feet within which a pass stays for five seconds when it is level, beside what the height shakes by. */
const LEVEL_FT = 9;

/** Five seconds near level below 100 ft along the runway. */
function levelFor5s(p: Placed, h: Float64Array, frame: RunwayFrame, from: number, to: number): boolean {
  const calm = smoothed(h, p.tS, 0.6, from, to);
  const rest = p.heightNoiseFt / Math.sqrt(Math.max(1, 1.2 * p.trace.rateHz + 1));
  for (let a = from; a < to; a++) {
    const b = indexAt(p.tS, (p.tS[a] ?? 0) + 5);
    if (b > to) return false;
    let [low, high] = [Infinity, -Infinity];
    for (let i = a; i <= b; i++) {
      const v = calm[i] ?? Number.NaN;
      if (v < low) low = v;
      if (v > high) high = v;
    }
    const m = (a + b) >> 1;
    if (
      high < 100 &&
      high - low < LEVEL_FT + 0.5 * rest &&
      (frame.along[m] ?? -1e9) > -250 &&
      (frame.along[m] ?? 1e9) < frame.lengthM + 250
    )
      return true;
  }
  return false;
}

/** A pass that never touched: level along the runway, or down and away again. */
export function passWithout(
  p: Placed,
  h: Float64Array,
  frame: RunwayFrame,
  from: number,
  to: number,
): FoundEvent | null {
  let low = -1;
  for (let i = from; i <= to; i++) if (low < 0 || (h[i] ?? Infinity) < (h[low] ?? Infinity)) low = i;
  const lowest = h[low] ?? Number.NaN;
  if (!(lowest < LOW_FT)) return null;
  const before = indexAt(p.tS, (p.tS[low] ?? 0) - 60);
  const after = Math.min(p.n - 1, indexAt(p.tS, (p.tS[low] ?? 0) + 45));
  if (highest(h, before, low) < lowest + 60 || highest(h, low, after) < lowest + 60) return null;
  const near = (frame.along[low] ?? -1e9) > -BEFORE_M;
  if (!near) return null;
  const kind = lowest < 100 && levelFor5s(p, h, frame, from, to) ? 'low-pass' : 'go-around';
  return {
    kind,
    runway: frame.ident,
    startS: round(approachStart(p, frame, h, from, p.tS[low] ?? 0)),
    endS: round(p.tS[to] ?? 0),
    lowestHeightFt: orNull(lowest, 0),
    lowestS: round(p.tS[low] ?? 0),
    confidence: p.calibrated ? 0.85 : 0.55,
  };
}
