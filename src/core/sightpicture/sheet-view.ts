/** From a type sheet to the numbers of the view: one place where a missing measurement is named. Metres, degrees. */
import type { TypeSheet } from '@/domain/sheet';
import type { SightAttitude } from '@/domain/words';
import { sheetCas } from '../sheet';
import { raiseEye } from './eye';
import type { ProfilePoint } from './nose';
import { type PathGate, type PathInput, pathSlope, stationAt } from './path';
import { AIR_VIEW_DEG, type Eye, GROUND_VIEW_DEG, type Ground, type Scene, groundEye, scene } from './scene';

export type SightSheet = Pick<
  TypeSheet,
  'name' | 'code' | 'dial' | 'approach' | 'landing' | 'geometry' | 'sight' | 'gear' | 'seats'
>;
export interface View {
  profile: ProfilePoint[];
  gates: PathGate[];
  aimPointM: number;
  eyeHeightM: number;
  eyeLateralM: number;
  /** Of the attitude meant at touchdown. */
  landingPitchDeg: number;
  landingAttitude: SightAttitude;
  attitudes: { name: SightAttitude; pitchDeg: number; bankDeg: number; yawDeg: number }[];
  parts: { name: string; from: ProfilePoint; to: ProfilePoint }[];
  references: { name: string; at: ProfilePoint; attitude: SightAttitude }[];
  source: string;
}
/** A measurement that is not there, and how it is taken. */
export interface MissingMeasure {
  field: 'eyeHeightM' | 'noseToEyeM' | 'groundPitchDeg' | 'profile' | 'gatePitch';
  what: string;
  how: string;
}
const HOW: Record<MissingMeasure['field'], [what: string, how: string]> = {
  eyeHeightM: [
    'eye above the ground',
    'Three wheels down, pilot strapped in on the usual cushion: tape from the outer corner of the eye to the floor.',
  ],
  noseToEyeM: ['nose to eye', 'Plumb line from the eye and from the front of the spinner: tape along the floor.'],
  groundPitchDeg: ['attitude on three wheels', 'Level on the cabin rail or the longerons the manual names.'],
  profile: [
    'where the nose ends',
    'A helper walks out from the nose until the pilot sees a shoe: tape from below the eye. Straight ahead, then 10, 20, 30, 45, 60 and 90° to each side. A photograph from the seat with the horizon in it serves as a check.',
  ],
  gatePitch: [
    'pitch at each gate',
    'In flight, trimmed at the speed of the gate: inclinometer on the cabin rail, or a photograph of the horizon against the cowling.',
  ],
};

/**
 * What has to be measured before the view can be drawn; empty = nothing.
 * @returns what to measure, and how
 */
export function missingMeasures(sheet: SightSheet): MissingMeasure[] {
  const g = sheet.geometry;
  const missing: MissingMeasure['field'][] = [
    ...(g.eyeHeightM ? [] : ['eyeHeightM' as const]),
    ...(g.noseToEyeM ? [] : ['noseToEyeM' as const]),
    ...(g.groundPitchDeg ? [] : ['groundPitchDeg' as const]),
    ...(sheet.sight ? [] : ['profile' as const]),
    ...(sheet.approach.filter((x) => x.finalGate).every((x) => x.pitchDeg !== null) ? [] : ['gatePitch' as const]),
  ];
  return missing.map((field) => ({ field, what: HOW[field][0], how: HOW[field][1] }));
}

/**
 * The view of one pilot from one seat; null when a measurement is missing.
 * @param eyeHeightM of this pilot in this seat, three wheels down; null = as on the sheet
 * @param sigma air density over standard, for true airspeed in the curve
 * @param seat side by side the other seat is the mirror image; in tandem only the eye height can differ
 * @returns the profile as this eye has it
 */
export function viewOf(
  sheet: SightSheet,
  eyeHeightM: number | null,
  sigma = 1,
  seat: 'pilot' | 'instructor' = 'pilot',
): View | null {
  const { geometry: g, sight } = sheet;
  if (!sight || !g.eyeHeightM || !g.noseToEyeM || missingMeasures(sheet).length > 0) return null;
  const eye = eyeHeightM ?? g.eyeHeightM.value;
  const flip = seat === 'instructor' && sheet.seats.arrangement === 'side by side' ? -1 : 1;
  const turned = (p: ProfilePoint): ProfilePoint => ({
    azimuthDeg: flip * p.azimuthDeg,
    depressionDeg: p.depressionDeg,
  });
  const attitudes = sight.attitudes.map((a) => ({
    name: a.name,
    pitchDeg: a.pitchDeg.value,
    bankDeg: a.bankDeg,
    yawDeg: a.yawDeg,
  }));
  const meant: SightAttitude =
    sheet.gear.layout === 'tailwheel' && sheet.landing.usualAttitude === 'three-point' ? 'three-point' : 'wheel';
  const landing = attitudes.find((a) => a.name === meant) ?? attitudes.find((a) => a.name === 'wheel');
  return {
    profile: raiseEye(sight.profile.map(turned), g.noseToEyeM.value, eye - g.eyeHeightM.value),
    gates: sheet.approach.map((x) => ({
      name: x.name,
      heightFt: x.heightFt,
      distanceM: x.distanceM,
      pitchDeg: x.pitchDeg?.value ?? 0,
      tasKt: sheetCas(sheet, x.speed.value) / Math.sqrt(sigma),
      finalGate: x.finalGate,
    })),
    aimPointM: sheet.landing.aimPointM.value,
    eyeHeightM: eye,
    eyeLateralM: flip * sight.eyeLateralM.value,
    landingPitchDeg: landing?.pitchDeg ?? g.groundPitchDeg?.value ?? 0,
    landingAttitude: landing?.name ?? 'wheel',
    attitudes,
    parts: sight.parts.map((p) => ({
      name: p.name,
      from: turned({ azimuthDeg: p.fromAzimuthDeg, depressionDeg: p.fromDepressionDeg }),
      to: turned({ azimuthDeg: p.toAzimuthDeg, depressionDeg: p.toDepressionDeg }),
    })),
    references: sight.references.map((r) => ({
      name: r.name,
      at: turned({ azimuthDeg: r.azimuthDeg, depressionDeg: r.depressionDeg }),
      attitude: r.attitude,
    })),
    source: `${sight.source}: ${sight.ref}`,
  };
}

export interface FlownPicture {
  eye: Eye;
  /** Half the width of the view, degrees: it opens as the ground comes near. */
  halfViewDeg: number;
  heightFt: number;
  pitchDeg: number;
  phase: 'offset' | 'alignment' | 'final' | 'gates' | 'touchdown';
  toAimM: number;
  aimAzimuthDeg: number;
}
/** Share of the slider at which the wheels touch. */
export const TOUCHDOWN_AT = 0.9;

/**
 * The eye anywhere on the approach and on the ground after it.
 * @param t 0 at the first gate on final, TOUCHDOWN_AT at the aim point, 1 forty metres further, in the landing attitude
 * @returns the eye in metres and degrees, with what it sees
 */
export function flyAt(view: View, input: PathInput, t: number, offCentreM: number): FlownPicture {
  const first = input.gates.find((g) => g.finalGate) ?? input.gates[0];
  const fromM = (first?.distanceM ?? 1000) + input.aimPointM;
  if (t >= TOUCHDOWN_AT) {
    const alongM = input.aimPointM + ((t - TOUCHDOWN_AT) / (1 - TOUCHDOWN_AT)) * 40;
    return {
      eye: groundEye({
        eyeHeightM: view.eyeHeightM,
        pitchDeg: view.landingPitchDeg,
        crabDeg: 0,
        offsetM: offCentreM,
        eyeLateralM: view.eyeLateralM,
        alongM,
      }),
      halfViewDeg: GROUND_VIEW_DEG,
      heightFt: 0,
      pitchDeg: view.landingPitchDeg,
      phase: 'touchdown',
      toAimM: 0,
      aimAzimuthDeg: 0,
    };
  }
  const toAimM = fromM * (1 - t / TOUCHDOWN_AT);
  const s = stationAt(input, toAimM);
  // The nose is raised over the last metres before the wheels touch.
  const flareM = 6;
  const raised = Math.max(0, Math.min(1, (flareM + view.eyeHeightM - s.zM) / flareM));
  const pitchDeg = s.pitchDeg + raised * (view.landingPitchDeg - s.pitchDeg);
  return {
    eye: {
      x: s.x,
      y: s.y + view.eyeLateralM,
      zM: Math.max(view.eyeHeightM, s.zM),
      pitchDeg,
      bankDeg: s.bankDeg,
      headingDeg: s.headingDeg,
    },
    halfViewDeg: AIR_VIEW_DEG + raised * (GROUND_VIEW_DEG - AIR_VIEW_DEG),
    heightFt: s.heightFt,
    pitchDeg,
    phase: s.phase,
    toAimM,
    aimAzimuthDeg: s.aimAzimuthDeg,
  };
}

export interface StripPicture {
  title: string;
  line: string;
  scene: Scene;
}
/**
 * The pictures of a card: first gate on final, the last height at which the aim point is wanted, the threshold, the landing
 * attitude.
 * @returns four pictures
 */
export function pictureStrip(view: View, input: PathInput, ground: Ground): StripPicture[] {
  const first = input.gates.find((g) => g.finalGate);
  if (!first) return [];
  const slope = input.slopeDeg ?? pathSlope(input.gates, input.aimPointM);
  const fromM = first.distanceM + input.aimPointM;
  const downM = Math.min(fromM, (input.downToFt * 0.3048) / Math.tan((slope * Math.PI) / 180));
  const at = (title: string, t: number): StripPicture => {
    const f = flyAt(view, input, t, 0);
    return {
      title,
      line:
        f.phase === 'touchdown'
          ? `${view.landingAttitude} attitude`
          : `${Math.round(f.heightFt)} ft, nose ${f.pitchDeg >= 0 ? 'up' : 'down'} ${Math.abs(f.pitchDeg).toFixed(0)}°`,
      scene: scene({
        halfViewDeg: f.halfViewDeg,
        eye: f.eye,
        ground,
        profile: view.profile,
        parts: view.parts,
        references: [],
      }),
    };
  };
  const share = (m: number): number => TOUCHDOWN_AT * (1 - m / fromM);
  return [
    at(first.name, 0),
    at('Last look', share(downM)),
    at('Threshold', share(input.aimPointM)),
    at('Touchdown', TOUCHDOWN_AT),
  ];
}
