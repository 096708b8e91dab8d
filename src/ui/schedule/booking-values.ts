import { addDays } from '@/core/recency';
import { localInstant, minutesText, readClock, typedDate } from '@/core/schedule';
import type { BookingKind } from '@/domain/schedule';
import { typedNumber } from '../shared/forms';
import type { FormFacts } from './form-facts';
import { newId } from '../shared/new-id';

/** A booking as it is typed. */
export interface BookingValues {
  requestId: string;
  /** The instant of a slot that was proposed; empty = the day and start as typed. */
  at: string;
  kind: BookingKind;
  checkoutId: string;
  pilotId: string;
  instructorId: string;
  airframeId: string;
  date: string;
  start: string;
  minutes: string;
  passengers: string;
  surface: 'any' | 'asphalt' | 'grass' | 'water';
  /** Code of the aerodrome; empty = home. */
  aerodrome: string;
  note: string;
  aim: string;
}
/** What a booking begins with: a place in the grid, a wish, a link of another page. */
export interface BookingStart {
  date: string;
  minutes: number | null;
  checkoutId?: string;
  kind?: BookingKind;
  airframeId?: string;
  instructorId?: string;
  pilotId?: string;
  wishId?: string;
  length?: number;
}

export function firstValues(facts: FormFacts, start: BookingStart): BookingValues {
  const first = facts.checkouts.find((c) => c.id === start.checkoutId);
  return {
    requestId: '',
    at: '',
    kind: start.kind ?? (facts.checkouts.length > 0 ? 'lesson' : 'hire'),
    checkoutId: first?.id ?? '',
    pilotId: start.pilotId ?? facts.pilotOnly ?? '',
    instructorId: start.instructorId ?? first?.instructorId ?? '',
    airframeId: start.airframeId ?? first?.airframeId ?? '',
    date: start.date,
    start: start.minutes === null ? '' : minutesText(start.minutes),
    minutes: start.length ? String(start.length) : '',
    passengers: '0',
    surface: 'any',
    aerodrome: '',
    note: '',
    aim: '',
  };
}

/** Who, in what, for what: what a booking, a look for slots and a wish share. */
function who(v: BookingValues, facts: FormFacts) {
  const lesson = v.kind === 'lesson';
  const checkout = lesson ? facts.checkouts.find((x) => x.id === v.checkoutId) : undefined;
  return {
    kind: v.kind,
    checkoutId: lesson && v.checkoutId ? v.checkoutId : null,
    pilotId: checkout?.pilotId ?? (v.pilotId || null),
    instructorId: lesson || v.kind === 'other' ? v.instructorId || null : null,
    airframeId: v.airframeId || null,
    passengers: v.passengers.trim() === '' ? 0 : typedNumber(v.passengers),
    surface: v.surface,
    aerodrome: v.aerodrome || null,
  };
}
const lengthOr = <T>(v: BookingValues, usual: T): number | T =>
  v.minutes.trim() === '' ? usual : typedNumber(v.minutes);

/** @param usualMin minutes where no length was typed */
export function bookForm(v: BookingValues, facts: FormFacts, usualMin: number, waitingId: string | null) {
  const start = readClock(v.start);
  const typed = typedDate(v.date) !== null && start !== null ? localInstant(v.date, start, facts.zone) : '';
  return {
    requestId: v.requestId,
    ...who(v, facts),
    startsAt: v.at || typed,
    minutes: lengthOr(v, usualMin),
    note: v.note,
    aim: v.kind === 'lesson' ? v.aim : '',
    waitingId,
  };
}
export const slotsForm = (v: BookingValues, facts: FormFacts) => ({
  ...who(v, facts),
  minutes: lengthOr(v, null),
  fromDate: v.date,
  days: 7,
});
/** Two weeks from the day chosen. */
export function wishForm(v: BookingValues, facts: FormFacts, usualMin: number) {
  const { pilotId, checkoutId } = who(v, facts);
  return {
    requestId: newId(),
    pilotId,
    checkoutId,
    minutes: lengthOr(v, usualMin),
    fromDate: v.date,
    toDate: typedDate(v.date) === null ? v.date : addDays(v.date, 13),
    note: v.note,
  };
}
