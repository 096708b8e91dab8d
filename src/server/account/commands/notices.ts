import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import type { CurrentUser } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { row, rows } from '../../floor/connection';
import { model } from '../../floor/models';
import { write } from '../../floor/write';

/** What somebody should hear of: written by the command that made it so, in the same transaction. */
export interface Notice {
  id: string;
  kind: string;
  text: string;
  href: string;
  madeAt: string;
  seenAt: string | null;
}

export async function notify(
  userIds: readonly (string | null)[],
  notice: { kind: string; text: string; href: string; about: string },
  by: string | null,
  t: Transaction,
): Promise<void> {
  for (const userId of new Set(userIds)) {
    if (userId === null || userId === by) continue;
    const last = await row<{ n: number | null }>(
      'SELECT MAX(seq) AS n FROM notices WHERE user_id = :userId',
      { userId },
      t,
    );
    await model('notices').create(
      { id: randomUUID(), user_id: userId, ...notice, made_at: nowIso(), seq: (last?.n ?? 0) + 1, seen_at: null },
      { transaction: t },
    );
  }
}
/** The account of a pilot; null = there is none. */
export const userOfPilot = async (pilotId: string | null, t: Transaction): Promise<string | null> =>
  pilotId === null
    ? null
    : ((
        await row<{ id: string }>(
          'SELECT id FROM users WHERE pilot_id = :pilotId AND closed_at IS NULL',
          { pilotId },
          t,
        )
      )?.id ?? null);

export const noticesOf = async (user: CurrentUser, limit = 60): Promise<Notice[]> =>
  (
    await rows<{ id: string; kind: string; text: string; href: string; made_at: string; seen_at: string | null }>(
      'SELECT id, kind, text, href, made_at, seen_at FROM notices WHERE user_id = :id ORDER BY seq DESC LIMIT :limit',
      { id: user.id, limit },
    )
  ).map((n) => ({ id: n.id, kind: n.kind, text: n.text, href: n.href, madeAt: n.made_at, seenAt: n.seen_at }));
export const unseenCount = async (user: CurrentUser): Promise<number> =>
  (
    await row<{ n: number }>('SELECT COUNT(*) AS n FROM notices WHERE user_id = :id AND seen_at IS NULL', {
      id: user.id,
    })
  )?.n ?? 0;
/** Marks all of one's notices as seen. */
export async function seeNotices(user: CurrentUser): Promise<{ ok: true }> {
  await write(
    async (t) =>
      void (await model('notices').update(
        { seen_at: nowIso() },
        { where: { user_id: user.id, seen_at: null }, transaction: t },
      )),
  );
  return { ok: true };
}
