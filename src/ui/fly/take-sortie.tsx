'use client';
import { useState } from 'react';
import type { SortiePack } from '@/offline/protocol';

/** Puts the flight on this device, then opens the cockpit. Says why when it cannot. */
export function TakeSortie({ sortieId }: { sortieId: string }) {
  const [word, setWord] = useState<{ busy: boolean; text: string }>({ busy: false, text: '' });
  const take = async () => {
    if (!window.isSecureContext) return setWord({ busy: false, text: 'This address is not secure (neither https nor this machine), so the browser keeps nothing for the flight. Open Jeito by https.' });
    setWord({ busy: true, text: 'Taking it along …' });
    try {
      const response = await fetch(`/api/sorties/${sortieId}`);
      if (!response.ok) return setWord({ busy: false, text: 'This flight is not yours to record.' });
      const { keepPack } = await import('@/offline/client');
      await keepPack((await response.json()) as SortiePack);
      window.location.href = `/fly?sortie=${sortieId}&view=circuits`;
    } catch {
      setWord({ busy: false, text: 'It could not be put on this device. Check the network and the room left on the device, then try again.' });
    }
  };
  return (
    <>
      <p>The flight, its targets and what is already recorded are kept on this device. What you tap is kept here first and sent when there is a network.</p>
      <button type="button" className="btn btn-primary btn-lg" onClick={() => void take()} disabled={word.busy}>Take this flight</button>
      <p role="status" className="mt-2 mb-0" style={{ minHeight: 24 }}>{word.text}</p>
    </>
  );
}
