'use client';
import Button from 'react-bootstrap/Button';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';

interface Finding {
  id: string;
  what: string;
  where: string;
  unit: string;
  now: string | null;
  decided: string | null;
}
interface Props {
  findings: Finding[];
  decides: boolean;
  decide: (form: unknown) => Promise<ActionResult>;
}

/** Power settings found in flight. They stand on the sheet only once the chief has approved them. */
export function PowerFindings({ findings, decides, decide }: Props) {
  return (
    <ul className="list-unstyled mb-0 d-grid gap-3">
      {findings.map((f) => (
        <li key={f.id}>
          <div>
            <strong>{f.what}</strong> <span className="soft">{f.where}</span>
          </div>
          <div className="small">
            {f.now ? `The sheet gives ${f.now}.` : 'The sheet has no such phase yet.'} {f.decided}
          </div>
          {f.decided === null && decides ? <Decide id={f.id} decide={decide} /> : null}
        </li>
      ))}
    </ul>
  );
}

function Decide({ id, decide }: { id: string; decide: Props['decide'] }) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/forms')).PowerForm,
    defaults: { findingId: id, decision: 'approved', reason: '' },
    action: decide,
    draft: `power-${id}`,
  });
  return (
    <div className="mt-1" role="group" aria-label="Decide">
      <Problems problems={f.problems} title="Not decided" />
      <Field label="Why" id={`why-${id}`} error={f.error('reason')} hint="The next reader of the sheet needs it.">
        <input className="form-control-sm" maxLength={300} {...f.register('reason')} />
      </Field>
      <div className="d-flex gap-2 mt-1">
        <Button variant="primary" size="sm" disabled={f.busy} onClick={() => void f.send({ decision: 'approved' })}>
          Add to the sheet as measured
        </Button>
        <Button
          variant="outline-primary"
          size="sm"
          disabled={f.busy}
          onClick={() => void f.send({ decision: 'declined' })}
        >
          Keep in the record only
        </Button>
      </div>
    </div>
  );
}
