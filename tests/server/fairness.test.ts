/** Doors of the field that somebody who wants to bend the record would try. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CaptureEvent, CapturedLanding } from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';
import { recordEvents } from '@/server/fly/commands/capture';
import { overrule } from '@/server/debrief/commands/debrief';
import { signCheckout, signNotYet, signPart, signingState } from '@/server/ledger/commands/sign';
import { countsText } from '@/server/ledger/words';
import { ledgerLines } from '@/server/ledger/queries/entries';
import { changesOf } from '@/server/checkout/queries/changes';
import { flyingOf } from '@/server/people/queries/flying';
import { DEMO_PASSWORD } from '@demo/people';
import { demoFolder } from './folder';
import { flownCheckout, formFor, recordOf, said, user } from './signed';

let close: () => Promise<void>;
let id = '';
beforeAll(async () => {
  ({ close } = await demoFolder());
  id = await flownCheckout(await user('helena'), 'tome', 'ZP-URZ', ['tailwheel'], 'us', ['2026-11-22', '2026-11-24']);
}, 120_000);
afterAll(() => close());

let seq = 0;
const deviceId = randomUUID();
const event = (
  type: CaptureEvent['type'],
  sortieId: string,
  payload: unknown,
  subjectId: string = randomUUID(),
): CaptureEvent => ({
  eventId: randomUUID(),
  deviceId,
  deviceSeq: ++seq,
  sortieId,
  subjectId,
  author: 'user-helena',
  type,
  v: 1,
  deviceTime: new Date(Date.UTC(2026, 10, 24, 13, seq)).toISOString(),
  payload,
});
const landing = (over: Partial<CapturedLanding> = {}): CapturedLanding => ({
  ...UNSEEN,
  kind: 'full-stop',
  intended: 'three-point',
  touched: 'three-point',
  intervention: 0,
  runwayEnd: '22',
  ...over,
});
const refusals = async (events: CaptureEvent[]) =>
  (await recordEvents(await user('helena'), events)).refused.map((r) => r.message);

describe('on the way in', () => {
  it('a touch as a low pass, a word that cannot be meant and a pilot who is not aboard are refused, each with what to do', async () => {
    const { sorties } = await recordOf(id);
    const s = sorties[0]?.id ?? '';
    const messages = await refusals([
      event('landing-saved', s, landing({ kind: 'low-pass' })),
      event('landing-saved', s, { ...landing(), intended: 'flat' }),
      event('landing-saved', s, landing({ pilotId: 'pilot-rui' })),
      event('pilot-swapped', s, { pilotId: 'pilot-rui' }),
    ]);
    expect(messages).toEqual([
      expect.stringContaining('A low pass does not touch'),
      expect.stringContaining('intended'),
      expect.stringContaining('not in this flight'),
      expect.stringContaining('not in this flight'),
    ]);
  });
  it('a landing nobody is named for is not overruled into the pilot’s own', async () => {
    const helena = await user('helena');
    const { sorties } = await recordOf(id);
    const s = sorties[0]?.id ?? '';
    const nobody = event('landing-saved', s, landing({ intervention: null }));
    const shown = event('landing-saved', s, landing({ demonstration: true }));
    expect(await refusals([nobody, shown])).toEqual([]);
    const form = { sortieId: s, what: 'class', to: 'own', reason: 'It was flown by the pilot alone.' };
    expect(said(await overrule(helena, { ...form, subjectId: nobody.subjectId }))).toContain('not-the-pilots');
    expect(said(await overrule(helena, { ...form, subjectId: shown.subjectId, to: 'assisted' }))).toContain(
      'your-demonstration',
    );
    // An event past the page changes nothing either: the class is worked out again.
    await refusals([event('overruled', s, { what: 'class', to: 'own', reason: form.reason }, nobody.subjectId)]);
    expect((await recordOf(id)).landings.find((l) => l.id === nobody.subjectId)?.judged.landingClass).toBe(
      'not-judged',
    );
    await refusals([event('undone', s, {}, nobody.subjectId), event('undone', s, {}, shown.subjectId)]);
    expect((await changesOf(await recordOf(id), 1)).map((c) => [c.change, c.by])).toEqual([
      ['undone', 'Helena Serpa Dorna'],
      ['undone', 'Helena Serpa Dorna'],
    ]);
  });
  it('a take-off has a place and an instant of its own; one nobody knows is never night', async () => {
    const { sorties } = await recordOf(id);
    const s = sorties[1]?.id ?? '';
    // Landed in the dark, after a take-off nobody tapped and then one from the landing before.
    const dark = (minute: number) => new Date(Date.UTC(2026, 10, 24, 20, minute)).toISOString();
    const before = (await flyingOf('pilot-tome')).length;
    const [a, b] = [0, 10].map((m) => event('landing-saved', s, landing({ kind: 'touch-and-go', endedAt: dark(m) })));
    expect(await refusals([a as CaptureEvent, b as CaptureEvent])).toEqual([]);
    const flying = await flyingOf('pilot-tome');
    expect(flying).toHaveLength(before + 4);
    const of = (e: CaptureEvent | undefined) =>
      flying.filter((f) => f.id.startsWith(e?.subjectId ?? '-')).map((f) => [f.kind, f.night]);
    expect(of(b).sort()).toEqual([
      ['landing', true],
      ['takeoff', true],
    ]);
    expect(of(a).sort()).toEqual([
      ['landing', true],
      ['takeoff', false],
    ]);
    await refusals([event('undone', s, {}, a?.subjectId), event('undone', s, {}, b?.subjectId)]);
  });
});

describe('under a signature', () => {
  it('what a part rests on is not put right, taken back or overruled; a further entry is', async () => {
    const helena = await user('helena');
    const form = await formFor(helena, id);
    const part = await signPart(helena, {
      requestId: randomUUID(),
      checkoutId: id,
      shown: form.shown,
      password: DEMO_PASSWORD,
      items: ['F7'],
      text: 'These crosswind landings were shown to me within the standard.',
      remark: '',
    });
    expect(said(part)).toBe('done');
    const { items, landings } = await recordOf(id);
    const rests = items.find((i) => i.item.id === 'F7')?.evidence[0] ?? '';
    const l = landings.find((x) => x.id === rests);
    const s = l?.sortieId ?? '';
    for (const [type, payload] of [
      ['undone', {}],
      ['corrected', landing({ intervention: 2 })],
      ['measured', { traceId: 't', atS: 1, values: { drift: 0 }, item: null }],
      ['overruled', { what: 'class', to: 'prompted', reason: 'a word was given on the line' }],
    ] as const)
      expect(await refusals([event(type, s, payload, rests)])).toEqual([
        expect.stringContaining('A signature is based'),
      ]);
    expect(
      said(
        await overrule(helena, {
          sortieId: s,
          subjectId: rests,
          what: 'class',
          to: 'prompted',
          reason: 'a word was given',
        }),
      ),
    ).toContain('signature-rests');
    expect((await recordOf(id)).landings.find((x) => x.id === rests)?.judged).toEqual(l?.judged);
  });
  it('a refusal names its items, holds them whatever they had, and its entry counts each kind apart', async () => {
    const helena = await user('helena');
    const { shown } = await formFor(helena, id);
    const form = {
      requestId: randomUUID(),
      checkoutId: id,
      shown,
      password: DEMO_PASSWORD,
      text: 'The stall was left late.',
    };
    expect(said(await signNotYet(helena, { ...form, items: [] }))).toContain('Choose what is to be flown');
    expect(said(await signNotYet(helena, { ...form, items: ['X1'] }))).toContain('item-unknown');
    expect(said(await signNotYet(helena, { ...form, items: ['F9'] }))).toBe('done');
    const held = (await recordOf(id)).items.find((i) => i.item.id === 'F9');
    expect(held).toMatchObject({ met: false, refused: { by: 'Helena Serpa Dorna' } });
    expect((await signingState(helena, await recordOf(id))).problems).toMatchObject([
      { code: 'refused', itemId: 'F9', overridable: false },
    ]);
    const [line] = await ledgerLines(helena, { checkoutId: id, kind: 'not-yet' });
    expect(line?.body?.items.map((i) => i.id)).toEqual(['F9']);
    // Shown again, it is signed.
    const { sorties } = await recordOf(id);
    const later = event('item-observed', sorties[1]?.id ?? '', {
      itemId: 'F9',
      verdict: 'within',
      intervention: 0,
      note: '',
      detail: null,
      pilotId: null,
    });
    expect(await refusals([{ ...later, deviceTime: '2026-11-24T23:00:00.000Z' }])).toEqual([]);
    const done = await signCheckout(helena, await formFor(helena, id));
    expect(said(done)).toBe('done');
    const [entry] = await ledgerLines(helena, { id: done.ok ? done.entryId : '' });
    expect(entry?.body && countsText(entry.body.counts)).toMatch(/^\d+ full stops and \d+ go-arounds over 2 lessons$/);
    expect(entry?.body?.counts.landings).toBe(entry?.body?.counts.fullStops);
  });
});
