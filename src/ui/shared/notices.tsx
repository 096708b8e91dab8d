'use client';
import Button from 'react-bootstrap/Button';
import { Link } from './link';
import type { ActionResult } from './forms';
import { Refusal } from './refusal';
import { useTap } from './use-tap';

/** Notices of one user, the newest first; those not seen stand out until they are said to be seen. */
export function NoticeList({
  notices,
  see,
}: {
  notices: readonly { id: string; text: string; href: string; when: string; seen: boolean }[];
  see: () => Promise<ActionResult>;
}) {
  const { tap, busy, refusal } = useTap();
  const fresh = notices.filter((n) => !n.seen).length;
  return (
    <>
      {fresh > 0 ? (
        <p>
          <Button variant="outline-primary" size="sm" disabled={busy} onClick={() => void tap(see)}>
            All seen
          </Button>{' '}
          <Refusal said={refusal} />
        </p>
      ) : null}
      <ul className="plain-list">
        {notices.map((n) => (
          <li key={n.id} className={n.seen ? 'soft' : 'note-good'}>
            <Link href={n.href}>{n.text}</Link>
            <div className="small soft">
              {n.when}
              {n.seen ? '' : ', new'}
            </div>
          </li>
        ))}
      </ul>
    </>
  );
}
