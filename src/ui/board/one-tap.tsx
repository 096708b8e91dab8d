'use client';
import Button from 'react-bootstrap/Button';
import { Link } from '../shared/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { clockText, dayText, localClock } from '@/core/schedule';
import { type BookAnswer, type ProposalsAnswer, type Refused } from '../schedule/form-facts';
import { runAction } from '../shared/forms';

interface Props {
  name: string;
  pilotId: string;
  kind: 'hire' | 'currency';
  airframeId: string;
  registration: string;
  through: string;
  today: string;
  zone: string;
  book: (form: unknown) => Promise<BookAnswer | Refused>;
  propose: (form: unknown) => Promise<ProposalsAnswer | Refused>;
}

/**
 * Books the best free slot for the flight that keeps or restores it; what cannot be booked is said, with the way to do
 * it by hand.
 */
export function OneTapBooking(p: Props) {
  const router = useRouter();
  const [state, setState] = useState<{ said: string; day: string } | null>(null);
  const [trouble, setTrouble] = useState<string[]>([]);
  const [busy, setBusy] = useState(false);
  const [requestId] = useState(() => crypto.randomUUID());
  const days = Math.max(
    1,
    Math.min(21, p.through < p.today ? 14 : Math.round((Date.parse(p.through) - Date.parse(p.today)) / 86_400_000) + 1),
  );
  const tap = async () => {
    setBusy(true);
    const common = {
      kind: p.kind,
      checkoutId: null,
      pilotId: p.pilotId,
      instructorId: null,
      airframeId: p.airframeId,
      passengers: 0,
      surface: 'any',
    };
    const slots = await runAction<Omit<ProposalsAnswer, 'ok'>>(() =>
      p.propose({ ...common, minutes: null, fromDate: p.today, days }),
    );
    const best = slots.ok ? slots.best[0] : undefined;
    if (!slots.ok || !best) {
      setBusy(false);
      return setTrouble(
        slots.ok ? [`No free start for ${p.registration} before it ends.`] : slots.problems.map((x) => x.message),
      );
    }
    const answer = await runAction(() =>
      p.book({
        requestId,
        ...common,
        startsAt: best.from,
        minutes: slots.minutes,
        note: 'keeps recent',
        waitingId: null,
      }),
    );
    setBusy(false);
    if (!answer.ok) return setTrouble(answer.problems.map((x) => x.message));
    const day = localClock(best.from, p.zone).date;
    setState({ said: `Booked ${dayText(day)} ${clockText(best.from, p.zone)} in ${p.registration}`, day });
    router.refresh();
  };
  const byHand = `/schedule?kind=${p.kind}&pilot=${p.pilotId}&air=${p.airframeId}`;
  if (state)
    return (
      <span role="status" className="small">
        <b>{state.said}</b>. <Link href={`/schedule?day=${state.day}`}>See it</Link>
      </span>
    );
  if (trouble.length > 0)
    return (
      <span role="alert" className="small v-outside">
        {trouble.join(' ')} <Link href={byHand}>By hand</Link>
      </span>
    );
  return (
    <Button variant="outline-primary" size="sm" disabled={busy} onClick={() => void tap()}>
      {busy ? 'Booking' : `Book ${p.registration}`}
      <span className="visually-hidden"> for {p.name}</span>
    </Button>
  );
}
