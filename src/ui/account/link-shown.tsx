'use client';
import Button from 'react-bootstrap/Button';
import { useState } from 'react';
import type { ActionResult } from '../shared/forms';
import { Qr } from '../shared/qr';
import { Refusal } from '../shared/refusal';
import { useTap } from '../shared/use-tap';
import { Day } from '../shared/zone';

export interface Link_ {
  path: string;
  until: string;
}

/** A one-time link, shown this once: to be opened on the device of its owner. */
export function LinkShown({ name, link }: { name: string; link: Link_ }) {
  const address = `${location.origin}${link.path}`;
  return (
    <div className="link-shown" role="status">
      <Qr text={address} label={`QR code of the link for ${name}`} />
      <div>
        <p className="mb-1">
          <strong>{name}</strong> chooses a password with this link. It is shown this once, works once, and until{' '}
          <Day at={link.until} />.
        </p>
        <code className="link-text">{address}</code>
        {location.protocol === 'http:' && ['localhost', '127.0.0.1'].includes(location.hostname) ? (
          <p className="small soft mb-0">
            This address is this computer’s alone. Open Jeito by the address the others use, then make the link.
          </p>
        ) : null}
      </div>
    </div>
  );
}

/** For who has none yet, or lost theirs: the old password ends with it. */
export function MakeLink({
  userId,
  name,
  fresh,
  make,
}: {
  userId: string;
  name: string;
  /** Never signed in: nothing ends. */
  fresh: boolean;
  make: (userId: string) => Promise<ActionResult<Link_>>;
}) {
  const [made, setMade] = useState<Link_ | null>(null);
  const { tap, busy, refusal } = useTap();
  if (made) return <LinkShown name={name} link={made} />;
  return (
    <p className="mb-0">
      <Button
        variant="link"
        size="sm"
        className="p-0"
        disabled={busy}
        onClick={() => void tap(() => make(userId), { done: (a) => setMade(a) })}
      >
        {fresh ? 'Make a new link to choose a password' : 'Make a link to choose a new password'}
      </Button>{' '}
      <span className="small soft">
        {fresh ? 'the one before ends' : `if it is lost; ends the password and every session of ${name}`}
      </span>{' '}
      <Refusal said={refusal} />
    </p>
  );
}
