import { z } from 'zod';
import { putAt } from './form-node';

/** Of an aeroplane a school can begin a sheet with. */
export const SAMPLE_KINDS = [
  'light-tailwheel',
  'nosewheel-trainer',
  'complex-single',
  'light-twin',
  'amphibian',
] as const;
export type SampleKind = (typeof SAMPLE_KINDS)[number];

export const StartDraftForm = z.discriminatedUnion('from', [
  z.object({ from: z.literal('empty') }),
  z.object({ from: z.literal('sample'), kind: z.enum(SAMPLE_KINDS) }),
  z.object({ from: z.literal('type'), code: z.string().min(1).max(80) }),
]);

/** One field as it is now. A list is one field: its rows have no names that two machines could agree on. */
export const DraftChange = z.object({ path: z.string().min(1).max(200), value: z.unknown() });
export type DraftChange = z.infer<typeof DraftChange>;

export const KeepDraftForm = z.object({
  /** Of a draft, or the code of a type that is edited. */
  key: z.string().min(1).max(80),
  /** Version the page was opened at; 0 = the type is new. */
  baseVersion: z.number().int().min(0),
  /** The last change this page knows of. */
  seen: z.number().int().min(0),
  /** One open page. */
  page: z.uuid(),
  changes: z.array(DraftChange).max(200),
});
/** A change as it was kept, by whom. */
export interface KeptChange extends DraftChange {
  seq: number;
  page: string;
  by: string;
  at: string;
}

export const SaveDraftForm = z.object({
  key: z.string().min(1).max(80),
  seen: z.number().int().min(0),
  reason: z
    .string()
    .trim()
    .min(5, 'Say why, in a few words: the next reader needs it.')
    .max(300, 'At most 300 characters.'),
});
export const DraftKeyForm = z.object({ key: z.string().min(1).max(80) });

/** A sheet with changes made to it, one after the other. */
export const applyChanges = (start: unknown, changes: readonly DraftChange[]): unknown =>
  changes.reduce((sheet, c) => putAt(sheet, c.path.split('.'), c.value), start);
/** Whether two fields are the same one, or one lies within the other. */
export const overlap = (a: string, b: string): boolean => a === b || a.startsWith(`${b}.`) || b.startsWith(`${a}.`);

/** A registration as it comes into the hangar: weighed or not; what else differs from the type is entered later. */
export const AddAeroplaneForm = z
  .object({
    code: z.string().min(1).max(80),
    registration: z
      .string()
      .trim()
      .toUpperCase()
      .regex(/^[A-Z0-9][A-Z0-9-]{1,9}$/, 'As painted: letters, digits and hyphens, ten at most.'),
    emptyKg: z
      .number('Give the empty mass in kilograms.')
      .min(50, 'At least 50 kg.')
      .max(6000, 'At most 6000 kg.')
      .nullable(),
    emptyArmM: z.number('Give the arm in metres.').min(-20).max(20, 'At most 20 m.').nullable(),
    weighing: z.string().trim().max(120, 'At most 120 characters.'),
  })
  .refine((f) => (f.emptyKg === null && f.emptyArmM === null) || f.weighing.length > 0, {
    path: ['weighing'],
    message: 'Say which weighing report these stand in.',
  });
