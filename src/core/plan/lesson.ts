/**
 * The next lesson as a proposal: an ordered list that fits the booking and the fuel. Method: repeat what was lost, then
 * what the findings ask, then open items whose prerequisites are met; one new load at a time, and none while something
 * is being rebuilt; the wind taken is the step the pilot has earned against the forecast; it ends on something done
 * well. Minutes throughout, knots across.
 */
import type { BriefChoices } from '@/domain/brief';
import type { Finding } from '../assess/findings';
import type { ItemEvidence, RecordedLanding } from '../assess/evidence';
import type { LabPage } from '@/domain/lab-pages';
import type { PlanBlock } from '@/domain/plan';
import { SLACK } from '../constants';
import type { BlockTitle, LaterWhy, LessonProposal, ProposedBlock } from './lesson-words';

export interface LabOffer {
  findingId: string;
  page: LabPage;
  query: string;
  /** What it is set with, in words; null = nothing was measured. */
  set: string | null;
}
export interface LessonInput {
  items: readonly ItemEvidence[];
  /** Open and not dismissed, the weightiest first. */
  findings: readonly Finding[];
  /** School of the first landing taught, and whether the handbook lets wheel landings be flown. */
  firstLanding: string;
  wheelAllowed: boolean;
  /** Attitudes meant so far, and those of which the last landings were the pilot's own. */
  flown: readonly string[];
  owned: readonly string[];
  ladder: { provenKt: number; ladderKt: number };
  /** Strongest wind across (gust counted) that the forecast has for this flight; null = no forecast. */
  forecastKt: number | null;
  bookingMin: number;
  fuelMin: number;
  groundMin: number;
  circuitMin: number;
  /** Days since the pilot last flew; null = never here. */
  daysAway: number | null;
  /** The page of the lab that explains a finding, by the id of the finding, set with what was measured of this pilot. */
  labs?: readonly LabOffer[];
  /** Lessons of this checkout flown so far; absent = not known, and then every item may be taken up. */
  lessonsFlown?: number;
}

const AIRWORK_FORMS = new Set([
  'steep-turn',
  'slow-flight',
  'stall',
  'energy',
  'asymmetric',
  'emergency-descent',
  'power-table',
  'trial',
]);
const NOT_FLOWN: ReadonlySet<string> = new Set(['hours', 'briefs', 'gear-checks']);
const ITEM_MIN = 6;
const AIRWORK_MIN = 10;
const GROUND_MIN = 10;
/** A page of the lab, looked at together. */
const LAB_MIN = 5;
/** Days away after which a lesson settles in for longer. */
const AWAY_DAYS = 30;
const ORDER: Record<PlanBlock['kind'], number> = {
  ground: 0,
  airwork: 1,
  'warm-up': 2,
  repeat: 3,
  exercise: 4,
  circuits: 5,
  own: 6,
  new: 7,
  strength: 8,
};

/**
 * What a brief asks the pilot to think of: what the last debrief said, then what the plan adds, as far as it fits.
 * @param most characters
 * @returns one line
 * @example carriedFocus(['Feet first'], ['Feet first', 'Hold off']) // 'Feet first; Hold off'
 */
export function carriedFocus(thought: readonly string[], planned: readonly string[], most = 120): string {
  let text = '';
  for (const f of new Set([...thought, ...planned].map((x) => x.trim()).filter(Boolean))) {
    const next = text === '' ? f : `${text}; ${f}`;
    if (next.length > most) return text === '' ? f.slice(0, most) : text;
    text = next;
  }
  return text;
}

/**
 * The order of a new brief: the school's, with the own items of the brief before it at its end, so that what an instructor
 * added once comes back until it is taken out.
 * @returns the school's order and hidden blocks; own items of both, each once
 * @example carriedLayout({ order: [], hidden: [], own: [] }, null).own // []
 */
export function carriedLayout(
  school: BriefChoices['layout'],
  before: BriefChoices['layout'] | null,
): BriefChoices['layout'] {
  const own = (before?.own ?? []).filter((o) => !school.own.some((s) => s.id === o.id || s.title === o.title));
  return { ...school, own: [...school.own, ...own] };
}

/** Of the last so many judged landings in an attitude, so many the pilot's own make it owned. */
const OWNED = { of: 5, own: 4 } as const;
/**
 * Is an attitude owned? @param landings oldest first
 * @returns true where the last landings of it are the pilot's own
 */
export function attitudeOwned(
  landings: readonly Pick<RecordedLanding, 'intended' | 'judged'>[],
  attitude: string,
): boolean {
  const last = landings
    .filter(
      (l) =>
        l.intended === attitude &&
        !['go-around', 'low-pass', 'demonstration', 'not-judged'].includes(l.judged.landingClass),
    )
    .slice(-OWNED.of);
  return (
    last.filter((l) => l.judged.landingClass === 'own' || l.judged.landingClass === 'own-off-target').length >=
    OWNED.own
  );
}

/**
 * Minutes in the air; ground blocks count apart.
 * @returns min
 * @example
 * flightMinutes([{ id: 'strength', kind: 'strength', title: { code: 'end-quietly' }, why: { code: 'end-well' },
 * minutes: 4, itemIds: [], findingId: null }])
 * // 4
 */
export const flightMinutes = (blocks: readonly Pick<PlanBlock, 'kind' | 'minutes'>[]): number =>
  blocks.filter((b) => b.kind !== 'ground').reduce((a, b) => a + b.minutes, 0);
/**
 * Minutes of ground blocks.
 * @returns min
 */
export const groundMinutes = (blocks: readonly Pick<PlanBlock, 'kind' | 'minutes'>[]): number =>
  blocks.filter((b) => b.kind === 'ground').reduce((a, b) => a + b.minutes, 0);
/**
 * What is left for flying: the booking less the house's ground time and the ground blocks, or the fuel less the ground
 * time burnt.
 * @returns minutes, and what limits them
 * @example flightRoom({ bookingMin: 174, fuelMin: 99, groundMin: 22 }, 20) // { roomMin: 77, limitedBy: 'fuel' }
 */
export function flightRoom(
  i: Pick<LessonInput, 'bookingMin' | 'fuelMin' | 'groundMin'>,
  onGroundMin: number,
): { roomMin: number; limitedBy: 'booking' | 'fuel' } {
  const booking = i.bookingMin - i.groundMin - onGroundMin;
  const fuel = i.fuelMin - i.groundMin;
  return {
    roomMin: Math.max(0, Math.floor(Math.min(booking, fuel) + SLACK)),
    limitedBy: fuel < booking ? 'fuel' : 'booking',
  };
}

/** @returns blocks in order with their minutes and why by code, and what was left out */
export function proposeLesson(input: LessonInput): LessonProposal {
  // Time is gathered by flying, a brief is acknowledged at a desk, a wheels check comes with each approach: none of
  // them is a block of its own.
  const notMet = input.items.filter((i) => !i.met);
  const open = notMet.filter((i) => !NOT_FLOWN.has(i.item.evidence.kind));
  const met = new Set(input.items.filter((i) => i.met).map((i) => i.item.id));
  // What is first is met, or comes earlier in this very lesson.
  const earlier = new Set<string>();
  const ready = (i: ItemEvidence) => i.item.prerequisites.every((p) => met.has(p) || earlier.has(p));
  const stage = input.lessonsFlown === undefined ? Infinity : input.lessonsFlown + 1;
  const findings = input.findings.filter((f) => !f.positive && f.state === 'open');
  const lost = findings.find((f) => f.id === 'skill-lost-under-load' || f.id === 'help-not-falling') ?? null;
  const left: LessonProposal['left'] = [];
  const blocks: ProposedBlock[] = [];
  const wind = windStep(input);

  const groundBlocks: ProposedBlock[] = [
    ...findings
      .filter((f) => f.next.where === 'ground' && f.id !== lost?.id)
      .slice(0, 1)
      .map((f) => fromFinding(f, 'ground')),
    ...open
      .filter((i) => i.item.where === 'ground' && ready(i) && stageOf(i) <= stage)
      .map((i): ProposedBlock => ({
        id: `item-${i.item.id}`,
        kind: 'ground',
        title: itemTitle(i),
        why: { code: 'open', params: { missing: i.missing } },
        minutes: GROUND_MIN,
        itemIds: [i.item.id],
        findingId: null,
        lab: null,
      })),
    ...labBlocks(
      input,
      findings,
      notMet.filter((i) => ready(i) && stageOf(i) <= stage),
    ),
  ];
  // At least a settling-in and an ending must stay flyable.
  const least = 2 * input.circuitMin;
  for (const b of groundBlocks) {
    if (flightRoom(input, groundMinutes(blocks) + b.minutes).roomMin >= least) {
      blocks.push(b);
      for (const id of b.itemIds) earlier.add(id);
    } else left.push({ title: b.title, why: { code: 'no-ground-time' } });
  }
  const { roomMin, limitedBy } = flightRoom(input, groundMinutes(blocks));
  const inCircuit = inTurn(
    open.filter((i) => i.item.where === 'flight'),
    stage,
  );
  const settle = (input.daysAway ?? 99) > AWAY_DAYS ? 3 : 2;
  const attitude = input.owned[0] ?? input.flown[0] ?? input.firstLanding;
  const strength = strengthBlock(input, attitude);
  // Room for the ending is kept first; without it nothing is flown, for a lesson ends on something done well.
  const ends = roomMin >= strength.minutes;
  let room = ends ? roomMin - strength.minutes : 0;
  const add = (b: ProposedBlock): boolean => {
    if (b.minutes > room) {
      left.push({
        title: b.title,
        why:
          room > 0
            ? { code: 'does-not-fit', params: { minutes: b.minutes, leftMin: room, limitedBy } }
            : { code: 'no-room', params: { limitedBy } },
      });
      return false;
    }
    blocks.push(b);
    room -= b.minutes;
    for (const id of b.itemIds) earlier.add(id);
    return true;
  };
  if (input.flown.length > 0 || inCircuit.length > 0) {
    const circuits = Math.min(settle, Math.floor(room / input.circuitMin));
    if (circuits > 0 && input.flown.length > 0)
      add({
        id: 'warm-up',
        kind: 'warm-up',
        title: { code: 'warm-up', params: { circuits, attitude } },
        why:
          (input.daysAway ?? 0) > AWAY_DAYS
            ? { code: 'days-away', params: { days: input.daysAway ?? 0 } }
            : { code: input.owned.length > 0 ? 'warm-up-on-owned' : 'warm-up-on-flown' },
        minutes: circuits * input.circuitMin,
        itemIds: [],
        findingId: null,
        lab: null,
      });
  }
  if (lost) add(fromFinding(lost, 'repeat'));
  for (const i of open.filter((x) => x.lastOutside)) add(itemBlock(i, input, 'repeat'));
  for (const f of findings.filter((x) => x.id !== lost?.id && x.next.where !== 'ground').slice(0, 2))
    add(fromFinding(f, f.next.where === 'airwork' ? 'airwork' : 'exercise'));
  const around = inCircuit.filter((i) => i.item.evidence.kind === 'go-arounds').map((i) => i.item.id);
  const planned = () => new Set(blocks.flatMap((b) => b.itemIds));
  // First landings wait for the take-off of this very lesson; anything else new for what is met.
  const opening = input.flown.length === 0;
  const inReach = (i: ItemEvidence): boolean =>
    stageOf(i) <= stage && (opening ? reachable(i, inCircuit, met, earlier, stage) : ready(i));
  const fresh = newLoad(
    input,
    inCircuit.filter(inReach),
    wind,
    lost !== null || blocks.some((b) => b.kind === 'repeat'),
  );
  const laterNew = new Set(inCircuit.filter((i) => isNewLoad(i, input)).map((i) => i.item.id));
  if (fresh) room -= fresh.minutes <= room ? fresh.minutes : 0;
  const freshFits = fresh !== null && ends && roomMin - flightMinutes(blocks) - strength.minutes >= fresh.minutes;
  for (const i of inCircuit) {
    if (planned().has(i.item.id) || (fresh?.itemIds.includes(i.item.id) ?? false)) continue;
    if (stageOf(i) > stage) {
      left.push({ title: itemTitle(i), why: { code: 'later-lesson', params: { lesson: stageOf(i) } } });
      continue;
    }
    if (!ready(i)) {
      left.push({
        title: itemTitle(i),
        why: {
          code: 'first-items',
          params: { ids: i.item.prerequisites.filter((p) => !met.has(p) && !earlier.has(p)) },
        },
      });
      continue;
    }
    if (laterNew.has(i.item.id)) {
      left.push({
        title: itemTitle(i),
        why: whyNotNew(fresh, lost !== null, wind.state),
      });
      continue;
    }
    // Approaches are for landing: go-arounds of one item in a lesson, however many items ask for them.
    if (i.item.evidence.kind === 'go-arounds' && around.some((id) => planned().has(id))) {
      left.push({ title: itemTitle(i), why: { code: 'go-arounds-once' } });
      continue;
    }
    const whole = itemBlock(i, input, isAirwork(i) ? 'airwork' : 'circuits');
    const asked = windAsked(i);
    if (asked !== null && input.forecastKt !== null && input.forecastKt < asked - 0.5) {
      left.push({
        title: itemTitle(i),
        why: { code: 'wind-asked', params: { askedKt: asked, forecastKt: input.forecastKt } },
      });
      continue;
    }
    // Circuits shrink to the room there is: two are worth flying, one is not.
    const fit = Math.floor(room / input.circuitMin);
    add(whole.minutes > room && circuitsOf(i) > 0 && fit >= 2 ? itemBlock(i, input, 'circuits', fit) : whole);
  }
  const after = fresh ? fresh.itemIds.filter((id) => !hasFirst(id, inCircuit, met, earlier)) : [];
  if (fresh && freshFits && after.length === 0) blocks.push(fresh);
  else if (fresh && after.length > 0) left.push({ title: fresh.title, why: { code: 'no-room-before' } });
  else if (fresh) left.push({ title: fresh.title, why: { code: 'no-room', params: { limitedBy } } });
  if (ends) blocks.push(strength);
  blocks.sort((a, b) => ORDER[a.kind] - ORDER[b.kind]);
  const focus = [
    ...blocks.filter((b) => b.kind === 'repeat' || b.kind === 'exercise').map((b) => b.title),
    ...blocks.filter((b) => b.kind === 'new').map((b) => b.title),
  ].slice(0, 2);
  return {
    blocks,
    flightMin: flightMinutes(blocks),
    flightRoomMin: roomMin,
    groundMin: groundMinutes(blocks),
    limitedBy,
    wind,
    left,
    focus,
  };
}

/**
 * A page of the lab before the flight, at most one a lesson: what an open item asks to be read, or else what explains the
 * weightiest finding.
 */
function labBlocks(input: LessonInput, findings: readonly Finding[], open: readonly ItemEvidence[]): ProposedBlock[] {
  const block = (page: LabPage, query: string, rest: Pick<ProposedBlock, 'why' | 'itemIds' | 'findingId'>) => [
    {
      id: `lab-${page}`,
      kind: 'ground' as const,
      title: { code: 'lab' as const, params: { page } },
      minutes: LAB_MIN,
      lab: { page, query },
      ...rest,
    },
  ];
  for (const i of open)
    for (const m of i.missing)
      if (m.code === 'lab-pages' && m.params.pages[0])
        return block(m.params.pages[0], '', {
          why: { code: 'open', params: { missing: i.missing } },
          itemIds: [i.item.id],
          findingId: null,
        });
  for (const f of findings) {
    const offer = input.labs?.find((l) => l.findingId === f.id);
    if (offer)
      return block(offer.page, offer.query, {
        why: { code: 'lab-finding', params: { title: f.title, set: offer.set } },
        itemIds: [],
        findingId: f.id,
      });
  }
  return [];
}

/** The lesson an item is first taken up in; 1 where its programme does not say. */
const stageOf = (i: ItemEvidence): number => i.item.lesson ?? 1;
/**
 * Items in the order an instructor takes them up: what earlier lessons left untouched, what this lesson is for, then
 * what was begun and is not there yet, its landings first; the rest stays behind.
 */
function inTurn(items: readonly ItemEvidence[], stage: number): ItemEvidence[] {
  if (stage === Infinity) return [...items];
  const rank = (i: ItemEvidence): number => {
    const own = stageOf(i);
    if (own > stage) return 4;
    if (own === stage) return 1;
    return !i.seen ? 0 : i.item.evidence.kind === 'run' || i.item.evidence.kind === 'count' ? 2 : 3;
  };
  // Within a rank what comes first in the programme, and nothing before its prerequisite.
  const sorted = [...items].sort((a, b) => rank(a) - rank(b));
  const out: ItemEvidence[] = [];
  const place = (i: ItemEvidence, above: readonly string[]): void => {
    if (out.includes(i) || above.includes(i.item.id)) return;
    for (const p of i.item.prerequisites) {
      const first = sorted.find((x) => x.item.id === p);
      if (first) place(first, [...above, i.item.id]);
    }
    out.push(i);
  };
  for (const i of sorted) place(i, []);
  return out;
}
/** Can everything before an item be flown in this lesson? */
function reachable(
  i: ItemEvidence,
  items: readonly ItemEvidence[],
  met: ReadonlySet<string>,
  earlier: ReadonlySet<string>,
  stage: number,
): boolean {
  return i.item.prerequisites.every((p) => {
    if (met.has(p) || earlier.has(p)) return true;
    const first = items.find((x) => x.item.id === p);
    return first !== undefined && stageOf(first) <= stage && reachable(first, items, met, earlier, stage);
  });
}
const hasFirst = (
  id: string,
  items: readonly ItemEvidence[],
  met: ReadonlySet<string>,
  earlier: ReadonlySet<string>,
): boolean =>
  (items.find((i) => i.item.id === id)?.item.prerequisites ?? []).every((p) => met.has(p) || earlier.has(p));

/** Why something new waits for another lesson. */
const whyNotNew = (
  fresh: ProposedBlock | null,
  rebuilding: boolean,
  wind: LessonProposal['wind']['state'],
): LaterWhy =>
  fresh
    ? { code: 'one-new-thing', params: { title: fresh.title } }
    : { code: rebuilding ? 'rebuilding' : wind === 'none' || wind === 'below' ? 'too-little-wind' : 'not-today' };
const itemTitle = (i: ItemEvidence, circuits = 0): BlockTitle => ({
  code: 'item',
  params: { id: i.item.id, title: i.item.title, circuits },
});
const isAirwork = (i: ItemEvidence): boolean => i.item.forms.some((f) => AIRWORK_FORMS.has(f));
const fromFinding = (f: Finding, kind: PlanBlock['kind']): ProposedBlock => ({
  id: `finding-${f.id}`,
  kind,
  title: { code: 'finding', params: { title: f.next.title } },
  why: { code: 'finding', params: { title: f.title, numbers: f.numbers.slice(0, 2) } },
  minutes: f.next.minutes,
  itemIds: [],
  findingId: f.id,
  lab: null,
});

/**
 * A run or a count is flown in circuits, as many as it still asks, four at most in one lesson; anything else is shown
 * once.
 */
function itemBlock(i: ItemEvidence, input: LessonInput, kind: PlanBlock['kind'], most = 99): ProposedBlock {
  const { id } = i.item;
  const circuits = Math.min(most, circuitsOf(i));
  return {
    id: `item-${id}`,
    kind,
    title: itemTitle(i, circuits),
    why: { code: 'open', params: { missing: i.missing } },
    minutes: circuits > 0 ? circuits * input.circuitMin : isAirwork(i) ? AIRWORK_MIN : ITEM_MIN,
    itemIds: [id],
    findingId: null,
    lab: null,
  };
}

function circuitsOf({ item: { evidence } }: ItemEvidence): number {
  return evidence.kind === 'run' || evidence.kind === 'count'
    ? Math.min(4, Math.max(1, evidence.needed))
    : evidence.kind === 'go-arounds'
      ? Math.min(2, Math.max(evidence.sound, evidence.good))
      : 0;
}

/** Does an item bring something this pilot has not met: an attitude never meant, more wind than proven? */
function isNewLoad(i: ItemEvidence, input: LessonInput): boolean {
  if (attitudeIsNew(i, input)) return true;
  const kt = windAsked(i);
  return kt !== null && kt > input.ladder.provenKt + SLACK;
}
/**
 * Knots across that an item asks for before it counts; null = any wind. A run gathers landings in any wind and asks for
 * its wind once.
 */
function windAsked({ item }: ItemEvidence): number | null {
  return item.evidence.kind === 'count'
    ? item.evidence.minCrosswindKt
    : item.evidence.kind === 'run'
      ? null
      : (item.needsWindKt ?? null);
}

function newLoad(
  input: LessonInput,
  ready: readonly ItemEvidence[],
  wind: LessonProposal['wind'],
  rebuilding: boolean,
): ProposedBlock | null {
  if (rebuilding || input.flown.length === 0) return firstLandings(input, ready);
  if (wind.state === 'step') {
    const ids = ready.filter((i) => isNewLoad(i, input) && !attitudeIsNew(i, input)).map((i) => i.item.id);
    return {
      id: 'wind-step',
      kind: 'new',
      title: { code: 'wind-step', params: { forecastKt: input.forecastKt ?? 0 } },
      why: {
        code: 'wind-step',
        params: { provenKt: input.ladder.provenKt, stepKt: input.ladder.ladderKt, wind: wind.said },
      },
      minutes: 3 * input.circuitMin,
      itemIds: ids,
      findingId: null,
      lab: null,
    };
  }
  // More wind than proven is a load already: no other beside it. Another attitude comes when the first is owned.
  if (wind.state === 'above' || input.owned.length === 0) return null;
  const other = ready.find(
    (i) =>
      attitudeIsNew(i, input) &&
      (input.wheelAllowed || !('attitude' in i.item.evidence) || i.item.evidence.attitude !== 'mains-first'),
  );
  if (!other) return null;
  const b = itemBlock(other, input, 'new');
  return { ...b, why: { code: 'new-attitude', params: { owned: input.owned, missing: other.missing } } };
}
const attitudeIsNew = (i: ItemEvidence, input: LessonInput): boolean =>
  'attitude' in i.item.evidence && i.item.evidence.attitude !== null && !input.flown.includes(i.item.evidence.attitude);

/** Before any landing: the school's first attitude, and nothing else new. */
function firstLandings(input: LessonInput, ready: readonly ItemEvidence[]): ProposedBlock | null {
  if (input.flown.length > 0) return null;
  const first =
    ready.find(
      (i) =>
        attitudeIsNew(i, input) && 'attitude' in i.item.evidence && i.item.evidence.attitude === input.firstLanding,
    ) ?? ready.find((i) => attitudeIsNew(i, input));
  return first ? { ...itemBlock(first, input, 'new'), why: { code: 'first-landings' } } : null;
}

/** A forecast is whole knots: half of one over a step is not known to be over it. */
const ROUNDING_KT = 0.5;
/** The forecast against what the pilot has earned. */
function windStep({ forecastKt, ladder }: LessonInput): LessonProposal['wind'] {
  if (forecastKt === null) return { said: { code: 'no-forecast' }, state: 'none' };
  const { provenKt, ladderKt: stepKt } = ladder;
  if (forecastKt > stepKt + ROUNDING_KT)
    return { said: { code: 'above', params: { forecastKt, stepKt } }, state: 'above' };
  if (forecastKt > provenKt + 0.5)
    return { said: { code: 'step', params: { forecastKt, provenKt, stepKt } }, state: 'step' };
  return { said: { code: 'proven', params: { forecastKt, provenKt } }, state: 'below' };
}

function strengthBlock(input: LessonInput, attitude: string): ProposedBlock {
  const good = input.findings.find((f) => f.positive);
  return {
    id: 'strength',
    kind: 'strength',
    title: input.owned.length > 0 ? { code: 'end-on', params: { attitude } } : { code: 'end-quietly' },
    why: good
      ? { code: 'praise', params: { title: good.title, number: good.numbers[0]?.text ?? '' } }
      : input.owned.length > 0
        ? { code: 'end-on-owned', params: { attitude } }
        : { code: 'end-well' },
    minutes: input.circuitMin,
    itemIds: [],
    findingId: good?.id ?? null,
    lab: null,
  };
}
