import { z } from 'zod';
import { LabNote } from './lab';
import { PlanBlock } from './plan';
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
  flownOn: z.iso.date('Enter the date as 24 Nov 2026.'),
  /** Where the lesson is flown, by its code; absent = at home. */
  aerodrome: z.string().max(20).optional(),
  runwayEnd: z.string(),
  wind: WindSeen.nullable(),
  /** Greatest flap to be used; null = what the sheet's schedule says. */
  maxFlapDeg: z.number().nullable(),
  fuelL: z.number(),
  pilotKg: z.number(),
  instructorKg: z.number(),
  baggageKg: z.number(),
  rearKg: z.number(),
  /** Altimeter setting and outside air; null = not known, and what needs them says so. */
  qnhHpa: z.number().nullable(),
  oatC: z.number().nullable(),
  surfaceState: z.enum(['dry', 'wet']),
  night: z.boolean(),
  bookingMin: z.number(),
  /** A second aeroplane when two fly together. */
  second: z
    .object({
      registration: z.string(),
      leads: z.enum(['this', 'other']),
      position: z.string(),
      place: z.string(),
      heightFt: z.number().nullable(),
      at: z.string(),
      breakS: z.number().nullable(),
    })
    .nullable(),
  layout: z.object({
    order: z.array(z.string()),
    hidden: z.array(z.string()),
    own: z.array(z.object({ id: z.string(), title: z.string(), text: z.string() })),
  }),
  gustSchool: z.enum(['none', 'half', 'full']),
  speedSchool: z.enum(['constant', 'reducing']),
  intended: z.enum(ATTITUDES),
  instructorLimitKt: z.number().nullable(),
  focus: z.string(),
  /** The lesson as planned from the last debrief; absent in briefs older than plans. */
  plan: z.array(PlanBlock).max(30).optional(),
  /** Pages of the lab put into this brief. */
  models: z.array(LabNote).max(6, 'At most six pages of the lab in a brief: remove one.').optional(),
});
export type BriefChoices = z.infer<typeof BriefChoices>;
