/**
 * The recorder's own trial: four dozen flights of every kind of arrival and airwork, on five fields (one past the 180°
 * meridian, one in the south, one on water), in calm and in wind, through good and poor sensors at 1 to 10 Hz, with air
 * data and without. The same for the same number, always.
 */
import type { TraceContext } from '@/domain/trace';
import type { AirworkKind, AirworkPlan } from './airwork';
import { type Arrival, type Configuration, type RecorderPlan, type RecorderRunway } from './fly';
import { GOOD_SENSORS, type Sensors, type TableStyle, onEarth } from './sense';

export interface SuiteFlight {
  name: string;
  plan: RecorderPlan;
  context: TraceContext;
  sensors: Sensors;
  format: 'csv' | 'gpx' | 'igc';
  style: TableStyle;
  airData: boolean;
  startUtcMs: number;
  seed: number;
}

interface Field {
  ident: string;
  surface: string;
  widthM: number;
  other: string;
  runway: RecorderRunway;
}
const FIELDS: readonly Field[] = [
  {
    ident: 'ZPAV',
    surface: 'asphalt',
    widthM: 18,
    other: '04',
    runway: {
      ident: '22',
      thresholdLat: 41.5,
      thresholdLon: -6.7,
      trueBearingDeg: 218,
      lengthM: 900,
      elevationFt: 1345,
    },
  },
  {
    ident: 'ZPAV',
    surface: 'grass',
    widthM: 25,
    other: '29',
    runway: {
      ident: '11',
      thresholdLat: 41.498,
      thresholdLon: -6.706,
      trueBearingDeg: 108,
      lengthM: 620,
      elevationFt: 1345,
    },
  },
  {
    ident: 'ZMER',
    surface: 'asphalt',
    widthM: 30,
    other: '27',
    runway: {
      ident: '09',
      thresholdLat: -17.2,
      thresholdLon: 179.995,
      trueBearingDeg: 92,
      lengthM: 1100,
      elevationFt: 30,
    },
  },
  {
    ident: 'ZSUL',
    surface: 'gravel',
    widthM: 20,
    other: '17',
    runway: {
      ident: '35',
      thresholdLat: -44.1,
      thresholdLon: 170.2,
      trueBearingDeg: 8,
      lengthM: 800,
      elevationFt: 2100,
    },
  },
  {
    ident: 'ZPAV',
    surface: 'water',
    widthM: 60,
    other: '18W',
    runway: {
      ident: '36W',
      thresholdLat: 41.52,
      thresholdLon: -6.68,
      trueBearingDeg: 358,
      lengthM: 1400,
      elevationFt: 1299,
    },
  },
];
interface Craft {
  type: string;
  vs0: number;
  vs1: number;
  gear: 'fixed' | 'retractable';
  vne: number;
  vfe: { flapDeg: number; kt: number }[];
  vle: number | null;
  gPos: number;
  rpmMax: number;
  speeds: RecorderPlan['speeds'];
  cruise: number;
  glide: number;
  touch: number;
  configuration: Configuration;
  slopeDeg: number;
}
const RPM = { climb: 2500, cruise: 2300, approach: 1600, idle: 900 };
const CRAFTS: readonly Craft[] = [
  {
    type: 'light-tailwheel',
    vs0: 38,
    vs1: 40,
    gear: 'fixed',
    vne: 120,
    vfe: [],
    vle: null,
    gPos: 3.8,
    rpmMax: 2600,
    speeds: { liftOff: 48, climb: 60, downwind: 65, base: 60, final: 55 },
    cruise: 75,
    glide: 58,
    touch: 44,
    configuration: { flapDeg: 0, flapAtM: 1500, gearAtM: null, rpm: RPM },
    slopeDeg: 4.5,
  },
  {
    type: 'retractable-single',
    vs0: 55,
    vs1: 61,
    gear: 'retractable',
    vne: 180,
    vfe: [
      { flapDeg: 10, kt: 120 },
      { flapDeg: 25, kt: 105 },
    ],
    vle: 125,
    gPos: 3.8,
    rpmMax: 2700,
    speeds: { liftOff: 65, climb: 90, downwind: 100, base: 85, final: 75 },
    cruise: 125,
    glide: 85,
    touch: 64,
    configuration: { flapDeg: 25, flapAtM: 2200, gearAtM: 3600, rpm: { ...RPM, climb: 2650, cruise: 2400 } },
    slopeDeg: 3.5,
  },
  {
    type: 'aerobatic-tailwheel',
    vs0: 46,
    vs1: 48,
    gear: 'fixed',
    vne: 175,
    vfe: [],
    vle: null,
    gPos: 6,
    rpmMax: 2750,
    speeds: { liftOff: 55, climb: 75, downwind: 80, base: 72, final: 65 },
    cruise: 105,
    glide: 70,
    touch: 53,
    configuration: { flapDeg: 0, flapAtM: 1500, gearAtM: null, rpm: RPM },
    slopeDeg: 4.5,
  },
];
const KINDS: readonly Arrival['end'][] = ['touch-and-go', 'go-around', 'low-pass', 'touch-and-go', 'stop-and-go'];
const SETS: readonly (readonly AirworkKind[])[] = [
  [],
  ['clearing-turn', 'steep-turn', 'steep-turn'],
  [],
  ['clearing-turn', 'slow-flight', 'stall'],
  ['climb-reversal', 'engine-out'],
  [],
  ['emergency-descent', 'steep-turn', 'clearing-turn', 'stall'],
  ['loop', 'roll', 'climb-reversal'],
];
const RATES: readonly number[] = [5, 1, 10, 2, 4, 1, 8, 5];

/** Context of a flight: its field, its aeroplane, a gate at 700 m and one at 300 ft. */
function contextFor(f: Field, c: Craft): TraceContext {
  const end = onEarth(f.runway, f.runway.lengthM, 0);
  return {
    schema: 'trace-context/1',
    aerodrome: {
      ident: f.ident,
      name: f.ident,
      elevationFt: f.runway.elevationFt,
      magneticVariationDeg: -2,
      utcOffsetMin: 60,
      runways: [
        {
          id: `${f.runway.ident}/${f.other}`,
          surface: f.surface,
          lengthM: f.runway.lengthM,
          widthM: f.widthM,
          ends: [
            {
              ident: f.runway.ident,
              thresholdLat: f.runway.thresholdLat,
              thresholdLon: f.runway.thresholdLon,
              elevationFt: f.runway.elevationFt,
              trueBearingDeg: f.runway.trueBearingDeg,
            },
            {
              ident: f.other,
              thresholdLat: end.lat,
              thresholdLon: end.lon,
              elevationFt: f.runway.elevationFt,
              trueBearingDeg: (f.runway.trueBearingDeg + 180) % 360,
            },
          ],
        },
      ],
    },
    airframe: {
      registration: 'ZP-SIM',
      type: c.type,
      asiUnit: 'kt',
      gear: c.gear,
      tailwheel: c.gear === 'fixed',
      engines: 1,
      vs0Kt: c.vs0,
      vs1Kt: c.vs1,
      vrefKt: c.speeds.final,
      limits: {
        vneKt: c.vne,
        vfeKt: c.vfe.length ? c.vfe : null,
        vloKt: c.vle === null ? null : c.vle - 5,
        vleKt: c.vle,
        gPos: c.gPos,
        gNeg: -1.5,
        rpmMax: c.rpmMax,
        mapMaxInHg: null,
        chtMaxC: null,
      },
    },
    aimPointM: 100,
    slopeDeg: c.slopeDeg,
    gates: [
      { name: '700 m', distanceM: 700, targetIas: c.speeds.final, unit: 'kt' },
      { name: '300 ft', heightFt: 300, targetIas: c.speeds.final, unit: 'kt' },
    ],
  };
}

/**
 * One flight of the trial. @param random uniform numbers from 0 to 1, seeded by the flight's number
 * @returns the flown rows, the file and its context
 */
export function suiteFlight(k: number, random: () => number): SuiteFlight {
  const field = FIELDS[k % FIELDS.length] as Field;
  const items = SETS[k % SETS.length] ?? [];
  const craft = CRAFTS[items.includes('loop') ? 2 : k % 3] as Craft;
  const rateHz = RATES[(k * 3 + Math.floor(k / 8)) % RATES.length] ?? 5;
  // Without air data what is told by speed, attitude or load cannot be found: such flights fly turns only.
  const airData = k % 3 !== 1 || (items.length > 0 && k % 8 !== 1);
  const format = k % 7 === 3 && items.length === 0 ? 'gpx' : k % 7 === 5 && items.length === 0 ? 'igc' : 'csv';
  const poor = k % 4 === 2;
  const one = (end: Arrival['end']): Arrival => ({
    end,
    alongM: 60 + random() * Math.min(200, field.runway.lengthM * 0.25),
    lateralM: (random() - 0.5) * 5,
    crabDeg: (random() - 0.5) * 8,
    sinkFpm: 80 + random() * 250,
    bounces: random() < 0.25 ? 1 : 0,
    swingDeg: (random() - 0.5) * 14,
    touchKt: craft.touch,
    lowestFt: end === 'go-around' ? (random() < 0.2 ? 0.5 : 15 + random() * 150) : 14 + random() * 60,
    fastKt: random() < 0.2 ? 8 : 0,
    driftKt: random() < 0.2 ? (random() - 0.5) * 6 : 0,
    weaveM: random() < 0.2 ? 4 : 0,
  });
  const count = items.length > 0 ? 2 : 4;
  const plan: RecorderPlan = {
    runway: field.runway,
    windFromDeg: field.runway.trueBearingDeg + (random() - 0.5) * 120,
    windKt: random() * 14,
    speeds: craft.speeds,
    circuitFt: 1000,
    slopeDeg: craft.slopeDeg,
    side: random() < 0.5 ? 'left' : 'right',
    arrivals: [
      ...Array.from({ length: count }, () => one(KINDS[Math.floor(random() * KINDS.length)] ?? 'touch-and-go')),
      one('full-stop'),
    ],
    configuration: craft.configuration,
    fastTaxi: k % 5 === 0,
    ...(items.length
      ? {
          airwork: {
            heightFt: 3500,
            items: items.map((kind): AirworkPlan => ({
              kind,
              direction: random() < 0.5 ? 'left' : 'right',
              heightErrorFt: (random() - 0.5) * 160,
              overshootDeg: (random() - 0.5) * 24,
              bankDeg: (random() - 0.5) * 8,
            })),
            speeds: { cruise: craft.cruise, vs1: craft.vs1, glide: craft.glide },
          },
        }
      : {}),
  };
  // Flap at a speed too high, in every sixth flight of those that have it.
  if (craft.vfe.length > 0 && k % 2 === 1) plan.configuration = { ...craft.configuration, flapAtM: 5200 };
  const sensors: Sensors = {
    ...GOOD_SENSORS,
    rateHz,
    ...(poor ? { wanderM: 2.5, noiseM: 0.5, heightNoiseFt: 5, heightErrorFt: -90, iasNoiseKt: 1, iasLagS: 1 } : {}),
  };
  return {
    name: `${String(k + 1).padStart(2, '0')}-${field.surface}-${craft.type}-${rateHz}hz-${airData ? 'air' : 'position'}`,
    plan,
    context: contextFor(field, craft),
    sensors,
    format: airData ? 'csv' : format,
    style: (['plain', 'metric', 'panel'] as const)[k % 3] ?? 'plain',
    airData,
    startUtcMs: Date.UTC(2026, 10, 24, 22, 50) + k * 3_600_000,
    seed: 1000 + k,
  };
}
export const SUITE_SIZE = 48;
