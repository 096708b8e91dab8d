'use client';
import Button from 'react-bootstrap/Button';
import { useEffect, useRef, useState } from 'react';
import type SignaturePad from 'signature_pad';

/** A drawn signature, if one is wanted: the password signs, this is for the eye. */
export function Signature({ change }: { change: (png: string | null) => void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pad = useRef<SignaturePad | null>(null);
  const [drawn, setDrawn] = useState(false);
  useEffect(() => {
    let gone = false;
    const element = canvas.current;
    void import('signature_pad').then(({ default: Pad }) => {
      if (gone || !element) return;
      pad.current = new Pad(element, { penColor: '#16263a', minWidth: 0.8, maxWidth: 2.2 });
      pad.current.addEventListener('endStroke', () => {
        setDrawn(true);
        change(element.toDataURL('image/png'));
      });
    });
    return () => {
      gone = true;
      pad.current?.off();
    };
    // The handler is stable for the life of the form.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  return (
    <div>
      <span className="form-label d-block" id="drawn-label">
        Drawn signature, if you want one
      </span>
      <canvas ref={canvas} width={360} height={110} className="sigpad" role="img" aria-labelledby="drawn-label" />
      <Button
        variant="link"
        size="sm"
        className="p-0"
        disabled={!drawn}
        onClick={() => {
          pad.current?.clear();
          setDrawn(false);
          change(null);
        }}
      >
        Clear
      </Button>
    </div>
  );
}
