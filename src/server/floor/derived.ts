import { LRUCache } from 'lru-cache';
import { QueryTypes } from 'sequelize';
import { database } from './connection';
import type { AnyTable } from './table';

/**
 * The one cache of what is read. An answer stands while the tables it depends on have not been written, by this process
 * or another: `write` raises a number per table in its own transaction, and an answer is kept under the numbers it was
 * read at. Never used inside a write, where what is read is not everybody's yet.
 *
 * In tests and in development every reading is watched: a table it asks that is not named in `dependsOn` is an error.
 */
interface Of<A extends readonly unknown[], T> {
  name: string;
  dependsOn: readonly AnyTable[];
  /** Everything else the answer depends on, the day too. */
  key: (...args: A) => string;
  read: (...args: A) => Promise<T>;
  /** How many answers are kept, the last asked for. */
  most?: number;
  /** The answer from the one before, where that is quicker than reading all again. */
  further?: (before: T, ...args: A) => Promise<T>;
}
export interface Derived<A extends readonly unknown[], T> {
  (...args: A): Promise<T>;
  of: Of<A, T>;
}
interface Kept {
  versions: string;
  value: Promise<unknown>;
}

const MOST = 400;
declare global {
  var __jeitoDerived: WeakMap<object, Map<string, LRUCache<string, Kept>>> | undefined;
}
/** Each database has its own: a data folder of its own is a school of its own. */
function keptOf(database: object, name: string, most: number): LRUCache<string, Kept> {
  const all = (globalThis.__jeitoDerived ??= new WeakMap());
  const here = all.get(database) ?? new Map<string, LRUCache<string, Kept>>();
  all.set(database, here);
  const known = here.get(name) ?? new LRUCache<string, Kept>({ max: most });
  here.set(name, known);
  return known;
}

/** What another process writes is seen after this long at most; what this one writes, at once. */
const ASK_AGAIN_MS = 100;
function versions(): Promise<ReadonlyMap<string, number>> {
  const db = database();
  const now = performance.now();
  if (db.versions && now - db.versions.asked < ASK_AGAIN_MS) return db.versions.of;
  const of = db.sequelize
    .query<{ name: string; version: number }>('SELECT name, version FROM table_versions', { type: QueryTypes.SELECT })
    .then((found) => new Map(found.map((f) => [f.name, f.version])));
  db.versions = { of, asked: now };
  return of;
}

const WATCHED = process.env.NODE_ENV === 'test' || process.env.NODE_ENV === 'development';
/** Tables, and views with the tables they ask: a reading of a view is one of its tables. Read once per database. */
const schemas = new WeakMap<object, Promise<{ name: string; type: string; sql: string }[]>>();
function schema() {
  const { sequelize } = database();
  const read =
    schemas.get(sequelize) ??
    sequelize.query<{ name: string; type: string; sql: string }>(
      "SELECT name, type, sql FROM sqlite_master WHERE type IN ('table', 'view')",
      { type: QueryTypes.SELECT },
    );
  schemas.set(sequelize, read);
  return read;
}
async function watched<T>(of: { name: string; dependsOn: readonly AnyTable[] }, read: () => Promise<T>): Promise<T> {
  const asks = new Set<string>();
  const value = await database().reading.run(asks, read);
  const there = new Map((await schema()).map((s) => [s.name, s]));
  const told = new Set(of.dependsOn.map((t) => t.name));
  // A set gives what is added to it while it is walked.
  for (const name of asks)
    if (there.get(name)?.type === 'view')
      for (const [, table] of there.get(name)?.sql.matchAll(/\b(?:FROM|JOIN)\s+(\w+)/gi) ?? []) asks.add(table ?? '');
  const more = [...asks].filter((n) => there.get(n)?.type === 'table' && !told.has(n) && n !== 'table_versions');
  if (more.length > 0) throw new Error(`derived ${of.name} reads ${more.join(', ')} and does not depend on them`);
  return value;
}

export function derived<A extends readonly unknown[], T>(of: Of<A, T>): Derived<A, T> {
  const tables = of.dependsOn.map((t) => t.name).sort();
  const ask = async (...args: A): Promise<T> => {
    const db = database();
    if (db.writing.getStore()) throw new Error(`derived ${of.name} inside write(): read it afresh there`);
    const around = db.reading.getStore();
    for (const table of tables) around?.add(table);
    const kept = keptOf(db.sequelize, of.name, of.most ?? MOST);
    const key = of.key(...args);
    const now = await db.reading.exit(versions);
    const at = tables.map((t) => now.get(t) ?? 0).join();
    const known = kept.get(key);
    if (known?.versions === at) return known.value as Promise<T>;
    const read = async () => {
      // What could not be read is no answer to go on from.
      const before = of.further && known ? await known.value.catch(() => undefined) : undefined;
      return of.further && before !== undefined ? of.further(before as T, ...args) : of.read(...args);
    };
    const value = WATCHED ? watched(of, read) : db.reading.exit(read);
    const entry = { versions: at, value };
    kept.set(key, entry);
    value.catch(() => {
      if (kept.get(key) === entry) kept.delete(key);
    });
    return value;
  };
  const made = Object.assign(ask, { of });
  registered.set(of.name, made as unknown as Derived<readonly unknown[], unknown>);
  return made;
}
const registered = new Map<string, Derived<readonly unknown[], unknown>>();
/** Every derived answer there is, once its subject is loaded. */
export const allDerived = (): ReadonlyMap<string, Derived<readonly unknown[], unknown>> => registered;
