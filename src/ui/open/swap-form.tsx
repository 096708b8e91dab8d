'use client';
import Button from 'react-bootstrap/Button';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';

/** Goes on in another aeroplane of the type: which one, and why. */
export function SwapForm({
  checkoutId,
  now,
  others,
  booked,
  action,
}: {
  checkoutId: string;
  now: string;
  others: readonly { id: string; registration: string; different: string }[];
  /** The one the next lesson is booked in, where it is another; null = none. */
  booked: string | null;
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/forms')).SwapForm,
    defaults: {
      checkoutId,
      airframeId: booked ?? '',
      reason: booked ? `The lesson is booked in it, not in ${now}.` : '',
    },
    draft: `swap-${checkoutId}`,
    also: ['airframeId'],
    action,
  });
  return (
    <form {...f.props} className="d-grid gap-2 mt-2">
      <Problems problems={f.problems} title="Not changed" />
      <p className="mb-0">
        Its own sheet is briefed from now on. Evidence is carried; speeds from memory, exits and whatever else belongs
        to the airframe are asked again. Lessons flown stay in {now}.
      </p>
      <Field label="Aeroplane" id="swap-airframe" error={f.error('airframeId')}>
        <select {...f.register('airframeId')}>
          <option value="">choose</option>
          {others.map((o) => (
            <option key={o.id} value={o.id}>
              {o.registration}
              {o.different ? `: ${o.different}` : ''}
            </option>
          ))}
        </select>
      </Field>
      <Field label="Reason" id="swap-reason" error={f.error('reason')}>
        <input maxLength={200} {...f.register('reason')} />
      </Field>
      <Button type="submit" variant="outline-primary" style={{ justifySelf: 'start' }} disabled={f.busy}>
        Go on in this aeroplane
      </Button>
    </form>
  );
}
