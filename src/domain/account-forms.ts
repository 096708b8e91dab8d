import { z } from 'zod';
import { ROLES } from './words';

const Own = z
  .string('Choose a password.')
  .min(12, 'At least twelve characters: a few words are easy to keep.')
  .max(200, 'At most 200 characters.');
/** A first or a new password, by a one-time link. */
export const LinkForm = z
  .object({ password: Own, again: z.string() })
  .refine((f) => f.password === f.again, { path: ['again'], message: 'This is not the same password.' });

/** An account for somebody who is on record without one. */
export const OpenAccountForm = z.object({
  pilotId: z.string().min(1).max(80),
  email: z.email('Type an e-mail address like name@school.example.').max(200),
  roles: z.array(z.enum(ROLES)).min(1, 'Choose at least one role.'),
});

export const FactorCode = z
  .string()
  .transform((code) => code.replace(/[\s-]/g, '').toLowerCase())
  .refine((code) => /^(\d{6}|[a-z2-7]{10})$/.test(code), 'Six digits, or a recovery code of ten letters and digits.');
export const ConfirmFactorForm = z.object({ code: FactorCode });
export const EndFactorForm = z.object({ password: z.string().min(1, 'Type your password.').max(400) });
export const FactorRolesForm = z.object({ roles: z.array(z.enum(ROLES)) });
