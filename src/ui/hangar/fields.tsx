/** The fields of anything that has a form as plain data: numbers with their source, rows, choices, what may be absent. */
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
import { useState } from 'react';
import { fieldName, fieldUnit, rowName } from '@/core/sheet';
import { ATTRIBUTES, type AttributeKey } from '@/domain/handling';
import { type FormNode, type Path, emptyOf } from '@/domain/form-node';
import { SOURCES, say } from '@/domain/words';
import { PasteRows, columnsOf } from './paste-rows';
import type { Reference } from './reference';

export interface Tools {
  set: (path: Path, value: unknown) => void;
  problems: Map<string, string>;
  dialUnit: string;
  /** Said of what is not entered. */
  absent: string;
  /** Of what is entered or confirmed now, where the fields have sources; null = none is chosen. */
  reference: Reference | null;
}

export const isPlain = (n: FormNode): boolean =>
  n.kind === 'text' ||
  n.kind === 'number' ||
  n.kind === 'choice' ||
  n.kind === 'yes-no' ||
  n.kind === 'sourced' ||
  n.kind === 'date' ||
  (n.kind === 'optional' && isPlain(n.inner));

export function NodeField({
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
            {node.options
              .filter((o) => o !== 'sample' || value === o)
              .map((o) => (
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
      const at = sampleKeys(value);
      const inner = (
        <div className="fields">
          {at.length > 0 ? (
            <div className="claim-open">
              <span className="small">Sample: compare every row with your flight manual, then confirm. </span>
              <Confirm
                name={name}
                reference={tools.reference}
                take={({ source, ref }) =>
                  tools.set(path, {
                    ...(value as object),
                    ...Object.fromEntries(at.map((k) => [k, k === 'source' ? source : ref])),
                  })
                }
              />
            </div>
          ) : null}
          {node.fields.map((f) => (
            <NodeField
              key={f.key}
              node={f.node}
              path={[...path, f.key]}
              value={((value ?? {}) as Record<string, unknown>)[f.key]}
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

/** Where an object that is no number says that it is a sample: its source and its references. */
const sampleKeys = (value: unknown): string[] =>
  Object.entries((value ?? {}) as Record<string, unknown>)
    .filter(([k, v]) => (k === 'source' ? v === 'sample' : REFERENCES.test(k) && isSample(v)))
    .map(([k]) => k);
const REFERENCES = /^(ref|envelopeRef|flapTableSource)$/;

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
  const columns = tools.absent === 'none' ? null : columnsOf(node.item);
  const change = (next: unknown[]) => tools.set(path, next);
  const remove = (i: number) => change(rows.filter((_, j) => j !== i));
  const narrow = columns !== null && columns.every((c) => !c.sourced);
  return (
    <fieldset className="nested" id={path.join('.')} tabIndex={-1}>
      <legend>{name}</legend>
      {narrow ? (
        <RowTable columns={columns} rows={rows} path={path} name={name} tools={tools} remove={remove} />
      ) : node.item.kind === 'number' ? (
        <NumberRow rows={rows} path={path} name={name} tools={tools} remove={remove} />
      ) : (
        rows.map((row, i) => (
          <div key={i} className={`listrow${columns && columns.length <= 2 ? ' listrow-narrow' : ''}`}>
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
              <Button variant="link" size="sm" className="p-0" onClick={() => remove(i)}>
                remove {rowName(row, i)}
              </Button>
            </div>
          </div>
        ))
      )}
      <div className="d-flex gap-2 flex-wrap">
        <Button variant="outline-primary" size="sm" onClick={() => change([...rows, emptyOf(node.item)])}>
          Add to {name}
        </Button>
        {columns ? (
          <PasteRows
            name={name}
            columns={columns}
            unitOf={(key) => fieldUnit(key, tools.dialUnit)}
            reference={tools.reference}
            take={change}
          />
        ) : null}
      </div>
    </fieldset>
  );
}

interface RowsOf {
  rows: unknown[];
  path: Path;
  name: string;
  tools: Tools;
  remove: (i: number) => void;
}
const Remove = ({ what, remove }: { what: string; remove: () => void }) => (
  <Button variant="link" size="sm" className="p-0" aria-label={`remove ${what}`} onClick={remove}>
    remove
  </Button>
);

/** Rows of numbers and words as a table, as they stand in a manual. */
function RowTable({
  columns,
  rows,
  path,
  name,
  tools,
  remove,
}: RowsOf & { columns: NonNullable<ReturnType<typeof columnsOf>> }) {
  if (rows.length === 0) return null;
  return (
    <div className="scroll-x">
      <table className="plain rows" aria-label={name}>
        <thead>
          <tr>
            {columns.map((c) => {
              const unit = fieldUnit(c.key, tools.dialUnit);
              return (
                <th scope="col" key={c.key}>
                  {c.name}
                  {unit ? <span className="soft"> ({unit})</span> : null}
                </th>
              );
            })}
            <th scope="col">
              <span className="visually-hidden">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              {columns.map((c) => {
                const at = [...path, i, c.key];
                const id = at.join('.');
                const value = (row as Record<string, unknown> | null)?.[c.key];
                const label = `${c.name}, ${rowName(row, i)}`;
                const problem = tools.problems.get(id);
                return (
                  <td key={c.key}>
                    {c.kind === 'number' ? (
                      <NumberInput
                        id={id}
                        label={label}
                        invalid={problem !== undefined}
                        value={value}
                        change={(x) => tools.set(at, x)}
                      />
                    ) : (
                      <FormControl
                        id={id}
                        aria-label={label}
                        size="sm"
                        isInvalid={problem !== undefined}
                        value={plain(value)}
                        onChange={(e) => tools.set(at, e.target.value)}
                      />
                    )}
                    {problem ? (
                      <Feedback type="invalid" className="d-block" role="alert">
                        {problem}
                      </Feedback>
                    ) : null}
                  </td>
                );
              })}
              <td>
                <Remove what={`${name}, ${rowName(row, i)}`} remove={() => remove(i)} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Numbers beside each other, such as the settings of the flap. */
function NumberRow({ rows, path, name, tools, remove }: RowsOf) {
  return (
    <div className="d-flex flex-wrap gap-3 mb-2">
      {rows.map((row, i) => (
        <div key={i} className="number-cell">
          <NumberInput
            id={[...path, i].join('.')}
            label={`${name}, no. ${i + 1}`}
            invalid={tools.problems.has([...path, i].join('.'))}
            value={row}
            change={(x) => tools.set([...path, i], x)}
          />
          <Remove what={`${name}, no. ${i + 1}`} remove={() => remove(i)} />
        </div>
      ))}
    </div>
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

const isSample = (text: unknown): boolean => typeof text === 'string' && /^\s*sample\b/i.test(text);
const open = (c: Claim_): boolean => c.source === 'sample' || isSample(c.ref);
/** A number as it was just typed: with the reference of the step, where it had none of its own. */
const entered = (c: Claim_, value: number | null, reference: Reference | null): Claim_ =>
  reference && value !== null && (open(c) || c.ref.trim() === '') ? { ...c, value, ...reference } : { ...c, value };

/** What nobody has confirmed: one tap says that it stands so at the reference of the step. */
function Confirm({
  name,
  reference,
  take,
}: {
  name: string;
  reference: Reference | null;
  take: (reference: Reference) => void;
}) {
  return (
    <Button
      variant="outline-primary"
      size="sm"
      onClick={() => (reference ? take(reference) : document.getElementById(REFERENCE_ID)?.focus())}
    >
      Confirm<span className="visually-hidden"> {name}</span>
    </Button>
  );
}
/** The field a step is told its reference in. */
export const REFERENCE_ID = 'step-reference';

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
      <div className={`claim${open(c) ? ' claim-open' : ''}`} key={key}>
        <NumberInput
          id={first ? id : key}
          value={c.value}
          change={(x) => tools.set(at, entered(c, x, tools.reference))}
          label={first ? undefined : `other value ${at[at.length - 1]}`}
        />
        <FormSelect
          aria-label={`source of ${key}`}
          size="sm"
          value={c.source}
          onChange={(e) => tools.set([...at, 'source'], e.target.value)}
        >
          {SOURCES.filter((s) => s !== 'sample' || c.source === s).map((s) => (
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
        {open(c) ? (
          <Confirm name={fieldName(key)} reference={tools.reference} take={(r) => tools.set(at, { ...c, ...r })} />
        ) : first ? (
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
