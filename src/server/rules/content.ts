import { createHash } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { canonicalText } from '@/core/ledger';
import type { Aerodrome } from '@/domain/sheet';
import { nowIso } from '../floor/clock';
import { inData } from '../floor/data-folder';
import { CONTENT, type ContentKind, type ContentOf, type Seed } from './shipped';
import { ContentVersions } from './tables';
import { Op } from 'sequelize';
import * as ask from '../floor/statements/rules';

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
  if (added > 0) contentMoved(t);
  return added;
}

const parsedCache = new Map<string, unknown>();

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

declare global {
  var __jeitoNewest: { file: string; ids: Map<string, string | null> } | undefined;
}
/**
 * Which version of each piece stands, as read last. Content changes only through this process: every writer of it says
 * so.
 */
function newestIds(): Map<string, string | null> {
  const file = inData('jeito.sqlite');
  if (globalThis.__jeitoNewest?.file !== file) globalThis.__jeitoNewest = { file, ids: new Map() };
  return globalThis.__jeitoNewest.ids;
}
/** To be called by who writes a version: what stands is looked up anew, now and after the commit. */
export function contentMoved(t: Transaction): void {
  newestIds().clear();
  t.afterCommit(() => newestIds().clear());
}
async function newestId(
  name: string,
  read: (t?: Transaction) => Promise<{ id: string } | null>,
  t?: Transaction,
): Promise<string | null> {
  const known = t ? undefined : newestIds().get(name);
  if (known !== undefined) return known;
  const id = (await read(t))?.id ?? null;
  // Inside a write what is read may not be there for others yet, and what is not there yet may come.
  if (!t && id !== null) newestIds().set(name, id);
  return id;
}

/** The newest version of a piece of content, with its id for pinning; null when there is none. */
export async function newestContent<K extends ContentKind>(
  kind: K,
  key: string,
  t?: Transaction,
): Promise<{ id: string; body: ContentOf<K> } | null> {
  const id = await newestId(
    `${kind} ${key}`,
    (within) =>
      ContentVersions.first(
        { where: { kind, key, origin: { [Op.ne]: 'proposed' } }, pick: ['id'], order: ['-version'] },
        within,
      ),
    t,
  );
  return id === null ? null : { id, body: await contentById(kind, id, t) };
}

/**
 * The aerodrome this school flies from (one data folder = one school): the first one entered is home, of it the newest
 * version stands.
 */
export async function homeAerodrome(t?: Transaction): Promise<Aerodrome> {
  const id = await newestId('home', (within) => ask.homeAerodrome.one({}, within), t);
  if (id === null) throw new Error('no aerodrome is set up in this data folder');
  return contentById('aerodrome', id, t);
}
