/** Limits exceeded: each channel against the airframe's own, short spikes left out. */
import type { TraceAnalysis, TraceContext } from '@/domain/trace';
import type { Trace } from '../read';
import { calmNoise } from './noise';

type Exceedance = TraceAnalysis['exceedances'][number];
/** Shorter than this it may be a spike; two stretches closer than this are one. Seconds. */
const LEAST_S = 0.5;
const JOIN_S = 3;
/** A row, or the mean of a stretch, this many times its noise beyond is no noise. */
const SURE = 4.2;

interface Beyond {
  limit: number;
  peak: number;
  startS: number;
  durationS: number;
}
/**
 * Stretches of a column beyond a limit that itself may change with the sample; a missing value on either side ends a
 * stretch. What the column's own noise may have carried over the limit is none: a stretch counts when a row or the mean
 * of some of its rows in a row stands further beyond than noise does.
 */
function beyond(trace: Trace, x: Float64Array, limitAt: (i: number) => number | null, sign: 1 | -1): Beyond[] {
  const sigma = calmNoise(x);
  const out: (Omit<Beyond, 'durationS'> & { endS: number; from: number; to: number; row: number })[] = [];
  const { tS } = trace;
  let run = 0;
  let mean = 0;
  for (let i = 0; i < trace.rows; i++) {
    const v = x[i] ?? Number.NaN;
    const limit = limitAt(i);
    const by = limit === null ? Number.NaN : sign * (v - limit);
    if (!(by > 0)) {
      run = 0;
      mean = 0;
      continue;
    }
    run++;
    mean += by;
    // How far the surest part of the stretch stands out of its noise.
    const row = Math.max(by / sigma, mean / run / (sigma / Math.sqrt(run)) - 0.8 * Math.sqrt(run));
    const t = tS[i] ?? 0;
    const last = out[out.length - 1];
    if (last && t - last.endS <= JOIN_S && last.limit === limit) {
      last.endS = t;
      last.to = i;
      last.row = Math.max(last.row, row);
      if (sign * (v - last.peak) > 0) last.peak = v;
    } else out.push({ limit: limit ?? 0, peak: v, startS: t, endS: t, from: i, to: i, row });
  }
  const step = 1 / Math.max(0.2, trace.rateHz);
  // One row at a slow rate stands for its whole interval; at a fast one it is a spike.
  return out
    .filter((e) => !(e.row < SURE))
    .map(({ limit, peak, startS, endS }) => ({
      limit,
      peak,
      startS,
      durationS: Math.round((endS - startS + step) * 100) / 100,
    }))
    .filter((e) => e.durationS >= LEAST_S);
}

/**
 * Every limit of the context against the channels the file has. Flap limits need the flap, the gear's need the gear.
 */
export function findExceedances(trace: Trace, context: TraceContext): Exceedance[] {
  const { limits } = context.airframe;
  const { ias, nz, rpm, rpm2, map, map2, cht, flap, gear } = trace.channels;
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
  for (const m of [map, map2])
    if (m && limits.mapMaxInHg !== null) add('map', 'inHg', beyond(trace, m, fixed(limits.mapMaxInHg), 1));
  for (const r of [rpm, rpm2])
    if (r && limits.rpmMax !== null) add('rpm', 'rpm', beyond(trace, r, fixed(limits.rpmMax), 1));
  if (cht && limits.chtMaxC !== null) add('cht', 'C', beyond(trace, cht, fixed(limits.chtMaxC), 1));
  return out.sort((a, b) => a.startS - b.startS);
}
