'use client';
import { DateInput } from '../shared/when-input';
import Button from 'react-bootstrap/Button';
import FormControl from 'react-bootstrap/FormControl';
import { useRouter } from 'next/navigation';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';

/** A licence or certificate, and for an instructor its last day, in a row of the table of people. */
export function CertificateForm({
  of,
  name,
  certificate,
  until,
  action,
}: {
  of: { userId: string } | { pilotId: string };
  name: string;
  certificate: string;
  until: string | null;
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const router = useRouter();
  const ofInstructor = 'userId' in of;
  const f = useActionForm<{ userId?: string; pilotId?: string; certificate: string; until?: string | null }>({
    schema: async () => {
      const forms = await import('@/domain/forms');
      return ofInstructor ? forms.CertificateForm : forms.PilotCertificateForm;
    },
    defaults: { ...of, certificate, ...(ofInstructor ? { until } : {}) },
    action,
    done: (_, values) => {
      f.form.reset(values);
      router.refresh();
    },
  });
  const { isDirty } = f.form.formState;
  return (
    <form className="d-flex gap-1 flex-wrap" {...f.props}>
      <FormControl
        aria-label={`${ofInstructor ? 'Certificate' : 'Licence'} of ${name}`}
        size="sm"
        isInvalid={f.error('certificate') !== undefined}
        style={{ width: 215 }}
        {...f.register('certificate')}
      />
      {ofInstructor ? (
        <DateInput
          aria-label={`Last day of it, ${name}`}
          size="sm"
          aria-invalid={f.error('until') !== undefined}
          style={{ width: 160 }}
          {...f.register('until', { setValueAs: (v: string) => (v === '' ? null : v) })}
        />
      ) : null}
      <Button type="submit" variant="outline-primary" size="sm" disabled={!isDirty || f.busy}>
        Save
      </Button>
      {[f.error('certificate'), f.error('until'), ...f.problems].map((p) =>
        p?.message ? (
          <span key={p.message} role="alert" className="small v-outside">
            {p.message}
          </span>
        ) : null,
      )}
    </form>
  );
}
