'use client';
import Button from 'react-bootstrap/Button';
import { useState } from 'react';
import type { Role } from '@/domain/words';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';
import { type Link_, LinkShown } from './link-shown';

/** For somebody who is on record without an account. */
export function OpenAccount({
  pilotId,
  name,
  open,
}: {
  pilotId: string;
  name: string;
  open: (form: unknown) => Promise<ActionResult<{ link: Link_ }>>;
}) {
  const [made, setMade] = useState<Link_ | null>(null);
  const f = useActionForm({
    schema: async () => (await import('@/domain/account-forms')).OpenAccountForm,
    defaults: { email: '', role: 'pilot' as Role },
    as: ({ email, role }) => ({ pilotId, email: email.trim(), roles: role === 'pilot' ? ['pilot'] : ['pilot', role] }),
    fieldOf: { roles: 'role' },
    action: open,
    done: ({ link }) => setMade(link),
  });
  if (made) return <LinkShown name={name} link={made} />;
  return (
    <form {...f.props} className="d-grid gap-2" aria-label="Open an account">
      <Problems problems={f.problems} title="Not opened" />
      <div className="two">
        <Field label="E-mail" id="account-email" error={f.error('email')}>
          <input type="email" autoComplete="off" {...f.register('email')} />
        </Field>
        <Field label="Role" id="account-role" error={f.error('role')}>
          <select {...f.register('role')}>
            <option value="pilot">pilot</option>
            <option value="instructor">instructor</option>
            <option value="chief">chief</option>
          </select>
        </Field>
      </div>
      <div>
        <Button type="submit" variant="outline-primary" size="sm" disabled={f.busy}>
          Open an account
        </Button>
      </div>
    </form>
  );
}
