import { describe, expect, it } from 'vitest';
import { pedraAlva } from '@demo/aerodrome';
import { types } from '@demo/fleet';
import house from '@content/house.json';
import { type BriefContext, airToday, computeBrief, electricsToday, kneeboardCard, usableEnds } from '@/core/approach';
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
const wind = (fromDeg: number, kt: number, gustKt: number | null = null): BriefChoices['wind'] => ({
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
    expect(r.landing?.need.steps.map((s) => s.name)).toEqual(['downhill 0.4 %', 'headwind 9 kt, 50 % of it', 'safety']);
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
    expect(short.warnings.join(' ')).toMatch(/Landing: \d+ m needed with the house’s margin, 620 m there/);
    const narrow = {
      ...carvalho,
      landing: { ...carvalho.landing, minWidthM: { value: 23, source: 'house' as const, ref: 'order' } },
    };
    expect(computeBrief(choices(), context(narrow)).warnings.join(' ')).toContain(
      'Runway 22 is 18 m wide; 23 m are asked (order).',
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
  it('floors a twin at Vyse until landing is assured, then Vsse', () => {
    const r = computeBrief(choices({ fuelL: 60, pilotKg: 60, instructorKg: 60 }), context(sheetOf('planalto-p2')));
    expect(r.gates[2]?.target).toBeGreaterThanOrEqual(88);
    expect(r.gates[3]?.target).toBeGreaterThanOrEqual(78);
    expect(r.gates[2]?.warnings.join(' ')).toContain('Vyse');
  });
  it('warns of a flap limit the gate breaks', () => {
    const low = structuredClone(carvalho);
    const limit = low.speeds.vfe[1];
    if (limit) limit.speed.value = 72;
    expect(computeBrief(choices(), context(low)).warnings).toContain(
      'Type sheet: Base: flap is selected at 76\u00a0kt, above its limit of 72\u00a0kt.',
    );
    const heavy = computeBrief(choices({ fuelL: 235, pilotKg: 110, instructorKg: 110, rearKg: 150 }), context(low));
    expect(heavy.gates[1]).toMatchObject({ target: 69 });
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
    ).toContain('Type sheet: Base at 7130 m does not come after Downwind at 3000 m.');
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
    });
    expect(card.warnings).toEqual(result.warnings);
    expect(card.gates.map((g) => g.speed)).toEqual(result.gates.map((g) => `${g.target ?? 0}\u00a0kt`));
    expect(card.back.find((s) => s.title === 'Gliders')?.lines).toEqual(['West of the field until noon.']);
    expect(card.front.flatMap((s) => s.lines).join(' ')).toContain('Think of: Feet alive');
    expect(card.tally.rows).toBe(10);
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
