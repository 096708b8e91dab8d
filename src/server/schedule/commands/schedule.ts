import type { Told } from '../../floor/sentences';
import { openSpanText, told } from '../sentences';
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
  type LimitationProblem,
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
import { write } from '../../floor/write';
import { notify, userOfPilot } from '../../account/commands/notices';
import { checkoutHead } from '../../checkout/queries/head';
import { heldOn } from '../../people/queries/held';
import { actingOf, intervalOf, passengerState, teachState } from '../../people/queries/recency';
import { type AwayRow, awayRows, holdsBetween, weeklyRows } from '../queries/holds';
import { type Field, airKey, fieldFacts, openHours, flightSpan } from '../queries/day';
import { airframeSheet, daylightProblem, nearestFree } from '../queries/slots';
import { learnedSplit, splitOf } from '../queries/split';
import { windAtSlot } from '../queries/wind';
import { type Problem, type Result, problem, zodProblems, problemAt } from '../../floor/result';
import * as ask from '../../floor/statements/schedule';
import { Bookings, CalendarFeeds, TimesAway, Waiting, BookingChanges, WeeklyWindows, BookingHolds } from '../tables';
import { Op } from 'sequelize';
import { Pilots, Users } from '../../account/tables';
import { Airframes } from '../../hangar/tables';
import { Checkouts } from '../../checkout/tables';
import { addDays } from '@/core/recency';
import { userById } from '../../floor/auth/session-user';

/** A refusal names what is in the way and the nearest time at which everybody is free. */
export type Booked =
  | { ok: true; bookingId: string; version: number; warnings: Told[] }
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
  warnings: Told[];
  holders: string[];
  split: Split;
  span: Span;
  nearest: Span | null;
  pilotId: string | null;
  field: Field;
}

const spanText = (s: { from: string; to: string | null }, zone: string): string =>
  s.to === null
    ? openSpanText(dayText(localClock(s.from, zone).date))
    : `${dayText(localClock(s.from, zone).date)}, ${clockText(s.from, zone)} to ${clockText(s.to, zone)}`;

/** How far ahead anybody books, and how many bookings ahead a pilot may hold. */
const FURTHEST_MS = 400 * 86_400_000;
const MOST_AHEAD = 12;

/** Everything that stands against a booking, and the nearest free time when people or the aeroplane are taken. */
async function check(user: CurrentUser, w: Wanted, t: Transaction): Promise<Checked> {
  const field = await fieldFacts(t);
  const { zone } = field;
  const problems: Problem[] = [];
  const warnings: Told[] = [];
  const head = w.checkoutId === null ? null : await checkoutHead(w.checkoutId, t);
  const pilotId = head?.pilotId ?? w.pilotId;
  const frame = w.airframeId === null ? null : await airframeSheet(w.airframeId, t);
  const instructor = w.instructorId === null ? null : await userById(w.instructorId, t);
  const pilot = pilotId === null ? null : await ask.check.one({ pilotId }, t);
  const say = (path: string, what: Told) => problems.push(problemAt(path, what));
  if (Date.parse(w.startsAt) > Date.parse(nowIso()) + FURTHEST_MS) say('startsAt', told('too-far-ahead'));
  if (pilotId !== null && w.bookingId === null && !may.seeEverybody(user)) {
    const ahead = await ask.checkBookings.one({ pilotId, now: nowIso() }, t);
    if ((ahead?.n ?? 0) >= MOST_AHEAD) say('startsAt', told('too-many-ahead', { count: ahead?.n ?? 0 }));
  }
  if (w.checkoutId !== null && (!head || head.status !== 'open')) say('checkoutId', told('checkout-not-open'));
  if (!pilot && w.kind !== 'other') say('pilotId', told('choose-pilot'));
  if (!frame && w.kind !== 'other') say('airframeId', told('choose-aeroplane'));
  if (w.kind === 'lesson' && !instructor) say('instructorId', told('choose-instructor'));
  if (w.kind === 'other' && !pilot && !frame && !instructor) say('pilotId', told('nothing-to-book'));
  if (instructor && !instructor.roles.includes('instructor'))
    say('instructorId', told('not-an-instructor', { name: instructor.name }));
  if (instructor && pilotId !== null && instructor.pilotId === pilotId) say('instructorId', told('own-instructor'));
  const learned = frame
    ? await learnedSplit(frame.sheet.code, field.house, t)
    : { brief: 0, prepare: 0, flight: w.minutes, debrief: 0 };
  const split = splitOf(w.kind, w.minutes, learned);
  const span: Span = { from: w.startsAt, to: later(w.startsAt, w.minutes) };
  const people = [...(pilotId === null ? [] : [`p:${pilotId}`]), ...(instructor ? [personKey(instructor)] : [])];
  const holders = [...people, ...(w.airframeId === null ? [] : [airKey(w.airframeId)])];
  const date = localClock(span.from, zone).date;
  const open = openHours(date, field);
  if (span.from < nowIso()) say('startsAt', told('time-past'));
  if (!open || span.from < open.from || span.to > open.to)
    say(
      'startsAt',
      open
        ? told('outside-hours', {
            from: clockText(open.from, zone),
            to: clockText(open.to, zone),
            source: field.house.schedule.source,
          })
        : told('no-daylight'),
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
      told('taken', {
        name: names.get(h.holder) ?? 'This',
        when: spanText(h, zone),
        what: staff ? h.what : null,
      }),
    );
  const away: AwayRow[] = await awayRows(t);
  for (const a of awayIn(span, holders, away) as AwayRow[])
    say(
      fieldOf(a.who, w, instructor),
      told('away', {
        name: names.get(a.who) ?? 'This',
        how: a.kind === 'away' ? 'away' : 'grounded',
        when: spanText(a, zone),
        why: staff || a.kind !== 'away' ? a.why : null,
      }),
    );
  const weekly = await weeklyRows(t);
  for (const p of people) {
    const windows = windowsOn(p, date, weekly, zone);
    if (!withinWindows(span, windows))
      say(
        fieldOf(p, w, instructor),
        told('outside-windows', {
          name: names.get(p) ?? 'This person',
          windows: (windows ?? []).map((x) => `${clockText(x.from, zone)} to ${clockText(x.to, zone)}`),
          date: dayText(date),
        }),
      );
  }
  // Who may: the instructor's right to teach on that day, the pilot's right to fly alone.
  if (frame && head && head.typeCode !== frame.sheet.code)
    say('airframeId', told('other-type', { checkoutType: head.typeName, type: frame.sheet.name }));
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
): Promise<Told | null> {
  const limit = (await newestContent('pack', field.house.homePack, t))?.body.trainingIn24h ?? null;
  if (!limit) return null;
  const booked = await ask.trainingProblem.all(
    { id: instructor.id, booking: bookingId, from: later(flight.from, -1440), to: later(flight.to, 1440) },
    t,
  );
  const spans = booked.flatMap((b) => (b.split === null ? [] : [flightSpan(b.startsAt, b.split)]));
  const minutes = mostIn24h([...spans, flight]);
  return minutes > limit.hours * 60 && minutes > mostIn24h(spans)
    ? told('training-limit', {
        name: instructor.name,
        hours: Math.ceil(minutes / 6) / 10,
        mostHours: limit.hours,
        citation: limit.citation,
      })
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
  const say = (what: Told): Problem => problemAt('instructorId', what);
  return [
    ...state.notRecent.map((r) =>
      say(
        told('not-recent-to-teach', {
          name: instructor.name,
          type: of.sheet.name,
          date: dayText(date),
          restore: r.restore,
          citation: r.citation,
        }),
      ),
    ),
    ...state.ratings.map((r) =>
      say(told('lacks-rating', { name: instructor.name, rating: r.text, citation: r.citation })),
    ),
    ...(state.lacks.length > 0
      ? [
          say(
            told('lacks-kinds', { name: instructor.name, kinds: list(state.lacks.map(sayKind)), type: of.sheet.name }),
          ),
        ]
      : []),
    ...(state.modelHours && state.modelHours.have < state.modelHours.needed
      ? [say(told('model-hours', { ...state.modelHours, name: instructor.name, type: of.sheet.name }))]
      : []),
    ...(state.certificateUntil !== null && state.certificateUntil < date
      ? [say(told('certificate-ends', { name: instructor.name, on: dateText(state.certificateUntil) }))]
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
): Promise<{ problems: Problem[]; warnings: Told[] }> {
  const problems: Problem[] = [];
  const warnings: Told[] = [];
  const say = (path: string, what: Told) => problems.push(problemAt(path, what));
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
        told('variant-lapsed', {
          kind: sayKind(l.kind),
          through: l.through,
          months: pack?.variantLapse?.months ?? 0,
          citation: pack?.variantLapse?.citation ?? '',
        }),
      );
    if (lacks.length > 0) say('pilotId', told('pilot-lacks', { type: sheet.name, kinds: list(lacks.map(sayKind)) }));
    if (demands.unknown.length > 0)
      say(
        'airframeId',
        told('sheet-open', { type: sheet.name, facts: list(demands.unknown.map((k) => FACT_WORDS[k] ?? k)) }),
      );
    if (pack)
      for (const stop of await actingOf(pilotId, sheet, pack, date, t, surface))
        say('pilotId', actingWords(stop, date));
    const signed = await signOffsIn(pilotId, sheet.code, t);
    const hours = await ask.aloneProblems.one({ pilotId, code: sheet.code }, t);
    if (signed.length === 0 && (hours?.h ?? 0) === 0) say('pilotId', told('not-signed-off', { type: sheet.name }));
    const interval = await intervalOf(pilotId, sheet, house, date, t);
    if (interval?.status === 'expired') {
      const words = told('interval-over', {
        days: interval.days,
        since: dateText(interval.validThrough ?? ''),
        source: house.signing.source,
      });
      if (w.kind === 'currency' && (await isInstructor(pilotId, t)))
        warnings.push(told('instructor-practice', { interval: words.message }));
      else say('pilotId', told('interval-check', { interval: words.message }));
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
        say(LIMITATION_FIELD[p.code], told('limitation', { seq: s.seq, limitation: p }));
      // What no booking can hold anybody to is said when it is booked.
      if (s.limitations.attitude !== 'any')
        warnings.push(
          told('attitude-only', {
            seq: s.seq,
            attitude: s.limitations.attitude === 'three-point' ? 'three-point' : 'wheel',
          }),
        );
      if (s.limitations.crosswindKt !== null && wind === null)
        warnings.push(told('crosswind-limit', { seq: s.seq, limitKt: s.limitations.crosswindKt }));
    }
    if (w.passengers > 0 && pack) {
      const flight = flightSpan(span.from, split);
      const night = isNight(flight.to, field.aerodrome, pack.night.recency);
      const state = await passengerState(pilotId, sheet, pack, date, t, { surface, night });
      for (const r of state.rules.filter((x) => x.status === 'expired'))
        say(
          'passengers',
          told('passengers-not-recent', {
            date: dayText(date),
            restore: r.restore ?? 'more flying',
            citation: state.asked.find((a) => a.id === r.ruleId)?.citation ?? '',
          }),
        );
    }
  }
  return { problems, warnings };
}
/** Why a pilot may not act as pilot in command on a day, with the rule and what to do. */
const actingWords = (stop: ActingStop, date: string): Told =>
  stop.status === 'missing'
    ? told('date-not-on-record', { title: stop.title, citation: stop.citation })
    : told('date-ends', {
        title: stop.title,
        ended: dateText(stop.through ?? ''),
        date: dayText(date),
        citation: stop.citation,
      });

/** The field of a booking each limitation is about. */
const LIMITATION_FIELD: Record<LimitationProblem['code'], string> = {
  solo: 'passengers',
  'no-passengers': 'passengers',
  surface: 'surface',
  crosswind: 'startsAt',
};
const isInstructor = async (pilotId: string, t: Transaction): Promise<boolean> =>
  Boolean(await ask.isInstructor.one({ pilotId }, t));

/** Sign-offs in a type that stand, the newest of the same goals. */
async function signOffsIn(
  pilotId: string,
  code: string,
  t: Transaction,
): Promise<{ seq: number; limitations: Limitations; signedOn: string }[]> {
  const found = await ask.signOffsIn.all({ pilotId, code }, t);
  const newest = new Map(found.map((f) => [f.goals.join(), f]));
  return [...newest.values()].map((f) => ({
    seq: f.seq,
    limitations: f.limitations,
    signedOn: f.on,
  }));
}
/** Hours logged or read in for a type after a day. */
async function hoursSince(pilotId: string, code: string, day: string, t: Transaction): Promise<number> {
  const found = await ask.hoursSince.one({ pilotId, code, day }, t);
  return found?.h ?? 0;
}

const NOT_YOURS = told('not-found');
const TAKEN = /taken already at that time/;

/** Books. The same request twice is one booking; two requests at once never take the same person or aeroplane. */
export async function book(user: CurrentUser, form: unknown): Promise<Booked> {
  const parsed = BookForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = { ...parsed.data, startsAt: new Date(parsed.data.startsAt).toISOString() };
  return guarded(async (t): Promise<Booked> => {
    const known = await Bookings.first({ where: { requestId: d.requestId }, pick: ['id', 'version', 'bookedBy'] }, t);
    if (known)
      return known.bookedBy === user.id
        ? { ok: true, bookingId: known.id, version: known.version, warnings: [] }
        : problem('', NOT_YOURS);
    const head = d.checkoutId === null ? null : await checkoutHead(d.checkoutId, t);
    if (!may.book(user, { pilotId: head?.pilotId ?? d.pilotId })) return problem('', NOT_YOURS);
    if (d.kind === 'other' && !may.seeEverybody(user)) return problem('kind', told('pilots-kinds'));
    const c = await check(user, { ...d, bookingId: null }, t);
    if (c.problems.length > 0) return { ok: false, problems: c.problems, nearest: c.nearest };
    const id = randomUUID();
    await Bookings.insert(
      {
        id,
        kind: d.kind,
        pilotId: c.pilotId,
        instructorId: d.instructorId,
        airframeId: d.airframeId,
        checkoutId: d.checkoutId,
        startsAt: c.span.from,
        endsAt: c.span.to,
        split: c.split,
        passengers: d.passengers,
        surface: d.surface,
        note: d.note,
        state: 'booked',
        version: 1,
        bookedBy: user.id,
        bookedAt: nowIso(),
        requestId: d.requestId,
      },
      t,
    );
    await takeUp(id, c.holders, c.span, t);
    await changed(user, id, 1, 'booked', { ...d, endsAt: c.span.to }, '', t);
    if (d.waitingId !== null)
      await Waiting.update(
        { endedAt: nowIso(), endedHow: 'booked', bookingId: id },
        { id: d.waitingId, endedAt: null, pilotId: c.pilotId ?? '' },
        t,
      );
    await notify(
      [d.instructorId, await userOfPilot(c.pilotId, t)],
      {
        kind: 'booked',
        text: told('notice-booked', { name: user.name, booking: await bookingWords(id, c.field, t) }).message,
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
    const b = await Bookings.first({ where: { id: d.bookingId } }, t);
    if (!b || b.state !== 'booked' || !may.book(user, { pilotId: b.pilotId })) return problem('', NOT_YOURS);
    if (b.version !== d.version) return problem('', told('changed-meanwhile'));
    if (b.startsAt < nowIso()) return problem('', told('begun'));
    const startsAt = new Date(d.startsAt).toISOString();
    const w: Wanted = {
      bookingId: d.bookingId,
      kind: b.kind,
      checkoutId: b.checkoutId,
      pilotId: b.pilotId,
      instructorId: d.instructorId === undefined ? b.instructorId : d.instructorId,
      airframeId: d.airframeId === undefined ? b.airframeId : d.airframeId,
      startsAt,
      minutes: d.minutes,
      passengers: b.passengers,
      surface: b.surface,
    };
    const c = await check(user, w, t);
    if (c.problems.length > 0) return { ok: false, problems: c.problems, nearest: c.nearest };
    const version = b.version + 1;
    await putDown(d.bookingId, t);
    await Bookings.update(
      {
        startsAt: c.span.from,
        endsAt: c.span.to,
        split: c.split,
        instructorId: w.instructorId,
        airframeId: w.airframeId,
        version,
      },
      { id: d.bookingId },
      t,
    );
    await takeUp(d.bookingId, c.holders, c.span, t);
    await changed(
      user,
      d.bookingId,
      version,
      'moved',
      { from: b.startsAt, to: c.span.from, until: c.span.to, airframeId: w.airframeId, instructorId: w.instructorId },
      '',
      t,
    );
    await notify(
      [b.instructorId, w.instructorId, await userOfPilot(b.pilotId, t)],
      {
        kind: 'moved',
        text: told('notice-moved', {
          name: user.name,
          booking: await bookingWords(d.bookingId, c.field, t),
          was: spanText({ from: b.startsAt, to: b.endsAt }, c.field.zone),
        }).message,
        href: `/schedule?day=${localClock(c.span.from, c.field.zone).date}`,
        about: d.bookingId,
      },
      user.id,
      t,
    );
    await tellWaiting({ from: b.startsAt, to: b.endsAt }, b.instructorId, b.airframeId, c.field, user.id, t);
    return { ok: true, bookingId: d.bookingId, version, warnings: c.warnings };
  });
}

/** Cancels, with the reason. The booking stays in the record; its time is free again, and those who wait hear of it. */
export async function cancelBooking(user: CurrentUser, form: unknown): Promise<Booked> {
  const parsed = CancelForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  return guarded(async (t): Promise<Booked> => {
    const b = await Bookings.first({ where: { id: d.bookingId } }, t);
    if (!b || !may.book(user, { pilotId: b.pilotId })) return problem('', NOT_YOURS);
    if (b.state === 'cancelled') return { ok: true, bookingId: d.bookingId, version: b.version, warnings: [] };
    if (b.version !== d.version) return problem('', told('changed-before-cancel'));
    const field = await fieldFacts(t);
    const words = await bookingWords(d.bookingId, field, t);
    await putDown(d.bookingId, t);
    await Bookings.update({ state: 'cancelled', version: b.version + 1 }, { id: d.bookingId }, t);
    await changed(user, d.bookingId, b.version + 1, 'cancelled', {}, d.reason, t);
    await notify(
      [b.instructorId, await userOfPilot(b.pilotId, t)],
      {
        kind: 'cancelled',
        text: told('notice-cancelled', { name: user.name, booking: words, reason: d.reason }).message,
        href: `/schedule?day=${localClock(b.startsAt, field.zone).date}`,
        about: d.bookingId,
      },
      user.id,
      t,
    );
    await tellWaiting({ from: b.startsAt, to: b.endsAt }, b.instructorId, b.airframeId, field, user.id, t);
    return { ok: true, bookingId: d.bookingId, version: b.version + 1, warnings: [] };
  });
}

/** Runs a write; should the database itself refuse two at once, that is a conflict and not a fault. */
async function guarded(work: (t: Transaction) => Promise<Booked>): Promise<Booked> {
  try {
    return await write(work);
  } catch (error) {
    if (error instanceof Error && TAKEN.test(error.message)) return problem('startsAt', told('same-moment'));
    throw error;
  }
}
async function takeUp(bookingId: string, holders: readonly string[], span: Span, t: Transaction): Promise<void> {
  const taken = [...new Set(holders)].map((holder) => ({ bookingId, holder, startsAt: span.from, endsAt: span.to }));
  for (const hold of taken) await BookingHolds.insert(hold, t);
}
const putDown = (bookingId: string, t: Transaction) => BookingHolds.delete({ bookingId }, t);
const changed = (
  user: CurrentUser,
  bookingId: string,
  version: number,
  what: string,
  body: object,
  reason: string,
  t: Transaction,
) =>
  BookingChanges.insert(
    {
      id: randomUUID(),
      bookingId: bookingId,
      version,
      what,
      body: body,
      reason,
      changedBy: user.id,
      changedAt: nowIso(),
    },
    t,
  );
async function bookingWords(id: string, field: Field, t: Transaction): Promise<string> {
  const b = await Bookings.first(
    {
      where: { id },
      pick: ['kind', 'startsAt', 'endsAt'],
      with: { pilot: ['name'], airframe: ['registration'], instructor: ['name'] },
    },
    t,
  );
  return b
    ? `${[b.pilot?.name, b.airframe ? `in ${b.airframe.registration}` : '', b.instructor ? `with ${b.instructor.name}` : ''].filter(Boolean).join(' ')}, ${spanText({ from: b.startsAt, to: b.endsAt }, field.zone)}`
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
  const wishes = await Waiting.find(
    {
      where: { endedAt: null, fromDate: { [Op.lte]: date }, toDate: { [Op.gte]: date } },
      pick: ['id', 'pilotId', 'minutes'],
      with: { pilot: ['name'], checkout: ['airframeId', 'instructorId'] },
      order: ['askedAt'],
      limit: 20,
    },
    t,
  );
  const long = (Date.parse(freed.to) - Date.parse(freed.from)) / 60_000;
  for (const w of wishes) {
    if (
      w.minutes > long ||
      (w.checkout !== null && w.checkout.airframeId !== airframeId) ||
      (w.checkout !== null && w.checkout.instructorId !== instructorId)
    )
      continue;
    const holds = await holdsBetween(freed.from, freed.to, t);
    if (holds.some((h) => h.holder === `p:${w.pilotId}` && overlaps(freed, h))) continue;
    await notify(
      [w.checkout?.instructorId ?? null, await userOfPilot(w.pilotId, t)],
      {
        kind: 'free',
        text: told('notice-free', {
          slot: spanText(freed, field.zone),
          name: w.pilot.name,
          wait: plural(w.minutes, 'minute'),
        }).message,
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
  if (!may.keepWindows(user, d.person)) return problem('', told('own-times'));
  const wrong = d.windows.findIndex((w) => w.toMin <= w.fromMin);
  if (wrong >= 0) return problem(`windows.${wrong}.toMin`, told('end-before-start'));
  const across = d.windows.findIndex((w, i) =>
    d.windows.some((x, j) => j !== i && x.weekday === w.weekday && x.fromMin < w.toMin && w.fromMin < x.toMin),
  );
  if (across >= 0) return problem(`windows.${across}.fromMin`, told('windows-overlap'));
  return write(async (t) => {
    if (!(await personThere(d.person, t))) return problem('', told('not-found'));
    const now = (await weeklyRows(t)).filter((w) => w.person === d.person);
    if (windowsStamp(now) !== d.base)
      return {
        ...problem(
          '',
          told('times-changed', {
            now:
              now.length === 0
                ? 'none'
                : list(
                    now.map(
                      (w) =>
                        `${WEEKDAYS[w.weekday - 1] ?? ''} ${minutesText(w.fromMin)} to ${minutesText(w.toMin)} from ${dateText(w.validFrom)}`,
                    ),
                  ),
          }),
        ),
        base: windowsStamp(now),
      };
    const theirs = { person: d.person, endedAt: null };
    await WeeklyWindows.update(
      { validUntil: addDays(d.validFrom, -1) },
      {
        ...theirs,
        validFrom: { [Op.lt]: d.validFrom },
        validUntil: { [Op.or]: [null, { [Op.gte]: d.validFrom }] },
      },
      t,
    );
    await WeeklyWindows.update({ endedAt: nowIso() }, { ...theirs, validFrom: { [Op.gte]: d.validFrom } }, t);
    for (const w of d.windows)
      await WeeklyWindows.insert(
        {
          id: randomUUID(),
          person: d.person,
          weekday: w.weekday,
          fromMin: w.fromMin,
          toMin: w.toMin,
          validFrom: d.validFrom,
          validUntil: null,
          enteredBy: user.id,
          enteredAt: nowIso(),
          endedAt: null,
        },
        t,
      );
    return { ok: true as const };
  });
}
const personThere = (key: string, t: Transaction) =>
  key.startsWith('p:')
    ? Pilots.first({ where: { id: key.slice(2) }, pick: ['id'] }, t)
    : Users.first({ where: { id: key.slice(2) }, pick: ['id'] }, t);

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
    return problem('', frame ? told('staff-take-out') : told('own-times'));
  if (d.toAt !== null && Date.parse(d.toAt) <= Date.parse(d.fromAt)) return problem('toAt', told('end-before-start'));
  if (!frame && d.toAt === null) return problem('toAt', told('give-end'));
  return write(async (t): Promise<AwaySaved> => {
    if (
      !(frame ? await Airframes.first({ where: { id: d.who.slice(2) }, pick: ['id'] }, t) : await personThere(d.who, t))
    )
      return problem('who', told('choose-whom'));
    const span = {
      from: new Date(d.fromAt).toISOString(),
      to: d.toAt === null ? '9999-12-31T00:00:00.000Z' : new Date(d.toAt).toISOString(),
    };
    if (!(await TimesAway.first({ where: { id: d.requestId }, pick: ['id'] }, t)))
      await TimesAway.insert(
        {
          id: d.requestId,
          who: d.who,
          kind: frame ? 'maintenance' : 'away',
          fromAt: span.from,
          toAt: d.toAt === null ? null : span.to,
          why: d.why,
          enteredBy: user.id,
          enteredAt: nowIso(),
          endedAt: null,
          endedBy: null,
          endedWhy: null,
        },
        t,
      );
    const field = await fieldFacts(t);
    const hit = await ask.saveAway.all({ who: d.who, ...span, now: nowIso() }, t);
    const words: string[] = [];
    for (const h of hit) {
      const w = await bookingWords(h.bookingId, field, t);
      words.push(w);
      await notify(
        [h.instructorId, await userOfPilot(h.pilotId, t)],
        {
          kind: 'down',
          text: told('notice-must-move', { booking: w, why: d.why }).message,
          href: '/schedule',
          about: h.bookingId,
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
    const a = await TimesAway.first({ where: { id: parsed.data.id }, pick: ['who', 'endedAt'] }, t);
    if (!a || (a.who.startsWith('a:') ? !may.keepFleetDown(user) : !may.keepWindows(user, a.who)))
      return problem('', told('not-found'));
    if (a.endedAt === null)
      await TimesAway.update(
        { endedAt: nowIso(), endedBy: user.id, endedWhy: parsed.data.why },
        { id: parsed.data.id },
        t,
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
  if (d.toDate < d.fromDate) return problem('toDate', told('end-before-start'));
  return write(async (t) => {
    if (await Waiting.first({ where: { id: d.requestId }, pick: ['id'] }, t)) return { ok: true as const };
    if (
      !(await Pilots.first({ where: { id: d.pilotId }, pick: ['id'] }, t)) ||
      (d.checkoutId !== null &&
        !(await Checkouts.first({ where: { id: d.checkoutId, pilotId: d.pilotId }, pick: ['id'] }, t)))
    )
      return problem('', NOT_YOURS);
    await Waiting.insert(
      {
        id: d.requestId,
        pilotId: d.pilotId,
        checkoutId: d.checkoutId,
        minutes: d.minutes,
        fromDate: d.fromDate,
        toDate: d.toDate,
        note: d.note,
        askedBy: user.id,
        askedAt: nowIso(),
        endedAt: null,
        endedHow: null,
        bookingId: null,
      },
      t,
    );
    return { ok: true as const };
  });
}
export async function leaveWaiting(
  user: CurrentUser,
  id: string,
): Promise<{ ok: true } | { ok: false; problems: Problem[] }> {
  return write(async (t) => {
    const w = await Waiting.first({ where: { id }, pick: ['pilotId', 'endedAt'] }, t);
    if (!w || !may.book(user, { pilotId: w.pilotId })) return problem('', NOT_YOURS);
    if (w.endedAt === null) await Waiting.update({ endedAt: nowIso(), endedHow: 'withdrawn' }, { id }, t);
    return { ok: true as const };
  });
}

const feedHash = (secret: string): string => createHash('sha256').update(secret).digest('hex');
/** A calendar address of one’s own; told once, an earlier one ends. */
export async function openFeed(
  user: CurrentUser,
  alarmMin: number,
): Promise<{ ok: true; secret: string } | { ok: false; problems: Problem[] }> {
  if (!Number.isInteger(alarmMin) || alarmMin < 0 || alarmMin > 2880) return problem('alarmMin', told('minutes-range'));
  const secret = randomBytes(24).toString('base64url');
  return write(async (t) => {
    await CalendarFeeds.update({ endedAt: nowIso() }, { userId: user.id, endedAt: null }, t);
    await CalendarFeeds.insert(
      {
        id: randomUUID(),
        userId: user.id,
        hash: feedHash(secret),
        alarmMin: alarmMin,
        createdAt: nowIso(),
        endedAt: null,
        expiresAt: aYearFrom(nowIso()),
        lastUsedAt: null,
      },
      t,
    );
    return { ok: true as const, secret };
  });
}
export async function endFeed(user: CurrentUser): Promise<{ ok: true }> {
  await write(
    async (t) => void (await CalendarFeeds.update({ endedAt: nowIso() }, { userId: user.id, endedAt: null }, t)),
  );
  return { ok: true };
}
/** Whose calendar an address is; null = nobody’s. */
export async function feedOwner(secret: string): Promise<{ user: CurrentUser; alarmMin: number } | null> {
  const found = await CalendarFeeds.first({
    where: { hash: feedHash(secret), endedAt: null, expiresAt: { [Op.gt]: nowIso() } },
    pick: ['id', 'userId', 'alarmMin', 'lastUsedAt'],
    with: { user: { pick: [], where: { closedAt: null } } },
  });
  const user = found ? await userById(found.userId) : null;
  const today = nowIso().slice(0, 10);
  if (found && found.lastUsedAt !== today)
    await write(async (t) => void (await CalendarFeeds.update({ lastUsedAt: today }, { id: found.id }, t)));
  return found && user ? { user, alarmMin: found.alarmMin } : null;
}
