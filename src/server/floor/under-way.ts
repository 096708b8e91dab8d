/** Requests that are being answered, and whether new ones are taken: what a stop waits for. */
import { told, type Told } from './sentences';

declare global {
  var __jeitoUnderWay: { count: number; stopping: boolean; ended: (() => void)[] } | undefined;
}
const state = () => (globalThis.__jeitoUnderWay ??= { count: 0, stopping: false, ended: [] });

/** What who comes too late is told; null = come in. */
export const stopping = (): Told | null => (state().stopping ? told('stopping') : null);

/** Counts a request until it is answered. */
export async function underWay<T>(work: () => Promise<T>): Promise<T> {
  state().count++;
  try {
    return await work();
  } finally {
    if (--state().count === 0) for (const end of state().ended.splice(0)) end();
  }
}

/**
 * From here on nothing new is taken. @returns true when everything that was accepted has been answered in time
 */
export async function lastAnswers(mostMs: number): Promise<boolean> {
  state().stopping = true;
  if (state().count === 0) return true;
  return Promise.race([
    new Promise<true>((done) => state().ended.push(() => done(true))),
    new Promise<false>((late) => setTimeout(() => late(false), mostMs)),
  ]);
}
