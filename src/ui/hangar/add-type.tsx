'use client';
import { useRouter } from 'next/navigation';
import { useId, useState } from 'react';
import { type ActionProblem, type ActionResult, runAction } from '../shared/forms';
import { Problems } from '../shared/parts';

const MOST_BYTES = 1_000_000;
const MOST_SHOWN = 12;

/** A type sheet from a file, as the interface for programs gives it out; a type that is there already is not touched. */
export function AddType({ save }: { save: (form: unknown) => Promise<ActionResult> }) {
  const router = useRouter();
  const id = useId();
  const [busy, setBusy] = useState(false);
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const say = (message: string) => setProblems([{ path: '', message }]);
  const take = async (file: File) => {
    setProblems([]);
    if (file.size > MOST_BYTES) return say('A type sheet is under 1 MB; this is another file.');
    let sheet: { code?: unknown };
    try {
      const read = JSON.parse(await file.text()) as { code?: unknown; sheet?: { code?: unknown } };
      // As it is given out: the version around the sheet, or the sheet itself.
      sheet = typeof read.sheet === 'object' ? read.sheet : read;
    } catch {
      return say('This file is no JSON. Choose a type sheet saved from Jeito, such as urze.json.');
    }
    const { code } = sheet;
    if (typeof code !== 'string') return say('This file holds no type sheet: it has no code.');
    setBusy(true);
    const answer = await runAction(() =>
      save({ code, baseVersion: 0, reason: `from the file ${file.name}`.slice(0, 300), sheet }),
    );
    setBusy(false);
    if (!answer.ok)
      return setProblems(
        answer.problems.map((p) => ({
          ...p,
          message: p.path ? `${p.path.replace(/^sheet\./, '')}: ${p.message}` : p.message,
        })),
      );
    router.push(`/hangar/${encodeURIComponent(code)}`);
  };
  return (
    <div>
      <label htmlFor={id} className="form-label">
        Type sheet <span className="soft">(JSON)</span>
      </label>
      <input
        id={id}
        type="file"
        className="form-control"
        accept=".json,application/json"
        disabled={busy}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) void take(file);
        }}
      />
      <Problems problems={problems.slice(0, MOST_SHOWN)} title="Not added" />
      {problems.length > MOST_SHOWN ? <p className="small soft">and {problems.length - MOST_SHOWN} more.</p> : null}
    </div>
  );
}
