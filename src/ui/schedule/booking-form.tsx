'use client';
import Button from 'react-bootstrap/Button';
import { dayText } from '@/core/schedule';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useActionForm } from '../shared/action-form';
import { type ActionProblem, type ActionResult, showProblems } from '../shared/forms';
import { Problems } from '../shared/parts';
import { useTap } from '../shared/use-tap';
import { BookingFields } from './booking-fields';
import { type BookingStart, type BookingValues, bookForm, firstValues, slotsForm, wishForm } from './booking-values';
import type { BookAnswer, FormFacts, ProposalsAnswer, Refused } from './form-facts';
import { Slots, type Span, spanText } from './slots';
import { newId } from '../shared/new-id';

/** Minutes of a booking where no length is typed and no slot was looked for. */
const USUAL_MIN = 90;

interface Props {
  facts: FormFacts;
  start: BookingStart;
  done: (answer: BookAnswer) => void;
  book: (form: unknown) => Promise<BookAnswer | Refused>;
  propose: (form: unknown) => Promise<ProposalsAnswer | Refused>;
  wait: (form: unknown) => Promise<ActionResult>;
}

/** A new booking: who, in what, when; the best three slots by the wind and what the lesson needs of it. */
export function BookingForm({ facts, start, done, book, propose, wait }: Props) {
  const router = useRouter();
  const [nearest, setNearest] = useState<Span | null>(null);
  const [slots, setSlots] = useState<ProposalsAnswer | null>(null);
  const [kind, setKind] = useState(() => firstValues(facts, start).kind);
  const [waits, setWaits] = useState('');
  const [other, setOther] = useState<ActionProblem[]>([]);
  const look = useTap();
  const join = useTap();
  const usualMin = slots?.minutes ?? USUAL_MIN;
  const f = useActionForm<BookingValues, Omit<BookAnswer, 'ok'>>({
    schema: async () => (await import('@/domain/schedule')).BookForm,
    defaults: firstValues(facts, start),
    fresh: () => ({ requestId: newId() }),
    draft: `booking:${start.date}:${start.minutes ?? ''}:${start.checkoutId ?? ''}:${start.wishId ?? ''}`,
    also: ['kind', 'checkoutId', 'pilotId', 'instructorId', 'airframeId', 'surface', 'aerodrome'],
    as: (v) => bookForm(v, facts, usualMin, start.wishId ?? null),
    fieldOf: { startsAt: 'start', ...(kind === 'lesson' ? { pilotId: 'checkoutId' } : { checkoutId: 'pilotId' }) },
    action: (form) => {
      setNearest(null);
      setOther([]);
      return book(form);
    },
    refused: (answer) => setNearest(answer.nearest ?? null),
    done: (answer) => {
      done(answer);
      router.refresh();
    },
  });
  const { form } = f;
  const checkoutId = form.watch('checkoutId');
  const chosen = form.watch('kind');
  useEffect(() => setKind(chosen), [chosen]);
  useEffect(() => {
    const c = facts.checkouts.find((x) => x.id === checkoutId);
    if (!c) return;
    if (!form.getValues('instructorId')) form.setValue('instructorId', c.instructorId);
    if (!form.getValues('airframeId')) form.setValue('airframeId', c.airframeId);
  }, [checkoutId, facts.checkouts, form]);
  const beside = (problems: readonly ActionProblem[]) => {
    const person = kind === 'lesson' ? 'checkoutId' : 'pilotId';
    const at: Record<string, string> = { startsAt: 'start', fromDate: 'date', pilotId: person, checkoutId: person };
    setOther(
      showProblems(
        form,
        problems.map((p) => ({ ...p, path: at[p.path] ?? p.path })),
      ),
    );
  };
  const lookForSlots = () => {
    f.forget();
    setOther([]);
    return look.tap<Omit<ProposalsAnswer, 'ok'>>(() => propose(slotsForm(form.getValues(), facts)), {
      done: setSlots,
      refused: (answer) => {
        setSlots(null);
        beside(answer.problems);
      },
    });
  };
  const joinList = () => {
    f.forget();
    setOther([]);
    const v = form.getValues();
    return join.tap(() => wait(wishForm(v, facts, usualMin)), {
      done: () => {
        setWaits(`On the waiting list for two weeks from ${dayText(v.date)}.`);
        router.refresh();
      },
      refused: (answer) => beside(answer.problems),
    });
  };
  const bookAt = (at: string) => void f.send({ at });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        bookAt('');
      }}
      noValidate
      className="d-grid gap-2"
      aria-label="New booking"
    >
      <Problems problems={[...f.problems, ...other]} title="Not booked" />
      {nearest ? (
        <div className="note-good">
          <p className="mb-1">
            Nearest free: <b>{spanText(nearest, facts.zone)}</b>
          </p>
          <Button variant="primary" size="sm" onClick={() => bookAt(nearest.from)}>
            Book {spanText(nearest, facts.zone)}
          </Button>
        </div>
      ) : null}
      <BookingFields facts={facts} kind={kind} register={f.register} error={f.error} />
      <div className="d-flex gap-2 flex-wrap">
        <Button type="submit" variant="primary" disabled={f.busy}>
          Book
        </Button>
        <Button variant="outline-primary" disabled={look.busy} onClick={() => void lookForSlots()}>
          {look.busy ? 'Looking' : 'Best three slots'}
        </Button>
        {start.wishId ? null : (
          <Button variant="link" size="sm" disabled={join.busy} onClick={() => void joinList()}>
            Put on the waiting list
          </Button>
        )}
        <span role="status" className="soft">
          {waits}
        </span>
      </div>
      {slots ? <Slots slots={slots} zone={facts.zone} book={bookAt} /> : null}
    </form>
  );
}
