'use client';
import { Day } from '../shared/zone';
import FormLabel from 'react-bootstrap/FormLabel';
import Feedback from 'react-bootstrap/Feedback';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Finding } from '@/core/assess';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import { type ActionResult, typedNumber } from '../shared/forms';
import { Link } from '../shared/link';
import { Problems } from '../shared/parts';
import { useTap } from '../shared/use-tap';

export interface ShownFinding extends Finding {
  own: boolean;
  /** The page of the lab that explains it; null = none does. */
  lab: { href: string; words: string | null } | null;
  decided: { decision: string; reason: string; by: string; at: string } | null;
}
export interface FindingLink {
  id: string;
  label: string;
  href: string;
}
interface Props {
  checkoutId: string;
  lesson: number;
  findings: readonly ShownFinding[];
  links: readonly FindingLink[];
  /** Null for the pilot: what is said is the pilot's wording, and nothing can be decided. */
  decide: ((form: unknown) => Promise<ActionResult>) | null;
}

/**
 * What was found, why it is likely, what to fly because of it; each with its numbers and the landings that raised it.
 */
export function FindingList({ checkoutId, lesson, findings, links, decide }: Props) {
  const dismissed = findings.filter((f) => f.decided?.decision === 'dismissed');
  const closed = findings.filter((f) => f.state === 'closed' && f.decided?.decision !== 'dismissed');
  const open = findings.filter((f) => f.state === 'open' && f.decided?.decision !== 'dismissed');
  const item = (f: ShownFinding) => (
    <FindingItem key={f.id} f={f} links={links} checkoutId={checkoutId} lesson={lesson} decide={decide} />
  );
  return (
    <>
      {open.length === 0 ? (
        <p className="mb-2">No findings: nothing recorded stands out.</p>
      ) : (
        <ul className="finding-list">{open.map(item)}</ul>
      )}
      {decide ? <OwnFinding checkoutId={checkoutId} lesson={lesson} decide={decide} /> : null}
      {closed.length > 0 ? (
        <details className="mt-2">
          <summary>Closed, {closed.length}</summary>
          <ul className="finding-list">{closed.map(item)}</ul>
        </details>
      ) : null}
      {decide && dismissed.length > 0 ? (
        <details className="mt-2">
          <summary>Dismissed, {dismissed.length}</summary>
          <ul className="finding-list">{dismissed.map(item)}</ul>
        </details>
      ) : null}
    </>
  );
}

function FindingItem({
  f,
  links,
  checkoutId,
  lesson,
  decide,
}: { f: ShownFinding; links: readonly FindingLink[] } & Pick<Props, 'checkoutId' | 'lesson' | 'decide'>) {
  const router = useRouter();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  const { tap, busy, problems, setProblems } = useTap();
  const behind = links.filter((l) => f.evidence.includes(l.id));
  const word = f.decided?.decision;
  const send = async (decision: 'confirmed' | 'dismissed' | 'withdrawn') => {
    if (!decide) return;
    await tap(() => decide({ checkoutId, findingId: f.id, decision, reason, lesson, own: null }), {
      done: () => {
        setAsking(false);
        setReason('');
        router.refresh();
      },
    });
  };
  const field = `dismiss-${f.id}`;
  return (
    <li className={`finding${f.positive ? ' good' : f.state === 'closed' ? ' closed' : ''}`} data-finding={f.id}>
      <h3>
        {f.title}
        {f.state === 'closed' ? <span className="soft small"> {'\u00b7'} closed</span> : null}
        {word === 'confirmed' ? (
          <span className="soft small">
            {' '}
            {'\u00b7'} confirmed by {f.decided?.by}
          </span>
        ) : f.own ? (
          <span className="soft small">
            {' '}
            {'\u00b7'} {f.decided?.by}
            {'\u2019'}s own
          </span>
        ) : null}
        {decide && !f.forPilot ? <span className="v-edge small"> {'\u00b7'} not shown to the pilot</span> : null}
      </h3>
      <p className="mb-1">{decide ? f.instructor.charAt(0).toUpperCase() + f.instructor.slice(1) : f.pilot}</p>
      {decide && f.pilot !== f.instructor ? <p className="soft mb-1 small">To the pilot: {f.pilot}</p> : null}
      {f.positive ? null : (
        <dl className="finding-facts">
          {f.causes.length > 0 ? (
            <div>
              <dt>Likely</dt>
              <dd>
                {f.causes.map((c, i) => (
                  <span key={c}>
                    {i > 0 ? `; ${i === 1 ? 'or ' : ''}` : ''}
                    {i > 0 ? c.charAt(0).toLowerCase() + c.slice(1) : c}
                  </span>
                ))}
              </dd>
            </div>
          ) : null}
          <div>
            <dt>Next</dt>
            <dd>
              <strong>{f.next.title}</strong> ({f.next.minutes} min): {f.next.text}
            </dd>
          </div>
        </dl>
      )}
      <p className="small mb-1">
        {f.numbers.map((n, i) => (
          <span key={n.label}>
            {i > 0 ? ' \u00b7 ' : ''}
            <span className="soft">{n.label}</span> <span className="mono">{n.text}</span>
          </span>
        ))}
      </p>
      {f.lab ? (
        <p className="small mb-1">
          <Link href={f.lab.href}>See it in the lab</Link>
          {f.lab.words ? <span className="soft"> {f.lab.words}</span> : null}
        </p>
      ) : null}
      {behind.length > 0 ? (
        <details className="small">
          <summary>{behind.length} in evidence</summary>
          <p className="mb-0 mt-1">
            {behind.map((l) => (
              <a key={l.id} className="me-2 d-inline-block" href={l.href}>
                {l.label}
              </a>
            ))}
          </p>
        </details>
      ) : null}
      {f.positive || f.own ? null : (
        <p className="soft small mb-0">
          {f.state === 'closed'
            ? `${f.clean} without it since.`
            : `Closes after ${f.closes} without it; ${f.clean === 0 ? 'none yet' : `${f.clean} so far`}.`}
        </p>
      )}
      {decide ? (
        <div className="d-flex gap-2 flex-wrap align-items-end mt-2">
          {word === 'dismissed' ? (
            <>
              <span className="small">
                Dismissed by {f.decided?.by} on <Day at={f.decided?.at ?? ''} />: {f.decided?.reason}
              </span>
              <Button variant="outline-primary" size="sm" disabled={busy} onClick={() => void send('withdrawn')}>
                Undo
              </Button>
            </>
          ) : asking ? (
            <>
              <div style={{ flex: '1 1 240px' }}>
                <FormLabel htmlFor={field}>Why it is dismissed</FormLabel>
                <FormControl
                  id={field}
                  isInvalid={problems.length > 0}
                  value={reason}
                  maxLength={300}
                  aria-describedby={problems.length > 0 ? `${field}-error` : undefined}
                  aria-invalid={problems.length > 0}
                  onChange={(e) => setReason(e.target.value)}
                />
                {problems.map((p) => (
                  <Feedback key={p.message} id={`${field}-error`} type="invalid" role="alert">
                    {p.message}
                  </Feedback>
                ))}
              </div>
              <Button variant="primary" size="sm" disabled={busy} onClick={() => void send('dismissed')}>
                Dismiss
              </Button>
              <Button
                variant="outline-primary"
                size="sm"
                onClick={() => {
                  setAsking(false);
                  setProblems([]);
                }}
              >
                Cancel
              </Button>
            </>
          ) : f.own ? (
            <Button
              variant="outline-primary"
              size="sm"
              disabled={busy}
              onClick={() => void send('withdrawn')}
              aria-label={`Withdraw ${f.title}`}
            >
              Withdraw
            </Button>
          ) : (
            <>
              {word === 'confirmed' ? null : (
                <Button
                  variant="outline-primary"
                  size="sm"
                  disabled={busy}
                  onClick={() => void send('confirmed')}
                  aria-label={`Confirm ${f.title}`}
                >
                  Confirm
                </Button>
              )}
              <Button
                variant="outline-primary"
                size="sm"
                onClick={() => setAsking(true)}
                aria-label={`Dismiss ${f.title}`}
              >
                Dismiss
              </Button>
            </>
          )}
          {!asking && problems.length > 0 ? (
            <Feedback type="invalid" as="span" role="alert">
              {problems[0]?.message}
            </Feedback>
          ) : null}
        </div>
      ) : null}
    </li>
  );
}

/** A finding the instructor saw and no pattern has. */
function OwnFinding({
  checkoutId,
  lesson,
  decide,
}: {
  checkoutId: string;
  lesson: number;
  decide: NonNullable<Props['decide']>;
}) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const f = useActionForm({
    schema: async () => (await import('@/domain/debrief-forms')).DecideForm,
    defaults: { title: '', text: '', next: '', minutes: '10' },
    draft: `own-finding:${checkoutId}:${lesson}`,
    as: ({ title, text, next, minutes }) => ({
      checkoutId,
      findingId: 'own-new',
      decision: 'own',
      reason: '',
      lesson,
      own: { title, text, next: { title: next, text: '', minutes: typedNumber(minutes), where: 'circuit' } },
    }),
    fieldOf: {
      'own.title': 'title',
      'own.text': 'text',
      'own.next.title': 'next',
      'own.next.minutes': 'minutes',
    },
    action: decide,
    done: () => {
      f.form.reset();
      setOpen(false);
      router.refresh();
    },
  });
  if (!open)
    return (
      <Button variant="outline-primary" size="sm" onClick={() => setOpen(true)}>
        Add your own finding
      </Button>
    );
  return (
    <form {...f.props} className="fields mt-2" aria-label="Your own finding">
      <Field label="What" id="own-finding-title" error={f.error('title')}>
        <input maxLength={80} {...f.register('title')} />
      </Field>
      <Field label="What to fly because of it" id="own-finding-next" error={f.error('next')}>
        <input maxLength={80} {...f.register('next')} />
      </Field>
      <Field label="Minutes" id="own-finding-minutes" error={f.error('minutes')}>
        <input inputMode="numeric" {...f.register('minutes')} />
      </Field>
      <div style={{ gridColumn: '1 / -1' }}>
        <Field label="What you saw" id="own-finding-text" error={f.error('text')}>
          <textarea rows={2} maxLength={300} {...f.register('text')} />
        </Field>
      </div>
      <Problems problems={f.problems} title="Not added" />
      <div className="d-flex gap-2">
        <Button type="submit" variant="primary" size="sm" disabled={f.busy}>
          Add it
        </Button>
        <Button variant="outline-primary" size="sm" onClick={() => setOpen(false)}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
