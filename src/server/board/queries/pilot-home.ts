import { type BriefChange, briefChanges } from '@/core/approach';
import type { Attitude, Goal } from '@/domain/words';
import { nowIso } from '../../floor/clock';
import { openOfPilot } from '../../floor/statements/board';
import { checkoutRecord, type CheckoutRecord } from '../../checkout/queries/record';
import { checkoutHead } from '../../checkout/queries/head';
import { flownLessons } from '../../checkout/queries/stage';
import { aerodromeAt } from '../../rules/content';
import { debriefFacts, debriefOf, selfOf, standing } from '../../debrief/queries/debrief';
import { differencesOf } from '../../people/queries/pilot';
import { Debriefs } from '../../debrief/tables';

/** What a pilot is asked to do, the most pressing first. */
export type PilotTask =
  | { kind: 'brief'; lesson: number; brief: BriefAtAGlance }
  | { kind: 'assess'; lesson: number; landings: number }
  | { kind: 'debrief'; lesson: number };
/** A brief in one sentence, and what is other than last time. */
export interface BriefAtAGlance {
  /** Null on types whose way of landing is not chosen. */
  intended: Attitude | null;
  gust: 'none' | 'half' | 'full';
  /** Over the threshold, in the dial’s unit; null = not computed. */
  threshold: { dial: number; unit: 'kt' | 'mph' } | null;
  place: string | null;
  focus: string;
  changed: { since: number; changes: BriefChange[] } | null;
}
export interface PilotLessons {
  id: string;
  registration: string;
  typeName: string;
  goals: Goal[];
  instructor: string;
  status: string;
  tasks: PilotTask[];
  /** The brief that is read already and not flown yet. */
  ready: { lesson: number; briefId: string } | null;
  focus: string[];
  drop: string[];
  items: { id: string; progress: number; met: boolean }[];
  /** Landings at the end of the record that were flown unassisted and to the standard; of how many flown. */
  run: { own: number; landings: number };
  next: string[];
  work: { id: string; title: string; said: string; exercise: string; how: string; href: string }[];
  good: string[];
  lessons: number;
}
const MOST = 4;

/** What one’s own open checkouts ask for, and how they stand, in words for the pilot. */
export async function pilotLessons(pilotId: string): Promise<PilotLessons[]> {
  const found = await openOfPilot.all({ id: pilotId, most: MOST });
  const all = await Promise.all(
    found.map(async ({ id }) => {
      const head = await checkoutHead(id);
      return head ? ofCheckout(await checkoutRecord(head)) : null;
    }),
  );
  return all.filter((c) => c !== null);
}

async function ofCheckout(record: CheckoutRecord): Promise<PilotLessons> {
  const { head, items } = record;
  const flown = flownLessons(record);
  const facts = await debriefFacts(record);
  const found = standing(facts.findings).filter((f) => f.forPilot);
  const briefed = [...record.sorties].reverse().find((s) => s.brief && !flown.has(s.lesson)) ?? null;
  const last = [...record.sorties].reverse().find((s) => flown.has(s.lesson));
  const held = last ? await debriefOf(last.id) : null;
  const met = new Set(items.filter((i) => i.met).map((i) => i.item.id));
  const arrivals = record.landings.filter(
    (l) => l.kind !== 'go-around' && l.kind !== 'low-pass' && l.judged.landingClass !== 'demonstration',
  );
  const outside = [...arrivals]
    .reverse()
    .findIndex((l) => l.judged.landingClass !== 'own' || (l.stops ?? []).length > 0);
  return {
    id: head.id,
    registration: head.registration,
    typeName: head.typeName,
    goals: head.goals,
    instructor: head.instructorName,
    status: head.status,
    tasks: await tasksOf(record, briefed, last),
    ready:
      briefed?.brief && briefed.brief.acknowledgedAt !== null
        ? { lesson: briefed.lesson, briefId: briefed.brief.id }
        : null,
    focus: held?.focus ?? [],
    drop: (await differencesOf(head, nowIso())).rows
      .filter((r) => r.action === 'drop')
      .slice(0, 3)
      .map((r) => r.name),
    items: items.map((i) => ({ id: i.item.id, progress: i.progress, met: i.met })),
    run: { own: outside === -1 ? arrivals.length : outside, landings: arrivals.length },
    next: items
      .filter((i) => !i.met && i.item.prerequisites.every((p) => met.has(p)))
      .slice(0, 3)
      .map((i) => i.item.title),
    work: found
      .filter((f) => !f.positive)
      .slice(0, 3)
      .map((f) => ({
        id: f.id,
        title: f.title,
        said: f.pilot,
        exercise: f.next.title,
        how: f.next.text,
        href: `/checkouts/${head.id}/debrief#findings`,
      })),
    good: found.filter((f) => f.positive).map((f) => f.title),
    lessons: flown.size,
  };
}

type Sortie = CheckoutRecord['sorties'][number];
async function tasksOf(record: CheckoutRecord, briefed: Sortie | null, last: Sortie | undefined): Promise<PilotTask[]> {
  if (record.head.status !== 'open') return [];
  const tasks: PilotTask[] = [];
  if (briefed?.brief && briefed.brief.acknowledgedAt === null)
    tasks.push({ kind: 'brief', lesson: briefed.lesson, brief: await glance(record, briefed) });
  const touched = record.landings.filter(
    (l) =>
      l.lesson === last?.lesson &&
      l.kind !== 'go-around' &&
      l.kind !== 'low-pass' &&
      l.judged.landingClass !== 'demonstration',
  );
  // First one’s own word, then the record: a debrief is not asked for before it.
  if (last && touched.length > 0 && !(await selfOf(last.id)))
    tasks.push({ kind: 'assess', lesson: last.lesson, landings: touched.length });
  for (const s of record.sorties) {
    const d = await Debriefs.first({
      where: { sortieId: s.id },
      pick: ['acknowledgedAt'],
      order: ['-version'],
    });
    if (d && d.acknowledgedAt === null && !tasks.some((t) => t.kind === 'assess' && t.lesson === s.lesson))
      tasks.push({ kind: 'debrief', lesson: s.lesson });
  }
  return tasks;
}

async function glance(record: CheckoutRecord, sortie: Sortie): Promise<BriefAtAGlance> {
  const { brief } = sortie;
  if (!brief) throw new Error('a glance needs a brief');
  const tailwheel = record.head.sheet.gear.layout === 'tailwheel';
  const before = [...record.sorties].reverse().find((s) => s.brief && s.lesson < sortie.lesson);
  const threshold = brief.snapshot.gates.at(-1)?.target ?? null;
  return {
    intended: tailwheel ? brief.choices.intended : null,
    gust: brief.choices.gustSchool,
    threshold: threshold === null ? null : { dial: threshold, unit: brief.snapshot.unit },
    place: sortie.aerodrome === null ? null : (await aerodromeAt(sortie.aerodrome)).name,
    focus: brief.choices.focus,
    changed: before?.brief ? { since: before.lesson, changes: briefChanges(before.brief, brief, tailwheel) } : null,
  };
}
