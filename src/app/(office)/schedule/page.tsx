import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import type { Metadata } from 'next';
import { Link } from '@/ui/shared/link';
import { addDays } from '@/core/recency';
import { dayText } from '@/core/schedule';
import { BOOKING_KINDS, type BookingKind } from '@/domain/schedule';
import { may } from '@/server/floor/auth/permissions';
import { requireUser } from '@/server/floor/auth/session';
import { nowIso } from '@/server/floor/clock';
import { localToday } from '@/server/rules/today';
import { schedulePage } from '@/server/schedule/queries/page';
import { FilterForm } from '@/ui/shared/filter-form';
import { Schedule } from '@/ui/schedule/schedule';
import { Title } from '@/ui/shared/title';
import { PageStrip } from '@/ui/shared/strip';
import {
  bookAction,
  cancelBookingAction,
  joinWaitingAction,
  leaveWaitingAction,
  moveBookingAction,
  proposeSlotsAction,
} from '../../actions';

export const metadata: Metadata = { title: 'Schedule' };
const DATE = /^\d{4}-\d{2}-\d{2}$/;

export default async function SchedulePage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | undefined>>;
}) {
  const user = await requireUser();
  const q = await searchParams;
  const today = await localToday();
  const date = (t: string | undefined) =>
    t && DATE.test(t) && t >= '2000-01-01' && t <= '2100-12-31' && !Number.isNaN(Date.parse(t)) ? t : null;
  const day = date(q.day);
  const view = day ? ('day' as const) : ('week' as const);
  // Seven days from today, unless another first day is asked for: what is past is behind *Earlier*.
  const first = day ?? date(q.week) ?? today;
  const data = await schedulePage(user, first, day ? 1 : 7);
  const staff = may.seeEverybody(user);
  const teaches = user.roles.includes('instructor');
  const whose =
    q.whose ??
    (view === 'day'
      ? 'by-instructor'
      : staff && (user.roles.includes('chief') || !teaches)
        ? 'all'
        : staff
          ? 'mine'
          : 'all');
  const windows = Object.fromEntries(data.people.filter((p) => p.instructor).map((p) => [p.key, p.windows]));
  const link = (to: Record<string, string>) =>
    `/schedule?${new URLSearchParams({ ...(view === 'day' ? { day: first } : { week: first }), ...(q.whose ? { whose: q.whose } : {}), ...to }).toString()}`;
  const kind = BOOKING_KINDS.find((k) => k === q.kind) as BookingKind | undefined;
  const start =
    q.checkout || q.wish || kind
      ? {
          ...(q.checkout ? { checkoutId: q.checkout } : {}),
          ...(q.wish
            ? {
                wishId: q.wish,
                ...(data.wishes.find((w) => w.id === q.wish)?.checkoutId
                  ? { checkoutId: data.wishes.find((w) => w.id === q.wish)?.checkoutId ?? '' }
                  : {}),
              }
            : {}),
          ...(kind ? { kind } : {}),
          ...(q.pilot ? { pilotId: q.pilot } : {}),
          ...(q.air ? { airframeId: q.air } : {}),
        }
      : null;
  const lenses: [string, string][] =
    view === 'week'
      ? [
          ['all', 'everybody'],
          ...(teaches || !staff ? [['mine', 'mine'] as [string, string]] : []),
          ...data.people
            .filter((p) => p.instructor && p.userId !== user.id)
            .map((p): [string, string] => [p.userId ?? '', p.name]),
          ...data.airframes.map((a): [string, string] => [a.id, a.registration]),
        ]
      : [
          ['by-instructor', 'by instructor'],
          ['by-aeroplane', 'by aeroplane'],
        ];
  return (
    <>
      <PageStrip
        name="Schedule"
        line={view === 'day' ? dayText(first) : `seven days from ${dayText(first)}`}
        user={user.name}
      />
      <main id="main">
        <div className="wide">
          <Title
            title={view === 'day' ? dayText(first) : `${dayText(first)} to ${dayText(addDays(first, 6))}`}
            line="No double bookings. Who may not teach or fly without an instructor that day cannot be booked for it."
          >
            <FilterForm className="d-flex gap-2 align-items-end" action="/schedule" button="Apply">
              <input type="hidden" name={view === 'day' ? 'day' : 'week'} value={first} />
              <div>
                <FormLabel htmlFor="whose">Show</FormLabel>
                <FormSelect id="whose" name="whose" defaultValue={whose}>
                  {lenses.map(([k, n]) => (
                    <option key={k} value={k}>
                      {n}
                    </option>
                  ))}
                </FormSelect>
              </div>
            </FilterForm>
            <nav className="btn-group" aria-label="Time shown">
              <Link
                className="btn btn-outline-primary"
                href={view === 'day' ? link({ day: addDays(first, -1) }) : link({ week: addDays(first, -7) })}
              >
                Earlier
              </Link>
              <Link className="btn btn-outline-primary" href={view === 'day' ? `/schedule?day=${today}` : '/schedule'}>
                Today
              </Link>
              <Link
                className="btn btn-outline-primary"
                href={view === 'day' ? link({ day: addDays(first, 1) }) : link({ week: addDays(first, 7) })}
              >
                Later
              </Link>
            </nav>
            {view === 'week' ? (
              <Link
                className="btn btn-outline-primary"
                href={`/schedule?day=${first <= today && today <= addDays(first, 6) ? today : first}`}
              >
                Day
              </Link>
            ) : (
              <Link className="btn btn-outline-primary" href={`/schedule?week=${first}`}>
                Week
              </Link>
            )}
          </Title>
          <Schedule
            key={`${view}${first}${whose}${q.checkout ?? ''}${q.wish ?? ''}${q.kind ?? ''}${q.booking ?? ''}`}
            chosen={data.bookings.find((b) => b.id === q.booking && !b.masked)?.id ?? null}
            view={view}
            whose={whose}
            start={start}
            book={bookAction}
            move={moveBookingAction}
            cancel={cancelBookingAction}
            propose={proposeSlotsAction}
            leave={leaveWaitingAction}
            wait={joinWaitingAction}
            facts={{
              ...data,
              staff,
              now: nowIso(),
              me: user.id,
              pilotOnly: staff ? null : user.pilotId,
              windows,
              people: data.people.map((p) => ({
                key: p.key,
                userId: p.userId,
                pilotId: p.pilotId,
                name: p.name,
                instructor: p.instructor,
              })),
            }}
          />
          {view === 'week' ? (
            <div className="d-flex gap-2 flex-wrap mt-3">
              {data.days.map((d) => (
                <Link key={d.date} href={`/schedule?day=${d.date}`}>
                  {d.name}
                </Link>
              ))}
              <Link className="ms-auto" href="/schedule/times">
                Availability
              </Link>
            </div>
          ) : null}
        </div>
      </main>
    </>
  );
}
