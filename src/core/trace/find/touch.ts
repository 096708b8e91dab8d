import { bend } from './bend';
import type { Placed } from './frame';
import { fitLine, indexAt } from './sample';

/** A load felt higher than this is no touch. */
const LOAD_BELOW_FT = 8;
export interface Touch {
  tS: number;
  sinkFpm: number | null;
  sharp: boolean;
}

/** The touch within a window: the bend in the height, moved to the first load of it where there is one. */
export function touchIn(p: Placed, h: Float64Array, from: number, to: number, groundFt: number): Touch | null {
  const found = bend(h, p.tS, from, to, groundFt, p.heightNoiseFt, false);
  const tS = knockNear(p, h, found.tS, to, groundFt);
  return { tS: tS ?? found.tS, sinkFpm: sinkInto(p, h, tS ?? found.tS, found.slopeFtS * 60), sharp: tS !== null };
}

/**
 * The first knock of the load near a bend: what stands out of its neighbours by a good part of the greatest that does.
 */
function knockNear(p: Placed, h: Float64Array, bendS: number, to: number, groundFt: number): number | null {
  if (!p.nz || p.trace.rateHz < 3.5) return null;
  const from = indexAt(p.tS, bendS - 2.5);
  const last = Math.min(to, indexAt(p.tS, bendS + 1.5));
  const outstanding: number[] = [];
  let most = 0;
  for (let i = from; i <= last; i++) {
    const around: number[] = [];
    for (
      let k = Math.max(0, indexAt(p.tS, (p.tS[i] ?? 0) - 1.2));
      k < p.n && (p.tS[k] ?? 0) <= (p.tS[i] ?? 0) + 1.2;
      k++
    ) {
      const v = p.nz[k] ?? Number.NaN;
      if (v === v) around.push(v);
    }
    around.sort((a, b) => a - b);
    const e = (h[i] ?? 99) - groundFt < LOAD_BELOW_FT ? (p.nz[i] ?? 0) - (around[around.length >> 1] ?? 1) : 0;
    outstanding.push(e);
    most = Math.max(most, e);
  }
  if (most < Math.max(LEAST_KNOCK_G, p.feltG - 1.03)) return null;
  const first = outstanding.findIndex((e) => e > Math.max(0.09, 0.45 * most));
  return p.tS[from + first] ?? null;
}
/** A smaller knock may be a gust or noise. */
const LEAST_KNOCK_G = 0.12;

/** Sink at the touch: from the recorded vertical speed of the last second, else from the height. */
function sinkInto(p: Placed, h: Float64Array, touchS: number, bendFpm: number): number {
  const { vs } = p.trace.channels;
  const a = indexAt(p.tS, touchS - Math.max(1.2, 2.2 / p.trace.rateHz));
  const b = indexAt(p.tS, touchS - 0.25);
  const line = vs && b - a >= 1 ? fitLine(vs, p.tS, a, b - 1, touchS - 0.1) : null;
  if (line && Number.isFinite(line.value) && line.value < 50) return Math.max(0, -line.value);
  return bendFpm;
}

/** Loads after the first touch, as separate knocks on the runway: each but the first is a bounce. */
export function bouncesAfter(
  p: Placed,
  h: Float64Array,
  touchS: number,
  groundFt: number,
): { bounces: number | null; peakG: number | null } {
  if (!p.nz || p.trace.rateHz < 3.5) return { bounces: null, peakG: null };
  let peak = -Infinity;
  let knocks = 0;
  let lastKnock = -Infinity;
  let firstLoad = 0;
  for (let i = indexAt(p.tS, touchS - 0.3); i < p.n && (p.tS[i] ?? 0) < touchS + 8; i++) {
    const g = p.nz[i] ?? Number.NaN;
    if (g > peak) peak = g;
    const t = p.tS[i] ?? 0;
    if (knocks === 0) firstLoad = Math.max(firstLoad, g - 1);
    const enough = Math.max(0.12, 0.35 * firstLoad);
    if (g - 1 > enough && (h[i] ?? 99) - groundFt < LOAD_BELOW_FT && t - lastKnock > 0.55) {
      knocks++;
      lastKnock = t;
    } else if (g - 1 > enough) lastKnock = t;
  }
  return { bounces: Math.max(0, knocks - 1), peakG: Number.isFinite(peak) ? peak : null };
}
