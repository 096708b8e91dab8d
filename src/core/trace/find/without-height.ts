import type { FoundEvent, TraceContext } from '@/domain/trace';
import type { Placed } from './frame';
import { alongIt, passesOf } from './passes';
import { indexAt, round } from './sample';
import { NO_MEASURES, WALKING_KT } from './stay-events';

/**
 * Without any height: only what stood or rolled slowly on a runway and flew at another time can be told, by its speed
 * alone. No place, no touch; and a touch-and-go that stayed fast is not seen.
 */
export function withoutHeight(p: Placed, context: TraceContext): FoundEvent[] {
  const flyKt = context.airframe.vs0Kt ?? 45;
  const out: FoundEvent[] = [];
  for (const { frame, from, to } of passesOf(p, context)) {
    const on = (i: number) =>
      (frame.along[i] ?? -1e9) > -100 &&
      (frame.along[i] ?? 1e9) < frame.lengthM + 100 &&
      Math.abs(frame.lateral[i] ?? 1e9) < frame.widthM / 2 + 20;
    let slow = { from: -1, to: -1, least: Infinity };
    for (let i = from; i <= to; i++)
      if (on(i) && (p.gsKt[i] ?? 99) < 0.6 * flyKt)
        slow = { from: slow.from < 0 ? i : slow.from, to: i, least: Math.min(slow.least, p.gsKt[i] ?? Infinity) };
    if (slow.from < 0) continue;
    const fastIn = (a: number, b: number) => {
      let m = 0;
      // Only along this runway: what came down on another crosses it, or stands at its far end.
      for (let i = Math.max(0, a); i <= Math.min(p.n - 1, b); i++)
        if (alongIt(p, frame, i)) m = Math.max(m, p.gsKt[i] ?? 0);
      return m > 1.05 * flyKt;
    };
    const came = fastIn(indexAt(p.tS, (p.tS[slow.from] ?? 0) - 40), slow.from);
    const went = fastIn(slow.to, indexAt(p.tS, (p.tS[slow.to] ?? 0) + 40));
    if (!came && !went) continue;
    const kind = !came ? 'takeoff' : !went ? 'landing' : slow.least < WALKING_KT ? 'stop-and-go' : 'touch-and-go';
    // When it was last as fast as it needs to fly.
    let touch = slow.from;
    while (touch > 0 && (p.gsKt[touch] ?? 0) < 0.9 * flyKt) touch--;
    let lift = slow.to;
    while (lift < p.n - 1 && (p.gsKt[lift] ?? 0) < 1.05 * flyKt) lift++;
    out.push({
      kind,
      runway: frame.ident,
      startS: round(p.tS[came ? from : slow.from] ?? 0),
      endS: round(p.tS[went ? lift : slow.to] ?? 0),
      confidence: 0.3,
      ...(came ? { touchdown: { ...NO_MEASURES, tS: round(p.tS[touch] ?? 0) } } : {}),
      ...(went
        ? { liftoff: { tS: round(p.tS[lift] ?? 0), alongM: null, lateralM: null, iasKt: null, gsKt: null } }
        : {}),
    });
  }
  return out.sort((a, b) => a.startS - b.startS);
}
