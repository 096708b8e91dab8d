import { z } from 'zod';
import {
  ARRESTED,
  ASYMMETRIC_ITEMS,
  AIRWORK_KINDS,
  BUBBLES,
  SLIP_ENDS,
  TRAVELS,
  AIRWORK_QUANTITIES,
  CUE_RECOVERIES,
  ENERGY_ITEMS,
  FIRST_CUES,
  GO_AROUND_ASPECTS,
  HELP_CONTROLS,
  IDENTIFIED,
  LANDING_NOTES,
  LANDMARK_WORDS,
  STALLS,
  STALL_CUES,
  STALL_RECOVERIES,
  STOP_LEGS,
  TIMER_MARKS,
  VERTICALS,
} from './airwork';
import { WORD_CRITERIA, WORD_CRITERION_IDS, type WordCriterion } from './criteria';
import { touchSeen } from './touch';
import { BOUNCE_HANDLING, CRITERION_VERDICTS, GO_AROUND_WORDS, LANDING_CLASSES, TRIGGER_WORDS } from './assess-words';
import {
  ALONG_BANDS,
  ANNOUNCED,
  CUT_SHORT,
  ATTITUDES,
  EVENT_TYPES,
  type EventType,
  GO_AROUND_FROM,
  GO_AROUND_WHY,
  LANDING_KINDS,
  LATERAL_BANDS,
  LIMIT_CHANNELS,
  MEANT,
  OWN_WORDS,
  REPEATED,
  SERIOUS,
  SIDED_BANDS,
  SWING_BANDS,
} from './words';

const Side = z.enum(['left', 'right']).nullable();
const Instant = z.iso.datetime({ offset: true });
const seen = <T extends z.ZodType>(schema: T) => schema.nullable();

/** Where a wind logged in flight came from. */
export const WIND_SOURCES = ['brief', 'station', 'tower', 'seen'] as const;
export type WindSource = (typeof WIND_SOURCES)[number];
export const LoggedWind = z.object({
  fromDegMag: z.number().min(0).max(360),
  kt: z.number().min(0).max(99),
  gustKt: z.number().min(0).max(150).nullable(),
  /** When it was observed; of a report that was confirmed, the report's own time. */
  at: Instant,
  /** Absent = not said, as in what was recorded before it was asked. */
  source: z.enum(WIND_SOURCES).optional(),
});
export type LoggedWind = z.infer<typeof LoggedWind>;

type OneWord<W extends readonly string[]> = z.ZodDefault<z.ZodNullable<z.ZodEnum<{ [K in W[number]]: K }>>>;
/** A criterion that did not exist when a landing was recorded was not seen. */
const Words = Object.fromEntries(
  WORD_CRITERION_IDS.map((id) => [id, seen(z.enum(WORD_CRITERIA[id].words)).default(null)]),
  // Each key keeps its own words, which a list of entries cannot say.
) as unknown as { [K in WordCriterion]: OneWord<(typeof WORD_CRITERIA)[K]['words']> };

/** One landing as captured by eye. Null everywhere means *not seen*: nothing is assumed. */
export const CapturedLanding = z.object({
  kind: z.enum(LANDING_KINDS),
  demonstration: z.boolean(),
  /** Only what can be meant; a flat touch happens. */
  intended: seen(z.enum(MEANT)),
  touched: seen(z.enum(ATTITUDES)),
  along: seen(z.enum(ALONG_BANDS)),
  lateral: seen(z.enum(LATERAL_BANDS)),
  /** Read off the dial over the threshold, in the dial's unit. */
  fenceSpeed: seen(z.number().min(10).max(400)),
  drift: seen(z.object({ band: z.enum(SIDED_BANDS), side: Side })),
  crab: seen(z.object({ band: z.enum(SIDED_BANDS), side: Side })),
  swing: seen(z.object({ band: z.enum(SWING_BANDS), side: Side })),
  bounce: seen(z.object({ count: z.number().int().min(0).max(9), handling: z.enum(BOUNCE_HANDLING).nullable() })),
  ...Words,
  intervention: seen(z.number().int().min(0).max(3)),
  trigger: seen(z.enum(TRIGGER_WORDS)),
  /** Set by the clean tap: what had been tapped when it was offered. */
  cleanTap: seen(z.enum(['stopped', 'climbing-away'])),
  goAroundWord: seen(z.enum(GO_AROUND_WORDS)),
  goAroundExecution: z.partialRecord(z.enum(GO_AROUND_ASPECTS), z.enum(CRITERION_VERDICTS)),
  wind: seen(LoggedWind),
  /** When the aeroplane had stopped or was climbing away, and so how old the memory was at saving. */
  endedAt: seen(Instant),
  runwayEnd: z.string().max(8),
  // Added later: absent in what was recorded before, and understood as *not seen*.
  /** Read at the gates before the fence, in the dial's unit. */
  gateSpeeds: z.record(z.string().max(40), z.number().min(10).max(400)).default({}),
  /** Greatest load off the recording accelerometer. */
  peakG: seen(z.number().min(0.5).max(9)).default(null),
  /** What the instructor helped on. */
  helpedOn: z.array(z.enum(HELP_CONTROLS)).max(6).default([]),
  landmark: seen(z.enum(LANDMARK_WORDS)).default(null),
  notes: z.array(z.enum(LANDING_NOTES)).max(12).default([]),
  note: z.string().max(500).default(''),
  fromPaper: z.boolean().default(false),
  /** Who flew it when two pilots share the flight; null = the pilot of this checkout. */
  pilotId: z.string().max(64).nullable().default(null),
  /** Short of the threshold, a wheel off the surface, a sink to be inspected for: outside whatever else was seen. */
  serious: z.array(z.enum(SERIOUS)).max(3).default([]),
  /** Of a go-around: where it began, why, and what was announced so that it could be decided. */
  goAroundFrom: seen(z.enum(GO_AROUND_FROM)).default(null),
  goAroundWhy: seen(z.enum(GO_AROUND_WHY)).default(null),
  announced: seen(z.enum(ANNOUNCED)).default(null),
  /** Where the programme asks: the control moved to its stop, seconds of the roll-out, a bubble of power. */
  travel: seen(z.enum(TRAVELS)).default(null),
  rollOutS: seen(z.number().min(1).max(120)).default(null),
  bubble: seen(z.enum(BUBBLES)).default(null),
  /** Of an amphibian: the wheels were said again on final; entered once stopped, and it makes no *agree* of a *stop*. */
  wheelsRepeated: seen(z.enum(REPEATED)).default(null),
  /** The pilot's own word of it, asked before anybody else's. */
  ownWord: seen(z.enum(OWN_WORDS)).default(null),
  /** The one cue given before it. */
  cue: z.string().max(80).default(''),
  /** The landing taken back that this one stands for: it keeps its number and its place in the flight. */
  replaces: z.string().max(64).nullable().default(null),
});
export type CapturedLanding = z.infer<typeof CapturedLanding>;

const Quantity = z.enum(AIRWORK_QUANTITIES);
const SeenExtremes = z.partialRecord(Quantity, z.union([z.number().min(-20000).max(20000), z.literal('inside')]));
const Box = z.object({
  heightFt: z.number().min(-1000).max(30000).nullable(),
  speed: z.number().min(0).max(500).nullable(),
  headingDeg: z.number().min(0).max(360).nullable(),
});
const Steps = z.object({
  list: z.string().max(60),
  steps: z.array(z.string().max(120)).max(40),
  /** Which step, in the order said or done. */
  ticks: z.array(z.number().int().min(0).max(39)).max(60),
});

/** What was seen of one item, by the form it was captured with. */
export const AirworkDetail = z.discriminatedUnion('form', [
  z.object({
    form: z.literal('numbers'),
    kind: z.enum(AIRWORK_KINDS),
    set: z.partialRecord(Quantity, z.number()),
    seen: SeenExtremes,
  }),
  z.object({
    form: z.literal('stall'),
    stall: z.enum(STALLS),
    lookOut: z.boolean().nullable(),
    cue: z.enum(STALL_CUES).nullable(),
    cueSpeed: z.number().min(0).max(400).nullable(),
    recovery: z.enum(STALL_RECOVERIES).nullable(),
    heightLostFt: z.number().min(0).max(10000).nullable(),
    seen: SeenExtremes,
  }),
  z.object({ form: z.literal('energy'), item: z.enum(ENERGY_ITEMS), reciprocal: z.boolean(), entry: Box, exit: Box }),
  z.object({
    form: z.literal('asymmetric'),
    item: z.enum(ASYMMETRIC_ITEMS),
    heightFt: z.number().min(0).max(30000).nullable(),
    saidSimulated: z.boolean().nullable(),
    firstCue: z.enum(FIRST_CUES).nullable(),
    recovery: z.enum(CUE_RECOVERIES).nullable(),
    /** The engine the pilot named; absent = nobody asked. */
    identified: z.enum(IDENTIFIED).nullable().optional(),
    set: z.partialRecord(Quantity, z.number()),
    seen: SeenExtremes,
  }),
  Steps.extend({ form: z.literal('steps'), kind: z.enum(['flow', 'speeds']) }),
  Steps.extend({ form: z.literal('exchange'), feetClear: z.boolean().nullable() }),
  z.object({
    form: z.literal('surprise'),
    leg: z.enum(STOP_LEGS),
    heightFt: z.number(),
    answer: z.string().max(16),
    model: z.string().max(16),
    verdict: z.enum(['reaches', 'doubtful', 'no']),
    marginFt: z.number().nullable(),
  }),
  z.object({
    form: z.literal('handling'),
    throttleS: z.number().min(0.5).max(30).nullable(),
    travel: z.enum(TRAVELS).nullable(),
    bubble: z.enum(BUBBLES).nullable(),
    slipLeft: z.enum(SLIP_ENDS).nullable(),
  }),
]);
export type AirworkDetail = z.infer<typeof AirworkDetail>;

export const ItemObserved = z.object({
  itemId: z.string().min(1).max(40),
  verdict: z.enum(['within', 'edge', 'outside']),
  intervention: z.number().int().min(0).max(3),
  note: z.string().max(500),
  detail: AirworkDetail.nullable().default(null),
  pilotId: z.string().max(64).nullable().default(null),
  /** Minutes spent on it, where the item counts time. */
  minutes: z
    .number('Give whole minutes, 1 to 720.')
    .int('Give whole minutes, 1 to 720.')
    .min(1, 'Give whole minutes, 1 to 720.')
    .max(720, 'Give whole minutes, 1 to 720.')
    .nullish(),
});
/** A power setting and what it gave: a row of the table as found, not yet on any sheet. */
export const PowerFound = z.object({
  phase: z.string().trim().min(1).max(60),
  setting: z.string().trim().min(1).max(60),
  speed: z.number().min(10).max(400),
  vertical: z.enum(VERTICALS),
});
export type PowerFound = z.infer<typeof PowerFound>;
/** One approach to a make-believe ground at height. */
export const TrialFlown = z.object({
  flapDeg: z.number().min(0).max(90),
  power: z.string().max(60),
  idle: z.boolean(),
  speed: z.number().min(10).max(400),
  sinkFpm: z.number().min(0).max(4000).nullable(),
  groundFt: z.number().min(0).max(20000),
  arrested: z.enum(ARRESTED),
  elevatorAtStop: z.boolean().nullable(),
  heightErrorFt: z.number().min(-2000).max(2000).nullable(),
});
export type TrialFlown = z.infer<typeof TrialFlown>;
export const TimerMarked = z.object({ mark: z.enum(TIMER_MARKS), at: Instant });
/**
 * What an instructor has taken over from a trace for one landing or one item; the newest of a subject stands, an empty
 * one takes it back. Values in the standard's terms: speed about its target in knots, place along past the touchdown point
 * and across in metres, sink in feet a minute, angles in degrees, right positive.
 */
export const Measured = z.object({
  traceId: z.string().min(1).max(64),
  atS: z.number().min(0),
  values: z.record(z.string().max(16), z.number()),
  item: z
    .object({ verdict: z.enum(['within', 'edge', 'outside']), detail: AirworkDetail })
    .nullable()
    .default(null),
});
/**
 * An instructor's word over a computed verdict; the newest of a subject and criterion stands, `to` null takes it back.
 * `what` is a criterion, `class` for the whole landing, `item` for airwork.
 */
const Why = z.string().trim().min(8, 'Say why, in a few words.').max(300, 'At most 300 characters.');
export const Overruling = z.union([
  z.object({ what: z.literal('class'), to: z.enum(LANDING_CLASSES).nullable(), reason: Why }),
  z.object({ what: z.literal('item'), to: z.enum(['within', 'edge', 'outside']).nullable(), reason: Why }),
  z.object({
    what: z.string().regex(/^(?!class$|item$)[a-zA-Z]{1,24}$/),
    to: z.enum(CRITERION_VERDICTS).nullable(),
    reason: Why,
  }),
]);
export type Overruling = z.infer<typeof Overruling>;
export type Measured = z.infer<typeof Measured>;
/** Null = it was not, after all. */
export const CutShortForm = z.object({ reason: z.enum(CUT_SHORT, 'Choose what ended it.').nullable() });
const Line = z.string().trim().min(3, 'A few words, or “nothing”.').max(160, 'At most 160 characters: one line.');
/** Three lines from who flew a lesson to who goes on. */
export const HandedOver = z.object({ done: Line, next: Line, watch: Line });
export type HandedOver = z.infer<typeof HandedOver>;
export const LimitExceeded = z.object({ channel: z.enum(LIMIT_CHANNELS) });
export type LimitExceeded = z.infer<typeof LimitExceeded>;
export type TimerMarked = z.infer<typeof TimerMarked>;
export type ItemObserved = z.infer<typeof ItemObserved>;

const Word = z.string().max(24);
/**
 * Wheels against surface, as said and seen; the decision is the device's, from the same core function, kept as
 * evidence.
 */
export const GearChecked = z.object({
  surface: z.enum(['water', 'land']).nullable(),
  lamps: z.record(Word, Word.nullable()),
  seen: z.record(Word, z.enum(['up', 'down']).nullable()),
  spoken: Word.nullable(),
  onFinal: z.boolean(),
  decision: z.enum(['agree', 'stop']),
  reasons: z.array(z.string().max(40)).max(30),
});
export type GearChecked = z.infer<typeof GearChecked>;

const Envelope = z.object({
  eventId: z.uuid(),
  deviceId: z.uuid(),
  deviceSeq: z.number().int().min(1).max(1_000_000_000),
  sortieId: z.string().min(1).max(64),
  /** The landing or item the event is about. */
  subjectId: z.string().min(1).max(64),
  author: z.string().min(1).max(64),
  type: z.enum(EVENT_TYPES),
  v: z.number().int().min(1).max(1000),
  deviceTime: Instant,
  payload: z.unknown(),
  /**
   * How far this device's clock stood behind the field's when the event came in, as the field measured it; null where
   * it was not.
   */
  skewMs: z.number().int().nullable().optional(),
});
export type CaptureEvent = z.infer<typeof Envelope>;
export const CaptureEventSchema = Envelope;

const Landed = CapturedLanding.refine((l) => l.kind !== 'low-pass' || !touchSeen(l), {
  path: ['kind'],
  message: 'A low pass does not touch. Record it as a full stop or a touch and go, or clear where it touched.',
});

/** Payloads of each event type by version. A shipped version is accepted for ever. */
export const PAYLOADS = {
  'field-set': { 1: z.object({ field: z.string().max(40), value: z.unknown() }) },
  'landing-saved': { 1: Landed },
  corrected: { 1: Landed },
  undone: { 1: z.object({}) },
  'wind-logged': { 1: LoggedWind },
  'item-observed': { 1: ItemObserved },
  'gear-checked': { 1: GearChecked },
  'gear-event': { 1: z.object({ kind: z.enum(['lever-moved', 'surface-changed']) }) },
  'power-found': { 1: PowerFound },
  'trial-flown': { 1: TrialFlown },
  'timer-marked': { 1: TimerMarked },
  'runway-set': { 1: z.object({ runwayEnd: z.string().min(1).max(8) }) },
  'pilot-swapped': { 1: z.object({ pilotId: z.string().min(1).max(64) }) },
  measured: { 1: Measured },
  overruled: { 1: Overruling },
  /** Why it was flown past a stop; asked once, on the ground. It makes no evidence of it. */
  'stop-explained': { 1: z.object({ reason: Why }) },
  /** A limit of the school set aside for one flight, by whom its rule names. Never one of the flight manual. */
  'limit-overridden': { 1: z.object({ limit: z.literal('house'), reason: Why }) },
  /** A limit of the aeroplane passed, seen by eye: it grounds as a recorded one does. */
  'limit-exceeded': { 1: LimitExceeded },
  'cut-short': { 1: CutShortForm },
  'handed-over': { 1: HandedOver },
  'item-waived': {
    1: z.object({
      itemId: z.string().min(1).max(20),
      reason: z
        .string()
        .trim()
        .min(8, 'Give the handbook page or paragraph that advises against it.')
        .max(500, 'At most 500 characters.'),
    }),
  },
} as const satisfies Record<EventType, Record<number, z.ZodType>>;
/** The payload of an event as it is kept: the newest version. */
export type EventPayload<T extends EventType> = z.infer<(typeof PAYLOADS)[T][1]>;
/** The schema of a type and version; null = of a later release than this. */
export const payloadSchema = (type: EventType, v: number): z.ZodType | null =>
  (PAYLOADS[type] as Record<number, z.ZodType>)[v] ?? null;

/** What a device sends: each event is read by itself, so that one bad one keeps no other back. */
export const SyncBody = z.object({
  events: z.array(z.unknown()),
  /** The device’s clock as it sends; earlier releases say nothing of it. */
  sentAt: z.string().optional().catch(undefined),
});

const AtADesk = { requestId: z.uuid(), sortieId: z.string().min(1), subjectId: z.string().min(1) };
export const TimeAtDesk = z.object({ ...AtADesk, type: z.literal('item-observed'), payload: ItemObserved });
export const WaiverAtDesk = z.object({
  ...AtADesk,
  type: z.literal('item-waived'),
  payload: PAYLOADS['item-waived'][1],
});
export const StopExplainedAtDesk = z.object({
  ...AtADesk,
  type: z.literal('stop-explained'),
  payload: PAYLOADS['stop-explained'][1],
});
export const LimitAtDesk = z.object({
  ...AtADesk,
  type: z.literal('limit-overridden'),
  payload: PAYLOADS['limit-overridden'][1],
});
export const CutShortAtDesk = z.object({ ...AtADesk, type: z.literal('cut-short'), payload: CutShortForm });
export const HandedOverAtDesk = z.object({ ...AtADesk, type: z.literal('handed-over'), payload: HandedOver });
/** Something said of a flight at a desk; a request that is sent twice is one event. */
export const DeskEventForm = z.discriminatedUnion('type', [
  TimeAtDesk,
  WaiverAtDesk,
  StopExplainedAtDesk,
  LimitAtDesk,
  CutShortAtDesk,
  HandedOverAtDesk,
]);
