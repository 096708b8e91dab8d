'use client';
import Button from 'react-bootstrap/Button';
import type { ActionResult } from '../shared/forms';
import { Refusal } from '../shared/refusal';
import { useTap } from '../shared/use-tap';
import { Day } from '../shared/zone';

/** Where somebody is signed in. */
export function SessionList({
  lines,
  here,
  end,
  endOthers,
}: {
  lines: readonly { id: string; device: string; madeAt: string }[];
  /** The session of this browser. */
  here: string | null;
  end: (id: string) => Promise<ActionResult>;
  endOthers: () => Promise<ActionResult>;
}) {
  const { tap, busy, refusal } = useTap();
  return (
    <>
      <ul className="plain-list">
        {lines.map((s) => (
          <li key={s.id} className="d-flex justify-content-between gap-2 mb-1">
            <span>
              {s.device || 'A browser'}
              <span className="soft small">
                , since <Day at={s.madeAt} />
                {s.id === here ? ', this one' : ''}
              </span>
            </span>
            {s.id === here ? null : (
              <Button
                variant="link"
                size="sm"
                className="p-0"
                disabled={busy}
                onClick={() => void tap(() => end(s.id))}
              >
                Sign out<span className="visually-hidden"> {s.device || 'a browser'}</span>
              </Button>
            )}
          </li>
        ))}
      </ul>
      {lines.some((s) => s.id !== here) ? (
        <Button variant="outline-primary" size="sm" disabled={busy} onClick={() => void tap(endOthers)}>
          Sign out everywhere else
        </Button>
      ) : null}{' '}
      <Refusal said={refusal} />
    </>
  );
}
