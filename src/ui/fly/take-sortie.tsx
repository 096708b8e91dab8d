'use client';
import { useState } from 'react';
import type { SortiePack } from '@/offline/protocol';

/**
 * Puts the flight and the page on this device, then opens the cockpit. Says what is here, and why when something is
 * not.
 */
interface Share {
  pilots: { id: string; name: string; own: boolean }[];
  secondId: string | null;
  save: (form: {
    sortieId: string;
    pilotId: string | null;
  }) => Promise<{ ok: true } | { ok: false; problems: { message: string }[] }>;
}

export function TakeSortie({ sortieId, share }: { sortieId: string; share: Share }) {
  const [second, setSecond] = useState(share.secondId ?? '');
  const [problem, setProblem] = useState('');
  // The device is prepared with the choice as it was saved.
  const [saving, setSaving] = useState(false);
  const choose = async (id: string) => {
    const before = second;
    setSecond(id);
    setProblem('');
    setSaving(true);
    const answer = await share.save({ sortieId, pilotId: id === '' ? null : id }).catch(() => ({
      ok: false as const,
      problems: [{ message: 'The server could not be reached. Choose again when there is a network.' }],
    }));
    setSaving(false);
    if (!answer.ok) {
      setSecond(before);
      setProblem(answer.problems[0]?.message ?? 'This was not done.');
    }
  };
  const [word, setWord] = useState<{ busy: boolean; text: string; onlyWith: boolean }>({
    busy: false,
    text: '',
    onlyWith: false,
  });
  const address = `/fly?sortie=${sortieId}&view=circuits`;
  const say = (text: string, busy = false, onlyWith = false) => setWord({ busy, text, onlyWith });
  const take = () => takeAlong(sortieId, say, '', 'circuits');
  return (
    <>
      <p>
        The flight, its targets and what is already recorded are kept on this device. What you tap is kept here first
        and sent when there is a network.
      </p>
      <div className="mb-3">
        <label className="form-label mb-1" htmlFor="second">
          Second pilot on this flight
        </label>
        <select
          id="second"
          className={`form-select ${problem ? 'is-invalid' : ''}`}
          value={second}
          aria-describedby="second-note"
          onChange={(e) => void choose(e.target.value)}
        >
          <option value="">nobody</option>
          {share.pilots.map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
              {p.own ? ', own checkout on this aeroplane' : ''}
            </option>
          ))}
        </select>
        <div id="second-note" className={problem ? 'invalid-feedback' : 'form-text'}>
          {problem || 'Each landing belongs to the one who flew it: to their own checkout, or to their recency alone.'}
        </div>
      </div>
      <button
        type="button"
        className="btn btn-primary btn-lg"
        onClick={() => void take()}
        disabled={word.busy || saving}
      >
        Prepare this device
      </button>
      <p role="status" className="mt-2 mb-0" style={{ minHeight: 24 }}>
        {word.text} {word.onlyWith ? <a href={address}>Fly with this page open</a> : null}
      </p>
    </>
  );
}

type Say = (text: string, busy?: boolean, onlyWith?: boolean) => void;

/** Fetches the flight and the page onto this device and opens the cockpit; says why where it cannot. */
async function takeAlong(sortieId: string, say: Say, query: string, view: string): Promise<void> {
  if (!window.isSecureContext)
    return say(
      'This address is not secure (neither https nor this machine), so the browser keeps nothing for the flight. Open Jeito by https.',
    );
  say('Preparing …', true);
  try {
    const response = await fetch(`/api/sorties/${sortieId}${query}`);
    if (response.status === 409)
      return say(((await response.json()) as { message?: string }).message ?? 'The aeroplane is grounded.');
    if (!response.ok) return say('This flight is not yours to record.');
    const { keepPack, keepShell } = await import('@/offline/client');
    await keepPack((await response.json()) as SortiePack);
    const shell = await keepShell();
    if (!shell.kept)
      return say(
        `The flight is on this device, but the page is not: ${shell.reason}. It works as long as the page stays open; without a network it does not open again.`,
        false,
        true,
      );
    window.location.href = `/fly?sortie=${sortieId}&view=${view}`;
  } catch {
    say('This device could not be prepared. Check the network and the room left on the device, then try again.');
  }
}

/** A grounded aeroplane is not taken; what was flown before it was grounded may still be written in. */
export function TakeGrounded({ sortieId }: { sortieId: string }) {
  const [word, setWord] = useState({ busy: false, text: '' });
  const say: Say = (text, busy = false) => setWord({ busy, text });
  return (
    <>
      <p>
        <strong>The aeroplane is grounded: no flight is taken.</strong> It is taken again when its release is entered.
      </p>
      <button
        type="button"
        className="btn btn-outline-primary"
        disabled={word.busy}
        onClick={() => void takeAlong(sortieId, say, '?flown=1', 'paper')}
      >
        It was flown before that: enter it from paper
      </button>
      <p role="status" className="mt-2 mb-0" style={{ minHeight: 24 }}>
        {word.text}
      </p>
    </>
  );
}
