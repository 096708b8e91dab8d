'use client';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { fixed } from '@/core/format';
import { Field } from '../shared/field';
import { Panel } from '../shared/parts';

interface FieldLine {
  name: string;
  type: string;
  meaning: string;
}
export interface AddressShown {
  method: 'get' | 'put' | 'post';
  path: string;
  scope: string;
  summary: string;
  names: { name: string; example: string }[];
  query: FieldLine[];
  fields: FieldLine[];
  refuses: Readonly<Record<number, string>>;
}
interface Ran {
  line: string;
  body: string;
}
const LINES = 40;

/** One address: what it is given, what it answers, and the answer of this moment, asked with one's own session. */
export function AddressPanel({ origin, address: a }: { origin: string; address: AddressShown }) {
  const [given, setGiven] = useState<Record<string, string>>(
    Object.fromEntries(a.names.map((n) => [n.name, n.example])),
  );
  const [ran, setRan] = useState<Ran | null>(null);
  const [busy, setBusy] = useState(false);
  const id = `${a.method}-${a.path.replaceAll(/\W+/g, '-')}`;
  const path = a.path.replaceAll(/\{(\w+)\}/g, (_, n: string) => encodeURIComponent(given[n] ?? ''));
  const asked = a.query.filter((q) => (given[q.name] ?? '') !== '');
  const search = new URLSearchParams(asked.map((q) => [q.name, given[q.name] ?? ''])).toString();
  const target = search === '' ? path : `${path}?${search}`;
  const curl = ['curl', '-H "Authorization: Bearer $TOKEN"'];
  const command =
    a.method === 'get'
      ? [...curl, `"${origin}${target}"`].join(' ')
      : [
          [...curl, `-X ${a.method.toUpperCase()}`, '-H "Content-Type: application/json"', '\\'].join(' '),
          `  --data @body.json "${origin}${path}"`,
        ].join('\n');
  const missing = a.names.some((n) => (given[n.name] ?? '') === '');
  const run = async () => {
    setBusy(true);
    const from = performance.now();
    try {
      const r = await fetch(target);
      const text = await r.text();
      const ms = performance.now() - from;
      const lines = JSON.stringify(JSON.parse(text) as unknown, null, 2).split('\n');
      setRan({
        line: `${r.status} in ${fixed(ms)} ms, ${fixed(new Blob([text]).size / 1000, 1)} kB`,
        body:
          lines.length > LINES
            ? [...lines.slice(0, LINES), `… ${lines.length - LINES} lines more`].join('\n')
            : lines.join('\n'),
      });
    } catch {
      setRan({ line: 'No answer. The server cannot be reached, try again.', body: '' });
    }
    setBusy(false);
  };
  const field = (name: string, hint: string) => (
    <Field key={name} label={name} id={`${id}-${name}`} hint={hint}>
      <input
        className="code-face"
        value={given[name] ?? ''}
        onChange={(e) => setGiven({ ...given, [name]: e.target.value })}
        autoComplete="off"
      />
    </Field>
  );
  return (
    <Panel
      id={id}
      title={
        <span className="code-face address">
          {a.method.toUpperCase()} {a.path}
        </span>
      }
    >
      <p className="mb-2">
        {a.summary}. <span className="soft">Scope: {a.scope === 'any' ? 'any, each kind by its own' : a.scope}.</span>
      </p>
      <pre className="command">{command}</pre>
      {a.method === 'get' ? (
        <>
          {a.names.length + a.query.length > 0 ? (
            <div className="grid g-1-1 mb-2">
              {a.names.map((n) =>
                field(n.name, n.example === '' ? 'There is none you may see yet.' : 'One you may see'),
              )}
              {a.query.map((q) => field(q.name, q.meaning))}
            </div>
          ) : null}
          <Button variant="outline-primary" size="sm" disabled={busy || missing} onClick={() => void run()}>
            Run<span className="visually-hidden"> {a.path}</span>
          </Button>
          <span role="status" className="ms-2 small">
            {ran?.line}
          </span>
          {ran?.body ? (
            // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- a long answer is scrolled by the keyboard, too
            <pre className="answer" tabIndex={0} aria-label={`Answer of ${a.path}`}>
              {ran.body}
            </pre>
          ) : null}
        </>
      ) : null}
      <details className="mt-2">
        <summary>What it answers</summary>
        <div className="scroll-x">
          <table className="plain" aria-label={`Fields of ${a.path}`}>
            <thead>
              <tr>
                <th scope="col">Field</th>
                <th scope="col">Is</th>
                <th scope="col">Means</th>
              </tr>
            </thead>
            <tbody>
              {a.fields.map((f) => (
                <tr key={f.name}>
                  <td className="code-face">{f.name}</td>
                  <td>{f.type}</td>
                  <td>{f.meaning}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        {Object.entries(a.refuses).map(([status, what]) => (
          <p key={status} className="mb-0">
            <b>{status}</b>: {what}.
          </p>
        ))}
      </details>
    </Panel>
  );
}
