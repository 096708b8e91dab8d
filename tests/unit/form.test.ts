import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { sheetDifferences } from '@/core/sheet';
import { formNode } from '@/domain/form';
import { type FormNode, emptyOf, misfit } from '@/domain/form-node';
import { EvidenceRule, House, Programme, RulePack, Standard } from '@/domain/programme';

const read = (name: string): unknown => JSON.parse(readFileSync(`content/${name}.json`, 'utf8'));
const kinds = (node: FormNode, found = new Set<string>()): Set<string> => {
  found.add(node.kind);
  if (node.kind === 'object') node.fields.forEach((f) => kinds(f.node, found));
  if (node.kind === 'list') kinds(node.item, found);
  if (node.kind === 'map') kinds(node.value, found);
  if (node.kind === 'optional') kinds(node.inner, found);
  if (node.kind === 'variants') node.options.forEach((o) => kinds(o.node, found));
  return found;
};

describe('a form from a schema', () => {
  it('offers each kind of a rule by its name, and an empty one of it fits', () => {
    const node = formNode(EvidenceRule);
    if (node.kind !== 'variants') throw new Error(`a rule is ${node.kind}`);
    expect(node.options.map((o) => o.value)).toEqual([
      'run',
      'count',
      'go-arounds',
      'observed',
      'hours',
      'briefs',
      'gear-checks',
    ]);
    for (const o of node.options) expect((emptyOf(o.node) as { kind: string }).kind).toBe(o.value);
  });
  it('knows names with values, choices, lists, and what may be absent', () => {
    const node = formNode(
      z.object({
        a: z.record(z.string(), z.number()),
        b: z.partialRecord(z.enum(['x', 'y']), z.string()),
        c: z.string().nullable(),
        d: z.union([z.object({ kind: z.literal('p'), n: z.number() }), z.object({ kind: z.literal('q') })]).nullable(),
      }),
    );
    expect(node).toMatchObject({
      kind: 'object',
      fields: [
        { key: 'a', node: { kind: 'map', value: { kind: 'number' } } },
        { key: 'b', node: { kind: 'map' } },
        { key: 'c', node: { kind: 'optional', inner: { kind: 'text' } } },
        { key: 'd', node: { kind: 'optional', inner: { kind: 'variants', tag: 'kind' } } },
      ],
    });
  });
  it.each([
    ['programme', Programme],
    ['pack', RulePack],
    ['house', House],
    ['standard', Standard],
  ] as const)('covers everything of a %s', (_, schema) =>
    expect(
      [...kinds(formNode(schema))].every((k) =>
        [
          'object',
          'list',
          'sourced',
          'choice',
          'number',
          'text',
          'yes-no',
          'date',
          'fixed',
          'variants',
          'map',
          'optional',
        ].includes(k),
      ),
    ).toBe(true),
  );
});

describe('a file brought in', () => {
  it('fits when it is what was exported, and names the first place where it is not', () => {
    const node = formNode(RulePack);
    const pack = RulePack.parse(read('packs/eu'));
    expect(misfit(node, pack)).toBeNull();
    expect(misfit(node, null)).toBe('at the top');
    expect(misfit(node, { ...pack, goals: 'all' })).toBe('goals');
    expect(misfit(node, { ...pack, goals: [...pack.goals.slice(0, 2), { ...pack.goals[2], citation: 7 }] })).toBe(
      'goals.2.citation',
    );
    expect(misfit(node, { ...pack, endorsementGoals: { TW: 3 } })).toBe('endorsementGoals.TW');
    expect(misfit(formNode(EvidenceRule), { kind: 'wish' })).toBe('at the top');
    expect(misfit(formNode(House), House.parse(read('house')))).toBeNull();
  });
  it('shows what it changes, item by item', () => {
    const before = {
      items: [
        { id: 'A1', title: 'Taxi', safety: true, evidence: { kind: 'observed', needed: 1 } },
        { id: 'A2', title: 'Land', safety: true, evidence: { kind: 'count', needed: 3 } },
      ],
    };
    const after = {
      items: [
        { id: 'A2', title: 'Land', safety: false, evidence: { kind: 'count', needed: 5 } },
        { id: 'A3', title: 'Stop', safety: true, evidence: { kind: 'observed', needed: 1 } },
      ],
    };
    const found = sheetDifferences(before, after, 'kt').map((d) => `${d.label}: ${d.from} / ${d.to}`);
    expect(found.some((f) => f.includes('Land') && f.includes('3') && f.endsWith('5'))).toBe(true);
    expect(found.some((f) => f.includes('Land') && f.includes('safety item: yes / no'))).toBe(true);
    expect(found.some((f) => f.includes('Taxi') && f.endsWith('removed'))).toBe(true);
    expect(found.some((f) => f.includes('Stop'))).toBe(true);
  });
});
