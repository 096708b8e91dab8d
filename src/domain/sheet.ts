import { z } from 'zod';
import { ATTRIBUTE_KEYS } from './handling';
import { MANOEUVRES } from './airwork';
import { ATTITUDES, LIMIT_CHANNELS, SIGHT_ATTITUDES, SOURCES } from './words';

const Source = z.enum(SOURCES);
const Ref = z.string().trim().min(1, 'Say where it comes from, for example Handbook 4.2.');
const Text = z.string().trim().min(1, 'Write something, or remove the row.');
const Num = z.number('Give a number.');

/** One source's word on a number. */
export const Claim = z.object({ value: Num, source: Source, ref: Ref });
/**
 * A number with where it comes from; this one governs. `others` are what other sources say of the same. The unit is
 * named by the field, or is the dial's for a speed.
 */
export const Sourced = Claim.extend({ others: z.array(Claim).optional() });
export type Sourced = z.infer<typeof Sourced>;
export const SourcedText = z.object({ text: Text, source: Source, ref: Ref });

export const DialRow = z.object({ ias: Num, correction: Num });
export const FlapRow = z.object({ upToKt: Num.nullable(), maxFlapDeg: Num, reason: Text });

export const Gate = z.object({
  name: Text,
  /** Above the field. */
  heightFt: Num,
  /** Along the path to the threshold. */
  distanceM: Num,
  /** In the dial's unit, at the reference mass. */
  speed: Sourced,
  flapDeg: Num,
  gear: z.enum(['fixed', 'up', 'down']),
  power: Text,
  finalGate: z.boolean(),
  bankDeg: Num,
  /** Of the longitudinal axis; null = not measured, no picture at this gate. */
  pitchDeg: Sourced.nullable().default(null),
});
export type Gate = z.infer<typeof Gate>;

export const DistanceRow = z.object({ massKg: Num, pressureAltFt: Num, oatC: Num, groundRollM: Num, over50FtM: Num });

export const SEAT_CONTROLS = [
  'stick or wheel',
  'rudder',
  'brakes',
  'throttle',
  'mixture',
  'flap',
  'gear',
  'trim',
  'fuel',
  'ignition',
  'canopy or doors',
  'airspeed indicator',
] as const;
/** What a sheet says of something fitted or not; a silence is no answer. */
export const FITTED = ['not said', 'no', 'yes'] as const;
export const GLIDE_PROPELLERS = ['not said', 'windmilling', 'stopped', 'feathered', 'idle'] as const;
export const STATION_ROLES = ['pilot', 'instructor', 'rear', 'baggage'] as const;

/**
 * A direction fixed to the airframe: azimuth from straight ahead, right positive; depression below the longitudinal
 * axis.
 */
const BodyDirection = { azimuthDeg: Num, depressionDeg: Num };
/** What the eye has in front of it, measured from the pilot's seat. */
export const Sight = z.object({
  /** Where the nose ends. One side is enough when the seat is in the middle. */
  profile: z.array(z.object(BodyDirection)).min(2, 'Give at least two directions: straight ahead and one to the side.'),
  source: Source,
  ref: Ref,
  /** From the aeroplane's centreline, right positive. */
  eyeLateralM: Sourced,
  attitudes: z.array(z.object({ name: z.enum(SIGHT_ATTITUDES), pitchDeg: Sourced, bankDeg: Num, yawDeg: Num })),
  /** Parts that stand in the view, drawn as a line between two directions. */
  parts: z.array(
    z.object({ name: Text, fromAzimuthDeg: Num, fromDepressionDeg: Num, toAzimuthDeg: Num, toDepressionDeg: Num }),
  ),
  /** A named part that lies on the horizon, or near it, in one attitude. */
  references: z.array(z.object({ name: Text, ...BodyDirection, attitude: z.enum(SIGHT_ATTITUDES) })),
});
export type Sight = z.infer<typeof Sight>;

const Distances = z.object({ takeoff: z.array(DistanceRow), landing: z.array(DistanceRow), ref: Ref }).nullable();
/**
 * What an amphibian does otherwise with its wheels down on land: the sheet's own schedule, distances, width and flow are
 * those of the water.
 */
export const OnLand = z.object({
  approach: z.array(Gate).min(2),
  distances: Distances,
  minWidthM: Sourced.nullable(),
  aimPointM: Sourced,
  touchdownM: Sourced.nullable().default(null),
  usualAttitude: z.enum(ATTITUDES),
  goAroundFlow: z.array(Text).min(1),
});
export type OnLand = z.infer<typeof OnLand>;

/** What the battery has to feed when the charging fails. */
export const Electrical = z.object({
  batteryAh: Sourced,
  usableShare: Sourced.nullable(),
  consumers: z
    .array(z.object({ name: Text, amps: Num, shedAtMin: Num.nullable(), dependsOn: z.array(Text), backupMin: Num }))
    .min(1),
  ref: Ref,
});

const Unmeasured = Sourced.nullable().default(null);
export const ROTATIONS = ['not said', 'clockwise', 'anticlockwise', 'opposite ways'] as const;
/** What the models of ground, touch, slip and slow approach work with; null = not measured, and nothing is put in its place. */
export const Dynamics = z.object({
  yawInertiaKgM2: Unmeasured,
  pitchInertiaKgM2: Unmeasured,
  /** Main axle ahead of the centre of gravity: positive on a tailwheel type, negative on a nosewheel type. */
  mainsAheadM: Unmeasured,
  cgHeightM: Unmeasured,
  /** Both main tyres together. */
  corneringMainsNPerRad: Unmeasured,
  corneringThirdNPerRad: Unmeasured,
  finAreaM2: Unmeasured,
  /** Centre of the fin behind the centre of gravity. */
  finArmM: Unmeasured,
  finLiftSlopePerRad: Unmeasured,
  /** What a degree of rudder does of a degree of sideslip. */
  rudderEffectiveness: Unmeasured,
  rudderMaxDeg: Unmeasured,
  /** Of the body without the fin, seen from the side. */
  bodySideAreaM2: Unmeasured,
  bodySideSlopePerRad: Unmeasured,
  bodyCentreAheadM: Unmeasured,
  /** Seen from the cockpit. */
  propellerTurns: z.enum(ROTATIONS).default('not said'),
  /** Turns of the propeller at take-off power. */
  propellerRpm: Unmeasured,
  propellerInertiaKgM2: Unmeasured,
  /** Share of fin and rudder that stands in the wash, 0 to 1. */
  finInWash: Unmeasured,
  rollInertiaKgM2: Unmeasured,
  gearStrokeM: Unmeasured,
  gearEfficiency: Unmeasured,
  /** Speed of rebound over sink. */
  gearRestitution: Unmeasured,
  /** Sink at the touch, upper edges of very soft, normal, firm and hard; null = the usual ones. */
  firmnessFpm: z
    .object({ verySoft: Num, normal: Num, firm: Num, hard: Num, source: Source, ref: Ref })
    .nullable()
    .default(null),
  sideslipMaxDeg: Unmeasured,
  /** Side force of a sideslip, a radian; negative. */
  sideForcePerRad: Unmeasured,
  /** Drag coefficient added by a sideslip: this times the square of its sine. */
  slipDrag: Unmeasured,
  /** Share of full aileron that the greatest sideslip needs, 0 to 1. */
  aileronInSlip: Unmeasured,
  /** What comes near the ground in a bank: wing tip, float, propeller of a nacelle; wings level on the wheels. */
  lowParts: z.array(z.object({ name: Text, heightM: Sourced, outM: Sourced })).default([]),
  /** What the handbook says of slips: airspeed, tanks, flap. */
  slipNotes: z.array(SourcedText).default([]),
  /** Lift that propeller wash adds, of the lift without: this times thrust over weight. */
  powerLift: Unmeasured,
  /** Greatest load factor the elevator holds in the flare with the power off. */
  elevatorLimitG: Unmeasured,
});
export type Dynamics = z.infer<typeof Dynamics>;

export const TypeSheet = z.object({
  schema: z.literal('type-sheet/1'),
  code: z.string().regex(/^[a-z0-9-]+$/, 'Small letters, digits and hyphens.'),
  name: Text,
  maker: Text,
  summary: Text,
  revision: Text,
  dial: z.object({ unit: z.enum(['kt', 'mph']), table: z.array(DialRow), source: Source, ref: Ref }),
  gear: z.object({
    layout: z.enum(['tailwheel', 'nosewheel', 'hull']),
    retractable: z.boolean(),
    steerDeg: Sourced.nullable(),
    freeCaster: z.boolean(),
    /** What each lamp state means, wheel by wheel: an unlit lamp may be a wheel that is up. */
    lamps: z.array(z.object({ wheel: Text, state: Text, means: z.enum(['up', 'down', 'transit']) })).default([]),
    brakes: Text,
    trackM: Sourced,
    wheelbaseM: Sourced,
  }),
  surface: z.enum(['land', 'sea', 'amphibian']),
  engine: z.object({
    count: Num.int().min(1),
    powerHp: Sourced,
    propeller: z.enum(['fixed', 'constant-speed']),
    /** Foot that holds the nose straight as power comes on. */
    footOnPower: z.enum(['left', 'right', 'none']),
    induction: z.enum(['carburetted', 'injected']),
    /** All engines together. */
    usableFuelL: Sourced,
    flowLPerH: Sourced,
    propEfficiency: Sourced.nullable(),
    staticThrustN: Sourced.nullable(),
  }),
  /** What the law asks of beyond gear, flaps, propeller and power; *not said* leaves what it demands undecided. */
  features: z
    .object({
      glass: z.enum(FITTED),
      turbocharged: z.enum(FITTED),
      pressurised: z.enum(FITTED),
      singleLeverPower: z.enum(FITTED),
      digitalEngineControl: z.enum(FITTED),
      /** In place of wheels or with them. */
      skis: z.enum(FITTED),
      /** Service ceiling or maximum operating altitude, whichever is lower. */
      ceilingFt: Sourced.nullable(),
    })
    .default({
      glass: 'not said',
      turbocharged: 'not said',
      pressurised: 'not said',
      singleLeverPower: 'not said',
      digitalEngineControl: 'not said',
      skis: 'not said',
      ceilingFt: null,
    }),
  seats: z.object({ count: Num.int(), arrangement: z.enum(['side by side', 'tandem']) }),
  flapSteps: z.array(Num).min(1),
  masses: z.object({ maxTakeoffKg: Sourced, emptyKg: Sourced, maxBaggageKg: Sourced, refMassKg: Num }),
  wing: z.object({ areaM2: Sourced, spanM: Sourced, bestGlideRatio: Sourced }),
  /** Drag the polar has not: per flap setting, gear, stopped propeller. */
  drag: z.object({
    flap: z.array(z.object({ flapDeg: Num, deltaCd0: Sourced })),
    gearDeltaCd0: Sourced.nullable(),
    /** Of a windmilling propeller over a stopped or feathered one. */
    windmillingDeltaCd0: Sourced.nullable(),
    /** What the propeller does in the handbook's best glide: drag that is in that glide is not added again. */
    glidePropeller: z.enum(GLIDE_PROPELLERS).default('not said'),
  }),
  loadFactor: z.object({ positive: Sourced, negative: Sourced }),
  speeds: z.object({
    vr: Sourced.nullable(),
    vx: Sourced,
    vy: Sourced,
    va: Sourced,
    bestGlide: Sourced,
    vno: Sourced,
    vne: Sourced,
    vloExtend: Sourced.nullable(),
    vloRetract: Sourced.nullable(),
    vle: Sourced.nullable(),
    vfe: z.array(z.object({ flapDeg: Num, speed: Sourced })),
  }),
  twin: z
    .object({
      vmca: Sourced,
      vsse: Sourced,
      vyse: Sourced,
      oneEngineClimbFpm: Sourced,
      oneEngineCeilingFt: Sourced,
      goAroundDecisionFt: Sourced,
      /** Accelerate to the decision and stop; empty = the handbook has none, and nothing is made up. */
      accelerateStop: z.array(z.object({ massKg: Num, pressureAltFt: Num, oatC: Num, distanceM: Num })).default([]),
    })
    .nullable(),
  /** Power off, 1 g, at the reference mass, in the dial's unit. */
  stalls: z.array(z.object({ flapDeg: Num, speed: Sourced })).min(1),
  approach: z.array(Gate).min(2),
  sanctionedMargin: z.object({ ratio: Num, source: Text }).nullable(),
  powerTable: z.array(z.object({ phase: Text, setting: Text, ias: Sourced.nullable(), flowLPerH: Sourced.nullable() })),
  temperatures: z.array(
    z.object({ name: Text, unit: Text, low: Sourced.nullable(), high: Sourced.nullable(), note: z.string() }),
  ),
  /** Climb speed that trades climb for cooling. */
  coolingClimb: Sourced.nullable(),
  crosswind: z.object({
    limitationKt: Sourced.nullable(),
    demonstratedKt: Sourced.nullable(),
    tailwindLimitKt: Sourced.nullable(),
    flapTable: z.array(FlapRow),
    flapTableSource: z.string().nullable(),
  }),
  landing: z.object({
    usualAttitude: z.enum(ATTITUDES),
    wheelLandings: z.enum(['allowed', 'advised against', 'not applicable']),
    aimPointM: Sourced,
    /**
     * Declared touchdown point, from the threshold: the standard's box is measured from here. Past the aim point by the
     * flare. Null = not declared, taken at the aim point.
     */
    touchdownM: Sourced.nullable().default(null),
    minWidthM: Sourced.nullable(),
    speedSchool: z.enum(['constant', 'reducing']),
  }),
  distances: Distances,
  /** Of an amphibian; null = the sheet has no schedule for land, and none is made up. */
  onLand: OnLand.nullable().default(null),
  /** Metres aft of the datum. */
  loading: z
    .object({
      datum: Text,
      emptyArmM: Sourced,
      stations: z
        .array(z.object({ name: Text, role: z.enum(STATION_ROLES), armM: Sourced, maxKg: Sourced.nullable() }))
        .min(1),
      fuelArmM: Sourced,
      envelope: z.array(z.object({ armM: Num, massKg: Num })).min(3),
      envelopeRef: Ref,
      trim: z.object({ unit: Text, rows: z.array(z.object({ armM: Num, trim: Num })).min(2), ref: Ref }).nullable(),
    })
    .nullable(),
  electrical: Electrical.nullable(),
  geometry: z.object({
    wing: z.enum(['high', 'low', 'biplane', 'shoulder']),
    lengthM: Sourced.nullable(),
    heightM: Sourced.nullable(),
    noseToMainM: Sourced.nullable(),
    propDiameterM: Sourced.nullable(),
    tyreDiameterM: Sourced.nullable(),
    groundPitchDeg: Sourced.nullable(),
    eyeHeightM: Sourced.nullable(),
    noseToEyeM: Sourced.nullable(),
  }),
  /** Null = the view was not measured yet. */
  sight: Sight.nullable().default(null),
  dynamics: Dynamics.default(Dynamics.parse({})),
  instructorSeat: z.array(
    z.object({
      control: z.enum(SEAT_CONTROLS),
      reach: z.enum(['reached', 'seen only', 'not reached']),
      note: z.string(),
    }),
  ),
  equipment: z.array(Text),
  flows: z.array(z.object({ name: Text, steps: z.array(Text).min(1), source: Source, ref: Ref })),
  exits: z.array(SourcedText).min(1),
  goAroundFlow: z.array(Text).min(1),
  attributes: z.array(z.object({ key: z.enum(ATTRIBUTE_KEYS), value: Text, source: Source, ref: Ref })),
  handling: z.array(SourcedText),
  /** What must be done before the next flight when a limit was passed. */
  afterLimit: z.array(SourcedText.extend({ channel: z.enum(LIMIT_CHANNELS) })).default([]),
  /** How an exercise is entered here: speed off the dial, power, the load to expect, how it is left. */
  manoeuvres: z
    .array(
      z.object({
        item: z.enum(MANOEUVRES),
        entryIas: Num.min(10, 'Give the entry speed off the dial.').max(400, 'Give the entry speed off the dial.'),
        power: Text,
        g: Num.min(-9).max(9).nullable(),
        exit: Text,
        source: Source,
        ref: Ref,
      }),
    )
    .default([]),
});
export type TypeSheet = z.infer<typeof TypeSheet>;

/** One registration: what differs from its type. */
export const Airframe = z.object({
  schema: z.literal('airframe/1'),
  registration: Text,
  typeCode: Text,
  emptyKg: Sourced.nullable(),
  emptyArmM: Sourced.nullable(),
  dialTable: z.array(DialRow).nullable(),
  crosswindLimitKt: Sourced.nullable(),
  flapTable: z.array(FlapRow).nullable(),
  flapTableSource: z.string().nullable(),
  modifications: z.array(z.object({ name: Text, effect: Text, source: Source, ref: Ref })),
  /** Handling attributes that a modification changes. */
  attributes: z.array(z.object({ key: z.enum(ATTRIBUTE_KEYS), value: Text, source: Source, ref: Ref })),
  equipment: z.array(Text),
  /** Flows of this registration: put in place of the type's flow of the same name, or added to them. */
  flows: z.array(z.object({ name: Text, steps: z.array(Text).min(1), source: Source, ref: Ref })).default([]),
  /** Go-around of this registration; null = the type's. */
  goAroundFlow: z.array(Text).min(1).nullable().default(null),
  /** Battery and consumers of this registration; null = the type's. */
  electrical: Electrical.nullable().default(null),
  hoursToInspection: Sourced.nullable(),
  deferredDefects: z.array(
    z.object({ text: Text, since: z.iso.date('Enter the date as 24 Nov 2026.'), until: z.string() }),
  ),
  insurer: SourcedText.nullable(),
});
export type Airframe = z.infer<typeof Airframe>;

export const RunwayEndSchema = z.object({
  ident: z.string(),
  trueBearingDeg: z.number(),
  /** Of this threshold; null = not surveyed. Where both are known the slope is computed from them. */
  elevationFt: z.number().nullable().default(null),
  /** Where to go around if not down: a thing to see beside the runway, and how far past the threshold it stands. */
  landmark: z.object({ name: z.string(), alongM: z.number() }).nullable(),
  /** Nominal angle of the slope lights; null = none. */
  slopeLightsDeg: z.number().nullable(),
  /** Where the lights stand, from the threshold; null = not entered, and no count of white lights is given. */
  slopeLightsM: z.number().nullable().default(null),
  /** Which way the circuit turns; left where nothing is said. */
  circuit: z.enum(['left', 'right']).optional(),
  /** Highest thing in the way of a take-off from this end: past the far end of the strip, and above that end. */
  obstacle: z.object({ name: z.string(), pastEndM: z.number(), heightFt: z.number() }).nullable().default(null),
});
export const Aerodrome = z.object({
  ident: z.string(),
  name: z.string(),
  elevationFt: z.number(),
  variationDeg: z.number(),
  timeZone: z.string(),
  latitudeDeg: z.number(),
  longitudeDeg: z.number(),
  circuitHeightFt: z.number(),
  runways: z.array(
    z.object({
      surface: z.enum(['asphalt', 'grass', 'water']),
      elevationFt: z.number(),
      lengthM: z.number(),
      widthM: z.number(),
      /**
       * Per cent; positive = rises in the direction of the first end's take-off. The one meaning of slope in this
       * application; not used where both ends have an elevation.
       */
      slopePct: z.number(),
      /** Its middle from the aerodrome's reference point, metres. */
      centre: z.object({ eastM: z.number(), northM: z.number() }).default({ eastM: 0, northM: 0 }),
      ends: z.array(RunwayEndSchema).length(2),
    }),
  ),
  /** Airspace floors on departure, nearest first. */
  airspace: z.array(z.object({ name: z.string(), fromKm: z.number(), toKm: z.number(), floorFt: z.number() })),
  /** Where its reports and forecasts are had; the home aerodrome's are in the rules of the school. */
  weather: z.object({ reportUrl: z.string(), forecastUrl: z.string() }).optional(),
  source: z.string(),
});
export type Aerodrome = z.infer<typeof Aerodrome>;
