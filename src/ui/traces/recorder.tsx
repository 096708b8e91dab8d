'use client';
import { type Remote, wrap } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type Series, runwayCorners, unpackSeries } from '@/core/trace';
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import type { Recorded, Recording } from '@/workers/recorder.worker';
import { observable } from './observable';
import { TracePlan } from './plan';
import { FlownAndFound } from './recorder-found';
import { type Choices, type Format, RecorderForm } from './recorder-form';
import { FOUND_NAME, momentOf } from './words';

export interface Craft {
  key: string;
  name: string;
  registration: string;
  sheet: TypeSheet;
}
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
  const [choices, setChoices] = useState<Choices>({
    windFromDeg: 260,
    windKt: 8,
    side: 'left',
    arrivals: ['touch-and-go', 'go-around', 'full-stop'],
    airwork: ['steep-turn'],
    errors: ['left-bias'],
    rateHz: 5,
    sensors: 'panel',
  });
  const [format, setFormat] = useState<Format>('csv');
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
  const [nowhere] = useState(() => observable<number | null>(null));
  const whole = useMemo(() => observable<[number, number]>([0, series?.tS[series.tS.length - 1] ?? 0]), [series]);
  const marks = useMemo(
    () =>
      result?.done.ok
        ? result.done.analysis.events.map((e) => ({ s: momentOf(e), label: FOUND_NAME[e.kind], chosen: false }))
        : [],
    [result],
  );
  const strips = useMemo(() => (result ? runwayCorners(result.context) : []), [result]);
  return (
    <div className="grid g-recorder">
      <RecorderForm
        crafts={crafts}
        ends={ends}
        value={{ craft, end, choices, format, seed }}
        set={{ setCraft, setRunway, setChoices, setFormat, setSeed }}
        busy={busy}
        problem={problem}
        fly={() => void fly()}
      />
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
        <FlownAndFound result={result} name={`simulated-${seed}`} format={format} />
      </div>
    </div>
  );
}
