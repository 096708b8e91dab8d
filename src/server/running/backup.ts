import { ledgerProblemWords } from '@/core/ledger';
import { createHash } from 'node:crypto';
import {
  chmodSync,
  closeSync,
  createReadStream,
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  rmdirSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { pipeline } from 'node:stream/promises';
import path from 'node:path';
import { create, extract, list } from 'tar';
import sqlite3 from 'sqlite3';
import { z } from 'zod';
import { closeDatabase } from '../floor/connection';
import { inData } from '../floor/data-folder';
import { migrate, migrationNames } from '../floor/migrate';
import { checkLedger } from '../ledger/entries';
import { currentPublicKey, signText, toolsWith } from '../ledger/keys';
import { hashOf, keptFile } from '../traces/files';

/**
 * One archive of a data folder, taken while the server writes: the database by VACUUM INTO (a copy of the file would
 * miss its log), every trace it names, the public keys and the signed head, with the hash of each. The private key and
 * the session key stay outside.
 */
const Manifest = z.object({
  schema: z.literal('jeito-backup/1'),
  madeAt: z.string(),
  files: z.array(
    z.object({
      name: z
        .string()
        .regex(/^(jeito\.sqlite|ledger-head\.json|keys\/ledger-[0-9a-f]{16}\.pub\.pem|traces\/[0-9a-f]{64}\.gz)$/),
      bytes: z.number(),
      sha256: z.string(),
    }),
  ),
  ledger: z.object({ entries: z.number(), hash: z.string().nullable() }),
  tables: z.record(z.string(), z.number()),
});
export type Manifest = z.infer<typeof Manifest>;

async function sha256(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}

/** A query on a database file of its own, past the application. */
export function ask<T extends object>(file: string, sql: string, mode = sqlite3.OPEN_READWRITE): Promise<T[]> {
  return new Promise((resolve, reject) => {
    const db = new sqlite3.Database(file, mode, (opening) => {
      if (opening) return reject(opening);
      db.configure('busyTimeout', 20_000);
      db.all<T>(sql, (error, found) => db.close(() => (error ? reject(error) : resolve(found))));
    });
  });
}

/** Rows of every table, by name. */
export async function tableCounts(file: string): Promise<Record<string, number>> {
  const names = await ask<{ name: string }>(
    file,
    "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name",
  );
  const counts: Record<string, number> = {};
  for (const { name } of names)
    counts[name] = (await ask<{ n: number }>(file, `SELECT COUNT(*) AS n FROM "${name}"`))[0]?.n ?? 0;
  return counts;
}

/** Writes the archive; it has its name only when it is whole. */
export async function backup(out: string, at: string): Promise<Manifest> {
  if (existsSync(out)) throw new Error(`${out} exists already. Give another name: a backup never overwrites one.`);
  mkdirSync(path.dirname(path.resolve(out)), { recursive: true });
  const work = mkdtempSync(path.join(path.dirname(path.resolve(out)), '.jeito-backup-'));
  try {
    const kept = path.join(work, 'jeito.sqlite');
    // The head first: it may then count fewer entries than the copy, never more.
    if (existsSync(inData('ledger-head.json')))
      copyFileSync(inData('ledger-head.json'), path.join(work, 'ledger-head.json'));
    mkdirSync(path.join(work, 'keys'));
    await ask(inData('jeito.sqlite'), `VACUUM INTO '${kept.replaceAll("'", "''")}'`);
    for (const f of readdirSync(inData('keys')).filter((n) => /^ledger-[0-9a-f]{16}\.pub\.pem$/.test(n)))
      copyFileSync(inData('keys', f), path.join(work, 'keys', f));
    mkdirSync(path.join(work, 'traces'));
    const hashes = (await ask<{ hash: string }>(kept, 'SELECT DISTINCT hash FROM traces ORDER BY hash')).map(
      (t) => t.hash,
    );
    for (const hash of hashes) copyFileSync(inData('traces', `${hash}.gz`), path.join(work, 'traces', `${hash}.gz`));
    const names = [
      'jeito.sqlite',
      ...(existsSync(path.join(work, 'ledger-head.json')) ? ['ledger-head.json'] : []),
      ...readdirSync(path.join(work, 'keys')).map((f) => `keys/${f}`),
      ...hashes.map((h) => `traces/${h}.gz`),
    ];
    const files = [];
    for (const name of names)
      files.push({ name, bytes: statSync(path.join(work, name)).size, sha256: await sha256(path.join(work, name)) });
    const last = (
      await ask<{ seq: number; hash: string }>(kept, 'SELECT seq, hash FROM ledger ORDER BY seq DESC LIMIT 1')
    )[0];
    const manifest: Manifest = {
      schema: 'jeito-backup/1',
      madeAt: at,
      files,
      ledger: { entries: last?.seq ?? 0, hash: last?.hash ?? null },
      tables: await tableCounts(kept),
    };
    const text = `${JSON.stringify(manifest, null, 2)}\n`;
    writeFileSync(path.join(work, 'manifest.json'), text, { flush: true });
    const signed = signManifest(text);
    if (signed) writeFileSync(path.join(work, SIGNATURE), JSON.stringify(signed), { flush: true });
    const part = path.join(path.dirname(path.resolve(out)), `.${path.basename(out)}.part`);
    // Names of people are in it: for its owner alone, from the first byte on.
    closeSync(openSync(part, 'w', 0o600));
    await create({ gzip: true, cwd: work, file: part, portable: true, mode: 0o600 }, [
      'manifest.json',
      ...(signed ? [SIGNATURE] : []),
      ...names,
    ]);
    chmodSync(part, 0o600);
    renameSync(part, out);
    return manifest;
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}

export interface Restored {
  manifest: Manifest;
  entries: number;
  traces: number;
  /** The key the manifest is signed with; null = it is not signed. */
  signedWith: string | null;
  /** What the archive cannot prove of itself. */
  unproven: string[];
}
const SIGNATURE = 'manifest.sig.json';
const Signature = z.object({ keyId: z.string().max(64), signature: z.string().max(200) });
/** Signed with the ledger's key where it is at hand: whoever changes the archive afterwards cannot sign it anew. */
function signManifest(text: string): z.infer<typeof Signature> | null {
  try {
    return signText(`jeito-backup ${text}`, currentPublicKey().keyId);
  } catch {
    return null;
  }
}
/** @returns the key it is signed with; null = it is not signed. @throws when the signature does not fit */
function manifestKey(work: string): string | null {
  const file = path.join(work, SIGNATURE);
  if (!existsSync(file)) return null;
  const { keyId, signature } = Signature.parse(JSON.parse(readFileSync(file, 'utf8')));
  const pem = path.join(work, 'keys', `ledger-${keyId}.pub.pem`);
  const text = `jeito-backup ${readFileSync(path.join(work, 'manifest.json'), 'utf8')}`;
  const keys = existsSync(pem) ? { [keyId]: readFileSync(pem, 'utf8') } : {};
  if (!toolsWith(keys).verifySignature(text, signature, keyId))
    throw new Error('The manifest of this archive was changed after it was signed.');
  return keyId;
}

interface Made {
  type: string;
  name: string;
  sql: string | null;
}
const SCHEMA = "SELECT type, name, sql FROM sqlite_master WHERE name NOT LIKE 'sqlite_%' ORDER BY type, name";
/**
 * Everything in the database that acts, against what our own migrations make: a trigger or view that came with the archive
 * would run with every write.
 */
export async function checkSchema(file: string, beside: string): Promise<void> {
  const ran = (await ask<{ name: string }>(file, 'SELECT name FROM migrations ORDER BY name')).map((m) => m.name);
  const ours = migrationNames();
  const strange = ran.find((name, i) => name !== ours[i]);
  if (strange !== undefined || ran.length === 0)
    throw new Error(
      `The database was made by another release (${strange ?? 'none of ours'}). Restore it with that release, or a newer one.`,
    );
  const reference = path.join(beside, 'reference');
  process.env.JEITO_DATA = reference;
  await migrate(ran[ran.length - 1]);
  const should = await ask<Made>(inData('jeito.sqlite'), SCHEMA);
  const is = await ask<Made>(file, SCHEMA);
  const words = (m: Made) => `${m.type} ${m.name} ${(m.sql ?? '').replace(/\s+/g, ' ').trim()}`;
  const known = new Set(should.map(words));
  const there = new Set(is.map(words));
  const wrong = is.find((m) => !known.has(words(m))) ?? should.find((m) => !there.has(words(m)));
  rmSync(reference, { recursive: true, force: true });
  if (wrong)
    throw new Error(
      `The ${wrong.type} ${wrong.name} of the database is not as this application makes it: the archive was changed.`,
    );
}

/**
 * Unpacks an archive beside the folder, checks all of it, and only then gives it the name: every hash, the database's
 * own checks, rows of every table, the whole ledger against its head, every trace by its content. Nothing is put in place
 * when one of them fails.
 * @param trusted ids of keys the caller keeps elsewhere; without one, whose key signed the archive cannot be said
 */
export async function restore(archive: string, to: string, trusted: readonly string[] = []): Promise<Restored> {
  const target = path.resolve(to);
  if (existsSync(target) && readdirSync(target).length > 0)
    throw new Error(`${to} is not empty. Restore into an empty folder, look at it, then point JEITO_DATA to it.`);
  mkdirSync(path.dirname(target), { recursive: true });
  const work = mkdtempSync(path.join(path.dirname(target), '.jeito-restore-'));
  const before = process.env.JEITO_DATA;
  try {
    await unpack(archive, work);
    const manifest = await checkFiles(work);
    const file = path.join(work, 'jeito.sqlite');
    const signedWith = manifestKey(work);
    const integrity = await ask<{ integrity_check: string }>(file, 'PRAGMA integrity_check');
    if (integrity[0]?.integrity_check !== 'ok')
      throw new Error(`The database is damaged: ${integrity[0]?.integrity_check ?? 'no answer'}.`);
    const broken = await ask(file, 'PRAGMA foreign_key_check');
    if (broken.length > 0)
      throw new Error(`The database does not hold together: ${broken.length} rows refer to nothing.`);
    await checkSchema(file, work);
    const counts = await tableCounts(file);
    const differs = [...new Set([...Object.keys(counts), ...Object.keys(manifest.tables)])].filter(
      (name) => counts[name] !== manifest.tables[name],
    );
    if (differs.length > 0) throw new Error(`Rows of ${differs.join(', ')} differ from the manifest.`);
    process.env.JEITO_DATA = work;
    await closeDatabase();
    const book = await checkLedger();
    if (book.problems.length > 0)
      throw new Error(`The ledger does not verify. ${book.problems[0] ? ledgerProblemWords(book.problems[0]) : ''}`);
    const traces = await ask<{ hash: string }>(inData('jeito.sqlite'), 'SELECT DISTINCT hash FROM traces');
    for (const { hash } of traces)
      if (hashOf(await keptFile(hash)) !== hash)
        throw new Error(`Trace ${hash.slice(0, 12)} is not what was recorded.`);
    await closeDatabase();
    // Versions of changes go on from an older day: who asks with one of the days since must read everything again.
    if (counts.change_book !== undefined)
      await ask(inData('jeito.sqlite'), 'UPDATE change_book SET id = lower(hex(randomblob(6)))');
    rmSync(path.join(work, 'manifest.json'));
    rmSync(path.join(work, SIGNATURE), { force: true });
    if (existsSync(target)) rmdirSync(target);
    renameSync(work, target);
    return {
      manifest,
      entries: book.entries,
      traces: traces.length,
      signedWith,
      unproven: unproven(signedWith, book.entries, trusted),
    };
  } catch (error) {
    await closeDatabase();
    rmSync(work, { recursive: true, force: true });
    throw error;
  } finally {
    if (before === undefined) delete process.env.JEITO_DATA;
    else process.env.JEITO_DATA = before;
  }
}

function unproven(signedWith: string | null, entries: number, trusted: readonly string[]): string[] {
  return [
    ...(signedWith === null
      ? [
          'The archive is not signed: that its files belong together is proven, that nobody made it anew is ' +
            'not. The entries of the ledger prove themselves.',
        ]
      : trusted.includes(signedWith)
        ? []
        : [
            `The archive is signed with key ${signedWith}, and the key came with it. Compare the key with the ` +
              'one you keep: npm run restore -- ARCHIVE --to FOLDER --key KEY.pem.',
          ]),
    ...(entries === 0 ? ['There is no entry in the ledger to check the key against.'] : []),
    'That there is no newer backup cannot be seen from this one.',
  ];
}

/** Only plain files with the names a backup has come out of an archive. */
async function unpack(archive: string, into: string): Promise<void> {
  const wrong: string[] = [];
  await list({
    file: archive,
    onReadEntry: (entry) => {
      if (
        entry.type !== 'File' ||
        (entry.path !== 'manifest.json' &&
          entry.path !== SIGNATURE &&
          !Manifest.shape.files.element.shape.name.safeParse(entry.path).success)
      )
        wrong.push(entry.path);
    },
  });
  if (wrong.length > 0) throw new Error(`This is not a backup of ours: it holds ${wrong[0] ?? ''}.`);
  mkdirSync(path.join(into, 'keys'), { mode: 0o700 });
  await extract({ file: archive, cwd: into, strict: true });
  if (!existsSync(path.join(into, 'manifest.json')))
    throw new Error('This archive has no manifest: it is not a backup of ours, or it is cut short.');
}

async function checkFiles(work: string): Promise<Manifest> {
  const manifest = Manifest.safeParse(JSON.parse(readFileSync(path.join(work, 'manifest.json'), 'utf8')));
  if (!manifest.success) throw new Error('The manifest of this archive cannot be read.');
  const there = (folder: string) =>
    existsSync(path.join(work, folder))
      ? readdirSync(path.join(work, folder))
          .filter((n) => statSync(path.join(work, folder, n)).isFile())
          .map((n) => (folder === '' ? n : `${folder}/${n}`))
      : [];
  const found = [...there(''), ...there('keys'), ...there('traces')].filter(
    (n) => n !== 'manifest.json' && n !== SIGNATURE,
  );
  const extra = found.find((n) => !manifest.data.files.some((f) => f.name === n));
  if (extra) throw new Error(`${extra} is not in the manifest.`);
  for (const f of manifest.data.files) {
    if (!found.includes(f.name)) throw new Error(`${f.name} is missing from the archive.`);
    if ((await sha256(path.join(work, f.name))) !== f.sha256)
      throw new Error(`${f.name} is not what was backed up: its hash differs.`);
  }
  return manifest.data;
}
