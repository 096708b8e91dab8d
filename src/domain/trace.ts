import { z } from 'zod';
import { LIMIT_CHANNELS } from './words';

const N = z.number();
const NN = z.number().nullable();

/** What an analysis is asked against: the field, the aeroplane, the gates. */
export const TraceContext = z.object({
  schema: z.literal('trace-context/1'),
  aerodrome: z.object({
    ident: z.string(),
    name: z.string(),
    elevationFt: N,
    magneticVariationDeg: N,
    utcOffsetMin: N,
    runways: z.array(
      z.object({
        id: z.string(),
        surface: z.string(),
        lengthM: N,
        widthM: N,
        ends: z
          .array(z.object({ ident: z.string(), thresholdLat: N, thresholdLon: N, elevationFt: N, trueBearingDeg: N }))
          .length(2),
      }),
    ),
  }),
  airframe: z.object({
    registration: z.string(),
    type: z.string(),
    asiUnit: z.enum(['kt', 'mph', 'km/h']),
    gear: z.enum(['fixed', 'retractable']),
    tailwheel: z.boolean(),
    engines: N,
    vs0Kt: NN,
    vs1Kt: NN,
    vrefKt: NN,
    limits: z.object({
      vneKt: NN,
      vfeKt: z.array(z.object({ flapDeg: N, kt: N })).nullable(),
      vloKt: NN,
      vleKt: NN,
      gPos: NN,
      gNeg: NN,
      rpmMax: NN,
      mapMaxInHg: NN,
      chtMaxC: NN,
    }),
  }),
  aimPointM: NN,
  slopeDeg: NN,
  gates: z.array(
    z.object({
      name: z.string(),
      distanceM: N.nullish(),
      heightFt: N.nullish(),
      targetIas: N,
      unit: z.enum(['kt', 'mph', 'km/h']),
    }),
  ),
});
export type TraceContext = z.infer<typeof TraceContext>;

const Confidence = z.number().min(0).max(1);
/** How far each measure may be off, one standard deviation in its own unit; null where that is not known. */
const Uncertainty = <K extends string>(...keys: K[]) =>
  z.object(Object.fromEntries(keys.map((k) => [k, NN])) as Record<K, typeof NN>).optional();
export const TraceEvent = z.object({
  kind: z.enum(['takeoff', 'landing', 'touch-and-go', 'stop-and-go', 'go-around', 'low-pass']),
  runway: z.string().nullable(),
  startS: N,
  endS: N,
  touchdown: z
    .object({
      tS: N,
      alongM: NN,
      lateralM: NN,
      iasKt: NN,
      gsKt: NN,
      sinkFpm: NN,
      crabDeg: NN,
      driftKt: NN,
      bounces: NN,
      peakG: NN,
      uncertainty: Uncertainty('tS', 'alongM', 'lateralM', 'iasKt', 'gsKt', 'sinkFpm', 'crabDeg', 'driftKt'),
    })
    .optional(),
  liftoff: z
    .object({ tS: N, alongM: NN, lateralM: NN, iasKt: NN, gsKt: NN, uncertainty: Uncertainty('tS', 'alongM') })
    .optional(),
  rollout: z.object({ swingDeg: NN, lateralM: NN, uncertainty: Uncertainty('swingDeg', 'lateralM') }).optional(),
  lowestHeightFt: NN.optional(),
  lowestS: NN.optional(),
  gates: z
    .array(z.object({ name: z.string(), tS: N, iasKt: NN, gsKt: NN, heightFt: NN, targetKt: NN, deviationKt: NN }))
    .optional(),
  confidence: Confidence,
});
export const TraceAirwork = z.object({
  kind: z.enum([
    'steep-turn',
    'slow-flight',
    'stall',
    'climb-reversal',
    'loop',
    'roll',
    'emergency-descent',
    'engine-out',
    'clearing-turn',
  ]),
  direction: z.enum(['left', 'right']).nullable(),
  startS: N,
  endS: N,
  maxBankDeg: NN,
  heightDeviationFt: z.object({ min: NN, max: NN }),
  speedDeviationKt: z.object({ min: NN, max: NN }),
  rolloutErrorDeg: NN,
  peakG: NN,
  heightLossFt: NN,
  confidence: Confidence,
});
export const TraceExceedance = z.object({
  channel: z.enum(LIMIT_CHANNELS),
  limit: N,
  unit: z.string(),
  peak: N,
  startS: N,
  durationS: N,
});
export const TraceWarning = z.object({ code: z.string(), message: z.string(), count: z.number().int() });
export const TraceAnalysis = z.object({
  schema: z.literal('trace-analysis/1'),
  source: z.object({
    format: z.enum(['csv', 'gpx', 'igc', 'kml', 'nmea']),
    rows: z.number().int(),
    rateHz: N,
    channels: z.array(z.string()),
    warnings: z.array(TraceWarning),
    /** Of a recording joined of several: each, and what it gives. */
    joined: z
      .array(
        z.object({
          name: z.string(),
          /** Its zero, seconds into the joined recording, and one sigma of that. */
          startS: N,
          sdS: N,
          /** By how much its clock is ahead, seconds; null where a clock has no date. */
          clockAheadS: NN,
          gives: z.array(z.string()),
        }),
      )
      .optional(),
  }),
  events: z.array(TraceEvent),
  airwork: z.array(TraceAirwork),
  exceedances: z.array(TraceExceedance),
});
export type TraceAnalysis = z.infer<typeof TraceAnalysis>;
/** One of the take-offs, landings and passes of a recording. */
export type FoundEvent = TraceAnalysis['events'][number];
export type TraceWarning = z.infer<typeof TraceWarning>;
