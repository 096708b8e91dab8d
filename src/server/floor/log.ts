import { told, type Told } from './sentences';
import pino from 'pino';

/** Of an error its kind, its code and where it happened: what it carries besides may be about people. */
const plainError = (error: unknown) => {
  const of = error as { name?: string; message?: string; code?: string; stack?: string };
  return { type: of.name, message: of.message?.slice(0, 300), code: of.code, stack: of.stack?.slice(0, 4000) };
};
export const log = pino({
  level: process.env.JEITO_LOG ?? 'info',
  base: undefined,
  serializers: { err: plainError },
});

/** The digest is what the error page of a production build shows: with it the line is found again. */
export function logRequestError(
  error: unknown,
  request: { method: string; path: string },
  context: { routePath: string; routeType: string },
): void {
  const digest = typeof error === 'object' && error !== null && 'digest' in error ? String(error.digest) : undefined;
  log.error(
    { err: error, digest, method: request.method, route: context.routePath, kind: context.routeType },
    'request failed',
  );
}

/** Said to who asked, where the disk is the reason; null where it is not. */
export function diskProblem(error: unknown): Told | null {
  const code = (error as { code?: string } | null)?.code ?? '';
  return /SQLITE_FULL|ENOSPC|SQLITE_READONLY|SQLITE_IOERR|EROFS|EDQUOT/.test(code) ? told('disk-full') : null;
}
