import type { EvidenceRule, Programme, ProgrammeItem } from '@/domain/programme';
import type { ItemObserved } from '@/domain/capture';
import type { LandingKind } from '@/domain/words';
import { say } from '@/domain/words';
import { SLACK } from '../constants';
import { list, plural } from '../format';
import type { JudgedLanding } from './captured';
import { type RunCondition, runRule } from './stats';

/** A judged landing with what evidence asks of it. */
export interface RecordedLanding {
  id: string;
  number: number;
  sortieId: string;
  lesson: number;
  date: string;
  firstOfSortie: boolean;
  group: string;
  kind: LandingKind;
  intended: string | null;
  crosswindKt: number | null;
  judged: JudgedLanding;
}
export interface Observation { id: string; date: string; lesson: number; data: ItemObserved; /** An instructor's later word; the verdict that was captured or measured stays. */ overruled?: { reason: string; computed: ItemObserved['verdict'] } | null }
export interface Waiver { itemId: string; reason: string }
/** Everything a checkout has to show, oldest first. */
export interface EvidenceRecord {
  landings: readonly RecordedLanding[];
  observations: readonly Observation[];
  waivers: readonly Waiver[];
  group: string;
}

export interface ItemEvidence {
  item: ProgrammeItem;
  met: boolean;
  waived: string | null;
  /** Share of the way, 0 to 1, for the wheel; never shown as a probability. */
  progress: number;
  have: string;
  missing: string[];
  /** Ids of the landings or observations that support it. */
  evidence: string[];
}

/** Evidence of every item of a programme; prerequisites not met are named as missing. */
export function assessProgramme(programme: Programme, record: EvidenceRecord): ItemEvidence[] {
  const items = programme.items.map((item) => assessItem(item, record));
  const metIds = new Set(items.filter((i) => i.met).map((i) => i.item.id));
  return items.map((entry) => {
    const open = entry.item.prerequisites.filter((id) => !metIds.has(id));
    return open.length === 0 ? entry : { ...entry, missing: [...entry.missing, ...(entry.met ? [] : [`first ${list(open)}`])] };
  });
}

function assessItem(item: ProgrammeItem, record: EvidenceRecord): ItemEvidence {
  const waiver = item.waivable === null ? undefined : record.waivers.find((w) => w.itemId === item.id);
  if (waiver) return { item, met: true, waived: waiver.reason, progress: 1, have: 'waived with reason', missing: [], evidence: [] };
  return { item, waived: null, ...assessRule(item, item.evidence, record) };
}

type RuleOutcome = Pick<ItemEvidence, 'met' | 'progress' | 'have' | 'missing' | 'evidence'>;

function assessRule(item: ProgrammeItem, rule: EvidenceRule, record: EvidenceRecord): RuleOutcome {
  switch (rule.kind) {
    case 'run': return runEvidence(rule, record);
    case 'count': return countEvidence(rule, record);
    case 'go-arounds': return goAroundEvidence(rule, record);
    case 'observed': return observedEvidence(item.id, rule, record);
  }
}

const times = (n: number): string => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`);
const arrivals = (record: EvidenceRecord) => record.landings.filter((l) => l.kind !== 'low-pass');

function runEvidence(rule: Extract<EvidenceRule, { kind: 'run' }>, record: EvidenceRecord): RuleOutcome {
  const landings = arrivals(record);
  const run = runRule({
    landings: landings.map((l) => ({ sortieId: l.sortieId, date: l.date, firstOfSortie: l.firstOfSortie, group: l.group, attitude: l.intended, crosswindKt: l.crosswindKt, landingClass: l.judged.landingClass })),
    needed: rule.needed, group: record.group, attitude: rule.attitude, windKt: rule.windKt, accuracyItem: rule.accuracy, minSorties: rule.minSorties, minDays: rule.minDays,
  });
  const kind = rule.attitude ? `${say(rule.attitude)} ` : '';
  const words: Record<RunCondition, string> = {
    count: `${run.stillNeeded} more ${kind}landings of the pilot\u2019s own in a row`,
    sorties: `spread over at least ${rule.minSorties} flights`,
    days: `on at least ${rule.minDays} days`,
    'first-landing': 'one of them the first landing of a flight',
    wind: `one of them in a crosswind of ${rule.windKt ?? 0} kt or more`,
  };
  return {
    met: run.met,
    progress: run.met ? 1 : Math.min(0.95, run.currentRun / Math.max(1, rule.needed)) * (run.missing.length > 1 ? 0.9 : 1),
    have: `the last ${run.currentRun} ${kind}landings his or her own`,
    missing: run.missing.map((c) => words[c]),
    evidence: run.counted.flatMap((i) => landings[i]?.id ?? []),
  };
}

function countEvidence(rule: Extract<EvidenceRule, { kind: 'count' }>, record: EvidenceRecord): RuleOutcome {
  const windKt = rule.minCrosswindKt;
  const good = arrivals(record).filter((l) =>
    (l.judged.landingClass === 'own' || l.judged.landingClass === 'own-off-target')
    && l.group === record.group
    && (rule.attitude === null || l.intended === rule.attitude)
    && (!rule.fullStop || l.kind === 'full-stop')
    && (windKt === null || (l.crosswindKt !== null && Math.abs(l.crosswindKt) >= windKt - SLACK)));
  const what = `${rule.attitude ? `${say(rule.attitude)} ` : ''}${rule.fullStop ? 'full-stop ' : ''}landing`;
  const where = windKt === null ? '' : ` in ${windKt} kt or more across`;
  const short = rule.needed - good.length;
  return {
    met: short <= 0,
    progress: Math.min(1, good.length / rule.needed),
    have: `${plural(good.length, what)} of the pilot\u2019s own${where}`,
    missing: short > 0 ? [`${short} more ${what}${short === 1 ? '' : 's'} of the pilot\u2019s own${where}`] : [],
    evidence: good.map((l) => l.id),
  };
}

function goAroundEvidence(rule: Extract<EvidenceRule, { kind: 'go-arounds' }>, record: EvidenceRecord): RuleOutcome {
  const flown = record.landings.flatMap((l) => (l.judged.goAround ? [{ id: l.id, g: l.judged.goAround }] : []));
  const sound = flown.filter((f) => f.g.decisionEvidence);
  const good = flown.filter((f) => f.g.executionEvidence);
  const missing: string[] = [];
  if (sound.length < rule.sound) missing.push(`${rule.sound - sound.length} more decided by the pilot, before or at the trigger`);
  if (good.length < rule.good) missing.push(`${rule.good - good.length} more flown well without help`);
  return {
    met: missing.length === 0,
    progress: (Math.min(1, sound.length / Math.max(1, rule.sound)) + Math.min(1, good.length / Math.max(1, rule.good))) / 2,
    have: `${plural(sound.length, 'sound decision')}, ${good.length} flown well`,
    missing,
    evidence: [...new Set([...sound, ...good].map((f) => f.id))],
  };
}

function observedEvidence(itemId: string, rule: Extract<EvidenceRule, { kind: 'observed' }>, record: EvidenceRecord): RuleOutcome {
  const seen = record.observations.filter((o) => o.data.itemId === itemId);
  const good = seen.filter((o) => o.data.verdict !== 'outside' && o.data.intervention <= rule.maxIntervention);
  const latest = seen[seen.length - 1];
  const latestBad = latest !== undefined && latest.data.verdict === 'outside';
  const short = rule.needed - good.length;
  const missing: string[] = [];
  if (short > 0) missing.push(seen.length === 0 ? 'not seen yet' : `${plural(short, 'more time', 'more times')} within the standard, ${rule.maxIntervention === 0 ? 'without help' : 'with a word at most'}`);
  if (latestBad) missing.push('the last time it was outside: see it again');
  return {
    met: missing.length === 0,
    progress: missing.length === 0 ? 1 : Math.min(0.9, Math.max(0, good.length / rule.needed)),
    have: seen.length === 0 ? 'nothing recorded' : `seen ${times(seen.length)}, ${good.length === seen.length ? 'within' : `${good.length} within`}`,
    missing,
    evidence: good.map((o) => o.id),
  };
}
