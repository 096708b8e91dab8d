/**
 * Forms of commands that a page checks before it sends them: one schema for the form, the action and the command, so that
 * what the server would refuse is said beside the field first.
 */
import './plain-errors';
import { z } from 'zod';

const Id = z.string().min(1);
/** A reason somebody else will read. */
const reason = (least: number, most = 300) =>
  z.string().trim().min(least, 'Say why, in a few words.').max(most, `At most ${most} characters.`);

/** An instructor's word over a computed verdict; `to` null takes it back. */
export const OverruleForm = z.object({
  sortieId: Id,
  subjectId: Id,
  what: z.string().min(1).max(24),
  to: z.string().max(24).nullable(),
  reason: reason(8),
});
/** Asks to sign an item without its evidence. */
export const OverrideForm = z.object({
  checkoutId: Id,
  itemId: Id,
  reason: z
    .string()
    .trim()
    .min(15, 'Say why, in a sentence: it is printed on the sign-off.')
    .max(500, 'At most 500 characters.'),
});
export const OverrideAnswerForm = z.object({
  overrideId: Id,
  answer: z.enum(['approved', 'declined', 'withdrawn']),
  reason: z.string().trim().max(300, 'At most 300 characters.'),
});
/** Takes a proposed version of content into force. */
export const AdoptForm = z.object({ id: Id, reason: reason(5) });
/** A power setting noted in flight: on the sheet, or left in the record. */
export const PowerForm = z.object({
  findingId: Id,
  decision: z.enum(['approved', 'declined']),
  reason: z
    .string()
    .trim()
    .min(5, 'Say why, in a few words: the next reader needs it.')
    .max(300, 'At most 300 characters.'),
});
/** Strikes a logged flight that was wrong. */
export const StrikeForm = z.object({ logId: Id, reason: reason(5) });
export const CertificateForm = z.object({
  userId: Id,
  certificate: z.string().trim().max(80, 'At most 80 characters.'),
  until: z.iso.date('Enter the date as 24 Nov 2026.').nullable(),
});
export const PilotCertificateForm = z.object({
  pilotId: Id,
  certificate: z.string().trim().max(80, 'At most 80 characters.'),
});
/** Moves a checkout to newer sheets, on purpose. */
/** Going on in another aeroplane of the type. */
export const SwapForm = z.object({
  checkoutId: z.string(),
  airframeId: z.string('Choose the aeroplane.').min(1, 'Choose the aeroplane.'),
  reason: reason(5),
});
export const NewerSheetsForm = z.object({
  checkoutId: z.string(),
  typeVersion: z.number().int().nullable(),
  airframeVersion: z.number().int().nullable(),
  reason: reason(5),
});
