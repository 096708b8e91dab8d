import './plain-errors';
import { z } from 'zod';
import { GOALS, PACKS } from './words';

/** Which other open checkouts there are, and what they would prove for this one. */
export const ElsewhereForm = z.object({
  pilotId: z.string().min(1).max(64),
  airframeId: z.string().max(64),
  pack: z.enum(PACKS),
  goals: z.array(z.enum(GOALS)).max(20),
});

export const OpenForm = z.object({
  requestId: z.uuid(),
  pilotId: z.string().min(1, 'Choose the pilot.'),
  airframeId: z.string().min(1, 'Choose the aeroplane.'),
  pack: z.enum(PACKS, 'Choose the rules.'),
  goals: z.array(z.enum(GOALS)).min(1, 'Choose at least one goal.'),
  standardKey: z.string().min(1, 'Choose the standard.'),
  /** Open checkouts of this pilot whose proof is carried into this one. */
  carry: z.array(z.string().max(64)).max(20).default([]),
  note: z.string().max(1000, 'At most 1000 characters.'),
});
