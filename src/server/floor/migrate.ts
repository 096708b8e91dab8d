import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { Umzug, type UmzugStorage } from 'umzug';
import { ensureDataFolder, inData } from './data-folder';

/** Of this release, unless a test brings its own. */
const folder = (): string => process.env.JEITO_MIGRATIONS ?? path.join(process.cwd(), 'src/server/floor/migrations');

/** Every migration of this release, in order. */
export const migrationNames = (): string[] =>
  readdirSync(folder())
    .filter((f) => /^\d{3}_.*\.sql$/.test(f))
    .sort();

/**
 * Brings the database up to date with the numbered SQL files. Each file runs in one transaction on a connection of its
 * own, before the server opens: a migration that fails leaves the file as it was.
 * @param upTo stop after this file (tests of an upgrade)
 */
export async function migrate(upTo?: string): Promise<string[]> {
  ensureDataFolder();
  const db = new sqlite3.Database(inData('jeito.sqlite'));
  const exec = (sql: string) =>
    new Promise<void>((resolve, reject) => db.exec(sql, (e) => (e ? reject(e) : resolve())));
  const all = <T>(sql: string, ...params: unknown[]) =>
    new Promise<T[]>((resolve, reject) => db.all<T>(sql, params, (e, r) => (e ? reject(e) : resolve(r))));
  await exec(
    'PRAGMA journal_mode = WAL; CREATE TABLE IF NOT EXISTS migrations (name TEXT PRIMARY KEY, run_at TEXT NOT NULL);',
  );
  const storage: UmzugStorage = {
    executed: async () => (await all<{ name: string }>('SELECT name FROM migrations ORDER BY name')).map((m) => m.name),
    // Written by the migration itself, in its transaction: a power cut between the two would leave neither name nor way on.
    logMigration: async () => undefined,
    unlogMigration: async () => undefined,
  };
  const files = migrationNames();
  const umzug = new Umzug({
    migrations: files.map((name) => ({
      name,
      up: async () => {
        const sql = readFileSync(path.join(folder(), name), 'utf8');
        try {
          await exec(
            `BEGIN IMMEDIATE;\n${sql}\nINSERT INTO migrations (name, run_at) VALUES ('${name}', '${new Date().toISOString()}');\nCOMMIT;`,
          );
        } catch (error) {
          await exec('ROLLBACK;').catch(() => undefined);
          throw error;
        }
      },
    })),
    storage,
    logger: undefined,
  });
  try {
    const done = await umzug.up(upTo ? { to: upTo } : undefined);
    return done.map((m) => m.name);
  } finally {
    await new Promise((resolve) => db.close(resolve));
  }
}
