import { SYNC_BATCH, type SyncAnswer } from '../protocol';
import { type StoredEvent, store } from './store';

export type FlushResult = {
  state: 'sent' | 'offline' | 'sign-in' | 'held' | 'refused' | 'busy';
  waiting: number;
  message: string;
};

/**
 * Sends what waits on this device, oldest first. Safe to call at any time and from two tabs: one sends, the other
 * leaves. Nothing is removed here: an event leaves the waiting state only when the server has said it has it.
 */
export async function flush(send: typeof fetch = fetch, now: () => Date = () => new Date()): Promise<FlushResult> {
  const run = () => sendAll(send, now);
  if (typeof navigator === 'undefined' || !('locks' in navigator)) return run();
  return navigator.locks.request('jeito-outbox', { ifAvailable: true }, async (lock) =>
    lock ? run() : { state: 'busy', waiting: await waitingCount(), message: '' },
  );
}

export const waitingCount = (): Promise<number> => store().events.where('sent').equals(0).count();

async function sendAll(send: typeof fetch, now: () => Date): Promise<FlushResult> {
  const held = new Set<string>();
  let refusals = 0;
  let heldMessage = '';
  for (;;) {
    const waiting = (await store().events.where('sent').equals(0).toArray())
      .filter((e) => !held.has(e.eventId))
      .sort((a, b) => a.deviceSeq - b.deviceSeq);
    if (waiting.length === 0) break;
    const batch = waiting.slice(0, SYNC_BATCH);
    const answer = await post(batch, send, now());
    if ('state' in answer) return { ...answer, waiting: await waitingCount() };
    const settled = answer.accepted.length + answer.refused.length + answer.held.length;
    if (settled === 0) break;
    await store().transaction('rw', store().events, async () => {
      for (const id of answer.accepted)
        await store().events.update(id, {
          sent: 1,
          ...(typeof answer.skewMs === 'number' ? { skewMs: answer.skewMs } : {}),
        });
      for (const r of answer.refused) await store().events.update(r.eventId, { sent: 2, refusal: r.message });
    });
    refusals += answer.refused.length;
    for (const h of answer.held) {
      held.add(h.eventId);
      heldMessage = h.message;
    }
  }
  const waiting = await waitingCount();
  if (refusals > 0)
    return {
      state: 'refused',
      waiting,
      message: `${refusals} could not be taken as they are and stay on this device.`,
    };
  return held.size > 0 ? { state: 'held', waiting, message: heldMessage } : { state: 'sent', waiting, message: '' };
}

async function post(
  batch: StoredEvent[],
  send: typeof fetch,
  sentAt: Date,
): Promise<SyncAnswer | { state: 'offline' | 'sign-in'; message: string }> {
  const events = batch.map(({ sent: _sent, refusal: _refusal, ...event }) => event);
  try {
    const response = await send('/api/sync', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ events, sentAt: sentAt.toISOString() }),
    });
    if (response.status === 401)
      return {
        state: 'sign-in',
        message: 'Signed out: everything is kept here. Sign in as the same person to send it.',
      };
    if (!response.ok)
      return {
        state: 'offline',
        message: 'The field does not take it just now. Everything is kept here and sent later.',
      };
    return (await response.json()) as SyncAnswer;
  } catch {
    return { state: 'offline', message: 'No network. Everything is kept on this device.' };
  }
}
