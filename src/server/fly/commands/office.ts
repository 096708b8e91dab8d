import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { type CaptureEvent, DeskEventForm } from '@/domain/capture';
import type { EventType } from '@/domain/words';
import type { CurrentUser } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { type Result, problem, zodProblems } from '../../floor/result';
import { write } from '../../floor/write';
import { told } from '../sentences';
import { CaptureEvents } from '../tables';
import { PROJECTED, keepEvent, projectSortie } from './capture';
import { OFFICE_DEVICE, flightOf, refusalOf } from './event-door';
import * as ask from '../../floor/statements/fly';

/**
 * An event written at a desk, by the same rules as those from the cockpit. The office is a device of its own with one
 * counter: what comes later in the same instant still comes later.
 */
export async function addOfficeEvent(
  user: CurrentUser,
  sortieId: string,
  subjectId: string,
  type: EventType,
  payload: unknown,
  t: Transaction,
  eventId: string = randomUUID(),
): Promise<Result<object>> {
  const last = await ask.addOfficeEvent.one({ d: OFFICE_DEVICE }, t);
  const event: CaptureEvent = {
    eventId,
    deviceId: OFFICE_DEVICE,
    deviceSeq: (last?.n ?? 0) + 1,
    sortieId,
    subjectId,
    author: user.id,
    type,
    v: 1,
    deviceTime: nowIso(),
    payload,
  };
  const refusal = await refusalOf(user, event, await flightOf(sortieId, t), { at: 'desk', skewMs: 0 }, t);
  if (refusal) return problem('', refusal);
  await keepEvent(event, 0, t);
  return { ok: true };
}

/** The one door for what is said of a flight at a desk. Sent twice it is one event. */
export async function recordAtDesk(user: CurrentUser, form: unknown): Promise<Result<object>> {
  const parsed = DeskEventForm.safeParse(form);
  if (!parsed.success) return zodProblems(parsed.error);
  const { requestId, sortieId, subjectId, type, payload } = parsed.data;
  return write(async (t): Promise<Result<object>> => {
    const before = await CaptureEvents.first({ where: { eventId: requestId }, pick: ['author', 'type'] }, t);
    if (before)
      return before.author === user.id && before.type === type ? { ok: true } : problem('', told('number-used'));
    const added = await addOfficeEvent(user, sortieId, subjectId, type, payload, t, requestId);
    if (!added.ok) return added;
    if (PROJECTED.includes(type)) await projectSortie(sortieId, t);
    return added;
  });
}
