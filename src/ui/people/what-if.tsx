'use client';
import Button from 'react-bootstrap/Button';
import { useState } from 'react';
import type { Lapse } from '@/core/recency';
import { Field } from '../shared/field';
import { type ActionProblem, type ActionResult, runAction } from '../shared/forms';
import { Problems } from '../shared/parts';
import { LapseMark } from './lapse';

interface Row {
  flownOn: string;
  typeCode: string;
  landings: string;
  fullStops: string;
  night: boolean;
  surface: 'land' | 'water';
}
/** What a pilot would have after flying what is planned: the same rules over what is recorded and what would be. */
export function WhatIf({
  pilotId,
  onDate,
  types,
  ask,
}: {
  pilotId: string;
  onDate: string;
  types: readonly { code: string; name: string; water: boolean }[];
  ask: (form: unknown) => Promise<ActionResult<{ before: Lapse[]; after: Lapse[] }>>;
}) {
  const blank = (): Row => ({
    flownOn: onDate,
    typeCode: types[0]?.code ?? '',
    landings: '3',
    fullStops: '3',
    night: false,
    surface: 'land',
  });
  const [rows, setRows] = useState<Row[]>([blank()]);
  const [day, setDay] = useState(onDate);
  const [problems, setProblems] = useState<ActionProblem[]>([]);
  const [answer, setAnswer] = useState<{ before: Lapse[]; after: Lapse[] } | null>(null);
  const set = (i: number, next: Partial<Row>) => {
    setRows(rows.map((r, j) => (j === i ? { ...r, ...next } : r)));
    setAnswer(null);
  };
  const send = async () => {
    const got = await runAction(() =>
      ask({
        pilotId,
        onDate: day,
        planned: rows.map((r) => ({ ...r, landings: Number(r.landings), fullStops: Number(r.fullStops) })),
      }),
    );
    if (!got.ok) {
      setAnswer(null);
      return setProblems(got.problems);
    }
    setProblems([]);
    setAnswer(got);
  };
  const changed = answer
    ? answer.after.filter((a) => {
        const b = answer.before.find((x) => x.key === a.key);
        return !b || b.status !== a.status || b.through !== a.through;
      })
    : [];
  const err = (i: number, field: string) => problems.find((p) => p.path === `planned.${i}.${field}`);
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
      className="d-grid gap-2"
      aria-label="What if"
    >
      <Problems problems={problems.filter((p) => !p.path.startsWith('planned.'))} title="Not worked out" />
      {rows.map((r, i) => (
        <div
          key={i}
          className="d-grid gap-2"
          style={{ gridTemplateColumns: 'repeat(auto-fit, minmax(104px, 1fr))', alignItems: 'start' }}
        >
          <Field label="Flown on" id={`wi-day-${i}`} error={err(i, 'flownOn')}>
            <input type="date" value={r.flownOn} onChange={(e) => set(i, { flownOn: e.target.value })} />
          </Field>
          <Field label="Type" id={`wi-type-${i}`} error={err(i, 'typeCode')}>
            <select value={r.typeCode} onChange={(e) => set(i, { typeCode: e.target.value, surface: 'land' })}>
              {types.map((t) => (
                <option key={t.code} value={t.code}>
                  {t.name}
                </option>
              ))}
            </select>
          </Field>
          <Field label="Landings" id={`wi-n-${i}`} error={err(i, 'landings')}>
            <input inputMode="numeric" value={r.landings} onChange={(e) => set(i, { landings: e.target.value })} />
          </Field>
          <Field label="of them full stops" id={`wi-f-${i}`} error={err(i, 'fullStops')}>
            <input inputMode="numeric" value={r.fullStops} onChange={(e) => set(i, { fullStops: e.target.value })} />
          </Field>
          {types.find((t) => t.code === r.typeCode)?.water ? (
            <Field label="On" id={`wi-s-${i}`}>
              <select value={r.surface} onChange={(e) => set(i, { surface: e.target.value as Row['surface'] })}>
                <option value="land">land</option>
                <option value="water">water</option>
              </select>
            </Field>
          ) : null}
          <div className="form-check align-self-end">
            <input
              type="checkbox"
              className="form-check-input"
              id={`wi-night-${i}`}
              checked={r.night}
              onChange={(e) => set(i, { night: e.target.checked })}
            />
            <label className="form-check-label" htmlFor={`wi-night-${i}`}>
              by night
            </label>
            {rows.length > 1 ? (
              <Button
                variant="link"
                size="sm"
                className="p-0 ms-2"
                onClick={() => {
                  setRows(rows.filter((_, j) => j !== i));
                  setAnswer(null);
                }}
              >
                take out<span className="visually-hidden"> flight {i + 1}</span>
              </Button>
            ) : null}
          </div>
        </div>
      ))}
      <div className="d-flex gap-2 align-items-end flex-wrap">
        <Button
          variant="outline-primary"
          size="sm"
          onClick={() => {
            setRows([...rows, { ...blank(), flownOn: rows[rows.length - 1]?.flownOn ?? onDate }]);
            setAnswer(null);
          }}
        >
          Another flight
        </Button>
        <div>
          <label className="form-label" htmlFor="wi-on">
            How it stands on
          </label>
          <input
            id="wi-on"
            type="date"
            className="form-control form-control-sm"
            value={day}
            onChange={(e) => {
              setDay(e.target.value);
              setAnswer(null);
            }}
          />
        </div>
        <Button type="submit" variant="primary" size="sm">
          What would hold?
        </Button>
      </div>
      <div role="status">
        {answer === null ? null : changed.length === 0 ? (
          <p className="mb-0">Nothing changes by it on that day.</p>
        ) : (
          <table className="plain">
            <thead>
              <tr>
                <th>What</th>
                <th>Without</th>
                <th>With these flights</th>
              </tr>
            </thead>
            <tbody>
              {changed.map((a) => {
                const b = answer.before.find((x) => x.key === a.key);
                return (
                  <tr key={a.key}>
                    <td>{a.what}</td>
                    <td>{b ? <LapseMark lapse={b} /> : 'not asked'}</td>
                    <td>
                      <LapseMark lapse={a} />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
      </div>
    </form>
  );
}
