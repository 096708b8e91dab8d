import type { Transaction } from 'sequelize';
import { type CaptureEvent, PAYLOADS } from '@/domain/capture';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { row, rows } from '../../floor/connection';
import type { CaptureRow } from '../tables';
import { NOT_FOUND } from '../../floor/result';

/** The office is a device of its own: nothing comes in from outside under its name. */
export const OFFICE_DEVICE = '0ff1ce00-0000-4000-8000-000000000001';

/** One flight, as everybody who records of it is held against. */
export interface Flight {
  id: string;
  /** The pilot of the checkout, and who swaps seats. */
  pilots: readonly string[];
  checkouts: readonly string[];
  /** By pilot: their checkout here is not open any more, and since when; null of since = no entry says. */
  closed: ReadonlyMap<string, string | null>;
  /** Who briefed, flew or runs it: what is recorded of it is theirs to record. */
  instructors: ReadonlySet<string>;
  flownOn: string;
  landings: number;
  events: number;
}

/** How an event came: from a device with its clock, or written at a desk by a command that has checked its own form. */
export interface Arrival {
  at: 'desk' | 'device';
  /** How far the device's clock stood behind; null = not known. */
  skewMs: number | null;
}

const AHEAD_MS = 10 * 60_000;
const BEFORE_MS = 2 * 86_400_000;
const MOST = { landings: 120, events: 4000, payload: 20_000, jump: 100_000 } as const;
/** Said of a flight at a desk, after it: not under a signature, and not by who flew it. */
const AT_A_DESK: ReadonlySet<string> = new Set([
  'measured',
  'overruled',
  'item-waived',
  'stop-explained',
  'limit-overridden',
]);
/** Commands of the office write these, each after checks of its own; no device does. */
const OFFICE_ONLY: ReadonlyMap<string, string> = new Map([
  ['measured', 'Measures are taken over on the page of the recording.'],
  ['overruled', 'A verdict is overruled on the page of the debrief.'],
]);
/** What changes something recorded before. */
const CHANGES: ReadonlySet<string> = new Set(['corrected', 'undone', 'measured', 'overruled']);
const NAMES_A_PILOT: ReadonlySet<string> = new Set(['landing-saved', 'corrected', 'item-observed', 'pilot-swapped']);

export const RESTS =
  'A signature rests on this record, so it stays as it was signed. ' +
  'What is wrong is corrected by a further entry: a correction, or a void and a new signature.';
export const SIGNED = 'This checkout is signed: what it rests on stays as it was signed.';

export async function flightOf(id: string, t: Transaction): Promise<Flight | null> {
  const found = await row<{
    pilot_id: string;
    status: string;
    signed_at: string | null;
    checkout_id: string;
    second_pilot_id: string | null;
    second_checkout_id: string | null;
    second_status: string | null;
    second_signed_at: string | null;
    instructors: string;
    flown_on: string;
    landings: number;
    events: number;
  }>(
    `SELECT c.pilot_id, c.status, l.signed_at, s.checkout_id, s.second_pilot_id, s.second_checkout_id, s.flown_on,
       d.status AS second_status, m.signed_at AS second_signed_at,
       (SELECT json_group_array(u) FROM (SELECT s.instructor_id AS u UNION SELECT c.instructor_id UNION SELECT d.instructor_id WHERE d.id IS NOT NULL UNION SELECT created_by FROM briefs WHERE sortie_id = s.id)) AS instructors,
       (SELECT COUNT(*) FROM capture_events e WHERE e.sortie_id = s.id AND e.type = 'landing-saved') AS landings,
       (SELECT COUNT(*) FROM capture_events e WHERE e.sortie_id = s.id) AS events
     FROM sorties s JOIN checkouts c ON c.id = s.checkout_id LEFT JOIN ledger l ON l.id = c.signed_ledger_id
       LEFT JOIN checkouts d ON d.id = s.second_checkout_id LEFT JOIN ledger m ON m.id = d.signed_ledger_id
     WHERE s.id = :id`,
    { id },
    t,
  );
  if (!found) return null;
  const second = found.second_pilot_id;
  return {
    id,
    pilots: [found.pilot_id, ...(second === null ? [] : [second])],
    checkouts: [found.checkout_id, ...(found.second_checkout_id === null ? [] : [found.second_checkout_id])],
    closed: new Map([
      ...(found.status === 'open' ? [] : [[found.pilot_id, found.signed_at] as const]),
      ...(second === null || found.second_status === null || found.second_status === 'open'
        ? []
        : [[second, found.second_signed_at] as const]),
    ]),
    instructors: new Set(JSON.parse(found.instructors) as string[]),
    flownOn: found.flown_on,
    landings: found.landings,
    events: found.events,
  };
}

/**
 * Why an event is not taken; null = it is. The one set of rules for everything that is recorded of a flight, from a device
 * or at a desk.
 */
export async function refusalOf(
  user: CurrentUser,
  event: CaptureEvent,
  flight: Flight | null,
  arrival: Arrival,
  t: Transaction,
): Promise<string | null> {
  if (flight === null || !mayRecord(user, event, flight)) return NOT_FOUND;
  const subject = await subjectOf(event, flight, t);
  return (
    formRefusal(event, flight, arrival) ??
    whoRefusal(user, event, flight, subject) ??
    datesRefusal(event, flight, arrival) ??
    (await signedRefusal(event, flight, subject, arrival, t)) ??
    (arrival.at === 'device' ? (OFFICE_ONLY.get(event.type) ?? null) : null) ??
    (await factRefusal(event, flight, t))
  );
}

function mayRecord(user: CurrentUser, event: CaptureEvent, flight: Flight): boolean {
  const [pilotId = ''] = flight.pilots;
  return (
    may.runCheckout(user, { pilotId }) ||
    (event.type === 'limit-overridden' && may.overrideSchoolLimit(user, { pilotId }))
  );
}

interface Subject {
  /** The pilot of the landing or item; of a flight, the pilot of the checkout. */
  pilotId: string;
  elsewhere: boolean;
  known: boolean;
}
/** What the event is about, as recorded so far. */
async function subjectOf(event: CaptureEvent, flight: Flight, t: Transaction): Promise<Subject> {
  const before = await rows<{ sortie_id: string; pilot: string | null; names: number }>(
    `SELECT sortie_id, json_extract(payload, '$.pilotId') AS pilot, type IN ('landing-saved', 'corrected', 'item-observed') AS names
     FROM capture_events WHERE subject_id = :subject ORDER BY rowid`,
    { subject: event.subjectId },
    t,
  );
  const naming = before.filter((b) => b.names === 1);
  const other =
    before.some((b) => b.sortie_id !== flight.id) ||
    (before.length === 0 &&
      event.subjectId !== flight.id &&
      (await row(
        'SELECT id FROM sorties WHERE id = :id AND shared_with IS NOT :flight',
        { id: event.subjectId, flight: flight.id },
        t,
      )) !== null);
  return {
    pilotId: naming[naming.length - 1]?.pilot ?? flight.pilots[0] ?? '',
    elsewhere: other,
    known: before.length > 0,
  };
}

/** Who is named in what is recorded; null = nobody in particular. */
const namedBy = (event: CaptureEvent): string | null =>
  NAMES_A_PILOT.has(event.type) ? ((event.payload as { pilotId?: string | null }).pilotId ?? null) : null;

function formRefusal(event: CaptureEvent, flight: Flight, arrival: Arrival): string | null {
  if (event.v !== 1)
    return 'This was recorded by a newer release than this server runs. It stays on the device; update the server, then send it again.';
  if (arrival.at === 'device' && event.deviceId === OFFICE_DEVICE)
    return 'This device number belongs to the office. Reload the page so that it takes one of its own.';
  if (JSON.stringify(event.payload).length > MOST.payload) return 'This is longer than one record may be.';
  if (flight.events >= MOST.events || (event.type === 'landing-saved' && flight.landings >= MOST.landings))
    return (
      'This flight has ' +
      `${event.type === 'landing-saved' ? `${flight.landings} landings` : `${flight.events} records`}, the ` +
      'most one flight holds. Brief the next lesson and record there.'
    );
  return null;
}

function whoRefusal(user: CurrentUser, event: CaptureEvent, flight: Flight, subject: Subject): string | null {
  const [pilotId = ''] = flight.pilots;
  const own = user.pilotId;
  // A limit of the school is set aside by a chief, and not on a flight the chief is a pilot of.
  if (event.type === 'limit-overridden')
    return may.overrideSchoolLimit(user, { pilotId }) && (own === null || !flight.pilots.includes(own))
      ? null
      : 'A limit of the school is set aside by the chief instructor.';
  if (subject.elsewhere) return 'This belongs to another flight. Record it there.';
  const named = namedBy(event);
  if (named !== null && !flight.pilots.includes(named))
    return 'This pilot is not in this flight. Say who swaps seats first, then put the landing right.';
  if (
    own !== null &&
    (named === own || subject.pilotId === own || (AT_A_DESK.has(event.type) && flight.pilots.includes(own)))
  )
    return 'Nobody records, changes or judges their own flying: the instructor of this flight does.';
  if (!flight.instructors.has(user.id) && !user.roles.includes('chief'))
    return (
      'Another instructor briefed this flight. Save the brief again in your name to take it over, or ask ' +
      'them or the chief instructor.'
    );
  return null;
}

/** Instants inside what was recorded. */
const INSTANTS: ReadonlySet<string> = new Set(['at', 'endedAt']);
function instantsIn(value: unknown, depth = 0): number[] {
  if (value === null || typeof value !== 'object' || depth > 4) return [];
  return Object.entries(value).flatMap(([k, v]) =>
    INSTANTS.has(k) && typeof v === 'string' ? [Date.parse(v)] : instantsIn(v, depth + 1),
  );
}

function datesRefusal(event: CaptureEvent, flight: Flight, arrival: Arrival): string | null {
  // The server's clock may be fixed for a demonstration; what has really been is never ahead.
  const now = Math.max(Date.now(), Date.parse(nowIso()));
  const skew = arrival.skewMs ?? 0;
  const all = [Date.parse(event.deviceTime), ...instantsIn(event.payload)].map((ms) => ms + skew);
  if (all.some((ms) => !Number.isFinite(ms) || ms > now + AHEAD_MS))
    return 'This is dated after now. Set the clock of the device, then record it again.';
  const earliest = Date.parse(`${flight.flownOn}T00:00:00.000Z`) - BEFORE_MS;
  // A clock that was never set says nothing of the day: only one that was measured is held to it.
  if (arrival.at === 'device' && arrival.skewMs !== null && all.some((ms) => ms < earliest))
    return `This is dated before the flight of ${flight.flownOn}. Set the clock of the device, then record it again.`;
  return null;
}

async function signedRefusal(
  event: CaptureEvent,
  flight: Flight,
  subject: Subject,
  arrival: Arrival,
  t: Transaction,
): Promise<string | null> {
  const pilot = namedBy(event) ?? subject.pilotId;
  if (flight.closed.has(pilot)) {
    if (AT_A_DESK.has(event.type)) return SIGNED;
    if (CHANGES.has(event.type) && subject.known) return RESTS;
    // What was recorded before the signature may come in after it: it is kept, shown, and signed by a later entry.
    const since = flight.closed.get(pilot) ?? null;
    if (since !== null && Date.parse(event.deviceTime) + (arrival.skewMs ?? 0) > Date.parse(since))
      return 'This checkout was signed before this was recorded: nothing is added to it. Open a new checkout to go on.';
  }
  return CHANGES.has(event.type) && (await restsOn(event.subjectId, flight.checkouts, t)) ? RESTS : null;
}

async function factRefusal(event: CaptureEvent, flight: Flight, t: Transaction): Promise<string | null> {
  if (event.type === 'measured') {
    const { traceId } = event.payload as { traceId: string };
    const trace = await row(
      'SELECT t.id FROM traces t JOIN sorties s ON s.id = t.sortie_id WHERE t.id = :traceId AND (s.id = :id OR s.shared_with = :id)',
      { traceId, id: flight.id },
      t,
    );
    return trace ? null : 'This recording is not of this flight. Take measures over on the page of its own.';
  }
  if (event.type === 'overruled') {
    const { what, to } = event.payload as { what: string; to: string | null };
    if (what === 'class' && to === 'demonstration')
      return 'A landing becomes a demonstration by who flew it: correct that in the cockpit.';
  }
  return null;
}

/** Does a standing entry of these checkouts rest on a landing or an item? */
export async function restsOn(subjectId: string, checkouts: readonly string[], t: Transaction): Promise<boolean> {
  const found = await row<{ id: string }>(
    `SELECT l.id FROM ledger l
     WHERE l.checkout_id IN (:checkouts) AND l.kind IN ('sign-off', 'recommendation', 'part-sign-off')
       AND instr(l.canonical, :subject) > 0
       AND NOT EXISTS (SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = l.id) LIMIT 1`,
    { checkouts, subject: JSON.stringify(subjectId) },
    t,
  );
  return found !== null;
}

/**
 * Is an event here already? `same` = this very one, so that sending twice is harmless; `other` = its number or its place
 * in the device's count stands for something else; a counter that leaps is a device gone wrong.
 */
export async function knownEvent(event: CaptureEvent, t: Transaction): Promise<'new' | 'same' | 'other' | 'leaps'> {
  const byId = await row<CaptureRow>('SELECT * FROM capture_events WHERE event_id = :id', { id: event.eventId }, t);
  if (byId) {
    const before = PAYLOADS[byId.type].safeParse(JSON.parse(byId.payload));
    const same =
      byId.device_id === event.deviceId &&
      byId.device_seq === event.deviceSeq &&
      byId.sortie_id === event.sortieId &&
      byId.subject_id === event.subjectId &&
      byId.author === event.author &&
      byId.type === event.type &&
      JSON.stringify(before.success ? before.data : null) === JSON.stringify(event.payload);
    return same ? 'same' : 'other';
  }
  const place = await row<{ taken: number; last: number | null }>(
    `SELECT COALESCE(SUM(device_seq = :seq), 0) AS taken, MAX(device_seq) AS last FROM capture_events
       WHERE author = :author AND device_id = :device`,
    { author: event.author, device: event.deviceId, seq: event.deviceSeq },
    t,
  );
  if ((place?.taken ?? 0) > 0) return 'other';
  return place?.last !== null && place?.last !== undefined && event.deviceSeq > place.last + MOST.jump
    ? 'leaps'
    : 'new';
}
