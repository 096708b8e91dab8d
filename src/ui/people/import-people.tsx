'use client';
import Button from 'react-bootstrap/Button';
import FormControl from 'react-bootstrap/FormControl';
import FormLabel from 'react-bootstrap/FormLabel';
import { type ChangeEvent, useState } from 'react';
import { list, plural } from '@/core/format';
import { readRoster, type RosterPerson, rosterWords } from '@/core/roster';
import { type Link_, LinkShown } from '../account/link-shown';
import type { ActionProblem, ActionResult } from '../shared/forms';
import { Link } from '../shared/link';
import { Panel, Problems } from '../shared/parts';
import { useTap } from '../shared/use-tap';
import { newId } from '../shared/new-id';

interface Added {
  pilotId: string;
  name: string;
  link: Link_ | null;
}
type Row = RosterPerson & { requestId: string };
const LARGEST = 500_000;
const MOST_SHOWN = 12;

/** People of a file: read here, looked at, then taken all at once or not at all. */
export function ImportPeople({ add }: { add: (form: unknown) => Promise<ActionResult<{ people: Added[] }>> }) {
  const [rows, setRows] = useState<Row[]>([]);
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const [added, setAdded] = useState<Added[] | null>(null);
  const { tap, busy, problems: refused } = useTap();
  const read = async (file: File) => {
    setRows([]);
    if (file.size > LARGEST)
      return setProblems([{ path: '', message: 'This file is larger than 500 kB; a list of people is smaller.' }]);
    const found = readRoster(await file.text());
    setProblems(found.problems.map((p) => ({ path: '', message: rosterWords(p) })));
    setRows(found.people.map((p) => ({ ...p, requestId: newId() })));
  };
  const send = () =>
    void tap(() => add({ people: rows.map(({ line: _, ...p }) => ({ ...p, authorised: [] })) }), {
      done: ({ people }) => setAdded(people),
    });
  if (added) return <AddedPeople people={added} />;
  const said = refused.map((p) => {
    const at = /^people\.(\d+)\./.exec(p.path)?.[1];
    const row = at === undefined ? undefined : rows[Number(at)];
    return { path: p.path, message: row ? `Line ${row.line}, ${row.name || 'no name'}: ${p.message}` : p.message };
  });
  const wrong = [...problems, ...said];
  return (
    <Panel title="People from a file">
      <p>
        CSV with a first line that names the columns: name, e-mail, mass (kg), hours, licence, role. Who has an e-mail
        gets an account and a link to choose a password; without a role they are pilots. What instructors may sign is
        ticked on their page.
      </p>
      <FormLabel htmlFor="people-file">File</FormLabel>
      <FormControl
        id="people-file"
        type="file"
        accept=".csv,text/csv,text/plain"
        disabled={busy}
        onChange={(e: ChangeEvent<HTMLInputElement>) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) void read(file);
        }}
      />
      <Problems problems={wrong.slice(0, MOST_SHOWN)} title="Nobody was added" />
      {wrong.length > MOST_SHOWN ? <p className="small soft">and {wrong.length - MOST_SHOWN} more.</p> : null}
      {rows.length > 0 ? (
        <>
          <div className="scroll-x mt-3">
            <table aria-label="People of the file" className="plain">
              <thead>
                <tr>
                  <th scope="col">Name</th>
                  <th scope="col">E-mail</th>
                  <th scope="col" className="r">
                    Mass
                  </th>
                  <th scope="col" className="r">
                    Hours
                  </th>
                  <th scope="col">Licence</th>
                  <th scope="col">Roles</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((p) => (
                  <tr key={p.line}>
                    <td>{p.name}</td>
                    <td>{p.email || <span className="soft">no account</span>}</td>
                    <td className="r mono">{p.massKg} kg</td>
                    <td className="r mono">{p.hours} h</td>
                    <td>{p.certificate}</td>
                    <td>{list(p.roles)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <Button variant="primary" className="mt-3" disabled={busy} onClick={send}>
            Add {plural(rows.length, 'person', 'people')}
          </Button>
        </>
      ) : null}
    </Panel>
  );
}

/** Who was added, each with the link shown this once. */
function AddedPeople({ people }: { people: readonly Added[] }) {
  return (
    <Panel title={`${plural(people.length, 'person', 'people')} added`}>
      <p>
        The links are shown this once: print this page, or open each on the device of its owner.{' '}
        <Button variant="outline-primary" size="sm" onClick={() => window.print()}>
          Print
        </Button>
      </p>
      <div className="d-grid gap-3">
        {people.map((p) =>
          p.link ? (
            <LinkShown key={p.pilotId} name={p.name} link={p.link} />
          ) : (
            <p key={p.pilotId} className="mb-0">
              <Link href={`/people/${p.pilotId}`}>{p.name}</Link> <span className="soft">no account</span>
            </p>
          ),
        )}
      </div>
    </Panel>
  );
}
