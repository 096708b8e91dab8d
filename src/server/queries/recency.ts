import type { Transaction } from 'sequelize';
import { type RecencyResult, classOf, intervalState, recencyIn } from '@/core/recency';
import { gearMassGroup, goalsRequired, ofGroup, holdsKind, sheetFacts } from '@/core/plan';
import type { House, PackGoal, RulePack } from '@/domain/programme';
import type { RecencyRule } from '@/domain/recency';
import type { TypeSheet } from '@/domain/sheet';
import type { Goal, PackId } from '@/domain/words';
import type { CurrentUser } from '../auth/permissions';
import { row, rows } from '../db/connection';
import { flyingOf } from './flying';

export { flyingOf } from './flying';

/** Hours in one type: the newest entry of the office, and what was logged since. */
export async function hoursInType(pilotId: string, typeCode: string, t?: Transaction): Promise<number> {
  const found = await row<{ hours: number | null }>(
    `SELECT COALESCE((SELECT hours FROM pilot_hours h WHERE h.pilot_id = :pilotId AND h.type_code = :typeCode ORDER BY seq DESC LIMIT 1), 0)
       + COALESCE((SELECT SUM(f.hours) FROM flight_log f WHERE f.pilot_id = :pilotId AND f.type_code = :typeCode AND NOT EXISTS (SELECT 1 FROM flight_log_struck x WHERE x.log_id = f.id)
           AND f.entered_at > COALESCE((SELECT entered_at FROM pilot_hours h WHERE h.pilot_id = :pilotId AND h.type_code = :typeCode ORDER BY seq DESC LIMIT 1), '')), 0)
       + COALESCE((SELECT SUM(f.hours) FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id WHERE f.pilot_id = :pilotId AND f.type_code = :typeCode AND i.taken_back_at IS NULL
           AND f.flown_on > COALESCE((SELECT last_flown FROM pilot_hours h WHERE h.pilot_id = :pilotId AND h.type_code = :typeCode ORDER BY seq DESC LIMIT 1), '')), 0) AS hours`,
    { pilotId, typeCode },
    t,
  );
  return found?.hours ?? 0;
}

export interface TeachState {
  lacks: string[];
  notRecent: { title: string; restore: string; citation: string }[];
  modelHours: { needed: number; have: number; citation: string } | null;
  recency: (RecencyResult & { asked: RecencyRule[] }) | null;
  certificateUntil: string | null;
}
/**
 * May this instructor teach and sign this aeroplane on this day: what it demands, what the law asks of hours in the
 * model, the house's own recency.
 */
export async function teachState(
  user: CurrentUser,
  of: { sheet: TypeSheet; pack: RulePack; house: House; goals: readonly Goal[] },
  onDate: string,
  t?: Transaction,
): Promise<TeachState> {
  const { sheet, pack, house } = of;
  const held =
    user.pilotId === null
      ? []
      : await rows<{ kind: string }>(
          'SELECT kind FROM qualifications WHERE pilot_id = :p AND ended_at IS NULL',
          { p: user.pilotId },
          t,
        );
  const demands = goalsRequired(sheetFacts(sheet), pack.key as PackId);
  const lacks = [...(demands.classRatings ?? []), ...demands.endorsements].filter((k) => !holdsKind(held, k));
  const asked = of.goals
    .map((g) => pack.goals.find((x) => x.goal === g)?.instructor)
    .find((x) => x != null && x.modelHours !== null);
  const modelHours =
    asked?.modelHours != null
      ? {
          needed: asked.modelHours,
          have: user.pilotId === null ? 0 : await hoursInType(user.pilotId, sheet.code, t),
          citation: asked.citation,
        }
      : null;
  const events = user.pilotId === null ? [] : await flyingOf(user.pilotId, t);
  const recency = recencyIn(house.signing.teach, events, recencyFor(sheet), onDate);
  const notRecent = recency.rules.flatMap((r, i) =>
    r.status === 'expired'
      ? [{ title: recency.asked[i]?.title ?? '', restore: r.restore ?? '', citation: recency.asked[i]?.citation ?? '' }]
      : [],
  );
  return { lacks, notRecent, modelHours, recency, certificateUntil: user.certificateUntil };
}

/** What a rule is asked of: an amphibian by its home on water, everything else on land. */
export const recencyFor = (sheet: TypeSheet, night = false) => {
  const water = sheet.surface !== 'land';
  return {
    typeCode: sheet.code,
    class: classOf(sheet.engine.count, water ? 'water' : 'land'),
    tailwheel: sheet.gear.layout === 'tailwheel',
    water,
    night,
  };
};

/** May this pilot carry passengers in this aeroplane on this day, by the pack's counts. */
export async function passengerState(
  pilotId: string,
  sheet: TypeSheet,
  pack: RulePack,
  onDate: string,
  t?: Transaction,
): Promise<RecencyResult & { asked: RecencyRule[] }> {
  return recencyIn(pack.recency, await flyingOf(pilotId, t, pack.night.recency), recencyFor(sheet), onDate);
}

/** The house's clock since the type was last flown or checked. */
export async function intervalOf(pilotId: string, sheet: TypeSheet, house: House, onDate: string, t?: Transaction) {
  const days =
    house.signing.intervals.find((i) => i.of === sheet.code)?.days ??
    ofGroup(Object.fromEntries(house.signing.intervals.map((i) => [i.of, i.days])), gearMassGroup(sheet));
  if (days === undefined) return null;
  const flown = (await flyingOf(pilotId, t))
    .filter((e) => e.typeCode === sheet.code && e.kind === 'landing')
    .map((e) => e.date);
  const checked = await rows<{ on: string }>(
    `SELECT COALESCE(json_extract(l.canonical, '$.body.signedOn'), substr(l.signed_at, 1, 10)) AS "on" FROM ledger l JOIN checkouts c ON c.id = l.checkout_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN types ty ON ty.id = tv.type_id
     WHERE c.pilot_id = :pilotId AND ty.code = :code AND l.kind = 'sign-off' AND NOT EXISTS (SELECT 1 FROM ledger v WHERE v.kind = 'void' AND json_extract(v.canonical, '$.body.of.id') = l.id)`,
    { pilotId, code: sheet.code },
    t,
  );
  const entered = await rows<{ last_flown: string }>(
    'SELECT last_flown FROM pilot_hours WHERE pilot_id = :pilotId AND type_code = :code AND hours > 0',
    { pilotId, code: sheet.code },
    t,
  );
  return {
    days,
    ...intervalState({
      flownOn: [...flown, ...entered.map((e) => e.last_flown)],
      checkedOn: checked.map((c) => c.on),
      onDate,
      days,
    }),
  };
}

/**
 * What a pilot must have before a goal, by the pack: held or hours. Hours in all fewer than asked in command are
 * certainly short; more are to be shown.
 */
export async function prerequisitesOf(
  pilotId: string,
  goals: readonly PackGoal[],
  t?: Transaction,
): Promise<{ text: string; met: boolean | null; confirm: boolean }[]> {
  const asked = goals.flatMap((g) => g.prerequisites);
  if (asked.length === 0) return [];
  const pilot = await row<{ hours: number }>('SELECT hours FROM pilots WHERE id = :p', { p: pilotId }, t);
  const held = await rows<{ kind: string }>(
    'SELECT kind FROM qualifications WHERE pilot_id = :p AND ended_at IS NULL',
    { p: pilotId },
    t,
  );
  return asked.map((a) => ({
    text: a.text,
    confirm: a.confirm,
    met:
      a.holds !== null
        ? holdsKind(held, a.holds)
        : a.picHours !== null && pilot
          ? pilot.hours < a.picHours
            ? false
            : null
          : null,
  }));
}
