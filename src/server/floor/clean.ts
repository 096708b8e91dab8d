import { type Problem, problemAt } from './result';
import { type Told, told } from './sentences';

const DEEPEST = 24;
const MOST_PARTS = 60_000;
/** Control characters that no keyboard types into a field; tabs and line ends stay. */
const CONTROL = /[\x00-\x08\x0b\x0c\x0e-\x1f\x7f]/;

export type Cleaned<T> = { ok: true; value: T } | { ok: false; problem: Problem };

/**
 * What came in, as it may be kept: line ends are one character, nothing holds a character that cannot be shown, and
 * nothing is nested or numerous beyond what any form sends. Objects come out plain, with own keys only.
 */
export function clean<T>(value: T): Cleaned<T> {
  let parts = 0;
  let wrong: Problem | null = null;
  const refuse = (path: string, what: Told): undefined => {
    wrong ??= problemAt(path, what);
    return undefined;
  };
  const walk = (v: unknown, path: string, depth: number): unknown => {
    if (wrong) return undefined;
    if (++parts > MOST_PARTS || depth > DEEPEST) return refuse('', told('too-much-at-once'));
    if (typeof v === 'string')
      return CONTROL.test(v) ? refuse(path, told('odd-character')) : v.includes('\r') ? v.replace(/\r\n?/g, '\n') : v;
    if (typeof v === 'number') return v;
    if (Array.isArray(v)) return v.map((x, i) => walk(x, path === '' ? String(i) : `${path}.${i}`, depth + 1));
    if (v !== null && typeof v === 'object') {
      const proto: unknown = Object.getPrototypeOf(v);
      if (proto !== Object.prototype && proto !== null) return v;
      return Object.fromEntries(
        Object.entries(v)
          .filter(([k]) => k !== '__proto__')
          .map(([k, x]) => [k, walk(x, path === '' ? k : `${path}.${k}`, depth + 1)]),
      );
    }
    return v;
  };
  const out = walk(value, '', 0) as T;
  return wrong ? { ok: false, problem: wrong } : { ok: true, value: out };
}
