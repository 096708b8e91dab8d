/** The server's thread for traces: one job, one answer. Bundled after the build (scripts/threads.mjs). */
import { parentPort } from 'node:worker_threads';
import { type TraceJob, traceWork } from '@/core/trace';

parentPort?.once('message', (job: TraceJob) => {
  parentPort?.postMessage(traceWork(job));
});
