import type { Transaction } from 'sequelize';
import { type PersonDate, classNames, classOf, variantThrough } from '@/core/recency';
import { plainKind } from '@/core/plan';
import type { RulePack } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { row, rows } from '../../floor/connection';

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
  const found = await rows<{ on: string | null }>(
    `SELECT MAX(l.flown_on) AS "on" FROM landings l JOIN checkouts c ON c.id = l.checkout_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN types ty ON ty.id = tv.type_id WHERE l.pilot_id = :pilotId AND ty.code = :typeCode
     UNION ALL SELECT MAX(f.flown_on) FROM flight_log f WHERE f.pilot_id = :pilotId AND f.type_code = :typeCode AND NOT EXISTS (SELECT 1 FROM flight_log_struck x WHERE x.log_id = f.id)
     UNION ALL SELECT MAX(f.flown_on) FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id WHERE i.taken_back_at IS NULL AND f.pilot_id = :pilotId AND f.type_code = :typeCode
     UNION ALL SELECT MAX(h.last_flown) FROM pilot_hours h WHERE h.pilot_id = :pilotId AND h.type_code = :typeCode AND h.hours > 0`,
    { pilotId, typeCode },
    t,
  );
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
  const found = await rows<{ kind: string; gained_on: string | null }>(
    'SELECT kind, gained_on FROM qualifications WHERE pilot_id = :p AND ended_at IS NULL ORDER BY gained_on',
    { p: pilotId },
    t,
  );
  const now: HeldNow = { held: [], lapsed: [] };
  for (const { kind, gained_on: gainedOn } of found) {
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

/** SQL: dates whose entry of the ledger was voided are none. */
export const DATES_STAND = `NOT EXISTS (SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = x.ledger_id)`;

export interface DateRow {
  key: string;
  title: string;
  done_on: string | null;
  until: string | null;
}
/** Rows of dates in the order they were entered, one of each key with its earlier ones. */
export function datesFrom(found: readonly DateRow[]): PersonDate[] {
  const of = new Map<string, PersonDate>();
  for (const d of found) {
    const known = of.get(d.key);
    const before = known ? [...(known.before ?? []), { doneOn: known.doneOn, until: known.until }] : [];
    of.set(d.key, { key: d.key, title: d.title, doneOn: d.done_on, until: d.until, before });
  }
  return [...of.values()];
}
export const datesOf = async (pilotId: string, t?: Transaction): Promise<PersonDate[]> =>
  datesFrom(
    await rows<DateRow>(
      `SELECT x.key, x.title, x.done_on, x.until FROM person_dates x WHERE x.pilot_id = :pilotId AND ${DATES_STAND} ORDER BY x.seq`,
      { pilotId },
      t,
    ),
  );

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
  (
    await row<{ d: string | null }>(
      `SELECT MIN(d) AS d FROM (SELECT MIN(s.flown_on) AS d FROM sorties s JOIN capture_events e ON e.sortie_id = COALESCE(s.shared_with, s.id) WHERE s.checkout_id = :checkoutId)`,
      { checkoutId },
      t,
    )
  )?.d ?? null;
