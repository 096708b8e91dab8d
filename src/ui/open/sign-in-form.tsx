'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';
import { Field } from '../shared/field';
import { Problems } from '../shared/parts';

export function SignInForm({ action }: { action: (form: unknown) => Promise<ActionResult> }) {
  const router = useRouter();
  const f = useActionForm({
    schema: async () => (await import('@/domain/sign-in-form')).SignInForm,
    defaults: { email: '', password: '' },
    action,
    done: () => {
      router.replace('/board');
      router.refresh();
    },
  });
  return (
    <form {...f.props} className="panel d-grid gap-3">
      <Problems problems={f.problems} title="Not signed in" />
      <Field label="E-mail" id="email" error={f.error('email')}>
        <input type="email" autoComplete="username" {...f.register('email')} />
      </Field>
      <Field label="Password" id="password" error={f.error('password')}>
        <input type="password" autoComplete="current-password" {...f.register('password')} />
      </Field>
      <Button type="submit" variant="primary" disabled={f.busy}>
        {f.busy ? 'Signing in' : 'Sign in'}
      </Button>
    </form>
  );
}
