import { localDate } from '@/core/format';
import { ReleaseForm } from '@/domain/grounding-forms';
import { told } from '../sentences';
import { worded } from '../../floor/sentences';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { judgeDetail } from '@/core/assess';
import { ktPerUnit } from '@/core/speeds';
import { CHANNELS, MEASURES, TAPPED_AS, itemMeasures, traceContext, withMeasured } from '@/core/trace';
import { FORM_NAME } from '@/domain/airwork';
import type { Measured } from '@/domain/capture';
import type { Aerodrome } from '@/domain/sheet';
import type { TraceContext } from '@/domain/trace';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { aerodromeAt, aerodromes } from '../../rules/content';
import { write, writeOrNothing } from '../../floor/write';
import { sortiesOf } from '../../checkout/queries/flights';
import { checkoutHead } from '../../checkout/queries/head';
import { traceById } from '../queries/traces';
import { addOfficeEvent } from '../../fly/commands/office';
import { type Result, problem, zodProblems } from '../../floor/result';
import { hashOf, plainBytes, textOf } from '../files';
import { keepTrace } from './keep';
import { runTrace } from '../thread';
import { projectSortie } from '../../fly/commands/capture';
import * as ask from '../../floor/statements/traces';
import { Sorties } from '../../checkout/tables';
import { Traces, ExceedanceReleases } from '../tables';

const TIME_ROLES = ['time:instant', 'time:date', 'time:clock', 'time:offset', 'time:elapsed', 'time:epoch'] as const;
/** What was said of columns by hand. */
export const MappingForm = z.record(
  z.string().max(120),
  z.object({ channel: z.enum([...CHANNELS, ...TIME_ROLES, 'none']), unit: z.string().max(12).nullable() }),
);
export type MappingForm = z.infer<typeof MappingForm>;

const NOT_YOURS = told('not-found');

/** Minutes east of UTC in a zone at an instant. */
export function zoneOffsetMin(timeZone: string, iso: string): number {
  const at = new Date(iso);
  const part =
    new Intl.DateTimeFormat('en-GB', { timeZone, timeZoneName: 'longOffset' })
      .formatToParts(at)
      .find((p) => p.type === 'timeZoneName')?.value ?? 'GMT';
  const m = /([+-])(\d\d):(\d\d)/.exec(part);
  return m ? (m[1] === '-' ? -1 : 1) * (Number(m[2]) * 60 + Number(m[3])) : 0;
}

/** The context of one flight: field, aeroplane, the gates of its brief. Null when it is not this user's to work on. */
export async function contextOfSortie(
  user: CurrentUser,
  sortieId: string,
): Promise<{
  context: TraceContext;
  /** The school's other aerodromes. */
  elsewhere: TraceContext['aerodrome'][];
  checkoutId: string;
  airframeId: string;
  flownOn: string;
  lesson: number;
} | null> {
  const flight = await Sorties.first({
    where: { id: sortieId },
    pick: ['checkoutId', 'sharedWith'],
    with: { checkout: ['airframeId'] },
  });
  const head = flight && flight.sharedWith === null ? await checkoutHead(flight.checkoutId) : null;
  if (!flight || !head || !may.runCheckout(user, head)) return null;
  const sortie = (await sortiesOf(head.id)).find((s) => s.id === sortieId);
  const aerodrome = await aerodromeAt(sortie?.aerodrome);
  const gates = (sortie?.brief?.snapshot.gates ?? []).flatMap((g) =>
    g.target === null ? [] : [{ name: g.name, distanceM: g.distanceM, target: g.target }],
  );
  const flownOn = sortie?.flownOn ?? localDate(nowIso(), aerodrome.timeZone);
  const contextAt = (a: Aerodrome) =>
    traceContext(a, head.sheet, head.registration, gates, zoneOffsetMin(a.timeZone, `${flownOn}T12:00:00Z`));
  const others = (await aerodromes()).filter((a) => a.ident !== aerodrome.ident);
  return {
    context: contextAt(aerodrome),
    elsewhere: others.map((a) => contextAt(a).aerodrome),
    checkoutId: head.id,
    airframeId: sortie?.airframeId ?? flight.checkout.airframeId,
    flownOn,
    lesson: sortie?.lesson ?? 0,
  };
}

/**
 * Takes a recording of a flight: keeps the file by the hash of what it holds, reads and analyses it, enters every limit
 * passed. The same file twice is the same trace. Nothing is written when it cannot be read.
 */
export async function addTrace(
  user: CurrentUser,
  form: { sortieId: string; name: string; bytes: Buffer; mapping: unknown },
): Promise<
  | Result<{ id: string; known: boolean }>
  | { ok: false; problems: { path: string; message: string }[]; headers?: string[] }
> {
  const mapping =
    form.mapping === null || form.mapping === undefined
      ? { success: true as const, data: null }
      : MappingForm.safeParse(form.mapping);
  if (!mapping.success) return zodProblems(mapping.error);
  const where = await contextOfSortie(user, form.sortieId);
  if (!where) return problem('sortieId', NOT_YOURS);
  let plain: Buffer;
  try {
    plain = await plainBytes(form.bytes);
  } catch (error) {
    return problem('file', error instanceof Error ? worded('file', error.message) : told('file-unreadable'));
  }
  const hash = hashOf(plain);
  const before = await Traces.first({ where: { sortieId: form.sortieId, hash }, pick: ['id'] });
  if (before) return { ok: true, id: before.id, known: true };
  const done = await runTrace({
    text: textOf(plain),
    mapping: mapping.data,
    context: where.context,
    elsewhere: where.elsewhere,
  });
  if (!done.ok)
    return {
      ...problem('file', worded('recording', done.message)),
      ...(done.headers ? { headers: done.headers } : {}),
    };
  return keepTrace(user, where, done, {
    sortieId: form.sortieId,
    hash,
    plain,
    name: form.name.slice(0, 120),
    mapping: mapping.data,
    enter: done.analysis.exceedances,
  });
}

export const AcceptForm = z.object({
  traceId: z.string().min(1),
  landings: z
    .array(
      z.object({
        landingId: z.string().min(1),
        foundIndex: z.number().int().min(0),
        measures: z.array(z.enum(MEASURES)),
      }),
    )
    .max(80),
  items: z.array(z.object({ itemId: z.string().min(1), foundIndex: z.number().int().min(0) })).max(80),
});
export type AcceptForm = z.infer<typeof AcceptForm>;

/**
 * Takes over measures for tapped landings and items, one by one as chosen. Each becomes an event of its own; an empty
 * list takes back what was accepted before.
 */
export async function acceptMeasures(user: CurrentUser, form: unknown): Promise<Result<{ accepted: number }>> {
  const parsed = AcceptForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const trace = await traceById(user, parsed.data.traceId);
  if (!trace || !trace.runs) return problem('', told('not-found'));
  if (trace.status !== 'open') return problem('', told('signed-already'));
  const joined = await trace.join();
  return writeOrNothing(async (t): Promise<Result<{ accepted: number }>> => {
    let accepted = 0;
    for (const l of parsed.data.landings) {
      const pair = joined.landings.find((p) => p.landing?.id === l.landingId && p.foundIndex === l.foundIndex);
      if (!pair) return problem(`landing.${l.landingId}`, told('landing-and-stretch'));
      const values = Object.fromEntries(
        pair.measures.filter((m) => l.measures.includes(m.id)).map((m) => [m.id, m.value]),
      );
      const added = await addOfficeEvent(
        user,
        trace.sortieId,
        l.landingId,
        'measured',
        { traceId: trace.id, atS: pair.atS, values, item: null } satisfies Measured,
        t,
      );
      if (!added.ok) return added;
      accepted += Object.keys(values).length;
    }
    for (const i of parsed.data.items) {
      const pair = joined.items.find((p) => p.tapped?.id === i.itemId && p.foundIndex === i.foundIndex);
      const kind = pair && TAPPED_AS[pair.found.kind];
      if (!pair?.tapped || !kind) return problem(`item.${i.itemId}`, told('item-and-stretch'));
      const values = itemMeasures(pair.found, joined.standard.airwork.find((a) => a.kind === kind)?.set.bank ?? null);
      const detail = withMeasured(pair.tapped.detail, kind, values, ktPerUnit(joined.unit));
      const judged = judgeDetail(detail, joined.standard, ktPerUnit(joined.unit));
      if (judged.quantities.every((q) => q.verdict === 'not-seen'))
        return problem(`item.${i.itemId}`, told('nothing-measured', { item: FORM_NAME[kind].toLowerCase() }));
      const added = await addOfficeEvent(
        user,
        trace.sortieId,
        i.itemId,
        'measured',
        {
          traceId: trace.id,
          atS: pair.found.startS,
          values: values as Record<string, number>,
          // In part: what was tapped stays, and the item is not judged until the rest was looked at.
          item: { verdict: judged.verdict === 'not-seen' ? pair.tapped.verdict : judged.verdict, detail },
        } satisfies Measured,
        t,
      );
      if (!added.ok) return added;
      accepted += Object.keys(values).length;
    }
    await projectSortie(trace.sortieId, t);
    return { ok: true, accepted };
  });
}

/**
 * Back into service after a limit was passed: somebody entitled certified what had to be done, and a chief records it. The
 * aeroplane's flag ends with it; the entry stays.
 */
export async function releaseExceedance(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = ReleaseForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { exceedanceId, done, certifier, certificate } = parsed.data;
  return write(async (t): Promise<Result<object>> => {
    const found = await ask.releaseExceedance.one({ exceedanceId }, t);
    if (!found || !may.releaseExceedance(user, { pilotId: found.pilotId, instructorId: found.instructorId }))
      return problem('', told('chief-releases'));
    if (found.name !== null) return problem('', told('released-meanwhile', { name: found.name }));
    await ExceedanceReleases.insert(
      {
        id: randomUUID(),
        exceedanceId: exceedanceId,
        releasedBy: user.id,
        releasedAt: nowIso(),
        done,
        certifier,
        certificate,
      },
      t,
    );
    return { ok: true };
  });
}
