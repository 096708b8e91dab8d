import { z } from 'zod';
import { ATTITUDES } from './words';

/** A wind with its reference and time, however it was entered. */
export const WindSeen = z.object({
  source: z.enum(['report', 'typed']),
  raw: z.string(),
  reference: z.enum(['true', 'magnetic']),
  variable: z.boolean(),
  fromDeg: z.number().nullable(),
  kt: z.number(),
  gustKt: z.number().nullable(),
  arcFromDeg: z.number().nullable(),
  arcToDeg: z.number().nullable(),
  observedAt: z.string(),
});
export type WindSeen = z.infer<typeof WindSeen>;

export const BriefChoices = z.object({
  /** ISO date of the lesson. */
  flownOn: z.string(),
  runwayEnd: z.string(),
  wind: WindSeen.nullable(),
  /** Greatest flap to be used; null = what the sheet's schedule says. */
  maxFlapDeg: z.number().nullable(),
  fuelL: z.number(),
  pilotKg: z.number(),
  instructorKg: z.number(),
  baggageKg: z.number(),
  gustSchool: z.enum(['none', 'half', 'full']),
  intended: z.enum(ATTITUDES),
  instructorLimitKt: z.number().nullable(),
  focus: z.string(),
});
export type BriefChoices = z.infer<typeof BriefChoices>;
