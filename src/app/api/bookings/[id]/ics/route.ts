import { door, fileAnswer } from '@/server/door/route';
import { icsOf } from '@/server/schedule/papers/calendar';
import { nowIso } from '@/server/floor/clock';
import { originOf } from '@/server/floor/origin';
import { bookingById } from '@/server/schedule/queries/bookings';
import { placeNames } from '@/server/rules/content';

/** One booking as a calendar file. */
export const GET = door<'signed-in', { id: string }>({ who: 'signed-in' }, async ({ user, params, request }) => {
  const booking = await bookingById(user, params.id);
  if (!booking) return null;
  const text = icsOf([booking], {
    placeOf: await placeNames(),
    alarmMin: 60,
    now: nowIso(),
    origin: originOf(request),
    name: 'Jeito',
  });
  return fileAnswer(text, {
    type: 'text/calendar; charset=utf-8',
    name: `booking-${booking.startsAt.slice(0, 10)}.ics`,
  });
});
