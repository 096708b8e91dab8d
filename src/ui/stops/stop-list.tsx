'use client';
import Button from 'react-bootstrap/Button';
import type { z } from 'zod';
import { STOP_TITLE, type StopCode } from '@/domain/stops';
import { Field } from '../shared/field';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';
import { newId } from '../shared/new-id';

export interface StopShown {
  sortieId: string;
  subjectId: string;
  /** What it was: landing 3, an item, the flight. */
  name: string;
  code: StopCode;
  words: string;
  reason: string | null;
}
type Send = (form: unknown) => Promise<ActionResult>;

/** What was flown past a stop. The record is kept, the reason asked for once, and it proves nothing of a safety item. */
export function StopList({
  stops,
  explain,
}: {
  stops: StopShown[];
  /** Null = read only. */
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
            ) : explain ? (
              <DeskReason
                of={{
                  schema: async () => (await import('@/domain/capture')).StopExplainedAtDesk,
                  type: 'stop-explained',
                  payload: {},
                }}
                sortieId={first.sortieId}
                subjectId={id}
                label={`Why it was flown: ${first.name}`}
                hint="Asked once. It is shown in the debrief and at the signature; it makes no evidence of it."
                button="Save reason"
                title="Not saved"
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

interface ReasonEvent {
  requestId: string;
  sortieId: string;
  subjectId: string;
  type: string;
  payload: { reason: string };
}
/** A reason of a few words, recorded as an event of the flight. */
function DeskReason({
  of,
  sortieId,
  subjectId,
  label,
  hint,
  button,
  title,
  send,
}: {
  of: { schema: () => Promise<z.ZodType>; type: string; payload: object };
  sortieId: string;
  subjectId: string;
  label: string;
  hint: string;
  button: string;
  title: string;
  send: Send;
}) {
  const id = `${of.type}-${subjectId}`;
  const f = useActionForm<ReasonEvent>({
    schema: async () => (await of.schema()) as z.ZodType<unknown, ReasonEvent>,
    defaults: { sortieId, subjectId, type: of.type, payload: { ...of.payload, reason: '' } },
    fresh: () => ({ requestId: newId() }),
    action: send,
    draft: id,
  });
  return (
    <form className="d-grid gap-1" {...f.props}>
      <Problems problems={f.problems} title={title} />
      <Field label={label} id={id} error={f.error('payload.reason')} hint={hint}>
        <input maxLength={300} {...f.register('payload.reason')} />
      </Field>
      <Button type="submit" variant="outline-primary" size="sm" style={{ justifySelf: 'start' }} disabled={f.busy}>
        {button}
      </Button>
    </form>
  );
}

/** A limit of the school set aside for one flight, by the chief and with a reason. */
export function OverrideLimit({ sortieId, send }: { sortieId: string; send: Send }) {
  return (
    <DeskReason
      of={{
        schema: async () => (await import('@/domain/capture')).LimitAtDesk,
        type: 'limit-overridden',
        payload: { limit: 'house' as const },
      }}
      sortieId={sortieId}
      subjectId={sortieId}
      label="Set the school’s limit aside for this flight, because"
      hint="The school’s own limit only. A limitation of the flight manual is never set aside."
      button="Set it aside"
      title="Not set aside"
      send={send}
    />
  );
}
