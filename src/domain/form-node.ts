/**
 * A schema as plain data, for a form that follows it. Made once on the server, so that the browser needs no schema
 * library.
 */
export type FormNode =
  | { kind: 'object'; fields: { key: string; node: FormNode }[] }
  | { kind: 'list'; item: FormNode }
  | { kind: 'sourced' }
  | { kind: 'choice'; options: string[] }
  | { kind: 'number' | 'text' | 'yes-no' | 'date' }
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
 */
export function misfit(node: FormNode, value: unknown, path = ''): string | null {
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
                : misfit(f.node, record[f.key], path === '' ? f.key : `${path}.${f.key}`)),
            null,
          );
    case 'list':
      return Array.isArray(value)
        ? value.reduce<string | null>((bad, x, i) => bad ?? misfit(node.item, x, `${path}.${i}`), null)
        : here;
    case 'map':
      return record === null
        ? here
        : Object.entries(record).reduce<string | null>(
            (bad, [k, x]) => bad ?? misfit(node.value, x, `${path}.${k}`),
            null,
          );
    case 'variants':
      return record !== null && node.options.some((o) => o.value === record[node.tag])
        ? misfit(node.options.find((o) => o.value === record[node.tag])?.node ?? node, record, path)
        : here;
    case 'optional':
      return value === null || value === undefined ? null : misfit(node.inner, value, path);
    case 'sourced':
      return record === null ? here : null;
    case 'number':
      return typeof value === 'number' ? null : here;
    case 'yes-no':
      return typeof value === 'boolean' ? null : here;
    case 'text':
    case 'date':
    case 'choice':
    case 'fixed':
      return typeof value === 'string' ? null : here;
  }
}
