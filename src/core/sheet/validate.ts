import { ATTRIBUTES } from '@/domain/handling';
import type { Sourced, TypeSheet } from '@/domain/sheet';
import { deceleration, scheduleFindings } from '../approach/schedule';
import { insideEnvelope } from '../loading';
import { G_MS2, M_PER_FT } from '../constants';
import { tableDistance, tableFromRows } from '../runway';
import { ktPerUnit } from '../speeds';
import { fieldName } from './labels';
import { sheetOn } from './surface';
import { type Args, coder } from '@/domain/coded';
import { type GateFinding, SHEET_WORDS, type SheetFinding, type SheetWhy, gateFinding } from './validate-words';
import {
  SEA_LEVEL_RHO,
  configurationDrag,
  scheduleLimits,
  sheetCas,
  sheetPolar,
  sheetSchedule,
  stallCas,
  stallLift,
} from './flown';

/**
 * Checks a type sheet against itself. Empty = consistent. Order: by subject, as listed in the sheet.
 * @returns one code a finding
 */
export function validateSheet(sheet: TypeSheet): SheetFinding[] {
  const found: SheetFinding[] = [];
  const said =
    (onLand: boolean): Say =>
    (code, path, why, ...params) =>
      found.push({ ...finding(code, ...params), path: onLand ? `onLand.${path}` : path, why, onLand });
  const say = said(false);
  checkDial(sheet, say);
  checkStalls(sheet, say);
  checkSpeeds(sheet, say);
  checkLimits(sheet, say);
  checkGear(sheet, say);
  checkTwin(sheet, say);
  checkApproach(sheet, say);
  checkTouchdown(sheet, say);
  checkDrag(sheet, say);
  checkLoading(sheet, say);
  checkDistances(sheet, say);
  checkNames(sheet, say);
  checkHandling(sheet, say);
  checkSight(sheet, say);
  checkDynamics(sheet, say);
  const land = sheet.surface === 'amphibian' ? sheetOn(sheet, 'land') : null;
  if (land && sheet.onLand) {
    const onLand = said(true);
    checkApproach(land, onLand);
    checkTouchdown(land, onLand);
    checkDistances(land, onLand);
  }
  return found;
}

const finding = coder(SHEET_WORDS);
type Say = <K extends keyof typeof SHEET_WORDS>(
  code: K,
  path: string,
  why: SheetWhy,
  ...params: Args<typeof SHEET_WORDS, K>
) => void;
const TOL_KT = 1;

function checkDial(sheet: TypeSheet, say: Say): void {
  const rows = [...sheet.dial.table].sort((a, b) => a.ias - b.ias);
  rows.slice(1).forEach((r, i) => {
    const before = rows[i];
    if (before && r.ias + r.correction <= before.ias + before.correction)
      say('dial-not-rising', 'dial.table', 'order', { ias: r.ias, below: before.ias });
  });
}

function checkStalls(sheet: TypeSheet, say: Say): void {
  const byFlap = sheet.stalls.map((s, i) => ({ ...s, i })).sort((a, b) => a.flapDeg - b.flapDeg);
  byFlap.slice(1).forEach((s, i) => {
    const before = byFlap[i];
    if (before && sheetCas(sheet, s.speed.value) >= sheetCas(sheet, before.speed.value))
      say('stall-order', `stalls.${s.i}.speed`, 'order', { flapDeg: s.flapDeg, lessDeg: before.flapDeg });
  });
  for (const deg of sheet.flapSteps)
    if (!sheet.stalls.some((s) => s.flapDeg === deg)) say('stall-missing', 'stalls', 'margin', { flapDeg: deg });
  for (const s of byFlap) {
    const cl = stallLift(sheet, sheetCas(sheet, s.speed.value));
    const [low, high] = s.flapDeg === 0 ? [1, 2] : [1.2, 3];
    if (cl < low || cl > high)
      say('stall-lift', `stalls.${s.i}.speed`, 'polar', { flapDeg: s.flapDeg, lift: cl, low, high });
  }
}

function checkSpeeds(sheet: TypeSheet, say: Say): void {
  const { speeds, dial } = sheet;
  const cas = (s: Sourced) => sheetCas(sheet, s.value);
  const clean = stallCas(sheet, 0);
  const inDial = (value: number) => ({ value, unit: dial.unit });
  const calibrated = (kt: number) => inDial(kt / ktPerUnit(dial.unit));
  const below = (a: Sourced, b: Sourced, names: [string, string], path: string) => {
    if (cas(a) > cas(b) + 0.01)
      say('speed-order', path, 'order', {
        name: names[0],
        at: inDial(a.value),
        above: names[1],
        limit: inDial(b.value),
      });
  };
  below(speeds.vx, speeds.vy, ['Vx', 'Vy'], 'speeds.vx');
  below(speeds.vno, speeds.vne, ['Vno', 'Vne'], 'speeds.vno');
  below(speeds.va, speeds.vne, ['Va', 'Vne'], 'speeds.va');
  if (clean !== null) {
    const most = clean * Math.sqrt(sheet.loadFactor.positive.value);
    if (cas(speeds.va) > most + TOL_KT)
      say('va-high', 'speeds.va', 'structure', { va: inDial(speeds.va.value), most: calibrated(most) });
    else if (cas(speeds.va) < 0.85 * most)
      say('va-low', 'speeds.va', 'order', { va: inDial(speeds.va.value), most: calibrated(most) });
    for (const [key, name, least] of [
      ['vx', 'Vx', 1.05],
      ['bestGlide', 'Best glide', 1.15],
    ] as const)
      if (cas(speeds[key]) < least * clean)
        say('speed-near-stall', `speeds.${key}`, 'margin', { name, at: inDial(speeds[key].value) });
  }
}

function checkLimits(sheet: TypeSheet, say: Say): void {
  const { speeds, dial } = sheet;
  const rows = speeds.vfe.map((v, i) => ({ ...v, i })).sort((a, b) => a.flapDeg - b.flapDeg);
  rows.forEach((r, n) => {
    const before = rows[n - 1];
    if (before && r.speed.value > before.speed.value)
      say('vfe-order', `speeds.vfe.${r.i}.speed`, 'limit', { flapDeg: r.flapDeg, lessDeg: before.flapDeg });
    const vs = stallCas(sheet, r.flapDeg);
    if (vs !== null && sheetCas(sheet, r.speed.value) < 1.3 * vs)
      say('vfe-low', `speeds.vfe.${r.i}.speed`, 'limit', { flapDeg: r.flapDeg });
    if (r.speed.value > speeds.vno.value)
      say('vfe-high', `speeds.vfe.${r.i}.speed`, 'limit', {
        flapDeg: r.flapDeg,
        limit: { value: r.speed.value, unit: dial.unit },
      });
  });
  const most = Math.max(...sheet.flapSteps);
  if (most > 0 && (rows[rows.length - 1]?.flapDeg ?? 0) < most)
    say('vfe-missing', 'speeds.vfe', 'limit', { flapDeg: most });
  const limits: [string, Sourced | null][] = [
    ['speeds.vno', speeds.vno],
    ['speeds.vne', speeds.vne],
    ['speeds.vloExtend', speeds.vloExtend],
    ['speeds.vloRetract', speeds.vloRetract],
    ['speeds.vle', speeds.vle],
    ['masses.maxTakeoffKg', sheet.masses.maxTakeoffKg],
    ...speeds.vfe.map((v, i): [string, Sourced] => [`speeds.vfe.${i}.speed`, v.speed]),
  ];
  for (const [path, limit] of limits)
    for (const o of limit?.others ?? [])
      if (limit && o.value < limit.value)
        say('limit-not-least', path, 'limit', {
          source: limit.source,
          value: limit.value,
          other: o.source,
          less: o.value,
        });
}

function checkGear(sheet: TypeSheet, say: Say): void {
  const { vloExtend, vloRetract, vle } = sheet.speeds;
  if (sheet.gear.retractable && (!vloExtend || !vloRetract || !vle))
    say('gear-speeds-missing', 'speeds.vloExtend', 'limit');
  if (!sheet.gear.retractable && (vloExtend ?? vloRetract ?? vle))
    say('gear-speeds-fixed', 'speeds.vloExtend', 'order');
  if (vloExtend && vloRetract && vloRetract.value > vloExtend.value)
    say('gear-speed-order', 'speeds.vloRetract', 'order');
  if (sheet.surface === 'amphibian') {
    const wrong = (gates: TypeSheet['approach'], wanted: 'up' | 'down', path: string, surface: 'water' | 'land') =>
      gates.forEach((g, i) => {
        if (g.gear !== wanted)
          say('gate-gear-surface', `${path}.${i}.gear`, 'surface', { gate: g.name, gear: g.gear, surface, wanted });
      });
    if (sheet.onLand) {
      wrong(sheet.approach, 'up', 'approach', 'water');
      wrong(sheet.onLand.approach, 'down', 'onLand.approach', 'land');
    } else say('surface-missing', 'onLand', 'surface');
  }
  sheet.approach.forEach((g, i) => {
    if ((g.gear === 'fixed') === sheet.gear.retractable)
      say('gate-gear', `approach.${i}.gear`, 'lever', {
        gate: g.name,
        gear: g.gear,
        retractable: sheet.gear.retractable,
      });
  });
}

function checkTwin(sheet: TypeSheet, say: Say): void {
  if (sheet.engine.count > 1 !== (sheet.twin !== null))
    say('twin-missing', 'twin', 'twin', { speeds: sheet.twin !== null });
  if (!sheet.twin) return;
  const { vmca, vsse, vyse } = sheet.twin;
  if (vmca.value >= vsse.value) say('vmca-vsse', 'twin.vsse', 'twin');
  if (vsse.value > vyse.value) say('vsse-vyse', 'twin.vyse', 'twin');
  const last = sheet.approach[sheet.approach.length - 1];
  sheet.approach.forEach((g, i) => {
    const floor = g === last ? vsse : vyse;
    if (g.speed.value < floor.value)
      say('gate-below-asymmetric', `approach.${i}.speed`, 'twin', {
        gate: g.name,
        at: g.speed.value,
        floor: g === last ? 'Vsse' : 'Vyse',
        floorAt: floor.value,
      });
  });
}

/** Between these, the top of the nose is called on the horizon. */
const ON_HORIZON_DEG = 2.5;

/** What is said of the nose in level flight must be what was measured. */
function checkSight(sheet: TypeSheet, say: Say): void {
  const level = sheet.sight?.attitudes.find((a) => a.name === 'level');
  const ahead = [...(sheet.sight?.profile ?? [])].sort((a, b) => Math.abs(a.azimuthDeg) - Math.abs(b.azimuthDeg))[0];
  const said = sheet.attributes.find((a) => a.key === 'level-picture')?.value;
  if (!level || !ahead || !said) return;
  const below = ahead.depressionDeg - level.pitchDeg.value;
  const measured =
    below > ON_HORIZON_DEG ? 'below the horizon' : below < -ON_HORIZON_DEG ? 'above the horizon' : 'on the horizon';
  if (said !== measured)
    say('level-picture', 'attributes', 'handling', { said, measured, offDeg: Math.abs(below), above: below < 0 });
}

/** The field of a gate that a finding of the schedule is about. */
const GATE_FIELD = {
  flapNoLimit: 'flapDeg',
  flapAboveLimit: 'flapDeg',
  gearAboveLimit: 'gear',
  targetAboveLimit: 'speed',
  notFalling: 'speed',
  slope: 'distanceM',
  stallMargin: 'speed',
  stallMarginBank: 'speed',
} as const satisfies Record<GateFinding['code'], string>;

function whyOf(code: GateFinding['code']): SheetWhy {
  if (code === 'slope') return 'slope';
  return code.startsWith('stall') ? 'margin' : 'lever';
}

function checkApproach(sheet: TypeSheet, say: Say): void {
  const gates = sheetSchedule(sheet);
  let ordered = true;
  gates.slice(1).forEach((g, i) => {
    const before = gates[i];
    if (before && g.distanceM >= before.distanceM) {
      ordered = false;
      say('gate-distance', `approach.${i + 1}.distanceM`, 'slope', {
        gate: g.name,
        atM: g.distanceM,
        before: before.name,
        beforeM: before.distanceM,
      });
    }
  });
  if (!ordered) return;
  const bank = Math.max(0, ...sheet.approach.slice(0, -1).map((g) => g.bankDeg));
  for (const f of scheduleFindings({
    gates,
    ...scheduleLimits(sheet),
    slopeMinDeg: 2,
    slopeMaxDeg: 7,
    bankDeg: bank,
  })) {
    const gate = gates[f.gate];
    // The circuit's first leg may be level; its banked margin is judged with the bank of that gate alone.
    if (
      !gate ||
      (f.code === 'stallMarginBank' &&
        (gate.targetCasKt / (gate.vsCasKt ?? 1)) *
          Math.sqrt(Math.cos(((sheet.approach[f.gate]?.bankDeg ?? 0) * Math.PI) / 180)) >=
          1.1)
    )
      continue;
    const { code, params } = gateFinding(f, gate.name, sheet.dial.unit);
    say(code, `approach.${f.gate}.${GATE_FIELD[code]}`, whyOf(code), params as never);
  }
  const polar = sheetPolar(sheet);
  gates.slice(1).forEach((g, i) => {
    const before = gates[i];
    if (!before) return;
    const d = deceleration({
      v1Kt: before.targetCasKt,
      v2Kt: g.targetCasKt,
      distanceM: before.distanceM - g.distanceM,
      heightLossFt: before.heightFt - g.heightFt,
      headwindKt: 0,
      polar,
      deltaCd0: configurationDrag(sheet, before.flapDeg, before.gear),
      massKg: sheet.masses.refMassKg,
      wingAreaM2: sheet.wing.areaM2.value,
      rhoKgM3: SEA_LEVEL_RHO,
    });
    if (d.canSlow === 'no')
      say('cannot-slow', `approach.${i + 1}.distanceM`, 'slow', {
        gate: g.name,
        fromKt: before.targetCasKt,
        toKt: g.targetCasKt,
        neededMs2: d.neededMs2 ?? 0,
        availableMs2: d.availableMs2 ?? 0,
      });
  });
}

/** Heights over the threshold this far from the slope to the aim point are one height. */
const THRESHOLD_TOL_FT = 10;
/** What the finest box of the standards allows past the declared point, and what is rounding before it. */
const BOX_M = { before: 15, past: 50 };

/**
 * Threshold, aim point, flare and touchdown point belong to one path: the final gate's slope to the aim point gives the
 * height over the threshold, and the handbook's distance in the air from 50 ft, less that path, is the flare.
 */
function checkTouchdown(sheet: TypeSheet, say: Say): void {
  const aimM = sheet.landing.aimPointM.value;
  const last = sheet.approach[sheet.approach.length - 1];
  const finals = sheet.approach.filter((g) => g.finalGate && g.distanceM > 0);
  const final = finals[finals.length - 1];
  if (!last || !final || final === last || final.distanceM + aimM <= 0) return;
  const slope = (final.heightFt * M_PER_FT) / (final.distanceM + aimM);
  if (slope <= 0) return;
  const slopeDeg = (Math.atan(slope) * 180) / Math.PI;
  const n = sheet.approach.length - 1;
  if (last.distanceM === 0) {
    const overFt = (aimM * slope) / M_PER_FT;
    if (Math.abs(last.heightFt - overFt) > THRESHOLD_TOL_FT)
      say('threshold-height', `approach.${n}.heightFt`, 'ground', {
        gate: last.name,
        heightFt: last.heightFt,
        meetsM: (last.heightFt * M_PER_FT) / slope,
        slopeDeg,
        aimM,
        overFt,
      });
  }
  const touchM = sheet.landing.touchdownM?.value;
  if (touchM !== undefined && touchM < aimM)
    say('touchdown-before-aim', 'landing.touchdownM', 'ground', { touchM, aimM });
  const airM = airDistance(sheet);
  if (airM === null) return;
  const straightM = (FIFTY_FT * M_PER_FT) / slope;
  if (airM < straightM - 1) say('air-distance', 'distances.landing', 'ground', { airM, slopeDeg, straightM });
  else if (touchM !== undefined && touchM >= aimM) {
    const flownM = aimM + airM - straightM;
    if (flownM < touchM - BOX_M.before || flownM > touchM + BOX_M.past)
      say('touchdown-flare', 'landing.touchdownM', 'ground', { flownM, aimM, flareM: airM - straightM, touchM });
  }
}

const FIFTY_FT = 50;
/** From 50 ft to the touch by the handbook, at the reference mass, sea level and 15 \u00b0C; null = not in its table. */
function airDistance(sheet: TypeSheet): number | null {
  const rows = sheet.distances?.landing ?? [];
  const at = { massKg: sheet.masses.refMassKg, pressureAltFt: 0, oatC: 15 };
  const of = (pick: (r: (typeof rows)[number]) => number) => tableDistance(tableFromRows(rows, pick), at).distanceM;
  const over = of((r) => r.over50FtM);
  const roll = of((r) => r.groundRollM);
  return over === null || roll === null ? null : over - roll;
}

function checkDrag(sheet: TypeSheet, say: Say): void {
  const { cd0, clBestGlide } = sheetPolar(sheet);
  const aspect = sheet.wing.spanM.value ** 2 / sheet.wing.areaM2.value;
  const span = (2 * clBestGlide * sheet.wing.bestGlideRatio.value) / (Math.PI * aspect);
  if (cd0 < 0.012 || cd0 > 0.09) say('polar-cd0', 'wing.bestGlideRatio', 'polar', { cd0 });
  if (span < 0.5 || span > 1) say('polar-span', 'wing.bestGlideRatio', 'polar', { span });
  sheet.flapSteps
    .filter((f) => f > 0)
    .forEach((f) => {
      if (!sheet.drag.flap.some((d) => d.flapDeg === f)) say('flap-drag-missing', 'drag.flap', 'polar', { flapDeg: f });
    });
}

function checkLoading(sheet: TypeSheet, say: Say): void {
  const { masses, loading, engine } = sheet;
  if (masses.emptyKg.value >= masses.maxTakeoffKg.value) say('mass-order', 'masses.emptyKg', 'load');
  if (masses.refMassKg > masses.maxTakeoffKg.value || masses.refMassKg < masses.emptyKg.value)
    say('ref-mass', 'masses.refMassKg', 'load');
  if (!loading) return;
  const top = Math.max(...loading.envelope.map((p) => p.massKg));
  if (Math.abs(top - masses.maxTakeoffKg.value) > 1)
    say('envelope-top', 'loading.envelope', 'load', { topKg: top, mostKg: masses.maxTakeoffKg.value });
  const seats = loading.stations.filter((s) => s.role === 'pilot' || s.role === 'instructor');
  const fuelKg = Math.min(
    (engine.usableFuelL.value / 2) * 0.72,
    Math.max(0, masses.maxTakeoffKg.value - masses.emptyKg.value - 77 * seats.length),
  );
  const massKg = masses.emptyKg.value + 77 * seats.length + fuelKg;
  const armM =
    (masses.emptyKg.value * loading.emptyArmM.value +
      seats.reduce((a, s) => a + 77 * s.armM.value, 0) +
      fuelKg * loading.fuelArmM.value) /
    massKg;
  if (!insideEnvelope(massKg, armM, loading.envelope).inside)
    say('usual-load-outside', 'loading.envelope', 'load', { massKg, armM });
}

function checkDistances(sheet: TypeSheet, say: Say): void {
  for (const kind of ['takeoff', 'landing'] as const) {
    const rows = sheet.distances?.[kind] ?? [];
    const size = (pick: (r: (typeof rows)[number]) => number) => new Set(rows.map(pick)).size;
    if (rows.length > 0 && rows.length !== size((r) => r.massKg) * size((r) => r.pressureAltFt) * size((r) => r.oatC))
      say('distance-grid', `distances.${kind}`, 'grid', { table: kind });
    rows.forEach((r, i) => {
      if (r.over50FtM <= r.groundRollM) say('distance-order', `distances.${kind}.${i}.over50FtM`, 'order');
    });
  }
}

/** What is named elsewhere on the sheet must be there. */
function checkNames(sheet: TypeSheet, say: Say): void {
  const table = sheet.crosswind.flapTable;
  table.forEach((r, i) => {
    if (!sheet.flapSteps.includes(r.maxFlapDeg))
      say('flap-table-step', `crosswind.flapTable.${i}.maxFlapDeg`, 'lever', { flapDeg: r.maxFlapDeg });
  });
  sheet.electrical?.consumers.forEach((c, i) =>
    c.dependsOn.forEach((d) => {
      if (!sheet.electrical?.consumers.some((x) => x.name === d))
        say('depends-on-unknown', `electrical.consumers.${i}.dependsOn`, 'handling', { consumer: c.name, on: d });
    }),
  );
}

function checkHandling(sheet: TypeSheet, say: Say): void {
  const valueOf = (key: string) => sheet.attributes.find((a) => a.key === key)?.value;
  sheet.attributes.forEach((a, i) => {
    if (!(ATTRIBUTES[a.key].values as readonly string[]).includes(a.value))
      say('attribute-value', `attributes.${i}.value`, 'handling', {
        attribute: ATTRIBUTES[a.key].name,
        value: a.value,
        values: ATTRIBUTES[a.key].values,
      });
    if (sheet.attributes.findIndex((b) => b.key === a.key) !== i)
      say('attribute-twice', `attributes.${i}.key`, 'handling', { attribute: ATTRIBUTES[a.key].name });
  });
  const disagree = (key: keyof typeof ATTRIBUTES, wanted: boolean, of: 'gear' | 'speed' | 'tail' | 'foot') => {
    const i = sheet.attributes.findIndex((a) => a.key === key);
    if (i >= 0 && !wanted) say('attribute-disagrees', `attributes.${i}.value`, 'handling', { of });
  };
  disagree('gear', (valueOf('gear') === 'fixed') !== sheet.gear.retractable, 'gear');
  disagree(
    'speed-school',
    (valueOf('speed-school') === 'always falling') === (sheet.landing.speedSchool === 'reducing'),
    'speed',
  );
  disagree('tail-inertia', (valueOf('tail-inertia') === 'nosewheel') === (sheet.gear.layout !== 'tailwheel'), 'tail');
  disagree(
    'power-foot',
    sheet.engine.footOnPower === 'none' || valueOf('power-foot') === sheet.engine.footOnPower,
    'foot',
  );
}

/** Outside these a number of the models belongs to no aeroplane: it is mistyped, or in another unit. */
const PLAUSIBLE = {
  finLiftSlopePerRad: [1.5, 4.5],
  rudderEffectiveness: [0.2, 0.8],
  rudderMaxDeg: [10, 40],
  bodySideSlopePerRad: [0, 1.2],
  propellerRpm: [500, 4000],
  propellerInertiaKgM2: [0.2, 120],
  finInWash: [0, 1],
  gearStrokeM: [0.03, 0.6],
  gearEfficiency: [0.3, 0.95],
  gearRestitution: [0, 0.95],
  sideslipMaxDeg: [3, 30],
  sideForcePerRad: [-1.5, -0.1],
  slipDrag: [0.05, 2],
  aileronInSlip: [0.05, 1],
  powerLift: [0, 4],
  elevatorLimitG: [1.05, 4],
} as const satisfies Partial<Record<keyof TypeSheet['dynamics'], readonly [number, number]>>;
/** Radius of gyration over half the mean of span and length, half the length, and half the span. */
const GYRATION = { yaw: [0.25, 0.5], pitch: [0.25, 0.5], roll: [0.15, 0.4] } as const;
/** Cornering stiffness over the load of the wheels, a radian. */
const TYRE_STIFFNESS = [1.5, 20] as const;

/** What the models of ground, touch, slip and slow approach work with must be of this aeroplane. */
function checkDynamics(sheet: TypeSheet, say: Say): void {
  const d = sheet.dynamics;
  const outside = (x: number, [low, high]: readonly [number, number]) => x < low || x > high;
  for (const [key, range] of Object.entries(PLAUSIBLE) as [keyof typeof PLAUSIBLE, readonly [number, number]][]) {
    const at = d[key]?.value;
    if (at !== undefined && outside(at, range))
      say('dynamics-range', `dynamics.${key}`, 'model', { name: fieldName(key), at, low: range[0], high: range[1] });
  }
  const massKg = sheet.masses.refMassKg;
  const lengthM = sheet.geometry.lengthM?.value ?? null;
  const half = {
    yaw: lengthM === null ? null : (sheet.wing.spanM.value + lengthM) / 4,
    pitch: lengthM && lengthM / 2,
    roll: sheet.wing.spanM.value / 2,
  };
  for (const axis of ['yaw', 'pitch', 'roll'] as const) {
    const inertia = d[`${axis}InertiaKgM2`]?.value;
    const arm = half[axis];
    if (inertia === undefined || arm === null) continue;
    const radius = Math.sqrt(Math.max(0, inertia) / massKg);
    if (outside(radius / arm, GYRATION[axis]))
      say('dynamics-inertia', `dynamics.${axis}InertiaKgM2`, 'model', {
        axis,
        radiusM: radius,
        lowM: GYRATION[axis][0] * arm,
        highM: GYRATION[axis][1] * arm,
      });
  }
  checkTyres(sheet, say, outside);
  if (d.finArmM && lengthM !== null && d.finArmM.value >= lengthM)
    say('dynamics-fin-arm', 'dynamics.finArmM', 'model', { armM: d.finArmM.value, lengthM });
  if (d.firmnessFpm) {
    const { verySoft, normal, firm, hard } = d.firmnessFpm;
    if (!(verySoft < normal && normal < firm && firm < hard)) say('firmness-order', 'dynamics.firmnessFpm', 'order');
  }
  const halfSpan = sheet.wing.spanM.value / 2;
  d.lowParts.forEach((p, i) => {
    if (p.outM.value > halfSpan + 0.05)
      say('low-part-out', `dynamics.lowParts.${i}.outM`, 'model', { part: p.name, outM: p.outM.value, halfSpan });
  });
  const foot = { clockwise: 'right', anticlockwise: 'left', 'opposite ways': 'none' } as const;
  if (d.propellerTurns !== 'not said' && sheet.engine.footOnPower !== foot[d.propellerTurns])
    say('propeller-foot', 'dynamics.propellerTurns', 'handling', {
      turns: d.propellerTurns,
      foot: sheet.engine.footOnPower,
    });
}

function checkTyres(
  sheet: TypeSheet,
  say: Say,
  outside: (x: number, range: readonly [number, number]) => boolean,
): void {
  const d = sheet.dynamics;
  const ahead = d.mainsAheadM?.value;
  if (ahead === undefined) return;
  const base = sheet.gear.wheelbaseM.value;
  const tail = sheet.gear.layout === 'tailwheel';
  if (tail !== ahead > 0 || Math.abs(ahead) >= base)
    return say('mains-side', 'dynamics.mainsAheadM', 'model', { tail, aheadM: ahead });
  const weight = sheet.masses.refMassKg * G_MS2;
  const third = Math.abs(ahead) / base;
  for (const [key, load] of [
    ['corneringMainsNPerRad', weight * (1 - third)],
    ['corneringThirdNPerRad', weight * third],
  ] as const) {
    const at = d[key]?.value;
    if (at !== undefined && outside(at / load, TYRE_STIFFNESS))
      say('tyre-stiffness', `dynamics.${key}`, 'model', {
        name: fieldName(key),
        at,
        low: TYRE_STIFFNESS[0] * load,
        high: TYRE_STIFFNESS[1] * load,
      });
  }
}
