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
export function readWindFields(f: WindFields, nowIso: string): WindRead {
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
  const at = f.typedAt === '' ? nowIso : timeToday(f.typedAt, nowIso);
  if (at === null)
    return {
      wind: null,
      problem: { path: 'typedAt', message: 'Give the time in UTC as hours and minutes, for example 14:20.' },
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

function timeToday(text: string, nowIso: string): string | null {
  const m = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(text.trim());
  if (!m) return null;
  const today = new Date(`${nowIso.slice(0, 10)}T${m[1] ?? '00'}:${m[2] ?? '00'}:00.000Z`);
  return (
    today.getTime() > Date.parse(nowIso) + 3_600_000 ? new Date(today.getTime() - 86_400_000) : today
  ).toISOString();
}

/** The fields that show a stored wind again. */
export function windToFields(wind: WindSeen | null): WindFields {
  const typed = wind?.source === 'typed';
  return {
    windKind: typed ? 'typed' : 'report',
    report: wind && !typed ? wind.raw : '',
    typedDir: typed ? (wind.variable ? 'VRB' : String(wind.fromDeg ?? '')) : '',
    typedKt: typed ? String(wind.kt) : '',
    typedGust: typed && wind.gustKt !== null ? String(wind.gustKt) : '',
    typedReference: typed ? wind.reference : 'magnetic',
    typedAt: typed ? wind.observedAt.slice(11, 16) : '',
  };
}
