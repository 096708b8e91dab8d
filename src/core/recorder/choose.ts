/**
 * From a chosen aeroplane, wind and pilot errors to a plan the recorder flies; and what was flown, as a truth to hold
 * an analysis against.
 */
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import type { TraceContext } from '@/domain/trace';
import { ktPerUnit } from '../speeds';
import { traceContext } from '../trace/context';
import type { AirworkKind, AirworkPlan } from './airwork';
import type { Arrival, Flown, RecorderPlan } from './fly';
import { GOOD_SENSORS, type Sensors } from './sense';

/** Faults a pilot can be given, in the order they show in a landing. */
export const PILOT_ERRORS = [
  'plateau-speed',
  'left-bias',
  'early-alignment',
  'late-round-out',
  'over-control',
  'flap-over-limit',
  'long-float',
] as const;
export type PilotError = (typeof PILOT_ERRORS)[number];
export const ERROR_NAME: Record<PilotError, string> = {
  'plateau-speed': 'speed does not fall on final',
  'left-bias': 'left of the line',
  'early-alignment': 'nose straight too early',
  'late-round-out': 'late flare',
  'over-control': 'over-controls',
  'flap-over-limit': 'flap above its limit',
  'long-float': 'floats long',
};
export const ARRIVAL_KINDS = ['touch-and-go', 'stop-and-go', 'go-around', 'low-pass', 'full-stop'] as const;
export const SENSOR_SETS = ['panel', 'tablet', 'poor'] as const;
export type SensorSet = (typeof SENSOR_SETS)[number];
export interface RecorderChoices {
  runwayEnd: string;
  windFromDeg: number;
  windKt: number;
  side: 'left' | 'right';
  arrivals: readonly Arrival['end'][];
  airwork: readonly AirworkKind[];
  errors: readonly PilotError[];
  rateHz: number;
  sensors: SensorSet;
}

/** @returns rates in Hz, noise in metres, feet and knots of one device */
export const sensorsOf = (c: Pick<RecorderChoices, 'sensors' | 'rateHz'>): Sensors => ({
  ...GOOD_SENSORS,
  rateHz: c.rateHz,
  ...(c.sensors === 'tablet'
    ? { wanderM: 1.8, noiseM: 0.5, heightErrorFt: 150, heightNoiseFt: 4 }
    : c.sensors === 'poor'
      ? { wanderM: 2.5, noiseM: 0.5, heightErrorFt: -90, heightNoiseFt: 5, iasNoiseKt: 1, iasLagS: 1 }
      : {}),
});

/**
 * A plan for the recorder, and the context of an analysis of it. @param random uniform numbers from 0 to 1 @returns
 * null when the runway is not one of the field's
 */
export function planFor(
  sheet: TypeSheet,
  registration: string,
  aerodrome: Aerodrome,
  c: RecorderChoices,
  random: () => number,
): { plan: RecorderPlan; context: TraceContext } | null {
  const kt = (x: number) => x * ktPerUnit(sheet.dial.unit);
  const fence = sheet.approach[sheet.approach.length - 1];
  const context = traceContext(
    aerodrome,
    sheet,
    registration,
    sheet.approach.map((g) => ({ name: g.name, distanceM: g.distanceM, target: g.speed.value })),
    0,
  );
  const runway = context.aerodrome.runways.find((r) => r.ends.some((e) => e.ident === c.runwayEnd));
  const end = runway?.ends.find((e) => e.ident === c.runwayEnd);
  const other = runway?.ends.find((e) => e.ident !== c.runwayEnd);
  if (!runway || !end || !other || !fence) return null;
  const stall = kt(Math.min(...sheet.stalls.map((s) => s.speed.value)));
  const clean = kt(sheet.stalls[0]?.speed.value ?? 50);
  const has = (e: PilotError) => c.errors.includes(e);
  const touchKt = stall * 1.1;
  const final = Math.max(touchKt + 4, kt(fence.speed.value) + 4);
  const about = (x: number, by: number) => x + (random() - 0.5) * 2 * by;
  const arrivals = [...c.arrivals.filter((a) => a !== 'full-stop'), 'full-stop' as const].map((kind): Arrival => ({
    end: kind,
    alongM: Math.min(
      runway.lengthM * 0.45,
      about(sheet.landing.aimPointM.value + (has('long-float') ? 190 : has('plateau-speed') ? 130 : 55), 30),
    ),
    lateralM: about(has('left-bias') ? -2.4 : 0, 0.7),
    crabDeg: has('early-alignment') ? about(0, 0.5) : about(1.5, 2),
    driftKt: has('early-alignment')
      ? about(Math.sin(((end.trueBearingDeg - c.windFromDeg) * Math.PI) / 180) * Math.min(4, c.windKt * 0.3), 0.3)
      : about(0, 0.3),
    sinkFpm: about(has('late-round-out') ? 380 : 150, 40),
    bounces: has('late-round-out') ? 1 + Math.round(random()) : 0,
    swingDeg: about(0, has('over-control') ? 14 : 3),
    touchKt: touchKt + (has('plateau-speed') ? 4 : 0),
    lowestFt: kind === 'low-pass' ? about(45, 15) : about(90, 50),
    fastKt: has('plateau-speed') ? 8 : 0,
    weaveM: has('over-control') ? 5 : 0,
  }));
  const flap = Math.max(...sheet.flapSteps);
  const vfe = sheet.speeds.vfe[sheet.speeds.vfe.length - 1];
  const cruise = kt(sheet.powerTable.find((p) => p.phase === 'Level')?.ias?.value ?? sheet.speeds.vy.value * 1.35);
  const downwind = has('flap-over-limit') && vfe ? Math.max(final + 10, kt(vfe.speed.value) + 7) : final + 10;
  return {
    context,
    plan: {
      runway: {
        ident: end.ident,
        thresholdLat: end.thresholdLat,
        thresholdLon: end.thresholdLon,
        trueBearingDeg: end.trueBearingDeg,
        lengthM: runway.lengthM,
        elevationFt: end.elevationFt,
        riseFt: other.elevationFt - end.elevationFt,
      },
      windFromDeg: c.windFromDeg,
      windKt: c.windKt,
      speeds: { liftOff: clean * 1.12, climb: kt(sheet.speeds.vy.value), downwind, base: final + 5, final },
      circuitFt: aerodrome.circuitHeightFt,
      slopeDeg: 4.5,
      side: c.side,
      arrivals,
      configuration: {
        flapDeg: flap,
        flapAtM: has('flap-over-limit') ? 5200 : 1800,
        gearAtM: sheet.gear.retractable ? 3600 : null,
        rpm: { climb: 2500, cruise: 2300, approach: 1600, idle: 900 },
      },
      ...(c.airwork.length > 0
        ? {
            airwork: {
              heightFt: 3500,
              items: c.airwork.map((kind): AirworkPlan => ({
                kind,
                direction: random() < 0.5 ? 'left' : 'right',
                heightErrorFt: has('over-control') ? about(0, 160) : about(0, 50),
                overshootDeg: has('over-control') ? about(0, 18) : about(0, 4),
              })),
              speeds: { cruise, vs1: clean, glide: kt(sheet.speeds.bestGlide.value) },
            },
          }
        : {}),
    },
  };
}

/**
 * What was flown, beside the file: kinds, moments and places, in seconds of the flight.
 * @returns seconds of the flight, metres from the threshold
 */
export const truthOf = (flown: Flown): { schema: 'flown/1'; events: Flown['events']; airwork: Flown['airwork'] } => ({
  schema: 'flown/1',
  events: flown.events,
  airwork: flown.airwork,
});
