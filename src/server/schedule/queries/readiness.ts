import { type FitWord, type WindFit, clockText, dayText, localClock, windFit } from '@/core/schedule';
import type { CriterionVerdict } from '@/domain/assess-words';
import { nowIso } from '../../floor/clock';
import { contentById } from '../../rules/content';
import { derived } from '../../floor/derived';
import { Pilots } from '../../account/tables';
import type { CheckoutHead } from '../../checkout/queries/head';
import type { CurrentUser } from '../../floor/auth/permissions';
import { FLYING_TABLES } from '../../people/queries/flying';
import { PersonDates, Qualifications, PilotHours as EnteredHours } from '../../people/tables';
import { LedgerEntries } from '../../ledger/tables';
import { type CheckoutRecord, type ReadRecord, oldBrief } from '../../checkout/queries/record';
import { type ReadyCode, readyCode } from '../ready-words';
import { flownLessons } from '../../checkout/queries/stage';
import { type HouseRules } from '../../people/queries/house-rules';
import { everybodysStanding } from '../../people/queries/standings';
import { teachState } from '../../people/queries/recency';
import { type AwayRow } from './holds';
import { type BookingLine } from './bookings';
import { type SchoolFacts, airKey, flightSpan, schoolAt } from './day';
import { airframeSheet } from './slots';
import { aloneNeed, lessonNeed, windAtSlot } from './wind';
import { userById } from '../../floor/auth/session-user';

/** What an instructor may teach in a checkout on a day. */
const keptTeach = derived({
  name: 'schedule.teach',
  dependsOn: [...FLYING_TABLES, EnteredHours, Pilots, PersonDates, Qualifications, LedgerEntries],
  key: (instructor: CurrentUser, head: CheckoutHead, onDate: string) =>
    `${instructor.id} ${head.id} ${head.typeVersionId} ${onDate}`,
  read: async (instructor: CurrentUser, head: CheckoutHead, onDate: string) =>
    teachState(
      instructor,
      {
        sheet: head.sheet,
        pack: await contentById('pack', head.packId),
        house: await contentById('house', head.houseId),
        goals: head.goals,
      },
      onDate,
    ),
});

export const FIT_VERDICT: Record<FitWord, CriterionVerdict> = {
  wanted: 'within',
  fits: 'within',
  light: 'edge',
  'too-much': 'outside',
  unknown: 'not-seen',
};
/** How the wind of a booking suits what it is for. */
export async function fitOf(b: BookingLine, school: SchoolFacts, read: ReadRecord): Promise<WindFit | null> {
  if (b.masked || b.airframeId === null || b.endsAt < nowIso()) return null;
  const record = b.checkoutId === null ? null : await read(b.checkoutId);
  const sheet = record?.head.sheet ?? (await airframeSheet(b.airframeId))?.sheet;
  if (!sheet) return null;
  const need =
    record && b.kind === 'lesson'
      ? await lessonNeed(
          record,
          b.instructorId === null ? null : await userById(b.instructorId),
          localClock(b.startsAt, school.zone).date,
          school.house,
        )
      : await aloneNeed(
          b.instructorId === null ? b.pilotId : null,
          sheet,
          localClock(b.startsAt, school.zone).date,
          school.house,
        );
  return windFit(
    windAtSlot(
      await schoolAt(school, b.aerodrome),
      sheet,
      b.split ? flightSpan(b.startsAt, b.split).from : b.startsAt,
      b.surface,
    ),
    need,
  );
}

export interface Ready {
  key: 'brief' | 'teach' | 'papers' | 'airframe' | 'wind';
  title: string;
  verdict: CriterionVerdict;
  said: ReadyCode;
  href: string;
}
/** What is ready for a booking and what is not, each with where it is solved. */
export async function readinessOf(
  b: BookingLine,
  rules: HouseRules,
  school: SchoolFacts,
  away: readonly AwayRow[],
  read: ReadRecord,
): Promise<Ready[]> {
  const date = localClock(b.startsAt, school.zone).date;
  const record = b.checkoutId === null ? null : await read(b.checkoutId);
  const fit = await fitOf(b, school, read);
  const wind: Ready[] = fit
    ? [
        {
          key: 'wind',
          title: 'Wind',
          verdict: FIT_VERDICT[fit.word],
          said: readyCode('wind', { said: fit.said }),
          href: record ? `/checkouts/${record.head.id}/plan` : '/schedule',
        },
      ]
    : [];
  return [
    ...(record ? [briefReady(record, date, b.id)] : []),
    ...(record ? await instructorReady(b.instructorId, record, date) : []),
    ...(await pilotReady(b.pilotId, rules, date)),
    ...airframeReady(b, away),
    ...wind,
  ];
}
function briefReady(record: CheckoutRecord, date: string, booking: string): Ready {
  const flown = flownLessons(record);
  const next = [...record.sorties].reverse().find((s) => !flown.has(s.lesson) && s.brief);
  const ready = (verdict: CriterionVerdict, said: ReadyCode): Ready => ({
    key: 'brief',
    title: 'Brief',
    verdict,
    said,
    href: `/checkouts/${record.head.id}/brief?booking=${booking}`,
  });
  if (!next?.brief) return ready('outside', readyCode('brief-missing'));
  const { lesson } = next;
  const days = oldBrief({ ...next, flownOn: date }, record.house);
  if (days !== null)
    return ready(next.brief.acknowledgedAt ? 'outside' : 'edge', readyCode('brief-old', { lesson, days }));
  return next.brief.acknowledgedAt
    ? ready('within', readyCode('brief-read', { lesson }))
    : ready('edge', readyCode('brief-unread', { lesson }));
}
async function instructorReady(instructorId: string | null, record: CheckoutRecord, date: string): Promise<Ready[]> {
  const instructor = instructorId === null ? null : await userById(instructorId);
  if (!instructor) return [];
  const { name } = instructor;
  const teach = await keptTeach(instructor, record.head, date);
  const until = teach.recency?.rules.flatMap((r) => r.validThrough ?? []).sort()[0] ?? null;
  const restore = teach.notRecent.map((r) => r.restore);
  const certificateEnded = teach.certificateUntil !== null && teach.certificateUntil < date;
  const bad = restore.length > 0 || teach.lacks.length > 0 || certificateEnded;
  return [
    {
      key: 'teach',
      title: 'Instructor',
      verdict: bad ? 'outside' : 'within',
      said: bad
        ? readyCode('instructor-not', { name, restore, lacks: teach.lacks, certificateEnded })
        : readyCode('instructor-recent', { name, until }),
      href: '/account',
    },
  ];
}
async function pilotReady(pilotId: string | null, rules: HouseRules, date: string): Promise<Ready[]> {
  if (pilotId === null) return [];
  const own = (await everybodysStanding(rules, date)).find((p) => p.pilotId === pilotId);
  const dated = own?.lapses.filter((l) => l.kind === 'dated') ?? [];
  const ended = dated.filter((l) => l.status === 'expired');
  const missing = dated.filter((l) => l.status === 'missing').map((l) => l.what);
  const ready = (verdict: CriterionVerdict, said: ReadyCode): Ready[] => [
    { key: 'papers', title: 'Pilot', verdict, said, href: `/people/${pilotId}` },
  ];
  if (ended.length > 0) {
    const what = ended.map((l) => l.what);
    return ready('outside', readyCode('pilot-dates-ended', { what, on: ended[0]?.through ?? null }));
  }
  return missing.length > 0
    ? ready('not-seen', readyCode('pilot-dates-missing', { what: missing }))
    : ready('within', readyCode('pilot-dates-hold'));
}
function airframeReady(b: BookingLine, away: readonly AwayRow[]): Ready[] {
  if (b.airframeId === null) return [];
  const key = airKey(b.airframeId);
  const out = away.filter((a) => a.who === key && a.from < b.endsAt && (a.to === null || a.to > b.startsAt));
  const registration = b.registration ?? '';
  const ready = (verdict: CriterionVerdict, said: ReadyCode, href: string): Ready[] => [
    { key: 'airframe', title: 'Aeroplane', verdict, said, href },
  ];
  if (out.length === 0) return ready('within', readyCode('airframe-in-service', { registration }), '/schedule');
  const said = readyCode('airframe-out', { registration, why: out.map((d) => d.why) });
  return ready('outside', said, SOLVED_AT[out[0]?.kind ?? ''] ?? '/schedule');
}
/** Where what keeps an aeroplane out of service is solved. */
const SOLVED_AT: Record<string, string> = { exceedance: '/board#limits', grounded: '/board#grounded' };
/** The words of a booking’s time: today by its hours, another day named. */
export const whenText = (b: Pick<BookingLine, 'startsAt' | 'endsAt'>, today: string, zone: string): string => {
  const d = localClock(b.startsAt, zone).date;
  return `${d === today ? 'today' : dayText(d)} ${clockText(b.startsAt, zone)} to ${clockText(b.endsAt, zone)}`;
};
