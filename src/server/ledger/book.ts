import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import {
  LEDGER_START_HASH,
  type LedgerProblem,
  type LedgerRow,
  canonicalText,
  ledgerDoubts,
  newKeyOf,
  verifyLedger,
} from '@/core/ledger';
import type { EntryMarks } from '@/domain/book';
import { givenPasswords } from '../floor/auth/again';
import { row, rows } from '../floor/connection';
import { model } from '../floor/models';
import { write } from '../floor/write';
import {
  currentPublicKey,
  ledgerTools,
  prepareNextKey,
  readHead,
  sha256Hex,
  signText,
  signingProblem,
  takeUpNextKey,
  writeHead,
} from './keys';

interface DbRow {
  seq: number;
  id: string;
  kind: string;
  checkout_id: string;
  signed_at: string;
  signer_id: string;
  canonical: string;
  prev_hash: string;
  hash: string;
  signature: string;
  key_id: string;
}
const fromDb = (r: DbRow): LedgerRow => ({
  seq: r.seq,
  id: r.id,
  kind: r.kind,
  checkoutId: r.checkout_id,
  signedAt: r.signed_at,
  signerId: r.signer_id,
  canonical: r.canonical,
  prevHash: r.prev_hash,
  hash: r.hash,
  signature: r.signature,
  keyId: r.key_id,
});

export async function ledgerRows(): Promise<LedgerRow[]> {
  return (await rows<DbRow>('SELECT * FROM ledger ORDER BY seq')).map(fromDb);
}

export async function ledgerEntry(id: string): Promise<LedgerRow | null> {
  const found = await row<DbRow>('SELECT * FROM ledger WHERE id = :id', { id });
  return found ? fromDb(found) : null;
}

/**
 * Appends one entry inside a write. The caller updates the signed head with {@link publishHead} after the write has
 * committed.
 * @param body the full snapshot; seq, previous hash and identity are added to it and signed with it
 */
export async function appendEntry(
  entry: { id: string; kind: string; checkoutId: string; signedAt: string; signerId: string; body: unknown },
  t: Transaction,
): Promise<LedgerRow> {
  const last = await row<{ seq: number; hash: string; signed_at: string }>(
    'SELECT seq, hash, signed_at FROM ledger ORDER BY seq DESC LIMIT 1',
    {},
    t,
  );
  const ofLedger = await keyOfBook(t);
  const given = await givenPasswords(entry.signerId, entry.signedAt, t);
  const latest = await row<{ at: string | null }>('SELECT MAX(signed_at) AS at FROM ledger', {}, t);
  const seq = (last?.seq ?? 0) + 1;
  const prevHash = last?.hash ?? LEDGER_START_HASH;
  const { id, kind, checkoutId, signedAt, signerId } = entry;
  const marks: EntryMarks = {
    ...(latest?.at && signedAt < latest.at ? { clockDoubt: { before: latest.at } } : {}),
    ...(given.length > 0 ? { passwordGiven: given } : {}),
  };
  const body = { ...(entry.body as object), ...marks };
  const canonical = canonicalText({
    schema: 'ledger-entry/1',
    seq,
    id,
    kind,
    checkoutId,
    signedAt,
    signerId,
    prevHash,
    body,
  });
  const hash = sha256Hex(canonical);
  const { signature, keyId } = signText(canonical, ofLedger);
  await model('ledger').create(
    {
      seq,
      id,
      kind,
      checkout_id: checkoutId,
      signed_at: signedAt,
      signer_id: signerId,
      canonical,
      prev_hash: prevHash,
      hash,
      signature,
      key_id: keyId,
    },
    { transaction: t },
  );
  return { seq, id, kind, checkoutId, signedAt, signerId, canonical, prevHash, hash, signature, keyId };
}

/** Brings the signed head up to the newest committed entry. Also run at start, for a stop between commit and head. */
export async function publishHead(at: string): Promise<void> {
  const last = await row<{ seq: number; hash: string }>('SELECT seq, hash FROM ledger ORDER BY seq DESC LIMIT 1');
  const head = readHead();
  const ofLedger = await keyOfBook();
  // After a restore the private key comes back apart; the head of the backup stands until then.
  if (signingProblem(ofLedger) !== null) return;
  if (last && (head === null || last.seq > head.count)) writeHead(last.seq, last.hash, at, ofLedger);
}

export async function checkBook(): Promise<{
  entries: number;
  problems: LedgerProblem[];
  doubts: LedgerProblem[];
}> {
  const all = await ledgerRows();
  return { entries: all.length, problems: verifyLedger(all, readHead(), ledgerTools()), doubts: ledgerDoubts(all) };
}

/** Finishes, or undoes, a change of key that was stopped half-way. Run at start, with nothing else writing. */
export async function settleKey(): Promise<void> {
  const named = await row<{ id: string | null }>(
    "SELECT json_extract(canonical, '$.body.newKeyId') AS id FROM ledger WHERE kind = 'key-rotated' ORDER BY seq DESC LIMIT 1",
  );
  takeUpNextKey(named?.id ?? null);
}

/** The key the book is signed with by its own account; null = nothing is signed yet. */
export async function keyOfBook(t?: Transaction): Promise<string | null> {
  const last = await row<{ key_id: string; kind: string; canonical: string }>(
    'SELECT key_id, kind, canonical FROM ledger ORDER BY seq DESC LIMIT 1',
    {},
    t,
  );
  return last === null ? null : last.kind === 'key-rotated' ? newKeyOf(last) : last.key_id;
}

/** Hands the book over to a new key: an entry signed with the old one names the new. */
export async function rotateKey(
  by: { id: string; name: string },
  reason: string,
  at: string,
): Promise<{ from: string; to: string }> {
  await settleKey();
  const { keyId: from } = currentPublicKey();
  const next = prepareNextKey();
  await write((t) =>
    appendEntry(
      {
        id: randomUUID(),
        kind: 'key-rotated',
        checkoutId: '',
        signedAt: at,
        signerId: by.id,
        body: { oldKeyId: from, newKeyId: next.keyId, newPublicKey: next.publicPem, reason, signer: by },
      },
      t,
    ),
  );
  await settleKey();
  await publishHead(at);
  return { from, to: next.keyId };
}
