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
import type { EntryMarks } from '@/domain/ledger';
import { givenPasswords } from '../floor/auth/confirm-password';
import { write } from '../floor/write';
import {
  currentPublicKey,
  ledgerTools,
  prepareNextKey,
  readHead,
  sha256Hex,
  signText,
  signingProblem,
  activateNextKey,
  writeHead,
} from './keys';
import * as ask from '../floor/statements/ledger';
import { LedgerEntries } from './tables';

export async function ledgerRows(): Promise<LedgerRow[]> {
  return LedgerEntries.find({ order: ['seq'] });
}

export async function ledgerEntry(id: string): Promise<LedgerRow | null> {
  return LedgerEntries.first({ where: { id } });
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
  const last = await LedgerEntries.first({ pick: ['seq', 'hash', 'signedAt'], order: ['-seq'] }, t);
  const ofLedger = await ledgerKeyId(t);
  const given = await givenPasswords(entry.signerId, entry.signedAt, t);
  const latest = await ask.appendEntry.one({}, t);
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
  await LedgerEntries.insert(
    {
      seq,
      id,
      kind,
      checkoutId: checkoutId,
      signedAt: signedAt,
      signerId: signerId,
      canonical,
      prevHash: prevHash,
      hash,
      signature,
      keyId: keyId,
    },
    t,
  );
  return { seq, id, kind, checkoutId, signedAt, signerId, canonical, prevHash, hash, signature, keyId };
}

/** Brings the signed head up to the newest committed entry. Also run at start, for a stop between commit and head. */
export async function publishHead(at: string): Promise<void> {
  const last = await LedgerEntries.first({ pick: ['seq', 'hash'], order: ['-seq'] });
  const head = readHead();
  const ofLedger = await ledgerKeyId();
  // After a restore the private key comes back apart; the head of the backup stands until then.
  if (signingProblem(ofLedger) !== null) return;
  if (last && (head === null || last.seq > head.count)) writeHead(last.seq, last.hash, at, ofLedger);
}

export async function checkLedger(): Promise<{
  entries: number;
  problems: LedgerProblem[];
  doubts: LedgerProblem[];
}> {
  const all = await ledgerRows();
  return { entries: all.length, problems: verifyLedger(all, readHead(), ledgerTools()), doubts: ledgerDoubts(all) };
}

/** Finishes, or undoes, a change of key that was stopped half-way. Run at start, with nothing else writing. */
export async function settleKey(): Promise<void> {
  const named = await ask.settleKey.one();
  activateNextKey(named?.id ?? null);
}

/** The key the book is signed with by its own account; null = nothing is signed yet. */
export async function ledgerKeyId(t?: Transaction): Promise<string | null> {
  const last = await LedgerEntries.first({ pick: ['keyId', 'kind', 'canonical'], order: ['-seq'] }, t);
  return last === null ? null : last.kind === 'key-rotated' ? newKeyOf(last) : last.keyId;
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
