import type { Stage } from '@/domain/words';
import { type NextAction, type NextStep, nextStep } from '../next-words';
import type { SortieRow } from './flights';
import { type CheckoutRecord, oldBrief } from './record';

/** Lessons in which something was flown: a landing, an item of flight, or a flight by the clock. */
export function flownLessons(record: Pick<CheckoutRecord, 'landings' | 'programmes' | 'evidence'>): Set<number> {
  const ground = new Set(
    record.programmes.flatMap((p) => p.items.filter((i) => i.where === 'ground').map((i) => i.id)),
  );
  return new Set([
    ...record.landings.map((l) => l.lesson),
    ...record.evidence.observations
      .filter((o) => !ground.has(o.data.itemId) && !o.data.itemId.startsWith('list:'))
      .map((o) => o.lesson),
    ...(record.evidence.flights ?? []).filter((f) => f.minutes !== null).map((f) => f.lesson),
  ]);
}

/** Flown lessons whose brief the pilot had not acknowledged, or not of that day; a shared flight has none of its own. */
export function flownUnreadOf(record: CheckoutRecord): { lesson: number; days: number | null }[] {
  const flown = flownLessons(record);
  return record.sorties.flatMap((s): { lesson: number; days: number | null }[] => {
    if (!flown.has(s.lesson)) return [];
    if (s.brief ? s.brief.acknowledgedAt === null : s.sharedWith === null) return [{ lesson: s.lesson, days: null }];
    const days = oldBrief(s, record.house);
    return days === null ? [] : [{ lesson: s.lesson, days }];
  });
}

/** A brief for the aeroplane the checkout goes on in; after a change of aeroplane the lesson is briefed again. */
export const briefedHere = (
  sortie: Pick<SortieRow, 'brief' | 'airframeId'>,
  head: Pick<CheckoutRecord['head'], 'airframeId'>,
): boolean => sortie.brief !== null && (sortie.airframeId === null || sortie.airframeId === head.airframeId);

/** The stage a checkout stands at, from what is recorded; nobody sets it by hand. */
export function stageOf(
  record: Pick<CheckoutRecord, 'head' | 'sorties' | 'landings' | 'items' | 'programmes' | 'evidence'>,
): Stage {
  if (record.head.status !== 'open' || record.items.every((i) => i.met)) return 'sign';
  const latest = record.sorties[record.sorties.length - 1];
  if (!latest) return 'brief';
  const flown = flownLessons(record).has(latest.lesson);
  return flown ? 'debrief' : briefedHere(latest, record.head) ? 'fly' : 'brief';
}

/** The one next action, and where it is done. */
export function nextAction(record: CheckoutRecord): NextAction {
  const { id, status } = record.head;
  const refused = status === 'open' ? record.items.filter((i) => i.refused).map((i) => i.item.id) : [];
  const step = stepOf(record);
  return { step, refused, href: step.code === 'signed' ? '/ledger' : `/checkouts/${id}/${PLACE[step.code]}` };
}
/** The stage in which a step is done. */
const PLACE: Record<Exclude<NextStep['code'], 'signed'>, Stage> = {
  'enter-result': 'sign',
  sign: 'sign',
  fly: 'fly',
  acknowledge: 'brief',
  debrief: 'debrief',
  brief: 'brief',
};
function stepOf(record: CheckoutRecord): NextStep {
  if (record.head.status === 'recommended') return nextStep('enter-result');
  if (record.head.status === 'signed') return nextStep('signed');
  const latest = record.sorties[record.sorties.length - 1];
  const lesson = latest?.lesson ?? 1;
  switch (stageOf(record)) {
    case 'sign':
      return nextStep('sign');
    case 'fly':
      return nextStep(latest?.brief?.acknowledgedAt ? 'fly' : 'acknowledge', { lesson });
    case 'debrief':
      return nextStep('debrief', { lesson });
    case 'open':
    case 'brief':
      // Briefed and not flown it is the same lesson, in another aeroplane.
      return nextStep('brief', {
        lesson: latest && !flownLessons(record).has(latest.lesson) ? latest.lesson : (latest?.lesson ?? 0) + 1,
      });
  }
}
