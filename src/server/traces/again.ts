import { type ColumnMapping, type Placed, placeTrace, readTrace } from '@/core/trace';
import type { TraceView } from './queries/traces';
import { keepSeries, keptFile, keptSeries, textOf } from './files';
import { runTrace } from './thread';

/**
 * The drawing of a kept trace; made again from its file when it is gone. Null when the track is nowhere near the field.
 */
export async function seriesBytes(trace: TraceView): Promise<Uint8Array | null> {
  const kept = keptSeries(trace.id);
  if (kept) return kept.length > 0 ? kept : null;
  const done = await runTrace({
    text: textOf(await keptFile(trace.hash)),
    mapping: trace.mapping as ColumnMapping | null,
    context: trace.context,
  });
  if (!done.ok || done.series.length === 0) return null;
  keepSeries(trace.id, done.series);
  return done.series;
}
/** A kept trace on its field, for writing it in another format. */
export async function placedAgain(trace: TraceView): Promise<Placed | null> {
  const read = readTrace(textOf(await keptFile(trace.hash)), trace.mapping as ColumnMapping | null);
  return read.ok ? placeTrace(read.trace, trace.context) : null;
}
