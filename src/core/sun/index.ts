/**
 * Sunrise, sunset, civil twilight and night at a place. Method: the suncalc package (about a minute at these latitudes,
 * sea-level horizon). Instants are UTC, ISO.
 */
import { LRUCache } from 'lru-cache';
import { getPosition, getTimes } from 'suncalc';
import type { NightRule } from '@/domain/recency';

export interface Place {
  latitudeDeg: number;
  longitudeDeg: number;
}
/** Null where the sun does not cross that height on that day. */
export interface SunTimes {
  dawn: string | null;
  sunrise: string | null;
  sunset: string | null;
  dusk: string | null;
  always: 'day' | 'night' | null;
}

const MIN_MS = 60_000;
const HOUR_MS = 60 * MIN_MS;
const kept = new LRUCache<string, SunTimes>({ max: 4000 });

/** The sun's day that an instant falls in, as the calendar writes it. */
const solarDate = (ms: number, longitudeDeg: number): string =>
  new Date(ms + (longitudeDeg / 15) * HOUR_MS).toISOString().slice(0, 10);

/**
 * Times of one day at a place. @param date ISO date, the place's own
 * @returns instants; `always` where the sun does not cross the horizon that day
 * @example
 * sunTimes('2026-11-24', { latitudeDeg: 38.72, longitudeDeg: -9.14 })
 * // { dawn: '2026-11-24T06:59:28.192Z', sunrise: '2026-11-24T07:28:26.996Z', sunset: '2026-11-24T17:17:44.983Z',
 * // dusk: '2026-11-24T17:46:43.554Z', always: null }
 */
export function sunTimes(date: string, { latitudeDeg, longitudeDeg }: Place): SunTimes {
  const key = `${date}|${latitudeDeg}|${longitudeDeg}`;
  const known = kept.get(key);
  if (known) return known;
  const noon = Date.parse(`${date.slice(0, 10)}T12:00:00Z`) - (longitudeDeg / 15) * HOUR_MS;
  const t = getTimes(new Date(noon), latitudeDeg, longitudeDeg);
  const iso = (d: Date | null) => (d === null || Number.isNaN(d.getTime()) ? null : d.toISOString());
  const times: SunTimes = {
    dawn: iso(t.dawn),
    sunrise: iso(t.sunrise),
    sunset: iso(t.sunset),
    dusk: iso(t.dusk),
    always: t.alwaysUp ? 'day' : t.alwaysDown ? 'night' : null,
  };
  kept.set(key, times);
  return times;
}

/**
 * Is it night at an instant, by a pack's own rule? Both ends of the night count as night.
 * Where the sun never crosses the horizon that day it is day or night throughout.
 * Source: the suncalc package.
 * @returns true at night
 * @example
 * isNight('2026-12-21T20:00:00Z', { latitudeDeg: 69.65, longitudeDeg: 18.96 }, { by: 'twilight', citation: '' })
 * // true
 */
export function isNight(instant: string, place: Place, rule: NightRule): boolean {
  const ms = Date.parse(instant);
  const times = sunTimes(solarDate(ms, place.longitudeDeg), place);
  if (rule.by === 'twilight') {
    if (times.dawn === null || times.dusk === null)
      return getPosition(new Date(ms), place.latitudeDeg, place.longitudeDeg).altitude < CIVIL_DEG;
    return ms <= Date.parse(times.dawn) || ms >= Date.parse(times.dusk);
  }
  if (times.sunrise === null || times.sunset === null) return times.always === 'night';
  return (
    ms >= Date.parse(times.sunset) + rule.afterMin * MIN_MS || ms <= Date.parse(times.sunrise) - rule.beforeMin * MIN_MS
  );
}
const CIVIL_DEG = -6;
