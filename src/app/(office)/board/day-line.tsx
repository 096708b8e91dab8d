import { list } from '@/core/format';
import { fitWords } from '@/core/schedule';
import { BOOKING_NAME } from '@/domain/schedule';
import type { BoardData } from '@/server/board/queries/board';
import { type CurrentUser, may } from '@/server/floor/auth/permissions';
import { FIT_VERDICT } from '@/server/schedule/queries/readiness';
import { Link } from '@/ui/shared/link';
import { Panel } from '@/ui/shared/parts';
import { VerdictMark } from '@/ui/shared/verdict';

/** Bookings of today and tomorrow. */
export function DayLine({ b, user }: { b: BoardData; user: CurrentUser }) {
  return (
    <Panel title={may.compareInstructors(user) ? 'Today and tomorrow, everybody today' : 'Today and tomorrow'}>
      {b.line.length === 0 ? (
        <p className="soft mb-0">
          Nothing is booked. <Link href="/schedule">Book</Link>
        </p>
      ) : (
        <ul className="day-line">
          {b.line.map((x) => (
            <li key={x.booking.id} className={x.past ? 'past' : undefined}>
              <span className="small">
                {x.when.slice(0, -15)}
                <br />
                <span className="mono" style={{ whiteSpace: 'nowrap' }}>
                  {x.when.slice(-14).replace(' to ', '–')}
                </span>
              </span>
              <span>
                {x.booking.pilotName ?? x.booking.note}
                <br />
                <span className="soft small">
                  <span className="code-face">{x.booking.registration}</span>
                  {x.booking.aerodrome ? (
                    <>
                      {' '}
                      at <span className="code-face">{x.booking.aerodrome}</span>
                    </>
                  ) : null}
                  {x.booking.instructorName && x.booking.instructorId !== user.id
                    ? `, ${x.booking.instructorName.split(' ')[0] ?? ''}`
                    : ''}
                  {x.booking.kind === 'lesson' ? '' : `, ${BOOKING_NAME[x.booking.kind]}`}
                  {x.hit.length > 0 ? <b className="v-outside">, must move: {list(x.hit)}</b> : ''}
                </span>
              </span>
              {x.hit.length > 0 ? (
                // The worst of it: a good wind is no reason to read green where the aeroplane is down.
                <VerdictMark verdict="outside" label={`must move, ${list(x.hit)}`} />
              ) : x.fit ? (
                <VerdictMark
                  verdict={FIT_VERDICT[x.fit.word as keyof typeof FIT_VERDICT] ?? 'not-seen'}
                  label={`wind, ${fitWords(x.fit.said)}`}
                />
              ) : null}
            </li>
          ))}
        </ul>
      )}
    </Panel>
  );
}
