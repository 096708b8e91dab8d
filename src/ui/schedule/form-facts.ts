import type { FitSaid } from '@/core/schedule';
import type { Goal } from '@/domain/words';
import type { ActionResult } from '../shared/forms';

export interface BookAnswer {
  ok: true;
  bookingId: string;
  version: number;
  warnings: { message: string }[];
}
/** Why it was not done; `nearest` is the nearest time everybody is free. */
export type Refused = Extract<ActionResult, { ok: false }>;
export interface ProposalsAnswer {
  ok: true;
  minutes: number;
  split: { brief: number; prepare: number; flight: number; debrief: number; lessons: number };
  best: { from: string; to: string; fit: { score: number; word: string; said: FitSaid } }[];
  free: number;
}
export interface FormFacts {
  zone: string;
  today: string;
  stepMin: number;
  pilotOnly: string | null;
  checkouts: readonly {
    id: string;
    pilotId: string;
    pilotName: string;
    instructorId: string;
    airframeId: string;
    registration: string;
    goals: readonly Goal[];
  }[];
  people: readonly { key: string; userId: string | null; pilotId: string | null; name: string; instructor: boolean }[];
  airframes: readonly { id: string; registration: string; typeName: string; down: string | null }[];
  /** Aerodromes of the school, home first. */
  places: readonly { ident: string; name: string }[];
}
