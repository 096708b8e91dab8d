'use client';
import { Day } from '../shared/zone';
import Button from 'react-bootstrap/Button';
import { TriangleAlert } from 'lucide-react';
import { Link } from '../shared/link';
import { dateText } from '@/core/format';
import { LIMIT_NAME, type LimitChannel } from '@/domain/words';
import { Field } from '../shared/field';
import { useActionForm } from '../shared/action-form';
import type { ActionResult } from '../shared/forms';
import { Problems } from '../shared/parts';

export interface LimitLine {
  id: string;
  traceId: string | null;
  seenBy: string | null;
  registration: string;
  channel: LimitChannel;
  measured: { limit: number; unit: string; peak: number; startS: number; durationS: number } | null;
  mustDo: string;
  mustDoSource: string | null;
  flownOn: string;
  pilotName: string;
  released: { by: string; at: string; done: string; certifier: string | null; certificate: string | null } | null;
  releases: boolean;
}
type Release = (form: unknown) => Promise<ActionResult>;

/** Limits exceeded: how far, how long, what must be done, and its release by a chief. */
export function Limits({
  limits,
  release,
  withTrace = false,
}: {
  limits: LimitLine[];
  release: Release;
  withTrace?: boolean;
}) {
  return (
    <ul className="list-unstyled mb-0 d-grid gap-3">
      {limits.map((l) => (
        <li key={l.id} className="limit">
          <div>
            <TriangleAlert size={18} aria-hidden className={l.released ? 'soft' : 'v-outside'} />{' '}
            <strong>
              {l.registration}: {LIMIT_NAME[l.channel]} passed
            </strong>{' '}
            <span className="soft">
              {dateText(l.flownOn)}, {l.pilotName}
            </span>
          </div>
          <div>
            {l.measured ? (
              <Amount of={l.measured} />
            ) : (
              `Seen by ${l.seenBy ?? 'the instructor'}. How far was not measured.`
            )}
            {withTrace && l.traceId !== null ? (
              <>
                {' '}
                {'\u00b7'} <Link href={`/traces/${l.traceId}`}>show</Link>
              </>
            ) : null}
          </div>
          <div className="small">
            {l.mustDo}
            {l.mustDoSource ? <span className="soft"> ({l.mustDoSource})</span> : null}
          </div>
          {l.released ? (
            <div className="small note-good">
              {l.released.certifier
                ? `Certified by ${l.released.certifier}, ${l.released.certificate ?? ''}; entered`
                : 'Released'}{' '}
              by {l.released.by}, <Day at={l.released.at} />: {l.released.done}
            </div>
          ) : l.releases ? (
            <ReleaseForm id={l.id} release={release} />
          ) : (
            <div className="small">
              <strong>Not released.</strong> It ends when somebody entitled has certified what was done, and a chief who
              neither flew nor taught this flight has entered it.
            </div>
          )}
        </li>
      ))}
    </ul>
  );
}
const Figure = ({ of, unit }: { of: string | number; unit: string }) => (
  <span className="mono">
    {of}
    {'\u00a0'}
    {unit}
  </span>
);
const Amount = ({ of }: { of: NonNullable<LimitLine['measured']> }) => (
  <>
    <Figure of={of.peak.toFixed(of.unit === 'g' ? 2 : 0)} unit={of.unit} /> where{' '}
    <Figure of={of.limit} unit={of.unit} /> is the limit, for <Figure of={of.durationS.toFixed(1)} unit="s" />
  </>
);

function ReleaseForm({ id, release }: { id: string; release: Release }) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/grounding-forms')).ReleaseForm,
    defaults: { exceedanceId: id, done: '', certifier: '', certificate: '' },
    draft: `release-${id}`,
    action: release,
  });
  return (
    <details className="mt-1">
      <summary>Enter the release {'\u2026'}</summary>
      <form {...f.props} className="d-grid gap-2 mt-2">
        <Problems problems={f.problems} title="Not released" />
        <Field
          label="What was done, and where it is entered"
          id={`done-${id}`}
          error={f.error('done')}
          hint="The aeroplane stays on the ground until this is written. The entry stays for good."
        >
          <textarea rows={2} maxLength={500} {...f.register('done')} />
        </Field>
        <Field label="Certified by" id={`certifier-${id}`} error={f.error('certifier')}>
          <input maxLength={120} {...f.register('certifier')} />
        </Field>
        <Field label="Certificate" id={`certificate-${id}`} error={f.error('certificate')}>
          <input maxLength={80} {...f.register('certificate')} />
        </Field>
        <Button type="submit" variant="primary" size="sm" style={{ justifySelf: 'start' }} disabled={f.busy}>
          Enter the release
        </Button>
      </form>
    </details>
  );
}
