import { z } from 'zod';
import { SCOPES } from './scopes';

export const TokenForm = z.object({
  name: z.string().trim().min(2, 'Name it after what will use it.').max(60, 'At most 60 characters.'),
  scopes: z
    .array(z.enum(SCOPES))
    .min(1, 'Choose what it is for.')
    .max(SCOPES.length)
    .transform((s) => SCOPES.filter((x) => s.includes(x))),
});
