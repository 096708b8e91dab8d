import type { WindSeen } from '@/domain/brief';
import { norm360 } from '../constants';
import { type ReportWrong, reportWrong } from './report-words';

export interface ReportProblem {
  path: string;
  /** The group it is about; null = the whole report. */
  group: string | null;
  why: ReportWrong;
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
  /** What is expected to change, as issued, never mixed with what was observed; null = the report says nothing of it. */
  trend: Trend | null;
}
export interface Trend {
  text: string;
  /** Groups of it that are none of a trend: shown as not read. */
  unread: string[];
}
export type ReportResult = { ok: true; report: SurfaceReport } | { ok: false; problems: ReportProblem[] };

const WIND = /^(\d{3}|VRB|\/\/\/)(P?\d{2,3}|\/\/)(?:G(P?\d{2,3}|\/\/))?(KT|MPS|KMH)$/;
const ARC = /^(\d{3})V(\d{3})$/;
const TIME = /^(\d{2})(\d{2})(\d{2})Z$/;
const QNH = /^(?:Q|A|QNH)(\d{4})(?:INS)?$/;
const TEMPERATURE = /^(M?\d{2}|XX|\/\/)\/(M?\d{2}|XX|\/\/)?$/;
/** From here on a report speaks of what is expected, not of what was seen. */
const TREND_BEGINS = /^(NOSIG|BECMG|TEMPO|INTER|(?:FM|TL|AT)\d{4,6}|PROB\d{2})$/;
/** Words of the head that say how the report came about. */
const KIND = /^(METAR|SPECI|COR|CC[A-Z]|AUTO)$/;

const WEATHER =
  /^(\+|-|VC|RE)?(MI|BC|PR|DR|BL|SH|TS|FZ)?(DZ|RA|SN|SG|PL|GR|GS|UP|BR|FG|FU|VA|DU|SA|HZ|PO|SQ|FC|SS|DS|IC){1,3}$/;
const COLOUR = '(?:BLU|WHT|GRN|YLO[12]?|AMB|RED)';
/** Visibility, weather, cloud and the like: what an observation and a trend share, of no use to a crosswind. */
const SKY: RegExp[] = [
  /^(CAVOK|NSC|NCD|SKC|CLR|NSW)$/,
  /^\d{4}(NDV|[NESW]{1,2})?$/,
  /^\/{4}(SM|NDV)?$/,
  /^(M|P)?\d{1,2}(\/\d{1,2})?SM$/,
  /^P?\d{1,2}KM$/,
  /^(FEW|SCT|BKN|OVC|VV)(\d{3}|\/\/\/)(CB|TCU|\/\/\/)?$/,
  /^\/{3}(\d{3})(CB|TCU|\/\/\/)?$/,
  /^\/{2,9}(CB|TCU)?$/,
  WEATHER,
  /^(\+|-|VC|RE)?(TS|SH)$/,
  new RegExp(`^(BLACK)?${COLOUR}?(/${COLOUR})?$`),
];
/** Only in an observation. */
const OBSERVED: RegExp[] = [
  /^R\d{2}[LCR]?\/.+$/,
  /^(R\/)?SNOCLO$/,
  /^[QA]\/{4}$/,
  /^W(M?\d{2}|\/\/)\/(S[\d/]|H\d+|H\/+)$/,
];
/** Only in a trend. */
const EXPECTED: RegExp[] = [/^(NOSIG|BECMG|TEMPO|INTER)$/, /^(FM|TL|AT)\d{4,6}$/, /^PROB\d{2}$/, /^\d{4}\/\d{4}$/];

const some = (of: readonly RegExp[], group: string): boolean => group !== '' && of.some((k) => k.test(group));

/**
 * Reads a METAR or SPECI as issued anywhere: every group before the trend and the remarks must be known; the first that
 * is not is named. What is expected (BECMG, TEMPO, FM, TL, AT, PROB, NOSIG) is kept apart and never changes the wind
 * that was observed.
 * Source: METAR and TAF (ICAO Annex 3), read by the metar-taf-parser package.
 * @param text the report as issued; lower case, line breaks and a closing `=` are accepted
 * @returns directions in true degrees, speeds in knots; a missing QNH or temperature is null; a missing wind, a second
 * one, and a calm written otherwise than 00000 are problems
 * @example readReport('METAR ZPAV 241420Z 26011G17KT CAVOK 18/07 Q1016 BECMG 24020KT') // wind 260/11 G17
 */
export function readReport(text: string): ReportResult {
  const fail = (why: ReportWrong, group: string | null = null): ReportResult => ({
    ok: false,
    problems: [{ path: 'report', group, why }],
  });
  const tokens = text
    .toUpperCase()
    .replace(/[=$\s]+$/, '')
    .trim()
    .split(/\s+/)
    .filter(Boolean);
  if (tokens.length === 0) return fail(reportWrong('nothing'));
  const remark = tokens.indexOf('RMK');
  const groups = remark >= 0 ? tokens.slice(0, remark) : tokens;
  while (groups[0] !== undefined && KIND.test(groups[0])) groups.shift();
  const [station = '', time = '', ...rest] = groups;
  if (!/^[A-Z][A-Z0-9]{3}$/.test(station)) return fail(reportWrong('station', { group: station }), station);
  const when = TIME.exec(time);
  const day = Number(when?.[1]);
  const hour = Number(when?.[2]);
  const minute = Number(when?.[3]);
  if (!when || day < 1 || day > 31 || hour > 23 || minute > 59) return fail(reportWrong('time', { group: time }), time);
  if (rest.includes('NIL')) return fail(reportWrong('nil'), 'NIL');

  const begins = rest.findIndex((t) => TREND_BEGINS.test(t));
  const body = begins >= 0 ? rest.slice(0, begins) : rest;
  let wind = null as SurfaceReport['wind'] | null;
  let qnhHpa: number | null = null;
  let air: RegExpExecArray | null = null;
  for (const [i, group] of body.entries()) {
    const asWind = WIND.exec(group);
    const asArc = ARC.exec(group);
    const asQnh = QNH.exec(group);
    const asAir = TEMPERATURE.exec(group);
    if (asWind) {
      if (wind !== null) return fail(reportWrong('second-wind', { group }), group);
      const read = readWindGroup(group, asWind);
      if ('code' in read) return fail(read, group);
      wind = read;
    } else if (asArc) {
      const [from, to] = [Number(asArc[1]), Number(asArc[2])];
      if (from > 360 || to > 360 || !wind || !WIND.test(body[i - 1] ?? ''))
        return fail(reportWrong('arc', { group }), group);
      wind = { ...wind, arcFromDeg: norm360(from), arcToDeg: norm360(to) };
    } else if (asQnh) {
      const hpa = Number(asQnh[1]) * (group.startsWith('Q') && !group.endsWith('INS') ? 1 : 0.338639);
      if (hpa < 870 || hpa > 1085) return fail(reportWrong('altimeter', { group }), group);
      if (qnhHpa !== null && Math.abs(qnhHpa - hpa) > 2) return fail(reportWrong('second-altimeter', { group }), group);
      qnhHpa ??= hpa;
    } else if (asAir && /[\dX]|^\/{5}$/.test(group)) {
      if (air !== null) return fail(reportWrong('second-temperature', { group }), group);
      air = asAir;
    } else if (!KIND.test(group) && !some(SKY, group) && !some(OBSERVED, group) && !partOfTwo(body, i)) {
      return fail(reportWrong('unread', { group }), group);
    }
  }
  if (!wind) return fail(reportWrong('no-wind'));
  const expected = begins >= 0 ? rest.slice(begins) : [];
  return {
    ok: true,
    report: {
      station,
      dayOfMonth: day,
      hourUtc: hour,
      minuteUtc: minute,
      wind,
      temperatureC: degrees(air?.[1]),
      dewPointC: degrees(air?.[2]),
      qnhHpa,
      trend:
        expected.length === 0
          ? null
          : {
              text: expected.join(' '),
              unread: expected.filter(
                (g, i) => !some(EXPECTED, g) && !some(SKY, g) && !partOfTwo(expected, i) && !isWind(g),
              ),
            },
    },
  };
}

/** A wind group that can be read. */
function isWind(group: string): boolean {
  const parts = WIND.exec(group);
  return parts !== null && !('code' in readWindGroup(group, parts));
}

/** Groups that only stand beside others: 1 1/2SM, WS RWY22, WS ALL RWY, WS TKOF RWY04. */
function partOfTwo(groups: readonly string[], i: number): boolean {
  const [group = '', next = ''] = [groups[i], groups[i + 1]];
  if (/^\d{1,2}$/.test(group)) return /^\d\/\d{1,2}SM$/.test(next);
  if (group === 'WS') return /^(ALL|RWY|TKOF|LDG|(RWY|R)\d{2}[LCR]?)/.test(next);
  return /^(ALL|RWY|TKOF|LDG|(RWY|R)\d{2}[LCR]?)$/.test(group) && groups.slice(Math.max(0, i - 3), i).includes('WS');
}

/** `M05` is -5; null where it was not measured. */
const degrees = (text: string | undefined): number | null =>
  text === undefined || !/\d/.test(text) ? null : Number(text.replace('M', '-')) + 0;

const TO_KT: Record<string, number> = { KT: 1, MPS: 1 / 0.514444, KMH: 1 / 1.852 };

function readWindGroup(group: string, parts: RegExpExecArray): SurfaceReport['wind'] | ReportWrong {
  const [, dir = '', speed = '', gust, unit = 'KT'] = parts;
  if (dir === '///' || speed === '//' || gust === '//') return reportWrong('wind-not-measured', { group });
  const number = (text: string) => Number(text.replace('P', ''));
  const factor = TO_KT[unit] ?? 1;
  const kt = number(speed) * factor;
  const gustKt = gust === undefined ? null : number(gust) * factor;
  if (kt === 0 || dir === '000')
    return kt === 0 && dir === '000' && gustKt === null
      ? { variable: false, fromDeg: 360, kt: 0, gustKt: null, arcFromDeg: null, arcToDeg: null }
      : reportWrong('calm', { group, unit });
  if (gustKt !== null && gustKt <= kt) return reportWrong('gust', { group });
  if (dir === 'VRB') return { variable: true, fromDeg: null, kt, gustKt, arcFromDeg: null, arcToDeg: null };
  const deg = Number(dir);
  if (deg > 360) return reportWrong('direction', { group, deg });
  if (deg % 10 !== 0) return reportWrong('tens', { group, dir });
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

/**
 * Minutes between an observation and now; negative when it lies ahead.
 * @returns min
 * @example ageMinutes('2026-11-24T14:20:00.000Z', '2026-11-24T14:30:00Z') // 10
 */
export const ageMinutes = (observedAt: string, nowIso: string): number =>
  (Date.parse(nowIso) - Date.parse(observedAt)) / 60_000;

/**
 * A report as a wind for the brief; directions true. Null when its time cannot be placed.
 * @returns knots and true degrees
 */
export function reportedWind(raw: string, report: SurfaceReport, nowIso: string): WindSeen | null {
  const observedAt = reportInstant(report, nowIso);
  return observedAt === null
    ? null
    : { source: 'report', raw: raw.trim(), reference: 'true', ...report.wind, observedAt };
}
