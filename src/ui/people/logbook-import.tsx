'use client';
import FormLabel from 'react-bootstrap/FormLabel';
import FormControl from 'react-bootstrap/FormControl';
import { Link } from '../shared/link';
import { type ChangeEvent, useState } from 'react';
import { plural } from '@/core/format';
import { ColumnsPanel, FreshPanel, type Look, TypesPanel } from './logbook-panels';
import { type LogbookMapping } from '@/domain/people';
import type { ActionProblem } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';
import { newId } from '../shared/new-id';

type Answer<T> = ({ ok: true } & T) | { ok: false; problems: ActionProblem[] };
/**
 * A logbook file looked at under a mapping, corrected, and read in. The mapping is remembered for files of the same
 * form.
 */
export function LogbookImport({
  pilotId,
  name,
  types,
}: {
  pilotId: string;
  name: string;
  types: readonly { code: string; name: string; water: boolean }[];
}) {
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [look, setLook] = useState<Look | null>(null);
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const [busy, setBusy] = useState(false);
  const [done, setDone] = useState<{ added: number; doubled: number; refused: number } | null>(null);
  const [requestId, setRequestId] = useState('');
  async function send<T>(body: object): Promise<Answer<T>> {
    setBusy(true);
    try {
      const r = await fetch(`/api/people/${pilotId}/import`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
      return (await r.json()) as Answer<T>;
    } catch {
      return {
        ok: false,
        problems: [
          {
            path: '',
            message: 'The server could not be reached. Check the network and try again: the file stays chosen.',
          },
        ],
      };
    } finally {
      setBusy(false);
    }
  }
  const ask = async (f: { name: string; text: string }, mapping: LogbookMapping | null) => {
    const answer = await send<{ look: Look }>({ text: f.text, fileName: f.name, mapping, requestId: null });
    if (!answer.ok) {
      if (mapping === null) setLook(null);
      return setProblems(answer.problems);
    }
    setProblems([]);
    setLook(answer.look);
  };
  const choose = async (chosen: File | undefined) => {
    if (!chosen) return;
    setDone(null);
    const f = { name: chosen.name, text: await chosen.text() };
    setFile(f);
    setRequestId(newId());
    await ask(f, null);
  };
  const change = (next: LogbookMapping) => {
    if (look && file) {
      setLook({ ...look, mapping: next });
      void ask(file, next);
    }
  };
  const read = async () => {
    if (!file || !look) return;
    const answer = await send<{ added: number; doubled: number; refused: number }>({
      text: file.text,
      fileName: file.name,
      mapping: look.mapping,
      requestId,
    });
    if (!answer.ok) return setProblems(answer.problems);
    setProblems([]);
    setDone(answer);
  };
  if (done)
    return (
      <div className="note-good" role="status">
        <p>
          <b>{plural(done.added, 'flight')} imported</b>, {done.doubled} already on record, {done.refused} refused.
        </p>
        <Link className="btn btn-primary" href={`/people/${pilotId}`}>
          See current status
        </Link>
      </div>
    );
  return (
    <div className="grid">
      <Panel title="The file">
        <FormLabel htmlFor="logbook-file">Logbook as CSV, at most 4 MB</FormLabel>
        <FormControl
          id="logbook-file"
          type="file"
          accept=".csv,.txt,text/csv"
          style={{ maxWidth: 480 }}
          onChange={(e: ChangeEvent<HTMLInputElement>) => void choose(e.target.files?.[0])}
        />
        <Problems problems={problems} title="Not read" />
        {busy ? (
          <p role="status" className="soft mb-0 mt-2">
            Reading …
          </p>
        ) : null}
      </Panel>
      {look ? (
        <>
          <ColumnsPanel look={look} change={change} />
          <TypesPanel look={look} change={change} types={types} />
          <FreshPanel look={look} change={change} name={name} busy={busy} read={() => void read()} />
        </>
      ) : null}
    </div>
  );
}
