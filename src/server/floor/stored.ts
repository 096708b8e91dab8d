import { z } from 'zod';
import type { JudgedLanding } from '@/core/assess';
import type { Split } from '@/core/schedule';
import type { CapturedLanding, Measured } from '@/domain/capture';
import { GOALS, ROLES } from '@/domain/words';
import { computed, json } from './columns';

/** JSON columns that several tables, or tables and statements, have in common. */
export const roles = json(z.array(z.enum(ROLES)));
export const goals = json(z.array(z.enum(GOALS)));
export const crosswindCredit = json(z.object({ group: z.string(), kt: z.number(), date: z.string() }));
export const split = computed<Split>();
/** A landing as it was captured, judged and measured, in the words of its release. */
export const captured = computed<CapturedLanding>();
export const judged = computed<JudgedLanding>();
export const measured = computed<Measured>();
