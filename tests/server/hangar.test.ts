import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readFileSync } from 'node:fs';
import fontkit from '@pdf-lib/fontkit';
import { sheetDifferences } from '@/core/sheet';
import type { TypeSheet } from '@/domain/sheet';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { cardPdf } from '@/server/checkout/papers/card-pdf';
import { moveCheckout, newerVersions, saveBriefTemplate } from '@/server/checkout/commands/checkout';
import { saveAirframe, saveTypeSheet } from '@/server/hangar/commands/hangar';
import { row } from '../../scripts/lib/raw';
import { briefCard } from '@/server/checkout/queries/card';
import { briefTemplate } from '@/server/checkout/queries/flights';
import { checkoutHead } from '@/server/checkout/queries/head';
import { airframeVersions, hangar, typeVersions } from '@/server/hangar/queries/hangar';
import { demoFolder, shell, user } from './folder';
import { outlines, pagesOf } from './pdf';

let close: () => Promise<void>;
let chief: CurrentUser;
let helena: CurrentUser;
let duarte: CurrentUser;
const sheet = async (code: string): Promise<TypeSheet> =>
  structuredClone(
    (await typeVersions(code))[0]?.sheet ??
      (() => {
        throw new Error(code);
      })(),
  );
const checkoutId = async (pilot: string): Promise<string> =>
  (
    await row<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = :p AND status = 'open'", {
      p: `pilot-${pilot}`,
    })
  )?.id ?? '';
const briefOf = async (pilot: string): Promise<string> =>
  (
    await row<{ id: string }>(
      'SELECT b.id FROM briefs b JOIN checkouts c ON c.id = b.checkout_id WHERE c.pilot_id = :p ORDER BY b.created_at DESC',
      { p: `pilot-${pilot}` },
    )
  )?.id ?? '';

beforeAll(async () => {
  ({ close } = await demoFolder());
  [chief, helena, duarte] = await Promise.all([user('bento'), user('helena'), user('duarte')]);
}, 90_000);
afterAll(() => close());

describe('a type sheet', () => {
  it('holds the whole fleet', async () => {
    const all = await hangar();
    expect(all).toHaveLength(11);
    expect(all.flatMap((t) => t.airframes)).toHaveLength(15);
  });
  it('is edited by the chief only, with a reason, as a new version', async () => {
    const edited = await sheet('serrana-urze');
    edited.speeds.vno.value = 92;
    expect(
      await saveTypeSheet(helena, { code: 'serrana-urze', baseVersion: 1, reason: 'new placard', sheet: edited }),
    ).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining('chief') }] });
    expect(
      await saveTypeSheet(chief, { code: 'serrana-urze', baseVersion: 1, reason: 'x', sheet: edited }),
    ).toMatchObject({ ok: false, problems: [{ path: 'reason' }] });
    expect(
      await saveTypeSheet(chief, { code: 'serrana-urze', baseVersion: 1, reason: 'new placard', sheet: edited }),
    ).toEqual({ ok: true, version: 2, unchanged: false });
    const [now, before] = await typeVersions('serrana-urze');
    expect(sheetDifferences(before?.sheet, now?.sheet, 'mph').map((d) => d.label)).toEqual(['speeds, Vno']);
    expect(now).toMatchObject({ version: 2, author: chief.name, reason: 'new placard' });
  });
  it('refuses an edit from an older version, and saves nothing twice', async () => {
    const stale = await sheet('serrana-urze');
    stale.speeds.vno.value = 90;
    expect(
      await saveTypeSheet(chief, { code: 'serrana-urze', baseVersion: 1, reason: 'from an old tab', sheet: stale }),
    ).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining('Version 2 was saved meanwhile') }] });
    expect(
      await saveTypeSheet(chief, {
        code: 'serrana-urze',
        baseVersion: 2,
        reason: 'nothing changed',
        sheet: await sheet('serrana-urze'),
      }),
    ).toEqual({ ok: true, version: 2, unchanged: true });
  });
  it('names the field that does not fit', async () => {
    const broken = {
      ...(await sheet('serrana-urze')),
      summary: '',
      stalls: [{ flapDeg: 0, speed: { value: null, source: 'handbook', ref: '' } }],
    };
    const saved = await saveTypeSheet(chief, {
      code: 'serrana-urze',
      baseVersion: 2,
      reason: 'broken on purpose',
      sheet: broken,
    });
    expect(saved.ok ? [] : saved.problems.map((p) => p.path)).toEqual([
      'sheet.summary',
      'sheet.stalls.0.speed.value',
      'sheet.stalls.0.speed.ref',
    ]);
  });
  it('comes back from JSON exactly', async () => {
    const out = JSON.stringify(await sheet('orla-mare'));
    expect(
      await saveTypeSheet(chief, {
        code: 'orla-mare',
        baseVersion: 1,
        reason: 'imported again',
        sheet: JSON.parse(out),
      }),
    ).toEqual({ ok: true, version: 1, unchanged: true });
    const copy = { ...(JSON.parse(out) as TypeSheet), code: 'orla-mare-2', name: 'Orla Mar\u00e9 2' };
    expect(
      await saveTypeSheet(chief, {
        code: 'orla-mare-2',
        baseVersion: 0,
        reason: 'a new type from a file',
        sheet: copy,
      }),
    ).toMatchObject({ ok: true, version: 1 });
    expect(JSON.stringify(await sheet('orla-mare-2'))).toBe(JSON.stringify(copy));
  });
  it('versions never change', async () => {
    expect((await shell("UPDATE type_versions SET author = 'x'")).error).toContain('a version never changes');
    expect((await shell('DELETE FROM airframe_versions')).error).toContain('a version is never removed');
  });
});

describe('a checkout', () => {
  it('keeps its versions until it is moved on purpose', async () => {
    const id = await checkoutId('duarte');
    const before = await checkoutHead(id);
    expect(before?.sheet.speeds.vno.value).toBe(95);
    const frame = (await airframeVersions('ZP-URZ'))[0]?.airframe;
    expect(
      await saveAirframe(chief, {
        registration: 'ZP-URZ',
        baseVersion: 1,
        reason: 'weighed again',
        airframe: { ...frame, emptyKg: { value: 360, source: 'measured', ref: 'weighing report, November 2026' } },
      }),
    ).toMatchObject({ ok: true, version: 2 });
    expect((await checkoutHead(id))?.sheet.masses.emptyKg.value).toBe(356);
    const newer = before && (await newerVersions(before));
    expect([newer?.type?.version, newer?.airframe?.version]).toEqual([2, 2]);
    const move = { checkoutId: id, typeVersion: 2, airframeVersion: 2, reason: 'placard and weighing' };
    expect(await moveCheckout(duarte, move)).toMatchObject({ ok: false });
    expect(await moveCheckout(helena, { ...move, typeVersion: 3 })).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('newer version than the one shown') }],
    });
    expect(await moveCheckout(helena, { ...move, reason: '' })).toMatchObject({
      ok: false,
      problems: [{ path: 'reason' }],
    });
    expect(await moveCheckout(helena, move)).toEqual({ ok: true });
    const after = await checkoutHead(id);
    expect([after?.sheet.speeds.vno.value, after?.sheet.masses.emptyKg.value]).toEqual([92, 360]);
    expect((await shell('SELECT type_from, type_to, reason FROM checkout_moves')).rows).toEqual([
      { type_from: 1, type_to: 2, reason: 'placard and weighing' },
    ]);
  });
  it('prints a card from the sheet its brief was computed from', async () => {
    const found = await briefCard(helena, await briefOf('duarte'));
    expect(found?.card.revision).toContain('type sheet version 1');
    expect(found?.card.gates.map((g) => g.speed)).toEqual(
      found?.snapshot.gates.map((g) => `${g.target ?? 0}\u00a0mph`),
    );
    expect(await briefCard(duarte, await briefOf('ines'))).toBeNull();
    expect(await briefCard(helena, 'none')).toBeNull();
  });
  it('the PDF has the same words, in two A5 pages, and no glyph is missing', async () => {
    const found = await briefCard(helena, await briefOf('duarte'));
    if (!found) throw new Error('no brief');
    const { card } = found;
    const pages = await pagesOf(await cardPdf(card, found.savedAt));
    expect(pages).toHaveLength(2);
    expect(await outlines(await cardPdf(card, found.savedAt))).toBeGreaterThan(60);
    const flat = (s: string) => s.replaceAll('\u00a0', ' ').replace(/\s+/g, ' ');
    for (const text of [
      card.title,
      card.line,
      ...card.warnings,
      ...card.gates.flatMap((g) => [g.name, g.speed, g.height, g.altimeter]),
      ...card.front.flatMap((s) => [s.title, ...s.lines]),
    ])
      expect(pages[0]).toContain(flat(text));
    for (const text of card.back.flatMap((s) => [s.title, ...s.lines])) expect(pages[1]).toContain(flat(text));
    const font = fontkit.create(
      readFileSync('node_modules/@fontsource/b612/files/b612-latin-400-normal.woff2'),
    ) as unknown as { hasGlyphForCodePoint: (c: number) => boolean };
    const missing = [...new Set(JSON.stringify(card))].filter(
      (c) => c >= ' ' && !font.hasGlyphForCodePoint(c.codePointAt(0) ?? 0),
    );
    expect(missing).toEqual([]);
  });
  it('starts from the order the house has set for its goal', async () => {
    const layout = {
      order: ['fuel', 'path'],
      hidden: ['airspace'],
      own: [{ id: 'own-1', title: 'Gliders', text: 'West until noon.' }],
    };
    const form = { checkoutId: await checkoutId('ines'), layout };
    expect(await saveBriefTemplate(helena, form)).toMatchObject({ ok: false });
    expect(await saveBriefTemplate(chief, form)).toEqual({ ok: true });
    expect(await saveBriefTemplate(chief, { ...form, layout: { ...layout, hidden: [] } })).toEqual({ ok: true });
    expect(await briefTemplate('tailwheel')).toEqual({ ...layout, hidden: [] });
    expect(await briefTemplate('complex')).toEqual({ order: [], hidden: [], own: [] });
  });
});
