'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { SheetDifference } from '@/core/sheet';
import { DifferenceList } from '../hangar/findings';
import { type ActionProblem, type ActionResult, runAction } from '../shared/forms';
import { Problems } from '../shared/parts';

/** Moves a checkout to newer sheets, on purpose: the differences are read first and a reason is given. */
export function MoveForm({
  checkoutId,
  typeVersion,
  airframeVersion,
  differences,
  action,
}: {
  checkoutId: string;
  typeVersion: number | null;
  airframeVersion: number | null;
  differences: SheetDifference[];
  action: (form: unknown) => Promise<ActionResult>;
}) {
  const router = useRouter();
  const [reason, setReason] = useState('');
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState<ActionProblem[]>([]);
  const send = async () => {
    setBusy(true);
    const answer = await runAction(() => action({ checkoutId, typeVersion, airframeVersion, reason }));
    setBusy(false);
    if (answer.ok) router.refresh();
    else setTrouble(answer.problems);
  };
  const mine = trouble.find((p) => p.path === 'reason');
  return (
    <>
      <p className="mb-1">This checkout keeps its own version until you move it. What would change:</p>
      <DifferenceList differences={differences} />
      <Problems problems={trouble.filter((p) => p.path !== 'reason')} title="Not moved" />
      <div className="d-flex gap-2 mt-2" style={{ alignItems: 'start' }}>
        <div style={{ flex: 1 }}>
          <label className="form-label" htmlFor="move-reason">
            Why it moves
          </label>
          <input
            id="move-reason"
            className={`form-control${mine ? ' is-invalid' : ''}`}
            value={reason}
            aria-describedby="move-problem"
            onChange={(e) => setReason(e.target.value)}
          />
          <div className="invalid-feedback" id="move-problem" role="alert">
            {mine?.message}
          </div>
        </div>
        <button
          type="button"
          className="btn btn-outline-primary"
          style={{ marginTop: 24 }}
          disabled={busy}
          onClick={() => void send()}
        >
          {busy
            ? 'Moving'
            : `Move to ${[typeVersion ? `sheet version ${typeVersion}` : '', airframeVersion ? `airframe version ${airframeVersion}` : ''].filter(Boolean).join(', ')}`}
        </button>
      </div>
    </>
  );
}
