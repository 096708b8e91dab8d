import { ageText, list } from '@/core/format';
import { BOOKING_NAME } from '@/domain/schedule';
import { say } from '@/domain/words';
import type { BoardData } from '@/server/board/queries/board';
import type { CurrentUser } from '@/server/floor/auth/permissions';
import { readyWords } from '@/server/schedule/ready-words';
import { Link } from '@/ui/shared/link';
import { Verdict } from '@/ui/shared/verdict';

/** The booking that comes next, and whether everything for it is ready. */
export function NextBooking({ next, user }: { next: NonNullable<BoardData['next']>; user: CurrentUser }) {
  return (
    <section className="panel next" aria-label="Next booking">
      <div>
        <span className="soft small">
          {next.minutesTo <= 0 ? 'now' : next.minutesTo < 24 * 60 ? `next, in ${ageText(next.minutesTo)}` : 'next'}
        </span>
        <h2>
          {next.booking.checkoutId ? (
            <Link href={`/checkouts/${next.booking.checkoutId}`}>
              {next.booking.instructorId === user.id
                ? next.booking.pilotName
                : `With ${next.booking.instructorName ?? ''}`}
            </Link>
          ) : (
            (next.booking.pilotName ?? BOOKING_NAME[next.booking.kind])
          )}
        </h2>
        <p className="mb-1">
          <b>{next.when}</b>, <span className="code-face">{next.booking.registration}</span>
          {next.booking.aerodrome ? (
            <>
              {' '}
              at <span className="code-face">{next.booking.aerodrome}</span>
            </>
          ) : null}
          {next.booking.goals.length > 0
            ? `, ${list(next.booking.goals.map(say))}`
            : `, ${BOOKING_NAME[next.booking.kind]}`}
        </p>
        {next.booking.split && next.booking.airframeId ? (
          <p className="small soft mb-0">
            {[
              next.booking.split.brief ? `brief ${next.booking.split.brief}` : '',
              `prepare ${next.booking.split.prepare}`,
              `fly ${next.booking.split.flight}`,
              next.booking.split.debrief ? `debrief ${next.booking.split.debrief}` : '',
            ]
              .filter(Boolean)
              .join(', ')}{' '}
            min
          </p>
        ) : null}
      </div>
      <ul className="ready">
        {next.ready.map((r) => (
          <li key={r.key}>
            <Link href={r.href}>
              <Verdict verdict={r.verdict}>
                <b>{r.title}</b>: {readyWords(r.said)}
              </Verdict>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
