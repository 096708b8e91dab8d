/**
 * Every programme walked once as the pilot of its goal, under each pack that offers it: two flights that meet it, the
 * signature or the recommendation, and the text that is signed.
 */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RulePack } from '@/domain/programme';
import { Airframe, TypeSheet } from '@/domain/sheet';
import { GOALS, type Goal, PACKS, type PackId, say } from '@/domain/words';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { enterResult } from '@/server/ledger/commands/entries';
import { saveHours } from '@/server/people/commands/pilot';
import { saveDate } from '@/server/people/commands/persons';
import { logFlight } from '@/server/people/commands/people';
import { askOverride, signCheckout, signingState } from '@/server/ledger/commands/sign';
import { newestContent } from '@/server/rules/content';
import { row, rows } from '../../scripts/lib/raw';
import { write } from '@/server/floor/write';
import { ledgerLines } from '@/server/ledger/queries/entries';
import { checkoutHead } from '@/server/checkout/queries/head';
import { teachState } from '@/server/people/queries/recency';
import { DEMO_PASSWORD } from '@demo/people';
import { made } from '@demo/fleet/made';
import { demoFolder, done } from './folder';
import { flownCheckout, formFor, recordOf, said, user } from './signed';
import { Types, TypeVersions, Airframes, AirframeVersions } from '@/server/hangar/tables';
import { Qualifications } from '@/server/people/tables';
import { Pilots, Users } from '@/server/account/tables';

let folder: { close: () => Promise<void> };
let bento: CurrentUser;
const DAYS = ['2026-11-20', '2026-11-22'] as const;

/** The aeroplane a goal is walked in. */
const IN: Record<Goal, string> = {
  tailwheel: 'ZP-URZ',
  complex: 'ZP-PUR',
  'high-performance': 'ZP-CAD',
  'multi-engine': 'ZP-PDO',
  sea: 'ZP-FLO',
  'multi-engine-sea': 'ZP-MAR',
  variant: 'ZP-CGA',
  pressurised: 'ZP-PRE',
  ski: 'ZP-SKI',
  'flight-review': 'ZP-ALV',
  'new-type': 'ZP-PUR',
  'interval-check': 'ZP-PUR',
  'aerobatic-landing': 'ZP-FAI',
  'powerful-type': 'ZP-BQZ',
  'short-field': 'ZP-EST',
};
/** What a pilot brings so that only the goal is open. */
const ALL_HELD: Record<PackId, string[]> = {
  us: ['tailwheel', 'complex', 'high-performance', 'pressurised'],
  eu: ['TW', 'RU', 'VP', 'T', 'P', 'EFIS', 'SLPC'],
  au: ['AU-tailwheel', 'AU-retractable', 'AU-propeller', 'AU-hull', 'AU-floatplane', 'AU-pressurisation', 'AU-ski'],
};

async function hangarOf(sheet: TypeSheet, registration: string): Promise<void> {
  const at = '2026-01-01T08:00:00.000Z';
  await write(async (t) => {
    await Types.insert({ id: `type-${sheet.code}`, code: sheet.code, name: sheet.name }, t);
    await TypeVersions.insert(
      {
        id: `type-${sheet.code}:1`,
        typeId: `type-${sheet.code}`,
        version: 1,
        tailwheel: sheet.gear.layout === 'tailwheel',
        powerHp: sheet.engine.powerHp.value,
        engines: sheet.engine.count,
        surface: sheet.surface,
        sheet: JSON.stringify(TypeSheet.parse(sheet)),
        author: 'test',
        reason: 'test',
        createdAt: at,
      },
      t,
    );
    const frame = (await row<{ sheet: string }>(
      "SELECT sheet FROM airframe_versions WHERE airframe_id = 'air-ZP-ALV' ORDER BY version LIMIT 1",
      {},
      t,
    )) as { sheet: string };
    await Airframes.insert({ id: `air-${registration}`, registration, typeId: `type-${sheet.code}` }, t);
    await AirframeVersions.insert(
      {
        id: `air-${registration}:1`,
        airframeId: `air-${registration}`,
        version: 1,
        sheet: JSON.stringify(
          Airframe.parse({
            ...(JSON.parse(frame.sheet) as Airframe),
            registration,
            typeCode: sheet.code,
            deferredDefects: [],
          }),
        ),
        author: 'test',
        reason: 'test',
        createdAt: at,
      },
      t,
    );
  });
}
const hold = (pilotId: string, kinds: readonly string[]) =>
  write(async (t) => {
    for (const kind of kinds)
      if (
        !(await row('SELECT id FROM qualifications WHERE pilot_id = :pilotId AND kind = :kind', { pilotId, kind }, t))
      )
        await Qualifications.insert(
          {
            id: randomUUID(),
            pilotId: pilotId,
            kind,
            gainedOn: '2020-01-01',
            note: '',
            ledgerId: null,
            endedAt: null,
          },
          t,
        );
  });
/** A pilot with an account of their own, so many hours, and what is held. */
async function pilotWith(key: string, holds: readonly string[]): Promise<void> {
  const like = await Pilots.first({ where: { id: 'pilot-clara' } });
  const account = await Users.first({ where: { id: 'user-clara' } });
  if (!like || !account) throw new Error('Clara is not there');
  await write(async (t) => {
    await Pilots.insert({ ...like, id: `pilot-${key}`, name: `Pilot ${key}` }, t);
    await Users.insert(
      {
        ...account,
        id: `user-${key}`,
        email: `${key}@walk.example`,
        name: `Pilot ${key}`,
        pilotId: `pilot-${key}`,
      },
      t,
    );
  });
  await hold(`pilot-${key}`, holds);
  done(
    await saveHours(bento, {
      pilotId: `pilot-${key}`,
      rows: [{ typeCode: 'alvor-c1', hours: 240, pic: 150, lastFlown: '2026-08-01' }],
    }),
  );
}

beforeAll(async () => {
  folder = await demoFolder();
  bento = await user('bento');
  const helena = await user('helena');
  for (const [i, sheet] of made.entries()) await hangarOf(sheet, ['ZP-FLO', 'ZP-SKI', 'ZP-PRE'][i] ?? '');
  await hold('pilot-bento', [...ALL_HELD.us, ...ALL_HELD.eu, ...ALL_HELD.au]);
  done(
    await saveHours(helena, {
      pilotId: 'pilot-bento',
      rows: [{ typeCode: 'alvor-c1-floats', hours: 60, pic: 50, lastFlown: '2026-11-01' }],
    }),
  );
  for (const { type_code: typeCode, surface } of await rows<{ type_code: string; surface: string }>(
    'SELECT ty.code AS type_code, tv.surface FROM types ty JOIN type_versions tv ON tv.type_id = ty.id',
  ))
    for (const s of surface === 'land' ? ['land'] : surface === 'sea' ? ['water'] : ['land', 'water'])
      done(
        await logFlight(bento, {
          requestId: randomUUID(),
          pilotId: 'pilot-bento',
          flownOn: '2026-11-18',
          typeCode,
          takeoffs: 3,
          landings: 3,
          fullStops: 3,
          night: false,
          surface: s,
          hours: 0.8,
          remark: '',
        }),
      );
}, 120_000);
afterAll(() => folder.close());

/** What is missing in the aeroplane of a goal, and what the pilot of it brings. */
function brings(goal: Goal, pack: RulePack): string[] {
  const key = pack.key;
  const gives = Object.entries(pack.endorsementGoals)
    .filter(([, g]) => g === goal)
    .map(([kind]) => kind);
  const classes = ['single-engine-land', 'multi-engine-land', 'single-engine-sea', 'multi-engine-sea'];
  const open = key === 'au' && goal === 'multi-engine' ? [...gives, 'multi-engine-land', 'multi-engine-sea'] : gives;
  return [...classes, ...ALL_HELD[key], 'MEP-variant:planalto-p2', 'MEP-variant:orla-mare', 'MEP-variant'].filter(
    (k) => !open.includes(k),
  );
}

describe.each(PACKS)('under %s', (packId) => {
  it.each(GOALS)('%s, from the first item to the entry', async (goal) => {
    const pack = (await newestContent('pack', packId))?.body as RulePack;
    const entry = pack.goals.find((g) => g.goal === goal);
    if (!entry) throw new Error('every pack speaks of every goal');
    const key = `walk-${goal}-${packId}`;
    await pilotWith(key, brings(goal, pack));
    const id = await flownCheckout(bento, key, IN[goal], [goal], packId, DAYS);
    const record = await recordOf(id);
    const state = await signingState(bento, record);
    expect(state.problems).toEqual([]);
    // Met by what was flown and shown: nothing waived, nothing overridden.
    expect(record.items.filter((i) => i.state !== 'met' && i.state !== 'credited').map((i) => i.item.id)).toEqual([]);
    const form = await formFor(bento, id);
    expect(form.text).not.toMatch(/[{}]/);
    expect(form.text).toContain(`Pilot ${key}`);
    expect(form.text).not.toContain('waived');
    const signed = await signCheckout(bento, form);
    expect(said(signed)).toBe('done');
    const [line] = await ledgerLines(bento, { checkoutId: id });
    const examiner = entry.decides === 'examiner';
    expect(line?.kind).toBe(examiner ? 'recommendation' : 'sign-off');
    const missing = record.head.opening.missing;
    if (examiner) {
      for (const c of missing.filter((k) => record.head.opening.demands.classRatings?.includes(k)))
        expect(form.text).toContain(say(c));
      expect(form.text).toContain('22 Nov 2026');
      const result = await enterResult(bento, {
        requestId: randomUUID(),
        checkoutId: id,
        password: DEMO_PASSWORD,
        result: 'passed',
        testOn: '2026-11-24',
        examiner: 'Otelo Penha Mar',
        reference: '',
        text: '',
      });
      expect(said(result)).toBe('done');
    }
    expect((await checkoutHead(id))?.status).toBe('signed');
    // What the goal gives is held now, each twin variant for its type.
    const held = await rows<{ kind: string }>(
      'SELECT kind FROM qualifications WHERE pilot_id = :p AND ended_at IS NULL',
      { p: `pilot-${key}` },
    );
    for (const kind of missing.filter((k) => pack.endorsementGoals[k.split(':')[0] ?? ''] === goal))
      expect(held.map((h) => h.kind)).toContain(kind);
    const renewed = await rows<{ key: string; done_on: string }>(
      'SELECT key, done_on FROM person_dates WHERE pilot_id = :p AND ledger_id IS NOT NULL',
      { p: `pilot-${key}` },
    );
    expect(renewed.length > 0).toBe(entry.renews.length > 0);
    for (const r of renewed) expect(r.done_on).toBe('2026-11-24');
  });
});

describe('what cannot be signed past', () => {
  it('hours of the law that are short stop everybody', async () => {
    await pilotWith('short', ['single-engine-land', ...ALL_HELD.eu]);
    const id = await flownCheckout(bento, 'short', IN['multi-engine'], ['multi-engine'], 'eu', DAYS, ['MT', 'MA']);
    const state = await signingState(bento, await recordOf(id));
    expect(state.problems.map((p) => [p.code, p.itemId])).toEqual([
      ['legal', 'MT'],
      ['legal', 'MA'],
    ]);
    expect(
      said(await askOverride(bento, { checkoutId: id, itemId: 'MT', reason: 'The theory was done at another school' })),
    ).toContain('legal-not-overridden');
  });
  it('a course of more than six months takes no result, and a prerequisite that is not on record no signature', async () => {
    await pilotWith('slow', ['single-engine-land', ...ALL_HELD.eu]);
    done(
      await saveHours(bento, {
        pilotId: 'pilot-slow',
        rows: [{ typeCode: 'alvor-c1', hours: 240, pic: null, lastFlown: '2026-08-01' }],
      }),
    );
    const id = await flownCheckout(bento, 'slow', IN['multi-engine'], ['multi-engine'], 'eu', DAYS);
    expect((await signingState(bento, await recordOf(id))).problems).toMatchObject([
      {
        code: 'prerequisite',
        params: { text: '70 h as pilot in command of aeroplanes (FCL.720.A)', known: false },
      },
    ]);
    done(
      await saveHours(bento, {
        pilotId: 'pilot-slow',
        rows: [{ typeCode: 'alvor-c1', hours: 240, pic: 120, lastFlown: '2026-08-01' }],
      }),
    );
    done(await signCheckout(bento, await formFor(bento, id)));
    const noon = process.env.JEITO_NOW;
    process.env.JEITO_NOW = '2027-05-23T10:00:00.000Z';
    const result = (testOn: string) =>
      enterResult(bento, {
        requestId: randomUUID(),
        checkoutId: id,
        password: DEMO_PASSWORD,
        result: 'passed',
        testOn,
        examiner: 'Otelo Penha Mar',
        reference: '',
        text: '',
      });
    // Begun on 20 November: the last day is 20 May.
    expect(said(await result('2027-05-21'))).toContain('20 May 2027');
    expect(said(await result('2027-05-20'))).toBe('done');
    process.env.JEITO_NOW = noon;
  });
  it('an instructor without the rating the law asks briefs nothing and signs nothing', async () => {
    await pilotWith('unrated', ['single-engine-land', 'multi-engine-land', ...ALL_HELD.eu]);
    const fly = () => flownCheckout(bento, 'unrated', IN['multi-engine'], ['variant'], 'eu', DAYS);
    const id = await fly();
    expect((await signingState(bento, await recordOf(id))).problems).toEqual([]);
    await write((t) =>
      Qualifications.update({ endedAt: '2026-11-01T00:00:00.000Z' }, { pilotId: 'pilot-bento', kind: 'CRI-ME' }, t),
    );
    expect((await signingState(bento, await recordOf(id))).problems.map((p) => p.code)).toEqual(['rating']);
    await expect(fly()).rejects.toThrow(/class-rating instructor certificate, multi-engine.*FCL\.905\.CRI/);
  });
  it('in Europe fifteen hours in the class, or an assessment of competence', async () => {
    await pilotWith('assessed', ['single-engine-land', ...ALL_HELD.eu]);
    await hold('pilot-vasco', ['VP', 'EFIS']);
    const vasco = { ...(await user('vasco')), authorised: ['variant' as const] };
    const pack = (await newestContent('pack', 'eu'))?.body as RulePack;
    const house = (await newestContent('house', 'house'))?.body;
    const sheet = made.find((m) => m.code === 'alvor-c1-floats');
    if (!sheet || !house) throw new Error('no floats');
    const state = () => teachState(vasco, { sheet, pack, house, goals: ['sea'] }, '2026-11-24');
    expect((await state()).modelHours).toMatchObject({ needed: 15, have: 0, within: 'class' });
    await hold('pilot-vasco', ['EU-assessed']);
    expect((await state()).modelHours).toBeNull();
  });
  it('a date that an entry gave ends with the entry', async () => {
    await pilotWith('reviewed', ['single-engine-land']);
    done(
      await saveDate(bento, {
        pilotId: 'pilot-reviewed',
        key: 'flight-review',
        title: 'Flight review',
        doneOn: '2023-01-10',
        until: null,
        note: '',
      }),
    );
    const id = await flownCheckout(bento, 'reviewed', IN['flight-review'], ['flight-review'], 'us', DAYS);
    const entry = done(await signCheckout(bento, await formFor(bento, id)));
    const { datesOf } = await import('@/server/people/queries/held');
    const review = async () => (await datesOf('pilot-reviewed')).find((d) => d.key === 'flight-review')?.doneOn;
    expect(await review()).toBe('2026-11-24');
    const { voidEntry } = await import('@/server/ledger/commands/entries');
    done(
      await voidEntry(bento, {
        requestId: randomUUID(),
        entryId: entry.entryId,
        password: DEMO_PASSWORD,
        text: 'It was another pilot’s review',
      }),
    );
    expect(await review()).toBe('2023-01-10');
  });
});
