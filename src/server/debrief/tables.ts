import { z } from 'zod';
import type { SelfSaid } from '@/core/assess';
import type { Exercise } from '@/domain/findings';
import type { PlanBlock } from '@/domain/plan';
import { computed, instant, json, text, whole } from '../floor/columns';
import { table } from '../floor/table';
import { Checkouts, Sorties } from '../checkout/tables';
import { Users } from '../account/tables';

export const FindingDecisions = table(
  'finding_decisions',
  {
    id: text,
    checkoutId: text,
    findingId: text,
    decision: z.enum(['confirmed', 'dismissed', 'own', 'withdrawn']),
    reason: text,
    lesson: whole,
    own: computed<{ title: string; text: string; next: Exercise }>().nullable(),
    decidedBy: text,
    decidedAt: instant,
    seq: whole,
  },
  {
    links: { checkout: [Checkouts, 'checkoutId'], decider: [Users, 'decidedBy'] },
  },
);

export const SelfAssessments = table(
  'self_assessments',
  {
    id: text,
    sortieId: text,
    said: computed<SelfSaid>(),
    toldBy: text,
    toldAt: instant,
    seq: whole,
  },
  {
    links: { sortie: [Sorties, 'sortieId'], teller: [Users, 'toldBy'] },
  },
);

export const Debriefs = table(
  'debriefs',
  {
    id: text,
    sortieId: text,
    version: whole,
    focus: json(z.array(z.string())),
    remark: text,
    snapshot: json(z.unknown()),
    requestId: text,
    createdBy: text,
    createdAt: instant,
    acknowledgedBy: text.nullable(),
    acknowledgedAt: instant.nullable(),
  },
  {
    links: { sortie: [Sorties, 'sortieId'], creator: [Users, 'createdBy'], acknowledger: [Users, 'acknowledgedBy'] },
  },
);

export const LessonPlans = table(
  'lesson_plans',
  {
    id: text,
    checkoutId: text,
    lesson: whole,
    version: whole,
    plan: computed<{ blocks: PlanBlock[]; focus: string[]; bookingMin?: number }>(),
    requestId: text,
    createdBy: text,
    createdAt: instant,
  },
  {
    links: { checkout: [Checkouts, 'checkoutId'], creator: [Users, 'createdBy'] },
  },
);
