import type { EntryKind, LaterBody, SignOffBody } from '@/domain/book';
import type { LedgerRow } from '@/core/ledger';
import { ledgerEntry } from '../book';
import { row, rows } from '../../floor/connection';
import { type CurrentUser, may } from '../../floor/auth/permissions';

export interface BookLine {
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
export interface BookFilter {
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

interface Row {
  seq: number;
  id: string;
  kind: EntryKind;
  checkout_id: string;
  pilot_id: string | null;
  signer_id: string;
  signed_at: string;
  hash: string;
  canonical: string;
  registration: string | null;
  type_name: string | null;
  signer_name: string | null;
}
const FROM = `FROM ledger l LEFT JOIN checkouts c ON c.id = l.checkout_id LEFT JOIN pilots p ON p.id = c.pilot_id LEFT JOIN airframes a ON a.id = c.airframe_id LEFT JOIN types ty ON ty.id = a.type_id LEFT JOIN users u ON u.id = l.signer_id`;

const whereOf = (
  user: CurrentUser,
  f: BookFilter,
): string => `WHERE 1 = 1 ${may.seeEverybody(user) ? '' : 'AND c.pilot_id = :own'} ${f.id ? 'AND l.id = :id' : ''} ${f.kind ? 'AND l.kind = :kind' : ''} ${f.checkoutId ? 'AND l.checkout_id = :checkoutId' : ''} ${f.pilotId ? 'AND c.pilot_id = :pilotId' : ''}
  ${f.from ? "AND COALESCE(json_extract(l.canonical, '$.body.signedOn'), substr(l.signed_at, 1, 10)) >= :from" : ''} ${f.to ? "AND COALESCE(json_extract(l.canonical, '$.body.signedOn'), substr(l.signed_at, 1, 10)) <= :to" : ''}
  ${f.q ? "AND (json_extract(l.canonical, '$.body.pilot.name') LIKE :like ESCAPE '!' OR json_extract(l.canonical, '$.body.signer.name') LIKE :like ESCAPE '!' OR json_extract(l.canonical, '$.body.goals') LIKE :like ESCAPE '!' OR a.registration LIKE :like ESCAPE '!' OR ty.name LIKE :like ESCAPE '!' OR l.hash LIKE :start ESCAPE '!' OR CAST(l.seq AS TEXT) = :q)" : ''}`;
const valuesOf = (user: CurrentUser, f: BookFilter) => {
  const safe = (f.q ?? '').replaceAll(/[!%_]/g, '!$&').replaceAll(' ', '_');
  return {
    own: user.pilotId,
    id: f.id ?? '',
    kind: f.kind ?? '',
    checkoutId: f.checkoutId ?? '',
    pilotId: f.pilotId ?? '',
    from: f.from ?? '',
    to: f.to ?? '',
    q: f.q ?? '',
    like: `%${safe}%`,
    start: `${safe}%`,
    limit: f.limit ?? 500,
    offset: f.offset ?? 0,
  };
};

export const bookCount = async (user: CurrentUser, filter: BookFilter = {}): Promise<number> =>
  (await row<{ n: number }>(`SELECT COUNT(*) AS n ${FROM} ${whereOf(user, filter)}`, valuesOf(user, filter)))?.n ?? 0;

/** Entries this user may see, newest first. A pilot sees what is about them and nothing else. */
export async function bookLines(user: CurrentUser, filter: BookFilter = {}): Promise<BookLine[]> {
  const found = await rows<Row>(
    `SELECT l.seq, l.id, l.kind, l.checkout_id, c.pilot_id, l.signer_id, l.signed_at, l.hash, l.canonical, a.registration, ty.name AS type_name, u.name AS signer_name ${FROM} ${whereOf(user, filter)} ORDER BY l.seq DESC LIMIT :limit OFFSET :offset`,
    valuesOf(user, filter),
  );
  if (found.length === 0) return [];
  const about = await rows<{ id: string; seq: number; kind: string; canonical: string; of: string }>(
    "SELECT id, seq, kind, canonical, json_extract(canonical, '$.body.of.id') AS \"of\" FROM ledger WHERE kind IN ('void', 'correction', 'test-result') AND json_extract(canonical, '$.body.of.id') IN (:ids) ORDER BY seq",
    { ids: found.map((l) => l.id) },
  );
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
): Promise<{ line: BookLine; entry: LedgerRow } | null> {
  const line = user && (await bookLines(user, { id }))[0];
  const entry = line && (await ledgerEntry(id));
  return line && entry ? { line, entry } : null;
}

function lineOf(l: Row, about: readonly { id: string; seq: number; kind: string; canonical: string }[]): BookLine {
  const body = (JSON.parse(l.canonical) as { body: SignOffBody & LaterBody }).body;
  const later = 'of' in body;
  const notes = about.map((a) => {
    const b = (JSON.parse(a.canonical) as { body: LaterBody }).body;
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
    checkoutId: l.checkout_id,
    pilotId: l.pilot_id,
    signerId: l.signer_id,
    signedAt: l.signed_at,
    hash: l.hash,
    canonical: l.canonical,
    signedOn: body.signedOn ?? l.signed_at.slice(0, 10),
    timeZone: body.timeZone ?? null,
    pilotName: body.pilot?.name ?? '',
    signerName: body.signer?.name ?? l.signer_name ?? '',
    goals: body.goals ?? [],
    registration: body.airframe?.registration ?? l.registration ?? '',
    type: body.airframe?.type ?? l.type_name ?? '',
    voidedBy: notes.find((n) => n.kind === 'void') ?? null,
    corrections: notes.filter((n) => n.kind === 'correction'),
    results: notes.filter((n) => n.kind === 'test-result'),
    body: !later && l.kind !== 'key-rotated' ? body : null,
    later: later ? body : null,
  };
}
