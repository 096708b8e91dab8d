'use client';
import Button from 'react-bootstrap/Button';
import { Link } from '../shared/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { clockText, dayText, localClock } from '@/core/schedule';
import { type BookAnswer, type ProposalsAnswer, type Refused } from '../schedule/form-facts';
import { useTap } from '../shared/use-tap';
import { newId } from '../shared/new-id';

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
  const { tap, busy, refusal, setProblems } = useTap();
  const [requestId] = useState(() => newId());
  const days = Math.max(
    1,
    Math.min(21, p.through < p.today ? 14 : Math.round((Date.parse(p.through) - Date.parse(p.today)) / 86_400_000) + 1),
  );
  const bookBest = async () => {
    const common = {
      kind: p.kind,
      checkoutId: null,
      pilotId: p.pilotId,
      instructorId: null,
      airframeId: p.airframeId,
      passengers: 0,
      surface: 'any',
    };
    const look = () => p.propose({ ...common, minutes: null, fromDate: p.today, days });
    const slots = await tap<Omit<ProposalsAnswer, 'ok'>>(look, { done: () => undefined });
    if (!slots?.ok) return;
    const best = slots.best[0];
    if (!best) return setProblems([{ path: '', message: `No free start for ${p.registration} before it ends.` }]);
    const booking = { requestId, ...common, startsAt: best.from, minutes: slots.minutes, note: 'keeps recent' };
    await tap(() => p.book({ ...booking, waitingId: null }), {
      done: () => {
        const day = localClock(best.from, p.zone).date;
        setState({ said: `Booked ${dayText(day)} ${clockText(best.from, p.zone)} in ${p.registration}`, day });
        router.refresh();
      },
    });
  };
  const byHand = `/schedule?kind=${p.kind}&pilot=${p.pilotId}&air=${p.airframeId}`;
  if (state)
    return (
      <span role="status" className="small">
        <b>{state.said}</b>. <Link href={`/schedule?day=${state.day}`}>See it</Link>
      </span>
    );
  if (refusal)
    return (
      <span role="alert" className="small v-outside">
        {refusal} <Link href={byHand}>Choose yourself</Link>
      </span>
    );
  return (
    <Button variant="outline-primary" size="sm" disabled={busy} onClick={() => void bookBest()}>
      {busy ? 'Booking' : `Book ${p.registration}`}
      <span className="visually-hidden"> for {p.name}</span>
    </Button>
  );
}
