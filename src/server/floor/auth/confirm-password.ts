import type { Transaction } from 'sequelize';
import { Users } from '../../account/tables';
import { givenPasswords as given } from '../statements/account';
import { Busy } from '../busy';
import { type Result, problem } from '../result';
import { told } from '../sentences';
import { forgetTries, giveBack, takeTry } from './limiter';
import { passwordFits } from './password';
import type { CurrentUser } from './permissions';

/**
 * The password once more, for what stands in the ledger or opens the account. Each try is counted before it is looked
 * at; wrong ones are made to wait.
 */
export async function confirmPassword(
  user: Pick<CurrentUser, 'id'>,
  password: string,
  undone: 'signed' | 'changed' = 'signed',
): Promise<Result<object>> {
  const wait = await takeTry('again', user.id);
  if (wait > 0) return problem('password', told('type-later', { seconds: wait }));
  const stored = await Users.first({ where: { id: user.id }, pick: ['passwordHash'] });
  try {
    if (!(await passwordFits(password, stored?.passwordHash ?? null, user.id)))
      return problem('password', told('wrong-password', { undone }));
  } catch (error) {
    if (!(error instanceof Busy)) throw error;
    await giveBack([['again', user.id]]);
    return problem('password', told('busy-sign-in'));
  }
  await forgetTries([['again', user.id]]);
  return { ok: true };
}

/**
 * A password that somebody else gave is known to two: until its owner has chosen their own nothing is signed with it.
 */
export async function ownPassword(user: Pick<CurrentUser, 'id'>): Promise<Result<object>> {
  const found = await Users.first({ where: { id: user.id }, pick: ['passwordGivenBy'] });
  return found?.passwordGivenBy ? problem('password', told('given-password')) : { ok: true };
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
  return given.all({ userId, since: new Date(Date.parse(at) - 30 * 86_400_000).toISOString() }, t);
}
