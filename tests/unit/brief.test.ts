import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pedraAlva } from '@demo/aerodrome';
import { airframes, types } from '@demo/fleet';
import house from '@content/house.json';
import { type BriefContext, computeBrief, gateConfiguration, crosswindSentences } from '@/core/approach';
import { effectiveSheet, gearMassGroup, ladderStepKt, schoolCrosswind } from '@/core/plan';
import { casKtToDial, dialToCasKt } from '@/core/speeds';
import type { BriefChoices, WindSeen } from '@/domain/brief';
import { House } from '@/domain/programme';
import type { Airframe, TypeSheet } from '@/domain/sheet';

const HOUSE = House.parse(house);

const NOW = '2026-11-24T14:30:00.000Z';
const sheetOf = (code: string): TypeSheet => {
  const s = types.find((t) => t.code === code);
  if (!s) throw new Error(code);
  return s;
};
const frameOf = (reg: string): Airframe => {
  const a = airframes.find((x) => x.registration === reg);
  if (!a) throw new Error(reg);
  return a;
};
const urze = sheetOf('serrana-urze');
const carvalho = sheetOf('serrana-carvalho');

const wind = (fromDeg: number, kt: number, gustKt: number | null = null, ageMin = 4): WindSeen => ({
  source: 'report',
  raw: '',
  reference: 'true',
  variable: false,
  fromDeg,
  kt,
  gustKt,
  arcFromDeg: null,
  arcToDeg: null,
  observedAt: new Date(Date.parse(NOW) - ageMin * 60_000).toISOString(),
});
const context = (sheet: TypeSheet, more: Partial<BriefContext> = {}): BriefContext => ({
  sheet,
  airframeCrosswindKt: null,
  aerodrome: pedraAlva,
  house: HOUSE,
  ladder: { provenKt: 6, ladderKt: 8, decaySteps: 0, goodCount: 3, badCount: 0 },
  pilotName: 'Duarte Nogal',
  habits: [],
  eyeHeightM: null,
  dual: true,
  groundSamplesMin: [],
  nowIso: NOW,
  ...more,
});
const choices = (more: Partial<BriefChoices> = {}): BriefChoices => ({
  flownOn: '2026-11-24',
  runwayEnd: '22',
  wind: wind(260, 11, 17),
  maxFlapDeg: null,
  fuelL: 40,
  pilotKg: 76,
  instructorKg: 66,
  baggageKg: 0,
  rearKg: 0,
  qnhHpa: 1016,
  oatC: 18,
  surfaceState: 'dry',
  night: false,
  bookingMin: 90,
  second: null,
  layout: { order: [], hidden: [], own: [] },
  speedSchool: 'constant',
  gustSchool: 'half',
  intended: 'three-point',
  instructorLimitKt: 12,
  focus: '',
  ...more,
});

describe('computeBrief, light tailwheel in miles per hour', () => {
  const result = computeBrief(choices(), context(urze));
  it('adds half the gust spread in the dial\u2019s unit on final gates only', () => {
    expect(result.gates.map((g) => g.additive > 0)).toEqual([false, false, true, true]);
    expect(result.gates[3]?.additive).toBeCloseTo(3 / 0.868976, 3);
  });
  it('scales from the reference mass and never below the calibrated stall margin', () => {
    expect(result.massKg).toBeCloseTo(352 + 76 + 66 + 40 * 0.72, 6);
    for (const g of result.gates) expect(g.margin?.marginLevel ?? 0).toBeGreaterThan(1.3);
  });
  it('works the crosswind on the true bearing and says which is which', () => {
    const used = result.runways.find((r) => r.ident === '22');
    expect(used?.trueBearingDeg).toBe(218);
    expect(used?.magneticBearingDeg).toBe(220);
    expect(used?.crosswindKt).toBeCloseTo(11 * Math.sin((42 * Math.PI) / 180), 3);
    expect(result).toMatchObject({ windTrueDeg: 260, windMagneticDeg: 262 });
  });
  it('takes a magnetic wind for what it is', () => {
    const typed = computeBrief(choices({ wind: { ...wind(262, 11, 17), reference: 'magnetic' } }), context(urze));
    expect(typed.runways[1]?.crosswindKt).toBeCloseTo(result.runways[1]?.crosswindKt ?? 0, 6);
  });
  it('shows 0.2 Vs0 near 7 kt and never lets it govern', () => {
    const floor = result.limits.find((l) => l.kind === 'vs0Floor');
    expect(floor?.valueKt).toBeGreaterThan(6.5);
    expect(floor?.valueKt).toBeLessThan(7.5);
    expect(result.crosswind.governingKind).toBe('house');
  });
  it('gives heights as altimeter readings too', () => {
    expect(result.gates[0]).toMatchObject({ heightFt: 900, altimeterFt: 2245 });
  });
});

describe('computeBrief, wind that cannot be used', () => {
  it('gives components but no verdict when the wind is old', () => {
    const r = computeBrief(choices({ wind: wind(260, 11, null, 25) }), context(urze));
    expect(r.crosswind).toMatchObject({ reason: 'no-recent-wind', verdict: null });
    expect(crosswindSentences(r, '22', 'Duarte').verdict).toContain('25');
  });
  it('gives no verdict for a wind timed in the future', () => {
    const r = computeBrief(choices({ wind: wind(260, 11, null, -30) }), context(urze));
    expect(r.crosswind.verdict).toBeNull();
    expect(r.warnings.join(' ')).toContain('future');
  });
  it('works without any wind', () => {
    const r = computeBrief(choices({ wind: null }), context(urze));
    expect(r.chosenEnd).toBeNull();
    expect(r.gates.every((g) => g.target !== null)).toBe(true);
  });
  it('takes a variable wind as wholly across and wholly behind', () => {
    const r = computeBrief(choices({ wind: { ...wind(0, 6), variable: true, fromDeg: null } }), context(urze));
    expect(r.runways.every((x) => x.crosswindKt === 6 && x.tailwindKt === 6)).toBe(true);
    expect(r.crosswind.tailwindVerdict).toBe('outside');
  });
});

describe('computeBrief, flap and crosswind', () => {
  const drooping = effectiveSheet(carvalho, frameOf('ZP-CAD'));
  it('lowers the flap with the wind and raises every speed by the stall speeds', () => {
    const calm = computeBrief(choices({ wind: wind(218, 8), intended: 'mains-first' }), context(carvalho));
    const windy = computeBrief(choices({ wind: wind(275, 13), intended: 'mains-first' }), context(carvalho));
    expect(calm.flapHeldDeg).toBe(40);
    expect(windy.flapHeldDeg).toBe(30);
    expect(windy.gates[3]?.cas?.scaledKt).toBeGreaterThan(calm.gates[3]?.cas?.scaledKt ?? 999);
    expect(windy.warnings.join(' ')).toContain('longer landing');
  });
  it('the airframe with drooping ailerons gets its own table and limit', () => {
    const r = computeBrief(
      choices({ wind: wind(275, 12), intended: 'mains-first' }),
      context(drooping, { airframeCrosswindKt: 12 }),
    );
    expect(r.flap.maxFlapDeg).toBe(10);
    expect(r.limits.some((l) => l.kind === 'airframe' && l.valueKt === 12)).toBe(true);
  });
  it('beyond the table there is no setting and it says so', () => {
    const r = computeBrief(
      choices({ wind: wind(308, 20), intended: 'mains-first' }),
      context(drooping, { airframeCrosswindKt: 12 }),
    );
    expect(r.flap).toMatchObject({ verdict: 'outside', maxFlapDeg: null });
    expect(r.warnings.join(' ')).toContain('no flap setting');
    expect(r.gates.every((g) => g.flapWithheld && g.target === null)).toBe(true);
    expect(r.landing?.words).toBe('no speed over the threshold: landing not computed');
    expect(gateConfiguration({ flapDeg: 40, flapWithheld: true, gear: 'fixed' }, true)).toBe('no flap setting');
    const clean = computeBrief(
      choices({ wind: wind(308, 20), intended: 'mains-first', maxFlapDeg: 0 }),
      context(drooping, { airframeCrosswindKt: 12 }),
    );
    expect(clean.gates.map((g) => [g.flapDeg, g.target !== null])).toEqual(clean.gates.map(() => [0, true]));
  });
  it('a wind too old for a crosswind verdict gives none on flap', () => {
    const r = computeBrief(
      choices({ wind: wind(308, 20, null, 11), intended: 'mains-first' }),
      context(drooping, { airframeCrosswindKt: 12 }),
    );
    expect(r.flap).toEqual({ verdict: null, maxFlapDeg: null, reason: null });
    expect(r.crosswind.reason).toBe('no-recent-wind');
  });
  it('says when the sheet has no speed for the flap chosen', () => {
    const partial: TypeSheet = { ...carvalho, stalls: carvalho.stalls.filter((s) => s.flapDeg !== 20) };
    const r = computeBrief(choices({ maxFlapDeg: 20 }), context(partial));
    expect(r.gates[3]).toMatchObject({ target: null });
    expect(r.warnings.join(' ')).toContain('no speed for flap 20');
  });
  it('warns above the maximum mass', () => {
    expect(
      computeBrief(choices({ fuelL: 235, pilotKg: 150, instructorKg: 150, baggageKg: 200 }), context(carvalho))
        .warnings[0],
    ).toContain('above the maximum');
  });
});

describe('sheets of the demo fleet', () => {
  it('the dial goes there and back', () => {
    fc.assert(
      fc.property(fc.constantFrom(...types), fc.float({ min: 40, max: 140, noNaN: true }), (sheet, ias) => {
        expect(casKtToDial(dialToCasKt(ias, sheet.dial), sheet.dial)).toBeCloseTo(ias, 4);
      }),
    );
  });
  it('groups by gear and mass', () => {
    const of = (code: string) => [gearMassGroup(sheetOf(code)), ladderStepKt(gearMassGroup(sheetOf(code)))];
    expect(
      ['alvor-c1', 'serrana-urze', 'lume-faisca', 'serrana-carvalho', 'bronze-b15', 'planalto-p1r', 'orla-mare'].map(
        of,
      ),
    ).toEqual([
      ['medium-nosewheel', 3],
      ['light-tailwheel', 2],
      ['light-tailwheel-blind-powerful', 2],
      ['heavy-tailwheel-powerful', 3],
      ['heavy-tailwheel-blind-powerful', 3],
      ['heavy-nosewheel', 3],
      ['heavy-hull-powerful', 3],
    ]);
  });
  it('every group of the fleet has a limit of the school, and one without never reads as no limit', () => {
    for (const t of types)
      expect(schoolCrosswind(HOUSE.crosswindKt, gearMassGroup(t)), t.name).toMatchObject({ own: true });
    expect(schoolCrosswind({ 'light-tailwheel': 12, 'heavy-hull': 9 }, 'medium-nosewheel')).toEqual({
      kt: 9,
      own: false,
    });
    const r = computeBrief(choices(), context(urze, { house: { ...HOUSE, crosswindKt: { 'heavy-hull': 9 } } }));
    expect(r.limits.find((l) => l.kind === 'house')).toMatchObject({ valueKt: 9 });
    expect(r.warnings.join(' ')).toContain('no crosswind limit for this group');
  });
});
