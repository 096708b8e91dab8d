import { told } from '../sentences';
import type { Told } from '../../floor/sentences';
import type { Transaction } from 'sequelize';
import { type CaptureEvent, payloadSchema } from '@/domain/capture';
import type { EventType } from '@/domain/words';
import { definitionOf, pilotNamed } from '@/offline/protocol';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { CaptureEvents } from '../tables';
import { NOT_FOUND } from '../../floor/result';
import * as ask from '../../floor/statements/fly';

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
/** Commands of the office write these, each after checks of its own; no device does. */
const OFFICE_ONLY: Partial<Record<EventType, Told>> = {
  measured: told('accept-on-recording'),
  overruled: told('overrule-on-debrief'),
};
/** Said of a flight at a desk, after it: not under a signature, and not by who flew it. */
const atADesk = (event: CaptureEvent): boolean => definitionOf(event)?.said !== 'cockpit';

export const RESTS = told('signature-rests');
export const SIGNED = told('signed-already');

export async function flightOf(id: string, t: Transaction): Promise<Flight | null> {
  const found = await ask.flightOf.one({ id }, t);
  if (!found) return null;
  const second = found.secondPilotId;
  return {
    id,
    pilots: [found.pilotId, ...(second === null ? [] : [second])],
    checkouts: [found.checkoutId, ...(found.secondCheckoutId === null ? [] : [found.secondCheckoutId])],
    closed: new Map([
      ...(found.status === 'open' ? [] : [[found.pilotId, found.signedAt] as const]),
      ...(second === null || found.secondStatus === null || found.secondStatus === 'open'
        ? []
        : [[second, found.secondSignedAt] as const]),
    ]),
    instructors: new Set(found.instructors),
    flownOn: found.flownOn,
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
): Promise<Told | null> {
  if (flight === null || !mayRecord(user, event, flight)) return NOT_FOUND;
  const subject = await subjectOf(event, flight, t);
  return (
    formRefusal(event, flight, arrival) ??
    whoRefusal(user, event, flight, subject) ??
    datesRefusal(event, flight, arrival) ??
    (await signedRefusal(event, flight, subject, arrival, t)) ??
    (arrival.at === 'device' && definitionOf(event)?.said === 'office'
      ? (OFFICE_ONLY[event.type] ?? told('office-only'))
      : null) ??
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
  const before = await ask.subjectOf.all({ subject: event.subjectId }, t);
  const naming = before.filter((b) => b.names === 1);
  const other =
    before.some((b) => b.sortieId !== flight.id) ||
    (before.length === 0 &&
      event.subjectId !== flight.id &&
      (await ask.subjectOfSorties.one({ id: event.subjectId, flight: flight.id }, t)) !== null);
  return {
    pilotId: naming[naming.length - 1]?.pilot ?? flight.pilots[0] ?? '',
    elsewhere: other,
    known: before.length > 0,
  };
}

function formRefusal(event: CaptureEvent, flight: Flight, arrival: Arrival): Told | null {
  if (payloadSchema(event.type, event.v) === null) return told('newer-release');
  if (arrival.at === 'device' && event.deviceId === OFFICE_DEVICE) return told('office-number');
  if (JSON.stringify(event.payload).length > MOST.payload) return told('too-long');
  if (flight.events >= MOST.events || (event.type === 'landing-saved' && flight.landings >= MOST.landings))
    return event.type === 'landing-saved'
      ? told('most-landings', { count: flight.landings })
      : told('most-records', { count: flight.events });
  return null;
}

function whoRefusal(user: CurrentUser, event: CaptureEvent, flight: Flight, subject: Subject): Told | null {
  const [pilotId = ''] = flight.pilots;
  const own = user.pilotId;
  // A limit of the school is set aside by a chief, and not on a flight the chief is a pilot of.
  if (event.type === 'limit-overridden')
    return may.overrideSchoolLimit(user, { pilotId }) && (own === null || !flight.pilots.includes(own))
      ? null
      : told('chief-sets-aside');
  if (subject.elsewhere) return told('other-flight');
  const named = pilotNamed(event);
  if (named !== null && !flight.pilots.includes(named)) return told('pilot-not-in-flight');
  if (own !== null && (named === own || subject.pilotId === own || (atADesk(event) && flight.pilots.includes(own))))
    return told('own-flying');
  if (!flight.instructors.has(user.id) && !user.roles.includes('chief')) return told('other-instructor');
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

function datesRefusal(event: CaptureEvent, flight: Flight, arrival: Arrival): Told | null {
  // The server's clock may be fixed for a demonstration; what has really been is never ahead.
  const now = Math.max(Date.now(), Date.parse(nowIso()));
  const skew = arrival.skewMs ?? 0;
  const all = [Date.parse(event.deviceTime), ...instantsIn(event.payload)].map((ms) => ms + skew);
  if (all.some((ms) => !Number.isFinite(ms) || ms > now + AHEAD_MS)) return told('after-now');
  const earliest = Date.parse(`${flight.flownOn}T00:00:00.000Z`) - BEFORE_MS;
  // A clock that was never set says nothing of the day: only one that was measured is held to it.
  if (arrival.at === 'device' && arrival.skewMs !== null && all.some((ms) => ms < earliest))
    return told('before-flight', { flownOn: flight.flownOn });
  return null;
}

async function signedRefusal(
  event: CaptureEvent,
  flight: Flight,
  subject: Subject,
  arrival: Arrival,
  t: Transaction,
): Promise<Told | null> {
  const pilot = pilotNamed(event) ?? subject.pilotId;
  if (flight.closed.has(pilot)) {
    if (atADesk(event)) return SIGNED;
    if (definitionOf(event)?.changes && subject.known) return RESTS;
    // What was recorded before the signature may come in after it: it is kept, shown, and signed by a later entry.
    const since = flight.closed.get(pilot) ?? null;
    if (since !== null && Date.parse(event.deviceTime) + (arrival.skewMs ?? 0) > Date.parse(since))
      return told('signed-before');
  }
  return definitionOf(event)?.changes && (await restsOn(event.subjectId, flight.checkouts, t)) ? RESTS : null;
}

async function factRefusal(event: CaptureEvent, flight: Flight, t: Transaction): Promise<Told | null> {
  if (event.type === 'measured') {
    const { traceId } = event.payload as { traceId: string };
    const trace = await ask.factRefusal.one({ traceId, id: flight.id }, t);
    return trace ? null : told('other-recording');
  }
  if (event.type === 'overruled') {
    const { what, to } = event.payload as { what: string; to: string | null };
    if (what === 'class' && to === 'demonstration') return told('demonstration-by-correction');
  }
  return null;
}

/** Does a standing entry of these checkouts rest on a landing or an item? */
export async function restsOn(subjectId: string, checkouts: readonly string[], t: Transaction): Promise<boolean> {
  const found = await ask.restsOn.one({ checkouts, subject: JSON.stringify(subjectId) }, t);
  return found !== null;
}

/**
 * Is an event here already? `same` = this very one, so that sending twice is harmless; `other` = its number or its place
 * in the device's count stands for something else; a counter that leaps is a device gone wrong.
 */
export async function knownEvent(event: CaptureEvent, t: Transaction): Promise<'new' | 'same' | 'other' | 'leaps'> {
  const byId = await CaptureEvents.first({ where: { eventId: event.eventId } }, t);
  if (byId) {
    const before = payloadSchema(byId.type, byId.v)?.safeParse(byId.payload);
    const same =
      byId.deviceId === event.deviceId &&
      byId.deviceSeq === event.deviceSeq &&
      byId.sortieId === event.sortieId &&
      byId.subjectId === event.subjectId &&
      byId.author === event.author &&
      byId.type === event.type &&
      JSON.stringify(before?.success ? before.data : null) === JSON.stringify(event.payload);
    return same ? 'same' : 'other';
  }
  const place = await ask.knownEvent.one({ author: event.author, device: event.deviceId, seq: event.deviceSeq }, t);
  if ((place?.taken ?? 0) > 0) return 'other';
  return place?.last !== null && place?.last !== undefined && event.deviceSeq > place.last + MOST.jump
    ? 'leaps'
    : 'new';
}
