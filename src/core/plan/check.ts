/** Content held against itself and against a fleet: items nobody could ever meet, and what an item leaves out. */
import type { PackGoal, Programme, ProgrammeItem, RulePack } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { FACT_WORDS, demandsOf, plainKind } from './goals';
import { gearMassGroup, schoolCrosswind, sheetFacts } from './airframe';
import { offeredFor, programmeOn } from './programmes';

export interface ContentFinding {
  code:
    | 'no-text'
    | 'no-citation'
    | 'no-prerequisite'
    | 'circle'
    | 'legal-and-free'
    | 'no-safety'
    | 'no-goal'
    | 'no-programme'
    | 'unknown-fact'
    | 'cannot-be-met';
  where: string;
  what: string;
}

/** What is wrong with a programme whatever it is flown in: text, citation, prerequisites that are none or in a circle. */
export function programmeFindings(programme: Programme): ContentFinding[] {
  const at = (i: ProgrammeItem) => `${programme.key} ${i.id}`;
  const of = new Map(programme.items.map((i) => [i.id, i]));
  const found: ContentFinding[] = [];
  const add = (code: ContentFinding['code'], where: string, what: string) => found.push({ code, where, what });
  for (const i of programme.items) {
    if (i.text.trim().length < 10) add('no-text', at(i), 'says nothing of what is to be shown');
    if (i.citation.trim() === '') add('no-citation', at(i), 'cites neither the law nor the school');
    for (const p of i.prerequisites.filter((x) => !of.has(x)))
      add('no-prerequisite', at(i), `waits for ${p}, which is not of this programme`);
    // What the law asks is waived only by a reference: a waiver that names none is a way round.
    if (i.legal && i.waivable !== null && !/reference|figure|rating|manual|maker/i.test(i.waivable))
      add('legal-and-free', at(i), 'is the law’s own and waived without a reference');
    if (inCircle(i.id, of)) add('circle', at(i), 'waits for itself');
  }
  if (!programme.items.some((i) => i.safety)) add('no-safety', programme.key, 'names no safety item');
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

/** Every kind a pack can demand has a goal of it, every goal its programme. */
export function packFindings(pack: RulePack, programmes: readonly Pick<Programme, 'key' | 'goal'>[]): ContentFinding[] {
  const goals = new Set(pack.goals.map((g) => g.goal));
  const has = (g: PackGoal['goal']) => programmes.some((p) => p.key === `${g}-${pack.key}` || p.key === `${g}-house`);
  return [
    ...Object.entries(pack.endorsementGoals)
      .filter(([, goal]) => !goals.has(goal as PackGoal['goal']))
      .map(([kind, goal]): ContentFinding => ({
        code: 'no-goal',
        where: `${pack.key} ${kind}`,
        what: `maps to ${goal}, which the pack does not have`,
      })),
    ...pack.goals
      .filter((g) => !has(g.goal))
      .map((g): ContentFinding => ({ code: 'no-programme', where: `${pack.key} ${g.goal}`, what: 'has no programme' })),
    ...pack.goals
      .filter((g) => g.citation.trim() === '' || g.template.trim() === '')
      .map((g): ContentFinding => ({
        code: 'no-citation',
        where: `${pack.key} ${g.goal}`,
        what: 'has no citation or no text to sign',
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
    unmeetable(i, sheet, limits).map((what): ContentFinding => ({
      code: 'cannot-be-met',
      where: `${programme.key} ${i.id} in ${sheet.code}`,
      what,
    })),
  );
  return { items: on.programme.items.length, notAsked: on.notAsked.length, findings };
}

/** Why an item can never be met in this type; empty = it can. A waiver by the manual is a way to meet it. */
function unmeetable(item: ProgrammeItem, sheet: TypeSheet, limits: Readonly<Record<string, number>>): string[] {
  const rule = item.evidence;
  const tailwheel = sheet.gear.layout === 'tailwheel';
  const why: string[] = [];
  const attitude = 'attitude' in rule ? rule.attitude : null;
  if (attitude !== null && !tailwheel) why.push(`asks for a ${attitude} landing of an aeroplane without a tailwheel`);
  if (attitude === 'mains-first' && sheet.landing.wheelLandings !== 'allowed' && item.waivable === null)
    why.push('asks for wheel landings the maker does not allow');
  const surface = 'surface' in rule ? rule.surface : null;
  if (surface === 'water' && sheet.surface === 'land') why.push('asks for water');
  if (surface === 'land' && sheet.surface === 'sea') why.push('asks for land');
  if (rule.kind === 'gear-checks' && sheet.surface !== 'amphibian')
    why.push('asks for wheels to be set against a surface');
  const wind =
    rule.kind === 'count' ? rule.minCrosswindKt : rule.kind === 'run' ? rule.windKt : (item.needsWindKt ?? null);
  const most = Math.min(
    schoolCrosswind(limits, gearMassGroup(sheet))?.kt ?? Infinity,
    sheet.crosswind.limitationKt?.value ?? Infinity,
  );
  if (wind !== null && wind > most) why.push(`asks for ${wind} kt across, where ${most} kt is the most allowed`);
  if (
    rule.kind === 'observed' &&
    item.forms.includes('asymmetric') &&
    rule.variants.length > 0 &&
    sheet.engine.count < 2
  )
    why.push('asks for an engine failure with another engine running');
  if (item.forms.includes('power-table') && sheet.powerTable.length === 0)
    why.push('asks for a power table the sheet has not');
  const about = item.about ?? [];
  if (!tailwheel && (about.includes('roll-out') || about.includes('wheel-landing')))
    why.push('asks for what is seen of a tailwheel');
  return why;
}

/** What a pack demands of a type that its sheet leaves open, and a demand no goal of the pack gives. */
export function demandFindings(pack: RulePack, sheet: TypeSheet): ContentFinding[] {
  const demands = demandsOf(sheetFacts(sheet), pack.key, sheet.code);
  const kinds = [...(demands.classRatings ?? []), ...demands.endorsements].map(plainKind);
  // What a pilot brings: the single-engine land class is nobody's goal here.
  const brought = new Set(['single-engine-land', 'single-engine-aeroplane']);
  return [
    ...demands.unknown.map((k): ContentFinding => ({
      code: 'unknown-fact',
      where: `${pack.key} ${sheet.code}`,
      what: `the sheet does not give ${FACT_WORDS[k] ?? k}`,
    })),
    ...kinds
      .filter((k) => !brought.has(k) && !(k in pack.endorsementGoals))
      .map((k): ContentFinding => ({
        code: 'no-goal',
        where: `${pack.key} ${sheet.code}`,
        what: `demands ${k}, which no goal gives`,
      })),
  ];
}
