import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { z } from 'zod';
import type { CurrentUser } from '../../floor/auth/permissions';
import { type UserRow, toUser } from '../../floor/auth/session-user';
import { nowIso } from '../../floor/clock';
import { row, rows } from '../../floor/connection';
import { model } from '../../floor/models';
import { write } from '../../floor/write';
import { type Result, problem, zodProblems } from '../../floor/result';

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** So many at once for one person, each for a year at most. */
const MOST_TOKENS = 10;
export const aYearFrom = (at: string): string => new Date(Date.parse(at) + 365 * 86_400_000).toISOString();

export const TokenForm = z.object({
  name: z.string().trim().min(2, 'Name it after what will use it.').max(60, 'Keep it under 60 characters.'),
});

/** Makes a personal token. It is shown once; only its hash is kept. */
export async function createToken(user: CurrentUser, form: unknown): Promise<Result<{ token: string }>> {
  const parsed = TokenForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const open = await row<{ n: number }>(
    'SELECT COUNT(*) AS n FROM personal_tokens WHERE user_id = :id AND ended_at IS NULL AND expires_at > :now',
    { id: user.id, now: nowIso() },
  );
  if ((open?.n ?? 0) >= MOST_TOKENS)
    return problem('name', `You have ${MOST_TOKENS} tokens, the most there may be. End one you do not use.`);
  const token = `jt_${randomBytes(32).toString('base64url')}`;
  await write(
    async (t) =>
      void (await model('personal_tokens').create(
        {
          id: randomUUID(),
          user_id: user.id,
          name: parsed.data.name,
          hash: hashOf(token),
          created_at: nowIso(),
          last_used_at: null,
          ended_at: null,
          expires_at: aYearFrom(nowIso()),
        },
        { transaction: t },
      )),
  );
  return { ok: true, token };
}

export async function endToken(user: CurrentUser, id: string): Promise<Result<object>> {
  const [changed] = await write((t) =>
    model('personal_tokens').update(
      { ended_at: nowIso() },
      { where: { id, user_id: user.id, ended_at: null }, transaction: t },
    ),
  );
  return changed === 1 ? { ok: true } : problem('', 'There is no such token of yours.');
}

export interface TokenLine {
  id: string;
  name: string;
  createdAt: string;
  lastUsedAt: string | null;
  expiresAt: string;
}
export async function tokensOf(user: CurrentUser): Promise<TokenLine[]> {
  return (
    await rows<{ id: string; name: string; created_at: string; last_used_at: string | null; expires_at: string }>(
      `SELECT id, name, created_at, last_used_at, expires_at FROM personal_tokens
         WHERE user_id = :id AND ended_at IS NULL AND expires_at > :now ORDER BY created_at DESC`,
      { id: user.id, now: nowIso() },
    )
  ).map((t) => ({
    id: t.id,
    name: t.name,
    createdAt: t.created_at,
    lastUsedAt: t.last_used_at,
    expiresAt: t.expires_at,
  }));
}

/**
 * The user behind a bearer token, with the roles of this moment; null when it is unknown or ended. The day of use is
 * noted.
 */
export async function tokenUser(header: string | null): Promise<CurrentUser | null> {
  const token = /^Bearer (jt_[A-Za-z0-9_-]{43})$/.exec(header ?? '')?.[1];
  if (!token) return null;
  const found = await row<UserRow & { token_id: string; last_used_at: string | null }>(
    `SELECT u.*, t.id AS token_id, t.last_used_at FROM personal_tokens t JOIN users u ON u.id = t.user_id
       WHERE t.hash = :hash AND t.ended_at IS NULL AND t.expires_at > :now AND u.closed_at IS NULL`,
    { hash: hashOf(token), now: nowIso() },
  );
  if (!found) return null;
  const today = nowIso().slice(0, 10);
  if (found.last_used_at !== today)
    await write(
      async (t) =>
        void (await model('personal_tokens').update(
          { last_used_at: today },
          { where: { id: found.token_id }, transaction: t },
        )),
    );
  return toUser(found);
}
