'use client';
import { useEffect, useRef } from 'react';

/** Sizes tried until what is written fits; below the last it would not be read in the air. */
const SCALES = [1, 0.95, 0.9, 0.85, 0.8, 0.75, 0.7];

/** One side of the card: exactly an A5, on the screen and on the paper of the browser. */
export function CardSide({ label, children }: { label: string; children: React.ReactNode }) {
  const paper = useRef<HTMLElement>(null);
  const written = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const fit = () => {
      const [room, box] = [paper.current, written.current];
      if (!room || !box) return;
      const style = getComputedStyle(room);
      const high = room.clientHeight - parseFloat(style.paddingTop) - parseFloat(style.paddingBottom);
      for (const scale of SCALES) {
        box.style.setProperty('zoom', String(scale));
        if (box.getBoundingClientRect().height <= high) return;
      }
    };
    fit();
    void document.fonts.ready.then(fit);
    window.addEventListener('beforeprint', fit);
    return () => window.removeEventListener('beforeprint', fit);
  }, []);
  return (
    <article className="a5" aria-label={label} ref={paper}>
      <div ref={written}>{children}</div>
    </article>
  );
}
