import type { Transaction } from 'sequelize';
import { type PersonDate, classNames, classOf, variantThrough } from '@/core/recency';
import { plainKind } from '@/core/plan';
import type { RulePack } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import type { RowOf } from '../../floor/statement';
import * as ask from '../../floor/statements/people';
import { Qualifications } from '../tables';

export interface HeldKind {
  kind: string;
  gainedOn: string | null;
}
export interface HeldNow {
  held: HeldKind[];
  /** Twin variants not flown for so long that they no longer stand, with the last day they did. */
  lapsed: (HeldKind & { through: string | null })[];
}

/** Days on which a pilot flew, trained or was checked in a type; null dates left out. */
async function flownIn(pilotId: string, typeCode: string, t?: Transaction): Promise<string[]> {
  const found = await ask.flownIn.all({ pilotId, typeCode }, t);
  return found.flatMap((f) => f.on ?? []);
}

/** What a pilot holds on a day, and which twin variants have lapsed by not being flown, as the pack counts. */
export async function heldOn(
  pilotId: string | null,
  pack: Pick<RulePack, 'variantLapse'> | null,
  onDate: string,
  t?: Transaction,
): Promise<HeldNow> {
  if (pilotId === null) return { held: [], lapsed: [] };
  const found = await Qualifications.find(
    { where: { pilotId, endedAt: null }, pick: ['kind', 'gainedOn'], order: ['gainedOn'] },
    t,
  );
  const now: HeldNow = { held: [], lapsed: [] };
  for (const { kind, gainedOn: gainedOn } of found) {
    const typeCode = kind === plainKind(kind) ? null : kind.slice(plainKind(kind).length + 1);
    if (typeCode === null || !pack?.variantLapse) {
      now.held.push({ kind, gainedOn });
      continue;
    }
    const days = [...(await flownIn(pilotId, typeCode, t)), ...(gainedOn === null ? [] : [gainedOn])];
    const through = variantThrough(days, pack.variantLapse.months, onDate);
    if (through !== null && through >= onDate) now.held.push({ kind, gainedOn });
    else now.lapsed.push({ kind, gainedOn, through });
  }
  return now;
}

type DateRow = Pick<RowOf<typeof ask.standingDates>, 'key' | 'title' | 'doneOn' | 'until'>;
/** Rows of dates in the order they were entered, one of each key with its earlier ones. */
export function datesFrom(found: readonly DateRow[]): PersonDate[] {
  const of = new Map<string, PersonDate>();
  for (const d of found) {
    const known = of.get(d.key);
    const before = known ? [...(known.before ?? []), { doneOn: known.doneOn, until: known.until }] : [];
    of.set(d.key, { key: d.key, title: d.title, doneOn: d.doneOn, until: d.until, before });
  }
  return [...of.values()];
}
export const datesOf = async (pilotId: string, t?: Transaction): Promise<PersonDate[]> =>
  datesFrom(await ask.standingDates.all({ pilotId }, t));

/** The classes an aeroplane is flown in where it is to be used; an amphibian with nothing said, both. */
export function classesFlown(sheet: TypeSheet, surface: 'land' | 'water' | 'any'): string[] {
  const surfaces = (['land', 'water'] as const).filter((s) =>
    sheet.surface === 'amphibian'
      ? surface === 'any' || s === surface
      : s === (sheet.surface === 'land' ? 'land' : 'water'),
  );
  return surfaces.map((s) => classOf(sheet.engine.count, s));
}
/** The same by every name a pack has for them. */
export const classNamesFlown = (sheet: TypeSheet, surface: 'land' | 'water' | 'any'): string[] => [
  ...new Set(classesFlown(sheet, surface).flatMap(classNames)),
];

/** The first day of a course: its first lesson, or the first thing recorded for it. */
export const courseStart = async (checkoutId: string, t?: Transaction): Promise<string | null> =>
  (await ask.courseStart.one({ checkoutId }, t))?.d ?? null;
