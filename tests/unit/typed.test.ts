/**
 * What must not compile, planted: each line below an expected error is one, or `npm run types` fails. Beside it, what the
 * register of events answers to those who read it.
 */
import { describe, expect, it } from 'vitest';
import { LIMITATION_WORDS, type LimitationProblem } from '@/core/schedule';
import { MISSING_WORDS } from '@/core/assess';
import { PAYLOADS, payloadSchema } from '@/domain/capture';
import { type Coded, coder, sentence } from '@/domain/coded';
import { EVENT_TYPES, type EventType } from '@/domain/words';
import { NAMING, type EventDefinition, affecting, agreementEnds, definitionOf, pilotNamed } from '@/offline/protocol';
import { SHARED_WORDS, teller } from '@/server/floor/sentences';

type Register = { readonly [T in EventType]: EventDefinition<T> };
type Payloads = Record<EventType, Record<number, unknown>>;

describe('does not compile', () => {
  it('a code without a sentence, a sentence with a wrong or a forgotten parameter', () => {
    const code = coder(MISSING_WORDS);
    // @ts-expect-error no sentence has this code
    code('more-luck');
    // @ts-expect-error a number is asked for
    code('more-days', { atLeast: '2' });
    // @ts-expect-error its parameter is forgotten
    code('more-days');
    // @ts-expect-error it has none
    code('not-seen', { atLeast: 2 });
    // @ts-expect-error a code of another catalogue
    expect(() => sentence(LIMITATION_WORDS, { code: 'more-days', params: { atLeast: 2 } })).toThrow();
    // @ts-expect-error no refusal has this code
    expect(() => teller(SHARED_WORDS)('nobody-home')).toThrow();
    const said: Coded<typeof MISSING_WORDS> = { code: 'more-days', params: { atLeast: 2 } };
    expect(sentence(MISSING_WORDS, said)).toBe('on at least 2 days');
  });
  it('a code that nobody handles', () => {
    // @ts-expect-error the surface is left out
    const fields: Record<LimitationProblem['code'], string> = { solo: 'a', 'no-passengers': 'b', crosswind: 'c' };
    expect(Object.keys(fields)).toHaveLength(3);
  });
  it('an event that is left out of the register or of the payloads', () => {
    const known = {} as Omit<Register, 'corrected'>;
    // @ts-expect-error corrected is left out
    const register: Register = known;
    const { corrected: _, ...rest } = PAYLOADS;
    // @ts-expect-error corrected is left out
    const payloads: Payloads = rest;
    expect([register, Object.keys(payloads)]).toEqual([{}, expect.not.arrayContaining(['corrected'])]);
  });
});

describe('the register of events', () => {
  it('knows every type, and no other', () => {
    for (const type of EVENT_TYPES) expect(definitionOf({ type })?.affects.length, type).toBeGreaterThan(0);
    expect(definitionOf({ type: 'of-a-later-release' as EventType })).toBeNull();
    expect(payloadSchema('undone', 1)?.safeParse({}).success).toBe(true);
    expect(payloadSchema('undone', 2)).toBeNull();
  });
  it('says which events a read has to see, by hand', () => {
    expect(affecting('clock')).toEqual(['undone', 'timer-marked']);
    expect(affecting('captured')).toEqual(['landing-saved', 'corrected', 'undone', 'item-observed']);
    expect(affecting('landings', 'items', 'gear', 'limits')).toEqual([
      'landing-saved',
      'corrected',
      'undone',
      'item-observed',
      'gear-checked',
      'gear-event',
      'measured',
      'overruled',
      'limit-overridden',
    ]);
    expect(NAMING).toEqual(['landing-saved', 'corrected', 'item-observed']);
    expect(EVENT_TYPES.filter((type) => definitionOf({ type })?.said !== 'cockpit')).toEqual([
      'item-waived',
      'measured',
      'overruled',
      'stop-explained',
      'limit-overridden',
      'cut-short',
      'handed-over',
    ]);
    expect(EVENT_TYPES.filter((type) => definitionOf({ type })?.changes)).toEqual([
      'corrected',
      'undone',
      'measured',
      'overruled',
    ]);
  });
  it('whom an event names, and what ends an agreement of the wheels', () => {
    expect(pilotNamed({ type: 'pilot-swapped', payload: { pilotId: 'p' } })).toBe('p');
    expect(pilotNamed({ type: 'landing-saved', payload: { kind: 'full-stop' } })).toBeNull();
    expect(pilotNamed({ type: 'wind-logged', payload: {} })).toBeNull();
    expect(agreementEnds({ type: 'landing-saved', payload: { kind: 'touch-and-go' } })).toEqual(['touch-and-go']);
    expect(agreementEnds({ type: 'landing-saved', payload: { kind: 'full-stop' } })).toEqual([]);
    expect(agreementEnds({ type: 'gear-event', payload: { kind: 'lever-moved' } })).toEqual(['lever-moved']);
  });
});
