import { LRUCache } from 'lru-cache';
import { createHash } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { canonicalText } from '@/core/ledger';
import type { Aerodrome } from '@/domain/sheet';
import { nowIso } from '../floor/clock';
import { CONTENT, type ContentKind, type ContentOf, type Seed } from './shipped';
import { ContentVersions } from './tables';
import { Op } from 'sequelize';
import * as ask from '../floor/statements/rules';
import { derived } from '../floor/derived';

export { CONTENT, type ContentKind, type ContentOf, shippedContent } from './shipped';

/**
 * Imports content as immutable versions by hash: an unchanged file adds nothing, a changed one a new version. Where the
 * house has a version of its own the product's is proposed beside it and does not come into force: the chief takes it
 * over, or not.
 */
export async function importContent(seeds: readonly Seed[], author: string, t: Transaction): Promise<number> {
  let added = 0;
  for (const { kind, key, body } of seeds) {
    const text = canonicalText(body);
    const hash = createHash('sha256').update(text).digest('hex');
    const newest = await ContentVersions.first(
      { where: { kind, key }, pick: ['version', 'hash', 'origin'], order: ['-version'] },
      t,
    );
    const known = await ContentVersions.first({ where: { kind, key, hash }, pick: ['id'] }, t);
    if (known) continue;
    const own = await ContentVersions.first({ where: { kind, key, origin: 'house' }, pick: ['id'] }, t);
    const version = (newest?.version ?? 0) + 1;
    await ContentVersions.insert(
      {
        id: `${kind}:${key}:${version}`,
        kind,
        key,
        version,
        hash,
        origin: own ? 'proposed' : 'product',
        body: text,
        author,
        reason:
          version === 1
            ? 'shipped with the product'
            : own
              ? 'product update, proposed beside the house’s own'
              : 'product update',
        createdAt: nowIso(),
      },
      t,
    );
    added++;
  }
  return added;
}

const parsedCache = new LRUCache<string, object>({ max: 1000 });

/** One version of a piece of content. A version never changes, so it is parsed once per process. */
export async function contentById<K extends ContentKind>(kind: K, id: string, t?: Transaction): Promise<ContentOf<K>> {
  const hit = parsedCache.get(`${kind} ${id}`);
  if (hit) return hit as ContentOf<K>;
  const found = await ContentVersions.first({ where: { id, kind }, pick: ['body'] }, t);
  if (!found) throw new Error(`no ${kind} ${id}`);
  const parsed = CONTENT[kind].parse(JSON.parse(found.body)) as ContentOf<K>;
  parsedCache.set(`${kind} ${id}`, parsed);
  return parsed;
}

const readNewest = async (kind: ContentKind, key: string, t?: Transaction): Promise<string | null> =>
  (
    await ContentVersions.first(
      { where: { kind, key, origin: { [Op.ne]: 'proposed' } }, pick: ['id'], order: ['-version'] },
      t,
    )
  )?.id ?? null;
/** Which version of each piece stands. */
const newestId = derived({
  name: 'rules.newest',
  dependsOn: [ContentVersions],
  key: (kind: ContentKind, key: string) => `${kind} ${key}`,
  read: (kind: ContentKind, key: string) => readNewest(kind, key),
});
const readHome = async (t?: Transaction): Promise<string | null> => (await ask.homeAerodrome.one({}, t))?.id ?? null;
const homeId = derived({
  name: 'rules.home',
  dependsOn: [ContentVersions],
  key: () => '',
  read: () => readHome(),
});

/** The newest version of a piece of content, with its id for pinning; null when there is none. */
export async function newestContent<K extends ContentKind>(
  kind: K,
  key: string,
  t?: Transaction,
): Promise<{ id: string; body: ContentOf<K> } | null> {
  const id = t ? await readNewest(kind, key, t) : await newestId(kind, key);
  return id === null ? null : { id, body: await contentById(kind, id, t) };
}

/** The zone of the aerodrome; null while none is set up. */
export async function homeZone(t?: Transaction): Promise<string | null> {
  const id = t ? await readHome(t) : await homeId();
  return id === null ? null : (await contentById('aerodrome', id, t)).timeZone;
}

/**
 * The aerodrome this school flies from (one data folder = one school): the first one entered is home, of it the newest
 * version stands.
 */
export async function homeAerodrome(t?: Transaction): Promise<Aerodrome> {
  const id = t ? await readHome(t) : await homeId();
  if (id === null) throw new Error('no aerodrome is set up in this data folder');
  return contentById('aerodrome', id, t);
}

/** One aerodrome of the school in its newest version; home where none is named, or one that is not known any more. */
export async function aerodromeAt(ident: string | null | undefined, t?: Transaction): Promise<Aerodrome> {
  const named = ident ? await newestContent('aerodrome', ident, t) : null;
  return named?.body ?? homeAerodrome(t);
}

const readAll = async (t?: Transaction): Promise<string[]> => (await ask.aerodromes.all({}, t)).map((a) => a.id);
const allIds = derived({
  name: 'rules.aerodromes',
  dependsOn: [ContentVersions],
  key: () => '',
  read: () => readAll(),
});
/** Every aerodrome the school flies at, in its newest version: home first, then by name. */
export async function aerodromes(t?: Transaction): Promise<Aerodrome[]> {
  const ids = t ? await readAll(t) : await allIds();
  const [home, all] = [await homeAerodrome(t), await Promise.all(ids.map((id) => contentById('aerodrome', id, t)))];
  return [home, ...all.filter((a) => a.ident !== home.ident).sort((a, b) => a.name.localeCompare(b.name))];
}

/** An aerodrome as it stands in a row: null where it is home. Undefined where the school knows no such aerodrome. */
export async function keptAerodrome(
  ident: string | null | undefined,
  t?: Transaction,
): Promise<string | null | undefined> {
  const known = await aerodromes(t);
  if (!ident || ident === known[0]?.ident) return null;
  return known.find((a) => a.ident === ident)?.ident;
}

/** What an aerodrome is called where its row has only its code. */
export async function placeNames(): Promise<(ident: string | null) => string> {
  const known = await aerodromes();
  return (ident) => {
    const at = ident === null ? known[0] : known.find((a) => a.ident === ident);
    return at ? `${at.name} ${at.ident}` : (ident ?? '');
  };
}
