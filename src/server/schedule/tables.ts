import { z } from 'zod';
import { BOOKING_KINDS } from '@/domain/schedule';
import { day, instant, json, text, whole } from '../floor/columns';
import { split } from '../floor/stored';
import { table } from '../floor/table';
import { Pilots, Users } from '../account/tables';
import { Airframes } from '../hangar/tables';
import { Checkouts } from '../checkout/tables';

export const Bookings = table(
  'bookings',
  {
    id: text,
    kind: z.enum(BOOKING_KINDS),
    pilotId: text.nullable(),
    instructorId: text.nullable(),
    airframeId: text.nullable(),
    checkoutId: text.nullable(),
    startsAt: instant,
    endsAt: instant,
    split: split.nullable(),
    passengers: whole,
    surface: text,
    /** Code of the aerodrome it is flown at; null = home. */
    aerodrome: text.nullable(),
    note: text,
    /** What a lesson is for. */
    aim: text,
    state: z.enum(['booked', 'cancelled']),
    version: whole,
    bookedBy: text,
    bookedAt: instant,
    requestId: text,
  },
  {
    links: {
      pilot: [Pilots, 'pilotId'],
      instructor: [Users, 'instructorId'],
      airframe: [Airframes, 'airframeId'],
      checkout: [Checkouts, 'checkoutId'],
      booker: [Users, 'bookedBy'],
    },
    defaults: ['passengers', 'surface', 'aim'],
  },
);

export const BookingHolds = table(
  'booking_holds',
  {
    bookingId: text,
    holder: text,
    startsAt: instant,
    endsAt: instant,
  },
  {
    key: ['holder', 'startsAt'],
    links: { booking: [Bookings, 'bookingId'] },
  },
);

export const BookingChanges = table(
  'booking_changes',
  {
    id: text,
    bookingId: text,
    version: whole,
    what: text,
    body: json(z.unknown()),
    reason: text,
    changedBy: text,
    changedAt: instant,
  },
  {
    links: { booking: [Bookings, 'bookingId'], changer: [Users, 'changedBy'] },
  },
);

export const WeeklyWindows = table(
  'weekly_windows',
  {
    id: text,
    person: text,
    weekday: whole,
    fromMin: whole,
    toMin: whole,
    validFrom: day,
    validUntil: day.nullable(),
    enteredBy: text,
    enteredAt: instant,
    endedAt: instant.nullable(),
  },
  {
    links: { enterer: [Users, 'enteredBy'] },
  },
);

export const TimesAway = table(
  'times_away',
  {
    id: text,
    who: text,
    kind: z.enum(['away', 'maintenance']),
    fromAt: instant,
    toAt: instant.nullable(),
    why: text,
    enteredBy: text,
    enteredAt: instant,
    endedAt: instant.nullable(),
    endedBy: text.nullable(),
    endedWhy: text.nullable(),
  },
  {
    links: { enterer: [Users, 'enteredBy'], ender: [Users, 'endedBy'] },
  },
);

export const Waiting = table(
  'waiting_list',
  {
    id: text,
    pilotId: text,
    checkoutId: text.nullable(),
    minutes: whole,
    fromDate: day,
    toDate: day,
    note: text,
    askedBy: text,
    askedAt: instant,
    endedAt: instant.nullable(),
    endedHow: text.nullable(),
    bookingId: text.nullable(),
  },
  {
    links: {
      pilot: [Pilots, 'pilotId'],
      checkout: [Checkouts, 'checkoutId'],
      asker: [Users, 'askedBy'],
      booking: [Bookings, 'bookingId'],
    },
  },
);

export const CalendarFeeds = table(
  'calendar_feeds',
  {
    id: text,
    userId: text,
    hash: text,
    alarmMin: whole,
    createdAt: instant,
    endedAt: instant.nullable(),
    expiresAt: instant.nullable(),
    lastUsedAt: day.nullable(),
  },
  {
    links: { user: [Users, 'userId'] },
  },
);
