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
import { LAB_MODELS, type LabDay, type LabResult, type LabSheetData, type Settings } from '@/core/lab';
import { type EdgesInput, type RunwayEdges, runwayEdges } from '@/core/sightpicture';

export const lab = {
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
