'use client';
import Button from 'react-bootstrap/Button';
import { localInstant } from '@/core/schedule';
import type { BookingKind } from '@/domain/schedule';
import { useRouter } from 'next/navigation';
import { useReducer, useRef } from 'react';
import { flushSync } from 'react-dom';
import { AwayList, RefusedMove, Waiting, whenText } from './beside';
import { type View, blocksOf, columnsOf, lensOf, withPlaced } from './columns';
import { type NewBooking, type SideStep, sideStart, sideStep } from './side-state';
import type { BookAnswer } from './form-facts';
import type { ActionResult } from '../shared/forms';
import { Refusal } from '../shared/refusal';
import { useTap } from '../shared/use-tap';
import { Panel } from '../shared/parts';
import { BookingDetails } from './booking-details';
import { BookingForm } from './booking-form';
import { type ProposalsAnswer, type Refused } from './form-facts';
import { DayList } from './day-list';
import type { Booked, Booking, ScheduleFacts, Wanted } from './facts';
import { ScheduleGrid } from './grid';
interface Props {
  facts: ScheduleFacts;
  view: View;
  whose: string;
  start: { checkoutId?: string; wishId?: string; kind?: BookingKind; pilotId?: string; airframeId?: string } | null;
  /** The booking the page's address names; null = none. */
  chosen: string | null;
  book: Booked;
  move: Booked;
  cancel: Booked;
  propose: (form: unknown) => Promise<ProposalsAnswer | Refused>;
  leave: (id: string) => Promise<ActionResult>;
  wait: (form: unknown) => Promise<ActionResult>;
}

/** Where a booking stands, as a move asks for it. */
const placeOf = (b: Booking): Omit<Wanted, 'version'> => ({
  bookingId: b.id,
  startsAt: b.startsAt,
  minutes: b.toMin - b.fromMin,
  ...(b.airframeId === null ? {} : { airframeId: b.airframeId }),
  ...(b.instructorId === null ? {} : { instructorId: b.instructorId }),
});

/** The schedule as it is worked on: blocks are dragged, refusals say why and offer the nearest free time. */
export function Schedule({ facts: read, view, whose, start, chosen, book, move, cancel, propose, leave, wait }: Props) {
  const router = useRouter();
  const moving = useTap();
  const leaving = useTap();
  const firstDay = read.days.find((d) => !d.past)?.date ?? read.today;
  const [side, step] = useReducer(
    sideStep,
    { fresh: start ? { date: firstDay, minutes: null, ...start } : null, selected: start ? null : chosen },
    sideStart,
  );
  const { selected, fresh, refused, said, undo, busy, placed } = side;
  const facts = withPlaced(read, placed);
  const lens = lensOf(whose);
  const columns = columnsOf(facts, view, whose);
  const blocks = blocksOf(facts, view, whose, columns);
  const booking = facts.bookings.find((b) => b.id === selected) ?? null;

  const tryMove = async (wanted: Wanted, undone = false) => {
    const was = facts.bookings.find((b) => b.id === wanted.bookingId);
    step({ type: 'moving', id: wanted.bookingId });
    await moving.tap<Omit<BookAnswer, 'ok'>>(() => move(wanted), {
      refused: ({ problems, nearest = null }) => step({ type: 'refused', wanted, problems, nearest }),
      done: ({ version, warnings }) => {
        const moved = `${undone ? 'Undone: back at' : 'Moved to'} ${whenText(wanted.startsAt, facts.zone)}.`;
        step({
          type: 'moved',
          said: [moved, ...warnings.map((w) => w.message)].join(' '),
          undo: was && !undone ? { ...placeOf(was), version } : null,
          placed: { ...wanted, version },
        });
        router.refresh();
      },
    });
  };
  const takeBack = () => {
    if (undo) void tryMove(undo, true);
  };
  const dropped = (id: string, column: string, fromMin: number) => {
    const b = facts.bookings.find((x) => x.id === id);
    if (!b) return;
    const was = lens === 'aeroplane' ? b.airframeId : b.instructorId;
    // A day's columns are aeroplanes or instructors; the one without an instructor takes nobody's place.
    const other = view === 'day' && column !== was && (lens === 'aeroplane' || column !== '');
    void tryMove({
      bookingId: id,
      version: b.version,
      startsAt: localInstant(view === 'week' ? column : b.date, fromMin, facts.zone),
      minutes: b.toMin - b.fromMin,
      ...(other ? { [lens === 'aeroplane' ? 'airframeId' : 'instructorId']: column } : {}),
    });
  };
  const inEmpty = (column: string, minutes: number | null): NewBooking => {
    if (view === 'week') return { date: column, minutes };
    const date = facts.days[0]?.date ?? facts.today;
    if (lens === 'aeroplane') return { date, minutes, airframeId: column };
    return column === '' ? { date, minutes } : { date, minutes, instructorId: column };
  };
  // On a phone what is chosen stands below the list: it is gone to.
  const beside = useRef<HTMLElement>(null);
  const show = (by: SideStep) => {
    flushSync(() => step(by));
    beside.current?.scrollIntoView({ block: 'start' });
    beside.current?.focus({ preventScroll: true });
  };
  // Known in the demo alone, by its simulated station.
  const windy = facts.days.some((d) => d.wind !== null && d.wind.length > 0);
  return (
    <div className="sch-page">
      <div className="panel">
        <ScheduleGrid
          columns={columns}
          blocks={blocks}
          openFromMin={facts.openFromMin}
          openToMin={facts.openToMin}
          stepMin={facts.stepMin}
          nowMin={facts.nowMin}
          selected={selected}
          main={facts.main}
          choose={(id) => step({ type: 'choose', id })}
          empty={(column, minutes) => step({ type: 'new', from: inEmpty(column, minutes) })}
          moved={dropped}
        />
        <DayList
          columns={columns}
          blocks={blocks}
          selected={selected}
          choose={(id) => show({ type: 'choose', id })}
          book={(column) => show({ type: 'new', from: inEmpty(column, null) })}
        />
        <p className="small soft mb-0 mt-2">
          <span className="of-grid">
            Filled part of a block: in the air.{' '}
            {windy ? `Bars at the left: crosswind on ${facts.main}, wider is stronger, hatched is an outlook. ` : ''}
            Shaded: before sunrise and after sunset.{' '}
          </span>
          {windy
            ? 'Wind on a booking: filled suits, half is too light for the lesson, barred is over a limit, dash is too far ' +
              'ahead. The station is simulated; look at the real forecast before you fly.'
            : 'No forecast is known here: bookings say nothing of the wind.'}
        </p>
      </div>
      <aside className="grid" aria-label="Booking" ref={beside} tabIndex={-1}>
        {refused ? (
          <RefusedMove
            refused={refused}
            zone={facts.zone}
            busy={busy}
            move={(w) => void tryMove(w)}
            leave={() => step({ type: 'leave-refused' })}
          />
        ) : null}
        <div className={said ? 'note-good' : 'visually-hidden'}>
          <p role="status" className="mb-0">
            {said}
          </p>
          {undo ? (
            <Button variant="link" size="sm" className="px-0" disabled={busy} onClick={takeBack}>
              Undo the move
            </Button>
          ) : null}
        </div>
        {fresh ? (
          <Panel title="New booking">
            <BookingForm
              key={JSON.stringify(fresh)}
              facts={facts}
              start={fresh}
              book={book}
              propose={propose}
              wait={wait}
              done={(a) =>
                step({
                  type: 'booked',
                  id: a.bookingId,
                  said: ['Booked.', ...a.warnings.map((w) => w.message)].join(' '),
                })
              }
            />
            <Button variant="link" size="sm" className="p-0 mt-2" onClick={() => step({ type: 'leave-new' })}>
              Cancel
            </Button>
          </Panel>
        ) : booking ? (
          <BookingDetails
            key={booking.id + booking.version}
            b={booking}
            facts={facts}
            cancel={cancel}
            tryMove={tryMove}
            busy={busy}
          />
        ) : (
          <Panel title="Booking">
            <p className="soft">Select a booking, drag one to move it, or tap a free time.</p>
            <Button variant="primary" onClick={() => step({ type: 'new', from: { date: firstDay, minutes: null } })}>
              New booking
            </Button>
          </Panel>
        )}
        <Waiting
          wishes={facts.wishes}
          today={facts.today}
          find={(from) => step({ type: 'new', from })}
          leave={(id) => void leaving.tap(() => leave(id))}
        />
        <Refusal said={leaving.refusal} />
        <AwayList away={facts.away} zone={facts.zone} />
      </aside>
    </div>
  );
}
