import type { Transaction } from 'sequelize';
import type { LateArrival } from '@/domain/ledger';
import * as ask from '../../floor/statements/ledger';

/**
 * What came in after a checkout was signed and no entry has yet in its text: kept, shown, and signed by the next
 * correction.
 */
export async function lateOf(checkoutId: string, t?: Transaction): Promise<LateArrival[]> {
  return (await ask.lateOf.all({ checkoutId }, t)).map((r) => ({
    id: r.id,
    landing: r.number,
    item: r.item,
    lesson: r.lesson,
    recordedAt: r.deviceTime,
    receivedAt: r.receivedAt,
  }));
}
