import type { Transaction } from 'sequelize';
import { clockText, dayText, localClock } from '@/core/schedule';
import type { BookingKind } from '@/domain/schedule';
import type { TypeSheet } from '@/domain/sheet';
import { type CheckoutHead, checkoutHead } from '../../checkout/queries/head';
import type { CurrentUser } from '../../floor/auth/permissions';
import { userById } from '../../floor/auth/session-user';
import * as ask from '../../floor/statements/schedule';
import { airframeSheet } from '../queries/slots';
import { openSpanText } from '../sentences';

/** A booking as it is asked for, new or moved. */
export interface Wanted {
  bookingId: string | null;
  kind: BookingKind;
  checkoutId: string | null;
  pilotId: string | null;
  instructorId: string | null;
  airframeId: string | null;
  startsAt: string;
  minutes: number;
  passengers: number;
  surface: string;
  /** Code of the aerodrome; null = home. */
  aerodrome: string | null;
}

/** Who and what it is about, as they stand in the record; null = not named, or not there. */
export interface Parties {
  head: CheckoutHead | null;
  pilotId: string | null;
  pilot: { name: string } | null;
  instructor: CurrentUser | null;
  frame: { registration: string; sheet: TypeSheet } | null;
}
export async function partiesOf(w: Wanted, t: Transaction): Promise<Parties> {
  const head = w.checkoutId === null ? null : await checkoutHead(w.checkoutId, t);
  const pilotId = head?.pilotId ?? w.pilotId;
  return {
    head,
    pilotId,
    pilot: pilotId === null ? null : ((await ask.check.one({ pilotId }, t)) ?? null),
    instructor: w.instructorId === null ? null : await userById(w.instructorId, t),
    frame: w.airframeId === null ? null : await airframeSheet(w.airframeId, t),
  };
}

/** A span of time as a booking's refusal names it, in local time. */
export const spanText = (s: { from: string; to: string | null }, zone: string): string =>
  s.to === null
    ? openSpanText(dayText(localClock(s.from, zone).date))
    : `${dayText(localClock(s.from, zone).date)}, ${clockText(s.from, zone)} to ${clockText(s.to, zone)}`;
