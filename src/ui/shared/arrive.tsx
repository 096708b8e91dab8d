'use client';
import { usePathname } from 'next/navigation';
import { useEffect, useRef } from 'react';

/** Another page in the same window: reading begins at its heading, not at the place of the link that led there. */
export function Arrive() {
  const path = usePathname();
  const before = useRef(path);
  useEffect(() => {
    if (before.current === path) return;
    before.current = path;
    if (window.location.hash) return;
    const head = document.querySelector<HTMLElement>('main h1');
    if (!head) return;
    head.tabIndex = -1;
    head.focus({ preventScroll: true });
  }, [path]);
  return null;
}
