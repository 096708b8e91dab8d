import type { Goal } from '@/domain/words';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import * as ask from '../../floor/statements/schedule';
import { localToday } from '../../rules/today';

export interface Wish {
  id: string;
  pilotId: string;
  pilotName: string;
  checkoutId: string | null;
  registration: string | null;
  goals: Goal[];
  minutes: number;
  fromDate: string;
  toDate: string;
  note: string;
  askedAt: string;
}
/** Who waits for a slot; a pilot sees their own. */
export async function waiting(user: CurrentUser): Promise<Wish[]> {
  const today = await localToday();
  const found = await ask.waiting.all({ today });
  return found
    .filter((w) => may.book(user, { pilotId: w.pilotId }))
    .map((w) => ({
      id: w.id,
      pilotId: w.pilotId,
      pilotName: w.name,
      checkoutId: w.checkoutId,
      registration: w.registration,
      goals: w.goals ?? [],
      minutes: w.minutes,
      fromDate: w.fromDate,
      toDate: w.toDate,
      note: w.note,
      askedAt: w.askedAt,
    }));
}
