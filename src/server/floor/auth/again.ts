import type { Transaction } from 'sequelize';
import { row, rows } from '../connection';
import { Busy } from '../busy';
import { type Result, problem } from '../result';
import { forgetTries, giveBack, takeTry } from './limiter';
import { passwordFits } from './password';
import type { CurrentUser } from './permissions';

export const BUSY_SIGN_IN = 'Too many sign-ins at this moment. Try again in a few seconds.';

/**
 * The password once more, for what stands in the ledger or opens the account. Each try is counted before it is looked
 * at; wrong ones are made to wait.
 */
export async function passwordAgain(
  user: Pick<CurrentUser, 'id'>,
  password: string,
  nothing = 'nothing was signed',
): Promise<Result<object>> {
  const wait = await takeTry('again', user.id);
  if (wait > 0) return problem('password', `Too many tries. Wait ${wait} s, then type it again.`);
  const stored = await row<{ password_hash: string }>('SELECT password_hash FROM users WHERE id = :id', {
    id: user.id,
  });
  try {
    if (!(await passwordFits(password, stored?.password_hash ?? null, user.id)))
      return problem('password', `This is not your password. Type it again; ${nothing}.`);
  } catch (error) {
    if (!(error instanceof Busy)) throw error;
    await giveBack([['again', user.id]]);
    return problem('password', BUSY_SIGN_IN);
  }
  await forgetTries([['again', user.id]]);
  return { ok: true };
}

/**
 * A password that somebody else gave is known to two: until its owner has chosen their own nothing is signed with it.
 */
export async function ownPassword(user: Pick<CurrentUser, 'id'>): Promise<Result<object>> {
  const found = await row<{ password_given_by: string | null }>('SELECT password_given_by FROM users WHERE id = :id', {
    id: user.id,
  });
  return found?.password_given_by
    ? problem(
        'password',
        'This password was given to you by somebody else. Choose your own on your account page, then sign.',
      )
    : { ok: true };
}

/**
 * Passwords given to an account in the thirty days before, and any since its last signature: what is signed now says so,
 * because for as long as they stood two people could sign.
 */
export async function givenPasswords(
  userId: string,
  at: string,
  t: Transaction,
): Promise<{ by: string; at: string }[]> {
  return rows<{ by: string; at: string }>(
    `SELECT u.name AS "by", r.given_at AS at FROM password_resets r JOIN users u ON u.id = r.given_by
     WHERE r.user_id = :userId AND (r.given_at >= :since OR r.given_at > COALESCE((SELECT MAX(signed_at) FROM ledger WHERE signer_id = :userId), ''))
     ORDER BY r.given_at`,
    { userId, since: new Date(Date.parse(at) - 30 * 86_400_000).toISOString() },
    t,
  );
}
