import { type Told } from '../../floor/sentences';
import { told } from '../sentences';
import type { Transaction } from 'sequelize';
import { z } from 'zod';
import { type MeasuredEdges, type Overruled, itemStops, judgeCaptured, landingStops, standardOn } from '@/core/assess';
import { INSPECT_FPM } from '@/core/touchdown';
import { usableEnds } from '@/core/approach';
import { gearMassGroup } from '@/core/plan';
import { touchdownPoint } from '@/core/sheet';
import { ktPerUnit } from '@/core/speeds';
import { components, convertReference } from '@/core/wind';
import { type CaptureEvent, CaptureEventSchema, type TimerMarked, payloadSchema } from '@/domain/capture';
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import { type FoldedLanding, type SyncAnswer, fold, gearAt, affecting } from '@/offline/protocol';
import type { Stop } from '@/domain/stops';
import { refreshLater } from '../../checkout/commands/tallies';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { aerodromeAt, contentById } from '../../rules/content';
import { database } from '../../floor/connection';
import { write } from '../../floor/write';
import { type SortieRow, eventsOf, sortiesOf } from '../../checkout/queries/flights';
import { type CheckoutHead, checkoutHead } from '../../checkout/queries/head';
import { flightStops, stopRules } from '../queries/stops';
import { diskProblem, log } from '../../floor/log';
import { NOT_FOUND, type Result, problem, zodProblems } from '../../floor/result';
import { clean } from '../../floor/clean';
import { enterSeen } from './exceeded';
import { type Arrival, type Flight, flightOf, knownEvent, refusalOf } from './event-door';
import * as ask from '../../floor/statements/fly';
import { Checkouts, Sorties } from '../../checkout/tables';
import { Pilots, Users } from '../../account/tables';
import { CaptureEvents, Landings, Stops } from '../tables';
import type { NewRow } from '../../floor/table';

/**
 * When the device said it sent, and when it came in, by the clock that never stands still: their difference is the
 * device's error.
 */
export interface SentClock {
  sentAtMs: number;
  receivedAtMs: number;
}
/** A difference beyond this says that a clock was never set; the order then rests on the device's own counter. */
const SKEW_CEILING_MS = 400 * 86_400_000;

/**
 * Takes capture events from a device. An event already here counts as accepted, so that sending twice is harmless.
 * Events are refused one by one with a reason; the rest of the batch is kept. Each goes in under a savepoint of its own:
 * one that the database or the projection refuses takes nothing with it.
 */
export async function recordEvents(
  user: CurrentUser,
  raw: readonly unknown[],
  clock: SentClock | null = null,
): Promise<SyncAnswer> {
  const measured = clock ? Math.round(clock.receivedAtMs - clock.sentAtMs) : null;
  const skewMs = measured !== null && Math.abs(measured) <= SKEW_CEILING_MS ? measured : null;
  const answer: SyncAnswer = { accepted: [], refused: [], held: [], skewMs };
  const events: CaptureEvent[] = [];
  for (const item of raw) {
    const checked = checkEvent(item);
    if ('event' in checked) events.push(checked.event);
    else answer.refused.push(checked);
  }
  await write(async (t) => {
    const flights = new Map<string, Flight | null>();
    const taken = new Map<string, CaptureEvent[]>();
    for (const event of events) {
      if (event.author !== user.id) {
        answer.held.push({
          eventId: event.eventId,
          message: told('other-account').message,
        });
        continue;
      }
      const flight = flights.has(event.sortieId)
        ? (flights.get(event.sortieId) ?? null)
        : await flightOf(event.sortieId, t);
      flights.set(event.sortieId, flight);
      const refusal = await apart(t, () => admit(user, event, flight, { at: 'device', skewMs }, t));
      if (refusal === 'same') answer.accepted.push(event.eventId);
      else if (refusal !== null) answer.refused.push({ eventId: event.eventId, ...refusal });
      else {
        taken.set(event.sortieId, [...(taken.get(event.sortieId) ?? []), event]);
        if (flight) {
          flight.events++;
          if (event.type === 'landing-saved') flight.landings++;
        }
      }
    }
    for (const [sortieId, news] of taken) {
      const wrong = news.some((e) => PROJECTED.includes(e.type)) ? await projected(sortieId, t) : null;
      for (const { eventId } of news)
        if (wrong === null) answer.accepted.push(eventId);
        else answer.refused.push({ eventId, ...wrong });
    }
  });
  return answer;
}

/** Looks at one event by every rule and writes it down. @returns why not, or `same` when it is here already */
async function admit(
  user: CurrentUser,
  event: CaptureEvent,
  flight: Flight | null,
  arrival: Arrival,
  t: Transaction,
): Promise<Told | 'same' | null> {
  const known = await knownEvent(event, t);
  if (known === 'same') return known;
  const refusal = await refusalOf(user, event, flight, arrival, t);
  if (refusal) return refusal;
  if (known !== 'new') return KNOWN[known];
  await keepEvent(event, arrival.skewMs, t);
  return null;
}
const KNOWN = {
  other: told('number-used'),
  leaps: told('counter-leapt'),
};
const FAILED = told('not-taken-in');

/** Runs a step so that its failure undoes it alone. A disk that is full is no failure of one step. */
async function apart<T>(t: Transaction, step: () => Promise<T>): Promise<T | Told> {
  const sql = (text: string) => database().sequelize.query(text, { transaction: t });
  await sql('SAVEPOINT step');
  try {
    const answer = await step();
    await sql('RELEASE step');
    return answer;
  } catch (error) {
    if (diskProblem(error)) throw error;
    log.error({ err: error }, 'event refused by the server');
    await sql('ROLLBACK TO step');
    await sql('RELEASE step');
    return FAILED;
  }
}
const projected = (sortieId: string, t: Transaction): Promise<Told | null> =>
  apart(t, async () => {
    await projectSortie(sortieId, t);
    return null;
  });

export const keepEvent = (event: CaptureEvent, skewMs: number | null, t: Transaction): Promise<unknown> =>
  CaptureEvents.insert(
    {
      eventId: event.eventId,
      deviceId: event.deviceId,
      deviceSeq: event.deviceSeq,
      sortieId: event.sortieId,
      subjectId: event.subjectId,
      author: event.author,
      type: event.type,
      v: event.v,
      deviceTime: new Date(event.deviceTime).toISOString(),
      payload: event.payload,
      receivedAt: nowIso(),
      skewMs: skewMs,
    },
    t,
  );

/** What a landing or an item, whose it was, or what stops it is made of. */
export const PROJECTED = affecting('landings', 'items', 'gear', 'limits', 'exceedances');

function checkEvent(item: unknown): { event: CaptureEvent } | { eventId: string; message: string } {
  const cleaned = clean(item);
  const parsed = CaptureEventSchema.safeParse(cleaned.ok ? cleaned.value : null);
  if (!cleaned.ok || !parsed.success) {
    const id = (item as { eventId?: unknown } | null)?.eventId;
    return {
      eventId: typeof id === 'string' ? id : 'unknown',
      message: !cleaned.ok
        ? cleaned.problem.message
        : told('not-an-event', {
            issues: (parsed.error?.issues ?? []).map((i) => `${i.path.join('.')} ${i.message}`).join('; '),
          }).message,
    };
  }
  const event = parsed.data;
  const schema = payloadSchema(event.type, event.v);
  // Of a later release: it is refused at the door, with what to do.
  if (!schema) return { event };
  const payload = schema.safeParse(event.payload);
  if (!payload.success)
    return {
      eventId: event.eventId,
      message: `${event.type}: ${payload.error.issues.map((i) => `${i.path.join('.')} ${i.message}`).join('; ')}`,
    };
  return { event: { ...event, payload: payload.data } };
}

/** Rebuilds the landings of one flight from its events. Deterministic: the same events always give the same rows. */
export async function projectSortie(sortieId: string, t: Transaction): Promise<void> {
  const flight = await Sorties.first(
    {
      where: { id: sortieId },
      pick: ['checkoutId', 'secondPilotId', 'secondCheckoutId'],
      with: { checkout: ['airframeId'] },
    },
    t,
  );
  const head = flight && (await checkoutHead(flight.checkoutId, t));
  if (!head) return;
  const sortie = (await sortiesOf(head.id, t)).find((s) => s.id === sortieId);
  if (!sortie || sortie.sharedWith !== null) return;
  t.afterCommit(() => refreshLater([head.id, ...(flight.secondCheckoutId ? [flight.secondCheckoutId] : [])]));
  const folded = fold(await eventsOf({ sortieId }, [...new Set([...PROJECTED, ...affecting('clock')])], t));
  await enterSeen(folded.exceeded, { head, airframeId: sortie.airframeId ?? flight.checkout.airframeId, sortieId }, t);
  const second = flight.secondPilotId;
  const theirs =
    second !== null &&
    [...folded.landings.map((l) => l.landing.pilotId), ...folded.items.map((i) => i.data.pilotId)].includes(second);
  const shared = theirs && flight.secondCheckoutId ? await sharedLesson(sortie, flight.secondCheckoutId, t) : null;
  const gates = sortie.brief?.snapshot.gates ?? [];
  const fenceTarget = gates[gates.length - 1]?.target ?? null;
  const aerodrome = await aerodromeAt(sortie.aerodrome, t);
  const companion = await Sorties.first({ where: { sharedWith: sortieId }, pick: ['id'] }, t);
  const landingRows: NewRow<typeof Landings>[] = [];
  const stopRows: NewRow<typeof Stops>[] = [];
  const offs = takeOffs(folded, sortie.brief?.choices.runwayEnd ?? null, aerodrome);
  const seats = [
    {
      of: (pilotId: string | null) => pilotId !== second || second === null,
      head: head as CheckoutHead | null,
      pilotId: head.pilotId,
      sortieId,
    },
    ...(second === null
      ? []
      : [
          {
            of: (pilotId: string | null) => pilotId === second,
            head: shared?.head ?? null,
            pilotId: second,
            sortieId: shared?.sortieId ?? sortieId,
          },
        ]),
  ];
  for (const seat of seats) {
    // A pilot without a checkout here is judged by the standard of the flight, and the landing counts for recency only.
    const by = seat.head ?? head;
    const standard = standardOn(await contentById('standard', by.standardId, t), by.sheet, by.goals);
    const { unit } = by.sheet.dial;
    const rules = stopRules(
      by.sheet,
      await contentById('house', by.houseId, t),
      aerodrome,
      sortie.brief?.snapshot ?? null,
      folded.overrides[sortieId] !== undefined,
    );
    const stops: { subject: 'flight' | 'landing' | 'item'; id: string; stops: Stop[] }[] = [];
    const moments: number[] = [];
    for (const { id, number, first, author, savedAt, landing, measured, overruled } of folded.landings.filter((l) =>
      seat.of(l.landing.pilotId),
    )) {
      const judged = judgeCaptured(landing, {
        standard,
        fenceTarget,
        ktPerUnit: ktPerUnit(unit),
        unit,
        measured: measured?.values ?? null,
        edges: edgesOf(by.sheet, landing.runwayEnd, aerodrome),
        overruled: await namedOverrulings(overruled, t),
        schools: {
          bounce: by.schools.bounce,
          speed: by.schools['approach-speed'] ?? by.sheet.landing.speedSchool,
          attitude: by.schools['crosswind-attitude'],
        },
        gates,
      });
      landingRows.push({
        id,
        sortieId: seat.sortieId,
        checkoutId: seat.head?.id ?? null,
        pilotId: seat.pilotId,
        number,
        first,
        kind: landing.kind,
        landingClass: judged.landingClass,
        intended: landing.intended,
        gearGroup: gearMassGroup(by.sheet),
        ...loggedCrosswind(landing, savedAt, aerodrome),
        flownOn: sortie.flownOn,
        savedAt,
        author,
        captured: landing,
        judged,
        surface: surfaceOf(landing.runwayEnd, aerodrome),
        tailwheel: by.sheet.gear.layout === 'tailwheel',
        measured: measured ?? null,
        level: landing.intervention,
        shown: landing.demonstration,
        endedAt: landing.endedAt ?? savedAt,
        offSurface: offs.get(id)?.surface ?? surfaceOf(landing.runwayEnd, aerodrome),
        offAt: offs.get(id)?.at ?? null,
        aerodrome: sortie.aerodrome,
      });
      const touchedAt = landing.endedAt ?? savedAt;
      // Written in from paper its moment is not known: only a grounding of the days before was there for certain.
      moments.push(Date.parse(landing.fromPaper ? `${sortie.flownOn}T00:00:00.000Z` : touchedAt));
      stops.push({
        subject: 'landing',
        id,
        stops: landingStops(landing, touchedAt, rules, gearAt(folded.gearLog, sortieId, Date.parse(touchedAt), id)),
      });
    }
    const flown = new Set(
      (await Promise.all(by.programmeIds.map((p) => contentById('programme', p, t))))
        .flatMap((p) => p.items)
        .filter((i) => i.where !== 'ground')
        .map((i) => i.id),
    );
    for (const item of folded.items.filter((i) => seat.of(i.data.pilotId))) {
      // What is shown on the ground is no flight of a grounded aeroplane.
      if (flown.has(item.data.itemId)) moments.push(Date.parse(item.at));
      stops.push({ subject: 'item', id: item.id, stops: itemStops(item.data.detail, rules) });
    }
    if (moments.length > 0)
      stops.push({ subject: 'flight', id: seat.sortieId, stops: await flightStops(by, sortie, moments, t) });
    for (const s of stops)
      for (const [position, stop] of s.stops.entries())
        stopRows.push({
          id: `${s.id} ${seat.pilotId} ${position}`,
          subjectId: s.id,
          sortieId: seat.sortieId,
          checkoutId: seat.head?.id ?? null,
          subject: s.subject,
          position,
          code: stop.code,
          facts: stop.facts,
        });
  }
  const where = { sortieId: [sortieId, ...(companion ? [companion.id] : [])] };
  await Landings.replace(where, landingRows, t);
  await Stops.replace(where, stopRows, t);
}

/** Overrulings with the names of those who made them. */
async function namedOverrulings(
  of: FoldedLanding['overruled'],
  t: Transaction,
): Promise<Record<string, Overruled> | null> {
  if (Object.keys(of).length === 0) return null;
  const names = await Users.find({ where: { id: Object.values(of).map((o) => o.author) }, pick: ['id', 'name'] }, t);
  return Object.fromEntries(
    Object.entries(of).map(([what, { author, ...o }]): [string, Overruled] => [
      what,
      { ...o, by: names.find((n) => n.id === author)?.name ?? '' },
    ]),
  );
}

/** The second pilot's own lesson of a shared flight; made once, when the first thing of theirs comes in. */
async function sharedLesson(
  sortie: SortieRow,
  checkoutId: string,
  t: Transaction,
): Promise<{ head: CheckoutHead; sortieId: string } | null> {
  const head = await checkoutHead(checkoutId, t);
  if (!head) return null;
  const known = await Sorties.first({ where: { sharedWith: sortie.id }, pick: ['id'] }, t);
  if (known) return { head, sortieId: known.id };
  const last = await ask.sharedLesson.one({ checkoutId }, t);
  const id = `${sortie.id}-second`;
  await Sorties.insert(
    {
      id,
      checkoutId: checkoutId,
      lesson: (last?.lesson ?? 0) + 1,
      flownOn: sortie.flownOn,
      instructorId: sortie.instructorId,
      createdAt: nowIso(),
      secondPilotId: null,
      secondCheckoutId: null,
      sharedWith: sortie.id,
      airframeId: sortie.airframeId,
      aerodrome: sortie.aerodrome,
    },
    t,
  );
  return { head, sortieId: id };
}

interface TakeOff {
  surface: 'land' | 'water';
  at: string | null;
}
/**
 * Where and when the take-off before each landing was. After a landing it is from there and then; before the first, from
 * the runway of the brief, at the take-off as it was tapped. An instant nobody knows is null: never night.
 */
function takeOffs(folded: ReturnType<typeof fold>, briefed: string | null, aerodrome: Aerodrome): Map<string, TakeOff> {
  const off = new Map<string, TakeOff>();
  const tapped = folded.marks.filter((m: TimerMarked) => m.mark === 'take-off').map((m) => m.at);
  let before: TakeOff | null = null;
  for (const { id, landing, savedAt } of folded.landings) {
    const at = landing.endedAt ?? savedAt;
    const from: TakeOff = before ?? {
      surface: surfaceOf(briefed ?? landing.runwayEnd, aerodrome),
      at: tapped.filter((x) => Date.parse(x) <= Date.parse(at)).sort()[0] ?? null,
    };
    off.set(id, from);
    // Aloft again without a touch: the take-off is still that of before.
    before =
      landing.kind === 'go-around' || landing.kind === 'low-pass'
        ? from
        : { surface: surfaceOf(landing.runwayEnd, aerodrome), at };
  }
  return off;
}

/** How far a measured touch may lie: back to the threshold, out to the edge, down to an inspection. */
function edgesOf(sheet: TypeSheet, runwayEnd: string, aerodrome: Aerodrome): MeasuredEdges {
  const strip = aerodrome.runways.find((r) => r.ends.some((e) => e.ident === runwayEnd));
  const surface = surfaceOf(runwayEnd, aerodrome);
  return {
    // As a recording measures it: from the same point.
    shortM: touchdownPoint(sheet),
    sideM: strip && surface === 'land' ? (strip.widthM - sheet.gear.trackM.value) / 2 : null,
    inspectFpm: INSPECT_FPM,
  };
}

const surfaceOf = (runwayEnd: string, aerodrome: Aerodrome): 'land' | 'water' =>
  aerodrome.runways.find((r) => r.ends.some((e) => e.ident === runwayEnd))?.surface === 'water' ? 'water' : 'land';

function loggedCrosswind(
  landing: { wind: { fromDegMag: number; kt: number; at: string } | null; runwayEnd: string; endedAt: string | null },
  savedAt: string,
  aerodrome: Aerodrome,
) {
  const end = usableEnds(aerodrome, 'amphibian').find((e) => e.ident === landing.runwayEnd);
  if (!landing.wind || !end) return { crosswindKt: null, windAgeMin: null };
  const runwayMag = convertReference(end.trueBearingDeg, 'true', 'magnetic', aerodrome.variationDeg);
  const touchedAt = landing.endedAt ?? savedAt;
  return {
    crosswindKt: components(landing.wind.fromDegMag, landing.wind.kt, null, runwayMag).crosswindKt,
    windAgeMin: Math.abs(Date.parse(touchedAt) - Date.parse(landing.wind.at)) / 60_000,
  };
}

export const ShareForm = z.object({ sortieId: z.string().min(1), pilotId: z.string().min(1).nullable() });

/**
 * Says who swaps seats in this flight. Their landings go to their own open checkout on this aeroplane, or count for
 * recency only.
 */
export async function shareFlight(user: CurrentUser, form: unknown): Promise<Result<{ checkoutId: string | null }>> {
  const parsed = ShareForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { sortieId, pilotId } = parsed.data;
  return write(async (t): Promise<Result<{ checkoutId: string | null }>> => {
    const flight = await Sorties.first(
      {
        where: { id: sortieId },
        pick: ['checkoutId', 'secondPilotId', 'sharedWith'],
        with: { checkout: ['pilotId', 'airframeId'] },
      },
      t,
    );
    if (!flight || flight.sharedWith !== null || !may.runCheckout(user, { pilotId: flight.checkout.pilotId }))
      return problem('', NOT_FOUND);
    if (flight.secondPilotId === pilotId) return { ok: true, checkoutId: null };
    if (pilotId === flight.checkout.pilotId) return problem('pilotId', told('same-pilot'));
    if (pilotId !== null && !may.runCheckout(user, { pilotId })) return problem('pilotId', told('own-recording'));
    if (flight.secondPilotId !== null) {
      const folded = fold(await eventsOf({ sortieId }, affecting('captured'), t));
      if (
        [...folded.landings.map((l) => l.landing.pilotId), ...folded.items.map((i) => i.data.pilotId)].includes(
          flight.secondPilotId,
        )
      )
        return problem('pilotId', told('second-recorded'));
    }
    const known = pilotId === null ? null : await Pilots.first({ where: { id: pilotId }, pick: ['id'] }, t);
    if (pilotId !== null && !known) return problem('pilotId', told('pilot-unknown'));
    const open =
      pilotId === null
        ? null
        : await Checkouts.first(
            {
              where: { pilotId, airframeId: flight.checkout.airframeId, status: 'open' },
              pick: ['id'],
              order: ['-createdAt'],
            },
            t,
          );
    await Sorties.update({ secondPilotId: pilotId, secondCheckoutId: open?.id ?? null }, { id: sortieId }, t);
    return { ok: true, checkoutId: open?.id ?? null };
  });
}

/**
 * Judges again what a release before this one judged in another form, a flight at a time, so that a start that is cut off
 * goes on where it was. @returns how many flights
 */
export async function renewLandings(): Promise<number> {
  const flights = await ask.judgedBefore.all({});
  for (const { id } of flights) await write((t) => projectSortie(id, t));
  return flights.length;
}

/** Rebuilds every landing from the events: the projection can be thrown away at any time. */
export async function rebuildLandings(): Promise<number> {
  const sorties = await Sorties.find({ pick: ['id'] });
  await write(async (t) => {
    for (const { id } of sorties) await projectSortie(id, t);
  });
  return sorties.length;
}
