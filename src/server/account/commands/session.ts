import { randomBytes, randomUUID } from 'node:crypto';
import { z } from 'zod';
import { PasswordForm } from '@/domain/people';
import { BUSY_SIGN_IN, passwordAgain } from '../../floor/auth/again';
import { type Purse, forgetTries, giveBack, takeTries } from '../../floor/auth/limiter';
import { hashPassword, passwordFits } from '../../floor/auth/password';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { keyedHash } from '../../floor/auth/keyed';
import { nowIso } from '../../floor/clock';
import { database, row } from '../../floor/connection';
import { model } from '../../floor/models';
import { write } from '../../floor/write';
import { Busy } from '../../floor/busy';
import { notify } from './notices';
import { type Result, problem, zodProblems } from '../../floor/result';

export const SignInForm = z.object({
  email: z.email('Type your e-mail address, for example name@school.example.').max(200),
  password: z.string().min(1, 'Type your password.').max(400, 'A password has at most 400 characters.'),
});

/**
 * Checks e-mail and password. The answer is the same for an unknown address and a wrong password. Tries are counted
 * before they are looked at: by account and network address, by network address alone, and by account over all network
 * addresses it was never signed in from, so that nobody locks out who has been here before.
 * @param from the network address that asks
 */
export async function checkSignIn(
  form: unknown,
  from: string,
): Promise<Result<{ userId: string; sessionVersion: number }>> {
  const parsed = SignInForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const email = parsed.data.email.toLowerCase();
  const user = await row<{ id: string; password_hash: string; session_version: number }>(
    'SELECT id, password_hash, session_version FROM users WHERE email = :email AND closed_at IS NULL',
    { email },
  );
  const here = keyedHash(from);
  // Asked whether or not there is such an account, so that time tells nothing.
  const known =
    (await row('SELECT user_id FROM sign_in_addresses WHERE user_id = :id AND address_hash = :here', {
      id: user?.id ?? '',
      here,
    })) !== null;
  const purses: [Purse, string][] = known
    ? [['known', `${email} ${from}`]]
    : [
        ['pair', `${email} ${from}`],
        ['address', from],
        ['account', email],
      ];
  const wait = await takeTries(purses);
  if (wait > 0) return problem('password', `Too many tries. Wait ${wait} s, then try again.`);
  try {
    if (!(await passwordFits(parsed.data.password, user?.password_hash ?? null, from)) || !user)
      return problem('password', 'E-mail and password do not fit together. Check both and try again.');
  } catch (error) {
    if (!(error instanceof Busy)) throw error;
    await giveBack(purses);
    return problem('password', BUSY_SIGN_IN);
  }
  await forgetTries(purses);
  await rememberAddress(user.id, here);
  return { ok: true, userId: user.id, sessionVersion: user.session_version };
}

/** Twenty addresses an account was last signed in from; older ones are forgotten. */
async function rememberAddress(userId: string, here: string): Promise<void> {
  await write(async (t) => {
    const sql = (text: string, values: Record<string, unknown>) =>
      database().sequelize.query(text, { replacements: { userId, ...values }, transaction: t });
    await sql(
      `INSERT INTO sign_in_addresses (user_id, address_hash, last_at) VALUES (:userId, :here, :now)
         ON CONFLICT (user_id, address_hash) DO UPDATE SET last_at = :now`,
      { here, now: nowIso() },
    );
    await sql(
      `DELETE FROM sign_in_addresses WHERE user_id = :userId AND address_hash NOT IN (SELECT address_hash
         FROM sign_in_addresses WHERE user_id = :userId ORDER BY last_at DESC LIMIT 20)`,
      {},
    );
  });
}

/** A password of one's own choosing. Every other session of the account ends. */
export async function changePassword(user: CurrentUser, form: unknown): Promise<Result<{ sessionVersion: number }>> {
  const parsed = PasswordForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const again = await passwordAgain(user, parsed.data.password, 'nothing was changed');
  if (!again.ok) return again;
  if (parsed.data.next === parsed.data.password) return problem('next', 'This is the one you have. Choose another.');
  return setPassword(user.id, await hashPassword(parsed.data.next), null);
}

/**
 * A new first password, for who has lost theirs: shown once to the chief. Every session, token and calendar link of that
 * account ends; it is recorded who gave it, and its owner hears of it.
 */
export async function newFirstPassword(user: CurrentUser, userId: string): Promise<Result<{ password: string }>> {
  if (!may.keepPeople(user) || userId === user.id)
    return problem('', 'The chief instructor gives others a new password; your own you change on your account page.');
  const password = randomBytes(9).toString('base64url');
  const set = await setPassword(userId, await hashPassword(password), user);
  return set.ok ? { ok: true, password } : set;
}

async function setPassword(
  userId: string,
  hash: string,
  givenBy: CurrentUser | null,
): Promise<Result<{ sessionVersion: number }>> {
  return write(async (t): Promise<Result<{ sessionVersion: number }>> => {
    const found = await row<{ session_version: number }>(
      'SELECT session_version FROM users WHERE id = :userId AND closed_at IS NULL',
      { userId },
      t,
    );
    if (!found) return problem('', 'There is no such account.');
    const now = nowIso();
    const sessionVersion = found.session_version + 1;
    await model('users').update(
      {
        password_hash: hash,
        session_version: sessionVersion,
        password_given_by: givenBy?.id ?? null,
        password_given_at: givenBy ? now : null,
        ...(givenBy ? {} : { password_own_at: now }),
      },
      { where: { id: userId }, transaction: t },
    );
    for (const table of ['personal_tokens', 'calendar_feeds', 'sessions'] as const)
      await model(table).update({ ended_at: now }, { where: { user_id: userId, ended_at: null }, transaction: t });
    if (givenBy) {
      await model('password_resets').create(
        { id: randomUUID(), user_id: userId, given_by: givenBy.id, given_at: now },
        { transaction: t },
      );
      await notify(
        [userId],
        {
          kind: 'password',
          text: `${givenBy.name} gave your account a new password. Choose your own before you sign anything.`,
          href: '/account',
          about: userId,
        },
        givenBy.id,
        t,
      );
    }
    return { ok: true, sessionVersion };
  });
}
