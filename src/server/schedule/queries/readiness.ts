import { type FitWord, type WindFit, clockText, dayText, localClock, windFit, fitWords } from '@/core/schedule';
import { dateText, list } from '@/core/format';
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
import { type ReadRecord, oldBrief } from '../../checkout/queries/record';
import { flownLessons } from '../../checkout/queries/stage';
import { type HouseRules } from '../../people/queries/house-rules';
import { everybodysStanding } from '../../people/queries/standings';
import { teachState } from '../../people/queries/recency';
import { type AwayRow } from './holds';
import { type BookingLine } from './bookings';
import { type SchoolFacts, airKey, flightSpan } from './day';
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
    windAtSlot(school, sheet, b.split ? flightSpan(b.startsAt, b.split).from : b.startsAt, b.surface),
    need,
  );
}

export interface Ready {
  key: 'brief' | 'teach' | 'papers' | 'airframe' | 'wind';
  title: string;
  verdict: CriterionVerdict;
  words: string;
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
  const ready: Ready[] = [];
  const record = b.checkoutId === null ? null : await read(b.checkoutId);
  const head = record?.head ?? null;
  if (record && head) {
    const flown = flownLessons(record);
    const next = [...record.sorties].reverse().find((s) => !flown.has(s.lesson) && s.brief);
    const stale = next ? oldBrief({ ...next, flownOn: date }, record.house) : null;
    ready.push(
      next?.brief
        ? {
            key: 'brief',
            title: 'Brief',
            verdict: next.brief.acknowledgedAt ? (stale === null ? 'within' : 'outside') : 'edge',
            words:
              stale !== null
                ? `lesson ${next.lesson} acknowledged ${stale} days before: brief it again`
                : next.brief.acknowledgedAt
                  ? `lesson ${next.lesson} acknowledged`
                  : `lesson ${next.lesson} briefed, not acknowledged yet`,
            href: `/checkouts/${head.id}/brief`,
          }
        : {
            key: 'brief',
            title: 'Brief',
            verdict: 'outside',
            words: 'the lesson is not briefed yet',
            href: `/checkouts/${head.id}/brief`,
          },
    );
    const instructor = b.instructorId === null ? null : await userById(b.instructorId);
    if (instructor) {
      const teach = await keptTeach(instructor, head, date);
      const ends = teach.recency?.rules.flatMap((r) => r.validThrough ?? []).sort()[0] ?? null;
      const bad = [
        ...teach.notRecent.map((r) => `${r.restore} restore it`),
        ...(teach.lacks.length > 0 ? [`does not hold ${list(teach.lacks)}`] : []),
        ...(teach.certificateUntil !== null && teach.certificateUntil < date ? ['certificate ended'] : []),
      ];
      ready.push({
        key: 'teach',
        title: 'Instructor',
        verdict: bad.length > 0 ? 'outside' : 'within',
        words:
          bad.length > 0
            ? `${instructor.name} out of recency: ${bad.join('; ')}`
            : `${instructor.name} recent in the type${ends ? ` to ${dateText(ends)}` : ''}`,
        href: '/account',
      });
    }
  }
  if (b.pilotId !== null) {
    const own = (await everybodysStanding(rules, date)).find((p) => p.pilotId === b.pilotId);
    const dated = own?.lapses.filter((l) => l.kind === 'dated') ?? [];
    const ended = dated.filter((l) => l.status === 'expired');
    const missing = dated.filter((l) => l.status === 'missing');
    ready.push({
      key: 'papers',
      title: 'Pilot',
      verdict: ended.length > 0 ? 'outside' : missing.length > 0 ? 'not-seen' : 'within',
      words:
        ended.length > 0
          ? `${list(ended.map((l) => l.what))} ended ${ended[0]?.through ? dateText(ended[0].through) : ''}`
          : missing.length > 0
            ? `no date for ${list(missing.map((l) => l.what))}`
            : 'medical and review hold',
      href: `/people/${b.pilotId}`,
    });
  }
  if (b.airframeId !== null) {
    const down = away.filter(
      (a) => a.who === airKey(b.airframeId ?? '') && a.from < b.endsAt && (a.to === null || a.to > b.startsAt),
    );
    ready.push({
      key: 'airframe',
      title: 'Aeroplane',
      verdict: down.length > 0 ? 'outside' : 'within',
      words:
        down.length > 0
          ? `${b.registration ?? ''} is down: ${list(down.map((d) => d.why))}`
          : `${b.registration ?? ''} in service, nothing open`,
      href:
        down[0]?.kind === 'exceedance'
          ? '/board#limits'
          : down[0]?.kind === 'grounded'
            ? '/board#grounded'
            : '/schedule',
    });
  }
  const fit = await fitOf(b, school, read);
  if (fit)
    ready.push({
      key: 'wind',
      title: 'Wind',
      verdict: FIT_VERDICT[fit.word],
      words: fitWords(fit.said),
      href: head ? `/checkouts/${head.id}/plan` : '/schedule',
    });
  return ready;
}
/** The words of a booking’s time: today by its hours, another day named. */
export const whenText = (b: Pick<BookingLine, 'startsAt' | 'endsAt'>, today: string, zone: string): string => {
  const d = localClock(b.startsAt, zone).date;
  return `${d === today ? 'today' : dayText(d)} ${clockText(b.startsAt, zone)} to ${clockText(b.endsAt, zone)}`;
};
