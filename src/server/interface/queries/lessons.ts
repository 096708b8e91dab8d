import type { z } from 'zod';
import { itemEvidenceWords, landingWords } from '@/core/assess';
import type { CheckoutStatus } from '@/domain/words';
import { checkoutHead } from '../../checkout/queries/head';
import { checkoutList } from '../../checkout/queries/lists';
import { type CheckoutRecord, checkoutRecord } from '../../checkout/queries/record';
import { stageOf } from '../../checkout/queries/stage';
import { Sorties } from '../../checkout/tables';
import { debriefFacts, debriefOf } from '../../debrief/queries/debrief';
import { type LessonShown, assessesFirst, findingsShown, lessonShown } from '../../debrief/queries/page';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import type { PageQuery } from '../paths';
import type { CheckoutAnswer, CheckoutList, DebriefAnswer } from '../shapes';

/** Checkouts this user may see, newest work first. */
export async function checkoutsRead(
  user: CurrentUser,
  page: PageQuery & { status?: CheckoutStatus | undefined },
): Promise<z.output<typeof CheckoutList>> {
  const all = (await checkoutList(user)).filter((c) => page.status === undefined || c.status === page.status);
  return {
    total: all.length,
    items: all.slice(page.offset, page.offset + page.limit).map((c) => ({
      id: c.id,
      pilotId: c.pilotId,
      pilotName: c.pilotName,
      instructorName: c.instructorName,
      registration: c.registration,
      typeName: c.typeName,
      goals: c.goals,
      status: c.status,
      openedAt: c.createdAt,
      lessons: c.lessons,
      landings: c.landings,
      lastFlown: c.lastFlown,
    })),
  };
}

/** The record of a checkout, for who may see it. */
async function recordFor(user: CurrentUser, id: string): Promise<CheckoutRecord | null> {
  const head = await checkoutHead(id);
  return head && may.viewCheckout(user, head) ? checkoutRecord(head) : null;
}

export async function checkoutRead(user: CurrentUser, id: string): Promise<z.output<typeof CheckoutAnswer> | null> {
  const record = await recordFor(user, id);
  if (!record) return null;
  const { head } = record;
  const { findings } = await debriefFacts(record);
  const lessons = await Promise.all(record.sorties.map((s) => lessonShown(record, s.lesson)));
  const first = lessons.some((l) => assessesFirst(user, record, l));
  return {
    id: head.id,
    pilotId: head.pilotId,
    pilotName: head.pilotName,
    instructorName: head.instructorName,
    registration: head.registration,
    typeName: head.typeName,
    typeCode: head.typeCode,
    goals: head.goals,
    status: head.status,
    openedAt: head.createdAt,
    pack: head.pack,
    standard: record.standard.name,
    stage: stageOf(record),
    ledgerId: head.signedLedgerId,
    lessons: record.sorties.map((s) => ({
      id: s.id,
      lesson: s.lesson,
      flownOn: s.flownOn,
      aerodrome: s.aerodrome,
      briefId: s.brief?.id ?? null,
      briefAcknowledgedAt: s.brief?.acknowledgedAt ?? null,
      landings: record.landings.filter((l) => l.lesson === s.lesson).length,
    })),
    items: record.items.map((i) => {
      const { asks, have, missing } = itemEvidenceWords(i);
      return { id: i.item.id, title: i.item.title, met: i.met, asks, have, missing, waived: i.waived };
    }),
    findings: first
      ? null
      : findingsShown(findings, may.runCheckout(user, head)).map((f) => ({
          id: f.id,
          title: f.title,
          state: f.state,
          positive: f.positive,
          text: user.pilotId === head.pilotId ? f.pilot : f.instructor,
          sinceLesson: f.sinceLesson,
          exercise: f.next.title,
          decision: f.decided?.decision ?? null,
        })),
  };
}

/** A lesson as it is debriefed, by the id of the lesson. */
export async function debriefRead(user: CurrentUser, lessonId: string): Promise<z.output<typeof DebriefAnswer> | null> {
  const sortie = await Sorties.first({ where: { id: lessonId }, pick: ['checkoutId', 'lesson'] });
  const record = sortie && (await recordFor(user, sortie.checkoutId));
  const lesson = record?.sorties.find((s) => s.id === lessonId);
  if (!record || !lesson) return null;
  const shown = await lessonShown(record, lesson.lesson);
  const assessFirst = assessesFirst(user, record, shown);
  const saved = assessFirst ? null : await debriefOf(lessonId);
  return {
    id: lesson.id,
    checkoutId: record.head.id,
    lesson: lesson.lesson,
    flownOn: lesson.flownOn,
    aerodrome: lesson.aerodrome,
    assessFirst,
    self: shown.self && { ...shown.self.said, toldAt: shown.self.toldAt, toldBy: shown.self.toldBy },
    landings: assessFirst ? [] : shown.shown.map(landingOf),
    debrief: saved && {
      id: saved.id,
      version: saved.version,
      focus: saved.focus,
      remark: saved.remark,
      by: saved.createdBy,
      at: saved.createdAt,
      acknowledgedAt: saved.acknowledgedAt,
    },
  };
}

const landingOf = (l: LessonShown['shown'][number]): z.output<typeof DebriefAnswer>['landings'][number] => ({
  id: l.id,
  number: l.number,
  kind: l.kind,
  intended: l.intended,
  surface: l.surface ?? 'land',
  crosswindKt: l.crosswindKt,
  class: l.judged.landingClass,
  why: landingWords(l.judged.reason),
  intervention: l.judged.level ?? null,
  criteria: l.judged.criteria.map((c) => ({ id: c.id, verdict: c.verdict, required: c.required })),
  pastStop: l.stops.length > 0,
  measured: l.measured?.values ?? null,
});
