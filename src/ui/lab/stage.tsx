'use client';
import { useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useRouter } from 'next/navigation';
import {
  LAB_MODELS,
  type LabDay,
  type LabFrame,
  type LabMissing,
  type LabModel,
  type LabResult,
  type LabSheetData,
  type Parameter,
  type Settings,
  held,
  labWords,
} from '@/core/lab';
import { fixed } from '@/core/format';
import type { LabNote } from '@/domain/lab';
import type { LabPage } from '@/domain/lab-pages';
import { labWorker } from '@/workers';
import { Link } from '../shared/link';
import { newId } from '../shared/new-id';
import { Outranked, Panel } from '../shared/parts';
import { Source, SourceKey } from '../shared/source';
import { Verdict } from '../shared/verdict';
import { FigureDrawing } from './figure-drawing';
import { FootMap } from './foot-map';
import { LabBar, type LabContext } from './lab-bar';
import { LadderPlan, type PlannedLesson } from './ladder-plan';
import { noteForBrief } from './note';
import { Player, usePlayer } from './player';
import { TaxiWind } from './taxi-wind';
import { type TrialSheet, Trials, TrialsToSheet } from './trials';
import { useQueryState } from './query-state';
import type { QueryState } from './query-state-read';
import { Range } from './range';
import { useWorker } from './use-worker';

export interface StageProps {
  page: LabPage;
  context: LabContext;
  sheet: LabSheetData;
  old: LabSheetData | null;
  day: LabDay;
  start: QueryState;
  initial: QueryState;
  /** May this user put it into a brief? */
  mayBrief: boolean;
  /** Said beside the settings: where one of them comes from, such as a finding. */
  note: string | null;
  /** Slow approach trials captured in flight, as the address has them; empty = none. */
  trials: string;
  /** For who may put a trial result on the sheet; null = nobody else. */
  toSheet: TrialSheet | null;
  /** The crosswind page from a checkout: the booked lessons; null elsewhere. */
  lessons: readonly PlannedLesson[] | null;
}
const SECOND = 'b-';
const part = (state: QueryState, prefix: string): Settings =>
  Object.fromEntries(
    Object.entries(state).flatMap(([k, v]) =>
      v !== null && k.startsWith(prefix) && (prefix !== '' || !k.startsWith(SECOND))
        ? [[k.slice(prefix.length), v]]
        : [],
    ),
  );

/** One page of the lab: answer, why, settings, picture, numbers and what was assumed; two of them side by side to compare. */
export function Stage(p: StageProps) {
  const model = LAB_MODELS[p.page];
  const missing = model.missing(p.sheet);
  return (
    <div className="grid">
      {!model.applies(p.sheet) ? (
        <Panel title="Not for this type">
          <LabBar context={p.context} withOld />
          <p className="mb-0 mt-2">This page does not apply to {p.sheet.name}. Choose another type.</p>
        </Panel>
      ) : missing.length > 0 ? (
        <Missing missing={missing} name={p.sheet.name} context={p.context} />
      ) : (
        <Shown {...p} model={model} />
      )}
      <Outranked extra="Model, not the flight manual: for talking about, nothing here permits a flight." />
    </div>
  );
}

function Missing({ missing, name, context }: { missing: LabMissing; name: string; context: LabContext }) {
  return (
    <Panel title={`Not on the sheet of ${name}`}>
      <LabBar context={context} withOld />
      <p className="mt-2">
        The model works with these numbers and takes none for granted. Measure them and enter them in Hangar, step
        Ground and slip.
      </p>
      <dl className="measures">
        {missing.map((m) => (
          <div key={m.key}>
            <dt>{m.name}</dt>
            <dd>{m.how}</dd>
          </div>
        ))}
      </dl>
    </Panel>
  );
}

function Shown(p: StageProps & { model: LabModel }) {
  const { model } = p;
  const router = useRouter();
  const [state, set] = useQueryState(p.start, p.initial);
  const [setting, setSetting] = useState<'first' | 'second'>('first');
  const compares = state.compare === 'yes';
  const otherType = state[`${SECOND}type`] === 'old' && p.old !== null && model.missing(p.old).length === 0;
  const secondSheet = otherType && p.old ? p.old : p.sheet;
  const first = useResult(p, model, p.sheet, part(state, ''));
  const second = useResult(p, model, secondSheet, part(state, SECOND), compares);
  const endOf = (r: LabResult | null) => r?.frames[r.frames.length - 1]?.tS ?? 0;
  const endS = Math.max(endOf(first.result), endOf(second?.result ?? null));
  const player = usePlayer(endS);
  const prefix = compares && setting === 'second' ? SECOND : '';
  const now = prefix === SECOND ? second : first;
  const sheetNow = prefix === SECOND ? secondSheet : p.sheet;
  const toBrief = () => {
    const note: LabNote = {
      id: newId(),
      page: p.page,
      query: window.location.search.slice(1).slice(0, 2000),
      of: p.sheet.name,
      answer: labWords(first.result.answer),
      facts: first.result.facts.slice(0, 40).map((f) => ({
        name: f.name,
        value: f.value,
        source: f.source?.source ?? null,
        ref: f.source?.ref ?? '',
      })),
      figure: withFrame(first.result, player.tS),
    };
    noteForBrief(p.context.checkoutId ?? '', note);
    router.push(`/checkouts/${p.context.checkoutId}/brief`);
  };
  const compare = () => {
    if (compares) return set({ compare: 'no' });
    const copy = Object.fromEntries(Object.entries(part(state, '')).map(([k, v]) => [`${SECOND}${k}`, v]));
    setSetting('second');
    set({ ...copy, compare: 'yes', [`${SECOND}type`]: 'this' });
  };
  return (
    <>
      <section className="panel lab-answer" aria-label="Answer">
        <div>
          <Answer result={first.result} old={first.old} title={compares ? 'First' : null} />
          {second && compares ? <Answer result={second.result} old={second.old} title="Second" /> : null}
          {first.failed ? (
            <p className="trouble mb-0" role="alert">
              The model stopped. Change a setting, or reload the page.
            </p>
          ) : null}
        </div>
        <div className="lab-actions">
          <Button variant="outline-primary" aria-pressed={compares} onClick={compare}>
            {compares ? 'One only' : 'Compare'}
          </Button>
          {p.context.checkoutId && p.mayBrief ? <Button onClick={toBrief}>Put into the brief</Button> : null}
        </div>
      </section>
      <div className="lab-stage">
        <Panel title="Set">
          <LabBar context={p.context} withOld />
          {compares ? (
            <div className="btn-group w-100 mb-2" role="group" aria-label="Which one is set">
              {(['first', 'second'] as const).map((which) => (
                <Button
                  key={which}
                  size="sm"
                  variant={setting === which ? 'primary' : 'outline-primary'}
                  aria-pressed={setting === which}
                  onClick={() => setSetting(which)}
                >
                  {which === 'first' ? 'First' : 'Second'}
                </Button>
              ))}
            </div>
          ) : null}
          {compares && setting === 'second' && p.old ? (
            <Choice
              id="b-type"
              label="Type"
              value={otherType ? 'old' : 'this'}
              options={[
                ['this', p.sheet.name],
                ['old', p.old.name],
              ]}
              change={(v) => set({ [`${SECOND}type`]: v })}
            />
          ) : null}
          <Parameters
            key={prefix}
            prefix={prefix}
            parameters={model.parameters(sheetNow)}
            settings={now?.settings ?? {}}
            change={set}
          />
          {p.note ? <p className="soft small mb-0 mt-2">{p.note}</p> : null}
        </Panel>
        <div className="lab-pictures">
          <Picture result={first.result} tS={player.tS} of={compares ? 'First: ' : ''} />
          {second && compares ? <Picture result={second.result} tS={player.tS} of="Second: " /> : null}
          {endS > 0 ? <Player player={player} endS={endS} /> : null}
          {p.page === 'ground' ? <FootMap sheet={p.sheet} settings={first.settings} day={p.day} /> : null}
          {p.lessons ? <LadderPlan lessons={p.lessons} /> : null}
          {p.page === 'crosswind' ? <TaxiWind layout={p.sheet.gear.layout} /> : null}
          {p.page === 'slow-approach' ? (
            <>
              <Trials
                unit={p.sheet.dial.unit}
                text={String(first.settings.trials ?? '')}
                change={(trials) => set({ trials })}
                flown={p.trials}
              />
              <TrialsToSheet sheet={p.sheet} settings={first.settings} to={p.toSheet} />
            </>
          ) : null}
        </div>
      </div>
      <div className="grid g-1-1">
        <Facts result={first.result} />
        <Panel title="Assumed">
          <ul className="small mb-2">
            {first.result.assumed.map((a) => (
              <li key={a.code}>{labWords(a)}</li>
            ))}
          </ul>
          {p.context.checkoutId ? null : (
            <p className="soft small mb-0">
              Opened from a checkout it is set with that pilot and the day, and can be put into the brief. See{' '}
              <Link href="/checkouts">Checkouts</Link>.
            </p>
          )}
        </Panel>
      </div>
      <DataTable table={first.result.table} />
      {second && compares ? (
        <DataTable table={{ ...second.result.table, name: `${second.result.table.name}, second` }} />
      ) : null}
    </>
  );
}

/** The newest result; while the worker computes the last one stands. */
function useResult(
  p: StageProps,
  model: LabModel,
  sheet: LabSheetData,
  raw: Settings,
  wanted = true,
): { result: LabResult; settings: Settings; old: boolean; failed: boolean } {
  const start = useMemo(() => model.start(sheet, p.day), [model, sheet, p.day]);
  const settings = held(model.parameters(sheet), start, raw);
  const key = `${sheet.name} ${JSON.stringify(settings)}`;
  const [first] = useState(() => ({ key, result: model.compute(sheet, settings, p.day, p.old) }));
  const asks = wanted && key !== first.key;
  const answer = useWorker(asks ? key : null, () => labWorker().model(p.page, sheet, settings, p.day, p.old));
  return {
    result: asks ? (answer.value ?? first.result) : first.result,
    settings,
    old: asks && answer.old,
    failed: asks && answer.failed,
  };
}

/** A moment of a moving picture, or the picture that does not move. */
export function frameAt(result: LabResult, tS: number): LabFrame | undefined {
  const { frames } = result;
  let at = frames[0];
  for (const f of frames) if (f.tS <= tS + 1e-6) at = f;
  return at;
}
function withFrame(result: LabResult, tS: number): LabNote['figure'] {
  const at = frameAt(result, tS);
  return {
    ...result.figure,
    shapes: [...result.figure.shapes, ...(at?.shapes ?? [])],
    texts: [...result.figure.texts, ...(at?.texts ?? [])],
  };
}

function Answer({ result, old, title }: { result: LabResult; old: boolean; title: string | null }) {
  return (
    <div className="mb-2" aria-busy={old}>
      <p className="says mb-1" role="status" data-testid="lab-answer">
        {title ? <span className="soft">{title}: </span> : null}
        {result.tone === 'plain' ? (
          labWords(result.answer)
        ) : (
          <Verdict verdict={result.tone}>{labWords(result.answer)}</Verdict>
        )}
      </p>
      {result.why.map((w, i) => (
        <p key={`${w.code}${i}`} className="why mb-0">
          {labWords(w)}
        </p>
      ))}
    </div>
  );
}

function Picture({ result, tS, of }: { result: LabResult; tS: number; of: string }) {
  return (
    <figure className="panel picture mb-0">
      <FigureDrawing figure={result.figure} moving={frameAt(result, tS)} label={`${of}${labWords(result.answer)}`} />
    </figure>
  );
}

function Choice({
  id,
  label,
  value,
  options,
  change,
}: {
  id: string;
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  change: (v: string) => void;
}) {
  return (
    <fieldset className="lab-choice">
      <legend>{label}</legend>
      {options.map(([v, name]) => (
        <label key={v} className={v === value ? 'on' : ''}>
          <input type="radio" name={id} value={v} checked={v === value} onChange={() => change(v)} />
          {name}
        </label>
      ))}
    </fieldset>
  );
}

const sided = (v: number, unit: string): string =>
  v === 0 ? `0 ${unit}` : `${fixed(Math.abs(v))} ${unit}, ${v > 0 ? 'right' : 'left'}`;

function Parameters({
  prefix,
  parameters,
  settings,
  change,
}: {
  prefix: string;
  parameters: readonly Parameter[];
  settings: Settings;
  change: (s: QueryState) => void;
}) {
  return (
    <div className="lab-parameters">
      {parameters.map((x) =>
        x.kind === 'text' ? null : x.kind === 'range' ? (
          <Range
            key={x.key}
            id={`${prefix}${x.key}`}
            label={x.label}
            value={Number(settings[x.key])}
            min={x.min}
            max={x.max}
            step={x.step}
            unit={x.unit}
            {...(x.signed ? { said: sided(Number(settings[x.key]), x.unit) } : {})}
            onChange={(v) => change({ [`${prefix}${x.key}`]: v })}
          />
        ) : (
          <Choice
            key={x.key}
            id={`${prefix}${x.key}`}
            label={x.label}
            value={String(settings[x.key])}
            options={x.options}
            change={(v) => change({ [`${prefix}${x.key}`]: v })}
          />
        ),
      )}
    </div>
  );
}

function Facts({ result }: { result: LabResult }) {
  return (
    <Panel title="Numbers used">
      <table className="plain" aria-label="Numbers used">
        <tbody>
          {result.facts.map((f) => (
            <tr key={f.name}>
              <td>{f.name}</td>
              <td className="r mono">
                {f.value}
                {f.source ? <Source source={f.source.source} reference={f.source.ref} /> : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <SourceKey />
    </Panel>
  );
}

function DataTable({ table }: { table: LabResult['table'] }) {
  return (
    <details className="panel">
      <summary>As a table: {table.name.toLowerCase()}</summary>
      <div className="scroll-x" tabIndex={0} role="region" aria-label={table.name}>
        <table className="plain" aria-label={table.name}>
          <thead>
            <tr>
              {table.head.map((h) => (
                <th key={h} scope="col">
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((r, i) => (
              <tr key={i}>
                {r.map((c, j) => (
                  <td key={j} className={j === 0 ? 'mono' : 'mono r'}>
                    {c}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
