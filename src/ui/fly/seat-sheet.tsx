'use client';
import { useEffect, useState } from 'react';
import type { Seats, SortiePack } from '@/offline/protocol';
import { store } from '@/offline/client';
import { Sheet } from './sheet';

/** The two seats of the pilots: who shares this flight is chosen here, and is there at once. */
export function SeatSheet({
  pack,
  changed,
  close,
}: {
  pack: SortiePack;
  changed: (pack: SortiePack) => void;
  close: () => void;
}) {
  const [seats, setSeats] = useState<Seats | null>(null);
  const [line, setLine] = useState('Asking who may share it …');
  const address = `/api/sorties/${pack.sortieId}/pilots`;
  useEffect(() => {
    void fetch(address)
      .then(async (r) => {
        if (!r.ok) return setLine('This flight is not yours to share.');
        setSeats((await r.json()) as Seats);
        setLine('');
      })
      .catch(() => setLine('No network: a second pilot is chosen with one. Fly on; say who flew what at the debrief.'));
  }, [address]);
  const choose = async (pilotId: string | null) => {
    setLine('Saving …');
    try {
      const r = await fetch(address, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ pilotId }),
      });
      const body = (await r.json()) as Seats & { problems?: { message: string }[] };
      if (!r.ok) return setLine(body.problems?.[0]?.message ?? 'This was not done.');
      setSeats(body);
      const next = { ...pack, second: body.second };
      await store().packs.put(next);
      changed(next);
      setLine(
        body.second
          ? `${body.second.name} shares this flight. Tap the name in the strip when they fly.`
          : 'Nobody shares this flight.',
      );
    } catch {
      setLine('No network: nothing was changed.');
    }
  };
  const now = seats?.second?.pilotId ?? null;
  return (
    <Sheet title="Second pilot on this flight" close={close}>
      <p className="mb-0">
        Each landing belongs to the one who flew it: to their own checkout of this aeroplane, or to their recency alone.
      </p>
      <p className="mb-0" role="status" style={{ minHeight: 26 }}>
        {line}
      </p>
      {seats ? (
        <div className="taps t4" role="group" aria-label="Second pilot">
          <button type="button" className="tap" aria-pressed={now === null} onClick={() => void choose(null)}>
            nobody
          </button>
          {seats.pilots.map((p) => (
            <button
              key={p.id}
              type="button"
              className="tap"
              aria-pressed={now === p.id}
              onClick={() => void choose(p.id)}
            >
              {p.name}
              <small>{p.own ? 'own checkout' : 'recency only'}</small>
            </button>
          ))}
        </div>
      ) : null}
    </Sheet>
  );
}
