import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '@/core/recency';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { rolesStamp } from '@/domain/people';
import { UNSEEN } from '@/domain/unseen';
import { recordEvents } from '@/server/fly/commands/capture';
import { logFlight, strikeFlight } from '@/server/people/commands/people';
import {
  addHeld,
  addPerson,
  endHeld,
  erasePerson,
  importLogbook,
  lookAtLogbook,
  saveDate,
  saveRoles,
  takeBackImport,
  withdrawNote,
  writeNote,
} from '@/server/people/commands/persons';
import { spendLink } from '@/server/account/commands/links';
import { changePassword, checkSignIn, newFirstPassword } from '@/server/account/commands/session';
import { row, rows } from '../../scripts/lib/raw';
import { noticesOf } from '@/server/account/commands/notices';
import { boardData } from '@/server/board/queries/board';
import { differencesOf, hoursOf } from '@/server/people/queries/pilot';
import { everybodysStanding, readStandings } from '@/server/people/queries/standings';
import { houseRules } from '@/server/people/queries/house-rules';
import { personFacts } from '@/server/people/queries/person';
import { personPage } from '@/server/people/queries/page';
import { whatIfOf } from '@/server/people/queries/what-if';
import { flyingOf } from '@/server/people/queries/flying';
import { hoursInType } from '@/server/people/queries/recency';
import { lapsesOf } from '@/core/recency';
import { ledgerLines } from '@/server/ledger/queries/entries';
import { recordJson } from '@/server/ledger/papers/record';
import { DEMO_PASSWORD } from '@demo/people';
import { demoFolder, done, shell } from './folder';
import { recordOf, said, user } from './signed';

let close: () => Promise<void>;
let helena: CurrentUser;
let bento: CurrentUser;
const TODAY = '2026-11-24';
beforeAll(async () => {
  ({ close } = await demoFolder());
  helena = await user('helena');
  bento = await user('bento');
}, 120_000);
afterAll(() => close());

describe('recency of everybody', () => {
  it('is the same read together, a row a day, and one by one, landing by landing', async () => {
    const rules = await houseRules();
    for (const on of [TODAY, addDays(TODAY, 25), addDays(TODAY, -40)]) {
      for (const p of await readStandings(rules, on)) {
        const alone = await personFacts(p.pilotId, rules, on);
        const words = (l: { key: string; status: string; through: string | null; restore: string | null }) => [
          l.key,
          l.status,
          l.through,
          l.restore,
        ];
        expect(p.lapses.map(words), `${p.name} on ${on}`).toEqual(
          (alone ? lapsesOf(alone, rules.rulebook, on) : []).map(words),
        );
      }
    }
  });
  it('kept in memory it is the same, whatever was recorded, logged, struck, read in or taken back meanwhile', async () => {
    const rules = await houseRules();
    const same = async (what: string) => {
      const words = (all: Awaited<ReturnType<typeof readStandings>>) =>
        all.map((p) => [p.name, p.lastFlown, p.lapses.map((l) => [l.key, l.status, l.through])]);
      for (const on of [TODAY, addDays(TODAY, 12)])
        expect(words(await readStandings(rules, on, true)), what).toEqual(words(await readStandings(rules, on)));
    };
    await same('first');
    const logId = randomUUID();
    await logFlight(bento, {
      requestId: logId,
      pilotId: 'pilot-bento',
      flownOn: '2026-11-20',
      typeCode: 'bronze-b6',
      takeoffs: 1,
      landings: 1,
      fullStops: 1,
      night: true,
      surface: 'land',
      hours: 1,
      remark: '',
    });
    await same('logged');
    await strikeFlight(bento, { logId, reason: 'logged twice' });
    await same('struck');
    const id =
      (await row<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = 'pilot-duarte' AND status = 'open'"))?.id ??
      '';
    const sortieId = (await recordOf(id)).sorties.at(-1)?.id ?? '';
    const event = (seq: number, payload: object) => ({
      eventId: randomUUID(),
      deviceId: randomUUID(),
      deviceSeq: seq,
      sortieId,
      subjectId: randomUUID(),
      author: helena.id,
      type: 'landing-saved',
      v: 1,
      deviceTime: `2026-11-24T11:0${seq}:00.000Z`,
      payload: { ...UNSEEN, kind: 'full-stop', runwayEnd: '22', intervention: 0, ...payload },
    });
    expect((await recordEvents(helena, [event(1, {}), event(2, { demonstration: true })])).refused).toEqual([]);
    await same('recorded');
    const file = CSV.replace('Remarks', 'Notes');
    const read = await lookAtLogbook(bento, 'pilot-clara', file, null);
    if (!read.ok) throw new Error('csv');
    const requestId = randomUUID();
    await importLogbook(bento, 'pilot-clara', 'c.csv', file, read.look.mapping, requestId);
    await same('read in');
    await takeBackImport(bento, requestId);
    await same('taken back');
  });
  it('is kept until something it rests on moves', async () => {
    const rules = await houseRules();
    const first = await everybodysStanding(rules, TODAY);
    expect(await everybodysStanding(rules, TODAY)).toBe(first);
    expect(
      (
        await saveDate(helena, {
          pilotId: 'pilot-tome',
          key: 'medical',
          title: 'Medical',
          doneOn: null,
          until: '2026-11-25',
          note: '',
        })
      ).ok,
    ).toBe(true);
    const next = await everybodysStanding(rules, TODAY);
    expect(next).not.toBe(first);
    expect(next.find((p) => p.pilotId === 'pilot-tome')?.lapses.find((l) => l.key === 'medical')).toMatchObject({
      status: 'expiring',
      daysLeft: 1,
    });
  });
  it('night is the sun\u2019s at the instant of the landing, by the pack\u2019s own rule', async () => {
    const landing = await row<{ id: string; sortie_id: string; flown_on: string }>(
      "SELECT id, sortie_id, flown_on FROM landings WHERE pilot_id = 'pilot-rui' AND kind = 'full-stop' ORDER BY flown_on DESC LIMIT 1",
    );
    const set = (at: string) => shell(`UPDATE landings SET ended_at = '${at}' WHERE id = '${landing?.id ?? ''}'`);
    const night = async (rule: Parameters<typeof flyingOf>[2]) =>
      (await flyingOf('pilot-rui', undefined, rule)).find((e) => e.id === landing?.id)?.night;
    const bySun = { by: 'sun' as const, afterMin: 60, beforeMin: 60, citation: '' };
    const byTwilight = { by: 'twilight' as const, citation: '' };
    const was =
      (await row<{ at: string | null }>('SELECT ended_at AS at FROM landings WHERE id = :id', { id: landing?.id }))
        ?.at ?? '';
    // Sunset at the field on that day is about 17:09 UTC, civil dusk half an hour later.
    for (const [at, sun, dusk] of [
      ['16:50', false, false],
      ['17:45', false, true],
      ['18:20', true, true],
      ['12:00', false, false],
      ['06:00', true, true],
    ] as const) {
      await set(`${landing?.flown_on ?? ''}T${at}:00.000Z`);
      expect([await night(bySun), await night(byTwilight)], at).toEqual([sun, dusk]);
    }
    await set(was);
  });
});

describe('what if, and then it is flown', () => {
  it('agrees with the evaluation once the flights are really recorded', async () => {
    const plan = fc.array(
      fc.record({
        back: fc.integer({ min: 0, max: 25 }),
        typeCode: fc.constantFrom('planalto-p2', 'alvor-c1', 'serrana-urze', 'orla-mare'),
        landings: fc.integer({ min: 1, max: 4 }),
        stops: fc.integer({ min: 0, max: 4 }),
        night: fc.boolean(),
        water: fc.boolean(),
      }),
      { minLength: 1, maxLength: 3 },
    );
    await fc.assert(
      fc.asyncProperty(
        plan,
        fc.constantFrom('bento', 'lidia', 'elias', 'vasco'),
        fc.integer({ min: 0, max: 60 }),
        async (flights, key, ahead) => {
          const pilotId = `pilot-${key}`;
          const onDate = addDays(TODAY, ahead);
          const planned = flights.map((f) => ({
            flownOn: addDays(TODAY, -f.back),
            typeCode: f.typeCode,
            landings: f.landings,
            fullStops: Math.min(f.stops, f.landings),
            night: f.night,
            surface: f.water && f.typeCode === 'orla-mare' ? ('water' as const) : ('land' as const),
          }));
          const foretold = await whatIfOf(pilotId, planned, onDate);
          const who = await user(key);
          for (const p of planned)
            expect(
              said(
                await logFlight(who, {
                  requestId: randomUUID(),
                  pilotId,
                  takeoffs: p.landings,
                  hours: 0.5,
                  remark: '',
                  ...p,
                }),
              ),
            ).toBe('done');
          const rules = await houseRules();
          const person = await personFacts(pilotId, rules, onDate);
          const words = (l: { key: string; status: string; through: string | null; restore: string | null }) => [
            l.key,
            l.status,
            l.through,
            l.restore,
          ];
          expect(foretold?.after.map(words)).toEqual(
            (person ? lapsesOf(person, rules.rulebook, onDate) : []).map(words),
          );
        },
      ),
      { numRuns: 25 },
    );
  });
});

const CSV = `Date,Aircraft Type,Registration,Total time,PIC,Landings day,Landings night,Remarks
2026-11-10,Alvor C1,ZP-ALV,1:12,1:12,3,0,circuits
2026-11-12,Alvor C1,ZP-ALV,0:48,0:48,2,1,dusk
2026-11-17,Serrana Urze,ZP-URZ,0:55,0,7,0,lesson here
2026-09-20,Tern 2,ZP-TRN,1:20,1:20,2,0,away
`;
describe('what restores recency, in words', () => {
  const COUNT: Readonly<Record<string, number>> = { one: 1, two: 2, three: 3, four: 4, five: 5, six: 6 };
  it('is what What if computes: flown as the words say it holds, with one landing fewer it does not', async () => {
    const rules = await houseRules();
    const day = '2027-01-20';
    const lapsed = ['expired', 'never'];
    let [tried, kept] = [0, 0];
    for (const p of (await everybodysStanding(rules, day)).slice(0, 12))
      for (const l of p.lapses) {
        // What holds by flying: the words that keep it give it its whole time.
        if (l.keep && l.typeCode && l.through && !l.keep.includes('water')) {
          const landings = Math.max(
            ...[...l.keep.matchAll(/\b(one|two|three|four|five|six)\b/g)].map((m) => COUNT[m[1] ?? ''] ?? 0),
          );
          const flight = {
            flownOn: day,
            typeCode: l.typeCode,
            landings,
            fullStops: landings,
            night: false,
            surface: 'land' as const,
          };
          const after = (await whatIfOf(p.pilotId, [flight], day))?.after.find((x) => x.key === l.key);
          expect(after?.daysLeft, `${p.name} ${l.key}: ${l.keep}`).toBe(90);
          kept++;
        }
        if (!l.restore || !lapsed.includes(l.status) || ['dated', 'certificate'].includes(l.kind)) continue;
        const [when = '', cls = ''] = l.key.split(':');
        const suits = [...rules.types].filter(([code, t]) =>
          l.typeCode
            ? code === l.typeCode
            : (cls.startsWith('multi') ? t.sheet.engine.count > 1 : t.sheet.engine.count === 1) &&
              (when !== 'tailwheel' || t.sheet.gear.layout === 'tailwheel') &&
              t.sheet.surface !== (cls.endsWith('sea') ? 'land' : 'sea'),
        );
        const typeCode = suits[0]?.[0];
        if (typeCode === undefined) continue;
        const counts = [...l.restore.matchAll(/\b(one|two|three|four|five|six)\b/g)].map((m) => COUNT[m[1] ?? ''] ?? 0);
        const fly = async (landings: number, code = typeCode) =>
          (
            await whatIfOf(
              p.pilotId,
              [
                {
                  flownOn: day,
                  typeCode: code,
                  landings,
                  fullStops: l.restore?.includes('full-stop') ? landings : 0,
                  night: l.restore?.includes('night') ?? false,
                  surface: l.restore?.includes('on water') || cls.endsWith('sea') ? 'water' : 'land',
                },
              ],
              day,
            )
          )?.after.find((x) => x.key === l.key)?.status;
        const most = Math.max(...counts);
        const said = `${p.name} ${l.key}: ${l.restore}`;
        expect(lapsed, said).not.toContain(await fly(most));
        if (most > 1) expect(lapsed, `${said}, one fewer`).toContain(await fly(most - 1));
        const elsewhere = [...rules.types.keys()].find((c) => c !== l.typeCode) ?? '';
        if (l.restore.includes('in the type'))
          expect(lapsed, `${said}, elsewhere`).toContain(await fly(most, elsewhere));
        tried++;
      }
    expect(tried).toBeGreaterThan(20);
    expect(kept).toBeGreaterThan(2);
  });
});

describe('a logbook read in', () => {
  it('feeds hours, recency and habits once; the same file again adds nothing; the mapping is remembered; taken back it counts no more', async () => {
    const duarte = await user('duarte');
    const before = {
      hours: await hoursInType('pilot-duarte', 'alvor-c1'),
      flown: (await flyingOf('pilot-duarte')).length,
      types: (await hoursOf('pilot-duarte')).find((h) => h.typeCode === 'alvor-c1'),
    };
    const look = done(await lookAtLogbook(duarte, 'pilot-duarte', CSV, null));
    expect(look).toMatchObject({
      ok: true,
      look: {
        fresh: 2,
        remembered: false,
        doubled: [{ line: 4, what: 'recorded or logged here on that day, in that type' }],
      },
    });
    expect(look.look.refused.map((r) => r.line)).toEqual([5]);
    const mapping = {
      ...look.look.mapping,
      // The flight away ended in full stops: said of its own line.
      stopLines: [5],
      types: {
        ...look.look.mapping.types,
        'Tern 2': { typeCode: null, engines: 1, tailwheel: true, surface: 'land' as const },
      },
    };
    const requestId = randomUUID();
    expect(await importLogbook(duarte, 'pilot-duarte', 'log.csv', CSV, mapping, requestId)).toEqual({
      ok: true,
      added: 3,
      doubled: 1,
      refused: 0,
    });
    expect(await importLogbook(duarte, 'pilot-duarte', 'log.csv', CSV, mapping, requestId)).toMatchObject({
      ok: false,
    });
    expect(said(await importLogbook(duarte, 'pilot-duarte', 'log.csv', CSV, mapping, randomUUID()))).toContain(
      'all-there',
    );
    expect(await hoursInType('pilot-duarte', 'alvor-c1')).toBeCloseTo(before.hours + 2, 3);
    const events = await flyingOf('pilot-duarte');
    expect(
      events.filter((e) => e.typeCode === 'alvor-c1' && e.kind === 'landing').reduce((a, e) => a + (e.times ?? 1), 0),
    ).toBe(6);
    expect(events.some((e) => e.night && e.typeCode === 'alvor-c1')).toBe(true);
    expect(events.some((e) => e.typeCode === '' && e.tailwheel && e.fullStop)).toBe(true);
    const alvor = (await hoursOf('pilot-duarte')).find((h) => h.typeCode === 'alvor-c1');
    expect(alvor?.lastFlown).toBe('2026-11-12');
    const head = (
      await recordOf(
        (await row<{ id: string }>("SELECT id FROM checkouts WHERE pilot_id = 'pilot-duarte' AND status = 'open'"))
          ?.id ?? '',
      )
    ).head;
    expect((await differencesOf(head, TODAY)).flown.find((f) => f.typeCode === 'alvor-c1')?.hours).toBeCloseTo(
      (before.types?.hours ?? 0) + 2,
      3,
    );
    const again = await lookAtLogbook(
      duarte,
      'pilot-duarte',
      `${CSV}2026-11-20,Tern 2,ZP-TRN,0:30,0:30,1,0,new\n`,
      null,
    );
    expect(again).toMatchObject({ ok: true, look: { remembered: true, fresh: 1 } });
    const id =
      (await row<{ id: string }>('SELECT id FROM logbook_imports WHERE id = :requestId', { requestId }))?.id ?? '';
    expect((await takeBackImport(helena, id)).ok).toBe(false);
    expect((await takeBackImport(duarte, id)).ok).toBe(true);
    expect(await hoursInType('pilot-duarte', 'alvor-c1')).toBeCloseTo(before.hours, 3);
    expect((await flyingOf('pilot-duarte')).length).toBe(before.flown);
    expect((await shell("DELETE FROM logbook_flights WHERE pilot_id = 'pilot-duarte'")).error).toContain(
      'take the import back',
    );
  });
  it('is for its pilot and the chief alone; odd files are refused with what to do', async () => {
    expect((await lookAtLogbook(helena, 'pilot-duarte', CSV, null)).ok).toBe(false);
    expect((await lookAtLogbook(await user('ines'), 'pilot-duarte', CSV, null)).ok).toBe(false);
    expect((await lookAtLogbook(bento, 'pilot-duarte', CSV, null)).ok).toBe(true);
    for (const text of ['', 'hello', 'a,b,c\n', '{"a":1}'])
      expect(said(await lookAtLogbook(bento, 'pilot-duarte', text, null))).toContain('not-a-table');
    expect(said(await lookAtLogbook(bento, 'pilot-duarte', CSV, { columns: {}, dates: 'never' }))).toContain(
      'mapping-broken',
    );
  });
});

describe('people kept', () => {
  it('the chief adds a person who signs in with the password they chose by the link; roles and what they sign; a last chief stays', async () => {
    const form = {
      requestId: randomUUID(),
      name: 'Otelo Penha Mar',
      email: 'otelo@pedra-alva.example',
      massKg: 81,
      hours: 900,
      certificate: 'ZP-PP 1',
      roles: ['pilot', 'instructor'],
      authorised: ['tailwheel'],
    };
    expect(said(await addPerson(helena, form))).toContain('chief-adds-people');
    expect(said(await addPerson(bento, { ...form, email: 'no address' }))).toContain(
      'email: This is no e-mail address',
    );
    expect(said(await addPerson(bento, { ...form, email: 'ines@pedra-alva.example' }))).toContain('email-taken');
    expect(said(await addPerson(bento, { ...form, roles: ['pilot'] }))).toContain('only-instructors-sign');
    const made = done(await addPerson(bento, form));
    expect(await addPerson(bento, form)).toEqual({ ok: true, pilotId: made.pilotId, link: null });
    const own = { password: 'four slow barges', again: 'four slow barges' };
    expect((await checkSignIn({ email: form.email, password: '!' }, '10.0.0.1')).ok).toBe(false);
    done(await spendLink(made.link?.path.split('/')[2] ?? '', own, '10.0.0.1'));
    expect((await checkSignIn({ email: form.email, password: own.password }, '10.0.0.1')).ok).toBe(true);
    expect(
      (
        await saveRoles(bento, {
          userId: `user-${form.requestId}`,
          roles: ['pilot'],
          authorised: [],
          ownCrosswindKt: null,
          base: rolesStamp({ roles: form.roles, authorised: form.authorised, ownCrosswindKt: null }),
        })
      ).ok,
    ).toBe(true);
    expect(
      said(
        await saveRoles(bento, {
          userId: 'user-bento',
          roles: ['instructor'],
          authorised: [],
          ownCrosswindKt: null,
          base: rolesStamp(bento),
        }),
      ),
    ).toContain('last-chief');
    expect(
      said(
        await saveRoles(helena, {
          userId: 'user-helena',
          roles: ['chief'],
          authorised: [],
          ownCrosswindKt: null,
          base: '',
        }),
      ),
    ).toContain('chief-grants');
    expect(
      said(
        await addHeld(bento, {
          requestId: randomUUID(),
          pilotId: made.pilotId,
          kind: 'tailwheel',
          gainedOn: '2020-02-29',
          note: '',
        }),
      ),
    ).toBe('done');
    expect(
      said(
        await addHeld(bento, {
          requestId: randomUUID(),
          pilotId: made.pilotId,
          kind: 'tailwheel',
          gainedOn: '2021-01-01',
          note: '',
        }),
      ),
    ).toContain('held-already');
    const held = await row<{ id: string }>('SELECT id FROM qualifications WHERE pilot_id = :p', { p: made.pilotId });
    expect((await endHeld(bento, held?.id ?? '')).ok).toBe(true);
    expect(
      said(
        await endHeld(
          bento,
          (await row<{ id: string }>('SELECT id FROM qualifications WHERE ledger_id IS NOT NULL'))?.id ?? '',
        ),
      ),
    ).toContain('held-by-entry');
  });
  it('a password is changed by who knows it, or given anew by the chief; every session of before ends', async () => {
    const vasco = await user('vasco');
    const version = async () =>
      (await row<{ session_version: number }>("SELECT session_version FROM users WHERE id = 'user-vasco'"))
        ?.session_version ?? 0;
    const before = await version();
    expect(said(await changePassword(vasco, { password: DEMO_PASSWORD, next: 'short' }))).toContain(
      'next: At least twelve characters',
    );
    expect(said(await changePassword(vasco, { password: 'not this one', next: 'a long one for once' }))).toContain(
      'password: wrong-password',
    );
    expect(said(await changePassword(vasco, { password: DEMO_PASSWORD, next: DEMO_PASSWORD }))).toContain(
      'next: same-password',
    );
    expect(await version()).toBe(before);
    expect(await changePassword(vasco, { password: DEMO_PASSWORD, next: 'a long one for once' })).toEqual({
      ok: true,
      sessionVersion: before + 1,
    });
    expect((await checkSignIn({ email: vasco.email, password: DEMO_PASSWORD }, '10.0.0.1')).ok).toBe(false);
    expect((await newFirstPassword(helena, vasco.id)).ok).toBe(false);
    expect((await newFirstPassword(bento, bento.id)).ok).toBe(false);
    expect((await newFirstPassword(bento, 'nobody')).ok).toBe(false);
    const given = await newFirstPassword(bento, vasco.id);
    expect(given.ok && (await checkSignIn({ email: vasco.email, password: given.password }, '10.0.0.1'))).toMatchObject(
      {
        ok: true,
        sessionVersion: before + 2,
      },
    );
    expect((await checkSignIn({ email: vasco.email, password: 'a long one for once' }, '10.0.0.1')).ok).toBe(false);
  });
  it('dates: nobody enters their own; the newest governs and the earlier stay; what cannot be is told beside its field', async () => {
    const form = {
      pilotId: 'pilot-helena',
      key: 'medical',
      title: 'Medical',
      doneOn: null,
      until: '2027-01-31',
      note: '',
    };
    expect((await saveDate(helena, form)).ok).toBe(false);
    expect(said(await saveDate(bento, { ...form, until: null }))).toContain('until: give-day');
    expect(said(await saveDate(bento, { ...form, doneOn: '2026-12-24' }))).toContain('doneOn: done-ahead');
    expect(said(await saveDate(bento, { ...form, doneOn: '2026-11-01', until: '2026-10-01' }))).toContain(
      'ends-before-done',
    );
    const before = (await rows("SELECT id FROM person_dates WHERE pilot_id = 'pilot-helena' AND key = 'medical'"))
      .length;
    expect(said(await saveDate(bento, form))).toBe('done');
    expect(said(await saveDate(bento, form))).toBe('done');
    expect((await rows("SELECT id FROM person_dates WHERE pilot_id = 'pilot-helena' AND key = 'medical'")).length).toBe(
      before + 1,
    );
    expect((await personPage(bento, 'pilot-helena', null))?.dates.find((d) => d.key === 'medical')?.until).toBe(
      '2027-01-31',
    );
    expect((await shell("UPDATE person_dates SET until = '2030-01-01'")).error).toContain('never changed');
    expect((await shell('DELETE FROM person_dates')).error).toContain('never removed');
  });
  it('notes are read by those they name', async () => {
    const ines = await user('ines');
    const vasco = await user('vasco');
    for (const visible of ['pilot', 'staff', 'chief'])
      expect(
        (await writeNote(helena, { requestId: randomUUID(), pilotId: 'pilot-ines', text: `for ${visible}`, visible }))
          .ok,
      ).toBe(true);
    expect(
      (await writeNote(ines, { requestId: randomUUID(), pilotId: 'pilot-ines', text: 'of myself', visible: 'staff' }))
        .ok,
    ).toBe(false);
    const seen = async (u: CurrentUser) =>
      ((await personPage(u, 'pilot-ines', null))?.notes ?? [])
        .flatMap((n) => (n.text.startsWith('for ') ? [n.text] : []))
        .sort();
    expect(await seen(ines)).toEqual(['for pilot']);
    expect(await seen(vasco)).toEqual(['for pilot', 'for staff']);
    expect(await seen(helena)).toEqual(['for chief', 'for pilot', 'for staff']);
    expect(await seen(bento)).toEqual(['for chief', 'for pilot', 'for staff']);
    expect((await noticesOf(ines))[0]?.text).toContain('wrote you a note');
    const mine = await row<{ id: string }>("SELECT id FROM person_notes WHERE text = 'for staff'");
    expect((await withdrawNote(vasco, mine?.id ?? '')).ok).toBe(false);
    expect((await withdrawNote(helena, mine?.id ?? '')).ok).toBe(true);
    expect(await seen(vasco)).toEqual(['for pilot']);
  });
  it('a pilot sees their own page and no other', async () => {
    const ines = await user('ines');
    expect((await personPage(ines, 'pilot-ines', null))?.name).toBe('In\u00eas Vale Carmo');
    expect(await personPage(ines, 'pilot-clara', null)).toBeNull();
    expect(await personPage(ines, 'nobody', null)).toBeNull();
    const board = await boardData(ines);
    expect(board.lapses.every((l) => l.pilotId === 'pilot-ines')).toBe(true);
    expect([board.stats, board.stalled, board.instructors, board.limits]).toEqual([[], [], [], []]);
  });
});

describe('erased', () => {
  it('what may go is gone, what the ledger rests on stays and is named, and the ledger still holds', async () => {
    const amelia = await user('amelia');
    const entries = (await ledgerLines(bento, { pilotId: 'pilot-amelia', limit: 100 })).length;
    expect(entries).toBeGreaterThan(0);
    const form = { pilotId: 'pilot-amelia', reason: 'asked by letter on 20 November', name: 'Am\u00e9lia Torre Seca' };
    expect((await erasePerson(helena, form)).ok).toBe(false);
    expect((await erasePerson(bento, { ...form, pilotId: 'pilot-bento', name: bento.name })).ok).toBe(false);
    expect(said(await erasePerson(bento, { ...form, name: 'Amelia' }))).toContain('name: name-as-shown');
    const erased = done(await erasePerson(bento, form));
    expect(erased.kept.join(' ')).toMatch(/(entry|entries) of the ledger.*training records/);
    const left = await row<Record<string, number>>(
      "SELECT (SELECT COUNT(*) FROM person_dates WHERE pilot_id = 'pilot-amelia') AS dates, (SELECT COUNT(*) FROM pilot_hours WHERE pilot_id = 'pilot-amelia') AS hours, (SELECT COUNT(*) FROM pilot_eyes WHERE pilot_id = 'pilot-amelia') AS eyes, (SELECT COUNT(*) FROM person_notes WHERE pilot_id = 'pilot-amelia') AS notes, (SELECT mass_kg FROM pilots WHERE id = 'pilot-amelia') AS mass",
    );
    expect(left).toEqual({ dates: 0, hours: 0, eyes: 0, notes: 0, mass: 0 });
    expect((await ledgerLines(bento, { pilotId: 'pilot-amelia', limit: 100 })).length).toBe(entries);
    expect((await checkSignIn({ email: amelia.email, password: DEMO_PASSWORD }, '10.0.0.1')).ok).toBe(false);
    expect(await row("SELECT id FROM users WHERE email = 'amelia@pedra-alva.example'")).toBeNull();
    expect(said(await erasePerson(bento, form))).toContain('erased-already');
    expect((await everybodysStanding(await houseRules(), TODAY)).some((p) => p.pilotId === 'pilot-amelia')).toBe(false);
    expect(JSON.stringify(await recordJson(bento, 'pilot-amelia'))).not.toContain('amelia@');
    // Another\u2019s rows are as safe as before.
    expect((await shell("DELETE FROM pilot_hours WHERE pilot_id = 'pilot-rui'")).error).toContain('never removed');
  });
});
