/** The simulated recorder away from the page: flies, records, reads its own file back and analyses it. */
import { expose } from 'comlink';
import {
  type RecorderChoices,
  type Score,
  csvOf,
  flyCircuits,
  gpxOf,
  igcOf,
  planFor,
  score,
  seeded,
  sense,
  sensorsOf,
  truthOf,
} from '@/core/recorder';
import { type TraceDone, traceWork } from '@/core/trace';
import type { Aerodrome, TypeSheet } from '@/domain/sheet';
import type { TraceContext } from '@/domain/trace';

export interface Recorded {
  text: string;
  truth: string;
  context: TraceContext;
  done: TraceDone;
  score: Score | null;
  minutes: number;
}
export const recording = {
  record: (
    sheet: TypeSheet,
    registration: string,
    aerodrome: Aerodrome,
    choices: RecorderChoices,
    format: 'csv' | 'gpx' | 'igc',
    seed: number,
    startUtcMs: number,
  ): Recorded | null => {
    const random = seeded(seed);
    const made = planFor(sheet, registration, aerodrome, choices, random);
    if (!made) return null;
    const flown = flyCircuits(made.plan);
    const rows = sense(flown, made.plan.runway, sensorsOf(choices), random);
    const text =
      format === 'gpx'
        ? gpxOf(rows, startUtcMs)
        : format === 'igc'
          ? igcOf(rows, startUtcMs)
          : csvOf(rows, startUtcMs, choices.sensors !== 'tablet', 'panel');
    const done = traceWork({ text, mapping: null, context: made.context });
    return {
      text,
      truth: JSON.stringify(truthOf(flown), null, 2),
      context: made.context,
      done,
      score: done.ok ? score(flown, done.analysis, rows[0]?.tS ?? 0) : null,
      minutes: (flown.samples[flown.samples.length - 1]?.tS ?? 0) / 60,
    };
  },
};
export type Recording = typeof recording;
expose(recording);
