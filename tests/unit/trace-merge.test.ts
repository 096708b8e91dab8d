import { describe, expect, it } from 'vitest';
import {
  CHANNELS,
  type Trace,
  alignTraces,
  analyseJoined,
  findExceedances,
  mergeTraces,
  readTrace,
  traceTable,
} from '@/core/trace';
import { joinOf, joinTable, recordingOf } from '../../scripts/flights/bench';
import { flightOf } from '../../scripts/flights/flight';

/** A straight flight north at 50 m/s that wobbles east, a row a second, by hand. */
const straight = (from: number, to: number, startUtcMs: number | null, channels: Trace['channels'] = {}): Trace => {
  const tS = Float64Array.from({ length: to - from + 1 }, (_, i) => i);
  const at = (i: number) => i + from;
  return {
    format: 'csv',
    rows: tS.length,
    rateHz: 1,
    startUtcMs,
    tS,
    channels: {
      lat: tS.map((i) => 40 + (50 * at(i)) / 111_194.9),
      lon: tS.map((i) => -7 + 0.01 * Math.sin(at(i) / 37) + 0.004 * Math.sin(at(i) / 11)),
      ...channels,
    },
    gaps: [],
    warnings: [],
  };
};

describe('two recordings of one flight', () => {
  it('are aligned by what they flew, to the second, whatever their clocks say', () => {
    for (const clock of [null, 0, 3_600_000]) {
      const a = straight(0, 600, clock === null ? null : 1_700_000_000_000);
      const b = straight(83, 500, clock === null ? null : 1_700_000_083_000 + clock);
      const found = alignTraces(a, b);
      if (!found.ok) throw new Error(found.code);
      expect(found.offsetS).toBeCloseTo(83, 1);
      expect(found.clockAheadS === null ? null : Math.round(found.clockAheadS)).toBe(
        clock === null ? null : clock / 1000,
      );
    }
  });
  it('another flight, another day and too short a stretch are refused with the reason', () => {
    const a = straight(0, 600, null);
    const east = straight(0, 600, null, {
      lat: Float64Array.from({ length: 601 }, (_, i) => 41 + 0.02 * Math.sin(i / 60)),
      lon: Float64Array.from({ length: 601 }, (_, i) => -7 + i * 6e-4),
    });
    expect(alignTraces(a, east)).toEqual({ ok: false, code: 'not-one-flight' });
    expect(alignTraces(a, straight(560, 900, null))).toMatchObject({ ok: false });
    // Round and round the same way, without a date: any round fits.
    const round = (n: number, shift: number): Trace => {
      const t = straight(0, n, null);
      t.channels.lat = t.tS.map((s) => 40 + 0.01 * Math.sin(((s + shift) * 2 * Math.PI) / 150));
      t.channels.lon = t.tS.map((s) => -7 + 0.01 * Math.cos(((s + shift) * 2 * Math.PI) / 150));
      return t;
    };
    expect(alignTraces(round(900, 0), round(450, 20))).toEqual({ ok: false, code: 'not-plain' });
  });
  it('give each quantity once, fill what one missed, and invent nothing where neither recorded', () => {
    const cut = (t: Trace, from: number, to: number): Trace => {
      const keep = [...t.tS.keys()].filter((i) => i < from || i > to);
      const of = (x: Float64Array) => Float64Array.from(keep, (i) => x[i] ?? Number.NaN);
      return {
        ...t,
        rows: keep.length,
        tS: of(t.tS),
        channels: Object.fromEntries(Object.entries(t.channels).map(([k, v]) => [k, of(v)])),
        gaps: [{ fromS: from - 1, toS: to + 1 }],
      };
    };
    const a = cut(
      straight(0, 600, 0, { ias: new Float64Array(601).fill(90), altGps: new Float64Array(601).fill(1200) }),
      300,
      330,
    );
    const b = cut(
      straight(0, 600, 0, {
        altPressure: new Float64Array(601).fill(1000),
        headingMag: Float64Array.from({ length: 601 }, (_, i) => (i % 2 ? 359 : 1)),
      }),
      320,
      350,
    );
    const m = mergeTraces(a, b);
    if (!m.ok) throw new Error(m.code);
    const { tS, channels, gaps } = m.trace;
    // 320 to 330 is in neither.
    expect(gaps).toHaveLength(1);
    expect([gaps[0]?.fromS, gaps[0]?.toS].map((s) => Math.round(s ?? 0))).toEqual([319, 331]);
    expect(Object.keys(channels).filter((c) => c.startsWith('alt'))).toEqual(['altPressure']);
    // A height from the other where this one is missing, moved by what the two differ.
    expect([...(channels.altPressure ?? [])].every((v) => Math.abs(v - 1000) < 1e-6)).toBe(true);
    const inFirstGap = [...tS.keys()].filter((i) => (tS[i] ?? 0) > 301 && (tS[i] ?? 0) < 318);
    expect(inFirstGap.length).toBeGreaterThan(10);
    expect(inFirstGap.every((i) => Number.isNaN(channels.ias?.[i] ?? Number.NaN))).toBe(true);
    // Across north the short way.
    expect([...(channels.headingMag ?? [])].filter((h) => h > 2 && h < 358)).toEqual([]);
    expect(m.from).toMatchObject({ ias: 0, altPressure: 1, headingMag: 1 });
  });
  it('a table of any recording reads back as it was', () => {
    const n = 40;
    const t = straight(0, n - 1, Date.UTC(2026, 4, 3, 23, 59, 50));
    CHANNELS.forEach((c, k) => {
      if (c !== 'lat' && c !== 'lon')
        t.channels[c] = Float64Array.from({ length: n }, (_, i) =>
          c === 'gear' ? i % 2 : i === 7 ? Number.NaN : k + i,
        );
    });
    for (const startUtcMs of [t.startUtcMs, null]) {
      const back = readTrace(traceTable({ ...t, startUtcMs }));
      if (!back.ok) throw new Error(back.code);
      expect(back.trace.startUtcMs).toBe(startUtcMs);
      // What is missing is written and read as missing.
      const shown = (x: Float64Array | undefined) => [...(x ?? [])].map((v) => (v === v ? v.toFixed(3) : ''));
      for (const c of CHANNELS) expect(shown(back.trace.channels[c]), c).toEqual(shown(t.channels[c]));
    }
  });
});

describe('flights of another recorder, by two devices', () => {
  const trials = [61, 62].flatMap((seed) => Array.from({ length: 5 }, (_, k) => joinOf(seed, k) ?? []).flat());
  it('are joined, near in time, and show no less than either alone', () => {
    const done = trials.filter((t) => t.joined.ok);
    console.log(joinTable(trials));
    expect(trials.length).toBe(10);
    expect(done.length).toBeGreaterThanOrEqual(8);
    // Two receivers may be late by four tenths each, and slow stamps by as much.
    for (const t of done) expect(Math.abs(t.offS)).toBeLessThan(0.8);
    const missed = (k: 0 | 1 | 2) =>
      done.reduce((n, t) => n + (t.marks[k]?.missed.length ?? 0) + (t.marks[k]?.invented.length ?? 0), 0);
    const found = (k: 0 | 1 | 2) => done.reduce((n, t) => n + (t.marks[k]?.events.length ?? 0), 0);
    expect(found(2)).toBeGreaterThanOrEqual(Math.max(found(0), found(1)));
    expect(missed(2)).toBeLessThanOrEqual(missed(0) + missed(1));
  });
  it('of two flights are never joined', () => {
    const made = [0, 1, 2, 3].map((k) => recordingOf(flightOf(63, k), 4000 + k, [0, 1], 0)?.trace);
    made.forEach((a, i) =>
      made.forEach((b, j) => {
        if (a && b && i !== j) expect(alignTraces(a, b).ok, `${i} ${j}`).toBe(false);
      }),
    );
  });
  it('limits are told from each one’s own rows, once', () => {
    const f = Array.from({ length: 12 }, (_, k) => flightOf(64, k)).find((x) =>
      x.limits.some((l) => l.channel === 'vne' || l.channel === 'rpm'),
    );
    if (!f) throw new Error('no limit flown');
    const [a, b] = [recordingOf(f, 1002, [0, 1], 0), recordingOf(f, 1003, [0, 1], 60)];
    if (!a || !b) throw new Error('unread');
    const joined = analyseJoined([a.trace, b.trace], ['one', 'two'], f.context);
    if (!joined.ok) throw new Error(joined.code);
    const own = [a, b].flatMap((x) => findExceedances(x.trace, f.context).map((e) => e.channel));
    expect(new Set(joined.analysis.exceedances.map((e) => e.channel))).toEqual(new Set(own));
    expect(joined.analysis.source.joined?.map((j) => j.name)).toEqual(['one', 'two']);
  });
});
