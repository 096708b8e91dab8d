'use client';
import Button from 'react-bootstrap/Button';
import { useState } from 'react';

interface Line {
  of: string;
  text: string;
}
/** What each of the two writes in the logbook, to be copied; what is to be filled in is said beside it. */
export function LogbookLinesPanel({ lines, open }: { lines: Line[]; open: readonly string[] }) {
  const [said, setSaid] = useState('');
  const copy = async ({ of, text }: Line) => {
    try {
      await navigator.clipboard.writeText(text);
      setSaid(`${of}: copied.`);
    } catch {
      setSaid('This browser does not let a page copy: select the text.');
    }
  };
  return (
    <>
      {lines.map((l) => (
        <div key={l.of} className="mb-2">
          <div className="d-flex gap-2 align-items-baseline">
            <h3 className="group mb-0">{l.of}</h3>
            <Button variant="outline-primary" size="sm" className="ms-auto" onClick={() => void copy(l)}>
              Copy<span className="visually-hidden"> the line of {l.of}</span>
            </Button>
          </div>
          <p className="small mb-0">{l.text}</p>
        </div>
      ))}
      {open.length > 0 ? <p className="caution small mb-0">Fill in by hand: {open.join('; ')}.</p> : null}
      <p role="status" className="soft small mb-0">
        {said}
      </p>
    </>
  );
}
