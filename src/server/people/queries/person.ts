import {
  addDays,
  classNames,
  classOf,
  type Person,
  type PersonDate,
  type PersonType,
  type TypedEvent,
} from '@/core/recency';
import type { Role } from '@/domain/words';
import { Op } from 'sequelize';
import { Pilots, Users } from '../../account/tables';
import * as ask from '../../floor/statements/people';
import { PilotHours as EnteredHours, Qualifications } from '../tables';
import { flyingOf } from './flying';
import { classesFlown, datesFrom } from './held';
import type { HouseRules } from './house-rules';

/** Days back that recent experience is read: what any rule looks at, and half a year more to tell of what ended. */
export const READ_DAYS = 300;
export const TYPES_KEPT_DAYS = 1100;

export const personType = (
  code: string,
  rules: HouseRules,
  checkedOn: readonly string[],
  flownOn: readonly string[],
): PersonType | null => {
  const t = rules.types.get(code);
  return t
    ? {
        code,
        name: t.name,
        class: classOf(t.sheet.engine.count, t.sheet.surface === 'land' ? 'land' : 'water'),
        classes: classesFlown(t.sheet, 'any'),
        tailwheel: t.sheet.gear.layout === 'tailwheel',
        water: t.sheet.surface !== 'land',
        intervalDays: t.intervalDays,
        checkedOn,
        flownOn,
      }
    : null;
};

/** Facts of one or of every pilot that recency rests on, beside the flying. */
export async function aroundFlying(
  pilotId: string | null,
  since: string,
): Promise<{
  hours: Map<string, { code: string; last: string }[]>;
  held: Map<string, string[]>;
  dates: Map<string, PersonDate[]>;
  checks: Map<string, { code: string; on: string }[]>;
  staff: Map<string, { roles: Role[]; until: string | null }>;
}> {
  const group = <T extends { pilotId: string | null }, V>(all: T[], of: (r: T) => V): Map<string, V[]> => {
    const m = new Map<string, V[]>();
    for (const r of all) {
      const at = m.get(r.pilotId ?? '');
      if (at) at.push(of(r));
      else m.set(r.pilotId ?? '', [of(r)]);
    }
    return m;
  };
  const own = pilotId === null ? {} : { pilotId };
  const [hours, held, dates, checks, staff] = await Promise.all([
    EnteredHours.find({
      where: { lastFlown: { [Op.gte]: since }, hours: { [Op.gt]: 0 }, ...own },
      pick: ['pilotId', 'typeCode', 'lastFlown'],
    }),
    Qualifications.find({ where: { endedAt: null, ...own }, pick: ['pilotId', 'kind'] }),
    ask.standingDates.all({ pilotId }),
    ask.signedTypes.all({ pilotId, since }),
    Users.find({
      where: { pilotId: { [Op.ne]: null }, closedAt: null, ...own },
      pick: ['pilotId', 'roles', 'certificateUntil'],
    }),
  ]);
  return {
    hours: group(hours, (h) => ({ code: h.typeCode, last: h.lastFlown })),
    held: group(held, (h) => h.kind),
    dates: new Map([...group(dates, (d) => d)].map(([id, all]) => [id, datesFrom(all)])),
    checks: group(checks, (c) => ({ code: c.code, on: c.signedOn })),
    staff: new Map(staff.map((s) => [s.pilotId ?? '', { roles: s.roles, until: s.certificateUntil }])),
  };
}
type Around = Awaited<ReturnType<typeof aroundFlying>>;

const CLASS = /^(single|multi)-engine-(land|sea)$/;
export function personOf(pilotId: string, events: readonly TypedEvent[], around: Around, rules: HouseRules): Person {
  const staff = around.staff.get(pilotId);
  const checks = around.checks.get(pilotId) ?? [];
  const hours = around.hours.get(pilotId) ?? [];
  const codes = new Set([...events.map((e) => e.typeCode), ...hours.map((h) => h.code), ...checks.map((c) => c.code)]);
  return {
    events,
    holds: (around.held.get(pilotId) ?? []).flatMap((k) => (CLASS.test(k) ? classNames(k) : [k])),
    dates: around.dates.get(pilotId) ?? [],
    teaches: staff?.roles.includes('instructor') ?? false,
    certificateUntil: staff?.until ?? null,
    types: [...codes].flatMap(
      (code) =>
        personType(
          code,
          rules,
          checks.filter((c) => c.code === code).map((c) => c.on),
          hours.filter((h) => h.code === code).map((h) => h.last),
        ) ?? [],
    ),
  };
}

/** One pilot as the rules see them. `null` when there is none. */
export async function personFacts(pilotId: string, rules: HouseRules, onDate: string): Promise<Person | null> {
  if (!(await Pilots.first({ where: { id: pilotId }, pick: ['id'] }))) return null;
  const since = addDays(onDate, -TYPES_KEPT_DAYS);
  const [all, around] = await Promise.all([
    flyingOf(pilotId, undefined, rules.pack.night.recency),
    aroundFlying(pilotId, since),
  ]);
  return personOf(
    pilotId,
    all.filter((e) => e.date >= addDays(onDate, -READ_DAYS)),
    around,
    rules,
  );
}
