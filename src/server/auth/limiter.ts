import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';

declare global {
  var __jeitoLimiter: RateLimiterMemory | undefined;
}

/** Six failed tries in ten minutes for one address, then a pause of one minute. */
const limiter = (): RateLimiterMemory => (globalThis.__jeitoLimiter ??= new RateLimiterMemory({ points: 6, duration: 600, blockDuration: 60 }));

/** Seconds to wait before the next try, 0 when none. */
export async function waitSeconds(key: string): Promise<number> {
  const state = await limiter().get(key);
  return state && state.remainingPoints <= 0 ? Math.ceil(state.msBeforeNext / 1000) : 0;
}

export async function failedTry(key: string): Promise<void> {
  await limiter().consume(key).catch((refused: unknown) => {
    if (!(refused instanceof RateLimiterRes)) throw refused;
  });
}

export const forgetTries = (key: string): Promise<boolean> => limiter().delete(key);
