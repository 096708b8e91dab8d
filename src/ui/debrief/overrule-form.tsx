'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { say } from '@/domain/words';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';

export type Overrule = (form: unknown) => Promise<ActionResult>;

/** An instructor's word over a computed verdict, with a reason; what was computed stays beside it. */
export function OverruleForm({
  what,
  name,
  words,
  now,
  taken,
  sortieId,
  subjectId,
  overrule,
}: {
  what: string;
  name: string;
  words: readonly string[];
  now: string;
  taken: boolean;
  sortieId: string;
  subjectId: string;
  overrule: Overrule;
}) {
  const [open, setOpen] = useState(false);
  const router = useRouter();
  const f = useActionForm({
    schema: async () => (await import('@/domain/forms')).OverruleForm,
    defaults: { sortieId, subjectId, what, to: words.find((w) => w !== now) ?? '', reason: '' },
    action: overrule,
    done: () => {
      setOpen(false);
      f.form.resetField('reason');
      router.refresh();
    },
  });
  const id = `otherwise-${what === 'item' ? subjectId : what}`;
  if (!open)
    return (
      <Button
        variant="link"
        size="sm"
        className="p-0 ms-1 align-baseline"
        style={{ minHeight: 24 }}
        aria-label={`Overrule ${name}`}
        onClick={() => setOpen(true)}
      >
        overrule{what === 'class' ? ` ${name}` : ''}
      </Button>
    );
  return (
    <div className="otherwise" role="group" aria-label={`Overrule ${name}`}>
      <Field label="It is" id={`${id}-to`}>
        <select className="form-select-sm" {...f.register('to')}>
          {words.map((w) => (
            <option key={w} value={w}>
              {say(w)}
            </option>
          ))}
        </select>
      </Field>
      <div style={{ flex: '1 1 180px' }}>
        <Field label="Because" id={`${id}-why`} error={f.error('reason')}>
          <input className="form-control-sm" maxLength={300} {...f.register('reason')} />
        </Field>
      </div>
      <Button variant="primary" size="sm" disabled={f.busy} onClick={() => void f.send()}>
        Overrule
      </Button>
      {taken ? (
        <Button variant="outline-primary" size="sm" disabled={f.busy} onClick={() => void f.send({ to: null })}>
          Undo overruling
        </Button>
      ) : null}
      <Button variant="outline-primary" size="sm" onClick={() => setOpen(false)}>
        Cancel
      </Button>
      <Problems problems={f.problems} title="Not overruled" />
    </div>
  );
}
