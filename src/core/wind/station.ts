import type { WindSeen } from '@/domain/brief';
import { readReport, reportedWind } from './report';

/**
 * A simulated weather station: observations every ten minutes (at 5 past) and a forecast every three hours, in METAR
 * and TAF form. Seeded by the station's name and the day, so that the same instant always gives the same report. A
 * stand-in, and labelled as one.
 */
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
const OBSERVED_EVERY_MS = 10 * 60_000;
const OBSERVED_AT_MS = 5 * 60_000;
const FORECAST_EVERY_MS = 3 * HOUR_MS;

/** Uniform in [0, 1) from a text. FNV-1a, then an integer mix. */
function unit(key: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < key.length; i++) h = Math.imul(h ^ key.charCodeAt(i), 0x01000193);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

export interface SimulatedAir {
  fromDeg: number;
  kt: number;
  gustKt: number | null;
  temperatureC: number;
  dewPointC: number;
  qnhHpa: number;
}

/**
 * The air at an instant: a day's own wind that freshens in the afternoon, with small changes from one observation to
 * the next. `steady` leaves those out (for the forecast).
 */
function airAt(station: string, ms: number, steady: boolean): SimulatedAir {
  const day = new Date(ms).toISOString().slice(0, 10);
  const hour = (ms % DAY_MS) / HOUR_MS;
  const slot = steady ? 0 : Math.floor(ms / OBSERVED_EVERY_MS);
  const of = (name: string) => unit(`${station}|${day}|${name}`);
  const wobble = (name: string) => (steady ? 0 : unit(`${station}|${slot}|${name}`) - 0.5);
  const warm = Math.max(0, Math.sin(((hour - 8) / 12) * Math.PI));
  const base = 2 + 5 * of('wind');
  const kt = Math.max(0, base + (4 + 6 * of('breeze')) * warm + 2.5 * wobble('kt'));
  const prevailing = of('sector') < 0.75 ? 255 : 60;
  const fromDeg = prevailing + 60 * (of('dir') - 0.5) + 25 * warm + 20 * wobble('dir');
  const spread = (3 + 8 * of('gust')) * warm;
  const gusty = kt >= 8 && spread >= 5;
  const season = Math.cos(((new Date(ms).getUTCMonth() - 6.5) / 12) * 2 * Math.PI);
  const temperatureC = 14 + 9 * season + 7 * (warm - 0.4) + 4 * (of('temp') - 0.5);
  return {
    fromDeg,
    kt,
    gustKt: gusty ? kt + spread + 1.5 * wobble('gust') : null,
    temperatureC,
    dewPointC: temperatureC - 4 - 9 * warm - 3 * of('dew'),
    qnhHpa: 1008 + 20 * of('qnh') + 1.5 * wobble('qnh'),
  };
}

const two = (n: number): string => String(Math.round(n)).padStart(2, '0');
const degrees = (t: number): string => (Math.round(t) < 0 ? `M${two(-t)}` : two(t));
const dayHour = (ms: number): string => `${two(new Date(ms).getUTCDate())}${two(new Date(ms).getUTCHours())}`;

function windGroup(a: Pick<SimulatedAir, 'fromDeg' | 'kt' | 'gustKt'>): string {
  const kt = Math.round(a.kt);
  if (kt < 1) return '00000KT';
  if (kt <= 2) return `VRB${two(kt)}KT`;
  const tens = (((Math.round(a.fromDeg / 10) * 10) % 360) + 360) % 360;
  const gust = a.gustKt === null ? 0 : Math.round(a.gustKt);
  return `${String(tens === 0 ? 360 : tens).padStart(3, '0')}${two(kt)}${gust >= kt + 5 ? `G${two(gust)}` : ''}KT`;
}

/**
 * The newest observation at or before an instant, as a METAR.
 * @returns the report, and its instant
 * @example
 * stationObservation('ZPAV', '2026-01-24T02:59:24.000Z')
 * // { observedAt: '2026-01-24T02:55:00.000Z', text: 'METAR ZPAV 240255Z AUTO 25003KT 9999 FEW040 04/00 Q1013' }
 */
export function stationObservation(station: string, nowIso: string): { text: string; observedAt: string } {
  const now = Date.parse(nowIso);
  const at = Math.floor((now - OBSERVED_AT_MS) / OBSERVED_EVERY_MS) * OBSERVED_EVERY_MS + OBSERVED_AT_MS;
  const a = airAt(station, at, false);
  const iso = new Date(at).toISOString();
  const kt = Math.round(a.kt);
  const swing = 20 + 40 * unit(`${station}|${at}|swing`);
  const low = Math.round((a.fromDeg - swing / 2) / 10) * 10;
  const high = Math.round((a.fromDeg + swing / 2) / 10) * 10;
  const wrap = (d: number) => String(((d % 360) + 360) % 360 || 360).padStart(3, '0');
  const arc = kt > 3 && high - low >= 60 ? ` ${wrap(low)}V${wrap(high)}` : '';
  return {
    observedAt: iso,
    text: `METAR ${station} ${iso.slice(8, 10)}${iso.slice(11, 13)}${iso.slice(14, 16)}Z AUTO ${windGroup(a)}${arc} 9999 FEW040 ${degrees(a.temperatureC)}/${degrees(a.dewPointC)} Q${Math.round(a.qnhHpa)}`,
  };
}

/**
 * The newest observation as a wind for the brief; null only if the station's own report cannot be read.
 * @returns knots and true degrees
 */
export function stationWind(station: string, nowIso: string): WindSeen | null {
  const { text } = stationObservation(station, nowIso);
  const read = readReport(text);
  return read.ok ? reportedWind(text, read.report, nowIso) : null;
}

export interface ForecastPart {
  fromIso: string;
  toIso: string;
  kind: 'base' | 'becoming';
  fromDeg: number;
  kt: number;
  gustKt: number | null;
}

/**
 * The newest forecast at or before an instant: nine hours in parts of three, with its TAF text.
 * @returns parts with knots and true degrees
 */
export function stationForecast(
  station: string,
  nowIso: string,
): { text: string; issuedAt: string; parts: ForecastPart[] } {
  const issued = Math.floor(Date.parse(nowIso) / FORECAST_EVERY_MS) * FORECAST_EVERY_MS;
  const start = issued + HOUR_MS;
  const parts = Array.from({ length: 3 }, (_, i): ForecastPart => {
    const from = start + i * 3 * HOUR_MS;
    const a = airAt(station, from + 1.5 * HOUR_MS, true);
    return {
      fromIso: new Date(from).toISOString(),
      toIso: new Date(from + 3 * HOUR_MS).toISOString(),
      kind: i === 0 ? 'base' : 'becoming',
      fromDeg: ((a.fromDeg % 360) + 360) % 360,
      kt: a.kt,
      gustKt: a.gustKt,
    };
  });
  const end = start + 9 * HOUR_MS;
  const groups = parts.map((p, i) =>
    i === 0
      ? `${windGroup(p)} 9999 FEW040`
      : `BECMG ${dayHour(Date.parse(p.fromIso))}/${dayHour(Date.parse(p.fromIso) + HOUR_MS)} ${windGroup(p)}`,
  );
  return {
    issuedAt: new Date(issued).toISOString(),
    parts,
    text: `TAF ${station} ${dayHour(issued)}00Z ${dayHour(start)}/${dayHour(end)} ${groups.join(' ')}`,
  };
}

export interface Outlook {
  fromDeg: number;
  kt: number;
  gustKt: number | null;
  /** 1 within the forecast's hours, less the further ahead. */
  sureness: number;
  kind: 'forecast' | 'outlook';
}
const OUTLOOK_DAYS = 5;
/**
 * Wind for a planned hour: within the hours of the newest forecast what it says, up to five days ahead an outlook that
 * is less sure with each day, null beyond and for the past. An outlook is wrong by more the further ahead it looks, and
 * is issued anew every six hours.
 * @returns knots with their spread, and true degrees
 */
export function stationOutlook(station: string, nowIso: string, atIso: string): Outlook | null {
  const at = Date.parse(atIso);
  const now = Date.parse(nowIso);
  if (at < now - HOUR_MS || at > now + OUTLOOK_DAYS * DAY_MS) return null;
  const part = stationForecast(station, nowIso).parts.find((p) => p.fromIso <= atIso && atIso < p.toIso);
  if (part) return { fromDeg: part.fromDeg, kt: part.kt, gustKt: part.gustKt, sureness: 1, kind: 'forecast' };
  const days = Math.max(0, at - now) / DAY_MS;
  const issue = Math.floor(now / (6 * HOUR_MS));
  const off = (name: string) => 2 * unit(`${station}|${issue}|${Math.floor(at / (3 * HOUR_MS))}|${name}`) - 1;
  const a = airAt(station, at, true);
  const kt = Math.max(0, a.kt + 1.6 * days * off('kt'));
  return {
    fromDeg: (((a.fromDeg + 12 * days * off('dir')) % 360) + 360) % 360,
    kt,
    gustKt: a.gustKt === null ? null : Math.max(kt, a.gustKt + 1.6 * days * off('kt')),
    sureness: Math.max(0.2, 0.9 - 0.14 * days),
    kind: 'outlook',
  };
}
