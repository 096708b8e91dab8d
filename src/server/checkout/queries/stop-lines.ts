import type { Transaction } from 'sequelize';
import { stopWords } from '@/core/assess';
import type { Stop } from '@/domain/stops';
import { Stops } from '../../fly/tables';

export interface StopLine {
  sortieId: string;
  subjectId: string;
  /** What it is a stop of. */
  subject: 'flight' | 'landing' | 'item';
  stop: Stop;
  words: string;
}
/** The stops of a checkout, as they stand beside its record. */
export async function stopsOf(checkoutId: string, t?: Transaction): Promise<StopLine[]> {
  const found = await Stops.find(
    {
      where: { checkoutId },
      pick: ['subjectId', 'sortieId', 'subject', 'code', 'facts'],
      order: ['sortieId', 'subjectId', 'position'],
    },
    t,
  );
  return found.map((f) => {
    const stop: Stop = { code: f.code, facts: f.facts };
    return { sortieId: f.sortieId, subjectId: f.subjectId, subject: f.subject, stop, words: stopWords(stop) };
  });
}
