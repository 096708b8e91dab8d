import { z } from 'zod';

export const TokenForm = z.object({
  name: z.string().trim().min(2, 'Name it after what will use it.').max(60, 'At most 60 characters.'),
});
