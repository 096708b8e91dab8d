'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';

/** A password of one's own, by a one-time link. */
export function ChoosePassword({
  email,
  action,
}: {
  email: string;
  action: (form: unknown) => Promise<ActionResult<{ factor: boolean }>>;
}) {
  const router = useRouter();
  const f = useActionForm({
    schema: async () => (await import('@/domain/account-forms')).LinkForm,
    defaults: { password: '', again: '' },
    action,
    done: ({ factor }) => {
      router.replace(factor ? '/sign-in' : '/board');
      router.refresh();
    },
  });
  return (
    <form {...f.props} className="panel d-grid gap-3" aria-label="Choose a password">
      <Problems problems={f.problems} title="Not saved" />
      <input
        type="text"
        className="visually-hidden"
        autoComplete="username"
        value={email}
        readOnly
        tabIndex={-1}
        aria-hidden
      />
      <Field label="Password" id="w-password" error={f.error('password')} hint="at least twelve characters">
        <input type="password" autoComplete="new-password" {...f.register('password')} />
      </Field>
      <Field label="Password again" id="w-again" error={f.error('again')}>
        <input type="password" autoComplete="new-password" {...f.register('again')} />
      </Field>
      <Button type="submit" variant="primary" disabled={f.busy}>
        {f.busy ? 'Saving' : 'Choose it and sign in'}
      </Button>
    </form>
  );
}
