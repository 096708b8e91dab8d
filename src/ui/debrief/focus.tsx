'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { instantText } from '@/core/format';
import { type ActionProblem, type ActionResult, runAction } from '../shared/forms';
import { Problems } from '../shared/parts';

export interface HeldDebrief {
  id: string;
  version: number;
  focus: string[];
  remark: string;
  createdBy: string;
  createdAt: string;
  acknowledgedAt: string | null;
  acknowledgedBy: string | null;
}
interface Props {
  sortieId: string;
  held: HeldDebrief | null;
  suggested: string[];
  save: ((form: unknown) => Promise<ActionResult<{ debriefId: string }>>) | null;
  acknowledge: ((id: string) => Promise<ActionResult>) | null;
}

/** What to think of next time, two things at most; kept with the debrief, printed, and acknowledged by the pilot. */
export function Focus({ sortieId, held, suggested, save, acknowledge }: Props) {
  const router = useRouter();
  const [first, setFirst] = useState(held?.focus[0] ?? suggested[0] ?? '');
  const [second, setSecond] = useState(held?.focus[1] ?? (held ? '' : (suggested[1] ?? '')));
  const [remark, setRemark] = useState(held?.remark ?? '');
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const [busy, setBusy] = useState(false);
  const [requestId, setRequestId] = useState(() => crypto.randomUUID());
  const send = async () => {
    if (!save || busy) return;
    setBusy(true);
    const answer = await runAction(() =>
      save({ requestId, sortieId, focus: [first, second].map((f) => f.trim()).filter(Boolean), remark }),
    );
    setBusy(false);
    if (!answer.ok) return setProblems(answer.problems);
    setProblems([]);
    setRequestId(crypto.randomUUID());
    router.refresh();
  };
  const said = (path: string) => problems.find((p) => p.path === path)?.message;
  const status = held
    ? `Debrief version ${held.version}, kept by ${held.createdBy} ${instantText(held.createdAt)}; ${held.acknowledgedAt ? `acknowledged by ${held.acknowledgedBy ?? 'the pilot'} ${instantText(held.acknowledgedAt)}` : 'the pilot has not acknowledged it yet'}.`
    : 'Not kept yet.';
  const files = held ? (
    <p className="mb-0">
      <a href={`/api/debriefs/${held.id}/pdf`}>Debrief as PDF</a>
    </p>
  ) : null;
  if (!save) {
    return held ? (
      <>
        {held.focus.length > 0 ? (
          <ol className="focus-list">
            {held.focus.map((f) => (
              <li key={f}>{f}</li>
            ))}
          </ol>
        ) : (
          <p>No focus was set.</p>
        )}
        {held.remark ? (
          <p className="mb-1" style={{ whiteSpace: 'pre-line' }}>
            {held.remark}
          </p>
        ) : null}
        <p className="soft small mb-2">{status}</p>
        {acknowledge && !held.acknowledgedAt ? (
          <Button
            variant="primary"
            className="mb-2"
            disabled={busy}
            onClick={() => {
              setBusy(true);
              void runAction(() => acknowledge(held.id)).then((a) => {
                setBusy(false);
                if (a.ok) router.refresh();
                else setProblems(a.problems);
              });
            }}
          >
            Read and talked through
          </Button>
        ) : null}
        <Problems problems={problems} title="Not acknowledged" />
        {files}
      </>
    ) : (
      <p className="mb-0">The instructor has not kept this debrief yet.</p>
    );
  }
  return (
    <>
      <div className="mb-2">
        <label className="form-label" htmlFor="focus-1">
          First
        </label>
        <input
          id="focus-1"
          className={`form-control${said('focus.0') ? ' is-invalid' : ''}`}
          value={first}
          maxLength={120}
          onChange={(e) => setFirst(e.target.value)}
        />
        {said('focus.0') ? (
          <div className="invalid-feedback" role="alert">
            {said('focus.0')}
          </div>
        ) : null}
      </div>
      <div className="mb-2">
        <label className="form-label" htmlFor="focus-2">
          Second, if there must be one
        </label>
        <input
          id="focus-2"
          className={`form-control${said('focus.1') ? ' is-invalid' : ''}`}
          value={second}
          maxLength={120}
          onChange={(e) => setSecond(e.target.value)}
        />
        {said('focus.1') ? (
          <div className="invalid-feedback" role="alert">
            {said('focus.1')}
          </div>
        ) : null}
      </div>
      <div className="mb-2">
        <label className="form-label" htmlFor="debrief-remark">
          Remark for the pilot
        </label>
        <textarea
          id="debrief-remark"
          className={`form-control${said('remark') ? ' is-invalid' : ''}`}
          rows={2}
          value={remark}
          maxLength={1000}
          onChange={(e) => setRemark(e.target.value)}
        />
        {said('remark') ? (
          <div className="invalid-feedback" role="alert">
            {said('remark')}
          </div>
        ) : null}
      </div>
      <Problems problems={problems.filter((p) => p.path === '')} title="Not kept" />
      <p className="soft small mb-2" role="status">
        {status}
      </p>
      <div className="d-flex gap-3 align-items-center flex-wrap">
        <Button variant="primary" disabled={busy} onClick={() => void send()}>
          {held ? 'Keep as a new version' : 'Keep this debrief'}
        </Button>
        {files}
      </div>
    </>
  );
}
