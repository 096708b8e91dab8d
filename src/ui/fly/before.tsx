/** What stands before a flight is open: it is not here, or somebody else has signed in on this device since. */
export interface Ashore {
  sortieId: string | null;
  here: { sortieId: string; pilotName: string; registration: string; lesson: number; flownOn: string }[];
}

export function NotPrepared({ of }: { of: Ashore }) {
  return (
    <>
      <h1>{of.sortieId === null ? 'Flights on this device' : 'Not prepared on this device'}</h1>
      {of.sortieId !== null ? (
        <p>
          This device was not prepared for the flight. On the ground, with the network, open the checkout, go to Fly and
          choose <em>Prepare this device</em>.
        </p>
      ) : null}
      {of.here.length > 0 ? (
        <ul className="here" aria-label="Flights on this device">
          {of.here.map((p) => (
            <li key={p.sortieId}>
              <a className="tap" href={`/fly?sortie=${p.sortieId}&view=circuits`}>
                {p.pilotName}, lesson {p.lesson}
                <small>
                  {p.registration}, {p.flownOn}
                </small>
              </a>
            </li>
          ))}
        </ul>
      ) : (
        <p>No flight on this device yet.</p>
      )}
      <p>
        <a href="/board">Back to board</a>
      </p>
    </>
  );
}

export function WhoRecords({ author, other, go }: { author: string; other: string; go: () => void }) {
  return (
    <>
      <h1>Who is recording?</h1>
      <p>
        {author} prepared this device; since then {other} has signed in on this device. What is recorded here is
        recorded in the name of {author}.
      </p>
      <p>
        <button type="button" className="tap" onClick={go}>
          {author} is recording
        </button>
      </p>
      <p>
        <a href="/board">I am {other}: back to board</a>
      </p>
    </>
  );
}
