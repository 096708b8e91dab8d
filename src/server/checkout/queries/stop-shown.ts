import type { StopCode } from '@/domain/stops';
import type { CheckoutRecord } from './record';

export interface StopShown {
  sortieId: string;
  subjectId: string;
  lesson: number;
  /** What it was: a landing, an item, the flight. */
  name: string;
  code: StopCode;
  words: string;
  reason: string | null;
}

/** Everything of a checkout flown past a stop, by lesson and in order, named for a page; of one lesson, or of all. */
export function stopsShown(record: CheckoutRecord, lesson: number | null = null): StopShown[] {
  const titles = new Map(record.programmes.flatMap((p) => p.items).map((i) => [i.id, i.title]));
  const nameOf = (s: CheckoutRecord['stops'][number]): [order: number, name: string] => {
    const landing = record.landings.find((l) => l.id === s.subjectId);
    if (landing) return [landing.number, `Lesson ${s.lesson}, landing ${landing.number}`];
    const item = record.evidence.observations.find((o) => o.id === s.subjectId);
    if (item) return [1000, `Lesson ${s.lesson}, ${item.data.itemId} ${titles.get(item.data.itemId) ?? ''}`.trim()];
    return [-1, `Lesson ${s.lesson}, the flight`];
  };
  return record.stops
    .filter((s) => lesson === null || s.lesson === lesson)
    .map((s) => ({ s, named: nameOf(s) }))
    .sort((a, b) => a.s.lesson - b.s.lesson || a.named[0] - b.named[0] || (a.s.subjectId < b.s.subjectId ? -1 : 1))
    .map(({ s, named }) => ({
      sortieId: s.sortieId,
      subjectId: s.subjectId,
      lesson: s.lesson,
      name: named[1],
      code: s.stop.code,
      words: s.words,
      reason: s.explained?.reason ?? null,
    }));
}
