import { existsSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';

/**
 * Runs one job in a thread of its own, so that nobody else waits, and ends it when it takes too long or too much memory;
 * in place where the built thread is not there (development, scripts).
 * @param name of the bundle in .next/threads
 * @param tooMuch the answer when the thread was ended
 */
export function inThread<J, D>(
  name: string,
  job: J,
  inPlace: (job: J) => D,
  of: { limitMs: number; memoryMb: number; tooMuch: D },
): Promise<D> {
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), '.next', 'threads', `${name}.mjs`);
  if (process.env.NODE_ENV !== 'production' || !existsSync(/* turbopackIgnore: true */ file))
    return Promise.resolve().then(() => inPlace(job));
  return new Promise((resolve, reject) => {
    const worker = new Worker(/* turbopackIgnore: true */ file, {
      resourceLimits: { maxOldGenerationSizeMb: of.memoryMb },
    });
    const done = (settle: () => void) => {
      clearTimeout(timer);
      settle();
      void worker.terminate();
    };
    const timer = setTimeout(() => done(() => resolve(of.tooMuch)), of.limitMs);
    worker.once('message', (answer: D) => done(() => resolve(answer)));
    worker.once('error', (error: NodeJS.ErrnoException) =>
      done(() => (error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? resolve(of.tooMuch) : reject(error))),
    );
    worker.postMessage(job);
  });
}
