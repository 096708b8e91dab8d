import { z } from 'zod';
import type { CaptureEvent } from '@/domain/capture';
import { STOP_CODES, type Stop } from '@/domain/stops';
import { EVENT_TYPES, LANDING_KINDS } from '@/domain/words';
import { computed, day, flag, instant, json, real, text, whole } from '../floor/columns';
import { captured, judged, measured } from '../floor/stored';
import { type Row, table } from '../floor/table';
import { Sorties, Checkouts } from '../checkout/tables';
import { Users, Pilots } from '../account/tables';

export const CaptureEvents = table(
  'capture_events',
  {
    eventId: text,
    deviceId: text,
    deviceSeq: whole,
    sortieId: text,
    subjectId: text,
    author: text,
    type: z.enum(EVENT_TYPES),
    v: whole,
    deviceTime: instant,
    payload: json(z.unknown()),
    receivedAt: instant,
    skewMs: whole.nullable(),
  },
  {
    key: ['eventId'],
    links: { sortie: [Sorties, 'sortieId'], writer: [Users, 'author'] },
  },
);

export const Landings = table(
  'landings',
  {
    id: text,
    sortieId: text,
    checkoutId: text.nullable(),
    pilotId: text,
    number: whole,
    kind: z.enum(LANDING_KINDS),
    landingClass: text,
    intended: text.nullable(),
    gearGroup: text,
    crosswindKt: real.nullable(),
    windAgeMin: real.nullable(),
    flownOn: day,
    savedAt: instant,
    author: text,
    captured: captured,
    judged: judged,
    surface: z.enum(['land', 'water']),
    tailwheel: flag.nullable(),
    measured: measured.nullable(),
    level: whole.nullable(),
    shown: flag,
    endedAt: instant.nullable(),
    first: flag,
    offSurface: text.nullable(),
    offAt: instant.nullable(),
    /** Code of the aerodrome it was made at; null = home. */
    aerodrome: text.nullable(),
  },
  {
    links: {
      writer: [Users, 'author'],
      sortie: [Sorties, 'sortieId'],
      checkout: [Checkouts, 'checkoutId'],
      pilot: [Pilots, 'pilotId'],
    },
    defaults: ['surface', 'shown', 'first'],
  },
);

export const Stops = table(
  'stops',
  {
    id: text,
    subjectId: text,
    sortieId: text,
    checkoutId: text.nullable(),
    subject: z.enum(['flight', 'landing', 'item']),
    position: whole,
    code: z.enum(STOP_CODES),
    facts: computed<Stop['facts']>(),
  },
  {
    links: { sortie: [Sorties, 'sortieId'], checkout: [Checkouts, 'checkoutId'] },
  },
);

/** The event a row keeps; when the server received it is the server's own. */
export const toEvent = ({
  skewMs,
  eventId,
  deviceId,
  deviceSeq,
  sortieId,
  subjectId,
  author,
  type,
  v,
  deviceTime,
  payload,
}: Omit<Row<typeof CaptureEvents>, 'receivedAt'>): CaptureEvent => ({
  eventId,
  deviceId,
  deviceSeq,
  sortieId,
  subjectId,
  author,
  type,
  v,
  deviceTime,
  payload,
  ...(skewMs === null ? {} : { skewMs }),
});
