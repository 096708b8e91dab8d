import { ATTRIBUTES } from '@/domain/handling';
import type { Sourced, TypeSheet } from '@/domain/sheet';
import { type ScheduleFinding, deceleration, scheduleFindings } from '../approach/schedule';
import { fixed, withUnit } from '../format';
import { insideEnvelope } from '../loading';
import { M_PER_FT } from '../constants';
import { tableDistance, tableFromRows } from '../runway';
import { ktPerUnit } from '../speeds';
import { sheetOn } from './surface';
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

/** A finding on a type sheet: what is wrong, why it matters, and the field where it is put right. */
export interface SheetFinding {
  code: string;
  path: string;
  what: string;
  why: string;
}

const WHY: Record<string, string> = {
  order: 'Speeds out of order mean that one of them is mistyped or taken from another aeroplane.',
  limit: 'A limit that is too high is a limit nobody keeps.',
  structure: 'Full control above this speed can break the structure before the wing stalls.',
  surface: 'Wheels down on water and wheels up on a runway both end the flight: each surface has its own schedule.',
  lever: 'The lever would be moved above its limit on every approach.',
  margin: 'Too close to the stall for a normal approach.',
  slope: 'Such a path cannot be flown as drawn: a height or a distance is wrong.',
  slow: 'It cannot lose this speed in this distance at idle: the gate will be passed fast.',
  polar: 'Sink, glide and slowing down are computed from these numbers.',
  load: 'Loading would be judged against a wrong envelope.',
  twin: 'Asymmetric speeds out of order can kill.',
  grid: 'A distance between missing points cannot be computed.',
  ground: 'A landing flown as briefed must touch where it is judged to be right: one of these numbers is wrong.',
  handling: 'Differences and cues are drawn from these.',
};

/** Checks a type sheet against itself. Empty = consistent. Order: by subject, as listed in the sheet. */
export function validateSheet(sheet: TypeSheet): SheetFinding[] {
  const found: SheetFinding[] = [];
  const say = (code: string, path: string, what: string, why: keyof typeof WHY) =>
    found.push({ code, path, what, why: WHY[why] ?? '' });
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
  checkTables(sheet, say);
  checkHandling(sheet, say);
  checkSight(sheet, say);
  const land = sheet.surface === 'amphibian' ? sheetOn(sheet, 'land') : null;
  if (land && sheet.onLand) {
    const onLand: Say = (code, path, what, why) => say(code, `onLand.${path}`, `On land: ${what}`, why);
    checkApproach(land, onLand);
    checkTouchdown(land, onLand);
    checkTables(land, (code, path, what, why) =>
      path.startsWith('distances') ? onLand(code, path, what, why) : undefined,
    );
  }
  return found;
}

type Say = (code: string, path: string, what: string, why: keyof typeof WHY) => void;
const TOL_KT = 1;

function checkDial(sheet: TypeSheet, say: Say): void {
  const rows = [...sheet.dial.table].sort((a, b) => a.ias - b.ias);
  rows.slice(1).forEach((r, i) => {
    const before = rows[i];
    if (before && r.ias + r.correction <= before.ias + before.correction)
      say(
        'dial-not-rising',
        'dial.table',
        `The dial's error table makes ${r.ias} slower than ${before.ias} in calibrated speed.`,
        'order',
      );
  });
}

function checkStalls(sheet: TypeSheet, say: Say): void {
  const byFlap = sheet.stalls.map((s, i) => ({ ...s, i })).sort((a, b) => a.flapDeg - b.flapDeg);
  byFlap.slice(1).forEach((s, i) => {
    const before = byFlap[i];
    if (before && sheetCas(sheet, s.speed.value) >= sheetCas(sheet, before.speed.value))
      say(
        'stall-order',
        `stalls.${s.i}.speed`,
        `The stall with flap ${s.flapDeg}\u00b0 is not below the stall with flap ${before.flapDeg}\u00b0.`,
        'order',
      );
  });
  for (const deg of sheet.flapSteps)
    if (!sheet.stalls.some((s) => s.flapDeg === deg))
      say('stall-missing', 'stalls', `No stall speed for flap ${deg}\u00b0.`, 'margin');
  for (const s of byFlap) {
    const cl = stallLift(sheet, sheetCas(sheet, s.speed.value));
    const [low, high] = s.flapDeg === 0 ? [1, 2] : [1.2, 3];
    if (cl < low || cl > high)
      say(
        'stall-lift',
        `stalls.${s.i}.speed`,
        `The stall with flap ${s.flapDeg}\u00b0 needs a lift coefficient of ${fixed(cl, 2)}: outside ${low} to ${high}, so mass, wing area or this speed is wrong.`,
        'polar',
      );
  }
}

function checkSpeeds(sheet: TypeSheet, say: Say): void {
  const { speeds, dial } = sheet;
  const cas = (s: Sourced) => sheetCas(sheet, s.value);
  const clean = stallCas(sheet, 0);
  const inDial = (kt: number) => withUnit(kt / ktPerUnit(dial.unit), dial.unit);
  const below = (a: Sourced, b: Sourced, names: [string, string], path: string) => {
    if (cas(a) > cas(b) + 0.01)
      say(
        'speed-order',
        path,
        `${names[0]} ${withUnit(a.value, dial.unit)} is above ${names[1]} ${withUnit(b.value, dial.unit)}.`,
        'order',
      );
  };
  below(speeds.vx, speeds.vy, ['Vx', 'Vy'], 'speeds.vx');
  below(speeds.vno, speeds.vne, ['Vno', 'Vne'], 'speeds.vno');
  below(speeds.va, speeds.vne, ['Va', 'Vne'], 'speeds.va');
  if (clean !== null) {
    const most = clean * Math.sqrt(sheet.loadFactor.positive.value);
    if (cas(speeds.va) > most + TOL_KT)
      say(
        'va-high',
        'speeds.va',
        `Va ${withUnit(speeds.va.value, dial.unit)} is above the stall speed times the root of the load factor, ${inDial(most)} calibrated.`,
        'structure',
      );
    else if (cas(speeds.va) < 0.85 * most)
      say(
        'va-low',
        'speeds.va',
        `Va ${withUnit(speeds.va.value, dial.unit)} is far below the stall speed times the root of the load factor, ${inDial(most)} calibrated.`,
        'order',
      );
    for (const [key, name, least] of [
      ['vx', 'Vx', 1.05],
      ['bestGlide', 'Best glide', 1.15],
    ] as const)
      if (cas(speeds[key]) < least * clean)
        say(
          'speed-near-stall',
          `speeds.${key}`,
          `${name} ${withUnit(speeds[key].value, dial.unit)} is too near the stall.`,
          'margin',
        );
  }
}

function checkLimits(sheet: TypeSheet, say: Say): void {
  const { speeds, dial } = sheet;
  const rows = speeds.vfe.map((v, i) => ({ ...v, i })).sort((a, b) => a.flapDeg - b.flapDeg);
  rows.forEach((r, n) => {
    const before = rows[n - 1];
    if (before && r.speed.value > before.speed.value)
      say(
        'vfe-order',
        `speeds.vfe.${r.i}.speed`,
        `The limit of flap ${r.flapDeg}\u00b0 is above the limit of flap ${before.flapDeg}\u00b0.`,
        'limit',
      );
    const vs = stallCas(sheet, r.flapDeg);
    if (vs !== null && sheetCas(sheet, r.speed.value) < 1.3 * vs)
      say(
        'vfe-low',
        `speeds.vfe.${r.i}.speed`,
        `The limit of flap ${r.flapDeg}\u00b0 leaves less than 1.3 of its stall speed.`,
        'limit',
      );
    if (r.speed.value > speeds.vno.value)
      say(
        'vfe-high',
        `speeds.vfe.${r.i}.speed`,
        `The limit of flap ${r.flapDeg}\u00b0, ${withUnit(r.speed.value, dial.unit)}, is above Vno.`,
        'limit',
      );
  });
  const most = Math.max(...sheet.flapSteps);
  if (most > 0 && (rows[rows.length - 1]?.flapDeg ?? 0) < most)
    say('vfe-missing', 'speeds.vfe', `No limit for flap ${most}\u00b0.`, 'limit');
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
        say(
          'limit-not-least',
          path,
          `${limit.source} gives ${limit.value}, ${o.source} gives ${o.value}: the higher one governs.`,
          'limit',
        );
}

function checkGear(sheet: TypeSheet, say: Say): void {
  const { vloExtend, vloRetract, vle } = sheet.speeds;
  if (sheet.gear.retractable && (!vloExtend || !vloRetract || !vle))
    say('gear-speeds-missing', 'speeds.vloExtend', 'Retractable gear without all three gear speeds.', 'limit');
  if (!sheet.gear.retractable && (vloExtend ?? vloRetract ?? vle))
    say('gear-speeds-fixed', 'speeds.vloExtend', 'Gear speeds on fixed gear.', 'order');
  if (vloExtend && vloRetract && vloRetract.value > vloExtend.value)
    say(
      'gear-speed-order',
      'speeds.vloRetract',
      'Retraction above extension: raising the gear is the weaker movement.',
      'order',
    );
  if (sheet.surface === 'amphibian') {
    const wrong = (gates: TypeSheet['approach'], wanted: 'up' | 'down', path: string, where: string) =>
      gates.forEach((g, i) => {
        if (g.gear !== wanted)
          say(
            'gate-gear-surface',
            `${path}.${i}.gear`,
            `${g.name}: gear ${g.gear} on a schedule for ${where}, where the wheels are ${wanted}.`,
            'surface',
          );
      });
    if (sheet.onLand) {
      wrong(sheet.approach, 'up', 'approach', 'water');
      wrong(sheet.onLand.approach, 'down', 'onLand.approach', 'land');
    } else say('surface-missing', 'onLand', 'An amphibian with a schedule for one surface only.', 'surface');
  }
  sheet.approach.forEach((g, i) => {
    if ((g.gear === 'fixed') === sheet.gear.retractable)
      say(
        'gate-gear',
        `approach.${i}.gear`,
        `${g.name}: gear ${g.gear} on ${sheet.gear.retractable ? 'retractable' : 'fixed'} gear.`,
        'lever',
      );
  });
}

function checkTwin(sheet: TypeSheet, say: Say): void {
  if (sheet.engine.count > 1 !== (sheet.twin !== null))
    say(
      'twin-missing',
      'twin',
      sheet.twin ? 'Asymmetric speeds on a single.' : 'More than one engine and no asymmetric speeds.',
      'twin',
    );
  if (!sheet.twin) return;
  const { vmca, vsse, vyse } = sheet.twin;
  if (vmca.value >= vsse.value) say('vmca-vsse', 'twin.vsse', 'Vsse is not above Vmca.', 'twin');
  if (vsse.value > vyse.value) say('vsse-vyse', 'twin.vyse', 'Vyse is below Vsse.', 'twin');
  const last = sheet.approach[sheet.approach.length - 1];
  sheet.approach.forEach((g, i) => {
    const floor = g === last ? vsse : vyse;
    if (g.speed.value < floor.value)
      say(
        'gate-below-asymmetric',
        `approach.${i}.speed`,
        `${g.name} ${g.speed.value} is below ${g === last ? 'Vsse' : 'Vyse'} ${floor.value}.`,
        'twin',
      );
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
    say(
      'level-picture',
      'attributes',
      `The nose in level flight is said to be ${said}; measured it is ${fixed(Math.abs(below), 1)}° ${below < 0 ? 'above' : 'below'}, so ${measured}.`,
      'handling',
    );
}

/** The words of a schedule finding; limits in the dial's unit. */
export function scheduleWords(
  f: ScheduleFinding,
  gateName: string,
  unit: string,
): { what: string; why: string; field: 'flapDeg' | 'gear' | 'speed' | 'distanceM' } {
  const v = withUnit(f.value, unit);
  const limit = f.limit === null ? '' : withUnit(f.limit, unit);
  const ratio = `${fixed(f.value, 2)}, below ${fixed(f.limit ?? 0, 2)}`;
  switch (f.code) {
    case 'flapNoLimit':
      return {
        what: `${gateName}: flap ${fixed(f.value)}\u00b0 has no limit speed on the sheet.`,
        why: WHY.limit ?? '',
        field: 'flapDeg',
      };
    case 'flapAboveLimit':
      return {
        what: `${gateName}: flap is selected at ${v}, above its limit of ${limit}.`,
        why: WHY.lever ?? '',
        field: 'flapDeg',
      };
    case 'gearAboveLimit':
      return {
        what: `${gateName}: gear is selected at ${v}, above its limit of ${limit}.`,
        why: WHY.lever ?? '',
        field: 'gear',
      };
    case 'targetAboveLimit':
      return {
        what: `${gateName}: ${v} is above the limit of ${limit} of what is already out.`,
        why: WHY.lever ?? '',
        field: 'speed',
      };
    case 'notFalling':
      return {
        what: `${gateName}: ${v} does not fall from ${limit}, and the school asks for a falling speed.`,
        why: WHY.order ?? '',
        field: 'speed',
      };
    case 'slope':
      return {
        what: `${gateName}: the path to it slopes ${fixed(f.value, 1)}\u00b0, outside 2\u00b0 to 7\u00b0.`,
        why: WHY.slope ?? '',
        field: 'distanceM',
      };
    case 'stallMargin':
      return { what: `${gateName}: speed over stall ${ratio}.`, why: WHY.margin ?? '', field: 'speed' };
    case 'stallMarginBank':
      return {
        what: `${gateName}: speed over stall in the planned bank ${ratio}.`,
        why: WHY.margin ?? '',
        field: 'speed',
      };
  }
}

function checkApproach(sheet: TypeSheet, say: Say): void {
  const gates = sheetSchedule(sheet);
  let ordered = true;
  gates.slice(1).forEach((g, i) => {
    const before = gates[i];
    if (before && g.distanceM >= before.distanceM) {
      ordered = false;
      say(
        'gate-distance',
        `approach.${i + 1}.distanceM`,
        `${g.name} at ${g.distanceM} m does not come after ${before.name} at ${before.distanceM} m.`,
        'slope',
      );
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
    const { what, field } = scheduleWords(f, gate.name, sheet.dial.unit);
    say(
      f.code,
      `approach.${f.gate}.${field}`,
      what,
      f.code === 'slope' ? 'slope' : f.code.startsWith('stall') ? 'margin' : 'lever',
    );
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
      say(
        'cannot-slow',
        `approach.${i + 1}.distanceM`,
        `${g.name}: from ${before.targetCasKt.toFixed(0)} to ${g.targetCasKt.toFixed(0)} kt needs ${fixed(d.neededMs2 ?? 0, 2)} m/s\u00b2, idle gives ${fixed(d.availableMs2 ?? 0, 2)}.`,
        'slow',
      );
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
  const slopeText = `${fixed((Math.atan(slope) * 180) / Math.PI, 1)}\u00b0`;
  const n = sheet.approach.length - 1;
  if (last.distanceM === 0) {
    const overFt = (aimM * slope) / M_PER_FT;
    if (Math.abs(last.heightFt - overFt) > THRESHOLD_TOL_FT)
      say(
        'threshold-height',
        `approach.${n}.heightFt`,
        `${last.name}: ${fixed(last.heightFt)} ft there meets the ground ${fixed((last.heightFt * M_PER_FT) / slope)} m past it on ${slopeText}; the aim point is ${fixed(aimM)} m. Make it ${fixed(overFt)} ft, or move the aim point.`,
        'ground',
      );
  }
  const touchM = sheet.landing.touchdownM?.value;
  if (touchM !== undefined && touchM < aimM)
    say(
      'touchdown-before-aim',
      'landing.touchdownM',
      `The touchdown point, ${fixed(touchM)} m, lies before the aim point, ${fixed(aimM)} m.`,
      'ground',
    );
  const airM = airDistance(sheet);
  if (airM === null) return;
  const straightM = (FIFTY_FT * M_PER_FT) / slope;
  if (airM < straightM - 1)
    say(
      'air-distance',
      'distances.landing',
      `The handbook takes ${fixed(airM)} m from 50 ft to the ground; on ${slopeText} the straight path alone is ${fixed(straightM)} m. A distance or the final gate is wrong.`,
      'ground',
    );
  else if (touchM !== undefined && touchM >= aimM) {
    const flownM = aimM + airM - straightM;
    if (flownM < touchM - BOX_M.before || flownM > touchM + BOX_M.past)
      say(
        'touchdown-flare',
        'landing.touchdownM',
        `Flown as briefed it touches at ${fixed(flownM)} m: aim ${fixed(aimM)} m and a flare of ${fixed(airM - straightM)} m by the handbook; declared is ${fixed(touchM)} m.`,
        'ground',
      );
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
  if (cd0 < 0.012 || cd0 > 0.09)
    say(
      'polar-cd0',
      'wing.bestGlideRatio',
      `Best glide gives a drag coefficient of ${fixed(cd0, 3)}: outside 0.012 to 0.09.`,
      'polar',
    );
  if (span < 0.5 || span > 1)
    say(
      'polar-span',
      'wing.bestGlideRatio',
      `Best glide gives a span efficiency of ${fixed(span, 2)}: outside 0.5 to 1.`,
      'polar',
    );
  sheet.flapSteps
    .filter((f) => f > 0)
    .forEach((f) => {
      if (!sheet.drag.flap.some((d) => d.flapDeg === f))
        say('flap-drag-missing', 'drag.flap', `No drag for flap ${f}\u00b0.`, 'polar');
    });
}

function checkLoading(sheet: TypeSheet, say: Say): void {
  const { masses, loading, engine } = sheet;
  if (masses.emptyKg.value >= masses.maxTakeoffKg.value)
    say('mass-order', 'masses.emptyKg', 'The empty mass is not below the maximum.', 'load');
  if (masses.refMassKg > masses.maxTakeoffKg.value || masses.refMassKg < masses.emptyKg.value)
    say(
      'ref-mass',
      'masses.refMassKg',
      'The speeds\u2019 reference mass lies outside the masses of the aeroplane.',
      'load',
    );
  if (!loading) return;
  const top = Math.max(...loading.envelope.map((p) => p.massKg));
  if (Math.abs(top - masses.maxTakeoffKg.value) > 1)
    say(
      'envelope-top',
      'loading.envelope',
      `The envelope ends at ${top} kg, the maximum mass is ${masses.maxTakeoffKg.value} kg.`,
      'load',
    );
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
    say(
      'usual-load-outside',
      'loading.envelope',
      `Two of 77 kg and half fuel lie outside the envelope: ${fixed(massKg)} kg at ${fixed(armM, 3)} m.`,
      'load',
    );
}

function checkTables(sheet: TypeSheet, say: Say): void {
  for (const kind of ['takeoff', 'landing'] as const) {
    const rows = sheet.distances?.[kind] ?? [];
    const size = (pick: (r: (typeof rows)[number]) => number) => new Set(rows.map(pick)).size;
    if (rows.length > 0 && rows.length !== size((r) => r.massKg) * size((r) => r.pressureAltFt) * size((r) => r.oatC))
      say(
        'distance-grid',
        `distances.${kind}`,
        `The ${kind === 'takeoff' ? 'take-off' : 'landing'} table has holes: not every mass has every height and temperature.`,
        'grid',
      );
    rows.forEach((r, i) => {
      if (r.over50FtM <= r.groundRollM)
        say(
          'distance-order',
          `distances.${kind}.${i}.over50FtM`,
          'The distance over 50 ft is not longer than the ground roll.',
          'order',
        );
    });
  }
  const table = sheet.crosswind.flapTable;
  table.forEach((r, i) => {
    if (!sheet.flapSteps.includes(r.maxFlapDeg))
      say(
        'flap-table-step',
        `crosswind.flapTable.${i}.maxFlapDeg`,
        `Flap ${r.maxFlapDeg}\u00b0 is not a setting of this aeroplane.`,
        'lever',
      );
  });
  sheet.electrical?.consumers.forEach((c, i) =>
    c.dependsOn.forEach((d) => {
      if (!sheet.electrical?.consumers.some((x) => x.name === d))
        say(
          'depends-on-unknown',
          `electrical.consumers.${i}.dependsOn`,
          `${c.name} depends on ${d}, which is not listed.`,
          'handling',
        );
    }),
  );
}

function checkHandling(sheet: TypeSheet, say: Say): void {
  const valueOf = (key: string) => sheet.attributes.find((a) => a.key === key)?.value;
  sheet.attributes.forEach((a, i) => {
    if (!(ATTRIBUTES[a.key].values as readonly string[]).includes(a.value))
      say(
        'attribute-value',
        `attributes.${i}.value`,
        `${ATTRIBUTES[a.key].name}: "${a.value}" is not one of ${ATTRIBUTES[a.key].values.join(', ')}.`,
        'handling',
      );
    if (sheet.attributes.findIndex((b) => b.key === a.key) !== i)
      say('attribute-twice', `attributes.${i}.key`, `${ATTRIBUTES[a.key].name} stands twice.`, 'handling');
  });
  const disagree = (key: keyof typeof ATTRIBUTES, wanted: boolean, what: string) => {
    const i = sheet.attributes.findIndex((a) => a.key === key);
    if (i >= 0 && !wanted) say('attribute-disagrees', `attributes.${i}.value`, what, 'handling');
  };
  disagree(
    'gear',
    (valueOf('gear') === 'fixed') !== sheet.gear.retractable,
    'The wheels attribute and the gear do not agree.',
  );
  disagree(
    'speed-school',
    (valueOf('speed-school') === 'always falling') === (sheet.landing.speedSchool === 'reducing'),
    'The approach-speed attribute and the landing school do not agree.',
  );
  disagree(
    'tail-inertia',
    (valueOf('tail-inertia') === 'nosewheel') === (sheet.gear.layout !== 'tailwheel'),
    'The tail attribute and the gear layout do not agree.',
  );
  disagree(
    'power-foot',
    sheet.engine.footOnPower === 'none' || valueOf('power-foot') === sheet.engine.footOnPower,
    'The foot for power and the engine do not agree.',
  );
}
