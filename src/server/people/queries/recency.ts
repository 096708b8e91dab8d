import type { Transaction } from 'sequelize';
import {
  type ActingStop,
  type RecencyResult,
  actingStops,
  classOf,
  intervalState,
  newestFirst,
  recencyIn,
} from '@/core/recency';
import { demandsOf, gearMassGroup, ofGroup, holdsKind, sheetFacts } from '@/core/plan';
import type { House, InstructorRule, PackGoal, RulePack } from '@/domain/programme';
import type { RecencyRule } from '@/domain/recency';
import type { TypeSheet } from '@/domain/sheet';
import type { Goal, PackId } from '@/domain/words';
import type { CurrentUser } from '../../floor/auth/permissions';
import { flyingOf } from './flying';
import { classNamesFlown, classesFlown, datesOf, heldOn } from './held';
import * as ask from '../../floor/statements/people';
import { PilotHours } from '../tables';
import { Op } from 'sequelize';
import { Pilots } from '../../account/tables';

export { flyingOf } from './flying';

/** Hours in one type: the newest entry of the office, and what was logged since. */
export async function hoursInType(pilotId: string, typeCode: string, t?: Transaction): Promise<number> {
  const found = await ask.hoursInType.one({ pilotId, typeCode }, t);
  return found?.hours ?? 0;
}

/** Hours in every type of the hangar that is flown in the same class. */
async function hoursInClass(pilotId: string, sheet: TypeSheet, t?: Transaction): Promise<number> {
  const classes = classesFlown(sheet, 'any');
  const types = await ask.hoursInClass.all({}, t);
  let hours = 0;
  for (const type of types) {
    const of = (['land', 'water'] as const).filter(
      (s) => type.surface === 'amphibian' || (type.surface === 'land') === (s === 'land'),
    );
    if (of.some((s) => classes.includes(classOf(type.engines, s)))) hours += await hoursInType(pilotId, type.code, t);
  }
  return hours;
}

/** Of the hours in one type, those known to be in command: as the office entered them, and as later logbooks say. */
export async function commandHours(pilotId: string, typeCode: string, t?: Transaction): Promise<number> {
  const found = await ask.commandHours.one({ pilotId, typeCode }, t);
  return found?.hours ?? 0;
}

export interface TeachState {
  /** What the law asks of an instructor here and this one does not hold. */
  ratings: Pick<InstructorRule, 'text' | 'citation' | 'confirm'>[];
  lacks: string[];
  notRecent: { title: string; restore: string; citation: string }[];
  modelHours: { needed: number; have: number; citation: string; inCommand: boolean; within: 'model' | 'class' } | null;
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
  const { held } = await heldOn(user.pilotId, pack, onDate, t);
  const demands = demandsOf(sheetFacts(sheet), pack.key as PackId, sheet.code);
  const lacks = [...(demands.classRatings ?? []), ...demands.endorsements].filter((k) => !holdsKind(held, k));
  const engines = sheet.engine.count > 1 ? 'multi' : 'single';
  const ratings = pack.instructors.filter(
    (r) =>
      (r.engines === 'any' || r.engines === engines) &&
      (r.goals === undefined || r.goals.some((g) => of.goals.includes(g))) &&
      !r.anyOf.some((k) => holdsKind(held, k)),
  );
  const asked = of.goals
    .map((g) => pack.goals.find((x) => x.goal === g)?.instructor)
    .find((x) => x != null && x.modelHours !== null && !x.unlessHolds.some((k) => holdsKind(held, k)));
  const modelHours =
    asked?.modelHours != null
      ? {
          needed: asked.modelHours,
          have:
            user.pilotId === null
              ? 0
              : asked.within === 'class'
                ? await hoursInClass(user.pilotId, sheet, t)
                : await (asked.inCommand ? commandHours : hoursInType)(user.pilotId, sheet.code, t),
          within: asked.within,
          citation: asked.citation,
          inCommand: asked.inCommand,
        }
      : null;
  const events = user.pilotId === null ? [] : await flyingOf(user.pilotId, t);
  const recency = recencyIn(house.signing.teach, events, recencyFor(sheet), onDate);
  const notRecent = recency.rules.flatMap((r, i) =>
    r.status === 'expired'
      ? [{ title: recency.asked[i]?.title ?? '', restore: r.restore ?? '', citation: recency.asked[i]?.citation ?? '' }]
      : [],
  );
  return { ratings, lacks, notRecent, modelHours, recency, certificateUntil: user.certificateUntil };
}

/** What a rule is asked of: an amphibian by its home on water, everything else on land, unless it is said. */
export const recencyFor = (sheet: TypeSheet, night = false, surface: 'land' | 'water' | null = null) => {
  const water = sheet.surface === 'amphibian' ? surface !== 'land' : sheet.surface !== 'land';
  return {
    typeCode: sheet.code,
    class: classOf(sheet.engine.count, water ? 'water' : 'land'),
    tailwheel: sheet.gear.layout === 'tailwheel' && !water,
    water,
    night,
  };
};

/**
 * May this pilot carry passengers in this aeroplane on this day, by the pack's counts. An amphibian is asked for each
 * surface it is to be used on, in its own class.
 */
export async function passengerState(
  pilotId: string,
  sheet: TypeSheet,
  pack: RulePack,
  onDate: string,
  t?: Transaction,
  use: { surface: 'land' | 'water' | 'any'; night: boolean } = { surface: 'any', night: false },
): Promise<RecencyResult & { asked: RecencyRule[] }> {
  const events = newestFirst(await flyingOf(pilotId, t, pack.night.recency), onDate).reverse();
  const dates = await datesOf(pilotId, t);
  const { held } = await heldOn(pilotId, pack, onDate, t);
  const beside = {
    doneOn: Object.fromEntries(dates.flatMap((d) => (d.doneOn === null ? [] : [[d.key, d.doneOn]]))),
    holds: held.map((h) => h.kind),
  };
  const each = classesFlown(sheet, use.surface).map((cls) =>
    recencyIn(
      pack.recency,
      events,
      recencyFor(sheet, use.night, cls.endsWith('-sea') ? 'water' : 'land'),
      onDate,
      beside,
    ),
  );
  // The worse of the surfaces decides; both are told.
  const worst = each.reduce((a, b) => (RANK[b.overall] > RANK[a.overall] ? b : a));
  const named = each.map((e, i) => ({
    ...e,
    rules: e.rules.map((r) => ({
      ...r,
      restore: r.restore === null || r.surface !== null ? r.restore : `${r.restore} on ${i === 0 ? 'land' : 'water'}`,
    })),
  }));
  return each.length === 1
    ? worst
    : { ...worst, rules: named.flatMap((e) => e.rules), asked: each.flatMap((e) => e.asked) };
}
const RANK = { current: 0, expiring: 1, expired: 2 };

/** What keeps a pilot from acting as pilot in command of this aeroplane on a day, by what is dated. */
export async function actingOf(
  pilotId: string,
  sheet: TypeSheet,
  pack: RulePack,
  onDate: string,
  t?: Transaction,
  surface: 'land' | 'water' | 'any' = 'any',
): Promise<ActingStop[]> {
  return actingStops(pack.dated, await datesOf(pilotId, t), classNamesFlown(sheet, surface), onDate);
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
  const checked = await ask.intervalOf.all({ pilotId, code: sheet.code }, t);
  const entered = await PilotHours.find(
    { where: { pilotId, typeCode: sheet.code, hours: { [Op.gt]: 0 } }, pick: ['lastFlown'] },
    t,
  );
  return {
    days,
    ...intervalState({
      flownOn: [...flown, ...entered.map((e) => e.lastFlown)],
      checkedOn: checked.map((c) => c.on),
      onDate,
      days,
    }),
  };
}

/**
 * What a pilot must have before a goal, by the pack: held or hours in command, as they are known to be. Hours in all
 * fewer than asked in command are certainly short; more, of which nobody told the command, are not known.
 */
export async function prerequisitesOf(
  pilotId: string,
  goals: readonly PackGoal[],
  t?: Transaction,
): Promise<{ text: string; met: boolean | null; confirm: boolean }[]> {
  const asked = goals.flatMap((g) => g.prerequisites);
  if (asked.length === 0) return [];
  const pilot = await Pilots.first({ where: { id: pilotId }, pick: ['hours'] }, t);
  const { held } = await heldOn(pilotId, null, '', t);
  const known = await ask.commandHoursInAll.one({ p: pilotId }, t);
  return asked
    .filter((a) => !a.unlessHolds.some((k) => holdsKind(held, k)))
    .map((a) => ({
      text: a.text,
      confirm: a.confirm,
      met:
        a.holds !== null
          ? holdsKind(held, a.holds)
          : a.picHours !== null && pilot
            ? (known?.pic ?? 0) >= a.picHours
              ? true
              : pilot.hours < a.picHours
                ? false
                : null
            : null,
    }));
}
