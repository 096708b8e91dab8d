'use client';
import Button from 'react-bootstrap/Button';
import { list } from '@/core/format';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';

export interface ProgrammeOffer {
  from: string;
  to: string;
  name: string;
  version: number;
  added: readonly { id: string; title: string; text: string; citation: string }[];
  gone: readonly { id: string; title: string }[];
  changed: readonly { id: string; title: string }[];
}

/** A newer version of the programme, offered to an open checkout: what it asks more, less and otherwise, and the choice. */
export function ProgrammeForm({
  checkoutId,
  offer,
  action,
}: {
  checkoutId: string;
  offer: ProgrammeOffer;
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/item-form')).TakeProgrammeForm,
    defaults: { checkoutId, from: offer.from, to: offer.to, reason: '' },
    action,
    draft: `programme-${checkoutId}-${offer.to}`,
  });
  const named = (items: readonly { id: string; title: string }[]) => list(items.map((i) => `${i.id} ${i.title}`));
  return (
    <>
      <p className="mb-1">
        {offer.name}, version {offer.version}. This checkout keeps its version until you take this one.
      </p>
      <ul className="mb-2 ps-3">
        {offer.added.map((i) => (
          <li key={i.id}>
            Added: <strong>{`${i.id} ${i.title}`}</strong>. {i.text} <span className="soft">{i.citation}</span>
          </li>
        ))}
        {offer.changed.length > 0 ? <li>Asked otherwise: {named(offer.changed)}</li> : null}
        {offer.gone.length > 0 ? <li>No longer asked: {named(offer.gone)}</li> : null}
      </ul>
      <Problems problems={f.problems} title="Not taken" />
      <form className="d-flex gap-2" style={{ alignItems: 'start' }} {...f.props}>
        <div style={{ flex: 1 }}>
          <Field label="Reason" id={`programme-${offer.to}`} error={f.error('reason')}>
            <input maxLength={300} {...f.register('reason')} />
          </Field>
        </div>
        <Button type="submit" variant="outline-primary" style={{ marginTop: 24 }} disabled={f.busy}>
          {f.busy ? 'Taking' : `Take version ${offer.version}`}
        </Button>
      </form>
    </>
  );
}
