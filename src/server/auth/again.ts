import { row } from '../db/connection';
import { type Result, problem } from '../result';
import { failedTry, forgetTries, waitSeconds } from './limiter';
import { passwordFits } from './password';
import type { CurrentUser } from './permissions';

/**
 * The password once more, for what stands in the book or opens the account. Wrong ones are counted and made to wait.
 */
export async function passwordAgain(
  user: Pick<CurrentUser, 'id'>,
  password: string,
  nothing = 'nothing was signed',
): Promise<Result<object>> {
  const key = `sign:${user.id}`;
  const wait = await waitSeconds(key);
  if (wait > 0) return problem('password', `Too many tries. Wait ${wait} s, then type it again.`);
  const stored = await row<{ password_hash: string }>('SELECT password_hash FROM users WHERE id = :id', {
    id: user.id,
  });
  if (!(await passwordFits(password, stored?.password_hash ?? null))) {
    await failedTry(key);
    return problem('password', `This is not your password. Type it again; ${nothing}.`);
  }
  await forgetTries(key);
  return { ok: true };
}
