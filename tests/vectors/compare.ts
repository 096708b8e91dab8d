export interface Tolerance {
  abs: number;
  rel: number;
}

/**
 * Paths at which `actual` misses `expected`: numbers within abs + rel·|expected|, everything else equal. Keys not
 * expected are ignored.
 */
export function differences(expected: unknown, actual: unknown, tolerance: Tolerance, path = ''): string[] {
  if (typeof expected === 'number') {
    const close =
      typeof actual === 'number' && Math.abs(actual - expected) <= tolerance.abs + tolerance.rel * Math.abs(expected);
    return close ? [] : [`${path}: expected ${expected}, got ${String(actual)}`];
  }
  if (Array.isArray(expected)) {
    if (!Array.isArray(actual) || actual.length !== expected.length)
      return [`${path}: expected ${JSON.stringify(expected)}, got ${JSON.stringify(actual)}`];
    return expected.flatMap((e, i) => differences(e, actual[i], tolerance, `${path}[${i}]`));
  }
  if (typeof expected === 'object' && expected !== null) {
    if (typeof actual !== 'object' || actual === null) return [`${path}: expected an object, got ${String(actual)}`];
    return Object.entries(expected).flatMap(([k, e]) =>
      differences(e, (actual as Record<string, unknown>)[k], tolerance, path ? `${path}.${k}` : k),
    );
  }
  return expected === actual ? [] : [`${path}: expected ${String(expected)}, got ${String(actual)}`];
}
