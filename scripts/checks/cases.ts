/** A plain day, a hot and high one and a gusty one, for every type of the demo on every surface it lands on. */
import house from '../../content/house.json';
import { pedraAlva } from '../../demo/aerodrome';
import { types } from '../../demo/fleet';
import { type BriefResult, computeBrief } from '../../src/core/approach';
import { gearMassGroup, schoolCrosswind } from '../../src/core/plan';
import type { BriefChoices } from '../../src/domain/brief';
import { House } from '../../src/domain/programme';
import type { Aerodrome, TypeSheet } from '../../src/domain/sheet';
import type { Case } from './recompute';

const HOUSE = House.parse(house);
const NOW = '2026-11-24T14:30:00.000Z';
const LADDER = { provenKt: 6, ladderKt: 8, decaySteps: 0 as const, goodCount: 3, badCount: 0 };

interface Day {
  name: string;
  qnhHpa: number;
  oatC: number;
  /** Magnetic, as it is read off the tower. */
  fromDeg: number;
  kt: number;
  gustKt: number | null;
  riseFt: number;
  wet: boolean;
  /** Share of the room left for fuel. */
  fuelShare: number;
}
export const DAYS: Day[] = [
  { name: 'plain', qnhHpa: 1016, oatC: 15, fromDeg: 230, kt: 8, gustKt: null, riseFt: 0, wet: false, fuelShare: 0.7 },
  {
    name: 'hot and high',
    qnhHpa: 1009,
    oatC: 34,
    fromDeg: 190,
    kt: 4,
    gustKt: null,
    riseFt: 2200,
    wet: false,
    fuelShare: 1,
  },
  { name: 'gusty', qnhHpa: 998, oatC: 7, fromDeg: 270, kt: 9, gustKt: 17, riseFt: 0, wet: true, fuelShare: 0.5 },
];

/** The home field, lifted. */
const lifted = (ft: number): Aerodrome => ({
  ...pedraAlva,
  elevationFt: pedraAlva.elevationFt + ft,
  runways: pedraAlva.runways.map((r) => ({ ...r, elevationFt: r.elevationFt + ft })),
});

export interface Worked extends Case {
  name: string;
  day: string;
  brief: BriefResult;
}

export function worked(): Worked[] {
  return types.flatMap((sheet) =>
    (sheet.surface === 'amphibian' ? ['18W', '22'] : sheet.surface === 'sea' ? ['18W'] : ['22']).flatMap((end) =>
      DAYS.map((day) => one(sheet, end, day)),
    ),
  );
}

function one(sheet: TypeSheet, runwayEnd: string, day: Day): Worked {
  const aerodrome = lifted(day.riseFt);
  const roomKg = sheet.masses.maxTakeoffKg.value - sheet.masses.emptyKg.value - 150;
  const fuelL = Math.floor(Math.min(sheet.engine.usableFuelL.value, Math.max(10, (roomKg / 0.72) * day.fuelShare)));
  const choices: BriefChoices = {
    flownOn: '2026-11-24',
    runwayEnd,
    wind: {
      source: 'typed',
      raw: '',
      reference: 'magnetic',
      variable: false,
      fromDeg: day.fromDeg,
      kt: day.kt,
      gustKt: day.gustKt,
      arcFromDeg: null,
      arcToDeg: null,
      observedAt: NOW,
    },
    maxFlapDeg: null,
    fuelL,
    pilotKg: 78,
    instructorKg: 72,
    baggageKg: 0,
    rearKg: 0,
    qnhHpa: day.qnhHpa,
    oatC: day.oatC,
    surfaceState: day.wet ? 'wet' : 'dry',
    night: false,
    bookingMin: 90,
    second: null,
    layout: { order: [], hidden: [], own: [] },
    speedSchool: sheet.landing.speedSchool,
    gustSchool: 'half',
    intended: sheet.landing.usualAttitude,
    instructorLimitKt: 14,
    focus: '',
  };
  const brief = computeBrief(choices, {
    sheet,
    airframeCrosswindKt: null,
    aerodrome,
    house: HOUSE,
    ladder: LADDER,
    pilotName: 'A pilot',
    habits: [],
    eyeHeightM: null,
    dual: true,
    groundSamplesMin: [],
    nowIso: NOW,
  });
  return {
    name: `${sheet.name}${sheet.surface === 'amphibian' ? (runwayEnd === '22' ? ', on land' : ', on water') : ''}`,
    day: day.name,
    sheet,
    aerodrome,
    house: HOUSE,
    choices,
    ladder: LADDER,
    airframeCrosswindKt: null,
    schoolCrosswindKt: schoolCrosswind(HOUSE.crosswindKt, gearMassGroup(sheet))?.kt ?? Infinity,
    brief,
  };
}
