'use client';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Field } from '../shared/field';

export interface LabChoice {
  key: string;
  name: string;
}
export interface LabContext {
  choices: LabChoice[];
  typeKey: string;
  oldKey: string;
  checkoutId: string | null;
  pilotName: string | null;
}

/**
 * Which type, against which old one, and the link to send. Choosing loads that sheet; everything else stays in the
 * address.
 */
export function LabBar({ context, withOld }: { context: LabContext; withOld: boolean }) {
  const router = useRouter();
  const [said, setSaid] = useState('');
  const go = (key: 'type' | 'old', value: string) => {
    const url = new URL(window.location.href);
    url.searchParams.set(key, value);
    // What was set for the other type does not fit this one.
    if (key === 'type')
      for (const k of [...url.searchParams.keys()])
        if (!['type', 'old', 'checkout', 'part'].includes(k)) url.searchParams.delete(k);
    router.push(`${url.pathname}${url.search}`);
  };
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(window.location.href);
      setSaid('Link copied.');
    } catch {
      setSaid('Copy it from the address bar.');
    }
  };
  return (
    <div className="lab-bar">
      <Field label="Type" id="lab-type">
        <select value={context.typeKey} onChange={(e) => go('type', e.target.value)}>
          {context.choices.map((c) => (
            <option key={c.key} value={c.key}>
              {c.name}
            </option>
          ))}
        </select>
      </Field>
      {withOld ? (
        <Field label="Against" id="lab-old">
          <select value={context.oldKey} onChange={(e) => go('old', e.target.value)}>
            {context.choices
              .filter((c) => !c.key.startsWith('ZP-') || c.key === context.oldKey)
              .map((c) => (
                <option key={c.key} value={c.key}>
                  {c.name}
                </option>
              ))}
          </select>
        </Field>
      ) : null}
      <div>
        <Button variant="outline-primary" onClick={() => void copy()}>
          Copy the link
        </Button>{' '}
        <span role="status" className="soft small">
          {said}
        </span>
      </div>
    </div>
  );
}
