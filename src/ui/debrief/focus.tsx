'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import type { ReactNode } from 'react';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import { localText } from '@/core/format';
import type { ActionResult } from '../shared/forms';
import { useTap } from '../shared/use-tap';
import { useZone } from '../shared/zone';
import { Problems } from '../shared/parts';
import { newId } from '../shared/new-id';

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
  const { tap, busy, problems } = useTap();
  const zone = useZone();
  const read = held?.acknowledgedAt
    ? `acknowledged by ${held.acknowledgedBy ?? 'the pilot'} ${localText(held.acknowledgedAt, zone)}`
    : 'the pilot has not acknowledged it yet';
  const status = held
    ? `Debrief version ${held.version}, saved by ${held.createdBy} ${localText(held.createdAt, zone)}; ${read}.`
    : 'Not saved yet.';
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
            onClick={() => void tap(() => acknowledge(held.id))}
          >
            Read and discussed
          </Button>
        ) : null}
        <Problems problems={problems} title="Not acknowledged" />
        {files}
      </>
    ) : (
      <p className="mb-0">The instructor has not saved this debrief yet.</p>
    );
  }
  return <FocusForm sortieId={sortieId} held={held} suggested={suggested} save={save} status={status} files={files} />;
}

/** The two things, and a remark; each saving is a version. */
function FocusForm({
  sortieId,
  held,
  suggested,
  save,
  status,
  files,
}: Pick<Props, 'sortieId' | 'held' | 'suggested'> & {
  save: NonNullable<Props['save']>;
  status: string;
  files: ReactNode;
}) {
  const router = useRouter();
  const f = useActionForm({
    schema: async () => (await import('@/domain/debrief-forms')).DebriefForm,
    defaults: {
      requestId: '',
      first: held?.focus[0] ?? suggested[0] ?? '',
      second: held?.focus[1] ?? (held ? '' : (suggested[1] ?? '')),
      remark: held?.remark ?? '',
    },
    fresh: () => ({ requestId: newId() }),
    as: ({ requestId, first, second, remark }) => ({
      requestId,
      sortieId,
      focus: [first, second].map((x) => x.trim()).filter(Boolean),
      remark,
    }),
    fieldOf: { 'focus.0': 'first', 'focus.1': 'second' },
    action: save,
    // What was saved comes back with the page, as a version of its own.
    done: () => router.refresh(),
  });
  return (
    <form {...f.props} className="d-grid gap-2">
      <Field label="First" id="focus-1" error={f.error('first')}>
        <input maxLength={120} {...f.register('first')} />
      </Field>
      <Field label="Second, if there must be one" id="focus-2" error={f.error('second')}>
        <input maxLength={120} {...f.register('second')} />
      </Field>
      <Field label="Remark for the pilot" id="debrief-remark" error={f.error('remark')}>
        <textarea rows={2} maxLength={1000} {...f.register('remark')} />
      </Field>
      <Problems problems={f.problems} title="Not saved" />
      <p className="soft small mb-0" role="status">
        {status}
      </p>
      <div className="d-flex gap-3 align-items-center flex-wrap">
        <Button type="submit" variant="primary" disabled={f.busy}>
          {held ? 'Save as a new version' : 'Save this debrief'}
        </Button>
        {files}
      </div>
    </form>
  );
}
