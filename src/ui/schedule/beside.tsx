'use client';
import Button from 'react-bootstrap/Button';
import { clockText, dayText, localClock } from '@/core/schedule';
import { Link } from '../shared/link';
import { Panel, Problems } from '../shared/parts';
import type { ScheduleFacts, Wanted } from './facts';
import type { NewBooking, SideState } from './side-state';

/** An instant as the schedule names it: day and local time. */
export const whenText = (iso: string, zone: string): string =>
  `${dayText(localClock(iso, zone).date)} ${clockText(iso, zone)}`;

/** Why a booking was not moved, and the nearest time that would do. */
export function RefusedMove({
  refused,
  zone,
  busy,
  move,
  leave,
}: {
  refused: NonNullable<SideState['refused']>;
  zone: string;
  busy: boolean;
  move: (wanted: Wanted) => void;
  leave: () => void;
}) {
  return (
    <Panel title="Not moved">
      <Problems problems={refused.problems} title="Conflicts" />
      {refused.nearest ? (
        <div className="note-good mt-2">
          <p className="mb-1">
            Everybody is free <b>{whenText(refused.nearest.from, zone)}</b>, the nearest to your wish.
          </p>
          <Button
            variant="primary"
            size="sm"
            disabled={busy}
            onClick={() => refused.nearest && move({ ...refused.wanted, startsAt: refused.nearest.from })}
          >
            Move to {whenText(refused.nearest.from, zone)}
          </Button>
        </div>
      ) : (
        <p className="mt-2">No common free time within three weeks. Try another aeroplane or instructor.</p>
      )}
      <Button variant="link" size="sm" className="p-0 mt-2" onClick={leave}>
        Leave it where it was
      </Button>
    </Panel>
  );
}

/** Who waits for a slot. */
export function Waiting({
  wishes,
  today,
  find,
  leave,
}: {
  wishes: ScheduleFacts['wishes'];
  today: string;
  find: (from: NewBooking) => void;
  leave: (id: string) => void;
}) {
  if (wishes.length === 0) return null;
  return (
    <Panel title="Waiting">
      <ul className="plain-list">
        {wishes.map((w) => (
          <li key={w.id}>
            <b>{w.pilotName}</b> {w.minutes} min{w.registration ? ` in ${w.registration}` : ''}, {dayText(w.fromDate)}{' '}
            to {dayText(w.toDate)}
            {w.note ? `: ${w.note}` : ''}
            <br />
            <Button
              variant="link"
              size="sm"
              className="p-0"
              onClick={() =>
                find({
                  date: w.fromDate < today ? today : w.fromDate,
                  minutes: null,
                  wishId: w.id,
                  length: w.minutes,
                  ...(w.checkoutId ? { checkoutId: w.checkoutId } : { kind: 'hire' as const }),
                })
              }
            >
              Find a slot<span className="visually-hidden"> for {w.pilotName}</span>
            </Button>{' '}
            <Button variant="link" size="sm" className="p-0 ms-2" onClick={() => leave(w.id)}>
              remove from list<span className="visually-hidden">, {w.pilotName}</span>
            </Button>
          </li>
        ))}
      </ul>
    </Panel>
  );
}

/** Who is away and what is out of service, with the reason. */
export function AwayList({ away, zone }: { away: ScheduleFacts['away']; zone: string }) {
  if (away.length === 0) return null;
  return (
    <Panel title="Away and out of service">
      <ul className="plain-list small">
        {away.map((a) => (
          <li key={a.id}>
            <b>{a.name}</b> {a.kind === 'away' ? 'away' : 'out of service'}{' '}
            {a.to === null
              ? `since ${dayText(localClock(a.from, zone).date)}`
              : `${whenText(a.from, zone)} to ${whenText(a.to, zone)}`}
            : {a.why}
            {a.kind === 'exceedance' || a.kind === 'grounded' ? (
              <>
                {' '}
                <Link href={a.kind === 'grounded' ? '/board#grounded' : '/board#limits'}>show</Link>
              </>
            ) : null}
          </li>
        ))}
      </ul>
    </Panel>
  );
}
