import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { Op } from 'sequelize';
import { FeedForm } from '@/domain/settings-forms';
import { aYearFrom } from '../../account/commands/tokens';
import type { CurrentUser } from '../../floor/auth/permissions';
import { userById } from '../../floor/auth/session-user';
import { nowIso } from '../../floor/clock';
import { type Problem, zodProblems } from '../../floor/result';
import { write } from '../../floor/write';
import { CalendarFeeds } from '../tables';

const feedHash = (secret: string): string => createHash('sha256').update(secret).digest('hex');
/** A calendar address of one’s own; told once, an earlier one ends. */
export async function openFeed(
  user: CurrentUser,
  form: unknown,
): Promise<{ ok: true; secret: string } | { ok: false; problems: Problem[] }> {
  const parsed = FeedForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const secret = randomBytes(24).toString('base64url');
  return write(async (t) => {
    await CalendarFeeds.update({ endedAt: nowIso() }, { userId: user.id, endedAt: null }, t);
    await CalendarFeeds.insert(
      {
        id: randomUUID(),
        userId: user.id,
        hash: feedHash(secret),
        alarmMin: parsed.data.alarmMin,
        createdAt: nowIso(),
        endedAt: null,
        expiresAt: aYearFrom(nowIso()),
        lastUsedAt: null,
      },
      t,
    );
    return { ok: true as const, secret };
  });
}
export async function endFeed(user: CurrentUser): Promise<{ ok: true }> {
  await write(
    async (t) => void (await CalendarFeeds.update({ endedAt: nowIso() }, { userId: user.id, endedAt: null }, t)),
  );
  return { ok: true };
}
/** Whose calendar an address is; null = nobody’s. */
export async function feedOwner(secret: string): Promise<{ user: CurrentUser; alarmMin: number } | null> {
  const found = await CalendarFeeds.first({
    where: { hash: feedHash(secret), endedAt: null, expiresAt: { [Op.gt]: nowIso() } },
    pick: ['id', 'userId', 'alarmMin', 'lastUsedAt'],
    with: { user: { pick: [], where: { closedAt: null } } },
  });
  const user = found ? await userById(found.userId) : null;
  const today = nowIso().slice(0, 10);
  if (found && found.lastUsedAt !== today)
    await write(async (t) => void (await CalendarFeeds.update({ lastUsedAt: today }, { id: found.id }, t)));
  return found && user ? { user, alarmMin: found.alarmMin } : null;
}
