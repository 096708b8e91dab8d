import { describe, expect, it } from 'vitest';
import { seeded } from '@demo/random';
import {
  SUITE_SIZE,
  type SuiteFlight,
  csvOf,
  flyCircuits,
  gpxOf,
  igcOf,
  kindOf,
  onEarth,
  score,
  sense,
  suiteFlight,
} from '@/core/recorder';
import { type Trace, analyseTrace, readTrace, traceWork } from '@/core/trace';
import { TraceAnalysis } from '@/domain/trace';

const read = (text: string): Trace => {
  const r = readTrace(text);
  if (!r.ok) throw new Error(r.why.code);
  return r.trace;
};
const fly = (k: number, change: Partial<SuiteFlight['sensors']> = {}) => {
  const f = suiteFlight(k, seeded(k + 1));
  const flown = flyCircuits(f.plan);
  return { f, flown, rows: sense(flown, f.plan.runway, { ...f.sensors, ...change }, seeded(f.seed)) };
};
const flownOnce = new Map<number, ReturnType<typeof fly>>();
/** The flight as the suite has it, flown once a run. */
const asFlown = (k: number): ReturnType<typeof fly> => {
  const known = flownOnce.get(k) ?? fly(k);
  flownOnce.set(k, known);
  return known;
};
const fileOf = ({ f, rows }: Pick<ReturnType<typeof fly>, 'f' | 'rows'>): string =>
  f.format === 'gpx'
    ? gpxOf(rows, f.startUtcMs)
    : f.format === 'igc'
      ? igcOf(rows, f.startUtcMs)
      : csvOf(rows, f.startUtcMs, f.airData, f.style);

describe('the recorder\u2019s trial', () => {
  const flights = Array.from({ length: SUITE_SIZE }, (_, k) => asFlown(k));
  const results = flights.map((x) => {
    const analysis = analyseTrace(read(fileOf(x)), x.f.context);
    return { ...x, analysis, s: score(x.flown, analysis, x.rows[0]?.tS ?? 0) };
  });
  it('holds every kind of event and of airwork, 1 to 10 Hz, position only, poor sensors, each format', () => {
    expect(SUITE_SIZE).toBeGreaterThanOrEqual(40);
    expect(new Set(flights.flatMap((x) => x.flown.events.map(kindOf)))).toEqual(
      new Set(['takeoff', 'landing', 'touch-and-go', 'stop-and-go', 'go-around', 'low-pass']),
    );
    expect(new Set(flights.flatMap((x) => x.flown.airwork.map((a) => a.kind))).size).toBe(9);
    expect([...new Set(flights.map((x) => x.f.sensors.rateHz))].sort((a, b) => a - b)).toEqual([1, 2, 4, 5, 8, 10]);
    expect(flights.filter((x) => !x.f.airData).length).toBeGreaterThan(6);
    expect(new Set(results.map((x) => x.analysis.source.format))).toEqual(new Set(['csv', 'gpx', 'igc']));
  });
  it('every event is found, none invented', () => {
    const wrong = results.flatMap((x) => [
      ...x.s.missed.map((e) => `${x.f.name} missed ${e.kind}`),
      ...x.s.invented.map((e) => `${x.f.name} invented ${e.kind} at ${e.startS}`),
    ]);
    expect(wrong).toEqual([]);
    expect(results.flatMap((x) => x.s.events).length).toBeGreaterThan(200);
  });
  it('every item of airwork is found, none invented, each the right way round', () => {
    expect(
      results.flatMap((x) => [
        ...x.s.airworkMissed.map((e) => `${x.f.name} missed ${e.kind}`),
        ...x.s.airworkInvented.map((e) => `${x.f.name} invented ${e.kind} at ${e.startS}`),
      ]),
    ).toEqual([]);
    for (const { flown: t, found: e } of results.flatMap((x) => x.s.airwork))
      if (t.direction !== null) expect(e.direction, e.kind).toBe(t.direction);
  });
  const errors = (
    of: (p: (typeof results)[number]['s']['events'][number], x: (typeof results)[number]) => number | null,
  ): number[] =>
    results
      .flatMap((x) =>
        x.s.events.flatMap((p) => {
          const e = of(p, x);
          return e === null ? [] : [Math.abs(e)];
        }),
      )
      .sort((a, b) => a - b);
  const quantile = (e: readonly number[], q: number) => e[Math.min(e.length - 1, Math.floor(q * e.length))] ?? Infinity;
  it('touchdowns are in their second, and where they were', () => {
    const time = (least: number, most: number) =>
      errors((p, x) =>
        p.flown.touchdownS === null || !p.found.touchdown || x.f.sensors.rateHz < least || x.f.sensors.rateHz > most
          ? null
          : p.found.touchdown.tS - p.flown.touchdownS,
      );
    expect(quantile(time(4, 10), 0.95)).toBeLessThan(1);
    expect(quantile(time(1, 3), 1)).toBeLessThan(2);
    const along = errors((p, x) =>
      x.f.sensors.rateHz < 4 || p.flown.alongM === null || p.found.touchdown?.alongM == null
        ? null
        : p.found.touchdown.alongM - p.flown.alongM,
    );
    expect(quantile(along, 0.9)).toBeLessThan(15);
    const across = errors((p, x) =>
      p.flown.lateralM === null || p.found.touchdown?.lateralM == null
        ? null
        : Math.max(
            0,
            Math.abs(p.found.touchdown.lateralM - p.flown.lateralM) -
              2 * Math.hypot(x.f.sensors.wanderM, x.f.sensors.noiseM),
          ),
    );
    expect(quantile(across, 0.97)).toBeLessThan(1);
  });
  it('extremes of airwork are within what the sensors can tell', () => {
    for (const x of results)
      for (const { flown: t, found: e } of x.s.airwork) {
        if (/steep|reversal/.test(e.kind)) {
          expect(Math.abs((e.maxBankDeg ?? 99) - t.maxBankDeg), x.f.name).toBeLessThan(2);
          expect(Math.abs((e.rolloutErrorDeg ?? 99) - (t.rolloutErrorDeg ?? 0)), x.f.name).toBeLessThan(3);
        }
        if (e.kind === 'steep-turn')
          expect(Math.abs((e.heightDeviationFt.max ?? 999) - t.heightDeviationFt.max), x.f.name).toBeLessThan(25);
      }
  });
  it('confidence falls with what the file lacks', () => {
    const mean = (of: (x: (typeof results)[number]) => boolean) => {
      const c = results
        .filter(of)
        .flatMap((x) => x.analysis.events.filter((e) => e.touchdown).map((e) => e.confidence));
      return c.reduce((a, b) => a + b, 0) / c.length;
    };
    expect(mean((x) => x.f.airData && x.f.sensors.rateHz >= 8)).toBeGreaterThan(
      mean((x) => !x.f.airData && x.f.sensors.rateHz <= 2) + 0.15,
    );
  });
  it('keeps to its contract', () => {
    for (const x of results) TraceAnalysis.parse(x.analysis);
  });
});

describe('sensors worse than the recorder\u2019s', () => {
  const normal = (r: () => number) => Math.sqrt(-2 * Math.log(1 - r())) * Math.cos(2 * Math.PI * r());
  type Rows = ReturnType<typeof fly>['rows'];
  it.each([
    [
      'a height that jumps by 3 ft from row to row',
      (rows: Rows, r: () => number) => rows.map((x) => ({ ...x, altFt: x.altFt + 3 * normal(r) })),
    ],
    [
      'a height in whole metres that drifts 40 ft an hour',
      (rows: Rows) => rows.map((x) => ({ ...x, altFt: Math.round((x.altFt + (x.tS / 3600) * 40) * 0.3048) / 0.3048 })),
    ],
    [
      'an accelerometer with noise of 0.06 g',
      (rows: Rows, r: () => number) => rows.map((x) => ({ ...x, nz: x.nz + 0.06 * normal(r) })),
    ],
    ['no accelerometer', (rows: Rows) => rows.map((x) => ({ ...x, nz: Number.NaN }))],
    [
      'positions that jump by 1.5 m',
      (rows: Rows, r: () => number) =>
        rows.map((x) => ({ ...x, lat: x.lat + (1.5 * normal(r)) / 111_319, lon: x.lon + (1.5 * normal(r)) / 90_000 })),
    ],
    [
      'a heading 4 degrees off, a bank that shakes',
      (rows: Rows, r: () => number) =>
        rows.map((x) => ({ ...x, headingDeg: (x.headingDeg + 4) % 360, bankDeg: x.bankDeg + 2 * normal(r) })),
    ],
  ])(
    '%s: still every event and item, and nothing else',
    (_, worse) => {
      const wrong = Array.from({ length: 24 }, (_x, k) => k * 2).flatMap((k) => {
        const { f, flown, rows } = asFlown(k);
        const s = score(
          flown,
          analyseTrace(read(csvOf(worse(rows, seeded(k + 77)), f.startUtcMs, f.airData, f.style)), f.context),
          rows[0]?.tS ?? 0,
        );
        return [
          ...s.missed.map((e) => `${f.name} missed ${e.kind}`),
          ...s.invented.map((e) => `${f.name} invented ${e.kind}`),
          ...s.airworkMissed.map((e) => `${f.name} missed ${e.kind}`),
          ...s.airworkInvented.map((e) => `${f.name} invented ${e.kind}`),
        ];
      });
      expect(wrong).toEqual([]);
    },
    60_000,
  );
});

describe('files that hold less', () => {
  const circuits = fly(0);
  it('airborne at both ends: the touches set the height, and say where they were', () => {
    const { f, flown, rows } = fly(5, { rateHz: 5 });
    const touches = flown.events.filter((e) => e.kind === 'touch-and-go');
    const [first, last] = [touches[0], touches[touches.length - 1]];
    expect(touches.length).toBeGreaterThan(0);
    const from = (first?.touchdownS ?? 0) - 60;
    const to = (last?.touchdownS ?? 0) + 60;
    const a = analyseTrace(
      read(
        csvOf(
          rows.filter((r) => r.tS > from && r.tS < to),
          f.startUtcMs,
        ),
      ),
      f.context,
    );
    const there = flown.events.filter((e) => {
      const t = e.touchdownS ?? e.lowestS;
      return t !== null && t > from + 30 && t < to - 30;
    });
    expect(a.events.map((e) => e.kind)).toEqual(there.map(kindOf));
    expect(a.source.warnings.map((w) => w.code)).not.toContain('height-not-calibrated');
  });
  it('nothing recorded over the touch: the landing is there, its measures are not', () => {
    const touch = circuits.flown.events.find((e) => e.kind === 'full-stop')?.touchdownS ?? 0;
    const { f, rows } = fly(0, { missing: [{ fromS: touch - 3, toS: touch + 3 }] });
    const landing = analyseTrace(read(csvOf(rows, f.startUtcMs)), f.context).events.find((e) => e.kind === 'landing');
    expect(landing?.touchdown).toMatchObject({ alongM: null, lateralM: null, sinkFpm: null, peakG: null });
    expect(Math.abs((landing?.touchdown?.tS ?? 0) + (rows[0]?.tS ?? 0) - touch)).toBeLessThan(4);
    expect(landing?.confidence).toBeLessThan(0.5);
  });
  it('no height at all: what stopped on the runway is told by its speed, without a place', () => {
    const { f, flown, rows } = circuits;
    const text = csvOf(rows, f.startUtcMs)
      .split('\n')
      .map((l) => {
        const c = l.split(',');
        c.splice(3, 1);
        return c.join(',');
      })
      .join('\n');
    // A second runway across the first where it rolls: nothing was flown along it.
    const [first] = f.context.aerodrome.runways;
    if (!first) throw new Error('no runway');
    const [one, two] = first.ends;
    if (!one || !two) throw new Error('no ends');
    const [lat, lon] = [(one.thresholdLat + two.thresholdLat) / 2, (one.thresholdLon + two.thresholdLon) / 2];
    const across = first.ends.map((e, k) => ({
      ident: `X${k}`,
      thresholdLat: lat + (e.thresholdLon - lon) * 0.8,
      thresholdLon: lon - (e.thresholdLat - lat) * 1.25,
      elevationFt: e.elevationFt,
      trueBearingDeg: (e.trueBearingDeg + 270) % 360,
    }));
    const aerodrome = { ...f.context.aerodrome, runways: [first, { ...first, id: 'X', ends: across }] };
    const a = analyseTrace(read(text), { ...f.context, aerodrome } as typeof f.context);
    expect(new Set(a.events.map((e) => e.runway)).size).toBe(1);
    expect(a.events.filter((e) => e.kind === 'landing')).toHaveLength(1);
    expect(a.events.filter((e) => e.kind === 'takeoff')).toHaveLength(1);
    expect(a.events[0]?.kind).toBe('takeoff');
    expect(a.events.at(-1)?.kind).toBe('landing');
    expect(a.events.at(-1)?.touchdown?.alongM).toBeNull();
    expect(Math.abs((a.events.at(-1)?.touchdown?.tS ?? 0) - (flown.events.at(-1)?.touchdownS ?? 0))).toBeLessThan(8);
    expect(a.airwork).toEqual([]);
  });
  it('a runway that climbs: the touch is found on its slope', () => {
    const { f, flown, rows } = fly(3, { rateHz: 5 });
    const rise = 40;
    const [near, other] = f.context.aerodrome.runways[0]?.ends ?? [];
    if (!near || !other) throw new Error('no runway');
    const context = {
      ...f.context,
      aerodrome: {
        ...f.context.aerodrome,
        runways: [
          { ...f.context.aerodrome.runways[0], ends: [near, { ...other, elevationFt: near.elevationFt + rise }] },
        ],
      },
    } as typeof f.context;
    // The same flight over ground that rises beneath it.
    const s = f.plan.runway;
    const tilted = rows.map((r, i) => {
      const x = flown.samples[Math.round(r.tS * 20)]?.alongM ?? i;
      return { ...r, altFt: r.altFt + rise * Math.max(0, Math.min(1, x / s.lengthM)) };
    });
    const out = score(flown, analyseTrace(read(csvOf(tilted, f.startUtcMs)), context), rows[0]?.tS ?? 0);
    expect([out.missed, out.invented]).toEqual([[], []]);
  });
  it('two runways side by side: each landing is told once, on the one it used', () => {
    const { f, flown, rows } = fly(0);
    const [main] = f.context.aerodrome.runways;
    if (!main) throw new Error('no runway');
    const beside = main.ends.map((e) => {
      const p = onEarth({ ...f.plan.runway, thresholdLat: e.thresholdLat, thresholdLon: e.thresholdLon }, 0, 40);
      return { ...e, ident: `${e.ident}G`, thresholdLat: p.lat, thresholdLon: p.lon };
    });
    const a = analyseTrace(read(csvOf(rows, f.startUtcMs)), {
      ...f.context,
      aerodrome: { ...f.context.aerodrome, runways: [{ ...main, id: 'grass', ends: beside }, main] },
    });
    expect(a.events.map((e) => e.kind)).toEqual(flown.events.map(kindOf));
    expect(new Set(a.events.map((e) => e.runway))).toEqual(new Set([f.plan.runway.ident]));
  });
  it('flown at another aerodrome than briefed: it is found there and said; with nothing flown anywhere, nothing is', () => {
    const { f, rows } = fly(1);
    const there = f.context.aerodrome;
    const moved = (deg: number) => ({
      ...there,
      name: 'Briefed',
      runways: there.runways.map((r) => ({
        ...r,
        ends: r.ends.map((e) => ({ ...e, thresholdLat: e.thresholdLat + deg })),
      })),
    });
    const text = csvOf(rows, f.startUtcMs);
    const context = { ...f.context, aerodrome: moved(1) };
    const done = traceWork({ text, mapping: null, context, elsewhere: [moved(-1), there] });
    if (!done.ok) throw new Error(done.message);
    expect(done.context.aerodrome).toBe(there);
    expect(done.analysis.events).toEqual(analyseTrace(read(text), f.context).events);
    expect(done.analysis.source.warnings[0]).toMatchObject({ code: 'flown-elsewhere' });
    expect(done.analysis.source.warnings[0]?.message).toContain(
      `Flown at ${there.name}; the lesson was briefed for Briefed`,
    );
    const nowhere = traceWork({ text, mapping: null, context, elsewhere: [moved(-1)] });
    expect(nowhere.ok && [nowhere.context, nowhere.analysis.source.warnings.map((w) => w.code)]).toEqual([
      context,
      expect.arrayContaining(['far-from-field']),
    ]);
    // What was flown where it was briefed stays there, however near another one is.
    const home = traceWork({ text, mapping: null, context: f.context, elsewhere: [moved(0)] });
    expect(home.ok && home.context).toBe(f.context);
  });
});
