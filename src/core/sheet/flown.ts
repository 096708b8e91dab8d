import type { Gate, TypeSheet } from '@/domain/sheet';
import type { ScheduleGate } from '../approach/schedule';
import { G_MS2, MS_PER_KT } from '../constants';
import { type Polar, polarFromGlide } from '../energy';
import { dialToCasKt } from '../speeds';

export const SEA_LEVEL_RHO = 1.225;

/**
 * Calibrated knots behind a speed of the sheet.
 * @returns kt CAS
 */
export const sheetCas = (sheet: Pick<TypeSheet, 'dial'>, ias: number): number => dialToCasKt(ias, sheet.dial);

/**
 * Stall speed of exactly this flap at the reference mass, CAS kt; null = not on the sheet.
 * Source: lift equation and the polar of the sheet.
 * @returns kt CAS
 */
export function stallCas(sheet: Pick<TypeSheet, 'dial' | 'stalls'>, flapDeg: number): number | null {
  const row = sheet.stalls.find((s) => s.flapDeg === flapDeg);
  return row ? sheetCas(sheet, row.speed.value) : null;
}

/**
 * Drag polar of the clean aeroplane from its best glide, at the reference mass and sea level.
 * Source: lift equation and the polar of the sheet.
 * @returns coefficients without a unit
 */
export function sheetPolar(
  sheet: Pick<TypeSheet, 'dial' | 'wing' | 'speeds' | 'masses'>,
): Polar & { clBestGlide: number } {
  return polarFromGlide({
    ldMax: sheet.wing.bestGlideRatio.value,
    bestGlideKt: sheetCas(sheet, sheet.speeds.bestGlide.value),
    massKg: sheet.masses.refMassKg,
    wingAreaM2: sheet.wing.areaM2.value,
    rhoKgM3: SEA_LEVEL_RHO,
  });
}

/**
 * Drag increments of a configuration. Flap between two rows takes the smaller one: less drag is the careful side when
 * slowing.
 * Source: lift equation and the polar of the sheet.
 * @returns drag coefficients to add
 */
export function configurationDrag(sheet: Pick<TypeSheet, 'drag'>, flapDeg: number, gear: Gate['gear']): number[] {
  const flap = [...sheet.drag.flap].sort((a, b) => b.flapDeg - a.flapDeg).find((f) => f.flapDeg <= flapDeg);
  return [
    ...(flap ? [flap.deltaCd0.value] : []),
    ...(gear === 'down' && sheet.drag.gearDeltaCd0 ? [sheet.drag.gearDeltaCd0.value] : []),
  ];
}

/**
 * Limits of the sheet in indicated units, as the schedule checks want them.
 * @returns kt, degrees of flap
 */
export const scheduleLimits = (sheet: TypeSheet) => ({
  vfe: sheet.speeds.vfe.map((v) => ({ flapDeg: v.flapDeg, vfeKt: v.speed.value })),
  vloExtendKt: sheet.speeds.vloExtend?.value ?? null,
  vleKt: sheet.speeds.vle?.value ?? null,
  school: sheet.landing.speedSchool,
});

/**
 * The sheet's own schedule at the reference mass.
 * @returns gates with speeds in kt, heights in ft and distances in metres
 */
export const sheetSchedule = (sheet: TypeSheet): ScheduleGate[] =>
  sheet.approach.map((g) => ({
    name: g.name,
    distanceM: g.distanceM,
    heightFt: g.heightFt,
    targetKt: g.speed.value,
    flapDeg: g.flapDeg,
    gear: g.gear,
    targetCasKt: sheetCas(sheet, g.speed.value),
    vsCasKt: stallCas(sheet, g.flapDeg),
    sanctionedRatio: g.finalGate ? (sheet.sanctionedMargin?.ratio ?? null) : null,
  }));

/**
 * Lift coefficient at the stall, power off, sea level.
 * Source: lift equation and the polar of the sheet.
 * @returns a coefficient without a unit
 */
export const stallLift = (sheet: TypeSheet, casKt: number): number =>
  (2 * sheet.masses.refMassKg * G_MS2) / (SEA_LEVEL_RHO * sheet.wing.areaM2.value * (casKt * MS_PER_KT) ** 2);
