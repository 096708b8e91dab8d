'use client';
import FormCheckInput from 'react-bootstrap/FormCheckInput';
import Button from 'react-bootstrap/Button';
import { type Remote, wrap } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import {
  AIRWORK_FLOWN,
  ARRIVAL_KINDS,
  ERROR_NAME,
  PILOT_ERRORS,
  type PilotError,
  type RecorderChoices,
  SENSOR_SETS,
  type SensorSet,
  kindOf,
} from '@/core/recorder';
import { type Series, runwayCorners, unpackSeries } from '@/core/trace';
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import { say } from '@/domain/words';
import type { Recorded, Recording } from '@/workers/recorder.worker';
import { Range } from '../lab/range';
import { Field } from '../shared/field';
import { observable } from './observable';
import { TracePlan } from './plan';
import { FOUND_NAME, elapsed, momentOf } from './words';

export interface Craft {
  key: string;
  name: string;
  registration: string;
  sheet: TypeSheet;
}
const SENSOR_NAME: Record<SensorSet, string> = {
  panel: 'panel, with air data',
  tablet: 'tablet, position only',
  poor: 'panel with poor sensors',
};
type Arrival = RecorderChoices['arrivals'][number];

/** The simulated recorder: what was flown stands beside what the analysis found in its file. */
export function Recorder({
  crafts,
  aerodrome,
  startUtcMs,
}: {
  crafts: Craft[];
  aerodrome: Aerodrome;
  startUtcMs: number;
}) {
  const worker = useRef<Remote<Recording> | null>(null);
  const [craft, setCraft] = useState(crafts[0]?.key ?? '');
  const chosen = crafts.find((c) => c.key === craft) ?? crafts[0];
  const ends = useMemo(
    () =>
      aerodrome.runways
        .filter((r) =>
          chosen?.sheet.surface === 'sea'
            ? r.surface === 'water'
            : chosen?.sheet.surface === 'land'
              ? r.surface !== 'water'
              : true,
        )
        .flatMap((r) => r.ends.map((e) => e.ident)),
    [aerodrome, chosen],
  );
  const [runway, setRunway] = useState('22');
  const [choices, setChoices] = useState<Omit<RecorderChoices, 'runwayEnd'>>({
    windFromDeg: 260,
    windKt: 8,
    side: 'left',
    arrivals: ['touch-and-go', 'go-around', 'full-stop'],
    airwork: ['steep-turn'],
    errors: ['left-bias'],
    rateHz: 5,
    sensors: 'panel',
  });
  const [format, setFormat] = useState<'csv' | 'gpx' | 'igc'>('csv');
  const [seed, setSeed] = useState(1);
  const [result, setResult] = useState<Recorded | null>(null);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const [series, setSeries] = useState<Series | null>(null);
  useEffect(
    () => () => {
      worker.current = null;
    },
    [],
  );
  const end = ends.includes(runway) ? runway : (ends[0] ?? '');
  const fly = async () => {
    if (!chosen) return;
    setBusy(true);
    setProblem('');
    try {
      worker.current ??= wrap<Recording>(
        new Worker(new URL('../../workers/recorder.worker.ts', import.meta.url), { type: 'module', name: 'recorder' }),
      );
      const done = await worker.current.record(
        chosen.sheet,
        chosen.registration,
        aerodrome,
        { ...choices, runwayEnd: end },
        format,
        seed,
        startUtcMs,
      );
      setResult(done);
      setSeries(done?.done.ok && done.done.series.length > 0 ? unpackSeries(done.done.series.slice().buffer) : null);
      if (!done) setProblem('This runway is not one the aeroplane can use: choose another.');
      else if (!done.done.ok) setProblem(done.done.message);
    } catch {
      setProblem('The recorder did not answer. Try again.');
    }
    setBusy(false);
  };
  const toggle = <T extends string>(list: readonly T[], x: T): T[] =>
    list.includes(x) ? list.filter((y) => y !== x) : [...list, x];
  const save = (name: string, text: string, type: string) => {
    const url = URL.createObjectURL(new Blob([text], { type }));
    const a = document.createElement('a');
    a.href = url;
    a.download = name;
    a.click();
    URL.revokeObjectURL(url);
  };
  const [nowhere] = useState(() => observable<number | null>(null));
  const whole = useMemo(() => observable<[number, number]>([0, series?.tS[series.tS.length - 1] ?? 0]), [series]);
  const s = result?.score;
  const marks = useMemo(
    () =>
      result?.done.ok
        ? result.done.analysis.events.map((e) => ({ s: momentOf(e), label: FOUND_NAME[e.kind], chosen: false }))
        : [],
    [result],
  );
  const strips = useMemo(() => (result ? runwayCorners(result.context) : []), [result]);
  const lines = s
    ? [
        ...s.events.map(({ flown, found }) => ({
          at: flown.touchdownS ?? flown.lowestS ?? flown.liftoffS ?? 0,
          name: FOUND_NAME[kindOf(flown)],
          word: offText(flown, found),
          wrong: false,
        })),
        ...s.missed.map((m) => ({
          at: m.touchdownS ?? m.lowestS ?? m.liftoffS ?? 0,
          name: FOUND_NAME[kindOf(m)],
          word: 'missed',
          wrong: true,
        })),
        ...s.airwork.map(({ flown, found }) => ({
          at: flown.startS,
          name: FOUND_NAME[flown.kind],
          word: `found; bank ${Math.abs(flown.maxBankDeg).toFixed(0)}\u00b0 flown, ${found.maxBankDeg === null ? 'not measured' : `${Math.abs(found.maxBankDeg).toFixed(0)}\u00b0 measured`}`,
          wrong: false,
        })),
        ...s.airworkMissed.map((m) => ({ at: m.startS, name: FOUND_NAME[m.kind], word: 'missed', wrong: true })),
        ...[
          ...s.invented.map((e) => ({ at: momentOf(e), name: FOUND_NAME[e.kind], word: 'invented', wrong: true })),
          ...s.airworkInvented.map((e) => ({ at: e.startS, name: FOUND_NAME[e.kind], word: 'invented', wrong: true })),
        ],
      ].sort((a, b) => a.at - b.at)
    : [];
  return (
    <div className="grid g-recorder">
      <section className="panel" aria-label="What is flown">
        <div className="two">
          <Field label="Aeroplane" id="rec-craft">
            <select value={craft} onChange={(e) => setCraft(e.target.value)}>
              {crafts.map((c) => (
                <option key={c.key} value={c.key}>
                  {c.name}
                </option>
              ))}
            </select>
          </Field>
          <Field label="Runway" id="rec-runway">
            <select value={end} onChange={(e) => setRunway(e.target.value)}>
              {ends.map((e) => (
                <option key={e}>{e}</option>
              ))}
            </select>
          </Field>
        </div>
        <Range
          label="Wind from, true"
          id="rec-wdir"
          value={choices.windFromDeg}
          min={10}
          max={360}
          step={10}
          unit={'\u00b0'}
          onChange={(windFromDeg) => setChoices({ ...choices, windFromDeg })}
        />
        <Range
          label="Wind"
          id="rec-wkt"
          value={choices.windKt}
          min={0}
          max={20}
          unit="kt"
          onChange={(windKt) => setChoices({ ...choices, windKt })}
        />
        <fieldset className="mt-2">
          <legend>Pilot</legend>
          <div className="ticks">
            {PILOT_ERRORS.map((e: PilotError) => (
              <label key={e}>
                <FormCheckInput
                  type="checkbox"
                  checked={choices.errors.includes(e)}
                  onChange={() => setChoices({ ...choices, errors: toggle(choices.errors, e) })}
                />{' '}
                {ERROR_NAME[e]}
              </label>
            ))}
          </div>
        </fieldset>
        <fieldset className="mt-2">
          <legend>Airwork</legend>
          <div className="ticks">
            {AIRWORK_FLOWN.map((e) => (
              <label key={e}>
                <FormCheckInput
                  type="checkbox"
                  checked={choices.airwork.includes(e)}
                  onChange={() =>
                    setChoices({
                      ...choices,
                      airwork: AIRWORK_FLOWN.filter((x) => (x === e) !== choices.airwork.includes(x)),
                    })
                  }
                />{' '}
                {FOUND_NAME[e].toLowerCase()}
              </label>
            ))}
          </div>
        </fieldset>
        <fieldset className="mt-2">
          <legend>Arrivals, then a full stop</legend>
          <ol className="small mb-1">
            {choices.arrivals
              .filter((a) => a !== 'full-stop')
              .map((a, i) => (
                <li key={i}>
                  {say(a)}{' '}
                  <Button
                    variant="link"
                    size="sm"
                    className="p-0"
                    aria-label={`Leave out arrival ${i + 1}`}
                    onClick={() => setChoices({ ...choices, arrivals: choices.arrivals.filter((_, k) => k !== i) })}
                  >
                    leave out
                  </Button>
                </li>
              ))}
          </ol>
          <div className="d-flex gap-1 flex-wrap">
            {ARRIVAL_KINDS.filter((k) => k !== 'full-stop').map((k: Arrival) => (
              <Button
                key={k}
                variant="outline-primary"
                size="sm"
                disabled={choices.arrivals.length > 11}
                onClick={() =>
                  setChoices({
                    ...choices,
                    arrivals: [...choices.arrivals.filter((a) => a !== 'full-stop'), k, 'full-stop'],
                  })
                }
              >
                + {say(k)}
              </Button>
            ))}
          </div>
        </fieldset>
        <div className="two mt-2">
          <Field label="Sensors" id="rec-sensors">
            <select
              value={choices.sensors}
              onChange={(e) => setChoices({ ...choices, sensors: e.target.value as SensorSet })}
            >
              {SENSOR_SETS.map((x) => (
                <option key={x} value={x}>
                  {SENSOR_NAME[x]}
                </option>
              ))}
            </select>
          </Field>
          <Field label="Rows a second" id="rec-rate">
            <select value={choices.rateHz} onChange={(e) => setChoices({ ...choices, rateHz: Number(e.target.value) })}>
              {[1, 2, 4, 5, 10].map((x) => (
                <option key={x}>{x}</option>
              ))}
            </select>
          </Field>
          <Field label="File" id="rec-format">
            <select value={format} onChange={(e) => setFormat(e.target.value as 'csv')}>
              <option value="csv">CSV</option>
              <option value="gpx">GPX 1.1</option>
              <option value="igc">IGC</option>
            </select>
          </Field>
          <Field label="Flight number" id="rec-seed" hint="The same number flies the same flight.">
            <input
              type="number"
              min={1}
              max={9999}
              value={seed}
              onChange={(e) => setSeed(Number(e.target.value) || 1)}
            />
          </Field>
        </div>
        <Button variant="primary" className="mt-3" disabled={busy} onClick={() => void fly()}>
          {busy ? 'Flying \u2026' : 'Fly and record'}
        </Button>
        {problem ? (
          <p className="trouble mt-2" role="alert">
            {problem}
          </p>
        ) : null}
      </section>
      <div className="grid">
        {result && series ? (
          <section className="panel" aria-label="The flight from above">
            <h2>From above, {result.minutes.toFixed(0)} minutes</h2>
            <TracePlan
              series={series}
              strips={strips}
              marks={marks}
              window={whole}
              cursor={nowhere}
              near={null}
              heightPx={300}
              onPick={() => undefined}
            />
          </section>
        ) : null}
        <section className="panel" aria-label="Flown and found">
          <h2>Flown, and what the analysis found in the file</h2>
          {!s ? (
            <p className="soft mb-0">Fly, and every event stands here with what was measured of it.</p>
          ) : (
            <>
              <p role="status">
                <strong>
                  {s.missed.length + s.airworkMissed.length === 0
                    ? 'Everything flown was found'
                    : `${s.missed.length + s.airworkMissed.length} missed`}
                  ,{' '}
                  {s.invented.length + s.airworkInvented.length === 0
                    ? 'nothing was invented'
                    : `${s.invented.length + s.airworkInvented.length} invented`}
                  .
                </strong>
              </p>
              <div className="scroll-x">
                <table className="plain">
                  <thead>
                    <tr>
                      <th>At</th>
                      <th>Flown</th>
                      <th>Found</th>
                    </tr>
                  </thead>
                  <tbody>
                    {lines.map((l, i) => (
                      <tr key={i}>
                        <td className="mono">{elapsed(l.at)}</td>
                        <td>{l.name}</td>
                        <td className={l.wrong ? 'v-outside' : ''}>{l.word}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
              {result?.done.ok && result.done.analysis.exceedances.length > 0 ? (
                <p className="mt-2 mb-0">
                  Limits passed:{' '}
                  {result.done.analysis.exceedances
                    .map(
                      (x) =>
                        `${x.channel} ${x.peak.toFixed(0)} ${x.unit} against ${x.limit} for ${x.durationS.toFixed(1)} s`,
                    )
                    .join('; ')}
                  .
                </p>
              ) : null}
              <div className="d-flex gap-2 mt-3 flex-wrap">
                <Button
                  variant="outline-primary"
                  onClick={() => save(`simulated-${seed}.${format}`, result?.text ?? '', 'text/plain')}
                >
                  The file
                </Button>
                <Button
                  variant="outline-primary"
                  onClick={() => save(`simulated-${seed}.flown.json`, result?.truth ?? '', 'application/json')}
                >
                  What was flown, JSON
                </Button>
                <Button
                  variant="outline-primary"
                  onClick={() =>
                    save(
                      `simulated-${seed}.context.json`,
                      JSON.stringify(result?.context ?? {}, null, 2),
                      'application/json',
                    )
                  }
                >
                  Its context, JSON
                </Button>
              </div>
            </>
          )}
        </section>
      </div>
    </div>
  );
}

function offText(
  flown: {
    touchdownS: number | null;
    alongM: number | null;
    lateralM: number | null;
    lowestFt: number | null;
    liftoffS: number | null;
  },
  found: {
    touchdown?: { tS: number; alongM: number | null; lateralM: number | null } | undefined;
    lowestHeightFt?: number | null | undefined;
    liftoff?: { tS: number } | undefined;
  },
): string {
  if (flown.touchdownS !== null && found.touchdown) {
    const m = (a: number | null, b: number | null) =>
      a === null || b === null ? 'not measured' : `${Math.abs(a - b).toFixed(1)} m off`;
    return `found; ${Math.abs(found.touchdown.tS - flown.touchdownS).toFixed(1)} s, along ${m(found.touchdown.alongM, flown.alongM)}, across ${m(found.touchdown.lateralM, flown.lateralM)}`;
  }
  if (flown.lowestFt !== null)
    return `found; lowest ${flown.lowestFt.toFixed(0)} ft flown, ${found.lowestHeightFt === null || found.lowestHeightFt === undefined ? 'not measured' : `${found.lowestHeightFt.toFixed(0)} ft measured`}`;
  return flown.liftoffS !== null && found.liftoff
    ? `found; ${Math.abs(found.liftoff.tS - flown.liftoffS).toFixed(1)} s off`
    : 'found';
}
