import type { CaptureEvent } from '@/domain/capture';

/**
 * A clock that stands this close is taken to be right: what is measured below it is the way to the field, not the
 * clock.
 */
export const SKEW_FLOOR_MS = 5_000;

/** The time an event happened by the field's clock, as well as it is known. */
export const correctedMs = (e: Pick<CaptureEvent, 'deviceTime' | 'skewMs'>): number =>
  Date.parse(e.deviceTime) + (Math.abs(e.skewMs ?? 0) > SKEW_FLOOR_MS ? (e.skewMs ?? 0) : 0);

/**
 * Events in the order they happened: corrected time, then device, then the device's own counter. Within one device the
 * counter governs, so a clock set back in flight never turns a correction round: an event is no earlier than the one
 * its device recorded before it.
 */
export function ordered(events: readonly CaptureEvent[]): CaptureEvent[] {
  const latest = new Map<string, number>();
  const timed = [...events]
    .sort((a, b) => a.deviceSeq - b.deviceSeq)
    .map((event) => {
      // A count is its author's own: nobody else's events push theirs about.
      const count = `${event.author} ${event.deviceId}`;
      const t = Math.max(latest.get(count) ?? -Infinity, correctedMs(event));
      latest.set(count, t);
      return { event, t };
    });
  return timed
    .sort(
      (a, b) =>
        a.t - b.t ||
        (a.event.deviceId < b.event.deviceId
          ? -1
          : a.event.deviceId > b.event.deviceId
            ? 1
            : a.event.deviceSeq - b.event.deviceSeq),
    )
    .map((x) => x.event);
}
