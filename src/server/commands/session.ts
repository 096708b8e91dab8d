import { z } from 'zod';
import { failedTry, forgetTries, waitSeconds } from '../auth/limiter';
import { passwordFits } from '../auth/password';
import { row } from '../db/connection';
import { type Result, problem, zodProblems } from '../result';

export const SignInForm = z.object({ email: z.email('Type your e-mail address, for example name@school.example.'), password: z.string().min(1, 'Type your password.') });

/** Checks e-mail and password. The answer is the same for an unknown address and a wrong password. */
export async function checkSignIn(form: unknown): Promise<Result<{ userId: string; sessionVersion: number }>> {
  const parsed = SignInForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const key = `in:${parsed.data.email.toLowerCase()}`;
  const wait = await waitSeconds(key);
  if (wait > 0) return problem('password', `Too many tries for this address. Wait ${wait} s, then try again.`);
  const user = await row<{ id: string; password_hash: string; session_version: number }>('SELECT id, password_hash, session_version FROM users WHERE email = :email AND closed_at IS NULL', { email: parsed.data.email });
  if (!(await passwordFits(parsed.data.password, user?.password_hash ?? null)) || !user) {
    await failedTry(key);
    return problem('password', 'E-mail and password do not fit together. Check both and try again.');
  }
  await forgetTries(key);
  return { ok: true, userId: user.id, sessionVersion: user.session_version };
}
