import { Exercise } from '@/domain/findings';
import { z } from 'zod';

export const DecideForm = z.object({
  checkoutId: z.string().min(1),
  findingId: z.string().min(1).max(60),
  decision: z.enum(['confirmed', 'dismissed', 'own', 'withdrawn']),
  reason: z.string().trim().max(300, 'At most 300 characters.'),
  lesson: z.number().int().min(0),
  own: z
    .object({
      title: z.string().trim().min(3, 'Give it a title.').max(80, 'At most 80 characters.'),
      text: z.string().trim().min(10, 'Say what you saw, in a sentence.').max(300, 'At most 300 characters.'),
      next: Exercise.extend({
        title: z.string().trim().min(3, 'Say what to fly.').max(80, 'At most 80 characters.'),
        minutes: z
          .number('Give whole minutes.')
          .int('Give whole minutes.')
          .min(1, 'At least 1 min.')
          .max(60, 'At most 60 min.'),
      }),
    })
    .nullable(),
});

export const DebriefForm = z.object({
  requestId: z.uuid(),
  sortieId: z.string().min(1),
  focus: z
    .array(z.string().trim().min(3, 'Say it in a few words.').max(120, 'At most 120 characters.'))
    .max(2, 'Two things at most: a third is not remembered.'),
  remark: z.string().trim().max(1000, 'At most 1000 characters.'),
});
