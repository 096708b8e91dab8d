/** Limits exceeded: each channel against the airframe's own, short spikes left out. */
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import type { Trace } from '../read';

type Exceedance = TraceAnalysis['exceedances'][number];
/** Shorter than this it may be noise; two stretches closer than this are one. Seconds. */
const LEAST_S = 0.5;
const JOIN_S = 3;

/**
 * Stretches of a column beyond a limit that itself may change with the sample; a missing value on either side ends a
 * stretch.
 */
function beyond(
  trace: Trace,
  x: Float64Array,
  limitAt: (i: number) => number | null,
  sign: 1 | -1,
): { limit: number; peak: number; startS: number; durationS: number }[] {
  const out: { limit: number; peak: number; startS: number; endS: number }[] = [];
  const { tS } = trace;
  for (let i = 0; i < trace.rows; i++) {
    const v = x[i] ?? Number.NaN;
    const limit = limitAt(i);
    if (limit === null || !(sign * (v - limit) > 0)) continue;
    const t = tS[i] ?? 0;
    const last = out[out.length - 1];
    if (last && t - last.endS <= JOIN_S && last.limit === limit) {
      last.endS = t;
      if (sign * (v - last.peak) > 0) last.peak = v;
    } else out.push({ limit, peak: v, startS: t, endS: t });
  }
  const step = 1 / Math.max(0.2, trace.rateHz);
  // One row at a slow rate stands for its whole interval; at a fast one it is a spike.
  return out
    .map(({ endS, ...e }) => ({ ...e, durationS: Math.round((endS - e.startS + step) * 100) / 100 }))
    .filter((e) => e.durationS >= LEAST_S);
}

/**
 * Every limit of the context against the channels the file has. Flap limits need the flap, the gear's need the gear.
 */
export function findExceedances(trace: Trace, context: TraceContext): Exceedance[] {
  const { limits } = context.airframe;
  const { ias, nz, rpm, map, cht, flap, gear } = trace.channels;
  const out: Exceedance[] = [];
  const add = (channel: Exceedance['channel'], unit: string, found: ReturnType<typeof beyond>) =>
    out.push(...found.map((f) => ({ channel, unit, ...f })));
  const fixed = (limit: number) => () => limit;
  if (ias && limits.vneKt !== null) add('vne', 'kt', beyond(trace, ias, fixed(limits.vneKt), 1));
  if (ias && flap && limits.vfeKt) {
    const table = [...limits.vfeKt].sort((a, b) => a.flapDeg - b.flapDeg);
    // Between two settings the limit of the next larger one holds.
    add(
      'vfe',
      'kt',
      beyond(
        trace,
        ias,
        (i) => {
          const f = flap[i] ?? Number.NaN;
          return f > 0.5 ? (table.find((r) => r.flapDeg >= f - 0.5)?.kt ?? table[table.length - 1]?.kt ?? null) : null;
        },
        1,
      ),
    );
  }
  if (ias && gear) {
    const least = Math.min(limits.vleKt ?? Infinity, Infinity);
    if (Number.isFinite(least))
      add(
        'gear',
        'kt',
        beyond(trace, ias, (i) => ((gear[i] ?? 0) >= 0.5 ? least : null), 1),
      );
    // While it moves, the lower limit of moving it.
    const moving = limits.vloKt;
    if (moving !== null)
      add(
        'gear',
        'kt',
        beyond(
          trace,
          ias,
          (i) => {
            const a = gear[i - 1] ?? Number.NaN;
            const b = gear[i] ?? Number.NaN;
            return a === a && b === b && a !== b ? moving : null;
          },
          1,
        ),
      );
  }
  if (nz && limits.gPos !== null) add('g+', 'g', beyond(trace, nz, fixed(limits.gPos), 1));
  if (nz && limits.gNeg !== null) add('g-', 'g', beyond(trace, nz, fixed(limits.gNeg), -1));
  if (map && limits.mapMaxInHg !== null) add('map', 'inHg', beyond(trace, map, fixed(limits.mapMaxInHg), 1));
  if (rpm && limits.rpmMax !== null) add('rpm', 'rpm', beyond(trace, rpm, fixed(limits.rpmMax), 1));
  if (cht && limits.chtMaxC !== null) add('cht', 'C', beyond(trace, cht, fixed(limits.chtMaxC), 1));
  return out.sort((a, b) => a.startS - b.startS);
}
