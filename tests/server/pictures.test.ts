import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pagesOf } from './pdf';
import { viewOf } from '@/core/sightpicture';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { cardPdf } from '@/server/checkout/papers/card-pdf';
import { saveBrief } from '@/server/checkout/commands/checkout';
import { saveSight, saveTrialResult } from '@/server/hangar/commands/hangar';
import { saveEye, saveHours } from '@/server/people/commands/pilot';
import { row, rows } from '../../scripts/lib/raw';
import { briefCard } from '@/server/checkout/queries/card';
import { sortiesOf } from '@/server/checkout/queries/flights';
import { checkoutHead } from '@/server/checkout/queries/head';
import { typeVersions } from '@/server/hangar/queries/hangar';
import { type LabSubject, labFacts } from '@/server/lab/queries/lab';
import { sortiePack } from '@/server/fly/queries/pack';
import { ladderPlan } from '@/server/schedule/queries/ladder-plan';
import { differencesOf, eyeHeightOf, hoursOf } from '@/server/people/queries/pilot';
import { demoFolder, shell, user } from './folder';

let close: () => Promise<void>;
let chief: CurrentUser;
let helena: CurrentUser;
let duarte: CurrentUser;
let vasco: CurrentUser;
const NOW = '2026-11-24T14:30:00.000Z';
const headOf = async (pilot: string) => {
  const found = await row<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = :p AND status = 'open'", {
    p: `pilot-${pilot}`,
  });
  const head = found && (await checkoutHead(found.id));
  if (!head) throw new Error(pilot);
  return head;
};

beforeAll(async () => {
  ({ close } = await demoFolder());
  [chief, helena, duarte, vasco] = await Promise.all([user('bento'), user('helena'), user('duarte'), user('vasco')]);
}, 90_000);
afterAll(() => close());

describe('hours by type', () => {
  const form = (hours: number, more: object = {}) => ({
    pilotId: 'pilot-gaspar',
    rows: [{ typeCode: 'alvor-c1', hours, lastFlown: '2026-11-10', ...more }],
  });
  it('are entered by staff, never by a pilot and never for oneself', async () => {
    expect(await saveHours(duarte, { pilotId: 'pilot-duarte', rows: [] })).toMatchObject({ ok: false });
    expect(
      await saveHours(vasco, {
        pilotId: 'pilot-vasco',
        rows: [{ typeCode: 'bronze-b6', hours: 500, lastFlown: '2026-11-10' }],
      }),
    ).toMatchObject({ ok: false });
    expect(await saveHours(helena, form(300))).toEqual({ ok: true, added: 1 });
  });
  it('say beside the field what does not fit, and take nothing then', async () => {
    expect(await saveHours(helena, form(-3))).toMatchObject({
      ok: false,
      problems: [{ path: 'rows.0.hours', message: 'Hours cannot be negative.' }],
    });
    expect(await saveHours(helena, form(10, { lastFlown: '2027-01-01' }))).toMatchObject({
      ok: false,
      problems: [{ path: 'rows.0.lastFlown' }],
    });
    expect(await saveHours(helena, form(10, { typeCode: 'no-such' }))).toMatchObject({
      ok: false,
      problems: [{ path: 'rows.0.typeCode' }],
    });
    expect(
      await saveHours(helena, { pilotId: 'pilot-gaspar', rows: [...form(20).rows, ...form(30).rows] }),
    ).toMatchObject({ ok: false, problems: [{ path: 'rows.1.typeCode' }] });
    expect((await hoursOf('pilot-gaspar'))[0]).toMatchObject({ hours: 300, lastFlown: '2026-11-10' });
  });
  it('add nothing when nothing changed, and keep what was entered before', async () => {
    expect(await saveHours(helena, form(300))).toEqual({ ok: true, added: 0 });
    expect((await shell("SELECT hours FROM pilot_hours WHERE pilot_id = 'pilot-gaspar' ORDER BY seq")).rows).toEqual([
      { hours: 900 },
      { hours: 300 },
    ]);
    expect((await shell("UPDATE pilot_hours SET hours = 1 WHERE pilot_id = 'pilot-gaspar'")).error).toContain(
      'never changed',
    );
    expect((await shell('DELETE FROM pilot_hours')).error).toContain('never removed');
  });
  it('twenty at once are twenty entries, none lost', async () => {
    await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        saveHours(helena, {
          pilotId: 'pilot-marta',
          rows: [{ typeCode: 'serrana-urze', hours: 10 + i, lastFlown: '2026-11-10' }],
        }),
      ),
    );
    expect(
      (
        await shell(
          "SELECT COUNT(*) AS n, MAX(seq) AS s FROM pilot_hours WHERE pilot_id = 'pilot-marta' AND type_code = 'serrana-urze'",
        )
      ).rows,
    ).toEqual([{ n: 20, s: 20 }]);
  });
  it('take a later day from landings recorded here; 0 hours leaves the type out', async () => {
    const shown = async () => (await hoursOf('pilot-duarte')).map((h) => [h.typeCode, h.hours, h.here.landings]);
    const [alvor, urze] = await shown();
    expect([alvor?.[0], urze?.[0], urze?.[1]]).toEqual(['alvor-c1', 'serrana-urze', 0]);
    expect(urze?.[2]).toBeGreaterThan(20);
    await saveHours(helena, {
      pilotId: 'pilot-duarte',
      rows: [{ typeCode: 'serrana-urze', hours: 4, lastFlown: '2026-01-01' }],
    });
    expect((await hoursOf('pilot-duarte')).find((h) => h.typeCode === 'serrana-urze')?.lastFlown).toBe('2026-11-17');
    await saveHours(helena, {
      pilotId: 'pilot-duarte',
      rows: [{ typeCode: 'serrana-urze', hours: 0, lastFlown: '2026-11-17' }],
    });
    expect((await hoursOf('pilot-duarte')).map((h) => h.typeCode)).toEqual(['alvor-c1']);
    // Another school's type goes by its kind; one nobody knows is refused beside its field.
    const kind = { typeCode: 'kind:heavy-tailwheel', hours: 40, pic: 30, lastFlown: '2026-06-01' };
    expect(await saveHours(helena, { pilotId: 'pilot-duarte', rows: [kind] })).toEqual({ ok: true, added: 1 });
    expect((await hoursOf('pilot-duarte')).find((h) => h.typeCode === kind.typeCode)).toMatchObject({
      typeName: 'heavy tailwheel',
      hours: 40,
      office: { hours: 40, pic: 30, lastFlown: '2026-06-01' },
    });
    expect(
      await saveHours(helena, { pilotId: 'pilot-duarte', rows: [{ ...kind, typeCode: 'kind:zeppelin' }] }),
    ).toMatchObject({ ok: false, problems: [{ path: 'rows.0.typeCode' }] });
    const of = await differencesOf(await headOf('duarte'), NOW);
    expect(of.flown.map((f) => f.typeName)).toContain('heavy tailwheel');
    expect(of.rows.find((r) => r.key === 'tail-inertia')?.from).toBe('nosewheel');
  });
});

describe('habits of a checkout', () => {
  it('300 h on the trainer, heavy tailwheel: the first three to drop; brief, card and device carry them', async () => {
    const head = await headOf('gaspar');
    const { rows } = await differencesOf(head, NOW);
    expect(
      rows
        .filter((r) => r.action === 'drop')
        .slice(0, 3)
        .map((r) => r.key),
    ).toEqual(['ground-stability', 'tail-inertia', 'rudder-need']);
    const seed = (await sortiesOf((await headOf('duarte')).id))
      .map((s) => s.brief)
      .filter((b) => b !== null)
      .pop();
    if (!seed) throw new Error('no brief to start from');
    const saved = await saveBrief(chief, {
      requestId: randomUUID(),
      checkoutId: head.id,
      choices: { ...seed.choices, flownOn: '2026-11-24', fuelL: 100, pilotKg: 92, focus: 'Feet' },
      base: null,
    });
    if (!saved.ok) throw new Error(JSON.stringify(saved.problems));
    const card = (await briefCard(chief, saved.briefId))?.card;
    const drop = card?.front.find((s) => s.title === 'Drop the old habit');
    expect(drop?.lines.map((l) => l.split(':')[0])).toEqual(['swerve on the ground', 'tail', 'rudder with power']);
    expect(card?.pictures.map((p) => p.title)).toEqual(['Final', 'Last look', 'Threshold', 'Touchdown']);
    const pages = await pagesOf(
      await cardPdf(
        card ??
          (() => {
            throw new Error('no card');
          })(),
        NOW,
      ),
    );
    expect(pages).toHaveLength(2);
    expect(pages[0]).toContain('Drop the old habit');
    expect(pages[1]).toContain('What you will see');
    const pack = await sortiePack(chief, saved.sortieId);
    expect(pack?.cues?.filter((c) => c.opposite).map((c) => c.where)).toEqual(['ground', 'flight']);
  });
  it('are empty, and say so, for a pilot of whom nothing is known', async () => {
    await saveHours(chief, {
      pilotId: 'pilot-tome',
      rows: [{ typeCode: 'alvor-c1', hours: 0, lastFlown: '2026-11-10' }],
    });
    expect(await differencesOf(await headOf('tome'), NOW)).toMatchObject({ flown: [], rows: [] });
  });
});

describe('the eye in the seat', () => {
  it('is kept with how it was measured, by staff, and used by the brief', async () => {
    const form = {
      pilotId: 'pilot-gaspar',
      typeCode: 'serrana-carvalho',
      seat: 'pilot',
      eyeHeightM: 2.02,
      how: 'tape, two cushions',
    };
    expect(await saveEye(duarte, { ...form, pilotId: 'pilot-duarte' })).toMatchObject({ ok: false });
    expect(await saveEye(helena, { ...form, eyeHeightM: 20.2 })).toMatchObject({
      ok: false,
      problems: [{ path: 'eyeHeightM', message: 'At most 5 m.' }],
    });
    expect(await saveEye(helena, { ...form, how: '' })).toMatchObject({ ok: false, problems: [{ path: 'how' }] });
    expect(await saveEye(helena, form)).toEqual({ ok: true });
    expect(await eyeHeightOf('pilot-gaspar', 'serrana-carvalho')).toBe(2.02);
    expect((await shell('UPDATE pilot_eyes SET eye_height_m = 1')).error).toContain('never changed');
    const latest = (await sortiesOf((await headOf('duarte')).id)).pop()?.brief;
    expect(latest?.snapshot.eyeHeightM).toBe(1.79);
  });
});

describe('a view that was not measured', () => {
  const measured = (value: number) => ({ value, source: 'measured', ref: 'tape' });
  const form = (baseVersion: number) => ({
    code: 'planalto-p1r',
    baseVersion,
    reason: 'view measured',
    eyeHeightM: measured(1.5),
    noseToEyeM: measured(2.2),
    groundPitchDeg: measured(3),
    sight: {
      profile: [
        { azimuthDeg: 0, depressionDeg: 9 },
        { azimuthDeg: 30, depressionDeg: 14 },
      ],
      source: 'measured',
      ref: 'tape',
      eyeLateralM: measured(-0.3),
      attitudes: [],
      parts: [],
      references: [],
    },
    gatePitch: [
      { name: 'Final', pitchDeg: measured(-1) },
      { name: 'Threshold', pitchDeg: measured(1) },
    ],
  });
  it('is put on the sheet by the chief, as a new version, and then drawn', async () => {
    expect(await saveSight(helena, form(1))).toMatchObject({ ok: false });
    expect(await saveSight(chief, { ...form(1), sight: { ...form(1).sight, profile: [] } })).toMatchObject({
      ok: false,
      problems: [{ path: 'sight.profile' }],
    });
    expect(await saveSight(chief, form(1))).toMatchObject({ ok: true, version: 2 });
    expect(await saveSight(chief, form(1))).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('Version 2 was saved meanwhile') }],
    });
    const now = (await typeVersions('planalto-p1r'))[0]?.sheet;
    expect(now && viewOf(now, null)).not.toBeNull();
    expect(now?.approach.map((g) => g.pitchDeg?.value ?? null)).toEqual([null, null, -1, 1]);
  });
});

describe('the ladder over the booked lessons', () => {
  it('has each booking of the checkout in order, its wind across, and no more than the school allows', async () => {
    const head = await headOf('duarte');
    const lessons = await ladderPlan(helena, head, null);
    expect(lessons.length).toBeGreaterThan(0);
    const booked = await rows<{ id: string }>(
      `SELECT id FROM bookings WHERE checkout_id = :c AND state = 'booked' AND ends_at > :now ORDER BY starts_at`,
      { c: head.id, now: NOW },
    );
    expect(lessons.map((l) => l.bookingId)).toEqual(booked.map((b) => b.id));
    for (const l of lessons) {
      expect(l.mostKt).toBeLessThanOrEqual(12);
      expect(l.wind === null).toBe(l.state === 'not-known');
    }
    const strict = await ladderPlan(helena, head, 1);
    expect(strict.every((l) => l.mostKt === 1)).toBe(true);
    expect(strict.some((l) => l.state === 'above')).toBe(lessons.some((l) => (l.wind?.crosswindKt ?? 0) > 1));
  });
});

describe('trials of a slow approach', () => {
  it('go on the sheet as measured, by the chief, worked out again from the trials, and govern nothing', async () => {
    const before = (await typeVersions('serrana-esteva'))[0];
    const last = before?.sheet.approach.at(-1);
    if (!before || !last) throw new Error('no approach');
    // Arrested from 44 on with idle and with some power: forty trials in steps of one.
    const trials = [0, 20]
      .flatMap((power) => Array.from({ length: 20 }, (_, i) => `${36 + i}-${power}-${36 + i >= 44 ? 'f' : 'n'}`))
      .join('_');
    const form = {
      code: 'serrana-esteva',
      baseVersion: before.version,
      reason: 'Trials of November',
      trials,
      flapDeg: last.flapDeg,
      powerPercent: 20,
    };
    expect(await saveTrialResult(helena, form)).toMatchObject({ ok: false });
    expect(await saveTrialResult(chief, { ...form, trials: '46-0-f_44-0-n' })).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('do not support a speed yet') }],
    });
    expect(await saveTrialResult(chief, { ...form, reason: '' })).toMatchObject({ problems: [{ path: 'reason' }] });
    expect(await saveTrialResult(chief, form)).toMatchObject({ ok: true, version: before.version + 1 });
    const speed = (await typeVersions('serrana-esteva'))[0]?.sheet.approach.at(-1)?.speed;
    expect(speed).toMatchObject({ value: last.speed.value, source: last.speed.source });
    const measured = speed?.others?.filter((o) => o.ref.startsWith('Slow approach trials')) ?? [];
    expect(measured).toHaveLength(1);
    expect(measured[0]?.value).toBeGreaterThanOrEqual(44);
    expect(measured[0]?.ref).toContain('40, flap');
    // Again, from the newest: it takes the place of the one before.
    await saveTrialResult(chief, { ...form, baseVersion: before.version + 1, powerPercent: 0 });
    const again = (await typeVersions('serrana-esteva'))[0]?.sheet.approach.at(-1)?.speed.others ?? [];
    expect(again.filter((o) => o.ref.startsWith('Slow approach trials'))).toHaveLength(1);
  });
});

describe('the lab', () => {
  it('fills itself in from a checkout, for those who may see it', async () => {
    const head = await headOf('gaspar');
    const facts = await labFacts(helena, { checkout: head.id }, 'taxi');
    expect(facts).toMatchObject({
      type: { key: 'ZP-CAV' },
      old: { key: 'alvor-c1' },
      eyes: { now: [{ eyeHeightM: 2.02 }] },
    });
    expect(await labFacts(duarte, { checkout: head.id }, 'taxi')).toBeNull();
    expect(await labFacts(duarte, { checkout: 'none' }, 'taxi')).toBeNull();
  });
  it('in free play takes the types of the address, and none that is not there', async () => {
    expect(await labFacts(duarte, { type: 'lume-faisca', old: 'serrana-urze' }, 'taxi')).toMatchObject({
      head: null,
      type: { key: 'lume-faisca' },
      old: { key: 'serrana-urze' },
    });
    expect(await labFacts(duarte, { type: 'ZP-CGE' }, 'taxi')).toMatchObject({
      type: { key: 'ZP-CGE' },
    });
    expect(await labFacts(duarte, { type: '../x' }, 'taxi')).toBeNull();
  });
  it('opens with types of the school itself, whatever they are called', async () => {
    const open = async (subject: LabSubject) => {
      const facts = await labFacts(duarte, {}, subject);
      return facts && facts !== 'no-type' ? [facts.type.sheet.gear.layout, facts.type.key, facts.old.key] : facts;
    };
    const before = await open('taxi');
    expect(before?.[0]).toBe('tailwheel');
    expect(await shell("UPDATE types SET code = 'own-' || code")).toMatchObject({ error: null });
    expect(await open('taxi')).toEqual(['tailwheel', `own-${before?.[1] ?? ''}`, `own-${before?.[2] ?? ''}`]);
    for (const subject of ['picture', 'circuit'] as const) expect((await open(subject))?.[1]).toMatch(/^own-/);
  });
});
