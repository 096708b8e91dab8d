import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import type { BriefChoices, WindSeen } from '@/domain/brief';
import type { House } from '@/domain/programme';
import { iasToCas } from '../air';
import { breakSpacing } from '../circuit';
import { AVGAS_KG_PER_L } from '../constants';
import type { HabitCue } from '../differences';
import type { ElectricalTimeline } from '../electrical';
import { downTo, fixed, withUnit } from '../format';
import { isNumber } from '../guard';
import { gearMassGroup, schoolCrosswind } from '../plan';
import {
  type Surface,
  configurationDrag,
  scheduleLimits,
  gateFinding,
  gateWords,
  sheetWords,
  sheetOn,
  sheetPolar,
  surfaceOfStrip,
  surfacesOf,
  validateSheet,
} from '../sheet';
import {
  type AirToday,
  type FuelToday,
  type LoadingToday,
  type RunwayToday,
  airToday,
  electricsToday,
  fuelToday,
  loadingToday,
  runwayToday,
  usableEnds,
} from './day';
import { type OneEngineToday, oneEngineToday } from './one-engine';
import { type Deceleration, deceleration, scheduleFindings, slopeLights } from './schedule';
import {
  type GateTarget,
  type StallMargin,
  LIMIT_BUFFER_KT,
  casKtToDial,
  dialToCasKt,
  gateTarget,
  ktToDialDelta,
  scaleForMass,
  stallMargin,
} from '../speeds';
import {
  type CrosswindLimit,
  type CrosswindVerdict,
  type FlapVerdict,
  type Ladder,
  type WorstCase,
  ageMinutes,
  components,
  convertReference,
  crosswindVerdict,
  flapVerdict,
  knownAlone,
  vs0Floor,
  worstCase,
} from '../wind';

export interface BriefContext {
  /** The sheet as it holds for this registration. */
  sheet: TypeSheet;
  airframeCrosswindKt: number | null;
  aerodrome: Aerodrome;
  house: House;
  ladder: Ladder;
  pilotName: string;
  /** What this pilot must drop or add, ranked; empty when nothing is known of what they have flown. */
  habits: readonly HabitCue[];
  /** Of this pilot in this type, measured; null = the sheet's. */
  eyeHeightM: number | null;
  /** Instructor on board. */
  dual: boolean;
  /** Ground minutes of past flights, newest last; empty = the house's figure. */
  groundSamplesMin: readonly number[];
  nowIso: string;
}

export interface RunwayWind {
  ident: string;
  trueBearingDeg: number;
  magneticBearingDeg: number;
  surface: string;
  lengthM: number;
  widthM: number;
  /** Rising in the direction of use, per cent. */
  slopePct: number;
  elevationFt: number;
  landmark: { name: string; alongM: number } | null;
  /** Which way its circuit turns; absent = to the left. */
  circuit?: 'left' | 'right' | undefined;
  slopeLightsDeg: number | null;
  /** From the threshold; absent or null = not entered. */
  slopeLightsM?: number | null;
  obstacle?: { name: string; pastEndM: number; heightFt: number } | null;
  headwindKt: number;
  /** Positive from the right; the worst of a direction range, where one is reported. */
  crosswindKt: number;
  gustCrosswindKt: number | null;
  tailwindKt: number;
  gustTailwindKt: number | null;
  suitable: boolean;
  reasons: string[];
}

export interface BriefGate {
  name: string;
  heightFt: number;
  altimeterFt: number;
  distanceM: number;
  flapDeg: number;
  /** The crosswind is beyond the flap table: no setting and no speed is given for this gate. */
  flapWithheld: boolean;
  gear: 'fixed' | 'up' | 'down';
  power: string;
  finalGate: boolean;
  bankDeg: number;
  /** White lights seen at this gate when on path; null = no slope lights here, or not on final. */
  whites: number | null;
  /** In the dial's unit, rounded up to the next whole number; null when no sound speed exists. */
  target: number | null;
  sheetValue: number;
  sourceRef: string;
  source: string;
  additive: number;
  cas: GateTarget | null;
  /** The sheet's own speed at today's mass, CAS kt, before flap and gust. */
  sheetCasToday: number | null;
  margin: StallMargin | null;
  /** The reading lies beyond the dial's error table, whose last correction is held. Absent in older briefs. */
  beyondTable?: boolean;
  warnings: string[];
}

export interface BriefResult {
  unit: 'kt' | 'mph';
  /** Of the runway used; the gates are those of the sheet on it. Absent in older briefs. */
  surface?: Surface;
  massKg: number;
  maxMassKg: number;
  landingRefMassKg: number;
  windAgeMin: number | null;
  windMagneticDeg: number | null;
  windTrueDeg: number | null;
  chosenEnd: string | null;
  /** The limit of the flight manual, or else the school's; older snapshots do not have it. */
  tailwindLimit?: { kt: number; of: 'sheet' | 'house' };
  runways: RunwayWind[];
  limits: CrosswindLimit[];
  crosswind: CrosswindVerdict;
  flap: FlapVerdict;
  flapHeldDeg: number;
  gates: BriefGate[];
  vsToday: { flapDeg: number; dial: number; cas: number; ref: string; beyondTable?: boolean }[];
  vaDial: number;
  bestGlideDial: number;
  vyDial: number;
  coolingClimbDial: number | null;
  air: AirToday;
  takeoff: RunwayToday | null;
  landing: RunwayToday | null;
  /** One per leg between gates, in flying order. */
  legs: (Deceleration & { from: string; to: string })[];
  fuel: FuelToday;
  loading: LoadingToday | null;
  electrics: ElectricalTimeline | null;
  stabilised: { heightFt: number; altimeterFt: number };
  landmark: { name: string; alongM: number } | null;
  /** Metres between two aeroplanes that break the chosen seconds apart over one point; null = no second aeroplane. */
  breakM: number | null;
  /** One engine stopped; null = a single. Absent in older briefs. */
  oneEngine?: OneEngineToday | null;
  /** Absent in briefs older than this block. */
  habits?: HabitCue[];
  eyeHeightM?: number | null;
  /** What to look at first: mass, wind, runway, schedule, loading, and the findings of the type sheet itself. */
  warnings: string[];
}

/**
 * Everything the brief shows, from the sheet, the choices and the wind. Speeds are worked in CAS and turned into the
 * dial last.
 * @returns speeds in the dial's unit; wind verdicts null with a reason when the wind is missing or older than 10 min
 */
export function computeBrief(choices: BriefChoices, context: BriefContext): BriefResult {
  const { sheet, aerodrome, house, nowIso } = context;
  const warnings: string[] = [];
  const massKg =
    sheet.masses.emptyKg.value +
    choices.pilotKg +
    choices.instructorKg +
    choices.rearKg +
    choices.baggageKg +
    choices.fuelL * AVGAS_KG_PER_L;
  const maxMassKg = sheet.masses.maxTakeoffKg.value;
  if (massKg > maxMassKg)
    warnings.push(
      `Mass ${Math.round(massKg)} kg is ${Math.ceil(massKg - maxMassKg)} kg above the maximum of ${maxMassKg} kg. Offload fuel or payload first.`,
    );
  if (choices.baggageKg > sheet.masses.maxBaggageKg.value)
    warnings.push(`Baggage ${choices.baggageKg} kg is above the limit of ${sheet.masses.maxBaggageKg.value} kg.`);
  if (choices.fuelL > sheet.engine.usableFuelL.value)
    warnings.push(`Fuel ${choices.fuelL} L is more than the ${sheet.engine.usableFuelL.value} L usable.`);

  const wind = choices.wind;
  const sinceMin = wind === null ? null : ageMinutes(wind.observedAt, nowIso);
  // Two clocks that disagree by a little are no reason to do without a wind.
  const windAgeMin = sinceMin !== null && sinceMin < 0 && sinceMin >= -CLOCKS_DIFFER_MIN ? 0 : sinceMin;
  const inFuture = windAgeMin !== null && windAgeMin < 0;
  if (inFuture) warnings.push('The wind is timed in the future. Check its time.');
  const limits = limitLadder(choices, context);
  const each = runwayWinds(wind, context).map((r) => endToday(r, limits, massKg, windAgeMin, choices, context));
  const runways = each.map((e): RunwayWind => e.runway);
  if (schoolCrosswind(house.crosswindKt, gearMassGroup(sheet))?.own === false)
    warnings.push(
      `The school has no crosswind limit for this group (${gearMassGroup(sheet).replaceAll('-', ' ')}): the lowest of its limits applies. The chief instructor sets one under Rules.`,
    );
  const chosenEnd = wind === null ? null : proposeEnd(runways);
  const chosen = each.find((e) => e.runway.ident === choices.runwayEnd) ?? null;
  const used = chosen?.runway ?? null;
  const at = chosen ?? endToday(null, limits, massKg, windAgeMin, choices, context);
  const { crosswind, flap, flapHeldDeg, gates, air, legs, takeoff, landing } = at;
  if (at.sheet === null)
    warnings.push(
      `The sheet has no approach schedule for ${at.surface}: no gates and no distances are given. It has one for ${surfacesOf(sheet).join(' and ')}.`,
    );
  const sheetFlap = Math.max(...(at.sheet ?? sheet).approach.map((g) => g.flapDeg));
  if (flap.verdict === 'outside')
    warnings.push(
      'The crosswind is beyond the flap table of this airframe: no flap setting is given. Another runway, or not today.',
    );
  if (at.sheet !== null && flapHeldDeg < sheetFlap)
    warnings.push(
      `Flap ${flapHeldDeg}\u00b0 instead of ${sheetFlap}\u00b0: faster over the threshold and a longer landing. Check the runway length.`,
    );
  const elevationFt = used?.elevationFt ?? aerodrome.elevationFt;
  const fuel = fuelToday(sheet, house, choices, context.groundSamplesMin);
  const oneEngine = oneEngineToday(at.sheet ?? sheet, house, {
    massKg,
    air,
    oatC: choices.oatC,
    elevationFt,
    circuitHeightFt: aerodrome.circuitHeightFt,
    runway: used && { ...used, obstacle: used.obstacle ?? null },
    wet: choices.surfaceState === 'wet',
    takeoff,
  });
  warnings.push(...oneEngineWarnings(oneEngine));
  const loading = loadingToday(sheet, choices, fuel.burnL, house.soloKeeps);
  if (loading) warnings.push(...loadingWarnings(loading));
  for (const [name, r] of [
    ['Take-off', takeoff],
    ['Landing', landing],
  ] as const) {
    if (r?.need.length === 'not-enough')
      warnings.push(
        `${name}: ${fixed(r.need.over50M ?? 0)} m needed with the school\u2019s margin, ${used?.lengthM ?? 0} m available.`,
      );
    // One width, said once for take-off and landing.
    const saidBefore = name === 'Landing' && takeoff?.need.width === 'not-enough';
    if (r?.need.width === 'not-enough' && !saidBefore) warnings.push(narrowWarning(used, at.sheet));
    if (r?.edge) warnings.push(`${name}: ${EDGE_WORDS}`);
  }
  warnings.push(
    ...(at.sheet ? scheduleWarnings(gates, at.sheet, choices) : []),
    ...validateSheet(sheet).map((f) => `Type sheet: ${sheetWords(f)}`),
  );
  for (const leg of legs) {
    if (leg.canSlow === 'no')
      warnings.push(
        `${leg.to}: it cannot slow that fast from ${leg.from}; begin ${leg.latestStartM === null ? 'with a shallower path' : `${fixed(leg.latestStartM / 10) + '0'} m before it at the latest`}.`,
      );
    else if (leg.canSlow === 'tight')
      warnings.push(
        `${leg.to}: slowing from ${leg.from} is tight; power off ${fixed((leg.comfortableStartM ?? 0) / 10)}0 m before it.`,
      );
  }

  return {
    unit: sheet.dial.unit,
    surface: at.surface,
    massKg,
    maxMassKg,
    landingRefMassKg: sheet.masses.refMassKg,
    windAgeMin,
    ...windDirections(wind, aerodrome.variationDeg),
    chosenEnd,
    tailwindLimit: sheet.crosswind.tailwindLimitKt
      ? { kt: sheet.crosswind.tailwindLimitKt.value, of: 'sheet' }
      : { kt: house.tailwindLimitKt, of: 'house' },
    runways,
    limits,
    crosswind,
    flap,
    flapHeldDeg,
    gates,
    vsToday: sheet.stalls.map((s) => {
      const cas = scaleForMass('vs1', dialToCasKt(s.speed.value, sheet.dial), sheet.masses.refMassKg, massKg);
      const dial = casKtToDial(cas, sheet.dial);
      return { flapDeg: s.flapDeg, dial, cas, ref: s.speed.ref, beyondTable: beyondDial(dial, sheet) };
    }),
    vaDial: scaledDial('va', sheet.speeds.va.value, massKg, sheet),
    bestGlideDial: scaledDial('bestGlide', sheet.speeds.bestGlide.value, massKg, sheet),
    vyDial: sheet.speeds.vy.value,
    coolingClimbDial: sheet.coolingClimb?.value ?? null,
    air,
    takeoff,
    landing,
    legs,
    oneEngine,
    fuel,
    loading,
    electrics: electricsToday(sheet),
    stabilised: { heightFt: house.stabilisedFt, altimeterFt: Math.round(elevationFt + house.stabilisedFt) },
    landmark: used?.landmark ?? null,
    habits: [...context.habits],
    eyeHeightM: context.eyeHeightM,
    breakM: breakMetres(gates[0], choices, air.sigma, used?.headwindKt ?? 0),
    warnings: [...warnings, ...gates.flatMap((g) => g.warnings.map((w) => `${g.name}: ${w}`))],
  };
}

function oneEngineWarnings(o: OneEngineToday | null): string[] {
  if (!o) return [];
  const field = o.at.find((a) => a.where === 'field')?.climb.rocFpm ?? null;
  return [
    field !== null && field <= 0
      ? 'On one engine it does not climb from this aerodrome today: after an engine failure, land ahead.'
      : '',
    o.stop?.verdict === 'not-enough'
      ? `Accelerate and stop: ${fixed(Math.ceil(o.stop.neededM ?? 0))} m needed with the school\u2019s margin, more than there is.`
      : '',
    o.obstacle?.verdict === 'does-not-clear' ? `${o.obstacle.name}: not cleared on one engine from this end.` : '',
  ].filter(Boolean);
}

/** Below it a wind timed ahead of this clock is taken as taken now. */
const CLOCKS_DIFFER_MIN = 5;
function narrowWarning(used: RunwayWind | null, sheet: TypeSheet | null): string {
  const { value = 0, ref = '' } = sheet?.landing.minWidthM ?? {};
  return `Runway ${used?.ident ?? ''} is ${used?.widthM ?? 0} m wide; ${value} m are required (${ref}).`;
}
const EDGE_WORDS = 'table’s edge used: lighter or lower than the handbook table, so its lowest row applies.';

/** What the brief knows of one end of a runway today. */
interface EndToday {
  runway: RunwayWind;
  surface: Surface;
  /** The sheet on this surface; null = it has no schedule for it. */
  sheet: TypeSheet | null;
  crosswind: CrosswindVerdict;
  flap: FlapVerdict;
  flapHeldDeg: number;
  gates: BriefGate[];
  air: AirToday;
  legs: BriefResult['legs'];
  takeoff: RunwayToday | null;
  landing: RunwayToday | null;
}

/** Everything that hangs on the end used, so that an end is proposed by the same numbers that are shown for it. */
function endToday(
  of: RunwayWind,
  limits: readonly CrosswindLimit[],
  massKg: number,
  windAgeMin: number | null,
  choices: BriefChoices,
  context: BriefContext,
): EndToday;
function endToday(
  of: null,
  limits: readonly CrosswindLimit[],
  massKg: number,
  windAgeMin: number | null,
  choices: BriefChoices,
  context: BriefContext,
): Omit<EndToday, 'runway'> & { runway: null };
function endToday(
  of: RunwayWind | null,
  limits: readonly CrosswindLimit[],
  massKg: number,
  windAgeMin: number | null,
  choices: BriefChoices,
  context: BriefContext,
): Omit<EndToday, 'runway'> & { runway: RunwayWind | null } {
  const { house, aerodrome } = context;
  const { wind } = choices;
  const surface = of ? surfaceOfStrip(of.surface) : (surfacesOf(context.sheet)[0] ?? 'land');
  const sheet = sheetOn(context.sheet, surface);
  const { crosswind: sheetWind } = context.sheet;
  const windJudged = crosswindVerdict({
    crosswindKt: of?.crosswindKt ?? 0,
    gustCrosswindKt: of?.gustCrosswindKt ?? null,
    tailwindKt: of?.tailwindKt ?? 0,
    gustTailwindKt: of?.gustTailwindKt ?? null,
    tailwindLimitKt: sheetWind.tailwindLimitKt?.value ?? house.tailwindLimitKt,
    gustSpreadKt: wind === null || wind.gustKt === null ? null : wind.gustKt - wind.kt,
    gustSpreadLimitKt: house.gustSpreadLimitKt,
    windAgeMin: of === null || (windAgeMin !== null && windAgeMin < 0) ? null : windAgeMin,
    dual: context.dual,
    limits,
  });
  // Without an instructor, where nothing is known of this pilot in wind, nothing is within.
  const crosswind: CrosswindVerdict =
    !context.dual && !knownAlone(context.ladder) && windJudged.reason === null && windJudged.verdict !== 'outside'
      ? { ...windJudged, verdict: null, reason: 'not-proven' }
      : windJudged;
  // A wind too old for a crosswind verdict is too old for a flap verdict.
  const flap =
    of && crosswind.reason !== 'no-recent-wind'
      ? flapVerdict(of.crosswindKt, of.gustCrosswindKt, sheetWind.flapTable)
      : { verdict: null, maxFlapDeg: null, reason: null };
  const elevationFt = of?.elevationFt ?? aerodrome.elevationFt;
  const air = airToday(elevationFt, choices);
  const nothing = { crosswind, flap, flapHeldDeg: 0, gates: [], air, legs: [] };
  if (sheet === null) {
    const runway = of && {
      ...of,
      suitable: false,
      reasons: [...of.reasons, `no schedule for ${surface} on the sheet`],
    };
    return { ...nothing, runway, surface, sheet, takeoff: NO_SCHEDULE(surface), landing: NO_SCHEDULE(surface) };
  }
  const sheetFlap = Math.max(...sheet.approach.map((g) => g.flapDeg));
  const flapHeldDeg = Math.min(sheetFlap, choices.maxFlapDeg ?? sheetFlap, flap.maxFlapDeg ?? sheetFlap);
  const here = { ...context, sheet };
  const gates = sheet.approach.map((gate) =>
    briefGate(gate, flapHeldDeg, flap.verdict === 'outside', massKg, choices, here, elevationFt, of),
  );
  const legs = flownLegs(gates, sheet, massKg, air, of?.headwindKt ?? 0);
  const last = gates[gates.length - 1];
  const speedShare = last?.cas && last.sheetCasToday ? last.cas.targetKt / last.sheetCasToday : 1;
  const distance = (kind: 'takeoff' | 'landing'): RunwayToday | null =>
    of === null
      ? null
      : kind === 'landing' && !last?.cas
        ? noLandingSpeed(sheet)
        : runwayToday(kind, sheet, house, {
            massKg,
            air,
            oatC: choices.oatC,
            runway: of,
            wet: choices.surfaceState === 'wet',
            speedShare,
          });
  const [takeoff, landing] = [distance('takeoff'), distance('landing')];
  const against = [
    crosswind.verdict === 'outside' && !of?.reasons.includes('tailwind') ? 'outside the wind limits' : '',
    flap.verdict === 'outside' ? 'beyond the flap table' : '',
    takeoff?.need.length === 'not-enough' ? 'too short for the take-off' : '',
    landing?.need.length === 'not-enough' ? 'too short for the landing' : '',
    takeoff?.need.width === 'not-enough' || landing?.need.width === 'not-enough' ? 'too narrow' : '',
  ].filter(Boolean);
  const runway = of && {
    ...of,
    suitable: of.suitable && against.length === 0,
    reasons: [...of.reasons, ...against],
  };
  return { runway, surface, sheet, crosswind, flap, flapHeldDeg, gates, air, legs, takeoff, landing };
}

/** Beyond the rows of the dial's error table; a dial without a table is beyond it everywhere. */
const beyondDial = (reading: number, { dial }: TypeSheet): boolean => iasToCas(reading, dial.table).outsideTable;

const scaledDial = (kind: 'va' | 'bestGlide', ias: number, massKg: number, sheet: TypeSheet): number =>
  casKtToDial(scaleForMass(kind, dialToCasKt(ias, sheet.dial), sheet.masses.refMassKg, massKg), sheet.dial);

const notComputed = (refused: RunwayToday['refused'], words: string, source: string | null = null): RunwayToday => ({
  need: {
    totalFactor: null,
    groundRollM: null,
    over50M: null,
    steps: [],
    marginM: null,
    length: null,
    width: null,
    verdict: null,
    words: null,
  },
  tableGroundM: null,
  tableOver50M: null,
  refused,
  words,
  source,
});
/** Without a speed over the threshold there is no landing distance. */
const noLandingSpeed = (sheet: TypeSheet): RunwayToday =>
  notComputed('no-speed', 'no speed over the threshold: landing not computed', sheet.distances?.ref ?? null);
const NO_SCHEDULE = (surface: Surface): RunwayToday =>
  notComputed('no-table', `no numbers for ${surface} on the sheet: runway not computed`);

function loadingWarnings(loading: LoadingToday): string[] {
  const points = [
    ['take-off', loading.dual.takeOff],
    ['landing', loading.dual.landing],
    ['zero fuel', loading.dual.zeroFuel],
  ] as const;
  return [
    ...points
      .filter(([, p]) => !p.inside)
      .map(
        ([name, p]) => `Loading at ${name}: ${fixed(p.massKg)} kg at ${fixed(p.armM, 3)} m is outside the envelope.`,
      ),
    ...loading.dual.overMax.map((name) => `${name} is loaded above its limit.`),
    ...(loading.solo.allInside ? [] : ['Solo with this fuel the loading is outside the envelope.']),
  ];
}

/** Seconds, slope and slowing between the gates as flown today: true airspeeds, today's headwind and density. */
function flownLegs(
  gates: readonly BriefGate[],
  sheet: TypeSheet,
  massKg: number,
  air: AirToday,
  headwindKt: number,
): BriefResult['legs'] {
  const polar = sheetPolar(sheet);
  const root = Math.sqrt(air.sigma ?? 1);
  return gates.slice(1).flatMap((to, i) => {
    const from = gates[i];
    if (!from?.cas || !to.cas || from.distanceM <= to.distanceM) return [];
    return [
      {
        from: from.name,
        to: to.name,
        ...deceleration({
          v1Kt: from.cas.targetKt / root,
          v2Kt: to.cas.targetKt / root,
          distanceM: from.distanceM - to.distanceM,
          heightLossFt: from.heightFt - to.heightFt,
          headwindKt,
          polar,
          deltaCd0: configurationDrag(sheet, from.flapDeg, from.gear),
          massKg,
          wingAreaM2: sheet.wing.areaM2.value,
          rhoKgM3: air.densityKgM3 ?? 1.225,
        }),
      },
    ];
  });
}

/**
 * The schedule as flown today against the limits of the sheet; margins to the stall are said by the gates themselves.
 */
function scheduleWarnings(gates: readonly BriefGate[], sheet: TypeSheet, choices: BriefChoices): string[] {
  const flown = gates.map((g) => ({
    name: g.name,
    distanceM: g.distanceM,
    heightFt: g.heightFt,
    targetKt: g.target ?? g.sheetValue,
    flapDeg: g.flapDeg,
    gear: g.gear,
    targetCasKt: g.cas?.targetKt ?? 0,
    vsCasKt: null,
    sanctionedRatio: null,
  }));
  const ordered = flown.every((g, i) => i === 0 || g.distanceM < (flown[i - 1]?.distanceM ?? 0));
  return scheduleFindings({
    gates: flown,
    ...scheduleLimits(sheet),
    school: choices.speedSchool,
    slopeMinDeg: 2,
    slopeMaxDeg: 7,
    bankDeg: 0,
  })
    .filter((f) => ordered || f.code !== 'slope')
    .map((f) => gateWords(gateFinding(f, flown[f.gate]?.name ?? '', sheet.dial.unit)));
}

/** Metres between two aeroplanes that break over the same point; true airspeed of the first gate. */
function breakMetres(
  first: BriefGate | undefined,
  choices: BriefChoices,
  sigma: number | null,
  headwindKt: number,
): number | null {
  const intervalS = choices.second?.breakS ?? null;
  return intervalS === null || !first?.cas
    ? null
    : breakSpacing({ tasKt: first.cas.targetKt / Math.sqrt(sigma ?? 1), intervalS, headwindKt, formation: 'trail' });
}

function windDirections(wind: WindSeen | null, variationDeg: number) {
  if (wind === null || wind.fromDeg === null) return { windTrueDeg: null, windMagneticDeg: null };
  return {
    windTrueDeg: convertReference(wind.fromDeg, wind.reference, 'true', variationDeg),
    windMagneticDeg: convertReference(wind.fromDeg, wind.reference, 'magnetic', variationDeg),
  };
}

function runwayWinds(wind: WindSeen | null, { aerodrome, house, sheet }: BriefContext): RunwayWind[] {
  const ends = usableEnds(aerodrome, sheet.surface);
  const tailLimitKt = sheet.crosswind.tailwindLimitKt?.value ?? house.tailwindLimitKt;
  return ends.map((end) => {
    const facts = {
      ident: end.ident,
      trueBearingDeg: end.trueBearingDeg,
      surface: end.surface,
      lengthM: end.lengthM,
      widthM: end.widthM,
      slopePct: end.slopePct,
      elevationFt: end.elevationFt,
      landmark: end.landmark,
      ...(end.circuit ? { circuit: end.circuit } : {}),
      slopeLightsDeg: end.slopeLightsDeg,
      slopeLightsM: end.slopeLightsM,
      obstacle: end.obstacle,
      magneticBearingDeg: convertReference(end.trueBearingDeg, 'true', 'magnetic', aerodrome.variationDeg),
    };
    if (wind === null)
      return {
        ...facts,
        headwindKt: 0,
        crosswindKt: 0,
        gustCrosswindKt: null,
        tailwindKt: 0,
        gustTailwindKt: null,
        suitable: false,
        reasons: ['no wind known'],
      };
    const toTrue = (deg: number | null) =>
      deg === null ? null : convertReference(deg, wind.reference, 'true', aerodrome.variationDeg);
    const from = toTrue(wind.fromDeg);
    const worst: WorstCase = worstCase(
      {
        variable: wind.variable,
        arcFromDeg: toTrue(wind.arcFromDeg),
        arcToDeg: toTrue(wind.arcToDeg),
        windFromDeg: from,
        windKt: wind.kt,
        gustKt: wind.gustKt,
      },
      end.trueBearingDeg,
    );
    const mean = components(from ?? end.trueBearingDeg, wind.kt, wind.gustKt, end.trueBearingDeg);
    const side = wind.variable ? 1 : worst.maxFromRightKt >= worst.maxFromLeftKt ? 1 : -1;
    const tooMuchTail = Math.max(worst.worstTailwindKt, worst.worstGustTailwindKt ?? 0) > tailLimitKt;
    return {
      ...facts,
      headwindKt: wind.variable ? -wind.kt : mean.headwindKt,
      crosswindKt: side * worst.worstCrosswindKt,
      gustCrosswindKt: worst.worstGustCrosswindKt === null ? null : side * worst.worstGustCrosswindKt,
      tailwindKt: worst.worstTailwindKt,
      gustTailwindKt: worst.worstGustTailwindKt,
      suitable: !tooMuchTail,
      reasons: tooMuchTail ? ['tailwind'] : [],
    };
  });
}

/**
 * Of the ends that nothing on this page speaks against: least crosswind over the reported arc, gusts counted; then more
 * headwind, then longer, then as listed. Null when none suits.
 */
function proposeEnd(runways: readonly RunwayWind[]): string | null {
  const across = (r: RunwayWind) => Math.max(Math.abs(r.crosswindKt), Math.abs(r.gustCrosswindKt ?? 0));
  const apart = (a: number, b: number) => (Math.abs(a - b) > 1e-6 ? a - b : 0);
  return (
    runways
      .filter((r) => r.suitable)
      .sort(
        (a, b) => apart(across(a), across(b)) || apart(b.headwindKt, a.headwindKt) || apart(b.lengthM, a.lengthM),
      )[0]?.ident ?? null
  );
}

/** Every crosswind limit that bears on this flight, each with its source. */
function limitLadder(
  choices: BriefChoices,
  { sheet, airframeCrosswindKt, house, ladder, pilotName, dual }: BriefContext,
): CrosswindLimit[] {
  const { limitationKt, demonstratedKt } = sheet.crosswind;
  const lowestStall = [...sheet.stalls].sort((a, b) => b.flapDeg - a.flapDeg)[0];
  const school = schoolCrosswind(house.crosswindKt, gearMassGroup(sheet));
  const rows: (CrosswindLimit | null)[] = [
    limitationKt && { source: limitationKt.ref, kind: 'limitation', valueKt: limitationKt.value },
    demonstratedKt && { source: demonstratedKt.ref, kind: 'demonstrated', valueKt: demonstratedKt.value },
    airframeCrosswindKt === null ? null : { source: 'this airframe', kind: 'airframe', valueKt: airframeCrosswindKt },
    school && {
      source: school.own ? house.reference : `${house.reference}: none for this group, so the lowest of all`,
      kind: 'house',
      valueKt: school.kt,
    },
    choices.instructorLimitKt === null
      ? null
      : { source: 'the instructor\u2019s own limit', kind: 'instructor', valueKt: choices.instructorLimitKt },
    dual
      ? {
          source: `${pilotName}: proven ${downTo(ladder.provenKt)} kt, plus one step`,
          kind: 'pilotStep',
          valueKt: ladder.ladderKt,
        }
      : knownAlone(ladder)
        ? {
            source: `${pilotName}: proven crosswind, without an instructor`,
            kind: 'pilotStep',
            valueKt: ladder.provenKt,
          }
        : null,
    lowestStall
      ? {
          source: '0.2 of the stall speed in landing configuration',
          kind: 'vs0Floor',
          valueKt: vs0Floor(dialToCasKt(lowestStall.speed.value, sheet.dial), 'kt'),
        }
      : null,
  ];
  return rows.filter((r): r is CrosswindLimit => r !== null);
}

/** Below it the landing is assured, ft above the threshold. */
const ASSURED_FT = 100;
/** Knots that going to calibrated and back may cost. */
const DIAL_NOISE = 1e-6;

function briefGate(
  gate: TypeSheet['approach'][number],
  flapHeldDeg: number,
  beyondTable: boolean,
  massKg: number,
  choices: BriefChoices,
  { sheet, house }: BriefContext,
  elevationFt: number,
  used: RunwayWind | null,
): BriefGate {
  const { dial, stalls, masses } = sheet;
  const flapDeg = Math.min(gate.flapDeg, flapHeldDeg);
  const warnings: string[] = [];
  const stallCas = (deg: number) => {
    const row = stalls.find((s) => s.flapDeg === deg);
    return row ? dialToCasKt(row.speed.value, dial) : null;
  };
  const base = {
    name: gate.name,
    heightFt: gate.heightFt,
    altimeterFt: Math.round(elevationFt + gate.heightFt),
    distanceM: gate.distanceM,
    flapDeg,
    gear: gate.gear,
    bankDeg: gate.bankDeg,
    whites:
      used?.slopeLightsDeg && isNumber(used.slopeLightsM) && gate.finalGate && gate.heightFt > 100
        ? slopeLights({
            heightFt: gate.heightFt,
            distanceM: gate.distanceM + used.slopeLightsM,
            nominalDeg: used.slopeLightsDeg,
            speedDevKt: 0,
            fastTolKt: 1,
            slowTolKt: 1,
          }).whites
        : null,
    flapWithheld: beyondTable && flapDeg > 0,
    power: gate.power,
    finalGate: gate.finalGate,
    sheetValue: gate.speed.value,
    sourceRef: gate.speed.ref,
    source: gate.speed.source,
    warnings,
  };
  if (base.flapWithheld) return { ...base, target: null, additive: 0, cas: null, margin: null, sheetCasToday: null };
  const sheetCasKt = dialToCasKt(gate.speed.value, dial);
  let casKt = sheetCasKt;
  if (flapDeg !== gate.flapDeg) {
    const from = stallCas(gate.flapDeg);
    const to = stallCas(flapDeg);
    if (from === null || to === null) {
      warnings.push(`no speed for flap ${flapDeg}\u00b0 on the sheet`);
      return { ...base, target: null, additive: 0, cas: null, margin: null, sheetCasToday: null };
    }
    casKt *= to / from;
  }
  // In a twin whose landing is assured the handbook's own threshold speed holds, not scaled down: Vsse is no landing floor.
  const assured = sheet.twin !== null && gate.heightFt <= ASSURED_FT;
  const vfe = sheet.speeds.vfe
    .filter((v) => v.flapDeg >= flapDeg && flapDeg > 0)
    .sort((a, b) => a.flapDeg - b.flapDeg)[0];
  const cas = gateTarget({
    speedKt: casKt,
    refMassKg: masses.refMassKg,
    massKg: assured ? Math.max(massKg, masses.refMassKg) : massKg,
    school: choices.gustSchool,
    finalGate: gate.finalGate,
    windKt: choices.wind?.kt ?? 0,
    gustKt: choices.wind?.gustKt ?? null,
    capKt: house.gustCapKt,
    configLimitKt: vfe ? dialToCasKt(vfe.speed.value, dial) : null,
    twin:
      sheet.twin && !assured
        ? {
            vyseKt: dialToCasKt(sheet.twin.vyse.value, dial),
            vsseKt: dialToCasKt(sheet.twin.vsse.value, dial),
            landingAssured: false,
          }
        : null,
  });
  const margin = stallMargin({
    casKt: cas.targetKt,
    flapDeg,
    stalls: stalls.flatMap((s) => ({ flapDeg: s.flapDeg, vsCasKt: dialToCasKt(s.speed.value, dial) })),
    refMassKg: masses.refMassKg,
    massKg,
    bankDeg: gate.bankDeg,
    sanctioned: gate.finalGate ? sheet.sanctionedMargin : null,
  });
  const reading = casKtToDial(cas.targetKt, dial);
  if (cas.limited) warnings.push(`target held ${LIMIT_BUFFER_KT} kt below the flap limit`);
  if (margin.reason) warnings.push(`no stall speed for flap ${flapDeg}\u00b0 on the sheet, margin not known`);
  if (margin.lowLevel) warnings.push(`only ${(margin.marginLevel ?? 0).toFixed(2)} of the stall speed, less than 1.3`);
  if (margin.lowBanked) warnings.push(`less than 1.1 of the stall speed in the planned ${gate.bankDeg}\u00b0 of bank`);
  const vyse = sheet.twin ? `Vyse ${withUnit(sheet.twin.vyse.value, dial.unit)}` : 'Vyse';
  if (cas.belowFloor)
    warnings.push(
      `below ${vyse}: the limit of flap ${flapDeg}\u00b0 leaves no speed at or above it. Less flap here, or another schedule.`,
    );
  else if (cas.raisedToFloor) warnings.push(`held at ${vyse}, not scaled below it`);
  return {
    ...base,
    // Away from the stall, except where the limit of what is out holds it: then away from the limit.
    target: cas.limited ? Math.floor(reading + DIAL_NOISE) : Math.ceil(reading - DIAL_NOISE),
    beyondTable: beyondDial(reading, sheet),
    additive: ktToDialDelta(cas.additiveKt, dial),
    cas,
    margin,
    sheetCasToday: scaleForMass('gate', sheetCasKt, masses.refMassKg, massKg),
  };
}
