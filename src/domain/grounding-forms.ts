import { GROUNDING_KINDS } from '@/domain/stops';
import { z } from 'zod';

export const GroundForm = z.object({
  requestId: z.uuid(),
  airframeId: z.string().min(1),
  kind: z.enum(GROUNDING_KINDS),
  why: z.string().trim().min(8, 'Say what is wrong, in a few words.').max(500),
});
/** Who certified the work: asked wherever an aeroplane goes back into service. */
export const Certified = {
  certifier: z.string().trim().min(3, 'Give the name of who certified it.').max(120),
  certificate: z.string().trim().min(3, 'Give the number or kind of that person\u2019s certificate.').max(80),
};
export const EndGroundingForm = z.object({
  groundingId: z.string().min(1),
  done: z.string().trim().min(8, 'Say what was done, in a few words, and where it is entered.').max(500),
  certifier: Certified.certifier.or(z.literal('')),
  certificate: Certified.certificate.or(z.literal('')),
});
/** Back into service after a limit was passed. */
export const ReleaseForm = z.object({
  exceedanceId: z.string().min(1),
  done: z.string().trim().min(8, 'Say what was done, in a few words, and where it is entered.').max(500),
  ...Certified,
});
