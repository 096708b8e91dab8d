/**
 * Findings: patterns as data, matched against what was recorded. A pattern once raised stands until as many occasions
 * as it asks have passed without it. Every finding carries the numbers that raised it and the landings behind them.
 * Method: counts, sign test, t interval, Theil-Sen.
 */
import type { Exercise, FindingPattern, FindingTrigger, Select } from '@/domain/findings';
import type { GearChecked } from '@/domain/capture';
import type { Standard } from '@/domain/programme';
import { LIMIT_NAME, type LimitChannel, say } from '@/domain/words';
import { wholeDaysSince } from '../differences';
import { fixed, list, plural } from '../format';
import { signTest } from './distributions';
import type { Observation } from './evidence';
import {
  type DebriefLanding,
  type FactContext,
  type Facts,
  gearFacts,
  itemFacts,
  landingFacts,
  selected,
} from './facts';
import { bias, theilSen } from './spread';
import { medianOf } from '../constants';

/** Sides seen of others, to know whether a side is the pilot's. */
export interface SidesSeen {
  pilots: number;
  left: number;
  line: number;
  right: number;
}
export interface FindingRecord {
  /** Oldest first. */
  landings: readonly DebriefLanding[];
  observations: readonly Observation[];
  gearChecks: readonly { id: string; lesson: number; check: GearChecked }[];
  limits: readonly {
    id: string;
    lesson: number;
    date: string;
    channel: LimitChannel;
    words: string;
    /** Null = seen by eye. */
    traceId?: string | null;
  }[];
  /** Days each lesson was flown, by lesson; the day the pilot last flew anything before the first is not known here. */
  lessons: readonly { lesson: number; date: string }[];
  standard: Pick<Standard, 'airwork' | 'edgeShare'>;
  ktPerUnit: number;
  context: FactContext;
  /** Attributes in which the old type's action is wrong here. */
  habits: readonly { key: string; from: string | null; to: string }[];
  /** The same instructor's other pilots by eye, and the same aeroplane's. */
  others: { instructor: SidesSeen; airframe: SidesSeen };
  /** Sides of the techniques as the checkout has chosen them; absent = the patterns' own words. */
  schools?: Readonly<Record<string, string>>;
}
export interface Finding {
  id: string;
  title: string;
  positive: boolean;
  state: 'open' | 'closed';
  weight: number;
  /** Told to the pilot? A side that the instructor sees in every pilot is not. */
  forPilot: boolean;
  pilot: string;
  instructor: string;
  /** The numbers that raised it, each with its unit in the text. */
  numbers: { label: string; text: string }[];
  /** Ids of landings, items or limits behind it, oldest first. */
  evidence: string[];
  causes: readonly string[];
  next: Exercise;
  /** Occasions since without it, and how many close it. */
  clean: number;
  closes: number;
  sinceLesson: number;
}
interface Raised {
  evidence: string[];
  numbers: { label: string; text: string }[];
  words: Record<string, string>;
  clean: number;
  sinceLesson: number;
  forPilot?: boolean;
}
interface Row {
  id: string;
  lesson: number;
  facts: Facts;
  landing: DebriefLanding | null;
}

const isArrival = (l: DebriefLanding): boolean => l.kind === 'full-stop' || l.kind === 'touch-and-go';
/** The level of intervention at which the instructor flies. */
const TAKEN_OVER = 3;
const DECISIONS: ReadonlySet<string> = new Set(['trigger', 'gaDecision']);
const asksDecision = (t: FindingTrigger): boolean =>
  t.kind === 'help-flat' ||
  t.kind === 'limit' ||
  (t.kind === 'share' && [...t.of.all, ...t.of.any].some((c) => DECISIONS.has(c.f)));
const percent = (k: number, n: number): string => `${fixed((100 * k) / Math.max(1, n))} in 100`;

/**
 * Everything the patterns find in a record, open first, the weightiest first.
 * @returns findings with the evidence behind each
 */
export function findPatterns(patterns: readonly FindingPattern[], record: FindingRecord): Finding[] {
  const flown = record.landings.filter((l) => l.judged.landingClass !== 'demonstration' && !l.captured.demonstration);
  let previous: DebriefLanding | null = null;
  const arrivals: Row[] = [];
  const around: Row[] = [];
  for (const l of flown) {
    const row = { id: l.id, lesson: l.lesson, facts: landingFacts(l, previous, record.context), landing: l };
    if (l.kind === 'go-around') around.push(row);
    else if (isArrival(l)) {
      arrivals.push(row);
      previous = l;
    }
  }
  const over = {
    arrivals,
    'go-arounds': around,
    items: record.observations.map((o): Row => ({
      id: o.id,
      lesson: o.lesson,
      facts: itemFacts(o, record.standard, record.ktPerUnit),
      landing: null,
    })),
    'gear-checks': record.gearChecks.map((g): Row => ({
      id: g.id,
      lesson: g.lesson,
      facts: gearFacts(g.check),
      landing: null,
    })),
  };
  // What the instructor flew says nothing of what the pilot does; of the decision before it, and of help, it does.
  const theirs = (rows: readonly Row[]): Row[] => rows.filter((r) => r.facts.intervention !== TAKEN_OVER);
  const own = {
    arrivals: theirs(over.arrivals),
    'go-arounds': theirs(over['go-arounds']),
    items: theirs(over.items),
    'gear-checks': over['gear-checks'],
  };
  const found = patterns
    .map((p) => spokenBy(p, record.schools ?? {}))
    .flatMap((p): Finding[] => {
      const raised = raise(p, p.trigger, p.positive || asksDecision(p.trigger) ? over : own, record);
      if (!raised) return [];
      const words = (text: string) =>
        text
          .replace(/\{(\w+)\}/g, (_, key: string) => raised.words[key] ?? '')
          .replace(/\s+/g, ' ')
          .trim();
      return [
        {
          id: p.id,
          title: p.title,
          positive: p.positive,
          state: !p.positive && raised.clean >= p.closes ? 'closed' : 'open',
          weight: p.weight,
          forPilot: raised.forPilot ?? true,
          pilot: words(p.pilot),
          instructor: words(p.instructor),
          numbers: raised.numbers,
          evidence: raised.evidence,
          causes: p.causes,
          next: p.next,
          clean: raised.clean,
          closes: p.closes,
          sinceLesson: raised.sinceLesson,
        },
      ];
    });
  const heaviest = Math.max(0, ...found.filter((f) => !f.positive && f.state === 'open').map((f) => f.weight));
  const spoken = found.filter((f) => {
    const quiet = patterns.find((p) => p.id === f.id)?.quietUnder;
    return quiet === undefined || heaviest < quiet;
  });
  return spoken.sort(
    (a, b) =>
      Number(a.state === 'closed') - Number(b.state === 'closed') ||
      Number(a.positive) - Number(b.positive) ||
      b.weight - a.weight ||
      b.evidence.length - a.evidence.length,
  );
}

/** A pattern in the words of the side of a technique that the checkout has chosen. */
function spokenBy(p: FindingPattern, schools: Readonly<Record<string, string>>): FindingPattern {
  const own = p.bySchool.find((s) => schools[s.topic] === s.side);
  return own ? { ...p, pilot: own.pilot ?? p.pilot, causes: own.causes ?? p.causes, next: own.next ?? p.next } : p;
}

function raise(
  p: FindingPattern,
  t: FindingTrigger,
  over: Record<'arrivals' | 'go-arounds' | 'items' | 'gear-checks', Row[]>,
  record: FindingRecord,
): Raised | null {
  switch (t.kind) {
    case 'share':
      return t.habit && !record.habits.some((h) => h.key === t.habit) ? null : shareOf(t, over[t.over], p);
    case 'bias':
      return sideBias(t, over.arrivals, record, p.closes);
    case 'one-side':
      return oneSide(t, over.arrivals, record);
    case 'creep':
      return creep(t, over.arrivals, p.closes);
    case 'contrast':
      return contrast(t, over[t.over]);
    case 'lost':
      return lostSkill(t, over.arrivals, p.closes);
    case 'help-flat':
      return helpFlat(t, over.arrivals);
    case 'sink':
      return sinkAbove(t, over.arrivals);
    case 'limit':
      return limitPassed(t, record);
    case 'gap':
      return afterGap(t, over, record);
  }
}

/** Occasions at the end without what is looked for. */
function cleanAtEnd(hits: readonly boolean[]): number {
  const last = hits.lastIndexOf(true);
  return hits.length - 1 - last;
}

/** The same where what was lost must be lost but once: clean long enough at any time since closes it. */
function cleanOnce(hits: readonly boolean[], closes: number): number {
  const from = hits.indexOf(true);
  let run = 0;
  for (const hit of hits.slice(from + 1)) {
    run = hit ? 0 : run + 1;
    if (run >= closes) return Math.max(closes, cleanAtEnd(hits));
  }
  return cleanAtEnd(hits);
}

/**
 * Latched: raised at the first place where the window is full enough, and kept until it has been clean for long enough.
 */
function shareOf(
  t: Extract<FindingTrigger, { kind: 'share' }>,
  rows: readonly Row[],
  { positive, closes, pilot, instructor }: FindingPattern,
): Raised | null {
  const among = rows.filter((r) => selected(r.facts, t.among));
  const hits = among.map((r) => selected(r.facts, t.of));
  const at = (end: number) => {
    const from = Math.max(0, end - t.window);
    const k = hits.slice(from, end).filter(Boolean).length;
    return k >= t.atLeast && k / (end - from) >= t.share ? { k, n: end - from, from } : null;
  };
  // A thing done well counts as it stands now. A fault stands from where it was clear until it has been absent for long
  // enough; what comes once after that does not bring the old one back.
  let end: number | undefined;
  let first: number | undefined;
  let open = false;
  let clean = 0;
  for (let e = positive ? among.length : 1; e <= among.length; e++) {
    clean = cleanAtEnd(hits.slice(0, e));
    if (at(e) !== null && (positive || clean < closes)) {
      if (!open) first = e;
      open = true;
      end = e;
    } else if (clean >= closes) open = false;
  }
  const now = end === undefined ? null : at(end);
  if (!now || end === undefined) return null;
  const hitRows = among.slice(now.from, end).filter((_, i) => hits[now.from + i]);
  const outSwing = hitRows.filter((r) => r.facts.swing === 'large' || r.facts.swing === 'late-correction').length;
  const fast = hitRows.flatMap((r) => (typeof r.facts.fenceOff === 'number' ? [r.facts.fenceOff] : []));
  const speed = medianOf(fast);
  return {
    evidence: hitRows.map((r) => r.id),
    clean: open ? clean : Math.max(closes, clean),
    sinceLesson: among[(first ?? end) - 1]?.lesson ?? 0,
    numbers: [
      { label: 'seen', text: `${now.k} of ${now.n}` },
      { label: 'share', text: percent(now.k, now.n) },
      ...(speed === null || !`${pilot}${instructor}`.includes('{speed}')
        ? []
        : [
            {
              label: 'threshold speed of these, median',
              text: `${speed >= 0 ? '+' : '\u2013'}${fixed(Math.abs(speed), 1)} kt from the target`,
            },
          ]),
    ],
    words: {
      k: String(now.k),
      n: String(now.n),
      times: now.k === 1 ? 'once' : `${now.k} times`,
      withSwing: outSwing > 0 ? `, ${outSwing} of them with a swing` : '',
      speed:
        speed === null
          ? ''
          : `Median speed over the threshold of these ${speed >= 0 ? '+' : '\u2013'}${fixed(Math.abs(speed), 0)} kt.`,
    },
  };
}

/**
 * One side in every pilot of an instructor is the instructor's eye; one side in every pilot of an aeroplane is the
 * aeroplane.
 */
function checkedAgainst(
  side: 'left' | 'right',
  others: FindingRecord['others'],
  byEye: boolean,
): { words: string; pilots: boolean } {
  const same = (s: SidesSeen) =>
    s.pilots >= 3 &&
    s.left + s.right >= 12 &&
    signTest(s.left, s.right) < 0.05 &&
    (side === 'left' ? s.left > s.right : s.right > s.left);
  const counts = (s: SidesSeen) =>
    `${s.left} left, ${s.line} on the line, ${s.right} right of ${plural(s.pilots, 'pilot')}`;
  if (byEye && same(others.instructor))
    return {
      words: `All your pilots land ${side} (${counts(others.instructor)}): check your own sight line before you tell this pilot.`,
      pilots: false,
    };
  if (same(others.airframe))
    return {
      words: `Other pilots land ${side} in this aeroplane too (${counts(others.airframe)}): have seat and brakes checked.`,
      pilots: true,
    };
  const told = (s: SidesSeen, whose: string) =>
    s.pilots >= 3 && s.left + s.line + s.right >= 12
      ? `not so in ${whose} (${counts(s)})`
      : `${whose}: too few recorded to compare (${counts(s)})`;
  const words = `${told(others.instructor, 'your other pilots')}; ${told(others.airframe, 'this aeroplane with others')}.`;
  return { words: words.charAt(0).toUpperCase() + words.slice(1), pilots: true };
}

/** Mean metres or degrees where measured; else how often each side was seen. The two are never mixed. */
function sideBias(
  t: Extract<FindingTrigger, { kind: 'bias' }>,
  rows: readonly Row[],
  record: FindingRecord,
  closes: number,
): Raised | null {
  const field = t.measure === 'lateral' ? 'lateralM' : 'crabDeg';
  const sideField = t.measure === 'lateral' ? 'lateralSide' : 'crabSide';
  // Hands of the instructor decide the place as much as the pilot's: helped landings are left out.
  const own = rows.filter((r) => ((r.facts.intervention as number | null) ?? 0) < 2);
  const sign = t.side === 'left' ? -1 : 1;
  const measuredRows = own.filter((r) => typeof r.facts[field] === 'number');
  const sided = own.filter((r) => typeof r.facts[sideField] === 'string');
  const nowhere = ['line', 'none'];
  // A metre that is too small to matter is not made into a band again: the eye's count is of what only the eye saw.
  const byEye = sided.filter((r) => typeof r.facts[field] !== 'number');
  const measuredAt = (end: number) => {
    const of = measuredRows.slice(Math.max(0, end - t.window), end);
    const b = bias(
      of.map((r) => r.facts[field] as number),
      t.practical,
    );
    return b.n >= t.atLeast && b.flag && Math.sign(b.mean ?? 0) === sign ? { b, of } : null;
  };
  const eyeAt = (end: number) => {
    const of = byEye.slice(Math.max(0, end - t.window), end);
    const count = (s: string) => of.filter((r) => r.facts[sideField] === s).length;
    const [left, right] = [count('left'), count('right')];
    const here = t.side === 'left' ? left : right;
    return of.length >= t.atLeast &&
      here / of.length >= 0.5 &&
      here > of.length - here - (of.length - left - right) &&
      signTest(left, right) < 0.05
      ? { of, left, right, line: of.length - left - right }
      : null;
  };
  const ends = (n: number) => Array.from({ length: n }, (_, i) => n - i);
  const mEnd = ends(measuredRows.length).find((e) => measuredAt(e) !== null);
  const eEnd = ends(byEye.length).find((e) => eyeAt(e) !== null);
  const m = mEnd === undefined ? null : measuredAt(mEnd);
  const e = eEnd === undefined ? null : eyeAt(eEnd);
  if (!m && !e) return null;
  // Closed when the landings since a corrected one lie about the line, whoever saw them: a quarter to the side at most,
  // and what was measured of them within the practical size.
  let clean = 0;
  for (let n = Math.min(closes, sided.length); n >= 1; n--) {
    const tail = sided.slice(-n);
    if (tail[0]?.facts[sideField] === t.side) continue;
    const toSide = tail.filter((r) => r.facts[sideField] === t.side).length;
    const metres = tail.flatMap((r) => (typeof r.facts[field] === 'number' ? [r.facts[field]] : []));
    const mean = metres.reduce((a, b) => a + b, 0) / Math.max(1, metres.length);
    if (toSide <= Math.floor(n / 4) && mean * sign <= t.practical) {
      clean = n;
      break;
    }
  }
  const checked = checkedAgainst(t.side, record.others, m === null);
  const words: string[] = [];
  const numbers: Raised['numbers'] = [];
  if (m && m.b.mean !== null && m.b.lower !== null && m.b.upper !== null) {
    const [near, far] = sign < 0 ? [-m.b.upper, -m.b.lower] : [m.b.lower, m.b.upper];
    const u = t.unit === '\u00b0' ? '\u00b0' : ` ${t.unit}`;
    words.push(
      `mean ${fixed(Math.abs(m.b.mean), 1)}${u} ${t.side} over ${m.b.n} measured landings, between ${fixed(near, 1)} and ${fixed(far, 1)}${u}`,
    );
    numbers.push(
      { label: 'mean', text: `${fixed(Math.abs(m.b.mean), 2)}${u} ${t.side}` },
      { label: '95 in 100 interval', text: `${fixed(near, 2)} to ${fixed(far, 2)}${u}` },
      { label: 'measured landings', text: String(m.b.n) },
    );
  }
  if (e) {
    words.push(
      `${t.side === 'left' ? e.left : e.right} of ${e.of.length} seen by eye to the ${t.side}, ${e.line} ${nowhere[t.measure === 'lateral' ? 0 : 1] === 'line' ? 'on the line' : 'straight'}, ${t.side === 'left' ? e.right : e.left} to the ${t.side === 'left' ? 'right' : 'left'}`,
    );
    numbers.push(
      { label: 'by eye left, line, right', text: `${e.left}, ${e.line}, ${e.right} of ${e.of.length}` },
      {
        label: 'chance of so uneven a split by luck',
        text:
          signTest(e.left, e.right) < 0.001 ? 'under 1 in 1000' : `${fixed(1000 * signTest(e.left, e.right))} in 1000`,
      },
    );
  }
  const said = words.join('; ');
  const behind = new Set(
    [
      ...(m?.of ?? []).filter((r) => (r.facts[field] as number) * sign > 0),
      ...(e?.of ?? []).filter((r) => r.facts[sideField] === t.side),
    ].map((r) => r.id),
  );
  const evidence = own.filter((r) => behind.has(r.id)).map((r) => r.id);
  return {
    evidence,
    numbers,
    clean,
    sinceLesson: own.find((r) => r.id === evidence[0])?.lesson ?? 0,
    forPilot: checked.pilots,
    words: { said, checked: checked.words },
  };
}

function oneSide(
  t: Extract<FindingTrigger, { kind: 'one-side' }>,
  rows: readonly Row[],
  record: FindingRecord,
): Raised | null {
  const swung = rows.filter((r) => r.facts[t.field] === 'left' || r.facts[t.field] === 'right').slice(-t.window);
  const left = swung.filter((r) => r.facts[t.field] === 'left').length;
  const right = swung.length - left;
  if (swung.length < t.atLeast || signTest(left, right) >= 0.05) return null;
  const side = left > right ? 'left' : 'right';
  const seen = rows.filter((r) => typeof r.facts[t.field] === 'string').map((r) => r.facts[t.field] === side);
  return {
    evidence: swung.filter((r) => r.facts[t.field] === side).map((r) => r.id),
    clean: cleanAtEnd(seen),
    sinceLesson: swung[0]?.lesson ?? 0,
    numbers: [
      { label: 'left, right', text: `${left}, ${right}` },
      { label: 'chance of so uneven a split by luck', text: `${fixed(1000 * signTest(left, right))} in 1000` },
    ],
    words: {
      side,
      k: String(Math.max(left, right)),
      n: String(swung.length),
      checked: `${record.others.airframe.pilots > 0 ? 'Let another pilot fly the same aeroplane to tell seat from brake.' : ''}`,
    },
  };
}

const LONGNESS: Record<string, number> = { short: 0, 'in-the-box': 1, long: 2, 'very-long': 3 };
/**
 * Metres only where measured: the lower end of the slope above 0 and the slope worth a word. By eye: the later half
 * longer than the earlier, by count, and the note.
 */
function creep(t: Extract<FindingTrigger, { kind: 'creep' }>, rows: readonly Row[], closes: number): Raised | null {
  const numbers: Raised['numbers'] = [];
  const words: string[] = [];
  const evidence = new Set<string>();
  const measured = rows.filter((r) => typeof r.facts.alongM === 'number').slice(-24);
  const trend = theilSen(
    measured.map((_, i) => i),
    measured.map((r) => r.facts.alongM as number),
  );
  if (
    measured.length >= t.atLeast &&
    trend.slope !== null &&
    trend.lower !== null &&
    trend.upper !== null &&
    trend.lower > 0 &&
    trend.slope >= t.slopeM
  ) {
    words.push(
      `${fixed(trend.slope, 1)} m further with each landing over ${measured.length} measured, between ${fixed(trend.lower, 1)} and ${fixed(trend.upper, 1)}`,
    );
    numbers.push({
      label: 'slope',
      text: `${fixed(trend.slope, 2)} m a landing (${fixed(trend.lower, 2)} to ${fixed(trend.upper, 2)})`,
    });
    for (const r of measured.slice(-Math.ceil(measured.length / 2))) evidence.add(r.id);
  }
  const seen = rows.filter((r) => typeof r.facts.along === 'string').slice(-24);
  const half = Math.floor(seen.length / 2);
  const isLong = (r: Row) => (LONGNESS[String(r.facts.along)] ?? 0) >= 2;
  const [early, late] = [seen.slice(0, half).filter(isLong).length, seen.slice(half).filter(isLong).length];
  const rank = theilSen(
    seen.map((_, i) => i),
    seen.map((r) => LONGNESS[String(r.facts.along)] ?? null),
  );
  const noted = rows.slice(-12).filter((r) => r.facts[`n.${t.note}`] === true);
  if (
    seen.length >= t.atLeast &&
    late >= 4 &&
    late >= early + 3 &&
    late / Math.max(1, seen.length - half) >= 0.4 &&
    (rank.lower ?? -1) >= 0
  ) {
    words.push(`${late} of the last ${seen.length - half} long, ${early} of the ${half} before`);
    numbers.push({
      label: 'long, earlier and later half',
      text: `${early} of ${half}, ${late} of ${seen.length - half}`,
    });
    for (const r of seen.slice(half).filter(isLong)) evidence.add(r.id);
  }
  if (noted.length >= 3) {
    words.push(`the aim point seen to creep ${noted.length} times`);
    numbers.push({ label: 'noted', text: plural(noted.length, 'time') });
    for (const r of noted) evidence.add(r.id);
  }
  if (words.length === 0) return null;
  const tail = cleanAtEnd(seen.map((r) => isLong(r) || r.facts[`n.${t.note}`] === true));
  const ids = rows.filter((r) => evidence.has(r.id)).map((r) => r.id);
  return {
    evidence: ids,
    numbers,
    clean: Math.min(closes, tail),
    sinceLesson: rows.find((r) => r.id === ids[0])?.lesson ?? 0,
    words: { said: words.join('; ') },
  };
}

function contrast(t: Extract<FindingTrigger, { kind: 'contrast' }>, rows: readonly Row[]): Raised | null {
  const rate = (where: Select) => {
    const of = rows.filter((r) => selected(r.facts, where));
    const hit = of.filter((r) => selected(r.facts, t.of));
    return { n: of.length, k: hit.length, hit, of };
  };
  const here = rate(t.with);
  const there = rate(t.without);
  if (here.k < t.atLeast || here.k / here.n < t.share || there.n < 6 || there.k / there.n > t.elsewhere) return null;
  return {
    evidence: here.hit.map((r) => r.id),
    clean: cleanAtEnd(here.of.map((r) => selected(r.facts, t.of))),
    sinceLesson: here.hit[0]?.lesson ?? 0,
    numbers: [
      { label: 'in it', text: `${here.k} of ${here.n}` },
      { label: 'elsewhere', text: `${there.k} of ${there.n}` },
    ],
    words: { k: String(here.k), n: String(here.n), other: `${there.k} of ${there.n}` },
  };
}

interface Load {
  label: string;
  from: number;
  under: (r: Row) => boolean;
}
/**
 * What made a lesson harder than every one before: another attitude meant, three knots more across, the first gusts,
 * another kind of landing.
 * @returns the landings from which something was new, with a test of what lies under it
 */
export function loadsIn(
  rows: readonly Pick<Row, 'facts' | 'lesson'>[],
): { label: string; from: number; lesson: number; under: (f: Facts) => boolean }[] {
  const loads: { label: string; from: number; lesson: number; under: (f: Facts) => boolean }[] = [];
  const attitudes = new Set<string>();
  let wind = 0;
  let gusty = false;
  rows.forEach((r, i) => {
    const { intended, windKt, gustSpread } = r.facts;
    const early = i < 4;
    if (typeof intended === 'string' && !attitudes.has(intended)) {
      if (!early)
        loads.push({
          label: `${say(intended)} landings`,
          from: i,
          lesson: r.lesson,
          under: (f) => f.intended === intended,
        });
      attitudes.add(intended);
    }
    if (typeof windKt === 'number' && windKt >= wind + 3) {
      if (!early && windKt >= 5) {
        const least = windKt - 1;
        loads.push({
          label: `${fixed(windKt)} kt crosswind`,
          from: i,
          lesson: r.lesson,
          under: (f) => typeof f.windKt === 'number' && f.windKt >= least,
        });
      }
      wind = windKt;
    } else if (typeof windKt === 'number') wind = Math.max(wind, windKt);
    if (typeof gustSpread === 'number' && gustSpread >= 5 && !gusty) {
      if (!early)
        loads.push({
          label: 'gusts',
          from: i,
          lesson: r.lesson,
          under: (f) => typeof f.gustSpread === 'number' && f.gustSpread >= 5,
        });
      gusty = true;
    }
  });
  return loads;
}

/** In standard before a new task came in, outside when it did. */
function lostSkill(t: Extract<FindingTrigger, { kind: 'lost' }>, rows: readonly Row[], closes: number): Raised | null {
  let best: { load: Load; criterion: string; outside: Row[]; under: Row[]; before: Row[] } | null = null;
  for (const l of loadsIn(rows)) {
    const load: Load = { label: l.label, from: l.from, under: (r) => l.under(r.facts) };
    for (const criterion of t.criteria) {
      const seen = (r: Row) => {
        const v = r.facts[`v.${criterion}`];
        return typeof v === 'string' && v !== 'not-seen';
      };
      const before = rows.slice(0, load.from).filter(seen).slice(-6);
      const under = rows
        .slice(load.from)
        .filter((r) => seen(r) && load.under(r))
        .slice(0, 8);
      const outside = under.filter((r) => r.facts[`v.${criterion}`] === 'outside');
      if (before.length < t.before || before.some((r) => r.facts[`v.${criterion}`] === 'outside')) continue;
      if (outside.length < t.atLeast || outside.length / under.length < t.share) continue;
      if (!best || outside.length / under.length > best.outside.length / best.under.length)
        best = { load, criterion, outside, under, before };
    }
  }
  if (!best) return null;
  const { load, criterion, outside, under, before } = best;
  const later = rows
    .slice(load.from)
    .filter(
      (r) => load.under(r) && typeof r.facts[`v.${criterion}`] === 'string' && r.facts[`v.${criterion}`] !== 'not-seen',
    )
    .map((r) => r.facts[`v.${criterion}`] === 'outside');
  return {
    evidence: outside.map((r) => r.id),
    clean: cleanOnce(later, closes),
    sinceLesson: rows[load.from]?.lesson ?? 0,
    numbers: [
      { label: 'before the new task', text: `${say(criterion)} outside in 0 of ${before.length}` },
      { label: `with ${load.label}`, text: `outside in ${outside.length} of ${under.length}` },
    ],
    words: {
      said: `${say(criterion)} was in standard in the ${before.length} before, and outside in ${outside.length} of ${under.length} with ${load.label}`,
    },
  };
}

function helpFlat(t: Extract<FindingTrigger, { kind: 'help-flat' }>, rows: readonly Row[]): Raised | null {
  const known = rows.filter((r) => typeof r.facts.intervention === 'number');
  const last = known.slice(-t.window);
  if (last.length < t.window) return null;
  const helped = (r: Row) => (r.facts.intervention as number) > 0;
  const half = t.window / 2;
  const [first, second] = [last.slice(0, half).filter(helped).length, last.slice(half).filter(helped).length];
  if (first + second < t.atLeast || second < first) return null;
  return {
    evidence: last.filter(helped).map((r) => r.id),
    clean: cleanAtEnd(known.map(helped)),
    sinceLesson: last[0]?.lesson ?? 0,
    numbers: [
      { label: 'assisted', text: `${first + second} of ${t.window}` },
      { label: 'first and second half', text: `${first} and ${second}` },
    ],
    words: {
      k: String(first + second),
      n: String(t.window),
      first: `${first} of ${half}`,
      second: `${second} of ${half}`,
    },
  };
}

function sinkAbove(t: Extract<FindingTrigger, { kind: 'sink' }>, rows: readonly Row[]): Raised | null {
  const measured = rows.filter((r) => typeof r.facts.sinkFpm === 'number');
  const usual = medianOf(measured.map((r) => r.facts.sinkFpm as number));
  if (usual === null || measured.length < 8) return null;
  const hard = (r: Row) => (r.facts.sinkFpm as number) > t.times * usual;
  const last = measured.slice(-t.window);
  const hit = last.filter(hard);
  if (hit.length < t.atLeast) return null;
  return {
    evidence: hit.map((r) => r.id),
    clean: cleanAtEnd(measured.map(hard)),
    sinceLesson: hit[0]?.lesson ?? 0,
    numbers: [
      { label: `above ${fixed(t.times, 1)} times the median`, text: `${hit.length} of ${last.length}` },
      { label: 'own median', text: `${fixed(usual)} ft/min` },
    ],
    words: { k: String(hit.length), n: String(last.length), median: fixed(usual), times: fixed(t.times, 1) },
  };
}

function limitPassed(t: Extract<FindingTrigger, { kind: 'limit' }>, record: FindingRecord): Raised | null {
  const of = record.limits.filter((l) => t.channels.includes(l.channel));
  const last = of[of.length - 1];
  if (!last) return null;
  return {
    evidence: of.map((l) => l.id),
    clean: record.lessons.filter((l) => l.lesson > last.lesson).length,
    sinceLesson: of[0]?.lesson ?? 0,
    numbers: of.map((l) => ({ label: `${LIMIT_NAME[l.channel]}, lesson ${l.lesson}`, text: l.words })),
    words: { said: list(of.map((l) => `${LIMIT_NAME[l.channel]} ${l.words}`)) },
  };
}

function afterGap(
  t: Extract<FindingTrigger, { kind: 'gap' }>,
  over: Record<'arrivals' | 'items', Row[]>,
  record: FindingRecord,
): Raised | null {
  const gap = [...record.lessons]
    .reverse()
    .map((l) => {
      const before = record.lessons.filter((x) => x.lesson < l.lesson).pop();
      return { lesson: l.lesson, days: before ? wholeDaysSince(before.date, l.date) : 0 };
    })
    .find((l) => l.days >= t.days);
  if (!gap) return null;
  const out = over.items.filter((r) => r.lesson >= gap.lesson && selected(r.facts, t.of));
  const hands = over.arrivals.filter((r) => r.lesson === gap.lesson);
  const good = hands.filter((r) => r.facts.class === 'own' || r.facts.class === 'own-off-target').length;
  if (out.length === 0 || hands.length === 0 || good / hands.length < 0.6) return null;
  const later = over.items
    .filter((r) => r.lesson >= gap.lesson && r.facts.form === 'steps')
    .map((r) => selected(r.facts, t.of));
  return {
    evidence: out.map((r) => r.id),
    clean: cleanAtEnd(later),
    sinceLesson: gap.lesson,
    numbers: [
      { label: 'gap', text: plural(gap.days, 'day') },
      { label: 'flows outside', text: String(out.length) },
      { label: 'unassisted landings in that lesson', text: `${good} of ${hands.length}` },
    ],
    words: { days: String(gap.days), k: String(out.length) },
  };
}
