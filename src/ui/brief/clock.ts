import { useEffect, useState } from 'react';

/** The server's clock, carried on here; the device's own clock is not trusted for the age of a wind. */
export function useServerNow(serverNow: string): string {
  const [now, setNow] = useState(serverNow);
  useEffect(() => {
    const started = performance.now();
    const timer = setInterval(
      () => setNow(new Date(Date.parse(serverNow) + (performance.now() - started)).toISOString()),
      30_000,
    );
    return () => clearInterval(timer);
  }, [serverNow]);
  return now;
}

/** Goes up by one with every change of the choices; numbers changed by the newest change carry its mark. */
export function useEpoch(key: string): number {
  const [seen, setSeen] = useState({ key, epoch: 0 });
  if (seen.key === key) return seen.epoch;
  const next = { key, epoch: seen.epoch + 1 };
  setSeen(next);
  return next.epoch;
}
