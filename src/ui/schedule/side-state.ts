import type { BookingKind } from '@/domain/schedule';
import type { ActionProblem } from '../shared/forms';
import type { Wanted } from './facts';

/** Where a new booking starts from. */
export interface NewBooking {
  date: string;
  /** Minute of the day tapped; null = none. */
  minutes: number | null;
  checkoutId?: string;
  airframeId?: string;
  instructorId?: string;
  wishId?: string;
  /** How long, in minutes. */
  length?: number;
  kind?: BookingKind;
  pilotId?: string;
}
/** What stands beside the grid: one booking, a new one, or why one was not moved. */
export interface SideState {
  selected: string | null;
  fresh: NewBooking | null;
  refused: { wanted: Wanted; problems: ActionProblem[]; nearest: { from: string; to: string } | null } | null;
  /** The last thing done, as it is announced. */
  said: string;
  /** What puts the last move back, as long as nothing else was changed since. */
  undo: Wanted | null;
  /** A move is on its way. */
  busy: boolean;
  /** Moves that were accepted, by booking, each with the version it made: drawn until the page that knows it is here. */
  placed: Readonly<Record<string, Wanted>>;
}
export type SideStep =
  | { type: 'choose'; id: string }
  | { type: 'new'; from: NewBooking }
  | { type: 'leave-new' }
  | { type: 'moving'; id: string }
  | { type: 'moved'; said: string; undo: SideState['undo']; placed: Wanted }
  | ({ type: 'refused' } & NonNullable<SideState['refused']>)
  | { type: 'leave-refused' }
  | { type: 'booked'; id: string; said: string };

/** A new booking begun, or the one asked for by the page's address. */
export const sideStart = ({ fresh, selected }: Pick<SideState, 'fresh' | 'selected'>): SideState => ({
  selected,
  fresh,
  refused: null,
  said: '',
  undo: null,
  busy: false,
  placed: {},
});

/** The one place where what stands beside the grid changes. */
export function sideStep(s: SideState, by: SideStep): SideState {
  switch (by.type) {
    case 'choose':
      return { ...s, selected: by.id, fresh: null, refused: null };
    case 'new':
      return { ...s, selected: null, fresh: by.from, refused: null };
    case 'leave-new':
      return { ...s, fresh: null };
    case 'moving':
      return { ...s, selected: by.id, busy: true };
    case 'moved':
      return {
        ...s,
        busy: false,
        refused: null,
        said: by.said,
        undo: by.undo,
        placed: { ...s.placed, [by.placed.bookingId]: by.placed },
      };
    case 'refused':
      return {
        ...s,
        busy: false,
        said: '',
        undo: null,
        refused: { wanted: by.wanted, problems: by.problems, nearest: by.nearest },
      };
    case 'leave-refused':
      return { ...s, refused: null };
    case 'booked':
      return { ...s, fresh: null, selected: by.id, said: by.said, undo: null };
  }
}
