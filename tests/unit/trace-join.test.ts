import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pedraAlva } from '@demo/aerodrome';
import { airframes, types } from '@demo/fleet';
import { seeded } from '@demo/random';
import { judgeCaptured } from '@/core/assess';
import { effectiveSheet } from '@/core/plan';
import type { PILOT_ERRORS } from '@/core/recorder';
import { csvOf, flyCircuits, planFor, score, sense, sensorsOf, suiteFlight } from '@/core/recorder';
import {
  type Trace,
  analyseOnField,
  approachLine,
  eyeWord,
  itemMeasures,
  measuresOf,
  packSeries,
  pairAirwork,
  pairLandings,
  placeOf,
  readTrace,
  resultRows,
  runwayCorners,
  seriesOf,
  thinned,
  traceContext,
  traceGeoJson,
  traceGpx,
  traceKml,
  traceWork,
  unpackSeries,
  withMeasured,
} from '@/core/trace';
import { fromField } from '@/core/trace/context';
import { Airframe, TypeSheet } from '@/domain/sheet';
import { may } from '@/server/floor/auth/permissions';
import { observable } from '@/ui/traces/observable';
import { TraceContext } from '@/domain/trace';
import type { TraceAnalysis } from '@/domain/trace';
import { UNSEEN as NOTHING } from '@/domain/unseen';
import { Standard } from '@/domain/programme';
import privateUs from '../../content/standards/private-us.json';

const UNSEEN = { ...NOTHING, kind: 'full-stop' as const, runwayEnd: '22' };
type Event = TraceAnalysis['events'][number];
const arrival = (kind: Event['kind'], endS: number): Event => ({
  kind,
  runway: '22',
  startS: endS - 60,
  endS,
  confidence: 0.9,
  touchdown: {
    tS: endS - 15,
    alongM: 130,
    lateralM: -1.9,
    iasKt: 44,
    gsKt: 40,
    sinkFpm: 150,
    crabDeg: 1,
    driftKt: 0.2,
    bounces: 0,
    peakG: 1.3,
  },
});
const urze = types.find((t) => t.code === 'serrana-urze');
const frame = airframes.find((a) => a.typeCode === 'serrana-urze');
if (!urze || !frame) throw new Error('no demo aeroplane');
const sheet = effectiveSheet(TypeSheet.parse(urze), Airframe.parse(frame));
const read = (text: string): Trace => {
  const r = readTrace(text);
  if (!r.ok) throw new Error(r.why.code);
  return r.trace;
};

describe('the context of a flight', () => {
  const context = traceContext(pedraAlva, sheet, 'ZP-URZ', [{ name: 'Threshold', distanceM: 0, target: 54 }], 60);
  it('fits its contract, with limits in knots and thresholds a runway apart', () => {
    expect(TraceContext.parse(context)).toEqual(context);
    expect(context.airframe.limits.vneKt).toBeCloseTo(122 * 0.868976, 1);
    expect(context.airframe.limits.vfeKt).toBeNull();
    const [a, b] = context.aerodrome.runways[0]?.ends ?? [];
    if (!a || !b) throw new Error('no runway');
    const from = fromField(pedraAlva, a.thresholdLat, a.thresholdLon);
    const to = fromField(pedraAlva, b.thresholdLat, b.thresholdLon);
    expect(Math.hypot(to.eastM - from.eastM, to.northM - from.northM)).toBeCloseTo(900, 1);
    expect((Math.atan2(to.eastM - from.eastM, to.northM - from.northM) * 180) / Math.PI).toBeCloseTo(38, 3);
    // 0.4 % over 900 m, rising for a take-off from the first end.
    expect(b.elevationFt - a.elevationFt).toBeCloseTo((0.004 * 900) / 0.3048, 0);
  });
  it('places and their reverse agree', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -20000, max: 20000, noNaN: true }),
        fc.double({ min: -20000, max: 20000, noNaN: true }),
        (e, n) => {
          const p = placeOf(pedraAlva, e, n);
          const back = fromField(pedraAlva, p.lat, p.lon);
          expect(back.eastM).toBeCloseTo(e, 3);
          expect(back.northM).toBeCloseTo(n, 3);
        },
      ),
    );
  });
});

describe('found and tapped', () => {
  const start = Date.UTC(2026, 10, 24, 9);
  const tap = (id: string, kind: 'full-stop' | 'touch-and-go' | 'go-around', endS: number | null) => ({
    id,
    kind,
    endedMs: endS === null ? null : start + endS * 1000,
  });
  it('pair by order and kind', () => {
    const pairs = pairLandings(
      [
        { ...arrival('landing', 0), kind: 'takeoff' },
        arrival('touch-and-go', 300),
        arrival('go-around', 600),
        arrival('landing', 900),
      ],
      [tap('a', 'touch-and-go', 310), tap('b', 'go-around', 590), tap('c', 'full-stop', 930)],
      start,
    );
    expect(pairs.map((p) => [p.foundIndex, p.tappedId])).toEqual([
      [1, 'a'],
      [2, 'b'],
      [3, 'c'],
    ]);
    expect(pairs[2]?.apartS).toBe(30);
  });
  it('a landing nobody tapped and a tap nobody recorded stay alone; order is never crossed', () => {
    const events = [arrival('touch-and-go', 300), arrival('touch-and-go', 600), arrival('touch-and-go', 900)];
    expect(
      pairLandings(events, [tap('a', 'touch-and-go', 305), tap('c', 'touch-and-go', 905)], start).map((p) => [
        p.foundIndex,
        p.tappedId,
      ]),
    ).toEqual([
      [0, 'a'],
      [1, null],
      [2, 'c'],
    ]);
    expect(
      pairLandings(events.slice(0, 1), [tap('a', 'touch-and-go', 300), tap('b', 'full-stop', 3000)], start).map((p) => [
        p.foundIndex,
        p.tappedId,
      ]),
    ).toEqual([
      [0, 'a'],
      [null, 'b'],
    ]);
    expect(pairLandings([], [tap('a', 'full-stop', 1)], null)).toEqual([
      { found: null, foundIndex: null, tappedId: 'a', apartS: null },
    ]);
  });
  it('without times the order and the kinds decide', () => {
    const pairs = pairLandings(
      [arrival('touch-and-go', 300), arrival('go-around', 600), arrival('landing', 900)],
      [tap('a', 'touch-and-go', null), tap('c', 'full-stop', null)],
      null,
    );
    expect(pairs.map((p) => p.tappedId)).toEqual(['a', null, 'c']);
  });
  it('every arrival and every tap stands exactly once, in order, whatever the lists', () => {
    const kinds = fc.constantFrom(
      'landing' as const,
      'touch-and-go' as const,
      'go-around' as const,
      'low-pass' as const,
    );
    fc.assert(
      fc.property(
        fc.array(kinds, { maxLength: 12 }),
        fc.array(fc.constantFrom('full-stop' as const, 'touch-and-go' as const, 'go-around' as const), {
          maxLength: 12,
        }),
        (found, tapped) => {
          const pairs = pairLandings(
            found.map((k, i) => arrival(k, 300 * (i + 1))),
            tapped.map((k, i) => tap(`t${i}`, k, 310 * (i + 1))),
            start,
          );
          expect(pairs.flatMap((p) => (p.foundIndex === null ? [] : [p.foundIndex]))).toEqual(found.map((_, i) => i));
          expect(pairs.flatMap((p) => (p.tappedId === null ? [] : [p.tappedId]))).toEqual(
            tapped.map((_, i) => `t${i}`),
          );
        },
      ),
    );
  });
  const c = { touchdownM: 60, trackM: 1.86, boxM: { before: 0, past: 122 }, fenceTarget: 54, ktPerUnit: 0.868976 };
  it('measures stand in the standard\u2019s terms, and say where the eye saw something else', () => {
    const e: Event = {
      ...arrival('landing', 100),
      gates: [{ name: 'Threshold', tS: 80, iasKt: 50, gsKt: 46, heightFt: 50, targetKt: 46.9, deviationKt: 3.1 }],
      rollout: { swingDeg: -6, lateralM: 2 },
    };
    const measures = measuresOf(
      e,
      {
        ...UNSEEN,
        kind: 'full-stop',
        lateral: 'line',
        along: 'in-the-box',
        swing: { band: 'small', side: 'left' },
        fenceSpeed: 58,
        crab: { band: 'none', side: null },
      },
      c,
    );
    const by = (id: string) => measures.find((m) => m.id === id);
    expect(by('along')).toMatchObject({ value: 70, conflict: false });
    expect(by('lateral')).toMatchObject({ value: -1.9, conflict: true, tapped: 'line' });
    expect(by('swing')).toMatchObject({ value: -6, conflict: false });
    expect(by('speed')).toMatchObject({ value: 3.1, conflict: false });
    expect(by('peakG')).toMatchObject({ tapped: null, conflict: false });
    for (const m of measures) expect(m.confidence).toBeLessThanOrEqual(e.confidence);
    expect(measuresOf({ ...e, touchdown: undefined }, UNSEEN, c)).toEqual([]);
    expect(
      measuresOf(
        { ...e, touchdown: { ...(e.touchdown as NonNullable<Event['touchdown']>), sinkFpm: null } },
        UNSEEN,
        c,
      ).some((m) => m.id === 'firmness'),
    ).toBe(false);
  });
  it('a place along is trusted less where no load was felt', () => {
    const e = arrival('landing', 100);
    const along = (x: Event) => measuresOf(x, UNSEEN, c).find((m) => m.id === 'along')?.confidence ?? 0;
    expect(
      along({ ...e, touchdown: { ...(e.touchdown as NonNullable<Event['touchdown']>), peakG: null } }),
    ).toBeLessThan(along(e) * 0.8);
  });
  it('only a chief who neither flew nor taught releases a limit', () => {
    const who = (roles: ('pilot' | 'instructor' | 'chief')[], id = 'me', pilotId: string | null = null) => ({
      id,
      name: '',
      email: '',
      roles,
      pilotId,
      authorised: [],
      massKg: 80,
      ownCrosswindKt: null,
      certificate: '',
      certificateUntil: null,
    });
    const thing = { pilotId: 'pilot-a', instructorId: 'teacher' };
    expect(may.releaseExceedance(who(['chief']), thing)).toBe(true);
    expect(may.releaseExceedance(who(['chief', 'instructor'], 'teacher'), thing)).toBe(false);
    expect(may.releaseExceedance(who(['chief'], 'me', 'pilot-a'), thing)).toBe(false);
    expect(may.releaseExceedance(who(['instructor']), thing)).toBe(false);
    expect(may.releaseExceedance(who(['pilot']), thing)).toBe(false);
  });
  it('eye words turn where the bands do', () => {
    expect([-4, -1, 0, 0.4, 1.2, 2.5].map((x) => eyeWord('lateral', x, c))).toEqual([
      'beyond-left',
      'wheel-left',
      'line',
      'line',
      'wheel-right',
      'beyond-right',
    ]);
    expect([-10, 0, 122, 123, 300].map((x) => eyeWord('along', x, c))).toEqual([
      'short',
      'in-the-box',
      'in-the-box',
      'long',
      'very-long',
    ]);
    expect(eyeWord('crab', -6, c)).toBe('marked left');
  });
  it('a measured value beats the eye in the judgement, and the reason says so', () => {
    const standard = Standard.parse(privateUs);
    const landing = {
      ...UNSEEN,
      kind: 'full-stop' as const,
      intended: 'three-point' as const,
      touched: 'three-point' as const,
      lateral: 'line' as const,
      along: 'in-the-box' as const,
      cleanTap: 'stopped' as const,
      intervention: 0,
    };
    const judge = (measured: Record<string, number> | null) =>
      judgeCaptured(landing, { standard, fenceTarget: 54, ktPerUnit: 0.868976, unit: 'mph', measured });
    expect(judge(null).landingClass).toBe('own');
    const off = judge({ lateral: -2.6 });
    expect(off.landingClass).toBe('own-off-target');
    expect(off.criteria.find((x) => x.id === 'lateral')).toMatchObject({ verdict: 'outside', form: 'measured' });
    expect(off.criteria.find((x) => x.id === 'lateral')?.reasons).toEqual([
      { code: 'measured', params: { value: -2.6, low: -2, high: 2, unit: 'm' } },
    ]);
    expect(judge({ swing: 14 }).landingClass).toBe('outside');
    expect(judge({ firmness: 200 }).criteria.find((x) => x.id === 'firmness')?.verdict).toBe('within');
  });
  it('airwork pairs by kind and time; its measures go into the item', () => {
    const turn = (startS: number): TraceAnalysis['airwork'][number] => ({
      kind: 'steep-turn',
      direction: 'left',
      startS,
      endS: startS + 30,
      maxBankDeg: -49,
      heightDeviationFt: { min: -140, max: 20 },
      speedDeviationKt: { min: -6, max: 2 },
      rolloutErrorDeg: 7,
      peakG: 1.5,
      heightLossFt: 140,
      confidence: 0.9,
    });
    const pairs = pairAirwork(
      [turn(100), turn(400), { ...turn(600), kind: 'clearing-turn' }],
      [{ id: 'late', kind: 'steep-turn', atMs: start + 440_000 }],
      start,
    );
    expect(pairs.map((p) => p.tappedId)).toEqual(['late', null]);
    const measured = itemMeasures(turn(100), 45);
    expect(measured).toEqual({ height: -140, speed: -6, rollOut: 7, bank: 4 });
    expect(withMeasured(null, 'steep-turn', measured, 0.868976)).toEqual({
      form: 'numbers',
      kind: 'steep-turn',
      set: {},
      seen: { height: -140, speed: -6.9, rollOut: 7, bank: 4 },
    });
    expect(
      withMeasured(
        { form: 'numbers', kind: 'steep-turn', set: { bank: 45 }, seen: { height: 'inside', heading: 3 } },
        'steep-turn',
        { height: 20 },
        1,
      ),
    ).toMatchObject({ set: { bank: 45 }, seen: { height: 20, heading: 3 } });
  });
});

describe('drawing and writing', () => {
  const f = suiteFlight(0, seeded(1));
  const flown = flyCircuits(f.plan);
  const rows = sense(flown, f.plan.runway, f.sensors, seeded(f.seed));
  const { analysis, placed } = analyseOnField(read(csvOf(rows, f.startUtcMs)), f.context);
  if (!placed) throw new Error('not placed');
  it('thinning keeps every peak and never more than it may', () => {
    fc.assert(
      fc.property(
        fc.array(fc.float({ min: -100, max: 100, noNaN: true }), { minLength: 2, maxLength: 3000 }),
        fc.integer({ min: 10, max: 200 }),
        (values, buckets) => {
          const tS = Float32Array.from(values.map((_, i) => i / 10));
          const x = Float32Array.from(values);
          const kept = thinned(tS, x, 0, (values.length - 1) / 10, buckets);
          expect(kept.length).toBeLessThanOrEqual(
            Math.max(2 * buckets + 4, values.length <= buckets * 2 + 2 ? values.length : 0),
          );
          expect(Math.max(...kept.map((i) => x[i] ?? 0))).toBe(Math.max(...x));
          expect(Math.min(...kept.map((i) => x[i] ?? 0))).toBe(Math.min(...x));
          expect([...kept].sort((a, b) => a - b)).toEqual(kept);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('packs and unpacks what it draws', () => {
    const s = seriesOf(placed);
    const back = unpackSeries(packSeries(s).slice().buffer);
    expect(back.tS).toEqual(s.tS);
    expect(Object.keys(back.columns)).toEqual(Object.keys(s.columns));
    expect(back.columns.nz).toEqual(s.columns.nz);
  });
  it('an approach is laid out by the way still to fly, so that it passes its gates', () => {
    let passed = 0;
    const series = seriesOf(placed);
    for (const e of analysis.events.filter((x) => x.touchdown)) {
      const line = approachLine(series, f.context, e);
      for (const [k, g] of (e.gates ?? []).entries()) {
        const distanceM = f.context.gates[k]?.distanceM;
        if (distanceM == null) continue;
        passed++;
        const at = line.x.reduce(
          (m, x, i) => (Math.abs(x + distanceM) < Math.abs((line.x[m] ?? 1e9) + distanceM) ? i : m),
          0,
        );
        expect(Math.abs((line.x[at] ?? 0) + distanceM)).toBeLessThan(20);
        expect(Math.abs((line.heightFt[at] ?? 0) - (g.heightFt ?? 0))).toBeLessThan(15);
      }
      // The touch stands where it was measured, and the load about it holds its peak.
      expect(Math.min(...line.x.map((x) => Math.abs(x - (e.touchdown?.alongM ?? 0))))).toBeLessThan(10);
      if (e.touchdown?.peakG != null) expect(Math.max(...line.load)).toBeCloseTo(e.touchdown.peakG, 2);
      for (let i = 1; i < line.x.length; i++) expect((line.x[i] ?? 0) - (line.x[i - 1] ?? 0)).toBeGreaterThan(-2);
    }
    expect(passed).toBeGreaterThan(0);
    expect(approachLine(series, f.context, { ...(analysis.events[0] as Event), runway: '99' }).x).toEqual([]);
  });
  it('the runways are drawn at their length and bearing, over the 180th meridian too', () => {
    for (const k of [0, 1, 2, 3, 4]) {
      const { context, plan } = suiteFlight(k, seeded(k + 1));
      const [strip] = runwayCorners(context);
      const [a, b] = strip?.ends ?? [];
      if (!a || !b) throw new Error('no strip');
      expect(Math.abs(Math.hypot(b.east - a.east, b.north - a.north) - plan.runway.lengthM)).toBeLessThan(0.5);
      expect(((Math.atan2(b.east - a.east, b.north - a.north) * 180) / Math.PI + 360) % 360).toBeCloseTo(
        plan.runway.trueBearingDeg,
        1,
      );
    }
  });
  it('a value held for the drawings tells those who follow it, and only as long as they do', () => {
    const h = observable(1);
    const seen: number[] = [];
    const stop = h.subscribe(() => seen.push(h.get()));
    h.set(2);
    stop();
    h.set(3);
    expect(seen).toEqual([2]);
    expect(h.get()).toBe(3);
  });
  it('what it writes reads back as the same flight', () => {
    const again = read(traceGpx(placed, analysis, f.context, 'a & <b>'));
    expect(again.rows).toBe(placed.n);
    expect(analyseOnField(again, f.context).analysis.events.map((e) => e.kind)).toEqual(
      analysis.events.map((e) => e.kind),
    );
    expect(traceGpx(placed, analysis, f.context, 'a & <b>')).toContain('a &#38; &#60;b&#62;');
    const geo = JSON.parse(traceGeoJson(placed, analysis, f.context, 'x')) as {
      features: { geometry: { type: string; coordinates: unknown[] } }[];
    };
    expect(geo.features[0]?.geometry.coordinates).toHaveLength(placed.n);
    expect(geo.features).toHaveLength(1 + analysis.events.length);
    expect(traceKml(placed, analysis, f.context, 'x').match(/<Placemark>/g)).toHaveLength(1 + analysis.events.length);
    const table = resultRows(analysis);
    expect(table).toHaveLength(1 + analysis.events.length + analysis.airwork.length);
    for (const r of table) expect(r).toHaveLength(table[0]?.length ?? 0);
  });
  it('one job from text to drawing, with progress that rises to its end', () => {
    const shares: number[] = [];
    const done = traceWork({ text: csvOf(rows, f.startUtcMs), mapping: null, context: f.context }, (s) =>
      shares.push(s),
    );
    expect(done.ok && done.series.length).toBeGreaterThan(1000);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.at(-1)).toBeGreaterThan(0.9);
    expect(traceWork({ text: 'a,b,c\n1,2,3', mapping: null, context: f.context })).toMatchObject({ ok: false });
    const mapped = traceWork({
      text: `zeit;breite;laenge;hoehe\n${rows
        .slice(0, 400)
        .map((r) => `${r.tS};${r.lat};${r.lon};${r.altFt}`)
        .join('\n')}`,
      mapping: {
        zeit: { channel: 'time:elapsed', unit: null },
        breite: { channel: 'lat', unit: null },
        laenge: { channel: 'lon', unit: null },
        hoehe: { channel: 'altGps', unit: 'ft' },
      },
      context: f.context,
    });
    expect(mapped.ok && mapped.analysis.source.channels).toEqual(['lat', 'lon', 'altGps']);
  });
});

describe('a chosen flight', () => {
  const choose = (errors: readonly (typeof PILOT_ERRORS)[number][], seed = 5) => {
    const made = planFor(
      sheet,
      'ZP-URZ',
      pedraAlva,
      {
        runwayEnd: '22',
        windFromDeg: 260,
        windKt: 8,
        side: 'left',
        arrivals: ['touch-and-go', 'touch-and-go'],
        airwork: [],
        errors,
        rateHz: 10,
        sensors: 'panel',
      },
      seeded(seed),
    );
    if (!made) throw new Error('no plan');
    const flown = flyCircuits(made.plan);
    const rows = sense(flown, made.plan.runway, sensorsOf({ sensors: 'panel', rateHz: 10 }), seeded(seed + 1));
    const { analysis } = analyseOnField(read(csvOf(rows, Date.UTC(2026, 10, 24, 9))), made.context);
    const found = score(flown, analysis, rows[0]?.tS ?? 0);
    expect([found.missed, found.invented]).toEqual([[], []]);
    const touches = analysis.events.flatMap((e) => (e.touchdown ? [e] : []));
    const mean = (of: (e: Event) => number | null | undefined) =>
      touches.reduce((a, e) => a + (of(e) ?? 0), 0) / touches.length;
    return { analysis, mean };
  };
  it('shows the errors it was given, and not without them', () => {
    const good = choose([]);
    expect(Math.abs(good.mean((e) => e.touchdown?.lateralM))).toBeLessThan(1.5);
    expect(choose(['left-bias']).mean((e) => e.touchdown?.lateralM)).toBeLessThan(-1.4);
    expect(choose(['late-round-out']).mean((e) => e.touchdown?.sinkFpm)).toBeGreaterThan(
      good.mean((e) => e.touchdown?.sinkFpm) + 130,
    );
    expect(choose(['long-float']).mean((e) => e.touchdown?.alongM)).toBeGreaterThan(
      good.mean((e) => e.touchdown?.alongM) + 90,
    );
    expect(choose(['plateau-speed']).mean((e) => e.gates?.at(-1)?.deviationKt)).toBeGreaterThan(
      good.mean((e) => e.gates?.at(-1)?.deviationKt) + 3,
    );
    expect(Math.abs(choose(['early-alignment']).mean((e) => e.touchdown?.driftKt))).toBeGreaterThan(1);
  });
  it('flap above its limit is found as a limit passed, with how far and how long', () => {
    const esteva = TypeSheet.parse(types.find((t) => t.code === 'serrana-esteva'));
    const choices = {
      runwayEnd: '22',
      windFromDeg: 220,
      windKt: 5,
      side: 'left' as const,
      arrivals: [],
      airwork: [],
      rateHz: 5,
      sensors: 'panel' as const,
    };
    const limits = (errors: 'flap-over-limit'[]) => {
      const made = planFor(esteva, 'ZP-EST', pedraAlva, { ...choices, errors }, seeded(3));
      if (!made) throw new Error('no plan');
      return analyseOnField(
        read(
          csvOf(sense(flyCircuits(made.plan), made.plan.runway, sensorsOf(choices), seeded(4)), Date.UTC(2026, 10, 24)),
        ),
        made.context,
      ).analysis.exceedances;
    };
    expect(limits([])).toEqual([]);
    const [first] = limits(['flap-over-limit']);
    expect(first).toMatchObject({ channel: 'vfe', limit: 72, unit: 'kt' });
    expect(first?.peak).toBeGreaterThan(75);
    expect(first?.durationS).toBeGreaterThan(5);
  });
  it('a runway that is not the field\u2019s is refused', () => {
    expect(
      planFor(
        sheet,
        'ZP-URZ',
        pedraAlva,
        {
          runwayEnd: '99',
          windFromDeg: 0,
          windKt: 0,
          side: 'left',
          arrivals: [],
          airwork: [],
          errors: [],
          rateHz: 5,
          sensors: 'panel',
        },
        seeded(1),
      ),
    ).toBeNull();
  });
});
