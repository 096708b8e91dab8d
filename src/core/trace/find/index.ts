/**
 * Finding what was flown: a trace on its field, the events along its runways with their measures, the limits passed.
 */
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import type { Trace } from '../read';
import { type Oddity, odd, warningOf } from '../read-words';
import { findAirwork } from './airwork';
import { findEvents } from './events';
import { findExceedances } from './exceedances';
import { type Placed, placeTrace } from './frame';

export { findExceedances } from './exceedances';
export { type Placed, placeTrace } from './frame';

/**
 * Events with their measures; a measure the file cannot support is null, never guessed. `placed` is the trace on the
 * field, for drawing and writing; null far from it.
 * @returns the analysis, and the trace placed on its field
 */
export function analyseOnField(
  trace: Trace,
  context: TraceContext,
): { analysis: TraceAnalysis; placed: Placed | null } {
  const placed = placeTrace(trace, context);
  const events = placed ? findEvents(placed, context) : [];
  const placing: Oddity[] = placed ? placed.warnings : [{ ...odd('far-from-field'), count: 1 }];
  const analysis: TraceAnalysis = {
    schema: 'trace-analysis/1',
    source: {
      format: trace.format,
      rows: trace.rows,
      rateHz: trace.rateHz,
      channels: Object.keys(trace.channels),
      warnings: [...trace.warnings, ...placing].map(warningOf),
    },
    events,
    airwork: placed ? findAirwork(placed, context, events) : [],
    exceedances: findExceedances(trace, context),
  };
  return { analysis, placed };
}
/**
 * The analysis alone.
 * @returns events in seconds, metres, feet and knots, airwork and limits passed
 */
export const analyseTrace = (trace: Trace, context: TraceContext): TraceAnalysis =>
  analyseOnField(trace, context).analysis;
