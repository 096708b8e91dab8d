import { plain } from '../format';
import { fieldUnit, pathWords, rowName } from './labels';

/** One readable difference between two versions of a sheet. */
export interface SheetDifference {
  path: string;
  label: string;
  from: string;
  to: string;
}

const isObject = (x: unknown): x is Record<string, unknown> => typeof x === 'object' && x !== null && !Array.isArray(x);
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/**
 * Readable differences from `before` to `after`, field by field. A number with a source is one field; rows of lists are
 * matched by their name where they have one, else by place.
 * @returns one entry a field: its path, before and after
 */
export function sheetDifferences(before: unknown, after: unknown, dialUnit: string): SheetDifference[] {
  const found: SheetDifference[] = [];
  const add = (path: string, a: unknown, b: unknown) =>
    found.push({
      path,
      label: pathWords(path, after) || pathWords(path, before),
      from: shown(a, path, dialUnit),
      to: shown(b, path, dialUnit),
    });
  const walk = (path: string, a: unknown, b: unknown): void => {
    if (same(a, b)) return;
    const at = (key: string | number) => (path === '' ? String(key) : `${path}.${key}`);
    if (isObject(a) && isObject(b) && !isSourced(a) && !isSourced(b)) {
      for (const key of new Set([...Object.keys(a), ...Object.keys(b)])) walk(at(key), a[key], b[key]);
    } else if (Array.isArray(a) && Array.isArray(b) && [...a, ...b].every(isObject)) {
      const named = [...a, ...b].every((r, i) => rowName(r, i) !== `no. ${i + 1}`);
      if (!named) return void Array.from({ length: Math.max(a.length, b.length) }, (_, i) => walk(at(i), a[i], b[i]));
      const key = (r: unknown, i: number) => rowName(r, i);
      b.forEach((row, i) =>
        walk(
          at(i),
          a.find((r, j) => key(r, j) === key(row, i)),
          row,
        ),
      );
      a.forEach((row, j) => {
        if (!b.some((r, i) => key(r, i) === key(row, j)))
          found.push({
            path,
            label: `${pathWords(path, after)}, ${key(row, j)}`,
            from: shown(row, path, dialUnit),
            to: 'removed',
          });
      });
    } else add(path, a, b);
  };
  walk('', before, after);
  return found;
}

const isSourced = (
  x: unknown,
): x is { value: number; source: string; ref: string; others?: { value: number; source: string; ref: string }[] } =>
  isObject(x) && typeof x.value === 'number' && typeof x.source === 'string' && typeof x.ref === 'string';

function shown(x: unknown, path: string, dialUnit: string): string {
  const unit = fieldUnit(path, dialUnit);
  if (x === undefined) return 'nothing';
  if (x === null) return 'not on the sheet';
  if (isSourced(x))
    return `${x.value}${unit ? ` ${unit}` : ''} (${x.source}, ${x.ref})${(x.others ?? []).map((o) => `; also ${o.value} (${o.source}, ${o.ref})`).join('')}`;
  if (Array.isArray(x))
    return x.length === 0 ? 'none' : x.map((v, i) => (isObject(v) ? rowName(v, i) : plain(v))).join(', ');
  if (isObject(x))
    return Object.entries(x)
      .map(([k, v]) => (isSourced(v) ? `${k} ${v.value}` : typeof v === 'object' ? null : plain(v)))
      .filter(Boolean)
      .join(', ');
  return typeof x === 'boolean' ? (x ? 'yes' : 'no') : `${plain(x)}${typeof x === 'number' && unit ? ` ${unit}` : ''}`;
}
