'use client';
import dynamic from 'next/dynamic';
import { usePathname } from 'next/navigation';
import { useEffect, useState } from 'react';
import { HINTS_TURNED, keptHints } from './hint-cookie';

// Its texts are read by who still wants hints, and by nobody else.
const Hint = dynamic(async () => ({ default: (await import('./hint')).Hint }));

/** The hint of the screen, where hints are not turned off. The guide needs none. */
export function HintHere({ kept, staff }: { kept: string | undefined; staff: boolean }) {
  const path = usePathname();
  const [now, setNow] = useState(kept);
  useEffect(() => {
    const turned = () => setNow(keptHints());
    window.addEventListener(HINTS_TURNED, turned);
    return () => window.removeEventListener(HINTS_TURNED, turned);
  }, []);
  return now === 'off' || path.startsWith('/help') ? null : <Hint kept={now} staff={staff} />;
}
