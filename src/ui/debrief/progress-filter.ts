import type { DebriefLanding } from '@/core/assess';

export interface ProgressLanding extends DebriefLanding {
  /** Which checkout and aeroplane it belongs to. */
  checkoutId: string;
  typeName: string;
}
export const WINDS = [
  { key: 'any', name: 'any wind' },
  { key: 'light', name: 'under 5 kt crosswind' },
  { key: 'some', name: '5 kt crosswind and more' },
  { key: 'gusts', name: 'with gusts' },
] as const;
export const EVERY_TYPE = 'every type';
export interface LandingFilter {
  /** A lesson number, or *all*. */
  lesson: string;
  /** A type's name; this checkout's stands for this checkout only. */
  type: string;
  wind: (typeof WINDS)[number]['key'];
  attitude: string;
}
interface Here {
  checkoutId: string;
  here: string;
}

/** Landings of the aeroplanes chosen: of this checkout, of another type before, or of all. */
export function ofType<L extends ProgressLanding>(
  landings: readonly L[],
  type: string,
  { checkoutId, here }: Here,
): L[] {
  if (type === EVERY_TYPE) return [...landings];
  if (type === here) return landings.filter((l) => l.checkoutId === checkoutId);
  return landings.filter((l) => l.typeName === type && l.checkoutId !== checkoutId);
}

/** A wind that was not known is in none of them but *any*. */
function inWind(l: ProgressLanding, wind: LandingFilter['wind']): boolean {
  if (wind === 'any') return true;
  if (wind === 'gusts') return (l.captured.wind?.gustKt ?? null) !== null;
  if (l.crosswindKt === null) return false;
  return wind === 'light' ? Math.abs(l.crosswindKt) < 5 : Math.abs(l.crosswindKt) >= 5;
}

/** The landings every drawing, table and file of the page takes. */
export const chosenLandings = (
  landings: readonly ProgressLanding[],
  filter: LandingFilter,
  at: Here,
): ProgressLanding[] =>
  ofType(landings, filter.type, at).filter(
    (l) =>
      (filter.lesson === 'all' || String(l.lesson) === filter.lesson) &&
      (filter.attitude === 'all' || l.intended === filter.attitude) &&
      inWind(l, filter.wind),
  );
