/**
 * A schema as plain data, for a form that follows it. Made once on the server, so that the browser needs no schema
 * library.
 */
export type FormNode =
  | { kind: 'object'; fields: { key: string; node: FormNode }[] }
  /** `least` rows have to be there. */
  | { kind: 'list'; item: FormNode; least: number }
  | { kind: 'sourced' }
  | { kind: 'choice'; options: string[] }
  | { kind: 'number' | 'yes-no' | 'date' }
  /** `filled`: an empty one is refused. */
  | { kind: 'text'; filled: boolean }
  | { kind: 'fixed'; value: string }
  /** One of several forms, told apart by the word under `tag`. */
  | { kind: 'variants'; tag: string; options: { value: string; node: FormNode }[] }
  /** Names and what stands under each; `keys` when only these names are taken. */
  | { kind: 'map'; value: FormNode; keys: string[] | null }
  | { kind: 'optional'; inner: FormNode };

/** An empty value of a node, for a new row. Numbers start empty (null), so that nothing is guessed. */
export function emptyOf(node: FormNode): unknown {
  switch (node.kind) {
    case 'object':
      return Object.fromEntries(node.fields.map((f) => [f.key, emptyOf(f.node)]));
    case 'list':
      return [];
    case 'map':
      return {};
    case 'variants':
      return node.options[0] ? emptyOf(node.options[0].node) : null;
    case 'sourced':
      return { value: null, source: 'handbook', ref: '' };
    case 'choice':
      return node.options[0] ?? '';
    case 'yes-no':
      return false;
    case 'fixed':
      return node.value;
    case 'optional':
    case 'number':
      return null;
    case 'text':
    case 'date':
      return '';
  }
}

/**
 * The first place where a value has not the form of a node, as a path in words; null = it has. For files brought in
 * from outside.
 * @param half a number may be missing: the value is still being entered
 */
export function misfit(node: FormNode, value: unknown, path = '', half = false): string | null {
  const here = path === '' ? 'at the top' : path;
  const record =
    typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : null;
  switch (node.kind) {
    case 'object':
      return record === null
        ? here
        : node.fields.reduce<string | null>(
            (bad, f) =>
              bad ??
              (record[f.key] === undefined
                ? null
                : misfit(f.node, record[f.key], path === '' ? f.key : `${path}.${f.key}`, half)),
            null,
          );
    case 'list':
      return Array.isArray(value)
        ? value.reduce<string | null>((bad, x, i) => bad ?? misfit(node.item, x, `${path}.${i}`, half), null)
        : here;
    case 'map':
      return record === null
        ? here
        : Object.entries(record).reduce<string | null>(
            (bad, [k, x]) => bad ?? misfit(node.value, x, `${path}.${k}`, half),
            null,
          );
    case 'variants':
      return record !== null && node.options.some((o) => o.value === record[node.tag])
        ? misfit(node.options.find((o) => o.value === record[node.tag])?.node ?? node, record, path, half)
        : here;
    case 'optional':
      return value === null || value === undefined ? null : misfit(node.inner, value, path, half);
    case 'sourced':
      return record !== null && misfit({ kind: 'number' }, record.value, '', half) === null && isClaimed(record)
        ? null
        : here;
    case 'number':
      return typeof value === 'number' || (half && value === null) ? null : here;
    case 'yes-no':
      return typeof value === 'boolean' ? null : here;
    case 'text':
    case 'date':
    case 'choice':
    case 'fixed':
      return typeof value === 'string' ? null : here;
  }
}

const isClaimed = (c: Record<string, unknown>): boolean => typeof c.source === 'string' && typeof c.ref === 'string';

/** What an empty place is empty of. */
export type Missing = 'number' | 'text' | 'source' | 'rows';
const blank = (x: unknown): boolean => typeof x !== 'string' || x.trim() === '';
/** Every place that has to be filled before the value can be kept as a whole, by its path. */
export function missingIn(node: FormNode, value: unknown, path = ''): { path: string; what: Missing }[] {
  const at = (key: string | number) => (path === '' ? String(key) : `${path}.${key}`);
  const record = (typeof value === 'object' && value !== null ? value : {}) as Record<string, unknown>;
  switch (node.kind) {
    case 'object':
      return node.fields.flatMap((f) => missingIn(f.node, record[f.key], at(f.key)));
    case 'list': {
      const rows = Array.isArray(value) ? (value as unknown[]) : [];
      return [
        ...(rows.length < node.least ? [{ path, what: 'rows' as const }] : []),
        ...rows.flatMap((x, i) => missingIn(node.item, x, at(i))),
      ];
    }
    case 'map':
      return Object.entries(record).flatMap(([k, x]) => missingIn(node.value, x, at(k)));
    case 'variants': {
      const now = node.options.find((o) => o.value === record[node.tag]);
      return now ? missingIn(now.node, value, path) : [{ path, what: 'text' }];
    }
    case 'optional':
      return value === null || value === undefined ? [] : missingIn(node.inner, value, path);
    case 'sourced': {
      const others = Array.isArray(record.others) ? (record.others as Record<string, unknown>[]) : [];
      return [record, ...others].flatMap((c, i) => {
        const what: Missing | null = typeof c.value !== 'number' ? 'number' : blank(c.ref) ? 'source' : null;
        return what ? [{ path: i === 0 ? path : at(`others.${i - 1}`), what }] : [];
      });
    }
    case 'number':
      return typeof value === 'number' && Number.isFinite(value) ? [] : [{ path, what: 'number' }];
    case 'text':
      return node.filled && blank(value) ? [{ path, what: 'text' }] : [];
    case 'date':
    case 'choice':
      return blank(value) ? [{ path, what: 'text' }] : [];
    case 'yes-no':
    case 'fixed':
      return [];
  }
}

/** The part of a path that is one field: down to a list, a number with its source, or a single value. */
export function fieldOf(node: FormNode, path: readonly string[], within = ''): string {
  const inner = node.kind === 'optional' ? node.inner : node;
  const [key, ...rest] = path;
  const next = inner.kind === 'object' ? inner.fields.find((f) => f.key === key)?.node : undefined;
  if (key === undefined || next === undefined) return within;
  return fieldOf(next, rest, within === '' ? key : `${within}.${key}`);
}

export type Path = readonly (string | number)[];
/** The same value with another one at a path. */
export function putAt(root: unknown, path: Path, value: unknown): unknown {
  const [key, ...rest] = path;
  if (key === undefined) return value;
  if (Array.isArray(root)) return root.map((x: unknown, i) => (i === key ? putAt(x, rest, value) : x));
  const object = (typeof root === 'object' && root !== null ? root : {}) as Record<string, unknown>;
  return { ...object, [key]: putAt(object[key], rest, value) };
}
/** What stands at a path; undefined where nothing stands there. */
export const valueAt = (root: unknown, path: Path): unknown =>
  path.reduce<unknown>(
    (at, key) => (typeof at === 'object' && at !== null ? (at as Record<string | number, unknown>)[key] : undefined),
    root,
  );
/** The node at a path of names, through whatever is optional; null where the form has none. */
export function nodeAt(node: FormNode, path: readonly string[]): FormNode | null {
  const [key, ...rest] = path;
  if (key === undefined) return node;
  const inner = node.kind === 'optional' ? node.inner : node;
  const next = inner.kind === 'object' ? inner.fields.find((f) => f.key === key)?.node : undefined;
  return next ? nodeAt(next, rest) : null;
}
