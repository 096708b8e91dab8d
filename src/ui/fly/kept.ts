'use client';
import { useEffect, useRef, useState } from 'react';

/** State that a closed page does not lose: mirrored on the device under a name until it is put back to its start. */
export function useKept<T>(name: string, start: T): [T, (next: T | ((before: T) => T)) => void] {
  const key = `jeito-kept-${name}`;
  const [now, setNow] = useState<T>(() => {
    try {
      const text = localStorage.getItem(key);
      return text === null ? start : (JSON.parse(text) as T);
    } catch {
      return start;
    }
  });
  const first = useRef(JSON.stringify(start));
  useEffect(() => {
    try {
      const text = JSON.stringify(now);
      if (text === first.current) localStorage.removeItem(key);
      else localStorage.setItem(key, text);
    } catch {
      // A full device: the page still has it; saving will say so.
    }
  }, [key, now]);
  return [now, setNow];
}
