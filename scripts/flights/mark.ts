/**
 * What was flown against what was found in a file of it. What the file cannot show is not asked; what happened at its
 * very edge, or meant to be one thing and was another, counts neither way.
 */
import type { FoundEvent, TraceAnalysis } from '@/domain/trace';
import type { Flight, FlownLimit } from './flight';
import type { FlownItem, FlownPass } from './pilot';
import type { Device } from './sensors';

export interface Seen {
  fromS: number;
  toS: number;
  /** Seconds of the flight at the file's first good sample. */
  firstS: number;
}
/** A measure of a touch: how far off, and how far it said it might be. */
export interface Off {
  name: string;
  error: number;
  sd: number | null;
  /** Beyond what the sensors themselves are off. */
  beyond: number;
}
export interface Mark {
  events: { flown: FlownPass; found: FoundEvent }[];
  missed: FlownPass[];
  invented: FoundEvent[];
  airwork: { flown: FlownItem; found: TraceAnalysis['airwork'][number] }[];
  airworkMissed: FlownItem[];
  airworkInvented: TraceAnalysis['airwork'][number][];
  limits: FlownLimit[];
  limitsMissed: FlownLimit[];
  limitsInvented: TraceAnalysis['exceedances'];
  offs: Off[];
}
const momentOf = (e: FoundEvent): number => e.touchdown?.tS ?? e.lowestS ?? e.liftoff?.tS ?? e.startS;

/** Can this file show that item? Most of it must be recorded, by the channels it needs. */
function shows(i: FlownItem, dev: Device): boolean {
  const lost = dev.gaps.reduce((a, g) => a + Math.max(0, Math.min(g.toS, i.endS) - Math.max(g.fromS, i.startS)), 0);
  if (lost > 0.25 * (i.endS - i.startS)) return false;
  const { has } = dev;
  if (i.kind === 'stall' || i.kind === 'slow-flight') return has.ias;
  if (i.kind === 'roll') return has.attitude && dev.rateHz >= 2;
  if (i.kind === 'loop') return has.attitude;
  // Half a turn is a look about only by what follows it.
  if (i.before) return shows({ ...i, kind: i.before, before: undefined }, dev);
  return i.kind !== 'engine-out' || has.rpm;
}
/** How far beyond a limit, and for how long, is beyond what its sensor may be off. */
const CLEAR: Record<FlownLimit['channel'], [by: number, s: number]> = {
  vne: [2.5, 1.6],
  vfe: [2.5, 1.6],
  gear: [2.5, 1.6],
  'g+': [0.2, 0.5],
  'g-': [0.2, 0.5],
  rpm: [25, 1],
  map: [0.25, 1],
  cht: [2, 5],
};
function channelThere(l: FlownLimit, dev: Device): boolean {
  const { has } = dev;
  if (l.channel === 'vne') return has.ias;
  if (l.channel === 'vfe') return has.ias && has.flap;
  if (l.channel === 'gear') return has.ias && dev.kind === 'panel';
  return l.channel === 'g+' || l.channel === 'g-' ? has.g && dev.rateHz >= 4 : has.rpm;
}

export function mark(f: Flight, a: TraceAnalysis, dev: Device, seen: Seen): Mark {
  const at = (s: number) => s - seen.firstS;
  const end = seen.toS;
  const whole = (p: FlownPass) =>
    p.doubt !== true &&
    p.atS - (p.kind === 'takeoff' ? 6 : 40) > seen.firstS &&
    (p.liftoffS ?? p.atS) + (p.kind === 'landing' ? 8 : 25) < end;
  const used = new Set<FoundEvent>();
  const out: Mark = {
    events: [],
    missed: [],
    invented: [],
    airwork: [],
    airworkMissed: [],
    airworkInvented: [],
    limits: [],
    limitsMissed: [],
    limitsInvented: [],
    offs: [],
  };
  for (const p of f.passes.filter(whole)) {
    const near = a.events
      .filter(
        (e) => !used.has(e) && e.kind === p.kind && e.runway === p.runway && Math.abs(momentOf(e) - at(p.atS)) < 15,
      )
      .sort((x, y) => Math.abs(momentOf(x) - at(p.atS)) - Math.abs(momentOf(y) - at(p.atS)))[0];
    if (near) {
      used.add(near);
      out.events.push({ flown: p, found: near });
    } else out.missed.push(p);
  }
  const edge = f.passes.filter((p) => !whole(p));
  out.invented = a.events.filter((e) => !used.has(e) && !edge.some((p) => Math.abs(momentOf(e) - at(p.atS)) < 25));
  const usedItems = new Set<TraceAnalysis['airwork'][number]>();
  for (const i of f.items) {
    const near = a.airwork.find(
      (e) =>
        !usedItems.has(e) && e.kind === i.kind && Math.min(e.endS, at(i.endS)) - Math.max(e.startS, at(i.startS)) > 0,
    );
    const inside = i.startS > seen.firstS + 8 && i.endS < end - 8;
    if (near) {
      usedItems.add(near);
      if (inside && shows(i, dev)) out.airwork.push({ flown: i, found: near });
    } else if (inside && shows(i, dev)) out.airworkMissed.push(i);
  }
  out.airworkInvented = a.airwork.filter((e) => !usedItems.has(e) && e.endS < at(end) - 8 && e.startS > 8);
  for (const l of f.limits) {
    const [by, s] = CLEAR[l.channel];
    const inGap = dev.gaps.some((g) => g.fromS < l.endS + 1 && g.toS > l.startS - 1);
    const found = a.exceedances.some(
      (e) => e.channel === l.channel && e.startS < at(l.endS) + 4 && e.startS + e.durationS > at(l.startS) - 4,
    );
    if (
      l.by < by ||
      l.endS - l.startS < s + 1 / dev.rateHz ||
      inGap ||
      !channelThere(l, dev) ||
      l.startS < seen.firstS + 1 ||
      l.endS > end - 1
    )
      continue;
    (found ? out.limits : out.limitsMissed).push(l);
  }
  out.limitsInvented = a.exceedances.filter(
    (e) =>
      !f.limits.some(
        (l) => l.channel === e.channel && e.startS < at(l.endS) + 5 && e.startS + e.durationS > at(l.startS) - 5,
      ),
  );
  const across = 2 * Math.hypot(dev.sigma.driftM, dev.sigma.whiteM);
  for (const { flown: p, found: e } of out.events) {
    if (!p.touch || !e.touchdown) continue;
    const t = e.touchdown;
    const q = p.touch;
    if (dev.gaps.some((g) => g.fromS < q.tS + 2 && g.toS > q.tS - 2)) continue;
    const u = (t as { uncertainty?: Record<string, number | null> }).uncertainty ?? {};
    const rate = dev.rateHz >= 4 ? '4 Hz and more' : 'below 4 Hz';
    const push = (name: string, key: string, found: number | null, flown: number, slack = 0) => {
      if (found === null) return;
      const error = found - flown;
      out.offs.push({ name, error, sd: u[key] ?? null, beyond: Math.max(0, Math.abs(error) - slack) });
    };
    push(`time, ${rate} [s]`, 'tS', t.tS, at(q.tS));
    // A position that is filtered lags: no analysis can know by how much.
    push(`along, ${rate} [m]`, 'alongM', t.alongM, q.alongM, across + dev.sigma.lagS * q.gsKt * 0.514444);
    push('across [m]', 'lateralM', t.lateralM, q.lateralM, across);
    push('IAS [kt]', 'iasKt', t.iasKt, q.iasKt);
    push('ground speed [kt]', 'gsKt', t.gsKt, q.gsKt);
    push('sink [fpm]', 'sinkFpm', t.sinkFpm, q.sinkFpm);
    push('crab [deg]', 'crabDeg', t.crabDeg, q.crabDeg);
    push('drift [kt]', 'driftKt', t.driftKt, q.driftKt);
    if (t.bounces !== null) push('bounces', 'bounces', t.bounces, q.bounces);
    if (e.rollout && p.swingDeg !== undefined) {
      const r = (e.rollout as { uncertainty?: Record<string, number | null> }).uncertainty ?? {};
      if (e.rollout.swingDeg !== null)
        out.offs.push({
          name: 'swing [deg]',
          error: e.rollout.swingDeg - p.swingDeg,
          sd: r.swingDeg ?? null,
          beyond: Math.abs(e.rollout.swingDeg - p.swingDeg),
        });
    }
  }
  for (const { flown: i, found: e } of out.airwork) {
    if (i.rolloutErrorDeg !== null && e.rolloutErrorDeg !== null)
      out.offs.push({
        name: 'roll-out error [deg]',
        error: e.rolloutErrorDeg - i.rolloutErrorDeg,
        sd: null,
        beyond: Math.abs(e.rolloutErrorDeg - i.rolloutErrorDeg),
      });
    if (/steep|reversal/.test(i.kind) && e.maxBankDeg !== null)
      out.offs.push({
        name: 'bank [deg]',
        error: e.maxBankDeg - i.maxBankDeg,
        sd: null,
        beyond: Math.abs(e.maxBankDeg - i.maxBankDeg),
      });
  }
  return out;
}
