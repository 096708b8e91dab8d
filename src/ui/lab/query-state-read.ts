export type QueryValue = string | number | null;
export type QueryState = Record<string, QueryValue>;

/**
 * Reads what the address says over the start values. A number that is none, or a word not allowed, is left at its
 * start.
 */
export function readState<T extends QueryState>(
  start: T,
  query: Readonly<Record<string, string | string[] | undefined>>,
  allowed: Partial<Record<keyof T, readonly string[]>> = {},
): T {
  const out: QueryState = { ...start };
  for (const key of Object.keys(start)) {
    const text = query[key];
    if (typeof text !== 'string' || text === '') continue;
    const numeric = typeof start[key] === 'number' || start[key] === null;
    const words = allowed[key];
    if (numeric) {
      const n = Number(text);
      if (Number.isFinite(n)) out[key] = n;
    } else if (!words || words.includes(text)) out[key] = text;
  }
  return out as T;
}
