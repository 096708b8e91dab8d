/**
 * The catalogue of judging: why a criterion has its verdict, why a landing or a go-around has its class, what was wrong
 * with an airwork item. What is measured stands beside its limit, rounded so that neither contradicts the verdict.
 */
import { type Coded, sentence } from '@/domain/coded';
import type { AirworkQuantity } from '@/domain/airwork';
import type { EyeValue, StandardRow } from '@/domain/assess-words';
import { QUANTITY_NAME } from '@/domain/airwork';
import { type Serious, say } from '@/domain/words';
import { besideLimit, downTo, fixed } from '../format';
import { DETAIL_WORDS, unseenName } from './airwork-words';
import type { DetailJudged, QuantityJudged } from './airwork';
import type { GoAroundResult } from './landing';

const names = (ids: readonly string[]): string => ids.map(say).join(', ');

/** A speed about its target in the unit of the dial: the tolerance rounded down, no figure against the verdict. */
function speedWords(how: string, off: number, low: number, high: number, unit: string): string {
  const [limit = '', seen = ''] = off >= 0 ? besideLimit(high, off) : besideLimit(low, -off);
  const allows = off >= 0 ? [downTo(low), limit] : [limit, downTo(high)];
  return `${how} ${off >= 0 ? '+' : '-'}${seen} ${unit} from the target; the standard allows -${allows[0] ?? ''} to +${allows[1] ?? ''} ${unit}.`;
}

/** What the standard allows of something seen by eye. */
function eyeAllows(row: Pick<StandardRow, 'eye'>, intended: string | null): string {
  if (!row.eye) return '';
  if (row.eye.kind === 'bounce') return ` Standard: ${row.eye.withinCount}; ${row.eye.edgeCount} is edge.`;
  if (row.eye.kind === 'attitude') return intended ? ` Intended: ${say(intended)}.` : '';
  const edge = row.eye.edge.length > 0 ? `; ${row.eye.edge.map(say).join(' or ')} is edge` : '';
  return ` Standard: ${row.eye.within.map(say).join(' or ')}${edge}.`;
}
/** What touched first, as seen; *wheel* is what is intended, *mains first* what is seen. */
const touchWord = (eye: string, row: Pick<StandardRow, 'eye'>): string =>
  row.eye?.kind === 'attitude' && eye === 'mains-first' ? 'mains first' : say(eye);
interface Eye {
  row: Pick<StandardRow, 'eye'>;
  intended: string | null;
}

const SERIOUS_SEEN: Record<Serious, string> = {
  'short-of-threshold': 'Touched before the threshold',
  'off-surface': 'A wheel left the surface',
  'inspection-sink': 'Hard enough to inspect the aeroplane',
};

/** Between which gates a speed stood still, and from what to what. */
const stoodBetween = (b: { gates: readonly string[]; from: number; to: number }, unit: string): string =>
  ` between ${b.gates.map((g) => g.toLowerCase()).join(' and ')} (${fixed(b.from)} to ${fixed(b.to)} ${unit})`;

export const CRITERION_WORDS = {
  'not-seen': () => 'Not seen, and not assumed good.',
  /** Off the target and the limits about it, all in the unit of the dial. */
  speed: (s: { from: 'trace' | 'dial'; off: number; low: number; high: number; unit: string }) =>
    speedWords(s.from === 'trace' ? 'Measured' : 'Read', s.off, s.low, s.high, s.unit),
  measured: ({ value, low, high, unit }: { value: number; low: number; high: number; unit: string }) => {
    const of = unit === 'count' ? '' : ` ${unit}`;
    const plus = (x: number): string => (low < 0 && x >= 0 ? '+' : '');
    return `Measured ${plus(value)}${fixed(value, unit === 'count' || unit === 'fpm' ? 0 : 1)}${of}; the standard allows ${fixed(low)} to ${plus(high)}${fixed(high)}${of}.`;
  },
  asserted: ({ row, intended }: Eye) => `Asserted by the clean tap: none.${eyeAllows(row, intended)}`,
  pushed: ({ count }: { count: number }) => `${count} × ${say('pushed')}: a push in a bounce is outside at any count.`,
  bounced: ({ count, handling, row, intended }: Eye & { count: number; handling: string | null }) =>
    `Seen ${count}${handling ? `, ${say(handling)}` : ''}.${eyeAllows(row, intended)}`,
  seen: ({ eye, row, intended }: Eye & { eye: Exclude<EyeValue, { count: number }> | null }) => {
    const word =
      typeof eye === 'string'
        ? touchWord(eye, row)
        : eye
          ? `${say(eye.band)}${eye.side ? ` ${eye.side}` : ''}`
          : 'nothing';
    return `Seen ${word}.${eyeAllows(row, intended)}`;
  },
  'second-contact': () => 'By the landing technique of this checkout any second contact is a go-around.',
  'tail-low': () =>
    'Seen tail first, intended three-point: tail-low counts as intended by the landing technique of this checkout.',
  /** Speeds in the unit of the dial. */
  'speed-stood': (s: { between: { gates: readonly string[]; from: number; to: number } | null; unit: string }) =>
    `The speed stopped falling${s.between ? stoodBetween(s.between, s.unit) : ', as noted'}: ` +
    'on a falling schedule that is the fault.',
  'serious-seen': ({ id }: { id: Serious }) => `${SERIOUS_SEEN[id]}: outside whatever else was seen.`,
  short: ({ beforeM }: { beforeM: number }) =>
    `${SERIOUS_SEEN['short-of-threshold']} (measured ${fixed(beforeM, 1)} m before it): outside whatever else was seen.`,
  'off-surface': ({ fromLineM, edgeM }: { fromLineM: number; edgeM: number }) =>
    `${SERIOUS_SEEN['off-surface']} (measured ${fixed(fromLineM, 1)} m from the centreline, the edge for a ` +
    `wheel is at ${fixed(edgeM, 1)} m): outside whatever else was seen.`,
  hard: ({ sinkFpm, inspectFpm }: { sinkFpm: number; inspectFpm: number }) =>
    `${SERIOUS_SEEN['inspection-sink']} (measured ${fixed(sinkFpm)} ft/min, an inspection is due from ` +
    `${fixed(inspectFpm)} ft/min): outside whatever else was seen.`,
};
export type CriterionReason = Coded<typeof CRITERION_WORDS>;
/** Why a criterion has its verdict, one sentence after the other. */
export const criterionWords = (reasons: readonly CriterionReason[]): string =>
  reasons.map((r) => sentence(CRITERION_WORDS, r)).join(' ');

const DECISIONS: Record<GoAroundResult['decision'], string> = {
  sound: 'A sound decision',
  late: 'Decided late, and better than continued',
  told: 'Told to go, for safety',
  neutral: 'Flown as an exercise',
  'not-judged': 'When it was decided is not recorded',
  demonstration: 'The instructor’s demonstration',
};
const EXECUTIONS: Record<GoAroundResult['execution'], string> = {
  good: 'flown well',
  prompted: 'prompted',
  assisted: 'assisted',
  outside: 'outside',
  'not-judged': 'how it was flown was not all seen',
  demonstration: 'not counted',
};

const COMPUTED_WORDS = {
  'low-pass': () => 'A low pass: practised, not judged.',
  'go-around': (g: {
    decision: GoAroundResult['decision'];
    execution: GoAroundResult['execution'];
    word: string | null;
    announced: string | null;
    from: string | null;
    why: string | null;
    outside: readonly string[];
  }) => {
    const decided =
      g.decision === 'sound'
        ? `${DECISIONS.sound}, ${say(g.word ?? 'before')}${g.announced ? ` announced: ${say(g.announced)}` : ''}`
        : g.decision === 'neutral' && g.word === 'traffic'
          ? 'Flown because of traffic'
          : DECISIONS[g.decision];
    const began = [...(g.from ? [`from the ${say(g.from)}`] : []), ...(g.why ? [say(g.why)] : [])];
    const flown = g.execution === 'outside' ? `outside in ${names(g.outside)}` : EXECUTIONS[g.execution];
    return `${[decided, ...began].join(', ')}; ${flown}.`;
  },
  contradicts: ({ level, helpedOn }: { level: 'own' | 'prompted'; helpedOn: readonly string[] }) =>
    `Not judged: ${say(level)} and assisted on ${names(helpedOn)} contradict. Correct one of them.`,
  demonstration: () => 'Flown by the instructor: not counted for the pilot.',
  control: ({ outside }: { outside: readonly string[] }) => `Outside in control: ${names(outside)}.`,
  trigger: () => 'The go-around trigger was met and the approach continued.',
  'took-over': () => 'The instructor took over.',
  assisted: () => 'Assisted on the controls.',
  'nobody-named': () => 'Who flew it is not recorded, so it is not judged.',
  'not-seen': ({ missing }: { missing: readonly string[] }) => `Not judged: ${names(missing)} not seen.`,
  prompted: () => 'Flown by the pilot, prompted by the instructor.',
  'off-target': ({ outside }: { outside: readonly string[] }) => `Unassisted; off target: ${names(outside)}.`,
  own: () => 'Unassisted and in standard.',
};
export const LANDING_WORDS = {
  ...COMPUTED_WORDS,
  overruled: (o: { by: string; to: string; reason: string; computed: Coded<typeof COMPUTED_WORDS> }) =>
    `${o.by} overruled to ${say(o.to)}: ${o.reason}. Computed: ${sentence(COMPUTED_WORDS, o.computed)}`,
};
export type ComputedReason = Coded<typeof COMPUTED_WORDS>;
export type LandingReason = Coded<typeof LANDING_WORDS>;
/** Why a landing, go-around or pass has its class: one sentence. */
export const landingWords = (reason: LandingReason): string => sentence(LANDING_WORDS, reason);

const sided = (x: number): string =>
  `${x > 0 ? '+' : x < 0 ? '–' : ''}${fixed(Math.abs(x), Number.isInteger(x) ? 0 : 1)}`;
const quantityWords = (q: QuantityJudged & { quantity: AirworkQuantity }): string =>
  `${QUANTITY_NAME[q.quantity]} ${say(q.verdict)}: ` +
  `${q.deviation === null ? 'inside' : `${sided(q.deviation)} ${q.limit.unit}`}; the standard allows ` +
  `${sided(q.limit.low)} to ${sided(q.limit.high)} ${q.limit.unit}`;

/**
 * Why an item has its verdict: each quantity seen against what the standard allows, then what was done wrong. Speeds in
 * knots.
 */
export const detailReasons = (judged: DetailJudged): string[] => [
  ...judged.quantities.filter((q) => q.verdict !== 'not-seen').map(quantityWords),
  ...judged.reasons.map((r) => sentence(DETAIL_WORDS, r)),
  ...(judged.unseen.length > 0 ? [`not judged: ${judged.unseen.map(unseenName).join(', ')} not seen`] : []),
];
