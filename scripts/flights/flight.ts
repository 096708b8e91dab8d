/**
 * A random flight of the second recorder: a field, an aeroplane, a day and a lesson drawn from a seed, flown, with what
 * was flown written down and the context an analysis is asked in.
 */
import { seeded } from '@demo/random';
import type { TraceContext } from '@/domain/trace';
import { Aeroplane, type Air, FT, KT, type Machine, RAD } from './aeroplane';
import { type End, type FlownItem, type FlownPass, Pilot, type Script } from './pilot';

export interface TrueRow {
  t: number;
  /** Metres east, north, above the sea. */
  x: number;
  y: number;
  z: number;
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
export interface FlownLimit {
  channel: 'vne' | 'vfe' | 'gear' | 'g+' | 'g-' | 'map' | 'rpm' | 'cht';
  startS: number;
  endS: number;
  /** How far beyond, in the unit of the channel. */
  by: number;
}
export interface Flight {
  name: string;
  machine: Machine;
  rows: TrueRow[];
  passes: FlownPass[];
  items: FlownItem[];
  limits: FlownLimit[];
  context: TraceContext;
  /** Where the datum lies. */
  lat0: number;
  lon0: number;
  elevationM: number;
  startMs: number;
  lesson: 'circuits' | 'airwork';
}

const MACHINES: readonly Machine[] = [
  machine('light tailwheel', {
    tailwheel: true,
    vs0: 34,
    vs1: 38,
    cruise: 80,
    climb: 55,
    glide: 52,
    vne: 122,
    ratio: 9,
    rpmMax: 2600,
    rpmIdle: 800,
  }),
  machine('aerobatic', {
    tailwheel: true,
    vs0: 48,
    vs1: 52,
    cruise: 118,
    climb: 78,
    glide: 75,
    vne: 175,
    ratio: 9.5,
    rpmMax: 2700,
    rpmIdle: 850,
    aerobatic: true,
    gPos: 6,
    gNeg: -4,
  }),
  machine('trainer', {
    vs0: 42,
    vs1: 48,
    cruise: 104,
    climb: 73,
    glide: 66,
    vne: 152,
    ratio: 9,
    rpmMax: 2700,
    rpmIdle: 800,
    vfe: [
      { flapDeg: 10, kt: 105 },
      { flapDeg: 30, kt: 85 },
    ],
  }),
  machine('tourer', {
    gear: 'retractable',
    vs0: 54,
    vs1: 60,
    cruise: 142,
    climb: 88,
    glide: 82,
    vne: 190,
    ratio: 11,
    rpmMax: 2650,
    rpmIdle: 750,
    governed: true,
    mapMax: 29,
    chtMax: 238,
    vle: 135,
    vfe: [
      { flapDeg: 15, kt: 130 },
      { flapDeg: 30, kt: 106 },
    ],
  }),
  machine('light twin', {
    engines: 2,
    gear: 'retractable',
    vs0: 56,
    vs1: 62,
    cruise: 150,
    climb: 95,
    glide: 90,
    vne: 200,
    ratio: 10.5,
    rpmMax: 2700,
    rpmIdle: 750,
    governed: true,
    mapMax: 29.5,
    chtMax: 240,
    vle: 140,
    vfe: [
      { flapDeg: 10, kt: 140 },
      { flapDeg: 35, kt: 110 },
    ],
  }),
  machine('float', {
    vs0: 40,
    vs1: 45,
    cruise: 88,
    climb: 62,
    glide: 60,
    vne: 140,
    ratio: 7.5,
    rpmMax: 2650,
    rpmIdle: 800,
    vfe: [{ flapDeg: 20, kt: 80 }],
  }),
];
function machine(
  name: string,
  of: Partial<Machine> &
    Pick<Machine, 'vs0' | 'vs1' | 'cruise' | 'climb' | 'glide' | 'vne' | 'ratio' | 'rpmMax' | 'rpmIdle'>,
): Machine {
  return {
    name,
    engines: 1,
    gear: 'fixed',
    tailwheel: false,
    vfe: [{ flapDeg: 30, kt: Math.round(of.vs0 * 2.1) }],
    vle: null,
    governed: false,
    mapMax: null,
    chtMax: null,
    gPos: 3.8,
    gNeg: -1.52,
    aerobatic: false,
    ...of,
  };
}

type Draw = {
  random: () => number;
  normal: () => number;
  between: (a: number, b: number) => number;
  of: <T>(xs: readonly T[]) => T;
  chance: (p: number) => boolean;
};
export function drawing(seed: number): Draw {
  const random = seeded(seed);
  return {
    random,
    // Not the method of the product's recorder: a sum of four.
    normal: () => 1.7320508 * (random() + random() + random() + random() - 2),
    between: (a, b) => a + (b - a) * random(),
    of: <T>(xs: readonly T[]): T => xs[Math.floor(random() * xs.length)] as T,
    chance: (p) => random() < p,
  };
}

/** Metres to a degree, on the ellipsoid. */
export function perDegree(latDeg: number): { north: number; east: number } {
  const s = Math.sin(latDeg * RAD);
  const w = 1 - 0.00669438 * s * s;
  return {
    north: ((6378137 * (1 - 0.00669438)) / w ** 1.5) * RAD,
    east: (6378137 / Math.sqrt(w)) * Math.cos(latDeg * RAD) * RAD,
  };
}

interface Field {
  ends: End[];
  context: TraceContext['aerodrome'];
  lat0: number;
  lon0: number;
  elevationM: number;
  slope: number;
  holdsBack: number;
}
/** What a surface holds back, of the weight that rests on it. */
const HOLDS_BACK: Record<string, number> = { asphalt: 0.02, gravel: 0.035, grass: 0.06, water: 0.14 };
function fieldOf(d: Draw, m: Machine): Field {
  const lat0 = d.of([41.4, -33.2, 52.1, 12.7, 64.3]) + d.between(-0.4, 0.4);
  const lon0 = d.of([-6.6, 18.3, 179.97, -121.4, 5.2]) + d.between(-0.02, 0.02);
  const per = perDegree(lat0);
  const elevationM = d.of([4, 120, 410, 1180]) + d.between(0, 40);
  const inclined = d.chance(0.3) ? d.between(-0.015, 0.015) : 0;
  const surface = m.name === 'float' && d.chance(0.6) ? 'water' : d.of(['asphalt', 'grass', 'gravel']);
  const slope = surface === 'water' ? 0 : inclined;
  const ends: End[] = [];
  const runways: TraceContext['aerodrome']['runways'] = [];
  const strip = (
    bearing: number,
    lengthM: number,
    widthM: number,
    at: [number, number],
    surface: string,
    suffix: string,
  ) => {
    const far: [number, number] = [at[0] + Math.sin(bearing) * lengthM, at[1] + Math.cos(bearing) * lengthM];
    const pair = [
      { at, bearing },
      { at: far, bearing: bearing + Math.PI },
    ].map(({ at: p, bearing: b }) => {
      const deg = (((b / RAD) % 360) + 360) % 360;
      const ident = String(Math.round(deg / 10) || 36).padStart(2, '0') + suffix;
      ends.push({ ident, at: p, bearing: b, lengthM });
      const rise = suffix === '' ? slope * ((p[0] - 0) * Math.sin(bearing) + p[1] * Math.cos(bearing)) : 0;
      return {
        ident,
        thresholdLat: lat0 + p[1] / per.north,
        thresholdLon: ((lon0 + p[0] / per.east + 540) % 360) - 180,
        elevationFt: (elevationM + rise) / FT,
        trueBearingDeg: deg,
      };
    });
    runways.push({ id: pair.map((e) => e.ident).join('/'), surface, lengthM, widthM, ends: pair });
  };
  const bearing = d.between(0, 2 * Math.PI);
  strip(bearing, Math.round(d.between(m.cruise > 100 ? 1000 : 700, 1800)), d.of([18, 23, 30, 45]), [0, 0], surface, '');
  if (d.chance(0.35))
    strip(bearing + d.between(0.7, 1.8), 640, 25, [d.between(-300, 300), d.between(-900, -600)], 'grass', 'G');
  return {
    ends,
    lat0,
    lon0,
    elevationM,
    slope,
    holdsBack: HOLDS_BACK[surface] ?? 0.03,
    context: {
      ident: 'ZQQQ',
      name: 'Invented field',
      elevationFt: elevationM / FT,
      magneticVariationDeg: Math.round(d.between(-14, 14)),
      utcOffsetMin: d.of([0, 60, -420, 720]),
      runways,
    },
  };
}

/** What is flown on the day. */
function* lesson(p: Pilot, d: Draw, f: Field, kind: Flight['lesson'], limits: boolean): Script {
  const m = p.plane.machine;
  // The end nearer to the wind, mostly.
  const wind = p.plane.air;
  const into = [...f.ends.slice(0, 2)].sort(
    (a, b) => Math.cos(b.bearing - wind.fromDeg * RAD) - Math.cos(a.bearing - wind.fromDeg * RAD),
  );
  const e = (wind.meanMs > 3 || d.chance(0.85) ? into[0] : into[1]) as End;
  const fields = (o: Partial<Parameters<Pilot['arrive']>[1]> & { end: Parameters<Pilot['arrive']>[1]['end'] }) => ({
    slopeDeg: d.between(3, 5.5),
    aimM: d.between(60, 0.25 * e.lengthM),
    touchSink: d.chance(0.2) ? d.between(0.9, 1.5) : d.between(0.12, 0.8),
    fastKt: d.chance(0.25) ? d.between(4, 12) : d.between(-2, 4),
    lowFt: d.between(25, 220),
    decrab: d.between(0.2, 1),
    offM: d.normal() * 2.5,
    flapDeg: d.of(m.vfe).flapDeg,
    ...o,
  });
  const toStart = function* (): Script {
    const s: [number, number] = [Math.sin(e.bearing), Math.cos(e.bearing)];
    const at = (x: number, y: number): [number, number] => [
      e.at[0] + x * s[0] + y * s[1],
      e.at[1] + x * s[1] - y * s[0],
    ];
    if (d.chance(0.5)) {
      // Along the side of it.
      yield* p.taxi(at(p.where(e).x, 110));
      yield* p.taxi(at(-5, 110));
      yield* p.wait(d.between(8, 40));
      yield* p.taxi(at(8, 18), 4, 9);
    } else {
      // Back along the runway itself, and round.
      yield* p.taxi(at(p.where(e).x, 8), 6, 8);
      yield* p.taxi(at(30, 3), 12);
      yield* p.taxi(at(12, 6), 3, 6);
    }
    yield* p.taxi(at(70, 0), 3, 10);
    yield* p.wait(d.between(1, 12));
  };
  yield* p.wait(d.between(5, 20));
  yield* toStart();
  if (d.chance(0.12)) {
    yield* p.fastTaxi(e);
    yield* toStart();
  }
  yield* p.takeOff(e);
  const side = d.chance(0.75) ? -1 : 1;
  const ft = d.of([700, 800, 1000, 1000]) * (m.cruise > 130 ? 1.2 : 1);
  const around = () =>
    p.circuit(
      e,
      side,
      ft,
      d.between(900, 1400) * (m.cruise > 130 ? 1.5 : 1),
      d.between(900, 1500) * (m.cruise > 130 ? 1.4 : 1),
    );
  if (kind === 'airwork') {
    yield* p.climbTo(d.between(400, 600), e.bearing);
    let track = e.bearing + d.between(-0.9, 0.9);
    const high = d.between(2800, 4200);
    yield* p.climbTo(high, track);
    yield* p.straight(d.between(15, 30), high, 0.9 * m.cruise, track);
    type Item = () => Script;
    /** Items before which one looks about, by their place in the list. */
    const LOOKS: Record<number, FlownItem['kind']> = {
      0: 'steep-turn',
      1: 'slow-flight',
      2: 'stall',
      3: 'stall',
      4: 'climb-reversal',
      7: 'loop',
      8: 'roll',
    };
    const turnBank = () => d.between(43, 54);
    const all: [number, Item][] = [
      [3, () => p.steepTurn(d.chance(0.5) ? 1 : -1, turnBank(), d.of([360, 360, 360, 720, 180]), d.normal() * 7)],
      [2, () => p.slowFlight(d.between(35, 80), d.between(1.08, 1.22), d.of([0, m.vfe[0]?.flapDeg ?? 0]))],
      [2, () => p.stall(false)],
      [1.5, () => p.stall(true)],
      [m.engines === 1 ? 1.5 : 0.5, () => p.reversal(d.chance(0.5) ? 1 : -1, d.between(26, 34))],
      [1, () => p.emergencyDescent(d.of([-1, 0, 1]), d.between(1300, 2000))],
      [m.engines === 2 ? 3 : 0, () => p.oneEngine(d.of([0, 1]), d.between(60, 140))],
      [m.aerobatic ? 3 : 0, () => p.loop()],
      [m.aerobatic ? 2 : 0, () => p.aileronRoll(d.chance(0.5) ? 1 : -1)],
      [1, () => p.glideDown(d.between(900, 1400))],
      [1.5, () => p.turn((d.chance(0.5) ? 1 : -1) * d.between(0.7, 2.1), d.between(14, 30), high, 0.85 * m.cruise)],
      [limits ? 4 : 0, () => p.overspeed(d.chance(0.6) ? m.vne + d.between(3, 9) : m.vne - d.between(3, 8), 0)],
      [
        limits ? 3 : 0,
        () => {
          const v = d.of(m.vfe);
          return p.overspeed(v.kt + d.between(4, 12), v.flapDeg);
        },
      ],
    ];
    const sum = all.reduce((a, [w]) => a + w, 0);
    for (let k = 0; k < 5; k++) {
      let r = d.random() * sum;
      const which = Math.max(
        0,
        all.findIndex(([w]) => (r -= w) < 0),
      );
      const item = all[which]?.[1] ?? (() => p.stall(false));
      track = p.plane.heading;
      if (p.ft < high - 300) yield* p.climbTo(high, track);
      if (d.chance(0.45)) yield* p.clearing(d.chance(0.5) ? 1 : -1, d.chance(0.4) ? (LOOKS[which] ?? null) : null);
      yield* p.straight(d.between(8, 25), Math.max(p.ft, 1500), 0.85 * m.cruise, p.plane.heading);
      yield* item();
      yield* p.straight(d.between(10, 30), Math.max(p.ft, 1500), 0.85 * m.cruise, p.plane.heading);
    }
    yield* p.joinFinal(e, 1000, d.between(3500, 6000));
  } else yield* around();
  const arrivals = kind === 'airwork' ? d.of([1, 2]) : d.of([3, 4, 5, 6]);
  for (let k = 0; k < arrivals; k++) {
    const last = k === arrivals - 1;
    const end = last
      ? ('landing' as const)
      : d.of([
          'touch-and-go',
          'touch-and-go',
          'touch-and-go',
          'go-around',
          'low-pass',
          'stop-and-go',
          'landing',
          'bounce-away',
        ] as const);
    const over = fields({ end });
    if (end === 'bounce-away') over.touchSink = d.between(1.35, 1.8);
    if (end === 'low-pass') over.lowFt = d.between(20, 75);
    yield* p.arrive(e, over);
    if (last) {
      // Gone around from the last one: again, until it is down.
      for (let n = 0; n < 5 && p.ft > 15; n++) {
        yield* around();
        yield* p.arrive(e, fields({ end: 'landing', aimM: 40, fastKt: 0 }));
      }
      break;
    }
    if (end === 'landing' || p.passes[p.passes.length - 1]?.kind === 'landing') {
      yield* toStart();
      yield* p.takeOff(e);
    }
    yield* around();
  }
  const s: [number, number] = [Math.sin(e.bearing), Math.cos(e.bearing)];
  const { x } = p.where(e);
  yield* p.taxi([e.at[0] + (x + 40) * s[0] + 90 * s[1], e.at[1] + (x + 40) * s[1] - 90 * s[0]], 5);
  yield* p.wait(8);
}

/** Limits a true channel went beyond, for how long and by how much. */
function limitsOf(rows: readonly TrueRow[], m: Machine): FlownLimit[] {
  const out: FlownLimit[] = [];
  const watch = (channel: FlownLimit['channel'], beyond: (r: TrueRow) => number) => {
    let open: FlownLimit | null = null;
    for (const r of rows) {
      const by = beyond(r);
      if (by > 0) {
        if (open && r.t - open.endS < 4) {
          open.endS = r.t;
          open.by = Math.max(open.by, by);
        } else {
          open = { channel, startS: r.t, endS: r.t, by };
          out.push(open);
        }
      }
    }
  };
  watch('vne', (r) => r.ias - m.vne);
  watch('vfe', (r) => (r.flap > 0.6 ? r.ias - (m.vfe.find((v) => v.flapDeg >= r.flap - 0.5)?.kt ?? 999) : -1));
  if (m.vle !== null) watch('gear', (r) => (r.gear > 0.05 ? r.ias - (m.vle ?? 999) : -1));
  watch('g+', (r) => r.g - m.gPos);
  watch('rpm', (r) => Math.max(r.rpm[0], m.engines === 2 ? r.rpm[1] : 0) - m.rpmMax);
  if (m.mapMax !== null) watch('map', (r) => Math.max(r.map[0], m.engines === 2 ? r.map[1] : 0) - (m.mapMax ?? 99));
  if (m.chtMax !== null) watch('cht', (r) => r.cht - (m.chtMax ?? 999));
  return out;
}

/** A touch harder than this no gear survives, m/s. */
const WRECK_MS = 4;
/** A flight of a number of a seed: always the same. */
export function flightOf(seed: number, k: number, again = 0): Flight {
  const d = drawing(seed * 1009 + k * 31 + 5 + again * 7_654_321);
  const m = d.of(MACHINES);
  const f = fieldOf(d, m);
  const kind = d.chance(0.5) ? 'circuits' : 'airwork';
  const limits = d.chance(0.4);
  const into = (f.ends[0]?.bearing ?? 0) / RAD + d.of([0, 180]);
  const air: Air = {
    fromDeg: into + d.normal() * 35,
    meanMs: d.of([0.5, 2.5, 4, 6.5]),
    gustMs: d.of([0.1, 0.4, 0.8, 1.5]),
  };
  const e = f.ends[0] as End;
  const s: [number, number] = [Math.sin(e.bearing), Math.cos(e.bearing)];
  const plane = new Aeroplane(
    m,
    air,
    d.normal,
    (x, y) => {
      const along = x * s[0] + y * s[1];
      return f.slope * Math.max(0, Math.min(e.lengthM, along));
    },
    [0.3 * e.lengthM * s[0] + 130 * s[1], 0.3 * e.lengthM * s[1] - 130 * s[0], 0],
    e.bearing,
    f.elevationM,
    f.holdsBack,
  );
  plane.s.at[2] = plane.groundAt(plane.s.at[0], plane.s.at[1]);
  const pilot = new Pilot(plane, d.random, d.normal, d.between(0, 1));
  const rows: TrueRow[] = [];
  const script = lesson(pilot, d, f, kind, limits);
  for (let i = 0; i < 150_000 && !script.next().done; i++) {
    plane.step(pilot.hands);
    const over = plane.overGround;
    rows.push({
      t: plane.s.t,
      x: plane.s.at[0],
      y: plane.s.at[1],
      z: plane.s.at[2] + f.elevationM,
      gs: Math.hypot(over[0], over[1]) / KT,
      track: Math.atan2(over[0], over[1]) / RAD,
      heading: plane.heading / RAD,
      ias: plane.airspeed / KT,
      vs: (over[2] / FT) * 60,
      pitch: plane.pitch / RAD,
      bank: plane.s.onGround ? 0 : plane.bank / RAD,
      g: plane.s.felt,
      rpm: plane.rpm,
      map: plane.map,
      cht: plane.s.cht,
      flap: plane.s.flapDeg,
      gear: plane.s.gear,
    });
  }
  // What ends as a wreck is no lesson: another is flown in its place.
  if (plane.contacts.some((c) => c.sink > WRECK_MS)) return flightOf(seed, k, again + 1);
  // A limit that was all but reached: what a noisy sensor shows beyond it was never flown.
  const reached = rows.reduce((a, r) => Math.max(a, r.rpm[0], m.engines === 2 ? r.rpm[1] : 0), 0);
  const rpmMax = d.chance(0.3) ? Math.ceil(reached + d.between(2, 12)) : m.rpmMax;
  return {
    name: `seed ${seed}, flight ${k} (${m.name}, ${kind})`,
    machine: m,
    rows,
    passes: pilot.passes,
    items: pilot.items,
    limits: limitsOf(rows, { ...m, rpmMax }),
    lat0: f.lat0,
    lon0: f.lon0,
    elevationM: f.elevationM,
    startMs: Date.UTC(
      2026,
      d.of([0, 5, 9]),
      1 + Math.floor(d.random() * 27),
      d.of([7, 13, 23]),
      Math.floor(d.random() * 60),
      Math.floor(d.random() * 60),
    ),
    lesson: kind,
    context: {
      schema: 'trace-context/1',
      aerodrome: f.context,
      airframe: {
        registration: 'ZQ-AAA',
        type: m.name,
        asiUnit: 'kt',
        gear: m.gear,
        tailwheel: m.tailwheel,
        engines: m.engines,
        vs0Kt: m.vs0,
        vs1Kt: m.vs1,
        vrefKt: Math.round(1.3 * m.vs0),
        limits: {
          vneKt: m.vne,
          vfeKt: m.vfe,
          vloKt: null,
          vleKt: m.vle,
          gPos: m.gPos,
          gNeg: m.gNeg,
          rpmMax,
          mapMaxInHg: m.mapMax,
          chtMaxC: m.chtMax,
        },
      },
      aimPointM: 150,
      slopeDeg: 4,
      gates: [{ name: 'short final', distanceM: 500, targetIas: Math.round(1.3 * m.vs0), unit: 'kt' }],
    },
  };
}
