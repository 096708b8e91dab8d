import { needNumbers } from '../guard';
import type { BriefChoices } from '@/domain/brief';
import type { House } from '@/domain/programme';
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import { density, densityAltitude, pressureAltitude, tas } from '../air';
import { AVGAS_KG_PER_L } from '../constants';
import { type ElectricalTimeline, electricalTimeline } from '../electrical';
import { type CircuitsFit, type Endurance, bsfcFlow, circuitsThatFit, endurance } from '../fuel';
import { downTo, fixed, list, upTo } from '../format';
import { type MassBalance, type Station, massBalance, trimFor } from '../loading';
import {
  type Refusal,
  type RunwayFactor,
  type RunwayNeed,
  endsOf,
  runwayNeeded,
  tableDistance,
  tableFromRows,
} from '../runway';

export interface AirToday {
  pressureAltFt: number | null;
  densityAltFt: number | null;
  /** Density ratio; null = cannot be computed. */
  sigma: number | null;
  densityKgM3: number | null;
  isaDevC: number | null;
  /** True airspeed over calibrated, at the field. */
  tasShare: number | null;
  missing: string[];
}

/**
 * Pressure and density altitude of the runway used; says what is missing and computes nothing without it.
 * @returns pressure and density altitude in ft, the density ratio, and what is missing
 * @example
 * airToday(1345, { qnhHpa: 1013.25, oatC: 30 })
 * // { pressureAltFt: 1345, densityAltFt: 3363.5, sigma: 0.90522, densityKgM3: 1.1089, isaDevC: 17.665,
 * // tasShare: 1.051, missing: [] }
 */
export function airToday(elevationFt: number, choices: Pick<BriefChoices, 'qnhHpa' | 'oatC'>): AirToday {
  const missing = [choices.qnhHpa === null ? 'QNH' : '', choices.oatC === null ? 'temperature' : ''].filter(Boolean);
  const pressureAltFt = choices.qnhHpa === null ? null : pressureAltitude(elevationFt, choices.qnhHpa);
  if (pressureAltFt === null || choices.oatC === null)
    return {
      pressureAltFt,
      densityAltFt: null,
      sigma: null,
      densityKgM3: null,
      isaDevC: null,
      tasShare: null,
      missing,
    };
  const air = density(pressureAltFt, choices.oatC, null);
  return {
    pressureAltFt,
    densityAltFt: densityAltitude(air.sigma),
    sigma: air.sigma,
    densityKgM3: air.densityKgM3,
    isaDevC: air.isaDevC,
    tasShare: tas(100, air.sigma, pressureAltFt).tasKt / 100,
    missing,
  };
}

export interface RunwayToday {
  need: RunwayNeed;
  tableGroundM: number | null;
  tableOver50M: number | null;
  refused: Refusal | 'no-air' | 'no-speed' | null;
  /** The table was entered at its least mass or pressure altitude, because today's is below it. */
  edge?: boolean;
  words: string | null;
  source: string | null;
}

const REFUSED: Record<Refusal, string> = {
  'no-table': 'no data on the sheet: runway not computed',
  'no-data': 'no data on the sheet: runway not computed',
  'outside-mass': 'the mass is outside the handbook table: runway not computed',
  'outside-pressure-altitude': 'the pressure altitude is outside the handbook table: runway not computed',
  'outside-temperature': 'the temperature is outside the handbook table: runway not computed',
};

export interface RunwayFacts {
  surface: string;
  lengthM: number;
  widthM: number;
  /** Rising in the direction of use, per cent. */
  slopePct: number;
  headwindKt: number;
  tailwindKt: number;
  gustTailwindKt: number | null;
}

/**
 * Take-off or landing distance today from the handbook's table and the house's stated factors, against the declared
 * length.
 * @returns metres needed with the factors applied, the distances of the table, and why there is none
 * @throws BadNumber when a number handed in is none
 */
export function runwayToday(
  kind: 'takeoff' | 'landing',
  sheet: Pick<TypeSheet, 'distances' | 'landing'>,
  house: Pick<House, 'runway'>,
  at: {
    massKg: number;
    air: AirToday;
    oatC: number | null;
    runway: RunwayFacts;
    wet: boolean;
    /** Today's speed over the threshold to the handbook's, at the same mass. */
    speedShare: number;
  },
): RunwayToday {
  needNumbers('runwayToday', { sheet, house, at });
  const { runway, air } = at;
  const rows = sheet.distances?.[kind] ?? [];
  const asked = { massKg: at.massKg, pressureAltFt: air.pressureAltFt, oatC: at.oatC };
  const where = atLeastOf(rows, asked);
  const edge = where.massKg !== asked.massKg || where.pressureAltFt !== asked.pressureAltFt;
  const roll = tableDistance(
    tableFromRows(rows, (r) => r.groundRollM),
    where,
  );
  const over = tableDistance(
    tableFromRows(rows, (r) => r.over50FtM),
    where,
  );
  const noAir = rows.length > 0 && (air.pressureAltFt === null || at.oatC === null);
  const rule = house.runway;
  const factors = runwayFactors(kind, house, runway, at.wet);
  if (kind === 'landing' && at.speedShare > 1.001)
    factors.push({ name: 'faster over the threshold than the sheet', factor: at.speedShare ** 2 });
  const need = runwayNeeded({
    groundRollM: roll.distanceM,
    over50M: over.distanceM,
    factors,
    safetyFactor: kind === 'takeoff' ? rule.safetyTakeoff : rule.safetyLanding,
    declaredM: runway.lengthM,
    widthM: runway.widthM,
    requiredWidthM: sheet.landing.minWidthM?.value ?? null,
  });
  const refused = noAir ? 'no-air' : over.refused;
  return {
    need,
    tableGroundM: roll.distanceM,
    tableOver50M: over.distanceM,
    refused,
    ...(edge && !refused ? { edge } : {}),
    words:
      refused === 'no-air'
        ? `${list(air.missing)} not known: runway not computed`
        : refused
          ? REFUSED[refused]
          : need.words,
    source: sheet.distances?.ref ?? null,
  };
}

/**
 * The house's stated factors of a runway today, each once and in order: surface, slope, wind. `stop` is a take-off given
 * up: its surface is the worse of taking off and of braking.
 * @returns each factor with its source; 1 changes nothing
 * @throws BadNumber when a number handed in is none
 */
export function runwayFactors(
  kind: 'takeoff' | 'landing' | 'stop',
  house: Pick<House, 'runway'>,
  runway: RunwayFacts,
  wet: boolean,
): RunwayFactor[] {
  needNumbers('runwayFactors', { house, runway });
  const rule = house.runway;
  const state = rule.surfaces.find((s) => s.surface === runway.surface && s.state === (wet ? 'wet' : 'dry'));
  const factors: RunwayFactor[] = [];
  const add = (name: string, factor: number) => {
    if (Math.abs(factor - 1) > 1e-9) factors.push({ name, factor });
  };
  const surface = !state ? 1 : kind === 'stop' ? Math.max(state.takeoff, state.landing) : state[kind];
  add(`${wet ? 'wet' : 'dry'} ${runway.surface}`, surface);
  // Uphill lengthens the run to the speed, downhill the braking: of a stop, whichever it is.
  const uphill = runway.slopePct;
  const against = kind === 'takeoff' ? uphill : kind === 'landing' ? -uphill : Math.abs(uphill);
  if (against > 0) add(`${uphill > 0 ? 'uphill' : 'downhill'} ${fixed(against, 1)} %`, 1 + rule.slopePerPct * against);
  const tailKt = Math.max(runway.tailwindKt, runway.gustTailwindKt ?? 0);
  if (tailKt > 0.5)
    add(
      `tailwind ${upTo(tailKt)} kt${tailKt > runway.tailwindKt ? ' in gusts' : ''}, ${fixed(rule.tailwindShare * 100)} % of it`,
      1 + (0.1 * rule.tailwindShare * tailKt) / rule.tailKtPerTenth,
    );
  else if (runway.headwindKt > 0.5)
    add(
      `headwind ${downTo(runway.headwindKt)} kt, ${fixed(rule.headwindShare * 100)} % of it`,
      1 - (0.1 * rule.headwindShare * runway.headwindKt) / rule.headKtPerTenth,
    );
  return factors;
}

/**
 * Below the table on mass or pressure altitude: asked at its least, which is the longer distance. Above: as it is.
 * @returns mass in kg, pressure altitude in ft and °C, as the table is to be asked
 * @example
 * atLeastOf([], { massKg: 1107, pressureAltFt: 1345, oatC: 15 })
 * // { massKg: 1107, pressureAltFt: 1345, oatC: 15 }
 */
export function atLeastOf(
  rows: readonly { massKg: number; pressureAltFt: number }[],
  at: { massKg: number; pressureAltFt: number | null; oatC: number | null },
): typeof at {
  if (rows.length === 0) return at;
  const leastKg = Math.min(...rows.map((r) => r.massKg));
  const leastFt = Math.min(...rows.map((r) => r.pressureAltFt));
  return {
    ...at,
    massKg: Math.max(at.massKg, leastKg),
    pressureAltFt: at.pressureAltFt === null ? null : Math.max(at.pressureAltFt, leastFt),
  };
}

export interface LoadingToday {
  dual: MassBalance;
  solo: MassBalance;
  trim: { dual: number; solo: number; unit: string; outside: boolean } | null;
  dualKg: number;
  stations: Station[];
}

/**
 * Loading with both aboard and without the instructor, whose seat is then empty; the school decides what else stays.
 * From the sheet's stations. Null when the sheet has none: nothing is guessed.
 * @returns masses in kg, arms in metres, envelope verdicts and trim, for both cases
 */
export function loadingToday(
  sheet: TypeSheet,
  choices: BriefChoices,
  burnL: number,
  keeps: House['soloKeeps'],
): LoadingToday | null {
  const { loading, masses } = sheet;
  if (!loading) return null;
  const held: Record<string, number> = {
    pilot: choices.pilotKg,
    instructor: choices.instructorKg,
    rear: choices.rearKg,
    baggage: choices.baggageKg,
  };
  const leaves = (role: string) =>
    role === 'instructor' || (role === 'rear' && !keeps.rear) || (role === 'baggage' && !keeps.baggage);
  const stations = (solo: boolean): Station[] => [
    { name: 'Empty', massKg: masses.emptyKg.value, armM: loading.emptyArmM.value, maxKg: null },
    ...loading.stations.map((s) => ({
      name: s.name,
      massKg: solo && leaves(s.role) ? 0 : (held[s.role] ?? 0),
      armM: s.armM.value,
      maxKg: s.maxKg?.value ?? null,
    })),
  ];
  const balance = (solo: boolean) =>
    massBalance({
      stations: stations(solo),
      fuelL: choices.fuelL,
      fuelArmM: loading.fuelArmM.value,
      burnL,
      densityKgL: AVGAS_KG_PER_L,
      envelope: loading.envelope,
    });
  const dual = balance(false);
  const solo = balance(true);
  const { trim } = loading;
  const set = (b: MassBalance) => (trim ? trimFor(b.takeOff.armM, trim.rows) : null);
  const d = set(dual);
  const s = set(solo);
  return {
    dual,
    solo,
    trim:
      trim && d && s
        ? { dual: d.trim, solo: s.trim, unit: trim.unit, outside: d.outsideTable || s.outsideTable }
        : null,
    dualKg: dual.takeOff.massKg,
    stations: stations(false),
  };
}

export interface FuelToday {
  flowLPerH: number;
  flowSource: string;
  formulaLPerH: number;
  endurance: Endurance;
  circuits: CircuitsFit;
  /** Past flights the ground time is the median of; 0 = it is the school's figure, as in briefs of before. */
  groundFlights?: number;
  /** Litres burnt by the end of the booking. */
  burnL: number;
}

/**
 * Endurance, circuits that fit, and the formula's flow beside the handbook's.
 * @returns litres an hour, minutes and whole circuits
 */
export function fuelToday(
  sheet: TypeSheet,
  house: House,
  choices: Pick<BriefChoices, 'fuelL' | 'night' | 'bookingMin'>,
  groundSamplesMin: readonly number[],
): FuelToday {
  const flowLPerH = sheet.engine.flowLPerH.value;
  const time = endurance({
    usableL: choices.fuelL,
    flowLH: flowLPerH,
    night: choices.night,
    reserveMin: house.reserveMin,
  });
  const circuits = circuitsThatFit({
    bookingLeftMin: choices.bookingMin,
    fuelTimeMin: time.usableMin,
    groundSamplesMin,
    groundDefaultMin: house.groundMin,
    circuitMin: house.circuitMin,
  });
  return {
    flowLPerH,
    flowSource: sheet.engine.flowLPerH.ref,
    formulaLPerH: bsfcFlow({
      ratedHp: sheet.engine.powerHp.value * sheet.engine.count,
      powerPct: 65,
      bsfcLbHpH: null,
      induction: sheet.engine.induction,
    }).flowLH,
    endurance: time,
    circuits,
    groundFlights: groundSamplesMin.length,
    burnL: Math.min(choices.fuelL, (flowLPerH * Math.max(0, choices.bookingMin - circuits.groundMin)) / 60),
  };
}

/**
 * What dies when after the charging has failed; null when the sheet has no electrics.
 * @returns minutes after the failure, consumer by consumer
 */
export function electricsToday(sheet: TypeSheet): ElectricalTimeline | null {
  return sheet.electrical
    ? electricalTimeline({
        batteryAh: sheet.electrical.batteryAh.value,
        usableShare: sheet.electrical.usableShare?.value ?? null,
        consumers: sheet.electrical.consumers,
      })
    : null;
}

/**
 * Ends of the runways this aeroplane can use, in listed order.
 * @returns each end with its surface, elevation in ft and declared lengths in metres
 */
export function usableEnds(aerodrome: Aerodrome, surface: TypeSheet['surface']) {
  return aerodrome.runways
    .filter((r) => (surface === 'amphibian' ? true : surface === 'sea' ? r.surface === 'water' : r.surface !== 'water'))
    .flatMap((r) =>
      endsOf(r).map(({ end, slopePct, thresholdFt, surveyed }) => ({
        ...end,
        surface: r.surface,
        elevationFt: surveyed ? thresholdFt : r.elevationFt,
        lengthM: r.lengthM,
        widthM: r.widthM,
        slopePct,
      })),
    );
}
