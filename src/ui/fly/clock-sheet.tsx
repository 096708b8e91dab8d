'use client';
import type { FlightClock, FuelFrom } from '@/core/fuel';
import { TIMER_MARKS, type TimerMark } from '@/domain/airwork';
import { CUT_SHORT, CUT_SHORT_WORDS, type CutShort } from '@/domain/words';
import { hm } from './hours';
import { Words } from './parts';
import { Sheet } from './sheet';

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

interface Props {
  clock: FlightClock;
  flowLPerH: number;
  /** Briefed; null = no fuel in the brief. */
  fuelL: number | null;
  registration: string;
  /** Off blocks or airborne was marked. */
  marked: boolean;
  has: (mark: TimerMark) => number;
  tap: (mark: TimerMark, at?: Date) => void;
  /** When the booking ends, ms. */
  ends: number;
  /** Why it ended before the lesson did, as said so far. */
  short: CutShort | null;
  cutShort: (reason: CutShort | null) => void;
  close: () => void;
}
/** The whole clock of a flight and its taps. */
export function ClockSheet({
  clock,
  flowLPerH,
  fuelL,
  registration,
  marked,
  has,
  tap,
  ends,
  short,
  cutShort,
  close,
}: Props) {
  return (
    <Sheet title="Clock of this flight" close={close}>
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
          <dd>{hm(clock.blockMin)}</dd>
        </div>
        <div>
          <dt>airborne</dt>
          <dd>{hm(clock.airborneMin)}</dd>
        </div>
        <div>
          <dt>booking left</dt>
          <dd>{hm(clock.bookingLeftMin)}</dd>
        </div>
        <div>
          <dt>fuel left, by the sheet’s {flowLPerH} L/h</dt>
          <dd>{fuelLeft(clock, fuelL, marked)}</dd>
        </div>
        <div>
          <dt>circuits left</dt>
          <dd>
            {clock.fuelFrom === 'unknown'
              ? 'not known'
              : `${clock.circuits}, ${clock.limitedBy === 'fuel' ? 'fuel limits' : 'booking limits'}`}
          </dd>
        </div>
        <div>
          <dt>a circuit, {clock.circuitLearned ? 'as flown today' : 'school figure'}</dt>
          <dd>{clock.circuitMin.toFixed(1)} min</dd>
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
      <Words
        title="Cut short by"
        options={CUT_SHORT}
        now={short}
        choose={cutShort}
        columns={3}
        name={(v) => CUT_SHORT_WORDS[v]}
      />
      <p className="mb-0" style={{ fontSize: 15 }}>
        Fuel is arithmetic from {fuelL} L briefed for {registration}. The gauges, the dipstick and you outrank it.
      </p>
    </Sheet>
  );
}

/** What is left to the reserve; or why it is not known, which says what would make it known. */
function fuelLeft(clock: FlightClock, fuelL: number | null, marked: boolean): string {
  if (clock.fuelLeftL !== null)
    return `${Math.floor(clock.fuelLeftL)} L, ${hm(clock.fuelTimeMin)} to the reserve${FUEL_FROM[clock.fuelFrom]}`;
  if (fuelL === null) return 'not known: no fuel in the brief';
  return marked ? 'not known: landings before the first mark' : 'not known: no off-block or take-off mark';
}
