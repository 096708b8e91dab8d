import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import type { EventType } from '@/domain/words';
import type { CurrentUser } from '../auth/permissions';
import { nowIso } from '../clock';
import { row } from '../db/connection';
import { model } from '../db/models';

const OFFICE_DEVICE = '0ff1ce00-0000-4000-8000-000000000001';

/**
 * An event written at a desk, beside those from the cockpit. The office is a device of its own with one counter: what
 * comes later in the same instant still comes later.
 */
export async function addOfficeEvent(
  user: CurrentUser,
  sortieId: string,
  subjectId: string,
  type: EventType,
  payload: unknown,
  t: Transaction,
): Promise<void> {
  const last = await row<{ n: number | null }>(
    'SELECT MAX(device_seq) AS n FROM capture_events WHERE device_id = :d',
    { d: OFFICE_DEVICE },
    t,
  );
  await model('capture_events').create(
    {
      event_id: randomUUID(),
      device_id: OFFICE_DEVICE,
      device_seq: (last?.n ?? 0) + 1,
      sortie_id: sortieId,
      subject_id: subjectId,
      author: user.id,
      type,
      v: 1,
      device_time: nowIso(),
      payload: JSON.stringify(payload),
      received_at: nowIso(),
      skew_ms: 0,
    },
    { transaction: t },
  );
}
