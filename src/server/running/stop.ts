import { aggregatesSettled } from '../checkout/commands/tallies';
import { closeDatabase, writesDone } from '../floor/connection';
import { releaseFolder } from '../floor/data-folder';
import { log } from '../floor/log';
import { lastAnswers } from '../floor/under-way';

/** Longer than this nobody waits for an answer. */
const ANSWERS_MS = 10_000;
declare global {
  var __jeitoStops: boolean | undefined;
}

/**
 * Stops as asked: nothing new is taken, what was accepted is answered and written. The framework closes its connections
 * one by one as they are answered and then ends the process; where one of them hangs, it is ended here after a while, with
 * the queue of writers empty and the database closed. Either way it ends with 0: it was asked to.
 */
export function stopWhenAsked(): void {
  if (globalThis.__jeitoStops) return;
  globalThis.__jeitoStops = true;
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.once(signal, () => {
      log.info({ signal }, 'stopping');
      process.once('exit', () => {
        process.exitCode = 0;
      });
      void lastAnswers(ANSWERS_MS);
      setTimeout(() => {
        void (async () => {
          await writesDone();
          await aggregatesSettled();
          await closeDatabase();
          releaseFolder();
          process.exit(0);
        })();
      }, ANSWERS_MS).unref();
    });
}
