import { type TraceDone, type TraceJob, traceWork } from '@/core/trace';
import { inThread } from '../floor/thread';

/** Longer than this and the thread is ended: no file a recorder writes takes as long. */
const LIMIT_MS = 120_000;

/** Reads and analyses a recording in a thread of its own. */
export const runTrace = (job: TraceJob): Promise<TraceDone> =>
  inThread('trace', job, traceWork, {
    limitMs: LIMIT_MS,
    memoryMb: 900,
    tooMuch: { ok: false, code: 'too-large', message: 'The file took too long to read: cut it to the flight.' },
  });
