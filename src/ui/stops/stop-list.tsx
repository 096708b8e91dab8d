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
              <DeskReason
                draftKey={`why-${id}`}
                label={`Why it was flown: ${first.name}`}
                hint="Asked once. It stands in the debrief and at the signature; it makes no evidence of it."
                button="Keep the reason"
                title="Not kept"
                event={(reason) => deskEvent('stop-explained', first.sortieId, id, author, { reason })}
                send={explain}
              />
            ) : (
              <div className="small soft">No reason given yet.</div>
            )}
          </li>
        );
      })}
    </ul>
  );
}

/** A reason of a few words, kept as an event of the flight. */
function DeskReason({
  draftKey,
  label,
  hint,
  button,
  title,
  event,
  send,
}: {
  draftKey: string;
  label: string;
  hint: string;
  button: string;
  title: string;
  event: (reason: string) => unknown;
  send: Send;
}) {
  const router = useRouter();
  const form = useForm({ defaultValues: { reason: '' } });
  const draft = useDraft(form, draftKey);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const keep = form.handleSubmit(async ({ reason }) => {
    setRest([]);
    if (reason.trim().length < 8)
      return form.setError('reason', { message: 'Say why, in a few words.' }, { shouldFocus: true });
    const answer = await runAction(() => send(event(reason.trim())));
    if (!answer.ok) return setRest(answer.problems);
    draft.clear();
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void keep(e)} noValidate className="d-grid gap-1">
      <Problems problems={rest} title={title} />
      <Field label={label} id={draftKey} error={errors.reason} hint={hint}>
        <input maxLength={300} {...form.register('reason')} />
      </Field>
      <button
        type="submit"
        className="btn btn-sm btn-outline-primary"
        style={{ justifySelf: 'start' }}
        disabled={isSubmitting}
      >
        {button}
      </button>
    </form>
  );
}

/** A limit of the school set aside for one flight, by the chief and with a reason. */
export function OverrideLimit({ sortieId, author, send }: { sortieId: string; author: string; send: Send }) {
  return (
    <DeskReason
      draftKey={`limit-${sortieId}`}
      label="Set the school’s limit aside for this flight, because"
      hint="The school’s own limit only. A limitation of the flight manual is never set aside."
      button="Set it aside"
      title="Not set aside"
      event={(reason) => deskEvent('limit-overridden', sortieId, sortieId, author, { limit: 'house', reason })}
      send={send}
    />
  );
}
