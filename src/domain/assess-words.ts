/** Words of judging. Plain constants and types without a schema library, so that the cockpit shell may import them. */

export const CRITERION_VERDICTS = ['within', 'edge', 'outside', 'not-seen'] as const;
export type CriterionVerdict = (typeof CRITERION_VERDICTS)[number];
export type CriterionForm = 'measured' | 'eye' | 'asserted';

export const LANDING_CLASSES = [
  'own',
  'own-off-target',
  'prompted',
  'assisted',
  'outside',
  'not-judged',
  'demonstration',
] as const;
export type LandingClass = (typeof LANDING_CLASSES)[number];

export const BOUNCE_HANDLING = ['held', 'power', 'pushed', 'went-around'] as const;
export interface BounceEye {
  count: number;
  handling: (typeof BOUNCE_HANDLING)[number] | null;
}
export interface BandEye {
  band: string;
  side: 'left' | 'right' | null;
}
export type EyeValue = string | BandEye | BounceEye;

export const TRIGGER_WORDS = ['not-met', 'met-and-left', 'met-and-continued', 'continued-on-instructors-word'] as const;
export type TriggerWord = (typeof TRIGGER_WORDS)[number];

export const GO_AROUND_WORDS = ['before', 'at', 'late', 'told-for-safety', 'exercise', 'traffic'] as const;
export type GoAroundWord = (typeof GO_AROUND_WORDS)[number];
export type GoAroundDecision = 'sound' | 'late' | 'told' | 'neutral' | 'not-judged' | 'demonstration';
export type GoAroundExecution = 'good' | 'prompted' | 'assisted' | 'outside' | 'not-judged' | 'demonstration';

export type EyeForm =
  | { kind: 'words'; within: string[]; edge: string[] }
  | { kind: 'bounce'; withinCount: number; edgeCount: number }
  | { kind: 'attitude'; edgeFor: Record<string, string[]> };

export interface StandardRow {
  id: string;
  group: 'control' | 'precision';
  measured: { low: number; high: number } | null;
  eye: EyeForm | null;
  required: ('trace' | 'eye')[];
}
export interface LandingStandard {
  edgeShare: number;
  criteria: StandardRow[];
}

/** What an item may be about, beyond whose landing it was: then these must have been seen, each time. */
export const SUBJECTS = ['crosswind', 'roll-out', 'wheel-landing', 'configuration'] as const;
export type Subject = (typeof SUBJECTS)[number];
export const MUST_SEE: Record<Subject, string[]> = {
  crosswind: ['drift', 'crab', 'aileron'],
  'roll-out': ['swing', 'aileron', 'stick'],
  'wheel-landing': ['attitude', 'bounce', 'rollout'],
  configuration: ['configuration'],
};

/** Up to how much help something seen still counts; the place in the list is the number kept. */
export const HELP = ['unassisted', 'prompted', 'assisted'] as const;
/** Attitudes landings of an item may be asked in. */
export const ITEM_ATTITUDES = ['any', 'three-point', 'mains-first'] as const;

/** What an aeroplane must have for an item of a programme to be asked of it. */
export const NEEDS = [
  'retractable',
  'controllable-propeller',
  'flaps',
  'tailwheel',
  'wheel-landings',
  'amphibian',
  'twin',
  'single',
  'glass',
  'turbocharged',
  'pressurised',
  'single-lever',
  'high-power',
  'very-powerful',
  'blind-nose',
  'land',
  'water',
  'skis',
] as const;
export type Need = (typeof NEEDS)[number];
/** What is missing, in words. */
export const NEED_WORDS: Record<Need, string> = {
  retractable: 'retractable gear',
  'controllable-propeller': 'a controllable propeller',
  flaps: 'flap',
  tailwheel: 'a tailwheel',
  'wheel-landings': 'wheel landings the maker allows',
  amphibian: 'wheels and water both',
  twin: 'two engines',
  single: 'one engine',
  glass: 'a glass cockpit',
  turbocharged: 'a turbo- or supercharger',
  pressurised: 'a pressurised cabin',
  'single-lever': 'single-lever power',
  'high-power': 'more than 200 hp an engine',
  'very-powerful': '500 hp or more an engine',
  'blind-nose': 'a nose that hides the runway',
  land: 'a landing gear for land',
  water: 'floats or a hull',
  skis: 'skis',
};
