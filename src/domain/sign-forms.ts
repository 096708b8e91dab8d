import { DrawnSignature, Limitations } from '@/domain/ledger';
import { z } from 'zod';

const Text = z.string().trim().min(20, 'Say what is signed, in a sentence.').max(2000, 'At most 2000 characters.');
export const SignForm = z.object({
  checkoutId: z.string().min(1),
  /** What the page showed, by its stamp: anything else is refused. */
  shown: z.string().min(1, 'Open the page again: it does not say what it showed.'),
  password: z.string().min(1, 'Type your password to sign.'),
  limitations: Limitations,
  text: Text,
  remark: z.string().max(1000, 'At most 1000 characters.'),
  signature: DrawnSignature.nullable().default(null),
});
export type SignForm = z.infer<typeof SignForm>;
const ItemIds = z.array(z.string()).min(1, 'Choose the items to sign.');
export const PartForm = SignForm.omit({ limitations: true, signature: true }).extend({
  requestId: z.uuid(),
  items: ItemIds,
});
export const NotYetForm = z.object({
  requestId: z.uuid(),
  checkoutId: z.string().min(1),
  shown: z.string().min(1),
  password: z.string().min(1, 'Type your password to sign.'),
  text: z.string().trim().min(10, 'Say what is to be trained and why.').max(2000, 'At most 2000 characters.'),
  /** What is flown or shown again before anybody signs; absent = everything that is open. */
  items: z.array(z.string()).min(1, 'Choose what is to be flown or shown again.').optional(),
});
