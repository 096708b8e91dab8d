import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_LIMITATIONS } from '../limits';
import {
  type Hold,
  type Weekly,
  USUAL,
  awayIn,
  bestSlots,
  bookingMinutes,
  clockText,
  conflictsOf,
  dayText,
  freeSlots,
  later,
  learnSplit,
  limitationProblems,
  localClock,
  localInstant,
  nearestSlot,
  overlaps,
  readClock,
  splitBooking,
  weekday,
  windFit,
  windowsOn,
  withinWindows,
  fitWords,
} from '@/core/schedule';
import { lanes } from '@/ui/schedule/lanes';

const ZONE = 'Europe/Lisbon';
describe('local times over the year', () => {
  it.each([
    ['winter', '2026-11-24', 540, ZONE, '2026-11-24T09:00:00.000Z'],
    ['summer', '2026-07-01', 540, ZONE, '2026-07-01T08:00:00.000Z'],
    ['the hour that is not, in March', '2026-03-29', 90, ZONE, '2026-03-29T01:30:00.000Z'],
    ['just before the jump', '2026-03-29', 59, ZONE, '2026-03-29T00:59:00.000Z'],
    ['just after it', '2026-03-29', 120, ZONE, '2026-03-29T01:00:00.000Z'],
    ['the hour that is twice, in October: the first', '2026-10-25', 90, ZONE, '2026-10-25T00:30:00.000Z'],
    ['after it', '2026-10-25', 120, ZONE, '2026-10-25T02:00:00.000Z'],
    ['leap day', '2028-02-29', 600, ZONE, '2028-02-29T10:00:00.000Z'],
    ['year\u2019s end', '2026-12-31', 1439, ZONE, '2026-12-31T23:59:00.000Z'],
    ['midnight that ends a day', '2026-12-31', 1440, ZONE, '2027-01-01T00:00:00.000Z'],
    ['the other side of the Atlantic', '2026-03-08', 150, 'America/New_York', '2026-03-08T07:30:00.000Z'],
    ['half an hour of daylight saving', '2026-10-04', 180, 'Australia/Lord_Howe', '2026-10-03T16:00:00.000Z'],
  ])('%s', (_name, date, min, zone, instant) => {
    expect(localInstant(date, min, zone)).toBe(instant);
  });
  it('goes there and back on every minute of the year but the hour that is not', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 364 }),
        fc.integer({ min: 0, max: 1439 }),
        fc.constantFrom(ZONE, 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kathmandu'),
        (day, min, zone) => {
          const date = new Date(Date.UTC(2026, 0, 1 + day)).toISOString().slice(0, 10);
          const back = localClock(localInstant(date, min, zone), zone);
          const jumps =
            (zone === ZONE && date === '2026-03-29') ||
            (zone === 'America/New_York' && date === '2026-03-08') ||
            (zone === 'Australia/Lord_Howe' && date === '2026-10-04');
          if (!jumps) expect(back).toEqual({ date, minutes: min });
          else expect(back.date).toBe(date);
        },
      ),
      { numRuns: 500 },
    );
  });
  it('days and clocks in words', () => {
    expect([weekday('2026-11-23'), weekday('2026-11-29'), dayText('2028-02-29')]).toEqual([1, 7, 'Tue 29 Feb']);
    expect(['09:30', '9.30', '0930', '24:00', '24:01', '9:60', '', 'noon'].map(readClock)).toEqual([
      570,
      570,
      570,
      1440,
      null,
      null,
      null,
      null,
    ]);
    expect(clockText('2026-07-01T08:05:00Z', ZONE)).toBe('09:05');
  });
});

const at = (hhmm: string, day = '2026-11-24') => `${day}T${hhmm}:00.000Z`;
const hold = (holder: string, from: string, to: string, bookingId = from): Hold => ({
  holder,
  bookingId,
  from: at(from),
  to: at(to),
});
describe('who is free', () => {
  it('what ends at ten lets another begin at ten', () => {
    expect(overlaps({ from: at('09:00'), to: at('10:00') }, { from: at('10:00'), to: at('11:00') })).toBe(false);
    expect(overlaps({ from: at('09:00'), to: at('10:01') }, { from: at('10:00'), to: at('11:00') })).toBe(true);
    expect(
      conflictsOf(
        { from: at('09:00'), to: at('12:00') },
        ['p', 'a'],
        [hold('p', '11:00', '13:00'), hold('a', '08:00', '09:30'), hold('x', '09:00', '12:00')],
      ).map((h) => h.holder),
    ).toEqual(['a', 'p']);
    expect(
      conflictsOf({ from: at('09:00'), to: at('12:00') }, ['p'], [hold('p', '11:00', '13:00', 'me')], 'me'),
    ).toEqual([]);
  });
  const weekly: Weekly[] = [
    { person: 'p', weekday: 2, fromMin: 540, toMin: 720, validFrom: '2026-11-01', validUntil: '2026-11-30' },
    { person: 'p', weekday: 2, fromMin: 720, toMin: 840, validFrom: '2026-11-01', validUntil: null },
  ];
  it('windows that touch are one; a day without one is shut; nobody\u2019s windows are any time', () => {
    expect(withinWindows({ from: at('11:00'), to: at('13:00') }, windowsOn('p', '2026-11-24', weekly, ZONE))).toBe(
      true,
    );
    expect(withinWindows({ from: at('13:30'), to: at('14:30') }, windowsOn('p', '2026-11-24', weekly, ZONE))).toBe(
      false,
    );
    expect(windowsOn('p', '2026-11-25', weekly, ZONE)).toEqual([]);
    expect(windowsOn('q', '2026-11-25', weekly, ZONE)).toBeNull();
    expect(windowsOn('p', '2026-12-01', weekly, ZONE)).toHaveLength(1);
  });
  it('away until further notice has no end', () => {
    expect(
      awayIn(
        { from: at('09:00', '2031-01-01'), to: at('10:00', '2031-01-01') },
        ['a'],
        [{ who: 'a', from: at('08:00'), to: null, why: 'engine' }],
      ),
    ).toHaveLength(1);
    expect(
      awayIn({ from: at('06:00'), to: at('08:00') }, ['a'], [{ who: 'a', from: at('08:00'), to: null, why: 'engine' }]),
    ).toHaveLength(0);
  });
  it('a free slot never meets a hold, a time away or a shut window, and none that is free is left out', () => {
    const span = fc
      .tuple(fc.integer({ min: 0, max: 90 }), fc.integer({ min: 1, max: 20 }), fc.constantFrom('p', 'q', 'a'))
      .map(([from, long, holder]): Hold => ({
        holder,
        bookingId: `${from}${holder}`,
        from: later(at('00:00'), from * 15),
        to: later(at('00:00'), (from + long) * 15),
      }));
    fc.assert(
      fc.property(fc.array(span, { maxLength: 12 }), fc.integer({ min: 2, max: 10 }), (holds, long) => {
        const ask = {
          minutes: long * 15,
          holders: ['p', 'a'],
          people: ['p'],
          holds,
          away: [{ who: 'a', from: at('15:00'), to: at('16:00'), why: 'x' }],
          weekly: [],
          timeZone: ZONE,
          fromDate: '2026-11-24',
          toDate: '2026-11-24',
          notBefore: at('07:00'),
          stepMin: 15,
          dayOf: () => ({ from: at('06:00'), to: at('20:00') }),
        };
        const found = freeSlots(ask);
        for (const s of found) {
          expect(conflictsOf(s, ask.holders, holds)).toEqual([]);
          expect(s.from >= at('07:00') && s.to <= at('20:00')).toBe(true);
        }
        const starts = new Set(found.map((s) => s.from));
        for (let q = 28; q + long <= 80; q++) {
          const s = { from: later(at('00:00'), q * 15), to: later(at('00:00'), (q + long) * 15) };
          const free = conflictsOf(s, ask.holders, holds).length === 0 && awayIn(s, ['a'], ask.away).length === 0;
          expect(starts.has(s.from)).toBe(free);
        }
      }),
      { numRuns: 200 },
    );
  });
  it('on the days the clocks change a slot is as long as it says', () => {
    for (const date of ['2026-03-29', '2026-10-25']) {
      const found = freeSlots({
        minutes: 90,
        holders: ['p'],
        people: [],
        holds: [],
        away: [],
        weekly: [],
        timeZone: ZONE,
        fromDate: date,
        toDate: date,
        notBefore: '2026-01-01T00:00:00Z',
        stepMin: 15,
        dayOf: (d) => ({ from: localInstant(d, 0, ZONE), to: localInstant(d, 1440, ZONE) }),
      });
      expect(new Set(found.map((s) => s.from)).size).toBe(found.length);
      for (const s of found) expect(Date.parse(s.to) - Date.parse(s.from)).toBe(90 * 60_000);
    }
  });
  it('the nearest: before or after, of two as near the later', () => {
    const s = (h: string) => ({ from: at(h), to: at(h) });
    expect(nearestSlot([s('09:00'), s('11:00')], at('10:15'))?.from).toBe(at('11:00'));
    expect(nearestSlot([s('09:00'), s('11:00')], at('10:00'))?.from).toBe(at('11:00'));
    expect(nearestSlot([s('09:00'), s('13:00')], at('10:00'))?.from).toBe(at('09:00'));
    expect(nearestSlot([], at('10:00'))).toBeNull();
  });
});

describe('the wind of a slot', () => {
  const need = { wantsKt: null, mostKt: 10, mostOf: 'the house' };
  const wind = (crosswindKt: number, sureness = 1) => ({ crosswindKt, runwayEnd: '22', sureness });
  it('a lesson about wind wants it, every other likes it calm, over the limit is never good', () => {
    expect(windFit(wind(7), { wantsKt: 6, mostKt: 10, mostOf: 'the step' })).toMatchObject({
      word: 'wanted',
      score: 100,
    });
    expect(windFit(wind(2), { wantsKt: 6, mostKt: 10, mostOf: 'the step' }).word).toBe('light');
    expect(windFit(wind(0), need)).toMatchObject({ word: 'fits', score: 100 });
    expect(windFit(wind(10), need).word).toBe('fits');
    expect(windFit(wind(10.1), need).word).toBe('too-much');
    // Of a pilot's own step in dual flight half a knot is rounding; a limit of the school is a limit.
    expect(windFit(wind(10.4), { ...need, step: true }).word).toBe('fits');
    expect(windFit(wind(10.6), { ...need, step: true }).word).toBe('too-much');
    expect(windFit(null, need)).toMatchObject({ word: 'unknown', score: 50 });
    expect(fitWords(windFit(wind(10.1), need).said)).toBe('crosswind 11 kt on 22, over the 10 kt of the house');
    expect(windFit(wind(4), { ...need, notProven: true })).toMatchObject({ word: 'unknown', score: 50 });
    expect(windFit(wind(12), { ...need, notProven: true }).word).toBe('too-much');
    expect(windFit(wind(12), need).said).toMatchObject({ code: 'over-limit', params: { limitKt: 10 } });
  });
  it('calmer is never worse without a wish; nearer to the wish is never worse with one; less sure is nearer the middle', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 25, noNaN: true }), fc.double({ min: 0, max: 25, noNaN: true }), (a, b) => {
        const [less, more] = a < b ? [a, b] : [b, a];
        expect(windFit(wind(less), need).score).toBeGreaterThanOrEqual(windFit(wind(more), need).score);
        const wish = { wantsKt: 8, mostKt: 25, mostOf: 'x' };
        expect(windFit(wind(more), wish).score).toBeGreaterThanOrEqual(windFit(wind(less), wish).score);
        expect(Math.abs(windFit(wind(a, 0.4), need).score - 50)).toBeLessThanOrEqual(
          Math.abs(windFit(wind(a), need).score - 50) + 1,
        );
      }),
    );
  });
  it('the best three stand apart', () => {
    const slots = Array.from({ length: 12 }, (_, i) => ({
      from: later(at('08:00'), i * 30),
      to: later(at('09:30'), i * 30),
      fit: { score: 60 + (i === 5 ? 30 : i), word: 'fits' as const, said: { code: 'no-forecast' as const } },
    }));
    const best = bestSlots(slots);
    expect(best[0]?.from).toBe(at('10:30'));
    expect(best).toHaveLength(3);
    for (const [i, a] of best.entries())
      for (const b of best.slice(i + 1))
        expect(Math.abs(Date.parse(a.from) - Date.parse(b.from))).toBeGreaterThanOrEqual(120 * 60_000);
  });
});

describe('how a booking is spent', () => {
  it('the parts sum to the whole, whatever its length', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 30, max: 600 }),
        fc.integer({ min: 5, max: 60 }),
        fc.integer({ min: 5, max: 60 }),
        fc.integer({ min: 10, max: 120 }),
        fc.integer({ min: 5, max: 60 }),
        (minutes, brief, prepare, flight, debrief) => {
          const s = splitBooking(minutes, { brief, prepare, flight, debrief });
          expect(s.brief + s.prepare + s.flight + s.debrief).toBe(minutes);
          expect(Math.min(s.brief, s.prepare, s.flight, s.debrief)).toBeGreaterThanOrEqual(0);
        },
      ),
    );
    expect(splitBooking(105, { brief: 10, prepare: 15, flight: 60, debrief: 20 })).toEqual({
      brief: 10,
      prepare: 15,
      flight: 60,
      debrief: 20,
    });
    expect(splitBooking(90, { brief: 10, prepare: 15, flight: 60, debrief: 20 }).flight).toBe(45);
  });
  it('learns medians in steps of five, and only from enough lessons', () => {
    const l = (brief: number | null, flight: number | null) => ({ brief, prepare: 12, flight, debrief: null });
    expect(learnSplit([l(10, 40), l(12, 50), l(13, 61), l(null, 58), l(11, 400), l(30, 55)])).toEqual({
      brief: 10,
      prepare: 10,
      flight: 55,
      debrief: USUAL.debrief,
      lessons: 6,
    });
    expect(learnSplit([l(10, 40)])).toEqual({ ...USUAL, lessons: 0 });
    expect(bookingMinutes({ brief: 10, prepare: 15, flight: 60, debrief: 20 })).toBe(105);
    expect(bookingMinutes({ brief: 10, prepare: 15, flight: 61, debrief: 20 })).toBe(120);
  });
  it('blocks beside each other never cover each other', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc
            .tuple(fc.integer({ min: 0, max: 900 }), fc.integer({ min: 15, max: 200 }))
            .map(([fromMin, long]) => ({ fromMin, toMin: fromMin + long })),
          { maxLength: 14 },
        ),
        (blocks) => {
          const placed = lanes(blocks);
          expect(placed).toHaveLength(blocks.length);
          for (const [i, a] of placed.entries()) {
            expect(a.lane).toBeLessThan(a.of);
            for (const b of placed.slice(i + 1))
              if (a.block.fromMin < b.block.toMin && b.block.fromMin < a.block.toMin) {
                expect(a.lane).not.toBe(b.lane);
                expect(a.of).toBe(b.of);
              }
          }
        },
      ),
    );
  });
});

describe('limitations of a sign-off', () => {
  const flight = { dual: false, passengers: 1, surfaces: ['asphalt', 'grass'], crosswindKt: 9, hoursSince: 2 };
  it.each([
    ['alone', { alone: true }, { code: 'solo' }],
    ['no passengers', { noPassengers: true }, { code: 'no-passengers' }],
    ['asphalt only', { surface: 'asphalt' as const }, { code: 'surface', params: { surface: 'asphalt' } }],
    ['crosswind', { crosswindKt: 8 }, { code: 'crosswind', params: { limitKt: 8, forecastKt: 9 } }],
  ])('%s', (_name, limit, problem) => {
    const found = limitationProblems({ ...NO_LIMITATIONS, ...limit }, flight);
    expect(found).toMatchObject([problem]);
    expect(limitationProblems({ ...NO_LIMITATIONS, ...limit }, { ...flight, dual: true })).toEqual([]);
    expect(limitationProblems({ ...NO_LIMITATIONS, ...limit, untilHours: 2 }, flight)).toEqual([]);
    expect(limitationProblems({ ...NO_LIMITATIONS, ...limit, untilHours: 2.1 }, flight)).toMatchObject([
      { params: { until: { untilHours: 2.1, flownHours: 2 } } },
    ]);
  });
  it('what keeps to them is free; a wind nobody knows yet does not forbid', () => {
    expect(
      limitationProblems(
        { ...NO_LIMITATIONS, alone: true, noPassengers: true, surface: 'grass', crosswindKt: 8 },
        { ...flight, passengers: 0, surfaces: ['grass'], crosswindKt: null },
      ),
    ).toEqual([]);
    expect(limitationProblems({ ...NO_LIMITATIONS, crosswindKt: 9 }, { ...flight, passengers: 0 })).toEqual([]);
  });
});
