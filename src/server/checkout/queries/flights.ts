import type { Transaction } from 'sequelize';
import { type RecordedLanding } from '@/core/assess';
import type { BriefResult } from '@/core/approach';
import type { BriefChoices } from '@/domain/brief';
import type { CaptureEvent, CapturedLanding, Measured } from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';
import { CaptureEvents, toEvent } from '../../fly/tables';
import type { EventType } from '@/domain/words';
import type { RowOf } from '../../floor/statement';
import * as ask from '../../floor/statements/checkout';
import { BriefTemplates } from '../tables';

export interface BriefRow {
  id: string;
  version: number;
  choices: BriefChoices;
  snapshot: BriefResult;
  createdAt: string;
  createdByName: string;
  acknowledgedAt: string | null;
  acknowledgedByName: string | null;
}
/** `sharedWith` names the flight a second pilot's lesson was part of: its events stand there. */
export interface SortieRow {
  id: string;
  lesson: number;
  flownOn: string;
  instructorId: string;
  brief: BriefRow | null;
  sharedWith: string | null;
  secondPilotId: string | null;
  secondCheckoutId: string | null;
  /** Code of the aerodrome it is flown at; null = home. */
  aerodrome: string | null;
  /** The aeroplane it is flown in. */
  airframeId: string | null;
  registration: string | null;
}

function briefOf(s: RowOf<typeof ask.sortiesOf>): BriefRow | null {
  const { briefId: id, version, choices, snapshot, createdAt, createdByName } = s;
  if (id === null || version === null || !choices || !snapshot || createdAt === null || createdByName === null)
    return null;
  const { acknowledgedAt, acknowledgedByName } = s;
  return { id, version, choices, snapshot, createdAt, createdByName, acknowledgedAt, acknowledgedByName };
}
/** Lessons of a checkout, oldest first, each with its newest brief. */
export async function sortiesOf(checkoutId: string, t?: Transaction): Promise<SortieRow[]> {
  const found = await ask.sortiesOf.all({ checkoutId }, t);
  return found.map((s) => ({
    id: s.id,
    lesson: s.lesson,
    flownOn: s.flownOn,
    instructorId: s.instructorId,
    sharedWith: s.sharedWith,
    secondPilotId: s.secondPilotId,
    secondCheckoutId: s.secondCheckoutId,
    aerodrome: s.aerodrome,
    airframeId: s.airframeId,
    registration: s.registration,
    brief: briefOf(s),
  }));
}

export interface LandingRow extends RecordedLanding {
  captured: CapturedLanding;
  measured: Measured | null;
  savedAt: string;
  windAgeMin: number | null;
  /** Code of the aerodrome it was made at; null = home. */
  aerodrome: string | null;
}

export async function landingsOf(checkoutId: string, t?: Transaction): Promise<LandingRow[]> {
  const found = await ask.landingsOf.all({ checkoutId }, t);
  return found.map((l) => ({
    id: l.id,
    number: l.number,
    sortieId: l.sortieId,
    lesson: l.lesson,
    date: l.flownOn,
    firstOfSortie: l.first,
    group: l.gearGroup,
    kind: l.kind,
    intended: l.intended,
    crosswindKt: l.crosswindKt,
    surface: l.surface,
    windAgeMin: l.windAgeMin,
    savedAt: l.savedAt,
    captured: { ...UNSEEN, ...l.captured },
    judged: l.judged,
    measured: l.measured,
    aerodrome: l.aerodrome,
  }));
}

/** Capture events of one sortie, or of a whole checkout with the flights its pilot shared. */
export async function eventsOf(
  where: { sortieId: string } | { checkoutId: string },
  types: readonly EventType[] | null = null,
  t?: Transaction,
): Promise<CaptureEvent[]> {
  const found =
    'sortieId' in where
      ? await CaptureEvents.find({ where: { ...where, ...(types ? { type: types } : {}) } }, t)
      : types
        ? await ask.typedEventsOfCheckout.all({ ...where, types }, t)
        : await ask.eventsOfCheckout.all(where, t);
  return found.map(toEvent);
}

/** The order the house starts a brief of this goal from. */
export async function briefTemplate(goal: string): Promise<BriefChoices['layout']> {
  const found = await BriefTemplates.first({ where: { goal }, pick: ['layout'] });
  return found ? found.layout : { order: [], hidden: [], own: [] };
}

/** Flights the ground time of a type is learned from: the newest; fewer than three say nothing yet. */
const GROUND_FROM = { most: 40, least: 3, sane: [1, 90] } as const;
/**
 * Minutes on the ground of past flights of a type, start to line-up and landing to shut-down, where all four marks were
 * tapped. Empty = not enough of them, and the school's figure stands.
 */
export async function groundSamples(typeCode: string): Promise<number[]> {
  const found = (await ask.groundTimes.all({ typeCode, most: GROUND_FROM.most })).flatMap((f) =>
    f.minutes !== null && f.minutes >= GROUND_FROM.sane[0] && f.minutes <= GROUND_FROM.sane[1]
      ? [Math.round(f.minutes)]
      : [],
  );
  return found.length < GROUND_FROM.least ? [] : found;
}
