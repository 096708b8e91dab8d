/** A schema as plain data, for a form that follows it. Made once on the server, so that the browser needs no schema library. */
export type FormNode =
  | { kind: 'object'; fields: { key: string; node: FormNode }[] }
  | { kind: 'list'; item: FormNode }
  | { kind: 'sourced' }
  | { kind: 'choice'; options: string[] }
  | { kind: 'number' | 'text' | 'yes-no' | 'date' }
  | { kind: 'fixed'; value: string }
  | { kind: 'optional'; inner: FormNode };

/** An empty value of a node, for a new row. Numbers start empty (null), so that nothing is guessed. */
export function emptyOf(node: FormNode): unknown {
  switch (node.kind) {
    case 'object': return Object.fromEntries(node.fields.map((f) => [f.key, emptyOf(f.node)]));
    case 'list': return [];
    case 'sourced': return { value: null, source: 'handbook', ref: '' };
    case 'choice': return node.options[0] ?? '';
    case 'yes-no': return false;
    case 'fixed': return node.value;
    case 'optional': case 'number': return null;
    default: return '';
  }
}
