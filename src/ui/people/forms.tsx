'use client';
import { Link } from '../shared/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { GOALS, type Goal, ROLES, type Role, say } from '@/domain/words';
import { rolesStamp } from '@/domain/people';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction, showProblems, useDraft } from '../shared/forms';
import { Problems } from '../shared/parts';

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
  const router = useRouter();
  const kinds = [
    { id: 'medical', title: 'Medical' },
    ...rules,
    { id: 'licence', title: 'Licence' },
    { id: 'insurance', title: 'Insurance' },
    { id: 'other', title: 'Something else' },
  ];
  const form = useForm({ defaultValues: { key: 'medical', title: '', doneOn: '', until: '', note: '' } });
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const key = form.watch('key');
  const byRule = rules.some((r) => r.id === key);
  const send = form.handleSubmit(async (v) => {
    const title = v.key === 'other' ? v.title : (kinds.find((k) => k.id === v.key)?.title ?? '');
    const answer = await runAction(() =>
      save({
        pilotId,
        key: v.key === 'other' ? `other:${v.title.trim().toLowerCase()}`.slice(0, 40) : v.key,
        title,
        doneOn: v.doneOn || null,
        until: v.until || null,
        note: v.note,
      }),
    );
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    setRest([]);
    form.reset();
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-2" aria-label="Dates">
      <Problems problems={rest} title="Not kept" />
      <div className="two">
        <Field label="What" id="date-key" error={errors.key}>
          <select {...form.register('key')}>
            {kinds.map((k) => (
              <option key={k.id} value={k.id}>
                {k.title}
              </option>
            ))}
          </select>
        </Field>
        {key === 'other' ? (
          <Field label="Called" id="date-title" error={errors.title}>
            <input {...form.register('title')} />
          </Field>
        ) : null}
        {byRule ? (
          <Field label="Done on" id="date-done" error={errors.doneOn} hint="it lasts as the pack says">
            <input type="date" {...form.register('doneOn')} />
          </Field>
        ) : null}
        <Field
          label="Good to"
          id="date-until"
          error={errors.until}
          hint={byRule ? 'only where a paper says another day' : undefined}
        >
          <input type="date" {...form.register('until')} />
        </Field>
        <Field label="Note" id="date-note" error={errors.note}>
          <input {...form.register('note')} />
        </Field>
      </div>
      <div>
        <button type="submit" className="btn btn-sm btn-primary" disabled={isSubmitting}>
          Keep the date
        </button>
      </div>
    </form>
  );
}

export function NoteForm({ pilotId, chief, save }: { pilotId: string; chief: boolean; save: Send }) {
  const router = useRouter();
  const form = useForm({ defaultValues: { requestId: '', text: '', visible: 'staff' } });
  const draft = useDraft(form, `note:${pilotId}`);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (v) => {
    const requestId = v.requestId || crypto.randomUUID();
    form.setValue('requestId', requestId);
    const answer = await runAction(() => save({ requestId, pilotId, text: v.text, visible: v.visible }));
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    setRest([]);
    form.reset({ requestId: '', text: '', visible: v.visible });
    draft.clear();
    router.refresh();
  });
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-2" aria-label="Note">
      <Problems problems={rest} title="Not kept" />
      <Field label="Note" id="note-text" error={errors.text}>
        <textarea rows={2} {...form.register('text')} />
      </Field>
      <div className="d-flex gap-2 align-items-end">
        <Field label="Seen by" id="note-for" error={errors.visible}>
          <select {...form.register('visible')}>
            <option value="staff">the instructors</option>
            <option value="pilot">the instructors and the pilot</option>
            <option value="chief">{chief ? 'the chief' : 'the chief and me'}</option>
          </select>
        </Field>
        <button type="submit" className="btn btn-sm btn-primary" disabled={isSubmitting}>
          Keep the note
        </button>
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
  const router = useRouter();
  const [problem, setProblem] = useState('');
  return (
    <>
      <button
        type="button"
        className="btn btn-link btn-sm p-0"
        onClick={() =>
          void runAction(() => act(id)).then((a) => {
            if (a.ok) router.refresh();
            else setProblem(a.problems[0]?.message ?? '');
          })
        }
      >
        {words}
        <span className="visually-hidden"> {name}</span>
      </button>
      {problem ? (
        <span role="alert" className="small v-outside">
          {' '}
          {problem}
        </span>
      ) : null}
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
  const router = useRouter();
  const form = useForm({ defaultValues: { kind: '', gainedOn: '', note: '' } });
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (v) => {
    const answer = await runAction(() => save({ requestId: crypto.randomUUID(), pilotId, ...v }));
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    setRest([]);
    form.reset();
    router.refresh();
  });
  return (
    <form
      onSubmit={(e) => void send(e)}
      noValidate
      className="d-flex gap-2 flex-wrap align-items-end"
      aria-label="Held"
    >
      <Problems problems={rest} title="Not kept" />
      <Field label="Shown to the office" id="held-kind" error={errors.kind}>
        <select {...form.register('kind')}>
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
      <Field label="Since" id="held-on" error={errors.gainedOn}>
        <input type="date" max={today} {...form.register('gainedOn')} />
      </Field>
      <button type="submit" className="btn btn-sm btn-primary" disabled={isSubmitting}>
        Add
      </button>
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
            <input
              type="checkbox"
              className="form-check-input"
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
  const [r, setR] = useState<Role[]>([...roles]);
  const [a, setA] = useState<Goal[]>([...authorised]);
  const [kt, setKt] = useState(ownCrosswindKt === null ? '' : String(ownCrosswindKt));
  const [base, setBase] = useState(rolesStamp({ roles, authorised, ownCrosswindKt }));
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const [said, setSaid] = useState('');
  const send = async () => {
    const wanted = { roles: r, authorised: a, ownCrosswindKt: kt.trim() === '' ? null : Number(kt) };
    const answer = await runAction(() => save({ userId, base, ...wanted }));
    setProblems(answer.ok ? [] : answer.problems);
    setSaid(answer.ok ? 'Kept.' : '');
    if (answer.ok) setBase(rolesStamp(wanted));
    else if (typeof answer.base === 'string') setBase(answer.base);
    if (answer.ok) router.refresh();
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
      className="d-grid gap-2"
      aria-label="Roles"
    >
      <Problems problems={problems.filter((p) => p.path !== 'ownCrosswindKt')} title="Not kept" />
      <Ticks title="Roles" all={ROLES} now={r} set={setR} />
      {r.includes('instructor') ? (
        <>
          <Ticks title="May sign" all={GOALS} now={a} set={setA} />
          <Field
            label="Own crosswind limit when teaching"
            unit="kt"
            id="own-kt"
            error={problems.find((p) => p.path === 'ownCrosswindKt')}
          >
            <input inputMode="numeric" value={kt} onChange={(e) => setKt(e.target.value)} />
          </Field>
        </>
      ) : null}
      <div className="d-flex gap-2 align-items-center">
        <button type="submit" className="btn btn-sm btn-primary">
          Keep
        </button>
        <span role="status" className="soft">
          {said}
        </span>
      </div>
    </form>
  );
}

/** A new person; the first password is shown once. */
export function PersonForm({ save }: { save: Send<{ pilotId: string; password: string | null }> }) {
  const form = useForm({
    defaultValues: { requestId: '', name: '', email: '', massKg: '', hours: '', certificate: '' },
  });
  const draft = useDraft(form, 'person:new', ['requestId']);
  const [roles, setRoles] = useState<Role[]>(['pilot']);
  const [authorised, setAuthorised] = useState<Goal[]>([]);
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const [made, setMade] = useState<{ pilotId: string; password: string | null; name: string } | null>(null);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (v) => {
    const requestId = v.requestId || crypto.randomUUID();
    form.setValue('requestId', requestId);
    const number = (t: string) => (t.trim() === '' ? NaN : Number(t.replace(',', '.')));
    const answer = await runAction(() =>
      save({
        requestId,
        name: v.name,
        email: v.email.trim(),
        massKg: number(v.massKg),
        hours: number(v.hours),
        certificate: v.certificate,
        roles,
        authorised: roles.includes('instructor') ? authorised : [],
      }),
    );
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    setRest([]);
    draft.clear();
    setMade({ pilotId: answer.pilotId, password: answer.password, name: v.name });
  });
  if (made)
    return (
      <div className="note-good" role="status">
        <p>
          <b>{made.name}</b> is on the list of people.
        </p>
        {made.password ? (
          <p>
            First password, shown this once: <code className="num">{made.password}</code>. Give it by word of mouth.
          </p>
        ) : null}
        <Link className="btn btn-primary" href={`/people/${made.pilotId}`}>
          Open the page of {made.name}
        </Link>
      </div>
    );
  return (
    <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-3" aria-label="New person">
      <Problems problems={rest} title="Not added" />
      <div className="two">
        <Field label="Name" id="p-name" error={errors.name}>
          <input autoComplete="off" {...form.register('name')} />
        </Field>
        <Field label="E-mail" id="p-email" error={errors.email} hint="empty: no account">
          <input type="email" autoComplete="off" {...form.register('email')} />
        </Field>
        <Field label="Mass" unit="kg" id="p-mass" error={errors.massKg}>
          <input inputMode="decimal" {...form.register('massKg')} />
        </Field>
        <Field label="Hours in all" unit="h" id="p-hours" error={errors.hours}>
          <input inputMode="decimal" {...form.register('hours')} />
        </Field>
        <Field label="Licence or certificate" id="p-cert" error={errors.certificate}>
          <input {...form.register('certificate')} />
        </Field>
      </div>
      <Ticks title="Roles" all={ROLES} now={roles} set={setRoles} />
      {roles.includes('instructor') ? (
        <Ticks title="May sign" all={GOALS} now={authorised} set={setAuthorised} />
      ) : null}
      <div>
        <button type="submit" className="btn btn-primary" disabled={isSubmitting}>
          Add this person
        </button>
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
  const form = useForm({ defaultValues: { reason: '', name: '' } });
  const [rest, setRest] = useState<ActionProblem[]>([]);
  const { errors, isSubmitting } = form.formState;
  const send = form.handleSubmit(async (v) => {
    const answer = await runAction(() => save({ pilotId, reason: v.reason, name: v.name }));
    if (!answer.ok) return setRest(showProblems(form, answer.problems));
    router.refresh();
  });
  return (
    <details>
      <summary>Erase what may be erased</summary>
      <form onSubmit={(e) => void send(e)} noValidate className="d-grid gap-2 mt-2" aria-label="Erase">
        <Problems problems={rest} title="Not erased" />
        <p className="mb-0">
          Gone at once: account and address, mass, experience, notes, dates, eye heights, hours, logged and imported
          flights, wishes and bookings to come. Export the record first if {name} wants it.
        </p>
        <div>
          <b>Stays, and why</b>
          <ul className="mb-0">
            {stays.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
        </div>
        <Field label="Who asked, and why" id="erase-why" error={errors.reason}>
          <input {...form.register('reason')} />
        </Field>
        <Field label={`Type the name: ${name}`} id="erase-name" error={errors.name}>
          <input autoComplete="off" {...form.register('name')} />
        </Field>
        <div>
          <button type="submit" className="btn btn-outline-danger" disabled={isSubmitting}>
            Erase for good
          </button>
        </div>
      </form>
    </details>
  );
}
