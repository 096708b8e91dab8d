'use client';
import Button from 'react-bootstrap/Button';
import FormControl from 'react-bootstrap/FormControl';
import FormLabel from 'react-bootstrap/FormLabel';
import { useId, useState } from 'react';
import { fieldName, type PasteColumn, pasteRows, pasteWords } from '@/core/sheet';
import type { FormNode } from '@/domain/form-node';
import { Problems } from '../shared/parts';
import type { Reference } from './reference';

type Column = PasteColumn & { sourced: boolean };
const MOST_SHOWN = 6;

/** The columns of rows that a spreadsheet can hold: numbers, texts and numbers with a source; null of any other. */
export function columnsOf(item: FormNode): Column[] | null {
  if (item.kind !== 'object') return null;
  const columns = item.fields.map((f): Column | null => {
    const inner = f.node.kind === 'optional' ? f.node.inner : f.node;
    const empty = f.node.kind === 'optional';
    const named = { key: f.key, name: fieldName(f.key), empty };
    if (inner.kind === 'number' || inner.kind === 'sourced')
      return { ...named, kind: 'number', sourced: inner.kind === 'sourced' };
    return inner.kind === 'text' ? { ...named, kind: 'text', sourced: false } : null;
  });
  const all = columns.filter((c) => c !== null);
  return all.length === columns.length && all.some((c) => c.kind === 'number') ? all : null;
}

/** Rows copied from a spreadsheet in place of those on the sheet. */
export function PasteRows({
  name,
  columns,
  unitOf,
  reference,
  take,
}: {
  name: string;
  columns: readonly Column[];
  unitOf: (key: string) => string;
  reference: Reference | null;
  take: (rows: unknown[]) => void;
}) {
  const id = useId();
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const [problems, setProblems] = useState<{ message: string }[]>([]);
  const read = () => {
    const { rows, problems } = pasteRows(text, columns);
    setProblems(problems.map((p) => ({ message: pasteWords(p) })));
    if (problems.length > 0) return;
    const said = reference ?? { source: 'handbook' as const, ref: '' };
    take(
      rows.map((row) =>
        Object.fromEntries(
          columns.map((c) => [c.key, c.sourced && row[c.key] !== null ? { value: row[c.key], ...said } : row[c.key]]),
        ),
      ),
    );
    setOpen(false);
    setText('');
  };
  if (!open)
    return (
      <Button
        variant="outline-primary"
        size="sm"
        onClick={() => {
          setOpen(true);
          requestAnimationFrame(() => document.getElementById(id)?.focus());
        }}
      >
        Paste {name}
      </Button>
    );
  return (
    <div className="paste">
      <FormLabel htmlFor={id}>
        Rows from a spreadsheet, in place of these:{' '}
        <span className="soft">
          {columns.map((c) => `${c.name}${unitOf(c.key) ? ` (${unitOf(c.key)})` : ''}`).join(', ')}
        </span>
      </FormLabel>
      <FormControl
        as="textarea"
        id={id}
        rows={4}
        className="mono"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <Problems problems={problems.slice(0, MOST_SHOWN)} title="Nothing was taken" />
      {problems.length > MOST_SHOWN ? (
        <p className="small soft mb-0">and {problems.length - MOST_SHOWN} more.</p>
      ) : null}
      <div className="d-flex gap-2">
        <Button variant="primary" size="sm" onClick={read}>
          Take these rows
        </Button>
        <Button variant="link" size="sm" onClick={() => setOpen(false)}>
          Cancel
        </Button>
      </div>
    </div>
  );
}
