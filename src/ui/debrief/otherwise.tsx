'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { say } from '@/domain/words';
import { type ActionResult, runAction } from '../shared/forms';

export type Overrule = (form: unknown) => Promise<ActionResult>;

/** An instructor's word over a computed verdict, with a reason; what was computed stays beside it. */
export function Otherwise({
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
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const [to, setTo] = useState(words.find((w) => w !== now) ?? '');
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const id = `otherwise-${what === 'item' ? subjectId : what}`;
  if (!open)
    return (
      <button
        type="button"
        className="btn btn-link btn-sm p-0 ms-1 align-baseline"
        style={{ minHeight: 24 }}
        aria-label={`Say otherwise of ${name}`}
        onClick={() => setOpen(true)}
      >
        say otherwise{what === 'class' ? ` of ${name}` : ''}
      </button>
    );
  const send = async (word: string | null) => {
    setBusy(true);
    const answer = await runAction(() => overrule({ sortieId, subjectId, what, to: word, reason }));
    setBusy(false);
    if (!answer.ok) return setProblem(answer.problems[0]?.message ?? 'This was not kept.');
    setOpen(false);
    setReason('');
    setProblem('');
    router.refresh();
  };
  return (
    <div className="otherwise" role="group" aria-label={`Say otherwise of ${name}`}>
      <div>
        <label className="form-label" htmlFor={`${id}-to`}>
          It is
        </label>
        <select
          id={`${id}-to`}
          className="form-select form-select-sm"
          value={to}
          onChange={(e) => setTo(e.target.value)}
        >
          {words.map((w) => (
            <option key={w} value={w}>
              {say(w)}
            </option>
          ))}
        </select>
      </div>
      <div style={{ flex: '1 1 180px' }}>
        <label className="form-label" htmlFor={`${id}-why`}>
          Because
        </label>
        <input
          id={`${id}-why`}
          className={`form-control form-control-sm${problem ? ' is-invalid' : ''}`}
          value={reason}
          maxLength={300}
          aria-invalid={problem !== ''}
          aria-describedby={problem ? `${id}-error` : undefined}
          onChange={(e) => setReason(e.target.value)}
        />
      </div>
      <button type="button" className="btn btn-sm btn-primary" disabled={busy} onClick={() => void send(to)}>
        Overrule
      </button>
      {taken ? (
        <button
          type="button"
          className="btn btn-sm btn-outline-primary"
          disabled={busy}
          onClick={() => void send(null)}
        >
          Take my word back
        </button>
      ) : null}
      <button type="button" className="btn btn-sm btn-outline-primary" onClick={() => setOpen(false)}>
        Leave it
      </button>
      {problem ? (
        <div className="invalid-feedback" id={`${id}-error`} role="alert">
          {problem}
        </div>
      ) : null}
    </div>
  );
}
