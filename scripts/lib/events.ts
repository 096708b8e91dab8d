import { randomUUID } from 'node:crypto';
import type { CaptureEvent } from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';

/** A clean full stop on runway 22, seen whole. */
export const landing = (more: object = {}) => ({
  ...UNSEEN,
  kind: 'full-stop',
  demonstration: false,
  intended: 'three-point',
  touched: 'three-point',
  along: 'in-the-box',
  lateral: 'line',
  intervention: 0,
  runwayEnd: '22',
  ...more,
});
/** One event of a device of its own, at 14:00 of the demo's day. */
export const event = (
  author: string,
  sortieId: string,
  type: CaptureEvent['type'],
  payload: unknown,
  more: object = {},
): CaptureEvent => ({
  eventId: randomUUID(),
  deviceId: randomUUID(),
  deviceSeq: 1,
  sortieId,
  subjectId: randomUUID(),
  author,
  type,
  v: 1,
  deviceTime: '2026-11-24T14:00:00.000Z',
  payload,
  ...more,
});
