/**
 * What an open checkout already proves for another one of the same pilot. Method: the same item, by the same rule, for
 * the same goal under the same law. What is known on the ground counts in any aeroplane of the goal; what was flown
 * counts in an aeroplane of the same gear and mass; what belongs to one airframe counts in no other.
 */
import type { ProgrammeItem } from '@/domain/programme';
import type { Goal } from '@/domain/words';
import type { EvidenceRecord, ItemEvidence } from './evidence';

export const CARRY_WHY = ['same-rule', 'not-met', 'airframe', 'other-group', 'other-rule'] as const;
export type CarryWhy = (typeof CARRY_WHY)[number];
/** Why something met elsewhere is not counted here, after the title of the item. */
export const CARRY_WORDS: Readonly<Record<Exclude<CarryWhy, 'same-rule' | 'not-met'>, string>> = {
  airframe: 'belongs to one airframe: shown again here',
  'other-group': 'flown in another gear or mass: flown again here',
  'other-rule': 'asked by another rule here',
};
export interface CarryOffer {
  item: ProgrammeItem;
  /** Why it counts here, or why it does not. */
  why: CarryWhy;
  /** The newest day of what it rests on; null where it does not count. */
  on: string | null;
}

/**
 * Items of a new checkout that another open one has something to show for.
 * @param items of the new checkout, of one goal
 * @param there evidence of the same goal, under the same law, in the open checkout
 * @param record what that evidence rests on
 * @param same whether it is flown in the same airframe, and in the same gear-and-mass group
 * @returns one entry an item both have; `same-rule` = it counts, with the day of its newest evidence
 * @example carryOffers(items, there, record, { airframe: false, group: true }).filter((o) => o.why === 'same-rule')
 */
export function carryOffers(
  items: readonly ProgrammeItem[],
  there: readonly ItemEvidence[],
  record: EvidenceRecord,
  same: { airframe: boolean; group: boolean },
): CarryOffer[] {
  const dated = new Map<string, string>(
    [
      ...record.landings,
      ...record.observations,
      ...(record.flights ?? []),
      ...(record.briefs ?? []),
      ...(record.gearChecks ?? []),
    ].map((x) => [x.id, x.date]),
  );
  return items.flatMap((item): CarryOffer[] => {
    const found = there.find((e) => e.item.id === item.id);
    if (!found) return [];
    const why = whyOf(item, found, same);
    const on = found.evidence.reduce<string>((newest, id) => {
      const day = dated.get(id) ?? '';
      return day > newest ? day : newest;
    }, '');
    // What rests on no dated record proves nothing elsewhere.
    return [
      { item, why: why === 'same-rule' && on === '' ? 'not-met' : why, on: why === 'same-rule' && on ? on : null },
    ];
  });
}

function whyOf(item: ProgrammeItem, found: ItemEvidence, same: { airframe: boolean; group: boolean }): CarryWhy {
  // Waived, credited and signed in part are decisions about the other checkout.
  if (found.state !== 'met' || found.part !== null) return 'not-met';
  if (JSON.stringify(found.item.evidence) !== JSON.stringify(item.evidence)) return 'other-rule';
  if (item.perAirframe && !same.airframe) return 'airframe';
  if (item.where === 'flight' && !same.group) return 'other-group';
  return 'same-rule';
}

/** Another open checkout of the pilot, and what it has to show for the one being opened. */
export interface Elsewhere {
  id: string;
  registration: string;
  typeName: string;
  instructor: string;
  goals: Goal[];
  lessons: number;
  /** Goals that both would be training. */
  both: Goal[];
  proves: { goal: Goal; itemId: string; title: string; citation: string; on: string }[];
  /** Met there, and not counted here, each with why. */
  not: { title: string; why: Exclude<CarryWhy, 'same-rule' | 'not-met'> }[];
}
