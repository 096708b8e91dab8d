import { type DateArray, type EventAttributes, createEvents } from 'ics';
import { list } from '@/core/format';
import { splitBooking } from '@/core/schedule';
import { BOOKING_NAME } from '@/domain/schedule';
import { say } from '@/domain/words';
import type { BookingLine } from '../queries/bookings';

const utc = (iso: string): DateArray => {
  const d = new Date(iso);
  return [d.getUTCFullYear(), d.getUTCMonth() + 1, d.getUTCDate(), d.getUTCHours(), d.getUTCMinutes()];
};

/**
 * Bookings as an iCalendar file (RFC 5545): times in UTC, the split in the text, an alarm before the start; a cancelled
 * one says so.
 */
export function icsOf(
  bookings: readonly BookingLine[],
  i: { placeOf: (aerodrome: string | null) => string; alarmMin: number; now: string; origin: string; name: string },
): string {
  const events = bookings.map((b): EventAttributes => {
    const split = b.split ?? splitBooking(60, { brief: 0, prepare: 0, flight: 60, debrief: 0 });
    const parts = [
      split.brief ? `brief ${split.brief} min` : '',
      split.prepare ? `prepare ${split.prepare} min` : '',
      `fly ${split.flight} min`,
      split.debrief ? `debrief ${split.debrief} min` : '',
    ].filter(Boolean);
    return {
      uid: `${b.id}@jeito`,
      sequence: b.version,
      productId: 'jeito',
      calName: i.name,
      method: 'PUBLISH',
      status: b.state === 'cancelled' ? 'CANCELLED' : 'CONFIRMED',
      busyStatus: 'BUSY',
      title: [b.registration, b.pilotName, BOOKING_NAME[b.kind]].filter(Boolean).join(', '),
      location: i.placeOf(b.aerodrome),
      description: `${[b.instructorName ? `With ${b.instructorName}.` : '', b.goals.length > 0 ? `For ${list(b.goals.map(say))}.` : '', b.airframeId ? `${parts.join(', ')}.` : '', b.note].filter(Boolean).join(' ')}`,
      ...(b.checkoutId ? { url: `${i.origin}/checkouts/${b.checkoutId}` } : {}),
      start: utc(b.startsAt),
      startInputType: 'utc',
      startOutputType: 'utc',
      end: utc(b.endsAt),
      endInputType: 'utc',
      endOutputType: 'utc',
      created: utc(i.now),
      lastModified: utc(i.now),
      ...(i.alarmMin > 0 && b.state === 'booked'
        ? {
            alarms: [
              {
                action: 'display' as const,
                description: 'Flight ahead',
                trigger: { before: true, minutes: i.alarmMin },
              },
            ],
          }
        : {}),
    };
  });
  const made = createEvents(events, { productId: 'jeito', method: 'PUBLISH', calName: i.name });
  if (made.error || !made.value) throw made.error ?? new Error('the calendar could not be written');
  return made.value;
}
