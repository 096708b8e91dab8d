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
import { LIMIT_NAME, type LimitChannel } from '@/domain/words';
import { newestContent } from '../../rules/content';
import { row, rows } from '../../floor/connection';
import { nowIso } from '../../floor/clock';
import type { CheckoutRecord } from '../../checkout/queries/record';
import { differencesOf } from '../../people/queries/pilot';

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

interface TraceEventRow {
  id: string;
  events: string;
}
interface FoundEvent {
  touchdown?: { tS: number };
  startS: number;
  gates?: { name: string; heightFt: number | null; deviationKt: number | null }[];
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
  const found =
    traces.length === 0
      ? []
      : await rows<TraceEventRow>(
          "SELECT id, json_extract(analysis, '$.events') AS events FROM traces WHERE id IN (:traces)",
          { traces },
        );
  const events = new Map(found.map((f) => [f.id, JSON.parse(f.events) as FoundEvent[]]));
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
  const of = async (column: 'author' | 'airframe_id', value: string) =>
    sides(
      await row(
        `SELECT COUNT(DISTINCT pilot_id) AS pilots, SUM(left_n) AS l, SUM(line_n) AS m, SUM(right_n) AS r FROM (SELECT pilot_id, left_n, line_n, right_n FROM side_tallies WHERE ${column} = :value AND pilot_id <> :pilot ORDER BY newest DESC LIMIT ${OTHERS})`,
        { value, pilot: head.pilotId },
      ),
    );
  const airframe = await row<{ airframe_id: string }>('SELECT airframe_id FROM checkouts WHERE id = :id', {
    id: head.id,
  });
  return {
    instructor: await of('author', head.instructorId),
    airframe: await of('airframe_id', airframe?.airframe_id ?? ''),
  };
}

async function limitsOf(record: CheckoutRecord): Promise<FindingRecord['limits']> {
  const found = await rows<{
    id: string;
    trace_id: string;
    channel: LimitChannel;
    limit_value: number;
    unit: string;
    peak: number;
    duration_s: number;
    lesson: number;
    flown_on: string;
  }>(
    'SELECT e.id, e.trace_id, e.channel, e.limit_value, e.unit, e.peak, e.duration_s, s.lesson, s.flown_on FROM exceedances e JOIN sorties s ON s.id = e.sortie_id WHERE s.checkout_id = :id ORDER BY s.lesson, e.start_s',
    { id: record.head.id },
  );
  const { unit } = record.head.sheet.dial;
  return found.map((e) => {
    const speed = e.unit === 'kt';
    const by = speed ? ktPerUnit(unit) : 1;
    const u = speed ? unit : e.unit;
    const [limit = '', peak = ''] =
      e.unit === 'g' ? [fixed(e.limit_value, 1), fixed(e.peak, 1)] : besideLimit(e.limit_value / by, e.peak / by);
    return {
      id: e.id,
      traceId: e.trace_id,
      lesson: e.lesson,
      date: e.flown_on,
      channel: e.channel,
      words: `${peak} ${u} where ${LIMIT_NAME[e.channel]} is ${limit} ${u}, for ${fixed(e.duration_s)} s`,
    };
  });
}

export async function decisionsOf(checkoutId: string): Promise<FindingDecision[]> {
  const found = await rows<{
    finding_id: string;
    decision: FindingDecision['decision'];
    reason: string;
    lesson: number;
    own: string | null;
    name: string;
    decided_at: string;
  }>(
    'SELECT d.finding_id, d.decision, d.reason, d.lesson, d.own, d.decided_at, u.name FROM finding_decisions d JOIN users u ON u.id = d.decided_by WHERE d.checkout_id = :checkoutId ORDER BY d.seq',
    { checkoutId },
  );
  return found.map((d) => ({
    findingId: d.finding_id,
    decision: d.decision,
    reason: d.reason,
    lesson: d.lesson,
    by: d.name,
    at: d.decided_at,
    own: d.own === null ? null : (JSON.parse(d.own) as FindingDecision['own']),
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
  const s = await row<{ said: string; name: string; told_at: string }>(
    'SELECT a.said, a.told_at, u.name FROM self_assessments a JOIN users u ON u.id = a.told_by WHERE a.sortie_id = :sortieId ORDER BY a.seq DESC LIMIT 1',
    { sortieId },
  );
  return s ? { said: JSON.parse(s.said) as SelfSaid, toldBy: s.name, toldAt: s.told_at } : null;
}

interface DebriefRow {
  id: string;
  version: number;
  focus: string;
  remark: string;
  created_by_name: string;
  created_at: string;
  acknowledged_at: string | null;
  acknowledged_name: string | null;
  snapshot: string;
}
const savedOf = (d: DebriefRow): DebriefSaved => ({
  id: d.id,
  version: d.version,
  focus: JSON.parse(d.focus) as string[],
  remark: d.remark,
  createdBy: d.created_by_name,
  createdAt: d.created_at,
  acknowledgedAt: d.acknowledged_at,
  acknowledgedBy: d.acknowledged_name,
  snapshot: JSON.parse(d.snapshot) as unknown,
});
const DEBRIEF =
  'SELECT d.*, u.name AS created_by_name, a.name AS acknowledged_name FROM debriefs d JOIN users u ON u.id = d.created_by LEFT JOIN users a ON a.id = d.acknowledged_by';
export async function debriefOf(sortieId: string): Promise<DebriefSaved | null> {
  const d = await row<DebriefRow>(`${DEBRIEF} WHERE d.sortie_id = :sortieId ORDER BY d.version DESC LIMIT 1`, {
    sortieId,
  });
  return d ? savedOf(d) : null;
}
export async function debriefById(id: string): Promise<(DebriefSaved & { pilotId: string }) | null> {
  const d = await row<DebriefRow & { pilot_id: string }>(
    `${DEBRIEF.replace('SELECT d.*,', 'SELECT d.*, c.pilot_id,')} JOIN sorties s ON s.id = d.sortie_id JOIN checkouts c ON c.id = s.checkout_id WHERE d.id = :id`,
    { id },
  );
  return d ? { ...savedOf(d), pilotId: d.pilot_id } : null;
}

/** The plan of a lesson, the newest; null when none was kept. */
export async function planOf(checkoutId: string, lesson: number): Promise<LessonPlan | null> {
  const p = await row<{ id: string; lesson: number; version: number; plan: string; name: string; created_at: string }>(
    'SELECT p.id, p.lesson, p.version, p.plan, p.created_at, u.name FROM lesson_plans p JOIN users u ON u.id = p.created_by WHERE p.checkout_id = :checkoutId AND p.lesson = :lesson ORDER BY p.version DESC LIMIT 1',
    { checkoutId, lesson },
  );
  if (!p) return null;
  const plan = JSON.parse(p.plan) as { blocks: PlanBlock[]; focus: string[] };
  return { id: p.id, lesson: p.lesson, version: p.version, ...plan, createdBy: p.name, createdAt: p.created_at };
}

/** Medians of the school for a type, stage by stage; only stages of five pilots or more stand there. */
export async function mediansOf(typeCode: string): Promise<StageMedian[]> {
  const found = await rows<{ stage: number; pilots: number; own: number; in_standard: number; part: number | null }>(
    'SELECT stage, pilots, own, in_standard, part FROM stage_medians WHERE type_code = :typeCode ORDER BY stage',
    { typeCode },
  );
  return found.map((m) => ({ stage: m.stage, pilots: m.pilots, own: m.own, inStandard: m.in_standard, part: m.part }));
}
