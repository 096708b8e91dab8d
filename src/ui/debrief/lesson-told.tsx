'use client';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import { CUT_SHORT, CUT_SHORT_WORDS, type CutShort } from '@/domain/words';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { newId } from '../shared/new-id';
import { Problems } from '../shared/parts';

type Send = (form: unknown) => Promise<ActionResult>;
interface Lines {
  done: string;
  next: string;
  watch: string;
}

/** Why a lesson ended early: one of a few words, said in the cockpit or here. */
export function CutShortForm({ sortieId, now, send }: { sortieId: string; now: CutShort | null; send: Send }) {
  const router = useRouter();
  const f = useActionForm<{ requestId: string; reason: string }>({
    schema: async () => (await import('@/domain/capture')).CutShortAtDesk,
    as: ({ requestId, reason }) => ({
      requestId,
      sortieId,
      subjectId: sortieId,
      type: 'cut-short',
      payload: { reason: reason === '' ? null : reason },
    }),
    fieldOf: { 'payload.reason': 'reason' },
    defaults: { requestId: '', reason: now ?? '' },
    fresh: () => ({ requestId: newId() }),
    draft: `cut-short-${sortieId}`,
    also: ['reason'],
    done: () => router.refresh(),
    action: send,
  });
  return (
    <form {...f.props} className="d-flex gap-2 flex-wrap" style={{ alignItems: 'end' }}>
      <Problems problems={f.problems} title="Not saved" />
      <Field label="Cut short by" id="cut-short" error={f.error('reason')}>
        <select {...f.register('reason')}>
          <option value="">not cut short</option>
          {CUT_SHORT.map((c) => (
            <option key={c} value={c}>
              {CUT_SHORT_WORDS[c]}
            </option>
          ))}
        </select>
      </Field>
      <Button type="submit" variant="outline-primary" disabled={f.busy}>
        Save
      </Button>
    </form>
  );
}

const LINES = [
  ['done', 'Done', 'What was flown, and what stands.'],
  ['next', 'Next', 'Where to go on.'],
  ['watch', 'Watch', 'What may surprise who goes on.'],
] as const;

/** Three lines from who flew this lesson to who goes on. */
export function HandoverForm({
  sortieId,
  to,
  now,
  send,
}: {
  sortieId: string;
  to: string;
  now: Lines | null;
  send: Send;
}) {
  const f = useActionForm<Lines & { requestId: string }>({
    schema: async () => (await import('@/domain/capture')).HandedOverAtDesk,
    as: ({ requestId, ...payload }) => ({
      requestId,
      sortieId,
      subjectId: sortieId,
      type: 'handed-over',
      payload,
    }),
    fieldOf: { 'payload.done': 'done', 'payload.next': 'next', 'payload.watch': 'watch' },
    defaults: { requestId: '', ...(now ?? { done: '', next: '', watch: '' }) },
    fresh: () => ({ requestId: newId() }),
    draft: `handover-${sortieId}`,
    action: send,
  });
  return (
    <form {...f.props} className="d-grid gap-2">
      <Problems problems={f.problems} title="Not handed over" />
      {LINES.map(([key, label, hint]) => (
        <Field key={key} label={label} id={`handover-${key}`} hint={hint} error={f.error(key)}>
          <input maxLength={160} {...f.register(key)} />
        </Field>
      ))}
      <Button type="submit" variant="primary" style={{ justifySelf: 'start' }} disabled={f.busy}>
        Hand over to {to}
      </Button>
    </form>
  );
}
