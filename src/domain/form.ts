import { z } from 'zod';
import type { FormNode } from './form-node';

interface JsonSchema {
  type?: string | string[];
  const?: unknown;
  enum?: unknown[];
  anyOf?: JsonSchema[];
  oneOf?: JsonSchema[];
  additionalProperties?: JsonSchema | boolean;
  propertyNames?: JsonSchema;
  properties?: Record<string, JsonSchema>;
  items?: JsonSchema;
  format?: string;
  minItems?: number;
  minLength?: number;
}

/** Turns a schema of the domain into form nodes. A number with a source is one node. */
export function formNode(schema: z.ZodType): FormNode {
  return fromJson(z.toJSONSchema(schema, { io: 'input', reused: 'inline' }) as JsonSchema);
}

function fromJson(s: JsonSchema): FormNode {
  if (s.const !== undefined)
    return {
      kind: 'fixed',
      value: typeof s.const === 'object' ? JSON.stringify(s.const) : String(s.const as string | number | boolean),
    };
  if (s.enum) return { kind: 'choice', options: s.enum.map(String) };
  const options = (s.oneOf ?? s.anyOf ?? []).filter((x) => x.type !== 'null');
  const tag =
    options.length > 1
      ? ['kind', 'form', 'schema', 'by'].find((t) => options.every((o) => o.properties?.[t]?.const !== undefined))
      : undefined;
  if (tag) {
    const variants: FormNode = {
      kind: 'variants',
      tag,
      options: options.map((o) => ({ value: String(o.properties?.[tag]?.const), node: fromJson(o) })),
    };
    return options.length < (s.oneOf ?? s.anyOf ?? []).length ? { kind: 'optional', inner: variants } : variants;
  }
  if (s.anyOf) {
    const inner = s.anyOf.find((x) => x.type !== 'null');
    return { kind: 'optional', inner: inner ? fromJson(inner) : { kind: 'text', filled: false } };
  }
  if (Array.isArray(s.type)) {
    const inner = s.type.find((t) => t !== 'null');
    const node = fromJson({ ...s, ...(inner ? { type: inner } : {}) });
    return s.type.includes('null') ? { kind: 'optional', inner: node } : node;
  }
  if (s.type === 'array') return { kind: 'list', item: fromJson(s.items ?? {}), least: s.minItems ?? 0 };
  if (s.type === 'boolean') return { kind: 'yes-no' };
  if (s.type === 'number' || s.type === 'integer') return { kind: 'number' };
  if (s.type === 'object' && s.properties) {
    const p = s.properties;
    if (p.value?.type === 'number' && p.source && p.ref && p.others) return { kind: 'sourced' };
    return { kind: 'object', fields: Object.entries(p).map(([key, x]) => ({ key, node: fromJson(x) })) };
  }
  if (s.type === 'object' && typeof s.additionalProperties === 'object')
    return { kind: 'map', value: fromJson(s.additionalProperties), keys: s.propertyNames?.enum?.map(String) ?? null };
  return s.format === 'date' ? { kind: 'date' } : { kind: 'text', filled: (s.minLength ?? 0) > 0 };
}
