import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { LinkForm } from '@/domain/account-forms';
import { takeTry } from '../../floor/auth/limiter';
import { hashPassword } from '../../floor/auth/password';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { hasFactor } from '../../floor/auth/second-factor';
import { toUser, USER } from '../../floor/auth/session-user';
import { nowIso } from '../../floor/clock';
import { problem, type Result, zodProblems } from '../../floor/result';
import { write } from '../../floor/write';
import { told } from '../sentences';
import { AccountLinks, Users } from '../tables';
import { notify } from './notices';
import { dropFactor } from './second-factor';
import { setPassword } from './session';

/** What fits no password: an account whose owner has chosen none. */
export const NO_PASSWORD = '!';
const DAYS = 7;
const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');
export interface MadeLink {
  /** Shown once; the address is this site's. */
  path: string;
  until: string;
}

/** A new link of an account; those before it end. */
export async function addLink(user: CurrentUser, userId: string, t: Transaction): Promise<MadeLink> {
  const token = randomBytes(32).toString('base64url');
  const madeAt = nowIso();
  const until = new Date(Date.parse(madeAt) + DAYS * 86_400_000).toISOString();
  await AccountLinks.update({ endedAt: madeAt }, { userId, usedAt: null, endedAt: null }, t);
  await AccountLinks.insert(
    {
      ...{ id: randomUUID(), userId, hash: hashOf(token), madeBy: user.id, madeAt },
      ...{ expiresAt: until, usedAt: null, endedAt: null },
    },
    t,
  );
  return { path: `/welcome/${token}`, until };
}

/**
 * A link by which somebody chooses a password: for who never had one, or lost theirs. Like a password that a chief gives:
 * it is recorded, its owner hears of it, the old password and every session end, and nothing is signed until the owner
 * has chosen their own.
 */
export async function makeLink(user: CurrentUser, userId: string): Promise<Result<MadeLink>> {
  if (!may.keepPeople(user) || userId === user.id) return problem('', told('chief-links'));
  return write(async (t): Promise<Result<MadeLink>> => {
    const set = await setPassword(userId, NO_PASSWORD, user, t);
    return set.ok ? { ok: true, ...(await addLink(user, userId, t)) } : set;
  });
}

/**
 * By whoever has the computer of the school, for an account nobody else can let in again: the only chief's, or one whose
 * authenticator and codes are lost. Recorded like a password given, and its owner hears of it.
 * @returns null where no open account has this address
 */
export async function linkAtConsole(email: string): Promise<MadeLink | null> {
  return write(async (t): Promise<MadeLink | null> => {
    const found = await Users.first({ where: { email: email.toLowerCase(), closedAt: null }, pick: USER }, t);
    if (!found) return null;
    const owner = toUser(found);
    const set = await setPassword(owner.id, NO_PASSWORD, owner, t);
    if (!set.ok) return null;
    await dropFactor(owner.id, t);
    const text = told('notice-console').message;
    await notify([owner.id], { kind: 'password', text, href: '/account', about: owner.id }, null, t);
    return addLink(owner, owner.id, t);
  });
}

async function openLink(token: string, t?: Transaction) {
  const link = await AccountLinks.first(
    {
      where: { hash: hashOf(token), usedAt: null, endedAt: null },
      pick: ['id', 'userId', 'expiresAt'],
      with: { user: ['name', 'email', 'closedAt'] },
    },
    t,
  );
  return link && link.expiresAt > nowIso() && !link.user.closedAt ? link : null;
}

/** Whose link this is; null = used, replaced, over or none. */
export async function linkOwner(token: string): Promise<{ name: string; email: string } | null> {
  const link = await openLink(token);
  return link ? { name: link.user.name, email: link.user.email } : null;
}

/** The owner of a link chooses a password; the link ends with it. With a second factor they sign in as always. */
export async function spendLink(
  token: string,
  form: unknown,
  from: string,
): Promise<Result<{ userId: string; sessionVersion: number; factor: boolean }>> {
  const parsed = LinkForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const wait = await takeTry('address', from);
  if (wait > 0) return problem('', told('too-many-tries', { seconds: wait }));
  if (!(await openLink(token))) return problem('', told('link-spent'));
  const hash = await hashPassword(parsed.data.password);
  return write(async (t): Promise<Result<{ userId: string; sessionVersion: number; factor: boolean }>> => {
    const link = await openLink(token, t);
    if (!link) return problem('', told('link-spent'));
    const { userId } = link;
    await AccountLinks.update({ usedAt: nowIso() }, { id: link.id }, t);
    const set = await setPassword(userId, hash, null, t);
    return set.ok ? { ...set, userId, factor: await hasFactor(userId, t) } : set;
  });
}

/** Whether somebody has never chosen a password of their own. */
export const neverSignedIn = async (userId: string): Promise<boolean> =>
  ((await Users.first({ where: { id: userId }, pick: ['passwordOwnAt'] }))?.passwordOwnAt ?? null) === null;
