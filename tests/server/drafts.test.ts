import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import {
  discardTypeDraft,
  keepTypeDraft,
  rebaseTypeDraft,
  saveTypeDraft,
  startTypeDraft,
} from '@/server/hangar/commands/drafts';
import { addAeroplane, saveTypeSheet } from '@/server/hangar/commands/hangar';
import { newTypeDrafts, typeDraft } from '@/server/hangar/queries/drafts';
import { hangar, typeVersions } from '@/server/hangar/queries/hangar';
import { openCheckout } from '@/server/checkout/commands/checkout';
import type { TypeSheet } from '@/domain/sheet';
import { demoFolder, user } from './folder';

let close: () => Promise<void>;
let chief: CurrentUser;
let helena: CurrentUser;
beforeAll(async () => {
  ({ close } = await demoFolder());
  [chief, helena] = await Promise.all([user('bento'), user('helena')]);
}, 90_000);
afterAll(() => close());

/** One open page: it knows what it has seen. */
const page = (key: string, baseVersion = 0, who = chief) => {
  const id = randomUUID();
  let seen = 0;
  return {
    keep: async (...changes: [string, unknown][]) => {
      const kept = await keepTypeDraft(who, {
        ...{ key, baseVersion, seen, page: id },
        changes: changes.map(([path, value]) => ({ path, value })),
      });
      if (kept.ok) seen = kept.seq;
      return kept;
    },
    save: (reason = 'First sheet of it') => saveTypeDraft(who, { key, seen, reason }),
  };
};
const started = async (form: unknown): Promise<string> => {
  const made = await startTypeDraft(chief, form);
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return made.id;
};
const said = (value: number) => ({ value, source: 'handbook', ref: 'Handbook 2.2' });
const newest = async (code: string) => (await typeVersions(code))[0];

describe('a new type', () => {
  it('is the chief’s to begin, keep, save and discard', async () => {
    expect((await startTypeDraft(helena, { from: 'empty' })).ok).toBe(false);
    const key = await started({ from: 'empty' });
    expect((await page(key, 0, helena).keep(['name', 'x'])).ok).toBe(false);
    expect((await saveTypeDraft(helena, { key, seen: 0, reason: 'long enough' })).ok).toBe(false);
    expect((await discardTypeDraft(helena, { key })).ok).toBe(false);
    expect((await discardTypeDraft(chief, { key })).ok).toBe(true);
    expect(await typeDraft(key)).toBeNull();
    expect((await page(key).keep(['name', 'x'])).ok).toBe(false);
  });
  it('is entered on two machines without loss: other fields come in, the same field is not written over', async () => {
    const key = await started({ from: 'sample', kind: 'light-tailwheel' });
    const [one, two] = [page(key), page(key)];
    await one.keep(['name', 'Marsh One'], ['maker', 'Marsh']);
    const late = await two.keep(['revision', '2'], ['name', 'Marsh Two']);
    expect(late).toMatchObject({ ok: true, refused: ['name'] });
    expect(late.ok && late.others.map((o) => [o.path, o.value, o.by])).toEqual([
      ['name', 'Marsh One', chief.name],
      ['maker', 'Marsh', chief.name],
    ]);
    expect((await typeDraft(key))?.sheet).toMatchObject({ name: 'Marsh One', maker: 'Marsh', revision: '2' });
    // Having seen it, the second puts its own; the first hears of both and cannot save what it has not seen.
    expect(await two.keep(['name', 'Marsh Two'])).toMatchObject({ ok: true, refused: [] });
    expect(await one.save()).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining('changed') }] });
    const heard = await one.keep();
    expect(heard.ok && heard.others.map((o) => o.path)).toEqual(['revision', 'name']);
    // A list within a list, and a field of what another machine replaced, are the same field.
    await one.keep(['twin', null]);
    expect(await two.keep(['twin.vmca', said(70)])).toMatchObject({ refused: ['twin.vmca'] });
    expect((await newTypeDrafts()).map((d) => d.name)).toContain('Marsh Two');
    // However often a field is written, the draft holds it once.
    const now = await typeDraft(key);
    expect(now?.changes.filter((c) => c.path === 'name').map((c) => c.value)).toEqual(['Marsh Two']);
    expect(now?.sheet).toMatchObject({ name: 'Marsh Two', maker: 'Marsh', revision: '2', twin: null });
    await discardTypeDraft(chief, { key });
  });
  it('takes no field that is none, and no value of another form', async () => {
    const key = await started({ from: 'empty' });
    for (const change of [
      ['nothing', 1],
      ['schema', 'type-sheet/2'],
      ['__proto__', {}],
      ['speeds.vfe.0.speed', said(70)],
      ['speeds.va', 70],
      ['speeds.va', { value: '70', source: 'handbook', ref: '2' }],
      ['speeds.va', undefined],
      ['flapSteps', ['0']],
      ['summary', 'x'.repeat(200_001)],
    ] as [string, unknown][])
      expect(await page(key).keep(change), change[0]).toMatchObject({ ok: false });
    expect((await typeDraft(key))?.seq).toBe(0);
    expect((await startTypeDraft(chief, { from: 'sample', kind: '../house' })).ok).toBe(false);
    expect((await startTypeDraft(chief, { from: 'type', code: 'nowhere' })).ok).toBe(false);
  });
  it('is kept with its samples, and nothing is opened on it until each is confirmed', async () => {
    const key = await started({ from: 'type', code: 'alvor-c1' });
    const me = page(key);
    const early = await me.save();
    expect(early.ok || early.problems.map((p) => p.path)).toEqual(
      expect.arrayContaining(['sheet.name', 'sheet.masses.refMassKg', 'sheet.goAroundFlow']),
    );
    await me.keep(
      ...([
        ['name', 'Alvor C1'],
        ['maker', 'Alvor'],
        ['summary', 'Another of it'],
        ['revision', '1'],
        ['gear.brakes', 'toe'],
        ['masses.refMassKg', 700],
        ['goAroundFlow', ['power']],
      ] as [string, unknown][]),
    );
    expect(await me.save()).toMatchObject({ ok: false, problems: [{ path: 'sheet.code' }] });
    await me.keep(['code', 'alvor-new']);
    expect(await me.save()).toMatchObject({ ok: true, code: 'alvor-new', version: 1 });
    expect(await me.save(), 'twice').toMatchObject({ ok: false });
    const added = { code: 'alvor-new', registration: 'zp-new', emptyKg: 510, emptyArmM: null, weighing: '' };
    expect(await addAeroplane(chief, added)).toMatchObject({ ok: false, problems: [{ path: 'weighing' }] });
    expect(await addAeroplane(helena, { ...added, weighing: 'W 1' })).toMatchObject({ ok: false });
    expect(await addAeroplane(chief, { ...added, weighing: 'W 1' })).toMatchObject({ ok: true });
    expect(await addAeroplane(chief, { ...added, registration: 'ZP-NEW', weighing: 'W 1' })).toMatchObject({
      ok: false,
      problems: [{ path: 'registration' }],
    });
    const frame = (await hangar()).flatMap((t) => t.airframes).find((a) => a.registration === 'ZP-NEW');
    expect(frame?.effective.masses.emptyKg).toMatchObject({ value: 510, source: 'measured', ref: 'W 1' });
    const open = () =>
      openCheckout(helena, {
        ...{ requestId: randomUUID(), pilotId: 'pilot-gaspar', airframeId: frame?.id, pack: 'us' },
        ...{ goals: ['new-type'], standardKey: 'school', note: '' },
      });
    expect(await open()).toMatchObject({
      ok: false,
      problems: [{ path: 'airframeId', message: expect.stringMatching(/samples nobody has confirmed/) }],
    });
    // The same sheet with each confirmed: the samples do not stand in the way any more.
    const sheet = (await newest('alvor-new'))?.sheet as TypeSheet;
    const confirmed = JSON.parse(
      JSON.stringify(sheet)
        .replaceAll('"source":"sample"', '"source":"handbook"')
        .replaceAll(/"sample: [^"]*"/g, '"Handbook 2"'),
    ) as TypeSheet;
    const put = { code: 'alvor-new', baseVersion: 1, reason: 'from the manual', sheet: confirmed };
    expect(await saveTypeSheet(chief, put)).toMatchObject({ ok: true });
    const after = await open();
    expect(after.ok ? [] : after.problems.filter((p) => /samples/.test(p.message))).toEqual([]);
  });
});

describe('a type that is edited', () => {
  it('begins a draft with the first change, and goes on from a version saved meanwhile', async () => {
    const code = 'lume-faisca';
    const base = (await newest(code))?.version ?? 0;
    const [one, two] = [page(code, base), page(code, base)];
    expect(await one.keep()).toMatchObject({ ok: true, seq: 0 });
    expect(await typeDraft(code)).toBeNull();
    await one.keep(['speeds.vno', said(101)]);
    await two.keep(['summary', 'Said anew']);
    const sheet = structuredClone((await newest(code))?.sheet) as TypeSheet;
    sheet.maker = 'Lume and daughters';
    await saveTypeSheet(chief, { code, baseVersion: base, reason: 'New name of the maker', sheet });
    await two.keep();
    expect(await two.save('Vno of the placard')).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining(`Version ${base + 1}`) }],
    });
    expect(await rebaseTypeDraft(chief, { key: code })).toMatchObject({ ok: true });
    expect(await two.save('Vno of the placard')).toMatchObject({ ok: true, version: base + 2 });
    expect((await newest(code))?.sheet).toMatchObject({
      maker: 'Lume and daughters',
      summary: 'Said anew',
      speeds: { vno: { value: 101 } },
    });
    // A page of before cannot begin another draft under what is there now.
    expect(await one.keep(['summary', 'Late'])).toMatchObject({ ok: false });
  });
});
