import { told } from './sentences';
import type { Transaction } from 'sequelize';
import { ownPassword, confirmPassword } from '../floor/auth/confirm-password';
import type { CurrentUser } from '../floor/auth/permissions';
import { nowIso } from '../floor/clock';
import { write } from '../floor/write';
import { type Result, problem } from '../floor/result';
import { ledgerKeyId, publishHead } from './entries';
import { signingProblem } from './keys';
import * as ask from '../floor/statements/ledger';

export type Added = Result<{ entryId: string; already: boolean }>;

/** A write that adds to the ledger: the password once more, the key at hand, one write, then the signed head. */
export async function addEntry(
  user: CurrentUser,
  password: string,
  work: (t: Transaction) => Promise<Added>,
): Promise<Added> {
  const again = await confirmPassword(user, password);
  if (!again.ok) return again;
  const own = await ownPassword(user);
  if (!own.ok) return own;
  const wrong = signingProblem(await ledgerKeyId());
  if (wrong) return problem('', wrong);
  const outcome = await write(work);
  if (outcome.ok) await publishHead(nowIso());
  return outcome;
}

/**
 * The entry this request made before, so that sending twice makes one; a request used for something else is refused.
 * Null = it is new.
 */
export async function madeBefore(
  user: CurrentUser,
  requestId: string,
  is: { kind: string; checkoutId: string; of?: string },
  t: Transaction,
): Promise<Added | null> {
  const found = await ask.madeBefore.one({ id: requestId }, t);
  if (!found) return null;
  const same =
    found.kind === is.kind &&
    found.checkoutId === is.checkoutId &&
    found.signerId === user.id &&
    (is.of === undefined || found.of === is.of);
  return same ? { ok: true, entryId: requestId, already: true } : problem('', told('request-used'));
}
