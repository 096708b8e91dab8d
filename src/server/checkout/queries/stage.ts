import { list } from '@/core/format';
import type { Stage } from '@/domain/words';
import type { CheckoutRecord } from './record';

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

/** The stage a checkout stands at, from what is recorded; nobody sets it by hand. */
export function stageOf(
  record: Pick<CheckoutRecord, 'head' | 'sorties' | 'landings' | 'items' | 'programmes' | 'evidence'>,
): Stage {
  if (record.head.status !== 'open' || record.items.every((i) => i.met)) return 'sign';
  const latest = record.sorties[record.sorties.length - 1];
  if (!latest) return 'brief';
  const flown = flownLessons(record).has(latest.lesson);
  return flown ? 'debrief' : latest.brief ? 'fly' : 'brief';
}

/** The one next action: in words, as a button, and where it is done. */
export function nextAction(record: CheckoutRecord): { text: string; button: string; href: string } {
  const base = `/checkouts/${record.head.id}`;
  const action = actionOf(record, base);
  const refused = record.items.filter((i) => i.refused).map((i) => i.item.id);
  return refused.length === 0 || record.head.status !== 'open'
    ? action
    : { ...action, text: `Further training: ${list(refused)} again before anybody signs. ${action.text}` };
}
function actionOf(record: CheckoutRecord, base: string): { text: string; button: string; href: string } {
  if (record.head.status === 'recommended')
    return {
      text: 'Recommended: the examiner decides, and the result is entered here.',
      button: 'Enter the result',
      href: `${base}/sign`,
    };
  if (record.head.status === 'signed')
    return { text: 'Signed. See the entry in the ledger.', button: 'See the ledger', href: '/ledger' };
  const latest = record.sorties[record.sorties.length - 1];
  switch (stageOf(record)) {
    case 'sign':
      return {
        text: 'Every item has its evidence: check it and sign.',
        button: 'Check and sign',
        href: `${base}/sign`,
      };
    case 'fly':
      return latest?.brief?.acknowledgedAt
        ? {
            text: `Lesson ${latest.lesson} is briefed and acknowledged: fly it.`,
            button: `Fly lesson ${latest.lesson}`,
            href: `${base}/fly`,
          }
        : {
            text: `Lesson ${latest?.lesson ?? 1} is briefed: the pilot acknowledges, then fly.`,
            button: `Brief and fly lesson ${latest?.lesson ?? 1}`,
            href: `${base}/brief`,
          };
    case 'debrief':
      return {
        text: `Debrief lesson ${latest?.lesson ?? 1}, then brief the next.`,
        button: `Debrief lesson ${latest?.lesson ?? 1}`,
        href: `${base}/debrief`,
      };
    case 'open':
    case 'brief':
      return {
        text: `Brief lesson ${(latest?.lesson ?? 0) + 1}.`,
        button: `Brief lesson ${(latest?.lesson ?? 0) + 1}`,
        href: `${base}/brief`,
      };
  }
}
