import { AsyncLocalStorage } from 'node:async_hooks';
import { Sequelize, type Transaction } from 'sequelize';
import sqlite3 from 'sqlite3';
import { ensureDataFolder, inData } from './data-folder';

type Answer = (error: Error | null, rows: unknown[]) => void;
/** Sequelize opens one connection per transaction; every one of them gets the pragmas here. */
class PragmaDatabase extends sqlite3.Database {
  constructor(file: string, mode: number, done?: (error: Error | null) => void) {
    super(file, mode, done);
    this.configure('busyTimeout', 5000);
    // Deleted content is overwritten with zeros: what may be erased is gone from the file, too.
    this.exec(
      'PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON; PRAGMA secure_delete = ON;',
    );
  }

  override all(sql: string, ...rest: unknown[]): this {
    const answer = rest.at(-1);
    if (KINDS.test(sql) && typeof answer === 'function') {
      (answer as Answer)(null, []);
      return this;
    }
    return super.all(sql, ...(rest as [Answer]));
  }
}

interface Shared {
  sequelize: Sequelize;
  /** The write that is under way here, and the tables it has written. */
  writing: AsyncLocalStorage<{ transaction: Transaction; tables: Set<string> }>;
  /** What is being read for an answer that is kept (`derived`): the tables and views it asks. */
  reading: AsyncLocalStorage<Set<string>>;
  tail: Promise<unknown>;
  /** How often each table was written, as last asked, and when that was. */
  versions: { of: Promise<ReadonlyMap<string, number>>; asked: number } | null;
}
declare global {
  var __jeitoDb: { file: string; shared: Shared } | undefined;
}

const WRITES = /^\s*(INSERT|UPDATE|DELETE|REPLACE|CREATE|DROP|ALTER)\b/i;
const WRITTEN =
  /^\s*(?:INSERT(?:\s+OR\s+\w+)?\s+INTO|REPLACE\s+INTO|UPDATE(?:\s+OR\s+\w+)?|DELETE\s+FROM)\s+[`"]?(\w+)/i;
const ASKED = /\b(?:FROM|JOIN)\s+[`"]?(\w+)/gi;

/**
 * Before every read of a model Sequelize asks for the kinds of its columns, to make dates of those that are; there are
 * none here, so the answer is: nothing known. It would cost each read a way there and back.
 */
const KINDS = /^PRAGMA table_info\(`\w+`\)$/;

/** What the database refused, without the statement and the values in it: they are about people, and errors are logged. */
function withoutText(error: unknown): Error {
  const of = error as {
    message?: string;
    name?: string;
    original?: { code?: string; message?: string };
    stack?: string;
  };
  const plain = new Error(of.original?.message ?? of.message ?? 'the database refused');
  plain.name = of.name ?? 'DatabaseError';
  return Object.assign(plain, { code: of.original?.code });
}

/**
 * The database of this process. It lives on globalThis: instrumentation, routes and pages each load their own copy of a
 * module. A write outside `write()` throws, and so does any query inside it that does not carry its transaction.
 */
export function database(): Shared {
  const file = inData('jeito.sqlite');
  if (globalThis.__jeitoDb?.file === file) return globalThis.__jeitoDb.shared;
  ensureDataFolder();
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: file,
    logging: false,
    dialectModule: { ...sqlite3, Database: PragmaDatabase },
  });
  const writing: Shared['writing'] = new AsyncLocalStorage();
  const reading: Shared['reading'] = new AsyncLocalStorage();
  const plainQuery = sequelize.query.bind(sequelize) as (
    sql: unknown,
    options?: { transaction?: Transaction | null },
  ) => Promise<unknown>;
  const guarded = (sql: unknown, options?: { transaction?: Transaction | null }) => {
    const active = writing.getStore();
    const text = typeof sql === 'string' ? sql : ((sql as { query?: string }).query ?? '');
    if (active && options?.transaction !== active.transaction)
      return Promise.reject(new Error(`A query inside write() does not carry its transaction: ${text.slice(0, 80)}`));
    if (!active && WRITES.test(text)) return Promise.reject(new Error(`A write outside write(): ${text.slice(0, 80)}`));
    const written = active && WRITTEN.exec(text)?.[1];
    if (written) active.tables.add(written);
    const asks = reading.getStore();
    if (asks) for (const [, name] of text.matchAll(ASKED)) asks.add(name ?? '');
    return plainQuery(sql, options).catch((error: unknown) => Promise.reject(withoutText(error)));
  };
  sequelize.query = guarded as unknown as typeof sequelize.query;
  const shared: Shared = { sequelize, writing, reading, tail: Promise.resolve(), versions: null };
  globalThis.__jeitoDb = { file, shared };
  return shared;
}

/** When every write that was asked for has ended. */
export async function writesDone(): Promise<void> {
  const { tail } = database();
  await tail;
  if (database().tail !== tail) await writesDone();
}

/** Closes the connection; the next call opens it again. For command-line tools and tests. */
export async function closeDatabase(): Promise<void> {
  const open = globalThis.__jeitoDb;
  globalThis.__jeitoDb = undefined;
  if (open) await open.shared.sequelize.close();
}
