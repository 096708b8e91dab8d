/** Attempts to bend the judging, each written as somebody would try it, and what has to come of it. */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  type DebriefLanding,
  type EvidenceRecord,
  type RecordedLanding,
  assessProgramme,
  countFlown,
  asFlown,
  detailReasons,
  findPatterns,
  flownWords,
  judgeCaptured,
  judgeDetail,
  lessonHeadline,
  lessonSummaries,
  readTally,
  signTest,
  signingProblems,
  unseenOf,
  landingWords,
} from '@/core/assess';
import { composeProgramme } from '@/core/plan';
import { evaluateRecency } from '@/core/recency';
import { pilotLadder } from '@/core/wind';
import type { AirworkDetail, CaptureEvent, CapturedLanding } from '@/domain/capture';
import { PAYLOADS } from '@/domain/capture';
import { Findings } from '@/domain/findings';
import { type Programme, ProgrammeSource } from '@/domain/programme';
import { UNSEEN } from '@/domain/unseen';
import { fold } from '@/offline/protocol';
import { SIX } from '../meet';
import { CLEAN, flown, standard } from './landings';

const read = (goal: string): Programme =>
  composeProgramme(
    ProgrammeSource.parse(JSON.parse(readFileSync(`content/programmes/${goal}.json`, 'utf8'))),
    'us',
  ) as Programme;
const TAILWHEEL = read('tailwheel');

let serial = 0;
/** A landing clean but for what is given; in 8 kt across, first of its flight where asked. */
const land = (
  lesson: number,
  over: Partial<CapturedLanding> = {},
  more: Partial<DebriefLanding> = {},
): DebriefLanding => flown(++serial, over, lesson, { crosswindKt: 8, firstOfSortie: false, ...more });
/** What a hurried instructor taps: place, clean and whose. */
const QUICK = {
  ...UNSEEN,
  cleanTap: 'stopped',
  touched: 'three-point',
  intended: 'three-point',
  along: 'in-the-box',
  lateral: 'line',
  intervention: 0,
} as const;
const around = (lesson: number, over: Partial<CapturedLanding> = {}): RecordedLanding => {
  const l = flown(
    ++serial,
    { ...UNSEEN, kind: 'go-around', goAroundExecution: SIX, intervention: 0, ...over },
    lesson,
    {
      firstOfSortie: false,
    },
  );
  return { ...l, goAroundFrom: over.goAroundFrom ?? null };
};
const record = (landings: readonly RecordedLanding[], more: Partial<EvidenceRecord> = {}): EvidenceRecord => ({
  landings,
  observations: [],
  waivers: [],
  group: 'light-tailwheel',
  ...more,
});
const item = (id: string, r: EvidenceRecord, programme = TAILWHEEL) =>
  assessProgramme(programme, r).find((i) => i.item.id === id) ?? expect.fail(`no item ${id}`);
const saw = (itemId: string, date: string, more: object = {}): EvidenceRecord['observations'][number] => ({
  id: `o${++serial}`,
  date,
  lesson: 1,
  data: { itemId, verdict: 'within', intervention: 0, note: '', detail: null, pilotId: null },
  ...more,
});
const FIVE = (over: Partial<CapturedLanding> = {}): DebriefLanding[] => [
  land(1, over, { firstOfSortie: true }),
  land(1, over),
  land(1, over),
  land(2, over, { firstOfSortie: true }),
  land(2, over),
];

describe('1 unseen counts as good', () => {
  it('three taps and clean are a landing of the pilot’s own, and no evidence of crosswind, roll-out or wheel landing', () => {
    const quick = Array.from({ length: 4 }, () => land(1, QUICK));
    expect(quick.map((l) => l.judged.landingClass)).toEqual(['own', 'own', 'own', 'own']);
    expect(item('F7', record(quick))).toMatchObject({
      met: false,
      evidence: [],
      have: { code: 'landings', params: { count: 0, asserted: 0 } },
    });
    expect(item('F7', record(quick)).missing.find((m) => m.code === 'left-out')).toMatchObject({
      code: 'left-out',
      params: { whys: Array.from({ length: 4 }, () => ({ code: 'criteria', params: { ids: ['aileron'] } })) },
    });
    expect(item('F12', record(quick)).missing.find((m) => m.code === 'left-out')).toMatchObject({
      params: { whys: expect.arrayContaining([{ code: 'criteria', params: { ids: ['aileron', 'stick'] } }]) },
    });
    const wheels = FIVE({ ...QUICK, intended: 'mains-first', touched: 'mains-first' });
    expect(item('F5', record(wheels)).missing.find((m) => m.code === 'left-out')).toMatchObject({
      params: { whys: Array.from({ length: 5 }, () => ({ code: 'criteria', params: { ids: ['rollout'] } })) },
    });
  });
  it('looked at, the same landings count', () => {
    const seen = [land(1), land(1), land(1)];
    expect([item('F7', record(seen)).met, item('F12', record(seen)).met]).toEqual([true, true]);
    expect(item('F5', record(FIVE({ intended: 'mains-first', touched: 'mains-first' }))).met).toBe(true);
  });
  it('a bad landing is not left out for want of a second look', () => {
    const five = FIVE({ intended: 'mains-first', touched: 'mains-first' });
    const bad = land(2, {
      ...QUICK,
      intended: 'mains-first',
      touched: 'mains-first',
      cleanTap: null,
      drift: { band: 'marked', side: 'left' },
    });
    expect(bad.judged.landingClass).toBe('outside');
    expect(item('F5', record([...five, bad]))).toMatchObject({ met: false, evidence: [] });
  });
  it('a pinned programme of before, which says nothing of what it is about, asks the same', () => {
    const old = { ...TAILWHEEL, items: TAILWHEEL.items.map(({ about: _, ...i }) => i) };
    const quick = Array.from({ length: 4 }, () => land(1, QUICK));
    expect([item('F7', record(quick), old).met, item('F12', record(quick), old).met]).toEqual([false, false]);
  });
  it('a steep turn of which only the bank was tapped, a stall with only the look-out: not judged', () => {
    const turn: AirworkDetail = { form: 'numbers', kind: 'steep-turn', set: { bank: 45 }, seen: { bank: 'inside' } };
    const stall: AirworkDetail = {
      form: 'stall',
      stall: 'clean',
      lookOut: true,
      cue: null,
      cueSpeed: null,
      recovery: null,
      heightLostFt: null,
      seen: {},
    };
    expect(judgeDetail(turn, standard, 1)).toMatchObject({
      verdict: 'not-seen',
      reasons: [],
      unseen: ['height', 'speed', 'rollOut'],
    });
    expect(detailReasons(judgeDetail(turn, standard, 1)).at(-1)).toBe(
      'not judged: height, speed, roll-out heading not seen',
    );
    expect(judgeDetail(stall, standard, 1).verdict).toBe('not-seen');
    expect(judgeDetail({ ...turn, seen: { bank: 9 } }, standard, 1).verdict).toBe('outside');
    const unseen = unseenOf(stall, (kind) => standard.airwork.find((a) => a.kind === kind) ?? null);
    expect(unseen).toEqual(['recovery']);
    const half = item('F9', record([], { onDate: '2026-10-05', observations: [saw('F9', '2026-10-04', { unseen })] }));
    expect(half).toMatchObject({
      met: false,
      evidence: [],
      leftOut: [{ why: { code: 'details', params: { ids: ['recovery'] } } }],
    });
    const later = { reason: 'seen, not tapped', computed: 'within' };
    expect(
      item(
        'F9',
        record([], { onDate: '2026-10-05', observations: [saw('F9', '2026-10-04', { unseen, overruled: later })] }),
      ).met,
    ).toBe(true);
  });
});

describe('2 asserted is not seen', () => {
  it('a run may be based on the clean tap by half, and says how much does', () => {
    const clean = { drift: null, crab: null, swing: null, bounce: null, cleanTap: 'stopped' } as const;
    const five = FIVE();
    const two = five.map((l, i) => (i < 2 ? land(l.lesson, clean, { firstOfSortie: l.firstOfSortie }) : l));
    const three = five.map((l, i) => (i < 3 ? land(l.lesson, clean, { firstOfSortie: l.firstOfSortie }) : l));
    expect(item('F4', record(two))).toMatchObject({
      met: true,
      asserted: [expect.anything(), expect.anything()],
      have: { code: 'run', params: { count: 5, attitude: 'three-point', asserted: 2 } },
    });
    expect(item('F4', record(three)).met).toBe(false);
    expect(item('F4', record(three)).missing[0]).toEqual({
      code: 'see-more',
      params: { count: 1, share: 0.5 },
    });
    expect(item('F4', record(three, { assertedShare: 0.6 })).met).toBe(true);
    expect(item('F4', record([...three, land(2)])).met).toBe(true);
    // An old beginning on the clean tap is let go where what followed stands by itself; what is left must meet it all.
    const old = Array.from({ length: 8 }, () => land(1, clean));
    const later = [land(2, {}, { firstOfSortie: true }), land(2), land(2), land(3), land(3)];
    const long = item('F4', record([...old, ...later]));
    expect([long.met, long.evidence.length, long.asserted.length]).toEqual([true, 10, 5]);
    expect(long.evidence).toEqual(expect.arrayContaining(later.map((l) => l.id)));
    expect(item('F4', record([...old, ...later.slice(1)])).met).toBe(false);
  });
  it('of a count only as many rest on it as were seen', () => {
    const clean = { drift: null, crab: null, cleanTap: 'stopped' } as const;
    const all = [land(1, clean), land(1, clean), land(1, clean), land(1, clean)];
    expect(item('F7', record(all))).toMatchObject({ met: false, evidence: [] });
    expect(item('F7', record([...all, land(1)])).evidence).toHaveLength(2);
    expect(item('F7', record([...all, land(1), land(1)])).met).toBe(true);
  });
  it('asserted drift proves no wind to the ladder', () => {
    const ladder = (drift: 'within' | 'not-seen') =>
      pilotLadder({
        landings: Array.from({ length: 3 }, () => ({
          date: '2026-10-03',
          group: 'g',
          crosswindKt: 8,
          windAgeMin: 1,
          intervention: 0,
          demonstration: false,
          criteria: { drift, crab: drift },
        })),
        group: 'g',
        onDate: '2026-10-04',
        stepKt: 2,
        credit: null,
      }).provenKt;
    expect([ladder('within'), ladder('not-seen')]).toEqual([8, 0]);
  });
});

describe('3 a blank intention protects a run', () => {
  it.each([
    ['prompted', { intervention: 1 }],
    ['assisted', { intervention: 2 }],
    ['outside', { drift: { band: 'marked', side: 'left' } }],
  ] as const)('a %s landing with nothing meant ends the run', (_, bad) =>
    expect(item('F4', record([...FIVE(), land(2, { ...bad, intended: null })]))).toMatchObject({
      met: false,
      evidence: [],
    }),
  );
  it('a good one with nothing meant proves nothing of an attitude', () =>
    expect(item('F4', record(FIVE({ intended: null })))).toMatchObject({ met: false, evidence: [] }));
  it('a word that cannot be meant is refused, and old ones are as blank', () => {
    expect(PAYLOADS['landing-saved'][1].safeParse({ ...CLEAN, intended: 'flat' }).success).toBe(false);
    const odd = land(2, { intervention: 2 }, { intended: 'flat' });
    expect(item('F4', record([...FIVE(), odd])).met).toBe(false);
  });
  it('a flat touch is judged against what was meant', () =>
    expect(land(1, { touched: 'flat' }).judged.landingClass).toBe('outside'));
  it('a touch recorded as a low pass is refused on every way in', () => {
    const touch = { ...CLEAN, kind: 'low-pass', drift: { band: 'marked', side: 'left' } } as const;
    expect(PAYLOADS['landing-saved'][1].safeParse(touch).error?.issues[0]?.message).toContain(
      'A low pass does not touch',
    );
    expect(PAYLOADS.corrected[1].safeParse(touch).success).toBe(false);
    expect(readTally('L 3 3 B 0 0 0 0 1H 0')[0]?.problem?.code).toBe('low-pass-touched');
    // Recorded by an earlier version it is judged as what it was.
    expect(judgeCaptured(touch, { standard, fenceTarget: null, ktPerUnit: 1, unit: 'kt' }).landingClass).toBe(
      'outside',
    );
    expect(PAYLOADS['landing-saved'][1].safeParse({ ...UNSEEN, kind: 'low-pass', runwayEnd: '22' }).success).toBe(true);
  });
});

describe('4 undo and correction leave no trace', () => {
  let seq = 0;
  const event = (type: CaptureEvent['type'], subjectId: string, payload: unknown = {}): CaptureEvent => ({
    eventId: `00000000-0000-4000-8000-${String(++seq).padStart(12, '0')}`,
    deviceId: '00000000-0000-4000-8000-000000000001',
    deviceSeq: seq,
    sortieId: 's',
    subjectId,
    author: 'helena',
    type,
    v: 1,
    deviceTime: new Date(Date.UTC(2026, 9, 3, 10, seq)).toISOString(),
    payload,
  });
  const saved = (id: string, over: Partial<CapturedLanding> = {}) => event('landing-saved', id, { ...CLEAN, ...over });
  it('what was taken back or put right stands with who, when, what it was and what it became', () => {
    const { changes, landings } = fold([
      saved('a', { intervention: 2 }),
      event('corrected', 'a', { ...CLEAN, intervention: 0 }),
      saved('b', { drift: { band: 'marked', side: 'left' } }),
      event('undone', 'b'),
    ]);
    expect(landings.map((l) => l.id)).toEqual(['a']);
    expect(changes).toMatchObject([
      {
        subject: 'a',
        number: 1,
        change: 'corrected',
        author: 'helena',
        before: { intervention: 2 },
        after: { intervention: 0 },
      },
      {
        subject: 'b',
        number: 2,
        change: 'undone',
        at: '2026-10-03T10:04:00.000Z',
        before: { drift: { band: 'marked' } },
        after: null,
      },
    ]);
  });
  it('numbers and the first of the flight do not move when a bad first landing is taken back', () => {
    const { landings, changes } = fold([saved('a'), saved('b'), saved('c'), event('undone', 'a')]);
    expect(landings.map((l) => [l.id, l.number, l.first])).toEqual([
      ['b', 2, false],
      ['c', 3, false],
    ]);
    expect(changes[0]?.replacedBy).toBeNull();
  });
  it('one flown again in its place keeps its number and its place', () => {
    const { landings, numbered } = fold([saved('a'), event('undone', 'a'), saved('a2', { replaces: 'a' }), saved('b')]);
    expect(landings.map((l) => [l.id, l.number, l.first])).toEqual([
      ['a2', 1, true],
      ['b', 2, false],
    ]);
    expect(numbered).toEqual({ s: 2 });
    // What still stands is replaced by nothing, and one place is taken once.
    const twice = fold([
      saved('a'),
      saved('x', { replaces: 'a' }),
      saved('b'),
      event('undone', 'b'),
      saved('c', { replaces: 'b' }),
      saved('d', { replaces: 'b' }),
    ]);
    expect(twice.landings.map((l) => [l.id, l.number])).toEqual([
      ['a', 1],
      ['x', 2],
      ['c', 3],
      ['d', 4],
    ]);
  });
});

describe('5 whose landing', () => {
  it('helped on rudder and own contradict: it is nobody’s until it is said which', () => {
    const both = land(1, { helpedOn: ['rudder'], intervention: 0 });
    expect(both.judged).toMatchObject({ landingClass: 'not-judged', reason: { code: 'contradicts' } });
    expect(land(1, { helpedOn: ['rudder'], intervention: 2 }).judged.landingClass).toBe('assisted');
  });
  it.each([
    ['a demonstration', { demonstration: true }, 'demonstration'],
    ['one taken over', { intervention: 3 }, 'assisted'],
    ['one nobody was named for', { intervention: null }, 'not-judged'],
  ] as const)('%s is never overruled into the pilot’s own', (_, over, stays) => {
    const judged = judgeCaptured(
      { ...CLEAN, ...over },
      {
        standard,
        fenceTarget: null,
        ktPerUnit: 1,
        unit: 'kt',
        overruled: { class: { to: 'own', reason: 'it was fine', by: 'H', at: '' } },
      },
    );
    expect(judged.landingClass).toBe(stays);
  });
  it('what the instructor flew raises no finding about the pilot', () => {
    const { patterns } = Findings.parse(JSON.parse(readFileSync('content/findings.json', 'utf8')));
    const found = (level: number) =>
      findPatterns(patterns, {
        landings: Array.from({ length: 10 }, (_, i) =>
          flown(i + 1, { bounce: { count: 2, handling: 'pushed' }, intervention: level }),
        ),
        observations: [],
        gearChecks: [],
        limits: [],
        lessons: [{ lesson: 1, date: '2026-10-03' }],
        standard,
        ktPerUnit: 1,
        context: { trackM: 1.7, boxM: standard.boxM, blindNose: false, reducing: false, speedHighKt: 10 },
        habits: [],
        others: {
          instructor: { pilots: 0, left: 0, line: 0, right: 0 },
          airframe: { pilots: 0, left: 0, line: 0, right: 0 },
        },
      }).map((f) => f.id);
    expect(found(0)).toContain('pushes-in-bounce');
    expect(found(3)).not.toContain('pushes-in-bounce');
  });
});

describe('6 statistics', () => {
  it('a sign test of thousands is a number, and agrees with the normal approximation', () => {
    expect(signTest(1200, 1100)).toBeGreaterThan(0.03);
    expect(signTest(1200, 1100)).toBeLessThan(0.042);
    expect(signTest(3000, 0)).toBe(0);
    expect(signTest(2000, 2000)).toBe(1);
  });
  it('a practised low pass neither ends nor halves a run', () => {
    const [a, b, c, d, e] = FIVE() as [DebriefLanding, DebriefLanding, DebriefLanding, DebriefLanding, DebriefLanding];
    const pass = land(2, { ...UNSEEN, kind: 'low-pass', intended: 'three-point' });
    expect(item('F4', record([a, b, c, pass, pass, d, e])).evidence).toHaveLength(5);
  });
});

describe('7 recency', () => {
  it('a recorded landing nobody is named for does not count, a logbook row does', () => {
    const rule = {
      id: 'r',
      kind: 'landing',
      count: 3,
      windowDays: 90,
      fullStop: false,
      night: false,
      tailwheel: false,
      soleManipulator: true,
      surface: null,
      classes: null,
    } as const;
    const three = (recorded: boolean) =>
      Array.from({ length: 3 }, (_, i) => ({
        id: `${i}`,
        date: '2026-10-03',
        kind: 'landing' as const,
        fullStop: true,
        class: 'single-engine-land',
        tailwheel: true,
        surface: 'land' as const,
        night: false,
        intervention: null,
        demonstration: false,
        recorded,
      }));
    const of = (recorded: boolean) =>
      evaluateRecency({ rules: [rule], events: three(recorded), onDate: '2026-10-04' }).rules[0]?.counted;
    expect([of(true), of(false)]).toEqual([0, 3]);
  });
});

describe('8 counts', () => {
  it('go-arounds, passes and demonstrations are no landings, and each is named', () => {
    const all = [
      ...Array.from({ length: 40 }, () => land(1)),
      ...Array.from({ length: 5 }, () => around(1)),
      land(1, { demonstration: true }),
      land(1, { ...UNSEEN, kind: 'low-pass' }),
      land(1, { kind: 'touch-and-go' }),
    ];
    const count = countFlown(all.map(asFlown));
    expect(count).toEqual({
      landings: 41,
      fullStops: 40,
      touchAndGos: 1,
      goArounds: 5,
      lowPasses: 1,
      demonstrations: 1,
    });
    expect(flownWords(count)).toBe(
      '40 full stops, 1 touch-and-go, 5 go-arounds, 1 low pass and 1 demonstration by the instructor',
    );
    const [summary] = lessonSummaries(all);
    expect(summary && lessonHeadline(summary)).toBe(
      'Lesson 1: 41 landings, 41 unassisted; 5 go-arounds, 1 low pass and 1 demonstration by the instructor',
    );
  });
});

describe('9 go-arounds', () => {
  it('a pilot whose approaches are all good finishes: an announced trigger answered in time is a decision', () => {
    const from = (goAroundFrom: 'approach' | 'flare' | 'bounce', more: Partial<CapturedLanding> = {}) =>
      around(1, { goAroundFrom, ...more });
    const announced = from('approach', { announced: 'runway-blocked', goAroundWord: 'at' });
    expect(announced.judged.goAround).toMatchObject({ decision: 'sound', execution: 'good' });
    expect(landingWords(announced.judged.reason)).toBe(
      'A sound decision, at the trigger announced: runway blocked, from the approach; flown well.',
    );
    expect(
      item(
        'F8',
        record([announced, from('flare', { goAroundWord: 'exercise' }), from('bounce', { goAroundWord: 'exercise' })]),
      ).met,
    ).toBe(true);
  });
  it('a commanded one stays neutral: no decision, and no break', () => {
    const commanded = around(2, { goAroundWord: 'exercise', goAroundFrom: 'approach' });
    expect(commanded.judged.goAround?.decision).toBe('neutral');
    expect(item('F4', record([...FIVE(), commanded])).met).toBe(true);
    expect(item('F8', record([commanded, commanded, commanded])).missing).toContainEqual({
      code: 'more-decided',
      params: { count: 1, withinDays: null },
    });
  });
  it.each([
    ['told', { goAroundWord: 'told-for-safety' }],
    ['assisted', { goAroundWord: 'before', intervention: 2 }],
    ['outside', { goAroundWord: 'before', goAroundExecution: { ...SIX, speed: 'outside' } }],
  ] as const)('one %s inside a run keeps it open until a sound, well flown one follows', (fault, over) => {
    const five = FIVE();
    const inside = [...five.slice(0, 3), around(1, over), ...five.slice(3)];
    expect(item('F4', record(inside)).met).toBe(false);
    expect(item('F4', record(inside)).missing.find((m) => m.code === 'go-around')).toMatchObject({ params: { fault } });
    const order = (ls: RecordedLanding[]) => ls.map((l, i) => ({ ...l, number: i + 1 }));
    expect(item('F4', record(order([...inside, around(2, { goAroundWord: 'exercise' })]))).met).toBe(false);
    expect(item('F4', record(order([...inside, around(2, { goAroundWord: 'before' })]))).met).toBe(true);
    // Before the run it is no matter of the run.
    expect(item('F4', record(order([around(1, over), ...five]))).met).toBe(true);
  });
  it.each(['short-of-threshold', 'off-surface', 'inspection-sink'] as const)('%s is outside in one tap', (serious) =>
    expect(land(1, { serious: [serious] }).judged).toMatchObject({
      landingClass: 'outside',
      controlOutside: [serious],
    }),
  );
  it('and outside when it was measured', () => {
    const at = (values: Record<string, number>) =>
      judgeCaptured(CLEAN, {
        standard,
        fenceTarget: null,
        ktPerUnit: 1,
        unit: 'kt',
        measured: values,
        edges: { shortM: 60, sideM: 8, inspectFpm: 600 },
      }).controlOutside;
    expect([
      at({ along: -61 }),
      at({ along: -59 }),
      at({ lateral: -8.1 }),
      at({ firmness: 600 }),
      at({ firmness: 599 }),
    ]).toEqual([['short-of-threshold'], [], ['off-surface'], ['inspection-sink'], []]);
  });
});

describe('11 refused, 12 old evidence', () => {
  const refusal = { itemId: 'F4', at: '2026-10-06T18:00:00.000Z', on: '2026-10-06', by: 'Bento', entryId: 'e' };
  const at = (ls: DebriefLanding[], iso: string) => ls.map((l) => ({ ...l, at: iso }));
  const before = at(FIVE(), '2026-10-06T10:00:00.000Z');
  it('further training holds an item open, whatever it had, until it is flown again', () => {
    expect(item('F4', record(before)).met).toBe(true);
    const held = item('F4', record(before, { refused: [refusal], onDate: '2026-10-20' }));
    expect(held).toMatchObject({ met: false, refused: { by: 'Bento' } });
    expect(held.missing[0]).toEqual({ code: 'further-training', params: { on: '2026-10-06', by: 'Bento' } });
    const again = at([land(3, {}, { firstOfSortie: true })], '2026-10-09T10:00:00.000Z');
    expect(item('F4', record([...before, ...again], { refused: [refusal], onDate: '2026-10-20' })).met).toBe(true);
    const badly = at([land(3, { intervention: 2 })], '2026-10-09T10:00:00.000Z');
    expect(item('F4', record([...before, ...badly], { refused: [refusal], onDate: '2026-10-20' })).met).toBe(false);
  });
  it('neither a waiver nor an override passes it', () => {
    const r = record(before, {
      refused: [{ ...refusal, itemId: 'F5' }],
      onDate: '2026-10-20',
      waivers: [{ itemId: 'F5', reason: 'the handbook advises against' }],
    });
    const held = item('F5', r);
    expect([held.met, held.waived]).toEqual([false, null]);
    const [problem] = signingProblems([held], r, {
      authorised: true,
      ownCheckout: false,
      lastFlownTogether: '2026-10-09',
      onDate: '2026-10-20',
      withinDays: 30,
      certificateUntil: '2027-01-01',
      signerLacks: [],
      ratings: [],
      reviewWithout: [],
      sheetOpen: [],
      modelHours: null,
      notRecent: [],
      openLimits: [],
      overrides: [{ itemId: 'F5', reason: 'we know the pilot', approved: true }],
      stops: [],
      prerequisites: [],
    });
    expect(problem).toMatchObject({ code: 'refused', overridable: false });
  });
  it('stalls and emergencies of months ago have lapsed; the house says after how long', () => {
    const old = { observations: [saw('F9', '2026-06-01'), saw('F13', '2026-06-01'), saw('F10', '2026-06-01')] };
    const now = { ...old, onDate: '2026-10-20' };
    expect([
      item('F9', record([], now)).met,
      item('F13', record([], now)).met,
      item('F10', record([], now)).met,
    ]).toEqual([false, false, true]);
    expect(item('F9', record([], { ...now, fadesDays: 200 })).met).toBe(true);
    expect(item('F9', record([], now)).asks).toMatchObject({ withinDays: 90 });
  });
  it('a brief of months ago is not the brief of today', () => {
    const briefs = [{ id: 'b', lesson: 1, date: '2026-06-01', acknowledged: true }];
    expect(
      item(
        'N1',
        record([], { briefs, onDate: '2026-06-02' }),
        composeProgramme(
          ProgrammeSource.parse(JSON.parse(readFileSync('content/programmes/new-type.json', 'utf8'))),
          'house',
        ) as Programme,
      ).met,
    ).toBe(true);
    expect(
      item(
        'N1',
        record([], { briefs, onDate: '2026-10-20' }),
        composeProgramme(
          ProgrammeSource.parse(JSON.parse(readFileSync('content/programmes/new-type.json', 'utf8'))),
          'house',
        ) as Programme,
      ).met,
    ).toBe(false);
  });
});
