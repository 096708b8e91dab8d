import type { TypeSheet } from '@/domain/sheet';

export type Surface = 'land' | 'water';

/** What of a sheet tells its surfaces; older prepared flights have no schedule for land. */
type OfSurface = Pick<TypeSheet, 'surface' | 'approach'> & Partial<Pick<TypeSheet, 'onLand'>>;

/**
 * What a strip of this kind is to an aeroplane.
 * @returns land or water
 * @example surfaceOfStrip('grass') // 'land'
 */
export const surfaceOfStrip = (strip: string): Surface => (strip === 'water' ? 'water' : 'land');

/**
 * The surfaces a sheet has an approach schedule for. An amphibian's own schedule is the one its wheels show: up at the
 * last gate is water, down is land; sheets older than the two schedules have only that.
 * @returns land, water, or both
 * @example surfacesOf(amphibianWithoutLand) // ['water']
 */
export function surfacesOf(sheet: OfSurface): Surface[] {
  if (sheet.surface !== 'amphibian') return [sheet.surface === 'sea' ? 'water' : 'land'];
  const own = sheet.approach[sheet.approach.length - 1]?.gear === 'down' ? 'land' : 'water';
  return own === 'water' && sheet.onLand ? ['water', 'land'] : [own];
}

/**
 * The sheet as it holds on a surface: gates, distances, width, aim point, attitude and go-around of that surface.
 * @returns null when the sheet has no schedule for it: no gate and no distance is taken from the other surface
 * @example sheetOn(amphibian, 'land')?.approach[0]?.gear // 'down'
 */
export function sheetOn<S extends OfSurface & Partial<TypeSheet>>(sheet: S, surface: Surface): S | null {
  if (!surfacesOf(sheet).includes(surface)) return null;
  if (sheet.surface !== 'amphibian' || surface === 'water' || !sheet.onLand) return sheet;
  const { approach, distances, minWidthM, aimPointM, touchdownM, usualAttitude, goAroundFlow } = sheet.onLand;
  return {
    ...sheet,
    approach,
    distances,
    goAroundFlow,
    ...(sheet.landing ? { landing: { ...sheet.landing, minWidthM, aimPointM, touchdownM, usualAttitude } } : {}),
  };
}

/**
 * The declared touchdown point, metres from the threshold: the standard's box and every place along the runway are
 * measured from it. A sheet that declares none has it at the aim point.
 * @returns metres from the threshold
 * @example touchdownPoint({ landing: { aimPointM: { value: 60 }, touchdownM: { value: 85 } } }) // 85
 */
export const touchdownPoint = (sheet: {
  landing: { aimPointM: { value: number }; touchdownM?: { value: number } | null };
}): number => sheet.landing.touchdownM?.value ?? sheet.landing.aimPointM.value;
