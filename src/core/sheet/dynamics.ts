/** Which numbers of a sheet each model works with, and how a school measures one that is missing. */
import { type Coded, coder, sentence } from '@/domain/coded';
import type { Dynamics, Sourced } from '@/domain/sheet';
import { fieldName } from './labels';

export const GROUND_NEEDS = [
  'yawInertiaKgM2',
  'mainsAheadM',
  'cgHeightM',
  'corneringMainsNPerRad',
  'corneringThirdNPerRad',
  'finAreaM2',
  'finArmM',
  'finLiftSlopePerRad',
  'rudderEffectiveness',
  'rudderMaxDeg',
  'bodySideAreaM2',
  'bodySideSlopePerRad',
  'bodyCentreAheadM',
] as const;
export const TOUCH_NEEDS = [
  'pitchInertiaKgM2',
  'mainsAheadM',
  'gearStrokeM',
  'gearEfficiency',
  'gearRestitution',
] as const;
export const TAKEOFF_NEEDS = [...GROUND_NEEDS, 'propellerRpm', 'propellerInertiaKgM2', 'finInWash'] as const;
/** Full power from a bounce: what rolls, and what resists. */
export const TORQUE_NEEDS = ['propellerRpm', 'rollInertiaKgM2'] as const;
export const SLIP_NEEDS = ['sideslipMaxDeg', 'sideForcePerRad', 'slipDrag', 'aileronInSlip'] as const;
export const SLOW_NEEDS = ['powerLift', 'elevatorLimitG'] as const;

/** Numbers of the models that carry a source, by name. */
export type DynamicsKey = {
  [K in keyof Dynamics]: Dynamics[K] extends Sourced | null ? K : never;
}[keyof Dynamics];
export type Needed = (
  typeof TAKEOFF_NEEDS | typeof TOUCH_NEEDS | typeof TORQUE_NEEDS | typeof SLIP_NEEDS | typeof SLOW_NEEDS
)[number];

/** How to come by a number that is not on the sheet. */
export const MEASURE_WORDS = {
  yawInertiaKgM2: () => 'hang it, or weigh the parts: mass of each part times its distance from the middle, squared',
  pitchInertiaKgM2: () => 'weigh the parts: mass of each part times its distance fore and aft, squared',
  mainsAheadM: () => 'from the weighing: load on the third wheel over the mass, times the wheelbase',
  cgHeightM: () => 'weigh it level and with the tail raised by a known height',
  corneringMainsNPerRad: () => 'ask the maker of the tyre, for its size, load and pressure',
  corneringThirdNPerRad: () => 'ask the maker of the tyre, for its size, load and pressure',
  finAreaM2: () => 'measure fin and rudder with a tape',
  finArmM: () => 'tape, from the centre of gravity to the quarter of the fin',
  finLiftSlopePerRad: () => 'from the height of the fin squared over its area',
  rudderEffectiveness: () => 'from the chord of the rudder over the chord of fin and rudder',
  rudderMaxDeg: () => 'maintenance manual, control travels; or a protractor at the hinge',
  bodySideAreaM2: () => 'from a side view to scale, without fin and rudder',
  bodySideSlopePerRad: () => 'ask the designer, or take it from a type of the same shape and say so',
  bodyCentreAheadM: () => 'from a side view to scale: balance point of the cut-out',
  propellerRpm: () => 'engine rpm at take-off power over the reduction of its gear, if it has one',
  propellerInertiaKgM2: () =>
    'ask the maker of the propeller; or mass of the blades times a sixth of the diameter squared',
  finInWash: () => 'from behind, engine running: tufts on fin and rudder; area of those that lie in the wash',
  rollInertiaKgM2: () => 'weigh the parts: mass of each part times its distance from the centreline, squared',
  gearStrokeM: () => 'maintenance manual, or tape: axle free of load and at full load',
  gearEfficiency: () => 'maintenance manual: oleo about 0.7 to 0.8, spring about 0.5; say which',
  gearRestitution: () => 'film a touch from the side: rate up after it over rate down before it',
  sideslipMaxDeg: () => 'at height, full rudder at approach speed: heading against track over the ground in no wind',
  sideForcePerRad: () => 'at height, in the same slip: bank angle and sideslip, at a noted speed and mass',
  slipDrag: () => 'at height, same speed with and without the slip: difference of the sink',
  aileronInSlip: () => 'at height, in the same slip: share of full aileron that holds it',
  powerLift: () => 'at height, stall with idle and with noted power, same flap',
  elevatorLimitG: () => 'at height, idle, approach speed: stick to the stop, greatest load on the accelerometer',
} as const satisfies Record<Needed, () => string>;
export type MeasureHint = Coded<typeof MEASURE_WORDS>;

const hint = coder(MEASURE_WORDS);
/** How a missing number is measured, in words. */
export const measureWords = (m: MeasureHint): string => sentence(MEASURE_WORDS, m);

/**
 * What a model lacks on a sheet.
 * @param dynamics of the sheet
 * @param needs of the model
 * @returns field, its name, and the code of how to measure it; empty = the model can be shown
 */
export function missingFor(
  dynamics: Dynamics,
  needs: readonly Needed[],
): { key: Needed; name: string; how: MeasureHint }[] {
  return needs.filter((key) => dynamics[key] === null).map((key) => ({ key, name: fieldName(key), how: hint(key) }));
}
