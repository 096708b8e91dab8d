import type { Instrumentation } from 'next';

/** Runs once when the server starts, before the first request. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { prepareServer } = await import('./server/start');
  await prepareServer();
}

/** Every request that failed, in the log with where it happened. Neither query nor headers: they may name people. */
export const onRequestError: Instrumentation.onRequestError = async (error, request, context) => {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { logRequestError } = await import('./server/log');
  logRequestError(error, request, context);
};
