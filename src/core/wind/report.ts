import { SpeedUnit, parseMetar } from 'metar-taf-parser';
import type { WindSeen } from '@/domain/brief';
import { norm360 } from '../constants';

export interface ReportProblem {
  path: string;
  group: string | null;
  message: string;
}
export interface SurfaceReport {
  station: string;
  dayOfMonth: number;
  hourUtc: number;
  minuteUtc: number;
  wind: {
    variable: boolean;
    fromDeg: number | null;
    kt: number;
    gustKt: number | null;
    arcFromDeg: number | null;
    arcToDeg: number | null;
  };
  temperatureC: number | null;
  dewPointC: number | null;
  /** Null = the report has none: shown as missing. */
  qnhHpa: number | null;
}
export type ReportResult = { ok: true; report: SurfaceReport } | { ok: false; problems: ReportProblem[] };

const WIND = /^(\d{3}|VRB|\/\/\/)(P?\d{2,3}|\/\/)(?:G(P?\d{2,3}))?(KT|MPS|KMH)$/;
const ARC = /^(\d{3})V(\d{3})$/;
const TIME = /^(\d{2})(\d{2})(\d{2})Z$/;

/** Groups that carry nothing Jeito uses, or that the parser reads: all that may stand before RMK. */
const KNOWN_GROUPS: RegExp[] = [
  /^(METAR|SPECI|AUTO|COR|NIL|CAVOK|NSC|NCD|SKC|CLR|NOSIG|BECMG|TEMPO)$/,
  /^(FM|TL|AT)\d{4}$/,
  /^\d{4}(NDV|[NESW]{1,2})?$/,
  /^(M|P)?\d{1,2}(\/\d{1,2})?SM$/,
  /^\d{1,2}$/,
  /^R\d{2}[LCR]?\/.+$/,
  /^(FEW|SCT|BKN|OVC|VV)(\d{3}|\/\/\/)(CB|TCU|\/\/\/)?$/,
  /^\/{2,}(CB|TCU)?$/,
  /^(\+|-|VC|RE)?(MI|BC|PR|DR|BL|SH|TS|FZ)?(DZ|RA|SN|SG|PL|GR|GS|UP|BR|FG|FU|VA|DU|SA|HZ|PO|SQ|FC|SS|DS|IC){1,3}$/,
  /^(\+|-|VC|RE)?(TS|SH)$/,
  /^M?\d{2}\/(M?\d{2}|\/\/)?$/,
  /^\/\/\/\/\/$/,
  /^[QA](\d{4}|\/\/\/\/)$/,
  /^WS$/,
  /^(ALL|RWY|R\d{2}[LCR]?)$/,
  /^W(M?\d{2}|\/\/)\/(S\d|H\d+)$/,
];

/**
 * Reads a METAR or SPECI. Every group before RMK must be known; the first that is not is named.
 * @param text the report as issued; lower case, line breaks and a closing `=` are accepted
 * @returns directions in true degrees, speeds in knots; a missing QNH or temperature is null, a missing wind is a
 * problem
 */
export function readReport(text: string): ReportResult {
  const fail = (message: string, group: string | null = null): ReportResult => ({
    ok: false,
    problems: [{ path: 'report', group, message }],
  });
  const tokens = text
    .toUpperCase()
    .replace(/[=$]\s*$/, '')
    .trim()
    .split(/\s+/)
    .filter(Boolean);
  if (tokens.length === 0) return fail('Paste a report, for example: METAR ZPAV 241420Z 26011G17KT CAVOK 18/07 Q1016');
  const remark = tokens.indexOf('RMK');
  const groups = (remark >= 0 ? tokens.slice(0, remark) : tokens).filter(
    (t) => t !== 'METAR' && t !== 'SPECI' && t !== 'COR',
  );
  const [station = '', time = '', ...rest] = groups;
  if (!/^[A-Z][A-Z0-9]{3}$/.test(station))
    return fail(
      `"${station}" is not a four-letter station. A report starts with the station, then the time, for example ZPAV 241420Z.`,
      station,
    );
  const when = TIME.exec(time);
  const day = Number(when?.[1]);
  const hour = Number(when?.[2]);
  const minute = Number(when?.[3]);
  if (!when || day < 1 || day > 31 || hour > 23 || minute > 59)
    return fail(
      `"${time || '(nothing)'}" is not a time. Write day, hour and minute in UTC, for example 241420Z.`,
      time,
    );

  const trend = rest.findIndex((t) => t === 'BECMG' || t === 'TEMPO' || t === 'NOSIG');
  const body = trend >= 0 ? rest.slice(0, trend) : rest;
  let wind = null as SurfaceReport['wind'] | null;
  for (const group of body) {
    const asWind = WIND.exec(group);
    const asArc = ARC.exec(group);
    if (asWind) {
      const read = readWindGroup(group, asWind);
      if (typeof read === 'string') return fail(read, group);
      wind = read;
    } else if (asArc) {
      const [from, to] = [Number(asArc[1]), Number(asArc[2])];
      if (from > 360 || to > 360 || !wind) return fail(`"${group}" is not a direction range after a wind.`, group);
      wind = { ...wind, arcFromDeg: norm360(from), arcToDeg: norm360(to) };
    } else if (!KNOWN_GROUPS.some((k) => k.test(group))) {
      return fail(`The group "${group}" cannot be read. Check it against the original, or remove it.`, group);
    }
  }
  if (!wind) return fail('No wind group found. It looks like 26011G17KT.', null);

  let parsed;
  try {
    parsed = parseMetar([station, time, ...body].join(' '));
  } catch {
    return fail('The report cannot be read as a METAR. Check it against the original.', null);
  }
  const qnhGroup = body.find((g) => /^[QA]\d{4}$/.test(g));
  const temperature = body.find((g) => /^M?\d{2}\/(M?\d{2}|\/\/)?$/.test(g));
  const qnhHpa =
    qnhGroup === undefined
      ? null
      : qnhGroup.startsWith('Q')
        ? Number(qnhGroup.slice(1))
        : (Number(qnhGroup.slice(1)) / 100) * 33.8639;
  if (qnhHpa !== null && (qnhHpa < 870 || qnhHpa > 1085))
    return fail(`"${qnhGroup ?? ''}" is not a plausible altimeter setting.`, qnhGroup ?? null);
  if (
    parsed.wind?.unit &&
    ![SpeedUnit.Knot, SpeedUnit.MetersPerSecond, SpeedUnit.KilometersPerHour].includes(parsed.wind.unit)
  )
    return fail('The unit of the wind is not known.', null);
  return {
    ok: true,
    report: {
      station,
      dayOfMonth: day,
      hourUtc: hour,
      minuteUtc: minute,
      wind,
      temperatureC: temperature === undefined ? null : (parsed.temperature ?? null),
      dewPointC: temperature === undefined ? null : (parsed.dewPoint ?? null),
      qnhHpa,
    },
  };
}

const TO_KT: Record<string, number> = { KT: 1, MPS: 1 / 0.514444, KMH: 1 / 1.852 };

function readWindGroup(group: string, parts: RegExpExecArray): SurfaceReport['wind'] | string {
  const [, dir = '', speed = '', gust, unit = 'KT'] = parts;
  if (dir === '///' || speed === '//')
    return `"${group}" says the wind was not measured. Type the wind you see instead.`;
  const number = (text: string) => Number(text.replace('P', ''));
  const factor = TO_KT[unit] ?? 1;
  const kt = number(speed) * factor;
  const gustKt = gust === undefined ? null : number(gust) * factor;
  if (gustKt !== null && gustKt <= kt) return `In "${group}" the gust is not above the mean wind.`;
  if (dir === 'VRB') return { variable: true, fromDeg: null, kt, gustKt, arcFromDeg: null, arcToDeg: null };
  const deg = Number(dir);
  if (deg > 360) return `"${group}" has a direction of ${deg}. Directions run from 000 to 360.`;
  if (deg % 10 !== 0) return `"${group}" has a direction of ${dir}. Reports give tens of degrees.`;
  return { variable: false, fromDeg: norm360(deg), kt, gustKt, arcFromDeg: null, arcToDeg: null };
}

/**
 * The instant of a report: the latest date with its day of month that is not after `nowIso` (two hours of clock error
 * allowed).
 * @returns ISO instant, or null when no such day lies in the last two months
 */
export function reportInstant(
  report: Pick<SurfaceReport, 'dayOfMonth' | 'hourUtc' | 'minuteUtc'>,
  nowIso: string,
): string | null {
  const now = new Date(nowIso);
  for (let back = 0; back < 3; back++) {
    const candidate = new Date(
      Date.UTC(now.getUTCFullYear(), now.getUTCMonth() - back, report.dayOfMonth, report.hourUtc, report.minuteUtc),
    );
    if (candidate.getUTCDate() === report.dayOfMonth && candidate.getTime() <= now.getTime() + 2 * 3_600_000)
      return candidate.toISOString();
  }
  return null;
}

/** Minutes between an observation and now; negative when it lies ahead. */
export const ageMinutes = (observedAt: string, nowIso: string): number =>
  (Date.parse(nowIso) - Date.parse(observedAt)) / 60_000;

/** A report as a wind for the brief; directions true. Null when its time cannot be placed. */
export function reportedWind(raw: string, report: SurfaceReport, nowIso: string): WindSeen | null {
  const observedAt = reportInstant(report, nowIso);
  return observedAt === null
    ? null
    : { source: 'report', raw: raw.trim(), reference: 'true', ...report.wind, observedAt };
}
