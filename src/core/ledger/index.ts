/**
 * The ledger's text and its chain. An entry's canonical text is JSON by RFC 8785; its hash covers that text, which itself
 * names the hash before it. Hashing and signing are passed in, because keys live in `server`.
 */
import canonicalize from 'canonicalize';
import type { EntryProblem, LedgerProblem } from './ledger-words';

export * from './ledger-words';

export const LEDGER_START_HASH = '0'.repeat(64);

export interface LedgerRow {
  seq: number;
  id: string;
  kind: string;
  checkoutId: string;
  signedAt: string;
  signerId: string;
  canonical: string;
  prevHash: string;
  hash: string;
  signature: string;
  keyId: string;
}
/** A statement kept outside the database: how many entries there were, and the newest hash. */
export interface LedgerHead {
  count: number;
  hash: string;
  at: string;
  signature: string;
  keyId: string;
}
export interface LedgerTools {
  sha256Hex: (text: string) => string;
  /** True when `signature` (canonical base64) is the installation's over `text`. */
  verifySignature: (text: string, signature: string, keyId: string) => boolean;
  /** Decodes and encodes again, to refuse text that merely decodes to the same bytes. */
  reencodeBase64: (text: string) => string;
}

/**
 * Canonical JSON (RFC 8785) of a plain value. Throws on values JSON has not.
 * Source: RFC 8785 (canonical JSON), SHA-256 chain, Ed25519.
 * @returns the text that is hashed and signed
 * @example
 * canonicalText({ at: '2026-11-24T10:00:00.000Z', count: 3,
 * hash: 'af25523dab628d85d1b9e2ffa5fc022ba131e44dbddf72ca67d7dd920bbe273d' })
 *
 * // // '{"at":"2026-11-24T10:00:00.000Z","count":3,"hash":"af25523dab628d85d1b9e2ffa5fc022ba131e44dbddf72ca67d7dd920bbe273d"}'
 */
export function canonicalText(value: unknown): string {
  const text = canonicalize(value);
  if (text === undefined) throw new TypeError('value has no JSON form');
  return text;
}

/**
 * The text a head's signature covers.
 * @returns the text
 * @example
 * headText({ count: 3, hash: 'af25523dab628d85d1b9e2ffa5fc022ba131e44dbddf72ca67d7dd920bbe273d',
 * at: '2026-11-24T10:00:00.000Z' })
 *
 * // // '{"at":"2026-11-24T10:00:00.000Z","count":3,"hash":"af25523dab628d85d1b9e2ffa5fc022ba131e44dbddf72ca67d7dd920bbe273d"}'
 */
export const headText = (head: Pick<LedgerHead, 'count' | 'hash' | 'at'>): string =>
  canonicalText({ at: head.at, count: head.count, hash: head.hash });

const COLUMNS = ['seq', 'id', 'kind', 'checkoutId', 'signedAt', 'signerId', 'prevHash'] as const;

/**
 * Checks every entry and the newest head known. Every column is derived again from the canonical text; hex and base64
 * are compared as text; the canonical text is serialised again and compared byte by byte. A key may only follow another
 * by an entry of the ledger that names it, signed with the one before.
 * Source: RFC 8785 (canonical JSON), SHA-256 chain, Ed25519.
 * @returns problems in order; empty = the ledger is whole up to that head
 */
export function verifyLedger(rows: readonly LedgerRow[], head: LedgerHead | null, tools: LedgerTools): LedgerProblem[] {
  const problems: LedgerProblem[] = [];
  let prevHash = LEDGER_START_HASH;
  let prevSeq = 0;
  let key = rows[0]?.keyId ?? null;
  const keys = new Set(key === null ? [] : [key]);
  for (const row of rows) {
    const say = (what: EntryProblem) => problems.push({ seq: row.seq, id: row.id, ...what });
    if (row.seq !== prevSeq + 1) say({ code: 'gap', params: { after: prevSeq } });
    if (row.prevHash !== prevHash) say({ code: 'chain' });
    if (row.keyId !== key) say({ code: 'key-unknown' });
    for (const what of entryProblems(row, tools)) say(what);
    const next = row.kind === 'key-rotated' ? newKeyOf(row) : null;
    if (next !== null) keys.add((key = next));
    prevHash = row.hash;
    prevSeq = row.seq;
  }
  return [...problems, ...checkHead(rows, head, tools, keys)];
}

/**
 * Entries dated before the one they follow: the clock of the installation was set back, or forward before that. They
 * stand, because a chain proves order and not time; whoever reads the date is told.
 * @returns one code an entry, oldest first
 * @example ledgerDoubts([{ seq: 1, signedAt: '2026-11-24T…', … }, { seq: 2, signedAt: '2026-11-23T…', … }]) names entry 2
 */
export function ledgerDoubts(rows: readonly LedgerRow[]): LedgerProblem[] {
  const doubts: LedgerProblem[] = [];
  let latest: LedgerRow | null = null;
  for (const row of rows) {
    if (latest && row.signedAt < latest.signedAt)
      doubts.push({
        seq: row.seq,
        id: row.id,
        code: 'dated-before',
        params: { signedAt: row.signedAt, seq: latest.seq, latest: latest.signedAt },
      });
    else latest = row;
  }
  return doubts;
}

/**
 * What is wrong with one entry taken by itself: its text, its hash, its signature. Says nothing of its place in the
 * book.
 * @returns one code a problem; empty = it stands
 */
export function entryProblems(row: LedgerRow, tools: LedgerTools): EntryProblem[] {
  const problems: EntryProblem[] = [];
  const say = (what: EntryProblem) => void problems.push(what);
  checkText(row, say);
  if (tools.sha256Hex(row.canonical) !== row.hash) say({ code: 'hash' });
  if (tools.reencodeBase64(row.signature) !== row.signature) say({ code: 'signature-form' });
  if (!tools.verifySignature(row.canonical, row.signature, row.keyId)) say({ code: 'signature' });
  return problems;
}

/**
 * The key an entry hands the ledger over to; null when it names none.
 * @returns a public key
 */
export function newKeyOf(row: Pick<LedgerRow, 'canonical'>): string | null {
  try {
    const { body } = JSON.parse(row.canonical) as { body?: { newKeyId?: unknown } };
    return typeof body?.newKeyId === 'string' ? body.newKeyId : null;
  } catch {
    return null;
  }
}

function checkText(row: LedgerRow, say: (what: EntryProblem) => void): void {
  let parsed: unknown;
  try {
    parsed = JSON.parse(row.canonical);
  } catch {
    say({ code: 'not-json' });
    return;
  }
  if (typeof parsed !== 'object' || parsed === null) return say({ code: 'not-an-entry' });
  if (canonicalText(parsed) !== row.canonical) say({ code: 'not-canonical' });
  for (const column of COLUMNS) {
    if ((parsed as Record<string, unknown>)[column] !== row[column]) say({ code: 'column', params: { name: column } });
  }
}

/** Beyond this many the first are named: a head may claim any count. */
const MOST_MISSING = 1000;
function missingOf(present: ReadonlySet<number>, count: number): number[] {
  const missing: number[] = [];
  for (let seq = 1; seq <= count && missing.length < MOST_MISSING; seq++) if (!present.has(seq)) missing.push(seq);
  return missing;
}

function checkHead(
  rows: readonly LedgerRow[],
  head: LedgerHead | null,
  tools: LedgerTools,
  keys: ReadonlySet<string>,
): LedgerProblem[] {
  if (head === null) return rows.length === 0 ? [] : [{ seq: rows.length, id: null, code: 'head-missing' }];
  if (rows.length > 0 && !keys.has(head.keyId)) return [{ seq: head.count, id: null, code: 'head-key-unknown' }];
  if (
    tools.reencodeBase64(head.signature) !== head.signature ||
    !tools.verifySignature(headText(head), head.signature, head.keyId)
  ) {
    return [{ seq: head.count, id: null, code: 'head-changed' }];
  }
  const missing = missingOf(new Set(rows.map((r) => r.seq)), head.count);
  if (missing.length > 0) {
    return missing.map((seq) => ({
      seq,
      id: null,
      code: 'missing',
      params: { at: head.at, count: head.count },
    }));
  }
  const atHead = rows.find((r) => r.seq === head.count);
  if (head.count > 0 && atHead && atHead.hash !== head.hash)
    return [{ seq: atHead.seq, id: atHead.id, code: 'head-differs' }];
  return [];
}
