import type { EventPayload } from '@/domain/capture';
import type { EventType } from '@/domain/words';
import type { EventOf, FoldState } from './state';

/** What an event can change, and so which reads have to see it. */
export const FACETS = [
  'landings',
  'items',
  /** Landings and items as they were captured, corrected and undone. */
  'captured',
  'drafts',
  'gear',
  'clock',
  'powers',
  'trials',
  'waivers',
  /** Why something was flown past a stop. */
  'reasons',
  /** A limit of the school set aside. */
  'limits',
  /** A limit of the aeroplane passed, seen by eye. */
  'exceedances',
  /** Of the flight as a whole: why it ended early, what is handed over. */
  'told',
  'wind',
  'runway',
  'seats',
] as const;
export type Facet = (typeof FACETS)[number];

/**
 * Everything there is to know of one type of event but its schema, which stands in `domain/capture` by version: the
 * cockpit folds events without the schema library.
 */
export interface EventDefinition<T extends EventType> {
  affects: readonly Facet[];
  /** Recorded in the cockpit; also at a desk afterwards; or only by a command of the office, after checks of its own. */
  said: 'cockpit' | 'desk' | 'office';
  /** Changes something recorded before. */
  changes?: true;
  /** The pilot it names; null = nobody in particular. */
  names?: (payload: EventPayload<T>) => string | null;
  /** What it does to an agreement of wheels and surface. */
  ends?: (payload: EventPayload<T>) => string[];
  /** Read even where its subject was undone: what speaks for the whole flight, and numbers that are given once. */
  always?: (state: FoldState, event: EventOf<T>) => void;
  /** Read where its subject still stands. */
  fold?: (state: FoldState, event: EventOf<T>) => void;
  /** Once everything has been read, in the order of the types. */
  settle?: (state: FoldState) => void;
}
export const define = <T extends EventType>(_: T, definition: EventDefinition<T>): EventDefinition<T> => definition;
