'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type ActionResult, runAction } from '../shared/forms';

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
  const [text, setText] = useState(certificate);
  const [day, setDay] = useState(until ?? '');
  const [problem, setProblem] = useState('');
  const changed = text !== certificate || day !== (until ?? '');
  return (
    <form
      className="d-flex gap-1 flex-wrap"
      onSubmit={(e) => {
        e.preventDefault();
        void runAction(() =>
          action({ ...of, certificate: text, ...('userId' in of ? { until: day === '' ? null : day } : {}) }),
        ).then((a) => {
          setProblem(a.ok ? '' : (a.problems[0]?.message ?? ''));
          if (a.ok) router.refresh();
        });
      }}
    >
      <input
        aria-label={`${'userId' in of ? 'Certificate' : 'Licence'} of ${name}`}
        className="form-control form-control-sm"
        style={{ width: 215 }}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      {'userId' in of ? (
        <input
          aria-label={`Last day of it, ${name}`}
          type="date"
          className="form-control form-control-sm"
          style={{ maxWidth: 150 }}
          value={day}
          onChange={(e) => setDay(e.target.value)}
        />
      ) : null}
      <button type="submit" className="btn btn-sm btn-outline-primary" disabled={!changed}>
        Save
      </button>
      {problem ? (
        <span role="alert" className="small v-outside">
          {problem}
        </span>
      ) : null}
    </form>
  );
}
