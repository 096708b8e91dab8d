/**
 * A small seeded generator (mulberry32): uniform numbers from 0 to 1, the same for the same seed everywhere. Core
 * itself never draws one: a generator is always handed in by whoever asks.
 * @returns a function that gives the next number, 0 to below 1
 */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let x = Math.imul(state ^ (state >>> 15), 1 | state);
    x = (x + Math.imul(x ^ (x >>> 7), 61 | x)) ^ x;
    return ((x ^ (x >>> 14)) >>> 0) / 4294967296;
  };
}
