import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CaptureEvent, CapturedLanding } from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import {
  type SentClock,
  rebuildLandings,
  recordEvents,
  renewLandings,
  shareFlight,
} from '@/server/fly/commands/capture';
import { decidePower } from '@/server/hangar/commands/hangar';
import { row, rows } from '../../scripts/lib/raw';
import { checkoutRecord } from '@/server/checkout/queries/record';
import { eventsOf, sortiesOf } from '@/server/checkout/queries/flights';
import { flownUnreadOf } from '@/server/checkout/queries/stage';
import { acknowledgeBrief } from '@/server/checkout/commands/checkout';
import { checkoutHead } from '@/server/checkout/queries/head';
import { powerFindings } from '@/server/hangar/queries/findings';
import { typeVersions } from '@/server/hangar/queries/hangar';
import { sharersOf } from '@/server/checkout/queries/lists';
import { database } from '@/server/floor/connection';
import { write } from '@/server/floor/write';
import { sortiePack } from '@/server/fly/queries/pack';
import { windsOf, windsReady } from '@/server/fly/queries/winds';
import { fold } from '@/offline/protocol';
import { recordAtDesk } from '@/server/fly/commands/office';
import { said } from './signed';
import { demoFolder, shell, shellScript, user } from './folder';

let close: () => Promise<void>;
let flight = '';
let helena: CurrentUser;
let bento: CurrentUser;
const checkoutId = async (pilot: string): Promise<string> =>
  (await row<{ id: string }>('SELECT id FROM checkouts WHERE pilot_id = :p', { p: `pilot-${pilot}` }))?.id ?? '';
const record = async (pilot: string) => {
  const head = await checkoutHead(await checkoutId(pilot));
  if (!head) throw new Error(pilot);
  return checkoutRecord(head);
};

/** A device that counts its own events, with a clock of its own. */
function device(clockSlowMs = 0) {
  const deviceId = randomUUID();
  let seq = 0;
  return (
    type: CaptureEvent['type'],
    payload: unknown,
    atMin: number,
    subjectId: string = randomUUID(),
  ): CaptureEvent => ({
    eventId: randomUUID(),
    deviceId,
    deviceSeq: ++seq,
    sortieId: flight,
    subjectId,
    author: 'user-helena',
    type,
    v: 1,
    deviceTime: new Date(Date.parse('2026-11-24T13:00:00Z') + atMin * 60_000 - clockSlowMs).toISOString(),
    payload,
  });
}
const landing = (change: Partial<CapturedLanding> = {}): CapturedLanding => ({
  ...UNSEEN,
  kind: 'full-stop',
  intended: 'three-point',
  touched: 'three-point',
  along: 'in-the-box',
  lateral: 'line',
  cleanTap: 'stopped',
  intervention: 0,
  runwayEnd: '22',
  ...change,
});
const slow = (ms: number): SentClock => ({ sentAtMs: 1_800_000_000_000 - ms, receivedAtMs: 1_800_000_000_000 });
const send = (events: CaptureEvent[], clock: SentClock | null = null) => recordEvents(helena, events, clock);

beforeAll(async () => {
  ({ close } = await demoFolder());
  helena = await user('helena');
  bento = await user('bento');
  flight = (await sortiesOf(await checkoutId('duarte'))).at(-1)?.id ?? '';
}, 90_000);
afterAll(() => close());

describe('what a device takes along', () => {
  it('has every target, list and rule the cockpit asks for, and belongs to its author', async () => {
    const pack = await sortiePack(helena, flight);
    expect(pack).toMatchObject({
      author: 'user-helena',
      pilotId: 'pilot-duarte',
      second: null,
      speedLimitKt: { low: -5, high: 10 },
    });
    expect(pack?.gates?.map((g) => g.name)).toEqual(['Downwind', 'Base', 'Final', 'Threshold']);
    expect(pack?.airwork?.rows.map((r) => r.kind)).toContain('steep-turn');
    expect(pack?.lists?.map((l) => l.key)).toEqual(expect.arrayContaining(['go-around', 'speeds', 'exchange']));
    expect(pack?.items.find((i) => i.id === 'F13')?.forms).toEqual(['surprise']);
    expect(pack?.clock?.fuelL).toBeGreaterThan(0);
    // Winds ready to be confirmed, magnetic, each with the time it was observed: the station's of now first.
    const [station, brief] = pack?.winds ?? [];
    expect([station?.source, station?.simulated, station?.at]).toEqual(['station', true, '2026-11-24T14:25:00.000Z']);
    expect(brief === undefined || brief.source === 'brief').toBe(true);
    expect(await windsOf(helena, flight)).toEqual(pack?.winds);
    expect(await windsOf(await user('duarte'), flight)).toBeNull();
    expect(await sortiePack(await user('duarte'), flight)).toBeNull();
  });
});

describe('clocks', () => {
  it('two devices, one an hour slow, merge in the order it happened, whichever comes first', async () => {
    const a = device();
    const b = device(3_600_000);
    const [first, second, third] = ['first', 'second', 'third'].map((note) => landing({ note }));
    const one = a('landing-saved', first, 1);
    const two = b('landing-saved', second, 5);
    const three = a('landing-saved', third, 9);
    expect(await send([two], slow(3_600_000))).toMatchObject({ accepted: [two.eventId], skewMs: 3_600_000 });
    await send([one, three], slow(40));
    const notes = async () =>
      (await record('duarte')).landings.filter((l) => l.sortieId === flight).map((l) => l.captured.note);
    expect(await notes()).toEqual(['first', 'second', 'third']);
    // Sent again it stays where it was, with the clock as it was first measured.
    await send([two], slow(0));
    expect(await notes()).toEqual(['first', 'second', 'third']);
    expect((await eventsOf({ sortieId: flight })).find((e) => e.eventId === two.eventId)?.skewMs).toBe(3_600_000);
    await send([one, two, three].map((e, i) => ({ ...device()('undone', {}, 20 + i, e.subjectId) })));
  });
  it('a device of the first release says nothing of its clock and is taken', async () => {
    const event = device()('landing-saved', landing({ note: 'old device' }), 30);
    expect(await send([event])).toMatchObject({ accepted: [event.eventId], skewMs: null });
    await send([device()('undone', {}, 31, event.subjectId)]);
  });
  it('a clock that was never set is not believed', async () => {
    const event = device()('wind-logged', { fromDegMag: 220, kt: 8, gustKt: null, at: '2026-11-24T13:00:00Z' }, 0);
    expect(await send([event], slow(30 * 365 * 86_400_000))).toMatchObject({ accepted: [event.eventId], skewMs: null });
  });
});

describe('winds ready for the cockpit', () => {
  const seen = {
    source: 'typed' as const,
    raw: '',
    reference: 'true' as const,
    variable: false,
    fromDeg: 1,
    kt: 9,
    gustKt: 17,
    arcFromDeg: null,
    arcToDeg: null,
    observedAt: '2026-11-24T14:20:00Z',
  };
  it('are magnetic by the variation of the place; one that names no direction is none', async () => {
    // 2 degrees west: magnetic is two more than true.
    const [, brief] = await windsReady(null, seen);
    expect(brief).toEqual({ fromDegMag: 3, kt: 9, gustKt: 17, at: '2026-11-24T14:20:00.000Z', source: 'brief' });
    const [, north] = await windsReady(null, { ...seen, fromDeg: 358 });
    expect(north?.fromDegMag).toBe(360);
    expect(await windsReady(null, { ...seen, variable: true, fromDeg: null })).toHaveLength(1);
    expect(await windsReady(null, null)).toHaveLength(1);
    // Briefed by the report that still is the newest: once.
    const [station] = await windsReady(null, null);
    expect(await windsReady(null, { ...seen, observedAt: station?.at ?? '' })).toHaveLength(1);
  });
});

describe('two pilots in one flight', () => {
  it('are chosen by who may run it; those with a checkout on the aeroplane stand first', async () => {
    const head = await checkoutHead(await checkoutId('duarte'));
    const list = await sharersOf(helena, { pilotId: head?.pilotId ?? '', registration: 'ZP-URZ' });
    expect(list.some((p) => p.id === 'pilot-duarte')).toBe(false);
    expect(list.find((p) => p.id === 'pilot-tome')?.own).toBe(true);
    expect(list.findIndex((p) => !p.own)).toBeGreaterThan(list.findIndex((p) => p.id === 'pilot-tome'));
    expect(
      (await sharersOf(await user('vasco'), { pilotId: head?.pilotId ?? '', registration: 'ZP-URZ' })).some(
        (p) => p.id === 'pilot-vasco',
      ),
    ).toBe(false);
    expect(await shareFlight(helena, { sortieId: flight, pilotId: 'pilot-duarte' })).toMatchObject({
      ok: false,
      problems: [{ path: 'pilotId' }],
    });
    expect(await shareFlight(helena, { sortieId: flight, pilotId: 'pilot-nobody' })).toMatchObject({
      ok: false,
      problems: [{ path: 'pilotId' }],
    });
    expect(await shareFlight(await user('duarte'), { sortieId: flight, pilotId: 'pilot-tome' })).toMatchObject({
      ok: false,
    });
  });
  it('each landing and item goes to its own pilot; the shared lesson is made once and undone with its landings', async () => {
    expect(await shareFlight(helena, { sortieId: flight, pilotId: 'pilot-tome' })).toEqual({
      ok: true,
      checkoutId: await checkoutId('tome'),
    });
    const d = device();
    const tomes = d('landing-saved', landing({ pilotId: 'pilot-tome' }), 40);
    await send([
      d('landing-saved', landing(), 39),
      tomes,
      d('landing-saved', landing({ pilotId: 'pilot-tome' }), 44),
      d('item-observed', { itemId: 'F1', verdict: 'within', intervention: 0, note: '', pilotId: 'pilot-tome' }, 45),
      d('item-observed', { itemId: 'F2', verdict: 'within', intervention: 0, note: '' }, 46),
    ]);
    const tome = await record('tome');
    // Numbers are those of the flight, as the cockpit shows them; each pilot has a first of their own.
    const numbers = tome.landings.map((l) => l.number);
    expect(numbers).toEqual([5, 7]);
    expect(tome.landings.map((l) => [l.lesson, l.firstOfSortie])).toEqual([
      [1, true],
      [1, false],
    ]);
    expect(tome.evidence.observations.map((o) => [o.data.itemId, o.lesson])).toEqual([['F1', 1]]);
    const duarte = await record('duarte');
    expect(duarte.landings.filter((l) => l.sortieId === flight)).toHaveLength(1);
    expect(duarte.evidence.observations.filter((o) => o.data.itemId === 'F1' && o.data.pilotId !== null)).toEqual([]);
    // There is no brief of it to acknowledge; of the flight itself it is told, and stands in nobody's way.
    expect(flownUnreadOf(tome)).toEqual([]);
    expect(flownUnreadOf(duarte).map((b) => b.days)).toEqual([null]);
    const own = await row<{ id: string }>('SELECT id FROM briefs WHERE sortie_id = :flight', { flight });
    expect(await acknowledgeBrief(await user('duarte'), own?.id ?? '')).toMatchObject({
      ok: false,
      problems: [{ code: 'flown-meanwhile' }],
    });
    // The lesson was flown, so the next brief is a new lesson.
    expect((await sortiesOf(await checkoutId('tome'))).map((s) => [s.lesson, s.sharedWith])).toEqual([[1, flight]]);
    await send([d('undone', {}, 50, tomes.subjectId)]);
    // The other keeps its number, and is not made the first.
    expect((await record('tome')).landings.map((l) => [l.number, l.firstOfSortie])).toEqual([[numbers[1], false]]);
    expect(await rows('SELECT 1 FROM sorties WHERE shared_with = :f', { f: flight })).toHaveLength(1);
    expect(await shareFlight(helena, { sortieId: flight, pilotId: 'pilot-gaspar' })).toMatchObject({
      ok: false,
      problems: [{ message: 'Something of the second pilot is recorded already: it stays theirs.' }],
    });
    const dump = () => rows('SELECT * FROM landings ORDER BY id');
    const were = await dump();
    await shellScript('DELETE FROM landings;');
    await rebuildLandings();
    expect(await dump()).toEqual(were);
  });
  it('a pilot without a checkout here has landings of no checkout, for recency', async () => {
    const other = (await sortiesOf(await checkoutId('clara'))).at(-1)?.id ?? '';
    expect(await shareFlight(helena, { sortieId: other, pilotId: 'pilot-gaspar' })).toEqual({
      ok: true,
      checkoutId: null,
    });
    await send([{ ...device()('landing-saved', landing({ pilotId: 'pilot-gaspar' }), 60), sortieId: other }]);
    expect(
      await rows("SELECT checkout_id, surface, tailwheel, kind FROM landings WHERE pilot_id = 'pilot-gaspar'"),
    ).toEqual([{ checkout_id: null, surface: 'land', tailwheel: 1, kind: 'full-stop' }]);
  });
});

describe('power found in flight', () => {
  it('waits for the chief; approved it is a new version, measured, with the old value beside it; once', async () => {
    const d = device();
    const found = d('power-found', { phase: 'Downwind', setting: '1850 rpm', speed: 67, vertical: 'level' }, 70);
    const gone = d('power-found', { phase: 'Climb', setting: 'full', speed: 60, vertical: 'climbing' }, 71);
    const left = d('power-found', { phase: 'Slow flight', setting: '2000 rpm', speed: 48, vertical: 'level' }, 72);
    await send([found, gone, left, d('undone', {}, 73, gone.subjectId)]);
    expect((await powerFindings('serrana-urze')).map((f) => [f.data.phase, f.unit, f.decided])).toEqual([
      ['Slow flight', 'mph', null],
      ['Downwind', 'mph', null],
    ]);
    expect(await powerFindings('alvor-c1')).toEqual([]);
    const form = { findingId: found.subjectId, decision: 'approved', reason: 'Agrees with two flights.' };
    expect(await decidePower(helena, form)).toMatchObject({ ok: false });
    expect(await decidePower(bento, { ...form, reason: 'x' })).toMatchObject({
      ok: false,
      problems: [{ path: 'reason' }],
    });
    expect(await decidePower(bento, { ...form, findingId: gone.subjectId })).toMatchObject({ ok: false });
    const before = await typeVersions('serrana-urze');
    const answer = await decidePower(bento, form);
    expect(answer).toEqual({ ok: true, version: (before[0]?.version ?? 0) + 1 });
    const row_ = (await typeVersions('serrana-urze'))[0]?.sheet.powerTable.find((p) => p.phase === 'Downwind');
    expect(row_).toMatchObject({
      setting: '1850 rpm',
      flowLPerH: null,
      ias: { value: 67, source: 'measured', others: [{ value: 66, source: 'measured' }] },
    });
    expect(row_?.ias?.ref).toContain('ZP-URZ');
    expect(await decidePower(bento, form)).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining('approved') as string }],
    });
    expect(
      await decidePower(bento, { findingId: left.subjectId, decision: 'declined', reason: 'Read in turbulence.' }),
    ).toEqual({ ok: true, version: null });
    expect(await typeVersions('serrana-urze')).toHaveLength(before.length + 1);
    expect((await shell("UPDATE power_decisions SET decision = 'declined'")).error).toContain('never changed');
  });
});

describe('the other things of a flight', () => {
  it('runway, clock, trial and swap come back as they were sent; nonsense is refused one by one', async () => {
    const d = device();
    const good = [
      d('runway-set', { runwayEnd: '29' }, 80),
      d('timer-marked', { mark: 'off-block', at: '2026-11-24T13:00:00Z' }, 80),
      d('pilot-swapped', { pilotId: 'pilot-tome' }, 81),
      d(
        'trial-flown',
        {
          flapDeg: 0,
          power: 'idle',
          idle: true,
          speed: 44,
          sinkFpm: 700,
          groundFt: 3900,
          arrested: 'part',
          elevatorAtStop: true,
          heightErrorFt: -20,
        },
        82,
      ),
      d(
        'item-observed',
        {
          itemId: 'also:stall',
          verdict: 'outside',
          intervention: 1,
          note: '',
          detail: {
            form: 'stall',
            stall: 'clean',
            lookOut: false,
            cue: 'horn',
            cueSpeed: 44,
            recovery: 'unloaded-first',
            heightLostFt: 100,
            seen: {},
          },
        },
        83,
      ),
    ];
    const bad = [
      d('trial-flown', { flapDeg: 0 }, 84),
      d('item-observed', { itemId: 'F1', verdict: 'within', intervention: 0, note: '', detail: { form: 'dance' } }, 85),
      d('timer-marked', { mark: 'lunch', at: 'noon' }, 86),
    ];
    const answer = await send([...good, ...bad]);
    expect(answer.accepted).toEqual(good.map((e) => e.eventId));
    expect(answer.refused.map((r) => r.eventId)).toEqual(bad.map((e) => e.eventId));
    const folded = fold(await eventsOf({ sortieId: flight }));
    expect(folded.runways[flight]).toBe('29');
    expect(folded.flying[flight]).toBe('pilot-tome');
    expect(folded.trials).toHaveLength(1);
    expect(folded.marks.some((m) => m.mark === 'off-block')).toBe(true);
    expect(folded.items.find((i) => i.data.itemId === 'also:stall')?.data.detail).toMatchObject({
      form: 'stall',
      lookOut: false,
    });
  });
});

describe('what an earlier release judged', () => {
  it('is judged again at the next start, once, whatever form its reasons had', async () => {
    const [one] = await rows<{ id: string; judged: string }>(
      "SELECT id, judged FROM landings WHERE json_extract(judged, '$.reason.code') IS NOT NULL LIMIT 1",
    );
    const before = JSON.parse(one?.judged ?? '{}') as { landingClass: string; reason: { code: string } };
    await write((t) =>
      database().sequelize.query(
        "UPDATE landings SET judged = json_set(judged, '$.reason', 'The pilot\u2019s own.') WHERE id = :id",
        { replacements: { id: one?.id ?? '' }, transaction: t },
      ),
    );
    expect(await renewLandings()).toBe(1);
    const after = await row<{ judged: string }>('SELECT judged FROM landings WHERE id = :id', { id: one?.id ?? '' });
    expect(JSON.parse(after?.judged ?? '{}')).toMatchObject(before);
    expect(await renewLandings()).toBe(0);
  });
});

describe('said of a flight at a desk', () => {
  const time = (more: object = {}) => ({
    requestId: randomUUID(),
    sortieId: flight,
    subjectId: randomUUID(),
    type: 'item-observed',
    payload: { itemId: 'G1', verdict: 'within', intervention: 0, note: '', minutes: 40 },
    ...more,
  });
  const count = async () =>
    (await row<{ n: number }>("SELECT COUNT(*) AS n FROM capture_events WHERE type = 'item-observed'"))?.n ?? 0;
  it('sent twice it is one event, and its request is nobody else’s', async () => {
    const before = await count();
    const form = time();
    expect(await recordAtDesk(helena, form)).toEqual({ ok: true });
    expect(await recordAtDesk(helena, form)).toEqual({ ok: true });
    expect(await count()).toBe(before + 1);
    expect(said(await recordAtDesk(bento, form))).toBe(': number-used');
  });
  it('only what a desk may say, by the schema of its type; the wrong field is named', async () => {
    expect(said(await recordAtDesk(helena, time({ payload: { ...time().payload, minutes: 0 } })))).toContain(
      'payload.minutes: Give whole minutes, 1 to 720.',
    );
    expect((await recordAtDesk(helena, time({ type: 'overruled' }))).ok).toBe(false);
    expect((await recordAtDesk(helena, time({ type: 'landing-saved' }))).ok).toBe(false);
    expect(said(await recordAtDesk(await user('duarte'), time()))).toBe(': not-found');
  });
});
