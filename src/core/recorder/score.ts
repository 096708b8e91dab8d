/**
 * What was flown against what was found: pairs by kind and time, what was missed, what was invented, how far off the
 * measures are.
 */
import type { FoundEvent, TraceAnalysis } from '@/domain/trace';
import type { Flown, FlownEvent } from './fly';
import type { FlownAirwork } from './airwork';

export type FoundAirwork = TraceAnalysis['airwork'][number];
export interface Score {
  events: { flown: FlownEvent; found: FoundEvent }[];
  missed: FlownEvent[];
  invented: FoundEvent[];
  airwork: { flown: FlownAirwork; found: FoundAirwork }[];
  airworkMissed: FlownAirwork[];
  airworkInvented: FoundAirwork[];
}
/**
 * A flown kind in the analysis' words.
 * @returns the kind
 */
export const kindOf = (e: FlownEvent): FoundEvent['kind'] => (e.kind === 'full-stop' ? 'landing' : e.kind);
const momentFlown = (e: FlownEvent): number => e.touchdownS ?? e.lowestS ?? e.liftoffS ?? 0;
const momentFound = (e: FoundEvent): number => e.touchdown?.tS ?? e.lowestS ?? e.liftoff?.tS ?? 0;

/**
 * @param firstS time of the flight at which the file's first good sample stands
 * @returns what was found of what was flown, what was not, and what was found that was not flown
 */
export function score(flown: Flown, found: Pick<TraceAnalysis, 'events' | 'airwork'>, firstS = 0): Score {
  const used = new Set<FoundEvent>();
  const usedAir = new Set<FoundAirwork>();
  const out: Score = { events: [], missed: [], invented: [], airwork: [], airworkMissed: [], airworkInvented: [] };
  for (const t of flown.events) {
    const near = found.events.find(
      (e) =>
        !used.has(e) &&
        e.kind === kindOf(t) &&
        (t.lowestS === null
          ? Math.abs(momentFound(e) - momentFlown(t) + firstS) < 8
          : momentFlown(t) - firstS > e.startS - 20 && momentFlown(t) - firstS < e.endS + 20),
    );
    if (near) {
      used.add(near);
      out.events.push({ flown: t, found: near });
    } else out.missed.push(t);
  }
  out.invented = found.events.filter((e) => !used.has(e));
  for (const t of flown.airwork) {
    // The recorder has one engine: a glide with it idling is no failure, and none may be found.
    if (t.kind === 'engine-out') continue;
    const near = found.airwork.find(
      (e) =>
        !usedAir.has(e) &&
        e.kind === t.kind &&
        Math.min(e.endS, t.endS - firstS) - Math.max(e.startS, t.startS - firstS) > 0,
    );
    if (near) {
      usedAir.add(near);
      out.airwork.push({ flown: t, found: near });
    } else out.airworkMissed.push(t);
  }
  out.airworkInvented = found.airwork.filter((e) => !usedAir.has(e));
  return out;
}
