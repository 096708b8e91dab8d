import type { Transaction } from 'sequelize';
import { stopWords } from '@/core/assess';
import type { Stop, StopCode } from '@/domain/stops';
import { rows } from '../../floor/connection';

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
  const found = await rows<{
    subject_id: string;
    sortie_id: string;
    subject: StopLine['subject'];
    code: StopCode;
    facts: string;
  }>(
    'SELECT subject_id, sortie_id, subject, code, facts FROM stops WHERE checkout_id = :checkoutId ORDER BY sortie_id, subject_id, position',
    { checkoutId },
    t,
  );
  return found.map((f) => {
    const stop: Stop = { code: f.code, facts: JSON.parse(f.facts) as Stop['facts'] };
    return { sortieId: f.sortie_id, subjectId: f.subject_id, subject: f.subject, stop, words: stopWords(stop) };
  });
}
