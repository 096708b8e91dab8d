import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { flush, keepPack, storeEvent, store, waitingCount } from '@/offline/client';
import { type SortiePack, type SyncAnswer, fold } from '@/offline/protocol';
import type { CaptureEvent } from '@/domain/capture';
import { cleanOffered, freshDraft, movePlace, nextSided, toCaptured } from '@/ui/fly/draft';

const pack: SortiePack = {
  sortieId: 's1',
  checkoutId: 'c1',
  lesson: 1,
  flownOn: '2026-11-24',
  author: 'u1',
  authorName: 'H',
  pilotName: 'D',
  registration: 'ZP-URZ',
  typeName: 'Urze',
  pack: 'us',
  unit: 'mph',
  tailwheel: true,
  hasFlapOrGear: false,
  runwayEnd: '22',
  runways: [],
  aimPointM: 60,
  box: { before: 0, past: 122 },
  fenceTarget: 57,
  intended: 'three-point',
  focus: '',
  windText: '',
  triggers: [],
  items: [],
  preparedAt: '',
  events: [],
};
const at = new Date('2026-11-24T14:00:00Z');
const saved = toCaptured({ ...freshDraft(pack), touched: 'three-point', intervention: 0 }, null, '22');

beforeEach(async () => {
  await Promise.all([store().events.clear(), store().packs.clear(), store().meta.clear()]);
});

/** A field that behaves as told; it remembers what it has, as the real one does. */
function field(behave: (n: number) => 'ok' | 'drop-answer' | 'down' | '401' | 'error') {
  const has = new Set<string>();
  let calls = 0;
  const send = async (_url: unknown, init?: RequestInit): Promise<Response> => {
    const mode = behave(++calls);
    if (mode === 'down') throw new TypeError('no network');
    if (mode === '401') return new Response('{}', { status: 401 });
    if (mode === 'error') return new Response('oops', { status: 500 });
    const { events } = JSON.parse(typeof init?.body === 'string' ? init.body : '') as { events: CaptureEvent[] };
    for (const e of events) has.add(e.eventId);
    if (mode === 'drop-answer') throw new TypeError('connection lost');
    const answer: SyncAnswer = { accepted: events.map((e) => e.eventId), refused: [], held: [], skewMs: null };
    return Response.json(answer);
  };
  return { send: send as typeof fetch, has, calls: () => calls };
}

describe('outbox', () => {
  it('numbers events without gaps, also when taps come together', async () => {
    await Promise.all(
      Array.from({ length: 25 }, (_, i) => storeEvent(pack, 'field-set', 'a', { field: 'x', value: i }, at)),
    );
    const seqs = (await store().events.toArray()).map((e) => e.deviceSeq).sort((a, b) => a - b);
    expect(seqs).toEqual(Array.from({ length: 25 }, (_, i) => i + 1));
    expect(new Set((await store().events.toArray()).map((e) => e.deviceId)).size).toBe(1);
  });
  it('sends everything in batches and marks what arrived', async () => {
    for (let i = 0; i < 130; i++) await storeEvent(pack, 'field-set', 'a', { field: 'x', value: i }, at);
    const f = field(() => 'ok');
    expect(await flush(f.send)).toMatchObject({ state: 'sent', waiting: 0 });
    expect(f.calls()).toBe(2);
    expect(f.has.size).toBe(130);
  });
  it('keeps everything without network, on errors and when signed out', async () => {
    await storeEvent(pack, 'landing-saved', 'a', saved, at);
    expect(await flush(field(() => 'down').send)).toMatchObject({ state: 'offline', waiting: 1 });
    expect(await flush(field(() => 'error').send)).toMatchObject({ state: 'offline', waiting: 1 });
    expect(await flush(field(() => '401').send)).toMatchObject({ state: 'sign-in', waiting: 1 });
    expect(await flush(field(() => 'ok').send)).toMatchObject({ state: 'sent', waiting: 0 });
  });
  it('keeps refused and held events on the device, each for its own reason', async () => {
    const one = await storeEvent(pack, 'landing-saved', 'a', saved, at);
    const two = await storeEvent(pack, 'landing-saved', 'b', saved, at);
    const send = (async () =>
      Response.json({
        accepted: [],
        refused: [{ eventId: one.eventId, message: 'bad' }],
        held: [{ eventId: two.eventId, message: 'another account' }],
      })) as typeof fetch;
    expect((await flush(send)).waiting).toBe(1);
    expect(await store().events.get(one.eventId)).toMatchObject({ sent: 2, refusal: 'bad' });
    expect(await store().events.get(two.eventId)).toMatchObject({ sent: 0 });
  });
  it('whatever the network does, the field ends with every event exactly once', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom('ok', 'drop-answer', 'down', '401', 'error'), { maxLength: 12 }),
        fc.integer({ min: 1, max: 12 }),
        async (weather, n) => {
          await store().events.clear();
          const f = field((call) => (weather[call - 1] as 'ok' | undefined) ?? 'ok');
          for (let i = 0; i < n; i++) {
            await storeEvent(pack, 'landing-saved', `l${i}`, saved, at);
            await flush(f.send);
          }
          for (let i = 0; i <= weather.length; i++) await flush(f.send);
          expect(await waitingCount()).toBe(0);
          expect(f.has.size).toBe(n);
        },
      ),
      { numRuns: 40 },
    );
  });
  it('a pack brings what the field has and never overwrites what waits here', async () => {
    const mine = await storeEvent(pack, 'landing-saved', 'a', saved, at);
    await keepPack({ ...pack, events: [{ ...mine, payload: { ...saved, touched: 'flat' } }] });
    expect(await store().events.get(mine.eventId)).toMatchObject({ sent: 0, payload: { touched: 'three-point' } });
  });
});

const event = (
  type: CaptureEvent['type'],
  subjectId: string,
  payload: unknown,
  n: number,
  deviceId = 'd1',
): CaptureEvent => ({
  eventId: `${deviceId}-${n}-${type}`,
  deviceId,
  deviceSeq: n,
  sortieId: 's1',
  subjectId,
  author: 'u1',
  type,
  v: 1,
  deviceTime: new Date(at.getTime() + n * 1000).toISOString(),
  payload,
});

describe('fold', () => {
  it('drafts come back and are never counted', () => {
    const f = fold([
      event('field-set', 'a', { field: 'touched', value: 'flat' }, 1),
      event('field-set', 'a', { field: 'intervention', value: 1 }, 2),
    ]);
    expect(f.landings).toEqual([]);
    expect(f.drafts).toEqual({ a: { touched: 'flat', intervention: 1 } });
  });
  it('a double save is one landing; undone is gone; corrected is the newer', () => {
    const twice = [
      event('landing-saved', 'a', saved, 1),
      event('landing-saved', 'a', { ...saved, touched: 'flat' }, 2),
    ];
    expect(fold(twice).landings.map((l) => l.landing.touched)).toEqual(['three-point']);
    expect(fold([...twice, event('undone', 'a', {}, 3)]).landings).toEqual([]);
    expect(
      fold([...twice, event('corrected', 'a', { ...saved, touched: 'tail-first' }, 4)]).landings[0]?.landing.touched,
    ).toBe('tail-first');
  });
  it('does not depend on the order or on repeats', () => {
    const all = [
      event('landing-saved', 'a', saved, 1),
      event('landing-saved', 'b', saved, 2, 'd2'),
      event('undone', 'a', {}, 3),
      event('wind-logged', 'w', { kt: 1 }, 4),
      event('wind-logged', 'w2', { kt: 2 }, 5, 'd2'),
      event('item-observed', 'i', { itemId: 'F1' }, 6),
    ];
    const expected = fold(all);
    fc.assert(
      fc.property(fc.shuffledSubarray(all, { minLength: all.length }), fc.subarray(all), (order, repeats) => {
        expect(fold([...order, ...repeats])).toEqual(expected);
      }),
    );
  });
});

describe('wheels and surface', () => {
  const check = {
    surface: 'water',
    lamps: {},
    seen: {},
    spoken: 'water-up',
    onFinal: false,
    decision: 'agree',
    reasons: [],
  };
  it('the newest check stands, with what has happened since', () => {
    const go = { ...saved, kind: 'go-around' };
    const f = fold([
      event('gear-checked', 'g1', check, 1),
      event('landing-saved', 'a', go, 2),
      event('gear-checked', 'g2', { ...check, onFinal: true }, 3),
      event('gear-event', 'x', { kind: 'lever-moved' }, 4),
      event('landing-saved', 'b', saved, 5),
      event('landing-saved', 'c', { ...saved, kind: 'touch-and-go' }, 6),
    ]);
    expect(f.gear).toMatchObject({ check: { onFinal: true }, since: ['lever-moved', 'touch-and-go'] });
    expect(fold([event('landing-saved', 'a', go, 1)]).gear).toBeNull();
  });
});

describe('draft', () => {
  it('nothing is chosen beforehand but the kind and the attitude meant', () => {
    const { kind, intended, demonstration, goAroundExecution, ...rest } = freshDraft(pack);
    expect({ kind, intended, demonstration, goAroundExecution }).toEqual({
      kind: 'full-stop',
      intended: 'three-point',
      demonstration: false,
      goAroundExecution: {},
    });
    expect(
      Object.values(rest).every(
        (v) => v === null || v === '' || (typeof v === 'object' && Object.keys(v).length === 0),
      ),
    ).toBe(true);
  });
  it('a side tapped again goes to the next band', () => {
    const bands = ['none', 'slight', 'marked'];
    const one = nextSided(null, 'left', bands);
    expect([one, nextSided(one, 'left', bands), nextSided(one, 'right', bands)]).toEqual([
      { band: 'slight', side: 'left' },
      { band: 'marked', side: 'left' },
      { band: 'slight', side: 'right' },
    ]);
  });
  it('arrows move the place and stop at the edges', () => {
    let d = { ...freshDraft(pack), ...movePlace(freshDraft(pack), 0, 0) };
    for (let i = 0; i < 9; i++) d = { ...d, ...movePlace(d, 1, -1) };
    expect(d).toMatchObject({ along: 'very-long', lateral: 'beyond-left' });
  });
  it('clean is offered only when stopped or climbing away, and never for a go-around', () => {
    expect(cleanOffered(freshDraft(pack), null)).toBe(false);
    expect(cleanOffered(freshDraft(pack), 'stopped')).toBe(true);
    expect(cleanOffered({ ...freshDraft(pack), kind: 'go-around' }, 'stopped')).toBe(false);
  });
  it('a go-around carries no landing fields, a landing no go-around ones', () => {
    expect(
      toCaptured({ ...freshDraft(pack), kind: 'go-around', touched: 'flat', goAroundWord: 'at' }, null, '22'),
    ).toMatchObject({ touched: null, goAroundWord: 'at' });
    expect(toCaptured({ ...freshDraft(pack), goAroundWord: 'at' }, null, '22')).toMatchObject({ goAroundWord: null });
  });
});
