'use client';
import Button from 'react-bootstrap/Button';
import { list } from '@/core/format';
import { addDays } from '@/core/recency';
import { clockText, dayText, fitWords, localClock, localInstant, minutesText, readClock } from '@/core/schedule';
import { BOOKING_KINDS, BOOKING_NAME, type BookingKind } from '@/domain/schedule';
import { say } from '@/domain/words';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, showProblems, useDraft } from '../shared/forms';
import { Problems } from '../shared/parts';
import { Verdict } from '../shared/verdict';
import type { BookAnswer, FormFacts, ProposalsAnswer, Refused } from './form-facts';
interface Values {
  requestId: string;
  kind: BookingKind;
  checkoutId: string;
  pilotId: string;
  instructorId: string;
  airframeId: string;
  date: string;
  start: string;
  minutes: string;
  passengers: string;
  surface: 'any' | 'asphalt' | 'grass' | 'water';
  note: string;
}
const FIT: Record<string, 'within' | 'edge' | 'outside' | 'not-seen'> = {
  wanted: 'within',
  fits: 'within',
  light: 'edge',
  'too-much': 'outside',
  unknown: 'not-seen',
};

/** A new booking: who, in what, when; the best three slots by the wind and what the lesson wants of it. */
export function BookingForm({
  facts,
  start,
  done,
  book,
  propose,
  wait,
}: {
  facts: FormFacts;
  start: {
    date: string;
    minutes: number | null;
    checkoutId?: string;
    kind?: BookingKind;
    airframeId?: string;
    instructorId?: string;
    pilotId?: string;
    wishId?: string;
    length?: number;
  };
  done: (answer: BookAnswer) => void;
  book: (form: unknown) => Promise<BookAnswer | Refused>;
  propose: (form: unknown) => Promise<ProposalsAnswer | Refused>;
  wait: (form: unknown) => Promise<ActionResult>;
}) {
  const router = useRouter();
  const first = facts.checkouts.find((c) => c.id === start.checkoutId);
  const initial: Values = {
    requestId: '',
    kind: start.kind ?? (facts.checkouts.length > 0 ? 'lesson' : 'hire'),
    checkoutId: first?.id ?? '',
    pilotId: start.pilotId ?? facts.pilotOnly ?? '',
    instructorId: start.instructorId ?? first?.instructorId ?? '',
    airframeId: start.airframeId ?? first?.airframeId ?? '',
    date: start.date,
    start: start.minutes === null ? '' : minutesText(start.minutes),
    minutes: start.length ? String(start.length) : '',
    passengers: '0',
    surface: 'any',
    note: '',
  };
  const form = useForm<Values>({ defaultValues: initial });
  const draft = useDraft(
    form,
    `booking:${start.date}:${start.minutes ?? ''}:${start.checkoutId ?? ''}:${start.wishId ?? ''}`,
    ['requestId'],
  );
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const [nearest, setNearest] = useState<{ from: string; to: string } | null>(null);
  const [slots, setSlots] = useState<ProposalsAnswer | null>(null);
  const [looking, setLooking] = useState(false);
  const { errors, isSubmitting } = form.formState;
  const kind = form.watch('kind');
  const checkoutId = form.watch('checkoutId');
  useEffect(() => {
    const c = facts.checkouts.find((x) => x.id === checkoutId);
    if (!c) return;
    if (!form.getValues('instructorId')) form.setValue('instructorId', c.instructorId);
    if (!form.getValues('airframeId')) form.setValue('airframeId', c.airframeId);
  }, [checkoutId, facts.checkouts, form]);
  const common = (v: Values) => {
    const c = v.kind === 'lesson' ? facts.checkouts.find((x) => x.id === v.checkoutId) : undefined;
    return {
      kind: v.kind,
      checkoutId: v.kind === 'lesson' && v.checkoutId ? v.checkoutId : null,
      pilotId: c?.pilotId ?? (v.pilotId || null),
      instructorId: v.kind === 'lesson' || v.kind === 'other' ? v.instructorId || null : null,
      airframeId: v.airframeId || null,
      passengers: Number(v.passengers || '0'),
      surface: v.surface,
    };
  };
  const send = async (v: Values, at: string | null) => {
    setRest([]);
    setNearest(null);
    const minutes = readClock(v.start);
    if (at === null && minutes === null) {
      form.setError(
        'start',
        { message: 'Give the start as hours and minutes, 09:30, or look for slots.' },
        { shouldFocus: true },
      );
      return;
    }
    const startsAt = at ?? localInstant(v.date, minutes ?? 0, facts.zone);
    const requestId = v.requestId || crypto.randomUUID();
    form.setValue('requestId', requestId);
    const length = v.minutes.trim() === '' ? (slots?.minutes ?? 90) : Number(v.minutes);
    const answer = await runAction(() =>
      book({ requestId, ...common(v), startsAt, minutes: length, note: v.note, waitingId: start.wishId ?? null }),
    );
    if (!answer.ok) {
      setRest(
        showProblems(
          form,
          answer.problems.map((p) => ({
            ...p,
            path: p.path === 'startsAt' ? 'start' : p.path === 'checkoutId' && v.kind !== 'lesson' ? 'pilotId' : p.path,
          })),
        ),
      );
      setNearest(answer.nearest ?? null);
      return;
    }
    draft.clear();
    form.reset({ ...initial, requestId: '' });
    done(answer);
    router.refresh();
  };
  const look = async () => {
    setLooking(true);
    setRest([]);
    const v = form.getValues();
    const answer = await runAction<Omit<ProposalsAnswer, 'ok'>>(() =>
      propose({ ...common(v), minutes: v.minutes.trim() === '' ? null : Number(v.minutes), fromDate: v.date, days: 7 }),
    );
    setLooking(false);
    if (!answer.ok) {
      setSlots(null);
      return setRest(
        showProblems(
          form,
          answer.problems.map((p) => ({
            ...p,
            path: p.path === 'startsAt' ? 'start' : p.path === 'pilotId' && v.kind === 'lesson' ? 'checkoutId' : p.path,
          })),
        ),
      );
    }
    setSlots(answer);
  };
  const [waits, setWaits] = useState('');
  const join = async () => {
    const v = form.getValues();
    const c = common(v);
    if (c.pilotId === null) {
      form.setError(
        v.kind === 'lesson' ? 'checkoutId' : 'pilotId',
        { message: 'Choose who waits.' },
        { shouldFocus: true },
      );
      return;
    }
    const answer = await runAction(() =>
      wait({
        requestId: crypto.randomUUID(),
        pilotId: c.pilotId,
        checkoutId: c.checkoutId,
        minutes: v.minutes.trim() === '' ? (slots?.minutes ?? 90) : Number(v.minutes),
        fromDate: v.date,
        toDate: addDays(v.date, 13),
        note: v.note,
      }),
    );
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    setWaits(`On the waiting list for two weeks from ${dayText(v.date)}.`);
    router.refresh();
  };
  const words = (s: { from: string; to: string }) =>
    `${dayText(localClock(s.from, facts.zone).date)} ${clockText(s.from, facts.zone)} to ${clockText(s.to, facts.zone)}`;
  return (
    <form
      onSubmit={(e) => void form.handleSubmit((v) => send(v, null))(e)}
      noValidate
      className="d-grid gap-2"
      aria-label="New booking"
    >
      <Problems problems={rest} title="Not booked" />
      {nearest ? (
        <div className="note-good">
          <p className="mb-1">
            Nearest free: <b>{words(nearest)}</b>
          </p>
          <Button variant="primary" size="sm" onClick={() => void send(form.getValues(), nearest.from)}>
            Book {words(nearest)}
          </Button>
        </div>
      ) : null}
      <div className="two">
        <Field label="What" id="kind" error={errors.kind}>
          <select {...form.register('kind')}>
            {BOOKING_KINDS.filter((k) => facts.pilotOnly === null || k !== 'other').map((k) => (
              <option key={k} value={k}>
                {BOOKING_NAME[k]}
              </option>
            ))}
          </select>
        </Field>
        {kind === 'lesson' ? (
          <Field label="Checkout" id="checkoutId" error={errors.checkoutId}>
            <select {...form.register('checkoutId')}>
              <option value="">Choose</option>
              {facts.checkouts.map((c) => (
                <option key={c.id} value={c.id}>
                  {c.pilotName}, {c.registration}, {list(c.goals.map(say))}
                </option>
              ))}
            </select>
          </Field>
        ) : (
          <Field label="Pilot" id="pilotId" error={errors.pilotId}>
            <select {...form.register('pilotId')}>
              <option value="">Choose</option>
              {facts.people
                .filter((x) => x.pilotId !== null && (facts.pilotOnly === null || x.pilotId === facts.pilotOnly))
                .map((x) => (
                  <option key={x.key} value={x.pilotId ?? ''}>
                    {x.name}
                  </option>
                ))}
            </select>
          </Field>
        )}
        {kind === 'lesson' || kind === 'other' ? (
          <Field label="Instructor" id="instructorId" error={errors.instructorId}>
            <select {...form.register('instructorId')}>
              <option value="">{kind === 'other' ? 'none' : 'Choose'}</option>
              {facts.people
                .filter((x) => x.instructor)
                .map((x) => (
                  <option key={x.key} value={x.userId ?? ''}>
                    {x.name}
                  </option>
                ))}
            </select>
          </Field>
        ) : null}
        <Field label="Aeroplane" id="airframeId" error={errors.airframeId}>
          <select {...form.register('airframeId')}>
            <option value="">{kind === 'other' ? 'none' : 'Choose'}</option>
            {facts.airframes.map((a) => (
              <option key={a.id} value={a.id}>
                {a.registration} {a.typeName}
                {a.down ? ' (down)' : ''}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Day" id="date" error={errors.date}>
          <input type="date" min={facts.today} {...form.register('date')} />
        </Field>
        <Field label="Start, local" id="start" error={errors.start}>
          <input type="time" step={facts.stepMin * 60} {...form.register('start')} />
        </Field>
        <Field label="Length" unit="min" id="minutes" error={errors.minutes} hint="empty: as lessons of this type took">
          <input inputMode="numeric" {...form.register('minutes')} />
        </Field>
        {kind === 'hire' ? (
          <Field label="Passengers" id="passengers" error={errors.passengers}>
            <input inputMode="numeric" {...form.register('passengers')} />
          </Field>
        ) : null}
        {kind === 'hire' || kind === 'currency' ? (
          <Field label="Runway" id="surface" error={errors.surface}>
            <select {...form.register('surface')}>
              {['any', 'asphalt', 'grass', 'water'].map((s) => (
                <option key={s} value={s}>
                  {s}
                </option>
              ))}
            </select>
          </Field>
        ) : null}
        <Field label="Note" id="book-note" error={errors.note}>
          <input {...form.register('note')} />
        </Field>
      </div>
      <div className="d-flex gap-2 flex-wrap">
        <Button type="submit" variant="primary" disabled={isSubmitting}>
          Book
        </Button>
        <Button variant="outline-primary" disabled={looking} onClick={() => void look()}>
          {looking ? 'Looking' : 'Best three slots'}
        </Button>
        {start.wishId ? null : (
          <Button variant="link" size="sm" onClick={() => void join()}>
            Put on the waiting list
          </Button>
        )}
        <span role="status" className="soft">
          {waits}
        </span>
      </div>
      {slots ? (
        <div role="status">
          <p className="small soft mb-1">
            {slots.best.length === 0
              ? `No free start in seven days for ${slots.minutes} min. Try another day, aeroplane or instructor, or the waiting list.`
              : `${slots.minutes} min: brief ${slots.split.brief}, prepare ${slots.split.prepare}, debrief ${slots.split.debrief}, the rest in the air${slots.split.lessons > 0 ? ` (medians of ${slots.split.lessons} lessons in the type)` : ' (the house\u2019s usual)'}. Best of ${slots.free} free starts in seven days:`}
          </p>
          <ol className="slots">
            {slots.best.map((s) => (
              <li key={s.from}>
                <div>
                  <b>{words(s)}</b>
                  <br />
                  <span className="small">
                    <Verdict verdict={FIT[s.fit.word] ?? 'not-seen'}>{fitWords(s.fit.said)}</Verdict>
                  </span>
                </div>
                <Button
                  variant="outline-primary"
                  size="sm"
                  onClick={() => void send(form.getValues(), s.from)}
                  aria-label={`Book ${words(s)}`}
                >
                  Book it
                </Button>
              </li>
            ))}
          </ol>
        </div>
      ) : null}
    </form>
  );
}
