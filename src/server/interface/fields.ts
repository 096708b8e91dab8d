import { z } from 'zod';

export interface FieldLine {
  /** `items[].first.through` */
  name: string;
  type: string;
  meaning: string;
}
interface Shape {
  type?: string | string[];
  enum?: unknown[];
  const?: unknown;
  description?: string;
  properties?: Record<string, Shape>;
  required?: string[];
  items?: Shape;
  anyOf?: Shape[];
  additionalProperties?: unknown;
}

/** Deeper than this the interface document is read. */
const DEEP = 3;
const MANY = 24;

/**
 * The fields of a schema as a list to read: name, kind, what it means. A sheet of many fields is one line, which points
 * to the interface document.
 */
export function fieldsOf(schema: z.ZodType, side: 'output' | 'input' = 'output'): FieldLine[] {
  const lines: FieldLine[] = [];
  const walk = (name: string, s: Shape, depth: number) => {
    const { of, nullable } = bare(s);
    const meaning = s.description ?? of.description ?? '';
    const kind = typeOf(of) + (nullable ? ' or null' : '');
    if (name !== '' && !(name.endsWith('[]') && of.properties)) lines.push({ name, type: kind, meaning });
    const inner = Object.entries(of.properties ?? {});
    if (depth > DEEP || inner.length > MANY) return;
    for (const [key, field] of inner) walk(name === '' ? key : `${name}.${key}`, field, depth + 1);
    if (of.items) {
      const each = bare(of.items).of;
      if (each.properties) walk(`${name}[]`, of.items, depth);
    }
  };
  walk('', z.toJSONSchema(schema, { io: side, unrepresentable: 'any', reused: 'inline' }) as Shape, 0);
  return lines;
}

function bare(s: Shape): { of: Shape; nullable: boolean } {
  if (Array.isArray(s.type)) {
    const types = s.type.filter((t) => t !== 'null');
    return {
      of: { ...s, type: types.length === 1 ? (types[0] ?? '') : types },
      nullable: types.length < s.type.length,
    };
  }
  const some = s.anyOf?.filter((a) => a.type !== 'null');
  return some?.length === 1 && some[0] && s.anyOf?.length === 2
    ? { of: some[0], nullable: true }
    : { of: s, nullable: false };
}

function typeOf(s: Shape): string {
  if (s.const !== undefined) return JSON.stringify(s.const);
  if (s.enum) return s.enum.map((e) => JSON.stringify(e)).join(', ');
  if (s.type === 'array') return `list of ${s.items ? typeOf(bare(s.items).of) : 'anything'}`;
  if (s.type === 'integer') return 'whole number';
  return s.type === undefined ? 'anything' : [s.type].flat().join(' or ');
}
