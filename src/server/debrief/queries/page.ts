import {
  type DebriefLanding,
  bestAndWorst,
  detailNoted,
  detailReasons,
  judgeDetail,
  landingNoted,
  recentShare,
  sinceLastTime,
} from '@/core/assess';
import { withUnit } from '@/core/format';
import type { LabOffer } from '@/core/plan';
import { ktPerUnit } from '@/core/speeds';
import { type CaptureForm, FORM_NAME } from '@/domain/airwork';
import type { AirworkDetail } from '@/domain/capture';
import { INTERVENTIONS, say } from '@/domain/words';
import { changesOf } from '../../checkout/queries/changes';
import { linesOf } from '../../checkout/queries/logbook-lines';
import type { CheckoutRecord } from '../../checkout/queries/record';
import { stopsShown } from '../../checkout/queries/stop-shown';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { aerodromeAt } from '../../rules/content';
import { type DecidedFinding, debriefFacts, debriefOf, selfOf, standing } from './debrief';
import { labOffer } from './lab';

/** What was flown in a lesson, and what the pilot said of it: enough to ask the pilot first. */
export async function lessonShown(record: CheckoutRecord, lesson: number) {
  const facts = await debriefFacts(record);
  const stopsAt = new Map(record.evidence.landings.map((l) => [l.id, l.stops]));
  const shown = facts.landings
    .filter((l) => l.lesson === lesson)
    .map((l) => ({ ...l, stops: stopsAt.get(l.id) ?? [] }));
  const sortie = record.sorties.find((x) => x.lesson === lesson);
  return {
    lesson,
    facts,
    shown,
    touched: shown.filter(
      (l) => l.kind !== 'go-around' && l.kind !== 'low-pass' && l.judged.landingClass !== 'demonstration',
    ),
    sortie,
    self: sortie ? await selfOf(sortie.id) : null,
  };
}
export type LessonShown = Awaited<ReturnType<typeof lessonShown>>;

/** Somebody who may say how a lesson went has not, while the checkout is open. */
export const assessmentOpen = (user: CurrentUser, { head }: CheckoutRecord, { sortie, self }: LessonShown): boolean =>
  sortie !== undefined && !self && head.status === 'open' && may.assessSelf(user, head);

/** The pilot who looks has landings to assess first: what was judged is told after their own assessment. */
export const assessesFirst = (user: CurrentUser, record: CheckoutRecord, lesson: LessonShown): boolean =>
  may.acknowledgeDebrief(user, record.head) && lesson.touched.length > 0 && assessmentOpen(user, record, lesson);

/** Findings this reader is told: who runs the checkout reads all of them. */
export const findingsShown = (findings: readonly DecidedFinding[], runs: boolean): DecidedFinding[] =>
  findings.filter((f) => runs || (f.forPilot && f.decided?.decision !== 'dismissed'));

/**
 * Everything else the debrief of a lesson shows, as its panels take it.
 * @param runs this user runs the checkout: findings that are not the pilot's to read stand too
 * @param traceId the recording the landings are replayed from
 */
export async function debriefPage(
  record: CheckoutRecord,
  at: LessonShown,
  { runs, traceId }: { runs: boolean; traceId: string | null },
) {
  const { shown, sortie, facts, lesson } = at;
  const stops = stopsShown(record, lesson);
  const past = new Set(stops.map((s) => s.subjectId));
  const end = sortie?.brief?.choices.runwayEnd ?? shown[0]?.captured.runwayEnd;
  return {
    stops,
    past,
    runway: (await aerodromeAt(sortie?.aerodrome)).runways.find((r) => r.ends.some((e) => e.ident === end)),
    best: bestAndWorst(shown.filter((l) => l.stops.length === 0)).best,
    worst: bestAndWorst(shown).worst,
    held: sortie ? await debriefOf(sortie.id) : null,
    changes: await changesOf(record, lesson),
    logbook: (await linesOf(record)).find((l) => l.lesson === lesson),
    powers: record.powers.filter((p) => p.sortieId === sortie?.id),
    trials: record.trials.filter((t) => t.sortieId === sortie?.id),
    recent: recentShare(record.landings),
    open: record.items.filter((i) => !i.met),
    changed: sinceLastTime(facts.landings, lesson),
    findings: findingsShown(facts.findings, runs).map((f) => ({
      ...f,
      decided: decisionShown(f),
      lab: labLink(record, labOffer(record, facts.landings, f)),
    })),
    suggested: standing(facts.findings)
      .filter((f) => !f.positive && f.forPilot)
      .slice(0, 2)
      .map((f) => f.next.title),
    links: linksOf(record, at),
    landings: shown.map((l) => landingLine(record, at, l, past.has(l.id), traceId)),
    airwork: airworkLines(record, at),
  };
}

const decisionShown = ({ decided }: DecidedFinding) =>
  decided && { decision: decided.decision, reason: decided.reason, by: decided.by, at: decided.at };

const titlesOf = (record: CheckoutRecord): ReadonlyMap<string, string> =>
  new Map(record.programmes.flatMap((p) => p.items).map((i) => [i.id, i.title]));

/** What an item beside the programme is called: its list, or its form. */
const formOrList = (id: string, d: AirworkDetail | null): string =>
  d && (d.form === 'steps' || d.form === 'exchange') ? d.list : (FORM_NAME[id.split(':')[1] as CaptureForm] ?? id);

const labLink = ({ head }: CheckoutRecord, lab: LabOffer | null): { href: string; words: string | null } | null =>
  lab && { href: `/lab/${lab.page}?checkout=${head.id}&${lab.query}`, words: lab.set };

/** Where each piece of evidence of a finding is looked at. */
function linksOf(record: CheckoutRecord, { facts, lesson }: LessonShown) {
  const page = `/checkouts/${record.head.id}/debrief`;
  const titles = titlesOf(record);
  return [
    ...facts.landings.map((l) => ({
      id: l.id,
      label: l.lesson === lesson ? `landing ${l.number}` : `lesson ${l.lesson}, landing ${l.number}`,
      href: `${l.lesson === lesson ? '' : `${page}?lesson=${l.lesson}`}#landing-${l.number}`,
    })),
    ...record.evidence.observations.map((o) => ({
      id: o.id,
      label: `lesson ${o.lesson}, ${titles.has(o.data.itemId) ? o.data.itemId : formOrList(o.data.itemId, o.data.detail)}`,
      href: `${page}?lesson=${o.lesson}#airwork`,
    })),
    ...facts.record.limits.map((l) => ({
      id: l.id,
      label: `lesson ${l.lesson}, ${l.traceId ? 'the recording' : 'seen by eye'}`,
      href: l.traceId ? `/traces/${l.traceId}` : '/board#limits',
    })),
  ];
}

/** A landing as the table of a lesson shows it, with what stands beside its criteria. */
function landingLine(
  record: CheckoutRecord,
  { sortie }: LessonShown,
  l: DebriefLanding,
  stopped: boolean,
  traceId: string | null,
) {
  const saved = record.landings.find((r) => r.id === l.id);
  const values = l.measured?.values;
  return {
    id: l.id,
    sortieId: l.sortieId,
    number: l.number,
    kind: l.kind,
    intended: l.intended,
    crosswindKt: l.crosswindKt,
    windAgeMin: saved?.windAgeMin ?? null,
    intervention: l.captured.intervention,
    memoryS:
      l.captured.endedAt && saved
        ? Math.max(0, (Date.parse(saved.savedAt) - Date.parse(l.captured.endedAt)) / 1000)
        : null,
    judged: l.judged,
    stopped,
    replay: traceId === null ? null : `/traces/${traceId}?landing=${l.number}`,
    noted: [
      ...landingNoted(l.captured, sortie?.brief?.snapshot.gates ?? [], record.head.sheet.dial.unit),
      ...(values
        ? [
            `measured from the recording: ${Object.keys(values)
              .map((k) => (k === 'peakG' ? `greatest load ${withUnit(values.peakG ?? 0, 'g', 1)}` : say(k)))
              .join(', ')}`,
          ]
        : []),
    ],
  };
}

/** Ground and airwork of a lesson, each judged by the standard the checkout runs under. */
function airworkLines(record: CheckoutRecord, { sortie, lesson }: LessonShown) {
  const { unit } = record.head.sheet.dial;
  const titles = titlesOf(record);
  return record.evidence.observations
    .filter((o) => o.lesson === lesson)
    .map((o) => ({
      id: o.id,
      sortieId: sortie?.id ?? '',
      code: titles.has(o.data.itemId) ? o.data.itemId : null,
      name: titles.get(o.data.itemId) ?? formOrList(o.data.itemId, o.data.detail),
      verdict: o.data.verdict,
      was: o.overruled ? { verdict: o.overruled.computed, reason: o.overruled.reason } : null,
      whose: INTERVENTIONS[o.data.intervention]?.word ?? '',
      noted: detailNoted(o.data.detail, unit),
      note: o.data.note,
      reasons: o.data.detail ? detailReasons(judgeDetail(o.data.detail, record.standard, ktPerUnit(unit))) : [],
      notJudged: (o.unseen?.length ?? 0) > 0 && !o.overruled && o.data.verdict !== 'outside',
    }));
}
