import { randomBytes } from 'node:crypto';
import { z } from 'zod';
import { PasswordForm } from '@/domain/people';
import { passwordAgain } from '../auth/again';
import { failedTry, forgetTries, waitSeconds } from '../auth/limiter';
import { hashPassword, passwordFits } from '../auth/password';
import { type CurrentUser, may } from '../auth/permissions';
import { row } from '../db/connection';
import { model } from '../db/models';
import { write } from '../db/write';
import { type Result, problem, zodProblems } from '../result';

export const SignInForm = z.object({
  email: z.email('Type your e-mail address, for example name@school.example.'),
  password: z.string().min(1, 'Type your password.'),
});

/** Checks e-mail and password. The answer is the same for an unknown address and a wrong password. */
export async function checkSignIn(form: unknown): Promise<Result<{ userId: string; sessionVersion: number }>> {
  const parsed = SignInForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const key = `in:${parsed.data.email.toLowerCase()}`;
  const wait = await waitSeconds(key);
  if (wait > 0) return problem('password', `Too many tries for this address. Wait ${wait} s, then try again.`);
  const user = await row<{ id: string; password_hash: string; session_version: number }>(
    'SELECT id, password_hash, session_version FROM users WHERE email = :email AND closed_at IS NULL',
    { email: parsed.data.email },
  );
  if (!(await passwordFits(parsed.data.password, user?.password_hash ?? null)) || !user) {
    await failedTry(key);
    return problem('password', 'E-mail and password do not fit together. Check both and try again.');
  }
  await forgetTries(key);
  return { ok: true, userId: user.id, sessionVersion: user.session_version };
}

/** A password of one's own choosing. Every other session of the account ends. */
export async function changePassword(user: CurrentUser, form: unknown): Promise<Result<{ sessionVersion: number }>> {
  const parsed = PasswordForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const again = await passwordAgain(user, parsed.data.password, 'nothing was changed');
  if (!again.ok) return again;
  if (parsed.data.next === parsed.data.password) return problem('next', 'This is the one you have. Choose another.');
  return setPassword(user.id, await hashPassword(parsed.data.next));
}
/** A new first password, for who has lost theirs: told once to the chief. Every session of that account ends. */
export async function newFirstPassword(user: CurrentUser, userId: string): Promise<Result<{ password: string }>> {
  if (!may.keepPeople(user) || userId === user.id)
    return problem('', 'The chief instructor gives others a new password; your own you change on your account page.');
  const password = randomBytes(9).toString('base64url');
  const set = await setPassword(userId, await hashPassword(password));
  return set.ok ? { ok: true, password } : set;
}
async function setPassword(userId: string, hash: string): Promise<Result<{ sessionVersion: number }>> {
  return write(async (t): Promise<Result<{ sessionVersion: number }>> => {
    const found = await row<{ session_version: number }>(
      'SELECT session_version FROM users WHERE id = :userId AND closed_at IS NULL',
      { userId },
      t,
    );
    if (!found) return problem('', 'There is no such account.');
    const sessionVersion = found.session_version + 1;
    await model('users').update(
      { password_hash: hash, session_version: sessionVersion },
      { where: { id: userId }, transaction: t },
    );
    return { ok: true, sessionVersion };
  });
}
