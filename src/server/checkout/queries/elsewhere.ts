import { carryOffers, type Elsewhere } from '@/core/assess';
import { gearMassGroup, programmeOn, sheetFacts } from '@/core/plan';
import { ElsewhereForm } from '@/domain/open-form';
import type { Goal, PackId } from '@/domain/words';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { hangar } from '../../hangar/queries/hangar';
import { newestContent } from '../../rules/content';
import { Checkouts } from '../tables';
import { checkoutHead } from './head';
import { checkoutRecord } from './record';

/** The programme of a goal under a pack; the house's own when the pack has none. */
export const programmeFor = async (goal: string, pack: string) =>
  (await newestContent('programme', `${goal}-${pack}`)) ?? (await newestContent('programme', `${goal}-house`));

/**
 * Open checkouts of a pilot, with what each already proves for a new one in this aeroplane: the same item of the same
 * goal under the same law (`core/assess/carry`). Without an aeroplane nothing is offered.
 */
export async function openElsewhere(user: CurrentUser, form: unknown): Promise<Elsewhere[] | null> {
  const parsed = ElsewhereForm.safeParse(form);
  if (!parsed.success || !may.openCheckoutFor(user, parsed.data)) return null;
  return elsewhereOf(parsed.data);
}

export async function elsewhereOf(to: {
  pilotId: string;
  airframeId: string;
  pack: PackId;
  goals: readonly Goal[];
}): Promise<Elsewhere[]> {
  const open = await Checkouts.find({
    where: { pilotId: to.pilotId, status: 'open' },
    pick: ['id'],
    order: ['createdAt'],
  });
  if (open.length === 0) return [];
  const frame = (await hangar()).flatMap((t) => t.airframes).find((a) => a.id === to.airframeId);
  const found: Elsewhere[] = [];
  for (const { id } of open) {
    const head = await checkoutHead(id);
    if (!head) continue;
    const record = await checkoutRecord(head);
    const both = to.goals.filter((g) => head.goals.includes(g));
    const proves: Elsewhere['proves'] = [];
    const not: Elsewhere['not'] = [];
    for (const goal of head.pack === to.pack && frame ? both : []) {
      const programme = await programmeFor(goal, to.pack);
      const there = record.programmes.find((p) => p.goal === goal);
      if (!programme || !there || !frame) continue;
      const ids = new Set(there.items.map((i) => i.id));
      const offers = carryOffers(
        programmeOn(programme.body, sheetFacts(frame.effective)).programme.items,
        record.items.filter((i) => ids.has(i.item.id)),
        record.evidence,
        {
          airframe: frame.id === head.airframeId,
          group: gearMassGroup(frame.effective) === gearMassGroup(head.sheet),
        },
      );
      for (const { item, why, on } of offers) {
        if (why === 'same-rule' && on !== null)
          proves.push({ goal, itemId: item.id, title: item.title, citation: item.citation, on });
        else if (why !== 'same-rule' && why !== 'not-met') not.push({ title: item.title, why });
      }
    }
    found.push({
      id,
      registration: head.registration,
      typeName: head.typeName,
      instructor: head.instructorName,
      goals: head.goals,
      lessons: record.sorties.length,
      both,
      proves,
      not,
    });
  }
  return found;
}
