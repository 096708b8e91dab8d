import { Link } from '../shared/link';

/** Numbers on a sheet that nobody has confirmed: said wherever the type is shown. */
export function SampleNote({ code, count, edits }: { code: string; count: number; edits: boolean }) {
  if (count === 0) return null;
  return (
    <div className="caution" role="note">
      <strong>Sample: {count === 1 ? '1 entry is' : `${count} entries are`} not confirmed.</strong> Replace every number
      from your flight manual. Nothing is briefed or flown on this type until each is confirmed with its source.{' '}
      {edits ? <Link href={`/hangar/${code}/edit`}>Confirm them</Link> : 'The chief instructor confirms them.'}
    </div>
  );
}
