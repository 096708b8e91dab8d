'use client';
import { TriangleAlert } from 'lucide-react';
import { dateText, list, localDate } from '@/core/format';
import type { PackId } from '@/domain/words';
import { useZone } from '../shared/zone';
import { Link } from '../shared/link';

/** As the page needs of what holds an aeroplane on the ground. */
export interface GroundedLine {
  registration: string;
  kind: 'airworthiness' | 'school' | 'limit';
  why: string;
  placedBy: string;
  placedAt: string;
  traceId: string | null;
}

/** An aeroplane on the ground: said wherever it is briefed, taken or shown. Nothing sets it aside but its release. */
export function GroundedNote({
  registration,
  groundings,
  pack,
}: {
  registration: string;
  groundings: readonly GroundedLine[];
  pack: PackId;
}) {
  const zone = useZone();
  const mine = groundings.filter((g) => g.registration === registration);
  if (mine.length === 0) return null;
  const traced = mine.find((g) => g.traceId !== null);
  return (
    <p className="trouble" role="note">
      <TriangleAlert size={18} aria-hidden />{' '}
      <strong>
        {registration}: {pack === 'us' ? 'not returned to service' : 'not released to service'}.
      </strong>{' '}
      {list(
        mine.map((g) => `${g.why}${g.placedBy ? ` (${g.placedBy}, ${dateText(localDate(g.placedAt, zone))})` : ''}`),
      )}
      . No flight is taken until the release is entered on the board.{' '}
      {traced ? <Link href={`/traces/${traced.traceId ?? ''}`}>Exceedance and required action</Link> : null}
    </p>
  );
}
