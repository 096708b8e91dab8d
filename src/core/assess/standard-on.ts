/** A standard as it holds for one checkout: tighter for tailwheel and light types, the short-field box for a short field. */
import type { AirworkLimit, AirworkStandard } from '@/domain/airwork';
import type { Standard } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import type { Goal } from '@/domain/words';
import { needNumbers } from '../guard';

/** Below it a type is light, kg at take-off; as the gear-and-mass groups have it. */
const LIGHT_KG = 750;

/**
 * The tolerances of a standard in one type, for the goals flown. Never wider than the standard: a tailwheel or a light
 * type takes its tighter rows (crab and swing in degrees, the place across in shares of the track of the main wheels), a
 * short-field goal the short-field box, metres. A standard that has no such rows stays as it is.
 * Source: the school's table; the box of the published standards.
 * @returns the standard with its tolerances as they hold for this type
 * @throws BadNumber when a number handed in is none
 * @example standardOn(privateUs, lightTailwheel, ['tailwheel']).criteria // crab within ±3°, lateral ±0.9 m
 */
export function standardOn(
  standard: Standard,
  sheet: Pick<TypeSheet, 'gear' | 'masses'>,
  goals: readonly Goal[],
): Standard {
  const short = goals.includes('short-field') ? standard.shortBoxM : null;
  const tail = sheet.gear.layout === 'tailwheel';
  const tight = standard.tighter && (tail || sheet.masses.maxTakeoffKg.value <= LIGHT_KG) ? standard.tighter : null;
  if (!short && !tight) return standard;
  needNumbers('standardOn', { track: sheet.gear.trackM.value, tight, short });
  const most: Record<string, number> = tight
    ? { crab: tight.crabDeg, swing: tight.swingDeg, lateral: tight.trackShare * sheet.gear.trackM.value }
    : {};
  return {
    ...standard,
    boxM: short ?? standard.boxM,
    criteria: standard.criteria.map((c) => {
      if (!c.measured) return c;
      if (c.id === 'along' && short)
        return { ...c, measured: { low: short.before === 0 ? 0 : -short.before, high: short.past } };
      const limit = most[c.id];
      return limit === undefined
        ? c
        : {
            ...c,
            measured: { low: Math.max(c.measured.low, -limit), high: Math.min(c.measured.high, limit) },
            citation: tight?.citation ?? c.citation,
          };
    }),
  };
}

/**
 * The limits of a row for one item of it (a turning stall, the loss-of-control demonstration): its own, else the row's.
 * @returns limits, none where the row has none
 */
export function limitsFor(row: AirworkStandard | null, item: string | null): AirworkLimit[] {
  const own = (row?.limits ?? []).filter((l) => l.of !== undefined && item !== null && l.of.includes(item));
  return (row?.limits ?? []).filter(
    (l) => own.includes(l) || (l.of === undefined && !own.some((o) => o.quantity === l.quantity)),
  );
}

/** Words of a certificate that name more than a private one. */
const COMMERCIAL = /commercial|airline|professional|\b[ac]pl\b|\batpl?\b/i;
/**
 * The standard a checkout starts from: by the level of the certificate held, and the class-rating one where the goal
 * ends with a test. Undefined where the pack proposes none.
 * @returns the key of a standard
 * @example standardProposed({ private: 'au', commercial: 'au', class: 'au' }, 'CPL 4', false) // 'au'
 */
export const standardProposed = (
  of: { private: string; commercial: string; class: string } | undefined,
  certificate: string,
  examiner: boolean,
): string | undefined =>
  of === undefined ? undefined : COMMERCIAL.test(certificate) ? of.commercial : examiner ? of.class : of.private;
