'use client';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { fixed } from '@/core/format';

/** The moment a moving picture is at: plays in real time, stops at the end, and can be stepped and scrubbed. */
export function usePlayer(endS: number): {
  tS: number;
  playing: boolean;
  set: (tS: number) => void;
  toggle: () => void;
} {
  const [tS, set] = useState(endS);
  const [playing, setPlaying] = useState(false);
  const from = useRef({ at: 0, tS: 0 });
  useEffect(() => {
    if (!playing) return;
    let id = 0;
    from.current = { at: performance.now(), tS: tS >= endS ? 0 : tS };
    const tick = (now: number) => {
      const next = from.current.tS + (now - from.current.at) / 1000;
      set(Math.min(endS, next));
      if (next >= endS) setPlaying(false);
      else id = requestAnimationFrame(tick);
    };
    id = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(id);
    // Begins where it stands; the moments it then passes are its own.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [playing, endS]);
  return {
    tS: Math.min(tS, endS),
    playing,
    set: (t) => {
      setPlaying(false);
      set(t);
    },
    toggle: () => setPlaying(!playing),
  };
}

const STEP_S = 0.2;

export function Player({ player, endS }: { player: ReturnType<typeof usePlayer>; endS: number }) {
  const { tS, playing, set, toggle } = player;
  return (
    <div className="lab-player">
      <Button variant="outline-primary" onClick={toggle} aria-pressed={playing}>
        {playing ? 'Pause' : 'Play'}
      </Button>
      <Button variant="outline-primary" onClick={() => set(tS >= endS ? 0 : Math.min(endS, tS + STEP_S))}>
        Step
      </Button>
      <input
        type="range"
        className="fly-slider"
        aria-label="Time"
        min={0}
        max={endS}
        step={0.02}
        value={tS}
        aria-valuetext={`${fixed(tS, 1)} s of ${fixed(endS, 1)} s`}
        onChange={(e) => set(Number(e.target.value))}
      />
      <output className="mono">{fixed(tS, 1)} s</output>
    </div>
  );
}
