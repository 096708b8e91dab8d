'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import { type ActionResult, typedNumber } from '../shared/forms';
import { Problems } from '../shared/parts';

/** Who leads the school: the first account. */
export function FirstChief({ action }: { action: (form: unknown) => Promise<ActionResult> }) {
  const router = useRouter();
  const f = useActionForm({
    schema: async () => (await import('@/domain/set-up')).FirstChiefForm,
    defaults: { name: '', email: '', massKg: '', certificate: '', password: '', again: '' },
    as: (v) => ({ ...v, massKg: typedNumber(v.massKg) }),
    action,
    done: () => {
      router.replace('/set-up');
      router.refresh();
    },
  });
  return (
    <form {...f.props} className="panel d-grid gap-3" aria-label="Chief instructor">
      <Problems problems={f.problems} title="Not saved" />
      <Field label="Name" id="c-name" error={f.error('name')} hint="as it stands under what you sign">
        <input autoComplete="name" {...f.register('name')} />
      </Field>
      <Field label="E-mail" id="c-email" error={f.error('email')} hint="you sign in with it; nothing is sent to it">
        <input type="email" autoComplete="username" {...f.register('email')} />
      </Field>
      <Field label="Your mass" unit="kg" id="c-mass" error={f.error('massKg')} hint="for loading">
        <input inputMode="decimal" {...f.register('massKg')} />
      </Field>
      <Field label="Instructor certificate" id="c-cert" error={f.error('certificate')} hint="may wait">
        <input {...f.register('certificate')} />
      </Field>
      <Field label="Password" id="c-password" error={f.error('password')} hint="at least twelve characters">
        <input type="password" autoComplete="new-password" {...f.register('password')} />
      </Field>
      <Field label="Password again" id="c-again" error={f.error('again')}>
        <input type="password" autoComplete="new-password" {...f.register('again')} />
      </Field>
      <Button type="submit" variant="primary" disabled={f.busy}>
        {f.busy ? 'Saving' : 'Begin'}
      </Button>
    </form>
  );
}
