'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type ActionResult, runAction } from '../shared/forms';

/** Takes a proposed version into force. */
export function AdoptForm({
  id,
  action,
}: {
  id: string;
  action: (form: unknown) => Promise<ActionResult<{ version: number; unchanged: boolean }>>;
}) {
  const router = useRouter();
  const [reason, setReason] = useState('');
  const [problem, setProblem] = useState('');
  return (
    <form
      className="d-flex gap-2 align-items-end mt-2"
      onSubmit={(e) => {
        e.preventDefault();
        void runAction(() => action({ id, reason })).then((a) => {
          if (a.ok) router.refresh();
          else setProblem(a.problems[0]?.message ?? '');
        });
      }}
    >
      <div className="flex-grow-1">
        <label className="form-label" htmlFor={`adopt-${id}`}>
          Reason
        </label>
        <input
          id={`adopt-${id}`}
          className={`form-control${problem ? ' is-invalid' : ''}`}
          value={reason}
          onChange={(e) => setReason(e.target.value)}
        />
        {problem ? (
          <div className="invalid-feedback" role="alert">
            {problem}
          </div>
        ) : null}
      </div>
      <button type="submit" className="btn btn-primary">
        Take it over
      </button>
    </form>
  );
}
