/** The server's thread for logbooks: one job, one answer. Bundled after the build (scripts/threads.mjs). */
import { parentPort } from 'node:worker_threads';
import { type LogbookJob, logbookWork } from './logbook-thread';

parentPort?.once('message', (job: LogbookJob) => {
  parentPort?.postMessage(logbookWork(job));
});
