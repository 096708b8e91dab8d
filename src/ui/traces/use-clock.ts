import { useCallback } from 'react';
import { localTime } from '@/core/format';
import { useZone } from '../shared/zone';
import { elapsed } from './words';

/** The clock of the aerodrome at a moment where the file has one; otherwise the time since its first sample. */
export function useClock(startUtc: string | null): (s: number) => string {
  const zone = useZone();
  return useCallback(
    (s) =>
      startUtc === null ? elapsed(s) : localTime(new Date(Date.parse(startUtc) + s * 1000).toISOString(), zone, true),
    [startUtc, zone],
  );
}
