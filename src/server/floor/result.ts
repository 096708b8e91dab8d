import type { z } from 'zod';

/** What every command answers: errors are values, with the path of the field they belong to. */
export interface Problem {
  path: string;
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

export const problem = (path: string, message: string): { ok: false; problems: Problem[] } => ({
  ok: false,
  problems: [{ path, message }],
});

export const zodProblems = (error: z.ZodError): { ok: false; problems: Problem[] } => ({
  ok: false,
  problems: error.issues.map((i) => ({ path: i.path.join('.'), message: i.message })),
});

/** Denied and absent are said alike, by a form and by a route. */
export const NOT_FOUND = 'Not found, or you do not have access.';
