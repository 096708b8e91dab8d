/** The catalogue of airwork: what was done wrong in an item, and what of it was not looked at. */
import { type AirworkQuantity, QUANTITY_NAME } from '@/domain/airwork';
import { type Coded, sentence } from '@/domain/coded';

/** `height, roll-out heading` */
export const unseenName = (id: string): string =>
  id in QUANTITY_NAME ? QUANTITY_NAME[id as AirworkQuantity] : id.replaceAll('-', ' ');

export const DETAIL_WORDS = {
  'no-look-out': () => 'no look-out before it',
  'secondary-stall': () => 'stalled again in the recovery',
  'rolled-before-unloading': () => 'rolled or yawed before unloading',
  'simulated-not-said': () => 'the word simulated was not said',
  'past-first-cue': () => 'went on past the first cue',
  missed: ({ steps }: { steps: readonly string[] }) => `missed: ${steps.join(', ')}`,
  'out-of-order': ({ steps }: { steps: readonly string[] }) => `out of order: ${steps.join(', ')}`,
  'not-said': ({ steps }: { steps: readonly string[] }) => `not said: ${steps.join(', ')}`,
  'feet-stayed-on': () => 'feet stayed on the pedals',
  'model-says': ({ model }: { model: string }) => `model answer: ${model}`,
};
export type DetailReason = Coded<typeof DETAIL_WORDS>;
/** What was done wrong in an item, in one line; empty where nothing was. */
export const detailSaid = (reasons: readonly DetailReason[]): string =>
  reasons.map((r) => sentence(DETAIL_WORDS, r)).join('; ');
