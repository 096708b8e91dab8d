import type { Manoeuvre } from '@/domain/airwork';
import type { AttributeKey } from '@/domain/handling';
import { type DistanceRow, Dynamics, type Gate, type Sourced, type TypeSheet } from '@/domain/sheet';
import type { z } from 'zod';

type Source = Sourced['source'];
const from =
  (source: Source) =>
  (value: number, ref: string): Sourced => ({ value, source, ref });
export const placard = from('placard');
export const house = from('house');
export const instructor = from('instructor');
export const measured = from('measured');
/** From the handbook, by section. */
export const h = (value: number, section: string): Sourced => ({
  value,
  source: 'handbook',
  ref: `Handbook ${section}`,
});
/** The same number as another source gives it. */
export const also = (governing: Sourced, ...others: Sourced[]): Sourced => ({ ...governing, others });

export const note = (source: Source, text: string, ref: string) => ({ text, source, ref });

/** Entries to exercises: what, speed off the dial, power, load, how it is left; `ref` for all of them. */
export const entries = (
  source: Source,
  ref: string,
  rows: [item: Manoeuvre, entryIas: number, power: string, g: number | null, exit: string][],
): NonNullable<TypeSheet['manoeuvres']> =>
  rows.map(([item, entryIas, power, g, exit]) => ({ item, entryIas, power, g, exit, source, ref }));

/** What a demo view is made of: pitch at each gate, then pitch in each attitude. */
export interface View {
  gates: number[];
  level: number;
  climb: number;
  glide: number;
  slip: [pitch: number, bank: number, yaw: number];
  threePoint?: number;
  wheel: number;
}
type GateRow = [
  name: string,
  heightFt: number,
  distanceM: number,
  speed: Sourced,
  flapDeg: number,
  power: string,
  options?: Partial<Pick<Gate, 'gear' | 'bankDeg' | 'finalGate'>>,
];
/** An approach schedule; on final from the third gate on unless said otherwise. */
export const gates = (rows: GateRow[], gear: Gate['gear'] = 'fixed'): Gate[] =>
  rows.map(([name, heightFt, distanceM, speed, flapDeg, power, options], i) => ({
    name,
    heightFt,
    distanceM,
    speed,
    flapDeg,
    gear,
    power,
    finalGate: i >= 2,
    bankDeg: i === 1 ? 20 : 0,
    pitchDeg: null,
    ...options,
  }));

/** Speeds by flap setting, all from one handbook section. */
export const byFlap = (section: string, rows: [flapDeg: number, speed: number][]) =>
  rows.map(([flapDeg, speed]) => ({ flapDeg, speed: h(speed, section) }));

export const dialTable = (rows: [ias: number, correction: number][]) =>
  rows.map(([ias, correction]) => ({ ias, correction }));

type Row = z.infer<typeof DistanceRow>;
/**
 * Distance rows at two masses × two heights × two temperatures, scaled from one handbook point by the usual square
 * laws.
 */
function distanceTable(atKg: number, lowKg: number, groundRollM: number, over50FtM: number): Row[] {
  const rows: Row[] = [];
  for (const massKg of [lowKg, atKg])
    for (const pressureAltFt of [0, 4000])
      for (const oatC of [0, 35]) {
        const factor = (massKg / atKg) ** 2 * (1 + (pressureAltFt / 4000) * 0.24) * (1 + (oatC - 15) * 0.006);
        rows.push({
          massKg,
          pressureAltFt,
          oatC,
          groundRollM: Math.round((groundRollM * factor) / 5) * 5,
          over50FtM: Math.round((over50FtM * factor) / 5) * 5,
        });
      }
  return rows;
}
/** Accelerate and stop over the same grid. */
export const stopTable = (atKg: number, lowKg: number, distanceM: number) =>
  distanceTable(atKg, lowKg, distanceM, distanceM).map(({ massKg, pressureAltFt, oatC, groundRollM }) => ({
    massKg,
    pressureAltFt,
    oatC,
    distanceM: groundRollM,
  }));
export const distances = (
  atKg: number,
  lowKg: number,
  takeoff: [roll: number, over50: number],
  landing: [roll: number, over50: number],
  sections: string,
): NonNullable<TypeSheet['distances']> => ({
  takeoff: distanceTable(atKg, lowKg, ...takeoff),
  landing: distanceTable(atKg, lowKg, ...landing),
  ref: `Handbook ${sections}`,
});

type Reach = 'reached' | 'seen only' | 'not reached';
/** The instructor's seat: what it reaches; `*` is reached with nothing to say. */
export function seat(
  reach: Partial<Record<TypeSheet['instructorSeat'][number]['control'], '*' | [Reach, string]>>,
): TypeSheet['instructorSeat'] {
  return Object.entries(reach).map(([control, said]) => ({
    control: control as TypeSheet['instructorSeat'][number]['control'],
    reach: said === '*' ? 'reached' : said[0],
    note: said === '*' ? '' : said[1],
  }));
}

type StationRow = [name: string, role: 'pilot' | 'instructor' | 'rear' | 'baggage', armM: number, maxKg: number | null];
export function loading(
  datum: string,
  emptyArmM: number,
  stations: StationRow[],
  fuelArmM: number,
  envelope: [armM: number, massKg: number][],
  trim: { unit: string; rows: [armM: number, trim: number][] } | null = null,
): NonNullable<TypeSheet['loading']> {
  return {
    datum,
    emptyArmM: { value: emptyArmM, source: 'handbook', ref: 'weighing report' },
    stations: stations.map(([name, role, armM, maxKg]) => ({
      name,
      role,
      armM: h(armM, '6.3'),
      maxKg: maxKg === null ? null : placard(maxKg, `${name} placard`),
    })),
    fuelArmM: h(fuelArmM, '6.3'),
    envelope: envelope.map(([armM, massKg]) => ({ armM, massKg })),
    envelopeRef: 'Handbook 6.4',
    trim:
      trim === null
        ? null
        : { unit: trim.unit, rows: trim.rows.map(([armM, value]) => ({ armM, trim: value })), ref: 'Handbook 4.1' },
  };
}

export const geometry = (
  wing: TypeSheet['geometry']['wing'],
  lengthM: number,
  heightM: number,
  noseToMainM: number,
  propDiameterM: number,
  tyreDiameterM: number,
  groundPitchDeg: number,
  eyeHeightM: number,
  noseToEyeM: number,
): TypeSheet['geometry'] => ({
  wing,
  lengthM: h(lengthM, '1.2'),
  heightM: h(heightM, '1.2'),
  noseToMainM: measured(noseToMainM, 'tape, hangar floor'),
  propDiameterM: h(propDiameterM, '1.3'),
  tyreDiameterM: h(tyreDiameterM, '1.2'),
  groundPitchDeg: measured(groundPitchDeg, 'level on the cabin rail'),
  eyeHeightM: measured(eyeHeightM, 'tape, from the seat'),
  noseToEyeM: measured(noseToEyeM, 'tape, from the seat'),
});

/** Power settings: phase, setting, indicated speed and flow, all from one source. */
export const powerTable = (
  source: Source,
  ref: string,
  rows: [phase: string, setting: string, ias: number | null, flowLPerH: number | null][],
): TypeSheet['powerTable'] => {
  const claim = (value: number | null) => (value === null ? null : { value, source, ref });
  return rows.map(([phase, setting, ias, flow]) => ({ phase, setting, ias: claim(ias), flowLPerH: claim(flow) }));
};

export const flow = (name: string, ref: string, ...steps: string[]): TypeSheet['flows'][number] => ({
  name,
  steps,
  source: 'handbook',
  ref,
});

export const attributes = (ref: string, values: Record<AttributeKey, string>): TypeSheet['attributes'] =>
  Object.entries(values).map(([key, value]) => ({ key: key as AttributeKey, value, source: 'instructor', ref }));

export const flapDrag = (rows: [flapDeg: number, delta: number][]) =>
  rows.map(([flapDeg, delta]) => ({ flapDeg, deltaCd0: measured(delta, 'fitted to the handbook glide, 2025') }));

/** Before `withDynamics` puts the numbers of the models. */
export const NOT_MEASURED: TypeSheet['dynamics'] = Dynamics.parse({});

/** What most single-engine land types share: no gear to move, no second engine. */
export const FIXED_GEAR = { vloExtend: null, vloRetract: null, vle: null };

const byInclinometer = (deg: number) => measured(deg, 'inclinometer on the cabin rail, flight of 12 May 2026');
type Directions = [azimuthDeg: number, depressionDeg: number][];

/** The view from a seat; puts the pitch of each gate on the approach as well. */
export function withView(
  sheet: TypeSheet,
  profile: Directions,
  view: View,
  rest: {
    eyeLateralM?: number;
    parts?: [name: string, ...from: [number, number], ...to: [number, number]][];
    references?: [
      name: string,
      azimuthDeg: number,
      depressionDeg: number,
      attitude: NonNullable<TypeSheet['sight']>['attitudes'][number]['name'],
    ][];
  } = {},
): TypeSheet {
  const attitude = (
    name: NonNullable<TypeSheet['sight']>['attitudes'][number]['name'],
    pitch: number,
    bankDeg = 0,
    yawDeg = 0,
  ) => ({ name, pitchDeg: byInclinometer(pitch), bankDeg, yawDeg });
  return {
    ...sheet,
    approach: sheet.approach.map((g, i) => ({
      ...g,
      pitchDeg: view.gates[i] === undefined ? null : byInclinometer(view.gates[i]),
    })),
    sight: {
      profile: profile.map(([azimuthDeg, depressionDeg]) => ({ azimuthDeg, depressionDeg })),
      source: 'measured',
      ref: 'walked out from the seat, hangar floor, May 2026',
      eyeLateralM: measured(rest.eyeLateralM ?? 0, 'tape, from the seat'),
      attitudes: [
        attitude('level', view.level),
        attitude('climb', view.climb),
        attitude('glide', view.glide),
        attitude('slip', ...view.slip),
        ...(view.threePoint === undefined ? [] : [attitude('three-point', view.threePoint)]),
        attitude('wheel', view.wheel),
      ],
      parts: (rest.parts ?? []).map(([name, fromAzimuthDeg, fromDepressionDeg, toAzimuthDeg, toDepressionDeg]) => ({
        name,
        fromAzimuthDeg,
        fromDepressionDeg,
        toAzimuthDeg,
        toDepressionDeg,
      })),
      references: (rest.references ?? []).map(([name, azimuthDeg, depressionDeg, attitudeName]) => ({
        name,
        azimuthDeg,
        depressionDeg,
        attitude: attitudeName,
      })),
    },
  };
}

/** What the handbooks of the fleet ask for before the next flight when a limit was passed. */
export const afterLimit: TypeSheet['afterLimit'] = [
  {
    channel: 'vne',
    text: 'Inspect fabric or skin, control surfaces, hinges and stops for damage and looseness; an engineer enters it.',
    source: 'handbook',
    ref: 'Handbook 8.4',
  },
  {
    channel: 'vfe',
    text: 'Inspect flap tracks, hinges, pushrods and the skin around them through the whole travel; an engineer enters it.',
    source: 'handbook',
    ref: 'Handbook 8.4',
  },
  {
    channel: 'gear',
    text: 'Inspect gear doors, links and locks; three retractions on jacks; an engineer enters it.',
    source: 'handbook',
    ref: 'Handbook 8.4',
  },
  {
    channel: 'g+',
    text: 'Inspect wing attachments, struts and skin for wrinkles, the engine mount and the seats; an engineer enters it.',
    source: 'handbook',
    ref: 'Handbook 8.4',
  },
  {
    channel: 'g-',
    text: 'Inspect wing attachments, struts and skin for wrinkles, the engine mount and the battery; an engineer enters it.',
    source: 'handbook',
    ref: 'Handbook 8.4',
  },
  {
    channel: 'rpm',
    text: 'Find the table of overspeed in the engine\u2019s manual; by amount and time it asks for a log entry, an inspection or a strip.',
    source: 'handbook',
    ref: 'Handbook 8.4',
  },
  {
    channel: 'map',
    text: 'Find the table of overboost in the engine\u2019s manual; by amount and time it asks for a log entry, an inspection or a strip.',
    source: 'handbook',
    ref: 'Handbook 8.4',
  },
  {
    channel: 'cht',
    text: 'Check baffles and mixture; a compression test if it lasted a minute or more.',
    source: 'handbook',
    ref: 'Handbook 8.4',
  },
];

/** What an aeroplane of this fleet has beyond gear, flaps and propeller; nothing, unless it is named. */
export const features = (ceilingFt: number, ...fitted: ('glass' | 'turbocharged')[]): TypeSheet['features'] => ({
  glass: fitted.includes('glass') ? 'yes' : 'no',
  turbocharged: fitted.includes('turbocharged') ? 'yes' : 'no',
  pressurised: 'no',
  singleLeverPower: 'no',
  digitalEngineControl: 'no',
  skis: 'no',
  ceilingFt: h(ceilingFt, '5.5'),
});
