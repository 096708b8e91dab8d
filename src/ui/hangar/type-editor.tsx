'use client';
import Button from 'react-bootstrap/Button';
import FormControl from 'react-bootstrap/FormControl';
import FormLabel from 'react-bootstrap/FormLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import { useRouter } from 'next/navigation';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import {
  fieldName,
  gapWords,
  pathWords,
  SHEET_STEPS,
  sheetDifferences,
  sheetGaps,
  type SheetStep,
  stepOf,
  unconfirmed,
  validateSheet,
} from '@/core/sheet';
import { plain } from '@/core/format';
import { type FormNode, missingIn, nodeAt, type Path, valueAt } from '@/domain/form-node';
import type { TypeSheet } from '@/domain/sheet';
import { type SourceKind, SOURCES } from '@/domain/words';
import type { ActionResult } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';
import { Title } from '../shared/title';
import { useTap } from '../shared/use-tap';
import { isPlain, NodeField, REFERENCE_ID, type Tools } from './fields';
import type { Reference } from './reference';
import { DifferenceList, FindingList } from './findings';
import { FindingsStay, Reason } from './save-parts';
import { useTypeDraft } from './use-type-draft';

const STEPS = Object.keys(SHEET_STEPS) as SheetStep[];
const STEP_NAMES: Record<SheetStep, string> = {
  general: 'General',
  limits: 'Limits',
  speeds: 'Speeds',
  stalls: 'Stalls',
  approach: 'Approach',
  distances: 'Distances',
  loading: 'Loading',
  fuel: 'Fuel and power',
  electrics: 'Electrics',
  geometry: 'Geometry',
  dynamics: 'Ground and slip',
  handling: 'Flows and handling',
};
const MOST_LISTED = 8;

interface Props {
  me: string;
  title: string;
  /** Of the draft, or the code of the type that is edited. */
  draftKey: string;
  origin: string;
  /** Null = the type is new. */
  code: string | null;
  baseVersion: number;
  newestVersion: number;
  start: unknown;
  sheet: unknown;
  seq: number;
  drafted: boolean;
  node: FormNode;
  back: string;
  keep: Parameters<typeof useTypeDraft>[0]['keep'];
  save: (form: unknown) => Promise<ActionResult<{ code: string; version: number }>>;
  rebase: (form: unknown) => Promise<ActionResult>;
  discard: (form: unknown) => Promise<ActionResult>;
}

/** A type sheet in the order of a flight manual, one step at a time; kept on the server while it is entered. */
export function TypeEditor(p: Props) {
  const router = useRouter();
  const draft = useTypeDraft({ ...p, key: p.draftKey });
  const [step, setStep] = useState<SheetStep>('general');
  const [reason, setReason] = useState(p.code === null ? 'First sheet of this type' : '');
  const [references, setReferences] = useReferences(p.draftKey);
  const { tap, busy, problems: trouble } = useTap();
  const settled = useDeferredValue(draft.sheet);
  const state = useMemo(() => {
    const missing = missingIn(p.node, settled).filter((m) => m.path !== 'code');
    return { missing, open: unconfirmed(settled), gaps: sheetGaps(settled) };
  }, [settled, p.node]);
  const findings = useMemo(() => {
    try {
      return validateSheet(settled as TypeSheet);
    } catch {
      return null;
    }
  }, [settled]);
  const dialUnit = (settled as TypeSheet).dial?.unit ?? 'kt';
  const differences = useMemo(
    () => (p.code === null ? [] : sheetDifferences(p.start, settled, dialUnit)),
    [p.start, p.code, settled, dialUnit],
  );
  const problems = new Map(trouble.filter((x) => x.path.startsWith('sheet.')).map((x) => [x.path.slice(6), x.message]));
  const reasonProblem = trouble.find((x) => x.path === 'reason')?.message;
  const reference = references[step] ?? null;
  const tools: Tools = {
    set: draft.set,
    problems,
    dialUnit,
    absent: 'not on the sheet',
    reference: reference && reference.ref.trim() !== '' ? reference : null,
  };
  const go = (path: string) => {
    setStep(stepOf(path));
    requestAnimationFrame(() => focusField(path));
  };
  const send = async () => {
    if (!(await draft.send())) return;
    await tap(() => p.save({ key: p.draftKey, seen: draft.seen.current, reason }), {
      refused: ({ problems }) => {
        const first = problems.find((x) => x.path.startsWith('sheet.'))?.path.slice(6);
        if (first) go(first.replace(/\.(value|ref|source)$/, ''));
      },
      done: ({ code }) => {
        router.push(`/hangar/${code}`);
        router.refresh();
      },
    });
  };
  const at = STEPS.indexOf(step);
  const nothing = p.code !== null && differences.length === 0;
  return (
    <>
      <Title
        title={p.title}
        line={`${p.origin.charAt(0).toUpperCase()}${p.origin.slice(1)}. ${
          p.code === null
            ? 'It stands in the hangar once it is saved.'
            : `Saving makes version ${p.newestVersion + 1}; checkouts keep theirs until they are updated.`
        }`}
      >
        <KeptState state={draft.state} />
      </Title>
      <Problems problems={draft.problems} title="Not kept on the server yet; it is kept on this device" />
      <Problems
        problems={trouble.filter((x) => !x.path.startsWith('sheet.') && x.path !== 'reason')}
        title="Not saved"
      />
      {p.baseVersion < p.newestVersion ? (
        <div className="trouble mb-3" role="alert">
          <strong>Version {p.newestVersion} was saved meanwhile</strong>
          <p className="mb-2">These changes began from version {p.baseVersion}.</p>
          <Button
            size="sm"
            variant="outline-primary"
            onClick={() => void tap(() => p.rebase({ key: p.draftKey }), { done: () => location.reload() })}
          >
            Put my changes on version {p.newestVersion}
          </Button>
        </div>
      ) : null}
      {draft.others.length > 0 ? (
        <p className="soft small" role="status">
          Changed on another machine:{' '}
          {draft.others
            .slice(-MOST_LISTED)
            .map((o) => `${pathWords(o.path, settled)} (${o.by})`)
            .join('; ')}
          .
        </p>
      ) : null}
      {draft.conflicts.map((c) => (
        <div key={c.path} className="trouble mb-3" role="alert">
          <strong>
            {pathWords(c.path, settled)}: {c.by} changed it on another machine
          </strong>
          <p className="mb-2">
            It stands as {brief(valueAt(settled, c.path.split('.')))}. You entered {brief(c.mine)}.
          </p>
          <Button size="sm" variant="outline-primary" onClick={() => draft.putMine(c)}>
            Put mine
          </Button>{' '}
          <Button size="sm" variant="link" onClick={() => draft.leaveTheirs(c)}>
            Leave it
          </Button>
        </div>
      ))}
      {problems.size > 0 ? (
        <div className="trouble mb-3" role="alert">
          <strong>Not saved: {problems.size === 1 ? 'one field' : `${problems.size} fields`} to correct</strong>
          <PlaceList places={[...problems].map(([path, text]) => ({ path, text }))} sheet={settled} go={go} />
        </div>
      ) : null}
      <div className="editor">
        <nav aria-label="Steps">
          <ol>
            {STEPS.map((s, i) => (
              <li key={s}>
                <StepButton
                  number={i + 1}
                  name={STEP_NAMES[s]}
                  on={s === step}
                  missing={state.missing.filter((m) => stepOf(m.path) === s).length}
                  open={state.open.filter((path) => stepOf(path) === s).length}
                  wrong={[...problems.keys()].some((path) => stepOf(path) === s)}
                  choose={() => setStep(s)}
                />
              </li>
            ))}
          </ol>
        </nav>
        <Panel title={STEP_NAMES[step]}>
          <ReferenceField value={reference} change={(r) => setReferences({ ...references, [step]: r })} />
          <StepFields step={step} node={p.node} sheet={draft.sheet} tools={tools} fresh={p.code === null} />
          <div className="d-flex justify-content-between mt-3">
            {at > 0 ? (
              <Button variant="link" className="p-0" onClick={() => setStep(STEPS[at - 1] ?? step)}>
                Back: {STEP_NAMES[STEPS[at - 1] ?? step]}
              </Button>
            ) : (
              <span />
            )}
            {at < STEPS.length - 1 ? (
              <Button variant="outline-primary" onClick={() => setStep(STEPS[at + 1] ?? step)}>
                Next: {STEP_NAMES[STEPS[at + 1] ?? step]}
              </Button>
            ) : null}
          </div>
        </Panel>
        <div className="grid" style={{ alignContent: 'start' }}>
          <StepState step={step} state={state} sheet={settled} go={go} />
          <Panel title="Consistency check">
            {findings === null || state.missing.some((m) => m.what === 'number') ? (
              <p className="soft mb-0">A number is missing. The check runs when all of them are entered.</p>
            ) : (
              <FindingList findings={findings} go={go} />
            )}
          </Panel>
          {p.code === null ? null : (
            <Panel title="Changes">
              {differences.length === 0 ? (
                <p className="soft mb-0">Nothing yet.</p>
              ) : (
                <DifferenceList differences={differences} />
              )}
            </Panel>
          )}
          <Panel title="Save">
            {state.open.length > 0 ? (
              <p className="small">
                {state.open.length === 1 ? '1 sample' : `${state.open.length} samples`} not confirmed. It can be saved;
                nothing is briefed on it until each is confirmed.
              </p>
            ) : null}
            <Reason value={reason} problem={reasonProblem} change={setReason} />
            <Button
              variant="primary"
              className="mt-2"
              disabled={busy || nothing || draft.conflicts.length > 0}
              onClick={() => void send()}
            >
              {busy ? 'Saving' : p.code === null ? 'Put it in the hangar' : `Save as version ${p.newestVersion + 1}`}
            </Button>
            <FindingsStay count={findings?.length ?? 0} />
            {p.drafted || differences.length > 0 ? (
              <Discard
                what={p.code === null ? 'this type' : 'these changes'}
                discard={() =>
                  void draft.send().then(() =>
                    tap(() => p.discard({ key: p.draftKey }), {
                      done: () => {
                        router.push(p.back);
                        router.refresh();
                      },
                    }),
                  )
                }
              />
            ) : null}
          </Panel>
        </div>
      </div>
    </>
  );
}

/** What is chosen as the reference of each step stays on this device. */
function useReferences(key: string) {
  const name = `jeito-reference:${key}`;
  const [all, setAll] = useState<Partial<Record<SheetStep, Reference>>>({});
  useEffect(() => setAll(JSON.parse(localStorage.getItem(name) ?? '{}') as typeof all), [name]);
  const keep = (next: typeof all) => {
    setAll(next);
    localStorage.setItem(name, JSON.stringify(next));
  };
  return [all, keep] as const;
}

const brief = (x: unknown): string => {
  if (x === null || x === undefined) return 'nothing';
  if (Array.isArray(x)) return x.length === 1 ? '1 row' : `${x.length} rows`;
  if (typeof x !== 'object') return plain(x);
  return 'value' in x ? brief(x.value) : 'other values';
};

function focusField(path: string): void {
  const parts = path.split('.');
  for (let n = parts.length; n > 0; n--) {
    const field = document.getElementById(parts.slice(0, n).join('.'));
    if (!field) continue;
    field.focus();
    return field.scrollIntoView({ block: 'center' });
  }
}

/** Whether what is on the screen is on the server. */
function KeptState({ state }: { state: 'kept' | 'keeping' | 'here' }) {
  return (
    // Not announced: it changes with every key.
    <span className="soft small">
      {state === 'kept' ? 'Kept on the server' : state === 'keeping' ? 'Keeping …' : 'Kept on this device'}
    </span>
  );
}

function StepButton(p: {
  number: number;
  name: string;
  on: boolean;
  missing: number;
  open: number;
  wrong: boolean;
  choose: () => void;
}) {
  const state = [
    ...(p.wrong ? ['to correct'] : []),
    ...(p.missing > 0 ? [`${p.missing} missing`] : []),
    ...(p.open > 0 ? [p.open === 1 ? '1 sample' : `${p.open} samples`] : []),
  ].join(', ');
  return (
    <button
      type="button"
      className={`secbtn${p.on ? ' on' : ''}`}
      aria-current={p.on ? 'step' : undefined}
      onClick={p.choose}
    >
      {p.number} {p.name}
      {state ? <span className="d-block small v-edge">{state}</span> : null}
    </button>
  );
}

/** Where the numbers of this step are printed: said once, taken by each that is entered or confirmed. */
function ReferenceField({ value, change }: { value: Reference | null; change: (r: Reference) => void }) {
  const now = value ?? { source: 'handbook' as const, ref: '' };
  return (
    <div className="reference">
      <FormLabel htmlFor={REFERENCE_ID}>
        Where it is printed <span className="soft">(for every number entered or confirmed in this step)</span>
      </FormLabel>
      <div className="d-flex gap-2">
        <FormSelect
          size="sm"
          aria-label="source of this step"
          style={{ width: 130 }}
          value={now.source}
          onChange={(e) => change({ ...now, source: e.target.value as SourceKind })}
        >
          {SOURCES.filter((s) => s !== 'sample').map((s) => (
            <option key={s} value={s}>
              {s}
            </option>
          ))}
        </FormSelect>
        <FormControl
          id={REFERENCE_ID}
          size="sm"
          placeholder="Handbook 2.2"
          value={now.ref}
          onChange={(e) => change({ ...now, ref: e.target.value })}
        />
      </div>
    </div>
  );
}

/** The fields of one step, those of one part of the sheet together. */
function StepFields({
  step,
  node,
  sheet,
  tools,
  fresh,
}: {
  step: SheetStep;
  node: FormNode;
  sheet: unknown;
  tools: Tools;
  fresh: boolean;
}) {
  const fields = SHEET_STEPS[step]
    .filter((f) => fresh || f !== 'code')
    .flatMap((f) => {
      const at: Path = f.split('.');
      const of = nodeAt(node, f.split('.'));
      return of ? [{ path: at, node: of, plain: isPlain(of) }] : [];
    });
  const field = (f: (typeof fields)[number]) => (
    <NodeField key={f.path.join('.')} node={f.node} path={f.path} value={valueAt(sheet, f.path)} tools={tools} />
  );
  // Fields of one part of the sheet stand together under its name.
  const groups: { name: string; fields: typeof fields }[] = [];
  for (const f of fields) {
    const name = f.path.length > 1 ? fieldName(String(f.path[0])) : '';
    const last = groups[groups.length - 1];
    if (last && last.name === name && name !== '') last.fields.push(f);
    else if (last && name === '' && last.name === '' && f.plain && last.fields.every((x) => x.plain))
      last.fields.push(f);
    else groups.push({ name, fields: [f] });
  }
  return (
    <div className="d-grid gap-3">
      {groups.map((g) => {
        const inside = (
          <>
            {g.fields.some((f) => f.plain) ? (
              <div className="fields">{g.fields.filter((f) => f.plain).map(field)}</div>
            ) : null}
            {g.fields.filter((f) => !f.plain).map(field)}
          </>
        );
        const key = g.fields[0]?.path.join('.') ?? '';
        return g.name ? (
          <fieldset key={key} className="nested d-grid gap-2">
            <legend>{g.name}</legend>
            {inside}
          </fieldset>
        ) : (
          <div key={key}>{inside}</div>
        );
      })}
    </div>
  );
}

interface SheetState {
  missing: { path: string; what: string }[];
  open: string[];
  gaps: ReturnType<typeof sheetGaps>;
}
const MISSING_TEXT: Record<string, string> = {
  number: 'give a number',
  text: 'write something',
  source: 'say where it is printed',
  rows: 'add rows',
};

/** What a step lacks: what stops the saving, what stops a brief, and what does not work without it. */
function StepState({
  step,
  state,
  sheet,
  go,
}: {
  step: SheetStep;
  state: SheetState;
  sheet: unknown;
  go: (path: string) => void;
}) {
  const here = <T extends { path: string }>(all: readonly T[]) => all.filter((x) => stepOf(x.path) === step);
  const missing = here(state.missing);
  const open = here(state.open.map((path) => ({ path, text: '' })));
  const gaps = here(state.gaps);
  return (
    <Panel title="Missing in this step">
      {missing.length + open.length + gaps.length === 0 ? <p className="mb-0">Nothing.</p> : null}
      {missing.length > 0 ? (
        <>
          <p className="mb-1 small">
            <strong>Cannot be saved without:</strong>
          </p>
          <PlaceList
            places={missing.map((m) => ({ path: m.path, text: MISSING_TEXT[m.what] ?? '' }))}
            sheet={sheet}
            go={go}
          />
        </>
      ) : null}
      {open.length > 0 ? (
        <>
          <p className="mb-1 small">
            <strong>Cannot be briefed until confirmed:</strong>
          </p>
          <PlaceList places={open} sheet={sheet} go={go} />
        </>
      ) : null}
      {gaps.length > 0 ? (
        <>
          <p className="mb-1 small">
            <strong>Not on the sheet:</strong>
          </p>
          <ul className="small mb-0">
            {gaps.map((g) => (
              <li key={g.code}>{gapWords(g)}</li>
            ))}
          </ul>
        </>
      ) : null}
    </Panel>
  );
}

function PlaceList({
  places,
  sheet,
  go,
}: {
  places: readonly { path: string; text: string }[];
  sheet: unknown;
  go: (path: string) => void;
}) {
  return (
    <ul className="small">
      {places.slice(0, MOST_LISTED).map((m) => (
        <li key={m.path}>
          <Button variant="link" size="sm" className="p-0" onClick={() => go(m.path)}>
            {pathWords(m.path, sheet) || fieldName(m.path)}
          </Button>
          {m.text ? `: ${m.text}` : ''}
        </li>
      ))}
      {places.length > MOST_LISTED ? <li>and {places.length - MOST_LISTED} more</li> : null}
    </ul>
  );
}

/** Two taps, so that an hour of typing is not thrown away by one. */
function Discard({ what, discard }: { what: string; discard: () => void }) {
  const [asked, setAsked] = useState(false);
  return (
    <div className="mt-2">
      {asked ? (
        <>
          <Button variant="outline-danger" size="sm" onClick={discard}>
            Discard {what} for everybody
          </Button>{' '}
          <Button variant="link" size="sm" onClick={() => setAsked(false)}>
            Keep
          </Button>
        </>
      ) : (
        <Button variant="link" size="sm" className="p-0" onClick={() => setAsked(true)}>
          Discard {what}
        </Button>
      )}
    </div>
  );
}
