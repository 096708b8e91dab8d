import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, describe, expect, it } from 'vitest';
import { seeded } from '@demo/random';
import {
  type Arrival,
  GOOD_SENSORS,
  type Flown,
  type RecorderPlan,
  type Sensors,
  csvOf,
  flyCircuits,
  gpxOf,
  igcOf,
  onEarth,
  sense,
} from '@/core/recorder';
import { type Trace, analyseTrace, readTrace } from '@/core/trace';
import { TraceAnalysis, TraceContext } from '@/domain/trace';

const runway = {
  ident: '22',
  thresholdLat: 41.5,
  thresholdLon: -6.7,
  trueBearingDeg: 218,
  lengthM: 900,
  elevationFt: 1345,
};
const far = onEarth(runway, 900, 0);
const context: TraceContext = TraceContext.parse({
  schema: 'trace-context/1',
  aerodrome: {
    ident: 'ZPAV',
    name: 'Pedra Alva',
    elevationFt: 1345,
    magneticVariationDeg: -2,
    utcOffsetMin: 0,
    runways: [
      {
        id: '04/22',
        surface: 'asphalt',
        lengthM: 900,
        widthM: 18,
        ends: [
          { ident: '22', thresholdLat: 41.5, thresholdLon: -6.7, elevationFt: 1345, trueBearingDeg: 218 },
          { ident: '04', thresholdLat: far.lat, thresholdLon: far.lon, elevationFt: 1345, trueBearingDeg: 38 },
        ],
      },
    ],
  },
  airframe: {
    registration: 'ZP-URZ',
    type: 'serrana-urze',
    asiUnit: 'mph',
    gear: 'fixed',
    tailwheel: true,
    engines: 1,
    vs0Kt: 38,
    vs1Kt: 40,
    vrefKt: 52,
    limits: {
      vneKt: 63,
      vfeKt: null,
      vloKt: null,
      vleKt: null,
      gPos: 3.8,
      gNeg: -1.5,
      rpmMax: null,
      mapMaxInHg: null,
      chtMaxC: null,
    },
  },
  aimPointM: 60,
  slopeDeg: null,
  gates: [{ name: 'Final', distanceM: 700, targetIas: 62, unit: 'mph' }],
});
const KINDS: Arrival['end'][] = ['touch-and-go', 'go-around', 'low-pass', 'touch-and-go', 'stop-and-go'];
function flight(seed: number): { plan: RecorderPlan; flown: Flown } {
  const r = seeded(seed);
  const one = (end: Arrival['end']): Arrival => ({
    end,
    alongM: 60 + r() * 200,
    lateralM: (r() - 0.5) * 5,
    crabDeg: (r() - 0.5) * 8,
    sinkFpm: 80 + r() * 250,
    bounces: r() < 0.3 ? 1 : 0,
    swingDeg: (r() - 0.5) * 14,
    touchKt: 48,
    lowestFt: 25 + r() * 60,
  });
  const plan: RecorderPlan = {
    runway,
    windFromDeg: 200 + r() * 60,
    windKt: r() * 12,
    speeds: { liftOff: 48, climb: 60, downwind: 65, base: 60, final: 55 },
    circuitFt: 1000,
    slopeDeg: 4.5,
    side: r() < 0.5 ? 'left' : 'right',
    arrivals: [
      ...Array.from({ length: 4 }, () => one(KINDS[Math.floor(r() * KINDS.length)] ?? 'touch-and-go')),
      one('full-stop'),
    ],
  };
  return { plan, flown: flyCircuits(plan) };
}
const START = Date.UTC(2026, 10, 24, 9);
const read = (text: string): Trace => {
  const t = readTrace(text);
  if (!t.ok) throw new Error(t.why.code);
  return t.trace;
};
type Traced = { flown: Flown; analysis: ReturnType<typeof analyseTrace> };
const tracedOnce = new Map<string, Traced>();
/** One flight as these sensors saw it; analysed once a run. */
const traced = (seed: number, sensors: Partial<Sensors> = {}, air = true): Traced => {
  const key = JSON.stringify([seed, sensors, air]);
  const known = tracedOnce.get(key) ?? trace(seed, sensors, air);
  tracedOnce.set(key, known);
  return known;
};
const trace = (seed: number, sensors: Partial<Sensors>, air: boolean): Traced => {
  const { flown } = flight(seed);
  return {
    flown,
    analysis: analyseTrace(
      read(csvOf(sense(flown, runway, { ...GOOD_SENSORS, ...sensors }, seeded(seed + 500)), START, air)),
      context,
    ),
  };
};
const NAME = (kind: string) => (kind === 'full-stop' ? 'landing' : kind);
/** Pairs what was flown with what was found; leaves over what was missed or invented. */
function paired(flown: Flown, events: TraceAnalysis['events']) {
  const used = new Set<number>();
  const pairs = flown.events.flatMap((t) => {
    const when = t.touchdownS ?? t.lowestS ?? t.liftoffS ?? 0;
    const i = events.findIndex(
      (e, k) =>
        !used.has(k) &&
        e.kind === NAME(t.kind) &&
        Math.abs((e.touchdown?.tS ?? e.lowestS ?? e.liftoff?.tS ?? 0) - when) < (t.lowestS === null ? 8 : 25),
    );
    const e = events[i];
    if (!e) return [];
    used.add(i);
    return [{ t, e }];
  });
  return { pairs, missed: flown.events.length - pairs.length, invented: events.length - used.size };
}
const SEEDS = [97, 194, 291, 388, 485, 582, 679, 776];

describe('events along a runway', () => {
  it.each([
    [10, true],
    [10, false],
    [5, true],
    [5, false],
  ] as const)(
    'at %d Hz, air data %s: every one found, none invented, touches at their time and place',
    (rateHz, air) => {
      const late: number[] = [];
      for (const seed of SEEDS) {
        const { flown, analysis } = traced(seed, { rateHz }, air);
        const { pairs, missed, invented } = paired(flown, analysis.events);
        expect({ seed, missed, invented }).toEqual({ seed, missed: 0, invented: 0 });
        for (const { t, e } of pairs) {
          if (t.touchdownS === null || !e.touchdown) continue;
          late.push(Math.abs(e.touchdown.tS - t.touchdownS));
          // Half a metre a sample and a metre of wander are the sensor's own.
          expect(Math.abs((e.touchdown.lateralM ?? 99) - (t.lateralM ?? 0))).toBeLessThan(4);
          if (air) expect(Math.abs((e.touchdown.iasKt ?? 99) - (t.touchKt ?? 0))).toBeLessThan(4);
          else
            expect([e.touchdown.iasKt, e.touchdown.crabDeg, e.touchdown.peakG, e.touchdown.bounces]).toEqual([
              null,
              null,
              null,
              null,
            ]);
        }
      }
      late.sort((a, b) => a - b);
      expect(late[Math.floor(late.length * 0.9)] ?? 99).toBeLessThan(air ? 0.5 : 2);
    },
  );
  it('measures crab, swing and bounces where a compass and an accelerometer saw them', () => {
    const off: number[] = [];
    const swings: number[] = [];
    let right = 0;
    let all = 0;
    for (const seed of SEEDS) {
      const { flown, analysis } = traced(seed, { rateHz: 10 });
      for (const { t, e } of paired(flown, analysis.events).pairs) {
        if (t.touchdownS === null || !e.touchdown) continue;
        off.push(Math.abs((e.touchdown.crabDeg ?? 99) - t.crabDeg));
        if (e.kind !== 'touch-and-go' && Math.abs(t.swingDeg) > Math.abs(t.crabDeg))
          swings.push(Math.abs((e.rollout?.swingDeg ?? 99) - t.swingDeg));
        all++;
        if (e.touchdown.bounces === t.bounces) right++;
      }
    }
    off.sort((a, b) => a - b);
    expect(off[Math.floor(off.length * 0.8)] ?? 99).toBeLessThan(2.5);
    expect(swings.length).toBeGreaterThan(0);
    expect(Math.max(...swings)).toBeLessThan(2.5);
    expect(right / all).toBeGreaterThan(0.85);
  });
  it('the gate is where its distance says, its speed against its target in knots', () => {
    const { analysis } = traced(97);
    const gates = analysis.events.flatMap((e) => e.gates ?? []);
    expect(gates.length).toBeGreaterThan(0);
    for (const g of gates) {
      expect(g.targetKt).toBeCloseTo(53.9, 1);
      expect(g.deviationKt).toBeCloseTo((g.iasKt ?? 0) - 53.9, 1);
      expect(Math.abs((g.iasKt ?? 0) - 55)).toBeLessThan(3);
    }
  });
  it('a fast taxi along the runway is no event, nor a flight elsewhere', () => {
    const rows = Array.from({ length: 240 }, (_, i) => {
      const v = Math.min(i, 240 - i) * 0.1;
      const p = onEarth(runway, 60 + i * 3, 0);
      return `${new Date(START + i * 500).toISOString()},${p.lat.toFixed(8)},${p.lon.toFixed(8)},${1345 + 30},${v}`;
    });
    expect(analyseTrace(read(['time,lat,lon,alt gps (ft),gs (m/s)', ...rows].join('\n')), context).events).toEqual([]);
    const away = analyseTrace(read('elapsed,lat,lon\n0,10,10\n1,10,10.001\n2,10,10.002'), context);
    expect(away.events).toEqual([]);
    expect(away.source.warnings.map((w) => w.code)).toContain('far-from-field');
  });
  it('says when no ground run sets the height, and when there is no height', () => {
    const { flown } = flight(97);
    const airborne = sense(flown, runway, GOOD_SENSORS, seeded(1)).filter((r) => r.tS > 90 && r.tS < 200);
    expect(analyseTrace(read(csvOf(airborne, START)), context).source.warnings.map((w) => w.code)).toContain(
      'height-not-calibrated',
    );
    const flat = analyseTrace(read('elapsed,lat,lon\n0,41.5,-6.7\n1,41.5001,-6.7\n2,41.5002,-6.7'), context);
    expect(flat.source.warnings.map((w) => w.code)).toContain('height-missing');
    expect(flat.events).toEqual([]);
  });
});

describe('limits passed', () => {
  const at = (iasKt: number[], extra = '', values: string[] = []) =>
    read(
      `elapsed,lat,lon,ias (kt)${extra}\n${iasKt.map((v, i) => `${i},41.5,-6.${7000 + i},${v}${values[i] === undefined ? '' : `,${values[i]}`}`).join('\n')}`,
    );
  const limits = (change: Partial<TraceContext['airframe']['limits']>): TraceContext => ({
    ...context,
    airframe: { ...context.airframe, limits: { ...context.airframe.limits, vneKt: null, ...change } },
  });
  it('a stretch beyond a limit with its peak and length; two close ones are one', () => {
    expect(analyseTrace(at([60, 66, 68, 62, 65, 60]), context).exceedances).toEqual([
      { channel: 'vne', unit: 'kt', limit: 63, peak: 68, startS: 1, durationS: 4 },
    ]);
    expect(analyseTrace(at([60, 62, 63, 60]), context).exceedances).toEqual([]);
  });
  it('flap by its table: between two settings the larger one’s limit holds', () => {
    const c = limits({
      vfeKt: [
        { flapDeg: 10, kt: 90 },
        { flapDeg: 30, kt: 70 },
      ],
    });
    expect(analyseTrace(at([80, 80, 80, 80, 80], ',flap', ['0', '10', '20', '30', '0']), c).exceedances).toEqual([
      { channel: 'vfe', unit: 'kt', limit: 70, peak: 80, startS: 2, durationS: 2 },
    ]);
  });
  it('gear down too fast; load either way', () => {
    expect(
      analyseTrace(at([130, 130, 130], ',gear', ['up', 'down', 'down']), limits({ vleKt: 125 })).exceedances,
    ).toMatchObject([{ channel: 'gear', limit: 125, startS: 1 }]);
    expect(
      analyseTrace(at([80, 80, 80], ',nz (g)', ['1', '4.1', '-2']), limits({})).exceedances.map((e) => [
        e.channel,
        e.peak,
      ]),
    ).toEqual([
      ['g+', 4.1],
      ['g-', -2],
    ]);
  });
});

describe('the command', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'jeito-analyse-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const file = (name: string, data: string | Buffer) => {
    const f = path.join(folder, name);
    writeFileSync(f, data);
    return f;
  };
  const cli = (...args: string[]) =>
    execFileSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/analyse.ts', ...args], {
      encoding: 'utf8',
    });
  it('gives the same events for each format of one flight, packed or not, and one document only', () => {
    const { flown } = flight(194);
    const rows = sense(flown, runway, { ...GOOD_SENSORS, noiseM: 0.05, wanderM: 0.3 }, seeded(9));
    const where = file('context.json', JSON.stringify(context));
    const kinds = [
      file('a.csv', csvOf(rows, START)),
      file('a.gpx', gpxOf(rows, START)),
      file('a.igc', igcOf(rows, START)),
      file('a.dat', gzipSync(csvOf(rows, START))),
    ].map((f) => {
      const analysis = TraceAnalysis.parse(JSON.parse(cli(f, '--context', where)));
      return analysis.events.map((e) => e.kind);
    });
    expect(kinds[0]).toEqual(flown.events.map((e) => NAME(e.kind)));
    for (const k of kinds) expect(k).toEqual(kinds[0]);
  }, 60_000);
  it('says on the other channel what is wrong, and ends with 1', () => {
    const where = file('context.json', JSON.stringify(context));
    const bad = (...args: string[]) =>
      spawnSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'scripts/analyse.ts', ...args], {
        encoding: 'utf8',
      });
    const empty = bad(file('e.csv', 'hello'), '--context', where);
    expect([empty.status, empty.stdout]).toEqual([1, '']);
    expect(empty.stderr).toContain('not-a-trace');
    expect(bad(path.join(folder, 'none.csv'), '--context', where).status).toBe(1);
    expect(bad(file('e.csv', 'hello'), '--context', file('c.json', '{"schema":"trace-context/1"}')).stderr).toContain(
      'does not fit trace-context/1',
    );
  }, 60_000);
});
