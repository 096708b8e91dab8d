'use client';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { fixed } from '@/core/format';
import { readTrials, writeTrials } from '@/core/lab';
import { Field } from '../shared/field';
import { Panel } from '../shared/parts';

const ARREST_WORDS = { fully: 'fully arrested', partly: 'partly', not: 'not arrested' } as const;
type Arrest = keyof typeof ARREST_WORDS;

/** The sheet of slow approach trials of this page: captured in flight, or typed. */
export function Trials({
  unit,
  text,
  change,
  flown,
}: {
  unit: string;
  text: string;
  change: (text: string) => void;
  flown: string;
}) {
  const trials = readTrials(text);
  const [row, setRow] = useState({ speed: '', power: '0', arrested: 'fully' as Arrest });
  const [problem, setProblem] = useState<{ field: 'speed' | 'power'; text: string } | null>(null);
  const add = () => {
    const speed = Number(row.speed.replace(',', '.'));
    const power = Number(row.power.replace(',', '.'));
    if (!(speed > 0 && speed < 300) || row.speed.trim() === '')
      return setProblem({ field: 'speed', text: `Enter the speed of the trial, ${unit}, off the dial.` });
    if (!(power >= 0 && power <= 100) || row.power.trim() === '')
      return setProblem({ field: 'power', text: 'Enter the power as per cent of full, 0 for idle.' });
    setProblem(null);
    change(writeTrials([...trials, { speedKt: speed, powerShare: power / 100, arrested: row.arrested }]));
    setRow({ ...row, speed: '' });
  };
  const error = (field: 'speed' | 'power') => (problem?.field === field ? { error: { message: problem.text } } : {});
  return (
    <Panel title={`Trials at height${trials.length > 0 ? `: ${trials.length}` : ''}`}>
      <div className="trial-form">
        <Field label={`Speed, ${unit}`} id="trial-speed" {...error('speed')}>
          <input
            inputMode="decimal"
            value={row.speed}
            onChange={(e) => setRow({ ...row, speed: e.target.value })}
            onKeyDown={(e) => (e.key === 'Enter' ? add() : undefined)}
          />
        </Field>
        <Field label="Power, % of full" id="trial-power" {...error('power')}>
          <input inputMode="decimal" value={row.power} onChange={(e) => setRow({ ...row, power: e.target.value })} />
        </Field>
        <Field label="Descent" id="trial-arrested">
          <select value={row.arrested} onChange={(e) => setRow({ ...row, arrested: e.target.value as Arrest })}>
            {Object.entries(ARREST_WORDS).map(([k, v]) => (
              <option key={k} value={k}>
                {v}
              </option>
            ))}
          </select>
        </Field>
        <Button variant="outline-primary" onClick={add}>
          Add trial
        </Button>
      </div>
      {flown !== '' && flown !== text ? (
        <p className="mt-2 mb-0">
          <Button variant="link" className="p-0" onClick={() => change(flown)}>
            Use the {readTrials(flown).length} trials captured in flight
          </Button>
        </p>
      ) : null}
      {trials.length > 0 ? (
        <table className="plain mt-2" aria-label="Trials at height">
          <thead>
            <tr>
              <th scope="col">speed</th>
              <th scope="col">power</th>
              <th scope="col">descent</th>
              <th scope="col">
                <span className="visually-hidden">remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {trials.map((t, i) => (
              <tr key={i}>
                <td className="mono">
                  {fixed(t.speedKt ?? 0)} {unit}
                </td>
                <td className="mono">{t.powerShare === 0 ? 'idle' : `${fixed((t.powerShare ?? 0) * 100)} %`}</td>
                <td>{ARREST_WORDS[t.arrested ?? 'not']}</td>
                <td className="r">
                  <Button
                    variant="link"
                    size="sm"
                    className="p-0"
                    aria-label={`Remove trial ${i + 1}`}
                    onClick={() => change(writeTrials(trials.filter((_, j) => j !== i)))}
                  >
                    Remove
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <p className="soft small mb-0 mt-2">
          At a safe height choose a make-believe ground, approach it at a speed and power, and flare: was the descent
          fully arrested there? Below it is height to recover; clearing turns first.
        </p>
      )}
    </Panel>
  );
}
