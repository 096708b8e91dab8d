'use client';
import { Day } from './zone';
import Button from 'react-bootstrap/Button';
import Feedback from 'react-bootstrap/Feedback';
import FormCheck from 'react-bootstrap/FormCheck';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import FormCheckLabel from 'react-bootstrap/FormCheckLabel';
import { list } from '@/core/format';
import { SCOPES, SCOPE_NAME, type Scope } from '@/domain/scopes';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useActionForm } from './action-form';
import { Field } from './field';
import type { ActionResult } from './forms';
import { useTap } from './use-tap';
import { Problems } from './parts';
import { Refusal } from './refusal';

interface Line {
  id: string;
  name: string;
  scopes: Scope[];
  createdAt: string;
  lastUsedAt: string | null;
  expiresAt: string;
}

/** Personal tokens: made with a name, shown once, ended at any time. */
export function Tokens({
  tokens,
  create,
  end,
}: {
  tokens: Line[];
  create: (form: unknown) => Promise<ActionResult<{ token: string }>>;
  end: (id: string) => Promise<ActionResult>;
}) {
  const router = useRouter();
  const [made, setMade] = useState('');
  const ending = useTap();
  const f = useActionForm({
    schema: async () => (await import('@/domain/token-form')).TokenForm,
    defaults: { name: '', scopes: [] as Scope[] },
    action: create,
    done: ({ token }) => {
      f.form.reset();
      setMade(token);
      router.refresh();
    },
  });
  return (
    <>
      {made ? (
        <p className="note-good" role="status">
          Copy it now, it is not shown again:{' '}
          <code className="code-face" data-token>
            {made}
          </code>
        </p>
      ) : null}
      {tokens.length === 0 ? (
        <p className="soft">No token yet. A token is valid for a year and ends with a new password.</p>
      ) : (
        <table aria-label="Tokens" className="plain mb-3">
          <thead>
            <tr>
              <th scope="col">For</th>
              <th scope="col">Used for</th>
              <th scope="col">Made</th>
              <th scope="col">Last used</th>
              <th scope="col">Valid until</th>
              <th scope="col">
                <span className="visually-hidden">End</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {tokens.map((t) => (
              <tr key={t.id}>
                <td>{t.name}</td>
                <td>{list(t.scopes.map((x) => SCOPE_NAME[x]))}</td>
                <td>
                  <Day at={t.createdAt} />
                </td>
                <td>{t.lastUsedAt ? <Day at={t.lastUsedAt} /> : 'not yet'}</td>
                <td>
                  <Day at={t.expiresAt} />
                </td>
                <td>
                  <Button
                    variant="link"
                    size="sm"
                    className="p-0"
                    disabled={ending.busy}
                    onClick={() => void ending.tap(() => end(t.id))}
                  >
                    End<span className="visually-hidden"> {t.name}</span>
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Problems problems={f.problems} title="Not made" />
      <form {...f.props}>
        <Field label="Used by" id="token-name" error={f.error('name')}>
          <input {...f.register('name')} />
        </Field>
        <fieldset className="mt-2">
          <legend>Used for</legend>
          {SCOPES.map((scope) => (
            <FormCheck key={scope}>
              <FormCheckInput
                id={`scope-${scope}`}
                type="checkbox"
                value={scope}
                aria-describedby={f.error('scopes') ? 'scopes-error' : undefined}
                {...f.register('scopes')}
              />
              <FormCheckLabel htmlFor={`scope-${scope}`}>{SCOPE_NAME[scope]}</FormCheckLabel>
            </FormCheck>
          ))}
          {f.error('scopes')?.message ? (
            <Feedback type="invalid" className="d-block" id="scopes-error" role="alert">
              {f.error('scopes')?.message}
            </Feedback>
          ) : null}
        </fieldset>
        <Button type="submit" variant="primary" className="mt-2" disabled={f.busy}>
          Create token
        </Button>
      </form>
      <Refusal said={ending.refusal} />
    </>
  );
}
