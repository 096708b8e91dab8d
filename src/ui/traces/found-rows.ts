import type { TraceAnalysis } from '@/domain/trace';
import { FOUND_NAME, momentOf } from './words';

export type FoundOf = 'event' | 'item' | 'limit';
/** One of what was found, by its place in its list. */
export type Chosen = { of: FoundOf; k: number } | null;
export interface FoundRow {
  at: number;
  key: string;
  of: FoundOf;
  k: number;
  name: string;
  runway: string | null;
  /** 0 to 1; null = it was entered, not found. */
  sure: number | null;
  moment: number;
  /** Two of them can be laid beside each other. */
  arrival: boolean;
}

/** Events, airwork and limits of a recording in order of time. */
export function foundRows(analysis: TraceAnalysis): FoundRow[] {
  return [
    ...analysis.events.map((e, k) => ({
      at: e.startS,
      key: `e${k}`,
      of: 'event' as const,
      k,
      name: FOUND_NAME[e.kind],
      runway: e.runway,
      sure: e.confidence,
      moment: momentOf(e),
      arrival: e.touchdown !== undefined && e.touchdown !== null,
    })),
    ...analysis.airwork.map((a, k) => ({
      at: a.startS,
      key: `a${k}`,
      of: 'item' as const,
      k,
      name: FOUND_NAME[a.kind],
      runway: a.direction,
      sure: a.confidence,
      moment: a.startS,
      arrival: false,
    })),
    ...analysis.exceedances.map((x, k) => ({
      at: x.startS,
      key: `x${k}`,
      of: 'limit' as const,
      k,
      name: 'Limit exceeded',
      runway: x.channel,
      sure: null,
      moment: x.startS,
      arrival: false,
    })),
  ].sort((a, b) => a.at - b.at);
}

/** What stands chosen when the page opens: what was asked for, or the first arrival. */
export function chosenFirst(analysis: TraceAnalysis, asked: number | null): Chosen {
  const k = asked ?? analysis.events.findIndex((e) => e.touchdown);
  return k < 0 ? null : { of: 'event', k };
}

/** The stretch of time shown for one of them, seconds from the start of the recording; null = there is none. */
export function stretchOf(
  analysis: TraceAnalysis,
  of: FoundOf,
  k: number,
): { atS: number; fromS: number; toS: number } | null {
  if (of === 'event') {
    const e = analysis.events[k];
    if (!e) return null;
    const atS = momentOf(e);
    return { atS, fromS: atS - 60, toS: Math.max(e.endS, atS) + 20 };
  }
  if (of === 'item') {
    const a = analysis.airwork[k];
    return a ? { atS: a.startS, fromS: a.startS - 15, toS: a.endS + 15 } : null;
  }
  const x = analysis.exceedances[k];
  return x ? { atS: x.startS, fromS: x.startS - 20, toS: x.startS + x.durationS + 20 } : null;
}
