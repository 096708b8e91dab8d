import {
  type DebriefLanding,
  type Finding,
  type FindingRecord,
  type GateReading,
  type SelfSaid,
  type SidesSeen,
  type StageMedian,
  findPatterns,
} from '@/core/assess';
import { besideLimit, fixed } from '@/core/format';
import { ktPerUnit } from '@/core/speeds';
import { Exercise } from '@/domain/findings';
import type { PlanBlock } from '@/domain/plan';
import { LIMIT_NAME } from '@/domain/words';
import { newestContent } from '../../rules/content';
import { nowIso } from '../../floor/clock';
import type { CheckoutRecord } from '../../checkout/queries/record';
import { differencesOf } from '../../people/queries/pilot';
import * as ask from '../../floor/statements/debrief';
import { Checkouts, StageMedians } from '../../checkout/tables';
import { Exceedances } from '../../traces/tables';
import { FindingDecisions, LessonPlans, SelfAssessments } from '../tables';
import { Debriefs } from '../tables';

export interface FindingDecision {
  findingId: string;
  decision: 'confirmed' | 'dismissed' | 'own' | 'withdrawn';
  reason: string;
  lesson: number;
  by: string;
  at: string;
  own: { title: string; text: string; next: Exercise } | null;
}
/** A finding with what the instructor made of it. */
export interface DecidedFinding extends Finding {
  decided: FindingDecision | null;
  own: boolean;
}
export interface SelfTold {
  said: SelfSaid;
  toldBy: string;
  toldAt: string;
}
export interface DebriefSaved {
  id: string;
  version: number;
  focus: string[];
  remark: string;
  createdBy: string;
  createdAt: string;
  acknowledgedAt: string | null;
  acknowledgedBy: string | null;
  snapshot: unknown;
}
export interface LessonPlan {
  id: string;
  lesson: number;
  version: number;
  blocks: PlanBlock[];
  focus: string[];
  createdBy: string;
  createdAt: string;
}

/** What was worked out of a record; the record of a checkout stays the same object until something is added to it. */
const workedOut = new WeakMap<
  CheckoutRecord,
  { landings?: DebriefLanding[]; found?: { key: string; findings: Finding[] } }
>();
const remembered = (record: CheckoutRecord) => {
  const known = workedOut.get(record) ?? {};
  workedOut.set(record, known);
  return known;
};

/** Landings of a checkout with their gates: read by eye, or from the recording their measures came from. */
export async function debriefLandings(record: CheckoutRecord): Promise<DebriefLanding[]> {
  const known = remembered(record);
  known.landings ??= await readDebriefLandings(record);
  return known.landings;
}

async function readDebriefLandings(record: CheckoutRecord): Promise<DebriefLanding[]> {
  const traces = [...new Set(record.landings.flatMap((l) => l.measured?.traceId ?? []))];
  const found = traces.length === 0 ? [] : await ask.readDebriefLandings.all({ traces });
  const events = new Map(found.map((f) => [f.id, f.events]));
  const kt = ktPerUnit(record.head.sheet.dial.unit);
  return record.landings.map((l): DebriefLanding => {
    const brief = record.sorties.find((s) => s.id === l.sortieId)?.brief?.snapshot.gates ?? [];
    const briefed = brief.map((g) => ({ name: g.name, target: g.target }));
    const event =
      l.measured &&
      events
        .get(l.measured.traceId)
        ?.find((e) => Math.abs((e.touchdown?.tS ?? e.startS) - (l.measured?.atS ?? -1)) < 0.5);
    const gates = brief.flatMap((g, i): GateReading[] => {
      const traced = event?.gates?.find((x) => x.name === g.name);
      if (traced && (traced.deviationKt !== null || traced.heightFt !== null))
        return [
          {
            gate: g.name,
            offKt: traced.deviationKt,
            highFt: traced.heightFt === null ? null : traced.heightFt - g.heightFt,
            source: 'measured',
          },
        ];
      const speed = i === brief.length - 1 ? l.captured.fenceSpeed : (l.captured.gateSpeeds[g.name] ?? null);
      return speed === null || g.target === null
        ? []
        : [{ gate: g.name, offKt: (speed - g.target) * kt, highFt: null, source: 'eye' }];
    });
    return { ...l, gates, briefed };
  });
}

const sides = (r: { pilots: number; l: number | null; m: number | null; r: number | null } | null): SidesSeen => ({
  pilots: r?.pilots ?? 0,
  left: r?.l ?? 0,
  line: r?.m ?? 0,
  right: r?.r ?? 0,
});
/** Of so many checkouts, the newest, a side is asked. */
const OTHERS = 40;

/**
 * The sides the same instructor saw of other pilots, and everybody of this aeroplane with others. From the aggregates,
 * newest first.
 */
async function otherSides(record: CheckoutRecord): Promise<FindingRecord['others']> {
  const { head } = record;
  const airframe = await Checkouts.first({ where: { id: head.id }, pick: ['airframeId'] });
  return {
    instructor: sides(await ask.sidesByAuthor.one({ value: head.instructorId, pilot: head.pilotId, most: OTHERS })),
    airframe: sides(
      await ask.sidesByAirframe.one({ value: airframe?.airframeId ?? '', pilot: head.pilotId, most: OTHERS }),
    ),
  };
}

async function limitsOf(record: CheckoutRecord): Promise<FindingRecord['limits']> {
  const found = await Exceedances.find({
    pick: ['id', 'traceId', 'channel', 'limitValue', 'unit', 'peak', 'durationS'],
    with: { sortie: { pick: ['lesson', 'flownOn'], where: { checkoutId: record.head.id } } },
    order: ['sortie.lesson', 'startS'],
  });
  const { unit } = record.head.sheet.dial;
  return found.map((e) => {
    const of = {
      id: e.id,
      traceId: e.traceId,
      lesson: e.sortie.lesson,
      date: e.sortie.flownOn,
      channel: e.channel,
    };
    if (e.limitValue === null || e.peak === null || e.durationS === null)
      return { ...of, words: `${LIMIT_NAME[e.channel]}, seen by eye; how far was not measured` };
    const speed = e.unit === 'kt';
    const by = speed ? ktPerUnit(unit) : 1;
    const u = speed ? unit : e.unit;
    const [limit = '', peak = ''] =
      e.unit === 'g' ? [fixed(e.limitValue, 1), fixed(e.peak, 1)] : besideLimit(e.limitValue / by, e.peak / by);
    return {
      ...of,
      words: `${peak} ${u} where ${LIMIT_NAME[e.channel]} is ${limit} ${u}, for ${fixed(e.durationS)} s`,
    };
  });
}

export async function decisionsOf(checkoutId: string): Promise<FindingDecision[]> {
  const found = await FindingDecisions.find({
    where: { checkoutId },
    pick: ['findingId', 'decision', 'reason', 'lesson', 'own', 'decidedAt'],
    with: { decider: ['name'] },
    order: ['seq'],
  });
  return found.map((d) => ({
    findingId: d.findingId,
    decision: d.decision,
    reason: d.reason,
    lesson: d.lesson,
    by: d.decider.name,
    at: d.decidedAt,
    own: d.own,
  }));
}

export interface DebriefFacts {
  landings: DebriefLanding[];
  findings: DecidedFinding[];
  record: FindingRecord;
}

/** Every finding of a checkout with what was decided of it, the instructor's own among them. */
export async function debriefFacts(checkout: CheckoutRecord): Promise<DebriefFacts> {
  const { head } = checkout;
  const landings = await debriefLandings(checkout);
  const rules = await newestContent('findings', 'findings');
  const record: FindingRecord = {
    landings,
    observations: checkout.evidence.observations,
    gearChecks: checkout.gearChecks,
    limits: await limitsOf(checkout),
    lessons: checkout.sorties.map((s) => ({ lesson: s.lesson, date: s.flownOn })),
    standard: checkout.standard,
    ktPerUnit: ktPerUnit(head.sheet.dial.unit),
    context: {
      trackM: head.sheet.gear.trackM.value,
      boxM: checkout.standard.boxM,
      blindNose: head.sheet.attributes.some((a) => a.key === 'over-nose' && a.value === 'blind'),
      reducing: (head.schools['approach-speed'] ?? head.sheet.landing.speedSchool) === 'reducing',
      speedHighKt: checkout.standard.criteria.find((c) => c.id === 'speed')?.measured?.high ?? null,
      speedLowKt: checkout.standard.criteria.find((c) => c.id === 'speed')?.measured?.low ?? null,
      tailwheel: head.sheet.gear.layout === 'tailwheel',
      brakeSteered: head.sheet.gear.freeCaster && head.sheet.gear.steerDeg === null,
    },
    schools: head.schools,
    habits: (await differencesOf(head, nowIso())).rows
      .filter((r) => r.action === 'drop')
      .map((r) => ({ key: r.key, from: r.from, to: r.to })),
    others: await otherSides(checkout),
  };
  const decisions = await decisionsOf(head.id);
  const newest = (id: string) => [...decisions].reverse().find((d) => d.findingId === id) ?? null;
  const known = remembered(checkout);
  const key = JSON.stringify([
    rules?.id,
    record.limits,
    record.habits,
    record.others,
    record.context.reducing,
    head.schools,
  ]);
  if (known.found?.key !== key) known.found = { key, findings: findPatterns(rules?.body.patterns ?? [], record) };
  const found = known.found.findings.map((f): DecidedFinding => ({ ...f, decided: newest(f.id), own: false }));
  const own = [...new Set(decisions.filter((d) => d.decision === 'own').map((d) => d.findingId))].flatMap(
    (id): DecidedFinding[] => {
      const written = decisions.find((d) => d.findingId === id && d.own);
      const last = newest(id);
      if (!written?.own || last?.decision === 'withdrawn') return [];
      return [
        {
          id,
          title: written.own.title,
          positive: false,
          state: 'open',
          weight: 7,
          forPilot: true,
          pilot: written.own.text,
          instructor: written.own.text,
          numbers: [{ label: 'seen by', text: written.by }],
          evidence: [],
          causes: [],
          next: Exercise.parse(written.own.next),
          clean: 0,
          closes: 1,
          sinceLesson: written.lesson,
          decided: last,
          own: true,
        },
      ];
    },
  );
  return { landings, findings: [...own, ...found], record };
}
/** Open, not dismissed: what a debrief speaks of and a lesson is made from. */
export const standing = (findings: readonly DecidedFinding[]): DecidedFinding[] =>
  findings.filter((f) => f.state === 'open' && f.decided?.decision !== 'dismissed');

export async function selfOf(sortieId: string): Promise<SelfTold | null> {
  const s = await SelfAssessments.first({
    where: { sortieId },
    pick: ['said', 'toldAt'],
    with: { teller: ['name'] },
    order: ['-seq'],
  });
  return s ? { said: s.said, toldBy: s.teller.name, toldAt: s.toldAt } : null;
}

const SAVED = {
  pick: ['id', 'version', 'focus', 'remark', 'createdAt', 'acknowledgedAt', 'snapshot'],
  with: { creator: ['name'], acknowledger: ['name'] },
} as const;
const savedOf = (
  d: Omit<DebriefSaved, 'createdBy' | 'acknowledgedBy'> & {
    creator: { name: string };
    acknowledger: { name: string } | null;
  },
): DebriefSaved => ({
  id: d.id,
  version: d.version,
  focus: d.focus,
  remark: d.remark,
  createdBy: d.creator.name,
  createdAt: d.createdAt,
  acknowledgedAt: d.acknowledgedAt,
  acknowledgedBy: d.acknowledger?.name ?? null,
  snapshot: d.snapshot,
});
export async function debriefOf(sortieId: string): Promise<DebriefSaved | null> {
  const d = await Debriefs.first({ where: { sortieId }, order: ['-version'], ...SAVED });
  return d ? savedOf(d) : null;
}
export async function debriefById(id: string): Promise<(DebriefSaved & { pilotId: string }) | null> {
  const d = await Debriefs.first({
    where: { id },
    pick: SAVED.pick,
    with: { ...SAVED.with, sortie: { pick: [], with: { checkout: ['pilotId'] } } },
  });
  return d ? { ...savedOf(d), pilotId: d.sortie.checkout.pilotId } : null;
}

/** The plan of a lesson, the newest; null when none was kept. */
export async function planOf(checkoutId: string, lesson: number): Promise<LessonPlan | null> {
  const p = await LessonPlans.first({
    where: { checkoutId, lesson },
    pick: ['id', 'lesson', 'version', 'plan', 'createdAt'],
    with: { creator: ['name'] },
    order: ['-version'],
  });
  if (!p) return null;
  const plan = p.plan;
  return { id: p.id, lesson: p.lesson, version: p.version, ...plan, createdBy: p.creator.name, createdAt: p.createdAt };
}

/** Medians of the school for a type, stage by stage; only stages of five pilots or more stand there. */
export async function mediansOf(typeCode: string): Promise<StageMedian[]> {
  const found = await StageMedians.find({
    where: { typeCode },
    pick: ['stage', 'pilots', 'own', 'inStandard', 'part'],
    order: ['stage'],
  });
  return found.map((m) => ({ stage: m.stage, pilots: m.pilots, own: m.own, inStandard: m.inStandard, part: m.part }));
}
