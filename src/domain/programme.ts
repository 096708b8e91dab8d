import { z } from 'zod';
import { AIRWORK_KINDS, AIRWORK_QUANTITIES, ASKS, CAPTURE_FORMS } from './airwork';
import { MUST_SEE, NEEDS, SUBJECTS } from './assess-words';
import { LAB_PAGES } from './lab-pages';
import { NightRule, RecencyRule } from './recency';
import { GOALS, GO_AROUND_FROM, PACKS } from './words';

const EyeFormSchema = z.union([
  z.object({ kind: z.literal('words'), within: z.array(z.string()), edge: z.array(z.string()) }),
  z.object({ kind: z.literal('bounce'), withinCount: z.number(), edgeCount: z.number() }),
  z.object({ kind: z.literal('attitude'), edgeFor: z.record(z.string(), z.array(z.string())) }),
]);

export const Standard = z.object({
  schema: z.literal('standard/1'),
  key: z.string(),
  name: z.string(),
  source: z.string(),
  edgeShare: z.number().min(0).max(1),
  /** The touchdown box, metres past the declared touchdown point. */
  boxM: z.object({ before: z.number(), past: z.number() }),
  /** The box of a short-field landing; null = none, as in versions of before. */
  shortBoxM: z.object({ before: z.number(), past: z.number() }).nullable().default(null),
  /** Tailwheel and light types: never wider than this. */
  tighter: z
    .object({ crabDeg: z.number(), swingDeg: z.number(), trackShare: z.number(), citation: z.string() })
    .nullable()
    .default(null),
  criteria: z.array(
    z.object({
      id: z.string(),
      group: z.enum(['control', 'precision']),
      unit: z.string(),
      citation: z.string(),
      measured: z.object({ low: z.number(), high: z.number() }).nullable(),
      eye: EyeFormSchema.nullable(),
      required: z.array(z.enum(['trace', 'eye'])),
    }),
  ),
  /** Required observations in each landing that counts for an item about it. */
  seen: z.record(z.enum(SUBJECTS), z.array(z.string())).default(MUST_SEE),
  /**
   * Tolerances of airwork about the value set. Speed in knots, height in feet, angles in degrees; the rate in knots a
   * second.
   */
  airwork: z
    .array(
      z.object({
        kind: z.enum(AIRWORK_KINDS),
        set: z.partialRecord(z.enum(AIRWORK_QUANTITIES), z.number()),
        limits: z
          .array(
            z.object({
              quantity: z.enum(AIRWORK_QUANTITIES),
              low: z.number(),
              high: z.number(),
              unit: z.string(),
              citation: z.string(),
              of: z.array(z.string()).optional(),
              about: z.number().optional(),
            }),
          )
          .min(1),
      }),
    )
    .default([]),
});
export type Standard = z.infer<typeof Standard>;

/** How recent evidence must be, days back from the day of signing; null = it keeps. Surface: only there it counts. */
const Recent = { withinDays: z.number().int().min(1).nullable().default(null) };
const Where = { surface: z.enum(['land', 'water']).nullable().default(null) };
export const EvidenceRule = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('run'),
    needed: z.number().int(),
    attitude: z.string().nullable(),
    windKt: z.number().nullable(),
    accuracy: z.boolean(),
    minSorties: z.number().int(),
    minDays: z.number().int(),
    ...Recent,
    ...Where,
  }),
  z.object({
    kind: z.literal('count'),
    needed: z.number().int(),
    attitude: z.string().nullable(),
    fullStop: z.boolean(),
    minCrosswindKt: z.number().nullable(),
    ...Recent,
    ...Where,
    /** Only landings on target count; landings with a word count too. */
    accuracy: z.boolean().default(false),
    prompted: z.boolean().default(false),
  }),
  z.object({
    kind: z.literal('go-arounds'),
    sound: z.number().int(),
    good: z.number().int(),
    ...Recent,
    ...Where,
    /** Flown well at least once from each of these. */
    from: z.array(z.enum(GO_AROUND_FROM)).default([]),
  }),
  z.object({
    kind: z.literal('observed'),
    needed: z.number().int(),
    maxIntervention: z.number().int(),
    ...Recent,
    /** On at least so many days, and each of these seen at least once (stalls, energy and one-engine items by name). */
    minDays: z.number().int().min(1).default(1),
    variants: z.array(z.string()).default([]),
  }),
  /** Hours of dual flight by the clock of the flights, or minutes entered for this item. */
  z.object({ kind: z.literal('hours'), needed: z.number().min(0), from: z.enum(['flights', 'item']), ...Recent }),
  /** Lessons whose brief the pilot has acknowledged; with pages of the lab, only briefs that carry one of them, and all asked. */
  z.object({
    kind: z.literal('briefs'),
    needed: z.number().int(),
    pages: z.array(z.enum(LAB_PAGES)).default([]),
    ...Recent,
  }),
  /** Wheels against surface said and agreed on final. */
  z.object({ kind: z.literal('gear-checks'), needed: z.number().int(), ...Where }),
]);
export type EvidenceRule = z.infer<typeof EvidenceRule>;

export const ProgrammeItem = z.object({
  id: z.string(),
  title: z.string(),
  text: z.string(),
  where: z.enum(['ground', 'flight']),
  source: z.enum(['pack', 'house']),
  citation: z.string(),
  safety: z.boolean(),
  waivable: z.string().nullable(),
  prerequisites: z.array(z.string()),
  evidence: EvidenceRule,
  /** By what a pilot may already have it: something held, or hours in aeroplanes of the same gear and mass. */
  credit: z
    .object({
      text: z.string(),
      holds: z.array(z.string()).default([]),
      groupHours: z.number().nullable().default(null),
    })
    .nullable()
    .default(null),
  /** The authors were not sure of it: check the current text. */
  confirm: z.boolean().default(false),
  /** How it is captured in the aeroplane. */
  forms: z.array(z.enum(CAPTURE_FORMS)).default([]),
  /** What hands and feet did, recorded beside it. */
  asks: z.array(z.enum(ASKS)).default([]),
  /**
   * Knots across without which it shows nothing; absent = any wind. Items that count landings say it in their evidence.
   */
  needsWindKt: z.number().min(0).max(40).optional(),
  /** What it is about; absent = read from its evidence. */
  about: z.array(z.enum(SUBJECTS)).optional(),
  /** It fades: evidence older than the house's figure has lapsed. Absent = emergencies and stalls, by its forms. */
  fades: z.boolean().optional(),
  /** The law's own content under this pack: no override, by anybody. Waived only by what the law itself excepts. */
  legal: z.boolean().default(false),
  /** What the aeroplane must have for it to be asked; all of them. Empty = asked of every one. */
  needs: z.array(z.enum(NEEDS)).default([]),
  /** It belongs to the airframe: asked again when the checkout goes on in another registration. */
  perAirframe: z.boolean().default(false),
  /** In which of the first lessons an instructor takes it up; absent = when its prerequisites are met. */
  lesson: z.number().int().min(1).max(9).optional(),
});
export type ProgrammeItem = z.infer<typeof ProgrammeItem>;

export const Programme = z.object({
  schema: z.literal('programme/1'),
  key: z.string(),
  goal: z.enum(GOALS),
  pack: z.enum([...PACKS, 'house']),
  name: z.string(),
  note: z.string(),
  minHours: z.number(),
  /** Of which aeroplanes the goal can be flown: one of these lists, all of it. Empty = of every one. */
  offered: z.array(z.array(z.enum(NEEDS))).default([]),
  items: z.array(ProgrammeItem).min(1),
});
export type Programme = z.infer<typeof Programme>;

/** As kept in `content/programmes`: one list of items, each with a citation for every pack that asks for it. */
export const ProgrammeSource = z.object({
  schema: z.literal('programme-source/1'),
  goal: z.enum(GOALS),
  title: z.string(),
  note: z.string(),
  minHours: z.number(),
  /** By pack where one differs from `any`. */
  offered: z.partialRecord(z.enum([...PACKS, 'house', 'any']), z.array(z.array(z.enum(NEEDS)))).default({}),
  items: z
    .array(
      ProgrammeItem.omit({ source: true, citation: true, legal: true, confirm: true, waivable: true }).extend({
        citations: z.partialRecord(z.enum([...PACKS, 'house']), z.string()),
        /** Packs whose law asks exactly this, and of those the ones the authors were not sure of. */
        legal: z.array(z.enum(PACKS)).default([]),
        confirm: z.array(z.enum([...PACKS, 'house'])).default([]),
        waivable: z.string().nullable(),
      }),
    )
    .min(1),
});
export type ProgrammeSource = z.infer<typeof ProgrammeSource>;

/** What a rule pack says of one goal. */
export const PackGoal = z.object({
  goal: z.enum(GOALS),
  title: z.string(),
  citation: z.string(),
  essence: z.string(),
  decides: z.enum(['instructor', 'examiner']),
  written: z.string(),
  lasts: z.string(),
  credit: z.object({ text: z.string(), before: z.string() }).nullable(),
  instructorNeeds: z.string(),
  confirm: z.boolean(),
  // Added later; absent in versions of before.
  /** What the pilot must hold or have flown before. A number of hours is in command. */
  prerequisites: z
    .array(
      z.object({
        text: z.string(),
        holds: z.string().nullable().default(null),
        picHours: z.number().nullable().default(null),
        /** Not asked of who holds one of these. */
        unlessHolds: z.array(z.string()).default([]),
        confirm: z.boolean().default(false),
      }),
    )
    .default([]),
  /**
   * What the instructor must have: hours in command in the make and model, beside holding what the aeroplane demands.
   */
  instructor: z
    .object({
      modelHours: z.number().nullable().default(null),
      /** Only in command counts: hours nobody told apart are not known to be. */
      inCommand: z.boolean().default(false),
      /** Of the make and model, or of every type of its class. */
      within: z.enum(['model', 'class']).default('model'),
      /** What stands for the hours when it is held: an assessment of competence. */
      unlessHolds: z.array(z.string()).default([]),
      citation: z.string(),
    })
    .nullable()
    .default(null),
  /** Dated rules of this pack that a passed result or a signature renews, by id. */
  renews: z.array(z.string()).default([]),
  /** The entry as it is written; words in braces are filled in, and the signer may change it. */
  template: z.string().default(''),
  /** Of a recommendation: how long it holds, and how long the course may take. */
  recommendation: z
    .object({
      validMonths: z.number().int(),
      monthEnd: z.boolean(),
      courseMonths: z.number().int().nullable(),
      /** From what it is counted; the signature where a version of before does not say. */
      from: z.enum(['signature', 'last-training']).default('signature'),
      text: z.string(),
      confirm: z.boolean(),
    })
    .nullable()
    .default(null),
  /** Training at an approved or declared organisation, not by an instructor alone. */
  organisation: z.string().nullable().default(null),
});
export type PackGoal = z.infer<typeof PackGoal>;
/** What an instructor must hold to teach, where the aeroplane or the goal is of this kind. */
const InstructorRule = z.object({
  id: z.string(),
  text: z.string(),
  engines: z.enum(['single', 'multi', 'any']).default('any'),
  /** Absent = every goal; a booking without a checkout has none. */
  goals: z.array(z.enum(GOALS)).optional(),
  /** One of these. */
  anyOf: z.array(z.string()).min(1),
  citation: z.string(),
  confirm: z.boolean().default(false),
});
export type InstructorRule = z.infer<typeof InstructorRule>;

export const RulePack = z.object({
  schema: z.literal('pack/1'),
  key: z.enum(PACKS),
  name: z.string(),
  authority: z.string(),
  caution: z.string(),
  goals: z.array(PackGoal),
  /** Names of N31 endorsements and the goal that gives each. */
  endorsementGoals: z.record(z.string(), z.string()),
  picRule: z.string(),
  logRule: z.string(),
  /** Who is pilot in command and who logs what, by what is missing; absent in versions of before. */
  acting: z
    .object({
      class: z.object({ pic: z.string(), logs: z.string() }),
      endorsement: z.object({ pic: z.string(), logs: z.string() }),
      held: z.object({ pic: z.string(), logs: z.string() }),
      confirm: z.boolean().default(false),
    })
    .optional(),
  /** What instructors must hold; empty in versions of before. */
  instructors: z.array(InstructorRule).default([]),
  /** Most flight training an instructor may give in any 24 hours. */
  trainingIn24h: z.object({ hours: z.number(), citation: z.string() }).nullable().default(null),
  /** Twin variants lapse by not being flown; null = they do not. */
  variantLapse: z
    .object({ months: z.number().int(), citation: z.string(), confirm: z.boolean() })
    .nullable()
    .default(null),
  /** The standard a checkout starts from, by the level of the certificate held. */
  standardFor: z.object({ private: z.string(), commercial: z.string(), class: z.string() }).optional(),
  /** What of this pack is not covered, so that it is not forgotten. */
  notCovered: z.array(z.string()).default([]),
  /** Recent experience, by count, and what lapses by date. */
  recency: z.array(RecencyRule).default([]),
  dated: z
    .array(
      z.object({
        id: z.string(),
        title: z.string(),
        citation: z.string(),
        days: z.number().int().nullable(),
        months: z.number().int().nullable(),
        monthEnd: z.boolean(),
        confirm: z.boolean().default(false),
        /** Of what it speaks: everybody, or holders of the named kind. */
        of: z.string().nullable().default(null),
        /** Ended or not on record: not pilot in command, and not solo, in what it speaks of. */
        acting: z.boolean().default(false),
        /** Renewed so many months before its end or less, it runs on from the old end. */
        earlyMonths: z.number().int().nullable().default(null),
        /** Another dated rule of this pack that serves it too. */
        servedBy: z.array(z.string()).default([]),
        /** Only the last day is entered, by age and class of whoever gave it. */
        untilOnly: z.boolean().default(false),
      }),
    )
    .default([]),
  /** Night as this pack means it, for the logbook and for recent experience: they may differ. */
  night: z.object({ logging: NightRule, recency: NightRule }).default({
    logging: { by: 'twilight', citation: 'civil twilight' },
    recency: { by: 'twilight', citation: 'civil twilight' },
  }),
});
export type RulePack = z.infer<typeof RulePack>;

export const House = z.object({
  schema: z.literal('house/1'),
  /** Of the school, as it stands on its sign-in page; empty = not given. */
  school: z.string().max(80, 'At most 80 characters.').default(''),
  crosswindKt: z.record(z.string(), z.number()),
  /** What stays aboard when the pilot flies without the instructor, whose seat is empty. */
  soloKeeps: z.object({ rear: z.boolean(), baggage: z.boolean() }).default({ rear: false, baggage: true }),
  tailwindLimitKt: z.number(),
  gustSpreadLimitKt: z.number(),
  gustCapKt: z.number(),
  triggers: z.array(z.string()),
  signWithinDays: z.number(),
  /** Height above the field of the stabilised gate. */
  stabilisedFt: z.number(),
  /** Null = 30 min by day, 45 by night. */
  reserveMin: z.number().nullable(),
  groundMin: z.number(),
  circuitMin: z.number(),
  bookingMin: z.number(),
  runway: z.object({
    surfaces: z.array(
      z.object({ surface: z.string(), state: z.enum(['dry', 'wet']), takeoff: z.number(), landing: z.number() }),
    ),
    slopePerPct: z.number(),
    headwindShare: z.number(),
    tailwindShare: z.number(),
    headKtPerTenth: z.number(),
    tailKtPerTenth: z.number(),
    safetyTakeoff: z.number(),
    safetyLanding: z.number(),
    source: z.string(),
  }),
  /** Reach without the engine: no turn back is shown below this height; reaction and bank as the house teaches them. */
  reach: z
    .object({ turnBackFt: z.number(), reactionS: z.number(), bankDeg: z.number(), source: z.string() })
    .default({ turnBackFt: 700, reactionS: 4, bankDeg: 35, source: 'product default' }),
  /** Taxiways of the field. */
  taxiway: z
    .object({ widthM: z.number(), lightsM: z.number(), lipCm: z.number(), source: z.string() })
    .default({ widthM: 10, lightsM: 0.5, lipCm: 0, source: 'product default' }),
  exchangeWords: z.array(z.string()),
  finalChecks: z.array(z.string()),
  simulatedFailures: z.array(z.string()),
  /**
   * Least height above ground of a simulated failure, and of a loss-of-control-speed demonstration's completion; the
   * house may only be stricter.
   */
  failureFloorFt: z.number().min(500).default(500),
  demonstrationFt: z.number().min(3000).default(3000),
  /** Least height above ground of loops, rolls and the like; the law of several countries says 1500. */
  energyFloorFt: z.number().min(1500).default(1500),
  /** The rule pack whose words and rules hold where no checkout says another. */
  homePack: z.enum(PACKS).default('us'),
  /** Where METAR and TAF text is had from; empty = typed or pasted. */
  weather: z
    .object({ reportUrl: z.string().max(500), forecastUrl: z.string().max(500) })
    .default({ reportUrl: '', forecastUrl: '' }),
  /**
   * Bookings: hours of the day, minutes since midnight; the step of the grid; what a lesson usually takes where too few
   * were flown to learn from.
   */
  schedule: z
    .object({
      openFromMin: z.number().int().min(0).max(1440),
      openToMin: z.number().int().min(0).max(1440),
      stepMin: z.number().int().min(5).max(60),
      nightFlying: z.boolean(),
      briefMin: z.number().int().min(5),
      prepareMin: z.number().int().min(5),
      flightMin: z.number().int().min(10),
      debriefMin: z.number().int().min(5),
      /** Days without a lesson after which an open checkout has stalled. */
      stalledDays: z.number().int().min(1),
      source: z.string(),
    })
    .default({
      openFromMin: 420,
      openToMin: 1260,
      stepMin: 15,
      nightFlying: false,
      briefMin: 15,
      prepareMin: 20,
      flightMin: 50,
      debriefMin: 20,
      stalledDays: 14,
      source: 'product default',
    }),
  /**
   * Evidence: the share of an item's landings that may be based on the clean tap, days after which emergencies and stalls
   * are to be shown again, days a brief that was acknowledged is today's.
   */
  evidence: z
    .object({
      assertedShare: z.number().min(0).max(1),
      fadesDays: z.number().int().min(1),
      briefDays: z.number().int().min(1),
      source: z.string(),
    })
    .default({ assertedShare: 0.5, fadesDays: 90, briefDays: 7, source: 'product default' }),
  twinFailures: z.array(z.string()),
  reference: z.string(),
  /**
   * Signing: what an instructor must have flown to teach and sign a type, how long a part sign-off holds, who says yes
   * to an override, and when a check falls due.
   */
  signing: z
    .object({
      teach: z.array(RecencyRule),
      partDays: z.number().int().min(1),
      overrideNeedsChief: z.enum(['always', 'safety', 'never']),
      /**
       * Days without flying the type after which a check is due; a gear-and-mass group or a type code, the type first.
       */
      intervals: z.array(z.object({ of: z.string(), days: z.number().int().min(1) })),
      source: z.string(),
    })
    .default({ teach: [], partDays: 60, overrideNeedsChief: 'safety', intervals: [], source: 'product default' }),
});
export type House = z.infer<typeof House>;

export const SchoolTopic = z.object({
  key: z.string(),
  topic: z.string(),
  sides: z.array(z.object({ key: z.string(), name: z.string(), reason: z.string() })).min(2),
  changes: z.string(),
  fallback: z.string(),
  /** What an aeroplane has for the question to arise; without it none is asked. */
  needs: z.enum(['tailwheel', 'flap', 'glass']).optional(),
});
export const Schools = z.object({ schema: z.literal('schools/1'), topics: z.array(SchoolTopic) });
export type Schools = z.infer<typeof Schools>;
export type SchoolTopic = z.infer<typeof SchoolTopic>;
