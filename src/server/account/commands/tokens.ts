import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import type { Scope } from '@/domain/scopes';
import { TokenForm } from '@/domain/token-form';
import type { CurrentUser } from '../../floor/auth/permissions';
import { toUser, USER } from '../../floor/auth/session-user';
import { nowIso } from '../../floor/clock';
import { problem, type Result, zodProblems } from '../../floor/result';
import * as ask from '../../floor/statements/account';
import { write } from '../../floor/write';
import { told } from '../sentences';
import { PersonalTokens } from '../tables';

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** So many at once for one person, each for a year at most. */
const MOST_TOKENS = 10;
export const aYearFrom = (at: string): string => new Date(Date.parse(at) + 365 * 86_400_000).toISOString();

/** Makes a personal token. It is shown once; only its hash is kept. */
export async function createToken(user: CurrentUser, form: unknown): Promise<Result<{ token: string }>> {
  const parsed = TokenForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const open = await ask.createToken.one({ id: user.id, now: nowIso() });
  if ((open?.n ?? 0) >= MOST_TOKENS) return problem('name', told('most-tokens', { most: MOST_TOKENS }));
  const token = `jt_${randomBytes(32).toString('base64url')}`;
  await write(
    async (t) =>
      void (await PersonalTokens.insert(
        {
          id: randomUUID(),
          userId: user.id,
          name: parsed.data.name,
          hash: hashOf(token),
          scopes: parsed.data.scopes,
          createdAt: nowIso(),
          lastUsedAt: null,
          endedAt: null,
          expiresAt: aYearFrom(nowIso()),
        },
        t,
      )),
  );
  return { ok: true, token };
}

export async function endToken(user: CurrentUser, id: string): Promise<Result<object>> {
  const changed = await write((t) =>
    PersonalTokens.update({ endedAt: nowIso() }, { id, userId: user.id, endedAt: null }, t),
  );
  return changed === 1 ? { ok: true } : problem('', told('not-found'));
}

export interface TokenLine {
  id: string;
  name: string;
  scopes: Scope[];
  createdAt: string;
  lastUsedAt: string | null;
  expiresAt: string;
}
export async function tokensOf(user: CurrentUser): Promise<TokenLine[]> {
  return (
    await PersonalTokens.find({
      where: { userId: user.id, endedAt: null, expiresAt: { [Op.gt]: nowIso() } },
      pick: ['id', 'name', 'scopes', 'createdAt', 'lastUsedAt', 'expiresAt'],
      order: ['-createdAt'],
    })
  ).map((t) => ({
    id: t.id,
    name: t.name,
    scopes: t.scopes,
    createdAt: t.createdAt,
    lastUsedAt: t.lastUsedAt,
    expiresAt: t.expiresAt ?? '',
  }));
}

/**
 * The user behind a bearer token, with the roles of this moment, and what the token may be used for; null when it is
 * unknown or ended. The day of use is noted.
 */
export async function tokenUser(header: string | null): Promise<{ user: CurrentUser; scopes: Scope[] } | null> {
  const token = /^Bearer (jt_[A-Za-z0-9_-]{43})$/.exec(header ?? '')?.[1];
  if (!token) return null;
  const found = await PersonalTokens.first({
    where: { hash: hashOf(token), endedAt: null, expiresAt: { [Op.gt]: nowIso() } },
    pick: ['id', 'lastUsedAt', 'scopes'],
    with: { user: { pick: USER, where: { closedAt: null } } },
  });
  if (!found) return null;
  const today = nowIso().slice(0, 10);
  if (found.lastUsedAt !== today)
    await write(async (t) => void (await PersonalTokens.update({ lastUsedAt: today }, { id: found.id }, t)));
  const user = toUser(found.user);
  return user && { user, scopes: found.scopes };
}
