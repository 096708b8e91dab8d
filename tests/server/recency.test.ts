import { randomUUID } from 'node:crypto';
import { existsSync, readdirSync, writeFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pagesOf } from './pdf';
import { evaluateRecency } from '@/core/recency';
import { UNSEEN } from '@/domain/unseen';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { takeTry } from '@/server/floor/auth/limiter';
import { recordEvents } from '@/server/fly/commands/capture';
import { logFlight } from '@/server/people/commands/people';
import { row, rows } from '../../scripts/lib/raw';
import { inData } from '@/server/floor/data-folder';
import { checkLedger, ledgerKeyId, settleKey } from '@/server/ledger/entries';
import { currentPublicKey, prepareNextKey, publicKeys } from '@/server/ledger/keys';
import { attachedJson } from '@/server/ledger/attached';
import { flyingOf, hoursInType, passengerState, teachState } from '@/server/people/queries/recency';
import { bookletPdf } from '@/server/ledger/papers/record';
import { demoFolder } from './folder';
import { openOf, recordOf, user } from './signed';

let close: () => Promise<void>;
let helena: CurrentUser;
beforeAll(async () => {
  ({ close } = await demoFolder());
  helena = await user('helena');
}, 120_000);
afterAll(() => close());
const newest = async (checkoutId: string): Promise<string> =>
  (
    await row<{ id: string }>('SELECT id FROM sorties WHERE checkout_id = :c ORDER BY lesson DESC LIMIT 1', {
      c: checkoutId,
    })
  )?.id ?? '';
const event = (sortieId: string, payload: object, at: number) => ({
  eventId: randomUUID(),
  deviceId: randomUUID(),
  deviceSeq: 1,
  sortieId,
  subjectId: randomUUID(),
  author: helena.id,
  type: 'landing-saved',
  v: 1,
  deviceTime: new Date(Date.parse('2026-11-24T11:00:00Z') + at * 60_000).toISOString(),
  payload: { ...UNSEEN, kind: 'full-stop', runwayEnd: '22', intervention: 0, ...payload },
});

describe('what counts as flying', () => {
  it('a landing gives a take-off and a landing; a go-around neither; a demonstration is the instructor\u2019s', async () => {
    const sortie = await newest(await openOf('duarte'));
    const [pilotBefore, teacherBefore] = [await flyingOf('pilot-duarte'), await flyingOf('pilot-helena')];
    await recordEvents(helena, [
      event(sortie, {}, 1),
      event(sortie, { kind: 'go-around', goAroundWord: 'at' }, 2),
      event(sortie, { demonstration: true }, 3),
      event(sortie, { intervention: 3 }, 4),
    ]);
    const pilot = (await flyingOf('pilot-duarte')).filter((e) => !pilotBefore.some((b) => b.id === e.id));
    const teacher = (await flyingOf('pilot-helena')).filter((e) => !teacherBefore.some((b) => b.id === e.id));
    expect(pilot.map((e) => e.kind).sort()).toEqual(['landing', 'landing', 'landing', 'takeoff', 'takeoff', 'takeoff']);
    const rule = {
      id: 'r',
      kind: 'landing' as const,
      count: 3,
      windowDays: 90,
      fullStop: true,
      night: false,
      tailwheel: true,
      soleManipulator: true,
      surface: null,
      classes: null,
    };
    expect(evaluateRecency({ rules: [rule], events: pilot, onDate: '2026-11-24' }).rules[0]?.counted).toBe(1);
    expect(teacher.map((e) => [e.kind, e.tailwheel, e.class, e.typeCode])).toEqual([
      ['landing', true, 'single-engine-land', 'serrana-urze'],
      ['takeoff', true, 'single-engine-land', 'serrana-urze'],
    ]);
  });
  it('logged flying counts by its surface and stops; hours since the office\u2019s entry are added to it', async () => {
    const bento = await user('bento');
    const before = await hoursInType('pilot-bento', 'orla-mare');
    const log = {
      requestId: randomUUID(),
      pilotId: 'pilot-bento',
      flownOn: '2026-11-23',
      typeCode: 'orla-mare',
      takeoffs: 2,
      landings: 3,
      fullStops: 1,
      night: true,
      surface: 'water',
      hours: 1.5,
      remark: '',
    };
    expect((await logFlight(bento, log)).ok).toBe(true);
    expect(await hoursInType('pilot-bento', 'orla-mare')).toBeCloseTo(before + 1.5, 6);
    const mine = (await flyingOf('pilot-bento')).filter((e) => e.id.startsWith(log.requestId));
    expect(
      mine
        .map((e) =>
          `${e.times ?? 1} ${e.kind} ${e.class} ${e.night ? 'night' : 'day'} ${e.fullStop ? 'stop' : ''}`.trim(),
        )
        .sort(),
    ).toEqual([
      '1 landing multi-engine-sea night stop',
      '2 landing multi-engine-sea night',
      '2 takeoff multi-engine-sea night',
    ]);
    expect(await logFlight(bento, { ...log, requestId: randomUUID(), typeCode: 'serrana-urze' })).toMatchObject({
      ok: false,
      problems: [{ path: 'surface' }],
    });
    expect(
      await logFlight(bento, { ...log, requestId: randomUUID(), takeoffs: 0, landings: 0, fullStops: 0, hours: 0 }),
    ).toMatchObject({ ok: false, problems: [{ path: 'landings' }] });
  });
  it('the same for the evaluation and for what was foretold: flying what restores it does', async () => {
    const record = await recordOf(await openOf('nuno'));
    const before = await passengerState('pilot-nuno', record.head.sheet, record.pack, '2026-11-24');
    expect(before.overall).toBe('expired');
    const n = before.leastFlying.circuits;
    expect(
      (
        await logFlight(await user('nuno'), {
          requestId: randomUUID(),
          pilotId: 'pilot-nuno',
          flownOn: '2026-11-24',
          typeCode: 'planalto-p2',
          takeoffs: n,
          landings: n,
          fullStops: n,
          night: false,
          surface: 'land',
          hours: 1,
          remark: '',
        })
      ).ok,
    ).toBe(true);
    expect((await passengerState('pilot-nuno', record.head.sheet, record.pack, '2026-11-24')).overall).toBe('current');
  });
  it('who may teach: what the aeroplane demands, and the house\u2019s three landings', async () => {
    const twin = await recordOf(await openOf('nuno'));
    const of = { sheet: twin.head.sheet, pack: twin.pack, house: twin.house, goals: twin.head.goals };
    expect((await teachState(helena, of, '2026-11-24')).lacks).toEqual([
      'multi-engine-land',
      'MEP-variant:planalto-p2',
    ]);
    expect((await teachState(await user('bento'), of, '2026-11-24')).lacks).toEqual([]);
    const stranger = { ...helena, pilotId: null };
    expect((await teachState(stranger, of, '2026-11-24')).notRecent.map((r) => r.restore)).toEqual(['three landings']);
  });
});

describe('keys and papers', () => {
  it('a change of key that was stopped before its entry never happened', async () => {
    const before = currentPublicKey().keyId;
    const next = prepareNextKey();
    expect(existsSync(inData('keys', 'ledger-private.next.pem'))).toBe(true);
    await settleKey();
    expect([currentPublicKey().keyId, await ledgerKeyId()]).toEqual([before, before]);
    expect(Object.keys(publicKeys())).not.toContain(next.keyId);
    expect(readdirSync(inData('keys')).filter((f) => f.includes('next'))).toEqual([]);
  });
  it('a public key laid into the folder opens nothing', async () => {
    writeFileSync(inData('keys', 'ledger-00000000deadbeef.pub.pem'), currentPublicKey().publicPem);
    expect((await checkLedger()).problems).toEqual([]);
  });
  it('an attachment that unpacks to very much, or is none, is not read', () => {
    const pdf = (filter: string, data: Buffer) =>
      Buffer.concat([
        Buffer.from(`%PDF-1.7\n1 0 obj\n<< /Type /EmbeddedFile ${filter} /Length ${data.length} >>\nstream\n`),
        data,
        Buffer.from('\nendstream\nendobj\n'),
      ]);
    expect(attachedJson(pdf('', Buffer.from('{"a":1}')))).toBe('{"a":1}');
    expect(attachedJson(pdf('/Filter /FlateDecode', Buffer.from('not deflated')))).toBeNull();
    return import('node:zlib').then(({ deflateSync }) => {
      expect(attachedJson(pdf('/Filter /FlateDecode', deflateSync(Buffer.from('{"b":2}'))))).toBe('{"b":2}');
      expect(attachedJson(pdf('/Filter /FlateDecode', deflateSync(Buffer.alloc(9_000_000, '{'))))).toBeNull();
    });
  });
  it('checks from one address are counted', async () => {
    const waits = [];
    for (let i = 0; i < 201; i++) waits.push(await takeTry('open', 'verify test'));
    expect(waits.slice(0, 200).every((w) => w === 0)).toBe(true);
    expect(waits[200]).toBeGreaterThan(0);
  });
  it('the booklet says what was asked, what was shown lesson by lesson, and what stands in the ledger', async () => {
    const signed =
      (await rows<{ id: string }>("SELECT id FROM checkouts WHERE status = 'signed' AND pilot_id = 'pilot-elias'"))[0]
        ?.id ?? '';
    const text = (await pagesOf(await bookletPdf(helena, await recordOf(signed)))).join(' ');
    for (const part of [
      'Elias Monte Raso',
      'Entry 4, sign-off',
      'FCL.710',
      'What was asked, and what stands',
      'Three-point landings: met',
      'Lesson 6',
      'Brief acknowledged',
      'SHA-256',
    ])
      expect(text).toContain(part);
  });
});
