import { Link } from '../shared/link';

/** The recordings of the flight, one a line, and the way to add one. */
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
    <div className="mb-3">
      {recordings.length > 0 ? (
        <ul className="list-unstyled mb-1" aria-label="Recordings of this flight">
          {recordings.map((t) => (
            <li key={t.id} className="mb-2">
              <strong>Recorded:</strong> <Link href={`/traces/${t.id}`}>replay {t.name}</Link> {'\u00b7'}{' '}
              <Link href={`/traces/${t.id}/join`}>compare with taps</Link>
              {t.limits > 0 ? ` \u00b7 ${t.limits} ${t.limits === 1 ? 'limit' : 'limits'} exceeded` : ''}.
            </li>
          ))}
        </ul>
      ) : null}
      {runs && sortie ? (
        <Link className="d-inline-block py-1" href={`/traces/new?sortie=${sortie.id}`}>
          {recordings.length > 0 ? 'Add another recording' : 'Add a recording of this flight'}
        </Link>
      ) : null}
    </div>
  );
}
