/** Content held against itself and against a fleet: items nobody could ever meet, and what an item leaves out. */
import type { PackGoal, Programme, ProgrammeItem, RulePack } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import type { FindingPattern } from '@/domain/findings';
import { factsRead, isFact } from '../assess/facts';
import type { ContentFinding, ContentWrong, Unmeetable } from './check-words';
import { demandsOf, plainKind } from './goals';
import { gearMassGroup, schoolCrosswind, sheetFacts } from './airframe';
import { offeredFor, programmeOn } from './programmes';

/**
 * What is wrong with a programme whatever it is flown in: text, citation, prerequisites that are none or in a circle.
 * @returns one code a finding; empty = nothing wrong
 */
export function programmeFindings(programme: Programme): ContentFinding[] {
  const at = (i: ProgrammeItem) => `${programme.key} ${i.id}`;
  const of = new Map(programme.items.map((i) => [i.id, i]));
  const found: ContentFinding[] = [];
  const add = (where: string, wrong: ContentWrong) => found.push({ where, ...wrong });
  for (const i of programme.items) {
    if (i.text.trim().length < 10) add(at(i), { code: 'no-text' });
    if (i.citation.trim() === '') add(at(i), { code: 'no-citation' });
    for (const p of i.prerequisites.filter((x) => !of.has(x)))
      add(at(i), { code: 'no-prerequisite', params: { id: p } });
    // What the law asks is waived only by a reference: a waiver that names none is a way round.
    if (i.legal && i.waivable !== null && !/reference|figure|rating|manual|maker/i.test(i.waivable))
      add(at(i), { code: 'legal-and-free' });
    if (inCircle(i.id, of)) add(at(i), { code: 'circle' });
  }
  if (!programme.items.some((i) => i.safety)) add(programme.key, { code: 'no-safety' });
  return found;
}
function inCircle(id: string, of: ReadonlyMap<string, ProgrammeItem>): boolean {
  const seen = new Set<string>();
  const todo = [...(of.get(id)?.prerequisites ?? [])];
  for (let p = todo.pop(); p !== undefined; p = todo.pop()) {
    if (p === id) return true;
    if (seen.has(p)) continue;
    seen.add(p);
    todo.push(...(of.get(p)?.prerequisites ?? []));
  }
  return false;
}

/**
 * Every kind a pack can demand has a goal of it, every goal its programme.
 * @returns one code a finding; empty = nothing wrong
 */
export function packFindings(pack: RulePack, programmes: readonly Pick<Programme, 'key' | 'goal'>[]): ContentFinding[] {
  const goals = new Set(pack.goals.map((g) => g.goal));
  const has = (g: PackGoal['goal']) => programmes.some((p) => p.key === `${g}-${pack.key}` || p.key === `${g}-house`);
  return [
    ...Object.entries(pack.endorsementGoals)
      .filter(([, goal]) => !goals.has(goal as PackGoal['goal']))
      .map(([kind, goal]): ContentFinding => ({
        where: `${pack.key} ${kind}`,
        code: 'goal-missing',
        params: { goal },
      })),
    ...pack.goals
      .filter((g) => !has(g.goal))
      .map((g): ContentFinding => ({ where: `${pack.key} ${g.goal}`, code: 'no-programme' })),
    ...pack.goals
      .filter((g) => g.citation.trim() === '' || g.template.trim() === '')
      .map((g): ContentFinding => ({
        where: `${pack.key} ${g.goal}`,
        code: 'nothing-to-sign',
      })),
  ];
}

export interface GoalOnType {
  /** Null = the goal is not of this aeroplane. */
  items: number | null;
  notAsked: number;
  findings: ContentFinding[];
}
/**
 * One goal's programme on one type: how many items are asked, how many are not asked of it, and those that could never
 * be met in it, whatever is flown. Null items = the goal is not of this aeroplane.
 * @param limits the school's crosswind limits by group
 * @returns counts of items, and what can never be met with why by code
 */
export function goalOnType(
  programme: Programme,
  sheet: TypeSheet,
  limits: Readonly<Record<string, number>>,
): GoalOnType {
  const facts = sheetFacts(sheet);
  if (!offeredFor(programme, facts)) return { items: null, notAsked: 0, findings: [] };
  const on = programmeOn(programme, facts);
  const findings = on.programme.items.flatMap((i) =>
    unmeetable(i, sheet, limits).map((why): ContentFinding => ({
      where: `${programme.key} ${i.id} in ${sheet.code}`,
      code: 'cannot-be-met',
      params: { why },
    })),
  );
  return { items: on.programme.items.length, notAsked: on.notAsked.length, findings };
}

/** Why an item can never be met in this type; empty = it can. A waiver by the manual is a way to meet it. */
function unmeetable(item: ProgrammeItem, sheet: TypeSheet, limits: Readonly<Record<string, number>>): Unmeetable[] {
  const rule = item.evidence;
  const tailwheel = sheet.gear.layout === 'tailwheel';
  const why: Unmeetable[] = [];
  const attitude = 'attitude' in rule ? rule.attitude : null;
  if (attitude !== null && !tailwheel) why.push({ code: 'tailwheel-attitude', params: { attitude } });
  if (attitude === 'mains-first' && sheet.landing.wheelLandings !== 'allowed' && item.waivable === null)
    why.push({ code: 'wheel-landings' });
  const surface = 'surface' in rule ? rule.surface : null;
  if (surface === 'water' && sheet.surface === 'land') why.push({ code: 'water' });
  if (surface === 'land' && sheet.surface === 'sea') why.push({ code: 'land' });
  if (rule.kind === 'gear-checks' && sheet.surface !== 'amphibian') why.push({ code: 'gear-checks' });
  const wind =
    rule.kind === 'count' ? rule.minCrosswindKt : rule.kind === 'run' ? rule.windKt : (item.needsWindKt ?? null);
  const most = Math.min(
    schoolCrosswind(limits, gearMassGroup(sheet))?.kt ?? Infinity,
    sheet.crosswind.limitationKt?.value ?? Infinity,
  );
  if (wind !== null && wind > most) why.push({ code: 'crosswind', params: { askedKt: wind, mostKt: most } });
  if (
    rule.kind === 'observed' &&
    item.forms.includes('asymmetric') &&
    rule.variants.length > 0 &&
    sheet.engine.count < 2
  )
    why.push({ code: 'second-engine' });
  if (item.forms.includes('power-table') && sheet.powerTable.length === 0) why.push({ code: 'power-table' });
  const about = item.about ?? [];
  if (!tailwheel && (about.includes('roll-out') || about.includes('wheel-landing')))
    why.push({ code: 'tailwheel-seen' });
  return why;
}

/**
 * What a pack demands of a type that its sheet leaves open, and a demand no goal of the pack gives.
 * @returns one code a finding; empty = nothing wrong
 */
export function demandFindings(pack: RulePack, sheet: TypeSheet): ContentFinding[] {
  const demands = demandsOf(sheetFacts(sheet), pack.key, sheet.code);
  const kinds = [...(demands.classRatings ?? []), ...demands.endorsements].map(plainKind);
  // What a pilot brings: the single-engine land class is nobody's goal here.
  const brought = new Set(['single-engine-land', 'single-engine-aeroplane']);
  return [
    ...demands.unknown.map((k): ContentFinding => ({
      where: `${pack.key} ${sheet.code}`,
      code: 'unknown-fact',
      params: { fact: k },
    })),
    ...kinds
      .filter((k) => !brought.has(k) && !(k in pack.endorsementGoals))
      .map((k): ContentFinding => ({
        where: `${pack.key} ${sheet.code}`,
        code: 'no-goal',
        params: { kind: k },
      })),
  ];
}

/**
 * Patterns that read a fact nobody has: such a condition never holds, and says so nowhere.
 * @param criteria ids of the standards' criteria
 * @returns one code a finding; empty = nothing wrong
 */
export const patternFindings = (patterns: readonly FindingPattern[], criteria: readonly string[]): ContentFinding[] =>
  patterns.flatMap((p) => {
    const { over, facts } = factsRead(p);
    return facts
      .filter((f) => !isFact(f, over, criteria))
      .map((fact): ContentFinding => ({ where: `findings ${p.id}`, code: 'no-such-fact', params: { fact, over } }));
  });
