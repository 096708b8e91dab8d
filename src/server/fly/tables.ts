import type { CaptureEvent } from '@/domain/capture';

/** A row of capture_events, as it lies in the database. */
export interface CaptureRow {
  event_id: string;
  device_id: string;
  device_seq: number;
  sortie_id: string;
  subject_id: string;
  author: string;
  type: CaptureEvent['type'];
  v: number;
  device_time: string;
  payload: string;
  skew_ms: number | null;
}
export const toEvent = (e: CaptureRow): CaptureEvent => ({
  eventId: e.event_id,
  deviceId: e.device_id,
  deviceSeq: e.device_seq,
  sortieId: e.sortie_id,
  subjectId: e.subject_id,
  author: e.author,
  type: e.type,
  v: e.v,
  deviceTime: e.device_time,
  payload: JSON.parse(e.payload) as unknown,
  ...(e.skew_ms === null ? {} : { skewMs: e.skew_ms }),
});
