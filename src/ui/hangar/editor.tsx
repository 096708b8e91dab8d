'use client';
import { DateInput } from '../shared/when-input';
import FormLabel from 'react-bootstrap/FormLabel';
import Feedback from 'react-bootstrap/Feedback';
import FormCheck from 'react-bootstrap/FormCheck';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import FormCheckLabel from 'react-bootstrap/FormCheckLabel';
import FormSelect from 'react-bootstrap/FormSelect';
import FormControl from 'react-bootstrap/FormControl';
import Button from 'react-bootstrap/Button';
import { plain } from '@/core/format';
import { useRouter } from 'next/navigation';
import { type ChangeEvent, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { sheetDifferences, fieldName, fieldUnit, rowName, validateSheet } from '@/core/sheet';
import { effectiveSheet } from '@/core/plan';
import { ATTRIBUTES, type AttributeKey } from '@/domain/handling';
import { type FormNode, emptyOf, misfit } from '@/domain/form-node';
import type { Airframe, TypeSheet } from '@/domain/sheet';
import { SOURCES, say } from '@/domain/words';
import type { ActionResult } from '../shared/forms';
import { useTap } from '../shared/use-tap';
import { AerodromeDrawing } from '../shared/aerodrome-drawing';
import { Panel, Problems } from '../shared/parts';
import { Title } from '../shared/title';
import { DifferenceList, FindingList } from './findings';

type Path = readonly (string | number)[];
interface Tools {
  set: (path: Path, value: unknown) => void;
  problems: Map<string, string>;
  dialUnit: string;
  /** Said of what is not entered. */
  absent: string;
}
interface Props {
  kind: 'type' | 'airframe' | 'content';
  title: string;
  node: FormNode;
  value: unknown;
  version: number;
  dialUnit: string;
  /** The type under an airframe, so that its findings can be shown while editing. */
  type: TypeSheet | null;
  save: (form: {
    reason: string;
    value: unknown;
    baseVersion: number;
  }) => Promise<ActionResult<{ version: number; unchanged: boolean }>>;
  back: string;
  /** Drawn beside the fields while they are edited. */
  drawn?: 'aerodrome';
}

/** Everything on a sheet, section by section. The validator reads along; saving makes a new version with a reason. */
export function SheetEditor({ kind, title, node, value, version, dialUnit, type, save, back, drawn }: Props) {
  const router = useRouter();
  const draftKey = `jeito-draft:${kind}:${back}:${version}`;
  const [draft, setDraft] = useState(value);
  const [section, setSection] = useState('');
  const [reason, setReason] = useState('');
  const { tap, busy, problems: trouble } = useTap();
  useEffect(() => {
    const kept = sessionStorage.getItem(draftKey);
    if (kept) setDraft(JSON.parse(kept));
  }, [draftKey]);
  const keep = (next: unknown) => {
    setDraft(next);
    sessionStorage.setItem(draftKey, JSON.stringify(next));
  };
  const set = (path: Path, x: unknown) => keep(put(draft, path, x));
  const settled = useDeferredValue(draft);
  const findings = useMemo(() => {
    if (kind === 'content') return [];
    try {
      return validateSheet(
        kind === 'type' ? (settled as TypeSheet) : effectiveSheet(type as TypeSheet, settled as Airframe),
      );
    } catch {
      return null;
    }
  }, [settled, kind, type]);
  const differences = useMemo(() => sheetDifferences(value, settled, dialUnit), [value, settled, dialUnit]);
  const problems = new Map(trouble.filter((p) => p.path.startsWith('sheet.')).map((p) => [p.path.slice(6), p.message]));
  const fields = node.kind === 'object' ? node.fields.filter((f) => f.node.kind !== 'fixed') : [];
  const sections = ['general', ...fields.filter((f) => !isPlain(f.node)).map((f) => f.key)];
  const now = section === '' ? 'general' : section;
  const send = async () => {
    await tap(() => save({ reason, value: draft, baseVersion: version }), {
      refused: ({ problems }) => {
        const first = problems.find((p) => p.path.startsWith('sheet.'))?.path.split('.')[1];
        if (first) setSection(sections.includes(first) ? first : 'general');
      },
      done: () => {
        sessionStorage.removeItem(draftKey);
        router.push(back);
        router.refresh();
      },
    });
  };
  const tools: Tools = { set, problems, dialUnit, absent: kind === 'content' ? 'none' : 'not on the sheet' };
  const reasonProblem = trouble.find((p) => p.path === 'reason')?.message;
  return (
    <>
      <Title
        title={title}
        line={`From version ${version}. Saving makes version ${version + 1}; checkouts keep theirs until they are updated.`}
      />
      <Problems
        problems={trouble.filter((p) => !p.path.startsWith('sheet.') && p.path !== 'reason')}
        title="Not saved"
      />
      {problems.size > 0 ? (
        <div className="trouble mb-3" role="alert">
          <strong>Not saved: {problems.size === 1 ? 'one field' : `${problems.size} fields`} to correct</strong>
          <ul>
            {[...problems].slice(0, 6).map(([path, m]) => (
              <li key={path}>
                <Button
                  variant="link"
                  size="sm"
                  className="p-0"
                  onClick={() =>
                    setSection(sections.includes(path.split('.')[0] ?? '') ? (path.split('.')[0] ?? '') : 'general')
                  }
                >
                  {path
                    .split('.')
                    .map((p) => fieldName(p))
                    .join(', ')}
                </Button>
                : {m}
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <div className="editor">
        <nav aria-label="Sections">
          <ul>
            {sections.map((s) => (
              <li key={s}>
                <button
                  type="button"
                  className={`secbtn${now === s ? ' on' : ''}`}
                  aria-current={now === s ? 'true' : undefined}
                  onClick={() => setSection(s)}
                >
                  {s === 'general' ? 'in general' : fieldName(s)}
                  {[...problems.keys()].some((p) => p.startsWith(`${s}.`)) ? ' *' : ''}
                </button>
              </li>
            ))}
          </ul>
        </nav>
        <Panel title={now === 'general' ? 'In general' : fieldName(now)}>
          <div className="d-grid gap-2">
            {now === 'general'
              ? fields
                  .filter((f) => isPlain(f.node))
                  .map((f) => (
                    <NodeField
                      key={f.key}
                      node={f.node}
                      path={[f.key]}
                      value={(draft as Record<string, unknown>)[f.key]}
                      tools={tools}
                    />
                  ))
              : fields
                  .filter((f) => f.key === now)
                  .map((f) => (
                    <NodeField
                      key={f.key}
                      node={f.node}
                      path={[f.key]}
                      value={(draft as Record<string, unknown>)[f.key]}
                      tools={tools}
                      bare
                    />
                  ))}
          </div>
        </Panel>
        <div className="grid" style={{ alignContent: 'start' }}>
          {drawn === 'aerodrome' ? (
            <Panel title="Preview">
              <AerodromeDrawing
                runways={(settled as { runways: Parameters<typeof AerodromeDrawing>[0]['runways'] }).runways ?? []}
                name={(settled as { name?: string }).name ?? ''}
              />
            </Panel>
          ) : null}
          {kind === 'content' ? <ImportFile node={node} take={keep} /> : null}
          {kind === 'content' ? null : (
            <Panel title="Consistency check">
              {findings === null ? (
                <p className="soft mb-0">A field is empty. Complete it to check the sheet.</p>
              ) : (
                <FindingList
                  findings={findings}
                  go={(path) => {
                    const first = path.split('.')[0] ?? '';
                    setSection(sections.includes(first) ? first : 'general');
                  }}
                />
              )}
            </Panel>
          )}
          <Panel title="Changes">
            {differences.length === 0 ? (
              <p className="soft mb-0">Nothing yet.</p>
            ) : (
              <DifferenceList differences={differences} />
            )}
          </Panel>
          <Panel title="Save">
            <FormLabel htmlFor="reason">Reason</FormLabel>
            <FormControl
              as="textarea"
              id="reason"
              isInvalid={reasonProblem !== undefined}
              rows={2}
              value={reason}
              aria-describedby="reason-problem"
              onChange={(e) => setReason(e.target.value)}
            />
            <Feedback type="invalid" id="reason-problem" role="alert">
              {reasonProblem}
            </Feedback>
            <Button
              variant="primary"
              className="mt-2"
              disabled={busy || differences.length === 0}
              onClick={() => void send()}
            >
              {busy ? 'Saving' : `Save as version ${version + 1}`}
            </Button>
            {findings && findings.length > 0 ? (
              <p className="soft small mb-0 mt-2">
                It can be saved with findings: they stay on the sheet and in every brief until they are corrected.
              </p>
            ) : null}
          </Panel>
        </div>
      </div>
    </>
  );
}

const isPlain = (n: FormNode): boolean =>
  n.kind === 'text' ||
  n.kind === 'number' ||
  n.kind === 'choice' ||
  n.kind === 'yes-no' ||
  n.kind === 'sourced' ||
  n.kind === 'date' ||
  (n.kind === 'optional' && isPlain(n.inner));

function put(root: unknown, path: Path, value: unknown): unknown {
  const [key, ...rest] = path;
  if (key === undefined) return value;
  if (Array.isArray(root)) return root.map((x: unknown, i) => (i === key ? put(x, rest, value) : x));
  const object = (typeof root === 'object' && root !== null ? root : {}) as Record<string, unknown>;
  return { ...object, [key]: put(object[key], rest, value) };
}

function NodeField({
  node,
  path,
  value,
  tools,
  bare = false,
}: {
  node: FormNode;
  path: Path;
  value: unknown;
  tools: Tools;
  bare?: boolean;
}) {
  const id = path.join('.');
  const name = fieldName(id);
  const unit = fieldUnit(id, tools.dialUnit);
  const problem = tools.problems.get(id);
  const label = (
    <>
      {name}
      {unit ? <span className="soft"> ({unit})</span> : null}
    </>
  );
  const note = problem ? (
    <Feedback type="invalid" role="alert" id={`${id}-p`}>
      {problem}
    </Feedback>
  ) : null;
  const invalid = Boolean(problem);
  switch (node.kind) {
    case 'fixed':
      return null;
    case 'number':
      return (
        <div>
          <FormLabel htmlFor={id}>{label}</FormLabel>
          <NumberInput id={id} invalid={invalid} value={value} change={(x) => tools.set(path, x)} />
          {note}
        </div>
      );
    case 'text':
      return (
        <div>
          <FormLabel htmlFor={id}>{label}</FormLabel>
          <TextInput id={id} invalid={invalid} value={plain(value)} path={path} change={(x) => tools.set(path, x)} />
          {note}
        </div>
      );
    case 'date':
      return (
        <div>
          <FormLabel htmlFor={id}>{label}</FormLabel>
          <DateInput
            id={id}
            size="sm"
            aria-invalid={invalid}
            value={plain(value)}
            onChange={(e) => tools.set(path, e.target.value)}
          />
          {note}
        </div>
      );
    case 'choice':
      return (
        <div>
          <FormLabel htmlFor={id}>{label}</FormLabel>
          <FormSelect
            id={id}
            size="sm"
            isInvalid={invalid}
            value={String(value)}
            onChange={(e) => tools.set(path, e.target.value)}
          >
            {node.options.map((o) => (
              <option key={o} value={o}>
                {path[path.length - 1] === 'key' ? (ATTRIBUTES[o as AttributeKey]?.name ?? o) : o}
              </option>
            ))}
          </FormSelect>
          {note}
        </div>
      );
    case 'yes-no':
      return (
        <FormCheck>
          <FormCheckInput
            type="checkbox"
            id={id}
            checked={Boolean(value)}
            onChange={(e) => tools.set(path, e.target.checked)}
          />
          <FormCheckLabel htmlFor={id}>{label}</FormCheckLabel>
          {note}
        </FormCheck>
      );
    case 'sourced':
      return <SourcedField id={id} label={label} path={path} value={value as Sourced_} tools={tools} />;
    case 'optional':
      return value === null || value === undefined ? (
        <div className="optional d-flex gap-2 align-items-center">
          <span className="form-label mb-0">
            {label}: <span className="soft">{tools.absent}</span>
          </span>
          <Button variant="outline-primary" size="sm" onClick={() => tools.set(path, emptyOf(node.inner))}>
            {tools.absent === 'none' ? 'Add' : 'Enter'} {name}
          </Button>
          {note}
        </div>
      ) : (
        <div className="optional">
          <NodeField node={node.inner} path={path} value={value} tools={tools} bare={bare} />
          <Button variant="link" size="sm" className="p-0" onClick={() => tools.set(path, null)}>
            {tools.absent === 'none' ? `Take ${name} out` : `Take ${name} off the sheet`}
          </Button>
        </div>
      );
    case 'object': {
      const inner = (
        <div className="fields">
          {node.fields.map((f) => (
            <NodeField
              key={f.key}
              node={f.node}
              path={[...path, f.key]}
              value={(value as Record<string, unknown>)[f.key]}
              tools={tools}
            />
          ))}
        </div>
      );
      return bare ? (
        inner
      ) : (
        <fieldset className="nested">
          <legend>{name}</legend>
          {inner}
        </fieldset>
      );
    }
    case 'variants': {
      const at = (value as Record<string, unknown> | null)?.[node.tag];
      const now = node.options.find((o) => o.value === at);
      return (
        <fieldset className="nested">
          <legend>{name}</legend>
          <div>
            <FormLabel htmlFor={`${id}-kind`}>kind</FormLabel>
            <FormSelect
              id={`${id}-kind`}
              size="sm"
              value={plain(at)}
              onChange={(e) => {
                const next = node.options.find((o) => o.value === e.target.value);
                if (next) tools.set(path, emptyOf(next.node));
              }}
            >
              {node.options.map((o) => (
                <option key={o.value} value={o.value}>
                  {say(o.value)}
                </option>
              ))}
            </FormSelect>
          </div>
          {now ? <NodeField node={now.node} path={path} value={value} tools={tools} bare /> : null}
          {note}
        </fieldset>
      );
    }
    case 'map':
      return (
        <MapField node={node} path={path} value={(value ?? {}) as Record<string, unknown>} tools={tools} name={name} />
      );
    case 'list':
      return <ListField node={node} path={path} value={value as unknown[]} tools={tools} name={name} />;
  }
}

/** Names and what stands under each. */
function MapField({
  node,
  path,
  value,
  tools,
  name,
}: {
  node: Extract<FormNode, { kind: 'map' }>;
  path: Path;
  value: Record<string, unknown>;
  tools: Tools;
  name: string;
}) {
  const [key, setKey] = useState('');
  const left = node.keys?.filter((k) => !(k in value)) ?? null;
  const add = () => {
    const k = key.trim();
    if (k !== '' && !(k in value)) {
      tools.set(path, { ...value, [k]: emptyOf(node.value) });
      setKey('');
    }
  };
  return (
    <fieldset className="nested">
      <legend>{name}</legend>
      {Object.entries(value).map(([k, x]) => (
        <div key={k} className="listrow">
          <strong className="small">{k}</strong>
          <NodeField node={node.value} path={[...path, k]} value={x} tools={tools} bare />
          <div>
            <Button
              variant="link"
              size="sm"
              className="p-0"
              onClick={() =>
                tools.set(path, Object.fromEntries(Object.entries(value).filter(([other]) => other !== k)))
              }
            >
              remove {k}
            </Button>
          </div>
        </div>
      ))}
      {left?.length === 0 ? null : (
        <div className="d-flex gap-2">
          {left ? (
            <FormSelect
              aria-label={`name to add to ${name}`}
              size="sm"
              value={key}
              onChange={(e) => setKey(e.target.value)}
            >
              <option value="">Choose</option>
              {left.map((k) => (
                <option key={k} value={k}>
                  {k}
                </option>
              ))}
            </FormSelect>
          ) : (
            <FormControl
              aria-label={`name to add to ${name}`}
              size="sm"
              value={key}
              onChange={(e) => setKey(e.target.value)}
            />
          )}
          <Button variant="outline-primary" size="sm" onClick={add}>
            Add to {name}
          </Button>
        </div>
      )}
    </fieldset>
  );
}

/** Takes an exported file as the draft: its differences show before anything is saved. */
function ImportFile({ node, take }: { node: FormNode; take: (value: unknown) => void }) {
  const [problem, setProblem] = useState('');
  return (
    <Panel title="From a file">
      <FormLabel htmlFor="import">A changed export</FormLabel>
      <FormControl
        id="import"
        type="file"
        accept=".json,application/json"
        size="sm"
        onChange={(e: ChangeEvent<HTMLInputElement>) => {
          const file = e.target.files?.[0];
          void file
            ?.text()
            .then((text) => {
              const parsed = JSON.parse(text) as { schema?: string; body?: unknown };
              const body: unknown = parsed.schema === 'content/1' ? parsed.body : parsed;
              const wrong = misfit(node, body);
              if (wrong !== null)
                return setProblem(
                  `This file does not match what is edited here (${wrong}). Export it here first, change that file, and bring it back.`,
                );
              take(body);
              setProblem('');
            })
            .catch(() => setProblem('This is not JSON. Export it here first, change that file, and bring it back.'));
        }}
      />
      {problem ? (
        <Feedback type="invalid" className="d-block" role="alert">
          {problem}
        </Feedback>
      ) : null}
    </Panel>
  );
}

function ListField({
  node,
  path,
  value,
  tools,
  name,
}: {
  node: Extract<FormNode, { kind: 'list' }>;
  path: Path;
  value: unknown[];
  tools: Tools;
  name: string;
}) {
  const rows = value ?? [];
  const change = (next: unknown[]) => tools.set(path, next);
  return (
    <fieldset className="nested">
      <legend>{name}</legend>
      {rows.map((row, i) => (
        <div key={i} className="listrow">
          {node.item.kind === 'object' ? <strong className="small">{rowName(row, i)}</strong> : null}
          <NodeField node={node.item} path={[...path, i]} value={row} tools={tools} bare />
          <div className="d-flex gap-2">
            {i > 0 ? (
              <Button
                variant="link"
                size="sm"
                className="p-0"
                onClick={() => change([...rows.slice(0, i - 1), row, rows[i - 1], ...rows.slice(i + 1)])}
              >
                move up
              </Button>
            ) : null}
            <Button variant="link" size="sm" className="p-0" onClick={() => change(rows.filter((_, j) => j !== i))}>
              remove {rowName(row, i)}
            </Button>
          </div>
        </div>
      ))}
      <Button variant="outline-primary" size="sm" onClick={() => change([...rows, emptyOf(node.item)])}>
        Add to {name}
      </Button>
    </fieldset>
  );
}

interface Claim_ {
  value: number | null;
  source: string;
  ref: string;
}
interface Sourced_ extends Claim_ {
  others?: Claim_[];
}

/** A number, who says it and where; what others say stands below, with the difference. */
function SourcedField({
  id,
  label,
  path,
  value,
  tools,
}: {
  id: string;
  label: React.ReactNode;
  path: Path;
  value: Sourced_;
  tools: Tools;
}) {
  const others = value.others ?? [];
  const claim = (at: Path, c: Claim_, first: boolean) => {
    const key = at.join('.');
    const problem = tools.problems.get(`${key}.value`) ?? tools.problems.get(`${key}.ref`);
    return (
      <div className="claim" key={key}>
        <NumberInput
          id={first ? id : key}
          value={c.value}
          change={(x) => tools.set([...at, 'value'], x)}
          label={first ? undefined : `other value ${at[at.length - 1]}`}
        />
        <FormSelect
          aria-label={`source of ${key}`}
          size="sm"
          value={c.source}
          onChange={(e) => tools.set([...at, 'source'], e.target.value)}
        >
          {SOURCES.map((s) => (
            <option key={s} value={s}>
              {s}
            </option>
          ))}
        </FormSelect>
        <FormControl
          aria-label={`reference of ${key}`}
          size="sm"
          value={c.ref}
          onChange={(e) => tools.set([...at, 'ref'], e.target.value)}
        />
        {first ? (
          <Button
            variant="link"
            size="sm"
            className="p-0"
            onClick={() => tools.set([...path, 'others'], [...others, { value: null, source: 'instructor', ref: '' }])}
          >
            add another source<span className="visually-hidden"> of {fieldName(id)}</span>
          </Button>
        ) : (
          <span className="small">
            {c.value !== null && value.value !== null
              ? `${c.value - value.value > 0 ? '+' : ''}${Math.round((c.value - value.value) * 100) / 100}`
              : ''}{' '}
            <Button
              variant="link"
              size="sm"
              className="p-0"
              onClick={() => {
                const i = Number(at[at.length - 1]);
                const governing = { value: c.value, source: c.source, ref: c.ref };
                tools.set(path, {
                  ...governing,
                  others: others.map((o, j) =>
                    j === i ? { value: value.value, source: value.source, ref: value.ref } : o,
                  ),
                });
              }}
            >
              make it governing
            </Button>{' '}
            <Button
              variant="link"
              size="sm"
              className="p-0"
              onClick={() => {
                const left = others.filter((_, j) => j !== Number(at[at.length - 1]));
                tools.set(
                  path,
                  left.length > 0
                    ? { ...value, others: left }
                    : { value: value.value, source: value.source, ref: value.ref },
                );
              }}
            >
              remove
            </Button>
          </span>
        )}
        {problem ? (
          <Feedback type="invalid" role="alert">
            {problem}
          </Feedback>
        ) : null}
      </div>
    );
  };
  return (
    <div>
      <FormLabel htmlFor={id}>{label}</FormLabel>
      {claim(path, value, true)}
      {others.map((o, i) => claim([...path, 'others', i], o, false))}
    </div>
  );
}

/** Keeps what is typed even while it is not a number; an empty field is null and said as missing when saved. */
function NumberInput({
  id,
  value,
  change,
  invalid = false,
  label,
}: {
  id: string;
  value: unknown;
  change: (x: number | null) => void;
  invalid?: boolean;
  label?: string | undefined;
}) {
  const [text, setText] = useState(value === null || value === undefined ? '' : plain(value));
  const parsed = text.trim() === '' ? null : Number(text.replace(',', '.'));
  if (typeof value === 'number' && parsed !== value && !(parsed !== null && Number.isNaN(parsed)))
    setText(String(value));
  const bad = parsed !== null && Number.isNaN(parsed);
  return (
    <FormControl
      id={id}
      aria-label={label}
      inputMode="decimal"
      size="sm"
      className="mono"
      isInvalid={bad || invalid}
      aria-invalid={bad}
      value={text}
      onChange={(e) => {
        setText(e.target.value);
        const n = e.target.value.trim() === '' ? null : Number(e.target.value.replace(',', '.'));
        if (n === null || !Number.isNaN(n)) change(n);
      }}
    />
  );
}

function TextInput({
  id,
  value,
  change,
  invalid,
  path,
}: {
  id: string;
  value: string;
  change: (x: string) => void;
  invalid: boolean;
  path: Path;
}) {
  const long = ['text', 'summary', 'effect'].includes(String(path[path.length - 1]));
  return (
    <FormControl
      id={id}
      size="sm"
      isInvalid={invalid}
      {...(long ? { as: 'textarea', rows: 2 } : {})}
      value={value}
      onChange={(e) => change(e.target.value)}
    />
  );
}
