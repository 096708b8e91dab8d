'use client';
import { useEffect, useState } from 'react';
import type { QueryState } from './query-state-read';

/**
 * State of a lab page that lives in the address, so that a link shows the same picture. Only what differs from the
 * start is written.
 */
export function useQueryState<T extends QueryState>(start: T, initial: T): [T, (change: Partial<T>) => void] {
  const [state, setState] = useState(initial);
  useEffect(() => {
    const timer = setTimeout(() => {
      const url = new URL(window.location.href);
      for (const [key, value] of Object.entries(state)) {
        if (value === start[key] || value === null) url.searchParams.delete(key);
        else url.searchParams.set(key, typeof value === 'number' ? String(Math.round(value * 1000) / 1000) : value);
      }
      if (url.href !== window.location.href) window.history.replaceState(window.history.state, '', url);
    }, 200);
    return () => clearTimeout(timer);
  }, [state, start]);
  return [state, (change) => setState((s) => ({ ...s, ...change }))];
}
