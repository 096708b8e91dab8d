import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { isNight, sunTimes } from '@/core/sun';
import type { NightRule } from '@/domain/recency';

const LISBON = { latitudeDeg: 38.72, longitudeDeg: -9.14 };
const SUN: NightRule = { by: 'sun', afterMin: 60, beforeMin: 60, citation: '' };
const DUSK: NightRule = { by: 'twilight', citation: '' };
const minutes = (iso: string | null) =>
  iso === null ? null : Number(iso.slice(11, 13)) * 60 + Number(iso.slice(14, 16));
const near = (iso: string | null, hhmm: string, within = 3) =>
  expect(
    Math.abs((minutes(iso) ?? -999) - (Number(hhmm.slice(0, 2)) * 60 + Number(hhmm.slice(3)))),
  ).toBeLessThanOrEqual(within);

describe('sun times', () => {
  // From the almanac tables of the places, in UTC.
  it.each([
    ['Lisbon, midsummer', '2026-06-21', LISBON, '05:12', '20:05'],
    ['Lisbon, midwinter', '2026-12-21', LISBON, '07:51', '17:19'],
    ['Greenwich, equinox', '2026-03-20', { latitudeDeg: 51.48, longitudeDeg: 0 }, '06:03', '18:14'],
    ['equator at Greenwich, equinox', '2026-03-20', { latitudeDeg: 0, longitudeDeg: 0 }, '06:04', '18:11'],
    ['Sydney, midsummer', '2026-12-22', { latitudeDeg: -33.87, longitudeDeg: 151.21 }, '18:41', '09:05'],
  ] as const)('%s', (_name, date, place, rise, set) => {
    const t = sunTimes(date, place);
    near(t.sunrise, rise);
    near(t.sunset, set);
    expect(t.always).toBeNull();
  });
  it('day throughout and night throughout beyond the circle', () => {
    const north = { latitudeDeg: 69.65, longitudeDeg: 18.96 };
    expect(sunTimes('2026-06-21', north)).toMatchObject({ sunrise: null, sunset: null, always: 'day' });
    expect(sunTimes('2026-12-21', north)).toMatchObject({ sunrise: null, sunset: null, always: 'night' });
    expect([isNight('2026-06-21T23:00:00Z', north, SUN), isNight('2026-12-21T11:00:00Z', north, SUN)]).toEqual([
      false,
      true,
    ]);
    // Midwinter noon there is civil twilight, and no night by that rule.
    expect([isNight('2026-12-21T10:45:00Z', north, DUSK), isNight('2026-12-21T20:00:00Z', north, DUSK)]).toEqual([
      false,
      true,
    ]);
  });
});

describe('night', () => {
  const t = sunTimes('2026-11-24', LISBON);
  const plus = (iso: string | null, min: number) => new Date(Date.parse(iso ?? '') + min * 60_000).toISOString();
  it.each([
    ['an hour after sunset', plus(t.sunset, 60), true, true],
    ['a minute less', plus(t.sunset, 59), false, true],
    ['at sunset', plus(t.sunset, 0), false, false],
    ['an hour before sunrise', plus(t.sunrise, -60), true, true],
    ['a minute later', plus(t.sunrise, -59), false, true],
    ['at sunrise', plus(t.sunrise, 0), false, false],
    ['at dusk', plus(t.dusk, 0), false, true],
    ['a minute before dusk', plus(t.dusk, -1), false, false],
    ['at noon', '2026-11-24T12:30:00Z', false, false],
    ['at midnight', '2026-11-24T00:30:00Z', true, true],
  ])('%s', (_name, instant, bySun, byTwilight) => {
    expect([isNight(instant, LISBON, SUN), isNight(instant, LISBON, DUSK)]).toEqual([bySun, byTwilight]);
  });
  it('the sun\u2019s day is the place\u2019s own: on the other side of the date line too', () => {
    const auckland = { latitudeDeg: -36.85, longitudeDeg: 174.76 };
    expect(isNight('2026-11-24T00:30:00Z', auckland, SUN)).toBe(false);
    expect(isNight('2026-11-24T12:30:00Z', auckland, SUN)).toBe(true);
    const honolulu = { latitudeDeg: 21.3, longitudeDeg: -157.86 };
    expect(isNight('2026-11-24T22:00:00Z', honolulu, SUN)).toBe(false);
    expect(isNight('2026-11-24T10:00:00Z', honolulu, SUN)).toBe(true);
  });
  it('night by the hour after sunset is night by twilight where twilight is short', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 366 * 1440 }),
        fc.double({ min: -45, max: 45, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        (min, latitudeDeg, longitudeDeg) => {
          const at = new Date(Date.UTC(2026, 0, 1) + min * 60_000).toISOString();
          if (isNight(at, { latitudeDeg, longitudeDeg }, SUN))
            expect(isNight(at, { latitudeDeg, longitudeDeg }, DUSK)).toBe(true);
        },
      ),
      { numRuns: 300 },
    );
  });
});
