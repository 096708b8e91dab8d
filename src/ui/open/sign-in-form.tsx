'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { type ActionProblem, type ActionResult, runAction, showProblems } from '../shared/forms';
import { Field } from '../shared/field';
import { Problems } from '../shared/parts';

interface Values {
  email: string;
  password: string;
}

export function SignInForm({ action }: { action: (form: unknown) => Promise<ActionResult> }) {
  const router = useRouter();
  const form = useForm<Values>({ defaultValues: { email: '', password: '' } });
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (values) => {
    const answer = await runAction(() => action(values));
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    router.replace('/board');
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="panel d-grid gap-3">
      <Problems problems={rest} title="Not signed in" />
      <Field label="E-mail" id="email" error={errors.email}>
        <input type="email" autoComplete="username" {...form.register('email')} />
      </Field>
      <Field label="Password" id="password" error={errors.password}>
        <input type="password" autoComplete="current-password" {...form.register('password')} />
      </Field>
      <button type="submit" className="btn btn-primary" disabled={isSubmitting}>
        {isSubmitting ? 'Signing in' : 'Sign in'}
      </button>
    </form>
  );
}
