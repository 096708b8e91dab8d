import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { aggregatesSettled } from '@/server/checkout/commands/tallies';
import { closeDatabase } from '@/server/floor/connection';
import { migrate } from '@/server/floor/migrate';
import { seedFolder } from '../../scripts/lib/server';
import { inData } from '@/server/floor/data-folder';
import { userById } from '@/server/floor/auth/session-user';
import type { CurrentUser } from '@/server/floor/auth/permissions';

/** A data folder of its own for one test file; `close` takes it away. */
export async function freshFolder({ migrated = true } = {}): Promise<{ close: () => Promise<void> }> {
  const folder = mkdtempSync(path.join(tmpdir(), 'jeito-test-'));
  process.env.JEITO_DATA = folder;
  process.env.JEITO_NOW = '2026-11-24T14:30:00.000Z';
  if (migrated) await migrate();
  return {
    close: async () => {
      await aggregatesSettled();
      await closeDatabase();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

const WAIT_MS = 150;
/** A data folder with the demo in it: seeded once a run, copied for each test file. */
export async function demoFolder(): Promise<{ close: () => Promise<void> }> {
  const cache = process.env.JEITO_SEED_CACHE ?? mkdtempSync(path.join(tmpdir(), 'jeito-seed-'));
  const seeded = path.join(cache, 'demo');
  const done = path.join(cache, 'done');
  let mine = false;
  try {
    mkdirSync(path.join(cache, 'lock'));
    mine = true;
  } catch {
    /* another file seeds, or has seeded */
  }
  if (mine) {
    // A seed that fails is said to everybody who waits for it.
    try {
      seedFolder(seeded);
      writeFileSync(done, '');
    } catch (e) {
      writeFileSync(done, String(e));
      throw e;
    }
  }
  while (!existsSync(done)) await new Promise((r) => setTimeout(r, WAIT_MS));
  const failed = readFileSync(done, 'utf8');
  if (failed !== '') throw new Error(`the demo was not seeded: ${failed}`);
  const opened = await freshFolder({ migrated: false });
  cpSync(seeded, process.env.JEITO_DATA ?? '', { recursive: true });
  rmSync(inData('server.lock'), { force: true });
  return opened;
}

/** The answer of a command that must have gone through; one that has not fails the test with what it said. */
export function done<A extends { ok: boolean }>(answer: A): Extract<A, { ok: true }> {
  if (!answer.ok) throw new Error(`refused: ${JSON.stringify(answer)}`);
  return answer as Extract<A, { ok: true }>;
}

/** A second hand on the file waits for the first, as every client of this database does. */
function opened(): sqlite3.Database {
  const db = new sqlite3.Database(inData('jeito.sqlite'));
  db.configure('busyTimeout', 10_000);
  return db;
}

/** Speaks to the file as somebody with a database shell would: past every door of the application. */
export function shell(sql: string): Promise<{ error: string | null; rows: Record<string, unknown>[] }> {
  return new Promise((resolve) => {
    const db = opened();
    db.all<Record<string, unknown>>(sql, (error, rows) =>
      db.close(() => resolve({ error: error?.message ?? null, rows: rows ?? [] })),
    );
  });
}
/** Several statements; throws on the first that fails. */
export function shellScript(sql: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const db = opened();
    db.exec(sql, (error) => db.close(() => (error ? reject(error) : resolve())));
  });
}

/** Somebody of the demo, signed in as the server would take them. */
export async function user(key: string): Promise<CurrentUser> {
  const found = await userById(`user-${key}`);
  if (!found) throw new Error(`nobody called ${key} in the demo`);
  return found;
}
