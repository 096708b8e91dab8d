'use client';
import dynamic from 'next/dynamic';
import { usePathname } from 'next/navigation';

// Its texts are read by who still wants hints, and by nobody else.
const Hint = dynamic(async () => ({ default: (await import('./hint')).Hint }));

/** The hint of the screen, where hints are not turned off. The guide needs none. */
export function HintHere({ kept, staff }: { kept: string | undefined; staff: boolean }) {
  const path = usePathname();
  return kept === 'off' || path.startsWith('/help') ? null : <Hint kept={kept} staff={staff} />;
}
