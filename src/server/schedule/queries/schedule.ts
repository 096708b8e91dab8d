import { told } from '../sentences';
import type { Told } from '../../floor/sentences';
import type { Transaction } from 'sequelize';
import { usableEnds } from '@/core/approach';
import { gearMassGroup, schoolCrosswind } from '@/core/plan';
import {
  type Away,
  type Hold,
  type LearnedSplit,
  type RankedSlot,
  type Span,
  type Split,
  type Weekly,
  type WindAt,
  type WindNeed,
  bestSlots,
  bookingMinutes,
  freeSlots,
  later,
  learnSplit,
  localClock,
  localInstant,
  nearestSlot,
  splitBooking,
  windFit,
} from '@/core/schedule';
import { sunTimes } from '@/core/sun';
import { chooseRunway, components, knownAlone, stationOutlook } from '@/core/wind';
import { addDays, daysBetween } from '@/core/recency';
import { LIMIT_NAME, type Goal } from '@/domain/words';
import type { House } from '@/domain/programme';
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import { type BookingKind, ProposeForm } from '@/domain/schedule';
import { type CurrentUser, may, personKey } from '../../floor/auth/permissions';
import { userById } from '../../floor/auth/session-user';
import { nowIso } from '../../floor/clock';
import { homeAerodrome, newestContent } from '../../rules/content';
import { derived } from '../../floor/derived';
import { Pilots } from '../../account/tables';
import { Briefs, Checkouts, Sorties } from '../../checkout/tables';
import { Debriefs, SelfAssessments } from '../../debrief/tables';
import { Types, TypeVersions } from '../../hangar/tables';
import { Landings } from '../../fly/tables';
import { type Result, problem, zodProblems } from '../../floor/result';
import { type CheckoutRecord, checkoutRecord } from '../../checkout/queries/record';
import { ladderOf } from '../../checkout/queries/ladder';
import { checkoutHead } from '../../checkout/queries/head';
import { parsedSheet } from '../../hangar/sheets';
import { localToday } from '../../rules/today';
import * as ask from '../../floor/statements/schedule';
import { BookingHolds, Bookings, WeeklyWindows } from '../tables';
import { Op } from 'sequelize';
import type { RowOf } from '../../floor/statement';

export const airKey = (airframeId: string): string => `a:${airframeId}`;
export interface Field {
  house: House;
  aerodrome: Aerodrome;
  zone: string;
}
export async function fieldFacts(t?: Transaction): Promise<Field> {
  const [house, aerodrome] = [await newestContent('house', 'house', t), await homeAerodrome(t)];
  if (!house) throw new Error('no house rules are set up in this data folder');
  return { house: house.body, aerodrome, zone: aerodrome.timeZone };
}

/** Hours in which bookings lie on a local day: the house’s, and by day only where the house does not fly at night. */
export function openHours(date: string, { house, aerodrome, zone }: Field): Span | null {
  const { schedule } = house;
  const span = {
    from: localInstant(date, schedule.openFromMin, zone),
    to: localInstant(date, schedule.openToMin, zone),
  };
  if (schedule.nightFlying) return span;
  const sun = sunTimes(date, aerodrome);
  if (sun.always === 'night') return null;
  // The brief may be held before sunrise and the debrief after sunset; the flight itself is checked apart.
  return span;
}
/** The part of a booking spent flying: between brief and preparation, and the debrief. */
export const flightSpan = (startsAt: string, split: Split): Span => ({
  from: later(startsAt, split.brief + split.prepare),
  to: later(startsAt, split.brief + split.prepare + split.flight),
});

export async function holdsBetween(from: string, to: string, t?: Transaction): Promise<(Hold & { what: string })[]> {
  const found = await BookingHolds.find(
    {
      where: { endsAt: { [Op.gt]: from }, startsAt: { [Op.lt]: to } },
      pick: ['bookingId', 'holder', 'startsAt', 'endsAt'],
      with: {
        booking: { pick: ['kind'], with: { pilot: ['name'], instructor: ['name'], airframe: ['registration'] } },
      },
      order: ['startsAt'],
    },
    t,
  );
  return found.map((h) => ({
    bookingId: h.bookingId,
    holder: h.holder,
    from: h.startsAt,
    to: h.endsAt,
    what: [
      h.booking.airframe?.registration,
      h.booking.pilot?.name,
      h.booking.instructor ? `with ${h.booking.instructor.name}` : '',
    ]
      .filter(Boolean)
      .join(' '),
  }));
}
export async function weeklyRows(t?: Transaction): Promise<(Weekly & { id: string })[]> {
  return (await WeeklyWindows.find({ where: { endedAt: null } }, t)).map((w) => ({
    id: w.id,
    person: w.person,
    weekday: w.weekday,
    fromMin: w.fromMin,
    toMin: w.toMin,
    validFrom: w.validFrom,
    validUntil: w.validUntil,
  }));
}
export interface AwayRow extends Away {
  id: string;
  kind: 'away' | 'maintenance' | 'exceedance' | 'grounded';
}
/** Times away, aeroplanes down, and aeroplanes with a limit passed and not released. */
export async function awayRows(t?: Transaction): Promise<AwayRow[]> {
  const away = await ask.awayRows.all({ now: later(nowIso(), -7 * 1440) }, t);
  const limits = await ask.awayRowsExceedances.all({ now: nowIso() }, t);
  const grounded = await ask.awayRowsGroundings.all({ now: nowIso() }, t);
  return [
    ...grounded.map((g): AwayRow => ({
      id: g.id,
      kind: 'grounded',
      who: airKey(g.airframeId),
      from: g.placedAt,
      to: null,
      why: `grounded: ${g.why}`,
    })),
    ...away.map((a): AwayRow => ({ id: a.id, kind: a.kind, who: a.who, from: a.fromAt, to: a.toAt, why: a.why })),
    ...limits.map((l): AwayRow => ({
      id: l.id,
      kind: 'exceedance',
      who: airKey(l.airframeId),
      from: l.foundAt,
      to: null,
      why: `${LIMIT_NAME[l.channel]} passed and not released`,
    })),
  ];
}

export interface BookingLine {
  id: string;
  kind: BookingKind;
  startsAt: string;
  endsAt: string;
  split: Split | null;
  pilotId: string | null;
  pilotName: string | null;
  instructorId: string | null;
  instructorName: string | null;
  instructorKey: string | null;
  airframeId: string | null;
  registration: string | null;
  typeName: string | null;
  typeCode: string | null;
  checkoutId: string | null;
  goals: Goal[];
  passengers: number;
  surface: string;
  note: string;
  version: number;
  state: 'booked' | 'cancelled';
  /** Somebody else’s, for a pilot: only that it is taken. */
  masked: boolean;
  mine: boolean;
}
type BookingRow = RowOf<typeof ask.bookingById>;
function lineOf(user: CurrentUser, b: BookingRow): BookingLine {
  const mine = b.instructorId === user.id || (b.pilotId !== null && b.pilotId === user.pilotId);
  const masked = !mine && !may.seeEverybody(user);
  const open = <T>(v: T): T | null => (masked ? null : v);
  return {
    id: b.id,
    kind: b.kind,
    startsAt: b.startsAt,
    endsAt: b.endsAt,
    split: masked ? null : b.split,
    pilotId: open(b.pilotId),
    pilotName: open(b.pilotName),
    instructorId: open(b.instructorId),
    instructorName: open(b.instructorName),
    instructorKey:
      b.instructorId === null || masked ? null : personKey({ id: b.instructorId, pilotId: b.instructorPilot }),
    airframeId: b.airframeId,
    registration: b.registration,
    typeName: b.typeName,
    typeCode: b.code,
    checkoutId: open(b.checkoutId),
    goals: masked ? [] : (b.goals ?? []),
    passengers: masked ? 0 : b.passengers,
    surface: b.surface,
    note: masked ? '' : b.note,
    version: b.version,
    state: b.state,
    masked,
    mine,
  };
}
/** Bookings of a span, in order of time. */
export const bookingsBetween = async (user: CurrentUser, from: string, to: string): Promise<BookingLine[]> =>
  (await ask.bookingsBetween.all({ from, to })).map((b) => lineOf(user, b));
export async function bookingById(user: CurrentUser, id: string): Promise<BookingLine | null> {
  const found = await ask.bookingById.one({ id });
  const line = found ? lineOf(user, found) : null;
  return line === null || line.masked ? null : line;
}
/** One’s own bookings from an instant on, as pilot or instructor; cancelled ones too where asked. */
export const ownBookings = async (
  user: CurrentUser,
  from: string,
  cancelled = false,
  limit = 400,
): Promise<BookingLine[]> =>
  (await ask.ownBookings.all({ from, id: user.id, pilotId: user.pilotId, limit, cancelled: cancelled ? 1 : 0 })).map(
    (b) => lineOf(user, b),
  );
/** The booking of a checkout that runs now; null = there is none. */
export const bookingNow = (checkoutId: string, now: string) =>
  Bookings.first({
    where: { checkoutId, state: 'booked', startsAt: { [Op.lte]: now }, endsAt: { [Op.gt]: now } },
    pick: ['endsAt'],
  });

/** The booking of a checkout that runs or comes next: minutes left or booked, and when its flight ends. */
export async function nextBookingOf(
  checkoutId: string,
  now: string,
): Promise<{ minutes: number; flightEnds: string } | null> {
  const b = await Bookings.first({
    where: { checkoutId, state: 'booked', endsAt: { [Op.gt]: now } },
    pick: ['startsAt', 'endsAt', 'split'],
    order: ['startsAt'],
  });
  if (!b) return null;
  const left = Math.floor((Date.parse(b.endsAt) - Math.max(Date.parse(now), Date.parse(b.startsAt))) / 60_000);
  return left < 10 ? null : { minutes: left, flightEnds: b.split ? flightSpan(b.startsAt, b.split).to : b.endsAt };
}

const LEARN_FROM = 200;
async function readLearnedSplit(typeCode: string, house: House, t?: Transaction): Promise<LearnedSplit> {
  const found = await ask.lessonTimes.all({ typeCode, most: LEARN_FROM }, t);
  const min = (a: string | null, b: string | null, less = 0) =>
    a === null || b === null ? null : Math.round((Date.parse(b) - Date.parse(a)) / 60_000) - less;
  const { schedule } = house;
  return learnSplit(
    found.map((f) => ({
      brief: min(f.briefed, f.acknowledged),
      prepare: min(f.acknowledged, f.first, house.circuitMin),
      flight: min(f.first, f.last, -house.circuitMin),
      debrief: min(f.told, f.debriefed),
    })),
    {
      brief: schedule.briefMin,
      prepare: schedule.prepareMin,
      flight: schedule.flightMin,
      debrief: schedule.debriefMin,
    },
  );
}
const keptSplit = derived({
  name: 'schedule.split',
  dependsOn: [Briefs, Landings, Debriefs, SelfAssessments, Sorties, Checkouts, Types, TypeVersions],
  key: (typeCode: string, house: House) => `${typeCode} ${JSON.stringify([house.circuitMin, house.schedule])}`,
  read: (typeCode: string, house: House) => readLearnedSplit(typeCode, house),
});
/**
 * What lessons of a type took so far: from the brief as saved to its acknowledgement, from there to the first circuit,
 * to the last landing, and from the pilot’s own word to the debrief as kept.
 */
export const learnedSplit = (typeCode: string, house: House, t?: Transaction): Promise<LearnedSplit> =>
  t ? readLearnedSplit(typeCode, house, t) : keptSplit(typeCode, house);

/** A pilot's own crosswind step in a gear-and-mass group on a day. */
const keptLadder = derived({
  name: 'schedule.ladder',
  dependsOn: [Landings, Pilots],
  key: (pilotId: string, sheet: TypeSheet, onDate: string) => `${pilotId} ${gearMassGroup(sheet)} ${onDate}`,
  read: (pilotId: string, sheet: TypeSheet, onDate: string) => ladderOf(pilotId, sheet, onDate),
});

/** Wind across on the runway that would be used, for a planned instant. */
export function windAtSlot(field: Field, sheet: TypeSheet, at: string, surface: string = 'any'): WindAt | null {
  const wind = stationOutlook(field.aerodrome.ident, nowIso(), at);
  if (wind === null) return null;
  const all = usableEnds(field.aerodrome, sheet.surface);
  const ends = surface === 'any' ? all : all.filter((e) => e.surface === surface);
  const chosen = chooseRunway(
    { windFromDeg: wind.fromDeg, windKt: wind.kt, gustKt: wind.gustKt },
    { tailwindLimitKt: sheet.crosswind.tailwindLimitKt?.value ?? field.house.tailwindLimitKt, requiredLengthM: 0 },
    ends.map((e) => ({ id: e.ident, headingDeg: e.trueBearingDeg, lengthM: e.lengthM })),
  ).chosenId;
  const end = ends.find((e) => e.ident === chosen) ?? ends[0];
  if (!end) return null;
  const across = components(wind.fromDeg, wind.kt, wind.gustKt, end.trueBearingDeg);
  return {
    crosswindKt: Math.abs(across.gustCrosswindKt ?? across.crosswindKt),
    runwayEnd: end.ident,
    sureness: wind.sureness,
  };
}

/** What the next lesson of a checkout asks of the wind: an open item about wind whose turn has come wants it. */
export async function lessonNeed(
  record: CheckoutRecord,
  instructor: Pick<CurrentUser, 'ownCrosswindKt'> | null,
  onDate: string,
  house: House,
): Promise<WindNeed> {
  const { head } = record;
  const ladder = await keptLadder(head.pilotId, head.sheet, onDate);
  const met = new Set(record.items.filter((i) => i.met).map((i) => i.item.id));
  const asked = record.items.flatMap(({ item, met: done, missing }) => {
    if (done || !item.prerequisites.every((p) => met.has(p))) return [];
    // A run gathers landings in any wind and asks for its wind once.
    const kt =
      item.evidence.kind === 'count'
        ? item.evidence.minCrosswindKt
        : item.evidence.kind === 'run'
          ? missing.some((m) => m.code === 'one-in-wind')
            ? item.evidence.windKt
            : null
          : (item.needsWindKt ?? null);
    return kt === null ? [] : [kt];
  });
  const flownSome = record.landings.length > 0;
  return {
    wantsKt: flownSome && asked.length > 0 ? Math.min(Math.max(...asked), ladder.ladderKt) : null,
    ...leastLimit([
      [ladder.ladderKt, 'the pilot’s step'],
      [schoolCrosswind(house.crosswindKt, gearMassGroup(head.sheet))?.kt ?? null, 'the school'],
      [instructor?.ownCrosswindKt ?? null, 'the instructor'],
    ]),
  };
}
/** What wind a flight without an instructor takes: what the pilot has proven in the group, and the school's limit. */
export async function aloneNeed(
  pilotId: string | null,
  sheet: TypeSheet,
  onDate: string,
  house: House,
): Promise<WindNeed> {
  const group = gearMassGroup(sheet);
  const school: [number | null, string] = [schoolCrosswind(house.crosswindKt, group)?.kt ?? null, 'the school'];
  if (pilotId === null) return { wantsKt: null, ...leastLimit([school]) };
  const ladder = await keptLadder(pilotId, sheet, onDate);
  return knownAlone(ladder)
    ? { wantsKt: null, ...leastLimit([[ladder.provenKt, 'what is proven'], school]) }
    : { wantsKt: null, ...leastLimit([school]), notProven: true };
}
/** The least of several limits, and whose it is. */
export function leastLimit(limits: readonly [number | null, string][]): { mostKt: number; mostOf: string } {
  let least: [number, string] = [99, 'no limit'];
  for (const [kt, of] of limits) if (kt !== null && kt < least[0]) least = [kt, of];
  return { mostKt: least[0], mostOf: least[1] };
}

export async function airframeSheet(
  airframeId: string,
  t?: Transaction,
): Promise<{ registration: string; sheet: TypeSheet } | null> {
  const found = await ask.airframeSheet.one({ airframeId }, t);
  return found ? { registration: found.registration, sheet: parsedSheet(found.id, found.sheet) } : null;
}

export interface SlotAround {
  minutes: number;
  holders: string[];
  people: string[];
  except: string | null;
}
/** Free starts for some holders over some days. */
export async function slotsFor(
  field: Field,
  ask: SlotAround,
  fromDate: string,
  days: number,
  t?: Transaction,
): Promise<Span[]> {
  const toDate = addDays(fromDate, days - 1);
  const [from, to] = [localInstant(fromDate, 0, field.zone), localInstant(addDays(toDate, 1), 0, field.zone)];
  return freeSlots({
    ...ask,
    holds: await holdsBetween(from, to, t),
    away: await awayRows(t),
    weekly: await weeklyRows(t),
    timeZone: field.zone,
    fromDate,
    toDate,
    notBefore: nowIso(),
    stepMin: field.house.schedule.stepMin,
    dayOf: (d) => openHours(d, field),
  });
}
const LOOK_DAYS = 21;
const DAY_MS = 86_400_000;
/** The free start nearest to a wished one, in the three weeks around it. */
export async function nearestFree(
  field: Field,
  ask: SlotAround,
  wished: string,
  t?: Transaction,
): Promise<Span | null> {
  const today = await localToday(t);
  const wishedDay = localClock(wished, field.zone).date;
  const from = (days: number) => (addDays(wishedDay, -days) < today ? today : addDays(wishedDay, -days));
  // Within a day of the wish nothing outside these three days can be nearer.
  const close =
    wishedDay < today
      ? null
      : nearestSlot(await slotsFor(field, ask, from(1), daysBetween(from(1), wishedDay) + 2, t), wished);
  if (close && Math.abs(Date.parse(close.from) - Date.parse(wished)) <= DAY_MS) return close;
  const first = from(7);
  return nearestSlot(await slotsFor(field, ask, first, LOOK_DAYS, t), wished);
}

/** Does the flight of a booking lie between sunrise and sunset, or in night the house flies in? */
export function daylightProblem(field: Field, startsAt: string, split: Split): Told | null {
  if (field.house.schedule.nightFlying) return null;
  const flight = flightSpan(startsAt, split);
  const sun = sunTimes(localClock(flight.from, field.zone).date, field.aerodrome);
  const clock = (iso: string) => {
    const m = localClock(iso, field.zone).minutes;
    return `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`;
  };
  if (sun.sunset !== null && flight.to > sun.sunset)
    return told('after-sunset', { at: clock(flight.to), sunset: clock(sun.sunset) });
  if (sun.sunrise !== null && flight.from < sun.sunrise)
    return told('before-sunrise', { at: clock(flight.from), sunrise: clock(sun.sunrise) });
  return null;
}

export interface Proposal extends RankedSlot {
  minutes: number;
  split: Split;
}
export interface Proposals {
  minutes: number;
  split: LearnedSplit;
  need: WindNeed;
  best: Proposal[];
  free: number;
}
/** The best three slots for a lesson or a flight, by the wind of each and what it asks of it. */
export async function proposeSlots(user: CurrentUser, form: unknown): Promise<Result<Proposals>> {
  const parsed = ProposeForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const ask = parsed.data;
  const field = await fieldFacts();
  const head = ask.checkoutId === null ? null : await checkoutHead(ask.checkoutId);
  const pilotId = head?.pilotId ?? ask.pilotId;
  if (!may.book(user, { pilotId })) return problem('', told('not-found'));
  const frame = ask.airframeId === null ? null : await airframeSheet(ask.airframeId);
  if (!frame) return problem('airframeId', told('choose-aeroplane'));
  const instructor = ask.instructorId === null ? null : await userById(ask.instructorId);
  if (ask.kind === 'lesson' && !instructor) return problem('instructorId', told('choose-instructor'));
  if (pilotId === null) return problem('pilotId', told('choose-pilot'));
  const split = await learnedSplit(frame.sheet.code, field.house);
  const minutes =
    ask.minutes ??
    (ask.kind === 'lesson' ? bookingMinutes(split) : Math.ceil((split.prepare + split.flight) / 15) * 15);
  const people = [`p:${pilotId}`, ...(instructor ? [personKey(instructor)] : [])];
  const parts = splitOf(ask.kind, minutes, split);
  const need =
    head && ask.kind === 'lesson'
      ? await lessonNeed(await checkoutRecord(head), instructor, await localToday(), field.house)
      : await aloneNeed(pilotId, frame.sheet, await localToday(), field.house);
  const free = (
    await slotsFor(
      field,
      { minutes, holders: [...people, airKey(ask.airframeId ?? '')], people, except: null },
      ask.fromDate,
      ask.days,
    )
  ).filter((s) => daylightProblem(field, s.from, parts) === null);
  const ranked = free.map((s): Proposal => ({
    ...s,
    minutes,
    split: parts,
    fit: windFit(windAtSlot(field, frame.sheet, flightSpan(s.from, parts).from, ask.surface), need),
  }));
  return { ok: true, minutes, split, need, best: bestSlots(ranked), free: free.length };
}

/** How a booking of a kind is spent: without an instructor there is neither brief nor debrief. */
export function splitOf(kind: BookingKind, minutes: number, learned: Split): Split {
  if (kind !== 'lesson') {
    const prepare = Math.min(learned.prepare, Math.floor(minutes / 3));
    return { brief: 0, prepare, flight: minutes - prepare, debrief: 0 };
  }
  return splitBooking(minutes, learned);
}

export interface Wish {
  id: string;
  pilotId: string;
  pilotName: string;
  checkoutId: string | null;
  registration: string | null;
  goals: Goal[];
  minutes: number;
  fromDate: string;
  toDate: string;
  note: string;
  askedAt: string;
}
/** Who waits for a slot; a pilot sees their own. */
export async function waiting(user: CurrentUser): Promise<Wish[]> {
  const today = await localToday();
  const found = await ask.waiting.all({ today });
  return found
    .filter((w) => may.book(user, { pilotId: w.pilotId }))
    .map((w) => ({
      id: w.id,
      pilotId: w.pilotId,
      pilotName: w.name,
      checkoutId: w.checkoutId,
      registration: w.registration,
      goals: w.goals ?? [],
      minutes: w.minutes,
      fromDate: w.fromDate,
      toDate: w.toDate,
      note: w.note,
      askedAt: w.askedAt,
    }));
}
