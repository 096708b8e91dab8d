/**
 * The first three lessons of every goal, as an experienced instructor would give them: what must be in each, in which
 * order, and what must not be yet. Each lesson is flown as proposed, and the next is proposed from what it left.
 */
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { type EvidenceRecord, type ItemEvidence, type RecordedLanding, assessProgramme } from '@/core/assess';
import { type LessonInput, type LessonProposal, attitudeOwned, composeProgramme, proposeLesson } from '@/core/plan';
import { type Programme, ProgrammeSource } from '@/domain/programme';
import type { CapturedLanding } from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';
import type { Meant } from '@/domain/words';
import { SIX } from '../meet';
import { flown } from './landings';

const GROUP = 'light-tailwheel';
const read = (goal: string, pack: Programme['pack']): Programme =>
  composeProgramme(
    ProgrammeSource.parse(JSON.parse(readFileSync(`content/programmes/${goal}.json`, 'utf8'))),
    pack,
  ) as Programme;
type Record_ = Pick<EvidenceRecord, 'observations'> & { landings: RecordedLanding[] };

/** Flies a lesson as proposed: each item once, a run its circuits, a go-around twice; all good, all seen. */
function fly(programme: Programme, proposal: LessonProposal, lesson: number, before: Record_): Record_ {
  const date = `2026-10-${String(lesson * 3).padStart(2, '0')}`;
  const observations = [...before.observations];
  const landings = [...before.landings];
  const touch = (over: Partial<CapturedLanding>) => {
    const n = landings.filter((l) => l.lesson === lesson).length + 1;
    landings.push(flown(n, over, lesson, { date, crosswindKt: 3, goAroundFrom: over.goAroundFrom ?? null }));
  };
  for (const block of proposal.blocks)
    for (const id of block.itemIds) {
      const item = programme.items.find((i) => i.id === id);
      if (!item) continue;
      const rule = item.evidence;
      if (rule.kind === 'observed')
        observations.push({
          id: `${id}-${lesson}`,
          date,
          lesson,
          data: { itemId: id, verdict: 'within', intervention: 0, note: '', detail: null, pilotId: null },
        });
      else if (rule.kind === 'run' || rule.kind === 'count') {
        const attitude = (rule.attitude ?? 'three-point') as Meant;
        for (let i = 0; i < 4; i++) touch({ intended: attitude, touched: attitude });
      } else if (rule.kind === 'go-arounds')
        for (const from of ['approach', 'flare'] as const)
          touch({
            ...UNSEEN,
            kind: 'go-around',
            goAroundWord: 'at',
            goAroundFrom: from,
            goAroundExecution: SIX,
            intervention: 0,
          });
    }
  return { observations, landings };
}

function three(goal: string, pack: Programme['pack'], over: Partial<LessonInput> = {}): string[][] {
  const programme = read(goal, pack);
  let record: Record_ = { observations: [], landings: [] };
  return [1, 2, 3].map((lesson) => {
    const proposal = proposeLesson({ ...input(programme, record, lesson), ...over });
    record = fly(programme, proposal, lesson, record);
    return proposal.blocks.flatMap((b) => b.itemIds);
  });
}

function input(programme: Programme, record: Record_, lesson: number): LessonInput {
  const items: ItemEvidence[] = assessProgramme(programme, {
    ...record,
    waivers: [],
    group: GROUP,
    onDate: `2026-10-${String(lesson * 3).padStart(2, '0')}`,
  });
  const meantSo = [...new Set(record.landings.flatMap((l) => (l.kind === 'full-stop' ? (l.intended ?? []) : [])))];
  return {
    items,
    findings: [],
    firstLanding: 'three-point',
    wheelAllowed: true,
    flown: meantSo,
    owned: meantSo.filter((a) => attitudeOwned(record.landings, a)),
    ladder: { provenKt: 6, ladderKt: 8 },
    forecastKt: 6,
    bookingMin: 300,
    fuelMin: 300,
    groundMin: 20,
    circuitMin: 6,
    daysAway: lesson === 1 ? null : 3,
    lessonsFlown: lesson - 1,
  };
}

interface Row {
  goal: string;
  pack: Programme['pack'];
  /** In each lesson, in this order. */
  lessons: [string[], string[], string[]];
  /** What must not be in a lesson yet. */
  notYet: [string[], string[]];
  over?: Partial<LessonInput>;
}
const TABLE: Row[] = [
  {
    goal: 'tailwheel',
    pack: 'us',
    // Swerve, wind controls, taxi, tail-up runs, take-offs; stalls and slips; first full stops.
    lessons: [
      ['G1', 'F9', 'F1', 'F2', 'F3', 'F4'],
      ['F8', 'F4'],
      ['F7', 'F5'],
    ],
    notYet: [
      ['F5', 'F6', 'F7', 'F8', 'F13'],
      ['F5', 'F7'],
    ],
  },
  {
    goal: 'complex',
    pack: 'us',
    lessons: [['V1', 'V4', 'V2', 'V5', 'V6', 'V8'], ['V7', 'V9'], ['V10']],
    notYet: [['V7', 'V9', 'V10'], ['V10']],
  },
  {
    goal: 'high-performance',
    pack: 'us',
    lessons: [['P1', 'P2', 'P5'], ['P4', 'P6'], ['P3']],
    notYet: [['P3', 'P6'], ['P3']],
  },
  {
    goal: 'multi-engine',
    pack: 'us',
    lessons: [
      ['M1', 'M3', 'M4', 'M5', 'M13'],
      ['M7', 'M10'],
      ['M9', 'M11', 'M8'],
    ],
    notYet: [
      ['M7', 'M8', 'M9', 'M10', 'M11', 'M12'],
      ['M8', 'M9', 'M11', 'M12'],
    ],
  },
  {
    goal: 'multi-engine-sea',
    pack: 'us',
    lessons: [
      ['M1', 'W2', 'X3', 'W4', 'W5', 'W7'],
      ['M7', 'M9'],
      ['X1', 'M11', 'W9'],
    ],
    notYet: [
      ['M7', 'M9', 'W9', 'X1', 'M11'],
      ['W9', 'M11'],
    ],
  },
  {
    goal: 'sea',
    pack: 'us',
    // Egress and reading water, plough and step, porpoise caught, normal landings.
    lessons: [
      ['W1', 'W3', 'W4', 'W5', 'W7'],
      ['W11', 'W13'],
      ['W9', 'W10'],
    ],
    notYet: [
      ['W9', 'W10', 'W11', 'W13'],
      ['W9', 'W10'],
    ],
  },
  {
    goal: 'new-type',
    pack: 'house',
    lessons: [['N2', 'N3', 'N5', 'N4', 'N6'], ['N9'], []],
    notYet: [['N9'], []],
  },
  {
    goal: 'interval-check',
    pack: 'house',
    lessons: [['I1', 'I4', 'I2', 'I3', 'I5', 'I6', 'I7', 'I8'], [], []],
    notYet: [[], ['I1', 'I3', 'I4']],
  },
  {
    goal: 'aerobatic-landing',
    pack: 'house',
    lessons: [['A1', 'A2', 'A3', 'A4'], ['A5'], ['A7']],
    notYet: [
      ['A5', 'A6', 'A7'],
      ['A6', 'A7'],
    ],
  },
  {
    goal: 'powerful-type',
    pack: 'house',
    lessons: [['B2', 'B3', 'B5', 'B4'], ['B7', 'B9', 'B8'], ['B6']],
    notYet: [['B7', 'B8', 'B9', 'B6'], ['B6']],
    over: { firstLanding: 'mains-first' },
  },
  {
    goal: 'short-field',
    pack: 'house',
    lessons: [['K1', 'K2', 'K3', 'K4'], ['K6'], []],
    notYet: [['K5', 'K6'], []],
  },
];

const inOrder = (all: readonly string[], wanted: readonly string[]): string[] => all.filter((x) => wanted.includes(x));

describe('the first lessons of each goal', () => {
  it.each(TABLE)('$goal, $pack', ({ goal, pack, lessons, notYet, over }) => {
    const proposed = three(goal, pack, over);
    lessons.forEach((wanted, i) => {
      const got = proposed[i] ?? [];
      expect(got, `lesson ${i + 1}`).toEqual(expect.arrayContaining(wanted));
      expect([...new Set(inOrder(got, wanted))].sort(), `lesson ${i + 1}`).toEqual([...wanted].sort());
      for (const later of notYet[i] ?? []) expect(got, `lesson ${i + 1} has no ${later}`).not.toContain(later);
    });
  });
  it('in none of them does an item come before its prerequisite', () => {
    for (const { goal, pack, over } of TABLE) {
      const programme = read(goal, pack);
      const done = new Set<string>();
      for (const lesson of three(goal, pack, over))
        for (const id of lesson) {
          for (const p of programme.items.find((i) => i.id === id)?.prerequisites ?? [])
            expect([goal, id, [...done]]).toEqual([goal, id, expect.arrayContaining([p])]);
          done.add(id);
        }
    }
  });
  it('plough and step come before rough and glassy water however short the bookings are', () => {
    const programme = read('sea', 'us');
    let record: Record_ = { observations: [], landings: [] };
    for (let lesson = 1; lesson <= 5; lesson++) {
      const proposal = proposeLesson({ ...input(programme, record, lesson), bookingMin: 75, fuelMin: 75 });
      const ids = proposal.blocks.flatMap((b) => b.itemIds);
      const seen = record.observations.some((o) => o.data.itemId === 'W4') || ids.indexOf('W4') >= 0;
      if (ids.includes('W9') || ids.includes('W10')) expect(seen && record.landings.length > 0).toBe(true);
      record = fly(programme, proposal, lesson, record);
    }
  });
  it('a booking is not filled with go-arounds: one item’s, and the time that is left is said', () => {
    const programmes = ['tailwheel', 'complex', 'high-performance'].map((g) => read(g, 'us'));
    const items = programmes.flatMap((p) =>
      assessProgramme(p, { observations: [], landings: [], waivers: [], group: GROUP }).map((i) => ({
        ...i,
        met: i.item.evidence.kind !== 'go-arounds',
        seen: true,
      })),
    );
    const p = proposeLesson({
      ...input(programmes[0] as Programme, { observations: [], landings: [] }, 9),
      items,
      flown: ['three-point'],
      owned: ['three-point'],
    });
    const around = p.blocks.filter((b) => b.itemIds.some((id) => ['F8', 'V9', 'P6'].includes(id)));
    expect(around).toHaveLength(1);
    expect(around[0]?.minutes).toBeLessThanOrEqual(12);
    expect(p.left.map((l) => l.why.code)).toContain('go-arounds-once');
    expect(p.blocks.at(-1)?.kind).toBe('strength');
  });
  it('each ends on something done well, and brings one new load at most', () => {
    for (const { goal, pack, over } of TABLE) {
      const programme = read(goal, pack);
      let record: Record_ = { observations: [], landings: [] };
      for (const lesson of [1, 2, 3]) {
        const proposal = proposeLesson({ ...input(programme, record, lesson), ...over });
        expect(proposal.blocks.filter((b) => b.kind === 'new').length, goal).toBeLessThanOrEqual(1);
        const flying = proposal.blocks.filter((b) => b.kind !== 'ground');
        if (flying.length > 0) expect(flying.at(-1)?.kind, goal).toBe('strength');
        record = fly(programme, proposal, lesson, record);
      }
    }
  });
});
