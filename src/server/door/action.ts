import { unstable_rethrow } from 'next/navigation';
import { z } from 'zod';
import type { CurrentUser } from '../floor/auth/permissions';
import { requireUser, sameOrigin, signedInUser } from '../floor/auth/session';
import { diskProblem, log } from '../floor/log';
import { NOT_FOUND, type Problem, problem } from '../floor/result';
import { clean } from '../floor/clean';
import { stopping, underWay } from '../floor/under-way';
import { Busy } from '../floor/busy';
import { told } from '../floor/sentences';
import { told as doorTold } from './sentences';

export type Refused = { ok: false; problems: Problem[] };

export const Id = z.string().min(1).max(80);

/** What a request that was not done is told, whatever stopped it. */
const FOREIGN = told('foreign-site');

/**
 * The one way from a page to a command: from this site, by somebody signed in, with input that can be kept and
 * arguments of the shape that is named. A command that throws is logged and answered as a problem, so that the form
 * keeps what was typed.
 * @param shape of the first argument, where the command does not read it by a form of its own
 */
export function act<A extends unknown[], R>(
  command: (user: CurrentUser, ...args: A) => Promise<R>,
  shape?: z.ZodType,
): (...args: A) => Promise<R | Refused> {
  return async (...args: A) => through(args, shape, async (cleaned) => command(await requireUser(), ...cleaned));
}

/** The same for who has signed in and still has to set up the second factor that their role requires. */
export function actBeforeFactor<A extends unknown[], R>(
  command: (user: CurrentUser, ...args: A) => Promise<R>,
): (...args: A) => Promise<R | Refused> {
  return async (...args: A) =>
    through(args, undefined, async (cleaned) => {
      const user = await signedInUser();
      return user ? command(user, ...cleaned) : problem('', NOT_FOUND);
    });
}

/** The same for the few that need nobody signed in. */
export async function through<A extends unknown[], R>(
  args: A,
  shape: z.ZodType | undefined,
  work: (args: A) => Promise<R>,
): Promise<R | Refused> {
  if (!(await sameOrigin())) return problem('', FOREIGN);
  const late = stopping();
  if (late) return problem('', late);
  const cleaned = args.length > 4 ? null : clean<unknown>(args);
  if (!cleaned) return problem('', FOREIGN);
  if (!cleaned.ok)
    return {
      ok: false,
      problems: [{ ...cleaned.problem, path: cleaned.problem.path.replace(/^\d+\.?/, '') }],
    };
  const given = cleaned.value as A;
  if (shape && !shape.safeParse(given[0]).success) return problem('', NOT_FOUND);
  try {
    return await underWay(() => work(given));
  } catch (error) {
    unstable_rethrow(error);
    if (error instanceof Busy) return problem('', doorTold('busy-work'));
    log.error({ err: error }, 'action failed');
    return problem('', diskProblem(error) ?? told('failed'));
  }
}
