'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction } from '../shared/forms';
import { Problems } from '../shared/parts';

/** Enters time spent on an item that counts it, into a lesson. */
export function MinutesForm({
  author,
  items,
  lessons,
  action,
}: {
  author: string;
  items: readonly { id: string; title: string }[];
  lessons: readonly { sortieId: string; lesson: number }[];
  action: (event: unknown) => Promise<ActionResult>;
}) {
  const router = useRouter();
  const form = useForm({
    defaultValues: {
      itemId: items[0]?.id ?? '',
      sortieId: lessons[lessons.length - 1]?.sortieId ?? '',
      minutes: '',
      note: '',
    },
  });
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (v) => {
    const minutes = Number(v.minutes);
    if (!Number.isInteger(minutes) || minutes < 1 || minutes > 720)
      return form.setError('minutes', { message: 'Give whole minutes, 1 to 720.' }, { shouldFocus: true });
    const answer = await runAction(() =>
      action({
        eventId: crypto.randomUUID(),
        deviceId: crypto.randomUUID(),
        deviceSeq: 1,
        sortieId: v.sortieId,
        subjectId: crypto.randomUUID(),
        author,
        type: 'item-observed',
        v: 1,
        deviceTime: new Date().toISOString(),
        payload: {
          itemId: v.itemId,
          verdict: 'within',
          intervention: 0,
          note: v.note,
          detail: null,
          pilotId: null,
          minutes,
        },
      }),
    );
    if (!answer.ok) return setRest(answer.problems);
    form.reset({ ...form.getValues(), minutes: '', note: '' });
    setRest([]);
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-2 mt-2">
      <Problems problems={rest} title="Not entered" />
      <Field label="Timed item" id="minutes-item">
        <select {...form.register('itemId')}>
          {items.map((i) => (
            <option key={i.id} value={i.id}>
              {i.id} {i.title}
            </option>
          ))}
        </select>
      </Field>
      <div className="d-grid gap-2" style={{ gridTemplateColumns: '1fr 1fr' }}>
        <Field label="In lesson" id="minutes-lesson">
          <select {...form.register('sortieId')}>
            {lessons.map((l) => (
              <option key={l.sortieId} value={l.sortieId}>
                {l.lesson}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Minutes" unit="min" id="minutes" error={errors.minutes}>
          <input inputMode="numeric" {...form.register('minutes')} />
        </Field>
      </div>
      <Field label="Note to it" id="minutes-note">
        <input {...form.register('note')} />
      </Field>
      <button type="submit" className="btn btn-outline-primary" disabled={isSubmitting}>
        Enter the time
      </button>
    </form>
  );
}
