/**
 * One trace from its bytes to its analysis and its drawing. Runs in a thread of the server, in a web worker, or in
 * place.
 */
import { analyseOnField } from './find';
import { type ColumnMapping, readTrace } from './read';
import { unreadableWords } from './read-words';
import { packSeries, seriesOf } from './replay';
import type { TraceAnalysis, TraceContext } from '@/domain/trace';

export interface TraceJob {
  text: string;
  mapping: ColumnMapping | null;
  context: TraceContext;
}
export type TraceDone =
  | { ok: true; analysis: TraceAnalysis; startUtcMs: number | null; series: Uint8Array }
  | { ok: false; code: string; message: string; headers?: string[] };

/**
 * Reads and analyses. @param progress share done, 0 to 1
 * @returns analysis and drawing, or why the file cannot be read
 */
export function traceWork(
  { text, mapping, context }: TraceJob,
  progress: (share: number) => void = () => undefined,
): TraceDone {
  progress(0.05);
  const read = readTrace(text, mapping, (share) => progress(0.05 + 0.65 * share));
  if (!read.ok) {
    const { why, ...rest } = read;
    return { ...rest, message: unreadableWords(why) };
  }
  progress(0.7);
  const { analysis, placed } = analyseOnField(read.trace, context);
  progress(0.95);
  const series = placed ? packSeries(seriesOf(placed)) : new Uint8Array(0);
  return { ok: true, analysis, startUtcMs: read.trace.startUtcMs, series };
}
