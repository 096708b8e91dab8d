/**
 * What an analysis is asked against, from what Jeito knows: the field's drawing, the aeroplane's sheet, the gates of
 * the brief.
 */
import type { TraceContext } from '@/domain/trace';
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import { endsOf } from '../runway';
import { M_PER_DEG, cosDeg, norm180, sinDeg } from '../constants';
import { ktPerUnit } from '../speeds';

/**
 * A point some metres east and north of the field's reference, on the earth; flat, exact to centimetres within some
 * kilometres.
 * @returns degrees, WGS 84
 */
export function placeOf(
  aerodrome: Pick<Aerodrome, 'latitudeDeg' | 'longitudeDeg'>,
  eastM: number,
  northM: number,
): { lat: number; lon: number } {
  return {
    lat: aerodrome.latitudeDeg + northM / M_PER_DEG,
    lon: norm180(aerodrome.longitudeDeg + eastM / (M_PER_DEG * cosDeg(aerodrome.latitudeDeg))),
  };
}
/**
 * The reverse: metres east and north of the field's reference.
 * @returns metres
 */
export function fromField(
  aerodrome: Pick<Aerodrome, 'latitudeDeg' | 'longitudeDeg'>,
  lat: number,
  lon: number,
): { eastM: number; northM: number } {
  return {
    eastM: norm180(lon - aerodrome.longitudeDeg) * M_PER_DEG * cosDeg(aerodrome.latitudeDeg),
    northM: (lat - aerodrome.latitudeDeg) * M_PER_DEG,
  };
}

export interface ContextGate {
  name: string;
  distanceM: number;
  target: number;
}

/**
 * The context of a flight. Thresholds follow from the runway's middle, length and true bearing; a slope is shared by
 * its two ends about the middle.
 * @param gates distance along the path to the threshold in metres, target in the dial's unit
 * @param utcOffsetMin the field's zone on the day, minutes east of UTC
 * @returns the context a recording is read in
 */
export function traceContext(
  aerodrome: Aerodrome,
  sheet: TypeSheet,
  registration: string,
  gates: readonly ContextGate[],
  utcOffsetMin: number,
): TraceContext {
  const { unit } = sheet.dial;
  const kt = (v: number | null | undefined): number | null =>
    v === null || v === undefined ? null : Math.round(v * ktPerUnit(unit) * 10) / 10;
  const byFlap = [...sheet.stalls].sort((a, b) => a.flapDeg - b.flapDeg);
  return {
    schema: 'trace-context/1',
    aerodrome: {
      ident: aerodrome.ident,
      name: aerodrome.name,
      elevationFt: aerodrome.elevationFt,
      magneticVariationDeg: aerodrome.variationDeg,
      utcOffsetMin,
      runways: aerodrome.runways.map((r) => ({
        id: r.ends.map((e) => e.ident).join('/'),
        surface: r.surface,
        lengthM: r.lengthM,
        widthM: r.widthM,
        ends: endsOf(r).map(({ end: e, thresholdFt }) => {
          const back = -r.lengthM / 2;
          const at = placeOf(
            aerodrome,
            r.centre.eastM + back * sinDeg(e.trueBearingDeg),
            r.centre.northM + back * cosDeg(e.trueBearingDeg),
          );
          return {
            ident: e.ident,
            thresholdLat: at.lat,
            thresholdLon: at.lon,
            elevationFt: Math.round(thresholdFt * 10) / 10,
            trueBearingDeg: e.trueBearingDeg,
          };
        }),
      })),
    },
    airframe: {
      registration,
      type: sheet.code,
      asiUnit: unit,
      gear: sheet.gear.retractable ? 'retractable' : 'fixed',
      tailwheel: sheet.gear.layout === 'tailwheel',
      engines: sheet.engine.count,
      vs0Kt: kt(byFlap[byFlap.length - 1]?.speed.value),
      vs1Kt: kt(byFlap[0]?.speed.value),
      vrefKt: kt(sheet.approach[sheet.approach.length - 1]?.speed.value),
      limits: {
        vneKt: kt(sheet.speeds.vne.value),
        vfeKt:
          sheet.speeds.vfe.length > 0
            ? sheet.speeds.vfe.map((f) => ({ flapDeg: f.flapDeg, kt: kt(f.speed.value) ?? 0 }))
            : null,
        vloKt: kt(minOf(sheet.speeds.vloExtend?.value, sheet.speeds.vloRetract?.value)),
        vleKt: kt(sheet.speeds.vle?.value),
        gPos: sheet.loadFactor.positive.value,
        gNeg: sheet.loadFactor.negative.value,
        rpmMax: limitNamed(sheet, /rpm|propeller speed|engine speed/i),
        mapMaxInHg: limitNamed(sheet, /manifold/i),
        chtMaxC: limitNamed(sheet, /cylinder/i),
      },
    },
    aimPointM: sheet.landing.aimPointM.value,
    slopeDeg: null,
    gates: gates.map((g) => ({ name: g.name, distanceM: g.distanceM, targetIas: g.target, unit })),
  };
}
const minOf = (a: number | undefined, b: number | undefined): number | null =>
  a === undefined ? (b ?? null) : b === undefined ? a : Math.min(a, b);
/** An engine limit of the sheet by its name, in the unit the analysis works in; null when the sheet has none in it. */
function limitNamed(sheet: TypeSheet, name: RegExp): number | null {
  const found = sheet.temperatures.find((t) => name.test(t.name) && t.high !== null);
  if (!found?.high) return null;
  return /^\u00b0?F$/i.test(found.unit) ? Math.round(((found.high.value - 32) * 5) / 9) : found.high.value;
}
