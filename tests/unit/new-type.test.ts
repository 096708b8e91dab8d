import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readRoster } from '@/core/roster';
import {
  asSample,
  pasteRows,
  SHEET_STEPS,
  sheetGaps,
  sheetWords,
  stepOf,
  unconfirmed,
  validateSheet,
} from '@/core/sheet';
import { applyChanges, overlap, SAMPLE_KINDS } from '@/domain/draft-forms';
import { formNode } from '@/domain/form';
import { emptyOf, fieldOf, type FormNode, misfit, missingIn, nodeAt } from '@/domain/form-node';
import { TypeSheet } from '@/domain/sheet';
import { types } from '../../demo/fleet';

const node = formNode(TypeSheet);
const sample = (kind: string) =>
  JSON.parse(readFileSync(`content/samples/${kind}.json`, 'utf8')) as Record<string, unknown>;
/** Every field of a form that has no fields of its own. */
const leaves = (n: FormNode, at = ''): string[] => {
  const inner = n.kind === 'optional' ? n.inner : n;
  return inner.kind === 'object'
    ? inner.fields.flatMap((f) => (f.node.kind === 'fixed' ? [] : leaves(f.node, at ? `${at}.${f.key}` : f.key)))
    : [at];
};

describe('the steps of a type sheet', () => {
  it('have every field once', () => {
    const steps = Object.values(SHEET_STEPS).flat() as string[];
    const of = (leaf: string) => steps.filter((s) => leaf === s || leaf.startsWith(`${s}.`));
    expect(leaves(node).filter((leaf) => of(leaf).length !== 1)).toEqual([]);
    expect(steps.filter((s) => nodeAt(node, s.split('.')) === null)).toEqual([]);
    expect(stepOf('loading.stations.0.armM')).toBe('loading');
    expect(stepOf('schema')).toBe('general');
  });
});

/** Numbers that are what an aeroplane is, or that are named by the row they stand in. */
const COUNTS = /(^|\.)(count|flapSteps\.\d+)$/;
/** Every number on a sheet with whether it, or the table it stands in, waits to be confirmed. */
function numbers(x: unknown, open: ReadonlySet<string>, path = '', within = false): [string, boolean][] {
  // A row is confirmed with the number in it that has a source: a gate with its speed, a flap setting with its limit.
  const row = /\.\d+$/.test(path) && [...open].some((o) => o.startsWith(`${path}.`));
  const here = within || open.has(path) || row;
  if (typeof x === 'number') return COUNTS.test(path) ? [] : [[path, here]];
  if (typeof x !== 'object' || x === null) return [];
  return Object.entries(x).flatMap(([k, v]) => numbers(v, open, path ? `${path}.${k}` : k, here));
}

describe.each([
  ...SAMPLE_KINDS.map((kind) => [kind, sample(kind)] as const),
  ...types.map((t) => [t.code, asSample(t, 'a type')] as const),
])('a start for another type: %s', (_, start) => {
  const open = unconfirmed(start);
  it('has the form of a sheet and no number that nobody has to confirm', () => {
    expect(misfit(node, start, '', true)).toBeNull();
    expect(open.length).toBeGreaterThan(40);
    expect(numbers(start, new Set(open)).filter(([, waits]) => !waits)).toEqual([]);
  });
  it('cannot be kept before it has a name and the mass of its speeds', () => {
    const missing = missingIn(node, start).map((m) => m.path);
    expect(missing).toEqual(expect.arrayContaining(['name', 'revision', 'masses.refMassKg', 'goAroundFlow']));
    expect(TypeSheet.safeParse(start).success).toBe(false);
  });
  it('says nothing of where it came from but the word', () =>
    expect(JSON.stringify(start)).not.toMatch(/Flying order|Handbook|hangar floor/));
});

it.each(SAMPLE_KINDS)('the sample %s, completed, agrees with itself', (kind) => {
  const start = sample(kind);
  const masses = start.masses as { maxTakeoffKg: { value: number } };
  const said = { code: 'x', name: 'x', maker: 'x', summary: 'x', revision: 'x', goAroundFlow: ['power'] };
  const gear = { ...(start.gear as object), brakes: 'toe' };
  const onLand = start.onLand ? { ...start.onLand, goAroundFlow: ['power'] } : null;
  const whole = { ...start, ...said, gear, onLand, masses: { ...masses, refMassKg: masses.maxTakeoffKg.value } };
  expect(validateSheet(TypeSheet.parse(whole)).map(sheetWords)).toEqual([]);
});

describe('what is not confirmed', () => {
  const urze = types[2] as TypeSheet;
  it('is nothing on a sheet with sources', () => types.forEach((t) => expect(unconfirmed(t)).toEqual([])));
  it.each([
    ['the source alone', { source: 'sample', ref: 'Handbook 2.2' }, 1],
    ['the reference alone', { source: 'handbook', ref: ' Sample: x' }, 1],
    ['neither', { source: 'handbook', ref: 'Handbook 2.2' }, 0],
    ['a reference that only begins alike', { source: 'handbook', ref: 'Samples of oil, 2.2' }, 0],
  ])('%s', (_, claim, waits) => {
    const sheet = { ...urze, speeds: { ...urze.speeds, vx: { value: 60, ...claim } } };
    expect(unconfirmed(sheet)).toHaveLength(waits);
  });
  it('another source that is a sample waits, too', () => {
    const vx = { ...urze.speeds.vx, others: [{ value: 1, source: 'sample' as const, ref: 'x' }] };
    expect(unconfirmed({ speeds: { vx } })).toEqual(['speeds.vx.others.0']);
  });
});

describe('what a sheet lacks', () => {
  it('keeps by whole as by hand', () => {
    for (const t of types) expect(missingIn(node, t), t.code).toEqual([]);
    const empty = missingIn(node, emptyOf(node)).map((m) => m.path);
    for (const issue of TypeSheet.safeParse(emptyOf(node)).error?.issues ?? []) {
      const path = issue.path.join('.');
      const named = empty.includes(path) || empty.includes(path.replace(/\.(value|ref)$/, ''));
      if (path !== 'code') expect(named, `${path}: ${issue.message}`).toBe(true);
    }
  });
  it('names what does not work, and only that', () => {
    const all = sheetGaps(emptyOf(node)).map((g) => g.code);
    expect(all).toEqual(expect.arrayContaining(['loading', 'distances', 'electrics', 'crosswind', 'sight']));
    expect(all).not.toContain('one-engine');
    expect(sheetGaps({ engine: { count: 2 } }).map((g) => g.code)).toContain('one-engine');
    const p2 = types.find((t) => t.code === 'planalto-p2') as TypeSheet;
    expect(sheetGaps(p2).map((g) => g.code)).not.toContain('loading');
    expect(sheetGaps({ ...p2, loading: null }).find((g) => g.code === 'loading')?.path).toBe('loading');
  });
});

describe('changes of a draft', () => {
  it('are whole fields: a list, a number with its source, a single value', () => {
    const field = (path: string) => fieldOf(node, path.split('.'));
    expect(field('speeds.vfe.1.speed.value')).toBe('speeds.vfe');
    expect(field('speeds.vr.ref')).toBe('speeds.vr');
    expect(field('twin.vmca.value')).toBe('twin.vmca');
    expect(field('name')).toBe('name');
    expect(field('nothing')).toBe('');
  });
  it('fold onto whatever they are put on', () => {
    const changes = [
      { path: 'name', value: 'A' },
      { path: 'twin', value: { vmca: null } },
      { path: 'twin.vmca', value: { value: 70, source: 'handbook', ref: '2.2' } },
    ];
    expect(applyChanges({ code: 'a', twin: null }, changes)).toEqual({
      code: 'a',
      name: 'A',
      twin: { vmca: { value: 70, source: 'handbook', ref: '2.2' } },
    });
    expect([overlap('twin', 'twin.vmca'), overlap('twin.vmca', 'twin'), overlap('twin.vmc', 'twin.vmca')]).toEqual([
      true,
      true,
      false,
    ]);
  });
});

describe('rows pasted from a spreadsheet', () => {
  const columns = [
    { key: 'massKg', name: 'mass', kind: 'number' as const, empty: false },
    { key: 'oatC', name: 'air', kind: 'number' as const, empty: true },
    { key: 'note', name: 'note', kind: 'text' as const, empty: true },
  ];
  it.each([
    ['tabs', '750\t15\tdry\n760\t-5\t', [750, 15, 'dry'], [760, -5, '']],
    ['semicolons and decimal commas', '750,5;15;\n760;;', [750.5, 15, ''], [760, null, '']],
    ['a header in another order', 'Note\tAir (C)\tMass (kg)\nwet\t3\t700', [700, 3, 'wet']],
    ['spaces in thousands, a minus sign', '1 250\t\u22127\tx', [1250, -7, 'x']],
  ])('%s', (_, text, ...rows) => {
    const read = pasteRows(text, columns);
    expect(read.problems).toEqual([]);
    expect(read.rows.map((r) => [r.massKg, r.oatC, r.note])).toEqual(rows);
  });
  it.each([
    ['', 'paste-empty'],
    ['mass\tair\tnote', 'paste-empty'],
    ['750', 'paste-columns'],
    ['x750\t1\tn', 'paste-number'],
    ['1,250\t1\tn', 'paste-comma'],
    ['\t1\tn', 'paste-missing'],
    ['1e9\t1\tn', 'paste-number'],
    [`${'1\t1\tn\n'.repeat(201)}`, 'paste-many'],
  ])('%j is refused whole', (text, code) => {
    const read = pasteRows(text, columns);
    expect(read.problems.map((p) => p.code)).toContain(code);
    expect(read.rows).toEqual([]);
  });
});

describe('people of a file', () => {
  const line = (text: string) => readRoster(`Name,E-mail,Mass (kg),Hours,Licence,Role\n${text}`);
  it('are read by the names of the columns', () => {
    expect(line('Ada Fen,ADA@fen.example,70.5,1200,P 1,pilot + instructor\nBo Fen,,62,,,').people).toEqual([
      {
        ...{ line: 2, name: 'Ada Fen', email: 'ada@fen.example', massKg: 70.5, hours: 1200, certificate: 'P 1' },
        roles: ['pilot', 'instructor'],
      },
      { line: 3, name: 'Bo Fen', email: '', massKg: 62, hours: 0, certificate: '', roles: ['pilot'] },
    ]);
    // 154 lb are 69.85 kg: the heavier kilogram.
    expect(readRoster('Last name;First name;Weight lb\nFen;Cy;154').people[0]).toMatchObject({
      name: 'Cy Fen',
      massKg: 70,
    });
  });
  it.each([
    ['', 'roster-empty'],
    ['Name,Mass\n', 'roster-empty'],
    ['E-mail,Mass\na@b.example,70', 'roster-column'],
    ['Name,E-mail\nAda,a@b.example', 'roster-column'],
    ['Name,Mass\nFen, Ada,70', 'roster-ragged'],
    ['Name,Mass\nAda,seventy', 'roster-number'],
    ['Name,Mass\nAda,', 'roster-number'],
    ['Name;Mass;Hours\nAda;70;1,250', 'roster-number'],
    ['Name,Mass,Role\nAda,70,boss', 'roster-role'],
    ['Name,Mass,E-mail\nAda,70,a@b.example\nBo,70,A@B.example', 'roster-email-twice'],
    [`Name,Mass\n${'Ada,70\n'.repeat(201)}`, 'roster-many'],
  ])('%j is refused whole', (text, code) => {
    const read = readRoster(text);
    expect(read.problems.map((p) => p.code)).toContain(code);
    expect(read.people).toEqual([]);
  });
});
