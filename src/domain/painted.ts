/** Runways whose middles nobody has entered yet are drawn this far beside each other, metres. */
export const STRIPS_APART_M = 150;
/** What is painted on the other end: `22` of `04`, `18R` of `36L`. */
export function oppositeEnd(ident: string): string {
  const n = ((Number(ident.slice(0, 2)) + 17) % 36) + 1;
  const side = ident.slice(2);
  return `${String(n).padStart(2, '0')}${side === 'L' ? 'R' : side === 'R' ? 'L' : side}`;
}
