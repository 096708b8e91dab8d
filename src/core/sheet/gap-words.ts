/** What a sheet does without where a field is not on it, in one sentence each. */
import { type Coded, sentence } from '@/domain/coded';

export const GAP_WORDS = {
  'dial-error': () => 'No error table: indicated speed is taken as calibrated.',
  'rotation-speed': () => 'No Vr: the brief names no speed to lift off at.',
  'gear-limits': () => 'No gear speeds: the approach is not checked against them.',
  'gear-lamps': () => 'Nothing said of the lamps: the brief does not say what an unlit lamp means.',
  crosswind: () => 'Neither a limitation nor a demonstrated crosswind: only the school’s limits judge the wind.',
  tailwind: () => 'No tailwind limit: a tailwind is judged by the school’s limits only.',
  'flap-limits': () => 'No flap limits: flap is not checked against the speed it is selected at.',
  'after-limit': () => 'Not said what is due when a limit was passed: an exceedance is reported without it.',
  'one-engine': () => 'No numbers for one engine out: nothing is computed for it.',
  'accelerate-stop': () => 'No accelerate-stop: the length to stop in is not compared with the runway.',
  'touchdown-point': () => 'No touchdown point: landings are measured from the aim point.',
  'runway-width': () => 'No least width: the width of a runway is not judged.',
  'on-land': () => 'No schedule for land: it is briefed on water only.',
  distances: () => 'No distances: whether a runway is long enough is not computed.',
  loading: () => 'No arms and envelope: mass and balance are not computed.',
  trim: () => 'No trim settings: none is computed for take-off.',
  powers: () => 'No power table: power and fuel flow by phase are not shown.',
  electrics: () => 'No battery and consumers: the time left after a charging failure is not computed.',
  dimensions: () => 'Dimensions missing: ground clearance and the attitude on the ground are not drawn.',
  sight: () => 'The view from the seat was not measured: no sight picture.',
  dynamics: () =>
    'Numbers of ground, touch and slip missing: the pages of the lab that need them say which to measure.',
  seat: () => 'Not said what is in reach: the brief does not say what the instructor cannot touch.',
  'law-features': () =>
    'Not said of every feature the law asks about: what it demands stays undecided, and a signature can wait for it.',
  flows: () => 'No flows: none on the card.',
  attributes: () => 'No handling attributes: differences to other types are not found.',
} as const;
export type SheetGap = Coded<typeof GAP_WORDS> & { path: string };

/** The sentence of a gap: what is not on the sheet, and what does not work without it. */
export const gapWords = (gap: SheetGap): string => sentence(GAP_WORDS, gap);
