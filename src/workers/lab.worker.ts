/**
 * The lab's longer computations, away from the page: reach along a circuit, wedges for several runways. Core functions,
 * nothing else.
 */
import { expose } from 'comlink';
import {
  type PacePoint,
  type PaceSheet,
  type ReachChoices,
  type ReachEnd,
  type ReachSample,
  reachAlong,
} from '@/core/circuit';
import { type EdgesInput, type RunwayEdges, runwayEdges } from '@/core/sightpicture';

export const lab = {
  reach: (
    sheet: PaceSheet,
    points: PacePoint[],
    runway: { trueBearingDeg: number; lengthM: number; surface?: string },
    ends: ReachEnd[],
    choices: ReachChoices,
  ): ReachSample[] => reachAlong(sheet, points, runway, ends, choices),
  wedges: (inputs: EdgesInput[]): RunwayEdges[] => inputs.map((i) => runwayEdges(i)),
};
export type LabWorker = typeof lab;
expose(lab);
