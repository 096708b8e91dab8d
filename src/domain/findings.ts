import { z } from 'zod';
import { ATTRIBUTE_KEYS } from './handling';
import { LIMIT_CHANNELS } from './words';

/** A condition on one fact of a landing or an item. A fact that nobody saw meets no condition. */
export const Condition = z
  .object({
    f: z.string().min(1),
    is: z.array(z.union([z.string(), z.number(), z.boolean()])).optional(),
    min: z.number().optional(),
    max: z.number().optional(),
  })
  .refine((c) => c.is !== undefined || c.min !== undefined || c.max !== undefined, 'a condition needs is, min or max');
export const Select = z.object({ all: z.array(Condition).default([]), any: z.array(Condition).default([]) });
export type Select = z.infer<typeof Select>;
const OVER = z.enum(['arrivals', 'go-arounds', 'items', 'gear-checks']);

/** When a pattern is raised. Counts look at the last `window` of what `among` selects. */
export const FindingTrigger = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('share'),
    over: OVER,
    among: Select.default({ all: [], any: [] }),
    of: Select,
    atLeast: z.number().int().min(1),
    share: z.number().min(0).max(1),
    window: z.number().int().default(12),
    habit: z.enum(ATTRIBUTE_KEYS).optional(),
  }),
  /** Mean of a measure to one side; eye bands are counted and never turned into metres. */
  z.object({
    kind: z.literal('bias'),
    measure: z.enum(['lateral', 'crab']),
    side: z.enum(['left', 'right']),
    practical: z.number(),
    unit: z.string(),
    atLeast: z.number().int(),
    window: z.number().int(),
  }),
  z.object({ kind: z.literal('one-side'), field: z.string(), atLeast: z.number().int(), window: z.number().int() }),
  z.object({ kind: z.literal('creep'), atLeast: z.number().int(), slopeM: z.number(), note: z.string() }),
  /** More often in one condition than in the other. */
  z.object({
    kind: z.literal('contrast'),
    over: OVER,
    with: Select,
    without: Select,
    of: Select,
    atLeast: z.number().int(),
    share: z.number(),
    elsewhere: z.number(),
  }),
  z.object({
    kind: z.literal('lost'),
    criteria: z.array(z.string()).min(1),
    before: z.number().int(),
    atLeast: z.number().int(),
    share: z.number(),
  }),
  z.object({ kind: z.literal('help-flat'), window: z.number().int(), atLeast: z.number().int() }),
  z.object({ kind: z.literal('sink'), times: z.number(), atLeast: z.number().int(), window: z.number().int() }),
  z.object({ kind: z.literal('limit'), channels: z.array(z.enum(LIMIT_CHANNELS)).min(1) }),
  z.object({ kind: z.literal('gap'), days: z.number().int(), of: Select }),
]);
export type FindingTrigger = z.infer<typeof FindingTrigger>;

/** What to fly because of a finding. Minutes include the talk. */
export const Exercise = z.object({
  title: z.string().min(3).max(80),
  text: z.string().max(300),
  minutes: z.number().int().min(1).max(60),
  where: z.enum(['ground', 'airwork', 'circuit']),
});
export type Exercise = z.infer<typeof Exercise>;
export const FindingPattern = z.object({
  id: z.string().regex(/^[a-z0-9-]+$/),
  title: z.string().max(80),
  positive: z.boolean().default(false),
  /** Praise is not spoken while a finding of this weight or more is open. */
  quietUnder: z.number().int().optional(),
  /** 1 to 10: how much it matters when several are raised. */
  weight: z.number().int().min(1).max(10),
  trigger: FindingTrigger,
  /** Occasions without it, one after another, after which it is closed. */
  closes: z.number().int().min(1),
  causes: z.array(z.string().min(3)).min(1),
  next: Exercise,
  /** Wording with the finding's numbers in braces. */
  pilot: z.string().min(10),
  instructor: z.string().min(6),
  /** Said otherwise where the checkout has chosen another side of a technique. */
  bySchool: z
    .array(
      z.object({
        topic: z.string(),
        side: z.string(),
        pilot: z.string().min(10).optional(),
        causes: z.array(z.string().min(3)).min(1).optional(),
        next: Exercise.optional(),
      }),
    )
    .default([]),
});
export type FindingPattern = z.infer<typeof FindingPattern>;
export const Findings = z.object({ schema: z.literal('findings/1'), patterns: z.array(FindingPattern).min(30) });
export type Findings = z.infer<typeof Findings>;
