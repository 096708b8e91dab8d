import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import type { CurrentUser } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { write } from '../../floor/write';
import * as ask from '../../floor/statements/account';
import { Notices, Users } from '../tables';

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
    const last = await ask.notify.one({ userId }, t);
    await Notices.insert(
      { id: randomUUID(), userId: userId, ...notice, madeAt: nowIso(), seq: (last?.n ?? 0) + 1, seenAt: null },
      t,
    );
  }
}
/** The account of a pilot; null = there is none. */
export const userOfPilot = async (pilotId: string | null, t: Transaction): Promise<string | null> =>
  pilotId === null ? null : ((await Users.first({ where: { pilotId, closedAt: null }, pick: ['id'] }, t))?.id ?? null);

export const noticesOf = async (user: CurrentUser, limit = 60): Promise<Notice[]> =>
  (
    await Notices.find({
      where: { userId: user.id },
      pick: ['id', 'kind', 'text', 'href', 'madeAt', 'seenAt'],
      order: ['-seq'],
      limit: limit,
    })
  ).map((n) => ({ id: n.id, kind: n.kind, text: n.text, href: n.href, madeAt: n.madeAt, seenAt: n.seenAt }));
export const unseenCount = async (user: CurrentUser): Promise<number> =>
  (
    await ask.unseenCount.one({
      id: user.id,
    })
  )?.n ?? 0;
/** Marks all of one's notices as seen. */
export async function seeNotices(user: CurrentUser): Promise<{ ok: true }> {
  await write(async (t) => void (await Notices.update({ seenAt: nowIso() }, { userId: user.id, seenAt: null }, t)));
  return { ok: true };
}
