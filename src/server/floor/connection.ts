import { AsyncLocalStorage } from 'node:async_hooks';
import { QueryTypes, Sequelize, type Transaction } from 'sequelize';
import sqlite3 from 'sqlite3';
import { ensureDataFolder, inData } from './data-folder';

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
}

interface Shared {
  sequelize: Sequelize;
  writing: AsyncLocalStorage<Transaction>;
  tail: Promise<unknown>;
  /** Writes this process has made: while it stands, nothing read before has changed. */
  writes: number;
}
declare global {
  var __jeitoDb: { file: string; shared: Shared } | undefined;
}

const WRITES = /^\s*(INSERT|UPDATE|DELETE|REPLACE|CREATE|DROP|ALTER)\b/i;

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
  ensureDataFolder();
  const file = inData('jeito.sqlite');
  if (globalThis.__jeitoDb?.file === file) return globalThis.__jeitoDb.shared;
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: file,
    logging: false,
    dialectModule: { ...sqlite3, Database: PragmaDatabase },
  });
  const writing = new AsyncLocalStorage<Transaction>();
  const plainQuery = sequelize.query.bind(sequelize) as (
    sql: unknown,
    options?: { transaction?: Transaction | null },
  ) => Promise<unknown>;
  const guarded = (sql: unknown, options?: { transaction?: Transaction | null }) => {
    const active = writing.getStore();
    const text = typeof sql === 'string' ? sql : ((sql as { query?: string }).query ?? '');
    if (active && options?.transaction !== active)
      return Promise.reject(new Error(`A query inside write() does not carry its transaction: ${text.slice(0, 80)}`));
    if (!active && WRITES.test(text)) return Promise.reject(new Error(`A write outside write(): ${text.slice(0, 80)}`));
    return plainQuery(sql, options).catch((error: unknown) => Promise.reject(withoutText(error)));
  };
  sequelize.query = guarded as unknown as typeof sequelize.query;
  const shared: Shared = { sequelize, writing, tail: Promise.resolve(), writes: 0 };
  globalThis.__jeitoDb = { file, shared };
  return shared;
}

/** Rows of a raw SELECT. `t` is needed inside `write()`. */
export async function rows<T extends object>(
  sql: string,
  replacements: Record<string, unknown> = {},
  t?: Transaction,
): Promise<T[]> {
  return database().sequelize.query<T>(sql, { type: QueryTypes.SELECT, replacements, transaction: t ?? null });
}

export async function row<T extends object>(
  sql: string,
  replacements: Record<string, unknown> = {},
  t?: Transaction,
): Promise<T | null> {
  return (await rows<T>(sql, replacements, t))[0] ?? null;
}

/** Closes the connection; the next call opens it again. For command-line tools and tests. */
export async function closeDatabase(): Promise<void> {
  const open = globalThis.__jeitoDb;
  globalThis.__jeitoDb = undefined;
  if (open) await open.shared.sequelize.close();
}
