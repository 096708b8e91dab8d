import type { Instrumentation } from 'next';

/**
 * Runs once when the server starts, before the first request. A folder that cannot be served ends the process with one
 * sentence: a server that answers nothing but errors helps nobody.
 */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { stampAddresses } = await import('./server/door/address');
  stampAddresses();
  const { startOrEnd } = await import('./server/running/start-or-end');
  await startOrEnd();
}

/** Every request that failed, in the log with where it happened. Neither query nor headers: they may name people. */
export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { logRequestError } = await import('./server/floor/log');
  logRequestError(error, request, context);
};
