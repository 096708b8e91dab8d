import { ladderStepKt } from '@/core/plan';
import { type Ladder, type LadderLanding, pilotLadder } from '@/core/wind';
import { Pilots } from '../../account/tables';
import * as ask from '../../floor/statements/people';

export interface LadderPoint {
  date: string;
  provenKt: number;
  ladderKt: number;
}
export interface GroupLadder {
  group: string;
  stepKt: number;
  now: Ladder;
  points: LadderPoint[];
  landings: { date: string; kt: number; good: boolean | null }[];
}
/** A pilot's own crosswind step, by gear and mass, as it was after each day flown. */
export async function ladderHistory(pilotId: string, onDate: string): Promise<GroupLadder[]> {
  const found = await ask.ladderHistory.all({ pilotId });
  const pilot = await Pilots.first({ where: { id: pilotId }, pick: ['crosswindCredit'] });
  const credit = pilot?.crosswindCredit ? pilot.crosswindCredit : null;
  const groups = [...new Set([...found.map((l) => l.gearGroup), ...(credit ? [credit.group] : [])])];
  return groups.map((group): GroupLadder => {
    const stepKt = ladderStepKt(group);
    const landings = found
      .filter((l) => l.gearGroup === group)
      .map((l): LadderLanding => ({
        date: l.flownOn,
        group,
        crosswindKt: l.crosswindKt,
        windAgeMin: l.windAgeMin,
        intervention: l.intervention,
        demonstration: l.demonstration === 1,
        criteria: Object.fromEntries(l.judged.criteria.map((c) => [c.id, c.verdict])),
      }));
    const own = credit?.group === group ? credit : null;
    const on = (date: string) =>
      pilotLadder({
        landings: landings.filter((l) => l.date <= date),
        group,
        onDate: date,
        stepKt,
        credit: own !== null && own.date <= date ? own : null,
      });
    const days = [...new Set([...(own ? [own.date.slice(0, 10)] : []), ...landings.map((l) => l.date)])].sort();
    return {
      group,
      stepKt,
      now: on(onDate),
      points: days.map((date) => {
        const l = on(date);
        return { date, provenKt: l.provenKt, ladderKt: l.ladderKt };
      }),
      landings: landings.flatMap((l) =>
        l.crosswindKt === null
          ? []
          : [
              {
                date: l.date,
                kt: Math.abs(l.crosswindKt),
                good: l.demonstration
                  ? null
                  : (l.intervention ?? 0) >= 2 ||
                      ['drift', 'crab', 'lateral', 'swing', 'aileron'].some((k) => l.criteria[k] === 'outside')
                    ? false
                    : l.intervention === 0,
              },
            ],
      ),
    };
  });
}
