import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import {
  type TypedEvent,
  addDays,
  daysBetween,
  evaluateRecency,
  intervalState,
  recencyIn,
  validThrough,
  validity,
} from '@/core/recency';
import { localDate, localText } from '@/core/format';
import { weekday } from '@/core/schedule';
import { RulePack } from '@/domain/programme';
import type { CountRule, RecencyEvent } from '@/domain/recency';

const rule = (more: Partial<CountRule> = {}): CountRule => ({
  id: 'r',
  kind: 'landing',
  count: 3,
  windowDays: 90,
  fullStop: false,
  night: false,
  tailwheel: false,
  soleManipulator: true,
  surface: null,
  classes: null,
  ...more,
});
let serial = 0;
const event = (date: string, more: Partial<RecencyEvent> = {}): RecencyEvent => ({
  id: `e${++serial}`,
  date,
  kind: 'landing',
  fullStop: true,
  night: false,
  tailwheel: false,
  intervention: 0,
  demonstration: false,
  surface: 'land',
  class: 'single-engine-land',
  ...more,
});
const one = (r: CountRule, events: RecencyEvent[], onDate: string) =>
  evaluateRecency({ rules: [r], events, onDate }).rules[0];

describe('dates', () => {
  it.each([
    ['a leap day, a year later', '2024-02-29', { days: null, months: 12, monthEnd: false }, '2025-02-28'],
    ['into a leap year', '2023-02-28', { days: null, months: 12, monthEnd: false }, '2024-02-28'],
    ['the last of a short month', '2026-01-31', { days: null, months: 1, monthEnd: false }, '2026-02-28'],
    ['to the end of that month', '2026-01-31', { days: null, months: 1, monthEnd: true }, '2026-02-28'],
    ['24 calendar months', '2026-02-10', { days: null, months: 24, monthEnd: true }, '2028-02-29'],
    ['over the year', '2026-12-31', { days: null, months: 2, monthEnd: false }, '2027-02-28'],
    [
      'ninety days over the change of the clock',
      '2026-09-01',
      { days: 90, months: null, monthEnd: false },
      '2026-11-30',
    ],
    ['days into a leap day', '2024-02-28', { days: 1, months: null, monthEnd: false }, '2024-02-29'],
    ['no days at all', '2026-05-05', { days: 0, months: null, monthEnd: false }, '2026-05-05'],
    ['a month and days, to its end', '2026-01-15', { days: 20, months: 1, monthEnd: true }, '2026-03-31'],
  ] as const)('%s', (_, from, period, through) => expect(validThrough(from, period)).toBe(through));
  it('the last day still holds, the next does not', () => {
    const v = (onDate: string) => validity({ fromDate: '2026-09-01', onDate, days: 90, months: null, monthEnd: false });
    expect([v('2026-10-31').status, v('2026-11-01').status, v('2026-11-30').status, v('2026-12-01').status]).toEqual([
      'current',
      'expiring',
      'expiring',
      'expired',
    ]);
    expect(v('2026-12-03').daysLeft).toBe(-3);
  });
  it('the date on the paper is the aerodrome\u2019s', () => {
    expect(localDate('2026-07-01T23:30:00Z', 'Europe/Lisbon')).toBe('2026-07-02');
    expect(localDate('2026-01-01T23:30:00Z', 'Europe/Lisbon')).toBe('2026-01-01');
    expect(localDate('2026-01-01T03:00:00Z', 'America/Los_Angeles')).toBe('2025-12-31');
    expect(localDate('2026-10-25T00:59:59Z', 'Europe/Lisbon')).toBe('2026-10-25');
    expect(localText('2026-03-29T00:30:00Z', 'Europe/Lisbon')).toContain('29 Mar 2026 00:30');
    expect(localText('2026-03-29T01:30:00Z', 'Europe/Lisbon')).toContain('29 Mar 2026 02:30');
  });
});

describe('count rules', () => {
  it('an event on the edge of the window counts, a day older does not', () => {
    const at = (days: number) =>
      one(rule(), [event('2026-11-01'), event('2026-11-02'), event(addDays('2026-11-24', -days))], '2026-11-24');
    expect(at(90)).toMatchObject({ counted: 3, status: 'expiring', needed: 0, restore: null });
    expect(at(91)).toMatchObject({ counted: 2, status: 'expired', needed: 1, restore: 'one landing' });
  });
  it('words what restores it, with every condition', () => {
    expect(one(rule({ fullStop: true, tailwheel: true }), [], '2026-11-24')?.restore).toBe(
      'three full-stop landings in a tailwheel aeroplane',
    );
    expect(one(rule({ kind: 'takeoff', count: 1, night: true }), [], '2026-11-24')?.restore).toBe('one night take-off');
    expect(one(rule({ count: 14, surface: 'water', classes: ['A', 'B', 'C'] }), [], '2026-11-24')?.restore).toBe(
      '14 landings on water in class A, B or C',
    );
  });
  it('what has not been flown yet does not count', () =>
    expect(one(rule(), [event('2026-11-25'), event('2026-11-26'), event('2026-11-27')], '2026-11-24')).toMatchObject({
      counted: 0,
      validThrough: null,
    }));
  it('nobody noted an intervention: it counts; help and demonstrations do not', () => {
    const found = one(
      rule(),
      [
        event('2026-11-01', { intervention: null }),
        event('2026-11-01', { intervention: 1 }),
        event('2026-11-02', { intervention: 2 }),
        event('2026-11-03', { demonstration: true }),
        event('2026-11-03', { intervention: 3 }),
      ],
      '2026-11-24',
    );
    expect(found?.counted).toBe(2);
  });
  it('the first to lapse is the earliest of those that hold', () => {
    const r = evaluateRecency({
      rules: [rule({ id: 'a' }), rule({ id: 'b', fullStop: true }), rule({ id: 'c', night: true })],
      events: [event('2026-09-10'), event('2026-10-01'), event('2026-10-02', { fullStop: false }), event('2026-10-03')],
      onDate: '2026-11-24',
    });
    expect([r.overall, r.firstToLapseRuleId, r.rules.map((x) => x.status)]).toEqual([
      'expired',
      'b',
      ['current', 'expiring', 'expired'],
    ]);
    expect(r.leastFlying).toEqual({ circuits: 3, bySurface: {}, atNight: 3, fullStop: 0, tailwheel: 0 });
  });
  it('water and land add up, what has no surface rides along', () => {
    const r = evaluateRecency({
      rules: [rule({ surface: 'water' }), rule({ tailwheel: true, count: 2 }), rule({ count: 4 })],
      events: [],
      onDate: '2026-11-24',
    });
    expect(r.leastFlying).toEqual({
      circuits: 5,
      bySurface: { water: 3, land: 2 },
      atNight: 0,
      fullStop: 0,
      tailwheel: 2,
    });
  });
});

const arbitraryEvents = fc.array(
  fc.record({
    ago: fc.integer({ min: 0, max: 140 }),
    fullStop: fc.boolean(),
    tailwheel: fc.boolean(),
    intervention: fc.constantFrom(null, 0, 1, 2, 3),
    kind: fc.constantFrom('landing' as const, 'takeoff' as const),
    surface: fc.constantFrom('land', 'water'),
  }),
  { maxLength: 20 },
);
describe('recency over any log', () => {
  const ON = '2026-11-24';
  const rules = [
    rule({ id: 'a' }),
    rule({ id: 'b', kind: 'takeoff' }),
    rule({ id: 'c', fullStop: true, tailwheel: true }),
  ];
  it('flying the least that restores it restores it', () => {
    fc.assert(
      fc.property(arbitraryEvents, (log) => {
        const events = log.map((e) => event(addDays(ON, -e.ago), e));
        const before = evaluateRecency({ rules, events, onDate: ON });
        const circuits = Array.from({ length: before.leastFlying.circuits }, (_, i) => [
          event(ON, { kind: 'takeoff', tailwheel: i < before.leastFlying.tailwheel }),
          event(ON, { tailwheel: i < before.leastFlying.tailwheel }),
        ]).flat();
        const after = evaluateRecency({ rules, events: [...events, ...circuits], onDate: ON });
        expect(after.rules.every((r) => r.needed === 0 && r.status !== 'expired')).toBe(true);
      }),
    );
  });
  it('holds through its last day and not a day longer, unless flown again', () => {
    let held = 0;
    fc.assert(
      fc.property(arbitraryEvents, (log) => {
        const events = log.map((e) => event(addDays(ON, -e.ago), e));
        for (const r of evaluateRecency({ rules, events, onDate: ON }).rules) {
          if (r.status === 'expired' || r.validThrough === null) continue;
          held++;
          const at = (day: string) =>
            evaluateRecency({ rules, events, onDate: day }).rules.find((x) => x.ruleId === r.ruleId)?.status;
          expect(at(r.validThrough)).not.toBe('expired');
          expect(at(addDays(r.validThrough, 1))).toBe('expired');
          expect(daysBetween(ON, r.validThrough)).toBeGreaterThanOrEqual(0);
        }
      }),
      { numRuns: 400 },
    );
    expect(held).toBeGreaterThan(20);
  });
});

describe('packs and the house', () => {
  const us = RulePack.parse(JSON.parse(readFileSync('content/packs/us.json', 'utf8')));
  const eu = RulePack.parse(JSON.parse(readFileSync('content/packs/eu.json', 'utf8')));
  const typed = (typeCode: string, cls: string, more: Partial<TypedEvent> = {}): TypedEvent => ({
    ...event('2026-11-10', more),
    typeCode,
    class: cls,
  });
  const urze = { typeCode: 'urze', class: 'single-engine-land', tailwheel: true, water: false, night: false };
  const three = (f: () => TypedEvent) => [
    f(),
    f(),
    f(),
    ...[0, 1, 2].map(() => ({ ...f(), kind: 'takeoff' as const })),
  ];
  it('full stops on a nosewheel never restore the tailwheel, and stand for the class', () => {
    const r = recencyIn(
      us.recency,
      three(() => typed('c1', 'single-engine-land')),
      urze,
      '2026-11-24',
    );
    expect(Object.fromEntries(r.rules.map((x) => [x.ruleId, x.status]))).toEqual({
      'us-landings': 'current',
      'us-takeoffs': 'current',
      'us-tailwheel': 'expired',
      'us-tailwheel-takeoffs': 'expired',
    });
    expect(r.leastFlying).toMatchObject({ circuits: 3, tailwheel: 3, fullStop: 3 });
  });
  it('a twin says nothing of a single', () =>
    expect(
      recencyIn(
        us.recency,
        three(() => typed('p2', 'multi-engine-land')),
        urze,
        '2026-11-24',
      ).overall,
    ).toBe('expired'));
  it('night is asked only at night, and Europe asks one', () => {
    const events = [
      ...three(() => typed('urze', 'single-engine-land', { tailwheel: true })),
      typed('urze', 'single-engine-land', { tailwheel: true, night: true }),
      { ...typed('urze', 'single-engine-land', { tailwheel: true, night: true }), kind: 'takeoff' as const },
    ];
    expect(recencyIn(eu.recency, events, urze, '2026-11-24').overall).toBe('current');
    expect(recencyIn(eu.recency, events, { ...urze, night: true }, '2026-11-24').overall).toBe('current');
    expect(
      recencyIn(us.recency, events, { ...urze, night: true }, '2026-11-24').rules.find((r) => r.ruleId === 'us-night'),
    ).toMatchObject({ status: 'expired', needed: 2 });
  });
  it('a check starts the clock again, and so does a flight; the later counts', () => {
    const at = (flownOn: string[], checkedOn: string[]) =>
      intervalState({ flownOn, checkedOn, onDate: '2026-11-24', days: 45 });
    expect(at(['2026-09-01'], [])).toMatchObject({ status: 'expired', because: 'flight', validThrough: '2026-10-16' });
    expect(at(['2026-09-01'], ['2026-11-20'])).toMatchObject({
      status: 'current',
      because: 'check',
      from: '2026-11-20',
      validThrough: '2027-01-04',
    });
    expect(at(['2026-11-22'], ['2026-11-20'])).toMatchObject({ because: 'flight', from: '2026-11-22' });
    expect(at([], [])).toMatchObject({ status: 'never', validThrough: null });
    expect(at(['2026-12-01'], [])).toMatchObject({ status: 'never' });
  });
});

describe('calendar days wherever the computer stands', () => {
  const DAY_MS = 86_400_000;
  const at = (iso: string): number => Date.parse(`${iso}T12:00:00Z`);
  const zone = process.env.TZ;
  afterEach(() => {
    if (zone === undefined) delete process.env.TZ;
    else process.env.TZ = zone;
  });
  // Clocks that jump at midnight, half an hour, a day ahead and a day behind.
  it.each([
    'UTC',
    'America/Santiago',
    'Australia/Lord_Howe',
    'Pacific/Kiritimati',
    'Pacific/Pago_Pago',
    'Africa/Cairo',
  ])('days, months and weeks are the calendar\u2019s in %s', (tz) => {
    process.env.TZ = tz;
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9000 }), fc.integer({ min: -800, max: 800 }), (start, days) => {
        const from = new Date(at('2015-01-01') + start * DAY_MS).toISOString().slice(0, 10);
        const to = addDays(from, days);
        expect(at(to) - at(from)).toBe(days * DAY_MS);
        expect(daysBetween(from, to)).toBe(days);
        expect(weekday(from)).toBe(((new Date(at(from)).getUTCDay() + 6) % 7) + 1);
        const [y = 0, m = 0] = from.split('-').map(Number);
        expect(validThrough(from, { days: null, months: 24, monthEnd: true })).toBe(
          new Date(Date.UTC(y + 2, m, 0)).toISOString().slice(0, 10),
        );
      }),
    );
  });
});
