import { PasswordForm } from '@/domain/people';
import { randomBytes, randomUUID } from 'node:crypto';
import { Op, type Transaction } from 'sequelize';
import { SignInForm } from '@/domain/sign-in-form';
import { confirmPassword } from '../../floor/auth/confirm-password';
import { keyedHash } from '../../floor/auth/keyed';
import { forgetTries, giveBack, type Purse, takeTries } from '../../floor/auth/limiter';
import { hashPassword, passwordFits } from '../../floor/auth/password';
import { codeFits, hasFactor } from '../../floor/auth/second-factor';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { Busy } from '../../floor/busy';
import { nowIso } from '../../floor/clock';
import { problem, type Result, zodProblems } from '../../floor/result';
import { write } from '../../floor/write';
import { CalendarFeeds } from '../../schedule/tables';
import { told } from '../sentences';
import { AccountLinks, PasswordResets, PersonalTokens, Sessions, SignInAddresses, Users } from '../tables';
import { notify } from './notices';

const SESSION_MS = 7 * 86_400_000;

/**
 * Checks e-mail and password, and the second factor where there is one. The answer is the same for an unknown address and a wrong password. Tries are counted
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
  const user = await Users.first({ where: { email, closedAt: null }, pick: ['id', 'passwordHash', 'sessionVersion'] });
  const here = keyedHash(from);
  // Asked whether or not there is such an account, so that time tells nothing.
  const known =
    (await SignInAddresses.first({ where: { userId: user?.id ?? '', addressHash: here }, pick: ['userId'] })) !== null;
  const purses: [Purse, string][] = known
    ? [['known', `${email} ${from}`]]
    : [
        ['pair', `${email} ${from}`],
        ['address', from],
        ['account', email],
      ];
  const wait = await takeTries(purses);
  if (wait > 0) return problem('password', told('too-many-tries', { seconds: wait }));
  try {
    if (!(await passwordFits(parsed.data.password, user?.passwordHash ?? null, from)) || !user)
      return problem('password', told('wrong-sign-in'));
  } catch (error) {
    if (!(error instanceof Busy)) throw error;
    await giveBack(purses);
    return problem('password', told('busy-sign-in'));
  }
  const code = parsed.data.code.replace(/[\s-]/g, '');
  if (await hasFactor(user.id)) {
    // Asked for once the password is right: that it is asked says no more than the password did.
    if (code === '') {
      await giveBack(purses);
      return problem('code', told('code-missing'));
    }
    if (!(await write((t) => codeFits(user.id, code, t)))) return problem('code', told('code-wrong'));
  }
  await forgetTries(purses);
  await rememberAddress(user.id, here);
  return { ok: true, userId: user.id, sessionVersion: user.sessionVersion };
}

/** Twenty addresses an account was last signed in from; older ones are forgotten. */
const KNOWN_ADDRESSES = 20;
async function rememberAddress(userId: string, here: string): Promise<void> {
  await write(async (t) => {
    await SignInAddresses.put({ userId, addressHash: here, lastAt: nowIso() }, t);
    const known = await SignInAddresses.find({ where: { userId }, pick: ['addressHash'], order: ['-lastAt'] }, t);
    const forgotten = known.slice(KNOWN_ADDRESSES).map((k) => k.addressHash);
    if (forgotten.length > 0) await SignInAddresses.delete({ userId, addressHash: forgotten }, t);
  });
}

/** A password of one's own choosing. Every other session of the account ends. */
export async function changePassword(user: CurrentUser, form: unknown): Promise<Result<{ sessionVersion: number }>> {
  const parsed = PasswordForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const again = await confirmPassword(user, parsed.data.password, 'changed');
  if (!again.ok) return again;
  if (parsed.data.next === parsed.data.password) return problem('next', told('same-password'));
  const hash = await hashPassword(parsed.data.next);
  return write((t) => setPassword(user.id, hash, null, t));
}

/**
 * A new first password, for who has lost theirs: shown once to the chief. Every session, token and calendar link of that
 * account ends; it is recorded who gave it, and its owner hears of it.
 */
export async function newFirstPassword(user: CurrentUser, userId: string): Promise<Result<{ password: string }>> {
  if (!may.keepPeople(user) || userId === user.id) return problem('', told('chief-resets'));
  const password = randomBytes(9).toString('base64url');
  const hash = await hashPassword(password);
  const set = await write((t) => setPassword(userId, hash, user, t));
  return set.ok ? { ok: true, password } : set;
}

/** Puts a password in place of another: every session, token and calendar link of the account ends. */
export async function setPassword(
  userId: string,
  hash: string,
  givenBy: CurrentUser | null,
  t: Transaction,
): Promise<Result<{ sessionVersion: number }>> {
  const found = await Users.first({ where: { id: userId, closedAt: null }, pick: ['sessionVersion'] }, t);
  if (!found) return problem('', told('not-found'));
  const now = nowIso();
  const sessionVersion = found.sessionVersion + 1;
  await Users.update(
    {
      passwordHash: hash,
      sessionVersion: sessionVersion,
      passwordGivenBy: givenBy?.id ?? null,
      passwordGivenAt: givenBy ? now : null,
      ...(givenBy ? {} : { passwordOwnAt: now }),
    },
    { id: userId },
    t,
  );
  const open = { userId, endedAt: null };
  await PersonalTokens.update({ endedAt: now }, open, t);
  await CalendarFeeds.update({ endedAt: now }, open, t);
  await Sessions.update({ endedAt: now }, open, t);
  await AccountLinks.update({ endedAt: now }, { userId, usedAt: null, endedAt: null }, t);
  if (givenBy) {
    await PasswordResets.insert({ id: randomUUID(), userId: userId, givenBy: givenBy.id, givenAt: now }, t);
    const text = told('notice-password', { name: givenBy.name }).message;
    await notify([userId], { kind: 'password', text, href: '/account', about: userId }, givenBy.id, t);
  }
  return { ok: true, sessionVersion };
}

export interface SessionLine {
  id: string;
  device: string;
  madeAt: string;
}
/** Where somebody is signed in, newest first; a session lasts a week. */
export async function sessionsOf(user: CurrentUser): Promise<SessionLine[]> {
  return Sessions.find({
    where: {
      userId: user.id,
      endedAt: null,
      madeAt: { [Op.gt]: new Date(Date.parse(nowIso()) - SESSION_MS).toISOString() },
    },
    pick: ['id', 'device', 'madeAt'],
    order: ['-madeAt'],
  });
}
/** Ends one session of one's own, or every one but this. */
export async function endSessions(user: CurrentUser, id: string | null, keep: string | null): Promise<Result<object>> {
  const where = { userId: user.id, endedAt: null, ...(id === null ? { id: { [Op.ne]: keep ?? '' } } : { id }) };
  const ended = await write((t) => Sessions.update({ endedAt: nowIso() }, where, t));
  return id === null || ended === 1 ? { ok: true } : problem('', told('not-found'));
}
