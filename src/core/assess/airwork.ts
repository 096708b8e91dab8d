/**
 * Airwork by eye and dial: deviations about what was set, stalls, boxes of energy, lists in order. Knots, feet,
 * degrees.
 */
import type { DetailReason } from './airwork-words';
import {
  type AirworkKind,
  type AirworkLimit,
  type AirworkQuantity,
  type AirworkStandard,
  type SeenExtreme,
  type StallRecovery,
} from '@/domain/airwork';
import type { CriterionVerdict } from '@/domain/assess-words';
import type { AirworkDetail } from '@/domain/capture';
import { SLACK, norm180 } from '../constants';
import { isNumber, needNumbers } from '../guard';
import { limitsFor } from './standard-on';

export type AirworkVerdict = Exclude<CriterionVerdict, 'not-seen'>;
export interface QuantityJudged {
  quantity: AirworkQuantity;
  verdict: CriterionVerdict;
  deviation: number | null;
  limit: AirworkLimit;
}
const WORSE: Record<CriterionVerdict, number> = { 'not-seen': -1, within: 0, edge: 1, outside: 2 };

/**
 * The worst of several verdicts; what nobody saw does not count. *Not seen* when nothing was seen at all.
 * @returns the verdict
 * @example worst(['within', 'within']) // 'within'
 */
export const worst = (verdicts: readonly CriterionVerdict[]): CriterionVerdict =>
  verdicts.reduce<CriterionVerdict>((a, v) => (WORSE[v] > WORSE[a] ? v : a), 'not-seen');

/**
 * One quantity against its tolerance. Limits are inclusive; the last `edgeShare` of each side is edge.
 * Source: the limits of the standard the checkout runs under, with its citation.
 * @param seen deviation in the limit's unit, *inside* when nothing left the tolerance, null when nobody looked
 * @returns the verdict
 * @throws BadNumber when a number handed in is none
 */
export function judgeQuantity(limit: AirworkLimit, seen: SeenExtreme | null, edgeShare: number): CriterionVerdict {
  needNumbers('judgeQuantity', { low: limit.low, high: limit.high, edgeShare });
  if (seen === 'inside') return 'within';
  if (!isNumber(seen)) return 'not-seen';
  if (seen < limit.low - SLACK || seen > limit.high + SLACK) return 'outside';
  const inner = 1 - edgeShare;
  return seen >= limit.low * inner - SLACK && seen <= limit.high * inner + SLACK ? 'within' : 'edge';
}

/**
 * A manoeuvre against its row of the standard: every quantity of the row, and the worst of those seen. Null without a
 * row.
 * Source: the limits of the standard the checkout runs under, with its citation.
 * @param item which of the row's items it is, where some have limits of their own
 * @returns the verdict and one entry a quantity, or null
 */
export function judgeNumbers(
  standard: AirworkStandard | null,
  seen: Partial<Record<AirworkQuantity, SeenExtreme>>,
  edgeShare: number,
  item: string | null = null,
): { overall: CriterionVerdict; quantities: QuantityJudged[] } | null {
  if (!standard) return null;
  const quantities = limitsFor(standard, item).map((limit): QuantityJudged => {
    const value = seen[limit.quantity] ?? null;
    return {
      quantity: limit.quantity,
      limit,
      verdict: judgeQuantity(limit, value, edgeShare),
      deviation: typeof value === 'number' && Number.isFinite(value) ? value : null,
    };
  });
  return { overall: worst(quantities.map((q) => q.verdict)), quantities };
}

/**
 * Deviations worth a button: half, the whole and one and a half of each side of a tolerance, in order; a side of
 * nothing offers its outside.
 * @returns deviations in the unit of the quantity
 * @example
 * extremeSteps({ quantity: 'speed', low: -5, high: 5, unit: 'kt',
 * citation: 'US private pilot multi-engine standards' })
 * // [-7.5, -5, -2.5, 2.5, 5, 7.5]
 */
export function extremeSteps({ low, high }: Pick<AirworkLimit, 'low' | 'high'>): number[] {
  const whole = Math.max(-low, high);
  const side = (limit: number): number[] => (limit > 0 ? [limit / 2, limit, limit * 1.5] : [whole / 2, whole]);
  return [
    ...side(-low)
      .map((x) => -x)
      .reverse(),
    ...side(high),
  ].map((x) => Math.round(x * 10) / 10);
}

/**
 * Recovery of a stall: unloading first is the recovery; power first still unloads late; roll or yaw before unloading is
 * the fault to judge.
 * @returns the verdict
 * @example stallVerdict('power-first') // 'edge'
 */
export const stallVerdict = (recovery: StallRecovery | null): CriterionVerdict =>
  recovery === null
    ? 'not-seen'
    : recovery === 'unloaded-first'
      ? 'within'
      : recovery === 'power-first'
        ? 'edge'
        : 'outside';

export interface OrderKept {
  missed: number[];
  outOfOrder: number[];
  repeated: number[];
  verdict: CriterionVerdict;
}
/**
 * Was a list said or done in order? Out of order are the ticks outside the longest rising run; with several such runs,
 * the first found. All there and in order: within. In order but for one, none missed: edge. Else outside. Nothing
 * ticked: not seen.
 * @param count steps of the list
 * @param ticks step numbers from 0, as they came
 * @returns steps missed, steps out of order, and the verdict
 * @throws BadNumber when a number handed in is none
 * @example
 * orderKept(8, [9, 6, 4, 4])
 * // { missed: [0, 1, 2, 3, 5, 7], outOfOrder: [4], repeated: [4], verdict: 'outside' }
 */
export function orderKept(count: number, ticks: readonly number[]): OrderKept {
  needNumbers('orderKept', { count, ticks });
  const first = ticks.filter((t, i) => t >= 0 && t < count && ticks.indexOf(t) === i);
  const repeated = [...new Set(ticks.filter((t, i) => ticks.indexOf(t) !== i))];
  const length: number[] = [];
  const before: number[] = [];
  first.forEach((t, i) => {
    length[i] = 1;
    before[i] = -1;
    for (let j = 0; j < i; j++)
      if ((first[j] ?? 0) < t && (length[j] ?? 0) + 1 > (length[i] ?? 0)) {
        length[i] = (length[j] ?? 0) + 1;
        before[i] = j;
      }
  });
  const kept = new Set<number>();
  for (let i = length.indexOf(Math.max(0, ...length)); i >= 0; i = before[i] ?? -1) kept.add(first[i] ?? -1);
  const outOfOrder = first.filter((t) => !kept.has(t));
  const missed = Array.from({ length: count }, (_, i) => i).filter((i) => !first.includes(i));
  const verdict =
    first.length === 0
      ? 'not-seen'
      : missed.length === 0 && outOfOrder.length === 0
        ? 'within'
        : missed.length === 0 && outOfOrder.length === 1
          ? 'edge'
          : 'outside';
  return { missed, outOfOrder, repeated, verdict };
}

export interface EnergyBox {
  heightFt: number | null;
  speed: number | null;
  headingDeg: number | null;
}
/**
 * The exit of an energy item against its entry: same height, speed and heading, or the reciprocal heading. Null where
 * one of the two was not seen.
 * @returns deviations: kt, ft, degrees
 * @throws BadNumber when a number handed in is none
 * @example
 * energyExit({ heightFt: 3000, speed: 120, headingDeg: 350 }, { heightFt: 3000, speed: 120, headingDeg: 175 },
 * true)
 * // { height: 0, speed: 0, heading: 5 }
 */
export function energyExit(
  entry: EnergyBox,
  exit: EnergyBox,
  reciprocal: boolean,
): Record<'height' | 'speed' | 'heading', number | null> {
  needNumbers('energyExit', { entry, exit });
  const less = (a: number | null, b: number | null) => (a === null || b === null ? null : a - b);
  return {
    height: less(exit.heightFt, entry.heightFt),
    speed: less(exit.speed, entry.speed),
    heading:
      entry.headingDeg === null || exit.headingDeg === null
        ? null
        : norm180(exit.headingDeg - entry.headingDeg - (reciprocal ? 180 : 0)),
  };
}

/**
 * What of an item must have been looked at before it is judged, and was not: every quantity of its row in the standard,
 * and of a stall the look-out and the recovery, of a one-engine item that *simulated* was said. A surprise and an item
 * judged as seen have nothing more to ask.
 * @param rowOf the standard's row of a manoeuvre; null where it has none
 * @returns quantities and words, in the order of the standard; empty = it can be judged
 * @example unseenOf({ form: 'numbers', kind: 'steep-turn', set: {}, seen: { bank: 'inside' } }, rowOf) // ['height', …]
 */
export function unseenOf(detail: AirworkDetail, rowOf: (kind: AirworkKind) => AirworkStandard | null): string[] {
  const missing = (
    kind: AirworkKind,
    seen: Partial<Record<AirworkQuantity, SeenExtreme>>,
    item: string | null = null,
  ): string[] =>
    limitsFor(rowOf(kind), item)
      .map((l) => l.quantity)
      .filter((q) => seen[q] === undefined);
  switch (detail.form) {
    case 'numbers':
      return missing(detail.kind, detail.seen);
    case 'stall':
      return [...(detail.lookOut === null ? ['look-out'] : []), ...(detail.recovery === null ? ['recovery'] : [])];
    case 'energy': {
      const exit = energyExit(detail.entry, detail.exit, detail.reciprocal);
      return (['height', 'speed', 'heading'] as const).filter((q) => exit[q] === null);
    }
    case 'asymmetric':
      return [
        ...(detail.saidSimulated === null ? ['simulated-said'] : []),
        ...(detail.item === 'control-speed'
          ? detail.recovery === null
            ? ['recovery']
            : []
          : missing('asymmetric', detail.seen, detail.item)),
      ];
    case 'steps':
      return detail.ticks.length === 0 ? ['steps'] : [];
    case 'exchange':
      return [...(detail.ticks.length === 0 ? ['steps'] : []), ...(detail.feetClear === null ? ['feet-clear'] : [])];
    case 'surprise':
    case 'handling':
      return [];
  }
}
export interface DetailJudged {
  verdict: CriterionVerdict;
  reasons: DetailReason[];
  /** What was not looked at, and keeps it from being judged. */
  unseen: string[];
  quantities: QuantityJudged[];
}
/**
 * What a captured item comes to by the numbers and the words seen, against the standard's airwork rows. Something seen
 * outside is outside; else, while part of it was not looked at, it is not judged.
 * Deviations of speed are in the dial's unit and are turned to knots first.
 * Source: the limits of the standard the checkout runs under, with its citation.
 * @returns the verdict, and what was outside by code
 * @throws BadNumber when a number handed in is none
 */
export function judgeDetail(
  detail: AirworkDetail,
  standard: { airwork: readonly AirworkStandard[]; edgeShare: number },
  ktPerUnit: number,
): DetailJudged {
  needNumbers('judgeDetail', { ktPerUnit });
  const found = judgeSeen(detail, standard, ktPerUnit);
  const unseen = unseenOf(detail, (kind) => standard.airwork.find((a) => a.kind === kind) ?? null);
  return unseen.length === 0 || found.verdict === 'outside'
    ? { ...found, unseen: [] }
    : { ...found, verdict: 'not-seen', unseen };
}

function judgeSeen(
  detail: AirworkDetail,
  standard: { airwork: readonly AirworkStandard[]; edgeShare: number },
  ktPerUnit: number,
): Omit<DetailJudged, 'unseen'> {
  const rowOf = (kind: AirworkKind) => standard.airwork.find((a) => a.kind === kind) ?? null;
  const inKt = (seen: Partial<Record<AirworkQuantity, SeenExtreme>>) =>
    typeof seen.speed === 'number' ? { ...seen, speed: seen.speed * ktPerUnit } : seen;
  const byNumbers = (
    kind: AirworkKind,
    seen: Partial<Record<AirworkQuantity, SeenExtreme>>,
    item: string | null = null,
  ) =>
    judgeNumbers(rowOf(kind), inKt(seen), standard.edgeShare, item) ?? { overall: 'not-seen' as const, quantities: [] };
  const reasons: DetailReason[] = [];
  const stepsOf = (missed: readonly number[]): string[] =>
    'steps' in detail ? missed.flatMap((i) => detail.steps[i] ?? []) : [];
  switch (detail.form) {
    case 'numbers': {
      const n = byNumbers(detail.kind, detail.seen);
      return { verdict: n.overall, reasons, quantities: n.quantities };
    }
    case 'stall': {
      const n = byNumbers('stall', detail.seen, detail.stall);
      if (detail.lookOut === false) reasons.push({ code: 'no-look-out' });
      const recovery = stallVerdict(detail.recovery);
      if (recovery === 'outside')
        reasons.push({
          code: detail.recovery === 'secondary-stall' ? 'secondary-stall' : 'rolled-before-unloading',
        });
      return {
        verdict: worst([
          n.overall,
          recovery,
          detail.lookOut === null ? 'not-seen' : detail.lookOut ? 'within' : 'outside',
        ]),
        reasons,
        quantities: n.quantities,
      };
    }
    case 'energy': {
      const exit = energyExit(detail.entry, detail.exit, detail.reciprocal);
      const seen = Object.fromEntries(Object.entries(exit).filter(([, v]) => v !== null)) as Partial<
        Record<AirworkQuantity, number>
      >;
      const n = byNumbers('energy', seen);
      return { verdict: n.overall, reasons, quantities: n.quantities };
    }
    case 'asymmetric': {
      const n = byNumbers('asymmetric', detail.seen, detail.item);
      if (detail.saidSimulated === false) reasons.push({ code: 'simulated-not-said' });
      if (detail.recovery === 'after-a-second-cue') reasons.push({ code: 'past-first-cue' });
      const recovery: CriterionVerdict =
        detail.recovery === null ? 'not-seen' : detail.recovery === 'at-first-cue' ? 'within' : 'outside';
      return { verdict: worst([n.overall, recovery]), reasons, quantities: n.quantities };
    }
    case 'steps': {
      const o = orderKept(detail.steps.length, detail.ticks);
      if (o.missed.length > 0) reasons.push({ code: 'missed', params: { steps: stepsOf(o.missed) } });
      // Numbers from memory have no order; a flow has.
      if (detail.kind === 'speeds')
        return {
          verdict:
            o.verdict === 'not-seen'
              ? 'not-seen'
              : o.missed.length === 0
                ? 'within'
                : o.missed.length === 1
                  ? 'edge'
                  : 'outside',
          reasons,
          quantities: [],
        };
      if (o.outOfOrder.length > 0) reasons.push({ code: 'out-of-order', params: { steps: stepsOf(o.outOfOrder) } });
      return { verdict: o.verdict, reasons, quantities: [] };
    }
    case 'exchange': {
      const o = orderKept(detail.steps.length, detail.ticks);
      if (o.missed.length > 0) reasons.push({ code: 'not-said', params: { steps: stepsOf(o.missed) } });
      if (detail.feetClear === false) reasons.push({ code: 'feet-stayed-on' });
      return {
        verdict: worst([o.verdict, detail.feetClear === null ? 'not-seen' : detail.feetClear ? 'within' : 'outside']),
        reasons,
        quantities: [],
      };
    }
    // A record of what hands did: how it went is the instructor's word.
    case 'handling':
      return { verdict: 'not-seen', reasons, quantities: [] };
    case 'surprise': {
      if (detail.answer !== detail.model) reasons.push({ code: 'model-says', params: { model: detail.model } });
      // A doubtful end chosen is an answer to talk about, not a good one.
      return {
        verdict: detail.answer === detail.model ? (detail.verdict === 'doubtful' ? 'edge' : 'within') : 'outside',
        reasons,
        quantities: [],
      };
    }
  }
}
