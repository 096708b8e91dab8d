import '@/domain/plain-errors';
import type { z } from 'zod';
import { type Told, told } from './sentences';

/** What every command answers: errors are values, with the path of the field they belong to. */
export interface Problem {
  path: string;
  /** Absent = a schema's own message. */
  code?: string;
  params?: Readonly<Record<string, unknown>>;
  message: string;
}

export type Result<T> =
  | ({ ok: true } & T)
  | {
      ok: false;
      problems: Problem[];
      /** Where somebody else changed it meanwhile: what stands now, to be sent with the next try. */
      base?: string | null;
    };

export const problemAt = (path: string, what: Told): Problem => ({ path, ...what });
export const problem = (path: string, what: Told): { ok: false; problems: Problem[] } => ({
  ok: false,
  problems: [problemAt(path, what)],
});

export const zodProblems = (error: z.ZodError): { ok: false; problems: Problem[] } => ({
  ok: false,
  problems: error.issues.map((i) => ({ path: i.path.join('.'), message: i.message })),
});

export const NOT_FOUND = told('not-found');
