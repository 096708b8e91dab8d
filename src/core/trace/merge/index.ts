/** Several recordings of one flight: aligned, made one, and analysed as one. */
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import { analyseOnField, findExceedances, type Placed } from '../find';
import type { Trace } from '../read';
import type { NotAligned } from './align';
import { type Merged, mergeTraces } from './merge';

export { alignTraces, type Aligned, type NotAligned } from './align';
export { mergeTraces, type Merged } from './merge';
export { traceTable } from './table';

type Exceedance = TraceAnalysis['exceedances'][number];
/** Two of one limit closer than this are the same, seconds. */
const SAME_S = 5;

/**
 * Limits exceeded in either recording, told from its own rows, and those only both together show, as a flap's does with
 * the speed from one and the flap from the other.
 */
function limitsOf(own: readonly (readonly Exceedance[])[], merged: readonly Exceedance[]): Exceedance[] {
  const out: Exceedance[] = [];
  const same = (x: Exceedance, y: Exceedance) =>
    x.channel === y.channel && x.startS < y.startS + y.durationS + SAME_S && y.startS < x.startS + x.durationS + SAME_S;
  for (const e of own.flat()) {
    const known = out.findIndex((o) => same(o, e));
    const before = out[known];
    if (!before) out.push(e);
    else if (Math.abs(e.peak - e.limit) > Math.abs(before.peak - before.limit)) out[known] = e;
  }
  return [...out, ...merged.filter((e) => !out.some((o) => same(o, e)))].sort((x, y) => x.startS - y.startS);
}

/**
 * Two recordings of one flight analysed as one. @param names what the two are called
 * @returns the analysis, the joined recording and where it lies on the field; or why the two are not of one flight
 * @example
 * analyseJoined([panel, tablet], ['panel.csv', 'tablet.gpx'], context)
 * // { ok: true, analysis: { source: { joined: [...] }, ... }, ... }
 */
export function analyseJoined(
  [one, two]: readonly [Trace, Trace],
  names: readonly [string, string],
  context: TraceContext,
): (Merged & { analysis: TraceAnalysis; placed: Placed | null }) | NotAligned {
  const merged = mergeTraces(one, two);
  if (!merged.ok) return merged;
  const { analysis, placed } = analyseOnField(merged.trace, context);
  const starts = [merged.startsS[0], merged.startsS[1]] as const;
  const both = merged.from.flap !== undefined && merged.from.ias !== merged.from.flap;
  const geared = merged.from.gear !== undefined && merged.from.ias !== merged.from.gear;
  const own = [one, two].map((t, k) =>
    findExceedances(t, context).map((e) => ({ ...e, startS: Math.round((e.startS + (starts[k] ?? 0)) * 100) / 100 })),
  );
  const together = analysis.exceedances.filter(
    (e) => (e.channel === 'vfe' && both) || (e.channel === 'gear' && geared),
  );
  const gives = (k: 0 | 1) => Object.entries(merged.from).flatMap(([c, from]) => (from === k ? [c] : []));
  const { aligned } = merged;
  return {
    ...merged,
    placed,
    analysis: {
      ...analysis,
      exceedances: limitsOf(own, together),
      source: {
        ...analysis.source,
        joined: [
          { name: names[0], startS: starts[0], sdS: 0, clockAheadS: 0, gives: gives(0) },
          {
            name: names[1],
            startS: starts[1],
            sdS: Math.round(aligned.sdS * 100) / 100,
            clockAheadS: aligned.clockAheadS === null ? null : Math.round(aligned.clockAheadS * 10) / 10,
            gives: gives(1),
          },
        ],
      },
    },
  };
}
