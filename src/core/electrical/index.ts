/**
 * What is lost when, after the charging has failed. Amperes, ampere-hours, minutes; constant current, no Peukert
 * correction.
 */
import { needNumbers } from '../guard';
import { SLACK } from '../constants';

export interface Consumer {
  name: string;
  /** Average draw; 0 for one that only needs the bus. */
  amps: number;
  /** Minutes after the failure at which it is switched off; null = left on. */
  shedAtMin: number | null;
  dependsOn: readonly string[];
  /** Minutes it lives on its own cell after the bus dies; 0 = none. */
  backupMin: number;
}
export interface ElectricalEvent {
  tMin: number;
  name: string;
  cause: 'shed' | 'battery' | 'dependency';
}
export interface ElectricalTimeline {
  enduranceAllOnMin: number | null;
  busDeadMin: number | null;
  events: ElectricalEvent[];
}

const DEFAULT_USABLE_SHARE = 0.7;

/**
 * Timeline of losses with the shedding given. A consumer draws until it is shed or one it depends on is lost; sheds at
 * or after the bus dies do not happen; a dependency takes its dependants at once (their own cell does not help),
 * through any number of steps.
 * Source: constant current over the rated capacity, no Peukert correction.
 * @param usableShare share of the battery that may be used; null = 0.7
 * @returns `busDeadMin` null when nothing draws after the last shed
 * @throws BadNumber when a number handed in is none
 */
export function electricalTimeline(input: {
  batteryAh: number;
  usableShare: number | null;
  consumers: readonly Consumer[];
}): ElectricalTimeline {
  needNumbers('electricalTimeline', input);
  const { consumers } = input;
  const usableAh = input.batteryAh * (input.usableShare ?? DEFAULT_USABLE_SHARE);
  const total = consumers.reduce((a, c) => a + c.amps, 0);
  const offAt = lossTimes(consumers, (c) => c.shedAtMin);
  const busDeadMin = busDeath(consumers, offAt, usableAh);
  const own = (c: Consumer): ElectricalEvent | null => {
    const shed = c.shedAtMin !== null && (busDeadMin === null || c.shedAtMin < busDeadMin - SLACK) ? c.shedAtMin : null;
    if (shed !== null) return { tMin: shed, name: c.name, cause: 'shed' };
    return busDeadMin === null ? null : { tMin: busDeadMin + c.backupMin, name: c.name, cause: 'battery' };
  };
  const lost = lossTimes(consumers, (c) => own(c)?.tMin ?? null);
  const events = consumers.flatMap((c): ElectricalEvent[] => {
    const mine = own(c);
    const at = lost.get(c.name) ?? null;
    if (at === null) return [];
    return mine !== null && mine.tMin <= at + SLACK ? [mine] : [{ tMin: at, name: c.name, cause: 'dependency' }];
  });
  return {
    enduranceAllOnMin: total === 0 ? null : (usableAh / total) * 60,
    busDeadMin,
    events: events
      .map((e, i) => ({ e, i }))
      .sort((a, b) => a.e.tMin - b.e.tMin || a.i - b.i)
      .map(({ e }) => e),
  };
}

/** When each consumer is lost: its own time, or the earliest of what it depends on. */
function lossTimes(consumers: readonly Consumer[], own: (c: Consumer) => number | null): Map<string, number | null> {
  const at = new Map(consumers.map((c) => [c.name, own(c)]));
  for (let pass = 0; pass < consumers.length; pass++) {
    for (const c of consumers) {
      for (const dep of c.dependsOn) {
        const theirs = at.get(dep) ?? null;
        const mine = at.get(c.name) ?? null;
        if (theirs !== null && (mine === null || theirs < mine)) at.set(c.name, theirs);
      }
    }
  }
  return at;
}

function busDeath(consumers: readonly Consumer[], offAt: Map<string, number | null>, usableAh: number): number | null {
  const changes = [...new Set([...offAt.values()].filter((t): t is number => t !== null && t > 0))].sort(
    (a, b) => a - b,
  );
  let leftAmpMin = usableAh * 60;
  let now = 0;
  for (const next of [...changes, Infinity]) {
    const load = consumers
      .filter((c) => {
        const off = offAt.get(c.name) ?? null;
        return off === null || off > now;
      })
      .reduce((a, c) => a + c.amps, 0);
    if (load > 0 && leftAmpMin / load <= next - now) return now + leftAmpMin / load;
    if (next === Infinity) return null;
    leftAmpMin -= load * (next - now);
    now = next;
  }
  return null;
}
