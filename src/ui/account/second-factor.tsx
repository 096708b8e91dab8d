'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';
import { Qr } from '../shared/qr';
import { Refusal } from '../shared/refusal';
import { useTap } from '../shared/use-tap';

interface Props {
  /** Whether a code is asked for at the sign-in now. */
  on: boolean;
  required: boolean;
  begin: () => Promise<ActionResult<{ secret: string; uri: string }>>;
  confirm: (form: unknown) => Promise<ActionResult<{ codes: string[] }>>;
  end: ((form: unknown) => Promise<ActionResult>) | null;
}

/** Six digits of an authenticator beside the password. */
export function SecondFactor({ on, required, begin, confirm, end }: Props) {
  const router = useRouter();
  const [secret, setSecret] = useState<{ secret: string; uri: string } | null>(null);
  const [codes, setCodes] = useState<string[] | null>(null);
  const { tap, busy, refusal } = useTap();
  if (codes)
    return (
      <div role="status">
        <p>
          From the next sign-in a code of your authenticator is asked for. For the day it is lost, each of these is good
          for one sign-in. <strong>They are shown this once: write them down.</strong>
        </p>
        <ul className="codes">
          {codes.map((c) => (
            <li key={c}>
              <code className="code-face">{c}</code>
            </li>
          ))}
        </ul>
        <Button variant="primary" onClick={() => (end ? router.refresh() : router.replace('/board'))}>
          I have them
        </Button>
      </div>
    );
  if (on)
    return (
      <>
        <p>A code of your authenticator is asked for at each sign-in.</p>
        {end && !required ? <EndFactor end={end} /> : <p className="soft mb-0">Your role requires it.</p>}
      </>
    );
  if (secret) return <ConfirmFactor {...secret} confirm={confirm} done={setCodes} />;
  return (
    <>
      <p>
        {required
          ? 'Your role requires a second factor: six digits of an authenticator on your phone, beside the password.'
          : 'Six digits of an authenticator on your phone, beside the password: who has only your password does not get in.'}
      </p>
      <Button
        variant={required ? 'primary' : 'outline-primary'}
        disabled={busy}
        onClick={() => void tap(begin, { done: (a) => setSecret(a) })}
      >
        Set it up
      </Button>{' '}
      <Refusal said={refusal} />
    </>
  );
}

function ConfirmFactor({
  secret,
  uri,
  confirm,
  done,
}: {
  secret: string;
  uri: string;
  confirm: Props['confirm'];
  done: (codes: string[]) => void;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/account-forms')).ConfirmFactorForm,
    defaults: { code: '' },
    action: confirm,
    done: (a) => done(a.codes),
  });
  return (
    <form {...f.props} className="d-grid gap-2" aria-label="Second factor">
      <Problems problems={f.problems} title="Not set up" />
      <div className="link-shown">
        <Qr text={uri} label="QR code for the authenticator" />
        <div>
          <p className="mb-1">Scan this in the authenticator, or type the secret:</p>
          <code className="link-text">{secret.replace(/(.{4})/g, '$1 ').trim()}</code>
        </div>
      </div>
      <Field label="Code it shows now" id="factor-code" error={f.error('code')}>
        <input inputMode="numeric" autoComplete="one-time-code" {...f.register('code')} />
      </Field>
      <div>
        <Button type="submit" variant="primary" disabled={f.busy}>
          Confirm
        </Button>
      </div>
    </form>
  );
}

function EndFactor({ end }: { end: NonNullable<Props['end']> }) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/account-forms')).EndFactorForm,
    defaults: { password: '' },
    action: end,
  });
  return (
    <details>
      <summary>Sign in with the password alone again</summary>
      <form {...f.props} className="d-grid gap-2 mt-2" aria-label="End the second factor">
        <Problems problems={f.problems} title="Not changed" />
        <Field label="Password" id="factor-password" error={f.error('password')}>
          <input type="password" autoComplete="current-password" {...f.register('password')} />
        </Field>
        <div>
          <Button type="submit" variant="outline-danger" size="sm" disabled={f.busy}>
            End the second factor
          </Button>
        </div>
      </form>
    </details>
  );
}
