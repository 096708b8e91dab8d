/**
 * The catalogue of the check of a type sheet: what does not fit, and why that matters. Speeds in the unit of the dial,
 * flap in degrees, lengths in metres, heights in feet, masses in kilograms.
 */
import { type Coded, sentence } from '@/domain/coded';
import { fixed, withUnit } from '../format';
import type { ScheduleFinding } from '../approach/schedule';

/** Why a finding matters. */
export const SHEET_WHY = {
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
  model: 'The models of the lab work with this number.',
} as const;
export type SheetWhy = keyof typeof SHEET_WHY;

/** A speed and its unit. */
interface Speed {
  value: number;
  unit: string;
}
const speed = ({ value, unit }: Speed): string => withUnit(value, unit);
const capital = (s: string): string => `${s.charAt(0).toUpperCase()}${s.slice(1)}`;
const degrees = (deg: number): string => `${fixed(deg, 1)}\u00b0`;
const flap = (deg: number): string => `flap ${fixed(deg)}\u00b0`;

/** What does not fit in the schedule of an approach, gate by gate. */
export const GATE_WORDS = {
  flapNoLimit: ({ gate, flapDeg }: { gate: string; flapDeg: number }) =>
    `${gate}: ${flap(flapDeg)} has no limit speed on the sheet.`,
  flapAboveLimit: (p: { gate: string; at: Speed; limit: Speed }) =>
    `${p.gate}: flap is selected at ${speed(p.at)}, above its limit of ${speed(p.limit)}.`,
  gearAboveLimit: (p: { gate: string; at: Speed; limit: Speed }) =>
    `${p.gate}: gear is selected at ${speed(p.at)}, above its limit of ${speed(p.limit)}.`,
  targetAboveLimit: (p: { gate: string; at: Speed; limit: Speed }) =>
    `${p.gate}: ${speed(p.at)} is above the limit of ${speed(p.limit)} of what is already out.`,
  notFalling: (p: { gate: string; at: Speed; from: Speed }) =>
    `${p.gate}: ${speed(p.at)} does not fall from ${speed(p.from)}, and the technique chosen asks for a falling speed.`,
  slope: ({ gate, slopeDeg }: { gate: string; slopeDeg: number }) =>
    `${gate}: the path to it slopes ${fixed(slopeDeg, 1)}\u00b0, outside 2\u00b0 to 7\u00b0.`,
  stallMargin: (p: { gate: string; ratio: number; least: number }) =>
    `${p.gate}: speed over stall ${fixed(p.ratio, 2)}, below ${fixed(p.least, 2)}.`,
  stallMarginBank: (p: { gate: string; ratio: number; least: number }) =>
    `${p.gate}: speed over stall in the planned bank ${fixed(p.ratio, 2)}, below ${fixed(p.least, 2)}.`,
} as const;

export const SHEET_WORDS = {
  ...GATE_WORDS,
  'dynamics-range': (p: { name: string; at: number; low: number; high: number }) =>
    `${capital(p.name)}: ${p.at} is outside ${p.low} to ${p.high}; it is mistyped or in another unit.`,
  'dynamics-inertia': (p: { axis: 'yaw' | 'pitch' | 'roll'; radiusM: number; lowM: number; highM: number }) =>
    `The moment of inertia in ${p.axis} gives a radius of gyration of ${withUnit(p.radiusM, 'm', 2)}; ` +
    `from the dimensions ${withUnit(p.lowM, 'm', 2)} to ${withUnit(p.highM, 'm', 2)} is expected.`,
  'dynamics-fin-arm': (p: { armM: number; lengthM: number }) =>
    `The fin is ${withUnit(p.armM, 'm', 1)} behind the centre of gravity of an aeroplane ${withUnit(p.lengthM, 'm', 1)} long.`,
  'firmness-order': () => 'The sinks for very soft, normal, firm and hard do not rise in this order.',
  'low-part-out': (p: { part: string; outM: number; halfSpan: number }) =>
    `${capital(p.part)}: ${withUnit(p.outM, 'm', 2)} out from the centreline, beyond half the span of ${withUnit(p.halfSpan, 'm', 2)}.`,
  'propeller-foot': (p: { turns: string; foot: string }) =>
    `A propeller that turns ${p.turns} does not agree with ${p.foot === 'none' ? 'no foot' : `the ${p.foot} foot`} as power comes on.`,
  'mains-side': (p: { tail: boolean; aheadM: number }) =>
    `The main wheels are ${withUnit(Math.abs(p.aheadM), 'm', 2)} ${p.aheadM > 0 ? 'ahead of' : 'behind'} the centre of gravity: ` +
    `on a ${p.tail ? 'tailwheel' : 'nosewheel'} type they are ${p.tail ? 'ahead' : 'behind'}, within the wheelbase.`,
  'tyre-stiffness': (p: { name: string; at: number; low: number; high: number }) =>
    `${capital(p.name)}: ${fixed(p.at)} N a radian does not fit the load on the wheel; ` +
    `${fixed(p.low)} to ${fixed(p.high)} is expected.`,
  'dial-not-rising': ({ ias, below }: { ias: number; below: number }) =>
    `The dial's error table makes ${ias} slower than ${below} in calibrated speed.`,
  'stall-order': (p: { flapDeg: number; lessDeg: number }) =>
    `The stall with ${flap(p.flapDeg)} is not below the stall with ${flap(p.lessDeg)}.`,
  'stall-missing': ({ flapDeg }: { flapDeg: number }) => `No stall speed for ${flap(flapDeg)}.`,
  'stall-lift': (p: { flapDeg: number; lift: number; low: number; high: number }) =>
    `The stall with ${flap(p.flapDeg)} needs a lift coefficient of ${fixed(p.lift, 2)}: ` +
    `outside ${p.low} to ${p.high}, so mass, wing area or this speed is wrong.`,
  'speed-order': (p: { name: string; at: Speed; above: string; limit: Speed }) =>
    `${p.name} ${speed(p.at)} is above ${p.above} ${speed(p.limit)}.`,
  'va-high': (p: { va: Speed; most: Speed }) =>
    `Va ${speed(p.va)} is above the stall speed times the root of the load factor, ${speed(p.most)} calibrated.`,
  'va-low': (p: { va: Speed; most: Speed }) =>
    `Va ${speed(p.va)} is far below the stall speed times the root of the load factor, ${speed(p.most)} calibrated.`,
  'speed-near-stall': (p: { name: string; at: Speed }) => `${p.name} ${speed(p.at)} is too near the stall.`,
  'vfe-order': (p: { flapDeg: number; lessDeg: number }) =>
    `The limit of ${flap(p.flapDeg)} is above the limit of ${flap(p.lessDeg)}.`,
  'vfe-low': ({ flapDeg }: { flapDeg: number }) =>
    `The limit of ${flap(flapDeg)} leaves less than 1.3 of its stall speed.`,
  'vfe-high': (p: { flapDeg: number; limit: Speed }) =>
    `The limit of ${flap(p.flapDeg)}, ${speed(p.limit)}, is above Vno.`,
  'vfe-missing': ({ flapDeg }: { flapDeg: number }) => `No limit for ${flap(flapDeg)}.`,
  'limit-not-least': (p: { source: string; value: number; other: string; less: number }) =>
    `${p.source} gives ${p.value}, ${p.other} gives ${p.less}: the higher one governs.`,
  'gear-speeds-missing': () => 'Retractable gear without all three gear speeds.',
  'gear-speeds-fixed': () => 'Gear speeds on fixed gear.',
  'gear-speed-order': () => 'Retraction above extension: raising the gear is the weaker movement.',
  'gate-gear-surface': (p: { gate: string; gear: string; surface: 'water' | 'land'; wanted: 'up' | 'down' }) =>
    `${p.gate}: gear ${p.gear} on a schedule for ${p.surface}, where the wheels are ${p.wanted}.`,
  'surface-missing': () => 'An amphibian with a schedule for one surface only.',
  'gate-gear': (p: { gate: string; gear: string; retractable: boolean }) =>
    `${p.gate}: gear ${p.gear} on ${p.retractable ? 'retractable' : 'fixed'} gear.`,
  'twin-missing': ({ speeds }: { speeds: boolean }) =>
    speeds ? 'Asymmetric speeds on a single.' : 'More than one engine and no asymmetric speeds.',
  'vmca-vsse': () => 'Vsse is not above Vmca.',
  'vsse-vyse': () => 'Vyse is below Vsse.',
  'gate-below-asymmetric': (p: { gate: string; at: number; floor: 'Vsse' | 'Vyse'; floorAt: number }) =>
    `${p.gate} ${p.at} is below ${p.floor} ${p.floorAt}.`,
  'level-picture': (p: { said: string; measured: string; offDeg: number; above: boolean }) =>
    `The nose in level flight is said to be ${p.said}; ` +
    `measured it is ${degrees(p.offDeg)} ${p.above ? 'above' : 'below'}, so ${p.measured}.`,
  'gate-distance': (p: { gate: string; atM: number; before: string; beforeM: number }) =>
    `${p.gate} at ${p.atM} m does not come after ${p.before} at ${p.beforeM} m.`,
  'cannot-slow': (p: { gate: string; fromKt: number; toKt: number; neededMs2: number; availableMs2: number }) =>
    `${p.gate}: from ${fixed(p.fromKt)} to ${fixed(p.toKt)} kt needs ${fixed(p.neededMs2, 2)} m/s\u00b2, ` +
    `idle gives ${fixed(p.availableMs2, 2)}.`,
  'threshold-height': (p: {
    gate: string;
    heightFt: number;
    meetsM: number;
    slopeDeg: number;
    aimM: number;
    overFt: number;
  }) =>
    `${p.gate}: ${fixed(p.heightFt)} ft there meets the ground ${fixed(p.meetsM)} m past it on ${degrees(p.slopeDeg)}; ` +
    `the aim point is ${fixed(p.aimM)} m. Make it ${fixed(p.overFt)} ft, or move the aim point.`,
  'touchdown-before-aim': (p: { touchM: number; aimM: number }) =>
    `The touchdown point, ${fixed(p.touchM)} m, lies before the aim point, ${fixed(p.aimM)} m.`,
  'air-distance': (p: { airM: number; slopeDeg: number; straightM: number }) =>
    `The handbook takes ${fixed(p.airM)} m from 50 ft to the ground; on ${degrees(p.slopeDeg)} the straight path alone ` +
    `is ${fixed(p.straightM)} m. A distance or the final gate is wrong.`,
  'touchdown-flare': (p: { flownM: number; aimM: number; flareM: number; touchM: number }) =>
    `Flown as briefed it touches at ${fixed(p.flownM)} m: aim ${fixed(p.aimM)} m and a flare of ${fixed(p.flareM)} m ` +
    `by the handbook; declared is ${fixed(p.touchM)} m.`,
  'polar-cd0': ({ cd0 }: { cd0: number }) =>
    `Best glide gives a drag coefficient of ${fixed(cd0, 3)}: outside 0.012 to 0.09.`,
  'polar-span': ({ span }: { span: number }) =>
    `Best glide gives a span efficiency of ${fixed(span, 2)}: outside 0.5 to 1.`,
  'flap-drag-missing': ({ flapDeg }: { flapDeg: number }) => `No drag for ${flap(flapDeg)}.`,
  'mass-order': () => 'The empty mass is not below the maximum.',
  'ref-mass': () => 'The speeds\u2019 reference mass lies outside the masses of the aeroplane.',
  'envelope-top': (p: { topKg: number; mostKg: number }) =>
    `The envelope ends at ${p.topKg} kg, the maximum mass is ${p.mostKg} kg.`,
  'usual-load-outside': (p: { massKg: number; armM: number }) =>
    `Two of 77 kg and half fuel lie outside the envelope: ${fixed(p.massKg)} kg at ${fixed(p.armM, 3)} m.`,
  'distance-grid': ({ table }: { table: 'takeoff' | 'landing' }) =>
    `The ${table === 'takeoff' ? 'take-off' : 'landing'} table has holes: not every mass has every height and temperature.`,
  'distance-order': () => 'The distance over 50 ft is not longer than the ground roll.',
  'flap-table-step': ({ flapDeg }: { flapDeg: number }) => `Flap ${flapDeg}\u00b0 is not a setting of this aeroplane.`,
  'depends-on-unknown': (p: { consumer: string; on: string }) =>
    `${p.consumer} depends on ${p.on}, which is not listed.`,
  'attribute-value': (p: { attribute: string; value: string; values: readonly string[] }) =>
    `${p.attribute}: "${p.value}" is not one of ${p.values.join(', ')}.`,
  'attribute-twice': ({ attribute }: { attribute: string }) => `${attribute} is listed twice.`,
  'attribute-disagrees': ({ of }: { of: 'gear' | 'speed' | 'tail' | 'foot' }) => DISAGREES[of],
} as const;
const DISAGREES = {
  gear: 'The wheels attribute and the gear do not agree.',
  speed: 'The approach-speed attribute and the landing technique do not agree.',
  tail: 'The tail attribute and the gear layout do not agree.',
  foot: 'The foot for power and the engine do not agree.',
} as const;

/** A finding on a type sheet: what is wrong, why it matters, and the field where it is corrected. */
export type SheetFinding = Coded<typeof SHEET_WORDS> & {
  path: string;
  why: SheetWhy;
  /** Of an amphibian's schedule for the runway; false = of the sheet as it is. */
  onLand: boolean;
};
/** What does not fit, as a sentence. */
export const sheetWords = (f: SheetFinding): string => `${f.onLand ? 'On land: ' : ''}${sentence(SHEET_WORDS, f)}`;

export type GateFinding = Coded<typeof GATE_WORDS>;
/** What does not fit at a gate of a schedule, as a sentence. */
export const gateWords = (f: GateFinding): string => sentence(GATE_WORDS, f);

/**
 * A finding of the schedule with the name of its gate.
 * @param unit of the dial, for its speeds
 */
export function gateFinding(f: ScheduleFinding, gate: string, unit: string): GateFinding {
  const at = { value: f.value, unit };
  const limit = { value: f.limit ?? 0, unit };
  switch (f.code) {
    case 'flapNoLimit':
      return { code: f.code, params: { gate, flapDeg: f.value } };
    case 'flapAboveLimit':
    case 'gearAboveLimit':
    case 'targetAboveLimit':
      return { code: f.code, params: { gate, at, limit } };
    case 'notFalling':
      return { code: f.code, params: { gate, at, from: limit } };
    case 'slope':
      return { code: f.code, params: { gate, slopeDeg: f.value } };
    case 'stallMargin':
    case 'stallMarginBank':
      return { code: f.code, params: { gate, ratio: f.value, least: f.limit ?? 0 } };
  }
}
