/**
 * What a device makes of a flight: positions that drift, are filtered and cut to so many digits; a static system that
 * lags and reads off; an accelerometer that is sampled or keeps its peak; rows that jitter, are lost, repeat or go back.
 */
import { FT } from './aeroplane';
import { drawing, type Flight, perDegree, type TrueRow } from './flight';

export type Kind = 'tablet' | 'panel' | 'engine';
export interface Device {
  kind: Kind;
  rateHz: number;
  /** What it records beside time and place. */
  has: {
    alt: 'gps' | 'baro' | 'pressure';
    gs: boolean;
    vs: boolean;
    ias: boolean;
    heading: boolean;
    attitude: boolean;
    g: boolean;
    rpm: boolean;
    flap: boolean;
  };
  sigma: {
    driftM: number;
    whiteM: number;
    altM: number;
    iasKt: number;
    /** Seconds the position lags. */ lagS: number;
  };
  gaps: { fromS: number; toS: number }[];
}
export interface Sensed {
  /** Instant as written, s of the flight. */
  t: number;
  lat: number;
  lon: number;
  altFt: number;
  pressFt: number;
  gs: number;
  track: number;
  heading: number;
  ias: number;
  vs: number;
  pitch: number;
  bank: number;
  g: number;
  rpm: [number, number];
  map: [number, number];
  cht: number;
  flap: number;
  gear: number;
}
export function deviceOf(f: Flight, seed: number): Device {
  const d = drawing(seed);
  const kind = d.of(['tablet', 'tablet', 'panel', 'panel', 'panel', 'engine'] as const);
  const full = kind === 'panel';
  const gaps: Device['gaps'] = [];
  const lengthS = f.rows[f.rows.length - 1]?.t ?? 0;
  if (d.chance(0.3))
    for (let k = 0; k < d.of([1, 2]); k++) {
      const fromS = d.between(0.1, 0.9) * lengthS;
      gaps.push({ fromS, toS: fromS + d.between(4, 11) });
    }
  const over = d.chance(0.08) ? d.of(f.passes.filter((p) => p.touch)) : undefined;
  if (over) gaps.push({ fromS: over.atS - d.between(1, 3), toS: over.atS + d.between(1.5, 4) });
  return {
    kind,
    rateHz: kind === 'tablet' ? d.of([1, 1, 2, 4, 5]) : kind === 'panel' ? d.of([1, 2, 4, 5, 8, 10]) : 1,
    has: {
      alt: kind === 'tablet' ? 'gps' : d.of(['gps', 'baro', 'pressure'] as const),
      gs: d.chance(0.8),
      vs: full && d.chance(0.85),
      ias: kind !== 'tablet' && d.chance(0.92),
      heading: full && d.chance(0.9),
      attitude: full && d.chance(0.8),
      g: full && d.chance(0.75),
      rpm: kind !== 'tablet',
      flap: full && d.chance(0.7),
    },
    sigma: {
      driftM: d.between(0.6, 2.5),
      whiteM: d.of([0.05, 0.15, 0.4]),
      altM: d.between(1, 3.5),
      iasKt: d.between(0.2, 0.8),
      lagS: d.of([0.02, 0.2, 0.4]),
    },
    gaps,
  };
}

/** Rows as the device writes them. @param from first and last second of the flight it was running */
export function recorded(f: Flight, dev: Device, seed: number, from: { fromS: number; toS: number }): Sensed[] {
  const d = drawing(seed);
  const m = perDegree(f.lat0);
  const out: Sensed[] = [];
  const dt = (f.rows[1]?.t ?? 0.04) - (f.rows[0]?.t ?? 0);
  const drift = { x: dev.sigma.driftM * d.normal(), y: dev.sigma.driftM * d.normal(), z: dev.sigma.altM * d.normal() };
  const wander = { ...drift };
  const keep = Math.exp(-1 / (dev.rateHz * d.between(150, 500)));
  const walk = (v: number, sigma: number) => v * keep + sigma * Math.sqrt(1 - keep * keep) * d.normal();
  const lag = {
    gps: dev.sigma.lagS,
    ias: d.between(0.3, 1),
    alt: d.between(0.1, 0.6),
    vs: d.between(0.5, 1.6),
    g: d.of([0.02, 0.06]),
  };
  const late = d.of([0, 0, 0.1, 0.25]);
  const bias = {
    heading: d.normal() * 1.5,
    pitch: d.normal(),
    bank: d.normal() * 0.8,
    ias: d.normal() * 0.8,
    baroFt: d.normal() * 60,
    qnhFt: d.normal() * 350,
    geoidFt: d.between(90, 170),
  };
  const peaks = d.chance(0.5);
  const slow = { x: 0, y: 0, z: 0, ias: 0, alt: 0, vs: 0, g: 1 };
  let begun = false;
  let next = from.fromS;
  let peak = 1;
  const jitter = d.of([0, 0, 0.01, 0.04]);
  const digits = d.of([6, 7, 7, 8]);
  const cut = (x: number, n: number) => Math.round(x * 10 ** n) / 10 ** n;
  const stepIas = d.of([0.1, 0.5, 1]);
  const stepAlt = d.of([0.1, 1, 1, 3.28084]);
  const to = (v: number, now: number, tau: number) => v + (now - v) * Math.min(1, dt / Math.max(dt, tau));
  const add = (r: TrueRow, t: number) => {
    // A receiver smooths what it drifts by.
    const follow = 1 - Math.exp(-1 / (16 * dev.rateHz));
    for (const k of ['x', 'y', 'z'] as const) {
      wander[k] = walk(wander[k], k === 'z' ? dev.sigma.altM : dev.sigma.driftM);
      drift[k] += (wander[k] - drift[k]) * follow;
    }
    const w = dev.sigma.whiteM;
    const lat = f.lat0 + (slow.y + drift.y + w * d.normal()) / m.north;
    const lon = f.lon0 + (slow.x + drift.x + w * d.normal()) / m.east;
    const baro = slow.alt / FT + bias.baroFt;
    const gps = (slow.z + drift.z + 1.4 * w * d.normal()) / FT;
    out.push({
      t,
      lat: cut(lat, digits),
      lon: cut(((lon + 540) % 360) - 180, digits),
      altFt: cut((dev.has.alt === 'gps' ? gps : baro + 0.8 * d.normal()) / stepAlt, 0) * stepAlt,
      pressFt: cut((slow.alt / FT + bias.qnhFt + d.normal()) / stepAlt, 0) * stepAlt,
      gs: cut(Math.max(0, r.gs + 0.15 * d.normal()), 1),
      track: (r.track + (r.gs < 3 ? 40 * d.normal() : 8 * (d.normal() / Math.max(8, r.gs))) + 720) % 360,
      heading: (r.heading + bias.heading + 0.3 * d.normal() + 720) % 360,
      // A dial that is silent when slow.
      ias:
        slow.ias < 18 ? 0 : cut(Math.max(0, slow.ias + bias.ias + dev.sigma.iasKt * d.normal()) / stepIas, 0) * stepIas,
      vs: cut((slow.vs + 12 * d.normal()) / 10, 0) * 10,
      pitch: r.pitch + bias.pitch + 0.25 * d.normal(),
      bank: r.bank + bias.bank + 0.3 * d.normal(),
      g: cut((peaks ? peak : slow.g) + 0.015 * d.normal(), 3),
      rpm: r.rpm.map((x) => cut((x + 7 * d.normal()) / 10, 0) * 10) as [number, number],
      map: r.map.map((x) => cut(x + 0.06 * d.normal(), 1)) as [number, number],
      cht: cut(r.cht + 0.6 * d.normal(), 0),
      flap: r.flap,
      gear: r.gear > 0.02 ? 1 : 0,
    });
  };
  for (const r of f.rows) {
    if (!begun) Object.assign(slow, { x: r.x, y: r.y, z: r.z, ias: r.ias, alt: r.z, vs: r.vs, g: r.g });
    begun = true;
    slow.x = to(slow.x, r.x, lag.gps);
    slow.y = to(slow.y, r.y, lag.gps);
    slow.z = to(slow.z, r.z, lag.gps * 1.5);
    slow.alt = to(slow.alt, r.z, lag.alt);
    slow.ias = to(slow.ias, r.ias, lag.ias);
    slow.vs = to(slow.vs, r.vs, lag.vs);
    slow.g = to(slow.g, r.g, lag.g);
    peak = Math.abs(r.g - 1) > Math.abs(peak - 1) ? r.g : peak;
    if (r.t < next || r.t > from.toS) continue;
    next += 1 / dev.rateHz;
    const lost = d.chance(0.004) || dev.gaps.some((g) => r.t > g.fromS && r.t < g.toS);
    if (!lost) {
      add(r, r.t + late + jitter * d.normal() * (1 / dev.rateHz));
      if (d.chance(0.002)) out.push({ ...(out[out.length - 1] as Sensed) });
      if (d.chance(0.0005)) out.push({ ...(out[out.length - 1] as Sensed), t: r.t - 5 });
    }
    peak = r.g;
  }
  return out;
}
