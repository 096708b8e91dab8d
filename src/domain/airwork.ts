/**
 * Words of airwork as captured in the aeroplane. Plain constants and types without a schema library: the cockpit shell
 * imports them.
 */

/** What a manoeuvre is judged by, each in its own unit. */
export const AIRWORK_QUANTITIES = ['height', 'speed', 'heading', 'bank', 'rollOut', 'levelOff', 'entryRate'] as const;
export type AirworkQuantity = (typeof AIRWORK_QUANTITIES)[number];
export const QUANTITY_NAME: Record<AirworkQuantity, string> = {
  height: 'height',
  speed: 'speed',
  heading: 'heading',
  bank: 'bank',
  rollOut: 'roll-out heading',
  levelOff: 'level-off height',
  entryRate: 'slowing at entry',
};

/** Manoeuvres with numbers in the standard. */
export const AIRWORK_KINDS = [
  'steep-turn',
  'slow-flight',
  'stall',
  'energy',
  'asymmetric',
  'emergency-descent',
] as const;
export type AirworkKind = (typeof AIRWORK_KINDS)[number];

/** How an item is captured; what a programme's item names, and what the cockpit offers beside it. */
export const CAPTURE_FORMS = [
  'plain',
  ...AIRWORK_KINDS,
  'power-table',
  'trial',
  'flow',
  'speeds',
  'exchange',
  'surprise',
  'handling',
] as const;
export type CaptureForm = (typeof CAPTURE_FORMS)[number];
export const FORM_NAME: Record<CaptureForm, string> = {
  plain: 'As seen',
  'steep-turn': 'Steep turn',
  'slow-flight': 'Slow flight',
  stall: 'Stall',
  energy: 'Performance manoeuvre',
  asymmetric: 'One engine',
  'emergency-descent': 'Emergency descent',
  'power-table': 'Power found',
  trial: 'Make-believe ground',
  flow: 'Systems order',
  speeds: 'Speeds from memory',
  exchange: 'Exchange of control',
  surprise: 'If it stops now',
  handling: 'Hands and feet',
};

/** Sides of a tolerance in the standard's unit, about the set value. */
export interface AirworkLimit {
  quantity: AirworkQuantity;
  low: number;
  high: number;
  unit: string;
  citation: string;
  /** Of which items of the row alone; absent = of every one that has none of its own. */
  of?: string[];
  /** The value it is about, where the row sets none. */
  about?: number;
}
export interface AirworkStandard {
  kind: AirworkKind;
  set: Partial<Record<AirworkQuantity, number>>;
  limits: AirworkLimit[];
}
/** The greatest deviation seen, *inside* when nothing left the tolerance, absent when nobody looked. */
export type SeenExtreme = number | 'inside';

export const STALLS = ['clean', 'landing', 'departure', 'turning', 'accelerated'] as const;
export type StallKind = (typeof STALLS)[number];
export const STALL_CUES = ['horn', 'buffet', 'mush', 'break', 'wing-drop'] as const;
export const STALL_RECOVERIES = [
  'unloaded-first',
  'power-first',
  'aileron-first',
  'rudder-first',
  'secondary-stall',
] as const;
export type StallRecovery = (typeof STALL_RECOVERIES)[number];
export const ENERGY_ITEMS = ['wing-over', 'climbing-reversal', 'barrel', 'loop', 'roll'] as const;
/** Exercises a sheet may give an entry for. */
export const MANOEUVRES = [...ENERGY_ITEMS, 'steep-turn', 'slow-flight', 'emergency-descent'] as const;
export type Manoeuvre = (typeof MANOEUVRES)[number];
export const ASYMMETRIC_ITEMS = [
  'control-speed',
  'failure-in-the-climb',
  'failure-in-the-cruise',
  'one-engine-circuit',
  'one-engine-go-around',
] as const;
export const FIRST_CUES = ['heading-moved', 'stall-warning', 'buffet'] as const;
export const CUE_RECOVERIES = ['at-first-cue', 'after-a-second-cue'] as const;
/**
 * What hands and feet did, where the programme asks: throttle opened over seconds, control moved to its stop, the
 * roll-out by the watch, a bubble of power, how a slip was left.
 */
export const ASKS = ['throttle', 'travel', 'roll-out', 'bubble', 'slip'] as const;
export type Ask = (typeof ASKS)[number];
export const TRAVELS = ['to-the-stop', 'short-of-the-stop'] as const;
export const BUBBLES = ['before-the-stop', 'at-the-stop', 'no-power'] as const;
export const SLIP_ENDS = ['by-the-gate', 'too-late', 'nose-dropped', 'nose-raised'] as const;
export const ARRESTED = ['full', 'part', 'none'] as const;
export const VERTICALS = ['level', 'climbing', 'descending'] as const;

/** Parts of a circuit at which the engine may be made to stop, in words. */
export const STOP_LEGS = ['upwind', 'crosswind', 'downwind', 'base', 'final'] as const;
export type StopLeg = (typeof STOP_LEGS)[number];

/** Controls an instructor helps on. */
/** What is looked at of a go-around as it is flown. */
export const GO_AROUND_ASPECTS = [
  'power',
  'attitude',
  'speed',
  'configurationOrder',
  'tracking',
  'secondContact',
] as const;
export const HELP_CONTROLS = ['rudder', 'stick', 'aileron', 'power', 'brakes', 'flap-or-gear'] as const;
export type HelpControl = (typeof HELP_CONTROLS)[number];
/** Where the landmark was when the wheels touched or the power came. */
export const LANDMARK_WORDS = ['down-before-it', 'passed-not-down'] as const;
/** Notes offered for one tap; each is a thing looked for, in the words it is debriefed with. */
export const LANDING_NOTES = [
  'high-round-out',
  'ballooned',
  'floated',
  'drifted-in-the-flare',
  'pushed-forward-early',
  'tail-kept-up-long',
  'brakes-used-to-steer',
  'feet-late-on-power',
  'flat-approach',
  'aim-point-crept-long',
  'speed-did-not-fall',
  'looked-inside',
  'late-flare',
  'skidded-final-turn',
  'ball-out-in-the-climb',
  'no-wind-controls-taxiing',
  'wrong-lever-after-landing',
  'pitched-up-in-go-around',
  'wheelbarrowed',
  'flared-by-eye-on-glassy',
  'porpoise-not-caught',
] as const;
export type LandingNote = (typeof LANDING_NOTES)[number];

/** Notes of some aeroplanes alone. */
const NOTE_OF: Partial<Record<LandingNote, 'tailwheel' | 'nosewheel' | 'water'>> = {
  'pushed-forward-early': 'tailwheel',
  'tail-kept-up-long': 'tailwheel',
  wheelbarrowed: 'nosewheel',
  'flared-by-eye-on-glassy': 'water',
  'porpoise-not-caught': 'water',
};
/** Notes that can be of this aeroplane. */
export const notesFor = (of: { tailwheel: boolean; water: boolean }): LandingNote[] =>
  LANDING_NOTES.filter((n) => {
    const only = NOTE_OF[n];
    return (
      only === undefined ||
      (only === 'tailwheel' && of.tailwheel) ||
      (only === 'nosewheel' && !of.tailwheel) ||
      (only === 'water' && of.water)
    );
  });
/** Which engine a pilot named as failed. */
export const IDENTIFIED = ['right', 'wrong'] as const;

/** Marks of the flight's clock, each a tap. */
export const TIMER_MARKS = ['off-block', 'take-off', 'landed', 'on-block', 'booking-ends'] as const;
export type TimerMark = (typeof TIMER_MARKS)[number];
