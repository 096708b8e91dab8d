/**
 * Tampers with a book at random and sees whether it is noticed:  npm run test:tamper [-- --trials 2000 --entries 1000
 * --seed 1] Most trials change a copy of the rows and verify it, as the export and the backup are verified. Some go at
 * a real database file with a shell: with its triggers standing, where the change must be refused or noticed, and with
 * them dropped, where it must be noticed.
 */
import './lib/help.mjs';
import { randomUUID } from 'node:crypto';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import sqlite3 from 'sqlite3';
import { seeded } from '@/core/random';
import { type LedgerRow, type LedgerTools, verifyLedger } from '@/core/ledger';
import { closeDatabase } from '@/server/floor/connection';
import { migrate } from '@/server/floor/migrate';
import { write } from '@/server/floor/write';
import { appendEntry, checkLedger, ledgerRows, publishHead, rotateKey } from '@/server/ledger/entries';
import { ledgerTools, readHead } from '@/server/ledger/keys';

const { values } = parseArgs({
  options: {
    trials: { type: 'string', default: '2000' },
    entries: { type: 'string', default: '1000' },
    seed: { type: 'string', default: '1' },
    database: { type: 'string', default: '60' },
  },
});
const [trials, entries, onDatabase] = [Number(values.trials), Number(values.entries), Number(values.database)];
const random = seeded(Number(values.seed));
const below = (n: number): number => Math.floor(random() * n);
const pick = <T>(all: readonly T[]): T => all[below(all.length)] as T;

const folder = mkdtempSync(path.join(tmpdir(), 'jeito-tamper-'));
process.env.JEITO_DATA = path.join(folder, 'book');
await migrate();
const at = (i: number): string => new Date(Date.UTC(2024, 0, 1) + i * 3_600_000).toISOString();
const body = (i: number) => ({
  pilot: { id: `pilot-${i % 40}`, name: `Pilot ${i % 40} of the school` },
  signer: { id: `user-${i % 4}`, name: `Instructor ${i % 4}` },
  goals: ['tailwheel'],
  items: Array.from({ length: 6 }, (_, k) => ({ id: `F${k}`, have: `${k + i} landings`, evidence: [`l-${i}-${k}`] })),
  limitations: { crosswindKt: 8 + (i % 5), alone: i % 3 === 0 },
  remark: i % 7 === 0 ? 'hold-off at dusk, l\u00e9ger vent' : '',
  signedOn: at(i).slice(0, 10),
});
for (let i = 0; i < entries; i++) {
  if (i === Math.floor(entries * 0.6))
    await rotateKey({ id: 'user-0', name: 'Chief' }, 'a new machine, the key moves', at(i));
  else
    await write((t) =>
      appendEntry(
        {
          id: randomUUID(),
          kind: i % 9 === 8 ? 'correction' : 'sign-off',
          checkoutId: `checkout-${i % 200}`,
          signedAt: at(i),
          signerId: `user-${i % 4}`,
          body: body(i),
        },
        t,
      ),
    );
}
await publishHead(at(entries));
const rows = await ledgerRows();
const head = readHead();
await closeDatabase();

/**
 * The same checks; signatures and hashes of texts seen before are remembered, so that a thousand entries are read
 * often.
 */
const real = ledgerTools();
const seen = new Map<string, boolean>();
const hashes = new Map<string, string>();
const tools: LedgerTools = {
  ...real,
  sha256Hex: (text) => {
    const known = hashes.get(text) ?? real.sha256Hex(text);
    if (hashes.size < 5000) hashes.set(text, known);
    return known;
  },
  verifySignature: (text, signature, keyId) => {
    const key = `${keyId} ${signature} ${text}`;
    const known = seen.get(key) ?? real.verifySignature(text, signature, keyId);
    if (seen.size < 5000) seen.set(key, known);
    return known;
  },
};
if (verifyLedger(rows, head, tools).length > 0) throw new Error('the untouched book does not check');

const TEXTS = [
  'id',
  'kind',
  'checkoutId',
  'signedAt',
  'signerId',
  'canonical',
  'prevHash',
  'hash',
  'signature',
  'keyId',
] as const;
const byteOf = (text: string): string => {
  const i = below(text.length);
  const now = text.charCodeAt(i);
  const other = (now + 1 + below(120)) % 128 || 33;
  return `${text.slice(0, i)}${String.fromCharCode(other === now ? other + 1 : other)}${text.slice(i + 1)}`;
};
const flip = (text: string): string => {
  const letters = [...text].flatMap((c, i) => (c.toLowerCase() === c.toUpperCase() ? [] : [i]));
  const i = letters.length > 0 ? pick(letters) : -1;
  const c = text[i] ?? '';
  return i < 0
    ? byteOf(text)
    : `${text.slice(0, i)}${c === c.toLowerCase() ? c.toUpperCase() : c.toLowerCase()}${text.slice(i + 1)}`;
};
const change = (all: LedgerRow[], i: number, to: Partial<LedgerRow>): LedgerRow[] =>
  all.map((r, k) => (k === i ? { ...r, ...to } : r));
type Move = (all: LedgerRow[]) => LedgerRow[];
const MOVES: Record<string, Move> = {
  'change a byte': (all) => {
    const i = below(all.length);
    const c = pick(TEXTS);
    const before = all[i]?.[c] ?? '';
    return change(all, i, { [c]: before === '' ? 'x' : byteOf(before) });
  },
  'change a byte of the text': (all) => {
    const i = below(all.length);
    return change(all, i, { canonical: byteOf(all[i]?.canonical ?? 'x') });
  },
  'change the case of a letter': (all) => {
    const i = below(all.length);
    const c = pick(TEXTS);
    return change(all, i, { [c]: flip(all[i]?.[c] ?? 'a') });
  },
  'take a byte out': (all) => {
    const i = below(all.length);
    const c = pick(TEXTS);
    const t = all[i]?.[c] ?? 'a';
    const k = below(t.length);
    return change(all, i, { [c]: t.slice(0, k) + t.slice(k + 1) || 'x' });
  },
  'put a byte in': (all) => {
    const i = below(all.length);
    const c = pick(TEXTS);
    const t = all[i]?.[c] ?? '';
    const k = below(t.length + 1);
    return change(all, i, { [c]: `${t.slice(0, k)}${pick([' ', '0', 'A', '\u00e9', '\u200b'])}${t.slice(k)}` });
  },
  'change the number': (all) => {
    const i = below(all.length);
    return change(all, i, { seq: (all[i]?.seq ?? 0) + pick([-1, 1, 2, 1000]) });
  },
  'remove an entry': (all) => {
    const i = below(all.length);
    return all.filter((_, k) => k !== i);
  },
  'cut the tail': (all) => all.slice(0, all.length - 1 - below(Math.min(40, all.length - 1))),
  'cut the head': (all) => all.slice(1 + below(20)),
  'swap two': (all) => {
    const i = below(all.length - 1);
    const k = i + 1 + below(Math.min(30, all.length - 1 - i));
    return all.map((r, n) => (n === i ? (all[k] as LedgerRow) : n === k ? (all[i] as LedgerRow) : r));
  },
  'swap two and their numbers': (all) => {
    const i = below(all.length - 1);
    const [a, b] = [all[i] as LedgerRow, all[i + 1] as LedgerRow];
    return all.map((r, n) => (n === i ? { ...b, seq: a.seq } : n === i + 1 ? { ...a, seq: b.seq } : r));
  },
  'copy one in': (all) => {
    const i = below(all.length);
    const k = below(all.length + 1);
    return [...all.slice(0, k), all[i] as LedgerRow, ...all.slice(k)];
  },
  'copy one to the end': (all) => {
    const last = all[all.length - 1] as LedgerRow;
    return [...all, { ...(all[below(all.length)] as LedgerRow), seq: last.seq + 1, prevHash: last.hash }];
  },
  'write one over another': (all) => {
    const i = below(all.length);
    const from = pick(all.filter((_, k) => k !== i));
    return change(all, i, { ...from, seq: all[i]?.seq ?? 0 });
  },
  'another text with its own hash': (all) => {
    const i = below(all.length);
    const canonical = (all[i]?.canonical ?? '').replace(/Pilot (\d+)/, (_, n: string) => `Pilot ${Number(n) + 1}`);
    return change(all, i, { canonical, hash: real.sha256Hex(canonical) });
  },
  'another spelling of the same signature': (all) => {
    const i = below(all.length);
    const s = all[i]?.signature ?? '';
    const last = s.length - 3;
    const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
    const v = letters.indexOf(s[last] ?? 'A');
    return change(all, i, {
      signature: `${s.slice(0, last)}${letters[(v & 0x30) | ((v + 1) & 0x0f)] ?? 'B'}${s.slice(last + 1)}`,
    });
  },
  'the same text, otherwise ordered': (all) => {
    const i = below(all.length);
    const parsed = JSON.parse(all[i]?.canonical ?? '{}') as Record<string, unknown>;
    return change(all, i, { canonical: JSON.stringify(Object.fromEntries(Object.entries(parsed).reverse())) });
  },
  'the other key': (all) => {
    const i = below(all.length);
    const other = all.find((r) => r.keyId !== all[i]?.keyId)?.keyId ?? 'x';
    return change(all, i, { keyId: other });
  },
};

const missed: string[] = [];
const tally: Record<string, number> = {};
const started = process.hrtime.bigint();
const names = Object.keys(MOVES);
for (let n = 0; n < trials - onDatabase; n++) {
  const name = names[n % names.length] ?? 'change a byte';
  const after = MOVES[name]?.(rows) ?? rows;
  tally[name] = (tally[name] ?? 0) + 1;
  if (verifyLedger(after, head, tools).length === 0) missed.push(`${name}, trial ${n}`);
}

const shell = (file: string, sql: string): Promise<string | null> =>
  new Promise((resolve) => {
    const db = new sqlite3.Database(file);
    db.exec(sql, (error) => db.close(() => resolve(error?.message ?? null)));
  });
const DROP = 'DROP TRIGGER ledger_fixed; DROP TRIGGER ledger_kept; DROP TRIGGER ledger_in_order;';
const MOVES_SQL: Record<string, (seq: number) => string> = {
  'REPLACE an entry': (seq) =>
    `REPLACE INTO ledger SELECT seq, id, kind, checkout_id, signed_at, 'user-9', canonical, prev_hash, hash, signature, key_id FROM ledger WHERE seq = ${seq};`,
  'UPDATE OR REPLACE a number': (seq) =>
    `UPDATE OR REPLACE ledger SET seq = ${seq} WHERE seq = ${Math.max(1, seq - 1)};`,
  'UPDATE a text': (seq) =>
    `UPDATE ledger SET canonical = replace(canonical, 'landings', 'Landings') WHERE seq = ${seq};`,
  'UPDATE the case of a hash': (seq) => `UPDATE ledger SET hash = upper(hash) WHERE seq = ${seq};`,
  'DELETE an entry': (seq) => `DELETE FROM ledger WHERE seq = ${seq};`,
  'DELETE the tail': (seq) => `DELETE FROM ledger WHERE seq >= ${seq};`,
  'INSERT at the end': () =>
    "INSERT INTO ledger SELECT seq + 1, id || 'x', kind, checkout_id, signed_at, signer_id, canonical, hash, hash, signature, key_id FROM ledger ORDER BY seq DESC LIMIT 1;",
};
const sqlNames = Object.keys(MOVES_SQL);
for (let n = 0; n < onDatabase; n++) {
  const name = sqlNames[n % sqlNames.length] ?? 'DELETE an entry';
  const dropped = Math.floor(n / sqlNames.length) % 2 === 1;
  const copy = path.join(folder, `copy-${n}`);
  cpSync(path.join(folder, 'book'), copy, { recursive: true });
  process.env.JEITO_DATA = copy;
  const refused = await shell(
    path.join(copy, 'jeito.sqlite'),
    `${dropped ? DROP : ''}${MOVES_SQL[name]?.(2 + below(entries - 2)) ?? ''}`,
  );
  const found = (await checkLedger()).problems.length;
  await closeDatabase();
  rmSync(copy, { recursive: true, force: true });
  const label = `${name}${dropped ? ', triggers dropped' : ''}`;
  tally[label] = (tally[label] ?? 0) + 1;
  // Refused means that nothing changed: the ledger must then check. Done means that it must not.
  if (refused === null ? found === 0 : found > 0) missed.push(`${label}, trial ${trials - onDatabase + n}`);
}
rmSync(folder, { recursive: true, force: true });
for (const [name, n] of Object.entries(tally)) console.log(`${String(n).padStart(5)}  ${name}`);
for (const m of missed) console.log(`missed: ${m}`);
console.log(`${entries} entries, ${Math.round(Number(process.hrtime.bigint() - started) / 1e9)} s`);
console.log(`${trials} trials, missed ${missed.length}`);
process.exit(missed.length === 0 ? 0 : 1);
