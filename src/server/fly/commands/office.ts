import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import type { CaptureEvent } from '@/domain/capture';
import type { EventType } from '@/domain/words';
import type { CurrentUser } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import { type Result, problem } from '../../floor/result';
import { keepEvent } from './capture';
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
): Promise<Result<object>> {
  const last = await ask.addOfficeEvent.one({ d: OFFICE_DEVICE }, t);
  const event: CaptureEvent = {
    eventId: randomUUID(),
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
