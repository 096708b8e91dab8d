'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { fixed } from '@/core/format';
import { type LabSheetData, type Settings, readTrials, slowResult, writeTrials } from '@/core/lab';
import { Field } from '../shared/field';
import type { ActionResult } from '../shared/forms';
import { Panel, Problems } from '../shared/parts';
import { useTap } from '../shared/use-tap';

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
                  {fixed(t.speedKt ?? 0, Number.isInteger(t.speedKt) ? 0 : 1)} {unit}
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

export interface TrialSheet {
  code: string;
  version: number;
  action: (form: unknown) => Promise<ActionResult<{ version: number; unchanged: boolean }>>;
}
/** A trial result on its way to the sheet: by the chief, as measured, beside what governs. */
export function TrialsToSheet({
  sheet,
  settings,
  to,
}: {
  sheet: LabSheetData;
  settings: Settings;
  to: TrialSheet | null;
}) {
  const router = useRouter();
  const [reason, setReason] = useState('');
  const [said, setSaid] = useState('');
  const { tap, busy, problems } = useTap();
  const found = slowResult(sheet, settings);
  if (!found) return null;
  const { unit } = sheet.dial;
  if (!to)
    return (
      <Panel title="On the sheet">
        <p className="mb-0">The chief instructor puts a trial result on the sheet, as measured.</p>
      </Panel>
    );
  const save = () =>
    tap(
      () =>
        to.action({
          code: to.code,
          baseVersion: to.version,
          reason,
          trials: settings.trials,
          flapDeg: found.flapDeg,
          powerPercent: Math.round(found.power * 100),
        }),
      {
        refused: () => setSaid(''),
        done: ({ version }) => {
          setReason('');
          setSaid(`On the sheet as measured, version ${version}. The gate keeps the speed that governs.`);
          router.refresh();
        },
      },
    );
  const error = problems.find((p) => p.path === 'reason');
  return (
    <Panel title="On the sheet">
      <p>
        {fixed(found.value)} {unit} from {found.trials} trials, without a gust, beside the speed of the last gate with
        this flap. It governs nothing until it is made to in the type sheet.
      </p>
      <Problems problems={problems.filter((p) => p.path !== 'reason')} title="Not saved" />
      <Field label="Reason for the new version" id="trial-reason" {...(error ? { error } : {})}>
        <input maxLength={300} value={reason} onChange={(e) => setReason(e.target.value)} />
      </Field>
      <div className="d-flex gap-2 align-items-center flex-wrap mt-2">
        <Button variant="primary" disabled={busy} onClick={() => void save()}>
          Put on the sheet as measured
        </Button>
        <span role="status" className="soft small">
          {said}
        </span>
      </div>
    </Panel>
  );
}
