'use client';
import { Suspense, lazy, useState } from 'react';
import { type ClockAlert, flightClock } from '@/core/fuel';
import { type TimerMark } from '@/domain/airwork';
import type { Folded, SortiePack } from '@/offline/protocol';
import type { SaveEvent } from './view';
import { hm } from './hours';
import { useTime } from './parts';

const ALERT: Record<Exclude<ClockAlert, null>, string> = {
  reserve: 'into the reserve: land',
  'fuel-unknown': 'fuel not known: mark off blocks',
  'booking-over': 'booking over',
  'last-circuit': 'last circuit',
};
const ClockSheet = lazy(async () => ({ default: (await import('./clock-sheet')).ClockSheet }));

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
        aria-label={`Flight clock: ${running ? `${hm(runFor)} ${c.blockMin === null ? 'airborne' : 'block'}, ${c.fuelFrom === 'unknown' ? 'circuits not known' : `${c.circuits} circuits left`}` : 'not running'}`}
        onClick={() => setOpen(true)}
      >
        {running ? `${hm(runFor)} · ${fit}` : 'clock'}
      </button>
      <span role="status" className={c.alert ? 'alert-word' : 'visually-hidden'}>
        {c.alert === 'fuel-unknown' && marked ? 'fuel not known' : c.alert ? ALERT[c.alert] : ''}
      </span>
      {open ? (
        <Suspense fallback={null}>
          <ClockSheet
            clock={c}
            flowLPerH={clock.flowLPerH}
            fuelL={clock.fuelL}
            registration={pack.registration}
            marked={marked}
            has={has}
            tap={tap}
            ends={ends}
            short={folded.cutShort[pack.sortieId] ?? null}
            cutShort={(reason) => void saveEvent('cut-short', crypto.randomUUID(), { reason }).catch(() => undefined)}
            close={() => setOpen(false)}
          />
        </Suspense>
      ) : null}
    </>
  );
}
