import { Op, type Transaction } from 'sequelize';
import {
  type EvidenceRecord,
  type Experience,
  type ItemEvidence,
  type PartSignOff,
  assessProgramme,
  standardOn,
  unseenOf,
} from '@/core/assess';
import { addDays, daysBetween } from '@/core/recency';
import { gearMassGroup, programmeOn, sheetFacts } from '@/core/plan';
import { WIND_GOOD_FOR_MIN } from '@/core/wind';
import type { AirworkKind } from '@/domain/airwork';
import type { Need } from '@/domain/assess-words';
import type { CaptureEvent, GearChecked, HandedOver, TimerMarked } from '@/domain/capture';
import type { House, Programme, RulePack, Standard } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import type { CutShort } from '@/domain/words';
import { type Folded, fold, gearAt, affecting } from '@/offline/protocol';
import { contentById } from '../../rules/content';
import { parsedSheet } from '../../hangar/sheets';
import { localToday } from '../../rules/today';
import { type CheckoutHead, checkoutHead } from './head';
import { type LandingRow, type SortieRow, eventsOf, landingsOf, sortiesOf } from './flights';
import { derived } from '../../floor/derived';
import { Pilots, Users } from '../../account/tables';
import { Airframes, AirframeVersions, Types, TypeVersions } from '../../hangar/tables';
import { ContentVersions } from '../../rules/tables';
import { Briefs, CheckoutMoves, Checkouts, Sorties } from '../tables';
import { CaptureEvents, Landings, Stops } from '../../fly/tables';
import { LedgerEntries } from '../../ledger/tables';
import { PilotHours, Qualifications } from '../../people/tables';
import { gearSurface, lampMeaning } from '@/core/water';
import { heldOn } from '../../people/queries/held';
import { type StopLine, stopsOf } from './stop-lines';
import * as ask from '../../floor/statements/checkout';

export interface CheckoutRecord {
  head: CheckoutHead;
  /** As it is printed in an entry; empty = not on record. */
  pilotCertificate: string;
  sorties: SortieRow[];
  landings: LandingRow[];
  programmes: Programme[];
  standard: Standard;
  pack: RulePack;
  house: House;
  evidence: EvidenceRecord;
  /** Found in the flights of this checkout. */
  powers: Folded['powers'];
  trials: Folded['trials'];
  gearChecks: { id: string; at: string; lesson: number; check: GearChecked }[];
  items: ItemEvidence[];
  /** Items the aeroplane cannot be asked, with what it has not. */
  notAsked: { id: string; title: string; needs: Need[] }[];
  /** Everything flown past a stop, with why where somebody said. */
  stops: (StopLine & { lesson: number; explained: { reason: string; author: string; at: string } | null })[];
  /** A limit of the school set aside, by lesson. */
  overridden: { lesson: number; reason: string; author: string; at: string }[];
  /** Lessons that ended early, and what one instructor hands to another. */
  cutShort: ReadonlyMap<number, CutShort>;
  handovers: ReadonlyMap<number, HandedOver & { by: string; at: string }>;
}

/** What a record of a checkout is read from. */
export const RECORD_TABLES = [
  Checkouts,
  Pilots,
  Users,
  Airframes,
  AirframeVersions,
  Types,
  TypeVersions,
  ContentVersions,
  Sorties,
  Briefs,
  CheckoutMoves,
  Landings,
  CaptureEvents,
  Stops,
  LedgerEntries,
  Qualifications,
  PilotHours,
];
const kept = derived({
  name: 'checkout.record',
  dependsOn: RECORD_TABLES,
  key: (id: string, day: string) => `${id} ${day}`,
  most: 200,
  read: async (id: string, _day: string) => {
    const head = await checkoutHead(id);
    return head && readCheckoutRecord(head);
  },
});

/**
 * Everything a checkout has to show, with its evidence weighed. The last answer stands while nothing it rests on is
 * written; inside a write it is always read afresh.
 */
export const checkoutRecord = async (head: CheckoutHead, t?: Transaction): Promise<CheckoutRecord> =>
  (t ? null : await kept(head.id, await localToday())) ?? readCheckoutRecord(head, t);

export type ReadRecord = (id: string) => Promise<CheckoutRecord | null>;
/** Records by checkout, each read once for one page however often it is asked for. */
export function recordReader(): ReadRecord {
  const seen = new Map<string, Promise<CheckoutRecord | null>>();
  return (id) => {
    const known = seen.get(id) ?? localToday().then((day) => kept(id, day));
    seen.set(id, known);
    return known;
  };
}

/** The same, read afresh. */
export async function readCheckoutRecord(head: CheckoutHead, t?: Transaction): Promise<CheckoutRecord> {
  const sorties = await sortiesOf(head.id, t);
  const landings = await landingsOf(head.id, t);
  const events = await eventsOf(
    { checkoutId: head.id },
    affecting('items', 'waivers', 'powers', 'trials', 'gear', 'clock', 'reasons', 'limits', 'told'),
    t,
  );
  const folded = fold(events);
  const lessonOf = new Map(sorties.map((s) => [s.sharedWith ?? s.id, s]));
  // In a shared flight each item belongs to the pilot it was recorded of; without a name, to the pilot of the flight.
  const theirs = (i: { sortieId: string; data: { pilotId: string | null } }) =>
    i.data.pilotId === null ? lessonOf.get(i.sortieId)?.sharedWith === null : i.data.pilotId === head.pilotId;
  const house = await contentById('house', head.houseId, t);
  // Said again on final, as the landing after it tells.
  const repeated = new Set(
    landings.flatMap(({ id, sortieId, savedAt, captured: l }) => {
      if (l.wheelsRepeated !== 'said') return [];
      const flight = sorties.find((s) => s.id === sortieId)?.sharedWith ?? sortieId;
      const stood = gearAt(folded.gearLog, flight, Date.parse(l.endedAt ?? savedAt), id);
      return stood ? [`${flight} ${stood.at}`] : [];
    }),
  );
  const gearChecks = events
    .filter((e) => e.type === 'gear-checked')
    .map((e) => ({
      id: e.eventId,
      at: e.deviceTime,
      lesson: lessonOf.get(e.sortieId)?.lesson ?? 0,
      check: decidedHere(
        {
          ...(e.payload as GearChecked),
          onFinal: (e.payload as GearChecked).onFinal || repeated.has(`${e.sortieId} ${e.deviceTime}`),
        },
        head.sheet,
      ),
    }));
  const facts = sheetFacts(head.sheet);
  const pinned = await Promise.all(head.programmeIds.map((id) => contentById('programme', id, t)));
  const onThis = pinned.map((p) => programmeOn(p, facts));
  const programmes = onThis.map((p) => p.programme);
  const stopped = await stopsOf(head.id, t);
  const stopsFor = (subjectId: string, sortieId: string) =>
    stopped
      .filter((s) => s.subjectId === subjectId || (s.subject === 'flight' && s.sortieId === sortieId))
      .map((s) => s.stop);
  const standard = standardOn(await contentById('standard', head.standardId, t), head.sheet, head.goals);
  const rowOf = (kind: AirworkKind) => standard.airwork.find((a) => a.kind === kind) ?? null;
  const swapped = await CheckoutMoves.first(
    { where: { checkoutId: head.id, toAirframeId: { [Op.ne]: null } }, pick: ['movedAt'], order: ['-movedAt'] },
    t,
  );
  const evidence: EvidenceRecord = {
    seen: standard.seen,
    ...(swapped ? { airframeSince: swapped.movedAt } : {}),
    assertedShare: house.evidence.assertedShare,
    fadesDays: house.evidence.fadesDays,
    refused: await refusedOf(head, t),
    landings: landings.map((l) => ({
      ...l,
      at: new Date(l.captured.endedAt ?? l.savedAt).toISOString(),
      stops: stopsFor(l.id, l.sortieId),
      goAroundFrom: l.captured.goAroundFrom,
      // A wind older than ten minutes at the touch is no wind of this landing.
      crosswindKt: windCounts(l) ? l.crosswindKt : null,
    })),
    observations: folded.items.filter(theirs).map((i) => ({
      stops: stopsFor(i.id, lessonOf.get(i.sortieId)?.id ?? i.sortieId),
      id: i.id,
      at: i.at,
      date: lessonOf.get(i.sortieId)?.flownOn ?? i.at.slice(0, 10),
      lesson: lessonOf.get(i.sortieId)?.lesson ?? 0,
      data: i.data,
      unseen: i.data.detail === null ? [] : unseenOf(i.data.detail, rowOf),
      overruled: i.overruled ? { reason: i.overruled.reason, computed: i.overruled.computed } : null,
    })),
    waivers: folded.waivers.filter((w) => lessonOf.get(w.sortieId)?.sharedWith === null),
    group: gearMassGroup(head.sheet),
    onDate: await weighedOn(head, t),
    flights: sorties.map((s) => ({
      id: s.id,
      lesson: s.lesson,
      date: s.flownOn,
      minutes: minutesOf(events, s.sharedWith ?? s.id),
    })),
    briefs: sorties.flatMap((s) =>
      s.brief
        ? [
            {
              id: s.brief.id,
              lesson: s.lesson,
              date: s.flownOn,
              acknowledged: s.brief.acknowledgedAt !== null && oldBrief(s, house) === null,
              pages: (s.brief.choices.models ?? []).map((m) => m.page),
            },
          ]
        : [],
    ),
    gearChecks: gearChecks.map((g) => ({
      ...g,
      at: g.at,
      date: sorties.find((s) => s.lesson === g.lesson)?.flownOn ?? '',
    })),
    parts: [...(await partsOf(head, house.signing.partDays, t)), ...(await carriedTo(head, house.signing.partDays, t))],
    experience: await experienceOf(head, t),
  };
  const certificate = await Pilots.first({ where: { id: head.pilotId }, pick: ['certificate'] }, t);
  return {
    pilotCertificate: certificate?.certificate ?? '',
    head,
    sorties,
    landings,
    programmes,
    evidence,
    powers: folded.powers,
    trials: folded.trials,
    gearChecks,
    standard,
    pack: await contentById('pack', head.packId, t),
    house,
    items: programmes.flatMap((p) => assessProgramme(p, evidence)),
    notAsked: onThis.flatMap((p) => p.notAsked),
    stops: stopped.map((s) => ({
      ...s,
      lesson: sorties.find((x) => x.id === s.sortieId)?.lesson ?? 0,
      explained: folded.explained[s.subjectId] ?? null,
    })),
    overridden: sorties.flatMap((s) => {
      const o = folded.overrides[s.sharedWith ?? s.id];
      return o ? [{ lesson: s.lesson, ...o }] : [];
    }),
    ...(await toldOf(sorties, folded, t)),
  };
}

/** What was said of whole flights, by lesson, with the names of who said it. */
async function toldOf(
  sorties: readonly SortieRow[],
  folded: Folded,
  t?: Transaction,
): Promise<Pick<CheckoutRecord, 'cutShort' | 'handovers'>> {
  const flights = sorties.map((s) => ({ lesson: s.lesson, id: s.sharedWith ?? s.id }));
  const authors = Object.values(folded.handovers).map((h) => h.author);
  const names = authors.length === 0 ? [] : await Users.find({ where: { id: authors }, pick: ['id', 'name'] }, t);
  return {
    cutShort: new Map(
      flights.flatMap((f) => (folded.cutShort[f.id] ? [[f.lesson, folded.cutShort[f.id] as CutShort] as const] : [])),
    ),
    handovers: new Map(
      flights.flatMap((f) => {
        const h = folded.handovers[f.id];
        if (!h) return [];
        const { author, ...lines } = h;
        return [[f.lesson, { ...lines, by: names.find((n) => n.id === author)?.name ?? '' }] as const];
      }),
    ),
  };
}

/** What a device decided of the wheels is worked out again here from what was said and seen: its word is no evidence. */
function decidedHere(check: GearChecked, sheet: TypeSheet): GearChecked {
  if (sheet.surface !== 'amphibian') return check;
  const { decision, reasons } = gearSurface({
    ...check,
    lampMeaning: lampMeaning(sheet.gear.lamps),
    ageS: 0,
    eventsSince: [],
    madeOnFinal: check.onFinal,
  });
  return { ...check, decision, reasons };
}

/** The day evidence is weighed for: today, and of a checkout that is no longer open the day it was signed. */
async function weighedOn(head: CheckoutHead, t?: Transaction): Promise<string> {
  const entry =
    head.status !== 'open' && head.signedLedgerId ? await ask.weighedOn.one({ id: head.signedLedgerId }, t) : null;
  return entry?.on ?? localToday(t);
}

/** Minutes of one flight by the clock as tapped: block to block, else take-off to landing; null = it was not tapped. */
function minutesOf(events: readonly CaptureEvent[], sortieId: string): number | null {
  const undone = new Set(events.filter((e) => e.type === 'undone').map((e) => e.subjectId));
  const marks = events
    .filter((e) => e.type === 'timer-marked' && e.sortieId === sortieId && !undone.has(e.subjectId))
    .map((e) => e.payload as TimerMarked);
  const at = (mark: TimerMarked['mark'], pick: 'first' | 'last') => {
    const all = marks
      .filter((m) => m.mark === mark)
      .map((m) => Date.parse(m.at))
      .sort((a, b) => a - b);
    return pick === 'first' ? all[0] : all[all.length - 1];
  };
  const [from, to] = [
    at('off-block', 'first') ?? at('take-off', 'first'),
    at('on-block', 'last') ?? at('landed', 'last'),
  ];
  return from !== undefined && to !== undefined && to > from ? Math.round((to - from) / 60_000) : null;
}

/** Items of the standing entries of a kind, one row each: who, on which day and at which instant. */
async function itemsInBook(
  head: CheckoutHead,
  kind: 'part-sign-off' | 'not-yet',
  t?: Transaction,
): Promise<{ itemId: string; entryId: string; by: string; on: string; at: string }[]> {
  const found = await ask.itemsInBook.all({ id: head.id, kind }, t);
  return found.flatMap((e) =>
    e.items.map((i) => ({
      itemId: i.id,
      entryId: e.id,
      by: e.by,
      on: e.on,
      at: e.at,
    })),
  );
}
/** Items signed in part; each holds for the house's days. */
const partsOf = async (head: CheckoutHead, days: number, t?: Transaction): Promise<PartSignOff[]> =>
  (await itemsInBook(head, 'part-sign-off', t)).map((i) => ({ ...i, lapsesOn: addDays(i.on, days) }));
/** Items another checkout had shown when this one was opened; they lapse as a part sign-off does. */
async function carriedTo(head: CheckoutHead, days: number, t?: Transaction): Promise<PartSignOff[]> {
  const of = await Checkouts.first({ where: { id: head.id }, pick: ['carried'] }, t);
  if (!of || of.carried.length === 0) return [];
  const from = await Checkouts.find(
    {
      where: { id: [...new Set(of.carried.map((c) => c.checkoutId))] },
      pick: ['id'],
      with: { instructor: ['name'], airframe: ['registration'] },
    },
    t,
  );
  return of.carried.flatMap((c): PartSignOff[] => {
    const there = from.find((f) => f.id === c.checkoutId);
    return there
      ? [
          {
            itemId: c.itemId,
            entryId: c.checkoutId,
            by: there.instructor.name,
            on: c.on,
            lapsesOn: addDays(c.on, days),
            from: there.airframe.registration,
          },
        ]
      : [];
  });
}
/** Items for which further training was entered. */
const refusedOf = (head: CheckoutHead, t?: Transaction): Promise<NonNullable<EvidenceRecord['refused']>> =>
  itemsInBook(head, 'not-yet', t);

/** Days between the acknowledgement of a brief and the flight, where the house says that is too long; null = it is not. */
export function oldBrief(s: Pick<SortieRow, 'brief' | 'flownOn'>, house: House): number | null {
  const at = s.brief?.acknowledgedAt;
  const days = at ? daysBetween(at.slice(0, 10), s.flownOn) : 0;
  return days > house.evidence.briefDays ? days : null;
}
const windCounts = (l: Pick<LandingRow, 'windAgeMin'>): boolean =>
  l.windAgeMin !== null && l.windAgeMin <= WIND_GOOD_FOR_MIN;

/** What the pilot holds, and hours in aeroplanes of this gear and mass as the office entered them. */
async function experienceOf(head: CheckoutHead, t?: Transaction): Promise<Experience> {
  const { held } = await heldOn(head.pilotId, null, '', t);
  const hours = await ask.experienceOf.all({ p: head.pilotId }, t);
  const group = gearMassGroup(head.sheet);
  return {
    held: held.map((h) => h.kind),
    groupHours: hours
      .filter((h) => gearMassGroup(parsedSheet(h.versionId, h.sheet)) === group)
      .reduce((a, h) => a + h.hours, 0),
  };
}
