import type { z } from 'zod';
import { addDays } from '@/core/recency';
import { localInstant } from '@/core/schedule';
import type { CurrentUser } from '../../floor/auth/permissions';
import { homeAerodrome } from '../../rules/content';
import { localToday } from '../../rules/today';
import { type BookingLine, bookingById, bookingsBetween } from '../../schedule/queries/bookings';
import { flightSpan } from '../../schedule/queries/day';
import type { BookingAnswer, BookingList } from '../shapes';
import type { SpanQuery } from '../paths';

const bookingOf = (b: BookingLine): z.output<typeof BookingAnswer> => ({
  id: b.id,
  version: b.version,
  state: b.state,
  kind: b.kind,
  startsAt: b.startsAt,
  endsAt: b.endsAt,
  flight: b.split ? flightSpan(b.startsAt, b.split) : null,
  pilotId: b.pilotId,
  pilotName: b.pilotName,
  instructorName: b.instructorName,
  registration: b.registration,
  checkoutId: b.checkoutId,
  goals: b.goals,
  aerodrome: b.aerodrome,
  note: b.note,
  masked: b.masked,
});

/** Bookings of some days at the home aerodrome, both included; two weeks from today where nothing is asked. */
export async function bookingsRead(user: CurrentUser, span: SpanQuery): Promise<z.output<typeof BookingList>> {
  const { timeZone } = await homeAerodrome();
  const from = span.from ?? (await localToday());
  const to = span.to ?? addDays(from, 13);
  const found = await bookingsBetween(user, localInstant(from, 0, timeZone), localInstant(addDays(to, 1), 0, timeZone));
  return { from, to, timeZone, items: found.map(bookingOf) };
}

export async function bookingRead(user: CurrentUser, id: string): Promise<z.output<typeof BookingAnswer> | null> {
  const b = await bookingById(user, id);
  return b && bookingOf(b);
}
