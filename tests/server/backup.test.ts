import { execFile } from 'node:child_process';
import { generateKeyPairSync, randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import sqlite3 from 'sqlite3';
import { create, extract } from 'tar';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { recordEvents } from '@/server/fly/commands/capture';
import { row } from '../../scripts/lib/raw';
import { closeDatabase } from '@/server/floor/connection';
import { inData } from '@/server/floor/data-folder';
import { checkLedger, ledgerKeyId } from '@/server/ledger/entries';
import { keyState, readHead } from '@/server/ledger/keys';
import { UNSEEN } from '@/domain/unseen';
import { demoFolder } from './folder';
import { user } from './signed';

const run = promisify(execFile);
const script = async (
  name: string,
  args: string[],
  env: Record<string, string> = {},
): Promise<{ code: number; out: string }> =>
  run(process.execPath, ['node_modules/tsx/dist/cli.mjs', `scripts/${name}.ts`, ...args], {
    env: { ...process.env, ...env },
    encoding: 'utf8',
  }).then(
    (r) => ({ code: 0, out: r.stdout }),
    (e: { code: number; stdout: string; stderr: string }) => ({ code: e.code, out: `${e.stdout}${e.stderr}` }),
  );
const all = (file: string, sql: string): Promise<Record<string, unknown>[]> =>
  new Promise((resolve, reject) => {
    const db = new sqlite3.Database(file);
    db.all<Record<string, unknown>>(sql, (error, rows) => db.close(() => (error ? reject(error) : resolve(rows))));
  });
const tables = async (file: string): Promise<string[]> =>
  (
    await all(file, "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name")
  ).map((t) => String(t.name));
/** Every row of every table, as text, sorted. */
const everything = async (file: string): Promise<Record<string, string[]>> =>
  Object.fromEntries(
    await Promise.all(
      (await tables(file)).map(async (t): Promise<[string, string[]]> => [
        t,
        (await all(file, `SELECT * FROM "${t}"`)).map((r) => JSON.stringify(r)).sort(),
      ]),
    ),
  );

let close: () => Promise<void>;
let out: string;
beforeAll(async () => {
  ({ close } = await demoFolder());
  out = mkdtempSync(path.join(tmpdir(), 'jeito-backup-'));
}, 120_000);
afterAll(async () => {
  await close();
  rmSync(out, { recursive: true, force: true });
});

const SIGNATURE = 'manifest.sig.json';
/** A change behind a guard, which stands again afterwards. */
async function past(file: string, guard: string, sql: string): Promise<void> {
  const [made] = (await all(file, `SELECT sql FROM sqlite_master WHERE name = '${guard}'`)) as { sql: string }[];
  await all(file, `DROP TRIGGER ${guard}`);
  await all(file, sql);
  await all(file, made?.sql ?? '');
}

describe('backup and restore', () => {
  it('under write load: whole, checked, and every row as it was', async () => {
    const helena = await user('helena');
    const sortie =
      (
        await row<{ id: string }>(
          "SELECT s.id FROM sorties s JOIN checkouts c ON c.id = s.checkout_id WHERE c.pilot_id = 'pilot-duarte' ORDER BY s.lesson DESC",
        )
      )?.id ?? '';
    const deviceId = randomUUID();
    let sent = 0;
    let stop = false;
    const load = (async () => {
      while (!stop) {
        sent++;
        const answer = await recordEvents(helena, [
          {
            eventId: randomUUID(),
            deviceId,
            deviceSeq: sent,
            sortieId: sortie,
            subjectId: randomUUID(),
            author: helena.id,
            type: 'landing-saved',
            v: 1,
            deviceTime: new Date(Date.parse('2026-11-24T10:00:00Z') + sent * 1000).toISOString(),
            payload: { ...UNSEEN, kind: 'full-stop', runwayEnd: '22' },
          },
        ]);
        expect(answer.refused).toEqual([]);
      }
    })();
    const archive = path.join(out, 'under-load.tar.gz');
    const made = await script('backup', ['--out', archive]);
    stop = true;
    await load;
    expect(made).toMatchObject({ code: 0, out: expect.stringContaining('entries of the ledger') });
    expect(sent).toBeGreaterThan(3);
    const to = path.join(out, 'restored');
    const done = await script('restore', [archive, '--to', to]);
    expect(done).toMatchObject({
      code: 0,
      out: expect.stringContaining('6 entries of the ledger by chain, signature and head'),
    });
    // What was written after the copy began is not in it; everything in it is as it is here.
    const here = await everything(inData('jeito.sqlite'));
    const there = await everything(path.join(to, 'jeito.sqlite'));
    const derived = new Set([
      ...['landings', 'stage_tallies', 'stage_medians', 'side_tallies', 'table_versions'],
      ...['changes', 'change_book'],
    ]);
    for (const [name, found] of Object.entries(there)) {
      if (derived.has(name)) continue;
      const known = new Set(here[name]);
      expect(
        found.filter((r) => !known.has(r)),
        name,
      ).toEqual([]);
      if (name !== 'capture_events') expect(found.length, name).toBe(here[name]?.length);
    }
    const copied = (there.capture_events ?? [])
      .filter((r) => r.includes(deviceId))
      .map((r) => (JSON.parse(r) as { device_seq: number }).device_seq)
      .sort((a, b) => a - b);
    expect(copied).toEqual(Array.from({ length: copied.length }, (_, i) => i + 1));
    expect(readdirSync(path.join(to, 'traces')).sort()).toEqual(
      readdirSync(inData('traces'))
        .filter((f) => f.endsWith('.gz'))
        .sort(),
    );
    expect(existsSync(path.join(to, 'keys', 'ledger-private.pem'))).toBe(false);
    expect(existsSync(path.join(to, 'keys', 'session.key'))).toBe(false);
  }, 60_000);
  it('at rest: every row of every table is the same', async () => {
    const archive = path.join(out, 'at-rest.tar.gz');
    expect((await script('backup', ['--out', archive])).code).toBe(0);
    expect((await script('backup', ['--out', archive])).out).toContain('never overwrites');
    expect(statSync(archive).mode & 0o077).toBe(0);
    const back = await script('restore', [archive, '--to', path.join(out, 'rest')]);
    expect([back.code, back.out]).toEqual([
      0,
      expect.stringMatching(/Not proven: The archive is signed with key [0-9a-f]{16}/),
    ]);
    // But for the name of the book of changes: who keeps a copy by it reads everything again.
    const { change_book: book, ...rest } = await everything(path.join(out, 'rest', 'jeito.sqlite'));
    const { change_book: ours, ...here } = await everything(inData('jeito.sqlite'));
    expect(rest).toEqual(here);
    expect([book?.length, ours?.length, book?.[0] === ours?.[0]]).toEqual([1, 1, false]);
    expect((await script('restore', [archive, '--to', path.join(out, 'rest')])).out).toContain('is not empty');
  }, 60_000);
  it.each<[string, (folder: string) => void | Promise<void>, RegExp]>([
    [
      'a byte of the database',
      (f) => {
        const file = path.join(f, 'jeito.sqlite');
        const bytes = readFileSync(file);
        bytes[bytes.length - 900] = (bytes[bytes.length - 900] ?? 0) ^ 1;
        writeFileSync(file, bytes);
      },
      /its hash differs/,
    ],
    [
      'a trace taken out',
      (f) => {
        rmSync(path.join(f, 'traces', readdirSync(path.join(f, 'traces'))[0] ?? ''));
      },
      /is missing from the archive/,
    ],
    [
      'a file put in',
      (f) => writeFileSync(path.join(f, 'keys', 'ledger-0123456789abcdef.pub.pem'), 'x'),
      /is not in the manifest/,
    ],
    ['another name', (f) => writeFileSync(path.join(f, 'evil.sh'), 'x'), /holds evil\.sh/],
    [
      'an entry changed, with the manifest adjusted',
      async (f) => {
        const file = path.join(f, 'jeito.sqlite');
        await past(
          file,
          'ledger_fixed',
          "UPDATE ledger SET canonical = replace(canonical, 'Sara', 'Sira') WHERE seq = 3",
        );
        await putRight(f, 'jeito.sqlite');
        rmSync(path.join(f, SIGNATURE));
      },
      /The ledger does not verify\. Entry 3/,
    ],
    [
      'the tail of the ledger cut, with the manifest adjusted',
      async (f) => {
        const file = path.join(f, 'jeito.sqlite');
        await past(file, 'ledger_kept', 'DELETE FROM ledger WHERE seq = 6');
        await putRight(f, 'jeito.sqlite', { ledger: 5 });
        rmSync(path.join(f, SIGNATURE));
      },
      /The ledger does not verify\. Entry 6/,
    ],
    [
      'a manifest changed under its signature',
      (f) => putRight(f, 'jeito.sqlite', { ledger: 5 }),
      /changed after it was signed/,
    ],
    [
      'a trigger of somebody else',
      async (f) => {
        await all(
          path.join(f, 'jeito.sqlite'),
          'CREATE TRIGGER helper AFTER INSERT ON landings BEGIN DELETE FROM notices; END',
        );
        await putRight(f, 'jeito.sqlite');
        rmSync(path.join(f, SIGNATURE));
      },
      /trigger helper of the database is not as this application makes it/,
    ],
    [
      'a guard taken out',
      async (f) => {
        await all(path.join(f, 'jeito.sqlite'), 'DROP TRIGGER capture_events_fixed');
        await putRight(f, 'jeito.sqlite');
        rmSync(path.join(f, SIGNATURE));
      },
      /trigger capture_events_fixed of the database is not as this application makes it/,
    ],
  ])(
    'refuses %s and puts nothing in place',
    async (_, spoil, said) => {
      const work = mkdtempSync(path.join(out, 'spoil-'));
      await extract({ file: path.join(out, 'at-rest.tar.gz'), cwd: work });
      await spoil(work);
      const archive = path.join(out, `${path.basename(work)}.tar.gz`);
      const names = [
        'manifest.json',
        ...readdirSync(work)
          .filter((n) => n !== 'manifest.json')
          .flatMap((n) =>
            statSync(path.join(work, n)).isDirectory() ? readdirSync(path.join(work, n)).map((m) => `${n}/${m}`) : [n],
          ),
      ];
      await create({ gzip: true, cwd: work, file: archive }, names);
      const to = path.join(out, `${path.basename(work)}-to`);
      const done = await script('restore', [archive, '--to', to]);
      expect(done.code).toBe(1);
      expect(done.out).toMatch(said);
      expect(done.out).toContain('Nothing was restored');
      expect(existsSync(to)).toBe(false);
    },
    30_000,
  );
  it('the key leaves under a passphrase, and only from a folder that is one', async () => {
    const key = path.join(out, 'key.pem');
    const other = path.join(out, 'none.pem');
    expect((await script('keys', ['export', '--out', key], { JEITO_KEY_PASSPHRASE: 'short' })).out).toContain(
      'at least twelve',
    );
    expect(
      (await script('keys', ['export', '--out', key], { JEITO_KEY_PASSPHRASE: 'mar alto e vento fresco' })).code,
    ).toBe(0);
    expect(readFileSync(key, 'utf8')).toContain('ENCRYPTED PRIVATE KEY');
    expect(statSync(key).mode & 0o077).toBe(0);
    const elsewhere = mkdtempSync(path.join(tmpdir(), 'jeito-else-'));
    // A folder that is none is refused, and stays none.
    const none = { JEITO_DATA: path.join(elsewhere, 'fresh'), JEITO_KEY_PASSPHRASE: 'mar alto e vento fresco' };
    for (const args of [['show'], ['export', '--out', other]]) expect((await script('keys', args, none)).code).toBe(2);
    expect(existsSync(none.JEITO_DATA)).toBe(false);
    rmSync(elsewhere, { recursive: true, force: true });
  });
  it('a restored folder signs only when its own key is back, and then the ledger goes on', async () => {
    const before = process.env.JEITO_DATA;
    const key = path.join(out, 'key.pem');
    const to = path.join(out, 'rest');
    const other = path.join(out, 'other-key.pem');
    writeFileSync(
      other,
      generateKeyPairSync('ed25519').privateKey.export({
        type: 'pkcs8',
        format: 'pem',
        cipher: 'aes-256-cbc',
        passphrase: 'mar alto e vento fresco',
      }),
    );
    await closeDatabase();
    process.env.JEITO_DATA = to;
    try {
      expect(keyState(await ledgerKeyId())).toBe('missing');
      expect(
        (await script('keys', ['import', other], { JEITO_KEY_PASSPHRASE: 'mar alto e vento fresco' })).out,
      ).toContain('the ledger is signed with');
      expect((await script('keys', ['import', key], { JEITO_KEY_PASSPHRASE: 'mar alto e vento fraco' })).code).toBe(1);
      expect(
        (await script('keys', ['import', key], { JEITO_KEY_PASSPHRASE: 'mar alto e vento fresco' })).out,
      ).toContain('is back');
      expect(keyState(await ledgerKeyId())).toBe('ready');
      expect(
        (await script('keys', ['rotate', '--by', 'helena@pedra-alva.example', '--reason', 'the machine is replaced']))
          .out,
      ).toContain('The chief instructor changes the key');
      expect(
        (await script('keys', ['rotate', '--by', 'bento@pedra-alva.example', '--reason', 'the machine is replaced']))
          .out,
      ).toContain('goes from key');
      expect(await checkLedger()).toMatchObject({ entries: 7, problems: [] });
      expect(readHead()?.count).toBe(7);
      expect(statSync(inData('keys', 'ledger-private.pem')).mode & 0o077).toBe(0);
    } finally {
      await closeDatabase();
      process.env.JEITO_DATA = before;
    }
  }, 60_000);
});

/**
 * Writes the hash of a changed file, and its rows, back into the manifest: as somebody would who knows how it is made.
 */
async function putRight(folder: string, name: string, rows: Record<string, number> = {}): Promise<void> {
  const { createHash } = await import('node:crypto');
  const file = path.join(folder, 'manifest.json');
  const manifest = JSON.parse(readFileSync(file, 'utf8')) as {
    files: { name: string; bytes: number; sha256: string }[];
    tables: Record<string, number>;
  };
  const bytes = readFileSync(path.join(folder, name));
  writeFileSync(
    file,
    JSON.stringify({
      ...manifest,
      tables: { ...manifest.tables, ...rows },
      files: manifest.files.map((f) =>
        f.name === name ? { name, bytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') } : f,
      ),
    }),
  );
}
