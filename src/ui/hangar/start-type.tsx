'use client';
import Button from 'react-bootstrap/Button';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { SAMPLE_KINDS, type SampleKind } from '@/domain/draft-forms';
import type { ActionResult } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';
import { useTap } from '../shared/use-tap';

const KINDS: Record<SampleKind, { name: string; what: string }> = {
  'light-tailwheel': { name: 'Light tailwheel', what: 'Tandem seats, flap, fixed propeller.' },
  'nosewheel-trainer': { name: 'Nosewheel trainer', what: 'Side by side, flap, fixed propeller.' },
  'complex-single': { name: 'Complex single', what: 'Retractable gear, flap, constant-speed propeller.' },
  'light-twin': { name: 'Light twin', what: 'Two engines, retractable gear, one engine out.' },
  amphibian: { name: 'Amphibian', what: 'Two engines; a schedule for water and one for land.' },
};

/** What a new type begins with. */
export function StartType({
  types,
  start,
}: {
  types: readonly { code: string; name: string }[];
  start: (form: unknown) => Promise<ActionResult<{ id: string }>>;
}) {
  const router = useRouter();
  const { tap, busy, problems } = useTap();
  const [code, setCode] = useState(types[0]?.code ?? '');
  const begin = (form: unknown) =>
    void tap(() => start(form), { done: ({ id }) => router.push(`/hangar/${encodeURIComponent(id)}/edit`) });
  return (
    <div className="grid">
      <Problems problems={problems} />
      <Panel title="From a sample of its kind">
        <p>
          The rows a sheet of this kind has are there, each with a number marked <em>sample</em>. Replace every number
          from your flight manual: nothing is briefed until each is confirmed with its source.
        </p>
        <ul className="plain-list mb-0">
          {SAMPLE_KINDS.map((kind) => (
            <li key={kind} className="d-flex justify-content-between align-items-center gap-3 mb-2">
              <span>
                <strong>{KINDS[kind].name}</strong>
                <span className="d-block soft small">{KINDS[kind].what}</span>
              </span>
              <Button variant="outline-primary" disabled={busy} onClick={() => begin({ from: 'sample', kind })}>
                Begin<span className="visually-hidden"> from the sample {KINDS[kind].name}</span>
              </Button>
            </li>
          ))}
        </ul>
      </Panel>
      {types.length > 0 ? (
        <Panel title="From a type in the hangar">
          <p>Its rows are taken over as samples; each has to be confirmed for the new type.</p>
          <FormLabel htmlFor="copied">Type</FormLabel>
          <div className="d-flex gap-2">
            <FormSelect id="copied" value={code} onChange={(e) => setCode(e.target.value)}>
              {types.map((t) => (
                <option key={t.code} value={t.code}>
                  {t.name}
                </option>
              ))}
            </FormSelect>
            <Button variant="outline-primary" disabled={busy} onClick={() => begin({ from: 'type', code })}>
              Begin
            </Button>
          </div>
        </Panel>
      ) : null}
      <Panel title="Empty">
        <p>No rows and no numbers.</p>
        <Button variant="outline-primary" disabled={busy} onClick={() => begin({ from: 'empty' })}>
          Begin empty
        </Button>
      </Panel>
    </div>
  );
}
