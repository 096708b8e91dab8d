'use client';
import { Link } from '../shared/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import {
  clockText,
  dayText,
  localClock,
  localInstant,
  minutesText,
  weekday,
  fitWords,
  type FitSaid,
} from '@/core/schedule';
import { list, plural } from '@/core/format';
import { BOOKING_NAME, type BookingKind } from '@/domain/schedule';
import { type Goal, say } from '@/domain/words';
import { type ActionProblem, type ActionResult, runAction } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';
import { Verdict } from '../shared/verdict';
import { type BookAnswer, BookingForm, type FormFacts, type ProposalsAnswer, type Refused } from './booking-form';
import { type GridBlock, type GridColumn, ScheduleGrid } from './grid';

export interface Booking {
  id: string;
  kind: BookingKind;
  startsAt: string;
  endsAt: string;
  date: string;
  fromMin: number;
  toMin: number;
  split: GridBlock['split'];
  pilotId: string | null;
  pilotName: string | null;
  instructorId: string | null;
  instructorName: string | null;
  airframeId: string | null;
  registration: string | null;
  checkoutId: string | null;
  goals: Goal[];
  passengers: number;
  note: string;
  version: number;
  masked: boolean;
  mine: boolean;
  fit: { word: string; said: FitSaid } | null;
  hit: string[];
}
export interface ScheduleFacts extends FormFacts {
  days: readonly {
    date: string;
    name: string;
    today: boolean;
    past: boolean;
    sunriseMin: number | null;
    sunsetMin: number | null;
    wind: GridColumn['wind'];
  }[];
  bookings: readonly Booking[];
  nowMin: number;
  openFromMin: number;
  openToMin: number;
  main: string;
  staff: boolean;
  now: string;
  me: string;
  away: readonly {
    id: string;
    who: string;
    name: string;
    kind: string;
    from: string;
    to: string | null;
    why: string;
  }[];
  wishes: readonly {
    id: string;
    pilotId: string;
    pilotName: string;
    checkoutId: string | null;
    registration: string | null;
    goals: readonly Goal[];
    minutes: number;
    fromDate: string;
    toDate: string;
    note: string;
  }[];
  windows: Record<string, readonly { weekday: number; fromMin: number; toMin: number }[]>;
}
type Booked = (form: unknown) => Promise<BookAnswer | Refused>;
interface Props {
  facts: ScheduleFacts;
  view: 'week' | 'day';
  whose: string;
  start: { checkoutId?: string; wishId?: string; kind?: BookingKind; pilotId?: string; airframeId?: string } | null;
  book: Booked;
  move: Booked;
  cancel: Booked;
  propose: (form: unknown) => Promise<ProposalsAnswer | Refused>;
  leave: (id: string) => Promise<ActionResult>;
  wait: (form: unknown) => Promise<ActionResult>;
}
interface Wanted {
  bookingId: string;
  version: number;
  startsAt: string;
  minutes: number;
  airframeId?: string;
  instructorId?: string;
}
const FIT: Record<string, 'within' | 'edge' | 'outside' | 'not-seen'> = {
  wanted: 'within',
  fits: 'within',
  light: 'edge',
  'too-much': 'outside',
  unknown: 'not-seen',
};

/** The schedule as it is worked on: blocks are dragged, refusals say why and offer the nearest free time. */
export function Schedule({ facts, view, whose, start, book, move, cancel, propose, leave, wait }: Props) {
  const router = useRouter();
  const [selected, setSelected] = useState<string | null>(null);
  const [fresh, setFresh] = useState<{
    date: string;
    minutes: number | null;
    checkoutId?: string;
    airframeId?: string;
    instructorId?: string;
    wishId?: string;
    length?: number;
    kind?: BookingKind;
    pilotId?: string;
  } | null>(start ? { date: facts.days.find((d) => !d.past)?.date ?? facts.today, minutes: null, ...start } : null);
  const [refused, setRefused] = useState<{
    wanted: Wanted;
    problems: ActionProblem[];
    nearest: { from: string; to: string } | null;
  } | null>(null);
  const [said, setSaid] = useState('');
  const [busy, setBusy] = useState(false);
  const lens = whose.startsWith('by-') ? whose.slice(3) : null;
  const shown = facts.bookings.filter(
    (b) =>
      whose === 'all' ||
      lens !== null ||
      (whose === 'mine' && b.mine) ||
      b.instructorId === whose ||
      b.airframeId === whose,
  );
  const shut = (key: string, date: string): GridColumn['shut'] => {
    const of = facts.away
      .filter((a) => a.who === key)
      .flatMap((a) => {
        const [from, to] = [
          localClock(a.from, facts.zone),
          a.to === null ? { date: '9999-12-31', minutes: 0 } : localClock(a.to, facts.zone),
        ];
        return from.date <= date && to.date >= date
          ? [
              {
                fromMin: from.date === date ? from.minutes : 0,
                toMin: to.date === date ? to.minutes : 1440,
                why: a.why,
              },
            ]
          : [];
      });
    const windows = facts.windows[key];
    if (!windows || windows.length === 0) return of;
    const open = windows.filter((w) => w.weekday === weekday(date)).sort((a, b) => a.fromMin - b.fromMin);
    const gaps: GridColumn['shut'] = [];
    let at = 0;
    for (const w of open) {
      if (w.fromMin > at) gaps.push({ fromMin: at, toMin: w.fromMin, why: '' });
      at = Math.max(at, w.toMin);
    }
    if (at < 1440) gaps.push({ fromMin: at, toMin: 1440, why: '' });
    return [...of, ...gaps];
  };
  const one = facts.days[0];
  const person = facts.people.find((x) => x.userId === whose || (whose === 'mine' && x.userId === facts.me));
  const airKey = facts.airframes.some((a) => a.id === whose) ? `a:${whose}` : null;
  const columns: GridColumn[] =
    view === 'week'
      ? facts.days.map((d) => ({
          key: d.date,
          name: d.name,
          line: sunLine(d),
          today: d.today,
          wind: d.wind,
          sunriseMin: d.sunriseMin,
          sunsetMin: d.sunsetMin,
          shut: airKey ? shut(airKey, d.date) : person ? shut(person.key, d.date) : [],
        }))
      : one
        ? lens === 'aeroplane'
          ? facts.airframes.map((a) => ({
              key: a.id,
              name: a.registration,
              line: a.typeName,
              today: one.today,
              wind: [],
              sunriseMin: one.sunriseMin,
              sunsetMin: one.sunsetMin,
              shut: shut(`a:${a.id}`, one.date),
            }))
          : [
              ...facts.people
                .filter((x) => x.instructor)
                .map((x) => ({
                  key: x.userId ?? x.key,
                  name: x.name,
                  line: 'instructor',
                  today: one.today,
                  wind: one.wind,
                  sunriseMin: one.sunriseMin,
                  sunsetMin: one.sunsetMin,
                  shut: shut(x.key, one.date),
                })),
              {
                key: '',
                name: 'Without instructor',
                line: 'hire, own practice',
                today: one.today,
                wind: one.wind,
                sunriseMin: one.sunriseMin,
                sunsetMin: one.sunsetMin,
                shut: [],
              },
            ]
        : [];
  const blocks: GridBlock[] = shown
    .map((b) => ({
      ...b,
      column: view === 'week' ? b.date : lens === 'aeroplane' ? (b.airframeId ?? '') : (b.instructorId ?? ''),
      movable: !b.masked && b.startsAt > facts.now && (facts.staff || b.mine),
    }))
    .filter((b) => columns.some((c) => c.key === b.column));
  const booking = facts.bookings.find((b) => b.id === selected) ?? null;

  const tryMove = async (wanted: Wanted) => {
    setBusy(true);
    const answer = await runAction(() => move(wanted));
    setBusy(false);
    if (!answer.ok) {
      setSaid('');
      return setRefused({ wanted, problems: answer.problems, nearest: (answer as Refused).nearest ?? null });
    }
    setRefused(null);
    setSaid(
      `Moved to ${when(wanted.startsAt)}.${answer.warnings.length > 0 ? ` ${answer.warnings.map((w) => w.message).join(' ')}` : ''}`,
    );
    router.refresh();
  };
  const when = (iso: string) => `${dayText(localClock(iso, facts.zone).date)} ${clockText(iso, facts.zone)}`;
  const moved = (id: string, column: string, fromMin: number) => {
    const b = facts.bookings.find((x) => x.id === id);
    if (!b) return;
    setSelected(id);
    const date = view === 'week' ? column : b.date;
    void tryMove({
      bookingId: id,
      version: b.version,
      startsAt: localInstant(date, fromMin, facts.zone),
      minutes: b.toMin - b.fromMin,
      ...(view === 'day' && lens === 'aeroplane' && column !== b.airframeId ? { airframeId: column } : {}),
      ...(view === 'day' && lens !== 'aeroplane' && column !== '' && column !== b.instructorId
        ? { instructorId: column }
        : {}),
    });
  };
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
          choose={(id) => {
            setSelected(id);
            setFresh(null);
            setRefused(null);
          }}
          empty={(column, minutes) => {
            setSelected(null);
            setRefused(null);
            setFresh(
              view === 'week'
                ? { date: column, minutes }
                : {
                    date: one?.date ?? facts.today,
                    minutes,
                    ...(lens === 'aeroplane' ? { airframeId: column } : column ? { instructorId: column } : {}),
                  },
            );
          }}
          moved={moved}
        />
        <p className="small soft mb-0 mt-2">
          Filled part of a block: in the air. Bars at the left: wind across on {facts.main}, wider is stronger, hatched
          is an outlook. Shaded: before sunrise and after sunset. Wind on a block: filled suits, half is too light for
          the lesson, barred is over a limit, dash is too far ahead. The station is simulated; look at the real forecast
          before you fly.
        </p>
      </div>
      <aside className="grid" aria-label="Booking">
        {refused ? (
          <Panel title="Not moved">
            <Problems problems={refused.problems} title="In the way" />
            {refused.nearest ? (
              <div className="note-good mt-2">
                <p className="mb-1">
                  Everybody is free <b>{when(refused.nearest.from)}</b>, the nearest to what you wanted.
                </p>
                <button
                  type="button"
                  className="btn btn-primary btn-sm"
                  disabled={busy}
                  onClick={() => refused.nearest && void tryMove({ ...refused.wanted, startsAt: refused.nearest.from })}
                >
                  Move to {when(refused.nearest.from)}
                </button>
              </div>
            ) : (
              <p className="mt-2">
                No time in the three weeks around it has everybody free. Try another aeroplane or instructor.
              </p>
            )}
            <button type="button" className="btn btn-link btn-sm p-0 mt-2" onClick={() => setRefused(null)}>
              Leave it where it was
            </button>
          </Panel>
        ) : null}
        <p role="status" className={said ? 'note-good mb-0' : 'visually-hidden'}>
          {said}
        </p>
        {fresh ? (
          <Panel title="New booking">
            <BookingForm
              key={JSON.stringify(fresh)}
              facts={facts}
              start={fresh}
              book={book}
              propose={propose}
              wait={wait}
              done={(a) => {
                setFresh(null);
                setSelected(a.bookingId);
                setSaid(`Booked.${a.warnings.length > 0 ? ` ${a.warnings.map((w) => w.message).join(' ')}` : ''}`);
              }}
            />
            <button type="button" className="btn btn-link btn-sm p-0 mt-2" onClick={() => setFresh(null)}>
              Leave it
            </button>
          </Panel>
        ) : booking ? (
          <Details
            key={booking.id + booking.version}
            b={booking}
            facts={facts}
            cancel={cancel}
            tryMove={tryMove}
            busy={busy}
          />
        ) : (
          <Panel title="Booking">
            <p className="soft">Choose a block, take one and move it, or tap a free place.</p>
            <button
              type="button"
              className="btn btn-primary"
              onClick={() => setFresh({ date: facts.days.find((d) => !d.past)?.date ?? facts.today, minutes: null })}
            >
              New booking
            </button>
          </Panel>
        )}
        {facts.wishes.length > 0 ? (
          <Panel title="Waiting">
            <ul className="plain-list">
              {facts.wishes.map((w) => (
                <li key={w.id}>
                  <b>{w.pilotName}</b> {w.minutes} min{w.registration ? ` in ${w.registration}` : ''},{' '}
                  {dayText(w.fromDate)} to {dayText(w.toDate)}
                  {w.note ? `: ${w.note}` : ''}
                  <br />
                  <button
                    type="button"
                    className="btn btn-link btn-sm p-0"
                    onClick={() => {
                      setSelected(null);
                      setFresh({
                        date: w.fromDate < facts.today ? facts.today : w.fromDate,
                        minutes: null,
                        wishId: w.id,
                        length: w.minutes,
                        ...(w.checkoutId ? { checkoutId: w.checkoutId } : { kind: 'hire' as const }),
                      });
                    }}
                  >
                    Find a slot<span className="visually-hidden"> for {w.pilotName}</span>
                  </button>{' '}
                  <button
                    type="button"
                    className="btn btn-link btn-sm p-0 ms-2"
                    onClick={() => void runAction(() => leave(w.id)).then(() => router.refresh())}
                  >
                    take off the list<span className="visually-hidden">, {w.pilotName}</span>
                  </button>
                </li>
              ))}
            </ul>
          </Panel>
        ) : null}
        {facts.away.length > 0 ? (
          <Panel title="Away and down">
            <ul className="plain-list small">
              {facts.away.map((a) => (
                <li key={a.id}>
                  <b>{a.name}</b> {a.kind === 'away' ? 'away' : 'down'}{' '}
                  {a.to === null
                    ? `since ${dayText(localClock(a.from, facts.zone).date)}`
                    : `${when(a.from)} to ${when(a.to)}`}
                  : {a.why}
                  {a.kind === 'exceedance' || a.kind === 'grounded' ? (
                    <>
                      {' '}
                      <Link href={a.kind === 'grounded' ? '/board#grounded' : '/board#limits'}>see it</Link>
                    </>
                  ) : null}
                </li>
              ))}
            </ul>
          </Panel>
        ) : null}
      </aside>
    </div>
  );
}

const sunLine = (d: { sunriseMin: number | null; sunsetMin: number | null; wind: GridColumn['wind'] }): string => {
  const mid = d.wind.find((w) => w.fromMin >= 12 * 60) ?? d.wind[0];
  return mid ? mid.text : d.sunsetMin === null ? '' : `sunset ${minutesText(d.sunsetMin)}`;
};

function Details({
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
  const router = useRouter();
  const [reason, setReason] = useState<string | null>(null);
  const [problem, setProblem] = useState('');
  const [date, setDate] = useState(b.date);
  const [at, setAt] = useState(minutesText(b.fromMin));
  const [frame, setFrame] = useState(b.airframeId ?? '');
  const ahead = b.startsAt > facts.now;
  const minutes = b.toMin - b.fromMin;
  return (
    <Panel
      title={`${BOOKING_NAME[b.kind].charAt(0).toUpperCase()}${BOOKING_NAME[b.kind].slice(1)}: ${b.pilotName ?? b.registration ?? ''}`}
    >
      <p className="mb-1">
        <b>
          {dayText(b.date)} {minutesText(b.fromMin)} to {minutesText(b.toMin)}
        </b>
        , {b.registration ?? 'no aeroplane'}
        {b.instructorName ? `, with ${b.instructorName}` : ''}
        {b.passengers > 0 ? `, ${plural(b.passengers, 'passenger')}` : ''}
        {b.goals.length > 0 ? `. For ${list(b.goals.map(say))}` : ''}.
      </p>
      {b.split && b.airframeId ? (
        <p className="small soft mb-1">
          {[
            b.split.brief ? `brief ${b.split.brief}` : '',
            `prepare ${b.split.prepare}`,
            `fly ${b.split.flight}`,
            b.split.debrief ? `debrief ${b.split.debrief}` : '',
          ]
            .filter(Boolean)
            .join(', ')}{' '}
          min: airborne from about {minutesText(b.fromMin + b.split.brief + b.split.prepare)}.
        </p>
      ) : null}
      {b.fit ? (
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
      {b.note ? <p className="mb-1">{b.note}</p> : null}
      <p className="d-flex gap-3 flex-wrap my-2">
        {b.checkoutId ? (
          <>
            <Link href={`/checkouts/${b.checkoutId}`}>Checkout</Link>
            <Link href={`/checkouts/${b.checkoutId}/brief`}>Brief</Link>
          </>
        ) : null}
        <a href={`/api/bookings/${b.id}/ics`} download>
          Calendar file
        </a>
      </p>
      {ahead ? (
        <form
          className="two"
          onSubmit={(e) => {
            e.preventDefault();
            const [h = 0, m = 0] = at.split(':').map(Number);
            void tryMove({
              bookingId: b.id,
              version: b.version,
              startsAt: localInstant(date, h * 60 + m, facts.zone),
              minutes,
              ...(frame !== (b.airframeId ?? '') && frame ? { airframeId: frame } : {}),
            });
          }}
        >
          <div>
            <label className="form-label" htmlFor="move-day">
              Move to
            </label>
            <input
              id="move-day"
              type="date"
              className="form-control"
              value={date}
              min={facts.today}
              onChange={(e) => setDate(e.target.value)}
            />
          </div>
          <div>
            <label className="form-label" htmlFor="move-at">
              at, local
            </label>
            <input
              id="move-at"
              type="time"
              step={facts.stepMin * 60}
              className="form-control"
              value={at}
              onChange={(e) => setAt(e.target.value)}
            />
          </div>
          {b.airframeId ? (
            <div>
              <label className="form-label" htmlFor="move-in">
                in
              </label>
              <select id="move-in" className="form-select" value={frame} onChange={(e) => setFrame(e.target.value)}>
                {facts.airframes.map((a) => (
                  <option key={a.id} value={a.id}>
                    {a.registration}
                    {a.down ? ' (down)' : ''}
                  </option>
                ))}
              </select>
            </div>
          ) : null}
          <div className="align-self-end">
            <button
              type="submit"
              className="btn btn-outline-primary"
              disabled={busy || (date === b.date && at === minutesText(b.fromMin) && frame === (b.airframeId ?? ''))}
            >
              Move
            </button>
          </div>
        </form>
      ) : null}
      {ahead ? (
        reason === null ? (
          <button type="button" className="btn btn-link btn-sm p-0 mt-2" onClick={() => setReason('')}>
            Cancel this booking
          </button>
        ) : (
          <form
            className="d-grid gap-1 mt-2"
            onSubmit={(e) => {
              e.preventDefault();
              void runAction(() => cancel({ bookingId: b.id, version: b.version, reason })).then((a) => {
                if (a.ok) router.refresh();
                else setProblem(a.problems[0]?.message ?? '');
              });
            }}
          >
            <label className="form-label" htmlFor="cancel-why">
              Why it is cancelled
            </label>
            <input
              id="cancel-why"
              className={`form-control${problem ? ' is-invalid' : ''}`}
              value={reason}
              onChange={(e) => setReason(e.target.value)}
            />
            {problem ? (
              <div className="invalid-feedback" role="alert">
                {problem}
              </div>
            ) : null}
            <div>
              <button type="submit" className="btn btn-outline-danger btn-sm">
                Cancel the booking
              </button>
            </div>
          </form>
        )
      ) : null}
    </Panel>
  );
}
