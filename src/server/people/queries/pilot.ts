import type { Transaction } from 'sequelize';
import { type Difference, type FlownType, rankDifferences } from '@/core/differences';
import { attributesBySchool } from '@/core/plan';
import type { TypeSheet } from '@/domain/sheet';
import type { Goal } from '@/domain/words';
import { newestContent } from '../../rules/content';
import { parsedSheet } from '../../hangar/sheets';
import * as ask from '../../floor/statements/people';
import { TypeVersions } from '../../hangar/tables';

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
  const found = await ask.hoursOf.all({ pilotId }, t);
  return found.map((h) => ({
    typeCode: h.code,
    typeName: h.name,
    hours: (h.hours ?? 0) + (h.since ?? 0),
    pic: h.pic,
    since: h.since ?? 0,
    lastFlown: [h.lastFlown, h.landed, h.sinceLast].reduce<string>((a, d) => (d !== null && d > a ? d : a), ''),
    enteredBy: h.enteredBy ?? 'from the logbook',
    enteredAt: h.enteredAt ?? '',
  }));
}

/** The newest sheet of a type; null when it is not in the hangar. */
async function attributesOf(code: string, t?: Transaction): Promise<FlownType['attributes'] | null> {
  const v = await TypeVersions.first(
    { pick: ['id', 'sheet'], with: { type: { pick: [], where: { code } } }, order: ['-version'] },
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
  const found = await ask.eyesOf.all({ pilotId, typeCode });
  return found.map((e) => ({
    seat: e.seat,
    eyeHeightM: e.eyeHeightM,
    how: e.how,
    enteredBy: e.enteredBy,
    enteredAt: e.enteredAt,
  }));
}

/** Eye height in the pilot's seat, three wheels down; null = not measured, the sheet's counts. */
export const eyeHeightOf = async (pilotId: string, typeCode: string): Promise<number | null> =>
  (await eyesOf(pilotId, typeCode)).find((e) => e.seat === 'pilot')?.eyeHeightM ?? null;
