import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';

declare global {
  var __jeitoLimiter: RateLimiterMemory | undefined;
  var __jeitoOpenLimiter: RateLimiterMemory | undefined;
}

/** Six failed tries in ten minutes for one address, then a pause of one minute. */
const limiter = (): RateLimiterMemory =>
  (globalThis.__jeitoLimiter ??= new RateLimiterMemory({ points: 6, duration: 600, blockDuration: 60 }));

/** Seconds to wait before the next try, 0 when none. */
export async function waitSeconds(key: string): Promise<number> {
  const state = await limiter().get(key);
  return state && state.remainingPoints <= 0 ? Math.ceil(state.msBeforeNext / 1000) : 0;
}

export async function failedTry(key: string): Promise<void> {
  await limiter()
    .consume(key)
    .catch((refused: unknown) => {
      if (!(refused instanceof RateLimiterRes)) throw refused;
    });
}

export const forgetTries = (key: string): Promise<boolean> => limiter().delete(key);

/**
 * Counts one try of something open to everybody: two hundred in ten minutes for one address, in a purse of its own.
 * @returns seconds to wait, 0 when none
 */
export async function tryOnce(key: string): Promise<number> {
  const open = (globalThis.__jeitoOpenLimiter ??= new RateLimiterMemory({ points: 200, duration: 600 }));
  return open.consume(key).then(
    () => 0,
    (refused: unknown) => {
      if (refused instanceof RateLimiterRes) return Math.ceil(refused.msBeforeNext / 1000);
      throw refused;
    },
  );
}
