import { z } from 'zod';
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import { LIMIT_CHANNELS } from '@/domain/words';
import { computed, instant, json, real, text, whole } from '../floor/columns';
import { table } from '../floor/table';
import { Sorties } from '../checkout/tables';
import { Airframes } from '../hangar/tables';
import { Users } from '../account/tables';

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
    traceId: text,
    airframeId: text,
    sortieId: text,
    channel: z.enum(LIMIT_CHANNELS),
    limitValue: real,
    unit: text,
    peak: real,
    startS: real,
    durationS: real,
    mustDo: text,
    mustDoSource: text.nullable(),
    foundAt: instant,
  },
  {
    links: { trace: [Traces, 'traceId'], airframe: [Airframes, 'airframeId'], sortie: [Sorties, 'sortieId'] },
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
