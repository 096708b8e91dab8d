import type { CurrentUser } from '@/server/floor/auth/permissions';
import type { BriefChoices, WindSeen } from '@/domain/brief';
import type { Attitude, Goal, PackId } from '@/domain/words';
import { Airframe, TypeSheet } from '@/domain/sheet';
import { localDate } from '@/core/format';
import { hashPassword } from '@/server/floor/auth/password';
import { userById } from '@/server/floor/auth/session-user';
import { nowIso } from '@/server/floor/clock';
import { acknowledgeBrief, openCheckout, saveBrief } from '@/server/checkout/commands/checkout';
import { recordEvents } from '@/server/fly/commands/capture';
import { acknowledgeDebrief, assessSelf, debriefSnapshot, saveDebrief } from '@/server/debrief/commands/debrief';
import { saveEye, saveHours } from '@/server/people/commands/pilot';
import { acceptMeasures, addTrace } from '@/server/traces/commands/traces';
import { traceById } from '@/server/traces/queries/traces';
import { aggregatesSettled } from '@/server/checkout/commands/tallies';
import { signCheckout, signingState } from '@/server/ledger/commands/sign';
import type { House } from '@/domain/programme';
import { putOwnVersion } from '@/server/rules/commands/content';
import { importContent, shippedContent } from '@/server/rules/content';
import { row } from '../scripts/lib/raw';
import { write } from '@/server/floor/write';
import { hangar } from '@/server/hangar/queries/hangar';
import { checkoutRecord } from '@/server/checkout/queries/record';
import { checkoutHead } from '@/server/checkout/queries/head';
import { moinhoVelho, pedraAlva } from './aerodrome';
import { airframes, types } from './fleet';
import {
  FIRST,
  type Hand,
  LEARNING,
  LEFT,
  type LessonPlan,
  PLAIN,
  type Plan,
  STEADY,
  creeping,
  lessonEvents,
  letsGo,
  plateau,
  tailUp,
} from './flights';
import { seedSchedule } from './bookings';
import { DEMO_PASSWORD, people, pilots } from './people';
import { seeded, seededId } from './random';
import { recordedFlight } from './recording';
import { Pilots, Users } from '@/server/account/tables';
import { Qualifications, LoggedFlights } from '@/server/people/tables';
import { Types, TypeVersions, Airframes, AirframeVersions } from '@/server/hangar/tables';

const OWN_INTERVALS = [
  { of: 'alvor-c4g', days: 45 },
  { of: 'alvor-c4g-e', days: 45 },
  { of: 'bronze-b15', days: 30 },
];
const DAY_MS = 86_400_000;
const random = seeded(20260);
const debriefIds = seeded(20261);
const staffIds = seeded(20263);

/**
 * Fills an empty data folder with the Pedra Alva scenario. Every flight goes through the same commands the screens use.
 */
export async function seedDemo(): Promise<{ checkouts: number; landings: number; signed: number }> {
  const realNow = nowIso();
  const fixed = process.env.JEITO_NOW;
  const at = (iso: string) => {
    process.env.JEITO_NOW = iso;
  };
  const dayAt = (daysAgo: number, hhmm: string): string =>
    `${new Date(Date.parse(realNow) - daysAgo * DAY_MS).toISOString().slice(0, 10)}T${hhmm}:00.000Z`;
  try {
    at(dayAt(760, '08:00'));
    await setUp();
    at(dayAt(45, '08:00'));
    await enterHours(dayAt);
    await logInstructors(dayAt);
    const counters = { checkouts: 0, signed: 0 };
    const run = async (plan: CheckoutPlan) => {
      const done = await playCheckout(plan, at, dayAt);
      counters.checkouts++;
      if (done.signed) counters.signed++;
    };
    for (const plan of scenario()) await run(plan);
    await aggregatesSettled();
    await seedSchedule(
      { helena: await userByKey('helena'), bento: await userByKey('bento'), vasco: await userByKey('vasco') },
      localDate(realNow, pedraAlva.timeZone),
      at,
      dayAt,
    );
    const count = await row<{ n: number }>('SELECT COUNT(*) AS n FROM landings');
    return { ...counters, landings: count?.n ?? 0 };
  } finally {
    if (fixed === undefined) delete process.env.JEITO_NOW;
    else process.env.JEITO_NOW = fixed;
  }
}

async function setUp(): Promise<void> {
  const password = await hashPassword(DEMO_PASSWORD);
  const created_at = nowIso();
  await write(async (t) => {
    const shipped = shippedContent();
    // Home first: the one entered first is it.
    const places = [pedraAlva, moinhoVelho].map((a) => ({ kind: 'aerodrome' as const, key: a.ident, body: a }));
    await importContent([...shipped, ...places], 'Jeito', t);
    // The school's own word on three of its types: they are flown again sooner than their group asks.
    const rules = shipped.find((s) => s.kind === 'house')?.body as House;
    const { signing } = rules;
    await putOwnVersion(
      {
        kind: 'house',
        key: 'house',
        version: 2,
        body: { ...rules, signing: { ...signing, intervals: [...OWN_INTERVALS, ...signing.intervals] } },
        author: 'Bento Quadra Luz',
        reason: 'Intervals of the glass tourer and the aerobatic single',
      },
      t,
    );
    for (const p of pilots) {
      const early: Record<string, string> = p.key === 'gaspar' ? { 'high-performance': '1996-06-01' } : {};
      await Pilots.insert(
        {
          id: `pilot-${p.key}`,
          name: p.name,
          massKg: p.massKg,
          experience: p.experience,
          hours: p.hours,
          crosswindCredit: p.crosswindCredit ? p.crosswindCredit : null,
          experienceSince: early,
          createdAt: created_at,
          certificate: p.certificate,
        },
        t,
      );
      // What was added to the scenario later draws from a stream of its own: everybody else's flights stay as they
      // were.
      for (const [i, h] of p.holds.entries())
        await Qualifications.insert(
          {
            id: seededId(p.person === null || (p.key === 'vasco' && i < 2) ? random : staffIds),
            pilotId: `pilot-${p.key}`,
            kind: h.kind,
            gainedOn: h.gainedOn,
            note: 'shown to the office',
            ledgerId: null,
            endedAt: null,
          },
          t,
        );
      if (p.email)
        await Users.insert(
          {
            id: `user-${p.key}`,
            email: p.email,
            name: p.name,
            passwordHash: password,
            roles: ['pilot'],
            sessionVersion: 1,
            pilotId: `pilot-${p.key}`,
            massKg: p.massKg,
            authorised: [],
            ownCrosswindKt: null,
            createdAt: created_at,
            certificate: '',
            certificateUntil: null,
          },
          t,
        );
    }
    for (const u of people) {
      const asPilot = pilots.find((p) => p.person === u.key);
      await Users.insert(
        {
          id: `user-${u.key}`,
          email: u.email,
          name: u.name,
          passwordHash: password,
          roles: u.roles,
          sessionVersion: 1,
          pilotId: asPilot ? `pilot-${asPilot.key}` : null,
          massKg: u.massKg,
          authorised: u.authorised,
          ownCrosswindKt: u.ownCrosswindKt,
          createdAt: created_at,
          certificate: u.certificate,
          certificateUntil: u.until,
        },
        t,
      );
    }
    for (const sheet of types) {
      await Types.insert({ id: `type-${sheet.code}`, code: sheet.code, name: sheet.name }, t);
      await TypeVersions.insert(
        {
          id: `type-${sheet.code}:1`,
          typeId: `type-${sheet.code}`,
          version: 1,
          tailwheel: sheet.gear.layout === 'tailwheel',
          powerHp: sheet.engine.powerHp.value,
          engines: sheet.engine.count,
          surface: sheet.surface,
          sheet: JSON.stringify(TypeSheet.parse(sheet)),
          author: 'Bento Quadra Luz',
          reason: `entered from ${sheet.revision}`,
          createdAt: created_at,
        },
        t,
      );
    }
    for (const a of airframes) {
      await Airframes.insert(
        { id: `air-${a.registration}`, registration: a.registration, typeId: `type-${a.typeCode}` },
        t,
      );
      await AirframeVersions.insert(
        {
          id: `air-${a.registration}:1`,
          airframeId: `air-${a.registration}`,
          version: 1,
          sheet: JSON.stringify(Airframe.parse(a)),
          author: 'Bento Quadra Luz',
          reason: 'entered from the aircraft file',
          createdAt: created_at,
        },
        t,
      );
    }
  });
}

/** Hours by type as the office entered them, and one pilot's eye measured in the seat. */
async function enterHours(dayAt: (daysAgo: number, hhmm: string) => string): Promise<void> {
  const bento = await userByKey('bento');
  for (const p of pilots) {
    const rows = p.flown
      .filter(([, hours]) => hours > 0)
      .map(([typeCode, hours, daysAgo, pic]) => ({
        typeCode,
        hours,
        pic: pic ?? null,
        lastFlown: dayAt(45 + daysAgo, '08:00').slice(0, 10),
      }));
    const kept = await saveHours(p.person === 'bento' ? await userByKey('helena') : bento, {
      pilotId: `pilot-${p.key}`,
      rows,
    });
    if (!kept.ok) throw new Error(`demo hours of ${p.key}: ${JSON.stringify(kept.problems)}`);
  }
  const eye = await saveEye(bento, {
    pilotId: 'pilot-duarte',
    typeCode: 'serrana-urze',
    seat: 'pilot',
    eyeHeightM: 1.79,
    how: 'tape, 5 cm cushion',
  });
  if (!eye.ok) throw new Error('demo eye height');
}

/** What instructors fly themselves, every few weeks in each type, for two years back; one has let a type slip. */
async function logInstructors(dayAt: (daysAgo: number, hhmm: string) => string): Promise<void> {
  const spread = seeded(20262);
  const logged = people.flatMap((u) => [
    ...u.types.map((type) => ({ u, type, until: 2 })),
    ...(u.slipped ? [{ u, type: u.slipped.type, until: u.slipped.daysAgo }] : []),
  ]);
  await write(async (t) => {
    for (const { u, type, until } of logged) {
      const water = types.find((x) => x.code === type)?.surface !== 'land';
      for (let daysAgo = until + Math.floor(spread() * 3); daysAgo < 760; daysAgo += 24 + Math.floor(spread() * 18)) {
        for (const surface of water ? (['water', 'land'] as const) : (['land'] as const))
          await LoggedFlights.insert(
            {
              id: seededId(spread),
              pilotId: `pilot-${u.key}`,
              flownOn: dayAt(daysAgo, '08:00').slice(0, 10),
              typeCode: type,
              takeoffs: 3,
              landings: 3,
              fullStops: 3,
              night: false,
              surface,
              hours: 0.9,
              remark: '',
              enteredBy: `user-${u.key}`,
              enteredAt: dayAt(daysAgo, '18:00'),
            },
            t,
          );
      }
    }
  });
}

interface Lesson {
  daysAgo: number;
  hand: Hand;
  kt: number;
  gustKt?: number;
  three: number;
  wheel: number;
  goArounds: number;
  items: string[];
  firstWheel?: boolean;
  continued?: boolean;
  unacknowledged?: boolean;
  /** The flight was recorded: by the panel with air data, or by a tablet's position alone. */
  recorded?: 'panel' | 'tablet';
  /** What it measured was taken over; nothing was flown for the airwork. */
  taken?: boolean;
  /** A tablet recorded it too. */
  beside?: boolean;
  habit?: Plan['habit'];
}
interface CheckoutPlan {
  pilot: string;
  by: 'helena' | 'bento';
  registration: string;
  pack: PackId;
  goals: Goal[];
  lessons: Lesson[];
  briefedOnly?: number;
  sign?: number;
  openDaysAgo: number;
}

const GROUND = ['G1', 'G2', 'G3', 'G4', 'G5'];

/** Six lessons that meet every item, ending `endDaysAgo`. */
function wholeCourse(endDaysAgo: number): Lesson[] {
  const l = (back: number, rest: Omit<Lesson, 'daysAgo'>): Lesson => ({ daysAgo: endDaysAgo + back, ...rest });
  return [
    l(24, { hand: FIRST, kt: 4, three: 4, wheel: 0, goArounds: 0, items: [...GROUND, 'F1', 'F1', 'F2'] }),
    l(20, { hand: LEARNING, kt: 5, three: 7, wheel: 0, goArounds: 1, items: ['F3', 'F9'] }),
    l(14, { hand: LEARNING, kt: 6, three: 4, wheel: 4, goArounds: 0, items: ['F3', 'F10'] }),
    l(9, {
      hand: { ...LEARNING, helped: 0.05, bad: 0.05 },
      kt: 7,
      three: 3,
      wheel: 5,
      goArounds: 0,
      items: ['F13', 'F14'],
    }),
    l(4, { hand: STEADY, kt: 9, gustKt: 12, three: 3, wheel: 3, goArounds: 2, items: ['F6', 'F11'], firstWheel: true }),
    l(0, { hand: STEADY, kt: 9, three: 4, wheel: 3, goArounds: 2, items: [] }),
  ];
}

function scenario(): CheckoutPlan[] {
  const past = (
    pilot: string,
    by: 'helena' | 'bento',
    registration: string,
    endDaysAgo: number,
    pack: PackId = 'us',
  ): CheckoutPlan => ({
    pilot,
    by,
    registration,
    pack,
    goals: ['tailwheel'],
    lessons: wholeCourse(endDaysAgo),
    sign: endDaysAgo,
    openDaysAgo: endDaysAgo + 26,
  });
  return [
    past('lidia', 'bento', 'ZP-URA', 655),
    past('nuno', 'helena', 'ZP-URZ', 540, 'eu'),
    past('sara', 'helena', 'ZP-URZ', 410),
    past('elias', 'bento', 'ZP-URA', 290, 'eu'),
    past('marta', 'helena', 'ZP-URZ', 160),
    past('amelia', 'bento', 'ZP-URA', 61),
    // One pilot ready for the signature.
    { ...past('rui', 'helena', 'ZP-URZ', 2), sign: undefined },
    // One lesson from sign-off: everything but the second go-around afternoon and the wind.
    {
      pilot: 'clara',
      by: 'helena',
      registration: 'ZP-URZ',
      pack: 'us',
      goals: ['tailwheel'],
      openDaysAgo: 40,
      lessons: wholeCourse(6).map((l, i) =>
        i === 5 ? { ...l, goArounds: 0, wheel: 1 } : i === 4 ? { ...l, goArounds: 1, firstWheel: false } : l,
      ),
    },
    // A strong left bias.
    {
      pilot: 'ines',
      by: 'helena',
      registration: 'ZP-URV',
      pack: 'us',
      goals: ['tailwheel'],
      openDaysAgo: 33,
      lessons: [
        {
          daysAgo: 30,
          hand: { ...FIRST, bias: 'left' },
          kt: 4,
          three: 5,
          wheel: 0,
          goArounds: 0,
          items: [...GROUND, 'F1', 'F1', 'F2'],
        },
        {
          daysAgo: 22,
          hand: LEFT,
          kt: 6,
          three: 8,
          wheel: 0,
          goArounds: 1,
          items: ['F3', 'F3', 'F9'],
          recorded: 'panel',
          taken: true,
        },
        {
          daysAgo: 15,
          hand: LEFT,
          kt: 5,
          three: 8,
          wheel: 0,
          goArounds: 0,
          items: ['F10'],
          recorded: 'panel',
          taken: true,
        },
        {
          daysAgo: 3,
          hand: LEFT,
          kt: 7,
          three: 9,
          wheel: 0,
          goArounds: 1,
          items: ['F13'],
          recorded: 'panel',
          beside: true,
        },
      ],
    },
    // Mid-way, lesson 4 briefed and waiting.
    {
      pilot: 'duarte',
      by: 'helena',
      registration: 'ZP-URZ',
      pack: 'us',
      goals: ['tailwheel'],
      openDaysAgo: 25,
      briefedOnly: 0,
      lessons: [
        { daysAgo: 21, hand: FIRST, kt: 4, three: 6, wheel: 0, goArounds: 0, items: [...GROUND, 'F1'] },
        { daysAgo: 14, hand: LEARNING, kt: 6, three: 8, wheel: 0, goArounds: 1, items: ['F1', 'F2', 'F3'] },
        {
          daysAgo: 7,
          hand: LEARNING,
          kt: 8,
          gustKt: 12,
          three: 7,
          wheel: 2,
          goArounds: 1,
          items: ['F3', 'F9'],
          recorded: 'tablet',
        },
      ],
    },
    // Continued past a trigger.
    {
      pilot: 'joana',
      by: 'bento',
      registration: 'ZP-URA',
      pack: 'eu',
      goals: ['tailwheel'],
      openDaysAgo: 19,
      lessons: [
        { daysAgo: 16, hand: FIRST, kt: 3, three: 5, wheel: 0, goArounds: 0, items: [...GROUND, 'F1', 'F1'] },
        {
          daysAgo: 8,
          hand: LEARNING,
          kt: 7,
          three: 6,
          wheel: 0,
          goArounds: 0,
          items: ['F2', 'F3'],
          continued: true,
          unacknowledged: true,
        },
      ],
    },
    // An instructor being checked out on the heavy type; the pilot's own role is pilot here.
    {
      pilot: 'vasco',
      by: 'bento',
      registration: 'ZP-CAD',
      pack: 'us',
      goals: ['high-performance'],
      openDaysAgo: 10,
      lessons: [{ daysAgo: 5, hand: LEARNING, kt: 7, three: 0, wheel: 5, goArounds: 1, items: ['P1', 'P2', 'P3'] }],
    },
    {
      pilot: 'tome',
      by: 'helena',
      registration: 'ZP-URZ',
      pack: 'us',
      goals: ['tailwheel'],
      openDaysAgo: 1,
      lessons: [],
    },
    {
      pilot: 'gaspar',
      by: 'bento',
      registration: 'ZP-CAV',
      pack: 'us',
      goals: ['tailwheel'],
      openDaysAgo: 2,
      lessons: [],
    },
    // A speed that stands still where it should fall.
    {
      pilot: 'marta',
      by: 'bento',
      registration: 'ZP-FAI',
      pack: 'us',
      goals: ['high-performance'],
      openDaysAgo: 24,
      lessons: [8, 7, 8].map((three, i): Lesson => ({
        daysAgo: 22 - i * 7,
        hand: PLAIN,
        habit: plateau,
        kt: 5,
        three,
        wheel: 0,
        goArounds: i === 1 ? 1 : 0,
        items: i === 0 ? ['P1', 'P2'] : ['P3'],
      })),
    },
    // An aim point that creeps long.
    {
      pilot: 'sara',
      by: 'helena',
      registration: 'ZP-CAV',
      pack: 'us',
      goals: ['high-performance'],
      openDaysAgo: 30,
      lessons: [8, 8, 8].map((wheel, i): Lesson => ({
        daysAgo: 27 - i * 8,
        hand: PLAIN,
        habit: creeping,
        kt: 5,
        three: 0,
        wheel,
        goArounds: i === 1 ? 1 : 0,
        items: i === 0 ? ['P1', 'P2'] : ['P3'],
      })),
    },
    // The tail held up in wheel landings.
    {
      pilot: 'teresa',
      by: 'bento',
      registration: 'ZP-URA',
      pack: 'us',
      goals: ['tailwheel'],
      openDaysAgo: 36,
      lessons: [
        { daysAgo: 34, hand: PLAIN, kt: 4, three: 7, wheel: 0, goArounds: 0, items: [...GROUND, 'F1', 'F1', 'F2'] },
        { daysAgo: 25, hand: PLAIN, habit: tailUp, kt: 5, three: 3, wheel: 6, goArounds: 1, items: ['F3', 'F3', 'F9'] },
        { daysAgo: 11, hand: PLAIN, habit: tailUp, kt: 5, three: 2, wheel: 7, goArounds: 0, items: ['F10'] },
      ],
    },
    // Crosswind aileron owned, and lost when wheel landings come in; one lesson recorded and taken over.
    {
      pilot: 'ivo',
      by: 'bento',
      registration: 'ZP-URA',
      pack: 'us',
      goals: ['tailwheel'],
      openDaysAgo: 31,
      lessons: [
        {
          daysAgo: 29,
          hand: PLAIN,
          habit: letsGo,
          kt: 6,
          three: 8,
          wheel: 0,
          goArounds: 0,
          items: [...GROUND, 'F1', 'F1', 'F2'],
        },
        {
          daysAgo: 20,
          hand: PLAIN,
          habit: letsGo,
          kt: 7,
          three: 8,
          wheel: 0,
          goArounds: 1,
          items: ['F3', 'F3', 'F9'],
          recorded: 'panel',
          taken: true,
        },
        { daysAgo: 9, hand: PLAIN, habit: letsGo, kt: 7, three: 2, wheel: 7, goArounds: 0, items: ['F10'] },
      ],
    },
    // Goals that end with an examiner: one on the water, one in the twin, whose instructor is out of recency in it.
    {
      pilot: 'lidia',
      by: 'bento',
      registration: 'ZP-MAR',
      pack: 'us',
      goals: ['multi-engine-sea'],
      openDaysAgo: 6,
      lessons: [],
    },
    {
      pilot: 'nuno',
      by: 'bento',
      registration: 'ZP-PDO',
      pack: 'eu',
      goals: ['multi-engine'],
      openDaysAgo: 5,
      lessons: [],
    },
  ];
}

async function userByKey(key: string): Promise<CurrentUser> {
  const found = await userById(`user-${key}`);
  if (!found) throw new Error(`no demo user ${key}`);
  return found;
}

async function playCheckout(
  plan: CheckoutPlan,
  at: (iso: string) => void,
  dayAt: (daysAgo: number, hhmm: string) => string,
): Promise<{ signed: boolean }> {
  at(dayAt(plan.openDaysAgo, '08:30'));
  const instructor = await userByKey(plan.by);
  const pilotUser = await userByKey(plan.pilot);
  const frame = (await hangar()).flatMap((t) => t.airframes).find((a) => a.registration === plan.registration);
  const opened = await openCheckout(instructor, {
    requestId: seededId(random),
    pilotId: `pilot-${plan.pilot}`,
    airframeId: frame?.id ?? '',
    pack: plan.pack,
    goals: plan.goals,
    standardKey: plan.pack === 'us' ? 'private-us' : 'eu-class',
    note: '',
  });
  if (!opened.ok) throw new Error(`demo checkout of ${plan.pilot}: ${JSON.stringify(opened.problems)}`);
  const checkoutId = opened.id;
  const { pilot } = plan;
  const planOfPilot = plan;
  const massKg = pilots.find((p) => p.key === plan.pilot)?.massKg ?? 80;
  const brief = async (
    daysAgo: number,
    kt: number,
    gustKt: number | null,
    intended: Attitude,
    acknowledge: boolean,
    focus: string,
  ) => {
    at(dayAt(daysAgo, '09:20'));
    const observedAt = dayAt(daysAgo, '09:16');
    const wind: WindSeen = {
      source: 'report',
      raw: `ZPAV ${observedAt.slice(8, 10)}0916Z 260${String(kt + 3).padStart(2, '0')}${gustKt ? `G${gustKt + 4}` : ''}KT CAVOK 14/06 Q1019`,
      reference: 'true',
      variable: false,
      fromDeg: 260,
      kt: kt + 3,
      gustKt: gustKt ? gustKt + 4 : null,
      arcFromDeg: null,
      arcToDeg: null,
      observedAt,
    };
    const choices: BriefChoices = {
      flownOn: observedAt.slice(0, 10),
      runwayEnd: '22',
      wind,
      maxFlapDeg: null,
      fuelL: frame?.type.engine.usableFuelL.value ?? 40,
      pilotKg: massKg,
      instructorKg: instructor.massKg,
      baggageKg: 0,
      rearKg: 0,
      qnhHpa: 1019,
      oatC: 14,
      surfaceState: 'dry',
      night: false,
      bookingMin: 90,
      second: null,
      layout: { order: [], hidden: [], own: [] },
      speedSchool: frame?.type.landing.speedSchool ?? 'constant',
      gustSchool: 'half',
      intended,
      instructorLimitKt: instructor.ownCrosswindKt,
      focus,
    };
    const load = (frame?.effective.masses.emptyKg.value ?? 0) + massKg + instructor.massKg;
    choices.fuelL = Math.min(choices.fuelL, Math.floor(((frame?.type.masses.maxTakeoffKg.value ?? 0) - load) / 0.72));
    const saved = await saveBrief(instructor, { requestId: seededId(random), checkoutId, choices, base: null });
    if (!saved.ok) throw new Error(`demo brief of ${plan.pilot}: ${JSON.stringify(saved.problems)}`);
    if (acknowledge) {
      at(dayAt(daysAgo, '09:32'));
      await acknowledgeBrief(pilotUser, saved.briefId);
    }
    return saved.sortieId;
  };
  let flown = 0;
  let arounds = 0;
  for (const [index, lesson] of plan.lessons.entries()) {
    const mostly: Attitude = lesson.wheel > lesson.three ? 'mains-first' : 'three-point';
    const sortieId = await brief(
      lesson.daysAgo,
      lesson.kt,
      lesson.gustKt ?? null,
      mostly,
      !lesson.unacknowledged,
      FOCUS[index % FOCUS.length] ?? '',
    );
    const head = await checkoutHead(checkoutId);
    const record = head && (await checkoutRecord(head));
    const gates = record?.sorties.find((s) => s.id === sortieId)?.brief?.snapshot.gates ?? [];
    at(dayAt(lesson.daysAgo, '11:30'));
    const plan: LessonPlan = {
      seed: Math.floor(random() * 1e9),
      sortieId,
      author: instructor.id,
      startedAt: dayAt(lesson.daysAgo, '09:45'),
      runwayEnd: '22',
      wind: { fromDegMag: 290, kt: lesson.kt, gustKt: lesson.gustKt ?? null },
      fenceTarget: gates[gates.length - 1]?.target ?? 60,
      gates,
      before: flown,
      arounds,
      landings: landingsOf(lesson),
      items: [
        ...lesson.items.map((itemId): LessonPlan['items'][number] => ({ itemId, verdict: 'within', intervention: 0 })),
        ...(lesson.recorded === 'panel' && !lesson.taken ? STEEP : []),
      ],
    };
    const recorded =
      lesson.recorded && frame
        ? recordedFlight(lesson.recorded, plan, {
            aerodrome: pedraAlva,
            sheet: frame.effective,
            registration: frame.registration,
            windTrueDeg: 260,
            windKt: lesson.kt,
          })
        : null;
    const answer = await recordEvents(instructor, lessonEvents(recorded ? { ...plan, times: recorded.times } : plan));
    if (answer.refused.length > 0) throw new Error(`demo lesson of ${pilot}: ${JSON.stringify(answer.refused[0])}`);
    if (recorded) {
      at(dayAt(lesson.daysAgo, '12:10'));
      const kept = await addTrace(instructor, {
        sortieId,
        name: recorded.name,
        bytes: Buffer.from(recorded.text),
        mapping: null,
      });
      if (!kept.ok) throw new Error(`demo recording of ${pilot}: ${JSON.stringify(kept.problems)}`);
      if (lesson.taken) await takeOver(instructor, kept.id, pilot);
      if (lesson.beside) {
        const { name, text } = recorded.beside;
        const second = await addTrace(instructor, { sortieId, name, bytes: Buffer.from(text), mapping: null });
        if (!second.ok) throw new Error(`demo recording of ${pilot}: ${JSON.stringify(second.problems)}`);
      }
    }
    flown += landingsOf(lesson).length;
    arounds += lesson.goArounds;
    if (index < planOfPilot.lessons.length - 1 || planOfPilot.sign !== undefined)
      await debriefLesson(instructor, pilotUser, checkoutId, sortieId, (hhmm) => at(dayAt(lesson.daysAgo, hhmm)));
  }
  if (plan.briefedOnly !== undefined)
    await brief(plan.briefedOnly, 8, 13, 'three-point', false, 'Eyes to the left edge, 60 m ahead');
  if (plan.sign === undefined) return { signed: false };
  at(dayAt(plan.sign, '15:10'));
  const signing = await checkoutHead(checkoutId);
  const state = signing && (await signingState(instructor, await checkoutRecord(signing)));
  const signed = await signCheckout(instructor, {
    checkoutId,
    shown: state?.stamp ?? '',
    text: state?.text ?? '',
    signature: null,
    password: DEMO_PASSWORD,
    limitations: { alone: false, noPassengers: true, crosswindKt: 8, attitude: 'any', surface: 'any', untilHours: 5 },
    remark: '',
  });
  if (!signed.ok)
    throw new Error(`demo signature of ${plan.pilot}: ${signed.problems.map((p) => p.message).join(' | ')}`);
  return { signed: true };
}

/** A debrief as it is held: the pilot says, the instructor keeps a focus, the pilot acknowledges. */
async function debriefLesson(
  instructor: CurrentUser,
  pilot: CurrentUser,
  checkoutId: string,
  sortieId: string,
  at: (hhmm: string) => void,
): Promise<void> {
  const snapshot = await debriefSnapshot(checkoutId, sortieId);
  const own = snapshot.landings.filter((l) => l.class.startsWith('own')).length;
  at('12:20');
  const said = await assessSelf(pilot, {
    sortieId,
    own: Math.max(0, own + (snapshot.lesson % 3) - 1),
    bestNumber: snapshot.best?.number ?? null,
    workOn: snapshot.lesson % 2 ? 'line' : 'hold-off',
  });
  if (!said.ok) throw new Error(`demo self-assessment: ${JSON.stringify(said.problems)}`);
  at('12:40');
  const kept = await saveDebrief(instructor, {
    requestId: seededId(debriefIds),
    sortieId,
    focus: snapshot.findings.flatMap((f) => f.next?.title ?? []).slice(0, 2),
    remark: '',
  });
  if (!kept.ok) throw new Error(`demo debrief: ${JSON.stringify(kept.problems)}`);
  at('18:05');
  await acknowledgeDebrief(pilot, kept.debriefId);
}

/** Takes over every measure that is fair or sure, as the instructor would from the join page. */
async function takeOver(instructor: CurrentUser, traceId: string, pilot: string): Promise<void> {
  const joined = await (await traceById(instructor, traceId))?.join();
  const landings = (joined?.landings ?? []).flatMap((l) =>
    l.landing && l.foundIndex !== null
      ? [
          {
            landingId: l.landing.id,
            foundIndex: l.foundIndex,
            measures: l.measures.filter((m) => m.confidence >= 0.6 && m.id !== 'bounce').map((m) => m.id),
          },
        ]
      : [],
  );
  const taken = await acceptMeasures(instructor, { traceId, landings, items: [] });
  if (!taken.ok) throw new Error(`demo measures of ${pilot}: ${JSON.stringify(taken.problems)}`);
}

/** Two steep turns noted beside the programme, as the eye saw them. */
const STEEP: LessonPlan['items'] = [
  {
    itemId: 'also:steep-turn',
    verdict: 'within',
    intervention: 0,
    detail: {
      form: 'numbers',
      kind: 'steep-turn',
      set: { bank: 45 },
      seen: { height: 'inside', bank: 'inside', speed: 'inside', rollOut: 'inside' },
    },
  },
  {
    itemId: 'also:steep-turn',
    verdict: 'edge',
    intervention: 0,
    detail: {
      form: 'numbers',
      kind: 'steep-turn',
      set: { bank: 45 },
      seen: { height: 85, bank: 'inside', speed: 'inside', rollOut: 'inside' },
    },
  },
];

const FOCUS = [
  'Straight on the ground',
  'Hold it off',
  'Feet alive until stopped',
  'Fly the tail down',
  'Wing down from 200 ft',
  'Put it together',
];

function landingsOf(lesson: Lesson): Plan[] {
  const plans: Plan[] = [];
  const words = ['before', 'at', 'exercise'] as const;
  const habit = lesson.habit ? { habit: lesson.habit } : {};
  const three = Array.from({ length: lesson.three }, (): Plan => ({
    attitude: 'three-point',
    kind: 'full-stop',
    hand: lesson.hand,
    ...habit,
  }));
  const wheel = Array.from({ length: lesson.wheel }, (): Plan => ({
    attitude: 'mains-first',
    kind: 'full-stop',
    hand: lesson.hand,
    ...habit,
  }));
  plans.push(...(lesson.firstWheel ? [...wheel, ...three] : [...three, ...wheel]));
  for (let i = 0; i < lesson.goArounds; i++)
    plans.splice(2 + i * 2, 0, { attitude: 'three-point', kind: 'go-around', hand: STEADY, goAround: words[i % 3] });
  const last = plans[plans.length - 1];
  if (lesson.continued && last) last.trigger = 'met-and-continued';
  return plans;
}
