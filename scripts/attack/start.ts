import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  rmSync,
  truncateSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { generateKeyPairSync, randomUUID } from 'node:crypto';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { ledgerDoubts } from '@/core/ledger';
import { backup, restore } from '@/server/running/backup';
import { closeDatabase } from '@/server/floor/connection';
import { write } from '@/server/floor/write';
import { appendEntry, checkLedger, ledgerKeyId, ledgerRows } from '@/server/ledger/entries';
import { keyState } from '@/server/ledger/keys';
import { startServer } from '../lib/server';
import { type Attack, type World, ask, copyOf, mustHold, serverPid, signIn } from './world';

interface Started {
  code: number | null;
  said: string;
}
/** Starts the built server on a folder and waits until it answers or ends. */
function tryStart(folder: string, env: Record<string, string> = {}): Promise<Started> {
  return new Promise((resolve) => {
    const port = 20_000 + Math.floor(process.hrtime()[1] % 20_000);
    const child: ChildProcess = spawn(
      process.execPath,
      ['node_modules/next/dist/bin/next', 'start', '-p', String(port)],
      {
        env: { ...process.env, JEITO_DATA: folder, JEITO_NOW: '2026-11-24T14:30:00.000Z', JEITO_LOG: 'warn', ...env },
        stdio: ['ignore', 'pipe', 'pipe'],
      },
    );
    let text = '';
    child.stdout?.on('data', (d) => (text += String(d)));
    child.stderr?.on('data', (d) => (text += String(d)));
    let over = false;
    child.on('close', (code) => {
      over = true;
      resolve({ code, said: text });
    });
    void (async () => {
      for (let i = 0; i < 150 && !over; i++) {
        const up = await fetch(`http://localhost:${port}/sign-in`).then(
          (r) => r.ok,
          () => false,
        );
        if (up) return void child.kill('SIGTERM');
        await new Promise((r) => setTimeout(r, 200));
      }
      child.kill('SIGKILL');
    })();
  });
}
const shell = (file: string, sql: string): Promise<string> =>
  new Promise((resolve) => {
    const db = new sqlite3.Database(file);
    db.exec(sql, (error) => db.close(() => resolve(error ? error.message : 'done')));
  });
const inFolder = async <T>(folder: string, work: () => Promise<T>): Promise<T> => {
  const before = process.env.JEITO_DATA;
  process.env.JEITO_DATA = folder;
  await closeDatabase();
  try {
    return await work();
  } finally {
    await closeDatabase();
    if (before === undefined) delete process.env.JEITO_DATA;
    else process.env.JEITO_DATA = before;
  }
};

/** 3, 8, 16, 17, 18: folders, keys, clocks and commands. */
export function startAttacks(world: World): Attack[] {
  const { seeded } = world;
  const privateKey = (folder: string) => path.join(folder, 'keys', 'ledger-private.pem');
  return [
    {
      no: '3',
      name: 'a key that is missing, and a stranger\u2019s',
      run: async () => {
        const none = copyOf(seeded, 'no-key');
        for (const f of readdirSync(path.join(none, 'keys'))) rmSync(path.join(none, 'keys', f));
        const other = copyOf(seeded, 'other-key');
        writeFileSync(
          privateKey(other),
          generateKeyPairSync('ed25519').privateKey.export({ type: 'pkcs8', format: 'pem' }),
        );
        const first = await tryStart(none);
        mustHold(
          first.code === 0 || first.code === 143 || first.code === null,
          `ended with ${first.code}: ${first.said}`,
        );
        mustHold(!existsSync(privateKey(none)), 'a new key was made in silence');
        mustHold(/is not on this server/.test(first.said), 'the start says nothing of the missing key');
        const second = await tryStart(other);
        mustHold(
          /is not the one this ledger is signed with/.test(second.said),
          'the start says nothing of the other key',
        );
        for (const [folder, state] of [
          [none, 'missing'],
          [other, 'other'],
        ] as const)
          await inFolder(folder, async () => {
            mustHold(keyState(await ledgerKeyId()) === state, `state ${keyState(await ledgerKeyId())}`);
            const entry = {
              id: randomUUID(),
              kind: 'correction',
              checkoutId: '',
              signedAt: '',
              signerId: '',
              body: {},
            };
            const done = await write((t) => appendEntry(entry, t)).then(
              () => 'signed',
              () => 'refused',
            );
            mustHold(done === 'refused', `signed with a key that is ${state}`);
          });
        return 'no key made, both said at the start with what to do, nothing signed';
      },
    },
    {
      no: '8',
      name: 'folders a server must not serve',
      run: async () => {
        const bad: [string, (folder: string) => void | Promise<void>, RegExp][] = [
          ['cut', (f) => truncateSync(path.join(f, 'jeito.sqlite'), 40_000), /database .* is damaged/],
          [
            'not-sqlite',
            (f) => writeFileSync(path.join(f, 'jeito.sqlite'), 'x'.repeat(9000)),
            /database .* is damaged/,
          ],
          [
            'emptied',
            (f) => ['', '-wal', '-shm'].forEach((s) => rmSync(path.join(f, `jeito.sqlite${s}`), { force: true })),
            /has 0 entries and its signed head counts 6/,
          ],
          [
            'tail-cut',
            async (f) =>
              void (await shell(
                path.join(f, 'jeito.sqlite'),
                'DROP TRIGGER ledger_kept; DELETE FROM ledger WHERE seq = 6;',
              )),
            /has 5 entries and its signed head counts 6/,
          ],
          [
            'head-spoiled',
            (f) => writeFileSync(path.join(f, 'ledger-head.json'), '{'),
            /signed head .* cannot be read/,
          ],
        ];
        for (const [name, spoil, says] of bad) {
          const folder = copyOf(seeded, name);
          await spoil(folder);
          const { code, said } = await tryStart(folder);
          mustHold(code === 3, `${name}: ended with ${code}: ${said.slice(-300)}`);
          const line = said.split('\n').find((l) => l.startsWith('Not started.')) ?? '';
          mustHold(says.test(line) && /restore|Bring it back/i.test(line), `${name}: ${line || said.slice(-200)}`);
        }
        const file = path.join(path.dirname(seeded), 'a-file');
        writeFileSync(file, '');
        const blocked = await tryStart(path.join(file, 'data'));
        mustHold(blocked.code === 3 && /cannot be written/.test(blocked.said), `a file in the way: ${blocked.said}`);
        const disk = await fullDisk(seeded);
        return `${bad.length + 1} folders refused with one sentence and code 3; ${disk}`;
      },
    },
    {
      no: '8',
      name: 'locks of the living and the dead',
      run: async () => {
        const folder = copyOf(seeded, 'locked');
        const lock = path.join(folder, 'server.lock');
        for (const [what, text] of [
          ['a number that a stranger\u2019s process has now', `${process.ppid}\nanother-boot 12345\n`],
          ['a lock of an earlier release', String(process.ppid)],
          ['a number nobody has', '4000000\n\n'],
          ['no number', 'hello'],
        ] as const) {
          writeFileSync(lock, text);
          if (what.startsWith('a lock of an earlier')) utimesSync(lock, 1_500_000_000, 1_500_000_000);
          const { code, said } = await tryStart(folder);
          mustHold(!/Not started|in use/.test(said), `${what}: ${code} ${said.slice(-200)}`);
        }
        const second = await tryStart(world.folder);
        mustHold(second.code === 4 && /in use by process/.test(second.said), `a second server: ${second.said}`);
        const three = await Promise.all([tryStart(folder), tryStart(folder), tryStart(folder)]);
        const refused = three.filter((t) => t.code === 4).length;
        mustHold(refused === 2, `${refused} of three refused`);
        return '4 dead locks pass, a living one refuses; of three at once one starts';
      },
    },
    {
      no: '16',
      name: 'an archive with something in it',
      run: async () => {
        const folder = copyOf(seeded, 'to-back-up');
        await shell(
          path.join(folder, 'jeito.sqlite'),
          'CREATE TRIGGER helper AFTER INSERT ON landings BEGIN DELETE FROM notices; END;',
        );
        const archive = path.join(path.dirname(seeded), 'spoiled.tar.gz');
        const to = path.join(path.dirname(seeded), 'restored');
        const answer = await inFolder(folder, async () => {
          await backup(archive, '2026-11-24T14:30:00.000Z');
          return restore(archive, to).then(
            () => 'restored',
            (e: Error) => e.message,
          );
        });
        mustHold(/trigger helper/.test(answer) && !existsSync(to), answer);
        return 'a trigger of somebody else refuses the restore; signature, schema and what is not proven in the tests';
      },
    },
    {
      no: '17',
      name: 'a clock set back',
      run: async () => {
        const folder = copyOf(seeded, 'clock');
        return inFolder(folder, async () => {
          const last = (await ledgerRows()).at(-1);
          mustHold(last, 'the ledger is empty');
          await write((t) =>
            appendEntry(
              {
                ...{ id: randomUUID(), kind: 'correction', checkoutId: last.checkoutId, signerId: last.signerId },
                ...{ signedAt: '2020-01-01T10:00:00.000Z', body: { text: 'x' } },
              },
              t,
            ),
          );
          const book = await checkLedger();
          const entry = (await ledgerRows()).at(-1);
          mustHold(entry?.canonical.includes('"clockDoubt"'), 'the entry does not say so');
          mustHold(book.doubts.length === 1 && ledgerDoubts(await ledgerRows()).length === 1, 'verify does not say so');
          return 'the entry carries the doubt, and verify names it';
        });
      },
    },
    {
      no: '18',
      name: 'commands that only look',
      run: () => {
        const run = (args: string[], data: string) =>
          spawnSync(process.execPath, args, {
            env: { ...process.env, JEITO_DATA: data, JEITO_KEY_PASSPHRASE: 'mar alto e vento fresco' },
            encoding: 'utf8',
            timeout: 60_000,
          });
        const none = path.join(path.dirname(seeded), 'none');
        const tsx = 'node_modules/tsx/dist/cli.mjs';
        for (const args of [
          ['scripts/keys.ts', 'show'],
          ['scripts/keys.ts', 'export', '--out', path.join(path.dirname(seeded), 'k.pem')],
          ['scripts/verify-ledger.ts'],
          ['scripts/rebuild-landings.ts'],
          ['scripts/backup.ts'],
        ]) {
          const { status } = run([tsx, ...args], none);
          mustHold(status === 2, `${args.join(' ')} ends with ${status}`);
        }
        mustHold(!existsSync(none), 'a folder was made');
        mkdirSync(none);
        const scripts = readdirSync('scripts').filter((f) => /\.(ts|mjs)$/.test(f));
        // Each starts by taking in one module that answers and ends; two are run to see that it does.
        for (const f of scripts) {
          const text = readFileSync(path.join('scripts', f), 'utf8');
          const at = text.search(/^import /m);
          mustHold(text.slice(at).startsWith("import './lib/help.mjs'"), `${f} may run when asked for help`);
        }
        for (const [tool, f] of [
          [tsx, 'scripts/seed.ts'],
          [tsx, 'scripts/restore.ts'],
        ] as const) {
          const { status, stdout } = run([tool, f, '--help'], none);
          mustHold(status === 0 && stdout.length > 40, `${f} --help: ${status}`);
        }
        mustHold(readdirSync(none).length === 0, `asking for help made ${readdirSync(none).join(', ')}`);
        const dead = copyOf(seeded, 'parts');
        mkdirSync(path.join(dead, 'traces'), { recursive: true });
        writeFileSync(path.join(dead, 'traces', 'a.gz.1.part'), 'x');
        return tryStart(dead).then(() => {
          mustHold(!existsSync(path.join(dead, 'traces', 'a.gz.1.part')), 'a part of a file stays for ever');
          return `5 commands refuse a folder that is none, ${scripts.length} scripts answer --help without running, parts are cleared`;
        });
      },
    },
    {
      no: 'held',
      name: 'SQL on the ledger',
      run: async () => {
        const file = path.join(copyOf(seeded, 'sql'), 'jeito.sqlite');
        const columns =
          'seq, id, kind, checkout_id, signed_at, signer_id, canonical, prev_hash, hash, signature, key_id';
        const tries = [
          "UPDATE ledger SET signer_id = 'x'",
          'UPDATE ledger SET seq = seq + 100',
          'UPDATE OR REPLACE ledger SET seq = 1 WHERE seq = 2',
          'UPDATE ledger SET canonical = canonical WHERE seq = 1',
          'DELETE FROM ledger',
          'DELETE FROM ledger WHERE seq = 6',
          `REPLACE INTO ledger SELECT ${columns} FROM ledger WHERE seq = 1`,
          `INSERT OR REPLACE INTO ledger SELECT ${columns.replace('seq,', '3 AS seq,')} FROM ledger WHERE seq = 1`,
          `INSERT INTO ledger SELECT ${columns.replace('seq,', '9 AS seq,')} FROM ledger WHERE seq = 1`,
          `INSERT INTO ledger SELECT ${columns.replace('seq,', '7 AS seq,')} FROM ledger WHERE seq = 1`,
          `INSERT INTO ledger SELECT ${columns.replace('seq, id,', "7 AS seq, 'new' AS id,")} FROM ledger WHERE seq = 1`,
          `INSERT OR IGNORE INTO ledger SELECT ${columns.replace('seq,', '0 AS seq,')} FROM ledger WHERE seq = 1`,
          `INSERT INTO ledger SELECT ${columns} FROM ledger WHERE seq = 1 ON CONFLICT(seq) DO UPDATE SET kind = 'void'`,
        ];
        const passed = [];
        for (const sql of tries) if ((await shell(file, sql)) === 'done') passed.push(sql);
        mustHold(passed.length === 0, passed.join('; '));
        return `${tries.length} statements refused`;
      },
    },
    {
      no: 'held',
      name: 'stopped with a request in flight; a backup under load',
      run: async () => {
        const folder = copyOf(seeded, 'stopped');
        const server = await startServer(folder);
        const { cookie } = await signIn(server, 'helena');
        const archive = path.join(path.dirname(seeded), 'under-load.tar.gz');
        const asked = Promise.all(Array.from({ length: 20 }, () => ask(server, '/board', { cookie })));
        const kept = await inFolder(folder, () => backup(archive, '2026-11-24T14:30:00.000Z'));
        mustHold(kept.ledger.entries === 6, `the backup has ${kept.ledger.entries} entries`);
        mustHold(
          (await asked).every((a) => a.status === 200),
          'a page failed under the backup',
        );
        // Some are in before it stops, some may find it gone; none that was begun is cut.
        const flying = [];
        for (let i = 0; i < 6; i++) {
          flying.push(ask(server, `/checkouts`, { cookie }).catch((e: NodeJS.ErrnoException) => e.code ?? 'cut'));
          await new Promise((r) => setTimeout(r, 8));
        }
        process.kill(serverPid(folder), 'SIGTERM');
        const ends = (await Promise.all(flying)).map((e) => (typeof e === 'string' ? e : e.status));
        mustHold(ends.includes(200), `no answer in flight came: ${ends.join(' ')}`);
        mustHold(!ends.includes('cut') && !ends.includes('ECONNABORTED'), `an answer was cut: ${ends.join(' ')}`);
        await server.stop();
        mustHold(!existsSync(path.join(folder, 'server.lock')), 'the lock stays');
        return 'the answer came, the lock is gone; the backup taken under twenty requests is whole';
      },
    },
  ];
}

/** A disk of its own that is full, where this machine lets us make one. */
async function fullDisk(seeded: string): Promise<string> {
  const at = path.join(path.dirname(seeded), 'disk');
  mkdirSync(at);
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=60m', 'tmpfs', at]).status === 0;
  if (!mounted) return 'a full disk could not be made here: not tried';
  try {
    const folder = path.join(at, 'data');
    cpSync(seeded, folder, { recursive: true });
    rmSync(path.join(folder, 'server.lock'), { force: true });
    const filler = path.join(at, 'filler');
    for (let i = 0; i < 64; i++)
      try {
        writeFileSync(filler, Buffer.alloc(1_000_000), { flag: 'a' });
      } catch {
        break;
      }
    const full = await tryStart(folder);
    mustHold(full.code === 3 && /full|free/.test(full.said), `full: ${full.code} ${full.said.slice(-200)}`);
    rmSync(filler);
    const room = await tryStart(folder);
    mustHold(!/Not started/.test(room.said), `with room again: ${room.said.slice(-200)}`);
    return 'a full disk refused, started when there was room';
  } finally {
    spawnSync('umount', [at]);
  }
}
