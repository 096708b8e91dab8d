import './plain-errors';
import { z } from 'zod';

export const HoursForm = z.object({
  pilotId: z.string().min(1),
  rows: z
    .array(
      z.object({
        typeCode: z.string().min(1, 'Choose the type.'),
        hours: z.number('Give the hours.').min(0, 'Hours cannot be negative.').max(30000, 'At most 30 000 h.'),
        /** Of them in command; null = nobody told them apart. */
        pic: z
          .number('Give hours, or leave it empty.')
          .min(0, 'Hours cannot be negative.')
          .max(30000, 'At most 30 000 h.')
          .nullable()
          .default(null),
        lastFlown: z.iso.date('Enter the date as 24 Nov 2026.'),
      }),
    )
    .max(60),
});

export const EyeForm = z.object({
  pilotId: z.string().min(1),
  typeCode: z.string().min(1),
  seat: z.enum(['pilot', 'instructor']),
  eyeHeightM: z
    .number('Give the eye height in metres.')
    .min(0.5, 'At least 0.5 m: measure from the ground, three wheels down.')
    .max(5, 'At most 5 m.'),
  how: z.string().trim().min(3, 'Say how, for example tape, thin cushion.').max(120, 'At most 120 characters.'),
});
