'use client';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import Button from 'react-bootstrap/Button';
import { Link } from '../shared/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { GOALS, type Goal, ROLES, type Role, say } from '@/domain/words';
import { rolesStamp } from '@/domain/people';
import { type Link_, LinkShown } from '../account/link-shown';
import { Field } from '../shared/field';
import { DateInput } from '../shared/when-input';
import { useActionForm } from '../shared/action-form';
import { type ActionResult, typedNumber } from '../shared/forms';
import { Refusal } from '../shared/refusal';
import { useTap } from '../shared/use-tap';
import { Problems } from '../shared/parts';
import { newId } from '../shared/new-id';

type Send<T = object> = (form: unknown) => Promise<ActionResult<T>>;

/** A medical, a review, a rating: done on a day, or good to one. */
export function DateForm({
  pilotId,
  rules,
  save,
}: {
  pilotId: string;
  rules: readonly { id: string; title: string }[];
  save: Send;
}) {
  const kinds = [
    { id: 'medical', title: 'Medical' },
    ...rules,
    { id: 'licence', title: 'Licence' },
    { id: 'insurance', title: 'Insurance' },
    { id: 'other', title: 'Other' },
  ];
  const f = useActionForm({
    schema: async () => (await import('@/domain/people')).DateForm,
    defaults: { key: 'medical', title: '', doneOn: '', until: '', note: '' },
    as: (v) => ({
      pilotId,
      key: v.key === 'other' ? `other:${v.title.trim().toLowerCase()}`.slice(0, 40) : v.key,
      title: v.key === 'other' ? v.title : (kinds.find((k) => k.id === v.key)?.title ?? ''),
      doneOn: v.doneOn || null,
      until: v.until || null,
      note: v.note,
    }),
    action: save,
  });
  const key = f.form.watch('key');
  const byRule = rules.some((r) => r.id === key);
  return (
    <form {...f.props} className="d-grid gap-2" aria-label="Dates">
      <Problems problems={f.problems} title="Not saved" />
      <div className="two">
        <Field label="What" id="date-key" error={f.error('key')}>
          <select {...f.register('key')}>
            {kinds.map((k) => (
              <option key={k.id} value={k.id}>
                {k.title}
              </option>
            ))}
          </select>
        </Field>
        {key === 'other' ? (
          <Field label="Called" id="date-title" error={f.error('title')}>
            <input {...f.register('title')} />
          </Field>
        ) : null}
        {byRule ? (
          <Field label="Done on" id="date-done" error={f.error('doneOn')} hint="validity follows the rule pack">
            <DateInput {...f.register('doneOn')} />
          </Field>
        ) : null}
        <Field
          label="Valid to"
          id="date-until"
          error={f.error('until')}
          hint={byRule ? 'only if the document gives another day' : undefined}
        >
          <DateInput {...f.register('until')} />
        </Field>
        <Field label="Note" id="date-note" error={f.error('note')}>
          <input {...f.register('note')} />
        </Field>
      </div>
      <div>
        <Button type="submit" variant="primary" size="sm" disabled={f.busy}>
          Save date
        </Button>
      </div>
    </form>
  );
}

export function NoteForm({ pilotId, chief, save }: { pilotId: string; chief: boolean; save: Send }) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/people')).NoteForm,
    defaults: { requestId: '', pilotId, text: '', visible: 'staff' as const },
    fresh: () => ({ requestId: newId() }),
    draft: `note:${pilotId}`,
    action: save,
  });
  return (
    <form {...f.props} className="d-grid gap-2" aria-label="Note">
      <Problems problems={f.problems} title="Not saved" />
      <Field label="Note" id="note-text" error={f.error('text')}>
        <textarea rows={2} {...f.register('text')} />
      </Field>
      <div className="d-flex gap-2 align-items-end">
        <Field label="Seen by" id="note-for" error={f.error('visible')}>
          <select {...f.register('visible')}>
            <option value="staff">the instructors</option>
            <option value="pilot">the instructors and the pilot</option>
            <option value="chief">{chief ? 'the chief' : 'the chief and me'}</option>
          </select>
        </Field>
        <Button type="submit" variant="primary" size="sm" disabled={f.busy}>
          Save note
        </Button>
      </div>
    </form>
  );
}

/** One tap that asks nothing more. */
export function Act({
  id,
  words,
  name,
  act,
}: {
  id: string;
  words: string;
  name: string;
  act: (id: string) => Promise<ActionResult>;
}) {
  const { tap, busy, refusal } = useTap();
  return (
    <>
      <Button variant="link" size="sm" className="p-0" disabled={busy} onClick={() => void tap(() => act(id))}>
        {words}
        <span className="visually-hidden"> {name}</span>
      </Button>{' '}
      <Refusal said={refusal} />
    </>
  );
}

const HELD = [
  'single-engine-land',
  'single-engine-sea',
  'multi-engine-land',
  'multi-engine-sea',
  'tailwheel',
  'high-performance',
  'complex',
  'TW',
  'RU',
  'VP',
  'T',
  'P',
  'EFIS',
  'SLPC',
  'instrument-rating',
  'AU-tailwheel',
  'AU-retractable',
  'AU-propeller',
  'AU-floatplane',
  'AU-hull',
  'AU-pressurisation',
  'AU-ski',
  'pressurised',
];
/** What instructors hold to teach. */
const TEACHING = [
  'instructor-single-engine',
  'instructor-multi-engine',
  'FI',
  'FI-restricted',
  'CRI-SE',
  'CRI-ME',
  'EU-assessed',
  'AU-train-type',
  'AU-train-features',
  'AU-train-multi-engine',
];
export function HeldForm({
  pilotId,
  today,
  twins,
  save,
}: {
  pilotId: string;
  today: string;
  /** Twins of the hangar: each is a variant held alone. */
  twins: { code: string; name: string }[];
  save: Send;
}) {
  const f = useActionForm({
    schema: async () => (await import('@/domain/people')).HeldForm,
    defaults: { requestId: '', pilotId, kind: '', gainedOn: '', note: '' },
    fresh: () => ({ requestId: newId() }),
    action: save,
  });
  return (
    <form {...f.props} className="d-flex gap-2 flex-wrap align-items-end" aria-label="Held">
      <Problems problems={f.problems} title="Not saved" />
      <Field label="Held" id="held-kind" error={f.error('kind')}>
        <select {...f.register('kind')}>
          <option value="">Choose</option>
          {HELD.map((k) => (
            <option key={k} value={k}>
              {say(k)}
            </option>
          ))}
          {twins.map((t) => (
            <option key={t.code} value={`MEP-variant:${t.code}`}>
              {say('MEP-variant')}: {t.name}
            </option>
          ))}
          <optgroup label="To teach">
            {TEACHING.map((k) => (
              <option key={k} value={k}>
                {say(k)}
              </option>
            ))}
          </optgroup>
        </select>
      </Field>
      <Field label="Since" id="held-on" error={f.error('gainedOn')}>
        <DateInput max={today} {...f.register('gainedOn')} />
      </Field>
      <Button type="submit" variant="primary" size="sm" disabled={f.busy}>
        Add
      </Button>
    </form>
  );
}

function Ticks<T extends string>({
  title,
  all,
  now,
  set,
}: {
  title: string;
  all: readonly T[];
  now: readonly T[];
  set: (next: T[]) => void;
}) {
  return (
    <fieldset>
      <legend>{title}</legend>
      <div className="ticks">
        {all.map((x) => (
          <label key={x}>
            <FormCheckInput
              type="checkbox"
              checked={now.includes(x)}
              onChange={(e) => set(e.target.checked ? [...now, x] : now.filter((y) => y !== x))}
            />
            {say(x)}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** Whole knots as typed; empty = no limit of one's own. */
const crosswindOf = (typed: string): number | null => (typed.trim() === '' ? null : Number(typed));

/** Roles, and the goals an instructor may sign. */
export function RolesForm({
  userId,
  roles,
  authorised,
  ownCrosswindKt,
  save,
}: {
  userId: string;
  roles: readonly Role[];
  authorised: readonly Goal[];
  ownCrosswindKt: number | null;
  save: Send;
}) {
  const router = useRouter();
  const [said, setSaid] = useState('');
  const f = useActionForm({
    schema: async () => (await import('@/domain/people')).RolesForm,
    defaults: {
      userId,
      roles: [...roles],
      authorised: [...authorised],
      ownKt: ownCrosswindKt === null ? '' : String(ownCrosswindKt),
      base: rolesStamp({ roles, authorised, ownCrosswindKt }),
    },
    as: ({ ownKt, ...v }) => ({ ...v, ownCrosswindKt: crosswindOf(ownKt) }),
    fieldOf: { ownCrosswindKt: 'ownKt' },
    action: (form) => {
      setSaid('');
      return save(form);
    },
    done: (_, { ownKt, ...v }) => {
      f.form.setValue('base', rolesStamp({ ...v, ownCrosswindKt: crosswindOf(ownKt) }));
      setSaid('Saved.');
      router.refresh();
    },
  });
  const [chosen, goals] = f.form.watch(['roles', 'authorised']);
  return (
    <form {...f.props} className="d-grid gap-2" aria-label="Roles">
      <Problems problems={f.problems} title="Not saved" />
      <Ticks title="Roles" all={ROLES} now={chosen} set={(next) => f.form.setValue('roles', next)} />
      {chosen.includes('instructor') ? (
        <>
          <Ticks title="May sign" all={GOALS} now={goals} set={(next) => f.form.setValue('authorised', next)} />
          <Field label="Own crosswind limit when teaching" unit="kt" id="own-kt" error={f.error('ownKt')}>
            <input inputMode="numeric" {...f.register('ownKt')} />
          </Field>
        </>
      ) : null}
      <div className="d-flex gap-2 align-items-center">
        <Button type="submit" variant="primary" size="sm" disabled={f.busy}>
          Save roles
        </Button>
        <span role="status" className="soft">
          {said}
        </span>
      </div>
    </form>
  );
}

/** A new person; the link to choose a password is shown once. */
export function PersonForm({ save }: { save: Send<{ pilotId: string; link: Link_ | null }> }) {
  const [made, setMade] = useState<{ pilotId: string; link: Link_ | null; name: string } | null>(null);
  const f = useActionForm({
    schema: async () => (await import('@/domain/people')).PersonForm,
    defaults: {
      requestId: '',
      name: '',
      email: '',
      massKg: '',
      hours: '',
      certificate: '',
      roles: ['pilot'] as Role[],
      authorised: [] as Goal[],
    },
    fresh: () => ({ requestId: newId() }),
    draft: 'person:new',
    as: (v) => ({
      ...v,
      email: v.email.trim(),
      massKg: typedNumber(v.massKg),
      hours: typedNumber(v.hours),
      authorised: v.roles.includes('instructor') ? v.authorised : [],
    }),
    action: save,
    done: ({ pilotId, link }, { name }) => setMade({ pilotId, link, name }),
  });
  const [roles, authorised] = f.form.watch(['roles', 'authorised']);
  if (made)
    return (
      <div className="note-good">
        <p role="status">
          <b>{made.name}</b> was added.
        </p>
        {made.link ? <LinkShown name={made.name} link={made.link} /> : null}
        <Link className="btn btn-primary" href={`/people/${made.pilotId}`}>
          Open the page of {made.name}
        </Link>
      </div>
    );
  return (
    <form {...f.props} className="d-grid gap-3" aria-label="New person">
      <Problems problems={f.problems} title="Not added" />
      <div className="two">
        <Field label="Name" id="p-name" error={f.error('name')}>
          <input autoComplete="off" {...f.register('name')} />
        </Field>
        <Field label="E-mail" id="p-email" error={f.error('email')} hint="empty: no account">
          <input type="email" autoComplete="off" {...f.register('email')} />
        </Field>
        <Field label="Mass" unit="kg" id="p-mass" error={f.error('massKg')}>
          <input inputMode="decimal" {...f.register('massKg')} />
        </Field>
        <Field label="Total hours" unit="h" id="p-hours" error={f.error('hours')}>
          <input inputMode="decimal" {...f.register('hours')} />
        </Field>
        <Field label="Licence or certificate" id="p-cert" error={f.error('certificate')}>
          <input {...f.register('certificate')} />
        </Field>
      </div>
      <Ticks title="Roles" all={ROLES} now={roles} set={(next) => f.form.setValue('roles', next)} />
      {roles.includes('instructor') ? (
        <Ticks title="May sign" all={GOALS} now={authorised} set={(next) => f.form.setValue('authorised', next)} />
      ) : null}
      <div>
        <Button type="submit" variant="primary" disabled={f.busy}>
          Add this person
        </Button>
      </div>
    </form>
  );
}

/** What may be erased, with the name typed once more. */
export function EraseForm({
  pilotId,
  name,
  stays,
  save,
}: {
  pilotId: string;
  name: string;
  stays: readonly string[];
  save: Send<{ kept: string[] }>;
}) {
  const router = useRouter();
  const f = useActionForm({
    schema: async () => (await import('@/domain/people')).EraseForm,
    defaults: { pilotId, reason: '', name: '' },
    action: save,
    done: () => router.refresh(),
  });
  return (
    <details>
      <summary>Erase personal data</summary>
      <form {...f.props} className="d-grid gap-2 mt-2" aria-label="Erase">
        <Problems problems={f.problems} title="Not erased" />
        <p className="mb-0">
          Erased at once: account and address, mass, experience, notes, dates, eye heights, hours, logged and imported
          flights, wishes and bookings to come. Export the record first if {name} wants it.
        </p>
        <div>
          <b>Kept, and why</b>
          <ul className="mb-0">
            {stays.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
        </div>
        <Field label="Requested by, and why" id="erase-why" error={f.error('reason')}>
          <input {...f.register('reason')} />
        </Field>
        <Field label={`Type the name: ${name}`} id="erase-name" error={f.error('name')}>
          <input autoComplete="off" {...f.register('name')} />
        </Field>
        <div>
          <Button type="submit" variant="outline-danger" disabled={f.busy}>
            Erase permanently
          </Button>
        </div>
      </form>
    </details>
  );
}
