import { z } from 'zod';
import type { CaptureEvent } from '@/domain/capture';
import { STOP_CODES,type Stop } from '@/domain/stops';
import { EVENT_TYPES,LANDING_KINDS } from '@/domain/words';
import { computed,day,flag,instant,json,real,text,whole } from '../floor/columns';
import { captured,judged,measured } from '../floor/stored';
import { table } from '../floor/table';
import { Sorties,Checkouts } from '../checkout/tables';
import { Users,Pilots } from '../account/tables';

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
  },
  {
    links: { sortie: [Sorties, 'sortieId'], checkout: [Checkouts, 'checkoutId'], pilot: [Pilots, 'pilotId'] },
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

/** A row of capture_events, as it lies in the database. */
export interface CaptureRow {
  event_id: string;
  device_id: string;
  device_seq: number;
  sortie_id: string;
  subject_id: string;
  author: string;
  type: CaptureEvent['type'];
  v: number;
  device_time: string;
  payload: string;
  skew_ms: number | null;
}
export const toEvent = (e: CaptureRow): CaptureEvent => ({
  eventId: e.event_id,
  deviceId: e.device_id,
  deviceSeq: e.device_seq,
  sortieId: e.sortie_id,
  subjectId: e.subject_id,
  author: e.author,
  type: e.type,
  v: e.v,
  deviceTime: e.device_time,
  payload: JSON.parse(e.payload) as unknown,
  ...(e.skew_ms === null ? {} : { skewMs: e.skew_ms }),
});
