import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';

/**
 * Tries, counted before the work is done: a burst gets as many as one after the other. Each purse is of one kind of key,
 * and what fails in one is not paid by another.
 */
const PURSES = {
  /** One account from one address. */
  pair: { points: 6, duration: 600, blockDuration: 60 },
  /** The same from where it was signed in before. */
  known: { points: 20, duration: 600, blockDuration: 60 },
  /** One account from addresses it was never signed in from. */
  account: { points: 40, duration: 3600, blockDuration: 300 },
  /** All accounts from one address. */
  address: { points: 40, duration: 600, blockDuration: 60 },
  /** The password once more, by who is signed in. */
  again: { points: 6, duration: 600, blockDuration: 60 },
  /** Sign-ins sent from one address, right or wrong: beyond it not even the page is made. */
  sent: { points: 150, duration: 600, blockDuration: 60 },
  /** Something open to everybody. */
  open: { points: 200, duration: 600, blockDuration: 0 },
} as const;
export type Purse = keyof typeof PURSES;

declare global {
  var __jeitoPurses: Map<Purse, RateLimiterMemory> | undefined;
}
function purse(kind: Purse): RateLimiterMemory {
  const all = (globalThis.__jeitoPurses ??= new Map<Purse, RateLimiterMemory>());
  const known = all.get(kind);
  if (known) return known;
  const made = new RateLimiterMemory({ ...PURSES[kind], keyPrefix: kind });
  all.set(kind, made);
  return made;
}

/** Takes one try out. @returns seconds to wait when there is none left, else 0 */
export async function takeTry(kind: Purse, key: string): Promise<number> {
  return purse(kind)
    .consume(key)
    .then(
      () => 0,
      (refused: unknown) => {
        if (refused instanceof RateLimiterRes) return Math.max(1, Math.ceil(refused.msBeforeNext / 1000));
        throw refused;
      },
    );
}
/** Takes one out of each, or says how long the longest wait is; what was taken on the way to a refusal stays taken. */
export async function takeTries(of: readonly (readonly [Purse, string])[]): Promise<number> {
  for (const [kind, key] of of) {
    const wait = await takeTry(kind, key);
    if (wait > 0) return wait;
  }
  return 0;
}

/** A try that was not looked at is given back. */
export async function giveBack(of: readonly (readonly [Purse, string])[]): Promise<void> {
  for (const [kind, key] of of) await purse(kind).reward(key, 1);
}

/** What was right after all costs nothing: the purse of the pair is full again, the shared ones get their try back. */
export async function forgetTries(of: readonly (readonly [Purse, string])[]): Promise<void> {
  for (const [kind, key] of of)
    if (kind === 'address' || kind === 'account') await purse(kind).reward(key, 1);
    else await purse(kind).delete(key);
}
