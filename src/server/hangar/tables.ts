import { z } from 'zod';
import { GROUNDING_KINDS } from '@/domain/stops';
import { flag, instant, real, text, whole } from '../floor/columns';
import { table } from '../floor/table';
import { Users } from '../account/tables';

export const Types = table('types', {
  id: text,
  code: text,
  name: text,
});

export const TypeVersions = table(
  'type_versions',
  {
    id: text,
    typeId: text,
    version: whole,
    tailwheel: flag,
    powerHp: real,
    engines: whole,
    surface: z.enum(['land', 'sea', 'amphibian']),
    sheet: text,
    author: text,
    reason: text,
    createdAt: instant,
  },
  {
    links: { type: [Types, 'typeId'] },
  },
);

export const TypeDrafts = table(
  'type_drafts',
  {
    id: text,
    code: text.nullable(),
    baseVersion: whole,
    start: text.nullable(),
    origin: text,
    madeBy: text,
    madeAt: instant,
    endedAt: instant.nullable(),
    endedVersion: whole.nullable(),
  },
  {
    links: { maker: [Users, 'madeBy'] },
  },
);

export const TypeDraftChanges = table(
  'type_draft_changes',
  {
    draftId: text,
    seq: whole,
    path: text,
    value: text,
    page: text,
    madeBy: text,
    madeAt: instant,
  },
  {
    key: ['draftId', 'seq'],
    links: { draft: [TypeDrafts, 'draftId'], maker: [Users, 'madeBy'] },
  },
);

export const Airframes = table(
  'airframes',
  {
    id: text,
    registration: text,
    typeId: text,
  },
  {
    links: { type: [Types, 'typeId'] },
  },
);

export const AirframeVersions = table(
  'airframe_versions',
  {
    id: text,
    airframeId: text,
    version: whole,
    sheet: text,
    author: text,
    reason: text,
    createdAt: instant,
  },
  {
    links: { airframe: [Airframes, 'airframeId'] },
  },
);

export const Groundings = table(
  'groundings',
  {
    id: text,
    requestId: text,
    airframeId: text,
    kind: z.enum(GROUNDING_KINDS),
    why: text,
    placedBy: text,
    placedAt: instant,
  },
  {
    links: { airframe: [Airframes, 'airframeId'], placer: [Users, 'placedBy'] },
  },
);

export const GroundingEnds = table(
  'grounding_ends',
  {
    id: text,
    groundingId: text,
    endedBy: text,
    endedAt: instant,
    done: text,
    certifier: text.nullable(),
    certificate: text.nullable(),
  },
  {
    links: { grounding: [Groundings, 'groundingId'], ender: [Users, 'endedBy'] },
  },
);

export const PowerDecisions = table(
  'power_decisions',
  {
    id: text,
    findingId: text,
    typeCode: text,
    decision: z.enum(['approved', 'declined']),
    version: whole.nullable(),
    decidedBy: text,
    decidedAt: instant,
    reason: text,
  },
  {
    links: { type: [Types, 'typeCode', 'code'], decider: [Users, 'decidedBy'] },
  },
);
