import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import commercial from '@content/standards/commercial-us.json';
import privateUs from '@content/standards/private-us.json';
import {
  detailNoted,
  energyExit,
  extremeSteps,
  judgeDetail,
  judgeNumbers,
  judgeQuantity,
  landingNoted,
  orderKept,
  simulatedFailureAllowed,
  stallVerdict,
  worst,
} from '@/core/assess';
import type { AirworkDetail } from '@/domain/capture';
import { Standard } from '@/domain/programme';

const standard = Standard.parse(privateUs);
const limit = { quantity: 'height' as const, low: -100, high: 100, unit: 'ft', citation: 'test' };
const judged = (detail: AirworkDetail, ktPerUnit = 1) => judgeDetail(detail, standard, ktPerUnit);

describe('a quantity against its tolerance', () => {
  it.each([
    [0, 'within'],
    [80, 'within'],
    [80.1, 'edge'],
    [100, 'edge'],
    [100.5, 'outside'],
    [-100, 'edge'],
    [-101, 'outside'],
  ] as const)('%d ft is %s', (x, verdict) => expect(judgeQuantity(limit, x, 0.2)).toBe(verdict));
  it('inside is within, and nobody looked is not seen', () => {
    expect(judgeQuantity(limit, 'inside', 0.2)).toBe('within');
    expect(judgeQuantity(limit, null, 0.2)).toBe('not-seen');
  });
  it('a side without room has no inside', () => {
    const slow = { ...limit, low: 0, high: 10 };
    expect(judgeQuantity(slow, -0.5, 0.2)).toBe('outside');
    expect(judgeQuantity(slow, 0, 0.2)).toBe('within');
  });
  it('is never better further out', () => {
    const rank = { 'not-seen': -1, within: 0, edge: 1, outside: 2 };
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 300, noNaN: true }),
        fc.double({ min: 0, max: 50, noNaN: true }),
        (x, more) => rank[judgeQuantity(limit, x + more, 0.2)] >= rank[judgeQuantity(limit, x, 0.2)],
      ),
    );
  });
  it('offers buttons on both sides, rising, one of them outside on each side', () => {
    for (const row of standard.airwork)
      for (const l of row.limits) {
        const steps = extremeSteps(l);
        expect([...steps].sort((a, b) => a - b)).toEqual(steps);
        expect(steps).not.toContain(0);
        expect(judgeQuantity(l, steps[0] ?? 0, 0.2)).toBe('outside');
        expect(judgeQuantity(l, steps[steps.length - 1] ?? 0, 0.2)).toBe('outside');
      }
  });
  it('the worst seen counts, and what nobody saw does not', () => {
    expect(worst(['not-seen', 'within', 'edge'])).toBe('edge');
    expect(worst([])).toBe('not-seen');
    expect(worst(['not-seen', 'not-seen'])).toBe('not-seen');
  });
});

describe('manoeuvres', () => {
  const turn = (seen: Extract<AirworkDetail, { form: 'numbers' }>['seen']): AirworkDetail => ({
    form: 'numbers',
    kind: 'steep-turn',
    set: { bank: 45 },
    seen,
  });
  it('a steep turn inside everything is within; one extreme outside is outside', () => {
    expect(judged(turn({ height: 'inside', speed: 'inside', bank: 'inside', rollOut: 'inside' })).verdict).toBe(
      'within',
    );
    expect(judged(turn({ height: 150, speed: 'inside' })).verdict).toBe('outside');
    expect(judged(turn({})).verdict).toBe('not-seen');
  });
  it('turns the dial’s miles per hour into the standard’s knots', () => {
    const all = { bank: 'inside', height: 'inside', rollOut: 'inside', speed: 11 } as const;
    expect(judged(turn(all), 0.868976).verdict).toBe('edge');
    expect(judged(turn({ speed: 11 })).verdict).toBe('outside');
  });
  it('the stricter standard is stricter', () => {
    const fine = Standard.parse(commercial);
    expect(judgeNumbers(fine.airwork.find((a) => a.kind === 'slow-flight') ?? null, { height: 60 }, 0.2)?.overall).toBe(
      'outside',
    );
    expect(
      judgeNumbers(standard.airwork.find((a) => a.kind === 'slow-flight') ?? null, { height: 60 }, 0.2)?.overall,
    ).toBe('within');
    expect(judgeNumbers(null, {}, 0.2)).toBeNull();
  });
  const stall = (change: Partial<Extract<AirworkDetail, { form: 'stall' }>>): AirworkDetail => ({
    form: 'stall',
    stall: 'clean',
    lookOut: true,
    cue: 'horn',
    cueSpeed: 45,
    recovery: 'unloaded-first',
    heightLostFt: 100,
    seen: {},
    ...change,
  });
  it.each([
    ['unloaded-first', 'within'],
    ['power-first', 'edge'],
    ['aileron-first', 'outside'],
    ['rudder-first', 'outside'],
    ['secondary-stall', 'outside'],
  ] as const)('recovered %s is %s', (recovery, verdict) => {
    expect(stallVerdict(recovery)).toBe(verdict);
    expect(judged(stall({ recovery })).verdict).toBe(verdict);
  });
  it('a stall without a look-out is outside, and says so', () => {
    expect(judged(stall({ lookOut: false }))).toMatchObject({ verdict: 'outside', reasons: [{ code: 'no-look-out' }] });
    expect(judged(stall({ lookOut: null, recovery: null })).verdict).toBe('not-seen');
  });
  it('an exit is held against its entry, over the north too', () => {
    const entry = { heightFt: 3000, speed: 120, headingDeg: 350 };
    expect(energyExit(entry, { heightFt: 3100, speed: 115, headingDeg: 5 }, false)).toEqual({
      height: 100,
      speed: -5,
      heading: 15,
    });
    expect(energyExit(entry, { heightFt: 3000, speed: 120, headingDeg: 175 }, true).heading).toBe(5);
    expect(energyExit(entry, { heightFt: null, speed: 120, headingDeg: null }, true)).toEqual({
      height: null,
      speed: 0,
      heading: null,
    });
    expect(
      judged({
        form: 'energy',
        item: 'wing-over',
        reciprocal: true,
        entry,
        exit: { heightFt: 3250, speed: 120, headingDeg: 170 },
      }).verdict,
    ).toBe('outside');
  });
  it('going on past the first cue is outside; the word simulated is asked for', () => {
    const base: AirworkDetail = {
      form: 'asymmetric',
      item: 'control-speed',
      heightFt: 5000,
      saidSimulated: false,
      firstCue: 'heading-moved',
      recovery: 'after-a-second-cue',
      set: {},
      seen: { heading: 'inside' },
    };
    expect(judged(base)).toMatchObject({
      verdict: 'outside',
      reasons: [{ code: 'simulated-not-said' }, { code: 'past-first-cue' }],
    });
    expect(judged({ ...base, recovery: 'at-first-cue', saidSimulated: true })).toMatchObject({
      verdict: 'within',
      reasons: [],
    });
  });
  it('a surprise answered as the model has it, doubtfully, or otherwise', () => {
    const answer = (a: string, verdict: 'reaches' | 'doubtful' | 'no') =>
      judged({ form: 'surprise', leg: 'downwind', heightFt: 900, answer: a, model: '22', verdict, marginFt: 300 })
        .verdict;
    expect([answer('22', 'reaches'), answer('22', 'doubtful'), answer('11', 'reaches')]).toEqual([
      'within',
      'edge',
      'outside',
    ]);
  });
});

describe('a list in order', () => {
  it.each([
    [3, [0, 1, 2], [], [], 'within'],
    [3, [0, 2, 1], [], [1], 'edge'],
    [3, [2, 0, 1], [], [2], 'edge'],
    [3, [0, 1], [2], [], 'outside'],
    [4, [3, 2, 0, 1], [], [3, 2], 'outside'],
    [3, [], [0, 1, 2], [], 'not-seen'],
  ] as const)('%d steps ticked %j', (count, ticks, missed, out, verdict) => {
    expect(orderKept(count, ticks)).toMatchObject({ missed, outOfOrder: out, verdict });
  });
  it('keeps the longest rising run, whatever is ticked', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9 }),
        fc.array(fc.integer({ min: -1, max: 10 }), { maxLength: 14 }),
        (count, ticks) => {
          const r = orderKept(count, ticks);
          const first = ticks.filter((t, i) => t >= 0 && t < count && ticks.indexOf(t) === i);
          const kept = first.filter((t) => !r.outOfOrder.includes(t));
          expect([...kept].sort((a, b) => a - b)).toEqual(kept);
          expect(r.missed.length + first.length).toBe(count);
          // No longer rising run exists: every single step put back breaks it.
          for (const t of r.outOfOrder)
            expect(
              [...kept, t]
                .sort((a, b) => first.indexOf(a) - first.indexOf(b))
                .every((x, i, all) => i === 0 || x > (all[i - 1] ?? -1)),
            ).toBe(false);
        },
      ),
    );
  });
  it('speeds have no order: one forgotten is just, two are not', () => {
    const speeds = (ticks: number[]): AirworkDetail => ({
      form: 'steps',
      kind: 'speeds',
      list: 'Speeds',
      steps: ['a', 'b', 'c'],
      ticks,
    });
    expect([judged(speeds([2, 0, 1])).verdict, judged(speeds([2, 0])).verdict, judged(speeds([2])).verdict]).toEqual([
      'within',
      'edge',
      'outside',
    ]);
    expect(
      judged({ form: 'steps', kind: 'flow', list: 'Flow', steps: ['a', 'b', 'c'], ticks: [0, 2, 1] }),
    ).toMatchObject({ verdict: 'edge', reasons: [{ code: 'out-of-order', params: { steps: ['b'] } }] });
  });
  it('an exchange needs its words, in order, and the feet off', () => {
    const words = (ticks: number[], feetClear: boolean | null): AirworkDetail => ({
      form: 'exchange',
      list: 'Exchange',
      steps: ['I have', 'You have', 'I have'],
      ticks,
      feetClear,
    });
    expect(judged(words([0, 1, 2], true)).verdict).toBe('within');
    expect(judged(words([0, 1, 2], false))).toMatchObject({
      verdict: 'outside',
      reasons: [{ code: 'feet-stayed-on' }],
    });
    expect(judged(words([0, 1], true)).verdict).toBe('outside');
  });
});

describe('simulated failures, every case', () => {
  const heights = [null, 0, 499, 500, 799, 800, 2999, 3000];
  const speeds = [null, 30, 35, 36, 77, 78, 100];
  const twin = { vsse: 78, vmca: 70 };
  it('is never allowed below the floor, nor in a twin below Vsse, nor feathered below 3000 ft', () => {
    for (const heightAglFt of heights)
      for (const speed of speeds)
        for (const t of [null, twin])
          for (const airborne of [true, false])
            for (const realFeather of [true, false])
              for (const houseFloorFt of [0, 800]) {
                const r = simulatedFailureAllowed({ heightAglFt, houseFloorFt, twin: t, speed, airborne, realFeather });
                const floor = Math.max(500, houseFloorFt);
                const expected = airborne
                  ? heightAglFt !== null &&
                    heightAglFt >= floor &&
                    (t === null || (speed !== null && speed >= t.vsse)) &&
                    !(realFeather && heightAglFt < 3000)
                  : t === null || (speed !== null && speed <= t.vmca / 2);
                expect(
                  r.allowed,
                  JSON.stringify({ heightAglFt, speed, t, airborne, realFeather, houseFloorFt, r }),
                ).toBe(expected);
                expect(r.reasons.length === 0).toBe(r.allowed);
              }
  });
});

describe('noted, in words', () => {
  it('says only what was seen', () => {
    expect(landingNoted({}, [], 'kt')).toEqual([]);
    expect(
      landingNoted(
        {
          gateSpeeds: { Final: 63 },
          peakG: 1.6,
          landmark: 'passed-not-down',
          helpedOn: ['rudder', 'flap-or-gear'],
          notes: ['high-round-out'],
          note: 'Sun.',
          fromPaper: true,
        },
        [{ name: 'Final', target: 61 }],
        'mph',
      ),
    ).toEqual([
      'read at final 63\u00a0mph (+2)',
      'greatest load 1.6\u00a0g',
      'landmark passed, not down',
      'assisted on rudder and flap or gear',
      'also seen: high round out',
      '\u201cSun.\u201d',
      'entered from paper',
    ]);
  });
  it('has a line for every form', () => {
    expect(detailNoted(null, 'kt')).toBe('');
    expect(
      detailNoted(
        { form: 'numbers', kind: 'steep-turn', set: { bank: 45 }, seen: { height: -50, speed: 'inside' } },
        'kt',
      ),
    ).toBe('Steep turn; set bank 45 \u00b0; greatest height \u201350 ft and speed inside');
    expect(
      detailNoted(
        {
          form: 'stall',
          stall: 'clean',
          lookOut: true,
          cue: 'horn',
          cueSpeed: 44,
          recovery: 'unloaded-first',
          heightLostFt: 150,
          seen: {},
        },
        'kt',
      ),
    ).toBe('clean stall; horn at 44\u00a0kt; unloaded first; 150\u00a0ft lost');
    expect(
      detailNoted(
        {
          form: 'energy',
          item: 'loop',
          reciprocal: false,
          entry: { heightFt: 4000, speed: 120, headingDeg: 5 },
          exit: { heightFt: null, speed: null, headingDeg: null },
        },
        'kt',
      ),
    ).toBe('loop; in 4000\u00a0ft, 120\u00a0kt, 005\u00b0; out not seen');
    expect(
      detailNoted(
        { form: 'surprise', leg: 'base', heightFt: 600, answer: '22', model: 'field', verdict: 'no', marginFt: -40 },
        'kt',
      ),
    ).toBe('asked on base at 600\u00a0ft; answered 22; the model field');
    expect(
      detailNoted(
        { form: 'exchange', list: 'Exchange of control', steps: ['a', 'b', 'c'], ticks: [0, 1, 1], feetClear: true },
        'kt',
      ),
    ).toBe('Exchange of control; 2 of 3 said');
  });
});
