'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { dateText } from '@/core/format';
import { Field } from '../shared/field';
import { DateInput } from '../shared/when-input';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';
import { newId } from '../shared/new-id';

type Send = (form: unknown) => Promise<ActionResult<{ entryId: string; already: boolean }>>;

/** A further entry about this one: void, or a correction. The entry itself is never touched. */
export function LaterForm({ entryId, kind, action }: { entryId: string; kind: 'void' | 'correction'; action: Send }) {
  const f = useActionForm({
    schema: async () => {
      const forms = await import('@/domain/ledger-forms');
      return kind === 'void' ? forms.VoidForm : forms.CorrectionForm;
    },
    defaults: { requestId: '', entryId, text: '', password: '' },
    fresh: () => ({ requestId: newId() }),
    action,
  });
  return (
    <form {...f.props} className="d-grid gap-2 mt-2">
      <Problems problems={f.problems} title="Not entered" />
      <Field
        label={kind === 'void' ? 'Why it is void' : 'What is wrong, and what is meant'}
        id={`${kind}-text`}
        error={f.error('text')}
      >
        <textarea rows={2} {...f.register('text')} />
      </Field>
      <Field label="Your password" id={`${kind}-password`} error={f.error('password')}>
        <input type="password" autoComplete="current-password" {...f.register('password')} />
      </Field>
      <Button type="submit" variant={kind === 'void' ? 'outline-danger' : 'outline-primary'} disabled={f.busy}>
        {kind === 'void' ? 'Void this entry' : 'Add the correction'}
      </Button>
    </form>
  );
}

/** What the examiner decided. */
export function ResultForm({
  checkoutId,
  today,
  validThrough,
  action,
}: {
  checkoutId: string;
  today: string;
  validThrough: string | null;
  action: Send;
}) {
  const router = useRouter();
  const f = useActionForm({
    schema: async () => (await import('@/domain/ledger-forms')).ResultForm,
    defaults: { requestId: '', checkoutId, testOn: today, examiner: '', reference: '', text: '', password: '' },
    fresh: () => ({ requestId: newId() }),
    action,
    done: ({ entryId }) => {
      router.push(`/ledger/${entryId}`);
      router.refresh();
    },
  });
  return (
    <form {...f.props} className="d-grid gap-2">
      <Problems problems={f.problems} title="Not entered" />
      <div className="d-grid gap-2" style={{ gridTemplateColumns: '1fr 1fr' }}>
        <Field label="Result" id="result" error={f.error('result')}>
          <select {...f.register('result')}>
            <option value="">Choose</option>
            <option value="passed">passed</option>
            <option value="failed">not passed</option>
          </select>
        </Field>
        <Field
          label="Day of the test"
          id="testOn"
          error={f.error('testOn')}
          {...(validThrough ? { hint: `The recommendation holds to ${dateText(validThrough)}.` } : {})}
        >
          <DateInput {...f.register('testOn')} />
        </Field>
        <Field label="Examiner" id="examiner" error={f.error('examiner')}>
          <input {...f.register('examiner')} />
        </Field>
        <Field label="Reference of the report" id="reference" error={f.error('reference')}>
          <input {...f.register('reference')} />
        </Field>
      </div>
      <Field label="Remark" id="result-text" error={f.error('text')}>
        <textarea rows={2} {...f.register('text')} />
      </Field>
      <Field label="Your password" id="result-password" error={f.error('password')}>
        <input type="password" autoComplete="current-password" {...f.register('password')} />
      </Field>
      <Button type="submit" variant="primary" disabled={f.busy}>
        Enter the result
      </Button>
    </form>
  );
}
