'use client';
import Button from 'react-bootstrap/Button';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';

/** Asks to sign an item without its evidence. */
export function OverrideForm({
  checkoutId,
  items,
  rule,
  action,
}: {
  checkoutId: string;
  items: readonly { id: string; title: string }[];
  rule: string;
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/forms')).OverrideForm,
    defaults: { checkoutId, itemId: items[0]?.id ?? '', reason: '' },
    action,
    draft: `override-${checkoutId}`,
  });
  return (
    <form className="d-grid gap-2 mt-2" {...f.props}>
      <Problems problems={f.problems} title="Not overridden" />
      <Field label="Item to override" id="override-item" error={f.error('itemId')}>
        <select {...f.register('itemId')}>
          {items.map((i) => (
            <option key={i.id} value={i.id}>
              {i.id} {i.title}
            </option>
          ))}
        </select>
      </Field>
      <Field
        label="Reason of the override"
        id="override-reason"
        error={f.error('reason')}
        hint={`It is printed on the sign-off. ${rule}`}
      >
        <textarea rows={2} {...f.register('reason')} />
      </Field>
      <Button type="submit" variant="outline-primary" disabled={f.busy}>
        Override with this reason
      </Button>
    </form>
  );
}

/** A chief answers; who asked may withdraw. */
export function OverrideAnswer({
  overrideId,
  mayAnswer,
  mayWithdraw,
  action,
}: {
  overrideId: string;
  mayAnswer: boolean;
  mayWithdraw: boolean;
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/forms')).OverrideAnswerForm,
    defaults: { overrideId, answer: 'approved', reason: '' },
    action,
  });
  return (
    <div className="d-grid gap-1">
      <Problems problems={f.problems} title="Not answered" />
      {mayAnswer ? (
        <Field label="Reason, if declined" id={`answer-${overrideId}`} error={f.error('reason')}>
          <input className="form-control-sm" {...f.register('reason')} />
        </Field>
      ) : null}
      <div className="d-flex gap-2">
        {mayAnswer ? (
          <>
            <Button variant="primary" size="sm" disabled={f.busy} onClick={() => void f.send({ answer: 'approved' })}>
              Approve
            </Button>
            <Button
              variant="outline-danger"
              size="sm"
              disabled={f.busy}
              onClick={() => void f.send({ answer: 'declined' })}
            >
              Decline
            </Button>
          </>
        ) : null}
        {mayWithdraw ? (
          <Button
            variant="outline-primary"
            size="sm"
            disabled={f.busy}
            onClick={() => void f.send({ answer: 'withdrawn' })}
          >
            Withdraw
          </Button>
        ) : null}
      </div>
    </div>
  );
}
