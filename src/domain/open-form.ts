import { z } from 'zod';
import { GOALS, PACKS } from './words';

export const OpenForm = z.object({
  requestId: z.uuid(),
  pilotId: z.string().min(1, 'Choose the pilot.'),
  airframeId: z.string().min(1, 'Choose the aeroplane.'),
  pack: z.enum(PACKS, 'Choose the rules.'),
  goals: z.array(z.enum(GOALS)).min(1, 'Choose at least one goal.'),
  standardKey: z.string().min(1, 'Choose the standard.'),
  note: z.string().max(1000, 'At most 1000 characters.'),
});
