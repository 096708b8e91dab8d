import type { FitSaid } from '@/core/schedule';
import type { BookingKind } from '@/domain/schedule';
import type { Goal } from '@/domain/words';
import type { BookAnswer, FormFacts, Refused } from './form-facts';
import type { GridBlock, GridColumn } from './grid';

export interface Booking {
  id: string;
  kind: BookingKind;
  startsAt: string;
  endsAt: string;
  date: string;
  fromMin: number;
  toMin: number;
  split: GridBlock['split'];
  pilotId: string | null;
  pilotName: string | null;
  instructorId: string | null;
  instructorName: string | null;
  airframeId: string | null;
  registration: string | null;
  checkoutId: string | null;
  goals: Goal[];
  passengers: number;
  /** Code of the aerodrome; null = home. */
  aerodrome: string | null;
  note: string;
  aim: string;
  version: number;
  masked: boolean;
  mine: boolean;
  fit: { word: string; said: FitSaid } | null;
  hit: string[];
  lesson: { lesson: number; flown: boolean; offBlock: string | null; onBlock: string | null } | null;
}
export interface ScheduleFacts extends FormFacts {
  days: readonly {
    date: string;
    name: string;
    today: boolean;
    past: boolean;
    sunriseMin: number | null;
    sunsetMin: number | null;
    wind: GridColumn['wind'];
  }[];
  bookings: readonly Booking[];
  nowMin: number;
  openFromMin: number;
  openToMin: number;
  main: string;
  staff: boolean;
  now: string;
  me: string;
  away: readonly {
    id: string;
    who: string;
    name: string;
    kind: string;
    from: string;
    to: string | null;
    why: string;
  }[];
  wishes: readonly {
    id: string;
    pilotId: string;
    pilotName: string;
    checkoutId: string | null;
    registration: string | null;
    goals: readonly Goal[];
    minutes: number;
    fromDate: string;
    toDate: string;
    note: string;
  }[];
  windows: Record<string, readonly { weekday: number; fromMin: number; toMin: number }[]>;
}
export type Booked = (form: unknown) => Promise<BookAnswer | Refused>;
export interface Wanted {
  bookingId: string;
  version: number;
  startsAt: string;
  minutes: number;
  airframeId?: string;
  instructorId?: string;
}
