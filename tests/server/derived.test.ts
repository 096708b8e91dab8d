/**
 * What is kept of what was read is never old: after every command, in random order, each kept answer equals a fresh
 * reading. Outside this file every reading of every server test is held to the tables it says it depends on.
 */
import { plain as asText } from '@/core/format';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { allDerived, derived } from '@/server/floor/derived';
import { write } from '@/server/floor/write';
import { Pilots } from '@/server/account/tables';
import { boardData } from '@/server/board/queries/board';
import { acknowledgeBrief, chooseSchools } from '@/server/checkout/commands/checkout';
import { checkoutHead } from '@/server/checkout/queries/head';
import { checkoutRecord } from '@/server/checkout/queries/record';
import { assessSelf, decideFinding, overrule, saveDebrief } from '@/server/debrief/commands/debrief';
import { recordEvents, shareFlight } from '@/server/fly/commands/capture';
import { endGrounding, groundAirframe } from '@/server/hangar/commands/groundings';
import { signPart } from '@/server/ledger/commands/sign';
import { logFlight, saveCertificate, savePilotCertificate, strikeFlight } from '@/server/people/commands/people';
import { addHeld, addPerson, endHeld, saveDate, saveRoles } from '@/server/people/commands/persons';
import { saveHours } from '@/server/people/commands/pilot';
import { everybodysStanding, readStandings } from '@/server/people/queries/standings';
import { houseRules } from '@/server/people/queries/house-rules';
import { saveContent } from '@/server/rules/commands/content';
import { newestContent } from '@/server/rules/content';
import { book, cancelBooking } from '@/server/schedule/commands/bookings';
import { learnedSplit } from '@/server/schedule/queries/split';
import { row, rows } from '../../scripts/lib/raw';
import { event, landing } from '../../scripts/lib/events';
import { demoFolder, shellScript, user } from './folder';
import { formFor } from './signed';

let close: () => Promise<void>;
let helena: CurrentUser;
let bento: CurrentUser;
const TODAY = '2026-11-24';
const idOf = async (sql: string): Promise<string> => (await row<{ id: string }>(sql))?.id ?? '';
const openOf = (pilot: string) =>
  idOf(`SELECT id FROM checkouts WHERE pilot_id = 'pilot-${pilot}' AND status = 'open' ORDER BY created_at DESC`);
const recordOf = async (id: string) => {
  const head = await checkoutHead(id);
  if (!head) throw new Error(id);
  return checkoutRecord(head);
};
const lastFlight = (id: string) => idOf(`SELECT id FROM sorties WHERE checkout_id = '${id}' ORDER BY lesson DESC`);

beforeAll(async () => {
  ({ close } = await demoFolder());
  helena = await user('helena');
  bento = await user('bento');
}, 120_000);
afterAll(() => close());

/** Every answer that is asked again and again, as the pages ask it. */
async function askAll(): Promise<[string, () => Promise<unknown>, () => Promise<unknown>][]> {
  const rules = await houseRules();
  const heads = await rows<{ id: string }>(
    `SELECT id FROM checkouts WHERE status = 'open'
       AND pilot_id IN ('pilot-duarte', 'pilot-ines', 'pilot-joana', 'pilot-marta') ORDER BY id`,
  );
  const all = allDerived();
  const asks: [string, readonly unknown[]][] = [
    ['people.rules', []],
    ['people.standings', [rules, TODAY]],
    ...heads.map(({ id }): [string, unknown[]] => ['checkout.record', [id, TODAY]]),
    ...['serrana-urze', 'serrana-carvalho'].map((code): [string, unknown[]] => ['schedule.split', [code, rules.house]]),
    ...[helena, bento].flatMap((u): [string, unknown[]][] => [
      ['board.open', [u, true]],
      ['board.waits', [u, u.roles.includes('chief')]],
      ['board.limits', [u]],
      ['board.stalled', [u, u.roles.includes('chief'), TODAY, 21, '2026-11-24T14:30:00.000Z']],
    ]),
    ['board.grounded', []],
    ['board.statistics', [TODAY]],
    ['rules.newest', ['house', 'house']],
    ['rules.home', []],
  ];
  for (const [name] of asks) expect([...all.keys()], 'every one is known').toContain(name);
  return asks.map(([name, args]) => {
    const d = all.get(name);
    // What everybody flew is kept landing by landing where it was added to, and a day in a row where it is read anew:
    // what it means is compared, with the flying read afresh.
    const fresh = name === 'people.standings' ? () => readStandings(rules, TODAY) : () => d?.of.read(...args);
    return [`${name} ${asText(args[0])}`, async () => d?.(...args), async () => fresh()];
  });
}
const plain = (value: unknown): unknown =>
  JSON.parse(
    JSON.stringify(value ?? null, (k, v: unknown) =>
      k === 'eventId' ? '' : v instanceof Map ? [...(v as Map<unknown, unknown>)] : v,
    ),
  );

/** Commands of every subject; each takes what it needs from the folder as it stands. */
function commands(): Record<string, () => Promise<{ ok: boolean } | unknown>> {
  const logged: string[] = [];
  let grounding = '';
  let booked = '';
  const fly = async (pilot: string, more: object = {}) =>
    recordEvents(helena, [event(helena.id, await lastFlight(await openOf(pilot)), 'landing-saved', landing(more))]);
  return {
    'hours of a type': () =>
      saveHours(bento, {
        pilotId: 'pilot-joana',
        rows: [{ typeCode: 'alvor-c1', hours: 131, pic: null, lastFlown: '2026-09-02' }],
        base: '',
      }),
    'something held': async () => {
      const requestId = randomUUID();
      return addHeld(bento, { requestId, pilotId: 'pilot-joana', kind: 'complex', gainedOn: '2026-01-01', note: '' });
    },
    'what was held ends and another is added': async () => {
      const id = await idOf(
        "SELECT id FROM qualifications WHERE pilot_id = 'pilot-joana' AND ended_at IS NULL AND ledger_id IS NULL",
      );
      await endHeld(bento, id);
      return addHeld(bento, {
        requestId: randomUUID(),
        pilotId: 'pilot-joana',
        kind: 'high-performance',
        gainedOn: '2026-01-01',
        note: '',
      });
    },
    'a date': () =>
      saveDate(bento, {
        pilotId: 'pilot-duarte',
        key: 'medical',
        title: 'Medical',
        doneOn: null,
        until: '2026-12-01',
        note: '',
      }),
    'a licence': () =>
      savePilotCertificate(bento, { pilotId: 'pilot-duarte', certificate: `ZP-${randomUUID().slice(0, 4)}` }),
    'a certificate': () => saveCertificate(bento, { userId: helena.id, certificate: 'FI 12', until: '2026-12-31' }),
    roles: async () => {
      const u = await user('vasco');
      return saveRoles(bento, {
        userId: u.id,
        roles: ['pilot', 'instructor'],
        authorised: ['tailwheel'],
        ownCrosswindKt: 15,
        base: '',
      });
    },
    'a person': () =>
      addPerson(bento, {
        requestId: randomUUID(),
        name: `New ${randomUUID().slice(0, 4)}`,
        email: '',
        roles: ['pilot'],
        massKg: 70,
        hours: 100,
        experience: '',
        certificate: '',
        password: '',
      }),
    'a logged flight': async () => {
      const requestId = randomUUID();
      logged.push(requestId);
      return logFlight(bento, {
        requestId,
        pilotId: 'pilot-bento',
        flownOn: '2026-11-20',
        typeCode: 'serrana-urze',
        takeoffs: 2,
        landings: 2,
        fullStops: 1,
        night: false,
        surface: 'land',
        hours: 0.5,
        remark: '',
      });
    },
    'a struck flight': async () =>
      strikeFlight(bento, {
        logId: logged.pop() ?? (await idOf('SELECT id FROM flight_log LIMIT 1')),
        reason: 'entered twice',
      }),
    'a landing': () => fly('duarte'),
    'a landing that was shown': () => fly('ines', { demonstration: true }),
    'a hard landing overruled': async () => {
      const id = await openOf('duarte');
      const l = (await recordOf(id)).landings.find((x) => x.kind === 'full-stop');
      return overrule(helena, {
        sortieId: l?.sortieId ?? '',
        subjectId: l?.id ?? '',
        what: 'lateral',
        to: 'edge',
        reason: 'A gust that I saw coming in.',
      });
    },
    'a second pilot': async () =>
      shareFlight(helena, { sortieId: await lastFlight(await openOf('duarte')), pilotId: 'pilot-joana' }),
    'a brief acknowledged': async () => {
      const id = await idOf('SELECT id FROM briefs WHERE acknowledged_at IS NULL');
      return acknowledgeBrief(await user('marta'), id);
    },
    schools: async () =>
      chooseSchools(helena, { checkoutId: await openOf('duarte'), schools: { 'approach-speed': 'reducing' } }),
    'a self-assessment': async () =>
      assessSelf(await user('duarte'), {
        sortieId: await lastFlight(await openOf('duarte')),
        own: 1,
        bestNumber: 1,
        workOn: 'line',
      }),
    'a debrief': async () =>
      saveDebrief(helena, {
        requestId: randomUUID(),
        sortieId: await lastFlight(await openOf('duarte')),
        focus: ['Look far ahead'],
        remark: '',
      }),
    'a finding decided': async () =>
      decideFinding(helena, {
        checkoutId: await openOf('duarte'),
        findingId: 'limit-passed',
        decision: 'confirmed',
        reason: '',
        lesson: 1,
        own: null,
      }),
    'an aeroplane grounded': async () => {
      grounding = randomUUID();
      return groundAirframe(bento, {
        requestId: grounding,
        airframeId: 'air-ZP-CAV',
        kind: 'school',
        why: 'the tail spring is looked at',
      });
    },
    'a grounding ended': async () =>
      endGrounding(bento, {
        groundingId: (await idOf(`SELECT id FROM groundings WHERE request_id = '${grounding}'`)) || grounding,
        done: 'spring renewed, entered in the log',
        certifier: '',
        certificate: '',
      }),
    'a booking': async () => {
      booked = randomUUID();
      return book(helena, {
        requestId: booked,
        kind: 'hire',
        checkoutId: null,
        pilotId: 'pilot-nuno',
        instructorId: null,
        airframeId: 'air-ZP-CAV',
        startsAt: '2026-12-03T10:00:00.000Z',
        minutes: 60,
        passengers: 0,
        surface: 'any',
        note: '',
      });
    },
    'a booking cancelled': async () => {
      const b = await row<{ id: string; version: number }>(
        "SELECT id, version FROM bookings WHERE state = 'booked' ORDER BY starts_at DESC",
      );
      return cancelBooking(bento, { bookingId: b?.id ?? '', version: b?.version ?? 1, reason: 'the weather' });
    },
    'a part signed': async () => {
      const id = await openOf('duarte');
      const met = (await recordOf(id)).items.find((i) => i.state === 'met' && i.part === null);
      return signPart(helena, { ...(await formFor(helena, id)), requestId: randomUUID(), items: [met?.item.id ?? ''] });
    },
    'rules of the house': async () => {
      const now = await newestContent('house', 'house');
      return saveContent(bento, {
        kind: 'house',
        key: 'house',
        baseVersion: Number((now?.id ?? '').split(':').at(-1)),
        reason: 'asked for by the club',
        body: { ...now?.body, circuitMin: (now?.body.circuitMin ?? 7) === 7 ? 8 : 7 },
      });
    },
  };
}
/** A small generator, so that a failing order can be asked for again. */
function shuffled<T>(all: readonly T[], seed: number): T[] {
  let s = seed;
  const next = () => (s = (s * 1_103_515_245 + 12_345) % 2_147_483_648) / 2_147_483_648;
  return all
    .map((x) => [next(), x] as const)
    .sort((a, b) => a[0] - b[0])
    .map(([, x]) => x);
}

describe('what is kept of what was read', () => {
  it('equals a fresh reading after every command, in any order', async () => {
    const seed = Number(process.env.JEITO_TEST_SEED ?? 7);
    const all = commands();
    const asks = await askAll();
    let through = 0;
    for (const name of shuffled(Object.keys(all), seed)) {
      for (const [, kept] of asks) await kept();
      const answer = (await all[name]?.()) as { ok?: boolean; refused?: unknown[] };
      if (answer.ok === true || answer.refused?.length === 0) through++;
      for (const [what, kept, fresh] of asks)
        expect(plain(await kept()), `seed ${seed}: ${what} after ${name}`).toEqual(plain(await fresh()));
    }
    // A refusal writes nothing and so proves little: most of them must have gone through.
    expect(through, 'commands that went through').toBeGreaterThan(Object.keys(all).length / 2);
  }, 240_000);

  it('sees a second pilot chosen, one holding ended and another added, and a landing that moves the learned split', async () => {
    const id = await openOf('ines');
    const before = await recordOf(id);
    const sortie = before.sorties.at(-1);
    await shareFlight(helena, { sortieId: sortie?.id ?? '', pilotId: 'pilot-rui' });
    expect((await recordOf(id)).sorties.at(-1)?.secondPilotId).toBe('pilot-rui');

    const held = async () => (await recordOf(id)).evidence.experience?.held ?? [];
    const requestId = randomUUID();
    const form = { pilotId: 'pilot-ines', gainedOn: '2026-01-01', note: '' };
    await addHeld(bento, { ...form, requestId, kind: 'complex' });
    expect(await held()).toContain('complex');
    const one = await idOf(
      "SELECT id FROM qualifications WHERE pilot_id = 'pilot-ines' AND kind = 'complex' AND ended_at IS NULL",
    );
    // As many are held after as before: a count would not have moved.
    await endHeld(bento, one);
    await addHeld(bento, { ...form, requestId: randomUUID(), kind: 'pressurised' });
    expect(await held()).not.toContain('complex');
    expect(await held()).toContain('pressurised');

    const { house, head } = before;
    const split = () => learnedSplit(head.typeCode, house);
    const was = await split();
    // One landing more in each lesson of the type, an hour after the last: flights took longer than was learned.
    const flights = await rows<{ id: string; by: string; day: string }>(
      `SELECT s.id, s.instructor_id AS by, s.flown_on AS day FROM sorties s JOIN checkouts c ON c.id = s.checkout_id
         JOIN checkout_types ty ON ty.checkout_id = c.id WHERE c.status = 'open' AND ty.code = :code
         AND EXISTS (SELECT 1 FROM landings l WHERE l.sortie_id = s.id)`,
      { code: head.typeCode },
    );
    for (const f of flights) {
      const by = await user(f.by.replace('user-', ''));
      const more = { deviceTime: `${f.day}T11:55:00.000Z` };
      await recordEvents(by, [event(f.by, f.id, 'landing-saved', landing(), more)]);
    }
    expect(await split()).toEqual(await allDerived().get('schedule.split')?.of.read(head.typeCode, house));
    expect(await split()).not.toEqual(was);
  });

  it('sees what another process wrote', async () => {
    const before = (await recordOf(await openOf('duarte'))).pilotCertificate;
    await shellScript(`
      BEGIN; UPDATE pilots SET certificate = 'by another' WHERE id = 'pilot-duarte';
      INSERT INTO table_versions VALUES ('pilots', 1) ON CONFLICT (name) DO UPDATE SET version = version + 1; COMMIT;`);
    await new Promise((resolve) => setTimeout(resolve, 120));
    expect([before, (await recordOf(await openOf('duarte'))).pilotCertificate]).not.toEqual([before, before]);
  });

  it('is not used inside a write, and may not ask what it does not name', async () => {
    const name = derived({
      name: `test.${randomUUID()}`,
      dependsOn: [],
      key: () => '',
      read: () => Pilots.first({ where: { id: 'pilot-duarte' }, pick: ['name'] }),
    });
    await expect(name()).rejects.toThrow('reads pilots and does not depend on them');
    const rules = await houseRules();
    await expect(write(() => everybodysStanding(rules, TODAY))).rejects.toThrow('inside write()');
  });

  it('raises one number for each table that was written, and none when the write is undone', async () => {
    const of = async () =>
      (await row<{ version: number }>("SELECT version FROM table_versions WHERE name = 'pilots'"))?.version ?? 0;
    const before = await of();
    await write((t) => Pilots.update({ hours: 200 }, { id: 'pilot-nuno' }, t));
    expect(await of()).toBe(before + 1);
    await expect(
      write(async (t) => {
        await Pilots.update({ hours: 201 }, { id: 'pilot-nuno' }, t);
        throw new Error('undone');
      }),
    ).rejects.toThrow('undone');
    expect(await of()).toBe(before + 1);
  });

  it('makes a whole board within what each part says it depends on', async () => {
    expect((await boardData(bento)).today).toBe(TODAY);
    expect((await boardData(await user('duarte'))).today).toBe(TODAY);
  });
});
