import Dexie, { type EntityTable } from 'dexie';
import type { CaptureEvent } from '@/domain/capture';
import type { EventType } from '@/domain/words';
import type { SortiePack } from '../protocol';

export interface StoredEvent extends CaptureEvent {
  /** 0 waiting, 1 at the field, 2 refused (kept, with the reason). */
  sent: 0 | 1 | 2;
  refusal?: string;
}
interface Meta {
  key: string;
  value: string | number;
}

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
 * Records one event. Resolves only when it is durable on this device (the transaction has completed with strict
 * durability); only then may the screen say *saved*. The counter and the event go in one transaction. Spoken to the
 * browser's store directly: between a tap and its answer there is no room for a layer more.
 */
export async function storeEvent(
  pack: SortiePack,
  type: EventType,
  subjectId: string,
  payload: unknown,
  at: Date,
): Promise<StoredEvent> {
  const db = store();
  if (!db.isOpen()) await db.open();
  return new Promise((resolve, reject) => {
    const t = db.backendDB().transaction(['meta', 'events'], 'readwrite', { durability: 'strict' });
    const meta = t.objectStore('meta');
    let event: StoredEvent | null = null;
    const device = meta.get('deviceId');
    // Requests of one transaction are answered in order: when the counter comes, the device is there.
    const seq = meta.get('seq');
    seq.onsuccess = () => {
      const deviceId = String((device.result as Meta | undefined)?.value ?? crypto.randomUUID());
      const deviceSeq = Number((seq.result as Meta | undefined)?.value ?? 0) + 1;
      event = {
        eventId: crypto.randomUUID(),
        deviceId,
        deviceSeq,
        sortieId: pack.sortieId,
        subjectId,
        author: pack.author,
        type,
        v: 1,
        deviceTime: at.toISOString(),
        payload,
        sent: 0,
      };
      try {
        t.objectStore('events').add(event);
        meta.put({ key: 'seq', value: deviceSeq });
        if (!device.result) meta.put({ key: 'deviceId', value: deviceId });
      } catch (error) {
        // Thrown before the store was asked: nothing of the transaction may stand.
        t.abort();
        reject(error instanceof Error ? error : new Error(String(error)));
      }
    };
    t.oncomplete = () => (event ? resolve(event) : reject(new Error('nothing was recorded')));
    t.onabort = () => reject(t.error ?? new Error('the store refused'));
    t.onerror = () => undefined;
  });
}
