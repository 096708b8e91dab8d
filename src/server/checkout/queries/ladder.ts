import type { Transaction } from 'sequelize';
import { assertedIn } from '@/core/assess';
import { gearMassGroup, ladderStepKt } from '@/core/plan';
import { type Ladder, type LadderLanding, pilotLadder } from '@/core/wind';
import type { TypeSheet } from '@/domain/sheet';
import * as ask from '../../floor/statements/checkout';
import { Pilots } from '../../account/tables';

/** The pilot's own crosswind step in this gear-and-mass group, from every checkout's landings. */
export async function ladderOf(pilotId: string, sheet: TypeSheet, onDate: string, t?: Transaction): Promise<Ladder> {
  const group = gearMassGroup(sheet);
  const found = await ask.ladderOf.all({ pilotId, group }, t);
  const landings = found.map((l): LadderLanding => {
    const captured = l.captured;
    const judged = l.judged;
    return {
      date: l.flownOn,
      group,
      crosswindKt: l.crosswindKt,
      windAgeMin: l.windAgeMin,
      intervention: captured.intervention,
      demonstration: captured.demonstration,
      // What was only asserted proves no wind; a wheel off the surface is no place on it.
      criteria: {
        ...Object.fromEntries(
          judged.criteria.map((c) => [c.id, assertedIn({ criteria: [c] }).length > 0 ? 'not-seen' : c.verdict]),
        ),
        ...(judged.criteria.some((c) => c.id === 'off-surface') ? { lateral: 'outside' as const } : {}),
      },
    };
  });
  const pilot = await Pilots.first({ where: { id: pilotId }, pick: ['crosswindCredit'] }, t);
  const credit = pilot?.crosswindCredit ? pilot.crosswindCredit : null;
  return pilotLadder({
    landings,
    group,
    onDate,
    stepKt: ladderStepKt(group),
    credit: credit?.group === group ? credit : null,
  });
}
