import type { Transaction } from 'sequelize';
import {
  type EvidenceRecord,
  type Experience,
  type ItemEvidence,
  type PartSignOff,
  type JudgedLanding,
  type RecordedLanding,
  assertedIn,
  assessProgramme,
  standardOn,
  unseenName,
  unseenOf,
} from '@/core/assess';
import type { BriefResult } from '@/core/approach';
import { list, localDate } from '@/core/format';
import { addDays, daysBetween } from '@/core/recency';
import { effectiveSheet, gearMassGroup, ladderStepKt, type Opening, programmeOn, sheetFacts } from '@/core/plan';
import { type Ladder, type LadderLanding, WIND_GOOD_FOR_MIN, pilotLadder } from '@/core/wind';
import type { AirworkKind } from '@/domain/airwork';
import type { Need } from '@/domain/assess-words';
import type { BriefChoices } from '@/domain/brief';
import type { CaptureEvent, CapturedLanding, GearChecked, Measured, TimerMarked } from '@/domain/capture';
import type { House, Programme, RulePack, Standard } from '@/domain/programme';
import { Airframe, TypeSheet } from '@/domain/sheet';
import { UNSEEN } from '@/domain/unseen';
import type { CheckoutStatus, Goal, LandingKind, PackId, Stage } from '@/domain/words';
import { type Folded, fold } from '@/offline/protocol';
import { nowIso } from '../../floor/clock';
import { contentById, homeAerodrome } from '../../rules/content';
import { asOfLastWrite } from '../../floor/as-of';
import { gearSurface, lampMeaning } from '@/core/water';
import { row, rows } from '../../floor/connection';
import { heldOn } from '../../people/queries/held';
import { type StopLine, stopsOf } from './stop-lines';

export interface CheckoutHead {
  id: string;
  pilotId: string;
  pilotName: string;
  pilotMassKg: number;
  instructorId: string;
  instructorName: string;
  registration: string;
  typeName: string;
  typeCode: string;
  pack: PackId;
  goals: Goal[];
  status: CheckoutStatus;
  signedLedgerId: string | null;
  createdAt: string;
  note: string;
  schools: Record<string, string>;
  opening: Opening;
  programmeIds: string[];
  standardId: string;
  packId: string;
  houseId: string;
  sheet: TypeSheet;
  airframe: Airframe;
  typeVersion: number;
  airframeVersion: number;
  typeVersionId: string;
  airframeVersionId: string;
}

interface HeadRow {
  id: string;
  pilot_id: string;
  pilot_name: string;
  pilot_mass: number;
  instructor_id: string;
  instructor_name: string;
  registration: string;
  type_version_id: string;
  airframe_version_id: string;
  pack: PackId;
  goals: string;
  status: CheckoutStatus;
  signed_ledger_id: string | null;
  created_at: string;
  note: string;
  schools: string;
  opening: string;
  programme_ids: string;
  standard_id: string;
  pack_id: string;
  house_id: string;
  type_version: number;
  airframe_version: number;
}

const sheets = new Map<string, TypeSheet>();
const frames = new Map<string, Airframe>();
/** Versions never change, so each is validated once per process. */
export function parsedSheet(id: string, text: string): TypeSheet {
  const known = sheets.get(id) ?? TypeSheet.parse(JSON.parse(text));
  sheets.set(id, known);
  return known;
}
export function parsedAirframe(id: string, text: string): Airframe {
  const known = frames.get(id) ?? Airframe.parse(JSON.parse(text));
  frames.set(id, known);
  return known;
}

/** The text of a version, read only when it is not parsed yet: sheets are large and never change. */
async function versionText(table: 'type_versions' | 'airframe_versions', id: string, t?: Transaction): Promise<string> {
  const found = await row<{ sheet: string }>(`SELECT sheet FROM ${table} WHERE id = :id`, { id }, t);
  if (!found) throw new Error(`no version ${id}`);
  return found.sheet;
}

/** A checkout with the versions it runs under; null when there is none. */
export async function checkoutHead(id: string, t?: Transaction): Promise<CheckoutHead | null> {
  const r = await row<HeadRow>(
    `SELECT c.*, p.name AS pilot_name, p.mass_kg AS pilot_mass, u.name AS instructor_name, a.registration, tv.version AS type_version, av.version AS airframe_version
     FROM checkouts c JOIN pilots p ON p.id = c.pilot_id JOIN users u ON u.id = c.instructor_id JOIN airframes a ON a.id = c.airframe_id
     JOIN type_versions tv ON tv.id = c.type_version_id JOIN airframe_versions av ON av.id = c.airframe_version_id WHERE c.id = :id`,
    { id },
    t,
  );
  if (!r) return null;
  const type =
    sheets.get(r.type_version_id) ??
    parsedSheet(r.type_version_id, await versionText('type_versions', r.type_version_id, t));
  const airframe =
    frames.get(r.airframe_version_id) ??
    parsedAirframe(r.airframe_version_id, await versionText('airframe_versions', r.airframe_version_id, t));
  return {
    id: r.id,
    pilotId: r.pilot_id,
    pilotName: r.pilot_name,
    pilotMassKg: r.pilot_mass,
    instructorId: r.instructor_id,
    instructorName: r.instructor_name,
    registration: r.registration,
    typeName: type.name,
    typeCode: type.code,
    pack: r.pack,
    goals: JSON.parse(r.goals) as Goal[],
    status: r.status,
    signedLedgerId: r.signed_ledger_id,
    createdAt: r.created_at,
    note: r.note,
    schools: JSON.parse(r.schools) as Record<string, string>,
    opening: JSON.parse(r.opening) as Opening,
    programmeIds: JSON.parse(r.programme_ids) as string[],
    standardId: r.standard_id,
    packId: r.pack_id,
    houseId: r.house_id,
    sheet: effectiveSheet(type, airframe),
    airframe,
    typeVersion: r.type_version,
    airframeVersion: r.airframe_version,
    typeVersionId: r.type_version_id,
    airframeVersionId: r.airframe_version_id,
  };
}

/** The sheets a checkout is pinned to, as they stand (not put together). */
export async function pinnedSheets(id: string): Promise<{ type: TypeSheet; airframe: Airframe } | null> {
  const r = await row<{ tid: string; aid: string; type_sheet: string; airframe_sheet: string }>(
    'SELECT tv.id AS tid, av.id AS aid, tv.sheet AS type_sheet, av.sheet AS airframe_sheet FROM checkouts c JOIN type_versions tv ON tv.id = c.type_version_id JOIN airframe_versions av ON av.id = c.airframe_version_id WHERE c.id = :id',
    { id },
  );
  return r ? { type: parsedSheet(r.tid, r.type_sheet), airframe: parsedAirframe(r.aid, r.airframe_sheet) } : null;
}

export interface BriefRow {
  id: string;
  version: number;
  choices: BriefChoices;
  snapshot: BriefResult;
  createdAt: string;
  createdByName: string;
  acknowledgedAt: string | null;
  acknowledgedByName: string | null;
}
/** `sharedWith` names the flight a second pilot's lesson was part of: its events stand there. */
export interface SortieRow {
  id: string;
  lesson: number;
  flownOn: string;
  instructorId: string;
  brief: BriefRow | null;
  sharedWith: string | null;
  secondPilotId: string | null;
  secondCheckoutId: string | null;
}

/** Lessons of a checkout, oldest first, each with its newest brief. */
export async function sortiesOf(checkoutId: string, t?: Transaction): Promise<SortieRow[]> {
  const found = await rows<{
    id: string;
    lesson: number;
    flown_on: string;
    instructor_id: string;
    shared_with: string | null;
    second_pilot_id: string | null;
    second_checkout_id: string | null;
    brief_id: string | null;
    version: number;
    choices: string;
    snapshot: string;
    created_at: string;
    acknowledged_at: string | null;
    acknowledged_by_name: string | null;
    created_by_name: string;
  }>(
    `SELECT s.id, s.lesson, s.flown_on, s.instructor_id, s.shared_with, s.second_pilot_id, s.second_checkout_id, b.id AS brief_id, b.version, b.choices, b.snapshot, b.created_at, b.acknowledged_at, u.name AS acknowledged_by_name, w.name AS created_by_name
     FROM sorties s LEFT JOIN briefs b ON b.sortie_id = s.id AND b.version = (SELECT MAX(version) FROM briefs WHERE sortie_id = s.id)
     LEFT JOIN users u ON u.id = b.acknowledged_by LEFT JOIN users w ON w.id = b.created_by WHERE s.checkout_id = :checkoutId ORDER BY s.lesson`,
    { checkoutId },
    t,
  );
  return found.map((s) => ({
    id: s.id,
    lesson: s.lesson,
    flownOn: s.flown_on,
    instructorId: s.instructor_id,
    sharedWith: s.shared_with,
    secondPilotId: s.second_pilot_id,
    secondCheckoutId: s.second_checkout_id,
    brief:
      s.brief_id === null
        ? null
        : {
            id: s.brief_id,
            version: s.version,
            choices: JSON.parse(s.choices) as BriefChoices,
            snapshot: JSON.parse(s.snapshot) as BriefResult,
            createdAt: s.created_at,
            createdByName: s.created_by_name,
            acknowledgedAt: s.acknowledged_at,
            acknowledgedByName: s.acknowledged_by_name,
          },
  }));
}

export interface LandingRow extends RecordedLanding {
  captured: CapturedLanding;
  measured: Measured | null;
  savedAt: string;
  windAgeMin: number | null;
}

export async function landingsOf(checkoutId: string, t?: Transaction): Promise<LandingRow[]> {
  const found = await rows<{
    id: string;
    sortie_id: string;
    lesson: number;
    number: number;
    first: number;
    kind: LandingKind;
    intended: string | null;
    gear_group: string;
    crosswind_kt: number | null;
    wind_age_min: number | null;
    flown_on: string;
    saved_at: string;
    captured: string;
    judged: string;
    measured: string | null;
    surface: 'land' | 'water';
  }>(
    `SELECT l.*, s.lesson FROM landings l JOIN sorties s ON s.id = l.sortie_id WHERE l.checkout_id = :checkoutId ORDER BY s.lesson, l.number`,
    { checkoutId },
    t,
  );
  return found.map((l) => ({
    id: l.id,
    number: l.number,
    sortieId: l.sortie_id,
    lesson: l.lesson,
    date: l.flown_on,
    firstOfSortie: l.first === 1,
    group: l.gear_group,
    kind: l.kind,
    intended: l.intended,
    crosswindKt: l.crosswind_kt,
    surface: l.surface,
    windAgeMin: l.wind_age_min,
    savedAt: l.saved_at,
    captured: { ...UNSEEN, ...(JSON.parse(l.captured) as CapturedLanding) },
    judged: JSON.parse(l.judged) as JudgedLanding,
    measured: l.measured === null ? null : (JSON.parse(l.measured) as Measured),
  }));
}

/** A row of capture_events, as it lies in the database. */
export interface CaptureRow {
  event_id: string;
  device_id: string;
  device_seq: number;
  sortie_id: string;
  subject_id: string;
  author: string;
  type: CaptureEvent['type'];
  v: number;
  device_time: string;
  payload: string;
  skew_ms: number | null;
}
export const toEvent = (e: CaptureRow): CaptureEvent => ({
  eventId: e.event_id,
  deviceId: e.device_id,
  deviceSeq: e.device_seq,
  sortieId: e.sortie_id,
  subjectId: e.subject_id,
  author: e.author,
  type: e.type,
  v: e.v,
  deviceTime: e.device_time,
  payload: JSON.parse(e.payload) as unknown,
  ...(e.skew_ms === null ? {} : { skewMs: e.skew_ms }),
});

/** Capture events of one sortie, or of a whole checkout with the flights its pilot shared. */
export async function eventsOf(
  where: { sortieId: string } | { checkoutId: string },
  types: readonly string[] | null = null,
  t?: Transaction,
): Promise<CaptureEvent[]> {
  const filter =
    'sortieId' in where
      ? 'e.sortie_id = :sortieId'
      : 'e.sortie_id IN (SELECT COALESCE(shared_with, id) FROM sorties WHERE checkout_id = :checkoutId)';
  const found = await rows<CaptureRow>(
    `SELECT e.* FROM capture_events e WHERE ${filter} ${types ? 'AND e.type IN (:types)' : ''}`,
    { ...where, types },
    t,
  );
  return found.map(toEvent);
}

export interface CheckoutRecord {
  head: CheckoutHead;
  /** As it is printed in an entry; empty = not in the book of people. */
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
}

const recent = new Map<string, { stamp: string; record: CheckoutRecord }>();
const KEEP_RECENT = 64;

/**
 * Everything a checkout has to show, with its evidence weighed. What it rests on is append-only, so the last answer
 * stands until a count moves; inside a write it is always read afresh.
 */
export async function checkoutRecord(head: CheckoutHead, t?: Transaction): Promise<CheckoutRecord> {
  if (t) return readCheckoutRecord(head, t);
  const moved = await row<Record<string, unknown>>(
    `SELECT :day AS day, (SELECT COUNT(*) FROM ledger WHERE checkout_id = :id) AS entries, (SELECT COUNT(*) FROM qualifications WHERE pilot_id = (SELECT pilot_id FROM checkouts WHERE id = :id) AND ended_at IS NULL) AS held,
       (SELECT certificate FROM pilots WHERE id = (SELECT pilot_id FROM checkouts WHERE id = :id)) AS certificate, (SELECT COUNT(*) FROM pilot_hours WHERE pilot_id = (SELECT pilot_id FROM checkouts WHERE id = :id)) AS hours, (SELECT COUNT(*) FROM capture_events WHERE sortie_id IN (SELECT COALESCE(shared_with, id) FROM sorties WHERE checkout_id = :id)) AS events,
       (SELECT COUNT(*) FROM landings WHERE checkout_id = :id) AS landings, (SELECT COUNT(*) || COALESCE(MAX(rowid), 0) FROM stops WHERE checkout_id = :id) AS stops, (SELECT COUNT(*) FROM briefs WHERE checkout_id = :id) AS briefs,
       (SELECT COUNT(acknowledged_at) FROM briefs WHERE checkout_id = :id) AS acknowledged, (SELECT schools || status || type_version_id || airframe_version_id FROM checkouts WHERE id = :id) AS state`,
    { id: head.id, day: await localToday() },
  );
  const stamp = JSON.stringify(moved);
  const known = recent.get(head.id);
  if (known?.stamp === stamp) return known.record;
  const record = await readCheckoutRecord(head);
  recent.delete(head.id);
  recent.set(head.id, { stamp, record });
  const oldest = recent.size > KEEP_RECENT ? recent.keys().next().value : undefined;
  if (oldest !== undefined) recent.delete(oldest);
  return record;
}

export type ReadRecord = (id: string) => Promise<CheckoutRecord | null>;
/** A record by its checkout; the last answer stands while nothing is written. */
const recordAsOf = async (id: string): Promise<CheckoutRecord | null> =>
  asOfLastWrite(`record ${id} ${await localToday()}`, async () => {
    const head = await checkoutHead(id);
    return head ? checkoutRecord(head) : null;
  });
/** Records by checkout, each read once for one page however often it is asked for. */
export function recordReader(): ReadRecord {
  const seen = new Map<string, Promise<CheckoutRecord | null>>();
  return (id) => {
    const known = seen.get(id) ?? recordAsOf(id);
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
    [
      'item-observed',
      'item-waived',
      'undone',
      'power-found',
      'trial-flown',
      'measured',
      'overruled',
      'gear-checked',
      'timer-marked',
      'stop-explained',
      'limit-overridden',
    ],
    t,
  );
  const folded = fold(events);
  const lessonOf = new Map(sorties.map((s) => [s.sharedWith ?? s.id, s]));
  // In a shared flight each item belongs to the pilot it was recorded of; without a name, to the pilot of the flight.
  const theirs = (i: { sortieId: string; data: { pilotId: string | null } }) =>
    i.data.pilotId === null ? lessonOf.get(i.sortieId)?.sharedWith === null : i.data.pilotId === head.pilotId;
  const house = await contentById('house', head.houseId, t);
  const gearChecks = events
    .filter((e) => e.type === 'gear-checked')
    .map((e) => ({
      id: e.eventId,
      at: e.deviceTime,
      lesson: lessonOf.get(e.sortieId)?.lesson ?? 0,
      check: decidedHere(e.payload as GearChecked, head.sheet),
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
  const evidence: EvidenceRecord = {
    seen: standard.seen,
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
      unseen: i.data.detail === null ? [] : unseenOf(i.data.detail, rowOf).map(unseenName),
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
            },
          ]
        : [],
    ),
    gearChecks: gearChecks.map((g) => ({
      ...g,
      at: g.at,
      date: sorties.find((s) => s.lesson === g.lesson)?.flownOn ?? '',
    })),
    parts: await partsOf(head, house.signing.partDays, t),
    experience: await experienceOf(head, t),
  };
  const certificate = await row<{ certificate: string }>(
    'SELECT certificate FROM pilots WHERE id = :p',
    { p: head.pilotId },
    t,
  );
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

/** Today's date at the aerodrome. */
export const localToday = async (t?: Transaction): Promise<string> =>
  localDate(nowIso(), (await homeAerodrome(t)).timeZone);

/** The day evidence is weighed for: today, and of a checkout that is no longer open the day it was signed. */
async function weighedOn(head: CheckoutHead, t?: Transaction): Promise<string> {
  const entry =
    head.status !== 'open' && head.signedLedgerId
      ? await row<{ on: string }>(
          'SELECT COALESCE(json_extract(canonical, \'$.body.signedOn\'), substr(signed_at, 1, 10)) AS "on" FROM ledger WHERE id = :id',
          { id: head.signedLedgerId },
          t,
        )
      : null;
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
  const found = await rows<{ id: string; on: string; at: string; by: string; items: string }>(
    `SELECT l.id, l.signed_at AS at, json_extract(l.canonical, '$.body.signedOn') AS "on", json_extract(l.canonical, '$.body.signer.name') AS by,
       json_extract(l.canonical, '$.body.items') AS items
     FROM ledger l WHERE l.checkout_id = :id AND l.kind = :kind
       AND NOT EXISTS (SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = l.id)`,
    { id: head.id, kind },
    t,
  );
  return found.flatMap((e) =>
    (JSON.parse(e.items) as { id: string }[]).map((i) => ({
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
  const hours = await rows<{ version_id: string; sheet: string; hours: number }>(
    `SELECT tv.id AS version_id, tv.sheet, h.hours FROM pilot_hours h JOIN types ty ON ty.code = h.type_code JOIN type_versions tv ON tv.type_id = ty.id AND tv.version = (SELECT MAX(version) FROM type_versions WHERE type_id = ty.id)
     WHERE h.pilot_id = :p AND h.seq = (SELECT MAX(seq) FROM pilot_hours x WHERE x.pilot_id = h.pilot_id AND x.type_code = h.type_code)`,
    { p: head.pilotId },
    t,
  );
  const group = gearMassGroup(head.sheet);
  return {
    held: held.map((h) => h.kind),
    groupHours: hours
      .filter((h) => gearMassGroup(parsedSheet(h.version_id, h.sheet)) === group)
      .reduce((a, h) => a + h.hours, 0),
  };
}

/** The pilot's own crosswind step in this gear-and-mass group, from every checkout's landings. */
export async function ladderOf(pilotId: string, sheet: TypeSheet, onDate: string, t?: Transaction): Promise<Ladder> {
  const group = gearMassGroup(sheet);
  const found = await rows<{
    flown_on: string;
    crosswind_kt: number | null;
    wind_age_min: number | null;
    captured: string;
    judged: string;
  }>(
    "SELECT flown_on, crosswind_kt, wind_age_min, captured, judged FROM landings WHERE pilot_id = :pilotId AND gear_group = :group AND kind NOT IN ('go-around', 'low-pass') ORDER BY flown_on, saved_at",
    { pilotId, group },
    t,
  );
  const landings = found.map((l): LadderLanding => {
    const captured = JSON.parse(l.captured) as CapturedLanding;
    const judged = JSON.parse(l.judged) as JudgedLanding;
    return {
      date: l.flown_on,
      group,
      crosswindKt: l.crosswind_kt,
      windAgeMin: l.wind_age_min,
      intervention: captured.intervention,
      demonstration: captured.demonstration,
      // What was only asserted proves no wind; a wheel off the surface is no place on it.
      criteria: {
        ...Object.fromEntries(
          judged.criteria.map((c) => [c.id, assertedIn({ criteria: [c] }).length > 0 ? 'not-seen' : c.verdict]),
        ),
        ...(judged.criteria.some((c) => c.id === 'off-surface') ? { lateral: 'outside' as const } : {}),
      },
    };
  });
  const pilot = await row<{ crosswind_credit: string | null }>(
    'SELECT crosswind_credit FROM pilots WHERE id = :pilotId',
    { pilotId },
    t,
  );
  const credit = pilot?.crosswind_credit
    ? (JSON.parse(pilot.crosswind_credit) as { group: string; kt: number; date: string })
    : null;
  return pilotLadder({
    landings,
    group,
    onDate,
    stepKt: ladderStepKt(group),
    credit: credit?.group === group ? credit : null,
  });
}

/** The order the house starts a brief of this goal from. */
export async function briefTemplate(goal: string): Promise<BriefChoices['layout']> {
  const found = await row<{ layout: string }>('SELECT layout FROM brief_templates WHERE goal = :goal', { goal });
  return found ? (JSON.parse(found.layout) as BriefChoices['layout']) : { order: [], hidden: [], own: [] };
}

/** Lessons in which something was flown: a landing, an item of flight, or a flight by the clock. */
export function flownLessons(record: Pick<CheckoutRecord, 'landings' | 'programmes' | 'evidence'>): Set<number> {
  const ground = new Set(
    record.programmes.flatMap((p) => p.items.filter((i) => i.where === 'ground').map((i) => i.id)),
  );
  return new Set([
    ...record.landings.map((l) => l.lesson),
    ...record.evidence.observations
      .filter((o) => !ground.has(o.data.itemId) && !o.data.itemId.startsWith('list:'))
      .map((o) => o.lesson),
    ...(record.evidence.flights ?? []).filter((f) => f.minutes !== null).map((f) => f.lesson),
  ]);
}

/** The stage a checkout stands at, from what is recorded; nobody sets it by hand. */
export function stageOf(
  record: Pick<CheckoutRecord, 'head' | 'sorties' | 'landings' | 'items' | 'programmes' | 'evidence'>,
): Stage {
  if (record.head.status !== 'open' || record.items.every((i) => i.met)) return 'sign';
  const latest = record.sorties[record.sorties.length - 1];
  if (!latest) return 'brief';
  const flown = flownLessons(record).has(latest.lesson);
  return flown ? 'debrief' : latest.brief ? 'fly' : 'brief';
}

/** The one next action: in words, as a button, and where it is done. */
export function nextAction(record: CheckoutRecord): { text: string; button: string; href: string } {
  const base = `/checkouts/${record.head.id}`;
  const action = actionOf(record, base);
  const refused = record.items.filter((i) => i.refused).map((i) => i.item.id);
  return refused.length === 0 || record.head.status !== 'open'
    ? action
    : { ...action, text: `Further training: ${list(refused)} again before anybody signs. ${action.text}` };
}
function actionOf(record: CheckoutRecord, base: string): { text: string; button: string; href: string } {
  if (record.head.status === 'recommended')
    return {
      text: 'Recommended: the examiner decides, and the result is entered here.',
      button: 'Enter the result',
      href: `${base}/sign`,
    };
  if (record.head.status === 'signed')
    return { text: 'Signed. See the entry in the book.', button: 'See the book', href: '/ledger' };
  const latest = record.sorties[record.sorties.length - 1];
  switch (stageOf(record)) {
    case 'sign':
      return {
        text: 'Every item has its evidence: check it and sign.',
        button: 'Check and sign',
        href: `${base}/sign`,
      };
    case 'fly':
      return latest?.brief?.acknowledgedAt
        ? {
            text: `Lesson ${latest.lesson} is briefed and acknowledged: fly it.`,
            button: `Fly lesson ${latest.lesson}`,
            href: `${base}/fly`,
          }
        : {
            text: `Lesson ${latest?.lesson ?? 1} is briefed: the pilot acknowledges, then fly.`,
            button: `Brief and fly lesson ${latest?.lesson ?? 1}`,
            href: `${base}/brief`,
          };
    case 'debrief':
      return {
        text: `Debrief lesson ${latest?.lesson ?? 1}, then brief the next.`,
        button: `Debrief lesson ${latest?.lesson ?? 1}`,
        href: `${base}/debrief`,
      };
    case 'open':
    case 'brief':
      return {
        text: `Brief lesson ${(latest?.lesson ?? 0) + 1}.`,
        button: `Brief lesson ${(latest?.lesson ?? 0) + 1}`,
        href: `${base}/brief`,
      };
  }
}
