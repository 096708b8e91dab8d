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
import { asOfLastWrite } from '../../floor/as-of';
import { row, rows } from '../../floor/connection';
import { flyingKept, flyingOf, flyingSince } from './flying';
import { DATES_STAND, classesFlown, datesFrom } from './held';
import { hangar } from '../../hangar/queries/hangar';
import { localToday } from '../../rules/today';
import { hoursOf, type PilotHours } from './pilot';

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
export const houseRules = (): Promise<HouseRules> => asOfLastWrite('house rules', readHouseRules);
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
  const own = pilotId === null ? '' : 'AND x.pilot_id = :pilotId';
  const group = <T extends { pilot_id: string }, V>(all: T[], of: (r: T) => V): Map<string, V[]> => {
    const m = new Map<string, V[]>();
    for (const r of all) {
      const at = m.get(r.pilot_id);
      if (at) at.push(of(r));
      else m.set(r.pilot_id, [of(r)]);
    }
    return m;
  };
  const [hours, held, dates, checks, staff] = await Promise.all([
    rows<{ pilot_id: string; type_code: string; last_flown: string }>(
      `SELECT x.pilot_id, x.type_code, x.last_flown FROM pilot_hours x WHERE x.last_flown >= :since AND x.hours > 0 ${own}`,
      { pilotId, since },
    ),
    rows<{ pilot_id: string; kind: string }>(
      `SELECT x.pilot_id, x.kind FROM qualifications x WHERE x.ended_at IS NULL ${own}`,
      { pilotId },
    ),
    rows<{ pilot_id: string; key: string; title: string; done_on: string | null; until: string | null }>(
      `SELECT x.pilot_id, x.key, x.title, x.done_on, x.until FROM person_dates x WHERE ${DATES_STAND} ${own} ORDER BY x.seq`,
      { pilotId },
    ),
    rows<{ pilot_id: string; code: string; on: string }>(
      `SELECT c.pilot_id, ty.code, COALESCE(json_extract(l.canonical, '$.body.signedOn'), substr(l.signed_at, 1, 10)) AS "on" FROM checkouts c JOIN ledger l ON l.id = c.signed_ledger_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN types ty ON ty.id = tv.type_id
       WHERE c.status = 'signed' AND l.signed_at >= :since ${own.replace('x.', 'c.')}`,
      { pilotId, since },
    ),
    rows<{ pilot_id: string; roles: string; certificate_until: string | null }>(
      `SELECT x.pilot_id, x.roles, x.certificate_until FROM users x WHERE x.pilot_id IS NOT NULL AND x.closed_at IS NULL ${own}`,
      { pilotId },
    ),
  ]);
  return {
    hours: group(hours, (h) => ({ code: h.type_code, last: h.last_flown })),
    held: group(held, (h) => h.kind),
    dates: new Map([...group(dates, (d) => d)].map(([id, all]) => [id, datesFrom(all)])),
    checks: group(checks, (c) => ({ code: c.code, on: c.on })),
    staff: new Map(
      staff.map((s) => [s.pilot_id, { roles: JSON.parse(s.roles) as Role[], until: s.certificate_until }]),
    ),
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
  if (!(await row('SELECT id FROM pilots WHERE id = :pilotId', { pilotId }))) return null;
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
declare global {
  var __jeitoStandings: Map<string, { stamp: string; all: PersonStanding[] }> | undefined;
}
const STAMP = `SELECT (SELECT MAX(rowid) FROM capture_events) AS e, (SELECT MAX(rowid) FROM flight_log) AS f, (SELECT MAX(rowid) FROM flight_log_struck) AS s, (SELECT MAX(seq) FROM ledger) AS l, (SELECT COUNT(*) || ':' || COUNT(taken_back_at) FROM logbook_imports) AS i,
  (SELECT COUNT(*) FROM person_dates) AS d, (SELECT COUNT(*) || ':' || COUNT(ended_at) FROM qualifications) AS q, (SELECT MAX(rowid) || ':' || COUNT(*) FROM pilot_hours) AS h, (SELECT COUNT(*) FROM erasures) AS x, (SELECT COUNT(*) FROM content_versions) AS c, (SELECT COUNT(*) FROM type_versions) AS t,
  (SELECT COUNT(*) || ':' || SUM(hours) || ':' || GROUP_CONCAT(name) FROM pilots) AS p, (SELECT GROUP_CONCAT(roles || COALESCE(certificate_until, '') || COALESCE(closed_at, '') || name) FROM users) AS u`;

/** Everybody's recent experience on a day, read once until something it rests on moves. */
export async function everybodysStanding(rules: HouseRules, onDate: string): Promise<PersonStanding[]> {
  const kept = (globalThis.__jeitoStandings ??= new Map());
  const stamp = JSON.stringify(await row(STAMP));
  const known = kept.get(onDate);
  if (known?.stamp === stamp) return known.all;
  const all = await readStandings(rules, onDate, true);
  if (kept.size > 12) kept.clear();
  kept.set(onDate, { stamp, all });
  return all;
}

/** The same, every rule asked anew; with the flying read afresh, or as it is kept. */
export async function readStandings(rules: HouseRules, onDate: string, keptFlying = false): Promise<PersonStanding[]> {
  const since = addDays(onDate, -READ_DAYS);
  const [pilots, flown, around] = await Promise.all([
    rows<{ id: string; name: string; hours: number; user_id: string | null; roles: string | null }>(
      'SELECT p.id, p.name, p.hours, u.id AS user_id, u.roles FROM pilots p LEFT JOIN users u ON u.pilot_id = p.id WHERE NOT EXISTS (SELECT 1 FROM erasures e WHERE e.pilot_id = p.id) ORDER BY p.name',
    ),
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
      userId: p.user_id,
      roles: p.roles ? (JSON.parse(p.roles) as Role[]) : [],
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
  const found = await rows<{
    gear_group: string;
    flown_on: string;
    crosswind_kt: number | null;
    wind_age_min: number | null;
    intervention: number | null;
    demonstration: number;
    judged: string;
  }>(
    "SELECT gear_group, flown_on, crosswind_kt, wind_age_min, json_extract(captured, '$.intervention') AS intervention, json_extract(captured, '$.demonstration') AS demonstration, judged FROM landings WHERE pilot_id = :pilotId AND kind NOT IN ('go-around', 'low-pass') ORDER BY flown_on, saved_at",
    { pilotId },
  );
  const pilot = await row<{ crosswind_credit: string | null }>(
    'SELECT crosswind_credit FROM pilots WHERE id = :pilotId',
    { pilotId },
  );
  const credit = pilot?.crosswind_credit
    ? (JSON.parse(pilot.crosswind_credit) as { group: string; kt: number; date: string })
    : null;
  const groups = [...new Set([...found.map((l) => l.gear_group), ...(credit ? [credit.group] : [])])];
  return groups.map((group): GroupLadder => {
    const stepKt = ladderStepKt(group);
    const landings = found
      .filter((l) => l.gear_group === group)
      .map((l): LadderLanding => ({
        date: l.flown_on,
        group,
        crosswindKt: l.crosswind_kt,
        windAgeMin: l.wind_age_min,
        intervention: l.intervention,
        demonstration: l.demonstration === 1,
        criteria: Object.fromEntries(
          (
            JSON.parse(l.judged) as { criteria: { id: string; verdict: 'within' | 'edge' | 'outside' | 'not-seen' }[] }
          ).criteria.map((c) => [c.id, c.verdict]),
        ),
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
  const p = await row<{
    id: string;
    name: string;
    mass_kg: number;
    hours: number;
    experience: string;
    certificate: string;
    user_id: string | null;
    email: string | null;
    roles: string | null;
    authorised: string | null;
    ucert: string | null;
    until: string | null;
    own_kt: number | null;
  }>(
    'SELECT p.*, u.id AS user_id, u.email, u.roles, u.authorised, u.certificate AS ucert, u.certificate_until AS until, u.own_crosswind_kt AS own_kt FROM pilots p LEFT JOIN users u ON u.pilot_id = p.id AND u.closed_at IS NULL WHERE p.id = :pilotId',
    { pilotId },
  );
  if (!p) return null;
  const today = await localToday();
  const on = onDate ?? today;
  const rules = await houseRules();
  const person = await personFacts(pilotId, rules, on);
  const erased = await row<{ erased_at: string; reason: string; kept: string }>(
    'SELECT erased_at, reason, kept FROM erasures WHERE pilot_id = :pilotId',
    { pilotId },
  );
  const [held, dates, landings, goals, notes, imports] = await Promise.all([
    rows<{
      id: string;
      kind: string;
      gained_on: string | null;
      note: string;
      ledger_id: string | null;
      ended_at: string | null;
    }>(
      'SELECT id, kind, gained_on, note, ledger_id, ended_at FROM qualifications WHERE pilot_id = :pilotId ORDER BY gained_on',
      { pilotId },
    ),
    rows<{
      id: string;
      key: string;
      title: string;
      done_on: string | null;
      until: string | null;
      note: string;
      by: string;
      entered_at: string;
    }>(
      'SELECT d.id, d.key, d.title, d.done_on, d.until, d.note, u.name AS by, d.entered_at FROM person_dates d JOIN users u ON u.id = d.entered_by WHERE d.pilot_id = :pilotId ORDER BY d.key, d.seq DESC',
      { pilotId },
    ),
    rows<{ code: string; name: string; landings: number; full: number; water: number; last: string }>(
      `SELECT code, name, SUM(n) AS landings, SUM(full) AS full, SUM(water) AS water, MAX(day) AS last FROM (
         SELECT ty.code, ty.name, 1 AS n, l.kind = 'full-stop' AS full, l.surface = 'water' AS water, l.flown_on AS day FROM landings l JOIN sorties s ON s.id = l.sortie_id JOIN checkouts c ON c.id = s.checkout_id JOIN type_versions tv ON tv.id = c.type_version_id JOIN types ty ON ty.id = tv.type_id
           WHERE l.pilot_id = :pilotId AND l.kind NOT IN ('go-around', 'low-pass') AND l.landing_class <> 'demonstration'
         UNION ALL SELECT f.type_code, ty.name, f.landings, f.full_stops, CASE f.surface WHEN 'water' THEN f.landings ELSE 0 END, f.flown_on FROM flight_log f JOIN types ty ON ty.code = f.type_code WHERE f.pilot_id = :pilotId AND NOT EXISTS (SELECT 1 FROM flight_log_struck x WHERE x.log_id = f.id)
         UNION ALL SELECT COALESCE(f.type_code, ''), COALESCE(ty.name, f.type_written), f.landings_day + f.landings_night, f.full_stops_day + f.full_stops_night, CASE f.surface WHEN 'water' THEN f.landings_day + f.landings_night ELSE 0 END, f.flown_on FROM logbook_flights f JOIN logbook_imports i ON i.id = f.import_id LEFT JOIN types ty ON ty.code = f.type_code WHERE f.pilot_id = :pilotId AND i.taken_back_at IS NULL
       ) GROUP BY code, name ORDER BY landings DESC`,
      { pilotId },
    ),
    rows<{
      id: string;
      goals: string;
      registration: string;
      type_name: string;
      status: string;
      created_at: string;
      signed_on: string | null;
      signed_ledger_id: string | null;
      instructor: string;
    }>(
      `SELECT c.id, c.goals, a.registration, ty.name AS type_name, c.status, c.created_at, COALESCE(json_extract(l.canonical, '$.body.signedOn'), substr(l.signed_at, 1, 10)) AS signed_on, c.signed_ledger_id, u.name AS instructor FROM checkouts c JOIN airframes a ON a.id = c.airframe_id JOIN types ty ON ty.id = a.type_id JOIN users u ON u.id = c.instructor_id LEFT JOIN ledger l ON l.id = c.signed_ledger_id WHERE c.pilot_id = :pilotId ORDER BY c.created_at DESC`,
      { pilotId },
    ),
    rows<{
      id: string;
      text: string;
      visible: 'pilot' | 'staff' | 'chief';
      author: string;
      author_id: string;
      written_at: string;
    }>(
      'SELECT n.id, n.text, n.visible, u.name AS author, n.author AS author_id, n.written_at FROM person_notes n JOIN users u ON u.id = n.author WHERE n.pilot_id = :pilotId AND n.withdrawn_at IS NULL ORDER BY n.written_at DESC, n.id',
      { pilotId },
    ),
    rows<{
      id: string;
      file_name: string;
      imported_at: string;
      by: string;
      added: number;
      doubled: number;
      refused: number;
      taken_back_at: string | null;
    }>(
      'SELECT i.id, i.file_name, i.imported_at, u.name AS by, i.added, i.doubled, i.refused, i.taken_back_at FROM logbook_imports i JOIN users u ON u.id = i.imported_by WHERE i.pilot_id = :pilotId ORDER BY i.imported_at DESC',
      { pilotId },
    ),
  ]);
  return {
    pilotId,
    name: p.name,
    email: p.email,
    massKg: p.mass_kg,
    hours: p.hours,
    experience: p.experience,
    certificate: p.certificate,
    erased: erased ? { at: erased.erased_at, reason: erased.reason, kept: erased.kept } : null,
    user:
      p.user_id === null
        ? null
        : {
            id: p.user_id,
            roles: JSON.parse(p.roles ?? '[]') as Role[],
            authorised: JSON.parse(p.authorised ?? '[]') as Goal[],
            certificate: p.ucert ?? '',
            certificateUntil: p.until,
            ownCrosswindKt: p.own_kt,
          },
    held: held.map((h) => ({
      id: h.id,
      kind: h.kind,
      gainedOn: h.gained_on,
      note: h.note,
      ledgerId: h.ledger_id,
      endedAt: h.ended_at,
    })),
    dates: dates
      .filter((d, i) => dates.findIndex((x) => x.key === d.key) === i)
      .map((d) => ({
        id: d.id,
        key: d.key,
        title: d.title,
        doneOn: d.done_on,
        until: d.until,
        note: d.note,
        enteredBy: d.by,
        enteredAt: d.entered_at,
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
      goals: JSON.parse(g.goals) as Goal[],
      registration: g.registration,
      typeName: g.type_name,
      status: g.status,
      openedOn: g.created_at.slice(0, 10),
      signedOn: g.signed_on,
      ledgerId: g.signed_ledger_id,
      instructor: g.instructor,
    })),
    ladders: await ladderHistory(pilotId, on),
    notes: notes
      .map((n) => ({
        id: n.id,
        text: n.text,
        visible: n.visible,
        author: n.author,
        authorId: n.author_id,
        writtenAt: n.written_at,
      }))
      .filter((n) => may.readNote(user, { pilotId, visible: n.visible, authorId: n.authorId })),
    imports: imports.map((i) => ({
      id: i.id,
      fileName: i.file_name,
      at: i.imported_at,
      by: i.by,
      added: i.added,
      doubled: i.doubled,
      refused: i.refused,
      takenBackAt: i.taken_back_at,
    })),
    types: [...rules.types].map(([code, t]) => ({
      code,
      name: t.name,
      water: t.sheet.surface !== 'land',
      twin: t.sheet.engine.count > 1,
    })),
  };
}
