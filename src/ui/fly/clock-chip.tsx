'use client';
import { useState } from 'react';
import { type ClockAlert, type FuelFrom, flightClock } from '@/core/fuel';
import { TIMER_MARKS, type TimerMark } from '@/domain/airwork';
import type { Folded, SortiePack } from '@/offline/protocol';
import type { SaveEvent } from './view';
import { Sheet, useTime } from './parts';

const ALERT: Record<Exclude<ClockAlert, null>, string> = {
  reserve: 'into the reserve: land',
  'fuel-unknown': 'fuel not known: mark off blocks',
  'booking-over': 'booking over',
  'last-circuit': 'last circuit',
};
const NAME: Record<TimerMark, string> = {
  'off-block': 'off blocks',
  'take-off': 'take-off',
  landed: 'landed',
  'on-block': 'on blocks',
  'booking-ends': 'booking ends',
};
/** What the fuel is counted from, where it is not off blocks. */
const FUEL_FROM: Record<FuelFrom, string> = {
  'off-block': '',
  'not-started': '; at the start, nothing marked yet',
  'take-off': '; counted from the take-off, no off-block mark',
  unknown: '',
};
const hm = (min: number | null): string =>
  min === null
    ? '–'
    : `${min < 0 ? '-' : ''}${Math.floor(Math.abs(min) / 60)}:${String(Math.floor(Math.abs(min) % 60)).padStart(2, '0')}`;

/**
 * The flight's clock in the strip: block time and circuits left; the whole of it, and its taps, in a panel. The alert
 * is words, without a sound.
 */
export function ClockChip({
  pack,
  clock,
  folded,
  saveEvent,
}: {
  pack: SortiePack;
  clock: NonNullable<SortiePack['clock']>;
  folded: Folded;
  saveEvent: SaveEvent;
}) {
  const [open, setOpen] = useState(false);
  const nowMs = useTime(5000);
  const c = flightClock({
    ...clock,
    marks: folded.marks.map((m) => ({ mark: m.mark, atMs: Date.parse(m.at) })),
    nowMs,
    landingsMs: folded.landings
      .flatMap((l) => (l.landing.endedAt ? [Date.parse(l.landing.endedAt)] : []))
      .sort((a, b) => a - b),
  });
  const has = (mark: TimerMark) => folded.marks.filter((m) => m.mark === mark).length;
  const tap = (mark: TimerMark, at = new Date()) =>
    void saveEvent('timer-marked', crypto.randomUUID(), { mark, at: at.toISOString() }).catch(() => undefined);
  const ends = nowMs + c.bookingLeftMin * 60_000;
  const running = c.blockMin !== null || c.fuelFrom === 'take-off';
  const runFor = c.blockMin ?? c.airborneMin;
  const marked = folded.marks.some((m) => m.mark === 'off-block' || m.mark === 'take-off');
  const fit = c.fuelFrom === 'unknown' ? 'circuits not known' : `${c.circuits} left`;
  return (
    <>
      <button
        type="button"
        className={c.alert ? 'alerting' : undefined}
        aria-label={`Flight clock. ${running ? `${hm(runFor)} ${c.blockMin === null ? 'airborne' : 'block'}, ${c.fuelFrom === 'unknown' ? 'circuits not known' : `${c.circuits} circuits left`}` : 'not running'}`}
        onClick={() => setOpen(true)}
      >
        {running ? `${hm(runFor)} · ${fit}` : 'clock'}
      </button>
      <span role="status" className={c.alert ? 'alert-word' : 'visually-hidden'}>
        {c.alert === 'fuel-unknown' && marked ? 'fuel not known' : c.alert ? ALERT[c.alert] : ''}
      </span>
      {open ? (
        <Sheet title="Clock of this flight" close={() => setOpen(false)}>
          <div className="taps t4" role="group" aria-label="Marks">
            {TIMER_MARKS.filter((m) => m !== 'booking-ends').map((m) => (
              <button key={m} type="button" className="tap" onClick={() => tap(m)}>
                {NAME[m]}
                <small>{has(m) > 0 ? `${has(m)} marked` : 'now'}</small>
              </button>
            ))}
          </div>
          <dl className="facts">
            <div>
              <dt>block</dt>
              <dd>{hm(c.blockMin)}</dd>
            </div>
            <div>
              <dt>airborne</dt>
              <dd>{hm(c.airborneMin)}</dd>
            </div>
            <div>
              <dt>booking left</dt>
              <dd>{hm(c.bookingLeftMin)}</dd>
            </div>
            <div>
              <dt>fuel left, by the sheet’s {clock.flowLPerH} L/h</dt>
              <dd>
                {c.fuelLeftL === null
                  ? clock.fuelL === null
                    ? 'not known: no fuel in the brief'
                    : marked
                      ? 'not known: landings before the first mark'
                      : 'not known: no off-block or take-off mark'
                  : `${Math.floor(c.fuelLeftL)} L, ${hm(c.fuelTimeMin)} to the reserve${FUEL_FROM[c.fuelFrom]}`}
              </dd>
            </div>
            <div>
              <dt>circuits left</dt>
              <dd>
                {c.fuelFrom === 'unknown'
                  ? 'not known'
                  : `${c.circuits}, ${c.limitedBy === 'fuel' ? 'fuel limits' : 'booking limits'}`}
              </dd>
            </div>
            <div>
              <dt>a circuit, {c.circuitLearned ? 'as flown today' : 'house figure'}</dt>
              <dd>{c.circuitMin.toFixed(1)} min</dd>
            </div>
          </dl>
          <div className="taps t2" role="group" aria-label="Booking">
            <button type="button" className="tap" onClick={() => tap('booking-ends', new Date(ends - 5 * 60_000))}>
              5 min less booking
            </button>
            <button type="button" className="tap" onClick={() => tap('booking-ends', new Date(ends + 5 * 60_000))}>
              5 min more booking
            </button>
          </div>
          <p className="mb-0" style={{ fontSize: 15 }}>
            Fuel is arithmetic from {clock.fuelL} L briefed for {pack.registration}. The gauges, the dipstick and you
            outrank it.
          </p>
        </Sheet>
      ) : null}
    </>
  );
}
