import {
  type Lapse,
  type Person,
  type PersonDate,
  type PersonType,
  type RuleBook,
  type TypedEvent,
  addDays,
  classNames,
  classOf,
  lapsesOf,
  loggedEvents,
  standingOf,
  firstLapse,
} from '@/core/recency';
import { gearMassGroup, ladderStepKt, ofGroup } from '@/core/plan';
import { type Ladder, type LadderLanding, pilotLadder } from '@/core/wind';
import type { House, RulePack } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import type { Goal, Role } from '@/domain/words';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { newestContent } from '../../rules/content';
import { derived } from '../../floor/derived';
import { ContentVersions } from '../../rules/tables';
import { LedgerEntries } from '../../ledger/tables';
import { FLYING_TABLES, flyingKept, flyingOf, flyingSince } from './flying';
import { classesFlown, datesFrom } from './held';
import { hangar } from '../../hangar/queries/hangar';
import { localToday } from '../../rules/today';
import { hoursOf, type PilotHours } from './pilot';
import * as ask from '../../floor/statements/people';
import { Pilots, Users } from '../../account/tables';
import {
  Erasures,
  LogbookImports,
  PersonDates,
  PersonNotes,
  Qualifications,
  PilotHours as EnteredHours,
} from '../tables';
import { Op } from 'sequelize';
import { Airframes, AirframeVersions, Types, TypeVersions } from '../../hangar/tables';

/** Days back that recent experience is read: what any rule looks at, and half a year more to tell of what ended. */
const READ_DAYS = 300;
const TYPES_KEPT_DAYS = 1100;

/** What a pack calls the right to fly a tailwheel. */
const TAILWHEEL_KIND: Record<RulePack['key'], string> = { us: 'tailwheel', eu: 'TW', au: 'AU-tailwheel' };

export interface HouseRules {
  house: House;
  pack: RulePack;
  book: RuleBook;
  types: Map<string, { sheet: TypeSheet; name: string; intervalDays: number | null }>;
}
/** The house's rules, the pack it lives under, and the hangar's types, as they stand now. */
export const houseRules = derived({
  name: 'people.rules',
  dependsOn: [ContentVersions, Types, TypeVersions, Airframes, AirframeVersions],
  key: () => '',
  read: readHouseRules,
});
async function readHouseRules(): Promise<HouseRules> {
  const house = await newestContent('house', 'house');
  if (!house) throw new Error('no house rules are set up in this data folder');
  const pack = await newestContent('pack', house.body.homePack);
  if (!pack) throw new Error(`no rule pack ${house.body.homePack}`);
  const intervals = Object.fromEntries(house.body.signing.intervals.map((i) => [i.of, i.days]));
  const types = new Map(
    (await hangar()).map((t) => [
      t.code,
      {
        sheet: t.sheet,
        name: t.sheet.name,
        intervalDays: intervals[t.code] ?? ofGroup(intervals, gearMassGroup(t.sheet)) ?? null,
      },
    ]),
  );
  return {
    house: house.body,
    pack: pack.body,
    book: {
      recency: pack.body.recency,
      tailwheel: TAILWHEEL_KIND[pack.body.key],
      dated: pack.body.dated,
      teach: house.body.signing.teach,
      intervalSource: house.body.signing.source,
    },
    types,
  };
}

const personType = (
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
async function aroundFlying(
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
function personOf(pilotId: string, events: readonly TypedEvent[], around: Around, rules: HouseRules): Person {
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

export interface PersonStanding {
  pilotId: string;
  name: string;
  userId: string | null;
  roles: Role[];
  hours: number;
  lapses: Lapse[];
  standing: ReturnType<typeof standingOf>;
  first: Lapse | null;
  lastFlown: string | null;
}
/** What everybody's recent experience is read from. */
export const STANDING_TABLES = [...FLYING_TABLES, Pilots, EnteredHours, Qualifications, PersonDates, LedgerEntries];
/** Everybody's recent experience on a day, read once until something it rests on moves. */
export const everybodysStanding = derived({
  name: 'people.standings',
  dependsOn: STANDING_TABLES,
  key: (_rules: HouseRules, onDate: string) => onDate,
  most: 12,
  read: (rules: HouseRules, onDate: string) => readStandings(rules, onDate, true),
});

/** The same, every rule asked anew; with the flying read afresh, or as it is kept. */
export async function readStandings(rules: HouseRules, onDate: string, keptFlying = false): Promise<PersonStanding[]> {
  const since = addDays(onDate, -READ_DAYS);
  const [pilots, flown, around] = await Promise.all([
    ask.readStandings.all(),
    (keptFlying ? flyingKept : flyingSince)(since, rules.pack.night.recency),
    aroundFlying(null, addDays(onDate, -TYPES_KEPT_DAYS)),
  ]);
  return pilots.map((p): PersonStanding => {
    const all = flown.get(p.id) ?? [];
    const events = (all[0]?.date ?? since) < since ? all.filter((e) => e.date >= since) : all;
    const lapses = lapsesOf(personOf(p.id, events, around, rules), rules.book, onDate);
    const last = events.filter((e) => e.date <= onDate).at(-1)?.date ?? null;
    return {
      pilotId: p.id,
      name: p.name,
      userId: p.userId,
      roles: p.roles ?? [],
      hours: p.hours,
      lapses,
      standing: standingOf(lapses),
      first: firstLapse(lapses),
      lastFlown: last,
    };
  });
}

export interface PlannedFlight {
  flownOn: string;
  typeCode: string;
  landings: number;
  fullStops: number;
  night: boolean;
  surface: 'land' | 'water';
}
/** What one pilot would have on a day after flying what is planned, beside what they have without. */
export async function whatIfOf(
  pilotId: string,
  planned: readonly PlannedFlight[],
  onDate: string,
): Promise<{ before: Lapse[]; after: Lapse[] } | null> {
  const rules = await houseRules();
  const person = await personFacts(pilotId, rules, onDate);
  if (!person) return null;
  const events = planned.flatMap((p, i) => {
    const t = rules.types.get(p.typeCode);
    return t
      ? loggedEvents(
          {
            id: `planned-${i}`,
            date: p.flownOn,
            takeoffs: p.landings,
            landings: p.landings,
            fullStops: p.fullStops,
            night: p.night,
            surface: p.surface,
          },
          { typeCode: p.typeCode, engines: t.sheet.engine.count, tailwheel: t.sheet.gear.layout === 'tailwheel' },
        )
      : [];
  });
  const known = new Set(person.types.map((t) => t.code));
  const extra = [...new Set(planned.map((p) => p.typeCode))]
    .filter((c) => !known.has(c))
    .flatMap((c) => personType(c, rules, [], []) ?? []);
  const with_ = { ...person, types: [...person.types, ...extra] };
  return {
    before: lapsesOf(person, rules.book, onDate),
    after: lapsesOf({ ...with_, events: [...person.events, ...events] }, rules.book, onDate),
  };
}

export interface LadderPoint {
  date: string;
  provenKt: number;
  ladderKt: number;
}
export interface GroupLadder {
  group: string;
  stepKt: number;
  now: Ladder;
  points: LadderPoint[];
  landings: { date: string; kt: number; good: boolean | null }[];
}
/** A pilot's own crosswind step, by gear and mass, as it was after each day flown. */
export async function ladderHistory(pilotId: string, onDate: string): Promise<GroupLadder[]> {
  const found = await ask.ladderHistory.all({ pilotId });
  const pilot = await Pilots.first({ where: { id: pilotId }, pick: ['crosswindCredit'] });
  const credit = pilot?.crosswindCredit ? pilot.crosswindCredit : null;
  const groups = [...new Set([...found.map((l) => l.gearGroup), ...(credit ? [credit.group] : [])])];
  return groups.map((group): GroupLadder => {
    const stepKt = ladderStepKt(group);
    const landings = found
      .filter((l) => l.gearGroup === group)
      .map((l): LadderLanding => ({
        date: l.flownOn,
        group,
        crosswindKt: l.crosswindKt,
        windAgeMin: l.windAgeMin,
        intervention: l.intervention,
        demonstration: l.demonstration === 1,
        criteria: Object.fromEntries(l.judged.criteria.map((c) => [c.id, c.verdict])),
      }));
    const own = credit?.group === group ? credit : null;
    const on = (date: string) =>
      pilotLadder({
        landings: landings.filter((l) => l.date <= date),
        group,
        onDate: date,
        stepKt,
        credit: own !== null && own.date <= date ? own : null,
      });
    const days = [...new Set([...(own ? [own.date.slice(0, 10)] : []), ...landings.map((l) => l.date)])].sort();
    return {
      group,
      stepKt,
      now: on(onDate),
      points: days.map((date) => {
        const l = on(date);
        return { date, provenKt: l.provenKt, ladderKt: l.ladderKt };
      }),
      landings: landings.flatMap((l) =>
        l.crosswindKt === null
          ? []
          : [
              {
                date: l.date,
                kt: Math.abs(l.crosswindKt),
                good: l.demonstration
                  ? null
                  : (l.intervention ?? 0) >= 2 ||
                      ['drift', 'crab', 'lateral', 'swing', 'aileron'].some((k) => l.criteria[k] === 'outside')
                    ? false
                    : l.intervention === 0,
              },
            ],
      ),
    };
  });
}

export interface PersonNote {
  id: string;
  text: string;
  visible: 'pilot' | 'staff' | 'chief';
  author: string;
  authorId: string;
  writtenAt: string;
}
export interface PersonPage {
  pilotId: string;
  name: string;
  email: string | null;
  massKg: number;
  hours: number;
  experience: string;
  certificate: string;
  erased: { at: string; reason: string; kept: string } | null;
  user: {
    id: string;
    roles: Role[];
    authorised: Goal[];
    certificate: string;
    certificateUntil: string | null;
    ownCrosswindKt: number | null;
  } | null;
  held: {
    id: string;
    kind: string;
    gainedOn: string | null;
    note: string;
    ledgerId: string | null;
    endedAt: string | null;
  }[];
  dates: (PersonDate & { id: string; note: string; enteredBy: string; enteredAt: string })[];
  lapses: Lapse[];
  onDate: string;
  today: string;
  pack: Pick<RulePack, 'key' | 'name' | 'caution'>;
  datedRules: RulePack['dated'];
  hoursByType: PilotHours[];
  landings: { code: string; name: string; landings: number; fullStops: number; water: number; last: string }[];
  goals: {
    checkoutId: string;
    goals: Goal[];
    registration: string;
    typeName: string;
    status: string;
    openedOn: string;
    signedOn: string | null;
    ledgerId: string | null;
    instructor: string;
  }[];
  ladders: GroupLadder[];
  notes: PersonNote[];
  imports: {
    id: string;
    fileName: string;
    at: string;
    by: string;
    added: number;
    doubled: number;
    refused: number;
    takenBackAt: string | null;
  }[];
  types: { code: string; name: string; water: boolean; twin: boolean }[];
}

/**
 * Everything kept of one person, for those who may see it; null when there is nobody or it is not theirs to see: the
 * two answer alike.
 */
export async function personPage(
  user: CurrentUser,
  pilotId: string,
  onDate: string | null,
): Promise<PersonPage | null> {
  if (!may.seePerson(user, { pilotId })) return null;
  const p = await ask.personPage.one({ pilotId });
  if (!p) return null;
  const today = await localToday();
  const on = onDate ?? today;
  const rules = await houseRules();
  const person = await personFacts(pilotId, rules, on);
  const erased = await Erasures.first({ where: { pilotId }, pick: ['erasedAt', 'reason', 'kept'] });
  const [held, dates, landings, goals, notes, imports] = await Promise.all([
    Qualifications.find({
      where: { pilotId },
      pick: ['id', 'kind', 'gainedOn', 'note', 'ledgerId', 'endedAt'],
      order: ['gainedOn'],
    }),
    PersonDates.find({
      where: { pilotId },
      pick: ['id', 'key', 'title', 'doneOn', 'until', 'note', 'enteredAt'],
      with: { enterer: ['name'] },
      order: ['key', '-seq'],
    }),
    ask.personPageMore.all({ pilotId }),
    ask.personPageCheckouts.all({ pilotId }),
    PersonNotes.find({
      where: { pilotId, withdrawnAt: null },
      pick: ['id', 'text', 'visible', 'author', 'writtenAt'],
      with: { writer: ['name'] },
      order: ['-writtenAt', 'id'],
    }),
    LogbookImports.find({
      where: { pilotId },
      pick: ['id', 'fileName', 'importedAt', 'added', 'doubled', 'refused', 'takenBackAt'],
      with: { importer: ['name'] },
      order: ['-importedAt'],
    }),
  ]);
  return {
    pilotId,
    name: p.name,
    email: p.email,
    massKg: p.massKg,
    hours: p.hours,
    experience: p.experience,
    certificate: p.certificate,
    erased: erased ? { at: erased.erasedAt, reason: erased.reason, kept: erased.kept } : null,
    user:
      p.userId === null
        ? null
        : {
            id: p.userId,
            roles: p.roles ?? [],
            authorised: p.authorised ?? [],
            certificate: p.ucert ?? '',
            certificateUntil: p.until,
            ownCrosswindKt: p.ownKt,
          },
    held: held.map((h) => ({
      id: h.id,
      kind: h.kind,
      gainedOn: h.gainedOn,
      note: h.note,
      ledgerId: h.ledgerId,
      endedAt: h.endedAt,
    })),
    dates: dates
      .filter((d, i) => dates.findIndex((x) => x.key === d.key) === i)
      .map((d) => ({
        id: d.id,
        key: d.key,
        title: d.title,
        doneOn: d.doneOn,
        until: d.until,
        note: d.note,
        enteredBy: d.enterer.name,
        enteredAt: d.enteredAt,
      })),
    lapses: person ? lapsesOf(person, rules.book, on) : [],
    onDate: on,
    today,
    pack: { key: rules.pack.key, name: rules.pack.name, caution: rules.pack.caution },
    datedRules: rules.pack.dated,
    hoursByType: await hoursOf(pilotId),
    landings: landings.map((l) => ({
      code: l.code,
      name: l.name,
      landings: l.landings,
      fullStops: l.full,
      water: l.water,
      last: l.last,
    })),
    goals: goals.map((g) => ({
      checkoutId: g.id,
      goals: g.goals,
      registration: g.registration,
      typeName: g.typeName,
      status: g.status,
      openedOn: g.createdAt.slice(0, 10),
      signedOn: g.signedOn,
      ledgerId: g.signedLedgerId,
      instructor: g.instructor,
    })),
    ladders: await ladderHistory(pilotId, on),
    notes: notes
      .map((n) => ({
        id: n.id,
        text: n.text,
        visible: n.visible,
        author: n.writer.name,
        authorId: n.author,
        writtenAt: n.writtenAt,
      }))
      .filter((n) => may.readNote(user, { pilotId, visible: n.visible, authorId: n.authorId })),
    imports: imports.map((i) => ({
      id: i.id,
      fileName: i.fileName,
      at: i.importedAt,
      by: i.importer.name,
      added: i.added,
      doubled: i.doubled,
      refused: i.refused,
      takenBackAt: i.takenBackAt,
    })),
    types: [...rules.types].map(([code, t]) => ({
      code,
      name: t.name,
      water: t.sheet.surface !== 'land',
      twin: t.sheet.engine.count > 1,
    })),
  };
}
