import { existsSync, readdirSync, rmSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seeded } from '@demo/random';
import { csvOf, flyCircuits, planFor, sense, sensorsOf } from '@/core/recorder';
import { unpackSeries } from '@/core/trace';
import { pedraAlva } from '@demo/aerodrome';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { joinRecordings } from '@/server/traces/commands/join';
import { acceptMeasures, addTrace, releaseExceedance, zoneOffsetMin } from '@/server/traces/commands/traces';
import { inData } from '@/server/floor/data-folder';
import { row, rows } from '../../scripts/lib/raw';
import { checkoutRecord } from '@/server/checkout/queries/record';
import { checkoutHead } from '@/server/checkout/queries/head';
import { groundings } from '@/server/hangar/queries/groundings';
import { flightsToRecord, limitsPassed, traceById, traceList } from '@/server/traces/queries/traces';
import { seriesBytes } from '@/server/traces/again';
import { rebuildLandings } from '@/server/fly/commands/capture';
import { demoFolder, shell, user } from './folder';

let close: () => Promise<void>;
let helena: CurrentUser;
let bento: CurrentUser;
const panel = async (who: CurrentUser) => {
  const t = (await traceList(who)).find((x) => x.name.startsWith('ZP-URV'));
  const view = t && (await traceById(who, t.id));
  if (!view) throw new Error('no demo recording');
  return view;
};
const inesRecord = async () => {
  const t = await panel(helena);
  const head = await checkoutHead(t.checkoutId);
  if (!head) throw new Error('no checkout');
  return checkoutRecord(head);
};

beforeAll(async () => {
  ({ close } = await demoFolder());
  helena = await user('helena');
  bento = await user('bento');
}, 90_000);
afterAll(() => close());

describe('a recording kept', () => {
  it('the demo\u2019s recordings hold what was tapped, landing for landing', async () => {
    const view = await panel(helena);
    const joined = await view.join();
    expect(joined.landings.filter((l) => l.landing).length).toBe(10);
    expect(joined.landings.every((l) => l.found && l.landing)).toBe(true);
    expect(joined.landings.map((l) => l.landing?.number)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 10]);
    expect(joined.items.filter((i) => i.tapped).map((i) => i.found.kind)).toEqual(['steep-turn', 'steep-turn']);
    expect(view.analysis.exceedances.map((e) => e.channel)).toEqual(['vne']);
  });
  it('is not there for a pilot who did not fly it, and is for the one who did', async () => {
    const { id } = await panel(helena);
    expect(await traceById(await user('duarte'), id)).toBeNull();
    expect(await traceById(helena, 'none')).toBeNull();
    expect((await traceList(await user('duarte'))).every((t) => t.pilotName.startsWith('Duarte'))).toBe(true);
    expect((await traceList(await user('duarte'))).length).toBeGreaterThan(0);
    expect(await flightsToRecord(await user('duarte'))).toEqual([]);
  });
  it('the same file twice, packed or not, is one trace; a file that cannot be read leaves nothing', async () => {
    const flight = (await flightsToRecord(helena)).find((f) => f.pilotName.startsWith('Clara'));
    const head = await checkoutHead(
      (await row<{ checkout_id: string }>('SELECT checkout_id FROM sorties WHERE id = :id', { id: flight?.id ?? '' }))
        ?.checkout_id ?? '',
    );
    if (!flight || !head) throw new Error('no flight');
    const choices = {
      runwayEnd: '22',
      windFromDeg: 250,
      windKt: 6,
      side: 'left' as const,
      arrivals: ['touch-and-go' as const],
      airwork: [],
      errors: [],
      rateHz: 5,
      sensors: 'panel' as const,
    };
    const made = planFor(head.sheet, 'ZP-URZ', pedraAlva, choices, seeded(2));
    if (!made) throw new Error('no plan');
    const text = csvOf(
      sense(flyCircuits(made.plan), made.plan.runway, sensorsOf(choices), seeded(3)),
      Date.UTC(2026, 10, 18, 10),
    );
    const add = (bytes: Buffer, who = helena) =>
      addTrace(who, { sortieId: flight.id, name: 'a.csv', bytes, mapping: null });
    const [first, second] = await Promise.all([add(Buffer.from(text)), add(gzipSync(text))]);
    expect(first.ok && second.ok && first.id === second.id).toBe(true);
    expect(await add(Buffer.from(text))).toMatchObject({ ok: true, known: true });
    const before = readdirSync(inData('traces')).length;
    const count = await rows('SELECT id FROM traces');
    expect(await add(Buffer.from('no table at all'))).toMatchObject({ ok: false, problems: [{ path: 'file' }] });
    expect(await add(gzipSync(text).subarray(0, 200))).toMatchObject({
      ok: false,
      problems: [{ path: 'file', message: expect.stringContaining('cannot be unpacked') as string }],
    });
    const odd = await add(Buffer.from('zaehler,breite,laenge\n1,39.3,-7.4\n2,39.31,-7.41'));
    expect(odd.ok).toBe(false);
    expect(await add(Buffer.from(text), await user('duarte'))).toMatchObject({
      ok: false,
      problems: [{ path: 'sortieId' }],
    });
    expect(readdirSync(inData('traces')).length).toBe(before);
    expect((await rows('SELECT id FROM traces')).length).toBe(count.length);
    if (first.ok) {
      const view = await traceById(helena, first.id);
      if (!view) throw new Error('gone');
      const drawn = await seriesBytes(view);
      // The drawing is only kept work: it is made again from the file.
      rmSync(inData('traces', `${first.id}.series`));
      const again = await seriesBytes(view);
      expect(Buffer.from(again ?? []).equals(Buffer.from(drawn ?? []))).toBe(true);
      expect(existsSync(inData('traces', `${first.id}.series`))).toBe(true);
      expect(unpackSeries(new Uint8Array(again ?? []).buffer).tS.length).toBe(view.analysis.source.rows);
    }
  });
  it('nothing of it can be changed past the application', async () => {
    for (const table of ['traces', 'exceedances']) {
      expect((await shell(`UPDATE ${table} SET id = 'x'`)).error).toContain('never changed');
      expect((await shell(`DELETE FROM ${table}`)).error).toContain('never removed');
    }
  });
  it('the field\u2019s zone counts with its summer', () => {
    expect(zoneOffsetMin('Europe/Lisbon', '2026-07-01T12:00:00Z')).toBe(60);
    expect(zoneOffsetMin('Europe/Lisbon', '2026-12-01T12:00:00Z')).toBe(0);
    expect(zoneOffsetMin('Asia/Kolkata', '2026-12-01T12:00:00Z')).toBe(330);
  });
});

describe('measures taken over', () => {
  it('count as measured, one by one, beat the eye, survive a rebuild, and can be taken back', async () => {
    const view = await panel(helena);
    const joined = await view.join();
    const pair = joined.landings.find((l) => l.measures.some((m) => m.id === 'lateral'));
    if (!pair?.landing) throw new Error('no measured landing');
    const was = (await inesRecord()).landings.find((l) => l.id === pair.landing?.id);
    const take = (measures: string[]) =>
      acceptMeasures(helena, {
        traceId: view.id,
        landings: [{ landingId: pair.landing?.id, foundIndex: pair.foundIndex, measures }],
        items: [],
      });
    expect(await take(['lateral', 'firmness'])).toEqual({ ok: true, accepted: 2 });
    const now = async () => (await inesRecord()).landings.find((l) => l.id === pair.landing?.id);
    const judged = await now();
    expect(judged?.judged.criteria.find((c) => c.id === 'lateral')).toMatchObject({ form: 'measured' });
    expect(judged?.judged.criteria.find((c) => c.id === 'crab')?.form).not.toBe('measured');
    expect(judged?.captured).toEqual(was?.captured);
    await rebuildLandings();
    expect((await now())?.measured).toEqual(judged?.measured);
    expect(await take([])).toEqual({ ok: true, accepted: 0 });
    expect((await now())?.measured).toBeNull();
    expect((await now())?.judged).toEqual(was?.judged);
  });
  it('airwork: the item carries the measured extremes and the verdict they give', async () => {
    const view = await panel(helena);
    const joined = await view.join();
    const [, second] = joined.items.filter((i) => i.tapped);
    if (!second?.tapped) throw new Error('no item');
    expect(
      await acceptMeasures(helena, {
        traceId: view.id,
        landings: [],
        items: [{ itemId: second.tapped.id, foundIndex: second.foundIndex }],
      }),
    ).toMatchObject({ ok: true });
    const item = (await inesRecord()).evidence.observations.find((o) => o.id === second.tapped?.id);
    expect(item?.data.verdict).toBe('outside');
    expect(item?.data.detail).toMatchObject({ form: 'numbers', kind: 'steep-turn', set: { bank: 45 } });
    expect((item?.data.detail as { seen: { height: number } }).seen.height).toBeLessThan(-100);
  });
  it('is refused to the pilot, for a pair that is none, and for what the file does not measure', async () => {
    const view = await panel(helena);
    const joined = await view.join();
    const [a, b] = joined.landings;
    const form = {
      traceId: view.id,
      landings: [{ landingId: a?.landing?.id, foundIndex: a?.foundIndex, measures: ['lateral'] }],
      items: [],
    };
    const pilot = (await rows<{ id: string }>("SELECT id FROM users WHERE pilot_id = 'pilot-ines'"))[0];
    if (pilot)
      expect(await acceptMeasures(await user(pilot.id.replace('user-', '')), form)).toMatchObject({ ok: false });
    expect(
      await acceptMeasures(helena, {
        ...form,
        landings: [{ landingId: a?.landing?.id, foundIndex: b?.foundIndex, measures: ['lateral'] }],
      }),
    ).toMatchObject({ ok: false, problems: [{ message: expect.stringContaining('reload') as string }] });
    expect(
      await acceptMeasures(helena, { ...form, landings: [{ ...form.landings[0], measures: ['colour'] }] }),
    ).toMatchObject({ ok: false });
  });
});

describe('limits passed', () => {
  it('flag the aeroplane until a chief who neither flew nor taught it says what was done', async () => {
    expect((await groundings({ openOnly: true })).map((g) => [g.registration, g.kind, g.why])).toEqual([
      ['ZP-URV', 'limit', 'Vne exceeded and not released'],
    ]);
    const [limit] = await limitsPassed(bento, 'open');
    // The dial of this aeroplane is in miles per hour.
    expect(limit).toMatchObject({ registration: 'ZP-URV', measured: { unit: 'mph', limit: 122 }, releases: true });
    expect(limit?.mustDo).toContain('Inspect');
    const form = {
      exceedanceId: limit?.id,
      done: 'Fabric, hinges and stops inspected, no damage; work order 118.',
      certifier: 'Telmo Vaz Outeiro',
      certificate: 'licence B1 0417',
    };
    expect(await releaseExceedance(helena, form)).toMatchObject({ ok: false });
    expect((await limitsPassed(helena, 'open'))[0]?.releases).toBe(false);
    expect(await releaseExceedance(bento, { ...form, done: 'ok' })).toMatchObject({
      ok: false,
      problems: [{ path: 'done' }],
    });
    for (const missing of ['certifier', 'certificate'])
      expect(await releaseExceedance(bento, { ...form, [missing]: ' ' })).toMatchObject({
        ok: false,
        problems: [{ path: missing }],
      });
    expect(await releaseExceedance(bento, form)).toEqual({ ok: true });
    expect(await groundings({ openOnly: true })).toEqual([]);
    expect((await limitsPassed(bento, { traceId: limit?.traceId ?? '' }))[0]?.released).toMatchObject({
      by: bento.name,
      done: form.done,
      certifier: form.certifier,
    });
    expect(await releaseExceedance(bento, form)).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('meanwhile') as string }],
    });
    expect((await shell("UPDATE exceedance_releases SET done = 'x'")).error).toContain('never changed');
  });

  it('two recordings of one flight are joined once, whoever of the two is chosen; limits are not entered again', async () => {
    const all = await traceList(helena);
    const tablet = all.find(
      (t) => t.name.startsWith('tablet') && all.some((o) => o.sortieId === t.sortieId && o.id !== t.id),
    );
    const beside = all.find((t) => t.sortieId === tablet?.sortieId && t.id !== tablet.id);
    if (!tablet || !beside) throw new Error('no flight with two recordings');
    const limits = (await rows('SELECT id FROM exceedances')).length;
    const pair = { traceId: tablet.id, otherId: beside.id };
    // Not theirs, not of one flight, and nothing at all: nothing is written.
    expect(await joinRecordings(await user('duarte'), pair)).toMatchObject({ ok: false });
    const elsewhere = all.find((t) => t.sortieId !== tablet.sortieId);
    expect(await joinRecordings(helena, { ...pair, otherId: elsewhere?.id })).toMatchObject({ ok: false });
    expect(await joinRecordings(helena, { ...pair, otherId: tablet.id })).toMatchObject({ ok: false });
    expect(await joinRecordings(helena, {})).toMatchObject({ ok: false });
    expect(await traceList(helena)).toHaveLength(all.length);

    const made = await joinRecordings(helena, pair);
    expect(made).toMatchObject({ ok: true, known: false });
    expect(await joinRecordings(helena, { traceId: beside.id, otherId: tablet.id })).toMatchObject({
      ok: true,
      known: true,
      id: made.ok ? made.id : '',
    });
    const view = made.ok ? await traceById(helena, made.id) : null;
    if (!view) throw new Error('not joined');
    const { joined } = view.analysis.source;
    // The panel's time is kept; the tablet's clock is 43 s ahead, as the demo flew it.
    expect(joined?.map((j) => j.name)).toEqual([beside.name, tablet.name]);
    const listed = (await traceList(helena)).map((t) => [t.id, t.joinedOf] as const);
    expect(listed.filter(([, of]) => of !== null)).toEqual([[view.id, [beside.name, tablet.name]]]);
    expect(Math.abs((joined?.[1]?.clockAheadS ?? 0) - 43)).toBeLessThan(1);
    expect(view.analysis.events.map((e) => e.kind)).toEqual(
      (await traceById(helena, beside.id))?.analysis.events.map((e) => e.kind),
    );
    // What either exceeded is seen with it and entered once.
    expect((await rows('SELECT id FROM exceedances')).length).toBe(limits);
    expect(view.limits.length).toBe((await limitsPassed(helena, { traceId: beside.id })).length);
    expect(await joinRecordings(helena, { traceId: view.id, otherId: tablet.id })).toMatchObject({ ok: false });
    // It is drawn from what was kept of it.
    rmSync(inData('traces', `${view.id}.series`));
    expect((await seriesBytes(view))?.length).toBeGreaterThan(1000);
  });
});
