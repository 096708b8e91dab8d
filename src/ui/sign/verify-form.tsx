'use client';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import FormText from 'react-bootstrap/FormText';
import Button from 'react-bootstrap/Button';
import { type ChangeEvent, useState } from 'react';
import { VerdictShape } from '../shared/verdict';

interface Answer {
  verdict: 'holds' | 'void' | 'not-here' | 'broken' | 'unreadable';
  title: string;
  lines: string[];
  problems: string[];
}
const SHAPE = {
  holds: 'within',
  void: 'outside',
  broken: 'outside',
  'not-here': 'not-seen',
  unreadable: 'not-seen',
} as const;

/** A code typed or read, or a file dropped; the answer in words. */
export function VerifyForm({ first, code, hash }: { first: Answer | null; code: string; hash: string }) {
  const [answer, setAnswer] = useState<Answer | null>(first);
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const [name, setName] = useState('');
  const ask = async (query: string, body?: Blob) => {
    setBusy(true);
    setProblem('');
    try {
      const response = await fetch(`/api/verify${query}`, { method: 'POST', ...(body ? { body } : {}) });
      const said = (await response.json()) as Answer & { message?: string };
      if (response.ok) setAnswer(said);
      else setProblem(said.message ?? 'It could not be checked. Try again.');
    } catch {
      setProblem(
        'The server could not be reached. Check the network and try again, or check the file without it, as below.',
      );
    } finally {
      setBusy(false);
    }
  };
  return (
    <>
      <div aria-live="polite">
        {problem ? (
          <p className="trouble" role="alert">
            {problem}
          </p>
        ) : null}
        {answer ? (
          <section className={`panel answer a-${answer.verdict}`}>
            <h2>
              <VerdictShape verdict={SHAPE[answer.verdict]} size={20} /> {answer.title}
            </h2>
            {answer.lines.map((l) => (
              <p key={l} className="mb-1">
                {l}
              </p>
            ))}
            {answer.problems.length > 0 ? (
              <ul className="mb-0">
                {answer.problems.map((p) => (
                  <li key={p}>{p}</li>
                ))}
              </ul>
            ) : null}
          </section>
        ) : null}
      </div>
      <section className="panel mb-3">
        <h2>A file</h2>
        <FormLabel htmlFor="file">The PDF of an entry, its JSON, or an export of the ledger</FormLabel>
        <FormControl
          id="file"
          type="file"
          accept=".pdf,.json,application/pdf,application/json"
          disabled={busy}
          onChange={(e: ChangeEvent<HTMLInputElement>) => {
            const file = e.target.files?.[0];
            if (file) {
              setName(file.name);
              void ask('', file);
            }
            e.target.value = '';
          }}
        />
        {name ? (
          <FormText as="p" className="mb-0">
            Last given: {name}
          </FormText>
        ) : null}
      </section>
      <form
        className="panel mb-3 d-grid gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          const f = new FormData(e.currentTarget);
          const text = (k: string) => {
            const v = f.get(k);
            return typeof v === 'string' ? v.trim().toLowerCase() : '';
          };
          void ask(`?${new URLSearchParams({ e: text('e'), h: text('h') }).toString()}`);
        }}
      >
        <h2 className="mb-0">A code</h2>
        <div>
          <FormLabel htmlFor="e">Entry</FormLabel>
          <FormControl
            id="e"
            name="e"
            className="mono"
            defaultValue={code}
            placeholder="at the foot of the sheet"
            autoComplete="off"
          />
        </div>
        <div>
          <FormLabel htmlFor="h">SHA-256</FormLabel>
          <FormControl id="h" name="h" className="code-face" defaultValue={hash} autoComplete="off" />
        </div>
        <div>
          <Button type="submit" variant="primary" disabled={busy}>
            {busy ? 'Checking' : 'Check the code'}
          </Button>
        </div>
      </form>
    </>
  );
}
