'use client';
import { useEffect, useRef, useState } from 'react';
import { whenSeen } from './when-seen';
import { Loading } from './parts';

interface Props {
  /**
   * Draws into the element and returns what takes it down again; a stable function, or one that changes with its data.
   */
  draw: (element: HTMLElement) => Promise<() => void>;
  label: string;
  height: number;
}

/**
 * A drawing whose library comes when it is seen; drawn again in another theme. Without it the table beside it has the
 * same numbers.
 */
export function Drawing({ draw, label, height }: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const [state, setState] = useState<'loading' | 'drawn' | 'failed'>('loading');
  useEffect(() => {
    const element = holder.current;
    if (!element) return;
    let dispose = () => {};
    let gone = false;
    let turn = 0;
    const paint = () => {
      const mine = ++turn;
      draw(element).then(
        (end) => {
          if (gone || mine !== turn) end();
          else {
            dispose();
            dispose = end;
            setState('drawn');
          }
        },
        () => {
          if (!gone) setState('failed');
        },
      );
    };
    const themes = new MutationObserver(paint);
    const leave = whenSeen(element, () => {
      paint();
      themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-bs-theme'] });
    });
    return () => {
      gone = true;
      leave();
      themes.disconnect();
      dispose();
    };
  }, [draw]);
  return (
    <div style={{ position: 'relative' }}>
      {state === 'loading' ? (
        <div style={{ position: 'absolute' }}>
          <Loading what="the drawing" />
        </div>
      ) : null}
      {state === 'failed' ? (
        <p className="caution">The drawing cannot be loaded; the table has the same numbers.</p>
      ) : null}
      <div
        ref={holder}
        style={{ width: '100%', height, display: state === 'failed' ? 'none' : undefined }}
        role="img"
        aria-label={label}
      />
    </div>
  );
}
