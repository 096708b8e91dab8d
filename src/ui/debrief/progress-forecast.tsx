'use client';
import { useMemo } from 'react';
import { type DebriefLanding, type Forecast, byLesson, forecastWords } from '@/core/assess';
import { forecastWorker } from '@/workers';
import { useWorker } from '../lab/use-worker';

/** A run of landings an item of the checkout asks for, and how far it is. */
export interface RunAsked {
  needed: number;
  current: number;
  what: string;
  attitude: string | null;
  accuracy: boolean;
  missing: string;
}
/** How many landings more the bar is away, where so few can tell. */
export function RunForecast({ judged, run }: { judged: readonly DebriefLanding[]; run: RunAsked | null }) {
  const outcomes = useMemo(
    () =>
      judged
        .filter((l) => !run?.attitude || l.intended === run.attitude)
        .map(
          (l) =>
            l.judged.landingClass === 'own' || (l.judged.landingClass === 'own-off-target' && run?.accuracy === false),
        ),
    [judged, run],
  );
  const perLesson = useMemo(() => {
    const n = byLesson(run?.attitude ? judged.filter((l) => l.intended === run?.attitude) : judged)
      .map((l) => l.landings)
      .sort((a, b) => a - b);
    return n.length === 0 ? null : (n[Math.floor(n.length / 2)] ?? null);
  }, [judged, run]);
  const future = useWorker<Forecast>(
    run && run.current < run.needed ? JSON.stringify([outcomes.map(Number).join(''), run.needed, run.current]) : null,
    async () =>
      forecastWorker().forecast({
        own: outcomes,
        needed: run?.needed ?? 5,
        currentRun: run?.current ?? 0,
        perLesson,
        seed: 20261124,
      }),
  );
  return (
    <>
      {run ? (
        <p className="mb-1">
          <strong>{run.what}:</strong> {run.current} in a row of {run.needed} asked.
        </p>
      ) : null}
      <p className="mb-1" role="status" data-forecast>
        <Told run={run} failed={future.failed} forecast={future.value} />
      </p>
      <p className="soft small mb-0">
        A learning curve over {outcomes.length} judged landings, 2000 trials, median and 80 in 100 range. It counts what
        was flown; it signs nothing.
      </p>
    </>
  );
}

/** What the forecast tells, or why it does not. */
function Told({ run, failed, forecast }: { run: RunAsked | null; failed: boolean; forecast: Forecast | null }) {
  if (!run) return 'No item of this checkout asks for a run of landings, so there is no bar to forecast.';
  if (run.current >= run.needed) return `The run is complete; still required: ${run.missing}.`;
  if (failed) return 'The forecast could not be computed on this device.';
  if (forecast === null) return 'Computing the forecast \u2026';
  if (!forecast.tells) return forecastWords(forecast.why);
  const { landings, lessons } = forecast;
  const span = lessons && (lessons.low === lessons.high ? `${lessons.median}` : `${lessons.low} to ${lessons.high}`);
  return (
    <>
      At this rate about <strong>{landings.median} more landings</strong> ({landings.low} to {landings.high})
      {lessons ? `, ${span ?? ''} ${lessons.high === 1 ? 'lesson' : 'lessons'}` : ''}.
    </>
  );
}
