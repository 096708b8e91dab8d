import { direction } from '@/core/format';
import type { LoggedWind } from '@/domain/capture';
import type { EventType } from '@/domain/words';
import type { Folded, SortiePack } from '@/offline/protocol';

/** A wind in figures: `262/11 G17`. */
export const windFigures = (w: Pick<LoggedWind, 'fromDegMag' | 'kt' | 'gustKt'>): string =>
  `${direction(w.fromDegMag)}/${String(w.kt).padStart(2, '0')}${w.gustKt ? ` G${w.gustKt}` : ''}`;

/** Keeps one event on the device; settled when it is durable there. */
export type SaveEvent = (type: EventType, subjectId: string, payload: unknown) => Promise<void>;

/** What every view of the cockpit is given. */
export interface ViewProps {
  pack: SortiePack;
  folded: Folded;
  saveEvent: SaveEvent;
  say: (line: string) => void;
  runwayEnd: string;
  wind: LoggedWind | null;
}
