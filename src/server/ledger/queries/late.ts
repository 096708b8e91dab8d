import type { Transaction } from 'sequelize';
import type { LateArrival } from '@/domain/book';
import { rows } from '../../floor/connection';

/**
 * What came in after a checkout was signed and no entry has yet in its text: kept, shown, and signed by the next
 * correction.
 */
export async function lateOf(checkoutId: string, t?: Transaction): Promise<LateArrival[]> {
  return (
    await rows<{
      id: string;
      number: number | null;
      item: string | null;
      lesson: number;
      device_time: string;
      received_at: string;
    }>(
      `SELECT e.subject_id AS id, n.number, json_extract(e.payload, '$.itemId') AS item, s.lesson, e.device_time, e.received_at
       FROM checkouts c JOIN ledger l ON l.id = c.signed_ledger_id JOIN sorties s ON s.checkout_id = c.id
         JOIN capture_events e ON e.sortie_id = COALESCE(s.shared_with, s.id) LEFT JOIN landings n ON n.id = e.subject_id
       WHERE c.id = :checkoutId AND c.status <> 'open' AND e.type IN ('landing-saved', 'item-observed') AND e.received_at > l.signed_at
         AND COALESCE(n.checkout_id, json_extract(e.payload, '$.pilotId'), c.id) IN (c.id, c.pilot_id)
         AND NOT EXISTS (SELECT 1 FROM ledger x WHERE x.checkout_id = c.id AND x.kind IN ('sign-off', 'recommendation', 'part-sign-off', 'correction') AND instr(x.canonical, '"' || e.subject_id || '"') > 0)
       ORDER BY e.received_at, e.subject_id`,
      { checkoutId },
      t,
    )
  ).map((r) => ({
    id: r.id,
    landing: r.number,
    item: r.item,
    lesson: r.lesson,
    recordedAt: r.device_time,
    receivedAt: r.received_at,
  }));
}
