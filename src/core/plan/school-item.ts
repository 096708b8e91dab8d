import { HELP } from '@/domain/assess-words';
import type { SchoolItem } from '@/domain/item-form';
import type { Programme, ProgrammeItem } from '@/domain/programme';
import type { Goal } from '@/domain/words';

/** Letters of a goal in the ids of the school's own items, so that two programmes of one checkout never share an id. */
const lettersOf = (goal: Goal): string => {
  const words = goal.split('-');
  return (words.length === 1 ? goal.slice(0, 2) : words.map((w) => w[0]).join('')).toUpperCase();
};

/**
 * The next id of an item the school adds to a programme.
 * @param ever ids of its items in every version there was: one that was taken out is never given again, for what was
 * recorded of it stays
 * @example schoolItemId('tailwheel', ['F1', 'TA-H1']) // 'TA-H2'
 */
export function schoolItemId(goal: Goal, ever: readonly string[]): string {
  const start = `${lettersOf(goal)}-H`;
  const taken = ever.flatMap((id) => (id.startsWith(start) ? Number(id.slice(start.length)) : []));
  return `${start}${Math.max(0, ...taken.filter(Number.isInteger)) + 1}`;
}

/**
 * An item of the school's own, made from what was said of it; never the law's, and judged as the others are.
 * @param said a form that fits its schema
 * @param ever ids of the programme's items in every version
 * @returns the item with the next free id of the programme
 */
export function schoolItem(said: SchoolItem, programme: Programme, ever: readonly string[]): ProgrammeItem {
  return {
    id: schoolItemId(programme.goal, ever),
    title: said.title,
    text: said.text,
    where: said.where,
    source: 'house',
    citation: said.citation,
    safety: said.safety,
    waivable: said.waivable === '' ? null : said.waivable,
    prerequisites: programme.items.map((i) => i.id).filter((id) => said.first.includes(id)),
    evidence:
      said.how === 'pages'
        ? { kind: 'briefs', needed: 1, pages: said.pages, withinDays: said.withinDays }
        : said.how === 'landings'
          ? {
              kind: 'count',
              needed: said.times,
              attitude: said.attitude === 'any' ? null : said.attitude,
              fullStop: said.fullStop,
              minCrosswindKt: said.crosswindKt,
              withinDays: said.withinDays,
              surface: null,
              accuracy: false,
              prompted: said.help !== 'unassisted',
            }
          : {
              kind: 'observed',
              needed: said.times,
              maxIntervention: HELP.indexOf(said.help),
              withinDays: said.withinDays,
              minDays: said.days,
              variants: [],
            },
    credit: null,
    confirm: false,
    forms: [],
    asks: [],
    legal: false,
    needs: [],
    perAirframe: said.perAirframe,
    ...(said.lesson === null ? {} : { lesson: said.lesson }),
  };
}
