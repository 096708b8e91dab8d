/**
 * A lesson beside the ones before it, a pilot beside the school, instructors beside each other; and the one table that
 * charts, pages and files share.
 */
import { landingWords } from './captured-words';
import type { CriterionVerdict, LandingClass } from '@/domain/assess-words';
import type { Standard } from '@/domain/programme';
import { INTERVENTIONS, say } from '@/domain/words';
import { eyeWord } from '../trace/join';
import { signTest } from './distributions';
import type { DebriefLanding } from './facts';
import { judgeCaptured } from './captured';
import { PILOTS_PART, authorship } from './spread';
import { medianOf } from '../constants';

const COUNTED: ReadonlySet<string> = new Set(['own', 'own-off-target', 'prompted', 'assisted', 'outside']);
/**
 * Landings that count for the pilot: judged, and neither a demonstration nor a pass.
 * @returns the landings, in the order given
 */
export function counted<L extends Pick<DebriefLanding, 'judged'>>(landings: readonly L[]): L[] {
  return landings.filter((l) => COUNTED.has(l.judged.landingClass));
}
const isOwn = (c: string): boolean => c === 'own' || c === 'own-off-target';

const marks = (l: Pick<DebriefLanding, 'judged'>) => ({
  outside: l.judged.criteria.filter((c) => c.verdict === 'outside').length,
  edge: l.judged.criteria.filter((c) => c.verdict === 'edge').length,
  within: l.judged.criteria.filter((c) => c.verdict === 'within').length,
});
const CLASS_RANK: Record<string, number> = { own: 0, 'own-off-target': 1, prompted: 2, assisted: 3, outside: 4 };

/**
 * The best and the worst landing of a list, by class, then by what was outside, on the edge and seen within; null when
 * nothing was judged. The two differ.
 * @returns two landings, or nulls
 */
export function bestAndWorst<L extends Pick<DebriefLanding, 'judged' | 'number'>>(
  landings: readonly L[],
): { best: L | null; worst: L | null } {
  const order = [...counted(landings)].sort((a, b) => {
    const [x, y] = [marks(a), marks(b)];
    return (
      (CLASS_RANK[a.judged.landingClass] ?? 9) - (CLASS_RANK[b.judged.landingClass] ?? 9) ||
      x.outside - y.outside ||
      x.edge - y.edge ||
      y.within - x.within ||
      b.number - a.number
    );
  });
  return { best: order[0] ?? null, worst: order.length > 1 ? (order[order.length - 1] ?? null) : null };
}

export interface Changed {
  what: string;
  now: string;
  before: string;
  direction: 'better' | 'worse';
}
/** A share must move by this much, over at least so many seen, to be worth a line. */
const MOVED = 0.2;
const SEEN = 3;
/**
 * What changed against all earlier lessons of this checkout: whose they were, and each criterion outside or not.
 * @returns one entry a subject that changed, with both counts
 */
export function sinceLastTime(landings: readonly DebriefLanding[], lesson: number): Changed[] {
  const now = counted(landings.filter((l) => l.lesson === lesson));
  const before = counted(landings.filter((l) => l.lesson < lesson));
  if (now.length < SEEN || before.length < SEEN) return [];
  const out: Changed[] = [];
  const compare = (what: string, good: boolean, a: readonly [number, number], b: readonly [number, number]) => {
    if (a[1] < SEEN || b[1] < SEEN) return;
    const by = a[0] / a[1] - b[0] / b[1];
    if (Math.abs(by) >= MOVED)
      out.push({
        what,
        now: `${a[0]} of ${a[1]}`,
        before: `${b[0]} of ${b[1]}`,
        direction: by > 0 === good ? 'better' : 'worse',
      });
  };
  const part = (
    of: readonly DebriefLanding[],
    hit: (l: DebriefLanding) => boolean,
    seen: (l: DebriefLanding) => boolean = () => true,
  ): [number, number] => {
    const s = of.filter(seen);
    return [s.filter(hit).length, s.length];
  };
  compare(
    'unassisted',
    true,
    part(now, (l) => isOwn(l.judged.landingClass)),
    part(before, (l) => isOwn(l.judged.landingClass)),
  );
  compare(
    'unassisted and in standard',
    true,
    part(now, (l) => l.judged.landingClass === 'own'),
    part(before, (l) => l.judged.landingClass === 'own'),
  );
  const ids = now[0]?.judged.criteria.map((c) => c.id) ?? [];
  const verdict = (l: DebriefLanding, id: string): CriterionVerdict =>
    l.judged.criteria.find((c) => c.id === id)?.verdict ?? 'not-seen';
  for (const id of ids)
    compare(
      `${say(id)} outside`,
      false,
      part(
        now,
        (l) => verdict(l, id) === 'outside',
        (l) => verdict(l, id) !== 'not-seen',
      ),
      part(
        before,
        (l) => verdict(l, id) === 'outside',
        (l) => verdict(l, id) !== 'not-seen',
      ),
    );
  return out.sort((a, b) => Number(a.direction === 'better') - Number(b.direction === 'better'));
}

export interface LessonPoint {
  lesson: number;
  date: string;
  landings: number;
  own: number;
  inStandard: number;
  authorship: number | null;
  /** Landings with an intervention noted. */
  withLevel: number;
}
/**
 * Lesson by lesson: how many were the pilot's own, in standard, and whose they were.
 * @returns one entry a lesson, by number
 */
export function byLesson(landings: readonly DebriefLanding[]): LessonPoint[] {
  const lessons = [...new Set(landings.map((l) => l.lesson))].sort((a, b) => a - b);
  return lessons.map((lesson) => {
    const of = landings.filter((l) => l.lesson === lesson);
    const judged = counted(of);
    const levels = of
      .filter((l) => l.kind !== 'go-around' && l.kind !== 'low-pass' && l.judged.landingClass !== 'demonstration')
      .map((l) => l.captured.intervention);
    const part = authorship(levels, PILOTS_PART);
    return {
      lesson,
      date: of[0]?.date ?? '',
      landings: judged.length,
      own: judged.filter((l) => isOwn(l.judged.landingClass)).length,
      inStandard: judged.filter((l) => l.judged.landingClass === 'own').length,
      authorship: part.share,
      withLevel: part.counted,
    };
  });
}

/** A landing as one row of the table. Null is *not seen*. Every chart, page and file takes its numbers from here. */
export interface TableRow {
  id: string;
  lesson: number;
  number: number;
  date: string;
  kind: string;
  meant: string | null;
  touched: string | null;
  class: string;
  computed: string | null;
  whose: string | null;
  crosswindKt: number | null;
  /** Measured, metres: beyond the touchdown point and right of the line. */
  alongM: number | null;
  lateralM: number | null;
  /** By eye, or the measured place in the eye's words. */
  along: string | null;
  across: string | null;
  placeFrom: 'measured' | 'eye' | null;
  fenceOffKt: number | null;
  sinkFpm: number | null;
  crabDeg: number | null;
  swing: string | null;
  bounces: number | null;
  outside: string;
  reason: string;
}
const round1 = (x: number | undefined | null): number | null =>
  x === undefined || x === null ? null : Math.round(x * 10) / 10;

/** @returns one row a landing, every cell in words */
export function tableRows(
  landings: readonly DebriefLanding[],
  c: { trackM: number; boxM: { before: number; past: number } },
): TableRow[] {
  return landings.map((l): TableRow => {
    const m = l.measured?.values ?? {};
    const k = l.captured;
    const fence = l.gates[l.gates.length - 1] ?? null;
    const along = m.along === undefined ? k.along : eyeWord('along', m.along, c);
    const across = m.lateral === undefined ? k.lateral : eyeWord('lateral', m.lateral, c);
    return {
      id: l.id,
      lesson: l.lesson,
      number: l.number,
      date: l.date.slice(0, 10),
      kind: say(l.kind),
      meant: k.intended && say(k.intended),
      touched: k.touched && say(k.touched),
      class: classWord(l),
      computed: l.judged.overruled ? say(l.judged.overruled.computed) : null,
      whose: k.demonstration
        ? 'my demonstration'
        : k.intervention === null
          ? null
          : (INTERVENTIONS[k.intervention]?.word ?? null),
      crosswindKt: round1(l.crosswindKt),
      alongM: round1(m.along),
      lateralM: round1(m.lateral),
      along: along && say(along),
      across: across && say(across),
      placeFrom: m.along !== undefined || m.lateral !== undefined ? 'measured' : along || across ? 'eye' : null,
      fenceOffKt: round1(fence?.offKt),
      sinkFpm: m.firmness === undefined ? null : Math.round(m.firmness),
      crabDeg: round1(m.crab),
      swing:
        m.swing === undefined
          ? k.swing === null
            ? null
            : `${say(k.swing.band)}${k.swing.side ? ` ${k.swing.side}` : ''}`
          : eyeWord('swing', m.swing, c),
      bounces: m.bounce ?? k.bounce?.count ?? null,
      outside: l.judged.criteria
        .filter((x) => x.verdict === 'outside')
        .map((x) => say(x.id))
        .join(', '),
      reason: landingWords(l.judged.reason),
    };
  });
}
const classWord = (l: DebriefLanding): string =>
  l.judged.goAround
    ? `${say(l.judged.goAround.decision)}, ${l.judged.goAround.execution === 'good' ? 'flown well' : say(l.judged.goAround.execution)}`
    : say(l.judged.landingClass);

export const TABLE_COLUMNS: readonly {
  key: Exclude<keyof TableRow, 'id'>;
  label: string;
  unit: string | null;
  numeric: boolean;
}[] = [
  { key: 'lesson', label: 'lesson', unit: null, numeric: true },
  { key: 'number', label: 'landing', unit: null, numeric: true },
  { key: 'date', label: 'day', unit: null, numeric: false },
  { key: 'kind', label: 'kind', unit: null, numeric: false },
  { key: 'meant', label: 'intended', unit: null, numeric: false },
  { key: 'touched', label: 'touched down', unit: null, numeric: false },
  { key: 'class', label: 'class', unit: null, numeric: false },
  { key: 'computed', label: 'class computed, where overruled', unit: null, numeric: false },
  { key: 'whose', label: 'flown by', unit: null, numeric: false },
  { key: 'crosswindKt', label: 'crosswind', unit: 'kt', numeric: true },
  { key: 'alongM', label: 'past the touchdown point', unit: 'm', numeric: true },
  { key: 'lateralM', label: 'right of the line', unit: 'm', numeric: true },
  { key: 'along', label: 'along', unit: null, numeric: false },
  { key: 'across', label: 'place across', unit: null, numeric: false },
  { key: 'placeFrom', label: 'place from', unit: null, numeric: false },
  { key: 'fenceOffKt', label: 'threshold speed off target', unit: 'kt', numeric: true },
  { key: 'sinkFpm', label: 'sink', unit: 'ft/min', numeric: true },
  { key: 'crabDeg', label: 'nose right', unit: 'degrees', numeric: true },
  { key: 'swing', label: 'swing', unit: null, numeric: false },
  { key: 'bounces', label: 'bounces', unit: null, numeric: true },
  { key: 'outside', label: 'outside in', unit: null, numeric: false },
  { key: 'reason', label: 'why', unit: null, numeric: false },
];

/** How one instructor judges by eye what a recording measured. */
export interface EyeAgainstMeasure {
  author: string;
  criterion: string;
  eye: CriterionVerdict;
  measured: CriterionVerdict;
}
const RANK: Record<CriterionVerdict, number> = { within: 0, edge: 1, outside: 2, 'not-seen': -1 };
export interface Standardised {
  author: string;
  n: number;
  agree: number;
  kinder: number;
  harder: number;
  /** Mean of eye less measured in steps of verdict; negative is more lenient than the recording. */
  shift: number;
  /** Two-sided sign test of kinder against harder. */
  luck: number;
  byCriterion: { criterion: string; n: number; agree: number; kinder: number; harder: number }[];
}

/**
 * Instructors side by side on landings that were both seen and measured: the measure is the same for all, so the
 * difference is the eye's.
 * @returns one entry an instructor: how often eye and measure agree, and how often the eye was kinder or harder
 */
export function standardise(pairs: readonly EyeAgainstMeasure[]): Standardised[] {
  const tally = (of: readonly EyeAgainstMeasure[]) => {
    const steps = of.map((p) => RANK[p.eye] - RANK[p.measured]);
    return {
      n: of.length,
      agree: steps.filter((s) => s === 0).length,
      kinder: steps.filter((s) => s < 0).length,
      harder: steps.filter((s) => s > 0).length,
      shift: of.length === 0 ? 0 : steps.reduce((a, b) => a + b, 0) / of.length,
    };
  };
  return [...new Set(pairs.map((p) => p.author))]
    .map((author) => {
      const of = pairs.filter((p) => p.author === author);
      const t = tally(of);
      return {
        author,
        ...t,
        luck: signTest(t.kinder, t.harder),
        byCriterion: [...new Set(of.map((p) => p.criterion))].map((criterion) => ({
          criterion,
          ...tally(of.filter((p) => p.criterion === criterion)),
        })),
      };
    })
    .sort((a, b) => b.n - a.n);
}

/**
 * Both verdicts of each criterion that was seen by eye and measured, of one landing.
 * @returns one entry a criterion
 */
export function bothVerdicts(
  l: Pick<DebriefLanding, 'captured' | 'measured' | 'judged'>,
  author: string,
  standard: Standard,
): EyeAgainstMeasure[] {
  if (!l.measured) return [];
  const eye = judgeCaptured(l.captured, { standard, fenceTarget: null, ktPerUnit: 1, unit: 'kt' });
  return l.judged.criteria.flatMap((c): EyeAgainstMeasure[] => {
    const byEye = eye.criteria.find((x) => x.id === c.id);
    const measured = c.overruled ? c.overruled.computed : c.verdict;
    return c.form === 'measured' && byEye && byEye.form === 'eye' && c.id !== 'speed'
      ? [{ author, criterion: c.id, eye: byEye.verdict, measured }]
      : [];
  });
}

/**
 * Landings so far at which pilots are put side by side: the tenth, the twentieth and so on.
 * @returns 10, 20, 30 …
 */
export const stageOfLanding = (n: number): number => Math.min(5, Math.floor((n - 1) / 10));
export const STAGE_NAME = ['landings 1 to 10', '11 to 20', '21 to 30', '31 to 40', '41 to 50', 'beyond 50'] as const;
/** Fewer pilots than this and a median could be told back to one of them. */
export const FEWEST_PILOTS = 5;
export interface StageTally {
  pilotId: string;
  stage: number;
  landings: number;
  own: number;
  inStandard: number;
  partSum: number;
  partCount: number;
}
/**
 * Of one checkout, stage by stage; what the school's medians are made of.
 * @returns counts by stage
 */
export function stageTallies(
  pilotId: string,
  landings: readonly { landingClass: LandingClass | string; intervention: number | null }[],
): StageTally[] {
  const out: StageTally[] = [];
  landings
    .filter((l) => COUNTED.has(l.landingClass))
    .forEach((l, i) => {
      const stage = stageOfLanding(i + 1);
      const t = out.find((x) => x.stage === stage) ?? {
        pilotId,
        stage,
        landings: 0,
        own: 0,
        inStandard: 0,
        partSum: 0,
        partCount: 0,
      };
      if (!out.includes(t)) out.push(t);
      t.landings++;
      if (isOwn(l.landingClass)) t.own++;
      if (l.landingClass === 'own') t.inStandard++;
      if (l.intervention !== null) {
        t.partSum += PILOTS_PART[l.intervention as 0] ?? 0;
        t.partCount++;
      }
    });
  return out;
}
export interface StageMedian {
  stage: number;
  pilots: number;
  own: number;
  inStandard: number;
  part: number | null;
}
/**
 * Medians over pilots, one voice each; a stage with too few pilots is left out. A pilot needs five landings of a stage
 * to have a voice.
 * @returns medians by stage with how many pilots they are of
 */
export function stageMedians(tallies: readonly StageTally[]): StageMedian[] {
  return [0, 1, 2, 3, 4, 5].flatMap((stage): StageMedian[] => {
    const of = tallies.filter((t) => t.stage === stage && t.landings >= 5);
    const pilots = new Set(of.map((t) => t.pilotId)).size;
    if (pilots < FEWEST_PILOTS) return [];
    const med = (f: (t: StageTally) => number | null) => medianOf(of.flatMap((t) => f(t) ?? []));
    return [
      {
        stage,
        pilots,
        own: med((t) => t.own / t.landings) ?? 0,
        inStandard: med((t) => t.inStandard / t.landings) ?? 0,
        part: med((t) => (t.partCount === 0 ? null : t.partSum / t.partCount)),
      },
    ];
  });
}

/**
 * The stage each lesson had reached by its last judged landing.
 * @returns the stage by number of the lesson
 */
export function stageOfLesson(landings: readonly DebriefLanding[]): Map<number, number> {
  const out = new Map<number, number>();
  counted(landings).forEach((l, i) => out.set(l.lesson, stageOfLanding(i + 1)));
  return out;
}
export interface StageRow {
  stage: number;
  name: string;
  n: number;
  own: number;
  inStandard: number;
  median: StageMedian | null;
}
/**
 * The pilot's own counts at each stage beside the school's median, where there is one. @param judged landings that
 * count, oldest first
 * @returns counts by stage, with the school's median or null
 */
export function stageRows(judged: readonly DebriefLanding[], medians: readonly StageMedian[]): StageRow[] {
  return STAGE_NAME.flatMap((name, stage): StageRow[] => {
    const of = judged.filter((_, i) => stageOfLanding(i + 1) === stage);
    return of.length === 0
      ? []
      : [
          {
            stage,
            name,
            n: of.length,
            own: of.filter((l) => isOwn(l.judged.landingClass)).length,
            inStandard: of.filter((l) => l.judged.landingClass === 'own').length,
            median: medians.find((m) => m.stage === stage) ?? null,
          },
        ];
  });
}

/**
 * A share in words: `8 of 12`, with what is known of too few said.
 * @returns such as `8 of 12`
 */
export const shareWords = (k: number, n: number): string => (n === 0 ? 'none yet' : `${k} of ${n}`);

/** What a pilot said of a lesson, in three taps, beside what was recorded. */
export interface SelfSaid {
  own: number;
  bestNumber: number | null;
  workOn: string;
}
export const WORK_ON = ['line', 'speed', 'hold-off', 'bounce', 'roll-out', 'decision'] as const;
export type WorkOn = (typeof WORK_ON)[number];
export const WORK_ON_NAME: Record<WorkOn, string> = {
  line: 'the line and the drift',
  speed: 'speed and path',
  'hold-off': 'flare and attitude',
  bounce: 'the touch and the bounce',
  'roll-out': 'straight until stopped',
  decision: 'when to go around',
};
const WORK_CRITERIA: Record<WorkOn, readonly string[]> = {
  line: ['lateral', 'drift', 'crab'],
  speed: ['speed', 'along'],
  'hold-off': ['attitude', 'configuration'],
  bounce: ['bounce', 'firmness'],
  'roll-out': ['swing', 'aileron', 'stick', 'rollout'],
  decision: [],
};

/** @returns said and recorded side by side */
export function compareSelf(
  said: SelfSaid,
  landings: readonly DebriefLanding[],
): {
  own: { said: number; recorded: number };
  best: { said: number | null; recorded: number | null; same: boolean };
  workOn: { said: string; recorded: string | null; same: boolean };
} {
  const judged = counted(landings);
  const own = judged.filter((l) => isOwn(l.judged.landingClass)).length;
  const { best } = bestAndWorst(landings);
  const outside = (ids: readonly string[]) =>
    judged.reduce(
      (n, l) => n + l.judged.criteria.filter((c) => ids.includes(c.id) && c.verdict === 'outside').length,
      0,
    );
  const late = landings.filter(
    (l) =>
      l.judged.goAround?.decision === 'late' || l.judged.goAround?.decision === 'told' || l.judged.triggerContinued,
  ).length;
  const most = WORK_ON.map((w) => ({ w, n: w === 'decision' ? late * 2 : outside(WORK_CRITERIA[w]) })).sort(
    (a, b) => b.n - a.n,
  )[0];
  const recorded = most && most.n > 0 ? most.w : null;
  return {
    own: { said: said.own, recorded: own },
    best: {
      said: said.bestNumber,
      recorded: best?.number ?? null,
      same: best !== null && said.bestNumber === best.number,
    },
    workOn: {
      said: WORK_ON_NAME[said.workOn as WorkOn] ?? said.workOn,
      recorded: recorded && WORK_ON_NAME[recorded],
      same: recorded === said.workOn,
    },
  };
}
