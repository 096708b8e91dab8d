/** Forms of the first hour of a school: who leads it, and where it flies. */
import { z } from 'zod';
import { PACKS } from './words';

export const FirstChiefForm = z
  .object({
    name: z.string().trim().min(3, 'Give your name.').max(80, 'At most 80 characters.'),
    email: z.email('This is no e-mail address. Type it like name@school.example.').max(200, 'At most 200 characters.'),
    massKg: z.number('Give the mass in kilograms.').min(30, 'At least 30 kg.').max(200, 'At most 200 kg.'),
    certificate: z.string().trim().max(80, 'At most 80 characters.'),
    password: z
      .string()
      .min(12, 'At least twelve characters: a few words are easy to keep.')
      .max(200, 'At most 200 characters.'),
    again: z.string(),
  })
  .refine((f) => f.password === f.again, { path: ['again'], message: 'This is not the same password.' });
export type FirstChiefForm = z.infer<typeof FirstChiefForm>;

const feet = (least: number, most: number) =>
  z.number('Give whole feet.').min(least, `At least ${least} ft.`).max(most, `At most ${most} ft.`);
/** What stands at an end, where it is known already. */
export const EndForm = z
  .object({
    circuit: z.enum(['left', 'right']),
    slopeLightsDeg: z
      .number('Give degrees, such as 3.')
      .min(2, 'From 2 to 8 degrees.')
      .max(8, 'From 2 to 8 degrees.')
      .nullable(),
    slopeLightsM: z.number('Give metres.').min(0, 'From 0 m.').max(1500, 'At most 1500 m.').nullable(),
    landmark: z.string().trim().max(60, 'At most 60 characters.'),
    landmarkM: z.number('Give metres.').min(0, 'From 0 m.').max(6000, 'At most 6000 m.').nullable(),
  })
  .refine((e) => e.landmarkM !== null || e.landmark === '', {
    path: ['landmarkM'],
    message: 'Say how far past the threshold it stands.',
  })
  .refine((e) => e.landmarkM === null || e.landmark !== '', {
    path: ['landmark'],
    message: 'Say what stands there.',
  });
export const RunwayForm = z.object({
  ident: z
    .string()
    .trim()
    .regex(/^(0[1-9]|[12]\d|3[0-6])[LRCW]?$/, 'Write the lower end as painted, such as 04 or 18W.'),
  trueBearingDeg: z.number('Give degrees true.').gt(0, 'From 1 to 360.').max(360, 'From 1 to 360.'),
  lengthM: z.number('Give metres.').min(50, 'At least 50 m.').max(6000, 'At most 6000 m.'),
  widthM: z.number('Give metres.').min(3, 'At least 3 m.').max(200, 'At most 200 m.'),
  surface: z.enum(['asphalt', 'grass', 'water']),
  /** Of both ends, or of neither: the slope follows from them. */
  firstFt: feet(-1500, 15000).nullable(),
  secondFt: feet(-1500, 15000).nullable(),
  /** Lower end first. */
  ends: z.tuple([EndForm, EndForm]),
});
/** An aerodrome as it is entered: the first one, and every other. */
export const AerodromeForm = z.object({
  ident: z
    .string()
    .trim()
    .regex(/^[A-Z0-9-]{3,10}$/, 'Three to ten capital letters or figures, as the chart names it.'),
  name: z.string().trim().min(2, 'Give the name.').max(80, 'At most 80 characters.'),
  timeZone: z.string().min(1, 'Choose the time zone.'),
  latitudeDeg: z
    .number('Give degrees, north positive.')
    .min(-90, 'From \u221290 to 90.')
    .max(90, 'From \u221290 to 90.'),
  longitudeDeg: z
    .number('Give degrees, east positive.')
    .min(-180, 'From \u2212180 to 180.')
    .max(180, 'From \u2212180 to 180.'),
  elevationFt: feet(-1500, 15000),
  circuitHeightFt: feet(300, 3000),
  /** Null = by the magnetic model. */
  variationDeg: z
    .number('Give degrees, east positive.')
    .min(-60, 'From \u221260 to 60.')
    .max(60, 'From \u221260 to 60.')
    .nullable(),
  runways: z.array(RunwayForm).min(1, 'Give at least one runway or water lane.').max(12, 'At most twelve.'),
});
export type AerodromeForm = z.infer<typeof AerodromeForm>;
/** The school and where it is at home. */
export const PlaceForm = AerodromeForm.extend({
  school: z.string().trim().min(2, 'Give the name of the school.').max(80, 'At most 80 characters.'),
  homePack: z.enum(PACKS, 'Choose the rules.'),
});
export type PlaceForm = z.infer<typeof PlaceForm>;
