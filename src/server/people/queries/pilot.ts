import type { Transaction } from 'sequelize';
import { type Difference, type FlownType, rankDifferences } from '@/core/differences';
import { attributesBySchool } from '@/core/plan';
import type { TypeSheet } from '@/domain/sheet';
import type { Goal } from '@/domain/words';
import { newestContent } from '../../rules/content';
import { row, rows } from '../../floor/connection';
import { parsedSheet } from '../../hangar/sheets';

export interface PilotHours {
  typeCode: string;
  typeName: string;
  hours: number;
  /** Of the office's entry, in command; null = not told apart. */
  pic: number | null;
  lastFlown: string;
  enteredBy: string;
  enteredAt: string;
  /** Of them, from an imported logbook and logged flights beyond the office’s entry. */
  since: number;
}

/**
 * What a pilot has flown, by type: the newest entry of the office, and what was logged or read in from a logbook and
 * flown after the day it speaks of. The last day is that of a landing recorded here when it is later.
 */
export async function hoursOf(pilotId: string, t?: Transaction): Promise<PilotHours[]> {
  const found = await rows<{
    code: string;
    name: string;
    hours: number | null;
    pic: number | null;
    last_flown: string | null;
    entered_by: string | null;
    entered_at: string | null;
    since: number | null;
    since_last: string | null;
    landed: string | null;
  }>(
    `SELECT ty.code, ty.name, h.hours, h.pic, h.last_flown, u.name AS entered_by, h.entered_at, SUM(x.hours) AS since, MAX(x.flown_on) AS since_last,
       (SELECT MAX(l.flown_on) FROM landings l JOIN checkouts c ON c.id = l.checkout_id JOIN airframes a ON a.id = c.airframe_id WHERE l.pilot_id = :pilotId AND a.type_id = ty.id) AS landed
     FROM types ty LEFT JOIN pilot_hours h ON h.type_code = ty.code AND h.pilot_id = :pilotId AND h.seq = (SELECT MAX(seq) FROM pilot_hours y WHERE y.pilot_id = :pilotId AND y.type_code = ty.code) LEFT JOIN users u ON u.id = h.entered_by
     LEFT JOIN (SELECT f.type_code, f.hours, f.flown_on, f.entered_at FROM flight_log f WHERE f.pilot_id = :pilotId AND NOT EXISTS (SELECT 1 FROM flight_log_struck s WHERE s.log_id = f.id)
       UNION ALL SELECT g.type_code, g.hours, g.flown_on, NULL FROM logbook_flights g JOIN logbook_imports i ON i.id = g.import_id WHERE g.pilot_id = :pilotId AND i.taken_back_at IS NULL AND g.type_code IS NOT NULL) x
       ON x.type_code = ty.code AND (h.id IS NULL OR (x.entered_at IS NOT NULL AND x.entered_at > h.entered_at) OR (x.entered_at IS NULL AND x.flown_on > h.last_flown))
     GROUP BY ty.code HAVING COALESCE(h.hours, 0) + COALESCE(SUM(x.hours), 0) > 0 ORDER BY COALESCE(h.hours, 0) + COALESCE(SUM(x.hours), 0) DESC`,
    { pilotId },
    t,
  );
  return found.map((h) => ({
    typeCode: h.code,
    typeName: h.name,
    hours: (h.hours ?? 0) + (h.since ?? 0),
    pic: h.pic,
    since: h.since ?? 0,
    lastFlown: [h.last_flown, h.landed, h.since_last].reduce<string>((a, d) => (d !== null && d > a ? d : a), ''),
    enteredBy: h.entered_by ?? 'from the logbook',
    enteredAt: h.entered_at ?? '',
  }));
}

/** The newest sheet of a type; null when it is not in the hangar. */
async function attributesOf(code: string, t?: Transaction): Promise<FlownType['attributes'] | null> {
  const v = await row<{ id: string; sheet: string }>(
    'SELECT v.id, v.sheet FROM type_versions v JOIN types t ON t.id = v.type_id WHERE t.code = :code ORDER BY v.version DESC LIMIT 1',
    { code },
    t,
  );
  return v ? parsedSheet(v.id, v.sheet).attributes : null;
}

/** What differences are worked out from: who, and which aeroplane with which programmes of the school. */
interface Checked {
  pilotId: string;
  typeCode: string;
  sheet: TypeSheet;
  schools: Record<string, string>;
  goals: readonly Goal[];
}
/** Habit against this aeroplane, for the goals of a checkout. Hours on the type itself count as habit too. */
export async function differencesOf(
  head: Checked,
  onDate: string,
  t?: Transaction,
): Promise<{ flown: (FlownType & { typeCode: string; pic: number | null })[]; rows: Difference[] }> {
  const rules = await newestContent('differences', 'differences', t);
  const hours = await hoursOf(head.pilotId, t);
  const flown = (
    await Promise.all(
      hours.map(async (h) => ({
        typeCode: h.typeCode,
        typeName: h.typeName,
        hours: h.hours,
        pic: h.pic,
        lastFlown: h.lastFlown,
        attributes: (await attributesOf(h.typeCode, t)) ?? [],
      })),
    )
  ).filter((f) => f.attributes.length > 0);
  const ofType = (await attributesOf(head.typeCode, t)) ?? head.sheet.attributes;
  return {
    flown,
    rows:
      rules === null
        ? []
        : rankDifferences({
            flown,
            to: attributesBySchool(head.sheet.attributes, head.schools),
            typeAttributes: ofType,
            goals: head.goals,
            rules: rules.body,
            onDate,
          }),
  };
}

export interface PilotEye {
  seat: 'pilot' | 'instructor';
  eyeHeightM: number;
  how: string;
  enteredBy: string;
  enteredAt: string;
}
/** Eye heights measured for a pilot in a type, newest of each seat. */
export async function eyesOf(pilotId: string, typeCode: string): Promise<PilotEye[]> {
  const found = await rows<{
    seat: PilotEye['seat'];
    eye_height_m: number;
    how: string;
    entered_by: string;
    entered_at: string;
  }>(
    `SELECT e.seat, e.eye_height_m, e.how, u.name AS entered_by, e.entered_at FROM pilot_eyes e JOIN users u ON u.id = e.entered_by
     WHERE e.pilot_id = :pilotId AND e.type_code = :typeCode AND e.seq = (SELECT MAX(seq) FROM pilot_eyes x WHERE x.pilot_id = e.pilot_id AND x.type_code = e.type_code AND x.seat = e.seat)`,
    { pilotId, typeCode },
  );
  return found.map((e) => ({
    seat: e.seat,
    eyeHeightM: e.eye_height_m,
    how: e.how,
    enteredBy: e.entered_by,
    enteredAt: e.entered_at,
  }));
}

/** Eye height in the pilot's seat, three wheels down; null = not measured, the sheet's counts. */
export const eyeHeightOf = async (pilotId: string, typeCode: string): Promise<number | null> =>
  (await eyesOf(pilotId, typeCode)).find((e) => e.seat === 'pilot')?.eyeHeightM ?? null;
