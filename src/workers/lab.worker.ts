/**
 * The lab's longer computations, away from the page: reach along a circuit, wedges for several runways. Core functions,
 * nothing else.
 */
import { expose } from 'comlink';
import type { LabPage } from '@/domain/lab-pages';
import {
  type PacePoint,
  type PaceSheet,
  type ReachChoices,
  type ReachEnd,
  type ReachSample,
  reachAlong,
} from '@/core/circuit';
import {
  type FootMap,
  footMap,
  LAB_MODELS,
  type LabDay,
  type LabResult,
  type LabSheetData,
  type Settings,
} from '@/core/lab';
import { type EdgesInput, type RunwayEdges, runwayEdges } from '@/core/sightpicture';

/** A sweep lets other questions in so often, and stops when it is told. */
const LETS_IN_MS = 40;
const breath = (): Promise<void> => new Promise((done) => setTimeout(done));
let sweep = 0;

export const lab = {
  /** @param onDone rolls done so far @returns null when it was stopped or another was begun */
  footMap: async (
    sheet: LabSheetData,
    settings: Settings,
    day: LabDay,
    onDone: (runs: number) => void,
  ): Promise<FootMap | null> => {
    const mine = ++sweep;
    const steps = footMap(sheet, settings, day);
    let last = performance.now();
    for (let step = steps.next(); ; step = steps.next()) {
      if (step.done) return step.value;
      if (performance.now() - last < LETS_IN_MS) continue;
      onDone(step.value);
      await breath();
      if (mine !== sweep) return null;
      last = performance.now();
    }
  },
  stopFootMap: (): void => {
    sweep++;
  },
  reach: (
    sheet: PaceSheet,
    points: PacePoint[],
    runway: { trueBearingDeg: number; lengthM: number; surface?: string },
    ends: ReachEnd[],
    choices: ReachChoices,
  ): ReachSample[] => reachAlong(sheet, points, runway, ends, choices),
  model: (page: LabPage, sheet: LabSheetData, settings: Settings, day: LabDay, old: LabSheetData | null): LabResult =>
    LAB_MODELS[page].compute(sheet, settings, day, old),
  wedges: (inputs: EdgesInput[]): RunwayEdges[] => inputs.map((i) => runwayEdges(i)),
};
export type LabWorker = typeof lab;
expose(lab);
