'use client';
import { useEffect, useState } from 'react';

/**
 * The newest answer of a worker to the newest question. While it computes the last answer stands, marked old.
 * @param key of the question: a new key asks again; null asks nothing
 */
export function useWorker<T>(
  key: string | null,
  ask: () => Promise<T>,
): { value: T | null; old: boolean; failed: boolean } {
  const [answer, setAnswer] = useState<{ key: string; value: T | null; failed: boolean } | null>(null);
  useEffect(() => {
    if (key === null) return;
    let wanted = true;
    // A slider asks many times: only the place where it rests is computed.
    const timer = setTimeout(() => {
      ask().then(
        (value) => {
          if (wanted) setAnswer({ key, value, failed: false });
        },
        () => {
          if (wanted) setAnswer({ key, value: null, failed: true });
        },
      );
    }, 60);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
    // The question is the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return { value: answer?.value ?? null, old: answer?.key !== key, failed: answer?.failed ?? false };
}
