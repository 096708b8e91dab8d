import type { Placed } from './frame';
import { medianOf } from '../../constants';
import type { Pass } from './passes';
import { highest } from './sample';
import { groundOffFt, wheelsLikely } from './wheels';

/** Rows between which wheels were on the ground. */
export interface Stay {
  from: number;
  to: number;
}

/** About what a recorded height is off on the runway, at most. */
const GROUND_FT = 9;

/** Slow is on the ground only where it is not plainly above it: into a wind a light aeroplane flies slowly. */
const SLOW_BELOW_FT = 15;
/** Off the ground for less than this and no higher: a hop, or a height that wanders. */
const HOP_S = 8;
const HOP_FT = 9;
/** A shorter stay is no landing: it touched and flew on. */
const LEAST_STAY_S = 1.2;

/**
 * Stays on the ground within a pass: rolling too slowly to fly, or low and level for more than a second.
 * @param restFt noise left in the height
 * @param flyKt slower than this over the ground it does not fly
 */
export function staysOf(
  p: Placed,
  h: Float64Array,
  { frame, from, to }: Pass,
  { restFt, flyKt }: { restFt: number; flyKt: number },
): Stay[] {
  const onRunway = (i: number) =>
    (frame.along[i] ?? -1e9) > -150 &&
    (frame.along[i] ?? 1e9) < frame.lengthM + 150 &&
    Math.abs(frame.lateral[i] ?? 1e9) < frame.widthM / 2 + 25;
  const groundFt = groundCeiling(p, h, from, to, restFt, onRunway);
  const isLow = (i: number) =>
    onRunway(i) && (h[i] ?? 0) < groundFt + SLOW_BELOW_FT && ((p.gsKt[i] ?? 99) < flyKt || (h[i] ?? 99) < groundFt);
  const stays: Stay[] = [];
  let start = -1;
  for (let i = from; i <= to; i++) {
    const low = isLow(i);
    if (low && start < 0) start = i;
    if ((low && i !== to) || start < 0) continue;
    const end = low ? i : i - 1;
    const before = stays[stays.length - 1];
    // A hop between two stays is a bounce, not a flight; so is a height that wanders while it rolls.
    const hop =
      before !== undefined &&
      (p.tS[start] ?? 0) - (p.tS[before.to] ?? 0) < HOP_S &&
      highest(h, before.to, start) < groundFt + HOP_FT;
    if (hop) before.to = end;
    else stays.push({ from: start, to: end });
    start = -1;
  }
  return stays.filter(
    (g) => (p.tS[g.to] ?? 0) - (p.tS[g.from] ?? 0) >= LEAST_STAY_S && wheelsSeen(p, h, g, restFt, flyKt),
  );
}

/** Slow enough, or all that is seen says so. */
function wheelsSeen(p: Placed, h: Float64Array, stay: Stay, restFt: number, flyKt: number): boolean {
  for (let i = stay.from; i <= stay.to; i++) if ((p.gsKt[i] ?? Number.NaN) < flyKt) return true;
  return wheelsLikely(p, h, stay.from, stay.to, restFt) > 0;
}

/**
 * Below which height this pass is on the ground. A recorder that has wandered shows the runway some feet high: then the
 * lowest part counts, when a load or a loss of speed says that wheels touched there; a pass that only flies low keeps
 * its speed and feels nothing.
 */
function groundCeiling(
  p: Placed,
  h: Float64Array,
  from: number,
  to: number,
  restFt: number,
  onRunway: (i: number) => boolean,
): number {
  let low = -1;
  for (let i = from; i <= to; i++) if (onRunway(i) && (low < 0 || (h[i] ?? Infinity) < (h[low] ?? Infinity))) low = i;
  const lowest = low < 0 ? Infinity : (h[low] ?? Infinity);
  const usual = GROUND_FT - 3.5 + 1.5 * restFt;
  if (!(lowest < 2.5 * groundOffFt(p))) return usual;
  // The part about the lowest: as far as it stays within what the height shakes by.
  // and wanders by while it rolls.
  const top = (i: number) => lowest + 2 + 2.5 * restFt + Math.min(4, 0.4 * Math.abs((p.tS[i] ?? 0) - (p.tS[low] ?? 0)));
  let [a, b] = [low, low];
  while (a > from && (h[a - 1] ?? Infinity) < top(a - 1) && onRunway(a - 1)) a--;
  while (b < to && (h[b + 1] ?? Infinity) < top(b + 1) && onRunway(b + 1)) b++;
  const level = medianOf(h.subarray(a, b + 1)) ?? 0;
  return wheelsLikely(p, h, a, b, restFt) > 0 ? Math.max(usual, level + 3.5 + 1.5 * restFt) : usual;
}

/** The height the recorder shows on this stay: the middle of its slow part, else of its lowest. */
export function groundLevel(h: Float64Array, gsKt: Float64Array, stay: Stay): number {
  const values: number[] = [];
  for (let i = stay.from; i <= stay.to; i++) {
    const v = h[i] ?? Number.NaN;
    if (v === v) values.push(v);
  }
  values.sort((a, b) => a - b);
  return values[Math.floor(values.length * 0.4)] ?? 0;
}
