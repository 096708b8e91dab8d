import type { Transaction } from 'sequelize';
import { type JudgedLanding, type RecordedLanding } from '@/core/assess';
import type { BriefResult } from '@/core/approach';
import type { BriefChoices } from '@/domain/brief';
import type { CaptureEvent, CapturedLanding, Measured } from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';
import type { LandingKind } from '@/domain/words';
import { type CaptureRow, toEvent } from '../../fly/tables';
import { row, rows } from '../../floor/connection';

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
}

/** Lessons of a checkout, oldest first, each with its newest brief. */
export async function sortiesOf(checkoutId: string, t?: Transaction): Promise<SortieRow[]> {
  const found = await rows<{
    id: string;
    lesson: number;
    flown_on: string;
    instructor_id: string;
    shared_with: string | null;
    second_pilot_id: string | null;
    second_checkout_id: string | null;
    brief_id: string | null;
    version: number;
    choices: string;
    snapshot: string;
    created_at: string;
    acknowledged_at: string | null;
    acknowledged_by_name: string | null;
    created_by_name: string;
  }>(
    `SELECT s.id, s.lesson, s.flown_on, s.instructor_id, s.shared_with, s.second_pilot_id, s.second_checkout_id, b.id AS brief_id, b.version, b.choices, b.snapshot, b.created_at, b.acknowledged_at, u.name AS acknowledged_by_name, w.name AS created_by_name
     FROM sorties s LEFT JOIN briefs b ON b.sortie_id = s.id AND b.version = (SELECT MAX(version) FROM briefs WHERE sortie_id = s.id)
     LEFT JOIN users u ON u.id = b.acknowledged_by LEFT JOIN users w ON w.id = b.created_by WHERE s.checkout_id = :checkoutId ORDER BY s.lesson`,
    { checkoutId },
    t,
  );
  return found.map((s) => ({
    id: s.id,
    lesson: s.lesson,
    flownOn: s.flown_on,
    instructorId: s.instructor_id,
    sharedWith: s.shared_with,
    secondPilotId: s.second_pilot_id,
    secondCheckoutId: s.second_checkout_id,
    brief:
      s.brief_id === null
        ? null
        : {
            id: s.brief_id,
            version: s.version,
            choices: JSON.parse(s.choices) as BriefChoices,
            snapshot: JSON.parse(s.snapshot) as BriefResult,
            createdAt: s.created_at,
            createdByName: s.created_by_name,
            acknowledgedAt: s.acknowledged_at,
            acknowledgedByName: s.acknowledged_by_name,
          },
  }));
}

export interface LandingRow extends RecordedLanding {
  captured: CapturedLanding;
  measured: Measured | null;
  savedAt: string;
  windAgeMin: number | null;
}

export async function landingsOf(checkoutId: string, t?: Transaction): Promise<LandingRow[]> {
  const found = await rows<{
    id: string;
    sortie_id: string;
    lesson: number;
    number: number;
    first: number;
    kind: LandingKind;
    intended: string | null;
    gear_group: string;
    crosswind_kt: number | null;
    wind_age_min: number | null;
    flown_on: string;
    saved_at: string;
    captured: string;
    judged: string;
    measured: string | null;
    surface: 'land' | 'water';
  }>(
    `SELECT l.*, s.lesson FROM landings l JOIN sorties s ON s.id = l.sortie_id WHERE l.checkout_id = :checkoutId ORDER BY s.lesson, l.number`,
    { checkoutId },
    t,
  );
  return found.map((l) => ({
    id: l.id,
    number: l.number,
    sortieId: l.sortie_id,
    lesson: l.lesson,
    date: l.flown_on,
    firstOfSortie: l.first === 1,
    group: l.gear_group,
    kind: l.kind,
    intended: l.intended,
    crosswindKt: l.crosswind_kt,
    surface: l.surface,
    windAgeMin: l.wind_age_min,
    savedAt: l.saved_at,
    captured: { ...UNSEEN, ...(JSON.parse(l.captured) as CapturedLanding) },
    judged: JSON.parse(l.judged) as JudgedLanding,
    measured: l.measured === null ? null : (JSON.parse(l.measured) as Measured),
  }));
}

/** Capture events of one sortie, or of a whole checkout with the flights its pilot shared. */
export async function eventsOf(
  where: { sortieId: string } | { checkoutId: string },
  types: readonly string[] | null = null,
  t?: Transaction,
): Promise<CaptureEvent[]> {
  const filter =
    'sortieId' in where
      ? 'e.sortie_id = :sortieId'
      : 'e.sortie_id IN (SELECT COALESCE(shared_with, id) FROM sorties WHERE checkout_id = :checkoutId)';
  const found = await rows<CaptureRow>(
    `SELECT e.* FROM capture_events e WHERE ${filter} ${types ? 'AND e.type IN (:types)' : ''}`,
    { ...where, types },
    t,
  );
  return found.map(toEvent);
}

/** The order the house starts a brief of this goal from. */
export async function briefTemplate(goal: string): Promise<BriefChoices['layout']> {
  const found = await row<{ layout: string }>('SELECT layout FROM brief_templates WHERE goal = :goal', { goal });
  return found ? (JSON.parse(found.layout) as BriefChoices['layout']) : { order: [], hidden: [], own: [] };
}
