import { z } from 'zod';
import type { Goal } from './words';

/** Kinds of entries in the book. Only a sign-off, a recommendation, a part and a result may be voided. */
export const ENTRY_KINDS = [
  'sign-off',
  'recommendation',
  'part-sign-off',
  'test-result',
  'not-yet',
  'void',
  'correction',
  'key-rotated',
] as const;
export type EntryKind = (typeof ENTRY_KINDS)[number];
export const VOIDABLE: readonly string[] = ['sign-off', 'recommendation', 'part-sign-off', 'test-result', 'not-yet'];

export const Limitations = z.object({
  alone: z.boolean(),
  noPassengers: z.boolean(),
  crosswindKt: z.number('Give whole knots, or leave it empty.').min(0).max(60, 'At most 60 kt.').nullable(),
  attitude: z.enum(['any', 'three-point', 'mains-first']),
  surface: z.enum(['any', 'asphalt', 'grass', 'water']),
  untilHours: z.number('Give hours, or leave it empty.').min(0).max(500, 'At most 500 h.').nullable(),
});
export type Limitations = z.infer<typeof Limitations>;

/** A drawn signature: a small PNG as the pad gives it. */
export const DrawnSignature = z
  .string()
  .max(80_000, 'The drawn signature is too large: draw it again, more simply.')
  .regex(
    /^data:image\/png;base64,iVBORw0KGgo[A-Za-z0-9+/]+={0,2}$/,
    'The drawn signature is not a PNG: draw it again.',
  );

/**
 * What stands in an entry. Fields added later are absent in entries of before: an entry is read as it was written, for
 * ever.
 */
export interface EntryItem {
  id: string;
  title: string;
  citation: string;
  have: string;
  waived: string | null;
  evidence: string[];
  state?: string;
  asks?: string;
  credited?: string | null;
  overridden?: { reason: string; askedBy: string; approvedBy: string | null } | null;
  safety?: boolean;
  missing?: string[];
}
/** Something recorded before a signature that came in after it. */
export interface LateArrival {
  id: string;
  /** A landing by its number, else the item by its id. */
  landing: number | null;
  item: string | null;
  lesson: number;
  recordedAt: string;
  receivedAt: string;
}

/** What the ledger itself adds to an entry, whatever its kind. */
export interface EntryMarks {
  /** The clock stood before the newest entry there was: the date is in doubt. */
  clockDoubt?: { before: string };
  /** Passwords somebody else gave to the signer's account, in the thirty days before or since the last signature. */
  passwordGiven?: { by: string; at: string }[];
}

export interface SignOffBody extends EntryMarks {
  pilot: { id: string; name: string; certificate?: string };
  signer: { id: string; name: string; certificate?: string; certificateUntil?: string | null };
  airframe: { registration: string; type: string; typeVersion: number; airframeVersion: number };
  goals: Goal[];
  rules: {
    pack: string;
    name: string;
    citations: {
      goal: Goal;
      title?: string;
      citation: string;
      written: string;
      decides: 'instructor' | 'examiner';
      confirm?: boolean;
    }[];
    caution?: string;
  };
  programmes: string[];
  standard: { id: string; name: string };
  schools: Record<string, string>;
  items: EntryItem[];
  landings: {
    id: string;
    lesson: number;
    number: number;
    date: string;
    kind: string;
    intended: string | null;
    class: string;
    /** Criteria that rest on the clean tap alone. */
    asserted?: string[];
    crosswindKt: number | null;
    overruled?: boolean;
    surface?: string;
  }[];
  observations: { id: string; lesson: number; itemId: string; verdict: string; intervention: number; note: string }[];
  /** Entries of before count go-arounds and low passes as landings, and name only the sum. */
  counts: {
    lessons: number;
    landings: number;
    own: number;
    fullStops?: number;
    touchAndGos?: number;
    goArounds?: number;
    lowPasses?: number;
    demonstrations?: number;
  };
  limitations: Limitations;
  remark: string;
  // Since the second form of an entry
  text?: string;
  signedOn?: string;
  timeZone?: string;
  signature?: string | null;
  /** Last day of a recommendation. */
  validThrough?: string | null;
  /** Last day of a test counted from the start of the course; last training, from which a recommendation is counted. */
  courseUntil?: string | null;
  trainedOn?: string | null;
  /** Goals whose examiner has still to decide. */
  recommends?: Goal[];
  /** Flown past a stop, with why. Absent where nothing was, and in entries of before. */
  stops?: { name: string; code: string; words: string; reason: string | null }[];
}
export interface LaterBody extends EntryMarks {
  pilot: { id: string; name: string };
  signer: { id: string; name: string };
  of: { id: string; seq: number; hash: string; kind: string };
  goals: Goal[];
  signedOn: string;
  timeZone: string;
  /** Of a void: why. Of a correction: what is meant instead. */
  text: string;
  /** Of a correction: what was recorded before the signature and came in after it. */
  late?: Omit<LateArrival, 'receivedAt'>[];
  result?: 'passed' | 'failed';
  examiner?: string;
  testOn?: string;
  reference?: string;
}
