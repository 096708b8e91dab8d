'use client';
import { useEffect, useState } from 'react';
import { foldAll } from './events';
import { goToHead, sectionHeads } from './sections';

/** As in the style sheet. */
const ROOM_BESIDE = '(min-width: 1540px)';

/** The way into a long page: its sections by name, beside it where there is room, folded above it elsewhere. */
export function OnThisPage() {
  const [names, setNames] = useState<string[]>([]);
  const [open, setOpen] = useState(false);
  const [beside, setBeside] = useState(false);
  const [folds, setFolds] = useState(false);
  useEffect(() => {
    const room = window.matchMedia(ROOM_BESIDE);
    const ask = () => setBeside(room.matches);
    ask();
    room.addEventListener('change', ask);
    return () => room.removeEventListener('change', ask);
  }, []);
  useEffect(() => {
    if (!open && !beside) return setNames([]);
    const look = () => {
      const now = sectionHeads().map((h) => h.textContent ?? '');
      setFolds(document.querySelector('main .folding') !== null);
      setNames((before) => (before.join('\n') === now.join('\n') ? before : now));
    };
    look();
    // Sections come and go with what is computed and folded.
    const main = document.querySelector('main');
    let frame = 0;
    const changed = new MutationObserver(() => {
      cancelAnimationFrame(frame);
      frame = requestAnimationFrame(look);
    });
    if (main) changed.observe(main, { childList: true, subtree: true });
    return () => {
      cancelAnimationFrame(frame);
      changed.disconnect();
    };
  }, [open, beside]);
  return (
    <nav aria-label="On this page" className="on-page" data-open={open}>
      <button type="button" aria-expanded={open} onClick={() => setOpen(!open)}>
        On this page
      </button>
      <b aria-hidden>On this page</b>
      <ol>
        {names.map((n, i) => (
          <li key={`${i}${n}`}>
            <button type="button" onClick={() => goToHead(sectionHeads()[i])}>
              {n}
            </button>
          </li>
        ))}
        {folds ? (
          <li>
            <button type="button" onClick={() => foldAll(true)}>
              Fold all
            </button>{' '}
            <button type="button" onClick={() => foldAll(false)}>
              Open all
            </button>
          </li>
        ) : null}
      </ol>
    </nav>
  );
}
