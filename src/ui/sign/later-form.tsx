'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { dateText } from '@/core/format';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, showProblems } from '../shared/forms';
import { Problems } from '../shared/parts';

type Send = (form: unknown) => Promise<ActionResult<{ entryId: string; already: boolean }>>;

/** A further entry about this one: void, or a correction. The entry itself is never touched. */
export function LaterForm({ entryId, kind, action }: { entryId: string; kind: 'void' | 'correction'; action: Send }) {
  const router = useRouter();
  const form = useForm({ defaultValues: { requestId: '', text: '', password: '' } });
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (v) => {
    const requestId = v.requestId || crypto.randomUUID();
    form.setValue('requestId', requestId);
    const answer = await runAction(() => action({ requestId, entryId, text: v.text, password: v.password }));
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    form.reset({ requestId: '', text: '', password: '' });
    setRest([]);
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-2 mt-2">
      <Problems problems={rest} title="Not entered" />
      <Field
        label={kind === 'void' ? 'Why it is void' : 'What is wrong, and what is meant'}
        id={`${kind}-text`}
        error={errors.text}
      >
        <textarea rows={2} {...form.register('text')} />
      </Field>
      <Field label="Your password" id={`${kind}-password`} error={errors.password}>
        <input type="password" autoComplete="current-password" {...form.register('password')} />
      </Field>
      <button
        type="submit"
        className={`btn ${kind === 'void' ? 'btn-outline-danger' : 'btn-outline-primary'}`}
        disabled={isSubmitting}
      >
        {kind === 'void' ? 'Void this entry' : 'Add the correction'}
      </button>
    </form>
  );
}

/** What the examiner decided. */
export function ResultForm({
  checkoutId,
  today,
  validThrough,
  action,
}: {
  checkoutId: string;
  today: string;
  validThrough: string | null;
  action: Send;
}) {
  const router = useRouter();
  const form = useForm({
    defaultValues: { requestId: '', result: '', testOn: today, examiner: '', reference: '', text: '', password: '' },
  });
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (v) => {
    const requestId = v.requestId || crypto.randomUUID();
    form.setValue('requestId', requestId);
    const answer = await runAction(() => action({ ...v, requestId, checkoutId }));
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    router.push(`/ledger/${answer.entryId}`);
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-2">
      <Problems problems={rest} title="Not entered" />
      <div className="d-grid gap-2" style={{ gridTemplateColumns: '1fr 1fr' }}>
        <Field label="Result" id="result" error={errors.result}>
          <select {...form.register('result')}>
            <option value="">Choose</option>
            <option value="passed">passed</option>
            <option value="failed">not passed</option>
          </select>
        </Field>
        <Field
          label="Day of the test"
          id="testOn"
          error={errors.testOn}
          {...(validThrough ? { hint: `The recommendation holds to ${dateText(validThrough)}.` } : {})}
        >
          <input type="date" {...form.register('testOn')} />
        </Field>
        <Field label="Examiner" id="examiner" error={errors.examiner}>
          <input {...form.register('examiner')} />
        </Field>
        <Field label="Reference of the report" id="reference" error={errors.reference}>
          <input {...form.register('reference')} />
        </Field>
      </div>
      <Field label="Remark" id="result-text" error={errors.text}>
        <textarea rows={2} {...form.register('text')} />
      </Field>
      <Field label="Your password" id="result-password" error={errors.password}>
        <input type="password" autoComplete="current-password" {...form.register('password')} />
      </Field>
      <button type="submit" className="btn btn-primary" disabled={isSubmitting}>
        Enter the result
      </button>
    </form>
  );
}
