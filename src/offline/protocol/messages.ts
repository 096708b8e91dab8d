import type { CaptureEvent } from '@/domain/capture';
import type { Attitude, PackId } from '@/domain/words';

/** Largest batch one request carries; the outbox sends the rest in the next. */
export const SYNC_BATCH = 100;

export interface SyncRequest { events: CaptureEvent[] }
export interface SyncAnswer {
  /** On the server now, whether this request or an earlier one brought them. */
  accepted: string[];
  /** Will never be accepted as they are; kept on the device and shown with the reason. */
  refused: { eventId: string; message: string }[];
  /** Another account's events: kept on the device until their author signs in. */
  held: { eventId: string; message: string }[];
}

/** A sortie prepared for a device: all the capture screen needs, without the network. */
export interface SortiePack {
  sortieId: string;
  checkoutId: string;
  lesson: number;
  flownOn: string;
  author: string;
  authorName: string;
  pilotName: string;
  registration: string;
  typeName: string;
  pack: PackId;
  unit: 'kt' | 'mph';
  tailwheel: boolean;
  hasFlapOrGear: boolean;
  runwayEnd: string;
  runways: { ident: string; magneticDeg: number; widthM: number }[];
  aimPointM: number;
  box: { before: number; past: number };
  fenceTarget: number | null;
  intended: Attitude;
  focus: string;
  windText: string;
  triggers: string[];
  items: { id: string; title: string; text: string; where: 'ground' | 'flight'; waivable: string | null }[];
  /** Wheel, lamp state, what it means; null or absent where there is no water to land on. */
  gearLamps?: Record<string, Record<string, 'up' | 'down' | 'transit'>> | null;
  /** Habits to watch, most dangerous first; absent in packs taken before this was added. */
  cues?: { where: 'ground' | 'flight'; action: 'drop' | 'add'; opposite: boolean; name: string; cue: string }[];
  preparedAt: string;
  /** Events already at the field, so that a second device continues the count. */
  events: CaptureEvent[];
}
