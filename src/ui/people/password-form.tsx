'use client';
import Button from 'react-bootstrap/Button';
import { useState } from 'react';
import { Field } from '../shared/field';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';
import { Refusal } from '../shared/refusal';
import { useTap } from '../shared/use-tap';
import { Problems } from '../shared/parts';

/** A password of one's own choosing. What is typed here is kept nowhere but in the fields. */
export function PasswordForm({ save }: { save: (form: unknown) => Promise<ActionResult<{ sessionVersion: number }>> }) {
  const [said, setSaid] = useState('');
  const f = useActionForm({
    schema: async () => (await import('@/domain/people')).PasswordForm,
    defaults: { password: '', next: '' },
    action: (v) => {
      setSaid('');
      return save(v);
    },
    done: () => {
      f.form.reset();
      setSaid('Changed. Other devices have to sign in again.');
    },
  });
  return (
    <form {...f.props} className="d-grid gap-2" aria-label="Password">
      <Problems problems={f.problems} title="Not changed" />
      <Field label="Password now" id="pw-now" error={f.error('password')}>
        <input type="password" autoComplete="current-password" {...f.register('password')} />
      </Field>
      <Field label="New password" id="pw-next" error={f.error('next')}>
        <input type="password" autoComplete="new-password" {...f.register('next')} />
      </Field>
      <div className="d-flex gap-2 align-items-center">
        <Button type="submit" variant="outline-primary" disabled={f.busy}>
          Change it
        </Button>
        <span role="status" className="soft">
          {said}
        </span>
      </div>
    </form>
  );
}

/** For who has lost theirs: a new one, shown once. */
export function NewFirstPassword({
  userId,
  name,
  give,
}: {
  userId: string;
  name: string;
  give: (userId: string) => Promise<ActionResult<{ password: string }>>;
}) {
  const [made, setMade] = useState('');
  const { tap, busy, refusal } = useTap();
  if (made)
    return (
      <p className="note-good mb-0" role="status">
        New password of {name}, shown this once: <code className="num">{made}</code>. Tell it in person.
      </p>
    );
  return (
    <p className="mb-0">
      <Button
        variant="link"
        size="sm"
        className="p-0"
        disabled={busy}
        onClick={() => void tap(() => give(userId), { done: (a) => setMade(a.password) })}
      >
        Give a new password
      </Button>{' '}
      <span className="small soft">told in person, where no link can be opened</span> <Refusal said={refusal} />
    </p>
  );
}
