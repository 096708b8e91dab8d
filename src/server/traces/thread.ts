import { existsSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { type TraceDone, type TraceJob, traceWork } from '@/core/trace';

/** Longer than this and the thread is ended: no file a recorder writes takes as long. */
const LIMIT_MS = 120_000;

/**
 * Reads and analyses in a thread of its own, so that nobody else waits; in place where the built thread is not there
 * (development, scripts).
 */
export function runTrace(job: TraceJob): Promise<TraceDone> {
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), '.next', 'threads', 'trace.mjs');
  if (process.env.NODE_ENV !== 'production' || !existsSync(/* turbopackIgnore: true */ file))
    return Promise.resolve(traceWork(job));
  return new Promise((resolve, reject) => {
    const worker = new Worker(/* turbopackIgnore: true */ file, { resourceLimits: { maxOldGenerationSizeMb: 900 } });
    const timer = setTimeout(() => {
      void worker.terminate();
      resolve({ ok: false, code: 'too-large', message: 'The file took too long to read: cut it to the flight.' });
    }, LIMIT_MS);
    worker.once('message', (done: TraceDone) => {
      clearTimeout(timer);
      resolve(done);
      void worker.terminate();
    });
    worker.once('error', (error) => {
      clearTimeout(timer);
      reject(error);
    });
    worker.postMessage(job);
  });
}
