/** Finding what was flown: a trace on its field, the events along its runways with their measures, the limits passed. */
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import type { Trace } from '../read';
import { findAirwork } from './airwork';
import { findEvents } from './events';
import { findExceedances } from './exceedances';
import { placeTrace } from './frame';

/** Events with their measures; a measure the file cannot support is null, never guessed. */
export function analyseTrace(trace: Trace, context: TraceContext): TraceAnalysis {
  const placed = placeTrace(trace, context);
  const events = placed ? findEvents(placed, context) : [];
  const far = { code: 'far-from-field', message: 'The track never comes within 20 km of this aerodrome.', count: 1 };
  return {
    schema: 'trace-analysis/1',
    source: { format: trace.format, rows: trace.rows, rateHz: trace.rateHz, channels: Object.keys(trace.channels), warnings: [...trace.warnings, ...(placed ? placed.warnings : [far])] },
    events, airwork: placed ? findAirwork(placed, context, events) : [], exceedances: findExceedances(trace, context),
  };
}
