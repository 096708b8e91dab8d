'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { STOP_TITLE, type StopCode } from '@/domain/stops';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, useDraft } from '../shared/forms';
import { Problems } from '../shared/parts';

export interface StopShown {
  sortieId: string;
  subjectId: string;
  /** What it was: landing 3, an item, the flight. */
  name: string;
  code: StopCode;
  words: string;
  reason: string | null;
}
type Send = (event: unknown) => Promise<ActionResult>;

/** One event of a desk about a subject of a flight. */
const deskEvent = (type: string, sortieId: string, subjectId: string, author: string, payload: unknown) => ({
  eventId: crypto.randomUUID(),
  deviceId: crypto.randomUUID(),
  deviceSeq: 1,
  sortieId,
  subjectId,
  author,
  type,
  v: 1,
  deviceTime: new Date().toISOString(),
  payload,
});

/** What was flown past a stop. The record is kept, the reason asked for once, and it proves nothing of a safety item. */
export function StopList({
  stops,
  author,
  explain,
}: {
  stops: StopShown[];
  /** Who may give a reason; null = read only. */
  author: string | null;
  explain: Send | null;
}) {
  const subjects = [...new Set(stops.map((s) => s.subjectId))];
  return (
    <ul className="list-unstyled mb-0 d-grid gap-3">
      {subjects.map((id) => {
        const mine = stops.filter((s) => s.subjectId === id);
        const first = mine[0];
        if (!first) return null;
        return (
          <li key={id}>
            <strong>{first.name}</strong>
            <ul className="mb-1 ps-3">
              {mine.map((s) => (
                <li key={s.code + s.words}>
                  <span className="v-outside">{STOP_TITLE[s.code]}</span>: {s.words}.
                </li>
              ))}
            </ul>
            {first.reason ? (
              <div className="small">Why: {first.reason}</div>
            ) : author && explain ? (
              <ReasonForm stop={first} author={author} explain={explain} />
            ) : (
              <div className="small soft">No reason given yet.</div>
            )}
          </li>
        );
      })}
    </ul>
  );
}

function ReasonForm({ stop, author, explain }: { stop: StopShown; author: string; explain: Send }) {
  const router = useRouter();
  const form = useForm({ defaultValues: { reason: '' } });
  const draft = useDraft(form, `stop-${stop.subjectId}`);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async ({ reason }) => {
    setRest([]);
    if (reason.trim().length < 8)
      return form.setError('reason', { message: 'Say why, in a few words.' }, { shouldFocus: true });
    const answer = await runAction(() =>
      explain(deskEvent('stop-explained', stop.sortieId, stop.subjectId, author, { reason: reason.trim() })),
    );
    if (!answer.ok) return setRest(answer.problems);
    draft.clear();
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-1">
      <Problems problems={rest} title="Not kept" />
      <Field
        label={`Why it was flown: ${stop.name}`}
        id={`why-${stop.subjectId}`}
        error={errors.reason}
        hint="Asked once. It stands in the debrief and at the signature; it makes no evidence of it."
      >
        <input maxLength={300} {...form.register('reason')} />
      </Field>
      <button
        type="submit"
        className="btn btn-sm btn-outline-primary"
        style={{ justifySelf: 'start' }}
        disabled={isSubmitting}
      >
        Keep the reason
      </button>
    </form>
  );
}

/** A limit of the school set aside for one flight, by the chief and with a reason. */
export function OverrideLimit({ sortieId, author, send: keep }: { sortieId: string; author: string; send: Send }) {
  const router = useRouter();
  const form = useForm({ defaultValues: { reason: '' } });
  const draft = useDraft(form, `limit-${sortieId}`);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async ({ reason }) => {
    setRest([]);
    if (reason.trim().length < 8)
      return form.setError('reason', { message: 'Say why, in a few words.' }, { shouldFocus: true });
    const answer = await runAction(() =>
      keep(deskEvent('limit-overridden', sortieId, sortieId, author, { limit: 'house', reason: reason.trim() })),
    );
    if (!answer.ok) return setRest(answer.problems);
    draft.clear();
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-1">
      <Problems problems={rest} title="Not set aside" />
      <Field
        label="Set the school’s limit aside for this flight, because"
        id="limit-why"
        error={errors.reason}
        hint="The school’s own limit only. A limitation of the flight manual is never set aside."
      >
        <input maxLength={300} {...form.register('reason')} />
      </Field>
      <button
        type="submit"
        className="btn btn-sm btn-outline-primary"
        style={{ justifySelf: 'start' }}
        disabled={isSubmitting}
      >
        Set it aside
      </button>
    </form>
  );
}
