import { useEffect } from 'react';
import { onControl, shortcutsOff } from '../shared/events';
import { movePlace } from './draft';
import type { Capture } from './use-capture';

/** What a key does; null = nothing, and the browser has it. */
function actOf(k: string, c: Capture): (() => void) | null {
  const { draft, eyesOut } = c.state;
  if (eyesOut) {
    if (k === 's') return () => c.end('stopped');
    return k === 'c' ? () => c.end('climbing-away') : null;
  }
  if (k >= '1' && k <= '4' && k.length === 1) return () => c.choose(Number(k) - 1);
  const ACTS: Record<string, () => void> = {
    n: c.out,
    g: () => c.set({ kind: 'go-around' }),
    c: () => c.clean(null),
    u: () => void c.undo(),
    m: () => c.more(true),
    enter: () => void c.save(),
    arrowup: () => c.set(movePlace(draft, 1, 0)),
    arrowdown: () => c.set(movePlace(draft, -1, 0)),
    arrowleft: () => c.set(movePlace(draft, 0, -1)),
    arrowright: () => c.set(movePlace(draft, 0, 1)),
  };
  return ACTS[k] ?? null;
}

/** A capture by keyboard: every tap of the first screen has a key. */
export function useCaptureKeys(c: Capture): void {
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      const control = onControl(e.target) && !(e.target as Element).closest('[data-drawing]');
      if (e.ctrlKey || e.metaKey || e.altKey || control || shortcutsOff() || c.state.more) return;
      const act = actOf(e.key.toLowerCase(), c);
      if (!act) return;
      act();
      e.preventDefault();
    };
    window.addEventListener('keydown', key);
    return () => window.removeEventListener('keydown', key);
  });
}
