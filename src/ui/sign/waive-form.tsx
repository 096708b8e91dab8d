'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction } from '../shared/forms';
import { Problems } from '../shared/parts';

/** Waives an item that the programme allows to be waived, with the handbook reference as the reason. */
export function WaiveForm({
  sortieId,
  author,
  items,
  action,
}: {
  sortieId: string;
  author: string;
  items: { id: string; title: string; rule: string }[];
  action: (event: unknown) => Promise<ActionResult>;
}) {
  const router = useRouter();
  const form = useForm({ defaultValues: { itemId: items[0]?.id ?? '', reason: '' } });
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const item = items.find((i) => i.id === form.watch('itemId'));
  const send = form.handleSubmit(async ({ itemId, reason }) => {
    if (reason.trim().length < 8)
      return form.setError(
        'reason',
        { message: 'Give the handbook page or paragraph that advises against it.' },
        { shouldFocus: true },
      );
    const answer = await runAction(() =>
      action({
        eventId: crypto.randomUUID(),
        deviceId: crypto.randomUUID(),
        deviceSeq: 1,
        sortieId,
        subjectId: crypto.randomUUID(),
        author,
        type: 'item-waived',
        v: 1,
        deviceTime: new Date().toISOString(),
        payload: { itemId, reason },
      }),
    );
    if (!answer.ok) return setRest(answer.problems);
    form.reset();
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-2">
      <Problems problems={rest} title="Not waived" />
      <Field label="Item" id="waive-item">
        <select {...form.register('itemId')}>
          {items.map((i) => (
            <option key={i.id} value={i.id}>
              {i.id} {i.title}
            </option>
          ))}
        </select>
      </Field>
      <Field label="Reason" id="waive-reason" error={errors.reason} {...(item ? { hint: item.rule } : {})}>
        <input {...form.register('reason')} />
      </Field>
      <button type="submit" className="btn btn-outline-primary" disabled={isSubmitting}>
        Waive with this reason
      </button>
    </form>
  );
}
