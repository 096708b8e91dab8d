import type { EntryKind, LaterBody, SignOffBody } from '@/domain/ledger';
import type { LedgerRow } from '@/core/ledger';
import { ledgerEntry } from '../entries';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import * as ask from '../../floor/statements/ledger';
import type { RowOf } from '../../floor/statement';
import { bodyOf } from '../body';

export interface LedgerLine {
  seq: number;
  id: string;
  kind: EntryKind;
  checkoutId: string;
  pilotId: string | null;
  signerId: string;
  signedAt: string;
  hash: string;
  canonical: string;
  /** The aerodrome's own date, and the zone it was signed in; entries of before have the UTC date. */
  signedOn: string;
  timeZone: string | null;
  pilotName: string;
  signerName: string;
  goals: string[];
  registration: string;
  type: string;
  /** Later entries about this one. */
  voidedBy: { id: string; seq: number; text: string; by: string; on: string } | null;
  corrections: { id: string; seq: number; text: string; by: string; on: string }[];
  results: { id: string; seq: number; result: string; examiner: string; testOn: string }[];
  /** Of a sign-off, a recommendation, a part or further training. */
  body: SignOffBody | null;
  /** Of a void, a correction or a result. */
  later: LaterBody | null;
}
export interface LedgerFilter {
  id?: string;
  q?: string;
  kind?: string;
  from?: string;
  to?: string;
  checkoutId?: string;
  pilotId?: string;
  limit?: number;
  offset?: number;
}

type Row = RowOf<typeof ask.ledgerPage>;
const valuesOf = (user: CurrentUser, f: LedgerFilter) => {
  const safe = (f.q ?? '').replaceAll(/[!%_]/g, '!$&').replaceAll(' ', '_');
  return {
    // Nobody's own is nobody: whoever sees only what is theirs and is no pilot sees nothing.
    own: may.seeEverybody(user) ? null : (user.pilotId ?? ''),
    id: f.id || null,
    kind: f.kind || null,
    checkoutId: f.checkoutId || null,
    pilotId: f.pilotId || null,
    from: f.from || null,
    to: f.to || null,
    q: f.q || null,
    like: `%${safe}%`,
    start: `${safe}%`,
  };
};

export const ledgerCount = async (user: CurrentUser, filter: LedgerFilter = {}): Promise<number> =>
  (await ask.ledgerCount.one(valuesOf(user, filter)))?.n ?? 0;

/** Entries this user may see, newest first. A pilot sees what is about them and nothing else. */
export async function ledgerLines(user: CurrentUser, filter: LedgerFilter = {}): Promise<LedgerLine[]> {
  const found = await ask.ledgerPage.all({
    ...valuesOf(user, filter),
    limit: filter.limit ?? 500,
    offset: filter.offset ?? 0,
  });
  if (found.length === 0) return [];
  const about = await ask.ledgerLines.all({ ids: found.map((l) => l.id) });
  return found.map((l) =>
    lineOf(
      l,
      about.filter((a) => a.of === l.id),
    ),
  );
}

/** One entry with its signed row, for those who may see it. */
export async function entryFor(
  user: CurrentUser | null,
  id: string,
): Promise<{ line: LedgerLine; entry: LedgerRow } | null> {
  const line = user && (await ledgerLines(user, { id }))[0];
  const entry = line && (await ledgerEntry(id));
  return line && entry ? { line, entry } : null;
}

function lineOf(l: Row, about: readonly { id: string; seq: number; kind: string; canonical: string }[]): LedgerLine {
  const body = bodyOf(l);
  const later = 'of' in body;
  const notes = about.map((a) => {
    const b = bodyOf(a);
    return {
      id: a.id,
      seq: a.seq,
      kind: a.kind,
      text: b.text,
      by: b.signer.name,
      on: b.signedOn,
      result: b.result ?? '',
      examiner: b.examiner ?? '',
      testOn: b.testOn ?? '',
    };
  });
  return {
    seq: l.seq,
    id: l.id,
    kind: l.kind,
    checkoutId: l.checkoutId,
    pilotId: l.pilotId,
    signerId: l.signerId,
    signedAt: l.signedAt,
    hash: l.hash,
    canonical: l.canonical,
    signedOn: body.signedOn ?? l.signedAt.slice(0, 10),
    timeZone: body.timeZone ?? null,
    pilotName: body.pilot?.name ?? '',
    signerName: body.signer?.name ?? l.signerName ?? '',
    goals: body.goals ?? [],
    registration: body.airframe?.registration ?? l.registration ?? '',
    type: body.airframe?.type ?? l.typeName ?? '',
    voidedBy: notes.find((n) => n.kind === 'void') ?? null,
    corrections: notes.filter((n) => n.kind === 'correction'),
    results: notes.filter((n) => n.kind === 'test-result'),
    body: !later && l.kind !== 'key-rotated' ? body : null,
    later: later ? body : null,
  };
}
