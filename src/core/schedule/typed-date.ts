const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
/**
 * A date as it is typed: `24 Nov 2026`, `24 November 2026`, `2026-11-24`, `24.11.2026`; with strokes (`24/11/2026`,
 * `11/24/2026`) only where one of the two numbers cannot be a month, or both are the same: otherwise it is not known
 * which is meant.
 * @returns the ISO date, or null for what is not a date of the years 1900 to 2199 or can be read in two ways
 * @example typedDate('24 Nov 2026') // '2026-11-24'
 */
export function typedDate(text: string): string | null {
  const t = text.trim().toLowerCase();
  const real = (year: string, month: number, day: number): string | null => {
    const date = new Date(Date.UTC(Number(year), month - 1, day));
    return /^(19|2[01])/.test(year) && date.getUTCMonth() === month - 1 && date.getUTCDate() === day
      ? date.toISOString().slice(0, 10)
      : null;
  };
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(t);
  if (iso) return real(iso[1] ?? '', Number(iso[2]), Number(iso[3]));
  const words =
    /^(\d{1,2})[ .-]*([a-z]{3,9})\.?[ ,.-]*(\d{4})$/.exec(t) ?? /^()([a-z]{3,9})\.? *(\d{1,2}),? +(\d{4})$/.exec(t);
  if (words) {
    const usual = words[1] === '';
    const month = MONTHS.findIndex((m) => (words[2] ?? '').startsWith(m));
    return month < 0 ? null : real((usual ? words[4] : words[3]) ?? '', month + 1, Number(usual ? words[3] : words[1]));
  }
  const dots = /^(\d{1,2})\. ?(\d{1,2})\. ?(\d{4})$/.exec(t);
  if (dots) return real(dots[3] ?? '', Number(dots[2]), Number(dots[1]));
  const strokes = /^(\d{1,2})[/ -](\d{1,2})[/ -](\d{4})$/.exec(t);
  if (!strokes) return null;
  const [a, b, year] = [Number(strokes[1]), Number(strokes[2]), strokes[3] ?? ''];
  if (a !== b && a <= 12 && b <= 12) return null;
  return a > 12 || a === b ? real(year, b, a) : real(year, a, b);
}
