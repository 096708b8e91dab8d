/** The server's thread for files to be verified: one job, one answer. Bundled after the build (scripts/threads.mjs). */
import { parentPort } from 'node:worker_threads';
import { type CheckJob, checkWork } from './check';

parentPort?.once('message', (job: CheckJob) => {
  parentPort?.postMessage(checkWork(job));
});
