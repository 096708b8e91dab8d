import {
  type Span,
  type Split,
  awayIn,
  clockText,
  conflictsOf,
  dayText,
  later,
  localClock,
  windowsOn,
  withinWindows,
} from '@/core/schedule';
import type { Transaction } from 'sequelize';
import { type CurrentUser, may, personKey } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { type Problem, problemAt } from '../../floor/result';
import type { Told } from '../../floor/sentences';
import * as ask from '../../floor/statements/schedule';
import { type SchoolFacts, airKey, schoolFacts, flightSpan, openHours } from '../queries/day';
import { awayRows, holdsBetween, weeklyRows } from '../queries/holds';
import { daylightProblem, nearestFree } from '../queries/slots';
import { learnedSplit, splitOf } from '../queries/split';
import { told } from '../sentences';
import { aloneProblems } from './alone';
import { teachProblems, trainingProblem } from './teach';
import { type Parties, type Wanted, partiesOf, spanText } from './wanted';

interface CheckedBooking {
  problems: Problem[];
  warnings: Told[];
  holders: string[];
  split: Split;
  span: Span;
  nearest: Span | null;
  pilotId: string | null;
  school: SchoolFacts;
}
/** When it lies, how it is spent, and whom and what it holds. */
interface Slot {
  span: Span;
  split: Split;
  /** Local day of its start. */
  date: string;
  /** Keys of the people, and of people and aeroplane together. */
  people: string[];
  holders: string[];
  names: ReadonlyMap<string, string>;
}

/** How far ahead anybody books, and how many bookings ahead a pilot may hold. */
const FURTHEST_MS = 400 * 86_400_000;
const MOST_AHEAD = 12;

/** Everything that stands against a booking, and the nearest free time when people or the aeroplane are taken. */
export async function checkBooking(user: CurrentUser, w: Wanted, t: Transaction): Promise<CheckedBooking> {
  const school = await schoolFacts(t, w.aerodrome);
  const at = await partiesOf(w, t);
  const slot = await slotOf(w, at, school, t);
  const taken = await takenProblems(user, w, at, slot, school, t);
  const rights = await rightProblems(w, at, slot, school, t);
  const problems = [
    ...(await aheadProblems(user, w, at.pilotId, t)),
    ...whoProblems(w, at),
    ...whenProblems(at, slot, school),
    ...taken,
    ...rights.problems,
  ];
  const { holders, people, span, split } = slot;
  const inTheWay = taken.length > 0 || problems.some((p) => p.path === 'startsAt');
  const nearest =
    inTheWay && holders.length > 0
      ? await nearestFree(school, { minutes: w.minutes, holders, people, except: w.bookingId }, span.from, t)
      : null;
  return { problems, warnings: rights.warnings, holders, split, span, nearest, pilotId: at.pilotId, school };
}

async function slotOf(w: Wanted, at: Parties, school: SchoolFacts, t: Transaction): Promise<Slot> {
  const { pilot, pilotId, instructor, frame } = at;
  const learned = frame
    ? await learnedSplit(frame.sheet.code, school.house, t)
    : { brief: 0, prepare: 0, flight: w.minutes, debrief: 0 };
  const people = [...(pilotId === null ? [] : [`p:${pilotId}`]), ...(instructor ? [personKey(instructor)] : [])];
  return {
    span: { from: w.startsAt, to: later(w.startsAt, w.minutes) },
    split: splitOf(w.kind, w.minutes, learned),
    date: localClock(w.startsAt, school.zone).date,
    people,
    holders: [...people, ...(w.airframeId === null ? [] : [airKey(w.airframeId)])],
    names: new Map<string, string>([
      ...(pilot && pilotId ? [[`p:${pilotId}`, pilot.name] as const] : []),
      ...(instructor ? [[personKey(instructor), instructor.name] as const] : []),
      ...(frame && w.airframeId ? [[airKey(w.airframeId), frame.registration] as const] : []),
    ]),
  };
}

/** Too far ahead, or too many of one pilot's. */
async function aheadProblems(user: CurrentUser, w: Wanted, pilotId: string | null, t: Transaction): Promise<Problem[]> {
  const problems: Problem[] = [];
  if (Date.parse(w.startsAt) > Date.parse(nowIso()) + FURTHEST_MS)
    problems.push(problemAt('startsAt', told('too-far-ahead')));
  if (pilotId !== null && w.bookingId === null && !may.seeEverybody(user)) {
    const count = (await ask.checkBookings.one({ pilotId, now: nowIso() }, t))?.n ?? 0;
    if (count >= MOST_AHEAD) problems.push(problemAt('startsAt', told('too-many-ahead', { count })));
  }
  return problems;
}

/** Is everybody named whom a booking of its kind needs, and each in their own seat? */
function whoProblems(w: Wanted, { head, pilot, pilotId, instructor, frame }: Parties): Problem[] {
  const problems: Problem[] = [];
  const say = (path: string, what: Told) => problems.push(problemAt(path, what));
  if (w.checkoutId !== null && head?.status !== 'open') say('checkoutId', told('checkout-not-open'));
  if (w.kind === 'other') {
    if (!pilot && !frame && !instructor) say('pilotId', told('nothing-to-book'));
  } else {
    if (!pilot) say('pilotId', told('choose-pilot'));
    if (!frame) say('airframeId', told('choose-aeroplane'));
  }
  if (w.kind === 'lesson' && !instructor) say('instructorId', told('choose-instructor'));
  if (instructor && !instructor.roles.includes('instructor'))
    say('instructorId', told('not-an-instructor', { name: instructor.name }));
  if (instructor && pilotId !== null && instructor.pilotId === pilotId) say('instructorId', told('own-instructor'));
  if (frame && head && head.typeCode !== frame.sheet.code)
    say('airframeId', told('other-type', { checkoutType: head.typeName, type: frame.sheet.name }));
  return problems;
}

/** In the past, outside the school's hours, or in the dark. */
function whenProblems({ frame }: Parties, { span, split, date }: Slot, school: SchoolFacts): Problem[] {
  const problems: Problem[] = [];
  const say = (what: Told) => problems.push(problemAt('startsAt', what));
  if (span.from < nowIso()) say(told('time-past'));
  const open = openHours(date, school);
  if (!open) say(told('no-daylight'));
  else if (span.from < open.from || span.to > open.to)
    say(
      told('outside-hours', {
        from: clockText(open.from, school.zone),
        to: clockText(open.to, school.zone),
        source: school.house.schedule.source,
      }),
    );
  const dark = frame ? daylightProblem(school, span.from, split) : null;
  if (dark) say(dark);
  return problems;
}

/** Who and what is taken, away, out of service, or not there at that hour. */
async function takenProblems(
  user: CurrentUser,
  w: Wanted,
  { instructor }: Parties,
  { span, date, holders, people, names }: Slot,
  { zone }: SchoolFacts,
  t: Transaction,
): Promise<Problem[]> {
  const staff = may.seeEverybody(user);
  const at = (holder: string, what: Told): Problem => problemAt(fieldOf(holder, w, instructor), what);
  const taken = conflictsOf(span, holders, await holdsBetween(span.from, span.to, t), w.bookingId).map((h) =>
    at(
      h.holder,
      told('taken', {
        name: names.get(h.holder) ?? 'This',
        when: spanText(h, zone),
        what: staff ? h.what : null,
      }),
    ),
  );
  const away = awayIn(span, holders, await awayRows(t)).map((a) =>
    at(
      a.who,
      told('away', {
        name: names.get(a.who) ?? 'This',
        how: a.kind === 'away' ? 'away' : 'grounded',
        when: spanText(a, zone),
        why: staff || a.kind !== 'away' ? a.why : null,
      }),
    ),
  );
  const weekly = await weeklyRows(t);
  const outside = people.flatMap((p) => {
    const windows = windowsOn(p, date, weekly, zone);
    return withinWindows(span, windows)
      ? []
      : [
          at(
            p,
            told('outside-windows', {
              name: names.get(p) ?? 'This person',
              windows: (windows ?? []).map((x) => `${clockText(x.from, zone)} to ${clockText(x.to, zone)}`),
              date: dayText(date),
            }),
          ),
        ];
  });
  return [...taken, ...away, ...outside];
}

/** The instructor's right to teach on that day, and the pilot's to fly without being taught. */
async function rightProblems(
  w: Wanted,
  { head, pilotId, instructor, frame }: Parties,
  slot: Slot,
  school: SchoolFacts,
  t: Transaction,
): Promise<{ problems: Problem[]; warnings: Told[] }> {
  if (!frame || pilotId === null) return { problems: [], warnings: [] };
  const { sheet } = frame;
  const problems: Problem[] = [];
  const flight = flightSpan(slot.span.from, slot.split);
  // An instructor beside a pilot teaches, whatever the booking is called; looked at for the aeroplane that is booked.
  if (instructor) {
    const long = await trainingProblem(instructor, w.bookingId, flight, school, t);
    if (long) problems.push(problemAt('startsAt', long));
    const rules = { packId: head?.packId ?? null, houseId: head?.houseId ?? null, goals: head?.goals ?? [] };
    problems.push(...(await teachProblems(instructor, { sheet, ...rules }, slot.date, t)));
  }
  if (instructor || w.kind === 'lesson' || w.kind === 'other') return { problems, warnings: [] };
  const alone = await aloneProblems({ pilotId, sheet, wanted: w, flight, date: slot.date, school, t });
  return { problems: [...problems, ...alone.problems], warnings: alone.warnings };
}

/** The field of the form that holds whoever or whatever is taken. */
function fieldOf(holder: string, w: Wanted, instructor: CurrentUser | null): string {
  if (holder.startsWith('a:')) return 'airframeId';
  if (instructor && holder === personKey(instructor)) return 'instructorId';
  return w.checkoutId !== null ? 'checkoutId' : 'pilotId';
}
