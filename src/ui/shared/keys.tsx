'use client';
import { useRouter } from 'next/navigation';
import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import { tinykeys } from 'tinykeys';
import { jumpSection } from './sections';
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
  r: '/traces',
};

/** Where a new one of what a page is about begins. */
function newHere(path: string): string {
  if (path.startsWith('/schedule')) return '/schedule?kind=lesson';
  return path.startsWith('/people') ? '/people/new' : '/checkouts/new';
}

/**
 * Keyboard of the office pages: `?` help, `/` find, Ctrl-K the same from anywhere, `g` then a letter, `n` new in
 * context, `[` `]` stages.
 */
export function Keys({ staff }: { staff: boolean }) {
  const router = useRouter();
  const [open, setOpen] = useState<'help' | 'palette' | null>(null);
  useEffect(() => {
    const help = () => setOpen('help');
    const palette = (e: Event) => {
      e.preventDefault();
      setOpen('palette');
    };
    const stage = (step: number) => {
      const links = [...document.querySelectorAll<HTMLAnchorElement>('.stages a')];
      const now = links.findIndex((l) => l.getAttribute('aria-current') === 'step');
      const next = links[Math.min(links.length - 1, Math.max(0, now + step))];
      if (next) router.push(next.getAttribute('href') ?? '/board');
    };
    // The one with a modifier acts everywhere and cannot be in the way of typing.
    const endFind = tinykeys(window, { '$mod+k': palette }, { ignore: () => false });
    const onPage = { timeout: 1500, ignore: (e: KeyboardEvent) => onControl(e.target) || shortcutsOff() };
    const endPage = tinykeys(
      window,
      {
        '[Shift]+(\\?)': help,
        '[Shift]+(\\/)': palette,
        n: () => router.push(newHere(window.location.pathname)),
        '(\\[)': () => stage(-1),
        '(\\])': () => stage(1),
        j: () => jumpSection(1),
        k: () => jumpSection(-1),
      },
      onPage,
    );
    // One listener each: in a shared one a finished sequence leaves the others half begun.
    const endGo = Object.entries(GO).map(([key, href]) =>
      tinykeys(window, { [`g ${key}`]: () => router.push(href) }, onPage),
    );
    window.addEventListener('jeito:help', help);
    window.addEventListener('jeito:palette', palette);
    return () => {
      endFind();
      endPage();
      for (const end of endGo) end();
      window.removeEventListener('jeito:help', help);
      window.removeEventListener('jeito:palette', palette);
    };
  }, [router]);
  return open ? <Overlays open={open} staff={staff} close={() => setOpen(null)} /> : null;
}
