import { z } from 'zod';
import { LabQuery } from './lab';
import { LAB_PAGES } from './lab-pages';

export const BLOCK_KINDS = [
  'ground',
  'airwork',
  'warm-up',
  'repeat',
  'exercise',
  'circuits',
  'new',
  'strength',
  'own',
] as const;
export const BLOCK_NAME: Record<(typeof BLOCK_KINDS)[number], string> = {
  ground: 'on the ground',
  airwork: 'airwork',
  'warm-up': 'settle in',
  repeat: 'rebuild',
  exercise: 'from a finding',
  circuits: 'towards an item',
  new: 'the one new thing',
  strength: 'end well',
  own: 'my own',
};
/** One step of a lesson: what, why, and for how long. */
export const PlanBlock = z.object({
  id: z.string().min(1).max(60),
  kind: z.enum(BLOCK_KINDS),
  title: z.string().trim().min(2, 'Give it a title.').max(80, 'At most 80 characters.'),
  why: z.string().max(300),
  minutes: z
    .number('Give whole minutes.')
    .int('Give whole minutes.')
    .min(1, 'At least 1 min.')
    .max(120, 'At most 120 min.'),
  itemIds: z.array(z.string().max(40)).max(10).default([]),
  findingId: z.string().max(60).nullable().default(null),
  /** A page of the lab to open, as set for this pilot. */
  lab: z
    .object({ page: z.enum(LAB_PAGES), query: LabQuery })
    .nullable()
    .default(null),
});
export type PlanBlock = z.infer<typeof PlanBlock>;
