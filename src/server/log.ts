import pino from 'pino';

export const log = pino({ level: process.env.JEITO_LOG ?? 'info', base: undefined });

/** The digest is what the error page of a production build shows: with it the line is found again. */
export function logRequestError(
  error: unknown,
  request: { method: string; path: string },
  context: { routePath: string; routeType: string },
): void {
  const digest = typeof error === 'object' && error !== null && 'digest' in error ? String(error.digest) : undefined;
  log.error(
    {
      err: error instanceof Error ? error : new Error(String(error)),
      digest,
      method: request.method,
      path: request.path.split('?')[0],
      route: context.routePath,
      kind: context.routeType,
    },
    'request failed',
  );
}
