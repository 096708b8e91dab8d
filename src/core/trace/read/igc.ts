/**
 * IGC flight-recorder files: fixes in B records with the extensions their I record names. Heights are pressure
 * (standard setting) and ellipsoid, both metres.
 */
import { type Channel, type ReadResult, Warnings, assemble, problem } from './trace';
import { odd, unreadable } from '../read-words';

const DAY_S = 86_400;
const M_TO_FT = 1 / 0.3048;
/** Three-letter codes and what they hold; speeds in km/h, hundredths where the record says so. */
const EXTENSIONS: Record<string, { channel: Channel; factor: number }> = {
  IAS: { channel: 'ias', factor: 1 / 1.852 },
  TAS: { channel: 'tas', factor: 1 / 1.852 },
  GSP: { channel: 'gs', factor: 1 / 1.852 },
  TRT: { channel: 'track', factor: 1 },
  HDT: { channel: 'headingTrue', factor: 1 },
  HDM: { channel: 'headingMag', factor: 1 },
  RPM: { channel: 'rpm', factor: 1 },
};

const whole = (line: string, from: number, to: number): number => {
  const t = line.slice(from, to);
  return /^-?\d+$/.test(t) ? Number(t) : Number.NaN;
};

export function readIgc(text: string): ReadResult {
  const lines = text.split(/\r?\n/);
  const warnings = new Warnings();
  let midnightMs = Number.NaN;
  const extensions: { from: number; to: number; code: string }[] = [];
  const fixes: string[] = [];
  let bad = 0;
  for (const line of lines) {
    const kind = line[0];
    if (kind === 'B') {
      if (/^B\d{6}\d{7}[NS]\d{8}[EW][AV]/.test(line) && line.length >= 35) fixes.push(line);
      else bad++;
    } else if (kind === 'I' && /^I\d{2}/.test(line)) {
      for (let i = 3; i + 7 <= line.length; i += 7) {
        const [from, to] = [whole(line, i, i + 2), whole(line, i + 2, i + 4)];
        if (from > 35 && to >= from) extensions.push({ from: from - 1, to, code: line.slice(i + 4, i + 7) });
      }
    } else if (/^HFDTE/.test(line)) {
      const d = /(\d{2})(\d{2})(\d{2})/.exec(line);
      if (d)
        midnightMs = Date.UTC(2000 + Number(d[3]) - (Number(d[3]) >= 80 ? 100 : 0), Number(d[2]) - 1, Number(d[1]));
    }
  }
  if (fixes.length === 0)
    return bad > 0 ? problem('not-a-trace', unreadable('fixes-unreadable')) : problem('empty', unreadable('no-fixes'));
  if (bad > 0) warnings.add(odd('record-broken'), bad);
  const n = fixes.length;
  const nan = () => new Float64Array(n).fill(Number.NaN);
  const ms = nan();
  const columns: Partial<Record<Channel, Float64Array>> = {
    lat: nan(),
    lon: nan(),
    altPressure: nan(),
    altEllipsoid: nan(),
  };
  const absolute = Number.isFinite(midnightMs);
  if (!absolute) warnings.add(odd('date-missing'));
  let days = 0;
  let before = -1;
  fixes.forEach((b, i) => {
    const s = whole(b, 1, 3) * 3600 + whole(b, 3, 5) * 60 + whole(b, 5, 7);
    if (s < before - DAY_S / 2) {
      days++;
      warnings.add(odd('midnight'));
    }
    before = s;
    const tenths = extensions.find((e) => e.code === 'TDS');
    const part = tenths ? whole(b, tenths.from, tenths.to) / 10 ** (tenths.to - tenths.from) : 0;
    ms[i] = (absolute ? midnightMs : 0) + (s + days * DAY_S + (Number.isNaN(part) ? 0 : part)) * 1000;
    const minutes = (from: number, degrees: number) =>
      whole(b, from, from + degrees) + whole(b, from + degrees, from + degrees + 5) / 60_000;
    // More decimals of the minute than the three the record has room for.
    const more = (code: string): number => {
      const e = extensions.find((x) => x.code === code);
      const x = e ? whole(b, e.from, e.to) : Number.NaN;
      return e && !Number.isNaN(x) ? x / 10 ** (e.to - e.from) / 60_000 : 0;
    };
    (columns.lat as Float64Array)[i] = (minutes(7, 2) + more('LAD')) * (b[14] === 'S' ? -1 : 1);
    (columns.lon as Float64Array)[i] = (minutes(15, 3) + more('LOD')) * (b[23] === 'W' ? -1 : 1);
    (columns.altPressure as Float64Array)[i] = whole(b, 25, 30) * M_TO_FT;
    // V: a two-dimensional fix, its height is no height.
    if (b[24] === 'A') (columns.altEllipsoid as Float64Array)[i] = whole(b, 30, 35) * M_TO_FT;
    for (const e of extensions) {
      const known = EXTENSIONS[e.code];
      if (!known) continue;
      const x = whole(b, e.from, e.to);
      // Speeds are written in whole km/h or, five digits wide, in hundredths.
      if (!Number.isNaN(x))
        (columns[known.channel] ??= nan())[i] = x * known.factor * (e.to - e.from >= 5 && e.code !== 'RPM' ? 0.01 : 1);
    }
  });
  return assemble('igc', ms, columns, absolute, warnings);
}
