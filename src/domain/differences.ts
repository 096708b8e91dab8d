import { z } from 'zod';
import { ATTRIBUTES, ATTRIBUTE_KEYS } from './handling';
import { GOALS, PHASES } from './words';

const share = z.number().min(0).max(1);
const severity = z.number().min(0).max(10);

/** What a change of one handling attribute means, as data a chief may edit. `*` stands for any value. */
export const DifferencePair = z.object({
  from: z.string(),
  to: z.string(),
  /** 0 = no difference worth a word, 10 = can end the flight. */
  severity,
  /** drop: a thing the hands do by themselves must stop. add: a thing nobody did before. */
  action: z.enum(['drop', 'add']),
  opposite: z.boolean(),
  cue: z.string().min(1).max(200),
});
export const DifferenceRules = z.object({
  schema: z.literal('differences/1'),
  /** How much of a goal is spent in a phase of flight, 0 to 1. */
  exposure: z.partialRecord(z.enum(GOALS), z.record(z.enum(PHASES), share)),
  attributes: z
    .array(
      z.object({
        key: z.enum(ATTRIBUTE_KEYS),
        phase: z.enum(PHASES),
        /** Of pairs that are not listed. */
        severity,
        cue: z.string(),
        same: z.string(),
        /** Instead of the phase's share, for some goals. */
        exposure: z.partialRecord(z.enum(GOALS), share).optional(),
        pairs: z.array(DifferencePair),
      }),
    )
    .superRefine((rows, ctx) => {
      for (const r of rows)
        for (const p of r.pairs)
          for (const v of [p.from, p.to]) {
            if (v !== '*' && !(ATTRIBUTES[r.key].values as readonly string[]).includes(v))
              ctx.addIssue({ code: 'custom', message: `${r.key}: "${v}" is not a value of this attribute` });
          }
    }),
});
export type DifferenceRules = z.infer<typeof DifferenceRules>;
