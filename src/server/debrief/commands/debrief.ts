import {
  bestAndWorst,
  compareSelf,
  landingWords,
  lessonHeadline,
  lessonSummaries,
  mayOverrule,
  sinceLastTime,
  tableRows,
  WORK_ON,
} from '@/core/assess';
import { flightMinutes, flightRoom, groundMinutes } from '@/core/plan';
import { CRITERION_VERDICTS, LANDING_CLASSES } from '@/domain/assess-words';
import { OverruleForm } from '@/domain/forms';
import { PlanBlock } from '@/domain/plan';
import { INTERVENTIONS, say } from '@/domain/words';
import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { z } from 'zod';
import { DebriefForm, DecideForm } from '@/domain/debrief-forms';
import { checkoutHead } from '../../checkout/queries/head';
import { checkoutRecord } from '../../checkout/queries/record';
import { Sorties } from '../../checkout/tables';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { problem, type Result, zodProblems } from '../../floor/result';
import * as ask from '../../floor/statements/debrief';
import { write } from '../../floor/write';
import { projectSortie } from '../../fly/commands/capture';
import { SIGNED } from '../../fly/commands/event-door';
import { addOfficeEvent } from '../../fly/commands/office';
import { CaptureEvents, Landings } from '../../fly/tables';
import { newestContent } from '../../rules/content';
import { debriefFacts, selfOf, standing } from '../queries/debrief';
import { planFacts } from '../queries/plan';
import { told } from '../sentences';
import { Debriefs, FindingDecisions, LessonPlans, SelfAssessments } from '../tables';

const ownerOf = (sortieId: string, t?: Transaction) =>
  Sorties.first(
    {
      where: { id: sortieId },
      pick: ['checkoutId', 'lesson', 'sharedWith'],
      with: { checkout: ['pilotId', 'status'] },
    },
    t,
  );
const NONE = told('not-found');

/**
 * An instructor says otherwise of one criterion, a whole landing or an item. What was computed stays beside it; `to`
 * null takes the word back.
 */
export async function overrule(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = OverruleForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { sortieId, subjectId, what, to, reason } = parsed.data;
  const allowed: readonly string[] =
    what === 'class'
      ? LANDING_CLASSES.filter((c) => c !== 'demonstration')
      : what === 'item'
        ? ['within', 'edge', 'outside']
        : CRITERION_VERDICTS;
  if (to !== null && !allowed.includes(to)) return problem('to', told('choose-verdict'));
  return write(async (t): Promise<Result<object>> => {
    const s = await ownerOf(sortieId, t);
    if (!s || !may.runCheckout(user, { pilotId: s.checkout.pilotId })) return problem('', NONE);
    if (s.checkout.status !== 'open') return problem('', SIGNED);
    const flight = s.sharedWith ?? sortieId;
    const known: { kind?: string; level?: number | null; shown?: boolean } | null =
      what === 'item'
        ? (await CaptureEvents.exists({ sortieId: flight, subjectId, type: 'item-observed' }, t))
          ? {}
          : null
        : await Landings.first({ where: { id: subjectId, sortieId }, pick: ['kind', 'level', 'shown'] }, t);
    if (!known) return problem('', told('landing-gone'));
    if (known.kind === 'go-around' || known.kind === 'low-pass') return problem('', told('go-around-decision'));
    if (
      what === 'class' &&
      to !== null &&
      !mayOverrule(to, { demonstration: known.shown === true, intervention: known.level ?? null })
    )
      return problem('to', known.shown ? told('your-demonstration') : told('not-the-pilots'));
    const added = await addOfficeEvent(user, flight, subjectId, 'overruled', { what, to, reason }, t);
    if (!added.ok) return added;
    await projectSortie(flight, t);
    return { ok: true };
  });
}

/**
 * Confirms or dismisses a finding, or adds the instructor's own. The newest word stands; a dismissed one is not spoken
 * of again until it is taken back.
 */
export async function decideFinding(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = DecideForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const d = parsed.data;
  if (d.decision === 'dismissed' && d.reason.length < 8) return problem('reason', told('why-dismissed'));
  if (d.decision === 'own' && !d.own) return problem('own.title', told('own-finding'));
  return write(async (t): Promise<Result<object>> => {
    const head = await checkoutHead(d.checkoutId, t);
    if (!head || !may.runCheckout(user, head)) return problem('', told('not-found'));
    if (head.status !== 'open') return problem('', SIGNED);
    const patterns = (await newestContent('findings', 'findings', t))?.body.patterns ?? [];
    const theirs = await FindingDecisions.first(
      { where: { checkoutId: head.id, findingId: d.findingId, decision: 'own' }, pick: ['id'] },
      t,
    );
    if (d.decision !== 'own' && !theirs && !patterns.some((p) => p.id === d.findingId))
      return problem('', told('finding-gone'));
    const last = await ask.decideFinding.one({ id: head.id }, t);
    const findingId =
      d.decision === 'own' && !d.findingId.startsWith('own-') ? `own-${randomUUID().slice(0, 12)}` : d.findingId;
    await FindingDecisions.insert(
      {
        id: randomUUID(),
        checkoutId: head.id,
        findingId: findingId,
        decision: d.decision,
        reason: d.reason,
        lesson: d.lesson,
        own: d.own && d.decision === 'own' ? d.own : null,
        decidedBy: user.id,
        decidedAt: nowIso(),
        seq: (last?.n ?? 0) + 1,
      },
      t,
    );
    return { ok: true };
  });
}

export const SelfForm = z.object({
  sortieId: z.string().min(1),
  own: z.number().int().min(0).max(99),
  bestNumber: z.number().int().min(1).max(99).nullable(),
  workOn: z.enum(WORK_ON),
});

/** The pilot's three taps, before what was recorded is shown. Once said it stays; saying it again adds to it. */
export async function assessSelf(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = SelfForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { sortieId, ...said } = parsed.data;
  return write(async (t): Promise<Result<object>> => {
    const s = await ownerOf(sortieId, t);
    if (!s || !may.assessSelf(user, { pilotId: s.checkout.pilotId })) return problem('', NONE);
    const last = await ask.assessSelf.one({ sortieId }, t);
    await SelfAssessments.insert(
      {
        id: randomUUID(),
        sortieId: sortieId,
        said: said,
        toldBy: user.id,
        toldAt: nowIso(),
        seq: (last?.n ?? 0) + 1,
      },
      t,
    );
    return { ok: true };
  });
}

/** What a debrief says, frozen: it is this that is printed and that the pilot acknowledges. */
export async function debriefSnapshot(checkoutId: string, sortieId: string) {
  const head = await checkoutHead(checkoutId);
  if (!head) throw new Error(`no checkout ${checkoutId}`);
  const record = await checkoutRecord(head);
  const facts = await debriefFacts(record);
  const sortie = record.sorties.find((s) => s.id === sortieId);
  const lesson = sortie?.lesson ?? 0;
  const landings = facts.landings.filter((l) => l.sortieId === sortieId);
  const seen = record.evidence.observations.filter((o) => o.lesson === lesson);
  const titles = new Map(record.programmes.flatMap((p) => p.items).map((i) => [i.id, i.title]));
  const summary = lessonSummaries(landings, seen.length > 0 ? [{ lesson, date: sortie?.flownOn ?? '' }] : [])[0];
  const { best, worst } = bestAndWorst(landings);
  const self = await selfOf(sortieId);
  const rows = tableRows(landings, { trackM: head.sheet.gear.trackM.value, boxM: record.standard.boxM });
  return {
    schema: 'debrief/1' as const,
    pilot: head.pilotName,
    registration: sortie?.registration ?? head.registration,
    type: head.typeName,
    instructor: head.instructorName,
    lesson,
    flownOn: sortie?.flownOn ?? '',
    standard: record.standard.name,
    headline: summary ? lessonHeadline(summary) : `Lesson ${lesson}: no landing`,
    best: best && { number: best.number, reason: landingWords(best.judged.reason) },
    worst: worst && { number: worst.number, reason: landingWords(worst.judged.reason) },
    self: self && compareSelf(self.said, landings),
    changed: sinceLastTime(facts.landings, lesson),
    findings: standing(facts.findings)
      .filter((f) => f.forPilot)
      .slice(0, 6)
      .map((f) => ({
        id: f.id,
        title: f.title,
        positive: f.positive,
        text: f.pilot,
        numbers: f.numbers,
        next: f.positive ? null : { title: f.next.title, text: f.next.text, minutes: f.next.minutes },
      })),
    // Snapshots of before hold landings only.
    airwork: seen.map((o) => ({
      item: titles.has(o.data.itemId) ? o.data.itemId : '',
      title: titles.get(o.data.itemId) ?? say(o.data.itemId.split(':')[1] ?? o.data.itemId),
      verdict:
        (o.unseen?.length ?? 0) > 0 && !o.overruled && o.data.verdict !== 'outside' ? 'not-judged' : o.data.verdict,
      whose: INTERVENTIONS[o.data.intervention]?.word ?? '',
    })),
    landings: rows.map(
      ({ number, kind, meant, class: landingClass, computed, whose, alongM, lateralM, along, across, outside }) => ({
        number,
        kind,
        meant,
        class: landingClass,
        computed,
        whose,
        alongM,
        lateralM,
        along,
        across,
        outside,
      }),
    ),
  };
}
export type DebriefSnapshot = Awaited<ReturnType<typeof debriefSnapshot>>;

/** Keeps the debrief of a lesson with its focus. A later one is a new version; what was acknowledged stays. */
export async function saveDebrief(user: CurrentUser, form: unknown): Promise<Result<{ debriefId: string }>> {
  const parsed = DebriefForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { requestId, sortieId, focus, remark } = parsed.data;
  const s = await ownerOf(sortieId);
  if (!s || !may.runCheckout(user, { pilotId: s.checkout.pilotId })) return problem('', NONE);
  const snapshot = await debriefSnapshot(s.checkoutId, sortieId);
  if (snapshot.landings.length === 0 && snapshot.airwork.length === 0) return problem('', told('nothing-to-debrief'));
  return write(async (t): Promise<Result<{ debriefId: string }>> => {
    const done = await Debriefs.first({ where: { requestId }, pick: ['id'] }, t);
    if (done) return { ok: true, debriefId: done.id };
    const last = await ask.saveDebrief.one({ sortieId }, t);
    const id = randomUUID();
    await Debriefs.insert(
      {
        id,
        sortieId: sortieId,
        version: (last?.n ?? 0) + 1,
        focus: focus,
        remark,
        snapshot: snapshot,
        requestId: requestId,
        createdBy: user.id,
        createdAt: nowIso(),
        acknowledgedBy: null,
        acknowledgedAt: null,
      },
      t,
    );
    return { ok: true, debriefId: id };
  });
}

/** The pilot says: read and talked through. Twice is once. */
export async function acknowledgeDebrief(user: CurrentUser, debriefId: string): Promise<Result<object>> {
  return write(async (t): Promise<Result<object>> => {
    const d = await Debriefs.first(
      {
        where: { id: debriefId },
        pick: ['acknowledgedAt'],
        with: { sortie: { pick: [], with: { checkout: ['pilotId'] } } },
      },
      t,
    );
    if (!d || !may.acknowledgeDebrief(user, { pilotId: d.sortie.checkout.pilotId }))
      return problem('', told('not-found'));
    if (!d.acknowledgedAt)
      await Debriefs.update({ acknowledgedBy: user.id, acknowledgedAt: nowIso() }, { id: debriefId }, t);
    return { ok: true };
  });
}

export const PlanForm = z.object({
  requestId: z.uuid(),
  checkoutId: z.string().min(1),
  lesson: z.number().int().min(1),
  blocks: z.array(PlanBlock).min(1, 'A plan has at least one step.').max(30, 'Thirty steps at most.'),
  focus: z.array(z.string().trim().min(3).max(120)).max(2, 'Two things at most.'),
  bookingMin: z.number().min(10, 'At least 10 min.').max(720, 'At most 720 min.'),
});

/** Keeps the plan of the next lesson; its brief takes it over. More minutes than there are is said, and not kept. */
export async function savePlan(user: CurrentUser, form: unknown): Promise<Result<{ planId: string; version: number }>> {
  const parsed = PlanForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { requestId, checkoutId, lesson, blocks, focus, bookingMin } = parsed.data;
  const ids = new Set(blocks.map((b) => b.id));
  if (ids.size !== blocks.length) return problem('blocks', told('step-twice'));
  const planned = await checkoutHead(checkoutId);
  if (!planned || !may.runCheckout(user, planned)) return problem('', told('not-found'));
  // Time and fuel are reckoned here once more: what a page sends is not taken for them.
  const record = await checkoutRecord(planned);
  const reckoned = await planFacts(record, await debriefFacts(record));
  const { roomMin, limitedBy } = flightRoom(
    { bookingMin, fuelMin: reckoned.fuelMin, groundMin: reckoned.input.groundMin },
    groundMinutes(blocks),
  );
  if (flightMinutes(blocks) > roomMin)
    return problem('blocks', told('does-not-fit', { minutes: flightMinutes(blocks), roomMin, limitedBy }));
  return write(async (t): Promise<Result<{ planId: string; version: number }>> => {
    const head = await checkoutHead(checkoutId, t);
    if (!head || !may.runCheckout(user, head)) return problem('', told('not-found'));
    if (head.status !== 'open') return problem('', SIGNED);
    const done = await LessonPlans.first({ where: { requestId }, pick: ['id', 'version'] }, t);
    if (done) return { ok: true, planId: done.id, version: done.version };
    const last = await ask.savePlan.one({ checkoutId, lesson }, t);
    const id = randomUUID();
    const version = (last?.n ?? 0) + 1;
    await LessonPlans.insert(
      {
        id,
        checkoutId: checkoutId,
        lesson,
        version,
        plan: { blocks, focus, bookingMin },
        requestId: requestId,
        createdBy: user.id,
        createdAt: nowIso(),
      },
      t,
    );
    return { ok: true, planId: id, version };
  });
}
