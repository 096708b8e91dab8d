import { z } from 'zod';
import { BOUNCE_HANDLING, CRITERION_VERDICTS, GO_AROUND_WORDS, TRIGGER_WORDS } from './assess-words';
import { ALONG_BANDS, ATTITUDES, CONFIGURATION_WORDS, EVENT_TYPES, FIRMNESS_WORDS, KEPT_WORDS, LANDING_KINDS, LATERAL_BANDS, SIDED_BANDS, SWING_BANDS } from './words';

const Side = z.enum(['left', 'right']).nullable();
const Instant = z.iso.datetime({ offset: true });
const seen = <T extends z.ZodType>(schema: T) => schema.nullable();

export const LoggedWind = z.object({ fromDegMag: z.number().min(0).max(360), kt: z.number().min(0).max(99), gustKt: z.number().min(0).max(150).nullable(), at: Instant });
export type LoggedWind = z.infer<typeof LoggedWind>;

/** One landing as captured by eye. Null everywhere means *not seen*: nothing is assumed. */
export const CapturedLanding = z.object({
  kind: z.enum(LANDING_KINDS),
  demonstration: z.boolean(),
  intended: seen(z.enum(ATTITUDES)),
  touched: seen(z.enum(ATTITUDES)),
  along: seen(z.enum(ALONG_BANDS)),
  lateral: seen(z.enum(LATERAL_BANDS)),
  /** Read off the dial over the threshold, in the dial's unit. */
  fenceSpeed: seen(z.number().min(10).max(400)),
  drift: seen(z.object({ band: z.enum(SIDED_BANDS), side: Side })),
  crab: seen(z.object({ band: z.enum(SIDED_BANDS), side: Side })),
  swing: seen(z.object({ band: z.enum(SWING_BANDS), side: Side })),
  bounce: seen(z.object({ count: z.number().int().min(0).max(9), handling: z.enum(BOUNCE_HANDLING).nullable() })),
  aileron: seen(z.enum(KEPT_WORDS)),
  stick: seen(z.enum(KEPT_WORDS)),
  configuration: seen(z.enum(CONFIGURATION_WORDS)),
  firmness: seen(z.enum(FIRMNESS_WORDS)),
  intervention: seen(z.number().int().min(0).max(3)),
  trigger: seen(z.enum(TRIGGER_WORDS)),
  /** Set by the clean tap: what had been tapped when it was offered. */
  cleanTap: seen(z.enum(['stopped', 'climbing-away'])),
  goAroundWord: seen(z.enum(GO_AROUND_WORDS)),
  goAroundExecution: z.partialRecord(z.enum(['power', 'attitude', 'speed', 'configurationOrder', 'tracking', 'secondContact']), z.enum(CRITERION_VERDICTS)),
  wind: seen(LoggedWind),
  /** When the aeroplane had stopped or was climbing away, and so how old the memory was at saving. */
  endedAt: seen(Instant),
  runwayEnd: z.string().max(8),
});
export type CapturedLanding = z.infer<typeof CapturedLanding>;

export const ItemObserved = z.object({ itemId: z.string().min(1).max(20), verdict: z.enum(['within', 'edge', 'outside']), intervention: z.number().int().min(0).max(3), note: z.string().max(500) });
export type ItemObserved = z.infer<typeof ItemObserved>;

const Word = z.string().max(24);
/** Wheels against surface, as said and seen; the decision is the device's, from the same core function, kept as evidence. */
export const GearChecked = z.object({
  surface: z.enum(['water', 'land']).nullable(), lamps: z.record(Word, Word.nullable()), seen: z.record(Word, z.enum(['up', 'down']).nullable()), spoken: Word.nullable(), onFinal: z.boolean(),
  decision: z.enum(['agree', 'stop']), reasons: z.array(z.string().max(40)).max(30),
});
export type GearChecked = z.infer<typeof GearChecked>;

const Envelope = z.object({
  eventId: z.uuid(),
  deviceId: z.uuid(),
  deviceSeq: z.number().int().min(1),
  sortieId: z.string().min(1).max(64),
  /** The landing or item the event is about. */
  subjectId: z.string().min(1).max(64),
  author: z.string().min(1).max(64),
  type: z.enum(EVENT_TYPES),
  v: z.number().int().min(1),
  deviceTime: Instant,
  payload: z.unknown(),
});
export type CaptureEvent = z.infer<typeof Envelope>;
export const CaptureEventSchema = Envelope;

/** Payload of each event type, version 1. A shipped version is accepted for ever. */
export const PAYLOADS = {
  'field-set': z.object({ field: z.string().max(40), value: z.unknown() }),
  'landing-saved': CapturedLanding,
  corrected: CapturedLanding,
  undone: z.object({}),
  'wind-logged': LoggedWind,
  'item-observed': ItemObserved,
  'gear-checked': GearChecked,
  'gear-event': z.object({ kind: z.enum(['lever-moved', 'surface-changed']) }),
  'item-waived': z.object({ itemId: z.string().min(1).max(20), reason: z.string().min(8).max(500) }),
} as const;
