'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

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
  decide: (form: {
    findingId: string;
    decision: 'approved' | 'declined';
    reason: string;
  }) => Promise<{ ok: true } | { ok: false; problems: { path: string; message: string }[] }>;
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
            {f.now ? `The sheet says ${f.now}.` : 'The sheet has no such phase yet.'} {f.decided}
          </div>
          {f.decided === null && decides ? <Decide id={f.id} decide={decide} /> : null}
        </li>
      ))}
    </ul>
  );
}

function Decide({ id, decide }: { id: string; decide: Props['decide'] }) {
  const router = useRouter();
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const go = async (decision: 'approved' | 'declined') => {
    setBusy(true);
    setProblem('');
    const answer = await decide({ findingId: id, decision, reason }).catch(() => ({
      ok: false as const,
      problems: [{ path: '', message: 'The field could not be reached. Nothing is lost: send it again.' }],
    }));
    setBusy(false);
    if (answer.ok) router.refresh();
    else setProblem(answer.problems[0]?.message ?? 'This was not done.');
  };
  return (
    <div className="mt-1" role="group" aria-label="Decide">
      <label className="form-label mb-1 small" htmlFor={`why-${id}`}>
        Why
      </label>
      <input
        id={`why-${id}`}
        className={`form-control form-control-sm ${problem ? 'is-invalid' : ''}`}
        value={reason}
        aria-describedby={`why-${id}-say`}
        onChange={(e) => setReason(e.target.value)}
        maxLength={300}
      />
      <div id={`why-${id}-say`} className={problem ? 'invalid-feedback d-block' : 'form-text'}>
        {problem || 'The next reader of the sheet needs it.'}
      </div>
      <div className="d-flex gap-2 mt-1">
        <button type="button" className="btn btn-sm btn-primary" disabled={busy} onClick={() => void go('approved')}>
          Put it on the sheet as measured
        </button>
        <button
          type="button"
          className="btn btn-sm btn-outline-primary"
          disabled={busy}
          onClick={() => void go('declined')}
        >
          Leave it in the record
        </button>
      </div>
    </div>
  );
}
