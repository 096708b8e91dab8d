/**
 * A landing, an item or a check as plain facts that patterns ask about. A fact that nobody saw is null and meets no
 * condition. Metres, knots, degrees, ft/min.
 */
import { WORD_CRITERION_IDS, wordsSeen } from '@/domain/criteria';
import type { AirworkStandard } from '@/domain/airwork';
import type { CapturedLanding, GearChecked, Measured } from '@/domain/capture';
import { GO_AROUND_ASPECTS, HELP_CONTROLS, LANDING_NOTES } from '@/domain/airwork';
import type { FindingPattern, Select } from '@/domain/findings';
import { type MeasureContext, eyeWord } from '../trace/join';
import type { Observation, RecordedLanding } from './evidence';
import { judgeQuantity, orderKept } from './airwork';
import { limitsFor } from './standard-on';
import { plateauIn } from './captured';

export type Fact = string | number | boolean | null;
export type Facts = Readonly<Record<string, Fact>>;

/** Facts of a landing or a go-around by name; beside them stand `v.`, `n.`, `help.` and `ga.` with what they are of. */
export const LANDING_FACTS = [
  'kind',
  'class',
  'intended',
  'touched',
  'intervention',
  'lesson',
  'along',
  'alongM',
  'lateralSide',
  'lateralM',
  'crabDeg',
  'sinkFpm',
  'driftSide',
  'crabSide',
  'swing',
  'swingSide',
  'alternating',
  'bounces',
  'handling',
  ...WORD_CRITERION_IDS,
  'landmark',
  'windKt',
  'gustSpread',
  'fenceOff',
  'fenceFast',
  'fenceSlow',
  'tailwheel',
  'brakeSteered',
  'finalOff',
  'finalHigh',
  'reversals',
  'reducing',
  'plateau',
  'blindNose',
  'trigger',
  'gaDecision',
  'gaExecution',
] as const;
export const ITEM_FACTS = [
  'item',
  'verdict',
  'intervention',
  'lesson',
  'form',
  'kind',
  'noteAileron',
  'recovery',
  'lookOut',
  'entryRate',
  'heightOut',
  'speedOut',
  'speedLow',
  'asymmetricItem',
  'identified',
  'outOfOrder',
] as const;
export const GEAR_FACTS = ['decision', 'onFinal', 'stopFor'] as const;
type Named<N extends readonly string[]> = Record<N[number], Fact>;

const PREFIXED: Readonly<Record<string, ReadonlySet<string>>> = {
  'n.': new Set(LANDING_NOTES),
  'help.': new Set(HELP_CONTROLS),
  'ga.': new Set(GO_AROUND_ASPECTS),
};
/**
 * Is there a fact of this name? A misspelt one would never hold, and so never be found out.
 * @param over what the pattern looks at
 * @param criteria ids of the standards' criteria
 * @returns true where it exists
 * @example isFact('n.balooned', 'arrivals', []) // false
 */
export function isFact(
  name: string,
  over: 'arrivals' | 'go-arounds' | 'items' | 'gear-checks',
  criteria: readonly string[],
): boolean {
  const named: readonly string[] = over === 'items' ? ITEM_FACTS : over === 'gear-checks' ? GEAR_FACTS : LANDING_FACTS;
  if (named.includes(name)) return true;
  if (over === 'items' || over === 'gear-checks') return false;
  if (name.startsWith('v.')) return criteria.includes(name.slice(2));
  return Object.entries(PREFIXED).some(([prefix, of]) => name.startsWith(prefix) && of.has(name.slice(prefix.length)));
}
/**
 * What a pattern looks at, and every fact it reads.
 * @returns names of facts
 */
export function factsRead({ trigger: t }: Pick<FindingPattern, 'trigger'>): {
  over: 'arrivals' | 'go-arounds' | 'items' | 'gear-checks';
  facts: string[];
} {
  const of = (...selects: readonly Select[]) => selects.flatMap((s) => [...s.all, ...s.any].map((c) => c.f));
  switch (t.kind) {
    case 'share':
      return { over: t.over, facts: of(t.among, t.of) };
    case 'contrast':
      return { over: t.over, facts: of(t.with, t.without, t.of) };
    case 'gap':
      return { over: 'items', facts: of(t.of) };
    case 'one-side':
      return { over: 'arrivals', facts: [t.field] };
    case 'creep':
      return { over: 'arrivals', facts: [`n.${t.note}`] };
    case 'lost':
      return { over: 'arrivals', facts: t.criteria.map((c) => `v.${c}`) };
    case 'bias':
    case 'help-flat':
    case 'sink':
    case 'limit':
      return { over: 'arrivals', facts: [] };
  }
}
/** A speed or a height at a gate about its target: knots and feet. Height only from a recording. */
export interface GateReading {
  gate: string;
  offKt: number | null;
  highFt: number | null;
  source: 'eye' | 'measured';
}
export interface DebriefLanding extends RecordedLanding {
  captured: CapturedLanding;
  measured: Measured | null;
  gates: readonly GateReading[];
  /** The gates of its brief, in the unit of the dial. */
  briefed: readonly { name: string; target: number | null }[];
}
export interface FactContext extends Pick<MeasureContext, 'trackM' | 'boxM'> {
  blindNose: boolean;
  reducing: boolean;
  /** The standard’s upper side about the speed at the threshold, knots; null = it asks nothing of it. */
  speedHighKt: number | null;
  /** Its lower side, a negative number; absent or null = it asks nothing of it. */
  speedLowKt?: number | null;
  tailwheel?: boolean;
  /** Steered by the brakes alone, as no steering tailwheel or nosewheel is there. */
  brakeSteered?: boolean;
}

const CHASE_KT = 3;

/**
 * Does a select hold? Every condition of `all`, and one of `any` when there are some.
 * @returns true where it holds
 */
export function selected(facts: Facts, { all, any }: Select): boolean {
  const holds = (c: Select['all'][number]): boolean => {
    const v = facts[c.f] ?? null;
    if (v === null) return false;
    if (c.is && !c.is.includes(v)) return false;
    if (c.min !== undefined && !(typeof v === 'number' && v >= c.min)) return false;
    return c.max === undefined || (typeof v === 'number' && v <= c.max);
  };
  return all.every(holds) && (any.length === 0 || any.some(holds));
}

const sideOf = (v: { band: string; side: string | null } | null): string | null =>
  v === null ? null : v.band === 'none' ? 'none' : v.side;
const sideOfWord = (word: string): string =>
  word.endsWith('left') ? 'left' : word.endsWith('right') ? 'right' : word === 'line' ? 'line' : 'none';

/**
 * Facts of a landing or a go-around. What a recording measured goes before the eye.
 * @returns facts by name; a fact nobody knows is absent or null
 */
export function landingFacts(l: DebriefLanding, before: DebriefLanding | null, c: FactContext): Facts {
  const { captured: k } = l;
  const m = l.measured?.values ?? {};
  const judged = l.judged;
  const verdicts = Object.fromEntries(judged.criteria.map((x): [string, Fact] => [`v.${x.id}`, x.verdict]));
  const lateral = m.lateral === undefined ? k.lateral : eyeWord('lateral', m.lateral, c);
  const fence = l.gates[l.gates.length - 1] ?? null;
  const final = l.gates[l.gates.length - 2] ?? fence;
  const offs = l.gates.flatMap((g) => (g.offKt === null ? [] : [g.offKt]));
  const errors = offs.filter((x) => Math.abs(x) >= CHASE_KT);
  const swing =
    m.swing === undefined
      ? k.swing
      : { band: eyeWord('swing', m.swing, c).split(' ')[0] ?? 'none', side: m.swing < 0 ? 'left' : 'right' };
  const swingSide = sideOf(swing);
  const lastSide = before ? sideOf(before.captured.swing) : null;
  const named: Named<typeof LANDING_FACTS> = {
    kind: l.kind,
    class: judged.landingClass,
    intended: k.intended,
    touched: k.touched,
    intervention: k.intervention,
    lesson: l.lesson,
    along: m.along === undefined ? k.along : eyeWord('along', m.along, c),
    alongM: m.along ?? null,
    lateralSide: lateral === null ? null : sideOfWord(lateral),
    lateralM: m.lateral ?? null,
    crabDeg: m.crab ?? null,
    sinkFpm: m.firmness ?? null,
    driftSide: m.drift === undefined ? sideOf(k.drift) : sideOfWord(eyeWord('drift', m.drift, c)),
    crabSide: m.crab === undefined ? sideOf(k.crab) : sideOfWord(eyeWord('crab', m.crab, c)),
    swing: swing?.band ?? null,
    swingSide,
    alternating:
      swingSide === null
        ? null
        : swingSide !== 'none' && lastSide !== null && lastSide !== 'none' && swingSide !== lastSide,
    bounces: m.bounce ?? k.bounce?.count ?? null,
    handling: k.bounce === null || k.bounce.count === 0 ? null : k.bounce.handling,
    ...wordsSeen(k),
    landmark: k.landmark,
    windKt: l.crosswindKt === null ? null : Math.abs(l.crosswindKt),
    gustSpread: k.wind === null ? null : k.wind.gustKt === null ? 0 : k.wind.gustKt - k.wind.kt,
    fenceOff: fence?.offKt ?? null,
    fenceFast: fence?.offKt == null || c.speedHighKt === null ? null : fence.offKt > c.speedHighKt,
    fenceSlow: fence?.offKt == null || c.speedLowKt == null ? null : fence.offKt < c.speedLowKt,
    tailwheel: c.tailwheel ?? null,
    brakeSteered: c.brakeSteered ?? false,
    finalOff: final?.offKt ?? null,
    finalHigh: final?.highFt ?? null,
    reversals:
      offs.length < 3 ? null : errors.filter((x, i) => i > 0 && Math.sign(x) !== Math.sign(errors[i - 1] ?? x)).length,
    reducing: c.reducing,
    plateau: c.reducing ? plateauIn(k, l.briefed) !== null : null,
    blindNose: c.blindNose,
    trigger: k.trigger,
    gaDecision: judged.goAround?.decision ?? null,
    gaExecution: judged.goAround?.execution ?? null,
  };
  return {
    ...verdicts,
    ...Object.fromEntries(k.notes.map((n): [string, Fact] => [`n.${n}`, true])),
    ...Object.fromEntries(k.helpedOn.map((h): [string, Fact] => [`help.${h}`, true])),
    ...Object.fromEntries(Object.entries(k.goAroundExecution).map(([id, v]): [string, Fact] => [`ga.${id}`, v])),
    ...named,
  };
}

/**
 * Facts of an item.
 * @returns facts by name
 */
export function itemFacts(
  o: Observation,
  standard: { airwork: readonly AirworkStandard[]; edgeShare: number },
  ktPerUnit: number,
): Named<typeof ITEM_FACTS> {
  const d = o.data.detail;
  const kind =
    d?.form === 'numbers'
      ? d.kind
      : d?.form === 'stall' || d?.form === 'energy' || d?.form === 'asymmetric'
        ? d.form
        : null;
  const seen = d && 'seen' in d ? d.seen : {};
  const row = standard.airwork.find((a) => a.kind === kind);
  const which = d?.form === 'asymmetric' ? d.item : d?.form === 'stall' ? d.stall : null;
  const out = (q: 'height' | 'speed'): Fact => {
    const limit = limitsFor(row ?? null, which).find((x) => x.quantity === q);
    const raw = seen[q];
    if (!limit || raw === undefined) return null;
    const value = typeof raw === 'number' && q === 'speed' ? raw * ktPerUnit : raw;
    return judgeQuantity(limit, value, standard.edgeShare) !== 'outside' || typeof value !== 'number'
      ? 'inside'
      : value > 0
        ? 'high'
        : 'low';
  };
  const speed = out('speed');
  const steps = d?.form === 'steps' ? orderKept(d.steps.length, d.ticks) : null;
  return {
    item: o.data.itemId,
    verdict: o.data.verdict,
    intervention: o.data.intervention,
    lesson: o.lesson,
    form: d?.form ?? 'plain',
    kind,
    noteAileron: /aileron/i.test(o.data.note),
    recovery: d?.form === 'stall' || d?.form === 'asymmetric' ? d.recovery : null,
    lookOut: d?.form === 'stall' ? d.lookOut : null,
    entryRate: typeof seen.entryRate === 'number' ? seen.entryRate : seen.entryRate === 'inside' ? 1 : null,
    heightOut: out('height'),
    speedOut: speed === null ? null : speed !== 'inside',
    speedLow: speed === null ? null : speed === 'low',
    asymmetricItem: d?.form === 'asymmetric' ? d.item : null,
    identified: d?.form === 'asymmetric' ? (d.identified ?? null) : null,
    outOfOrder: steps && steps.verdict !== 'not-seen' ? steps.outOfOrder.length : null,
  };
}
/** Reasons of a stop that are the wheels themselves; every other is a word or a look that was missing, or too old. */
const WHEELS_WRONG: ReadonlySet<string> = new Set([
  'lamp-wrong',
  'lamps-disagree',
  'lamp-in-transit',
  'lamp-failed',
  'wheel-seen-wrong',
]);
/**
 * Facts of a check of the wheels. A stop with every word said and every wheel looked at, for wheels that were wrong, is
 * the check at work; one for a word or a look that was missing is not.
 * @returns facts by name
 * @example
 * gearFacts({ surface: 'water', lamps: {  }, seen: {  }, spoken: null, onFinal: true, decision: 'stop',
 * reasons: ['spoken'] })
 * // { decision: 'stop', onFinal: true, stopFor: 'missing' }
 */
export const gearFacts = (
  g: Pick<GearChecked, 'decision' | 'onFinal'> & { reasons?: readonly string[] },
): Named<typeof GEAR_FACTS> => {
  const reasons = g.reasons ?? [];
  return {
    decision: g.decision,
    onFinal: g.onFinal,
    stopFor:
      g.decision === 'agree'
        ? null
        : reasons.length > 0 && reasons.every((r) => WHEELS_WRONG.has(r))
          ? 'wheels'
          : 'missing',
  };
};
