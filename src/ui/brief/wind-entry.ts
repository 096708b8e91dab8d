import { localTime } from '@/core/format';
import { readReport, reportWords, reportedWind } from '@/core/wind';
import type { WindSeen } from '@/domain/brief';

export interface WindFields {
  windKind: 'report' | 'typed';
  report: string;
  typedDir: string;
  typedKt: string;
  typedGust: string;
  typedReference: 'magnetic' | 'true';
  typedAt: string;
}
export interface WindProblem {
  path: keyof WindFields;
  message: string;
}
export type WindRead = { wind: WindSeen | null; problem: WindProblem | null };

/**
 * Reads the wind fields of the brief: a pasted report (true), or what was heard or seen (magnetic unless said
 * otherwise).
 */
export function readWindFields(f: WindFields, nowIso: string, timeZone: string): WindRead {
  if (f.windKind === 'report') {
    if (f.report.trim() === '') return { wind: null, problem: null };
    const read = readReport(f.report);
    if (!read.ok) {
      const why = read.problems[0]?.why;
      return {
        wind: null,
        problem: { path: 'report', message: why ? reportWords(why) : 'The report cannot be read.' },
      };
    }
    const wind = reportedWind(f.report, read.report, nowIso);
    return wind
      ? { wind, problem: null }
      : {
          wind: null,
          problem: {
            path: 'report',
            message: 'The day of this report does not fit the calendar of the last months. Check its time group.',
          },
        };
  }
  if (f.typedDir.trim() === '' && f.typedKt.trim() === '') return { wind: null, problem: null };
  const whole = (text: string) => (/^\d{1,3}$/.test(text.trim()) ? Number(text.trim()) : null);
  const variable = /^vrb$/i.test(f.typedDir.trim());
  const dir = whole(f.typedDir);
  const kt = whole(f.typedKt);
  const gust = f.typedGust.trim() === '' ? null : whole(f.typedGust);
  if (!variable && (dir === null || dir > 360))
    return { wind: null, problem: { path: 'typedDir', message: 'Give degrees from 0 to 360, or VRB.' } };
  if (kt === null || kt > 99)
    return { wind: null, problem: { path: 'typedKt', message: 'Give whole knots from 0 to 99.' } };
  if (f.typedGust.trim() !== '' && (gust === null || gust <= kt))
    return {
      wind: null,
      problem: {
        path: 'typedGust',
        message: 'The gust is above the mean, in whole knots; leave it empty when there is none.',
      },
    };
  const at = f.typedAt === '' ? nowIso : timeToday(f.typedAt, nowIso, timeZone);
  if (at === null)
    return {
      wind: null,
      problem: { path: 'typedAt', message: 'Give the local time as hours and minutes, for example 14:20.' },
    };
  return {
    wind: {
      source: 'typed',
      raw: `${f.typedDir.trim()}/${f.typedKt.trim()}${gust === null ? '' : ` G${gust}`} ${f.typedReference}`,
      reference: f.typedReference,
      variable,
      fromDeg: variable ? null : dir === 0 ? 360 : dir,
      kt,
      gustKt: gust,
      arcFromDeg: null,
      arcToDeg: null,
      observedAt: at,
    },
    problem: null,
  };
}

/** The last time the aerodrome's clock showed this, or will within the hour. */
function timeToday(text: string, nowIso: string, timeZone: string): string | null {
  const m = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(text.trim());
  if (!m) return null;
  const now = Math.floor(Date.parse(nowIso) / MIN_MS) * MIN_MS;
  const wanted = Number(m[1]) * 60 + Number(m[2]);
  const behind = (at: number) => {
    const [h, min] = localTime(new Date(at).toISOString(), timeZone).split(':').map(Number) as [number, number];
    return (h * 60 + min - wanted + DAY_MIN) % DAY_MIN;
  };
  const back = behind(now);
  const at = now - (back >= DAY_MIN - 60 ? back - DAY_MIN : back) * MIN_MS;
  // Where the clocks went on or back in between it shows something else there: as much again.
  const off = behind(at);
  return new Date(at - (off > DAY_MIN / 2 ? off - DAY_MIN : off) * MIN_MS).toISOString();
}
const MIN_MS = 60_000;
const DAY_MIN = 1440;

/** The fields that show a stored wind again, its time on the clock of the aerodrome. */
export function windToFields(wind: WindSeen | null, timeZone: string): WindFields {
  const typed = wind?.source === 'typed';
  return {
    windKind: typed ? 'typed' : 'report',
    report: wind && !typed ? wind.raw : '',
    typedDir: typed ? (wind.variable ? 'VRB' : String(wind.fromDeg ?? '')) : '',
    typedKt: typed ? String(wind.kt) : '',
    typedGust: typed && wind.gustKt !== null ? String(wind.gustKt) : '',
    typedReference: typed ? wind.reference : 'magnetic',
    typedAt: typed ? localTime(wind.observedAt, timeZone) : '',
  };
}
