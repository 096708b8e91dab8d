import { describe, expect, it } from 'vitest';
import { seeded } from '@demo/random';
import {
  AIRWORK_FLOWN,
  type AirworkKind,
  type Arrival,
  GOOD_SENSORS,
  type RecorderPlan,
  csvOf,
  flyCircuits,
  gpxOf,
  igcOf,
  onEarth,
  sense,
} from '@/core/recorder';
import { type Trace, readTrace } from '@/core/trace';

const arrival = (end: Arrival['end'], change: Partial<Arrival> = {}): Arrival => ({
  end,
  alongM: 130,
  lateralM: -1.2,
  crabDeg: 3,
  sinkFpm: 150,
  bounces: 0,
  swingDeg: 4,
  touchKt: 48,
  lowestFt: 60,
  ...change,
});
const plan = (arrivals: Arrival[], change: Partial<RecorderPlan> = {}): RecorderPlan => ({
  runway: { ident: '22', thresholdLat: 41.5, thresholdLon: -6.7, trueBearingDeg: 218, lengthM: 900, elevationFt: 1345 },
  windFromDeg: 250,
  windKt: 8,
  speeds: { liftOff: 48, climb: 60, downwind: 65, base: 60, final: 55 },
  circuitFt: 1000,
  slopeDeg: 4.5,
  side: 'left',
  arrivals,
  ...change,
});
const mixed = plan([
  arrival('touch-and-go'),
  arrival('go-around'),
  arrival('touch-and-go', { bounces: 1, lateralM: 1.5, alongM: 190 }),
  arrival('low-pass', { lowestFt: 40 }),
  arrival('stop-and-go'),
  arrival('full-stop', { alongM: 90 }),
]);
const read = (text: string): Trace => {
  const r = readTrace(text);
  if (!r.ok) throw new Error(r.why.code);
  return r.trace;
};

describe('the flight', () => {
  const flown = flyCircuits(mixed);
  it('has the events of its plan, each at its time and place', () => {
    expect(flown.events.map((e) => e.kind)).toEqual([
      'takeoff',
      'touch-and-go',
      'go-around',
      'touch-and-go',
      'low-pass',
      'stop-and-go',
      'full-stop',
    ]);
    for (const e of flown.events.filter((x) => x.touchdownS !== null)) {
      const s = flown.samples.reduce((a, b) =>
        Math.abs(b.tS - (e.touchdownS ?? 0)) < Math.abs(a.tS - (e.touchdownS ?? 0)) ? b : a,
      );
      expect(Math.abs(s.alongM - (e.alongM ?? 0))).toBeLessThan(2);
      expect(s.lateralM).toBeCloseTo(e.lateralM ?? 0, 6);
      expect(s.heightFt).toBeLessThan(1);
      // The last seconds before it come down, and with the sink asked for.
      const before = flown.samples.filter((x) => x.tS < (e.touchdownS ?? 0) && x.tS > (e.touchdownS ?? 0) - 1);
      expect(Math.abs((before[before.length - 5]?.vsFpm ?? 0) + e.sinkFpm)).toBeLessThan(60);
    }
    const low = flown.events.find((e) => e.kind === 'low-pass');
    expect(flown.samples.find((s) => Math.abs(s.tS - (low?.lowestS ?? 0)) < 0.03)?.heightFt).toBeCloseTo(40, 0);
  });
  it('moves like an aeroplane: time evenly, no jumps, no more than it can', () => {
    const { samples } = flown;
    let far = 0;
    let climb = 0;
    for (let i = 1; i < samples.length; i++) {
      const [a, b] = [samples[i - 1], samples[i]];
      if (!a || !b) continue;
      far = Math.max(far, Math.hypot(b.alongM - a.alongM, b.lateralM - a.lateralM));
      climb = Math.max(climb, Math.abs(b.heightFt - a.heightFt));
    }
    // 0.05 s at 70 kt is 1.8 m; and nothing climbs a metre in it.
    expect(far).toBeLessThan(3);
    expect(climb).toBeLessThan(3);
    expect(Math.max(...samples.map((s) => s.heightFt))).toBeCloseTo(1000, 0);
    expect(Math.max(...samples.map((s) => Math.abs(s.bankDeg)))).toBeLessThan(35);
  });
  it('crabs into the wind in the air, and is straight with it on the ground', () => {
    const downwind = flown.samples.find((s) => s.lateralM < -1199 && Math.abs(s.bankDeg) < 0.5 && s.alongM > 0);
    expect(downwind && Math.abs(downwind.headingDeg - downwind.trackDeg)).toBeGreaterThan(2);
    const rolling = flown.samples.find((s) => s.heightFt === 0 && s.gsKt > 20 && s.gsKt < 30);
    expect(rolling && Math.abs(rolling.headingDeg - rolling.trackDeg)).toBeLessThan(0.5);
  });
  it('right-hand circuits lie on the right', () => {
    expect(
      Math.max(...flyCircuits(plan([arrival('full-stop')], { side: 'right' })).samples.map((s) => s.lateralM)),
    ).toBeGreaterThan(1190);
  });
});

describe('the recorder', () => {
  const flown = flyCircuits(mixed);
  const start = Date.parse('2026-11-24T23:50:00.000Z');
  const rows = sense(flown, mixed.runway, GOOD_SENSORS, seeded(3));
  it('is as good as its sensors, and the same for the same seed', () => {
    expect(sense(flown, mixed.runway, GOOD_SENSORS, seeded(3))).toEqual(rows);
    const off = rows.map((r) => {
      const s = flown.samples[Math.round(r.tS * 20)];
      const p = onEarth(mixed.runway, s?.alongM ?? 0, s?.lateralM ?? 0);
      return Math.hypot((r.lat - p.lat) * 111_319, (r.lon - p.lon) * 111_319 * Math.cos((41.5 * Math.PI) / 180));
    });
    const mean = off.reduce((a, b) => a + b, 0) / off.length;
    expect(mean).toBeGreaterThan(0.2);
    expect(mean).toBeLessThan(4);
  });
  it('one flight in each format reads back as one flight, past midnight too', () => {
    const csv = read(csvOf(rows, start));
    const gpx = read(gpxOf(rows, start));
    const igc = read(igcOf(rows, start));
    for (const t of [csv, gpx, igc]) {
      expect(t.rows).toBe(rows.length);
      expect(t.rateHz).toBeCloseTo(5, 1);
      expect(t.startUtcMs).toBe(start);
      for (const i of [0, 100, 1000, rows.length - 1]) {
        expect(t.tS[i]).toBeCloseTo((rows[i]?.tS ?? 0) - (rows[0]?.tS ?? 0), 1);
        expect(t.channels.lat?.[i]).toBeCloseTo(rows[i]?.lat ?? 0, t.format === 'igc' ? 4 : 7);
      }
    }
    expect(csv.channels.ias?.[1000]).toBeCloseTo(rows[1000]?.iasKt ?? 0, 0);
    expect(igc.channels.ias?.[1000]).toBeCloseTo(rows[1000]?.iasKt ?? 0, -1);
  });
  it('a stretch not recorded is a gap, not an invention', () => {
    const t = read(
      csvOf(
        sense(flown, mixed.runway, { ...GOOD_SENSORS, missing: [{ fromS: 100, toS: 112 }] }, seeded(3)),
        start,
        false,
      ),
    );
    expect(t.gaps).toHaveLength(1);
    expect((t.gaps[0]?.toS ?? 0) - (t.gaps[0]?.fromS ?? 0)).toBeGreaterThan(11.5);
    expect(Object.keys(t.channels).sort()).toEqual(['altGps', 'lat', 'lon']);
  });
});

describe('airwork as flown', () => {
  const fly = (
    kind: AirworkKind,
    change: Partial<{ heightErrorFt: number; overshootDeg: number; bankDeg: number }> = {},
    direction: 'left' | 'right' = 'left',
  ) => {
    const flown = flyCircuits(
      plan([arrival('full-stop')], {
        airwork: {
          heightFt: 3500,
          items: [{ kind, direction, ...change }],
          speeds: { cruise: 100, vs1: 48, glide: 70 },
        },
      }),
    );
    const [item] = flown.airwork;
    if (!item) throw new Error(`no ${kind}`);
    return { flown, item, during: flown.samples.filter((s) => s.tS >= item.startS && s.tS <= item.endS) };
  };
  it.each(AIRWORK_FLOWN)('%s: moves without a jump, comes home and lands', (kind) => {
    const { flown, item } = fly(kind);
    expect(item.kind).toBe(kind);
    expect(item.endS).toBeGreaterThan(item.startS + 3);
    let far = 0;
    let up = 0;
    for (let i = 1; i < flown.samples.length; i++) {
      const [a, b] = [flown.samples[i - 1], flown.samples[i]];
      if (!a || !b) continue;
      far = Math.max(far, Math.hypot(b.alongM - a.alongM, b.lateralM - a.lateralM));
      up = Math.max(up, Math.abs(b.heightFt - a.heightFt));
    }
    // 0.05 s at 75 m/s, whatever way it points; the join with the circuit may be a step of some metres.
    expect(far).toBeLessThan(9);
    expect(up).toBeLessThan(60);
    expect(flown.events.map((e) => e.kind)).toEqual(['takeoff', 'full-stop']);
    expect(flown.samples.at(-1)?.heightFt).toBe(0);
  });
  it('a steep turn has its bank, its load and its errors', () => {
    const { item, during } = fly('steep-turn', { heightErrorFt: 120, overshootDeg: 10, bankDeg: 3 });
    expect(item.maxBankDeg).toBeCloseTo(-48, 0);
    expect(item.rolloutErrorDeg).toBeCloseTo(10, 0);
    expect(item.heightDeviationFt.max).toBeGreaterThan(80);
    expect(item.heightDeviationFt.max).toBeLessThan(160);
    // Level in a turn the load is one over the cosine of the bank, about 1.49 here.
    expect(Math.max(...during.map((s) => s.nz))).toBeGreaterThan(1.42);
    expect(fly('steep-turn', {}, 'right').item.maxBankDeg).toBeGreaterThan(40);
  });
  it('a stall slows to the stall speed, loses height and gets its speed back', () => {
    const { item, during } = fly('stall');
    expect(Math.min(...during.map((s) => s.iasKt))).toBeCloseTo(48, 0);
    expect(item.heightLossFt).toBeGreaterThan(40);
    expect(during.at(-1)?.iasKt).toBeGreaterThan(58);
  });
  it('figures go the whole way round; a descent descends; a failed engine idles', () => {
    expect(Math.max(...fly('loop').during.map((s) => s.pitchDeg))).toBeGreaterThan(75);
    expect(Math.max(...fly('roll').during.map((s) => Math.abs(s.bankDeg)))).toBeGreaterThan(170);
    expect(Math.min(...fly('emergency-descent').during.map((s) => s.vsFpm))).toBeLessThan(-2500);
    expect(Math.max(...fly('engine-out').during.map((s) => s.rpm))).toBeLessThan(1000);
    expect(fly('climb-reversal').item.heightDeviationFt.max).toBeGreaterThan(200);
    expect(Math.abs(fly('clearing-turn').item.heightDeviationFt.max)).toBeLessThan(40);
    expect(
      Math.max(
        ...fly('slow-flight')
          .during.slice(-600, -200)
          .map((s) => s.iasKt),
      ),
    ).toBeLessThan(58);
  });
  it('a fast taxi before the flight stays on the ground and is no event', () => {
    const flown = flyCircuits(plan([arrival('full-stop')], { fastTaxi: true }));
    const before = flown.samples.filter((s) => s.tS < (flown.events[0]?.liftoffS ?? 0) - 20);
    expect(Math.max(...before.map((s) => s.heightFt))).toBe(0);
    expect(Math.max(...before.map((s) => s.gsKt))).toBeGreaterThan(22);
    expect(flown.events.map((e) => e.kind)).toEqual(['takeoff', 'full-stop']);
  });
  it('drift at the touch is in the path itself', () => {
    const flown = flyCircuits(plan([arrival('full-stop', { driftKt: 3, crabDeg: 0, lateralM: 0 })]));
    const at = flown.events[1]?.touchdownS ?? 0;
    const near = flown.samples.filter((s) => s.tS > at - 1 && s.tS < at);
    const [a, b] = [near[0], near.at(-1)];
    if (!a || !b) throw new Error('no samples');
    expect((b.lateralM - a.lateralM) / (b.tS - a.tS) / 0.514444).toBeCloseTo(3, 0);
  });
  it('each style of table reads back as the same flight', () => {
    const flown = flyCircuits(mixed);
    const rows = sense(flown, mixed.runway, GOOD_SENSORS, seeded(3));
    const start = Date.UTC(2026, 10, 24, 9);
    const [plain, metric, panel] = (['plain', 'metric', 'panel'] as const).map((style) =>
      read(csvOf(rows, start, true, style)),
    );
    if (!plain || !metric || !panel) throw new Error('unread');
    expect(panel.startUtcMs).toBe(start);
    expect(metric.startUtcMs).toBeNull();
    for (const t of [metric, panel]) {
      expect(t.rows).toBe(plain.rows);
      for (const c of ['lat', 'altGps', 'ias', 'gs', 'nz', 'bank'] as const)
        for (const i of [0, 500, 2000])
          expect(t.channels[c]?.[i], c).toBeCloseTo(plain.channels[c]?.[i] ?? 0, c === 'lat' ? 7 : c === 'nz' ? 3 : 0);
    }
  });
});
