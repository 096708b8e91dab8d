import {
  type AirworkPlan,
  type Arrival,
  GOOD_SENSORS,
  type RecorderPlan,
  csvOf,
  flyCircuits,
  gpxOf,
  sense,
} from '@/core/recorder';
import { ktPerUnit } from '@/core/speeds';
import { traceContext } from '@/core/trace';
import type { CapturedLanding } from '@/domain/capture';
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import { type LessonPlan, lessonEvents } from './flights';
import { seeded } from './random';

interface Where {
  aerodrome: Aerodrome;
  sheet: TypeSheet;
  registration: string;
  windTrueDeg: number;
  windKt: number;
}
const HALF_STOP_S = 10;
/** The tablet's clock is ahead of the panel's. */
const TABLET_AHEAD_S = 43;

/** Flies a lesson as it was tapped, more or less, and records it: the file, and when each landing ended. */
export function recordedFlight(
  by: 'panel' | 'tablet',
  plan: LessonPlan,
  where: Where,
): {
  name: string;
  text: string;
  times: NonNullable<LessonPlan['times']>;
  /** The same flight by a tablet whose clock is ahead. */
  beside: { name: string; text: string };
} {
  const random = seeded(plan.seed + 17);
  const { sheet } = where;
  const kt = (x: number) => x * ktPerUnit(sheet.dial.unit);
  const context = traceContext(where.aerodrome, sheet, where.registration, [], 0);
  const runway = context.aerodrome.runways.find((r) => r.ends.some((e) => e.ident === plan.runwayEnd));
  const end = runway?.ends.find((e) => e.ident === plan.runwayEnd);
  const other = runway?.ends.find((e) => e.ident !== plan.runwayEnd);
  if (!runway || !end || !other) throw new Error(`no runway ${plan.runwayEnd}`);
  const tapped = lessonEvents(plan)
    .filter((e) => e.type === 'landing-saved')
    .map((e) => e.payload as CapturedLanding);
  const arrivals = tapped.map((l, i) =>
    arrivalOf(l, i === tapped.length - 1, {
      aimM: sheet.landing.aimPointM.value,
      touchKt: kt(sheet.stalls[0]?.speed.value ?? 40) * 1.12,
      fastKt: (kt((l.fenceSpeed ?? plan.fenceTarget) - plan.fenceTarget) * 200) / (sheet.landing.aimPointM.value + 55),
      random,
    }),
  );
  // The speed falls over the last two hundred metres: at the fence it is part of the way from this to the touch.
  const final = kt(plan.fenceTarget + 5);
  const airwork: AirworkPlan[] = [
    { kind: 'clearing-turn', direction: 'left' },
    { kind: 'steep-turn', direction: 'left', heightErrorFt: 60, overshootDeg: 4 },
    { kind: 'steep-turn', direction: 'right', heightErrorFt: -130, overshootDeg: 12, bankDeg: 4 },
    { kind: 'emergency-descent', direction: 'left', speedKt: kt(sheet.speeds.vne.value) + 5 },
  ];
  const recorder: RecorderPlan = {
    runway: {
      ident: end.ident,
      thresholdLat: end.thresholdLat,
      thresholdLon: end.thresholdLon,
      trueBearingDeg: end.trueBearingDeg,
      lengthM: runway.lengthM,
      elevationFt: end.elevationFt,
      riseFt: other.elevationFt - end.elevationFt,
    },
    windFromDeg: where.windTrueDeg,
    windKt: where.windKt,
    speeds: {
      liftOff: kt(sheet.stalls[0]?.speed.value ?? 40) * 1.15,
      climb: kt(sheet.speeds.vy.value),
      downwind: final + 6,
      base: final + 3,
      final,
    },
    circuitFt: where.aerodrome.circuitHeightFt,
    slopeDeg: 4.5,
    side: 'left',
    arrivals,
    ...(plan.items.some((i) => i.itemId.startsWith('also:'))
      ? {
          airwork: {
            heightFt: 3200,
            items: airwork,
            speeds: {
              cruise: final + 20,
              vs1: kt(sheet.stalls[0]?.speed.value ?? 40),
              glide: kt(sheet.speeds.bestGlide.value),
            },
          },
        }
      : {}),
  };
  const flown = flyCircuits(recorder);
  const start = Date.parse(plan.startedAt);
  const tablet = { ...GOOD_SENSORS, rateHz: 1, wanderM: 1.8, noiseM: 0.5, heightErrorFt: 150, heightNoiseFt: 4 };
  const rows = sense(
    flown,
    recorder.runway,
    by === 'panel' ? { ...GOOD_SENSORS, rateHz: 5, wanderM: 0.4, noiseM: 0.1 } : tablet,
    random,
  );
  const besides = sense(flown, recorder.runway, tablet, seeded(plan.seed + 18));
  const ended = flown.events
    .slice(1)
    .map((e) => start + ((e.touchdownS ?? e.lowestS ?? 0) + (e.touchdownS === null ? 25 : HALF_STOP_S + 12)) * 1000);
  const turns = flown.airwork.filter((a) => a.kind === 'steep-turn').map((a) => start + a.endS * 1000 + 9000);
  return {
    name:
      by === 'panel'
        ? `${where.registration}-${plan.startedAt.slice(0, 10)}.csv`
        : `tablet-${plan.startedAt.slice(0, 10)}.gpx`,
    text: by === 'panel' ? csvOf(rows, start, true, 'panel') : gpxOf(rows, start),
    beside: {
      name: `tablet-${plan.startedAt.slice(0, 10)}.gpx`,
      text: gpxOf(besides, start + TABLET_AHEAD_S * 1000),
    },
    times: {
      landings: ended,
      items: plan.items.map((item, i) =>
        item.itemId.startsWith('also:')
          ? (turns[i - plan.items.length + turns.length] ?? start)
          : start - (plan.items.length - i) * 60_000,
      ),
    },
  };
}

const LATERAL: Record<string, number> = {
  'beyond-left': -2.6,
  'wheel-left': -1.3,
  line: 0,
  'wheel-right': 1.3,
  'beyond-right': 2.6,
};
const side = (v: { band: string; side: string | null } | null, slight: number, marked: number): number =>
  !v || v.band === 'none'
    ? 0
    : (v.side === 'left' ? -1 : 1) * (v.band === 'slight' || v.band === 'small' ? slight : marked);

/** What the recorder flies for a tapped landing: about what the eye saw, as exactly as an eye is. */
function arrivalOf(
  l: CapturedLanding,
  last: boolean,
  c: { aimM: number; touchKt: number; fastKt: number; random: () => number },
): Arrival {
  const about = (x: number, by: number) => x + (c.random() - 0.5) * 2 * by;
  return {
    end: l.kind === 'go-around' ? 'go-around' : last ? 'full-stop' : 'stop-and-go',
    alongM: about(c.aimM + (l.along === 'long' ? 160 : 55), 35),
    lateralM: about(LATERAL[l.lateral ?? 'line'] ?? 0, 0.5),
    crabDeg: about(side(l.crab, 3, 7), 1),
    driftKt: about(side(l.drift, 1.3, 3), 0.3),
    sinkFpm: about(l.firmness === 'firm' ? 290 : l.firmness === 'soft' ? 90 : 170, 40),
    bounces: l.bounce?.count ?? 0,
    swingDeg: about(side(l.swing, 6, 13), 1.5),
    touchKt: c.touchKt,
    lowestFt: about(90, 40),
    fastKt: c.fastKt,
  };
}
