import type { z } from 'zod';
import type { CurrentUser } from '../../floor/auth/permissions';
import { signedEntry } from '../../ledger/papers/entry-pdf';
import { type LedgerLine, entryFor, ledgerCount, ledgerLines } from '../../ledger/queries/entries';
import type { PageQuery } from '../paths';
import type { EntryAnswer, EntryList } from '../shapes';

const entryOf = (l: LedgerLine): z.output<typeof EntryList>['items'][number] => ({
  id: l.id,
  number: l.seq,
  kind: l.kind,
  checkoutId: l.checkoutId,
  pilotName: l.pilotName,
  signerName: l.signerName,
  signedAt: l.signedAt,
  signedOn: l.signedOn,
  goals: l.goals,
  registration: l.registration,
  typeName: l.type,
  voidedBy: l.voidedBy?.seq ?? null,
  sha256: l.hash,
});

/** Entries this user may see, newest first. */
export async function entriesRead(user: CurrentUser, page: PageQuery): Promise<z.output<typeof EntryList>> {
  const [total, lines] = await Promise.all([ledgerCount(user), ledgerLines(user, page)]);
  return { total, items: lines.map(entryOf) };
}

export async function entryRead(user: CurrentUser, id: string): Promise<z.output<typeof EntryAnswer> | null> {
  const found = await entryFor(user, id);
  return found && { ...entryOf(found.line), signed: signedEntry(found.entry) };
}
