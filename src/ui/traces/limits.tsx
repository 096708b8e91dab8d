'use client';
import { TriangleAlert } from 'lucide-react';
import { Link } from '../shared/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { dateText } from '@/core/format';
import { LIMIT_NAME, type LimitChannel } from '@/domain/words';
import { type ActionResult, runAction } from '../shared/forms';

export interface LimitLine {
  id: string;
  traceId: string;
  registration: string;
  channel: LimitChannel;
  limit: number;
  unit: string;
  peak: number;
  startS: number;
  durationS: number;
  mustDo: string;
  mustDoSource: string | null;
  flownOn: string;
  pilotName: string;
  released: { by: string; at: string; done: string } | null;
  releases: boolean;
}
type Release = (form: { exceedanceId: string; done: string }) => Promise<ActionResult>;

/** Limits passed: how far, how long, what must be done, and its release by a chief. */
export function Limits({
  limits,
  release,
  withTrace = false,
}: {
  limits: LimitLine[];
  release: Release;
  withTrace?: boolean;
}) {
  return (
    <ul className="list-unstyled mb-0 d-grid gap-3">
      {limits.map((l) => (
        <li key={l.id} className="limit">
          <div>
            <TriangleAlert size={18} aria-hidden className={l.released ? 'soft' : 'v-outside'} />{' '}
            <strong>
              {l.registration}: {LIMIT_NAME[l.channel]} passed
            </strong>{' '}
            <span className="soft">
              {dateText(l.flownOn)}, {l.pilotName}
            </span>
          </div>
          <div>
            <span className="mono">
              {amount(l)}
              {'\u00a0'}
              {l.unit}
            </span>{' '}
            where{' '}
            <span className="mono">
              {l.limit}
              {'\u00a0'}
              {l.unit}
            </span>{' '}
            is the limit, for{' '}
            <span className="mono">
              {l.durationS.toFixed(1)}
              {'\u00a0'}s
            </span>
            {withTrace ? (
              <>
                {' '}
                {'\u00b7'} <Link href={`/traces/${l.traceId}`}>see it</Link>
              </>
            ) : null}
          </div>
          <div className="small">
            {l.mustDo}
            {l.mustDoSource ? <span className="soft"> ({l.mustDoSource})</span> : null}
          </div>
          {l.released ? (
            <div className="small note-good">
              Released by {l.released.by}, {dateText(l.released.at)}: {l.released.done}
            </div>
          ) : l.releases ? (
            <ReleaseForm id={l.id} release={release} />
          ) : (
            <div className="small">
              <strong>Not released.</strong> A chief who neither flew nor taught this flight releases it.
            </div>
          )}
        </li>
      ))}
    </ul>
  );
}
const amount = (l: LimitLine): string => l.peak.toFixed(l.unit === 'g' ? 2 : 0);

function ReleaseForm({ id, release }: { id: string; release: Release }) {
  const router = useRouter();
  const [done, setDone] = useState('');
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const go = async () => {
    setBusy(true);
    setProblem('');
    const answer = await runAction(() => release({ exceedanceId: id, done }));
    setBusy(false);
    if (answer.ok) router.refresh();
    else setProblem(answer.problems[0]?.message ?? 'This was not done.');
  };
  return (
    <details className="mt-1" open={problem !== '' ? true : undefined}>
      <summary>Release the aeroplane {'\u2026'}</summary>
      <label className="form-label mb-1 small mt-2" htmlFor={`done-${id}`}>
        What was done, by whom, and where it is entered
      </label>
      <textarea
        id={`done-${id}`}
        rows={2}
        className={`form-control form-control-sm ${problem ? 'is-invalid' : ''}`}
        value={done}
        maxLength={500}
        aria-describedby={`done-${id}-say`}
        onChange={(e) => setDone(e.target.value)}
      />
      <div
        id={`done-${id}-say`}
        role={problem ? 'alert' : undefined}
        className={problem ? 'invalid-feedback d-block' : 'form-text'}
      >
        {problem || 'The aeroplane stays flagged until this is written. The entry stays for good.'}
      </div>
      <button type="button" className="btn btn-sm btn-primary mt-1" disabled={busy} onClick={() => void go()}>
        It is done: release it
      </button>
    </details>
  );
}
