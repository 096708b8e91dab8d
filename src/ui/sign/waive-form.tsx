'use client';
import Button from 'react-bootstrap/Button';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';
import { newId } from '../shared/new-id';

/** Waives an item that the programme allows to be waived, with the handbook reference as the reason. */
export function WaiveForm({
  sortieId,
  items,
  action,
}: {
  sortieId: string;
  items: { id: string; title: string; rule: string }[];
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/capture')).WaiverAtDesk,
    defaults: { sortieId, type: 'item-waived', payload: { itemId: items[0]?.id ?? '', reason: '' } },
    fresh: () => ({ requestId: newId(), subjectId: newId() }),
    action,
    draft: `waive-${sortieId}`,
  });
  const chosen = f.form.watch('payload.itemId');
  const item = items.find((i) => i.id === chosen);
  return (
    <form className="d-grid gap-2" {...f.props}>
      <Problems problems={f.problems} title="Not waived" />
      <Field label="Item" id="waive-item" error={f.error('payload.itemId')}>
        <select {...f.register('payload.itemId')}>
          {items.map((i) => (
            <option key={i.id} value={i.id}>
              {i.id} {i.title}
            </option>
          ))}
        </select>
      </Field>
      <Field label="Reason" id="waive-reason" error={f.error('payload.reason')} {...(item ? { hint: item.rule } : {})}>
        <input {...f.register('payload.reason')} />
      </Field>
      <Button type="submit" variant="outline-primary" disabled={f.busy}>
        Waive with this reason
      </Button>
    </form>
  );
}
