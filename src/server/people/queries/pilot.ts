import type { Transaction } from 'sequelize';
import {
  type Difference,
  type FlownType,
  type PilotHours,
  kindAttributes,
  rankDifferences,
  recordedHours,
} from '@/core/differences';
import { attributesBySchool } from '@/core/plan';
import { KINDS, kindOf } from '@/domain/kinds';
import type { TypeSheet } from '@/domain/sheet';
import type { Goal } from '@/domain/words';
import { newestContent } from '../../rules/content';
import { parsedSheet } from '../../hangar/sheets';
import * as ask from '../../floor/statements/people';
import { TypeVersions } from '../../hangar/tables';
import { PilotHours as PilotHoursTable } from '../tables';

const NONE_HERE = { hours: 0, landings: 0, about: false };

/**
 * What a pilot has flown, by type: the newest entry of the office, what was logged or read in from a logbook, and what
 * was recorded here, each flown after the day the office's entry speaks of. The last day is that of a landing recorded
 * here when it is later. Other schools' types stand under their kind.
 */
export async function hoursOf(pilotId: string, t?: Transaction): Promise<PilotHours[]> {
  const found = await ask.hoursOf.all({ pilotId }, t);
  const entered = await PilotHoursTable.find(
    {
      where: { pilotId },
      pick: ['typeCode', 'hours', 'pic', 'lastFlown', 'enteredAt', 'seq'],
      with: { enterer: ['name'] },
      order: ['seq'],
    },
    t,
  );
  const office = new Map(entered.map((e) => [e.typeCode, e]));
  const here = new Map<string, PilotHours['here'] & { name: string; last: string }>();
  const recorded = await ask.recordedHere.all({ pilotId }, t);
  const circuitMin = recorded.length === 0 ? 0 : ((await newestContent('house', 'house', t))?.body.circuitMin ?? 0);
  for (const f of recorded) {
    if (f.flownOn <= (office.get(f.code)?.lastFlown ?? '')) continue;
    const flown = recordedHours(f.shared ? null : f.minutes, f.landings, circuitMin);
    const so = here.get(f.code) ?? { ...NONE_HERE, name: f.name, last: '' };
    here.set(f.code, {
      name: f.name,
      last: f.flownOn > so.last ? f.flownOn : so.last,
      hours: so.hours + flown.hours,
      landings: so.landings + f.landings,
      about: so.about || flown.about,
    });
  }
  const rows = found.map((h): PilotHours => {
    const { hours, landings, about } = here.get(h.code) ?? NONE_HERE;
    return {
      typeCode: h.code,
      typeName: h.name,
      hours: (h.hours ?? 0) + (h.since ?? 0),
      pic: h.pic,
      since: h.since ?? 0,
      lastFlown: [h.lastFlown, h.landed, h.sinceLast].reduce<string>((a, d) => (d !== null && d > a ? d : a), ''),
      enteredBy: h.enteredBy ?? 'from the logbook',
      enteredAt: h.enteredAt ?? '',
      office: officeOf(office.get(h.code)),
      here: { hours, landings, about },
    };
  });
  const only = [...here].filter(([code]) => !rows.some((r) => r.typeCode === code));
  const kinds = [...office.values()].flatMap((e) => {
    const kind = kindOf(e.typeCode);
    return kind && e.hours > 0 ? [{ kind, e }] : [];
  });
  return [
    ...rows,
    ...kinds.map(({ kind, e }): PilotHours => ({
      typeCode: e.typeCode,
      typeName: KINDS[kind].name,
      hours: e.hours,
      pic: e.pic,
      since: 0,
      lastFlown: e.lastFlown,
      enteredBy: e.enterer.name,
      enteredAt: e.enteredAt,
      office: officeOf(e),
      here: NONE_HERE,
    })),
    ...only.map(([code, { name, last, hours, landings, about }]): PilotHours => ({
      typeCode: code,
      typeName: name,
      hours: 0,
      pic: null,
      since: 0,
      lastFlown: last,
      enteredBy: 'recorded here',
      enteredAt: '',
      office: officeOf(office.get(code)),
      here: { hours, landings, about },
    })),
  ].sort((a, b) => b.hours + b.here.hours - (a.hours + a.here.hours));
}
/** Types of this pilot's logbooks that the hangar does not have. */
export const writtenOf = (pilotId: string) => ask.writtenTypes.all({ pilotId });

const officeOf = (e: { hours: number; pic: number | null; lastFlown: string } | undefined): PilotHours['office'] =>
  e ? { hours: e.hours, pic: e.pic, lastFlown: e.lastFlown } : null;

/** The newest sheet of a type; null when it is not in the hangar. */
async function attributesOf(code: string, t?: Transaction): Promise<FlownType['attributes'] | null> {
  const kind = kindOf(code);
  if (kind) return kindAttributes(kind);
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
): Promise<{ flown: (FlownType & { typeCode: string })[]; entered: PilotHours[]; rows: Difference[] }> {
  const rules = await newestContent('differences', 'differences', t);
  const hours = await hoursOf(head.pilotId, t);
  const flown = (
    await Promise.all(
      hours.map(async (h) => ({
        typeCode: h.typeCode,
        typeName: h.typeName,
        hours: h.hours + h.here.hours,
        about: h.here.about,
        lastFlown: h.lastFlown,
        attributes: (await attributesOf(h.typeCode, t)) ?? [],
      })),
    )
  ).filter((f) => f.attributes.length > 0);
  const ofType = (await attributesOf(head.typeCode, t)) ?? head.sheet.attributes;
  return {
    flown,
    entered: hours,
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
