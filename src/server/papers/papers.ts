import { existsSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { drawBooklet } from '../ledger/papers/booklet-pdf';
import type { cardPdf } from '../checkout/papers/card-pdf';
import type { debriefPdf } from '../debrief/papers/debrief-pdf';
import { Busy } from '../floor/busy';
import type { entryPdf } from '../ledger/papers/entry-pdf';

/** Papers, and what each is drawn from: plain values, gathered before. */
interface Papers {
  booklet: typeof drawBooklet;
  card: typeof cardPdf;
  debrief: typeof debriefPdf;
  entry: typeof entryPdf;
}
export type Paper = keyof Papers;
export interface Job {
  id: number;
  kind: Paper;
  args: unknown[];
}
export type Drawn = { id: number; bytes: Uint8Array } | { id: number; failed: string };

interface Bench {
  worker: Worker;
  next: number;
  waiting: Map<number, { done: (bytes: Uint8Array) => void; failed: (error: Error) => void }>;
}
declare global {
  var __jeitoPapers: Bench | undefined;
}

/** No paper takes as long; what does is given up, and the thread begins anew. */
const LIMIT_MS = 30_000;

function bench(file: string): Bench {
  if (globalThis.__jeitoPapers) return globalThis.__jeitoPapers;
  const made: Bench = {
    worker: new Worker(/* turbopackIgnore: true */ file, { resourceLimits: { maxOldGenerationSizeMb: 600 } }),
    next: 1,
    waiting: new Map(),
  };
  made.worker.unref();
  made.worker.on('message', (drawn: Drawn) => {
    const who = made.waiting.get(drawn.id);
    made.waiting.delete(drawn.id);
    if ('bytes' in drawn) who?.done(drawn.bytes);
    else who?.failed(new Error(drawn.failed));
  });
  made.worker.on('error', (error) => giveUp(made, error));
  return (globalThis.__jeitoPapers = made);
}
function giveUp(of: Bench, why: Error): void {
  if (globalThis.__jeitoPapers === of) globalThis.__jeitoPapers = undefined;
  void of.worker.terminate();
  for (const who of of.waiting.values()) who.failed(why);
  of.waiting.clear();
}

/** Draws a paper in a thread beside the server; in place where the built thread is not there (development, scripts). */
export async function paper<K extends Paper>(kind: K, ...args: Parameters<Papers[K]>): Promise<Uint8Array> {
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), '.next', 'threads', 'papers.mjs');
  if (process.env.NODE_ENV !== 'production' || !existsSync(/* turbopackIgnore: true */ file))
    return inPlace(kind, args);
  const b = bench(file);
  return new Promise((resolve, reject) => {
    const id = b.next++;
    const timer = setTimeout(() => giveUp(b, new Busy()), LIMIT_MS);
    const settle =
      <T>(then: (value: T) => void) =>
      (value: T) => {
        clearTimeout(timer);
        then(value);
      };
    b.waiting.set(id, { done: settle(resolve), failed: settle(reject) });
    b.worker.postMessage({ id, kind, args } satisfies Job);
  });
}

async function inPlace<K extends Paper>(kind: K, args: Parameters<Papers[K]>): Promise<Uint8Array> {
  const draw = {
    booklet: async () => (await import('../ledger/papers/booklet-pdf')).drawBooklet,
    card: async () => (await import('../checkout/papers/card-pdf')).cardPdf,
    debrief: async () => (await import('../debrief/papers/debrief-pdf')).debriefPdf,
    entry: async () => (await import('../ledger/papers/entry-pdf')).entryPdf,
  }[kind];
  return ((await draw()) as (...of: unknown[]) => Promise<Uint8Array>)(...args);
}
