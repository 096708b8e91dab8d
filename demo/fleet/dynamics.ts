/**
 * What the models of ground, touch, slip and slow approach work with, type by type. Inertias by radii of gyration usual
 * for the class, tyres by their load, the rest as a school would measure it; invented, like the aeroplanes.
 */
import type { Dynamics } from '@/domain/sheet';
import { type TypeSheet } from '@/domain/sheet';
import { h, measured, note } from './helpers';

interface Row {
  mainsAheadM: number;
  cgHeightM: number;
  /** Cornering stiffness for each newton on the wheel, a radian. */
  tyre: [mains: number, third: number];
  fin: [areaM2: number, armM: number];
  rudder: [effectiveness: number, travelDeg: number];
  body: [areaM2: number, aheadM: number];
  turns: Dynamics['propellerTurns'];
  /** Turns at take-off power, its inertia, share of the tail in the wash. */
  propeller: [rpm: number, inertiaKgM2: number, finInWash: number];
  gear: [strokeM: number, efficiency: number, restitution: number];
  firmness?: [verySoft: number, normal: number, firm: number, hard: number];
  slip: [maxDeg: number, sideForce: number, drag: number, aileron: number];
  low: [name: string, heightM: number, outM: number][];
  notes?: [text: string, section: string][];
  slow: [powerLift: number, elevatorG: number];
}
const ROWS: Record<string, Row> = {
  'alvor-c1': {
    mainsAheadM: -0.22,
    cgHeightM: 1.05,
    tyre: [8, 7],
    fin: [1.25, 4],
    rudder: [0.5, 24],
    body: [5.2, 0.15],
    turns: 'clockwise',
    propeller: [2450, 1.2, 0.5],
    gear: [0.17, 0.5, 0.5],
    slip: [15, -0.4, 0.5, 0.45],
    low: [['wing tip', 2.2, 4.9]],
    notes: [['Fuel may run to the high tank in a long slip: not below half tanks.', '4.6']],
    slow: [0.8, 1.7],
  },
  'alvor-c4g': {
    mainsAheadM: -0.24,
    cgHeightM: 1,
    tyre: [8, 7],
    fin: [1.5, 4.4],
    rudder: [0.5, 25],
    body: [5.8, 0.2],
    turns: 'clockwise',
    propeller: [2700, 1.9, 0.5],
    gear: [0.16, 0.5, 0.55],
    slip: [15, -0.42, 0.45, 0.5],
    low: [['wing tip', 1.35, 5.5]],
    notes: [
      ['Slips with full flap: not above 96 kt.', '4.6'],
      ['The low tank is the one that feeds: select the high wing before a long slip.', '4.6'],
    ],
    slow: [0.9, 1.65],
  },
  'serrana-urze': {
    mainsAheadM: 0.43,
    cgHeightM: 1.05,
    tyre: [8.4, 3.2],
    fin: [1.15, 4.1],
    rudder: [0.6, 30],
    body: [4.6, 0.2],
    turns: 'clockwise',
    propeller: [2350, 1.1, 0.6],
    gear: [0.17, 0.5, 0.6],
    slip: [16, -0.45, 0.55, 0.55],
    low: [['wing tip', 1.95, 5.35]],
    notes: [['The indicator under-reads in a left slip: fly the attitude.', '4.6']],
    slow: [1, 1.6],
  },
  'serrana-esteva': {
    mainsAheadM: 0.5,
    cgHeightM: 1.25,
    tyre: [6.4, 3],
    fin: [1.6, 4.3],
    rudder: [0.58, 27],
    body: [5.2, 0.2],
    turns: 'clockwise',
    propeller: [2600, 1.7, 0.6],
    gear: [0.26, 0.5, 0.5],
    firmness: [60, 200, 420, 660],
    slip: [17, -0.48, 0.6, 0.5],
    low: [['wing tip', 2.2, 5.4]],
    notes: [['Slips with more than flap 30: the tail buffets; ease the rudder.', '4.6']],
    slow: [1.2, 1.45],
  },
  'serrana-carvalho': {
    mainsAheadM: 0.52,
    cgHeightM: 1.2,
    tyre: [7.6, 3.4],
    fin: [1.75, 5],
    rudder: [0.55, 25],
    body: [7, 0.25],
    turns: 'clockwise',
    propeller: [2600, 2.4, 0.55],
    gear: [0.2, 0.5, 0.7],
    slip: [13, -0.42, 0.5, 0.6],
    low: [['wing tip', 2.3, 5.47]],
    notes: [
      ['Slips with flap beyond 30: avoid, the tail may pitch down.', '4.6'],
      ['The airspeed indicator errs by up to 8 kt in a full slip.', '5.3'],
    ],
    slow: [1.1, 1.55],
  },
  'lume-faisca': {
    mainsAheadM: 0.36,
    cgHeightM: 1,
    tyre: [8.6, 3.4],
    fin: [0.95, 3.6],
    rudder: [0.55, 30],
    body: [4, 0.15],
    turns: 'clockwise',
    propeller: [2700, 1.9, 0.65],
    gear: [0.15, 0.5, 0.65],
    slip: [17, -0.5, 0.7, 0.5],
    low: [['lower wing tip', 1.05, 3.35]],
    slow: [0.9, 1.8],
  },
  'bronze-b6': {
    mainsAheadM: 0.62,
    cgHeightM: 1.7,
    tyre: [8, 3.4],
    fin: [2.5, 5.2],
    rudder: [0.55, 28],
    body: [9.5, 0.3],
    turns: 'clockwise',
    propeller: [2000, 9, 0.55],
    gear: [0.26, 0.75, 0.25],
    slip: [13, -0.45, 0.5, 0.6],
    low: [['wing tip', 1.75, 6.4]],
    notes: [['In a slip the indicated speed is of no use: attitude and sound.', '4.6']],
    slow: [1, 1.6],
  },
  'bronze-b15': {
    mainsAheadM: 0.72,
    cgHeightM: 1.9,
    tyre: [8.4, 3.4],
    fin: [2.4, 5.6],
    rudder: [0.52, 28],
    body: [10, 0.35],
    turns: 'clockwise',
    propeller: [1450, 42, 0.55],
    gear: [0.3, 0.8, 0.2],
    slip: [12, -0.42, 0.45, 0.55],
    low: [['wing tip', 1.9, 5.65]],
    slow: [1.2, 1.6],
  },
  'planalto-p1r': {
    mainsAheadM: -0.26,
    cgHeightM: 1.05,
    tyre: [8, 7],
    fin: [1.55, 4.1],
    rudder: [0.5, 26],
    body: [5.6, 0.2],
    turns: 'clockwise',
    propeller: [2700, 1.9, 0.5],
    gear: [0.2, 0.75, 0.3],
    slip: [14, -0.42, 0.45, 0.5],
    low: [['wing tip', 1.3, 5.4]],
    notes: [['Not longer than 30 s on the tank in the low wing.', '4.6']],
    slow: [0.9, 1.65],
  },
  'planalto-p2': {
    mainsAheadM: -0.3,
    cgHeightM: 1.15,
    tyre: [8, 7],
    fin: [2.5, 4.8],
    rudder: [0.5, 28],
    body: [6.8, 0.25],
    turns: 'opposite ways',
    propeller: [2700, 1.8, 0.1],
    gear: [0.22, 0.75, 0.3],
    slip: [14, -0.48, 0.5, 0.5],
    low: [
      ['wing tip', 1.5, 6.7],
      ['propeller of the nacelle', 0.26, 2.75],
    ],
    slow: [1.3, 1.7],
  },
  'orla-mare': {
    mainsAheadM: -0.5,
    cgHeightM: 1.5,
    tyre: [8, 6],
    fin: [3, 5],
    rudder: [0.52, 28],
    body: [11, 0.3],
    turns: 'opposite ways',
    propeller: [2300, 3.4, 0.1],
    gear: [0.22, 0.7, 0.3],
    slip: [10, -0.55, 0.6, 0.6],
    low: [
      ['wing tip', 2.4, 7.1],
      ['float', 1.05, 5.9],
    ],
    notes: [['Slips with full flap: not approved.', '4.6']],
    slow: [1.3, 1.6],
  },
};

const G = 9.81;
/** Radius of gyration over half the mean of span and length, half the length, and half the span. */
const GYRATION = { yaw: 0.36, pitch: 0.37, roll: 0.25 };
const hundreds = (n: number): number => Math.round(n / 100) * 100;

/** The numbers of one type; what has none on purpose is left as it is. */
export function withDynamics(sheet: TypeSheet): TypeSheet {
  const row = ROWS[sheet.code];
  const lengthM = sheet.geometry.lengthM?.value;
  if (!row || lengthM === undefined) throw new Error(`no dynamics for ${sheet.code}`);
  const { refMassKg: m } = sheet.masses;
  const base = sheet.gear.wheelbaseM.value;
  const onThird = Math.abs(row.mainsAheadM) / base;
  const swung = (value: number) => measured(value, 'estimated from weighed parts, 2026');
  const test = (value: number) => measured(value, 'School flight test, May 2026');
  const tyres = (value: number) => measured(hundreds(value), 'from tyre size, load and pressure');
  return {
    ...sheet,
    dynamics: {
      yawInertiaKgM2: swung(Math.round((m * ((GYRATION.yaw * (sheet.wing.spanM.value + lengthM)) / 4) ** 2) / 10) * 10),
      pitchInertiaKgM2: swung(Math.round((m * ((GYRATION.pitch * lengthM) / 2) ** 2) / 10) * 10),
      mainsAheadM: measured(row.mainsAheadM, 'weighing report, usual load'),
      cgHeightM: swung(row.cgHeightM),
      corneringMainsNPerRad: tyres(m * G * (1 - onThird) * row.tyre[0]),
      corneringThirdNPerRad: tyres(m * G * onThird * row.tyre[1]),
      finAreaM2: h(row.fin[0], '1.2'),
      finArmM: measured(row.fin[1], 'tape, hangar floor'),
      finLiftSlopePerRad: swung(2.6),
      rudderEffectiveness: swung(row.rudder[0]),
      rudderMaxDeg: h(row.rudder[1], '7.3'),
      bodySideAreaM2: measured(row.body[0], 'drawing, side view'),
      bodySideSlopePerRad: swung(0.25),
      bodyCentreAheadM: measured(row.body[1], 'drawing, side view'),
      propellerTurns: row.turns,
      propellerRpm: h(row.propeller[0], '1.3'),
      propellerInertiaKgM2: swung(row.propeller[1]),
      finInWash: measured(row.propeller[2], 'tufts, filmed from behind, 2026'),
      rollInertiaKgM2: swung(Math.round((m * ((GYRATION.roll * sheet.wing.spanM.value) / 2) ** 2) / 10) * 10),
      gearStrokeM: h(row.gear[0], '7.2'),
      gearEfficiency: swung(row.gear[1]),
      gearRestitution: measured(row.gear[2], 'filmed touches, 2026'),
      firmnessFpm: row.firmness
        ? {
            verySoft: row.firmness[0],
            normal: row.firmness[1],
            firm: row.firmness[2],
            hard: row.firmness[3],
            source: 'handbook',
            ref: 'Handbook 8.3',
          }
        : null,
      sideslipMaxDeg: test(row.slip[0]),
      sideForcePerRad: test(row.slip[1]),
      slipDrag: test(row.slip[2]),
      aileronInSlip: test(row.slip[3]),
      lowParts: row.low.map(([name, heightM, outM]) => ({
        name,
        heightM: measured(heightM, 'tape, hangar floor'),
        outM: measured(outM, 'tape, hangar floor'),
      })),
      slipNotes: (row.notes ?? []).map(([text, section]) => note('handbook', text, `Handbook ${section}`)),
      powerLift: test(row.slow[0]),
      elevatorLimitG: test(row.slow[1]),
    },
  };
}
