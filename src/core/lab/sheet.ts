/** From a sheet to what the models take. Metres, kilograms, seconds. */
import type { Sourced } from '@/domain/sheet';
import { MS_PER_KT } from '../constants';
import { fixed } from '../format';
import type { RunBody } from '../ground';
import {
  configurationDrag,
  fieldName,
  fieldUnit,
  missingFor,
  measureWords,
  type Needed,
  sheetCas,
  sheetPolar,
  stallCas,
} from '../sheet';
import { ktPerUnit } from '../speeds';
import type { LabFact, LabMissing, LabSheetData } from './model';

export const tailwheel = (s: LabSheetData): boolean => s.gear.layout === 'tailwheel';
/** Value of a number of the models; the pages ask only when none is missing. */
export const num = (s: Sourced | null): number => s?.value ?? 0;
export const lacking = (s: LabSheetData, needs: readonly Needed[]): LabMissing =>
  missingFor(s.dynamics, needs).map((m) => ({ key: m.key, name: m.name, how: measureWords(m.how) }));

/** The attitude on three wheels, where it was never measured. */
export const lackingAttitude = (s: LabSheetData): LabMissing =>
  s.geometry.groundPitchDeg
    ? []
    : [
        {
          key: 'groundPitchDeg',
          name: 'attitude on three wheels',
          how: 'level on the cabin rail or the longerons the manual names',
        },
      ];

/** Stall speed in this configuration, kt CAS; the greatest flap when it is not on the sheet. */
export function stallKt(s: LabSheetData, flapDeg: number): number {
  const exact = stallCas(s, flapDeg);
  if (exact !== null) return exact;
  const rows = [...s.stalls].sort((a, b) => Math.abs(a.flapDeg - flapDeg) - Math.abs(b.flapDeg - flapDeg));
  return rows[0] ? sheetCas(s, rows[0].speed.value) : 0;
}
export const landingFlap = (s: LabSheetData): number => s.approach[s.approach.length - 1]?.flapDeg ?? 0;
/** Zero-lift drag with the flap and gear of a landing. */
export function landingDrag(s: LabSheetData, flapDeg: number): { cd0: number; k: number } {
  const polar = sheetPolar(s);
  const more = configurationDrag(s, flapDeg, s.gear.retractable ? 'down' : 'fixed');
  return { cd0: polar.cd0 + more.reduce((a, b) => a + b, 0), k: polar.k };
}
export function runBody(s: LabSheetData, rhoKgM3: number): RunBody {
  const d = s.dynamics;
  const mains = num(d.mainsAheadM);
  const base = s.gear.wheelbaseM.value;
  return {
    massKg: s.masses.refMassKg,
    mainsXM: mains,
    thirdWheelXM: mains > 0 ? mains - base : mains + base,
    corneringMainsNPerRad: num(d.corneringMainsNPerRad),
    corneringThirdNPerRad: num(d.corneringThirdNPerRad),
    finAreaM2: num(d.finAreaM2),
    finArmM: num(d.finArmM),
    finLiftSlopePerRad: num(d.finLiftSlopePerRad),
    airDensityKgM3: rhoKgM3,
    yawInertiaKgM2: num(d.yawInertiaKgM2),
    trackM: s.gear.trackM.value,
    cgHeightM: num(d.cgHeightM),
    rudderEffectiveness: num(d.rudderEffectiveness),
    rudderMaxDeg: num(d.rudderMaxDeg),
    bodySideAreaM2: num(d.bodySideAreaM2),
    bodySideSlopePerRad: num(d.bodySideSlopePerRad),
    bodyCentreXM: num(d.bodyCentreAheadM),
    steerDeg: s.gear.steerDeg?.value ?? 0,
    stallSpeedMs: (stallKt(s, landingFlap(s)) * MS_PER_KT * Math.sqrt(1.225)) / Math.sqrt(rhoKgM3),
    dragAreaM2: landingDrag(s, landingFlap(s)).cd0 * s.wing.areaM2.value,
  };
}
/** A speed in the unit of the dial. */
export const dialSpeed = (s: LabSheetData, kt: number, round: 'up' | 'near' = 'near') => {
  const value = kt / ktPerUnit(s.dial.unit);
  return { value: round === 'up' ? Math.ceil(value - 1e-9) : Math.round(value), unit: s.dial.unit };
};
const digits = (v: number): number => (Number.isInteger(v) || Math.abs(v) >= 1000 ? 0 : Math.abs(v) < 10 ? 2 : 1);
/** Numbers of the sheet a page worked with, for the list under it. */
export const factsOf = (s: LabSheetData, keys: readonly Needed[]): LabFact[] =>
  keys.flatMap((key) => {
    const claim = s.dynamics[key];
    return claim === null
      ? []
      : [
          {
            name: fieldName(key),
            value: `${fixed(claim.value, digits(claim.value))} ${fieldUnit(`dynamics.${key}`, s.dial.unit)}`.trim(),
            source: { source: claim.source, ref: claim.ref },
          },
        ];
  });
