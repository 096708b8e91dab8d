import { z } from 'zod';
import { BriefChoices } from '@/domain/brief';
import { CHANGE_KIND_LIST } from '@/domain/scopes';
import { Airframe, TypeSheet } from '@/domain/sheet';
import { TraceAnalysis, TraceContext } from '@/domain/trace';

/** Shapes of the interface for programs: what is documented is what is answered, which tests hold each answer to. */
const id = z.string().describe('Opaque id');
const day = z.string().describe('A day at the home aerodrome, YYYY-MM-DD');
const instant = z.string().describe('An instant in UTC, ISO 8601');
const code = z.string().describe('One of a fixed list');
const whole = z.number().int();
const list = <T extends z.ZodType>(of: T) => z.object({ total: whole.describe('All there are'), items: z.array(of) });

export const Problems = z.object({
  message: z.string(),
  problems: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
});
export const TypeAnswer = z.object({
  code: z.string(),
  version: whole,
  author: z.string(),
  reason: z.string(),
  createdAt: instant,
  sheet: TypeSheet,
});
export const TypeList = z.array(
  z.object({ code: z.string(), name: z.string(), version: whole, airframes: z.array(z.string()) }),
);
export const TypeImport = z.object({ baseVersion: whole.min(0), reason: z.string(), sheet: TypeSheet });
export const TypeImported = z.object({ version: whole, unchanged: z.boolean() });
export const AirframeAnswer = z.object({
  registration: z.string(),
  typeCode: z.string(),
  version: whole,
  airframe: Airframe,
});
export const BriefAnswer = z.object({
  id,
  checkoutId: id,
  lesson: whole,
  version: whole,
  savedAt: instant,
  choices: BriefChoices,
  card: z.object({
    title: z.string(),
    line: z.string(),
    revision: z.string(),
    warnings: z.array(z.string()),
    gates: z.array(
      z.object({
        name: z.string(),
        speed: z.string(),
        height: z.string(),
        altimeter: z.string(),
        configuration: z.string(),
        power: z.string(),
      }),
    ),
    caution: z.string(),
  }),
});
export const TraceAnswer = z.object({
  id,
  checkoutId: id,
  lesson: whole,
  flownOn: day,
  registration: z.string(),
  startUtc: z.string().nullable(),
  context: TraceContext,
  analysis: TraceAnalysis,
});
export const TraceQuestion = z.object({
  text: z.string(),
  context: TraceContext,
  mapping: z.record(z.string(), z.object({ channel: z.string(), unit: z.string().nullable() })).nullish(),
});

/** One thing that runs out, or has. */
const Lapse = z.object({
  key: z.string(),
  kind: code,
  what: z.string(),
  status: code.describe('current, expiring, expired; never = nothing to count from; missing = no date on record'),
  acting: z.boolean().describe('Without it the pilot is not pilot in command'),
  through: day.nullable().describe('Last day on which it holds'),
  daysLeft: whole.nullable(),
  restore: z.string().nullable().describe('The least flying that restores or keeps it'),
  typeCode: z.string().nullable(),
  citation: z.string(),
});
const Person = z.object({
  id,
  name: z.string(),
  roles: z.array(code),
  hoursH: z.number().describe('In all, hours'),
  lastFlown: day.nullable(),
  standing: code.describe('current, expiring, expired, due; unknown = nothing is on record'),
  first: Lapse.nullable().describe('What runs out first'),
});
export const PersonList = list(Person).extend({ onDate: day });
export const PersonAnswer = Person.omit({ standing: true, first: true, lastFlown: true }).extend({
  onDate: day.describe('The day recency is of: it changes with the days, not only when something is written'),
  pack: z.string(),
  certificate: z.string(),
  lapses: z.array(Lapse),
  held: z.array(z.object({ kind: code, gainedOn: day.nullable(), endedAt: z.string().nullable() })),
  dates: z.array(z.object({ key: code, title: z.string(), doneOn: day.nullable(), until: day.nullable() })),
  hoursByType: z.array(z.object({ typeCode: z.string(), hoursH: z.number(), lastFlown: z.string() })),
});
export const RecordAnswer = z.looseObject({ schema: z.literal('record/1'), madeOn: day });

export const BookingAnswer = z.object({
  id,
  version: whole,
  state: z.enum(['booked', 'cancelled']),
  kind: code,
  startsAt: instant,
  endsAt: instant,
  flight: z.object({ from: instant, to: instant }).nullable().describe('The part in the air'),
  pilotId: id.nullable(),
  pilotName: z.string().nullable(),
  instructorName: z.string().nullable(),
  registration: z.string().nullable(),
  checkoutId: id.nullable(),
  goals: z.array(code),
  aerodrome: z.string().nullable().describe('Null = the home aerodrome'),
  note: z.string(),
  masked: z.boolean().describe('Somebody else’s: only that it is taken is told'),
});
export const BookingList = z.object({ from: day, to: day, timeZone: z.string(), items: z.array(BookingAnswer) });

const Checkout = z.object({
  id,
  pilotId: id,
  pilotName: z.string(),
  instructorName: z.string(),
  registration: z.string(),
  typeName: z.string(),
  goals: z.array(code),
  status: code,
  openedAt: instant,
});
export const CheckoutList = list(
  Checkout.extend({ lessons: whole, landings: whole, lastFlown: day.nullable() }),
).describe('Newest work first');
export const CheckoutAnswer = Checkout.extend({
  typeCode: z.string(),
  pack: z.string(),
  standard: z.string(),
  stage: code.describe('open, brief, fly, debrief, sign'),
  ledgerId: id.nullable(),
  lessons: z.array(
    z.object({
      id: id.describe('Of the lesson: a debrief is asked by it'),
      lesson: whole,
      flownOn: day,
      aerodrome: z.string().nullable(),
      briefId: id.nullable(),
      briefAcknowledgedAt: instant.nullable(),
      landings: whole,
    }),
  ),
  items: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      met: z.boolean(),
      asks: z.string(),
      have: z.string(),
      missing: z.array(z.string()),
      waived: z.string().nullable(),
    }),
  ),
  findings: z
    .array(
      z.object({
        id: z.string(),
        title: z.string(),
        state: z.enum(['open', 'closed']),
        positive: z.boolean(),
        text: z.string(),
        sinceLesson: whole,
        exercise: z.string(),
        decision: code.nullable(),
      }),
    )
    .nullable()
    .describe('Null while the pilot who asks has a lesson to assess first'),
});

export const DebriefAnswer = z.object({
  id,
  checkoutId: id,
  lesson: whole,
  flownOn: day,
  aerodrome: z.string().nullable(),
  assessFirst: z
    .boolean()
    .describe('The pilot who asks has not said how it went: what was judged is told after their own assessment'),
  self: z.looseObject({ toldAt: instant, toldBy: z.string() }).nullable(),
  landings: z.array(
    z.object({
      id,
      number: whole,
      kind: code,
      intended: code.nullable(),
      surface: code,
      crosswindKt: z.number().nullable().describe('Knots across the runway, from the right positive; null = not known'),
      class: code,
      why: z.string(),
      intervention: whole
        .nullable()
        .describe('0 unassisted, 1 prompted, 2 assisted, 3 the instructor took over; null = not known'),
      criteria: z.array(
        z.object({ id: code, verdict: code.describe('not-seen counts as nothing'), required: z.boolean() }),
      ),
      pastStop: z.boolean().describe('Flown past a check that stood at stop: kept, and no evidence'),
      measured: z.record(z.string(), z.number()).nullable().describe('From a recording; null = judged by eye'),
    }),
  ),
  debrief: z
    .object({
      id,
      version: whole,
      focus: z.array(z.string()),
      remark: z.string(),
      by: z.string(),
      at: instant,
      acknowledgedAt: instant.nullable(),
    })
    .nullable(),
});

const Entry = z.object({
  id,
  number: whole,
  kind: code,
  checkoutId: z.string(),
  pilotName: z.string(),
  signerName: z.string(),
  signedAt: instant,
  signedOn: day,
  goals: z.array(code),
  registration: z.string(),
  typeName: z.string(),
  voidedBy: whole.nullable().describe('Number of the entry that voids it'),
  sha256: z.string(),
});
export const EntryList = list(Entry).describe('Newest first');
export const EntryAnswer = Entry.extend({
  signed: z
    .object({
      schema: z.literal('signed-entry/1'),
      entry: z.object({
        seq: whole,
        id,
        kind: code,
        checkoutId: z.string(),
        signedAt: instant,
        signerId: z.string(),
        canonical: z.string(),
        prevHash: z.string(),
        hash: z.string(),
        signature: z.string(),
        keyId: z.string(),
      }),
      head: z.unknown(),
      publicKeys: z.record(z.string(), z.string()),
    })
    .describe('As it is signed, with the published keys: checked offline'),
});

export const ChangesAnswer = z.object({
  version: z.string().describe('Send it as `since` the next time; opaque'),
  more: z.boolean().describe('There are more: ask again at once with this version'),
  changes: z.array(
    z.object({ kind: z.enum(CHANGE_KIND_LIST), id: z.string(), href: z.string().describe('Where it is read now') }),
  ),
});
