/** The vocabulary as plain constants and types. No schema library here: the cockpit shell imports this file. */

import { WORD_CRITERION_NAMES } from './criteria';
export const ROLES = ['pilot', 'instructor', 'chief'] as const;
export type Role = (typeof ROLES)[number];

export const STAGES = ['open', 'brief', 'fly', 'debrief', 'sign'] as const;
export type Stage = (typeof STAGES)[number];

export const GOALS = [
  'tailwheel',
  'complex',
  'high-performance',
  'multi-engine',
  'sea',
  'multi-engine-sea',
  'variant',
  'pressurised',
  'ski',
  'flight-review',
  'new-type',
  'interval-check',
  'aerobatic-landing',
  'powerful-type',
  'short-field',
] as const;
export type Goal = (typeof GOALS)[number];

export const PACKS = ['us', 'eu', 'au'] as const;
export type PackId = (typeof PACKS)[number];
/** Whose law a pack is. */
export const PACK_NAME: Record<PackId, string> = { us: 'United States', eu: 'Europe', au: 'Australia' };

/** Open; an examiner has still to decide; signed in the ledger. */
export const CHECKOUT_STATUS = ['open', 'recommended', 'signed'] as const;
export type CheckoutStatus = (typeof CHECKOUT_STATUS)[number];

/** *sample*: a number put in place of one that nobody has confirmed yet; nothing is briefed with it. */
export const SOURCES = ['handbook', 'placard', 'house', 'instructor', 'measured', 'sample'] as const;
export type SourceKind = (typeof SOURCES)[number];

export const LANDING_KINDS = ['full-stop', 'touch-and-go', 'go-around', 'low-pass'] as const;
export type LandingKind = (typeof LANDING_KINDS)[number];

export const ATTITUDES = ['three-point', 'mains-first', 'tail-first', 'flat', 'nose-first'] as const;
export type Attitude = (typeof ATTITUDES)[number];
/** What a landing can be meant to be; the others happen. */
export const MEANT = ['three-point', 'mains-first'] as const;
export type Meant = (typeof MEANT)[number];
/** What was meant, or null where nothing was noted or the word is none that can be meant. */
export const meant = (word: string | null | undefined): Meant | null => MEANT.find((m) => m === word) ?? null;

/** Why a flight ended before its lesson did. */
export const CUT_SHORT = ['weather', 'aeroplane', 'pilot', 'instructor', 'time', 'aerodrome'] as const;
export type CutShort = (typeof CUT_SHORT)[number];
export const CUT_SHORT_WORDS: Record<CutShort, string> = {
  weather: 'weather',
  aeroplane: 'the aeroplane',
  pilot: 'the pilot had enough',
  instructor: 'the instructor had to stop',
  time: 'time ran out',
  aerodrome: 'aerodrome or traffic',
};

/** The check of the wheels on final is spoken: whether it was is entered once stopped. */
export const REPEATED = ['said', 'not-said'] as const;
/** The pilot's own word of a landing just flown. */
export const OWN_WORDS = ['as-meant', 'not-as-meant', 'not-sure'] as const;
export type OwnWord = (typeof OWN_WORDS)[number];

/** Recorded in one tap, and outside whatever else was seen. */
export const SERIOUS = ['short-of-threshold', 'off-surface', 'inspection-sink'] as const;
export type Serious = (typeof SERIOUS)[number];
/** Where a go-around began, why, and what an instructor may announce so that an approach that is good can be left. */
export const GO_AROUND_FROM = ['approach', 'flare', 'bounce'] as const;
export type GoAroundFrom = (typeof GO_AROUND_FROM)[number];
export const GO_AROUND_WHY = [
  'too-fast-or-slow',
  'too-high-or-low',
  'off-the-line',
  'flap-or-gear',
  'bounce-or-porpoise',
  'wind',
  'runway',
  'practice',
] as const;
export type GoAroundWhy = (typeof GO_AROUND_WHY)[number];
export const ANNOUNCED = ['runway-blocked', 'animal', 'no-clearance'] as const;
export type Announced = (typeof ANNOUNCED)[number];

/** Attitudes of which a sheet may hold the picture over the nose. */
export const SIGHT_ATTITUDES = ['level', 'climb', 'glide', 'slip', 'three-point', 'wheel'] as const;
export type SightAttitude = (typeof SIGHT_ATTITUDES)[number];

/** Phases of flight in the order they are flown, by which habits are grouped. */
export const PHASES = ['before', 'ground', 'take-off', 'airwork', 'circuit', 'approach', 'landing'] as const;
export type Phase = (typeof PHASES)[number];

export const ALONG_BANDS = ['short', 'in-the-box', 'long', 'very-long'] as const;
export type AlongBand = (typeof ALONG_BANDS)[number];

export const LATERAL_BANDS = ['beyond-left', 'wheel-left', 'line', 'wheel-right', 'beyond-right'] as const;
export type LateralBand = (typeof LATERAL_BANDS)[number];

export const SIDED_BANDS = ['none', 'slight', 'marked'] as const;
export const SWING_BANDS = ['none', 'small', 'late-correction', 'large'] as const;

export const EVENT_TYPES = [
  'field-set',
  'landing-saved',
  'corrected',
  'undone',
  'wind-logged',
  'item-observed',
  'item-waived',
  'gear-checked',
  'gear-event',
  'power-found',
  'trial-flown',
  'timer-marked',
  'runway-set',
  'pilot-swapped',
  'measured',
  'overruled',
  'stop-explained',
  'limit-overridden',
  'limit-exceeded',
  'cut-short',
  'handed-over',
] as const;
export type EventType = (typeof EVENT_TYPES)[number];

/** Limits a trace can be held against. */
export const LIMIT_CHANNELS = ['vne', 'vfe', 'gear', 'g+', 'g-', 'map', 'rpm', 'cht'] as const;
export type LimitChannel = (typeof LIMIT_CHANNELS)[number];
export const LIMIT_NAME: Record<LimitChannel, string> = {
  vne: 'Vne',
  vfe: 'flap limit',
  gear: 'gear limit',
  'g+': 'load factor',
  'g-': 'negative load factor',
  map: 'manifold pressure',
  rpm: 'engine speed',
  cht: 'cylinder temperature',
};

/** What is said on screen for each word; one place, so that a phrase stands once. */
export const SAY: Record<string, string> = {
  tailwheel: 'tailwheel',
  complex: 'complex',
  'high-performance': 'high performance',
  'multi-engine': 'multi-engine',
  sea: 'sea',
  variant: 'differences, variant',
  pressurised: 'pressurised, high altitude',
  ski: 'ski landing gear',
  'flight-review': 'flight review, refresher',
  'new-type': 'new type',
  'interval-check': 'recurrent check',
  'aerobatic-landing': 'aerobatic type, landings only',
  'powerful-type': 'very powerful type',
  'short-field': 'short field',
  'single-engine-aeroplane': 'single-engine aeroplane',
  'multi-engine-aeroplane': 'multi-engine aeroplane',
  'AU-tailwheel': 'tailwheel undercarriage',
  'AU-retractable': 'retractable undercarriage',
  'AU-propeller': 'manual propeller pitch control',
  'AU-floatplane': 'floatplane',
  'AU-hull': 'floating hull',
  'AU-pressurisation': 'pressurisation',
  'AU-ski': 'ski landing gear',
  'instrument-rating': 'instrument rating',
  'instructor-single-engine': 'instructor rating, single-engine',
  'instructor-multi-engine': 'instructor rating, multi-engine',
  'EU-assessed': 'assessment of competence to instruct (FCL.915(b)(2))',
  FI: 'flight instructor (FI)',
  'FI-restricted': 'flight instructor, restricted (FI)',
  'CRI-SE': 'class-rating instructor, single-engine',
  'CRI-ME': 'class-rating instructor, multi-engine',
  'AU-train-features': 'training endorsement, design features',
  'AU-train-multi-engine': 'training endorsement, multi-engine',
  'AU-train-type': 'instructor rating, aeroplane',
  met: 'met',
  nearly: 'nearly',
  credited: 'credited',
  waived: 'waived',
  overridden: 'overridden',
  'sign-off': 'sign-off',
  recommendation: 'recommendation',
  'part-sign-off': 'part sign-off',
  'test-result': 'test result',
  'not-yet': 'further training',
  void: 'void',
  correction: 'correction',
  'key-rotated': 'new key',
  'full-stop': 'full stop',
  'touch-and-go': 'touch and go',
  'go-around': 'go-around',
  'low-pass': 'low pass',
  'three-point': 'three-point',
  'mains-first': 'wheel',
  'tail-first': 'tail first',
  flat: 'flat',
  'nose-first': 'nose first',
  'short-of-threshold': 'short of the threshold',
  'off-surface': 'a wheel off the surface',
  'inspection-sink': 'hard: inspect it',
  animal: 'animal on the runway',
  'no-clearance': 'no clearance to land',
  short: 'short',
  'in-the-box': 'in the box',
  long: 'long',
  'very-long': 'very long',
  'beyond-left': 'beyond a track width left',
  'wheel-left': 'a wheel off left',
  line: 'on the line',
  'wheel-right': 'a wheel off right',
  'beyond-right': 'beyond a track width right',
  'on-the-line': 'on the line',
  'a-wheel-off': 'a wheel off',
  'beyond-a-track-width': 'beyond a track width',
  none: 'none',
  slight: 'slight',
  marked: 'marked',
  small: 'small',
  'late-correction': 'late correction',
  large: 'large',
  kept: 'kept',
  'released-early': 'released early',
  not: 'not held',
  right: 'right',
  late: 'late',
  wrong: 'wrong',
  soft: 'soft',
  normal: 'normal',
  firm: 'firm',
  hard: 'hard',
  on: 'on speed',
  fast: 'fast',
  slow: 'slow',
  held: 'held',
  power: 'power',
  pushed: 'pushed',
  'went-around': 'went around',
  'not-met': 'not met',
  'met-and-left': 'met, went around',
  'met-and-continued': 'met and continued',
  'continued-on-instructors-word': 'continued on my word',
  ground: 'on the ground',
  'take-off': 'take-off and climb',
  airwork: 'airwork',
  circuit: 'circuit',
  approach: 'approach',
  landing: 'landing and roll-out',
  before: 'before the trigger',
  at: 'at the trigger',
  'told-for-safety': 'told, for safety',
  exercise: 'exercise',
  traffic: 'traffic',
  within: 'within',
  edge: 'edge',
  outside: 'outside',
  'not-seen': 'not seen',
  own: 'unassisted',
  'own-off-target': 'unassisted, off target',
  prompted: 'prompted',
  assisted: 'assisted',
  'not-judged': 'not judged',
  demonstration: 'demonstration',
  sound: 'sound decision',
  told: 'told to go',
  neutral: 'neutral',
  good: 'good',
  handbook: 'handbook',
  placard: 'placard',
  house: 'school',
  instructor: 'instructor',
  measured: 'measured',
  said: 'said aloud',
  'not-said': 'not said',
  'as-meant': 'as meant',
  'not-as-meant': 'not as meant',
  'not-sure': 'not sure',
  'to-the-stop': 'to the stop',
  'short-of-the-stop': 'short of the stop',
  'before-the-stop': 'before the stop',
  'at-the-stop': 'only at the stop',
  'no-power': 'not used',
  'by-the-gate': 'by the gate',
  'too-late': 'too late',
  'nose-dropped': 'with the nose dropped',
  'nose-raised': 'with the nose raised',
  'unloaded-first': 'unloaded first',
  'power-first': 'power first',
  'aileron-first': 'aileron first',
  'rudder-first': 'rudder first',
  'secondary-stall': 'stalled again',
  'wing-over': 'wing-over',
  barrel: 'barrel roll',
  'control-speed': 'loss-of-control speed',
  'one-engine-circuit': 'one-engine circuit',
  'one-engine-go-around': 'one-engine go-around',
  full: 'fully',
  part: 'partly',
  'down-before-it': 'down before it',
  'passed-not-down': 'passed, not down',
  'single-engine-land': 'single-engine land',
  'single-engine-sea': 'single-engine sea',
  'multi-engine-land': 'multi-engine land',
  'multi-engine-sea': 'multi-engine sea',
  TW: 'tail wheel (TW)',
  RU: 'retractable undercarriage (RU)',
  VP: 'variable-pitch propeller (VP)',
  T: 'turbocharged (T)',
  P: 'pressurised (P)',
  EFIS: 'glass cockpit (EFIS)',
  SLPC: 'single-lever power (SLPC)',
  'MEP-variant': 'multi-engine variant',
  drift: 'drift',
  crab: 'crab',
  swing: 'swing in the roll-out',
  bounce: 'bounce',
  ...WORD_CRITERION_NAMES,
  attitude: 'attitude',
  lateral: 'place across',
  along: 'place along',
  speed: 'speed at the threshold',
  configurationOrder: 'configuration order',
  tracking: 'tracking',
  secondContact: 'no second contact',
  limitation: 'flight-manual limitation',
  demonstrated: 'demonstrated, not a limitation',
  airframe: 'this airframe',
  pilotStep: 'personal crosswind limit',
  vs0Floor: '0.2 Vs0, historic floor',
};
/** A kind may name its type after a colon: a twin variant is held each alone. */
export function say(word: string): string {
  const [kind, of] = word.split(':');
  if (kind !== undefined && of !== undefined)
    return `${say(kind)} ${of.replaceAll('-', ' ').replace(/\b\w/g, (c) => c.toUpperCase())}`;
  return SAY[word] ?? word.replaceAll('-', ' ');
}

/** Words that follow the rule pack: US terms, or the terms used elsewhere. */
export function packWords(pack: PackId): { circuit: string; Circuit: string; gear: string; endorsement: string } {
  return pack === 'us'
    ? { circuit: 'traffic pattern', Circuit: 'Traffic pattern', gear: 'landing gear', endorsement: 'endorsement' }
    : { circuit: 'circuit', Circuit: 'Circuit', gear: 'undercarriage', endorsement: 'differences training' };
}

/** A pilot's intervention levels, as asked at capture. */
export const INTERVENTIONS = [
  { level: 0, word: 'unassisted', hint: 'nothing said, nothing touched' },
  { level: 1, word: 'prompted', hint: 'voice only' },
  { level: 2, word: 'assisted', hint: 'hands or feet' },
  { level: 3, word: 'instructor took over', hint: 'control exchanged' },
] as const;
