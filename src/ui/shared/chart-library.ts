/** Lets keys, taps and paints through: what follows runs in a task of its own. */
export const nextTask = (): Promise<void> => new Promise((done) => setTimeout(done));

/**
 * The module that draws, in pieces: the core of the chart library, what this module adds to it and the drawing itself
 * each have their task, so that the page answers in between.
 */
export async function inPieces<T>(load: () => Promise<T>): Promise<T> {
  await import('./chart-core');
  await nextTask();
  const module = await load();
  await nextTask();
  return module;
}
