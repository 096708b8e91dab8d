'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type ActionResult, runAction } from './forms';

/** A calendar address of one's own, shown once. */
export function CalendarFeed({
  since,
  until,
  used,
  alarmMin,
  open,
  end,
}: {
  since: string | null;
  until: string | null;
  /** The day it was last fetched. */
  used: string | null;
  alarmMin: number;
  open: (
    alarmMin: number,
  ) => Promise<{ ok: true; secret: string } | { ok: false; problems: { path: string; message: string }[] }>;
  end: () => Promise<ActionResult>;
}) {
  const router = useRouter();
  const [minutes, setMinutes] = useState(String(alarmMin));
  const [address, setAddress] = useState('');
  const [problem, setProblem] = useState('');
  return (
    <div className="d-grid gap-2">
      <p className="mb-0">
        Your bookings in any calendar program: it fetches this address by itself, and rings before each flight.{' '}
        {since
          ? `An address is open since ${since}, until ${until ?? ''}; ` +
            `${used ? `last fetched on ${used}` : 'not fetched yet'}. It ends with a new password.`
          : 'No address is open.'}
      </p>
      <form
        className="d-flex gap-2 align-items-end flex-wrap"
        onSubmit={(e) => {
          e.preventDefault();
          void runAction(() => open(Number(minutes))).then((a) => {
            if (!a.ok) return setProblem(a.problems[0]?.message ?? '');
            setProblem('');
            setAddress(`${location.origin}/api/calendar/${a.secret}.ics`);
            router.refresh();
          });
        }}
      >
        <div>
          <label className="form-label" htmlFor="alarm">
            Ring before <span className="soft">(min)</span>
          </label>
          <input
            id="alarm"
            inputMode="numeric"
            className={`form-control${problem ? ' is-invalid' : ''}`}
            style={{ width: 110 }}
            value={minutes}
            onChange={(e) => setMinutes(e.target.value)}
          />
          {problem ? (
            <div className="invalid-feedback" role="alert">
              {problem}
            </div>
          ) : null}
        </div>
        <Button type="submit" variant="outline-primary">
          {since ? 'A new address' : 'Open an address'}
        </Button>
        {since ? (
          <Button
            variant="link"
            size="sm"
            onClick={() =>
              void runAction(end).then(() => {
                setAddress('');
                router.refresh();
              })
            }
          >
            Close it
          </Button>
        ) : null}
      </form>
      {address ? (
        <p className="note-good mb-0" role="status">
          Shown this once; who has it can read your bookings:
          <br />
          <code className="num" style={{ overflowWrap: 'anywhere', fontFamily: 'inherit' }}>
            {address}
          </code>
        </p>
      ) : null}
    </div>
  );
}
