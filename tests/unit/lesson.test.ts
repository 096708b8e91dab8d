import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Finding,
  type ItemEvidence,
  SHOWN_MEASURES,
  bestAndWorst,
  bias,
  biasWords,
  byLesson,
  compareSelf,
  gateStrips,
  measureOf,
  measureTrend,
  ownHands,
  signed,
  sinceLastTime,
  stageMedians,
  stageOfLesson,
  stageRows,
  stageTallies,
  standardise,
  tableRows,
  trendWords,
} from '@/core/assess';
import {
  type LessonInput,
  attitudeOwned,
  composeProgramme,
  flightMinutes,
  flightRoom,
  groundMinutes,
  type LessonProposal,
  blockTitle,
  proposeLesson,
} from '@/core/plan';
import { ProgrammeSource } from '@/domain/programme';
import { flown } from './landings';

const programme = composeProgramme(
  ProgrammeSource.parse(JSON.parse(readFileSync('content/programmes/tailwheel.json', 'utf8'))),
  'us',
);
const items = (met: readonly string[]): ItemEvidence[] =>
  (programme?.items ?? []).map((item) => ({
    item,
    state: met.includes(item.id) ? 'met' : 'not',
    seen: false,
    lastOutside: false,
    asks: item.evidence,
    credited: null,
    part: null,
    met: met.includes(item.id),
    waived: null,
    progress: 0,
    have: { code: 'nothing' },
    missing: met.includes(item.id) ? [] : [{ code: 'not-seen' }],
    evidence: [],
    leftOut: [],
    asserted: [],
    refused: null,
  }));
const finding = (id: string, over: Partial<Finding> = {}): Finding => ({
  id,
  title: id,
  positive: false,
  state: 'open',
  weight: 5,
  forPilot: true,
  pilot: 'p',
  instructor: 'i',
  numbers: [{ label: 'seen', text: '3 of 8' }],
  evidence: [],
  causes: ['c'],
  next: { title: `fly ${id}`, text: '', minutes: 12, where: 'circuit' },
  clean: 0,
  closes: 8,
  sinceLesson: 1,
  ...over,
});
const base: LessonInput = {
  items: items(['G1', 'G2', 'G3', 'G4', 'G5', 'F1', 'F2', 'F3']),
  findings: [],
  firstLanding: 'three-point',
  wheelAllowed: true,
  flown: ['three-point'],
  owned: ['three-point'],
  ladder: { provenKt: 5, ladderKt: 7 },
  forecastKt: 3,
  bookingMin: 90,
  fuelMin: 160,
  groundMin: 22,
  circuitMin: 6,
  daysAway: 7,
};
/** Why an item was left for later. */
const whyLeft = (p: LessonProposal, id: string) =>
  p.left.find((l) => l.title.code === 'item' && l.title.params.id === id)?.why;
const kinds = (i: Partial<LessonInput>) => proposeLesson({ ...base, ...i }).blocks.map((b) => b.kind);

describe('the next lesson', () => {
  it('settles in, works, ends on what is owned', () => {
    const p = proposeLesson(base);
    expect(p.blocks[0]?.kind).toBe('warm-up');
    expect(p.blocks.find((b) => b.kind === 'warm-up')?.minutes).toBe(12);
    expect(p.blocks.at(-1)).toMatchObject({
      kind: 'strength',
      title: { code: 'end-on', params: { attitude: 'three-point' } },
    });
    expect(p.blocks.find((b) => b.kind === 'new')?.title).toMatchObject({ params: { id: 'F5' } });
    expect(p.flightMin).toBeLessThanOrEqual(68);
  });
  it('first lands in the school\u2019s attitude, and only that is new', () => {
    const p = proposeLesson({ ...base, flown: [], owned: [], firstLanding: 'mains-first', daysAway: null });
    expect(p.blocks.filter((b) => b.kind === 'new').map((b) => b.title)).toMatchObject([
      { params: { id: 'F5', circuits: 3 } },
    ]);
    expect(whyLeft(p, 'F4')?.code).toBe('one-new-thing');
  });
  it('rebuilds what was lost and brings nothing new meanwhile', () => {
    const p = proposeLesson({ ...base, findings: [finding('skill-lost-under-load', { weight: 9 })] });
    expect(p.blocks.map((b) => b.kind)).toContain('repeat');
    expect(p.blocks.map((b) => b.kind)).not.toContain('new');
    expect(whyLeft(p, 'F5')?.code).toBe('rebuilding');
    expect(p.focus[0]).toEqual({ code: 'finding', params: { title: 'fly skill-lost-under-load' } });
  });
  it('takes the step of wind that was earned, not more', () => {
    expect(proposeLesson({ ...base, forecastKt: 6.5 }).blocks.find((b) => b.kind === 'new')?.title).toEqual({
      code: 'wind-step',
      params: { forecastKt: 6.5 },
    });
    expect(proposeLesson({ ...base, forecastKt: 12 })).toMatchObject({ wind: { state: 'above' } });
    expect(kinds({ forecastKt: 12 })).not.toContain('new');
    expect(proposeLesson({ ...base, forecastKt: null }).wind.state).toBe('none');
  });
  it('leaves out what asks for more wind than the forecast has', () => {
    const p = proposeLesson({
      ...base,
      ladder: { provenKt: 9, ladderKt: 12 },
      forecastKt: 2,
      items: items(['G1', 'G2', 'G3', 'G4', 'G5', 'F1', 'F2', 'F3', 'F4', 'F5', 'F8', 'F9', 'F10', 'F11', 'F13']),
      flown: ['three-point', 'mains-first'],
      owned: ['three-point'],
    });
    expect(p.left.map((l) => blockTitle(l.title))).toEqual([
      'F6 Crosswind take-offs',
      'F7 Crosswind landings',
      'F12 Roll-out to a full stop in wind',
    ]);
    expect(p.left[1]?.why).toEqual({ code: 'wind-asked', params: { askedKt: 6, forecastKt: 2 } });
  });
  it('an attitude is owned by four of the last five, passes and demonstrations left out', () => {
    const of = (own: number, bad: number) => [
      ...Array.from({ length: bad }, (_, i) => flown(i + 1, { intervention: 2 })),
      ...Array.from({ length: own }, (_, i) => flown(20 + i)),
      flown(60, { demonstration: true }),
    ];
    expect([
      attitudeOwned(of(4, 1), 'three-point'),
      attitudeOwned(of(3, 2), 'three-point'),
      attitudeOwned(of(4, 0), 'three-point'),
      attitudeOwned(of(5, 0), 'mains-first'),
    ]).toEqual([true, false, true, false]);
  });
  it('waits for prerequisites and says so', () => {
    const p = proposeLesson({ ...base, items: items(['G1', 'G2', 'G3', 'G4', 'G5']) });
    // What is first comes earlier in the same lesson, or the item waits.
    expect(p.blocks.flatMap((b) => b.itemIds).slice(0, 3)).toEqual(['F1', 'F2', 'F3']);
    const short = proposeLesson({ ...base, items: items(['G1', 'G2', 'G3', 'G4', 'G5', 'F9', 'F10']), bookingMin: 46 });
    expect(whyLeft(short, 'F3')).toEqual({ code: 'first-items', params: { ids: ['F2'] } });
    expect(short.blocks.flatMap((b) => b.itemIds)).not.toContain('F4');
  });
  it('never flies wheel landings the handbook advises against, and settles in longer after a pause', () => {
    expect(kinds({ wheelAllowed: false })).not.toContain('new');
    expect(proposeLesson({ ...base, daysAway: 60 }).blocks.find((b) => b.kind === 'warm-up')?.minutes).toBe(18);
  });
  it('opens one page of the lab for five minutes: what an item asks, or what explains the weightiest finding', () => {
    const labs = [
      { findingId: 'weave', page: 'ground' as const, query: 'finding=weave&delay=0.5', set: 'A swing of 9\u00b0.' },
      { findingId: 'drops-in', page: 'touch' as const, query: 'finding=drops-in', set: null },
    ];
    const labsOf = (i: Partial<LessonInput>) => proposeLesson({ ...base, ...i }).blocks.filter((b) => b.lab !== null);
    expect(labsOf({ labs })).toEqual([]);
    const findings = [finding('other'), finding('drops-in'), finding('weave')];
    expect(labsOf({ labs, findings })).toMatchObject([
      { id: 'lab-touch', kind: 'ground', minutes: 5, findingId: 'drops-in', lab: { query: 'finding=drops-in' } },
    ]);
    const plain = proposeLesson({ ...base, findings });
    const withLab = proposeLesson({ ...base, findings, labs });
    expect(plain.flightRoomMin - withLab.flightRoomMin).toBe(5);
    const asks = items(['G1', 'G2', 'G3', 'G4', 'G5', 'F1', 'F2', 'F3']).map((i, n) =>
      n > 0
        ? i
        : {
            ...i,
            met: false,
            missing: [{ code: 'lab-pages' as const, params: { pages: ['slip' as const], withinDays: null } }],
          },
    );
    expect(labsOf({ labs, findings, items: asks })).toMatchObject([{ id: 'lab-slip', itemIds: ['G1'] }]);
    // No time: said, not squeezed in.
    const short = proposeLesson({ ...base, findings: [finding('weave')], labs, bookingMin: 36 });
    expect(short.left.map((l) => l.title)).toContainEqual({ code: 'lab', params: { page: 'ground' } });
  });
  it('puts open ground items before the flight and takes their time from the booking', () => {
    const p = proposeLesson({ ...base, items: items([]) });
    expect(p.blocks[0]?.kind).toBe('ground');
    expect(p.flightRoomMin).toBe(90 - 22 - p.groundMin);
  });
  it('always fits, has one new thing at most, flies nothing whose prerequisites are open, repeats no step, ends well when it flies', () => {
    const ids = (programme?.items ?? []).map((i) => i.id);
    fc.assert(
      fc.property(
        fc.subarray(ids),
        fc.subarray(['bounces', 'drift-at-touch', 'skill-lost-under-load', 'help-not-falling', 'weave', 'untrimmed']),
        fc.integer({ min: 10, max: 200 }),
        fc.integer({ min: 0, max: 240 }),
        fc.option(fc.integer({ min: 0, max: 20 }), { nil: null }),
        fc.subarray(['three-point', 'mains-first']),
        fc.integer({ min: 0, max: 12 }),
        fc.integer({ min: 4, max: 9 }),
        (met, found, bookingMin, fuelMin, forecastKt, attitudes, provenKt, circuitMin) => {
          const p = proposeLesson({
            ...base,
            items: items(met),
            findings: found.map((f) =>
              finding(
                f,
                f === 'weave'
                  ? { next: { title: 'w', text: '', minutes: 10, where: 'ground' } }
                  : f === 'untrimmed'
                    ? { next: { title: 'u', text: '', minutes: 8, where: 'airwork' } }
                    : {},
              ),
            ),
            bookingMin,
            fuelMin,
            forecastKt,
            flown: attitudes,
            owned: attitudes.slice(0, 1),
            ladder: { provenKt, ladderKt: provenKt + 3 },
            circuitMin,
          });
          expect(flightMinutes(p.blocks)).toBeLessThanOrEqual(
            flightRoom({ bookingMin, fuelMin, groundMin: 22 }, groundMinutes(p.blocks)).roomMin,
          );
          expect(p.blocks.filter((b) => b.kind === 'new').length).toBeLessThanOrEqual(1);
          if (p.blocks.some((b) => b.kind === 'repeat'))
            expect(p.blocks.some((b) => b.kind === 'new')).toBe(
              p.blocks.some((b) => b.kind === 'new') && attitudes.length === 0,
            );
          const flownBefore = [...met];
          for (const id of p.blocks.flatMap((b) => b.itemIds)) {
            for (const before of programme?.items.find((i) => i.id === id)?.prerequisites ?? [])
              expect(flownBefore).toContain(before);
            flownBefore.push(id);
          }
          expect(new Set(p.blocks.map((b) => b.id)).size).toBe(p.blocks.length);
          const flying = p.blocks.filter((b) => b.kind !== 'ground');
          if (flying.length > 0) expect(flying.at(-1)?.kind).toBe('strength');
          for (const b of p.blocks) expect(b.minutes).toBeGreaterThan(0);
        },
      ),
      { numRuns: 600 },
    );
  });
});

describe('a lesson beside the ones before', () => {
  it('has a best and a worst that differ', () => {
    const ls = [
      flown(1, { swing: { band: 'large', side: 'left' } }),
      flown(2),
      flown(3, { drift: { band: 'slight', side: 'left' } }),
      flown(4, { intervention: 1 }),
    ];
    expect([bestAndWorst(ls).best?.number, bestAndWorst(ls).worst?.number]).toEqual([2, 1]);
    expect(bestAndWorst([flown(1)])).toMatchObject({ worst: null });
    expect(bestAndWorst([flown(1, { demonstration: true })])).toEqual({ best: null, worst: null });
  });
  it('says what moved by a fifth and more, worse first, and nothing of a first lesson', () => {
    const first = Array.from({ length: 5 }, (_, i) => flown(i + 1, { swing: { band: 'large', side: 'left' } }, 1));
    const second = Array.from({ length: 5 }, (_, i) => flown(i + 6, i < 2 ? { stick: 'not' } : {}, 2));
    const changed = sinceLastTime([...first, ...second], 2);
    expect(changed).toContainEqual({
      what: 'swing in the roll-out outside',
      now: '0 of 5',
      before: '5 of 5',
      direction: 'better',
    });
    expect(changed[0]).toEqual({ what: 'stick back outside', now: '2 of 5', before: '0 of 5', direction: 'worse' });
    expect(sinceLastTime(first, 1)).toEqual([]);
  });
  it('sets what the pilot said beside it', () => {
    const ls = [flown(1, { swing: { band: 'large', side: 'left' } }), flown(2), flown(3)];
    expect(compareSelf({ own: 3, bestNumber: 3, workOn: 'roll-out' }, ls)).toEqual({
      own: { said: 3, recorded: 2 },
      best: { said: 3, recorded: 3, same: true },
      workOn: { said: 'straight until stopped', recorded: 'straight until stopped', same: true },
    });
  });
  it('one row a landing, with nothing made of what was not seen', () => {
    const [row] = tableRows([flown(1, { lateral: null, along: null })], {
      trackM: 1.7,
      boxM: { before: 0, past: 122 },
    });
    expect(row).toMatchObject({ alongM: null, across: null, placeFrom: null, class: 'not judged' });
    expect(byLesson([flown(1), flown(2, { intervention: 1 })])).toEqual([
      expect.objectContaining({ lesson: 1, landings: 2, own: 1, inStandard: 1, authorship: 0.875 }),
    ]);
  });
});

describe('measures of all lessons', () => {
  const at = (n: number, values: Record<string, number>, over = {}) =>
    flown(n, over, 1, { measured: { traceId: 't', atS: 1, values, item: null } });
  const across = SHOWN_MEASURES[2];
  it('come from a recording or a dial, never from the eye\u2019s bands', () => {
    expect(measureOf(flown(1, { lateral: 'beyond-left' }), 'lateral')).toBeNull();
    expect(measureOf(at(1, { lateral: -1.4 }), 'lateral')).toEqual({ value: -1.4, measured: true });
    expect(measureOf(flown(1, { fenceSpeed: 63 }), 'fence')).toEqual({ value: 3, measured: false });
    expect([
      ownHands(flown(1)),
      ownHands(flown(1, { intervention: 2 })),
      ownHands(flown(1, { demonstration: true })),
    ]).toEqual([true, false, false]);
  });
  it('gate strips hold every reading, in the order of the approach', () => {
    expect(
      gateStrips([flown(1, { fenceSpeed: 62 }), flown(2, { fenceSpeed: 58 }), flown(3, { fenceSpeed: null })]),
    ).toEqual([
      expect.objectContaining({
        gate: 'Threshold',
        mean: 0,
        values: [
          { label: '1.1', offKt: 2, source: 'eye' },
          { label: '1.2', offKt: -2, source: 'eye' },
        ],
      }),
    ]);
  });
  it('a trend is said to go somewhere only when it surely does', () => {
    const of = (f: (i: number) => number) =>
      measureTrend(
        Array.from({ length: 10 }, (_, i) => at(i + 1, { lateral: f(i) })),
        across,
        { low: -2, high: 2 },
      );
    expect(trendWords(of((i) => i * 0.3))).toBe(
      'Place across: +0.30 m a landing over 10, between +0.30 and +0.30. It increases.',
    );
    expect(trendWords(of((i) => (i % 2 ? 1 : -1)))).toContain('No clear trend.');
    expect(trendWords(measureTrend([], across, null))).toBe('Place across: no trend to speak of yet.');
    expect(of((i) => i * 0.3).ewma.length).toBe(10);
  });
  it('a bias is put in words by its interval and its size', () => {
    expect(biasWords(bias([1.4, 1.5, 1.6], 1), across, null)).toBe('right, and large enough to matter');
    expect(biasWords(bias([0.4, 0.5, 0.6], 1), across, null)).toBe('to one side, smaller than the 1 m that matter');
    expect(biasWords(bias([-1, 1, 0.2], 1), across, null)).toBe('no clear tendency');
    expect(biasWords(bias([50, 55, 60], 20), SHOWN_MEASURES[1], { low: 0, high: 122 })).toBe('in the box');
    expect(biasWords(bias([150, 155, 160], 20), SHOWN_MEASURES[1], { low: 0, high: 122 })).toBe('beyond the box');
    expect(biasWords(bias([1], 1), across, null)).toBe('too few');
    expect([signed(-0.01), signed(-1.25), signed(2)]).toEqual(['+0.0', '\u20131.3', '+2.0']);
  });
  it('stages hold the pilot\u2019s counts beside the median where there is one', () => {
    const ls = Array.from({ length: 12 }, (_, i) => flown(i + 1, i < 3 ? { intervention: 2 } : {}));
    expect(stageRows(ls, [{ stage: 0, pilots: 6, own: 0.5, inStandard: 0.4, part: null }])).toEqual([
      {
        stage: 0,
        name: 'landings 1 to 10',
        n: 10,
        own: 7,
        inStandard: 7,
        median: expect.objectContaining({ pilots: 6 }),
      },
      { stage: 1, name: '11 to 20', n: 2, own: 2, inStandard: 2, median: null },
    ]);
    expect([...stageOfLesson(ls)]).toEqual([[1, 1]]);
  });
});

describe('the school', () => {
  const tally = (pilotId: string, own: number) =>
    stageTallies(
      pilotId,
      Array.from({ length: 12 }, (_, i) => ({
        landingClass: i < own ? 'own' : 'assisted',
        intervention: i < own ? 0 : 2,
      })),
    );
  it('has a median for five pilots and none for four', () => {
    const of = (n: number) => stageMedians(Array.from({ length: n }, (_, i) => tally(`p${i}`, 2 + i)).flat());
    expect(of(4)).toEqual([]);
    expect(of(5)).toEqual([{ stage: 0, pilots: 5, own: 0.4, inStandard: 0.4, part: 0.55 }]);
  });
  it('counts a pilot once however many checkouts', () => {
    expect(
      stageMedians([...tally('a', 3), ...tally('a', 4), ...tally('a', 5), ...tally('a', 6), ...tally('b', 6)]),
    ).toEqual([]);
  });
  it('sets instructors beside the measure they share', () => {
    const pair = (author: string, eye: 'within' | 'edge' | 'outside', measured: 'within' | 'edge' | 'outside') => ({
      author,
      criterion: 'lateral',
      eye,
      measured,
    });
    const [kind, fair] = standardise([
      ...Array.from({ length: 8 }, () => pair('a', 'within', 'edge')),
      pair('a', 'edge', 'edge'),
      pair('b', 'edge', 'edge'),
      pair('b', 'outside', 'edge'),
    ]);
    expect(kind).toMatchObject({ author: 'a', n: 9, agree: 1, kinder: 8, harder: 0 });
    expect(kind?.luck).toBeLessThan(0.01);
    expect(fair).toMatchObject({ n: 2, agree: 1, harder: 1, shift: 0.5 });
  });
});
