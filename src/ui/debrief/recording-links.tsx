import { Link } from '../shared/link';

/** The recordings of the flight, and the way to add one. */
export function RecordingLinks({
  recordings,
  runs,
  sortie,
}: {
  recordings: readonly { id: string; name: string; limits: number }[];
  runs: boolean;
  sortie: { id: string } | undefined;
}) {
  return (
    <p className="mb-3">
      {recordings.map((t) => (
        <span key={t.id}>
          <strong>Recorded:</strong> <Link href={`/traces/${t.id}`}>replay {t.name}</Link> {'\u00b7'}{' '}
          <Link href={`/traces/${t.id}/join`}>compare with taps</Link>
          {t.limits > 0 ? ` \u00b7 ${t.limits} ${t.limits === 1 ? 'limit' : 'limits'} exceeded` : ''}.{' '}
        </span>
      ))}
      {runs && sortie ? (
        <Link href={`/traces/new?sortie=${sortie.id}`}>
          {recordings.length > 0 ? 'Add another recording' : 'Add a recording of this flight'}
        </Link>
      ) : null}
    </p>
  );
}
