'use client';
import { useRouter } from 'next/navigation';
import dynamic from 'next/dynamic';
import { useEffect, useRef, useState } from 'react';
import { onControl, shortcutsOff } from './events';

const Overlays = dynamic(() => import('./overlays'), { ssr: false });
const GO: Record<string, string> = {
  b: '/board',
  c: '/checkouts',
  h: '/hangar',
  p: '/people',
  s: '/schedule',
  l: '/lab',
  e: '/ledger',
};

/**
 * Keyboard of the office pages: `?` help, `/` find, Ctrl-K the same from anywhere, `g` then a letter, `n` new in
 * context, `[` `]` stages.
 */
export function Keys() {
  const router = useRouter();
  const [open, setOpen] = useState<'help' | 'palette' | null>(null);
  const afterG = useRef(0);
  useEffect(() => {
    const help = () => setOpen('help');
    const palette = () => setOpen('palette');
    const key = (e: KeyboardEvent) => {
      // The one with a modifier acts everywhere and cannot be in the way of typing.
      if ((e.ctrlKey || e.metaKey) && !e.altKey && e.key.toLowerCase() === 'k') {
        e.preventDefault();
        setOpen('palette');
        return;
      }
      if (e.ctrlKey || e.metaKey || e.altKey || onControl(e.target) || shortcutsOff()) return;
      if (Date.now() - afterG.current < 1500 && GO[e.key]) {
        afterG.current = 0;
        router.push(GO[e.key] ?? '/board');
        return;
      }
      afterG.current = e.key === 'g' ? Date.now() : 0;
      const stage = (step: number) => {
        const links = [...document.querySelectorAll<HTMLAnchorElement>('.stages a')];
        const now = links.findIndex((l) => l.getAttribute('aria-current') === 'step');
        const next = links[Math.min(links.length - 1, Math.max(0, now + step))];
        if (next) router.push(next.getAttribute('href') ?? '/board');
      };
      if (e.key === '?') setOpen('help');
      else if (e.key === '/') {
        e.preventDefault();
        setOpen('palette');
      } else if (e.key === 'n')
        router.push(
          window.location.pathname.startsWith('/schedule')
            ? '/schedule?kind=lesson'
            : window.location.pathname.startsWith('/people')
              ? '/people/new'
              : '/checkouts/new',
        );
      else if (e.key === '[') stage(-1);
      else if (e.key === ']') stage(1);
    };
    window.addEventListener('jeito:help', help);
    window.addEventListener('jeito:palette', palette);
    window.addEventListener('keydown', key);
    return () => {
      window.removeEventListener('jeito:help', help);
      window.removeEventListener('jeito:palette', palette);
      window.removeEventListener('keydown', key);
    };
  }, [router]);
  return open ? <Overlays open={open} close={() => setOpen(null)} /> : null;
}
