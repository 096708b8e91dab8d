import { cpSync, existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { backupName } from '@/core/keeping';
import { closeDatabase } from '@/server/floor/connection';
import { inData } from '@/server/floor/data-folder';
import { migrationNames } from '@/server/floor/migrate';
import { lastAnswers, stopping, underWay } from '@/server/floor/under-way';
import { health } from '@/server/running/health';
import { keepBackups, runningState } from '@/server/running/keep';
import { UpgradeProblem, pending, rehearse, upgrade } from '@/server/running/upgrade';
import { demoFolder, shell, shellScript } from './folder';

let close: () => Promise<void>;
let keep: string;
beforeAll(async () => {
  ({ close } = await demoFolder());
  keep = mkdtempSync(path.join(tmpdir(), 'jeito-kept-'));
  process.env.JEITO_BACKUPS = keep;
}, 120_000);
afterAll(async () => {
  delete process.env.JEITO_BACKUPS;
  delete process.env.JEITO_MIGRATIONS;
  rmSync(keep, { recursive: true, force: true });
  await close();
});
const archives = (): string[] =>
  readdirSync(keep)
    .filter((n) => n.endsWith('.tar.gz'))
    .sort();

describe('backups the server keeps', () => {
  it('one a day, the first tried by restoring it, once a month; old ones go only when a new one stands', async () => {
    const old = Array.from({ length: 40 }, (_, i) =>
      backupName(new Date(Date.parse('2026-10-23T02:00:00Z') - i * 86_400_000).toISOString()),
    );
    for (const name of old) writeFileSync(path.join(keep, name), 'an archive of then');
    const first = await keepBackups('2026-11-24T02:00:00.000Z');
    expect(first.map((r) => [r.what, r.ok, r.file])).toEqual([
      ['backup', true, 'jeito-20261124-020000.tar.gz'],
      ['trial', true, 'jeito-20261124-020000.tar.gz'],
    ]);
    expect(archives().length).toBeLessThan(12);
    // The last of each month before, and the weeks: the names say which.
    expect(archives()).toContain('jeito-20261023-020000.tar.gz');
    expect(archives()).toContain('jeito-20260930-020000.tar.gz');
    expect(await keepBackups('2026-11-24T20:00:00.000Z')).toEqual([]);
    expect((await keepBackups('2026-11-25T02:00:00.000Z')).map((r) => r.what)).toEqual(['backup']);
    expect(readdirSync(keep).filter((n) => n.startsWith('.'))).toEqual([]);
    const state = runningState('2026-11-25T10:00:00.000Z', 'Europe/Lisbon');
    expect(state).toMatchObject({ backup: { file: 'jeito-20261125-020000.tar.gz' }, trial: { ok: true } });
    expect(state.warnings.filter((w) => w.code !== 'disk-low')).toEqual([]);
  });

  it('an archive that does not restore is said until one does; a folder that cannot be written too', async () => {
    const spoilt = 'jeito-20261201-010000.tar.gz';
    writeFileSync(
      path.join(keep, spoilt),
      readFileSync(path.join(keep, 'jeito-20261125-020000.tar.gz')).subarray(0, 9000),
    );
    const [trial] = await keepBackups('2026-12-01T02:00:00.000Z');
    expect(trial).toMatchObject({ what: 'trial', ok: false, file: spoilt });
    expect(trial?.why).toContain('Nothing was restored');
    expect(await keepBackups('2026-12-01T02:10:00.000Z')).toEqual([]);
    const codes = () => runningState('2026-12-01T03:00:00.000Z', 'Europe/Lisbon').warnings.map((w) => w.code);
    expect(codes()).toContain('trial-failed');
    expect(runningState('2026-12-01T03:00:00.000Z', 'Europe/Lisbon').warnings.map((w) => w.code)).toContain(
      'backup-old',
    );
    rmSync(path.join(keep, spoilt));
    const again = await keepBackups('2026-12-01T02:15:00.000Z');
    expect(again.map((r) => [r.what, r.ok])).toEqual([
      ['backup', true],
      ['trial', true],
    ]);
    expect(codes()).not.toContain('trial-failed');
    expect(codes()).not.toContain('backup-old');
    // A folder that cannot be one: nothing is done, and the server goes on.
    process.env.JEITO_BACKUPS = path.join(keep, 'backups.json', 'x');
    expect(await keepBackups('2026-12-03T02:00:00.000Z')).toEqual([]);
    expect(codes()).toContain('backup-folder');
    process.env.JEITO_BACKUPS = keep;
  });
});

describe('an upgrade', () => {
  const migrations = mkdtempSync(path.join(tmpdir(), 'jeito-migrations-'));
  const whole = async (): Promise<string> =>
    JSON.stringify((await shell('SELECT * FROM migrations UNION ALL SELECT name, sql FROM sqlite_master')).rows) +
    JSON.stringify((await shell('SELECT * FROM landings ORDER BY id')).rows);
  const withMigration = (name: string, sql: string) => {
    rmSync(migrations, { recursive: true, force: true });
    cpSync('src/server/floor/migrations', migrations, { recursive: true });
    writeFileSync(path.join(migrations, name), sql);
    process.env.JEITO_MIGRATIONS = migrations;
  };
  it('is rehearsed on what the backup restores to, and leaves the folder untouched when that fails', async () => {
    const before = await whole();
    withMigration('900_next.sql', 'ALTER TABLE pilots ADD COLUMN x TEXT; INSERT INTO nothing VALUES (1);');
    expect(await pending()).toEqual(['900_next.sql']);
    await expect(rehearse(keep, '2026-12-04T02:00:00.000Z')).rejects.toMatchObject({ at: 'rehearsal' });
    withMigration('900_next.sql', 'CREATE TABLE brand_new (id TEXT PRIMARY KEY);');
    expect(await rehearse(keep, '2026-12-04T03:00:00.000Z')).toMatchObject({ pending: ['900_next.sql'] });
    expect(await whole()).toBe(before);
    expect(archives()).toContain('jeito-20261204-030000.tar.gz');
    expect(readdirSync(keep).filter((n) => n.startsWith('.'))).toEqual([]);
  });

  it.each([
    ['a statement that fails half-way', 'CREATE TABLE brand_new (id TEXT); INSERT INTO nothing VALUES (1);'],
    [
      'rows that are gone',
      'DROP TRIGGER IF EXISTS landings_x; DELETE FROM briefs WHERE rowid IN (SELECT rowid FROM briefs LIMIT 1);',
    ],
    [
      'a reference to nothing',
      "PRAGMA foreign_keys = OFF; INSERT INTO sorties (id, checkout_id, lesson, flown_on, instructor_id, created_at) VALUES ('z', 'nobody', 1, '2026-01-01', 'nobody', '2026-01-01');",
    ],
  ])('%s: rolled back, and yesterday\u2019s release goes on', async (_, sql) => {
    await closeDatabase();
    const before = await whole();
    withMigration('900_next.sql', sql);
    await expect(upgrade()).rejects.toMatchObject({ at: 'rolled-back' });
    expect(await whole()).toBe(before);
    expect(readdirSync(path.dirname(inData('x'))).filter((n) => n.includes('before'))).toEqual([]);
    expect(existsSync(inData('server.lock'))).toBe(false);
    // The release of before opens it and reads.
    delete process.env.JEITO_MIGRATIONS;
    expect(await pending()).toEqual([]);
    expect((await health()).status).toBe('ok');
    await closeDatabase();
  });

  it('that holds is done once; a folder of a newer release is refused', async () => {
    withMigration('900_next.sql', 'CREATE TABLE brand_new (id TEXT PRIMARY KEY);');
    expect(await upgrade()).toEqual(['900_next.sql']);
    expect((await shell('SELECT * FROM brand_new')).error).toBeNull();
    expect(await upgrade()).toEqual([]);
    delete process.env.JEITO_MIGRATIONS;
    await expect(pending()).rejects.toBeInstanceOf(UpgradeProblem);
    await shellScript("DROP TABLE brand_new; DELETE FROM migrations WHERE name = '900_next.sql'");
    expect(await pending()).toEqual([]);
    expect((await health()).schema).toBe(migrationNames().at(-1));
  });
});

describe('a stop', () => {
  it('waits for what was accepted, not for ever, and takes nothing new', async () => {
    let end: (v: string) => void = () => undefined;
    const accepted = underWay(() => new Promise<string>((done) => (end = done)));
    expect(stopping()).toBeNull();
    const waited = lastAnswers(5_000);
    expect(stopping()?.code).toBe('stopping');
    end('answered');
    expect([await accepted, await waited]).toEqual(['answered', true]);
    const hung = underWay(() => new Promise<void>(() => undefined));
    expect(await lastAnswers(50)).toBe(false);
    void hung;
    globalThis.__jeitoUnderWay = undefined;
    expect(await lastAnswers(50)).toBe(true);
    globalThis.__jeitoUnderWay = undefined;
  });
});
