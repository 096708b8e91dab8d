import { z } from 'zod';

const Password = z.string().min(1, 'Type your password: this stands in the ledger.');
export const VoidForm = z.object({
  requestId: z.uuid(),
  entryId: z.string().min(1),
  password: Password,
  text: z
    .string()
    .trim()
    .min(10, 'Say why it is void: the reason stands beside it for ever.')
    .max(1000, 'At most 1000 characters.'),
});
export const CorrectionForm = z.object({
  requestId: z.uuid(),
  entryId: z.string().min(1),
  password: Password,
  text: z.string().trim().min(10, 'Say what is wrong and what is meant.').max(1000, 'At most 1000 characters.'),
});
export const ResultForm = z.object({
  requestId: z.uuid(),
  checkoutId: z.string().min(1),
  password: Password,
  result: z.enum(['passed', 'failed'], 'Say whether the test was passed.'),
  testOn: z.iso.date('Enter the date as 24 Nov 2026.'),
  examiner: z.string().trim().min(3, 'Give the examiner’s name.').max(120, 'At most 120 characters.'),
  reference: z.string().trim().max(120, 'At most 120 characters.'),
  text: z.string().trim().max(1000, 'At most 1000 characters.'),
});
