import type { Transaction } from 'sequelize';
import { LEDGER_START_HASH, type LedgerProblem, type LedgerRow, canonicalText, verifyLedger } from '@/core/ledger';
import { row, rows } from '../db/connection';
import { model } from '../db/models';
import { ledgerTools, readHead, sha256Hex, signText, writeHead } from './keys';

interface DbRow { seq: number; id: string; kind: string; checkout_id: string; signed_at: string; signer_id: string; canonical: string; prev_hash: string; hash: string; signature: string; key_id: string }
const fromDb = (r: DbRow): LedgerRow => ({ seq: r.seq, id: r.id, kind: r.kind, checkoutId: r.checkout_id, signedAt: r.signed_at, signerId: r.signer_id, canonical: r.canonical, prevHash: r.prev_hash, hash: r.hash, signature: r.signature, keyId: r.key_id });

export async function ledgerRows(): Promise<LedgerRow[]> {
  return (await rows<DbRow>('SELECT * FROM ledger ORDER BY seq')).map(fromDb);
}

export async function ledgerEntry(id: string): Promise<LedgerRow | null> {
  const found = await row<DbRow>('SELECT * FROM ledger WHERE id = :id', { id });
  return found ? fromDb(found) : null;
}

/**
 * Appends one entry inside a write. The caller updates the signed head with {@link publishHead} after the write has committed.
 * @param body the full snapshot; seq, previous hash and identity are added to it and signed with it
 */
export async function appendEntry(entry: { id: string; kind: string; checkoutId: string; signedAt: string; signerId: string; body: unknown }, t: Transaction): Promise<LedgerRow> {
  const last = await row<{ seq: number; hash: string }>('SELECT seq, hash FROM ledger ORDER BY seq DESC LIMIT 1', {}, t);
  const seq = (last?.seq ?? 0) + 1;
  const prevHash = last?.hash ?? LEDGER_START_HASH;
  const { id, kind, checkoutId, signedAt, signerId, body } = entry;
  const canonical = canonicalText({ schema: 'ledger-entry/1', seq, id, kind, checkoutId, signedAt, signerId, prevHash, body });
  const hash = sha256Hex(canonical);
  const { signature, keyId } = signText(canonical);
  await model('ledger').create({ seq, id, kind, checkout_id: checkoutId, signed_at: signedAt, signer_id: signerId, canonical, prev_hash: prevHash, hash, signature, key_id: keyId }, { transaction: t });
  return { seq, id, kind, checkoutId, signedAt, signerId, canonical, prevHash, hash, signature, keyId };
}

/** Brings the signed head up to the newest committed entry. Also run at start, for a stop between commit and head. */
export async function publishHead(at: string): Promise<void> {
  const last = await row<{ seq: number; hash: string }>('SELECT seq, hash FROM ledger ORDER BY seq DESC LIMIT 1');
  const head = readHead();
  if (last && (head === null || last.seq > head.count)) writeHead(last.seq, last.hash, at);
}

export async function checkBook(): Promise<{ entries: number; problems: LedgerProblem[] }> {
  const all = await ledgerRows();
  return { entries: all.length, problems: verifyLedger(all, readHead(), ledgerTools()) };
}
