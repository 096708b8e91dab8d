import { z } from 'zod';
import type { CaptureEvent } from '@/domain/capture';
import { STOP_CODES, type Stop } from '@/domain/stops';
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import { EVENT_TYPES, LANDING_KINDS, LIMIT_CHANNELS } from '@/domain/words';
import { computed, day, flag, instant, json, real, text, whole } from '../floor/columns';
import { captured, judged, measured } from '../floor/stored';
import { type Row, table } from '../floor/table';
import { Sorties, Checkouts } from '../checkout/tables';
import { Users, Pilots } from '../account/tables';
import { Airframes } from '../hangar/tables';

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

export const Traces = table(
  'traces',
  {
    id: text,
    sortieId: text,
    airframeId: text,
    hash: text,
    name: text,
    bytes: whole,
    mapping: json(z.unknown()).nullable(),
    context: computed<TraceContext>(),
    analysis: computed<TraceAnalysis>(),
    startUtc: instant.nullable(),
    uploadedBy: text,
    uploadedAt: instant,
  },
  {
    links: { sortie: [Sorties, 'sortieId'], airframe: [Airframes, 'airframeId'], uploader: [Users, 'uploadedBy'] },
  },
);

export const Exceedances = table(
  'exceedances',
  {
    id: text,
    /** Null where it was seen by eye: then it has no amount, and who saw it. */
    traceId: text.nullable(),
    airframeId: text,
    sortieId: text,
    channel: z.enum(LIMIT_CHANNELS),
    limitValue: real.nullable(),
    unit: text,
    peak: real.nullable(),
    startS: real.nullable(),
    durationS: real.nullable(),
    mustDo: text,
    mustDoSource: text.nullable(),
    foundAt: instant,
    seenBy: text.nullable(),
  },
  {
    links: {
      trace: [Traces, 'traceId'],
      airframe: [Airframes, 'airframeId'],
      sortie: [Sorties, 'sortieId'],
      witness: [Users, 'seenBy'],
    },
  },
);

export const ExceedanceReleases = table(
  'exceedance_releases',
  {
    id: text,
    exceedanceId: text,
    releasedBy: text,
    releasedAt: instant,
    done: text,
    certifier: text.nullable(),
    certificate: text.nullable(),
  },
  {
    links: { exceedance: [Exceedances, 'exceedanceId'], releaser: [Users, 'releasedBy'] },
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
