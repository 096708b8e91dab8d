import { randomUUID } from 'node:crypto';
import type { EventType } from '@/domain/words';
import type { SyncAnswer } from '@/offline/protocol';
import { event, landing } from '../lib/events';
import type { Facts } from './facts';
import { type Attack, type World, act, ask, mustHold, said, signIn } from './world';

/** 2, 6, 9: what a device or a page says of a flight. */
export function flightAttacks(world: World, facts: Facts, full: boolean): Attack[] {
  const { server } = world;
  const send = async (cookie: string, events: unknown[]): Promise<SyncAnswer & { status: number; ms: number }> => {
    const a = await ask(server, '/api/sync', {
      cookie,
      headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin' },
      body: JSON.stringify({ events, sentAt: new Date().toISOString() }),
    });
    return { ...(JSON.parse(a.text || '{}') as SyncAnswer), status: a.status, ms: a.ms };
  };
  const refusedAll = async (cookie: string, tries: Record<string, unknown[]>): Promise<string> => {
    for (const [what, events] of Object.entries(tries)) {
      const answer = await send(cookie, events);
      mustHold(answer.status === 200, `${what}: ${answer.status}`);
      mustHold(answer.refused.length === events.length, `${what} was taken`);
    }
    return `${Object.keys(tries).length} ways refused, each with its reason`;
  };
  return [
    {
      no: '2',
      name: 'evidence for oneself',
      run: async () => {
        const { cookie } = await signIn(server, 'vasco');
        const by = (type: EventType, payload: unknown, subjectId: string = facts.landingOfVasco) =>
          event('user-vasco', facts.shared, type, payload, { subjectId });
        const why = 'it was good enough for me';
        return refusedAll(cookie, {
          'a landing of his own': [by('landing-saved', landing({ pilotId: facts.vascoPilot }), randomUUID())],
          'an item of his own': [
            by(
              'item-observed',
              { itemId: 'F1', verdict: 'within', intervention: 0, note: '', pilotId: facts.vascoPilot },
              randomUUID(),
            ),
          ],
          'his landing corrected': [by('corrected', landing({ pilotId: facts.vascoPilot, lateral: 'line' }))],
          'his landing given to the other pilot': [by('corrected', landing({ pilotId: facts.sharedPilot }))],
          'his landing taken back': [by('undone', {})],
          'his landing overruled': [by('overruled', { what: 'class', to: 'own', reason: why })],
          'his landing measured': [by('measured', { traceId: facts.trace, atS: 1, values: { touch: 0 }, item: null })],
          'his stop explained': [by('stop-explained', { reason: why })],
          'the limit set aside for him': [by('limit-overridden', { limit: 'house', reason: why }, facts.shared)],
          'an item waived in his flight': [by('item-waived', { itemId: 'F1', reason: why }, randomUUID())],
        });
      },
    },
    {
      no: '2',
      name: 'another instructor\u2019s flight, made-up measures, days that have not been',
      run: async () => {
        const vasco = await signIn(server, 'vasco');
        const helena = await signIn(server, 'helena');
        const his = (type: EventType, payload: unknown, more: object = {}) =>
          event('user-vasco', facts.other, type, payload, more);
        const hers = (type: EventType, payload: unknown, more: object = {}) =>
          event('user-helena', facts.other, type, payload, more);
        const first = await refusedAll(vasco.cookie, {
          'a landing in a flight he neither briefed nor flew': [his('landing-saved', landing())],
        });
        const known = event('user-helena', facts.other, 'landing-saved', landing());
        mustHold((await send(helena.cookie, [known])).accepted.length === 1, 'an honest landing was refused');
        const subjectId = known.subjectId;
        const ahead = new Date(Date.now() + 3 * 86_400_000).toISOString();
        const second = await refusedAll(helena.cookie, {
          'a measure without a recording': [
            hers('measured', { traceId: 'made-up', atS: 1, values: { touch: 0 }, item: null }, { subjectId }),
          ],
          'a landing after now': [hers('landing-saved', landing(), { deviceTime: ahead })],
          'a landing that ended after now': [hers('landing-saved', landing({ endedAt: ahead }))],
          'a wind after now': [hers('wind-logged', { fromDegMag: 200, kt: 8, gustKt: null, at: ahead })],
          'a landing years before the flight': [
            hers('landing-saved', landing(), { deviceTime: '2019-01-01T10:00:00.000Z' }),
          ],
          'a demonstration by overruling': [
            hers('overruled', { what: 'class', to: 'demonstration', reason: 'it was mine after all' }, { subjectId }),
          ],
        });
        const desk = await act(
          server,
          'overruleAction',
          [{ sortieId: facts.other, subjectId, what: 'class', to: 'own', reason: 'good enough for me' }],
          vasco,
        );
        mustHold(desk.value.ok === false, 'overruled at a desk by somebody who was not there');
        return `${first}; ${second}; at a desk: ${said(desk).slice(0, 60)}`;
      },
    },
    {
      no: '6',
      name: 'events that block, poison or fill a flight',
      run: async () => {
        const helena = await signIn(server, 'helena');
        const vasco = await signIn(server, 'vasco');
        const hers = (type: EventType, payload: unknown, more: object = {}) =>
          event('user-helena', facts.other, type, payload, more);
        const good = hers('landing-saved', landing());
        mustHold((await send(helena.cookie, [good])).accepted.length === 1, 'an honest landing was refused');
        mustHold((await send(helena.cookie, [good])).accepted.length === 1, 'sent twice it was refused');
        const batch = [
          hers('landing-saved', landing(), {
            deviceId: '0ff1ce00-0000-4000-8000-000000000001',
            deviceSeq: 999_999_999,
          }),
          hers('landing-saved', landing(), { subjectId: facts.landingOfVasco }),
          hers('landing-saved', landing(), { subjectId: facts.shared }),
          { ...good, payload: landing({ note: 'another payload' }) },
          hers('landing-saved', landing(), { v: 99 }),
          hers('landing-saved', landing({ note: 'x'.repeat(30_000) })),
          hers('field-set', { field: 'a', value: 'y'.repeat(30_000) }),
          hers('landing-saved', landing(), { deviceSeq: 2 ** 60 }),
          hers('landing-saved', landing(), { deviceId: good.deviceId, deviceSeq: 900_000_000 }),
          null,
          7,
          { eventId: 'constructor' },
        ];
        const last = hers('landing-saved', landing());
        const mixed = await send(helena.cookie, [...batch, last]);
        mustHold(mixed.status === 200, `the batch answers ${mixed.status}`);
        mustHold(mixed.refused.length === batch.length, `${mixed.refused.length} of ${batch.length} refused`);
        mustHold(mixed.accepted.includes(String(last.eventId)), 'what was good in the batch was lost');
        const deviceId = randomUUID();
        const stolen = [1, 2, 3].map((deviceSeq) =>
          event('user-vasco', facts.other, 'field-set', { field: 'a', value: 1 }, { deviceId, deviceSeq }),
        );
        await send(vasco.cookie, stolen);
        const own = [1, 2, 3].map((deviceSeq) => hers('field-set', { field: 'a', value: 1 }, { deviceId, deviceSeq }));
        mustHold((await send(helena.cookie, own)).accepted.length === 3, 'another author used up the counters');
        const desk = await act(
          server,
          'overruleAction',
          [
            {
              sortieId: facts.other,
              subjectId: last.subjectId,
              what: 'class',
              to: 'prompted',
              reason: 'a word was given',
            },
          ],
          helena,
        );
        mustHold(said(desk) === 'done', `the desk does not work any more: ${said(desk)}`);
        const flood = Array.from({ length: full ? 1800 : 200 }, () => hers('landing-saved', landing()));
        let taken = 0;
        for (let i = 0; i < flood.length; i += 100)
          taken += (await send(helena.cookie, flood.slice(i, i + 100))).accepted.length;
        mustHold(taken < 140, `${taken} landings on one flight`);
        const next = await send(helena.cookie, [
          hers('timer-marked', { mark: 'landed', at: '2026-11-24T14:05:00.000Z' }),
        ]);
        const change = await send(helena.cookie, [
          hers('corrected', landing({ lateral: 'wheel-left' }), { subjectId: last.subjectId }),
        ]);
        mustHold(Math.max(next.ms, change.ms) < 10_000, `the next take takes ${next.ms} and ${change.ms} ms`);
        return `${batch.length} refused one by one and the good one kept; counters are each author\u2019s own; ${taken} of ${flood.length} landings taken, the next change in ${change.ms} ms`;
      },
    },
    {
      no: '9',
      name: 'under a signature',
      run: async () => {
        const { cookie } = await signIn(server, 'helena');
        const { sortie, landing: subjectId, checkout } = facts.signed;
        const by = (type: EventType, payload: unknown, more: object = {}) =>
          event('user-helena', sortie, type, payload, more);
        const now = new Date().toISOString();
        const first = await refusedAll(cookie, {
          'a landing undone': [by('undone', {}, { subjectId })],
          'a landing corrected': [by('corrected', landing(), { subjectId })],
          'a landing overruled': [
            by('overruled', { what: 'class', to: 'own', reason: 'it was good enough' }, { subjectId }),
          ],
          'a landing added after it': [by('landing-saved', landing(), { deviceTime: now })],
          'an item waived after it': [by('item-waived', { itemId: 'F1', reason: 'it was good enough' })],
        });
        // Recorded on the day of the flight, come in late.
        const flown = await ask(server, `/api/ledger/${facts.signed.entry}/json`, { cookie });
        const day = (JSON.parse(flown.text) as { entry: { signedAt: string } }).entry.signedAt;
        const before = new Date(Date.parse(day) - 3_600_000).toISOString();
        const late = await send(cookie, [by('landing-saved', landing(), { deviceTime: before })]);
        mustHold(late.accepted.length === 1, `what came in late was lost: ${late.refused[0]?.message ?? ''}`);
        const page = await ask(server, `/checkouts/${checkout}`, { cookie });
        mustHold(page.text.includes('Received after the signature'), 'what came in late is not shown');
        return `${first}; a landing recorded before the signature is kept, and shown as received after it`;
      },
    },
  ];
}
