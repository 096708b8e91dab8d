/**
 * One trace from its bytes to its analysis and its drawing. Runs in a thread of the server, in a web worker, or in
 * place.
 */
import { analyseOnField } from './find';
import { analyseJoined, traceTable } from './merge';
import { type ColumnMapping, type ColumnTold, type Trace, readTrace } from './read';
import { apartWords, odd, unreadableWords, warningOf } from './read-words';
import { packSeries, seriesOf } from './replay';
import type { TraceAnalysis, TraceContext } from '@/domain/trace';

export interface TraceJob {
  text: string;
  mapping: ColumnMapping | null;
  context: TraceContext;
  /** Other aerodromes the school flies at: looked at when nothing was flown at that of the context. */
  elsewhere?: readonly TraceContext['aerodrome'][];
  /** Another recording of the same flight, to be joined with the first; what the two are called. */
  beside?: { text: string; mapping: ColumnMapping | null; names: readonly [string, string] };
}
export type TraceDone =
  | {
      ok: true;
      analysis: TraceAnalysis;
      startUtcMs: number | null;
      series: Uint8Array;
      /** The context it was analysed in: as given, or at another aerodrome. */
      context: TraceContext;
      /** Of a table: what each column was taken for. */
      columns: ColumnTold[] | null;
      /** Of two joined: the recording they made, as a table. */
      table: string | null;
    }
  | { ok: false; code: string; message: string; headers?: string[] };

/**
 * Reads and analyses. @param progress share done, 0 to 1
 * @returns analysis and drawing, or why the file cannot be read
 */
export function traceWork(
  { text, mapping, context, elsewhere = [], beside }: TraceJob,
  progress: (share: number) => void = () => undefined,
): TraceDone {
  progress(0.05);
  const read = readTrace(text, mapping, (share) => progress(0.05 + 0.65 * share));
  if (!read.ok) {
    const { why, ...rest } = read;
    return { ...rest, message: unreadableWords(why) };
  }
  if (beside) return joinWork(read.trace, beside, context);
  progress(0.7);
  const here = analyseOnField(read.trace, context);
  const away = here.analysis.events.length > 0 ? null : flownElsewhere(read.trace, context, elsewhere);
  const { analysis, placed } = away ?? here;
  progress(0.95);
  const series = placed ? packSeries(seriesOf(placed)) : new Uint8Array(0);
  return {
    ok: true,
    analysis,
    startUtcMs: read.trace.startUtcMs,
    series,
    context: away?.context ?? context,
    columns: read.trace.columns ?? null,
    table: null,
  };
}

/** Two recordings of one flight as one. */
function joinWork(one: Trace, beside: NonNullable<TraceJob['beside']>, context: TraceContext): TraceDone {
  const two = readTrace(beside.text, beside.mapping);
  if (!two.ok) return { ok: false, code: two.code, message: unreadableWords(two.why) };
  const joined = analyseJoined([one, two.trace], beside.names, context);
  if (!joined.ok) return { ok: false, code: joined.code, message: apartWords(joined) };
  const { analysis, placed, trace } = joined;
  return {
    ok: true,
    analysis,
    startUtcMs: trace.startUtcMs,
    series: placed ? packSeries(seriesOf(placed)) : new Uint8Array(0),
    context,
    columns: null,
    table: traceTable(trace),
  };
}

/** The first other aerodrome the trace has a take-off, a pass or a landing at, said in its analysis; null = none. */
function flownElsewhere(trace: Trace, context: TraceContext, elsewhere: readonly TraceContext['aerodrome'][]) {
  for (const aerodrome of elsewhere) {
    const there = { ...context, aerodrome };
    const { analysis, placed } = analyseOnField(trace, there);
    if (analysis.events.length === 0) continue;
    const said = odd('flown-elsewhere', { at: aerodrome.name, briefed: context.aerodrome.name });
    const source = { ...analysis.source, warnings: [warningOf({ ...said, count: 1 }), ...analysis.source.warnings] };
    return { analysis: { ...analysis, source }, placed, context: there };
  }
  return null;
}
