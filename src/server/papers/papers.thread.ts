/** The server's thread for papers: stays, and draws one after the other. Bundled after the build (scripts/threads.mjs). */
import { parentPort } from 'node:worker_threads';
import { drawBooklet } from '../ledger/papers/booklet-pdf';
import { cardPdf } from '../checkout/papers/card-pdf';
import { debriefPdf } from '../debrief/papers/debrief-pdf';
import { entryPdf } from '../ledger/papers/entry-pdf';
import type { Drawn, Job } from './papers';

const DRAW = { booklet: drawBooklet, card: cardPdf, debrief: debriefPdf, entry: entryPdf } as const;

parentPort?.on('message', ({ id, kind, args }: Job) => {
  const draw = DRAW[kind] as (...of: unknown[]) => Promise<Uint8Array>;
  draw(...args).then(
    (bytes) => parentPort?.postMessage({ id, bytes } satisfies Drawn),
    (error: unknown) => parentPort?.postMessage({ id, failed: String(error) } satisfies Drawn),
  );
});
