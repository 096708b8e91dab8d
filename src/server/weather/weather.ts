import {
  type ForecastPart,
  readReport,
  reportedWind,
  stationForecast,
  stationObservation,
  stationOutlook,
} from '@/core/wind';
import type { WindSeen } from '@/domain/brief';
import type { Aerodrome } from '@/domain/sheet';
import type { Weather } from '@/domain/weather';
import { nowIso } from '../floor/clock';
import { inDemo } from '../floor/data-folder';
import { homeAerodrome, newestContent } from '../rules/content';
import { keptText } from './fetch';

export type WeatherHere = Weather<WindSeen>;
const NONE: WeatherHere = { source: 'none', report: null, forecast: null, problem: null };
const STALE_MIN = 75;
const LONGEST_FORECAST = 800;

/** The newest stand first or last of few; a text of thousands is no weather. */
const MOST_READ = 40;
/** Reports in a text, whatever stands around them: one a line, or behind a time line, each to its end or `=`. */
const reportsIn = (text: string): string[] =>
  text
    .split(/[\r\n=]+/)
    .flatMap((line) => /\b(?:(?:METAR|SPECI)\s+)?(?:COR\s+)?[A-Z][A-Z0-9]{3}\s\d{6}Z\b.*/.exec(line)?.[0] ?? [])
    .slice(0, MOST_READ);

/** The newest report of a text that can be read, no later than now. */
function newestReport(text: string, now: string): WeatherHere['report'] {
  const read = reportsIn(text).flatMap((raw) => {
    const r = readReport(raw);
    const wind = r.ok ? reportedWind(raw, r.report, now) : null;
    return wind ? [{ text: raw.trim(), wind, observedAt: wind.observedAt }] : [];
  });
  return read.sort((a, b) => b.observedAt.localeCompare(a.observedAt))[0] ?? null;
}
/** A forecast as it came, on one line. */
const forecastIn = (text: string): string | null => {
  const found = /\bTAF\b[^=]*/.exec(text)?.[0].replace(/\s+/g, ' ').trim();
  return found ? found.slice(0, LONGEST_FORECAST) : null;
};

const simulated = (ident: string, now: string): WeatherHere => ({
  source: 'simulated',
  report: newestReport(stationObservation(ident, now).text, now),
  forecast: stationForecast(ident, now).text,
  problem: null,
});

/**
 * What is known of the weather at an aerodrome: by its address where it has one; simulated in a demo that has none; else
 * nothing, and that is said. The address of home stands in the rules of the school, that of another in its own sheet.
 */
export async function weatherNow(at?: Aerodrome): Promise<WeatherHere> {
  const now = nowIso();
  const { ident } = await homeAerodrome();
  const away = at !== undefined && at.ident !== ident;
  const { reportUrl, forecastUrl } = (away ? at.weather : (await newestContent('house', 'house'))?.body.weather) ?? {
    reportUrl: '',
    forecastUrl: '',
  };
  if (reportUrl === '' && forecastUrl === '') {
    if (!inDemo()) return NONE;
    return simulated(at?.ident ?? ident, now);
  }
  const [report, forecast] = await Promise.all([
    reportUrl === '' ? null : keptText(reportUrl),
    forecastUrl === '' ? null : keptText(forecastUrl),
  ]);
  const newest = report?.text ? newestReport(report.text, now) : null;
  const oldMin = newest ? (Date.parse(now) - Date.parse(newest.observedAt)) / 60_000 : 0;
  return {
    source: 'address',
    report: newest,
    forecast: forecast?.text ? forecastIn(forecast.text) : null,
    problem:
      report?.problem ??
      (report && report.text !== null && !newest ? 'unreadable' : newest && oldMin > STALE_MIN ? 'stale' : null) ??
      forecast?.problem ??
      (forecast && forecast.text !== null && forecastIn(forecast.text) === null ? 'unreadable' : null),
  };
}

/** The wind expected at an instant, for the schedule. Only the demo has a forecast that can be computed with. */
export const windOutlook = (ident: string, now: string, at: string): ReturnType<typeof stationOutlook> =>
  inDemo() ? stationOutlook(ident, now, at) : null;
/** Parts of the forecast a lesson can be planned into; none outside the demo. */
export const forecastParts = (ident: string, now: string): ForecastPart[] =>
  inDemo() ? stationForecast(ident, now).parts : [];
