import { describe, expect, it } from 'vitest';
import {
  assessProgramme,
  bestAndWorst,
  itemStops,
  landingStops,
  lookFirst,
  signingProblems,
  stopWords,
} from '@/core/assess';
import type { EvidenceRecord, RecordedLanding, SigningFacts } from '@/core/assess';
import type { AirworkDetail, CaptureEvent, GearChecked } from '@/domain/capture';
import { composeProgramme } from '@/core/plan';
import { ProgrammeSource } from '@/domain/programme';
import type { Stop, StopRules } from '@/domain/stops';
import { UNSEEN } from '@/domain/unseen';
import { fold, gearAt } from '@/offline/protocol';
import sea from '@content/programmes/sea.json';

const LAMPS = Object.fromEntries(
  ['left', 'right', 'nose'].map((w) => [w, { lit: 'down' as const, unlit: 'up' as const }]),
);
const RULES: StopRules = {
  elevationFt: 1345,
  failureFloorFt: 500,
  demonstrationFt: 3000,
  energyFloorFt: 1500,
  twin: { vsse: 76, vmca: 66 },
  lamps: LAMPS,
  runways: [
    { ident: '22', magneticDeg: 220, surface: 'asphalt' },
    { ident: '18W', magneticDeg: 180, surface: 'water' },
  ],
  limits: [
    { kind: 'limitation', valueKt: 15, source: 'Handbook 2' },
    { kind: 'demonstrated', valueKt: 8, source: 'Handbook 4' },
    { kind: 'house', valueKt: 10, source: 'order 4' },
    { kind: 'pilotStep', valueKt: 6, source: 'proven' },
  ],
  tailwind: { valueKt: 5, kind: 'house', source: 'order 4' },
  gustSpreadKt: 12,
  schoolOverridden: false,
};
const AT = '2026-11-24T10:05:00.000Z';
const check = (water: boolean, more: Partial<GearChecked> = {}): GearChecked => ({
  surface: water ? 'water' : 'land',
  lamps: { left: water ? 'unlit' : 'lit', right: water ? 'unlit' : 'lit', nose: water ? 'unlit' : 'lit' },
  seen: water ? { left: 'up', right: 'up', nose: 'up' } : { left: 'down', right: 'down', nose: 'down' },
  spoken: water ? 'water-up' : 'land-down',
  onFinal: true,
  decision: 'agree',
  reasons: [],
  ...more,
});
const wheels = (before: GearChecked | null, runwayEnd = '18W', since: string[] = [], at = '2026-11-24T10:04:00.000Z') =>
  landingStops({ kind: 'full-stop', runwayEnd, wind: null }, AT, RULES, before && { at, check: before, since });

describe('wheels against the surface touched', () => {
  it('agree only by what was said and seen, on this surface, on final, within three minutes, with nothing since', () => {
    expect(wheels(check(true))).toEqual([]);
    expect(wheels(check(false), '22')).toEqual([]);
    const why = (s: Stop[]) => [s[0]?.code, s[0]?.facts.why];
    expect(why(wheels(null))).toEqual(['wheels', 'not-made']);
    expect(why(wheels(check(false)))).toEqual(['wheels', 'other-surface']);
    for (const bad of [
      check(true, { lamps: { left: 'lit', right: 'unlit', nose: 'unlit' } }),
      check(true, { seen: { left: 'up', right: null, nose: 'up' } }),
      check(true, { spoken: null }),
      check(true, { onFinal: false }),
      // A device that says agree is not believed.
      check(true, { lamps: {}, decision: 'agree' }),
    ])
      expect(why(wheels(bad))).toEqual(['wheels', 'stop']);
    // Said again on final: that, and nothing else the check stopped for.
    const said = (before: GearChecked) =>
      landingStops({ kind: 'full-stop', runwayEnd: '18W', wind: null, wheelsRepeated: 'said' }, AT, RULES, {
        at: '2026-11-24T10:04:00.000Z',
        check: before,
        since: [],
      });
    expect(said(check(true, { onFinal: false }))).toEqual([]);
    expect(why(said(check(true, { onFinal: false, spoken: null })))).toEqual(['wheels', 'stop']);
    expect(why(wheels(check(true), '18W', ['lever-moved']))).toEqual(['wheels', 'stop']);
    expect(why(wheels(check(true), '18W', [], '2026-11-24T10:01:00.000Z'))).toEqual(['wheels', 'stop']);
    expect(wheels(check(true), 'XX')[0]?.facts.why).toBe('other-surface');
  });
  it('asks nothing of a go-around, a low pass, or wheels that fit every surface they may meet', () => {
    for (const kind of ['go-around', 'low-pass'] as const)
      expect(landingStops({ kind, runwayEnd: '18W', wind: null }, AT, RULES, null)).toEqual([]);
    const fixed = { ...RULES, lamps: null };
    expect(landingStops({ kind: 'full-stop', runwayEnd: '18W', wind: null }, AT, fixed, null)).toEqual([]);
    // An amphibian whose sheet has no lamps cannot be checked.
    const blank = { ...RULES, lamps: {} };
    const before = { at: AT, check: check(true), since: [] };
    expect(landingStops({ kind: 'full-stop', runwayEnd: '18W', wind: null }, AT, blank, before)).toHaveLength(1);
  });
  it('the check that stood is the one before the touch: not a later one, not another flight\u2019s, ended by what came between', () => {
    let n = 0;
    const event = (type: CaptureEvent['type'], at: string, payload: unknown, sortieId = 's'): CaptureEvent => ({
      eventId: `e${++n}`,
      deviceId: 'd',
      deviceSeq: n,
      sortieId,
      subjectId: `x${n}`,
      author: 'a',
      type,
      v: 1,
      deviceTime: `2026-11-24T${at}:00.000Z`,
      payload,
    });
    const log = fold([
      event('gear-checked', '10:00', check(false)),
      event('gear-checked', '10:01', check(true), 'other'),
      event('gear-event', '10:02', { kind: 'lever-moved' }),
      event('landing-saved', '10:05', {
        ...UNSEEN,
        kind: 'touch-and-go',
        runwayEnd: '22',
        endedAt: '2026-11-24T10:03:00.000Z',
      }),
      event('gear-checked', '10:04', check(true)),
    ]).gearLog;
    const at = (time: string, subject = 'none') => gearAt(log, 's', Date.parse(`2026-11-24T${time}:00.000Z`), subject);
    expect(at('09:59')).toBeNull();
    expect(at('10:01')).toMatchObject({ check: { surface: 'land' }, since: [] });
    // Saved at 10:05, flown at 10:03: the check of 10:04 was made for the next landing.
    expect(at('10:03', 'x4')).toMatchObject({ check: { surface: 'land' }, since: ['lever-moved'] });
    expect(at('10:03')?.since).toEqual(['lever-moved', 'touch-and-go']);
    expect(at('10:06')).toMatchObject({ check: { surface: 'water' }, since: [] });
  });
});

describe('wind', () => {
  const blow = (fromDegMag: number, kt: number, gustKt: number | null = null, more: Partial<StopRules> = {}, at = AT) =>
    landingStops(
      { kind: 'full-stop', runwayEnd: '22', wind: { fromDegMag, kt, gustKt, at } },
      AT,
      { ...RULES, lamps: null, ...more },
      null,
    );
  it('stops beyond a real limit, the hardest named; a demonstrated value and a step stop nothing', () => {
    expect(blow(310, 10)).toEqual([]);
    expect(blow(310, 11)[0]?.facts).toMatchObject({ kind: 'house', limitKt: 10, kt: expect.closeTo(11, 6) as number });
    expect(blow(310, 9, 11)[0]?.facts).toMatchObject({ kind: 'house' });
    expect(blow(310, 16)[0]?.facts).toMatchObject({ kind: 'limitation', limitKt: 15 });
    // 8 kt from behind, 4 kt of it in gusts beyond the mean.
    expect(blow(40, 6)[0]?.facts).toMatchObject({ of: 'tailwind', kt: expect.closeTo(6, 6) as number });
    expect(blow(40, 4, 8)[0]?.facts).toMatchObject({ of: 'tailwind', kt: expect.closeTo(8, 6) as number });
    expect(blow(220, 5, 18).map((s) => s.facts.of)).toEqual(['gust spread']);
  });
  it('a school\u2019s limit set aside leaves the flight manual\u2019s; an old wind or none is not known', () => {
    expect(blow(310, 11, null, { schoolOverridden: true })).toEqual([]);
    expect(blow(310, 16, null, { schoolOverridden: true })[0]?.facts.kind).toBe('limitation');
    expect(blow(310, 16, null, {}, '2026-11-24T09:54:00.000Z')).toEqual([]);
    expect(stopWords(blow(310, 11)[0] as Stop)).toBe(
      'crosswind 11\u00a0kt, beyond the school\u2019s limit of 10\u00a0kt (order 4)',
    );
  });
});

describe('airwork', () => {
  const asymmetric = (item: string, heightFt: number | null, saidSimulated: boolean | null = true): AirworkDetail => ({
    form: 'asymmetric',
    item: item as 'control-speed',
    heightFt,
    saidSimulated,
    firstCue: null,
    recovery: null,
    set: {},
    seen: {},
  });
  const codes = (d: AirworkDetail) => itemStops(d, RULES).map((s) => s.code);
  it('below its floor, without its word, or with no height noted', () => {
    expect(codes(asymmetric('control-speed', 4345))).toEqual([]);
    expect(codes(asymmetric('control-speed', 4344))).toEqual(['below-floor']);
    expect(codes(asymmetric('failure-in-the-climb', 1845))).toEqual([]);
    expect(codes(asymmetric('failure-in-the-climb', 1844))).toEqual(['failure-rules']);
    expect(codes(asymmetric('failure-in-the-climb', null))).toEqual(['failure-rules']);
    expect(codes(asymmetric('control-speed', null))).toEqual(['failure-rules']);
    expect(codes(asymmetric('failure-in-the-climb', 3000, false))).toEqual(['failure-rules']);
    const loop = (heightFt: number | null): AirworkDetail => ({
      form: 'energy',
      item: 'loop',
      reciprocal: false,
      entry: { heightFt: 4000, speed: 100, headingDeg: 90 },
      exit: { heightFt, speed: 100, headingDeg: 90 },
    });
    expect(codes(loop(2845))).toEqual([]);
    expect(codes(loop(2844))).toEqual(['below-floor']);
    expect(stopWords(itemStops(loop(2800), RULES)[0] as Stop)).toContain('below 2845\u00a0ft on QNH');
    expect(itemStops(null, RULES)).toEqual([]);
  });
});

describe('what was flown past a stop', () => {
  const programme = composeProgramme(ProgrammeSource.parse(sea), 'us');
  if (!programme) throw new Error('no programme');
  const item = programme.items.find((i) => i.evidence.kind === 'gear-checks');
  const runs = programme.items.filter((i) => i.evidence.kind === 'run' || i.evidence.kind === 'count');
  const STOP: Stop = { code: 'wheels', facts: { surface: 'water', why: 'not-made', reasons: [] } };
  const landing = (n: number, stops: Stop[]): RecordedLanding => ({
    id: `l${n}`,
    number: n,
    sortieId: `s${n % 3}`,
    lesson: 1 + (n % 3),
    date: `2026-11-2${n % 3}`,
    firstOfSortie: n < 3,
    group: 'g',
    kind: 'full-stop',
    intended: 'mains-first',
    crosswindKt: 3,
    surface: 'water',
    at: `2026-11-2${n % 3}T10:${10 + n}:00.000Z`,
    stops,
    judged: {
      landingClass: 'own',
      criteria: [],
      goAround: null,
      reason: '',
      triggerContinued: false,
    } as unknown as RecordedLanding['judged'],
  });
  const record = (stopped: boolean): EvidenceRecord => ({
    landings: Array.from({ length: 30 }, (_, n) => landing(n, stopped ? [STOP] : [])),
    observations: [],
    waivers: [],
    group: 'g',
    onDate: '2026-11-24',
    gearChecks: Array.from({ length: 12 }, (_, n) => ({
      id: `g${n}`,
      lesson: 1,
      date: '2026-11-20',
      at: `2026-11-20T09:${10 + n}:00.000Z`,
      check: {
        decision: 'agree' as const,
        onFinal: true,
        surface: item?.evidence.kind === 'gear-checks' ? (item.evidence.surface ?? 'water') : 'water',
      },
    })),
  });
  it('counts for no safety item, and takes back the checks of the wheels before it', () => {
    expect(item?.safety).toBe(true);
    const state = (stopped: boolean) => new Map(assessProgramme(programme, record(stopped)).map((i) => [i.item.id, i]));
    expect(state(false).get(item?.id ?? '')?.met).toBe(true);
    expect(state(true).get(item?.id ?? '')).toMatchObject({ met: false });
    expect(
      state(true)
        .get(item?.id ?? '')
        ?.missing.find((m) => m.code === 'more-gear-checks'),
    ).toMatchObject({ params: { after: 30 } });
    const safe = runs.filter((r) => r.safety && 'surface' in r.evidence && r.evidence.surface === 'water');
    for (const r of safe) {
      expect(state(true).get(r.id)?.met, r.id).toBe(false);
      expect(
        state(true)
          .get(r.id)
          ?.missing.map((m) => m.code),
        r.id,
      ).toContain('past-a-stop');
    }
  });
  it('is never called the best of a lesson, nor a lesson with it without fault', () => {
    expect(lookFirst([landing(1, []), landing(2, [STOP])])).toBe('Best: landing 1.');
    expect(lookFirst([landing(2, [STOP])])).toBe('');
    expect(lookFirst([landing(1, [])])).toBe('Best: landing 1. Nothing outside.');
    const clean = [landing(1, []), landing(2, []), landing(3, [])];
    expect(lookFirst(clean)).toBe(`Best: landing ${bestAndWorst(clean).best?.number ?? 0}. Nothing outside.`);
  });
  it('stands at the signature until somebody has said why', () => {
    const facts = (explained: boolean): SigningFacts => ({
      authorised: true,
      ownCheckout: false,
      lastFlownTogether: '2026-11-24',
      onDate: '2026-11-24',
      withinDays: 30,
      certificateUntil: '2027-01-01',
      signerLacks: [],
      ratings: [],
      reviewWithout: [],
      sheetOpen: [],
      modelHours: null,
      notRecent: [],
      openLimits: [],
      overrides: [],
      stops: [{ name: 'Lesson 1, landing 2', words: stopWords(STOP), explained }],
      prerequisites: [],
    });
    const problems = signingProblems([], record(true), facts(false));
    expect(problems.map((p) => [p.code, p.target, p.overridable])).toEqual([['stop', 'debrief', false]]);
    expect(problems[0]?.params).toEqual({
      name: 'Lesson 1, landing 2',
      words: 'landed on water with no check of the wheels',
    });
    expect(signingProblems([], record(true), facts(true))).toEqual([]);
  });
});
