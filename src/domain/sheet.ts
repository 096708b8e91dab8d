import { z } from 'zod';
import { ATTITUDES, SOURCES } from './words';

/** A number with where it comes from. The unit is named by the field, or is the dial's for a speed. */
export const Sourced = z.object({ value: z.number(), source: z.enum(SOURCES), ref: z.string().min(1) });
export type Sourced = z.infer<typeof Sourced>;
export const SourcedText = z.object({ text: z.string().min(1), source: z.enum(SOURCES), ref: z.string().min(1) });

export const DialRow = z.object({ ias: z.number(), correction: z.number() });
export const FlapRow = z.object({ upToKt: z.number().nullable(), maxFlapDeg: z.number(), reason: z.string() });

export const Gate = z.object({
  name: z.string().min(1),
  /** Above the field. */
  heightFt: z.number(),
  /** Along the path to the threshold. */
  distanceM: z.number(),
  /** In the dial's unit, at the reference mass. */
  speed: Sourced,
  flapDeg: z.number(),
  power: z.string().min(1),
  finalGate: z.boolean(),
  bankDeg: z.number(),
});
export type Gate = z.infer<typeof Gate>;

export const DistanceRow = z.object({ massKg: z.number(), pressureAltFt: z.number(), oatC: z.number(), groundRollM: z.number(), over50FtM: z.number() });

export const SEAT_CONTROLS = ['stick or wheel', 'rudder', 'brakes', 'throttle', 'mixture', 'flap', 'gear', 'trim', 'fuel', 'ignition', 'canopy or doors', 'airspeed indicator'] as const;

export const TypeSheet = z.object({
  schema: z.literal('type-sheet/1'),
  code: z.string().min(1),
  name: z.string().min(1),
  maker: z.string().min(1),
  summary: z.string().min(1),
  revision: z.string().min(1),
  dial: z.object({ unit: z.enum(['kt', 'mph']), table: z.array(DialRow), source: z.enum(SOURCES), ref: z.string() }),
  gear: z.object({
    layout: z.enum(['tailwheel', 'nosewheel']),
    retractable: z.boolean(),
    steerDeg: Sourced.nullable(),
    freeCaster: z.boolean(),
    brakes: z.string(),
    trackM: Sourced,
    wheelbaseM: Sourced,
  }),
  surface: z.enum(['land', 'sea', 'amphibian']),
  engine: z.object({
    count: z.number().int().min(1),
    powerHp: Sourced,
    propeller: z.enum(['fixed', 'constant-speed']),
    /** Foot that holds the nose straight as power comes on. */
    footOnPower: z.enum(['left', 'right']),
    usableFuelL: Sourced,
    flowLPerH: Sourced,
  }),
  seats: z.object({ count: z.number().int(), arrangement: z.enum(['side by side', 'tandem']) }),
  flapSteps: z.array(z.number()).min(1),
  masses: z.object({ maxTakeoffKg: Sourced, emptyKg: Sourced, maxBaggageKg: Sourced, refMassKg: z.number() }),
  wing: z.object({ areaM2: Sourced, spanM: Sourced, bestGlideRatio: Sourced }),
  speeds: z.object({
    vr: Sourced.nullable(), vx: Sourced, vy: Sourced, va: Sourced, bestGlide: Sourced, vno: Sourced, vne: Sourced,
    vfe: z.array(z.object({ flapDeg: z.number(), speed: Sourced })),
  }),
  /** Power off, 1 g, at the reference mass, in the dial's unit. */
  stalls: z.array(z.object({ flapDeg: z.number(), speed: Sourced })).min(1),
  approach: z.array(Gate).min(2),
  sanctionedMargin: z.object({ ratio: z.number(), source: z.string() }).nullable(),
  crosswind: z.object({ limitationKt: Sourced.nullable(), demonstratedKt: Sourced.nullable(), tailwindLimitKt: Sourced.nullable(), flapTable: z.array(FlapRow), flapTableSource: z.string().nullable() }),
  landing: z.object({ usualAttitude: z.enum(ATTITUDES), wheelLandings: z.enum(['allowed', 'advised against', 'not applicable']), aimPointM: Sourced }),
  distances: z.object({ takeoff: z.array(DistanceRow), landing: z.array(DistanceRow), ref: z.string() }).nullable(),
  instructorSeat: z.array(z.object({ control: z.enum(SEAT_CONTROLS), reach: z.enum(['reached', 'seen only', 'not reached']), note: z.string() })),
  exits: z.array(SourcedText).min(1),
  goAroundFlow: z.array(z.string()).min(1),
  handling: z.array(SourcedText),
});
export type TypeSheet = z.infer<typeof TypeSheet>;

/** One registration: what differs from its type. */
export const Airframe = z.object({
  schema: z.literal('airframe/1'),
  registration: z.string().min(1),
  typeCode: z.string().min(1),
  emptyKg: Sourced.nullable(),
  dialTable: z.array(DialRow).nullable(),
  crosswindLimitKt: Sourced.nullable(),
  flapTable: z.array(FlapRow).nullable(),
  flapTableSource: z.string().nullable(),
  modifications: z.array(z.object({ name: z.string(), effect: z.string(), source: z.enum(SOURCES), ref: z.string() })),
});
export type Airframe = z.infer<typeof Airframe>;

export const RunwayEndSchema = z.object({ ident: z.string(), trueBearingDeg: z.number() });
export const Aerodrome = z.object({
  ident: z.string(), name: z.string(), elevationFt: z.number(), variationDeg: z.number(), timeZone: z.string(),
  runways: z.array(z.object({ surface: z.string(), lengthM: z.number(), widthM: z.number(), ends: z.array(RunwayEndSchema).length(2) })),
});
export type Aerodrome = z.infer<typeof Aerodrome>;
