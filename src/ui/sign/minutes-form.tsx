'use client';
import Button from 'react-bootstrap/Button';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';
import { newId } from '../shared/new-id';

/** Enters time spent on an item that counts it, into a lesson. */
export function MinutesForm({
  items,
  lessons,
  action,
}: {
  items: readonly { id: string; title: string }[];
  lessons: readonly { sortieId: string; lesson: number }[];
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/capture')).TimeAtDesk,
    defaults: {
      sortieId: lessons[lessons.length - 1]?.sortieId ?? '',
      type: 'item-observed',
      payload: {
        itemId: items[0]?.id ?? '',
        verdict: 'within',
        intervention: 0,
        note: '',
        detail: null,
        pilotId: null,
      },
    },
    fresh: () => ({ requestId: newId(), subjectId: newId() }),
    action,
  });
  return (
    <form className="d-grid gap-2 mt-2" {...f.props}>
      <Problems problems={f.problems} title="Not entered" />
      <Field label="Timed item" id="minutes-item" error={f.error('payload.itemId')}>
        <select {...f.register('payload.itemId')}>
          {items.map((i) => (
            <option key={i.id} value={i.id}>
              {i.id} {i.title}
            </option>
          ))}
        </select>
      </Field>
      <div className="d-grid gap-2" style={{ gridTemplateColumns: '1fr 1fr' }}>
        <Field label="In lesson" id="minutes-lesson" error={f.error('sortieId')}>
          <select {...f.register('sortieId')}>
            {lessons.map((l) => (
              <option key={l.sortieId} value={l.sortieId}>
                {l.lesson}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Minutes" unit="min" id="minutes" error={f.error('payload.minutes')}>
          <input inputMode="numeric" {...f.register('payload.minutes', { valueAsNumber: true })} />
        </Field>
      </div>
      <Field label="Note to it" id="minutes-note" error={f.error('payload.note')}>
        <input {...f.register('payload.note')} />
      </Field>
      <Button type="submit" variant="outline-primary" disabled={f.busy}>
        Enter the time
      </Button>
    </form>
  );
}
