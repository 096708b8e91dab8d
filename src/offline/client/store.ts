import Dexie, { type EntityTable } from 'dexie';
import type { CaptureEvent } from '@/domain/capture';
import type { EventType } from '@/domain/words';
import type { SortiePack } from '../protocol';

export interface StoredEvent extends CaptureEvent {
  /** 0 waiting, 1 at the field, 2 refused (kept, with the reason). */
  sent: 0 | 1 | 2;
  refusal?: string;
}
interface Meta { key: string; value: string | number }

class JeitoStore extends Dexie {
  events!: EntityTable<StoredEvent, 'eventId'>;
  packs!: EntityTable<SortiePack, 'sortieId'>;
  meta!: EntityTable<Meta, 'key'>;
  constructor() {
    super('jeito', { chromeTransactionDurability: 'strict' });
    this.version(1).stores({ events: 'eventId, sortieId, sent, [deviceId+deviceSeq]', packs: 'sortieId', meta: 'key' });
  }
}

let opened: JeitoStore | undefined;
export const store = (): JeitoStore => (opened ??= new JeitoStore());

/** Lets go of the store, as a closed page does; the next use opens it again. */
export function closeStore(): void {
  opened?.close();
  opened = undefined;
}

/** Puts a sortie on this device, with what is already recorded of it. */
export async function keepPack(pack: SortiePack): Promise<void> {
  const db = store();
  await db.transaction('rw', db.packs, db.events, async () => {
    await db.packs.put(pack);
    const here = new Set((await db.events.where('sortieId').equals(pack.sortieId).toArray()).map((e) => e.eventId));
    await db.events.bulkPut(pack.events.filter((e) => !here.has(e.eventId)).map((e) => ({ ...e, sent: 1 as const })));
  });
}

/**
 * Records one event. Resolves only when it is durable on this device (the transaction has completed with strict durability);
 * only then may the screen say *saved*. The counter and the event go in one transaction.
 */
export async function record(pack: SortiePack, type: EventType, subjectId: string, payload: unknown, at: Date): Promise<StoredEvent> {
  const db = store();
  return db.transaction('rw', db.meta, db.events, async () => {
    const deviceId = String((await db.meta.get('deviceId'))?.value ?? crypto.randomUUID());
    const deviceSeq = Number((await db.meta.get('seq'))?.value ?? 0) + 1;
    await db.meta.bulkPut([{ key: 'deviceId', value: deviceId }, { key: 'seq', value: deviceSeq }]);
    const event: StoredEvent = { eventId: crypto.randomUUID(), deviceId, deviceSeq, sortieId: pack.sortieId, subjectId, author: pack.author, type, v: 1, deviceTime: at.toISOString(), payload, sent: 0 };
    await db.events.add(event);
    return event;
  });
}
