import { localClock, type Span } from '@/core/schedule';
import { BookForm, CancelForm, MoveForm } from '@/domain/schedule';
import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { notify, userOfPilot } from '../../account/commands/notices';
import { checkoutHead } from '../../checkout/queries/head';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { type Problem, problem, zodProblems } from '../../floor/result';
import type { Told } from '../../floor/sentences';
import { write } from '../../floor/write';
import { keptAerodrome } from '../../rules/content';
import { type SchoolFacts, schoolFacts } from '../queries/day';
import { told } from '../sentences';
import { BookingChanges, BookingHolds, Bookings, Waiting } from '../tables';
import { checkBooking } from './check';
import { type Wanted, spanText } from './wanted';
import { tellWaiting } from './waiting';

/** A refusal names what is in the way and the nearest time at which everybody is free. */
export type Booked =
  | { ok: true; bookingId: string; version: number; warnings: Told[] }
  | { ok: false; problems: Problem[]; nearest?: Span | null };

const TAKEN = /taken already at that time/;

/** Books. The same request twice is one booking; two requests at once never take the same person or aeroplane. */
export async function book(user: CurrentUser, form: unknown): Promise<Booked> {
  const parsed = BookForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = { ...parsed.data, startsAt: new Date(parsed.data.startsAt).toISOString() };
  return orTaken(async (t): Promise<Booked> => {
    const known = await Bookings.first({ where: { requestId: d.requestId }, pick: ['id', 'version', 'bookedBy'] }, t);
    if (known)
      return known.bookedBy === user.id
        ? { ok: true, bookingId: known.id, version: known.version, warnings: [] }
        : problem('', told('not-found'));
    const head = d.checkoutId === null ? null : await checkoutHead(d.checkoutId, t);
    if (!may.book(user, { pilotId: head?.pilotId ?? d.pilotId })) return problem('', told('not-found'));
    if (d.kind === 'other' && !may.seeEverybody(user)) return problem('kind', told('pilots-kinds'));
    const aerodrome = await keptAerodrome(d.aerodrome, t);
    if (aerodrome === undefined) return problem('aerodrome', told('aerodrome-unknown'));
    const c = await checkBooking(user, { ...d, aerodrome, bookingId: null }, t);
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
        aerodrome,
        note: d.note,
        aim: d.kind === 'lesson' ? d.aim : '',
        state: 'booked',
        version: 1,
        bookedBy: user.id,
        bookedAt: nowIso(),
        requestId: d.requestId,
      },
      t,
    );
    await placeHolds(id, c.holders, c.span, t);
    await recordChange(user, id, 1, 'booked', { ...d, endsAt: c.span.to }, '', t);
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
        text: told('notice-booked', { name: user.name, booking: await bookingWords(id, c.school, t) }).message,
        href: `/schedule?day=${localClock(c.span.from, c.school.zone).date}`,
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
  return orTaken(async (t): Promise<Booked> => {
    const b = await Bookings.first({ where: { id: d.bookingId } }, t);
    if (!b || b.state !== 'booked' || !may.book(user, { pilotId: b.pilotId })) return problem('', told('not-found'));
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
      aerodrome: b.aerodrome,
    };
    const c = await checkBooking(user, w, t);
    if (c.problems.length > 0) return { ok: false, problems: c.problems, nearest: c.nearest };
    const version = b.version + 1;
    await releaseHolds(d.bookingId, t);
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
    await placeHolds(d.bookingId, c.holders, c.span, t);
    await recordChange(
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
          booking: await bookingWords(d.bookingId, c.school, t),
          was: spanText({ from: b.startsAt, to: b.endsAt }, c.school.zone),
        }).message,
        href: `/schedule?day=${localClock(c.span.from, c.school.zone).date}`,
        about: d.bookingId,
      },
      user.id,
      t,
    );
    await tellWaiting({ from: b.startsAt, to: b.endsAt }, b.instructorId, b.airframeId, c.school, user.id, t);
    return { ok: true, bookingId: d.bookingId, version, warnings: c.warnings };
  });
}

/** Cancels, with the reason. The booking stays in the record; its time is free again, and those who wait hear of it. */
export async function cancelBooking(user: CurrentUser, form: unknown): Promise<Booked> {
  const parsed = CancelForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  return orTaken(async (t): Promise<Booked> => {
    const b = await Bookings.first({ where: { id: d.bookingId } }, t);
    if (!b || !may.book(user, { pilotId: b.pilotId })) return problem('', told('not-found'));
    if (b.state === 'cancelled') return { ok: true, bookingId: d.bookingId, version: b.version, warnings: [] };
    if (b.version !== d.version) return problem('', told('changed-before-cancel'));
    const school = await schoolFacts(t);
    const words = await bookingWords(d.bookingId, school, t);
    await releaseHolds(d.bookingId, t);
    await Bookings.update({ state: 'cancelled', version: b.version + 1 }, { id: d.bookingId }, t);
    await recordChange(user, d.bookingId, b.version + 1, 'cancelled', {}, d.reason, t);
    await notify(
      [b.instructorId, await userOfPilot(b.pilotId, t)],
      {
        kind: 'cancelled',
        text: told('notice-cancelled', { name: user.name, booking: words, reason: d.reason }).message,
        href: `/schedule?day=${localClock(b.startsAt, school.zone).date}`,
        about: d.bookingId,
      },
      user.id,
      t,
    );
    await tellWaiting({ from: b.startsAt, to: b.endsAt }, b.instructorId, b.airframeId, school, user.id, t);
    return { ok: true, bookingId: d.bookingId, version: b.version + 1, warnings: [] };
  });
}

/** Runs a write; should the database itself refuse two at once, that is a conflict and not a fault. */
async function orTaken(work: (t: Transaction) => Promise<Booked>): Promise<Booked> {
  try {
    return await write(work);
  } catch (error) {
    if (error instanceof Error && TAKEN.test(error.message)) return problem('startsAt', told('same-moment'));
    throw error;
  }
}
async function placeHolds(bookingId: string, holders: readonly string[], span: Span, t: Transaction): Promise<void> {
  const taken = [...new Set(holders)].map((holder) => ({ bookingId, holder, startsAt: span.from, endsAt: span.to }));
  for (const hold of taken) await BookingHolds.insert(hold, t);
}
const releaseHolds = (bookingId: string, t: Transaction) => BookingHolds.delete({ bookingId }, t);
const recordChange = (
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
export async function bookingWords(id: string, school: SchoolFacts, t: Transaction): Promise<string> {
  const b = await Bookings.first(
    {
      where: { id },
      pick: ['kind', 'startsAt', 'endsAt'],
      with: { pilot: ['name'], airframe: ['registration'], instructor: ['name'] },
    },
    t,
  );
  if (!b) return 'a booking';
  const who = [
    b.pilot?.name,
    b.airframe ? `in ${b.airframe.registration}` : '',
    b.instructor ? `with ${b.instructor.name}` : '',
  ];
  return `${who.filter(Boolean).join(' ')}, ${spanText({ from: b.startsAt, to: b.endsAt }, school.zone)}`;
}
