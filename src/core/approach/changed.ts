import type { BriefChoices } from '@/domain/brief';
import { needNumbers } from '../guard';
import type { BriefGate, RunwayWind } from './brief';
import { type BriefChange, briefChange } from './changed-words';

export { type BriefChange, changeWords } from './changed-words';

/** What of a saved brief another one is held against. */
export interface Compared {
  choices: Pick<BriefChoices, 'aerodrome' | 'runwayEnd' | 'wind' | 'intended' | 'night'>;
  snapshot: {
    unit: 'kt' | 'mph';
    runways: readonly Pick<RunwayWind, 'ident' | 'crosswindKt' | 'gustCrosswindKt'>[];
    gates: readonly Pick<BriefGate, 'target' | 'flapDeg'>[];
  };
}

/** Crosswinds closer than this are told as the same, kt. */
const ALIKE_KT = 3;
/** Speeds closer than this are told as the same, in the dial’s unit. */
const ALIKE_DIAL = 2;

/** The greatest across on the runway used, gusts included, kt; positive from the right; null = no wind known. */
function across({ choices, snapshot }: Compared): number | null {
  const used = choices.wind && snapshot.runways.find((r) => r.ident === choices.runwayEnd);
  return used ? (used.gustCrosswindKt ?? used.crosswindKt) : null;
}

/**
 * What is other than in the brief of the lesson before, in the order a pilot prepares it: where, the wind, the
 * configuration, the speed. Crosswinds within 3 kt and speeds within 2 on the dial are not told. Source: this
 * application.
 * @param landing whether the way of landing is chosen at all: a tailwheel type
 * @returns codes; empty when nothing of it changed
 * @throws BadNumber when a number handed in is none
 * @example briefChanges(lesson4, lesson5, true).map(changeWords) // ['crosswind 7 kt from the right']
 */
export function briefChanges(before: Compared, after: Compared, landing: boolean): BriefChange[] {
  const compared = ({ snapshot: { runways, gates } }: Compared) => ({ runways, gates });
  needNumbers('briefChanges', { before: compared(before), after: compared(after) });
  const changes: BriefChange[] = [];
  const { choices: was } = before;
  const { choices: is, snapshot } = after;
  if ((was.aerodrome ?? '') !== (is.aerodrome ?? ''))
    changes.push(briefChange('aerodrome', { to: is.aerodrome ?? 'home' }));
  if (was.runwayEnd !== is.runwayEnd || was.aerodrome !== is.aerodrome)
    changes.push(briefChange('runway', { to: is.runwayEnd }));
  const [had, has] = [across(before), across(after)];
  if (has === null) changes.push(...(had === null ? [] : [briefChange('wind-none')]));
  else if (had === null || Math.abs(has - had) >= ALIKE_KT) {
    const kt = Math.ceil(Math.abs(has) - 0.05);
    changes.push(kt === 0 ? briefChange('calm') : briefChange('wind', { kt, side: has > 0 ? 'right' : 'left' }));
  }
  const [last, threshold] = [before.snapshot.gates.at(-1), snapshot.gates.at(-1)];
  if (last && threshold) {
    if (last.flapDeg !== threshold.flapDeg) changes.push(briefChange('flap', { deg: threshold.flapDeg }));
    if (threshold.target !== null && (last.target === null || Math.abs(threshold.target - last.target) >= ALIKE_DIAL))
      changes.push(briefChange('speed', { to: threshold.target, unit: snapshot.unit }));
  }
  if (landing && was.intended !== is.intended) changes.push(briefChange('intended', { to: is.intended }));
  if (was.night !== is.night) changes.push(briefChange('night', { night: is.night }));
  return changes;
}
