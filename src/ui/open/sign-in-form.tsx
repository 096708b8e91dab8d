'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';
import { Field } from '../shared/field';
import { Problems } from '../shared/parts';

interface Props {
  action: (form: unknown) => Promise<ActionResult>;
  /** The page to go to. */
  back: string;
  /** Who may sign in to a demo; null in a real school. */
  demo: { password: string; accounts: { email: string; name: string; role: string }[] } | null;
}
export function SignInForm({ action, back, demo }: Props) {
  const router = useRouter();
  const f = useActionForm({
    schema: async () => (await import('@/domain/sign-in-form')).SignInForm,
    defaults: { email: '', password: '', code: '' },
    action,
    done: () => {
      router.replace(back);
      router.refresh();
    },
  });
  // Once the password is right and the account has a second factor, its code is asked for.
  const asked = f.error('code') !== undefined || f.form.watch('code') !== '';
  const fill = (email: string, password: string) => {
    f.form.setValue('email', email);
    f.form.setValue('password', password);
    f.form.setFocus('password');
  };
  return (
    <>
      <form {...f.props} className="panel d-grid gap-3">
        <Problems problems={f.problems} title="Not signed in" />
        <Field label="E-mail" id="email" error={f.error('email')}>
          <input type="email" autoComplete="username" {...f.register('email')} />
        </Field>
        <Field label="Password" id="password" error={f.error('password')}>
          <input type="password" autoComplete="current-password" {...f.register('password')} />
        </Field>
        {asked ? (
          <Field label="Code of your authenticator" id="code" error={f.error('code')} hint="or a recovery code">
            <input inputMode="numeric" autoComplete="one-time-code" {...f.register('code')} />
          </Field>
        ) : null}
        <Button type="submit" variant="primary" disabled={f.busy}>
          {f.busy ? 'Signing in' : 'Sign in'}
        </Button>
        <p className="small soft mb-0">Forgotten? The chief instructor makes you a link to choose a new one.</p>
      </form>
      {demo ? (
        <section className="panel mt-3" aria-label="Demo accounts">
          <h2>Demo accounts</h2>
          <p className="small mb-2">
            All with <code className="code-face">{demo.password}</code>. Choose one to fill in the form.
          </p>
          <ul className="plain-list mb-0">
            {demo.accounts.map((a) => (
              <li key={a.email}>
                <Button
                  variant="link"
                  size="sm"
                  className="p-0 text-start"
                  onClick={() => fill(a.email, demo.password)}
                >
                  {a.name}
                </Button>
                <span className="soft small">, {a.role}</span>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </>
  );
}
