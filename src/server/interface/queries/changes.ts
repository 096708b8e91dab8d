import type { z } from 'zod';
import { CHANGE_KINDS, CHANGE_KIND_LIST, type ChangeKind, type Scope } from '@/domain/scopes';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import * as ask from '../../floor/statements/interface';
import { type ChangesQuery, hrefOf } from '../paths';
import type { ChangesAnswer } from '../shapes';

/**
 * What has changed since a version, of the kinds the scopes read and this user may see: each thing once, in the order of
 * its newest change. A version of another book (a backup was brought back) or none of ours is null: all is to be read
 * again.
 * @param scopes null = a person who is signed in, who reads with all of them
 */
export async function changesRead(
  user: CurrentUser,
  scopes: readonly Scope[] | null,
  query: ChangesQuery,
): Promise<z.output<typeof ChangesAnswer> | null> {
  const [book, newest] = await Promise.all([ask.changeBook.one(), ask.newestChange.one()]);
  const of = book?.id ?? '';
  const since = query.since === undefined ? 0 : sinceOf(query.since, of);
  if (since === null || since > (newest?.n ?? 0)) return null;
  const kinds = CHANGE_KIND_LIST.filter((k) => scopes === null || scopes.includes(CHANGE_KINDS[k]));
  const found = await ask.changesSince.all({
    since,
    kinds: kinds.length === 0 ? [''] : kinds,
    own: ownOf(user),
    // One more than is told, to know whether there is more.
    most: query.limit + 1,
  });
  const told = found.slice(0, query.limit);
  const more = found.length > told.length;
  // Without more, everything up to the newest has been looked at, told or not theirs.
  const upTo = more ? (told.at(-1)?.version ?? since) : Math.max(since, newest?.n ?? 0, told.at(-1)?.version ?? 0);
  return {
    version: `${of}.${upTo}`,
    more,
    changes: told.map((c) => ({ kind: c.kind, id: c.thing, href: hrefOf(c.kind, c.thing) })),
  };
}

/** Whose changes are told; null = everybody's. Who is no pilot and sees only what is theirs sees nothing. */
const ownOf = (user: CurrentUser): string | null => (may.seeEverybody(user) ? null : (user.pilotId ?? ''));

function sinceOf(text: string, book: string): number | null {
  const [of, version] = text.split('.');
  return of === book && version !== undefined && /^\d{1,15}$/.test(version) ? Number(version) : null;
}

/** Of each kind the newest thing this user sees: what an example is asked with. */
export async function newestSeen(user: CurrentUser): Promise<Partial<Record<ChangeKind, string>>> {
  const found = await ask.newestOfKinds.all({ own: ownOf(user) });
  return Object.fromEntries(found.map((f) => [f.kind, f.thing]));
}
