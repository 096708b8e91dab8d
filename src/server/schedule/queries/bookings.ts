import type { Split } from '@/core/schedule';
import type { BookingKind } from '@/domain/schedule';
import type { Goal } from '@/domain/words';
import { Op } from 'sequelize';
import { type CurrentUser, may, personKey } from '../../floor/auth/permissions';
import type { RowOf } from '../../floor/statement';
import * as ask from '../../floor/statements/schedule';
import { Bookings } from '../tables';
import { flightSpan } from './day';

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
  /** Code of the aerodrome it is flown at; null = home. */
  aerodrome: string | null;
  note: string;
  /** What a lesson is for. */
  aim: string;
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
    aerodrome: masked ? null : b.aerodrome,
    note: masked ? '' : b.note,
    aim: masked ? '' : b.aim,
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

export interface NextOfCheckout {
  id: string;
  minutes: number;
  startsAt: string;
  endsAt: string;
  flightStarts: string;
  flightEnds: string;
  surface: string;
  aerodrome: string | null;
  aim: string;
  airframeId: string | null;
}
/**
 * The booking of a checkout that runs or comes next, or the one named where it is not over: minutes left or booked, and when
 * its flight begins and ends.
 */
export async function nextBookingOf(
  checkoutId: string,
  now: string,
  named: string | null = null,
): Promise<NextOfCheckout | null> {
  const oneOf = (id: string | null) =>
    Bookings.first({
      where: { checkoutId, state: 'booked', endsAt: { [Op.gt]: now }, ...(id === null ? {} : { id }) },
      pick: ['id', 'startsAt', 'endsAt', 'split', 'aerodrome', 'aim', 'airframeId', 'surface'],
      order: ['startsAt'],
    });
  const b = (named === null ? null : await oneOf(named)) ?? (await oneOf(null));
  if (!b) return null;
  const left = Math.floor((Date.parse(b.endsAt) - Math.max(Date.parse(now), Date.parse(b.startsAt))) / 60_000);
  const flight = b.split ? flightSpan(b.startsAt, b.split) : { from: b.startsAt, to: b.endsAt };
  return left < 10
    ? null
    : {
        id: b.id,
        minutes: left,
        startsAt: b.startsAt,
        endsAt: b.endsAt,
        flightStarts: flight.from,
        flightEnds: flight.to,
        surface: b.surface,
        aerodrome: b.aerodrome,
        aim: b.aim,
        airframeId: b.airframeId,
      };
}
