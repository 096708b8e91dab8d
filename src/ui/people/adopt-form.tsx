'use client';
import Button from 'react-bootstrap/Button';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';

/** Takes a proposed version into force. */
export function AdoptForm({
  id,
  action,
}: {
  id: string;
  action: (form: unknown) => Promise<ActionResult<{ version: number; unchanged: boolean }>>;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/forms')).AdoptForm,
    defaults: { id, reason: '' },
    action,
    draft: `adopt-${id}`,
  });
  return (
    <form className="d-flex gap-2 align-items-end mt-2 flex-wrap" {...f.props}>
      <Problems problems={f.problems} title="Not accepted" />
      <div className="flex-grow-1">
        <Field label="Reason" id={`adopt-${id}`} error={f.error('reason')}>
          <input {...f.register('reason')} />
        </Field>
      </div>
      <Button type="submit" variant="primary" disabled={f.busy}>
        Accept
      </Button>
    </form>
  );
}
