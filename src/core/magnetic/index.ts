import geomagnetism from 'geomagnetism';

/**
 * Magnetic variation of a place from the World Magnetic Model, by the geomagnetism package.
 * Source: NOAA/BGS World Magnetic Model 2025; valid to the end of 2029.
 * @param latitudeDeg \u221290 to 90, north positive @param longitudeDeg \u2212180 to 180, east positive
 * @param heightFt above mean sea level @param onDate ISO
 * @returns degrees, east positive, to a tenth; null where the model does not hold (another time, near a magnetic pole)
 * @example magneticVariation(39.31, -7.42, 1345, '2026-11-24') // -0.4
 */
export function magneticVariation(
  latitudeDeg: number,
  longitudeDeg: number,
  heightFt: number,
  onDate: string,
): number | null {
  if (!(Math.abs(latitudeDeg) <= 90 && Math.abs(longitudeDeg) <= 180 && Number.isFinite(heightFt))) return null;
  const at = new Date(onDate);
  if (Number.isNaN(at.getTime()) || at.getUTCFullYear() < 2025 || at.getUTCFullYear() > 2029) return null;
  const field = geomagnetism
    .model(at, { allowOutOfBoundsModel: true })
    .point([latitudeDeg, longitudeDeg, heightFt * 0.0003048]);
  // Weaker across than this, and a compass shows nothing to be trusted: the model's own blackout.
  if (!(field.h >= 2000)) return null;
  return Math.round(field.decl * 10) / 10 + 0;
}
