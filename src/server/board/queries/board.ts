import { asFlown, countFlown } from '@/core/assess';
import { type Lapse, addDays, daysBetween } from '@/core/recency';
import { localClock, localInstant, type FitSaid } from '@/core/schedule';
import type { Goal, Stage } from '@/domain/words';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { derived } from '../../floor/derived';
import { Pilots, Users } from '../../account/tables';
import { Airframes, GroundingEnds, Groundings, TypeVersions } from '../../hangar/tables';
import { ContentVersions } from '../../rules/tables';
import { Landings } from '../../fly/tables';
import { Exceedances, ExceedanceReleases } from '../../traces/tables';
import { Debriefs } from '../../debrief/tables';
import { LedgerEntries, OverrideAnswers, SignOverrides } from '../../ledger/tables';
import { Bookings } from '../../schedule/tables';
import { flownBetween } from '../../checkout/queries/counts';
import { type ReadRecord, recordReader } from '../../checkout/queries/record';
import { type NextAction, nextText } from '../../checkout/next-words';
import { flownLessons, nextAction, stageOf } from '../../checkout/queries/stage';
import { localToday } from '../../rules/today';
import { type HouseRules, houseRules } from '../../people/queries/house-rules';
import { STANDING_TABLES, everybodysStanding } from '../../people/queries/standings';
import { type Ready, fitOf, readinessOf, whenText } from '../../schedule/queries/readiness';
import { type BookingLine, bookingsBetween, ownBookings } from '../../schedule/queries/bookings';
import { airKey, schoolFacts } from '../../schedule/queries/day';
import { awayRows } from '../../schedule/queries/holds';
import { type Grounding, groundings } from '../../hangar/queries/groundings';
import { limitsPassed } from '../../traces/queries/traces';
import * as ask from '../../floor/statements/board';
import { Briefs, Checkouts, Sorties } from '../../checkout/tables';
import { Op } from 'sequelize';

/** Rows of a list on the board; the rest is a link away. */
const MOST = 8;
const MOST_LAPSES = 12;
const LAPSE_DAYS = 30;

export interface BoardCard {
  summary: {
    id: string;
    pilotName: string;
    registration: string;
    typeName: string;
    goals: Goal[];
    lessons: number;
    landings: number;
    lastFlown: string | null;
  };
  /** The reader's own, beside those they teach. */
  own: boolean;
  met: number;
  total: number;
  stage: Stage;
  action: { text: string; href: string };
}
export interface BoardLapse {
  pilotId: string;
  name: string;
  lapse: Lapse;
  /** What one tap would book; null = a flight does not keep it. */
  books: {
    kind: 'hire' | 'currency';
    airframeId: string;
    registration: string;
  } | null;
}
export interface BoardData {
  today: string;
  zone: string;
  next: { booking: BookingLine; when: string; ready: Ready[]; minutesTo: number } | null;
  line: {
    booking: BookingLine;
    when: string;
    past: boolean;
    hit: string[];
    fit: { word: string; said: FitSaid } | null;
  }[];
  cards: BoardCard[];
  more: number;
  lapses: BoardLapse[];
  lapsesMore: number;
  limits: Awaited<ReturnType<typeof limitsPassed>>;
  /** Out of service for another reason than a limit passed. */
  grounded: Grounding[];
  waits: { text: string; href: string }[];
  stalled: { id: string; pilotName: string; registration: string; instructor: string; days: number; booked: boolean }[];
  stats: { name: string; value: string }[];
  instructors: {
    name: string;
    userId: string;
    pilotId: string | null;
    today: number;
    open: number;
    stalled: number;
    outOf: string[];
    lastLesson: string | null;
  }[];
}

/** The day of one user in one look. */
export async function boardData(user: CurrentUser): Promise<BoardData> {
  const [school, rules, today, away] = [await schoolFacts(), await houseRules(), await localToday(), await awayRows()];
  const { zone } = school;
  const now = nowIso();
  const staff = may.seeEverybody(user);
  const chief = user.roles.includes('chief');
  const dayFrom = localInstant(today, 0, zone);
  const [mine, all] = await Promise.all([
    ownBookings(user, dayFrom, false, 40),
    chief ? bookingsBetween(user, dayFrom, localInstant(addDays(today, 1), 0, zone)) : Promise.resolve([]),
  ]);
  const coming = mine.find((b) => b.endsAt > now) ?? null;
  const shown = [
    ...mine.filter((b) => localClock(b.startsAt, zone).date <= addDays(today, 1)),
    ...all.filter((b) => !mine.some((m) => m.id === b.id)),
  ]
    .sort((a, b) => a.startsAt.localeCompare(b.startsAt))
    .slice(0, MOST);
  const hitOf = (b: BookingLine) =>
    b.endsAt < now
      ? []
      : away
          .filter(
            (a) =>
              [
                b.airframeId ? airKey(b.airframeId) : '',
                b.instructorKey ?? '',
                b.pilotId ? `p:${b.pilotId}` : '',
              ].includes(a.who) &&
              a.from < b.endsAt &&
              (a.to === null || a.to > b.startsAt),
          )
          .map((a) => a.why);
  const read = recordReader();
  const { cards, more } = await openCards(user, staff, read);
  const standings = await everybodysStanding(rules, today);
  const { lapses, lapsesMore } = lapsing(user, standings, rules, staff, today, await framesInLine(now));
  const stalled = staff ? await kept.stalled(user, chief, today, school.house.schedule.stalledDays, now) : [];
  return {
    today,
    zone,
    next: coming
      ? {
          booking: coming,
          when: whenText(coming, today, zone),
          ready: await readinessOf(coming, rules, school, away, read),
          minutesTo: Math.round((Date.parse(coming.startsAt) - Date.parse(now)) / 60_000),
        }
      : null,
    line: await Promise.all(
      shown.map(async (b) => ({
        booking: b,
        when: whenText(b, today, zone),
        past: b.endsAt <= now,
        hit: hitOf(b),
        fit: await fitOf(b, school, read),
      })),
    ),
    cards,
    more,
    lapses,
    lapsesMore,
    grounded: staff ? await kept.grounded() : [],
    limits: staff ? await kept.limits(user) : [],
    waits: await kept.waits(user, chief),
    stalled,
    stats: staff ? await kept.statistics(today) : [],
    instructors: chief ? await kept.instructors(today, zone, standings, rules, school.house.schedule.stalledDays) : [],
  };
}

/** Open checkouts of a user, their own before those they teach, the newest work first, and how many there are. */
async function openOf(user: CurrentUser, staff: boolean) {
  // An instructor who is checked out too sees that first: there is somebody else waiting for it.
  const own = await ask.openOfPilot.all({ id: user.pilotId, most: MOST + 1 });
  const taught = staff ? await ask.openOfInstructor.all({ id: user.id, most: MOST + 1 }) : [];
  const still = { status: { [Op.ne]: 'signed' as const } };
  const all = async (found: typeof own, mine: { instructorId: string } | { pilotId: string }): Promise<number> =>
    found.length > MOST ? Checkouts.count({ ...mine, ...still }) : found.length;
  const count = (await all(own, { pilotId: user.pilotId ?? '' })) + (await all(taught, { instructorId: user.id }));
  return { found: [...own, ...taught], count };
}
const LESSONS = [Checkouts, Sorties, Landings];
const NAMES = [Pilots, Users, Airframes];
const who = (user: CurrentUser): string => `${user.id} ${user.pilotId ?? ''} ${user.roles.join()}`;
/** What the board shows, each as it stood when anything it rests on was last written. */
const kept = {
  open: derived({
    name: 'board.open',
    dependsOn: LESSONS,
    key: (user: CurrentUser, staff: boolean) => `${who(user)} ${staff}`,
    read: openOf,
  }),
  stalled: derived({
    name: 'board.stalled',
    dependsOn: [...LESSONS, ...NAMES, Bookings],
    // Whether a booking lies ahead is told to ten minutes.
    key: (user: CurrentUser, chief: boolean, today: string, days: number, now: string) =>
      `${who(user)} ${chief} ${today} ${days} ${now.slice(0, 15)}`,
    read: stalledCheckouts,
  }),
  grounded: derived({
    name: 'board.grounded',
    dependsOn: [Groundings, GroundingEnds, Exceedances, ExceedanceReleases, Airframes, Users],
    key: () => '',
    read: async () => (await groundings({ openOnly: true })).filter((g) => g.kind !== 'limit'),
  }),
  limits: derived({
    name: 'board.limits',
    dependsOn: [Exceedances, ExceedanceReleases, Checkouts, Sorties, TypeVersions, ...NAMES],
    key: who,
    read: (user: CurrentUser) => limitsPassed(user, 'open'),
  }),
  waits: derived({
    name: 'board.waits',
    dependsOn: [...LESSONS, ...NAMES, SignOverrides, OverrideAnswers, ContentVersions, Briefs, Debriefs],
    key: (user: CurrentUser, chief: boolean) => `${who(user)} ${chief}`,
    read: waitsFor,
  }),
  statistics: derived({
    name: 'board.statistics',
    dependsOn: [...LESSONS, LedgerEntries],
    key: (today: string) => today,
    read: statistics,
  }),
  instructors: derived({
    name: 'board.instructors',
    dependsOn: [...LESSONS, Bookings, ...STANDING_TABLES],
    key: (today: string, zone: string, _s: Standings, _r: HouseRules, stalledDays: number) =>
      `${today} ${zone} ${stalledDays}`,
    read: instructorLines,
  }),
};

const actionShown = (next: NextAction) => ({ text: nextText(next), href: next.href });
async function openCards(
  user: CurrentUser,
  staff: boolean,
  read: ReadRecord,
): Promise<{ cards: BoardCard[]; more: number }> {
  const { found, count } = await kept.open(user, staff);
  const cards = await Promise.all(
    found.slice(0, MOST).map(async (c): Promise<BoardCard | null> => {
      const record = await read(c.id);
      if (!record) return null;
      const { head } = record;
      const flown = flownLessons(record);
      const waitsForPilot = record.sorties.find((s) => s.brief && !s.brief.acknowledgedAt && !flown.has(s.lesson));
      const action = may.runCheckout(user, head)
        ? actionShown(nextAction(record))
        : waitsForPilot
          ? {
              text: `Read and acknowledge the brief of lesson ${waitsForPilot.lesson}.`,
              href: `/checkouts/${c.id}/brief`,
            }
          : { text: 'Nothing to do. See its status.', href: `/checkouts/${c.id}` };
      return {
        summary: {
          id: c.id,
          pilotName: head.pilotName,
          registration: head.registration,
          typeName: head.typeName,
          goals: head.goals,
          lessons: c.lessons,
          landings: countFlown(record.landings.map(asFlown)).landings,
          lastFlown: c.lastFlown,
        },
        own: staff && head.pilotId === user.pilotId,
        met: record.items.filter((i) => i.met).length,
        total: record.items.length,
        stage: !may.runCheckout(user, head) && waitsForPilot ? 'brief' : stageOf(record),
        action: { text: action.text, href: action.href },
      };
    }),
  );
  const order: Record<Stage, number> = { sign: 0, debrief: 1, fly: 2, brief: 3, open: 4 };
  return {
    cards: cards
      .filter((c) => c !== null)
      .sort((a, b) => Number(b.own) - Number(a.own) || order[a.stage] - order[b.stage]),
    more: count - Math.min(count, MOST),
  };
}

async function framesInLine(now: string): Promise<Map<string, { id: string; registration: string }>> {
  const down = new Set(
    (await awayRows()).filter((a) => a.from <= now && (a.to === null || a.to > now)).map((a) => a.who),
  );
  const frames = await Airframes.find({
    pick: ['id', 'registration'],
    with: { type: ['code'] },
    order: ['registration'],
  });
  const of = new Map<string, { id: string; registration: string }>();
  for (const f of frames)
    if (!down.has(airKey(f.id)) && !of.has(f.type.code))
      of.set(f.type.code, { id: f.id, registration: f.registration });
  return of;
}
type Standings = Awaited<ReturnType<typeof everybodysStanding>>;
/** Who falls out of something in 30 days, or fell out in the last seven: the soonest first. */
function lapsing(
  user: CurrentUser,
  standings: Standings,
  rules: HouseRules,
  staff: boolean,
  today: string,
  frames: Map<string, { id: string; registration: string }>,
): { lapses: BoardLapse[]; lapsesMore: number } {
  const all = standings
    .filter((p) => staff || p.pilotId === user.pilotId)
    .flatMap((p) =>
      p.lapses
        .filter(
          (l) =>
            l.kind !== 'night' &&
            l.through !== null &&
            daysBetween(today, l.through) <= LAPSE_DAYS &&
            daysBetween(today, l.through) >= -7,
        )
        .map((lapse): BoardLapse => {
          const code =
            lapse.typeCode ??
            (lapse.kind === 'passengers'
              ? ([...rules.types].find(
                  ([, t]) =>
                    p.lapses.some((x) => x.typeCode !== null && rules.types.get(x.typeCode)?.sheet === t.sheet) &&
                    lapse.key.endsWith(classKey(t.sheet.engine.count, t.sheet.surface)) &&
                    (!lapse.key.startsWith('tailwheel') || t.sheet.gear.layout === 'tailwheel'),
                )?.[0] ?? null)
              : null);
          const frame =
            code === null ||
            lapse.kind === 'dated' ||
            lapse.kind === 'certificate' ||
            (lapse.status === 'expired' && lapse.kind === 'interval')
              ? undefined
              : frames.get(code);
          return {
            pilotId: p.pilotId,
            name: p.name,
            lapse,
            books: frame
              ? {
                  kind: p.roles.includes('instructor') ? 'currency' : 'hire',
                  airframeId: frame.id,
                  registration: frame.registration,
                }
              : null,
          };
        }),
    );
  const sorted = all.sort(
    (a, b) => (a.lapse.through ?? '').localeCompare(b.lapse.through ?? '') || a.name.localeCompare(b.name),
  );
  // A lapse of the same day by the same flying is one row a person: the first of them speaks for the rest.
  const once = sorted.filter(
    (l, i) =>
      !sorted
        .slice(0, i)
        .some(
          (m) =>
            m.pilotId === l.pilotId &&
            m.lapse.through === l.lapse.through &&
            m.lapse.kind !== 'dated' &&
            l.lapse.kind !== 'dated',
        ),
  );
  return { lapses: once.slice(0, MOST_LAPSES), lapsesMore: Math.max(0, once.length - MOST_LAPSES) };
}
const classKey = (engines: number, surface: string): string =>
  `${engines > 1 ? 'multi' : 'single'}-engine-${surface === 'land' ? 'land' : 'sea'}`;

/**
 * What waits for this user and no other: an override to answer, a brief or a debrief to acknowledge, an update to take
 * over.
 */
async function waitsFor(user: CurrentUser, chief: boolean): Promise<BoardData['waits']> {
  const waits: BoardData['waits'] = [];
  if (chief) {
    const overrides = await ask.waitsFor.all();
    for (const o of overrides.filter((x) => may.answerOverride(user, { pilotId: x.pilotId })))
      waits.push({
        text: `${o.by} asks to override ${o.itemId} of ${o.name}.`,
        href: `/checkouts/${o.checkoutId}/sign`,
      });
    const updates = await ask.waitsForContentVersions.one();
    if ((updates?.n ?? 0) > 0)
      waits.push({ text: `${updates?.n ?? 0} rules have an update proposed.`, href: '/rules' });
  }
  if (user.pilotId !== null) {
    const briefs = await ask.waitsForBriefs.all({ p: user.pilotId });
    for (const b of briefs)
      waits.push({
        text: `Read and acknowledge the brief of lesson ${b.lesson}.`,
        href: `/checkouts/${b.checkoutId}/brief`,
      });
    const debriefs = await ask.waitsForDebriefs.all({ p: user.pilotId });
    for (const d of debriefs)
      waits.push({
        text: `Read and acknowledge the debrief of lesson ${d.lesson}.`,
        href: `/checkouts/${d.checkoutId}/debrief?lesson=${d.lesson}`,
      });
  }
  return waits;
}

async function stalledCheckouts(
  user: CurrentUser,
  chief: boolean,
  today: string,
  days: number,
  now: string,
): Promise<BoardData['stalled']> {
  const before = addDays(today, -days);
  const of = { before, now, most: MOST };
  const found = chief ? await ask.stalled.all(of) : await ask.stalledOf.all({ ...of, id: user.id });
  return found.map((s) => ({
    id: s.id,
    pilotName: s.name,
    registration: s.registration,
    instructor: s.instructor,
    days: daysBetween(s.last, today),
    booked: s.booked,
  }));
}

async function statistics(today: string): Promise<BoardData['stats']> {
  const [month, year, week] = [`${today.slice(0, 7)}-01`, `${today.slice(0, 4)}-01-01`, addDays(today, -6)];
  const n = await ask.schoolCounts.one({ month, year, week, today });
  const flown = await flownBetween(month, today);
  const landings = flown?.landings ?? 0;
  const share = n && landings > 0 ? Math.round((100 * n.own) / landings) : null;
  return [
    { name: 'checkouts open', value: String(n?.open ?? 0) },
    { name: 'lessons in seven days', value: String(n?.lessons ?? 0) },
    { name: 'landings this month', value: String(landings) },
    { name: 'of them unassisted and in standard', value: share === null ? 'none' : `${share} %` },
    { name: 'sign-offs this year', value: String(n?.signed ?? 0) },
  ];
}

async function instructorLines(
  today: string,
  zone: string,
  standings: Standings,
  rules: HouseRules,
  stalledDays: number,
): Promise<BoardData['instructors']> {
  const found = await ask.instructorLines.all({
    from: localInstant(today, 0, zone),
    to: localInstant(addDays(today, 1), 0, zone),
    before: addDays(today, -stalledDays),
  });
  return found.map((u) => ({
    name: u.name,
    userId: u.id,
    pilotId: u.pilotId,
    today: u.today,
    open: u.open,
    stalled: u.stalled,
    lastLesson: u.last,
    outOf: (standings.find((s) => s.pilotId === u.pilotId)?.lapses ?? [])
      .filter((l) => l.kind === 'teach' && l.status === 'expired')
      .map((l) => (l.typeCode ? (rules.types.get(l.typeCode)?.name ?? l.typeCode) : l.what)),
  }));
}
