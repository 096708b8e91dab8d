import type { Aerodrome } from '@/domain/sheet';
import * as ask from '../../floor/statements/checkout';
import { aerodromeAt } from '../../rules/content';
import type { CheckoutRecord } from './record';
import { flownLessons } from './stage';

/** Where the next lesson is flown: as it is briefed, else as it is booked, else at home. */
export async function nextAerodrome(record: CheckoutRecord, now: string): Promise<Aerodrome> {
  const latest = record.sorties[record.sorties.length - 1];
  if (latest?.brief && !flownLessons(record).has(latest.lesson)) return aerodromeAt(latest.aerodrome);
  return aerodromeAt((await ask.bookedAerodrome.one({ checkoutId: record.head.id, now }))?.aerodrome);
}
