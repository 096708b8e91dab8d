import { describe, expect, it } from 'vitest';
import { pedraAlva } from '@demo/aerodrome';
import { types } from '@demo/fleet';
import house from '@content/house.json';
import fc from 'fast-check';
import { besideLimit } from '@/core/format';
import { endsOf } from '@/core/runway';
import { validateSheet } from '@/core/sheet';
import { traceContext } from '@/core/trace';
import type { WindSeen } from '@/domain/brief';
import { TypeSheet as TypeSheetSchema } from '@/domain/sheet';
import {
  type BriefContext,
  airToday,
  computeBrief,
  crosswindSentences,
  electricsToday,
  kneeboardCard,
  usableEnds,
} from '@/core/approach';
import { readReport, stationForecast, stationObservation, stationWind } from '@/core/wind';
import { tableFromRows } from '@/core/runway';
import type { BriefChoices } from '@/domain/brief';
import { House } from '@/domain/programme';
import type { TypeSheet } from '@/domain/sheet';
import { BLOCKS, completeLayout, moved } from '@/ui/brief/arrange';

const HOUSE = House.parse(house);

const NOW = '2026-11-24T14:30:00.000Z';
const sheetOf = (code: string): TypeSheet =>
  types.find((t) => t.code === code) ??
  (() => {
    throw new Error(code);
  })();
const context = (sheet: TypeSheet): BriefContext => ({
  sheet,
  airframeCrosswindKt: null,
  aerodrome: pedraAlva,
  house: HOUSE,
  ladder: { provenKt: 6, ladderKt: 9, decaySteps: 0, goodCount: 3, badCount: 0 },
  pilotName: 'Duarte Nogal',
  habits: [],
  eyeHeightM: null,
  dual: true,
  groundSamplesMin: [],
  nowIso: NOW,
});
const wind = (fromDeg: number, kt: number, gustKt: number | null = null): WindSeen => ({
  source: 'report',
  raw: '',
  reference: 'true',
  variable: false,
  fromDeg,
  kt,
  gustKt,
  arcFromDeg: null,
  arcToDeg: null,
  observedAt: '2026-11-24T14:25:00.000Z',
});
const choices = (more: Partial<BriefChoices> = {}): BriefChoices => ({
  flownOn: '2026-11-24',
  runwayEnd: '22',
  wind: wind(220, 9),
  maxFlapDeg: null,
  fuelL: 100,
  pilotKg: 80,
  instructorKg: 70,
  baggageKg: 0,
  rearKg: 0,
  qnhHpa: 1013.25,
  oatC: 15,
  surfaceState: 'dry',
  night: false,
  bookingMin: 90,
  second: null,
  layout: { order: [], hidden: [], own: [] },
  gustSchool: 'half',
  speedSchool: 'constant',
  intended: 'mains-first',
  instructorLimitKt: 15,
  focus: '',
  ...more,
});
const carvalho = sheetOf('serrana-carvalho');

describe('the air today', () => {
  it('gives pressure and density altitude, and nothing without QNH or temperature', () => {
    const air = airToday(1345, { qnhHpa: 1013.25, oatC: 30 });
    expect(air.pressureAltFt).toBeCloseTo(1345, 0);
    expect(air.densityAltFt).toBeGreaterThan(2900);
    expect(airToday(1345, { qnhHpa: null, oatC: 30 })).toMatchObject({
      densityAltFt: null,
      sigma: null,
      missing: ['QNH'],
    });
    expect(airToday(1345, { qnhHpa: null, oatC: null }).missing).toEqual(['QNH', 'temperature']);
  });
});

describe('runway needed', () => {
  it('comes from the table with stated factors, and names what is missing', () => {
    const r = computeBrief(choices(), context(carvalho));
    expect(r.landing?.need.verdict).toBe('enough');
    expect(r.landing?.need.steps.map((s) => s.name)).toEqual(['downhill 0.4 %', 'headwind 8 kt, 50 % of it', 'safety']);
    expect(computeBrief(choices({ oatC: null }), context(carvalho)).landing?.words).toBe(
      'temperature not known: runway not computed',
    );
    expect(computeBrief(choices({ oatC: 45 }), context(carvalho)).landing?.words).toContain(
      'temperature is outside the handbook table',
    );
    expect(computeBrief(choices(), context({ ...carvalho, distances: null })).takeoff?.words).toBe(
      'no data on the sheet: runway not computed',
    );
  });
  it('grows with grass, water, tailwind, slope and speed', () => {
    const need = (c: Partial<BriefChoices>) => computeBrief(choices(c), context(carvalho)).landing?.need.over50M ?? 0;
    const dry = need({});
    expect(need({ surfaceState: 'wet' })).toBeCloseTo(dry * 1.15, 4);
    expect(need({ wind: wind(220, 9, 19) })).toBeGreaterThan(dry);
    expect(need({ wind: wind(38, 4) })).toBeGreaterThan(dry * 1.2);
    expect(need({ maxFlapDeg: 0, wind: wind(220, 9) })).toBeGreaterThan(dry * 1.1);
    const grass = computeBrief(choices({ runwayEnd: '29', surfaceState: 'wet' }), context(carvalho));
    expect(grass.landing?.need.steps.map((s) => s.name)).toContain('wet grass');
  });
  it('says too short, and too narrow', () => {
    const short = computeBrief(
      choices({ runwayEnd: '11', surfaceState: 'wet', wind: wind(270, 5), oatC: 34 }),
      context(carvalho),
    );
    expect(short.warnings.join(' ')).toMatch(/Landing: \d+ m needed with the school’s margin, 620 m available/);
    const narrow = {
      ...carvalho,
      landing: { ...carvalho.landing, minWidthM: { value: 23, source: 'house' as const, ref: 'order' } },
    };
    expect(computeBrief(choices(), context(narrow)).warnings.join(' ')).toContain(
      'Runway 22 is 18 m wide; 23 m are required (order).',
    );
  });
  it('leaves a hole where a row of the table is missing', () => {
    const rows = carvalho.distances?.landing.slice(1) ?? [];
    expect(JSON.stringify(tableFromRows(rows, (r) => r.over50FtM)?.valuesM)).toContain('null');
    expect(tableFromRows([], () => 0)).toBeNull();
  });
});

describe('loading, fuel and electrics', () => {
  it('judges both and solo, with trim; outside is warned', () => {
    const r = computeBrief(choices(), context(carvalho));
    expect(r.loading?.dual.allInside).toBe(true);
    expect(r.loading?.solo.takeOff.massKg).toBeCloseTo(885 + 80 + 72, 6);
    expect(r.loading?.dualKg).toBeCloseTo(r.massKg, 6);
    expect(r.loading?.trim?.dual).toBeGreaterThan(3);
    const aft = computeBrief(choices({ baggageKg: 120, rearKg: 260, fuelL: 20 }), context(carvalho));
    expect(aft.warnings.join(' ')).toContain('Baggage is loaded above its limit');
    expect(computeBrief(choices(), context({ ...carvalho, loading: null })).loading).toBeNull();
  });
  it('counts circuits and names what limits them', () => {
    const fuel = (c: Partial<BriefChoices>) => computeBrief(choices(c), context(carvalho)).fuel;
    expect(fuel({}).circuits).toMatchObject({
      limitedBy: 'fuel',
      circuits: Math.floor(((100 / 52) * 60 - 30 - 22) / 6),
    });
    expect(fuel({ fuelL: 200 }).circuits).toMatchObject({ limitedBy: 'booking', circuits: 11 });
    expect(fuel({ night: true }).endurance.reserveMin).toBe(45);
  });
  it('tells what dies when, and nothing without data', () => {
    const timeline = electricsToday(sheetOf('alvor-c4g'));
    expect(timeline?.busDeadMin).toBeGreaterThan(60);
    expect(timeline?.events.find((e) => e.name === 'standby horizon')?.tMin).toBeCloseTo(
      (timeline?.busDeadMin ?? 0) + 60,
      6,
    );
    expect(electricsToday(carvalho)?.events[0]?.cause).toBe('shed');
    expect(electricsToday(sheetOf('serrana-urze'))).toBeNull();
  });
});

describe('the schedule as flown', () => {
  it('floors a twin at Vyse until landing is assured, then holds the handbook’s threshold speed unscaled', () => {
    const r = computeBrief(choices({ fuelL: 60, pilotKg: 60, instructorKg: 60 }), context(sheetOf('planalto-p2')));
    expect(r.gates[2]?.target).toBeGreaterThanOrEqual(88);
    expect(r.gates[3]?.target).toBeGreaterThanOrEqual(78);
    expect(r.gates[2]?.warnings.join(' ')).toContain('Vyse');
  });
  it('says below Vyse where a flap limit leaves no other speed, never held at it', () => {
    const low = structuredClone(sheetOf('planalto-p2'));
    for (const v of low.speeds.vfe) v.speed.value = 85;
    const r = computeBrief(choices(), context(low));
    expect(r.gates[2]?.target).toBeLessThan(88);
    expect(r.gates[2]?.warnings.join(' ')).toContain('below Vyse');
    expect(r.gates[2]?.warnings.join(' ')).not.toContain('held at Vyse');
  });
  it('warns of a flap limit the gate breaks', () => {
    const low = structuredClone(carvalho);
    const limit = low.speeds.vfe[1];
    if (limit) limit.speed.value = 72;
    expect(computeBrief(choices(), context(low)).warnings).toContain(
      'Type sheet: Base: flap is selected at 76\u00a0kt, above its limit of 72\u00a0kt.',
    );
    const heavy = computeBrief(choices({ fuelL: 235, pilotKg: 110, instructorKg: 110, rearKg: 150 }), context(low));
    expect(heavy.gates[1]).toMatchObject({ target: 68 });
    expect(heavy.warnings.join(' ')).toContain('Base: target held 3 kt below the flap limit');
  });
  it('says when it cannot slow in time, and survives gates that are out of order', () => {
    const r = computeBrief(
      choices({ wind: wind(38, 5) }),
      context({
        ...carvalho,
        approach: carvalho.approach.map((g, i) =>
          i === 0 ? { ...g, distanceM: 2560, heightFt: 700, speed: { ...g.speed, value: 102 } } : g,
        ),
      }),
    );
    expect(r.legs[0]?.canSlow).toBe('no');
    expect(r.warnings.join(' ')).toContain('cannot slow that fast');
    expect(
      computeBrief(
        choices({ pilotKg: 60, instructorKg: 60, fuelL: 40 }),
        context(sheetOf('serrana-esteva')),
      ).warnings.join(' '),
    ).toContain('Type sheet: Base at 7130 m does not come after Downwind at 2600 m.');
  });
  it('reads slope lights only where there are some, and the altimeter from the runway used', () => {
    const r = computeBrief(choices(), context(carvalho));
    expect(r.gates.map((g) => g.whites)).toEqual([null, null, expect.any(Number), null]);
    expect(computeBrief(choices({ runwayEnd: '29' }), context(carvalho)).gates.every((g) => g.whites === null)).toBe(
      true,
    );
    expect(
      computeBrief(choices({ runwayEnd: '18W', fuelL: 100 }), context(sheetOf('orla-mare'))).gates[0]?.altimeterFt,
    ).toBe(1299 + 900);
    expect(usableEnds(pedraAlva, 'land').map((e) => e.ident)).toEqual(['04', '22', '11', '29']);
    expect(usableEnds(pedraAlva, 'sea').map((e) => e.ident)).toEqual(['18W', '36W']);
  });
  it('turns a break interval into metres', () => {
    const r = computeBrief(
      choices({
        second: { registration: 'ZP-CAD', leads: 'this', position: '', place: '', heightFt: null, at: '', breakS: 4 },
      }),
      context(carvalho),
    );
    expect(r.breakM).toBeCloseTo(
      ((r.gates[0]?.cas?.targetKt ?? 0) / Math.sqrt(r.air.sigma ?? 1) +
        (r.runways.find((x) => x.ident === '22')?.headwindKt ?? 0)) *
        0.514444 *
        4,
      6,
    );
  });
});

describe('the card', () => {
  it('carries the warnings and the numbers of the brief', () => {
    const c = choices({
      maxFlapDeg: 20,
      focus: 'Feet alive',
      layout: {
        order: [],
        hidden: [],
        own: [{ id: 'own-1', title: 'Gliders', text: 'West of the field until noon.' }],
      },
    });
    const result = computeBrief(c, context(carvalho));
    const card = kneeboardCard({
      timeZone: 'Europe/Lisbon',
      pilotName: 'Duarte Nogal',
      registration: 'ZP-CAV',
      lesson: 2,
      briefVersion: 1,
      savedAt: NOW,
      typeVersion: 1,
      sheet: carvalho,
      house: HOUSE,
      choices: c,
      result,
      nowIso: NOW,
    });
    expect(card.warnings).toEqual(result.warnings);
    expect(card.gates.map((g) => g.speed)).toEqual(result.gates.map((g) => `${g.target ?? 0}\u00a0kt`));
    expect(card.back.find((s) => s.title === 'Gliders')?.lines).toEqual(['West of the field until noon.']);
    expect(card.front.flatMap((s) => s.lines).join(' ')).toContain('Focus: Feet alive');
    expect(card.tally.rows).toBe(10);
  });
});

describe('surface, slope, edges and what is printed', () => {
  const orla = sheetOf('orla-mare');
  const carvalho = sheetOf('serrana-carvalho');
  const calm = { ...choices(), wind: wind(215, 4), fuelL: 150 };
  it('an amphibian has its wheels down on land with the land distances, up on water with those of the water', () => {
    const land = computeBrief({ ...calm, runwayEnd: '22' }, context(orla));
    const water = computeBrief({ ...calm, runwayEnd: '18W' }, context(orla));
    expect(new Set(land.gates.map((g) => g.gear))).toEqual(new Set(['down']));
    expect(new Set(water.gates.map((g) => g.gear))).toEqual(new Set(['up']));
    // By hand: the land table's roll over 50 ft at 2000 kg, 0 ft, 0 °C is 640·0.64·0.91 = 372.7, to 5 m: 375.
    expect(orla.onLand?.distances?.landing[0]?.over50FtM).toBe(375);
    expect(land.landing?.tableOver50M).toBeLessThan(water.landing?.tableOver50M ?? 0);
    expect([land.surface, water.surface]).toEqual(['land', 'water']);
    // 18 m of asphalt are enough for the wheels and would be too narrow by the 40 m of the lane.
    expect(land.landing?.need.width).toBe('enough');
    const card = (r: typeof land, runwayEnd: string) =>
      kneeboardCard({
        timeZone: 'Europe/Lisbon',
        pilotName: 'A B',
        registration: 'ZP-ORL',
        lesson: 1,
        briefVersion: 1,
        savedAt: NOW,
        typeVersion: 1,
        sheet: orla,
        house: HOUSE,
        choices: { ...calm, runwayEnd },
        result: r,
        nowIso: NOW,
      });
    expect(card(land, '22').gates.every((g) => g.configuration.includes('gear down'))).toBe(true);
    expect(card(water, '18W').gates.every((g) => g.configuration.includes('gear up'))).toBe(true);
    expect(JSON.stringify(card(land, '22').front)).toContain('wheels up');
  });
  it('without a schedule for the surface there is no gate and no distance, and it says which is missing', () => {
    const old = { ...orla, onLand: null };
    const r = computeBrief({ ...calm, runwayEnd: '22' }, context(old));
    expect([r.gates, r.landing?.need.verdict, r.takeoff?.need.verdict]).toEqual([[], null, null]);
    expect(r.warnings.join(' ')).toContain('no approach schedule for land');
    expect(r.runways.find((x) => x.ident === '22')?.suitable).toBe(false);
    expect(computeBrief({ ...calm, runwayEnd: '18W' }, context(old)).gates).toHaveLength(4);
    expect(TypeSheetSchema.parse({ ...JSON.parse(JSON.stringify(old)), onLand: undefined }).onLand).toBeNull();
    expect(validateSheet(old).map((f) => f.code)).toContain('surface-missing');
    expect(validateSheet(orla).map((f) => f.code)).toEqual([]);
  });
  it('a slope means one thing from the aerodrome to the factor and to the trace', () => {
    // 04 first: +0.4 % rises for a take-off on 04, so a landing on 22 goes downhill.
    const of = (runwayEnd: string, kind: 'takeoff' | 'landing') =>
      computeBrief({ ...calm, runwayEnd }, context(carvalho))[kind]?.need.steps.map((s) => s.name) ?? [];
    expect(of('04', 'takeoff')).toContain('uphill 0.4 %');
    expect(of('22', 'landing')).toContain('downhill 0.4 %');
    expect(of('22', 'takeoff').join()).not.toContain('hill');
    const [low, high] = traceContext(pedraAlva, carvalho, 'ZP-CAV', [], 0).aerodrome.runways[0]?.ends ?? [];
    expect((high?.elevationFt ?? 0) - (low?.elevationFt ?? 0)).toBeCloseTo((0.004 * 900) / 0.3048, 0);
    // Surveyed ends govern over a slope typed by hand: 1345 and 1375 ft over 900 m are 1.016 %.
    const strip = structuredClone(pedraAlva.runways[0]) as (typeof pedraAlva.runways)[number];
    Object.assign(strip.ends[0] ?? {}, { elevationFt: 1345 });
    Object.assign(strip.ends[1] ?? {}, { elevationFt: 1375 });
    expect(endsOf(strip)[0]?.slopePct).toBeCloseTo(1.016, 3);
    expect(endsOf(strip)[1]).toMatchObject({ thresholdFt: 1375, surveyed: true });
  });
  it('never proposes an end that the same page speaks against', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...types.map((t) => t.code)),
        fc.integer({ min: 1, max: 360 }),
        fc.integer({ min: 0, max: 30 }),
        fc.integer({ min: 0, max: 15 }),
        fc.integer({ min: 0, max: 60 }),
        fc.constantFrom('dry' as const, 'wet' as const),
        (code, from, kt, more, swing, surfaceState) => {
          const sheet = sheetOf(code);
          const w: WindSeen = {
            ...wind(from, kt, more === 0 ? null : kt + more),
            arcFromDeg: swing === 0 ? null : ((from - swing + 359) % 360) + 1,
            arcToDeg: swing === 0 ? null : ((from + swing - 1) % 360) + 1,
          };
          const first = computeBrief(choices({ wind: w, surfaceState }), context(sheet));
          if (first.chosenEnd === null) {
            expect(first.runways.some((r) => r.suitable)).toBe(false);
            return;
          }
          const r = computeBrief(choices({ wind: w, surfaceState, runwayEnd: first.chosenEnd }), context(sheet));
          expect([r.takeoff?.need.verdict, r.landing?.need.verdict, r.crosswind.verdict]).not.toContain('not-enough');
          expect(r.crosswind.verdict).not.toBe('outside');
          expect(r.flap.verdict).not.toBe('outside');
        },
      ),
      { numRuns: 150 },
    );
  });
  it('counts tailwind gusts, gives no floor to a headwind, and says when the table’s edge is used', () => {
    const tail = computeBrief({ ...calm, wind: wind(38, 3, 5), runwayEnd: '22' }, context(carvalho));
    expect(tail.takeoff?.need.steps.map((s) => s.name).join()).toContain('tailwind 5 kt in gusts');
    const light = computeBrief({ ...calm, fuelL: 5, pilotKg: 50, instructorKg: 0 }, context(carvalho));
    expect(light.landing?.edge).toBe(true);
    expect(light.warnings.join(' ')).toContain('table\u2019s edge used');
    const least = Math.min(...(carvalho.distances?.landing ?? []).map((r) => r.massKg));
    expect(light.massKg).toBeLessThan(least);
    const heavy = computeBrief(
      { ...calm, fuelL: 235, pilotKg: 120, instructorKg: 120, rearKg: 160 },
      context(carvalho),
    );
    expect(heavy.landing?.refused).toBe('outside-mass');
  });
  it('without the instructor the second seat is empty; the school decides what else stays', () => {
    const at = (soloKeeps: House['soloKeeps']) =>
      computeBrief(
        { ...calm, pilotKg: 76, instructorKg: 66, baggageKg: 20, rearKg: 40 },
        { ...context(carvalho), house: { ...HOUSE, soloKeeps } },
      ).loading;
    const both = at({ rear: true, baggage: true });
    const none = at({ rear: false, baggage: false });
    expect((both?.dual.takeOff.massKg ?? 0) - (both?.solo.takeOff.massKg ?? 0)).toBeCloseTo(66, 6);
    expect((both?.dual.takeOff.massKg ?? 0) - (none?.solo.takeOff.massKg ?? 0)).toBeCloseTo(66 + 20 + 40, 6);
  });
  it('a card printed ten minutes after its wind carries no verdict and says when the wind was taken', () => {
    const c = { ...calm, wind: wind(215, 4) };
    const result = computeBrief(c, context(carvalho));
    const lines = (nowIso: string) =>
      kneeboardCard({
        timeZone: 'Europe/Lisbon',
        pilotName: 'A B',
        registration: 'ZP-CAV',
        lesson: 1,
        briefVersion: 1,
        savedAt: NOW,
        typeVersion: 1,
        sheet: carvalho,
        house: HOUSE,
        choices: c,
        result,
        nowIso,
      }).front[0]?.lines.join(' ') ?? '';
    expect(lines(NOW)).toContain('Within');
    const later = lines('2026-11-24T15:30:00.000Z');
    expect(later).toContain('Verdict: look again');
    expect(later).not.toMatch(/within/i);
    expect(later).toMatch(/24 Nov 2026 14:\d\d WET/);
  });
  it('above a demonstrated value with no limit known it is no verdict, and says why', () => {
    const r = computeBrief(
      { ...calm, wind: wind(128, 20), runwayEnd: '22', instructorLimitKt: null },
      { ...context(carvalho), house: { ...HOUSE, crosswindKt: {} } },
    );
    expect(r.crosswind).toMatchObject({ verdict: null, reason: 'no-limit', aboveDemonstrated: true });
    expect(crosswindSentences(r, '22', 'A').verdict).toContain('Above the demonstrated value, and no limit known');
  });
  it('a speed below the dial’s table carries its mark, on seven types of eleven', () => {
    const marked = types.filter((t) => {
      const r = computeBrief({ ...calm, fuelL: 20, pilotKg: 70, instructorKg: 0 }, context(t));
      return [...r.gates, ...r.vsToday].some((x) => x.beyondTable);
    });
    expect(marked.length).toBeGreaterThanOrEqual(7);
  });
  it('no number beside a verdict contradicts it', () => {
    expect(besideLimit(12, 12.4)).toEqual(['12', '13']);
    expect(besideLimit(12.5, 12.3)).toEqual(['12.5', '12.3']);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 40, noNaN: true }), fc.double({ min: 0, max: 40, noNaN: true }), (a, b) => {
        const [limit, value] = besideLimit(Math.round(a * 1000) / 1000, Math.round(b * 1000) / 1000);
        expect(Number(value) > Number(limit)).toBe(Math.round(b * 1000) > Math.round(a * 1000));
      }),
    );
  });
});

describe('the simulated station', () => {
  it('says the same at the same instant, and every report of a year can be read', () => {
    expect(stationObservation('ZPAV', NOW)).toEqual(stationObservation('ZPAV', NOW));
    for (let i = 0; i < 2000; i++) {
      const at = new Date(Date.UTC(2026, 0, 1) + i * 4.37 * 3_600_000).toISOString();
      const { text, observedAt } = stationObservation('ZPAV', at);
      expect(readReport(text).ok, text).toBe(true);
      expect(Date.parse(at) - Date.parse(observedAt)).toBeLessThan(10 * 60_000);
      expect(stationWind('ZPAV', at)?.observedAt).toBe(observedAt);
    }
  });
  it('forecasts nine hours in three parts', () => {
    const f = stationForecast('ZPAV', NOW);
    expect(f.text).toMatch(/^TAF ZPAV 241200Z 2413\/2422 /);
    expect(f.parts.map((p) => p.kind)).toEqual(['base', 'becoming', 'becoming']);
    expect(f.parts[0]?.toIso).toBe(f.parts[1]?.fromIso);
  });
});

describe('the order of a brief', () => {
  it('keeps what was chosen, adds new blocks at the end, forgets what is gone', () => {
    const layout = completeLayout({
      order: ['fuel', 'gone', 'path', 'fuel'],
      hidden: [],
      own: [{ id: 'own-1', title: 'x', text: 'y' }],
    });
    expect(layout.order.slice(0, 2)).toEqual(['fuel', 'path']);
    expect(new Set(layout.order)).toEqual(new Set([...BLOCKS.map((b) => b.id), 'own-1']));
    expect(moved(['a', 'b', 'c'], 'c', 0)).toEqual(['c', 'a', 'b']);
    expect(moved(['a', 'b', 'c'], 'a', 1)).toEqual(['b', 'a', 'c']);
  });
});
