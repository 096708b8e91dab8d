import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pedraAlva } from '@demo/aerodrome';
import { airframes, types } from '@demo/fleet';
import house from '@content/house.json';
import {
  type Compared,
  briefChanges,
  changeWords,
  type BriefContext,
  computeBrief,
  crosswindSentences,
  dialError,
  gateConfiguration,
  goAroundTriggers,
  oneEngineLines,
  seatLacks,
} from '@/core/approach';
import { effectiveSheet, gearMassGroup, ladderStepKt, schoolCrosswind } from '@/core/plan';
import { casKtToDial, dialToCasKt } from '@/core/speeds';
import { ANSWERS } from '@/ui/brief/answers';
import type { Shown } from '@/ui/brief/blocks';
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

describe('what this registration does otherwise', () => {
  const cge = effectiveSheet(sheetOf('alvor-c4g'), frameOf('ZP-CGE'));
  it('has its own flows, go-around and consumers; the type keeps the rest', () => {
    const before = cge.flows.find((f) => f.name === 'Before landing');
    expect(before?.steps.join(' ')).not.toMatch(/propeller forward/);
    expect(before?.steps).toContain('propeller switch to climb and land');
    expect(cge.goAroundFlow.join(' ')).not.toMatch(/propeller forward/);
    expect(cge.flows.map((f) => f.name)).toEqual(sheetOf('alvor-c4g').flows.map((f) => f.name));
    const dies = computeBrief(choices(), context(cge)).electrics;
    const plain = computeBrief(choices(), context(sheetOf('alvor-c4g'))).electrics;
    expect(dies?.events.map((e) => e.name)).toEqual(expect.arrayContaining(['ignition', 'propeller control']));
    expect(plain?.events.some((e) => e.name === 'ignition')).toBe(false);
    expect(dies?.busDeadMin ?? 0).toBeLessThan(plain?.busDeadMin ?? 0);
  });
  it('says the known error of its dial, what its seat lacks, and the lost view, on the card as on the screen', () => {
    const b6 = effectiveSheet(sheetOf('bronze-b6'), frameOf('ZP-BSE'));
    const result = computeBrief(choices({ fuelL: 200 }), context(b6));
    expect(dialError(result, b6)).toMatch(/reads \d\.\d.kt more than the aeroplane flies/);
    const c4g = sheetOf('alvor-c4g');
    expect(dialError(computeBrief(choices(), context(c4g)), c4g)).toBeNull();
    expect(seatLacks(urze).length).toBeGreaterThan(0);
    expect(seatLacks({ instructorSeat: [{ control: 'brakes', reach: 'not reached', note: '' }] })).toEqual([
      'Not reached: brakes',
    ]);
    expect(goAroundTriggers(result, HOUSE, b6)).toContain('runway lost from sight');
    const c1 = sheetOf('alvor-c1');
    expect(goAroundTriggers(computeBrief(choices(), context(c1)), HOUSE, c1)).not.toContain('runway lost from sight');
  });
  it('counts slope lights from where they stand, and not at all where nobody entered it', () => {
    const c1 = sheetOf('alvor-c1');
    const at = (slopeLightsM: number | null) =>
      computeBrief(
        choices(),
        context(c1, {
          aerodrome: {
            ...pedraAlva,
            runways: pedraAlva.runways.map((r) => ({ ...r, ends: r.ends.map((e) => ({ ...e, slopeLightsM })) })),
          },
        }),
      ).gates.find((g) => g.name === 'Final')?.whites;
    // 300 ft at 1100 m: to lights 60 m in 4.51 deg, a degree above 3.5: four white. To 800 m in 2.76: four red.
    expect([at(60), at(800), at(null)]).toEqual([4, 0, null]);
  });
});

describe('one engine stopped', () => {
  const p2 = sheetOf('planalto-p2');
  const result = computeBrief(choices({ fuelL: 150, wind: wind(218, 10) }), context(p2));
  const o = result.oneEngine;
  it('gives rate, gradient, ceiling and drift-down by its own sheet, in today’s air', () => {
    const da = result.air.densityAltFt ?? 0;
    const field = o?.at.find((a) => a.where === 'field');
    expect(field?.climb.rocFpm).toBeCloseTo(230 * (1 - da / 6200), 6);
    // Vyse 88 indicated is 89.2 calibrated by the dial’s table; a headwind takes no credit.
    const tas = (88 + 1.5 - (8 / 30) * 1) / Math.sqrt(result.air.sigma ?? 1);
    expect(field?.climb.gradientFtPerNm).toBeCloseTo((60 * 230 * (1 - da / 6200)) / tas, 1);
    expect(o?.absoluteCeilingFt).toBeCloseTo(6200 - (da - 1345), 6);
    expect(o?.drift?.initialSinkFpm).toBeCloseTo((2000 * 230) / 6200, 6);
    expect(o?.drift?.timeMin).toBeCloseTo((Math.log((2000 * 230) / 6200 / 50) * 6200) / 230, 6);
    expect(computeBrief(choices(), context(urze)).oneEngine).toBeNull();
  });
  it('stops, clears and gives up by numbers; without data it is not known, never a go', () => {
    const stop = o?.stop;
    const roll = result.takeoff?.need.groundRollM ?? 0;
    expect(stop?.neededM ?? 0).toBeGreaterThan(roll);
    expect(stop?.abortM).toBeCloseTo(900 - ((stop?.neededM ?? 0) - roll), 6);
    expect(o?.obstacle?.neededFtPerNm).toBeCloseTo((35 * 1852) / 420, 6);
    expect(o?.obstacle?.verdict).toBe('does-not-clear');
    const none = computeBrief(choices(), context({ ...p2, twin: p2.twin && { ...p2.twin, accelerateStop: [] } }));
    expect(none.oneEngine?.stop).toMatchObject({ neededM: null, verdict: null });
    expect(oneEngineLines(none.oneEngine ?? (o as NonNullable<typeof o>), '22').join(' ')).toContain('never a go');
    const cold = computeBrief(choices({ qnhHpa: null }), context(p2)).oneEngine;
    expect(cold).toMatchObject({ missing: ['QNH'], at: [], absoluteCeilingFt: null });
    expect(cold?.stop?.neededM).toBeNull();
  });
  it('says on a hot and high day that it does not climb', () => {
    const hot = computeBrief(
      choices({ oatC: 40, fuelL: 150 }),
      context(p2, {
        aerodrome: {
          ...pedraAlva,
          elevationFt: 4800,
          runways: pedraAlva.runways.map((r) => ({ ...r, elevationFt: 4800 })),
        },
      }),
    );
    expect(hot.warnings.join(' ')).toContain('On one engine it does not climb');
    expect(oneEngineLines(hot.oneEngine as NonNullable<typeof o>, '22')[0]).toMatch(/descends \d+.ft.min, descends/);
  });
});

describe('without an instructor', () => {
  const alone = (ladder: Partial<BriefContext['ladder']>, kt = 3) =>
    computeBrief(
      choices({ wind: wind(308, kt) }),
      context(urze, {
        dual: false,
        ladder: { provenKt: 0, ladderKt: 3, decaySteps: 0, goodCount: 0, badCount: 0, ...ladder },
      }),
    ).crosswind;
  it('the wind proven is the limit, not the step; nothing on record is not known, and never within', () => {
    expect(alone({ provenKt: 6, ladderKt: 8, goodCount: 3 }, 7)).toMatchObject({ governingKt: 6, verdict: 'outside' });
    expect(alone({ provenKt: 9, ladderKt: 11, goodCount: 3 }, 3)).toMatchObject({ verdict: 'within' });
    expect(alone({})).toMatchObject({ verdict: null, reason: 'not-proven' });
    expect(alone({ badCount: 1 })).toMatchObject({ governingKt: 0, verdict: 'outside' });
    expect(alone({}, 20)).toMatchObject({ verdict: 'outside' });
  });
});

describe('a folded block', () => {
  const answer = (id: string, more: Partial<BriefChoices>) => {
    const result = computeBrief(choices(more), context(urze));
    const shown = { result, sheet: urze, house: HOUSE, aerodrome: pedraAlva, choices: choices(more), pilotName: 'Ana' };
    return ANSWERS[id]?.(shown as unknown as Shown) ?? '';
  };
  it('says what is outside, and never by silence that it is in order', () => {
    expect(answer('load', {})).toContain('inside the envelope');
    expect(answer('load', { pilotKg: 160, instructorKg: 120 })).toContain('outside the envelope or a limit');
  });
  it('keeps the words of what is not known as they are written', () => {
    expect(answer('runway', { qnhHpa: null, oatC: null })).toContain('landing: QNH');
    expect(answer('air', { qnhHpa: null, oatC: null })).toContain('QNH');
  });
  it('names every trigger to go around', () => {
    for (const t of HOUSE.triggers) expect(answer('goaround', {})).toContain(t);
  });
});

describe('what changed since the lesson before, as the pilot is told', () => {
  const at = (more: {
    choices?: object;
    across?: number;
    gust?: number | null;
    target?: number | null;
    flap?: number;
  }): Compared => ({
    choices: {
      runwayEnd: '22',
      wind: {} as Compared['choices']['wind'],
      intended: 'three-point',
      night: false,
      ...more.choices,
    },
    snapshot: {
      unit: 'mph',
      runways: [
        { ident: '22', crosswindKt: more.across ?? -4, gustCrosswindKt: more.gust ?? null },
        { ident: '08', crosswindKt: 0.02, gustCrosswindKt: null },
      ],
      gates: [{ target: more.target === undefined ? 57 : more.target, flapDeg: more.flap ?? 0 }],
    },
  });
  it.each([
    ['nothing', at({}), []],
    ['a wind within 3 kt and a speed within 2', at({ across: -6.9, target: 58 }), []],
    ['the side', at({ across: 4 }), ['crosswind 4 kt from the right']],
    ['gusts, rounded up', at({ gust: -9.2 }), ['crosswind 10 kt from the left']],
    ['another end, with no crosswind', at({ choices: { runwayEnd: '08' } }), ['runway 08', 'no crosswind']],
    [
      'another aerodrome with a runway of the same name',
      at({ choices: { aerodrome: 'ZPMV' } }),
      ['flown at ZPMV', 'runway 22'],
    ],
    ['no wind yet', at({ choices: { wind: null } }), ['no wind briefed yet']],
    ['configuration and speed', at({ flap: 20, target: 61 }), ['flap 20°', '61 mph over the threshold']],
    ['a speed that was none', at({ target: null }), []],
    [
      'way of landing and night',
      at({ choices: { intended: 'mains-first', night: true } }),
      ['wheel landings', 'at night'],
    ],
  ])('%s', (_, after, said) => {
    expect(briefChanges(at({}), after, true).map(changeWords)).toEqual(said);
  });
  it('on a nosewheel type the way of landing is never told', () => {
    expect(briefChanges(at({}), at({ choices: { intended: 'mains-first' } }), false)).toEqual([]);
  });
});
