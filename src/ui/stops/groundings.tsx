'use client';
import { Day } from '../shared/zone';
import Button from 'react-bootstrap/Button';
import { GROUNDING_KINDS } from '@/domain/stops';
import { Field } from '../shared/field';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';
import type { GroundedLine } from './grounded-note';
import { newId } from '../shared/new-id';

export interface GroundingLine extends GroundedLine {
  id: string;
  ended: { by: string; at: string; done: string; certifier: string | null; certificate: string | null } | null;
}
type Send = (form: unknown) => Promise<ActionResult>;
const KIND_NAME = { airworthiness: 'finding of airworthiness', school: 'hold of the school', limit: 'limit exceeded' };

/** What holds aeroplanes on the ground, each with the form that ends it. */
export function Groundings({ lines, end, mayEnd }: { lines: GroundingLine[]; end: Send; mayEnd: boolean }) {
  return (
    <ul className="list-unstyled mb-0 d-grid gap-3">
      {lines.map((g) => (
        <li key={g.id}>
          <div>
            <strong>
              <span className="code-face">{g.registration}</span>: {g.why}
            </strong>{' '}
            <span className="soft">
              {KIND_NAME[g.kind]}, {g.placedBy}, <Day at={g.placedAt} />
            </span>
          </div>
          {g.ended ? (
            <div className="small note-good">
              {g.ended.certifier ? `Certified by ${g.ended.certifier}, ${g.ended.certificate ?? ''}; entered` : 'Ended'}{' '}
              by {g.ended.by}, <Day at={g.ended.at} />: {g.ended.done}
            </div>
          ) : mayEnd ? (
            <EndForm id={g.id} certified={g.kind === 'airworthiness'} end={end} />
          ) : (
            <div className="small">
              {g.kind === 'school'
                ? 'A hold of the school is the chief\u2019s to end.'
                : 'It ends when somebody entitled has certified it and the chief has entered that.'}
            </div>
          )}
        </li>
      ))}
    </ul>
  );
}

/** Fields of a return to service: what was done, who certified it, under which certificate. */
function EndForm({ id, certified, end }: { id: string; certified: boolean; end: Send }) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/grounding-forms')).EndGroundingForm,
    defaults: { groundingId: id, done: '', certifier: '', certificate: '' },
    draft: `end-grounding-${id}`,
    action: end,
  });
  return (
    <details className="mt-1">
      <summary>
        {certified ? 'Enter the release' : 'End this hold'} {'\u2026'}
      </summary>
      <form {...f.props} className="d-grid gap-2 mt-2">
        <Problems problems={f.problems} title="Not ended" />
        <Field label="What was done, and where it is entered" id={`done-${id}`} error={f.error('done')}>
          <textarea rows={2} maxLength={500} {...f.register('done')} />
        </Field>
        {certified ? (
          <>
            <Field
              label="Certified by"
              id={`certifier-${id}`}
              error={f.error('certifier')}
              hint="Somebody entitled to certify this work; not the one who enters it unless they are."
            >
              <input maxLength={120} {...f.register('certifier')} />
            </Field>
            <Field label="Certificate" id={`certificate-${id}`} error={f.error('certificate')}>
              <input maxLength={80} {...f.register('certificate')} />
            </Field>
          </>
        ) : null}
        <Button type="submit" variant="primary" size="sm" style={{ justifySelf: 'start' }} disabled={f.busy}>
          {certified ? 'Enter the release' : 'End the hold'}
        </Button>
      </form>
    </details>
  );
}

/** Takes an aeroplane out of service. */
export function GroundForm({
  airframes,
  chief,
  ground,
}: {
  airframes: { id: string; registration: string }[];
  chief: boolean;
  ground: Send;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/grounding-forms')).GroundForm,
    defaults: { requestId: '', airframeId: airframes[0]?.id ?? '', kind: 'airworthiness' as const, why: '' },
    fresh: () => ({ requestId: newId() }),
    draft: 'ground',
    action: ground,
  });
  return (
    <details>
      <summary>Ground an aeroplane {'\u2026'}</summary>
      <form {...f.props} className="d-grid gap-2 mt-2">
        <Problems problems={f.problems} title="Not grounded" />
        <Field label="Aeroplane" id="ground-airframe" error={f.error('airframeId')}>
          <select {...f.register('airframeId')}>
            {airframes.map((a) => (
              <option key={a.id} value={a.id}>
                {a.registration}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Because of" id="ground-kind" error={f.error('kind')}>
          <select {...f.register('kind')}>
            {GROUNDING_KINDS.filter((k) => chief || k === 'airworthiness').map((k) => (
              <option key={k} value={k}>
                {`a ${KIND_NAME[k]}`}
              </option>
            ))}
          </select>
        </Field>
        <Field label="What is wrong" id="ground-why" error={f.error('why')}>
          <input maxLength={500} {...f.register('why')} />
        </Field>
        <Button type="submit" variant="outline-primary" size="sm" style={{ justifySelf: 'start' }} disabled={f.busy}>
          Ground it
        </Button>
      </form>
    </details>
  );
}
