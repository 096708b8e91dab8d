import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { dateText, list, plural } from '@/core/format';
import { FACT_WORDS, demandsOf, holdsKind, sheetFacts } from '@/core/plan';
import { type ActingStop, mostIn24h } from '@/core/recency';
import {
  type Hold,
  type Span,
  type Split,
  awayIn,
  clockText,
  conflictsOf,
  dayText,
  later,
  limitationProblems,
  localClock,
  overlaps,
  windowsOn,
  withinWindows,
  WEEKDAYS,
  minutesText,
} from '@/core/schedule';
import { isNight } from '@/core/sun';
import type { Limitations } from '@/domain/book';
import {
  AwayForm,
  BookForm,
  type BookingKind,
  CancelForm,
  EndAwayForm,
  MoveForm,
  WaitForm,
  WindowsForm,
  windowsStamp,
} from '@/domain/schedule';
import type { RulePack } from '@/domain/programme';
import { type Goal, say as sayKind } from '@/domain/words';
import type { TypeSheet } from '@/domain/sheet';
import { aYearFrom } from '../../account/commands/tokens';
import { type CurrentUser, may, personKey } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { contentById, newestContent } from '../../rules/content';
import { database, row, rows } from '../../floor/connection';
import { model } from '../../floor/models';
import { write } from '../../floor/write';
import { notify, userOfPilot } from '../../account/commands/notices';
import { checkoutHead } from '../../checkout/queries/head';
import { heldOn } from '../../people/queries/held';
import { actingOf, intervalOf, passengerState, teachState } from '../../people/queries/recency';
import {
  type AwayRow,
  type Field,
  airKey,
  airframeSheet,
  awayRows,
  daylightProblem,
  fieldFacts,
  holdsBetween,
  learnedSplit,
  nearestFree,
  openHours,
  splitOf,
  userById,
  weeklyRows,
  windAtSlot,
  flightSpan,
} from '../queries/schedule';
import { type Problem, type Result, problem, zodProblems } from '../../floor/result';

/** A refusal names what is in the way and the nearest time at which everybody is free. */
export type Booked =
  | { ok: true; bookingId: string; version: number; warnings: string[] }
  | { ok: false; problems: Problem[]; nearest?: Span | null };

interface Wanted {
  bookingId: string | null;
  kind: BookingKind;
  checkoutId: string | null;
  pilotId: string | null;
  instructorId: string | null;
  airframeId: string | null;
  startsAt: string;
  minutes: number;
  passengers: number;
  surface: string;
}
interface Checked {
  problems: Problem[];
  warnings: string[];
  holders: string[];
  split: Split;
  span: Span;
  nearest: Span | null;
  pilotId: string | null;
  field: Field;
}

const spanText = (s: { from: string; to: string | null }, zone: string): string =>
  s.to === null
    ? `from ${dayText(localClock(s.from, zone).date)} until further notice`
    : `${dayText(localClock(s.from, zone).date)}, ${clockText(s.from, zone)} to ${clockText(s.to, zone)}`;

/** How far ahead anybody books, and how many bookings ahead a pilot may hold. */
const FURTHEST_MS = 400 * 86_400_000;
const MOST_AHEAD = 12;

/** Everything that stands against a booking, and the nearest free time when people or the aeroplane are taken. */
async function check(user: CurrentUser, w: Wanted, t: Transaction): Promise<Checked> {
  const field = await fieldFacts(t);
  const { zone } = field;
  const problems: Problem[] = [];
  const warnings: string[] = [];
  const head = w.checkoutId === null ? null : await checkoutHead(w.checkoutId, t);
  const pilotId = head?.pilotId ?? w.pilotId;
  const frame = w.airframeId === null ? null : await airframeSheet(w.airframeId, t);
  const instructor = w.instructorId === null ? null : await userById(w.instructorId, t);
  const pilot =
    pilotId === null
      ? null
      : await row<{ name: string }>(
          'SELECT name FROM pilots p WHERE id = :pilotId AND NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = p.id)',
          { pilotId },
          t,
        );
  const say = (path: string, message: string) => problems.push({ path, message });
  if (Date.parse(w.startsAt) > Date.parse(nowIso()) + FURTHEST_MS) say('startsAt', 'Book at most 400 days ahead.');
  if (pilotId !== null && w.bookingId === null && !may.seeEverybody(user)) {
    const ahead = await row<{ n: number }>(
      "SELECT COUNT(*) AS n FROM bookings WHERE pilot_id = :pilotId AND state = 'booked' AND starts_at > :now",
      { pilotId, now: nowIso() },
      t,
    );
    if ((ahead?.n ?? 0) >= MOST_AHEAD)
      say(
        'startsAt',
        `You have ${ahead?.n ?? 0} bookings ahead, the most a pilot may hold. Cancel one, or ask the office.`,
      );
  }
  if (w.checkoutId !== null && (!head || head.status !== 'open')) say('checkoutId', 'This checkout is not open.');
  if (!pilot && w.kind !== 'other') say('pilotId', 'Choose the pilot.');
  if (!frame && w.kind !== 'other') say('airframeId', 'Choose the aeroplane.');
  if (w.kind === 'lesson' && !instructor) say('instructorId', 'Choose the instructor.');
  if (w.kind === 'other' && !pilot && !frame && !instructor)
    say('pilotId', 'A booking is of a person or an aeroplane: choose one.');
  if (instructor && !instructor.roles.includes('instructor'))
    say('instructorId', `${instructor.name} is not an instructor.`);
  if (instructor && pilotId !== null && instructor.pilotId === pilotId)
    say('instructorId', 'Nobody is their own instructor. Choose another.');
  const learned = frame
    ? await learnedSplit(frame.sheet.code, field.house, t)
    : { brief: 0, prepare: 0, flight: w.minutes, debrief: 0 };
  const split = splitOf(w.kind, w.minutes, learned);
  const span: Span = { from: w.startsAt, to: later(w.startsAt, w.minutes) };
  const people = [...(pilotId === null ? [] : [`p:${pilotId}`]), ...(instructor ? [personKey(instructor)] : [])];
  const holders = [...people, ...(w.airframeId === null ? [] : [airKey(w.airframeId)])];
  const date = localClock(span.from, zone).date;
  const open = openHours(date, field);
  if (span.from < nowIso()) say('startsAt', 'This time is past. Choose a later one.');
  if (!open || span.from < open.from || span.to > open.to)
    say(
      'startsAt',
      open
        ? `Bookings lie between ${clockText(open.from, zone)} and ${clockText(open.to, zone)} of one day (${field.house.schedule.source}).`
        : 'There is no daylight that day.',
    );
  if (frame) {
    const dark = daylightProblem(field, span.from, split);
    if (dark) say('startsAt', dark);
  }
  // Who and what is taken.
  const names = new Map<string, string>([
    ...(pilot && pilotId ? [[`p:${pilotId}`, pilot.name] as const] : []),
    ...(instructor ? [[personKey(instructor), instructor.name] as const] : []),
    ...(frame && w.airframeId ? [[airKey(w.airframeId), frame.registration] as const] : []),
  ]);
  const holds = await holdsBetween(span.from, span.to, t);
  const taken = conflictsOf(span, holders, holds, w.bookingId) as (Hold & { what: string })[];
  const staff = may.seeEverybody(user);
  for (const h of taken)
    say(
      fieldOf(h.holder, w, instructor),
      `${names.get(h.holder) ?? 'This'} is taken ${spanText(h, zone)}${staff && h.what ? `: ${h.what}` : ''}.`,
    );
  const away: AwayRow[] = await awayRows(t);
  for (const a of awayIn(span, holders, away) as AwayRow[])
    say(
      fieldOf(a.who, w, instructor),
      `${names.get(a.who) ?? 'This'} is ${a.kind === 'away' ? 'away' : 'down'} ${spanText(a, zone)}${staff || a.kind !== 'away' ? `: ${a.why}` : ''}.`,
    );
  const weekly = await weeklyRows(t);
  for (const p of people) {
    const windows = windowsOn(p, date, weekly, zone);
    if (!withinWindows(span, windows))
      say(
        fieldOf(p, w, instructor),
        `${names.get(p) ?? 'This person'} can be booked ${windows && windows.length > 0 ? list(windows.map((x) => `${clockText(x.from, zone)} to ${clockText(x.to, zone)}`)) : 'at no time'} on ${dayText(date)}.`,
      );
  }
  // Who may: the instructor's right to teach on that day, the pilot's right to fly alone.
  if (frame && head && head.typeCode !== frame.sheet.code)
    say(
      'airframeId',
      `This checkout is on ${head.typeName}: choose an aeroplane of that type, or open a checkout on ${frame.sheet.name}.`,
    );
  // An instructor beside a pilot teaches, whatever the booking is called; looked at for the aeroplane that is booked.
  if (frame && instructor && pilotId !== null) {
    const long = await trainingProblem(instructor, w.bookingId, flightSpan(span.from, split), field, t);
    if (long) say('startsAt', long);
    problems.push(
      ...(await teachProblems(
        instructor,
        { sheet: frame.sheet, packId: head?.packId ?? null, houseId: head?.houseId ?? null, goals: head?.goals ?? [] },
        date,
        t,
      )),
    );
  }
  if (frame && pilotId !== null && w.kind !== 'lesson' && w.kind !== 'other') {
    const alone = await aloneProblems(
      pilotId,
      frame.sheet,
      { ...w, dual: instructor !== null },
      span,
      split,
      field,
      date,
      t,
    );
    problems.push(...alone.problems);
    warnings.push(...alone.warnings);
  }
  const inTheWay =
    taken.length > 0 ||
    problems.some((p) => p.path === 'startsAt') ||
    awayIn(span, holders, away).length > 0 ||
    people.some((p) => !withinWindows(span, windowsOn(p, date, weekly, zone)));
  const nearest =
    inTheWay && holders.length > 0
      ? await nearestFree(field, { minutes: w.minutes, holders, people, except: w.bookingId }, span.from, t)
      : null;
  return { problems, warnings, holders, split, span, nearest, pilotId, field };
}
const fieldOf = (holder: string, w: Wanted, instructor: CurrentUser | null): string =>
  holder.startsWith('a:')
    ? 'airframeId'
    : instructor && holder === personKey(instructor)
      ? 'instructorId'
      : w.checkoutId !== null
        ? 'checkoutId'
        : 'pilotId';

/** More flight training in 24 hours than the law allows an instructor to give, counted over what is booked. */
async function trainingProblem(
  instructor: CurrentUser,
  bookingId: string | null,
  flight: Span,
  field: Field,
  t: Transaction,
): Promise<string | null> {
  const limit = (await newestContent('pack', field.house.homePack, t))?.body.trainingIn24h ?? null;
  if (!limit) return null;
  const booked = await rows<{ starts_at: string; split: string }>(
    "SELECT starts_at, split FROM bookings WHERE instructor_id = :id AND state <> 'cancelled' AND pilot_id IS NOT NULL AND (:booking IS NULL OR id <> :booking) AND ends_at > :from AND starts_at < :to",
    { id: instructor.id, booking: bookingId, from: later(flight.from, -1440), to: later(flight.to, 1440) },
    t,
  );
  const spans = booked.map((b) => flightSpan(b.starts_at, JSON.parse(b.split) as Split));
  const minutes = mostIn24h([...spans, flight]);
  return minutes > limit.hours * 60 && minutes > mostIn24h(spans)
    ? `${instructor.name} would give ${Math.ceil(minutes / 6) / 10} h of flight training in 24 hours; ${limit.hours} h is the most (${limit.citation}). Choose another time or another instructor.`
    : null;
}

/** Why an instructor may not teach an aeroplane on a day, each with what restores it. */
async function teachProblems(
  instructor: CurrentUser,
  of: { sheet: TypeSheet; packId: string | null; houseId: string | null; goals: Goal[] },
  date: string,
  t: Transaction,
): Promise<Problem[]> {
  const house =
    of.houseId === null ? (await newestContent('house', 'house', t))?.body : await contentById('house', of.houseId, t);
  if (!house) return [];
  const pack: RulePack | undefined =
    of.packId === null
      ? (await newestContent('pack', house.homePack, t))?.body
      : await contentById('pack', of.packId, t);
  if (!pack) return [];
  const state = await teachState(instructor, { sheet: of.sheet, pack, house, goals: of.goals }, date, t);
  const say = (message: string): Problem => ({ path: 'instructorId', message });
  return [
    ...state.notRecent.map((r) =>
      say(
        `${instructor.name} is out of recency to teach ${of.sheet.name} on ${dayText(date)}: ${r.restore} restore it (${r.citation}).`,
      ),
    ),
    ...state.ratings.map((r) => say(`${instructor.name} does not hold ${r.text} (${r.citation}).`)),
    ...(state.lacks.length > 0
      ? [say(`${instructor.name} does not hold ${list(state.lacks.map(sayKind))}, which ${of.sheet.name} demands.`)]
      : []),
    ...(state.modelHours && state.modelHours.have < state.modelHours.needed
      ? [
          say(
            `${instructor.name} has ${state.modelHours.have} h ${state.modelHours.inCommand ? 'in command ' : ''}in ${state.modelHours.within === 'class' ? 'the class of ' : ''}${of.sheet.name}; ${state.modelHours.needed} h are needed to teach it (${state.modelHours.citation}).`,
          ),
        ]
      : []),
    ...(state.certificateUntil !== null && state.certificateUntil < date
      ? [say(`${instructor.name}’s certificate ends on ${dateText(state.certificateUntil)}.`)]
      : []),
  ];
}

/**
 * What stands against a pilot flying without instruction: what the aeroplane demands, the house's interval, passengers,
 * and the limitations of their sign-offs.
 */
async function aloneProblems(
  pilotId: string,
  sheet: TypeSheet,
  w: Pick<Wanted, 'kind' | 'passengers' | 'surface'> & { dual: boolean },
  span: Span,
  split: Split,
  field: Field,
  date: string,
  t: Transaction,
): Promise<{ problems: Problem[]; warnings: string[] }> {
  const problems: Problem[] = [];
  const warnings: string[] = [];
  const say = (path: string, message: string) => problems.push({ path, message });
  const { house } = field;
  const pack = (await newestContent('pack', house.homePack, t))?.body;
  if (!w.dual) {
    const surface = w.surface === 'any' ? 'any' : w.surface === 'water' ? 'water' : 'land';
    const { held, lapsed } = await heldOn(pilotId, pack ?? null, date, t);
    const demands = demandsOf(sheetFacts(sheet), house.homePack, sheet.code);
    const lacks = [...(demands.classRatings ?? []), ...demands.endorsements].filter((k) => !holdsKind(held, k));
    for (const l of lapsed.filter((x) => lacks.includes(x.kind)))
      say(
        'pilotId',
        `${sayKind(l.kind)} has lapsed${l.through === null ? '' : ` on ${dateText(l.through)}`}: not flown for ${pack?.variantLapse?.months ?? 0} months (${pack?.variantLapse?.citation ?? ''}). Book a lesson.`,
      );
    if (lacks.length > 0)
      say(
        'pilotId',
        `${sheet.name} demands ${list(lacks.map(sayKind))}, which this pilot does not hold: book a lesson.`,
      );
    if (demands.unknown.length > 0)
      say(
        'airframeId',
        `The sheet of ${sheet.name} does not give ${list(demands.unknown.map((k) => FACT_WORDS[k] ?? k))}: what it demands is not known. Complete the sheet first.`,
      );
    if (pack)
      for (const stop of await actingOf(pilotId, sheet, pack, date, t, surface))
        say('pilotId', actingWords(stop, date));
    const signed = await signOffsIn(pilotId, sheet.code, t);
    const hours = await row<{ h: number | null }>(
      'SELECT MAX(hours) AS h FROM pilot_hours WHERE pilot_id = :pilotId AND type_code = :code',
      { pilotId, code: sheet.code },
      t,
    );
    if (signed.length === 0 && (hours?.h ?? 0) === 0)
      say('pilotId', `Nothing in the book says that this pilot may fly ${sheet.name} alone. Open a checkout.`);
    const interval = await intervalOf(pilotId, sheet, house, date, t);
    if (interval?.status === 'expired') {
      const words = `${interval.days} days without the type are over since ${dateText(interval.validThrough ?? '')} (${house.signing.source})`;
      if (w.kind === 'currency' && (await isInstructor(pilotId, t)))
        warnings.push(`${words}: as an instructor, for own practice only.`);
      else say('pilotId', `${words}: an interval check first.`);
    }
    const surfaces =
      w.surface === 'any'
        ? [
            ...new Set(
              field.aerodrome.runways
                .filter((r) => (sheet.surface === 'land' ? r.surface !== 'water' : true))
                .map((r) => r.surface),
            ),
          ]
        : [w.surface];
    for (const s of signed) {
      const wind = windAtSlot(
        field,
        sheet,
        flightSpan(span.from, split).from,
        s.limitations.surface === 'any' ? w.surface : s.limitations.surface,
      );
      for (const p of limitationProblems(s.limitations, {
        dual: w.dual,
        passengers: w.passengers,
        surfaces,
        crosswindKt: wind === null ? null : wind.crosswindKt,
        hoursSince: await hoursSince(pilotId, sheet.code, s.signedOn, t),
      }))
        say(
          p.includes('passengers') ? 'passengers' : p.includes('runway') ? 'surface' : 'startsAt',
          `Entry ${s.seq}: ${p}.`,
        );
      // What no booking can hold anybody to is said when it is booked.
      if (s.limitations.attitude !== 'any')
        warnings.push(
          `Entry ${s.seq} holds: ${s.limitations.attitude === 'three-point' ? 'three-point' : 'wheel'} landings only.`,
        );
      if (s.limitations.crosswindKt !== null && wind === null)
        warnings.push(
          `Entry ${s.seq} holds: to ${s.limitations.crosswindKt} kt across. There is no forecast yet: look at it on the day.`,
        );
    }
    if (w.passengers > 0 && pack) {
      const flight = flightSpan(span.from, split);
      const night = isNight(flight.to, field.aerodrome, pack.night.recency);
      const state = await passengerState(pilotId, sheet, pack, date, t, { surface, night });
      for (const r of state.rules.filter((x) => x.status === 'expired'))
        say(
          'passengers',
          `Not recent for passengers in this class on ${dayText(date)}: ${r.restore ?? 'more flying'} restore it (${state.asked.find((a) => a.id === r.ruleId)?.citation ?? ''}).`,
        );
    }
  }
  return { problems, warnings };
}
/** Why a pilot may not act as pilot in command on a day, with the rule and what to do. */
const actingWords = (stop: ActingStop, date: string): string =>
  stop.status === 'missing'
    ? `${stop.title} is not on record, so this pilot may not be booked as pilot in command (${stop.citation}). Enter it on the person’s page, or book a lesson.`
    : `${stop.title} ended on ${dateText(stop.through ?? '')}, before ${dayText(date)}: not pilot in command until it is renewed (${stop.citation}). Book a lesson.`;

const isInstructor = async (pilotId: string, t: Transaction): Promise<boolean> =>
  Boolean(
    await row(
      'SELECT id FROM users WHERE pilot_id = :pilotId AND closed_at IS NULL AND roles LIKE \'%"instructor"%\'',
      { pilotId },
      t,
    ),
  );

/** Sign-offs in a type that stand, the newest of the same goals. */
async function signOffsIn(
  pilotId: string,
  code: string,
  t: Transaction,
): Promise<{ seq: number; limitations: Limitations; signedOn: string }[]> {
  const found = await rows<{ seq: number; limitations: string; on: string; goals: string }>(
    `SELECT l.seq, json_extract(l.canonical, '$.body.limitations') AS limitations, COALESCE(json_extract(l.canonical, '$.body.signedOn'), substr(l.signed_at, 1, 10)) AS "on", c.goals FROM ledger l JOIN checkouts c ON c.id = l.checkout_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN types ty ON ty.id = tv.type_id
     WHERE l.kind = 'sign-off' AND c.pilot_id = :pilotId AND ty.code = :code AND NOT EXISTS (SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = l.id) ORDER BY l.seq`,
    { pilotId, code },
    t,
  );
  const newest = new Map(found.map((f) => [f.goals, f]));
  return [...newest.values()].map((f) => ({
    seq: f.seq,
    limitations: JSON.parse(f.limitations) as Limitations,
    signedOn: f.on,
  }));
}
/** Hours logged or read in for a type after a day. */
async function hoursSince(pilotId: string, code: string, day: string, t: Transaction): Promise<number> {
  const found = await row<{ h: number | null }>(
    `SELECT (SELECT COALESCE(SUM(hours), 0) FROM flight_log f WHERE f.pilot_id = :pilotId AND f.type_code = :code AND f.flown_on > :day AND NOT EXISTS (SELECT 1 FROM flight_log_struck x WHERE x.log_id = f.id))
       + (SELECT COALESCE(SUM(f.hours), 0) FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id WHERE i.taken_back_at IS NULL AND f.pilot_id = :pilotId AND f.type_code = :code AND f.flown_on > :day) AS h`,
    { pilotId, code, day },
    t,
  );
  return found?.h ?? 0;
}

const NOT_YOURS = 'There is nothing here for you to book.';
const TAKEN = /taken already at that time/;

/** Books. The same request twice is one booking; two requests at once never take the same person or aeroplane. */
export async function book(user: CurrentUser, form: unknown): Promise<Booked> {
  const parsed = BookForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = { ...parsed.data, startsAt: new Date(parsed.data.startsAt).toISOString() };
  return guarded(async (t): Promise<Booked> => {
    const known = await row<{ id: string; version: number; booked_by: string }>(
      'SELECT id, version, booked_by FROM bookings WHERE request_id = :r',
      { r: d.requestId },
      t,
    );
    if (known)
      return known.booked_by === user.id
        ? { ok: true, bookingId: known.id, version: known.version, warnings: [] }
        : problem('', NOT_YOURS);
    const head = d.checkoutId === null ? null : await checkoutHead(d.checkoutId, t);
    if (!may.book(user, { pilotId: head?.pilotId ?? d.pilotId })) return problem('', NOT_YOURS);
    if (d.kind === 'other' && !may.seeEverybody(user))
      return problem('kind', 'A pilot books lessons, hire and own practice.');
    const c = await check(user, { ...d, bookingId: null }, t);
    if (c.problems.length > 0) return { ok: false, problems: c.problems, nearest: c.nearest };
    const id = randomUUID();
    await model('bookings').create(
      {
        id,
        kind: d.kind,
        pilot_id: c.pilotId,
        instructor_id: d.instructorId,
        airframe_id: d.airframeId,
        checkout_id: d.checkoutId,
        starts_at: c.span.from,
        ends_at: c.span.to,
        split: JSON.stringify(c.split),
        passengers: d.passengers,
        surface: d.surface,
        note: d.note,
        state: 'booked',
        version: 1,
        booked_by: user.id,
        booked_at: nowIso(),
        request_id: d.requestId,
      },
      { transaction: t },
    );
    await takeUp(id, c.holders, c.span, t);
    await changed(user, id, 1, 'booked', { ...d, endsAt: c.span.to }, '', t);
    if (d.waitingId !== null)
      await model('waiting_list').update(
        { ended_at: nowIso(), ended_how: 'booked', booking_id: id },
        { where: { id: d.waitingId, ended_at: null, pilot_id: c.pilotId ?? '' }, transaction: t },
      );
    await notify(
      [d.instructorId, await userOfPilot(c.pilotId, t)],
      {
        kind: 'booked',
        text: `${user.name} booked ${await bookingWords(id, c.field, t)}.`,
        href: `/schedule?day=${localClock(c.span.from, c.field.zone).date}`,
        about: id,
      },
      user.id,
      t,
    );
    return { ok: true, bookingId: id, version: 1, warnings: c.warnings };
  });
}

/** Moves a booking in time, or to another aeroplane or instructor. Who moves it must have seen it as it stands. */
export async function moveBooking(user: CurrentUser, form: unknown): Promise<Booked> {
  const parsed = MoveForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  return guarded(async (t): Promise<Booked> => {
    const b = await row<{
      kind: BookingKind;
      pilot_id: string | null;
      instructor_id: string | null;
      airframe_id: string | null;
      checkout_id: string | null;
      starts_at: string;
      ends_at: string;
      passengers: number;
      surface: string;
      state: string;
      version: number;
    }>('SELECT * FROM bookings WHERE id = :id', { id: d.bookingId }, t);
    if (!b || b.state !== 'booked' || !may.book(user, { pilotId: b.pilot_id })) return problem('', NOT_YOURS);
    if (b.version !== d.version)
      return problem('', 'This booking was changed meanwhile. Look at it as it stands now, then move it.');
    if (b.starts_at < nowIso()) return problem('', 'This booking has begun: it is moved no more.');
    const startsAt = new Date(d.startsAt).toISOString();
    const w: Wanted = {
      bookingId: d.bookingId,
      kind: b.kind,
      checkoutId: b.checkout_id,
      pilotId: b.pilot_id,
      instructorId: d.instructorId === undefined ? b.instructor_id : d.instructorId,
      airframeId: d.airframeId === undefined ? b.airframe_id : d.airframeId,
      startsAt,
      minutes: d.minutes,
      passengers: b.passengers,
      surface: b.surface,
    };
    const c = await check(user, w, t);
    if (c.problems.length > 0) return { ok: false, problems: c.problems, nearest: c.nearest };
    const version = b.version + 1;
    await putDown(d.bookingId, t);
    await model('bookings').update(
      {
        starts_at: c.span.from,
        ends_at: c.span.to,
        split: JSON.stringify(c.split),
        instructor_id: w.instructorId,
        airframe_id: w.airframeId,
        version,
      },
      { where: { id: d.bookingId }, transaction: t },
    );
    await takeUp(d.bookingId, c.holders, c.span, t);
    await changed(
      user,
      d.bookingId,
      version,
      'moved',
      { from: b.starts_at, to: c.span.from, until: c.span.to, airframeId: w.airframeId, instructorId: w.instructorId },
      '',
      t,
    );
    await notify(
      [b.instructor_id, w.instructorId, await userOfPilot(b.pilot_id, t)],
      {
        kind: 'moved',
        text: `${user.name} moved ${await bookingWords(d.bookingId, c.field, t)}; it was ${spanText({ from: b.starts_at, to: b.ends_at }, c.field.zone)}.`,
        href: `/schedule?day=${localClock(c.span.from, c.field.zone).date}`,
        about: d.bookingId,
      },
      user.id,
      t,
    );
    await tellWaiting({ from: b.starts_at, to: b.ends_at }, b.instructor_id, b.airframe_id, c.field, user.id, t);
    return { ok: true, bookingId: d.bookingId, version, warnings: c.warnings };
  });
}

/** Cancels, with the reason. The booking stays in the record; its time is free again, and those who wait hear of it. */
export async function cancelBooking(user: CurrentUser, form: unknown): Promise<Booked> {
  const parsed = CancelForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  return guarded(async (t): Promise<Booked> => {
    const b = await row<{
      pilot_id: string | null;
      instructor_id: string | null;
      airframe_id: string | null;
      starts_at: string;
      ends_at: string;
      state: string;
      version: number;
    }>('SELECT * FROM bookings WHERE id = :id', { id: d.bookingId }, t);
    if (!b || !may.book(user, { pilotId: b.pilot_id })) return problem('', NOT_YOURS);
    if (b.state === 'cancelled') return { ok: true, bookingId: d.bookingId, version: b.version, warnings: [] };
    if (b.version !== d.version) return problem('', 'This booking was changed meanwhile. Look at it as it stands now.');
    const field = await fieldFacts(t);
    const words = await bookingWords(d.bookingId, field, t);
    await putDown(d.bookingId, t);
    await model('bookings').update(
      { state: 'cancelled', version: b.version + 1 },
      { where: { id: d.bookingId }, transaction: t },
    );
    await changed(user, d.bookingId, b.version + 1, 'cancelled', {}, d.reason, t);
    await notify(
      [b.instructor_id, await userOfPilot(b.pilot_id, t)],
      {
        kind: 'cancelled',
        text: `${user.name} cancelled ${words}: ${d.reason}.`,
        href: `/schedule?day=${localClock(b.starts_at, field.zone).date}`,
        about: d.bookingId,
      },
      user.id,
      t,
    );
    await tellWaiting({ from: b.starts_at, to: b.ends_at }, b.instructor_id, b.airframe_id, field, user.id, t);
    return { ok: true, bookingId: d.bookingId, version: b.version + 1, warnings: [] };
  });
}

/** Runs a write; should the database itself refuse two at once, that is a conflict and not a fault. */
async function guarded(work: (t: Transaction) => Promise<Booked>): Promise<Booked> {
  try {
    return await write(work);
  } catch (error) {
    if (error instanceof Error && TAKEN.test(error.message))
      return problem(
        'startsAt',
        'Somebody booked this at the same moment. Look again: the schedule is shown as it stands now.',
      );
    throw error;
  }
}
async function takeUp(bookingId: string, holders: readonly string[], span: Span, t: Transaction): Promise<void> {
  for (const holder of new Set(holders))
    await database().sequelize.query(
      'INSERT INTO booking_holds (booking_id, holder, starts_at, ends_at) VALUES (:bookingId, :holder, :from, :to)',
      { replacements: { bookingId, holder, ...span }, transaction: t },
    );
}
const putDown = (bookingId: string, t: Transaction) =>
  database().sequelize.query('DELETE FROM booking_holds WHERE booking_id = :bookingId', {
    replacements: { bookingId },
    transaction: t,
  });
const changed = (
  user: CurrentUser,
  bookingId: string,
  version: number,
  what: string,
  body: object,
  reason: string,
  t: Transaction,
) =>
  model('booking_changes').create(
    {
      id: randomUUID(),
      booking_id: bookingId,
      version,
      what,
      body: JSON.stringify(body),
      reason,
      changed_by: user.id,
      changed_at: nowIso(),
    },
    { transaction: t },
  );
async function bookingWords(id: string, field: Field, t: Transaction): Promise<string> {
  const b = await row<{
    kind: string;
    starts_at: string;
    ends_at: string;
    pilot: string | null;
    registration: string | null;
    instructor: string | null;
  }>(
    'SELECT b.kind, b.starts_at, b.ends_at, p.name AS pilot, a.registration, u.name AS instructor FROM bookings b LEFT JOIN pilots p ON p.id = b.pilot_id LEFT JOIN airframes a ON a.id = b.airframe_id LEFT JOIN users u ON u.id = b.instructor_id WHERE b.id = :id',
    { id },
    t,
  );
  return b
    ? `${[b.pilot, b.registration ? `in ${b.registration}` : '', b.instructor ? `with ${b.instructor}` : ''].filter(Boolean).join(' ')}, ${spanText({ from: b.starts_at, to: b.ends_at }, field.zone)}`
    : 'a booking';
}

/** A time came free: those whose wish it fits hear of it. */
async function tellWaiting(
  freed: Span,
  instructorId: string | null,
  airframeId: string | null,
  field: Field,
  by: string,
  t: Transaction,
): Promise<void> {
  if (freed.to <= nowIso()) return;
  const date = localClock(freed.from, field.zone).date;
  const wishes = await rows<{
    id: string;
    pilot_id: string;
    name: string;
    minutes: number;
    airframe_id: string | null;
    instructor_id: string | null;
  }>(
    'SELECT w.id, w.pilot_id, p.name, w.minutes, c.airframe_id, c.instructor_id FROM waiting_list w JOIN pilots p ON p.id = w.pilot_id LEFT JOIN checkouts c ON c.id = w.checkout_id WHERE w.ended_at IS NULL AND w.from_date <= :date AND w.to_date >= :date ORDER BY w.asked_at LIMIT 20',
    { date },
    t,
  );
  const long = (Date.parse(freed.to) - Date.parse(freed.from)) / 60_000;
  for (const w of wishes) {
    if (
      w.minutes > long ||
      (w.airframe_id !== null && w.airframe_id !== airframeId) ||
      (w.instructor_id !== null && w.instructor_id !== instructorId)
    )
      continue;
    const holds = await holdsBetween(freed.from, freed.to, t);
    if (holds.some((h) => h.holder === `p:${w.pilot_id}` && overlaps(freed, h))) continue;
    await notify(
      [w.instructor_id, await userOfPilot(w.pilot_id, t)],
      {
        kind: 'free',
        text: `${spanText(freed, field.zone)} came free; ${w.name} waits for ${plural(w.minutes, 'minute')}.`,
        href: `/schedule?day=${date}&wish=${w.id}`,
        about: w.id,
      },
      by,
      t,
    );
  }
}

/** The weekly windows of a person from a day on; earlier ones end the day before. */
export async function saveWindows(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = WindowsForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  if (!may.keepWindows(user, d.person)) return problem('', 'You keep your own times, or the chief does it.');
  const wrong = d.windows.findIndex((w) => w.toMin <= w.fromMin);
  if (wrong >= 0) return problem(`windows.${wrong}.toMin`, 'It ends before it begins.');
  const across = d.windows.findIndex((w, i) =>
    d.windows.some((x, j) => j !== i && x.weekday === w.weekday && x.fromMin < w.toMin && w.fromMin < x.toMin),
  );
  if (across >= 0) return problem(`windows.${across}.fromMin`, 'Two windows of this day overlap.');
  return write(async (t) => {
    if (!(await personThere(d.person, t))) return problem('', 'There is no such person.');
    const now = (await weeklyRows(t)).filter((w) => w.person === d.person);
    if (windowsStamp(now) !== d.base)
      return {
        ...problem(
          '',
          `Somebody changed these times meanwhile. They are now: ${now.length === 0 ? 'none' : list(now.map((w) => `${WEEKDAYS[w.weekday - 1] ?? ''} ${minutesText(w.fromMin)} to ${minutesText(w.toMin)} from ${dateText(w.validFrom)}`))}. Save again to set what you have entered here.`,
        ),
        base: windowsStamp(now),
      };
    await database().sequelize.query(
      'UPDATE weekly_windows SET valid_until = :until WHERE person = :person AND ended_at IS NULL AND valid_from < :from AND (valid_until IS NULL OR valid_until >= :from)',
      {
        replacements: {
          person: d.person,
          from: d.validFrom,
          until: new Date(Date.parse(`${d.validFrom}T12:00:00Z`) - 86_400_000).toISOString().slice(0, 10),
        },
        transaction: t,
      },
    );
    await database().sequelize.query(
      'UPDATE weekly_windows SET ended_at = :now WHERE person = :person AND ended_at IS NULL AND valid_from >= :from',
      { replacements: { person: d.person, from: d.validFrom, now: nowIso() }, transaction: t },
    );
    for (const w of d.windows)
      await model('weekly_windows').create(
        {
          id: randomUUID(),
          person: d.person,
          weekday: w.weekday,
          from_min: w.fromMin,
          to_min: w.toMin,
          valid_from: d.validFrom,
          valid_until: null,
          entered_by: user.id,
          entered_at: nowIso(),
          ended_at: null,
        },
        { transaction: t },
      );
    return { ok: true as const };
  });
}
const personThere = (key: string, t: Transaction) =>
  key.startsWith('p:')
    ? row('SELECT id FROM pilots WHERE id = :id', { id: key.slice(2) }, t)
    : row('SELECT id FROM users WHERE id = :id', { id: key.slice(2) }, t);

export type AwaySaved = { ok: true; hit: string[] } | { ok: false; problems: Problem[] };
/**
 * A person away, or an aeroplane down. Bookings in that time are not touched: they are named, and stand marked in the
 * schedule until somebody moves them.
 */
export async function saveAway(user: CurrentUser, form: unknown): Promise<AwaySaved> {
  const parsed = AwayForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  const frame = d.who.startsWith('a:');
  if (frame ? !may.keepFleetDown(user) : !may.keepWindows(user, d.who))
    return problem(
      '',
      frame ? 'The staff take an aeroplane out of the line.' : 'You keep your own times, or the chief does it.',
    );
  if (d.toAt !== null && Date.parse(d.toAt) <= Date.parse(d.fromAt))
    return problem('toAt', 'It ends before it begins.');
  if (!frame && d.toAt === null) return problem('toAt', 'Give the end.');
  return write(async (t): Promise<AwaySaved> => {
    if (
      !(frame
        ? await row('SELECT id FROM airframes WHERE id = :id', { id: d.who.slice(2) }, t)
        : await personThere(d.who, t))
    )
      return problem('who', 'Choose who or what.');
    const span = {
      from: new Date(d.fromAt).toISOString(),
      to: d.toAt === null ? '9999-12-31T00:00:00.000Z' : new Date(d.toAt).toISOString(),
    };
    if (!(await row('SELECT id FROM times_away WHERE id = :id', { id: d.requestId }, t)))
      await model('times_away').create(
        {
          id: d.requestId,
          who: d.who,
          kind: frame ? 'maintenance' : 'away',
          from_at: span.from,
          to_at: d.toAt === null ? null : span.to,
          why: d.why,
          entered_by: user.id,
          entered_at: nowIso(),
          ended_at: null,
          ended_by: null,
          ended_why: null,
        },
        { transaction: t },
      );
    const field = await fieldFacts(t);
    const hit = await rows<{ booking_id: string; pilot_id: string | null; instructor_id: string | null }>(
      'SELECT h.booking_id, b.pilot_id, b.instructor_id FROM booking_holds h JOIN bookings b ON b.id = h.booking_id WHERE h.holder = :who AND h.starts_at < :to AND h.ends_at > :from AND h.ends_at > :now',
      { who: d.who, ...span, now: nowIso() },
      t,
    );
    const words: string[] = [];
    for (const h of hit) {
      const w = await bookingWords(h.booking_id, field, t);
      words.push(w);
      await notify(
        [h.instructor_id, await userOfPilot(h.pilot_id, t)],
        {
          kind: 'down',
          text: `${w}: ${d.why}. It must be moved or cancelled.`,
          href: '/schedule',
          about: h.booking_id,
        },
        user.id,
        t,
      );
    }
    return { ok: true, hit: words };
  });
}
/** Back before the time, or at the end of an open one. */
export async function endAway(
  user: CurrentUser,
  form: unknown,
): Promise<{ ok: true } | { ok: false; problems: Problem[] }> {
  const parsed = EndAwayForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  return write(async (t) => {
    const a = await row<{ who: string; ended_at: string | null }>(
      'SELECT who, ended_at FROM times_away WHERE id = :id',
      { id: parsed.data.id },
      t,
    );
    if (!a || (a.who.startsWith('a:') ? !may.keepFleetDown(user) : !may.keepWindows(user, a.who)))
      return problem('', 'There is nothing of this name for you to end.');
    if (a.ended_at === null)
      await model('times_away').update(
        { ended_at: nowIso(), ended_by: user.id, ended_why: parsed.data.why },
        { where: { id: parsed.data.id }, transaction: t },
      );
    return { ok: true as const };
  });
}

/** A wish for a slot: heard of when one comes free. */
export async function joinWaiting(
  user: CurrentUser,
  form: unknown,
): Promise<{ ok: true } | { ok: false; problems: Problem[] }> {
  const parsed = WaitForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  if (!may.book(user, d)) return problem('', NOT_YOURS);
  if (d.toDate < d.fromDate) return problem('toDate', 'It ends before it begins.');
  return write(async (t) => {
    if (await row('SELECT id FROM waiting_list WHERE id = :id', { id: d.requestId }, t)) return { ok: true as const };
    if (
      !(await row('SELECT id FROM pilots WHERE id = :id', { id: d.pilotId }, t)) ||
      (d.checkoutId !== null &&
        !(await row('SELECT id FROM checkouts WHERE id = :c AND pilot_id = :p', { c: d.checkoutId, p: d.pilotId }, t)))
    )
      return problem('', NOT_YOURS);
    await model('waiting_list').create(
      {
        id: d.requestId,
        pilot_id: d.pilotId,
        checkout_id: d.checkoutId,
        minutes: d.minutes,
        from_date: d.fromDate,
        to_date: d.toDate,
        note: d.note,
        asked_by: user.id,
        asked_at: nowIso(),
        ended_at: null,
        ended_how: null,
        booking_id: null,
      },
      { transaction: t },
    );
    return { ok: true as const };
  });
}
export async function leaveWaiting(
  user: CurrentUser,
  id: string,
): Promise<{ ok: true } | { ok: false; problems: Problem[] }> {
  return write(async (t) => {
    const w = await row<{ pilot_id: string; ended_at: string | null }>(
      'SELECT pilot_id, ended_at FROM waiting_list WHERE id = :id',
      { id },
      t,
    );
    if (!w || !may.book(user, { pilotId: w.pilot_id })) return problem('', NOT_YOURS);
    if (w.ended_at === null)
      await model('waiting_list').update(
        { ended_at: nowIso(), ended_how: 'withdrawn' },
        { where: { id }, transaction: t },
      );
    return { ok: true as const };
  });
}

const feedHash = (secret: string): string => createHash('sha256').update(secret).digest('hex');
/** A calendar address of one’s own; told once, an earlier one ends. */
export async function openFeed(
  user: CurrentUser,
  alarmMin: number,
): Promise<{ ok: true; secret: string } | { ok: false; problems: Problem[] }> {
  if (!Number.isInteger(alarmMin) || alarmMin < 0 || alarmMin > 2880)
    return problem('alarmMin', 'Give minutes from 0 to 2880.');
  const secret = randomBytes(24).toString('base64url');
  return write(async (t) => {
    await model('calendar_feeds').update(
      { ended_at: nowIso() },
      { where: { user_id: user.id, ended_at: null }, transaction: t },
    );
    await model('calendar_feeds').create(
      {
        id: randomUUID(),
        user_id: user.id,
        hash: feedHash(secret),
        alarm_min: alarmMin,
        created_at: nowIso(),
        ended_at: null,
        expires_at: aYearFrom(nowIso()),
        last_used_at: null,
      },
      { transaction: t },
    );
    return { ok: true as const, secret };
  });
}
export async function endFeed(user: CurrentUser): Promise<{ ok: true }> {
  await write(
    async (t) =>
      void (await model('calendar_feeds').update(
        { ended_at: nowIso() },
        { where: { user_id: user.id, ended_at: null }, transaction: t },
      )),
  );
  return { ok: true };
}
/** Whose calendar an address is; null = nobody’s. */
export async function feedOwner(secret: string): Promise<{ user: CurrentUser; alarmMin: number } | null> {
  const found = await row<{ id: string; user_id: string; alarm_min: number; last_used_at: string | null }>(
    `SELECT f.id, f.user_id, f.alarm_min, f.last_used_at
       FROM calendar_feeds f JOIN users u ON u.id = f.user_id
       WHERE f.hash = :hash AND f.ended_at IS NULL AND f.expires_at > :now AND u.closed_at IS NULL`,
    { hash: feedHash(secret), now: nowIso() },
  );
  const user = found ? await userById(found.user_id) : null;
  const today = nowIso().slice(0, 10);
  if (found && found.last_used_at !== today)
    await write(
      async (t) =>
        void (await model('calendar_feeds').update(
          { last_used_at: today },
          { where: { id: found.id }, transaction: t },
        )),
    );
  return found && user ? { user, alarmMin: found.alarm_min } : null;
}
