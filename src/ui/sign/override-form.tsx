'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, showProblems } from '../shared/forms';
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
  const router = useRouter();
  const form = useForm({ defaultValues: { itemId: items[0]?.id ?? '', reason: '' } });
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (v) => {
    const answer = await runAction(() =>
      action({ checkoutId, itemId: v.itemId || (items[0]?.id ?? ''), reason: v.reason }),
    );
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    form.reset({ itemId: '', reason: '' });
    setRest([]);
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-2 mt-2">
      <Problems problems={rest} title="Not overridden" />
      <Field label="Item to override" id="override-item" error={errors.itemId}>
        <select {...form.register('itemId')}>
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
        error={errors.reason}
        hint={`It is printed on the sign-off. ${rule}`}
      >
        <textarea rows={2} {...form.register('reason')} />
      </Field>
      <button type="submit" className="btn btn-outline-primary" disabled={isSubmitting}>
        Override with this reason
      </button>
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
  const router = useRouter();
  const [reason, setReason] = useState('');
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const [busy, setBusy] = useState(false);
  const send = async (answer: 'approved' | 'declined' | 'withdrawn') => {
    setBusy(true);
    const done = await runAction(() => action({ overrideId, answer, reason }));
    setBusy(false);
    if (!done.ok) return setRest(done.problems);
    router.refresh();
  };
  return (
    <div className="d-grid gap-1">
      <Problems problems={rest} title="Not answered" />
      {mayAnswer ? (
        <>
          <label className="form-label mb-0" htmlFor={`answer-${overrideId}`}>
            Why, if not
          </label>
          <input
            id={`answer-${overrideId}`}
            className="form-control form-control-sm"
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
        </>
      ) : null}
      <div className="d-flex gap-2">
        {mayAnswer ? (
          <>
            <button
              type="button"
              className="btn btn-sm btn-primary"
              disabled={busy}
              onClick={() => void send('approved')}
            >
              Approve it
            </button>
            <button
              type="button"
              className="btn btn-sm btn-outline-danger"
              disabled={busy}
              onClick={() => void send('declined')}
            >
              Decline it
            </button>
          </>
        ) : null}
        {mayWithdraw ? (
          <button
            type="button"
            className="btn btn-sm btn-outline-primary"
            disabled={busy}
            onClick={() => void send('withdrawn')}
          >
            Withdraw it
          </button>
        ) : null}
      </div>
    </div>
  );
}
