import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AGREEMENT_S, GEAR_EVENTS, type GearCheck, STOP_REASONS, gearSurface, gearSurfaceTable } from '@/core/water';

const unlitUp = {
  left: { lit: 'down', unlit: 'up' },
  right: { lit: 'down', unlit: 'up' },
  nose: { lit: 'down', unlit: 'up' },
} as const;
const perWheel = { left: { lit: 'down', unlit: 'up' }, right: { blue: 'up', green: 'down', red: 'transit' } } as const;
const good: GearCheck = {
  surface: 'water',
  lampMeaning: unlitUp,
  lamps: { left: 'unlit', right: 'unlit', nose: 'unlit' },
  seen: { left: 'up', right: 'up', nose: 'up' },
  spoken: 'water-up',
  ageS: 0,
  eventsSince: [],
  onFinal: false,
  madeOnFinal: false,
};

describe('gear and surface, the whole truth table', () => {
  it('an unlit lamp means up: of every row exactly two agree', () => {
    const table = gearSurfaceTable({
      surfaces: ['water', 'land', null, 'ice'],
      lampMeaning: unlitUp,
      lampStates: ['lit', 'unlit', 'failed', 'blue', null],
      seenStates: ['up', 'down', 'hanging', null],
      spokens: ['water-up', 'land-down', 'water-down', 'land-up', 'up', '', ' ', null],
    });
    expect(table.total).toBe(4 * 8 * 5 ** 3 * 4 ** 3);
    expect(table.agree).toEqual([
      {
        surface: 'water',
        spoken: 'water-up',
        lamps: { left: 'unlit', right: 'unlit', nose: 'unlit' },
        seen: { left: 'up', right: 'up', nose: 'up' },
      },
      {
        surface: 'land',
        spoken: 'land-down',
        lamps: { left: 'lit', right: 'lit', nose: 'lit' },
        seen: { left: 'down', right: 'down', nose: 'down' },
      },
    ]);
    expect(table.stop + table.agree.length).toBe(table.total);
  });
  it('wheels with lamps of different kinds: each by its own meaning, again exactly two', () => {
    const table = gearSurfaceTable({
      surfaces: ['water', 'land', null],
      lampMeaning: perWheel,
      lampStates: ['lit', 'unlit', 'blue', 'green', 'red', 'failed', null],
      seenStates: ['up', 'down', null],
      spokens: ['water-up', 'land-down', null],
    });
    expect(table.agree.map((r) => r.lamps)).toEqual([
      { left: 'unlit', right: 'blue' },
      { left: 'lit', right: 'green' },
    ]);
  });
  it('every age, every event, on final or not: agreement dies on each', () => {
    for (const ageS of [0, AGREEMENT_S, AGREEMENT_S + 0.001, 9999, null, Number.NaN])
      for (const event of [null, ...GEAR_EVENTS])
        for (const onFinal of [false, true])
          for (const madeOnFinal of [false, true]) {
            const answer = gearSurface({
              ...good,
              ageS,
              eventsSince: event === null ? [] : [event],
              onFinal,
              madeOnFinal,
            });
            const fresh = ageS !== null && ageS <= AGREEMENT_S;
            expect(answer.decision).toBe(fresh && event === null && (!onFinal || madeOnFinal) ? 'agree' : 'stop');
          }
  });
});

describe('whatever is handed in', () => {
  const word = fc.constantFrom(
    'lit',
    'unlit',
    'failed',
    'up',
    'down',
    'transit',
    'water-up',
    'land-down',
    'water',
    'land',
    '',
    'toString',
    '__proto__',
    'go',
  );
  const table = fc.dictionary(fc.constantFrom('left', 'right', 'nose', 'constructor'), fc.option(word));
  const check = fc.record({
    surface: fc.option(word),
    lampMeaning: fc.dictionary(
      fc.constantFrom('left', 'right', 'constructor'),
      fc.dictionary(word, fc.constantFrom('up' as const, 'down' as const, 'transit' as const)),
    ),
    lamps: table,
    seen: table,
    spoken: fc.option(word),
    ageS: fc.option(fc.double()),
    eventsSince: fc.subarray([...GEAR_EVENTS, 'other']),
    onFinal: fc.boolean(),
    madeOnFinal: fc.boolean(),
  });
  it('agree and a reason never stand together, silence is stop, and the word go never appears', () => {
    fc.assert(
      fc.property(check, (c) => {
        const answer = gearSurface(c);
        expect(answer.decision === 'agree').toBe(answer.reasons.length === 0);
        expect(answer.words === null).toBe(answer.decision === 'stop');
        if (answer.decision === 'agree') {
          const need = c.surface === 'water' ? 'up' : 'down';
          for (const wheel of Object.keys(c.lampMeaning)) {
            expect(c.seen[wheel]).toBe(need);
            expect(c.lampMeaning[wheel]?.[String(c.lamps[wheel])]).toBe(need);
          }
          expect(c.spoken).toBe(`${c.surface ?? ''}-${need}`);
        }
        expect(/\bgo\b/i.test(answer.words ?? '')).toBe(false);
      }),
      { numRuns: 5000 },
    );
  });
  it('reasons come in the order of the checks, and a failed lamp leads to the abnormal check', () => {
    const answer = gearSurface({
      ...good,
      surface: null,
      lamps: { left: 'failed', right: null, nose: 'lit' },
      seen: {},
      spoken: null,
      ageS: null,
      eventsSince: ['touch-and-go', 'lever-moved'],
      onFinal: true,
    });
    expect(answer.reasons).toEqual([...STOP_REASONS].filter((r) => answer.reasons.includes(r)));
    expect(answer).toMatchObject({ decision: 'stop', next: 'abnormal-check', words: null });
  });
});
