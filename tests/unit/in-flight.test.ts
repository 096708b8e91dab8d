import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { types } from '@demo/fleet';
import { TALLY_CODES, TALLY_COLUMNS, readTally } from '@/core/assess';
import { heightOn, stopHere } from '@/core/circuit';
import { type FlightClockInput, flightClock } from '@/core/fuel';
import { type CountedLanding, countLandings } from '@/core/recency';
import { CapturedLanding, type CaptureEvent, ItemObserved, PAYLOADS } from '@/domain/capture';
import { UNSEEN } from '@/domain/unseen';
import { correctedMs, fold, ordered } from '@/offline/protocol';
import { cleanTap, freshDraft, savesNow, toCaptured } from '@/ui/fly/draft';

const CARVALHO = types.find((t) => t.code === 'serrana-carvalho') as (typeof types)[number];
const draft = freshDraft({ intended: 'three-point' });

describe('three taps', () => {
  const stopped = { ...draft, along: 'in-the-box' as const, lateral: 'line' as const };
  it('clean says clean and how it touched, and the same tap takes both back', () => {
    const once = { ...stopped, ...cleanTap(stopped, 'stopped', 'three-point') };
    expect(once).toMatchObject({ cleanTap: 'stopped', touched: 'three-point' });
    expect(cleanTap(once, 'stopped', 'three-point')).toEqual({ cleanTap: null, touched: null });
    expect(cleanTap(once, 'stopped', 'mains-first')).toEqual({ cleanTap: 'stopped', touched: 'mains-first' });
  });
  it('the third saves only when place and clean are there and nobody helped', () => {
    const clean = { ...stopped, cleanTap: 'stopped' as const };
    expect([0, 1, 2, 3].map((level) => savesNow(clean, level))).toEqual([true, true, false, false]);
    expect(savesNow(stopped, 0)).toBe(false);
    expect(savesNow({ ...clean, along: null }, 0)).toBe(false);
    expect(savesNow({ ...clean, kind: 'go-around' }, 0)).toBe(false);
  });
  it('saved, it is a landing by the schema, with whose it was; help that was noted is never dropped for a level tapped after it', () => {
    const saved = toCaptured({ ...stopped, intervention: 1, helpedOn: ['rudder'] }, null, '22', 'pilot-b');
    expect(CapturedLanding.safeParse(saved).success).toBe(true);
    expect(saved).toMatchObject({ pilotId: 'pilot-b', runwayEnd: '22', fromPaper: false, helpedOn: ['rudder'] });
    expect(toCaptured({ ...stopped, intervention: 2, helpedOn: ['rudder'] }, null, '22').helpedOn).toEqual(['rudder']);
  });
});

describe('a device returning after an upgrade', () => {
  const {
    gateSpeeds: _g,
    rollout: _r,
    peakG: _p,
    helpedOn: _h,
    landmark: _l,
    notes: _n,
    note: _t,
    fromPaper: _f,
    pilotId: _i,
    serious: _s,
    goAroundFrom: _a,
    goAroundWhy: _w,
    announced: _d,
    replaces: _e,
    ...first
  } = { ...UNSEEN, kind: 'full-stop' as const, runwayEnd: '22', touched: 'flat' as const };
  it('a landing of the first version is taken, and says nothing of what was added since', () => {
    expect(CapturedLanding.parse(first)).toEqual({ ...UNSEEN, kind: 'full-stop', runwayEnd: '22', touched: 'flat' });
    const event: CaptureEvent = {
      eventId: 'e',
      deviceId: 'd',
      deviceSeq: 1,
      sortieId: 's',
      subjectId: 'l',
      author: 'u',
      type: 'landing-saved',
      v: 1,
      deviceTime: '2026-11-24T10:00:00Z',
      payload: first,
    };
    expect(fold([event]).landings[0]?.landing).toMatchObject({
      gateSpeeds: {},
      notes: [],
      pilotId: null,
      touched: 'flat',
    });
  });
  it('and so is an item', () =>
    expect(ItemObserved.parse({ itemId: 'F1', verdict: 'within', intervention: 0, note: '' })).toMatchObject({
      detail: null,
      pilotId: null,
    }));
});

describe('order of events', () => {
  const event = (deviceId: string, deviceSeq: number, s: number, skewMs?: number): CaptureEvent => ({
    eventId: `${deviceId}${deviceSeq}`,
    deviceId,
    deviceSeq,
    sortieId: 's',
    subjectId: `${deviceId}${deviceSeq}`,
    author: 'u',
    type: 'landing-saved',
    v: 1,
    deviceTime: new Date(1_800_000_000_000 + s * 1000).toISOString(),
    payload: {},
    ...(skewMs === undefined ? {} : { skewMs }),
  });
  const names = (events: CaptureEvent[]) => ordered(events).map((e) => e.eventId);
  it('two devices merge by the field’s clock, not by their own', () => {
    // B's clock is an hour slow: its 10 s is A's 3610 s.
    expect(names([event('a', 1, 0), event('a', 2, 3700), event('b', 1, 10, 3_600_000)])).toEqual(['a1', 'b1', 'a2']);
    expect(names([event('a', 1, 0), event('a', 2, 3700), event('b', 1, 10)])).toEqual(['a1', 'b1', 'a2']);
    expect(names([event('a', 1, 0), event('a', 2, 20), event('b', 1, 10, 3_600_000)])).toEqual(['a1', 'a2', 'b1']);
  });
  it('small differences are the way to the field, not the clock', () =>
    expect(correctedMs(event('a', 1, 0, 4000))).toBe(1_800_000_000_000));
  it('a clock set back in flight does not turn one device’s own order', () =>
    expect(names([event('a', 1, 100), event('a', 2, 10), event('a', 3, 20)])).toEqual(['a1', 'a2', 'a3']));
  it('is the same for any arrival, and keeps each device’s own order', () => {
    const any = fc.array(
      fc.record({
        d: fc.constantFrom('a', 'b', 'c'),
        s: fc.integer({ min: 0, max: 5000 }),
        skew: fc.constantFrom(undefined, 0, 9000, -3_600_000),
      }),
      { maxLength: 12 },
    );
    fc.assert(
      fc.property(any, fc.integer(), (list, seed) => {
        const counts: Record<string, number> = {};
        const events = list.map((x) => event(x.d, (counts[x.d] = (counts[x.d] ?? 0) + 1), x.s, x.skew));
        const shuffled = [...events].sort(
          (x, y) => ((x.deviceSeq * 7919 + seed) % 13) - ((y.deviceSeq * 104729 + seed) % 13),
        );
        expect(names(shuffled)).toEqual(names(events));
        for (const d of ['a', 'b', 'c']) {
          const own = ordered(events)
            .filter((e) => e.deviceId === d)
            .map((e) => e.deviceSeq);
          expect([...own].sort((x, y) => x - y)).toEqual(own);
        }
      }),
    );
  });
});

describe('the paper tally', () => {
  it('reads ten columns, repeats by =, and leaves a dash unseen', () => {
    const [a, b] = readTally('t 3 3 b 1L 0 sl br 1h 1\nF = W L 2R - 0 0 0 d');
    expect(a?.landing).toEqual({
      kind: 'touch-and-go',
      intended: 'three-point',
      touched: 'three-point',
      along: 'in-the-box',
      lateral: 'wheel-left',
      drift: { band: 'none', side: null },
      crab: { band: 'slight', side: 'left' },
      swing: { band: 'large', side: 'right' },
      bounce: { count: 1, handling: 'held' },
      intervention: 1,
      demonstration: false,
    });
    expect(b?.landing).toMatchObject({
      kind: 'full-stop',
      intended: 'three-point',
      touched: 'mains-first',
      drift: null,
      demonstration: true,
      intervention: 0,
    });
  });
  it('a go-around needs its kind and whose it was', () =>
    expect(readTally('G 0')[0]?.landing).toMatchObject({ kind: 'go-around', touched: null, intervention: 0 }));
  it.each([
    ['X 3 3 B 0 0 0 0 0 0', 'no-kind'],
    ['T 3 3 B 0 0 0 0 0', 'columns'],
    ['T 3 3 B 0 0 0 0 0 7', 'no-code whose'],
    ['T 3 Q B 0 0 0 0 0 0', 'no-code touched'],
    ['T 3 3 B 0 0 0 0 X 0', 'no-code bounce'],
    ['= 3 3 B 0 0 0 0 0 0', 'nothing-above'],
    ['T 3 3 B 3L 0 0 0 0 0', 'no-code across'],
  ])('%s: %s', (line, problem) => {
    const [read] = readTally(line);
    expect(read?.landing).toBeNull();
    const said = read?.problem;
    expect(said?.code === 'no-code' ? `${said.code} ${said.params.column}` : said?.code).toBe(problem);
  });
  it('every code of the keypad reads, in any mixture, into a landing the schema takes', () => {
    const line = fc.tuple(...TALLY_COLUMNS.map((c) => fc.constantFrom(...TALLY_CODES[c])));
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 10 }), (all) => {
        // A low pass does not touch.
        const lines = all.map((l) => (l[0] === 'L' ? l.map((x, c) => (c >= 2 && c <= 8 ? '-' : x)) : l));
        const read = readTally(lines.map((l) => l.join(' ')).join('\n'));
        expect(read.filter((l) => l.problem !== null)).toEqual([]);
        expect(read).toHaveLength(all.length);
        for (const l of read)
          expect(PAYLOADS['landing-saved'][1].safeParse({ ...UNSEEN, ...l.landing, runwayEnd: '22' }).success).toBe(
            true,
          );
      }),
    );
  });
});

describe('counts', () => {
  const l = (change: Partial<CountedLanding>): CountedLanding => ({
    pilotId: 'a',
    kind: 'full-stop',
    demonstration: false,
    intervention: 0,
    surface: 'land',
    ...change,
  });
  it('counts what the pilot flew alone, by surface and kind', () => {
    const list = [
      l({}),
      l({ kind: 'touch-and-go', intervention: 1 }),
      l({ surface: 'water' }),
      l({ intervention: 2 }),
      l({ intervention: null }),
      l({ demonstration: true }),
      l({ kind: 'go-around' }),
      l({ kind: 'low-pass' }),
      l({ pilotId: 'b' }),
    ];
    expect(countLandings(list, 'a', true)).toEqual({
      total: 3,
      fullStop: 2,
      touchAndGo: 1,
      land: 2,
      water: 1,
      tailwheelFullStop: 1,
      goArounds: 1,
      notCounted: 3,
    });
    expect(countLandings(list, 'b', true).total).toBe(1);
    expect(countLandings(list, 'a', false).tailwheelFullStop).toBe(0);
  });
});

describe('the flight clock', () => {
  const at = (min: number) => 1_800_000_000_000 + min * 60_000;
  const base: FlightClockInput = {
    marks: [],
    nowMs: at(0),
    bookingMin: 90,
    fuelL: 60,
    flowLPerH: 20,
    night: false,
    reserveMin: null,
    groundMin: 20,
    circuitMin: 6,
    landingsMs: [],
  };
  it('stands still before off blocks', () =>
    expect(flightClock(base)).toMatchObject({
      blockMin: null,
      airborneMin: 0,
      bookingLeftMin: 90,
      fuelLeftL: 60,
      circuits: 11,
      limitedBy: 'booking',
      alert: null,
    }));
  it('counts block, airborne in pieces, booking and fuel', () => {
    const c = flightClock({
      ...base,
      nowMs: at(40),
      marks: [
        { mark: 'off-block', atMs: at(0) },
        { mark: 'take-off', atMs: at(10) },
        { mark: 'landed', atMs: at(20) },
        { mark: 'take-off', atMs: at(25) },
      ],
    });
    expect(c).toMatchObject({ blockMin: 40, airborneMin: 25, bookingLeftMin: 50 });
    expect(c.fuelLeftL).toBeCloseTo(60 - (40 / 60) * 20, 9);
    expect(c.circuits).toBe(6);
  });
  it('names fuel when fuel limits, and the reserve when it is reached', () => {
    const low = {
      ...base,
      fuelL: 30,
      marks: [
        { mark: 'off-block' as const, atMs: at(0) },
        { mark: 'take-off' as const, atMs: at(5) },
      ],
    };
    expect(flightClock({ ...low, nowMs: at(10) })).toMatchObject({ limitedBy: 'fuel', alert: null });
    expect(flightClock({ ...low, nowMs: at(61) }).alert).toBe('reserve');
  });
  it('warns of the last circuit, then of the booking, and is quiet on blocks', () => {
    const marks = [
      { mark: 'off-block' as const, atMs: at(0) },
      { mark: 'take-off' as const, atMs: at(5) },
    ];
    const full = { ...base, fuelL: 300 };
    expect(flightClock({ ...full, nowMs: at(72), marks }).alert).toBe('last-circuit');
    expect(flightClock({ ...full, nowMs: at(91), marks }).alert).toBe('booking-over');
    expect(
      flightClock({ ...full, nowMs: at(120), marks: [...marks, { mark: 'on-block', atMs: at(88) }] }),
    ).toMatchObject({ alert: null, blockMin: 88 });
    expect(
      flightClock({ ...base, nowMs: at(80), marks: [...marks, { mark: 'booking-ends', atMs: at(120) }] })
        .bookingLeftMin,
    ).toBe(40);
    // Moved to 85 and then to 80: the last word counts, though it is the earlier time.
    const ends = [85, 80].map((min) => ({ mark: 'booking-ends' as const, atMs: at(min) }));
    expect(flightClock({ ...base, nowMs: at(60), marks: [...marks, ...ends] }).bookingLeftMin).toBe(20);
  });
  it('burns through every block span: off 0, on 60, off again 70, at 80 min it is 70 min of flow', () => {
    const marks = (
      [
        ['off-block', 0],
        ['on-block', 60],
        ['off-block', 70],
      ] as const
    ).map(([mark, min]) => ({ mark, atMs: at(min) }));
    const c = flightClock({ ...base, nowMs: at(80), marks: [...marks].reverse() });
    expect(c).toMatchObject({ blockMin: 70, bookingLeftMin: 10, fuelFrom: 'off-block' });
    expect(c.fuelLeftL).toBeCloseTo(60 - (70 / 60) * 20, 9);
  });
  it('burns from the take-off when only that was marked, and says so', () => {
    const marks = [{ mark: 'take-off' as const, atMs: at(0) }];
    expect(flightClock({ ...base, nowMs: at(30), marks })).toMatchObject({
      blockMin: null,
      airborneMin: 30,
      bookingLeftMin: 60,
      fuelLeftL: 50,
      fuelFrom: 'take-off',
    });
    expect(flightClock({ ...base, fuelL: 30, nowMs: at(61), marks }).alert).toBe('reserve');
  });
  it('does not know the fuel when something was flown and nothing marked, or none was briefed', () => {
    const unknown = { fuelLeftL: null, fuelTimeMin: null, fuelFrom: 'unknown', circuits: 0, alert: 'fuel-unknown' };
    expect(flightClock({ ...base, landingsMs: [at(-5)] })).toMatchObject(unknown);
    expect(flightClock({ ...base, marks: [{ mark: 'landed', atMs: at(-1) }] })).toMatchObject(unknown);
    expect(flightClock({ ...base, fuelL: null, marks: [{ mark: 'off-block', atMs: at(-1) }] })).toMatchObject(unknown);
    const late = { ...base, marks: [{ mark: 'off-block' as const, atMs: at(-1) }], landingsMs: [at(-30)] };
    expect(flightClock(late)).toMatchObject(unknown);
    expect(flightClock({ ...base, flowLPerH: 0, landingsMs: [at(-5)] })).toMatchObject(unknown);
  });
  it('learns the circuit from the landings of the day', () => {
    const c = flightClock({
      ...base,
      nowMs: at(40),
      landingsMs: [10, 17, 24, 31, 70].map(at),
      marks: [{ mark: 'off-block', atMs: at(0) }],
    });
    expect(c).toMatchObject({ circuitLearned: true, circuitMin: 7 });
    expect(flightClock({ ...base, landingsMs: [10, 17].map(at) }).circuitLearned).toBe(false);
  });
});

describe('if it stops here', () => {
  const field = {
    sheet: CARVALHO,
    variationDeg: -2,
    circuitHeightFt: 1000,
    sigma: 0.96,
    turnBackFt: 700,
    reactionS: 4,
    bankDeg: 35,
    strips: [
      {
        surface: 'asphalt',
        lengthM: 900,
        elevationFt: 1345,
        eastM: 0,
        northM: 0,
        ends: [
          { ident: '04', trueBearingDeg: 38 },
          { ident: '22', trueBearingDeg: 218 },
        ],
      },
      {
        surface: 'grass',
        lengthM: 620,
        elevationFt: 1345,
        eastM: 0,
        northM: 0,
        ends: [
          { ident: '11', trueBearingDeg: 108 },
          { ident: '29', trueBearingDeg: 288 },
        ],
      },
      {
        surface: 'water',
        lengthM: 1400,
        elevationFt: 1300,
        eastM: 0,
        northM: 0,
        ends: [
          { ident: '18W', trueBearingDeg: 178 },
          { ident: '36W', trueBearingDeg: 358 },
        ],
      },
    ],
  };
  const wind = { fromMagneticDeg: 240, kt: 8 };
  it('answers with a usable end, ahead or a field, and never the water for a land aeroplane', () => {
    for (const leg of ['upwind', 'crosswind', 'downwind', 'base', 'final'] as const) {
      const found = stopHere(field, '22', wind, leg, heightOn(field, '22', wind, leg) ?? 500);
      expect(['ahead', 'field', '04', '22', '11', '29']).toContain(found?.answer);
      expect(found?.ends.map((e) => e.id)).not.toContain('18W');
    }
  });
  it('more height never reaches less', () => {
    const rank = { no: 0, doubtful: 1, reaches: 2 };
    const at = (h: number) => rank[stopHere(field, '22', wind, 'downwind', h)?.verdict ?? 'no'];
    const heights = [600, 800, 1000, 1300, 1800];
    expect(heights.map(at)).toEqual([...heights.map(at)].sort((a, b) => a - b));
    expect(at(1800)).toBe(2);
  });
  it('shows no turn back below the house height', () => {
    const low = stopHere(field, '22', wind, 'upwind', 400);
    expect(low?.ends.find((e) => e.id === '04')?.verdict).toBe('no');
  });
  it('an unknown runway has no answer', () => expect(stopHere(field, '99', wind, 'base', 500)).toBeNull());
});
