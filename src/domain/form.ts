import { z } from 'zod';
import type { FormNode } from './form-node';

interface JsonSchema { type?: string | string[]; const?: unknown; enum?: unknown[]; anyOf?: JsonSchema[]; properties?: Record<string, JsonSchema>; items?: JsonSchema; format?: string }

/** Turns a schema of the domain into form nodes. A number with a source is one node. */
export function formNode(schema: z.ZodType): FormNode {
  return fromJson(z.toJSONSchema(schema, { io: 'input', reused: 'inline' }) as JsonSchema);
}

function fromJson(s: JsonSchema): FormNode {
  if (s.const !== undefined) return { kind: 'fixed', value: String(s.const) };
  if (s.enum) return { kind: 'choice', options: s.enum.map(String) };
  if (s.anyOf) {
    const inner = s.anyOf.find((x) => x.type !== 'null');
    return { kind: 'optional', inner: inner ? fromJson(inner) : { kind: 'text' } };
  }
  if (Array.isArray(s.type)) {
    const inner = s.type.find((t) => t !== 'null');
    const node = fromJson({ ...s, ...(inner ? { type: inner } : {}) });
    return s.type.includes('null') ? { kind: 'optional', inner: node } : node;
  }
  if (s.type === 'array') return { kind: 'list', item: fromJson(s.items ?? {}) };
  if (s.type === 'boolean') return { kind: 'yes-no' };
  if (s.type === 'number' || s.type === 'integer') return { kind: 'number' };
  if (s.type === 'object' && s.properties) {
    const p = s.properties;
    if (p.value?.type === 'number' && p.source && p.ref && p.others) return { kind: 'sourced' };
    return { kind: 'object', fields: Object.entries(p).map(([key, x]) => ({ key, node: fromJson(x) })) };
  }
  return { kind: s.format === 'date' ? 'date' : 'text' };
}
