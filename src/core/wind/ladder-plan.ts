import { SLACK } from '../constants';
import { needNumbers } from '../guard';

export const LADDER_PLAN_STATES = ['proven', 'step', 'above', 'not-known'] as const;
export interface LadderLesson {
  state: (typeof LADDER_PLAN_STATES)[number];
  /** Before this lesson: what is proven, and the most that may be taken. */
  provenKt: number;
  mostKt: number;
}

/**
 * How a pilot's crosswind ladder would go over the coming lessons: a wind between what is proven and the step is taken and,
 * if three good landings are flown in it, proven for the next; one above is not taken; one that is not known changes nothing.
 * Source: the rule of {@link pilotLadder}.
 * @param ladder `provenKt` and `ladderKt`, kt, ≥ 0
 * @param stepKt kt, > 0
 * @param limitKt the least other limit, such as the school's; null = none
 * @param winds across, kt, of the lessons in order; null = not known
 * @returns one entry a lesson
 * @throws BadNumber when a number handed in is none
 * @example
 * planLadder({ provenKt: 5, ladderKt: 8 }, 3, 12, [7, 9, 14]).map((x) => x.state) // ['step', 'step', 'above']
 */
export function planLadder(
  ladder: { provenKt: number; ladderKt: number },
  stepKt: number,
  limitKt: number | null,
  winds: readonly (number | null)[],
): LadderLesson[] {
  needNumbers('planLadder', { ...ladder, stepKt, limitKt: limitKt ?? 0, winds: winds.map((w) => w ?? 0) });
  let { provenKt, ladderKt } = ladder;
  return winds.map((wind) => {
    const mostKt = Math.min(ladderKt, limitKt ?? Infinity);
    const before = { provenKt: Math.min(provenKt, mostKt), mostKt };
    if (wind === null) return { state: 'not-known', ...before };
    const kt = Math.abs(wind);
    if (kt > mostKt + SLACK) return { state: 'above', ...before };
    if (kt <= provenKt + SLACK) return { state: 'proven', ...before };
    provenKt = kt;
    ladderKt = Math.max(ladderKt, kt + stepKt);
    return { state: 'step', ...before };
  });
}
