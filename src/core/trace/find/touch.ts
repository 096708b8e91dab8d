import { contactIn } from './contact';
import type { Placed } from './frame';
import { indexAt } from './sample';

/** A load felt higher than this is no touch. */
const LOAD_BELOW_FT = 8;
export interface Touch {
  tS: number;
  /** One sigma. */
  sdS: number;
  sinkFpm: number | null;
  sinkSdFpm: number | null;
  sharp: boolean;
}

/** The touch within a window, as an estimate of everything the file has. */
export function touchIn(
  p: Placed,
  h: Float64Array,
  [from, to]: readonly [number, number],
  groundFt: number,
  water: boolean,
): Touch | null {
  const c = contactIn(p, h, { from, to, sign: 1, water }, groundFt);
  if (!c) return null;
  return { tS: c.tS, sdS: c.sdS, sinkFpm: c.rateFtS * 60, sinkSdFpm: c.rateSdFtS * 60, sharp: c.felt && c.sdS < 0.6 };
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
