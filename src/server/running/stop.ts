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
 * Stops as asked: nothing new is taken, what was accepted is answered and written, the database is closed, the folder
 * given back. Pages that stay open do not hold it up.
 */
export function stopWhenAsked(): void {
  if (globalThis.__jeitoStops) return;
  globalThis.__jeitoStops = true;
  for (const signal of ['SIGTERM', 'SIGINT'] as const) {
    // The framework’s own would end the process when the last connection is closed, whatever is still written.
    if (process.env.NODE_ENV === 'production') process.removeAllListeners(signal);
    process.once(signal, () => {
      void (async () => {
        log.info({ signal }, 'stopping');
        const answered = await lastAnswers(ANSWERS_MS);
        await writesDone();
        await aggregatesSettled();
        await closeDatabase();
        releaseFolder();
        log.info({ answered }, 'stopped');
        process.exit(0);
      })();
    });
  }
}
