import { TriangleAlert } from 'lucide-react';
import { Link } from '../shared/link';
import { LIMIT_NAME, type LimitChannel } from '@/domain/words';
import { list } from '@/core/format';

export interface OpenLimit {
  registration: string;
  channel: LimitChannel;
  traceId: string;
}

/** An aeroplane with a limit passed and not released: said wherever it is briefed or taken. */
export function AirframeFlag({ registration, limits }: { registration: string; limits: readonly OpenLimit[] }) {
  const mine = limits.filter((l) => l.registration === registration);
  if (mine.length === 0) return null;
  return (
    <p className="trouble" role="note">
      <TriangleAlert size={18} aria-hidden /> <strong>{registration} is flagged.</strong>{' '}
      {list([...new Set(mine.map((l) => LIMIT_NAME[l.channel]))])} passed and not released: it does not fly before what
      the sheet asks is done.{' '}
      <Link href={`/traces/${mine[0]?.traceId ?? ''}`}>What was passed, and what must be done</Link>
    </p>
  );
}
