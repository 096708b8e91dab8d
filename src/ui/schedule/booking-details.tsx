'use client';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import Button from 'react-bootstrap/Button';
import { fixed, list, plural } from '@/core/format';
import { clockText, dayText, fitWords, localInstant, minutesText, typedDate, readClock } from '@/core/schedule';
import { BOOKING_NAME } from '@/domain/schedule';
import { say } from '@/domain/words';
import { useState } from 'react';
import { useActionForm } from '../shared/action-form';
import { Field } from '../shared/field';
import { Problems } from '../shared/parts';
import { Link } from '../shared/link';
import { DateInput, TimeInput } from '../shared/when-input';
import { Panel } from '../shared/parts';
import { Verdict } from '../shared/verdict';
import { FIT } from './fit';
import { type Booked, type Booking, type ScheduleFacts, type Wanted } from './facts';

export function BookingDetails({
  b,
  facts,
  cancel,
  tryMove,
  busy,
}: {
  b: Booking;
  facts: ScheduleFacts;
  cancel: Booked;
  tryMove: (w: Wanted) => Promise<void>;
  busy: boolean;
}) {
  const ahead = b.startsAt > facts.now;
  return (
    <Panel
      title={`${BOOKING_NAME[b.kind].charAt(0).toUpperCase()}${BOOKING_NAME[b.kind].slice(1)}: ${b.pilotName ?? b.registration ?? ''}`}
    >
      <p className="mb-1">
        <b>
          {dayText(b.date)} {minutesText(b.fromMin)} to {minutesText(b.toMin)}
        </b>
        , {b.registration ?? 'no aeroplane'}
        {b.aerodrome ? `, at ${facts.places.find((p) => p.ident === b.aerodrome)?.name ?? b.aerodrome}` : ''}
        {b.instructorName ? `, with ${b.instructorName}` : ''}
        {b.passengers > 0 ? `, ${plural(b.passengers, 'passenger')}` : ''}
        {b.goals.length > 0 ? `. For ${list(b.goals.map(say))}` : ''}.
      </p>
      {b.split && b.airframeId ? <SplitLine fromMin={b.fromMin} split={b.split} /> : null}
      {b.lesson && b.checkoutId ? <LessonLine lesson={b.lesson} checkoutId={b.checkoutId} zone={facts.zone} /> : null}
      {b.fit && b.hit.length === 0 ? (
        <p className="mb-1">
          <Verdict verdict={FIT[b.fit.word] ?? 'not-seen'}>{fitWords(b.fit.said)}</Verdict>
        </p>
      ) : null}
      {b.hit.length > 0 ? (
        <div className="trouble">
          <strong>Must be moved</strong>
          <ul>
            {b.hit.map((h) => (
              <li key={h}>{h}</li>
            ))}
          </ul>
        </div>
      ) : null}
      {b.aim ? (
        <p className="mb-1">
          <strong>Aim:</strong> {b.aim}
        </p>
      ) : null}
      {b.note ? <p className="mb-1">{b.note}</p> : null}
      <p className="d-flex gap-3 flex-wrap my-2">
        {b.checkoutId ? (
          <>
            <Link href={`/checkouts/${b.checkoutId}`}>Checkout</Link>
            <Link href={`/checkouts/${b.checkoutId}/brief?booking=${b.id}`}>
              {ahead ? 'Brief this lesson' : 'Brief'}
            </Link>
          </>
        ) : null}
        <a href={`/api/bookings/${b.id}/ics`} download>
          Calendar file
        </a>
      </p>
      {ahead ? <MoveForm b={b} facts={facts} tryMove={tryMove} busy={busy} /> : null}
      {ahead ? <CancelForm b={b} cancel={cancel} /> : null}
    </Panel>
  );
}

/** The lesson of a booking: its block times as they were tapped in the cockpit. */
function LessonLine({
  lesson,
  checkoutId,
  zone,
}: {
  lesson: NonNullable<Booking['lesson']>;
  checkoutId: string;
  zone: string;
}) {
  const { offBlock, onBlock } = lesson;
  return (
    <p className="mb-1">
      <Link href={`/checkouts/${checkoutId}/${lesson.flown ? `debrief?lesson=${lesson.lesson}` : 'brief'}`}>
        Lesson {lesson.lesson}
      </Link>
      :{' '}
      {offBlock && onBlock
        ? `block ${clockText(offBlock, zone)} to ${clockText(onBlock, zone)}, ${fixed((Date.parse(onBlock) - Date.parse(offBlock)) / 60_000)} min`
        : lesson.flown
          ? 'flown, block times not tapped'
          : 'briefed, not flown yet'}
      .
    </p>
  );
}

/** How the time of a booking is spent, and from when it is in the air. */
function SplitLine({ fromMin, split }: { fromMin: number; split: NonNullable<Booking['split']> }) {
  const parts = [
    split.brief ? `brief ${split.brief}` : '',
    `prepare ${split.prepare}`,
    `fly ${split.flight}`,
    split.debrief ? `debrief ${split.debrief}` : '',
  ].filter(Boolean);
  return (
    <p className="small soft mb-1">
      {parts.join(', ')} min: airborne from about {minutesText(fromMin + split.brief + split.prepare)}.
    </p>
  );
}

function MoveForm({
  b,
  facts,
  tryMove,
  busy,
}: {
  b: Booking;
  facts: ScheduleFacts;
  tryMove: (w: Wanted) => Promise<void>;
  busy: boolean;
}) {
  const [date, setDate] = useState(b.date);
  const [at, setAt] = useState(minutesText(b.fromMin));
  const [frame, setFrame] = useState(b.airframeId ?? '');
  const [wrong, setWrong] = useState<{ date?: string; at?: string }>({});
  return (
    <form
      className="two"
      onSubmit={(e) => {
        e.preventDefault();
        const minutes = readClock(at);
        const day = typedDate(date);
        setWrong({
          ...(day === null ? { date: 'Enter the date as 24 Nov 2026.' } : {}),
          ...(minutes === null ? { at: 'Enter the time as 14:25.' } : {}),
        });
        if (day === null || minutes === null) return;
        void tryMove({
          bookingId: b.id,
          version: b.version,
          startsAt: localInstant(day, minutes, facts.zone),
          minutes: b.toMin - b.fromMin,
          ...(frame !== (b.airframeId ?? '') && frame ? { airframeId: frame } : {}),
        });
      }}
    >
      <Field label="Move to" id="move-day" error={wrong.date ? { message: wrong.date } : undefined}>
        <DateInput value={date} min={facts.today} onChange={(e) => setDate(e.target.value)} />
      </Field>
      <Field label="at, local" id="move-at" error={wrong.at ? { message: wrong.at } : undefined}>
        <TimeInput stepMin={facts.stepMin} value={at} onChange={(e) => setAt(e.target.value)} />
      </Field>
      {b.airframeId ? (
        <div>
          <FormLabel htmlFor="move-in">in</FormLabel>
          <FormSelect id="move-in" value={frame} onChange={(e) => setFrame(e.target.value)}>
            {facts.airframes.map((a) => (
              <option key={a.id} value={a.id}>
                {a.registration}
                {a.down ? ' (down)' : ''}
              </option>
            ))}
          </FormSelect>
        </div>
      ) : null}
      <div className="align-self-end">
        <Button
          type="submit"
          variant="outline-primary"
          disabled={busy || (date === b.date && at === minutesText(b.fromMin) && frame === (b.airframeId ?? ''))}
        >
          Move
        </Button>
      </div>
    </form>
  );
}

function CancelForm({ b, cancel }: { b: Booking; cancel: Booked }) {
  const [open, setOpen] = useState(false);
  const f = useActionForm({
    schema: async () => (await import('@/domain/schedule')).CancelForm,
    defaults: { bookingId: b.id, version: b.version, reason: '' },
    action: cancel,
  });
  if (!open)
    return (
      <Button variant="link" size="sm" className="p-0 mt-2" onClick={() => setOpen(true)}>
        Cancel this booking
      </Button>
    );
  return (
    <form className="d-grid gap-1 mt-2" {...f.props}>
      <Problems problems={f.problems} title="Not cancelled" />
      <Field label="Why it is cancelled" id="cancel-why" error={f.error('reason')}>
        <input {...f.register('reason')} />
      </Field>
      <div>
        <Button type="submit" variant="outline-danger" size="sm" disabled={f.busy}>
          Cancel the booking
        </Button>
      </div>
    </form>
  );
}
