/**
 * IGC flight-recorder files: fixes in B records with the extensions their I record names, and what K records say between
 * them with those their J record names. Heights are pressure (standard setting) and ellipsoid, both metres.
 */
import { norm180, norm360 } from '../../constants';
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

interface Extension {
  from: number;
  to: number;
  code: string;
}
/** What an I or a J record names, each by its first and last byte. */
function extensionsOf(line: string, after: number): Extension[] {
  const out: Extension[] = [];
  for (let i = 3; i + 7 <= line.length; i += 7) {
    const [from, to] = [whole(line, i, i + 2), whole(line, i + 2, i + 4)];
    if (from > after && to >= from) out.push({ from: from - 1, to, code: line.slice(i + 4, i + 7) });
  }
  return out;
}
const clockS = (line: string): number => whole(line, 1, 3) * 3600 + whole(line, 3, 5) * 60 + whole(line, 5, 7);
/** Speeds are written in whole km/h or, five digits wide, in hundredths. */
function valueOf(line: string, e: Extension): number {
  const factor = EXTENSIONS[e.code]?.factor ?? Number.NaN;
  return whole(line, e.from, e.to) * factor * (e.to - e.from >= 5 && e.code !== 'RPM' ? 0.01 : 1);
}

/** K records further apart than this say nothing of what is between them, seconds. */
const SLOW_S = 30;
/** What K records say, drawn between them onto the fixes. */
function slowly(
  said: readonly { s: number; value: number }[],
  atS: Float64Array,
  angle: boolean,
  into: Float64Array,
): void {
  let j = 0;
  for (let i = 0; i < atS.length; i++) {
    const s = atS[i] ?? Number.NaN;
    while (j + 2 < said.length && (said[j + 1]?.s ?? 0) <= s) j++;
    const [a, b] = [said[j], said[j + 1]];
    if (!a || !b || s < a.s || s > b.s || b.s - a.s > SLOW_S || b.s === a.s) continue;
    const w = (s - a.s) / (b.s - a.s);
    into[i] = angle ? norm360(a.value + norm180(b.value - a.value) * w) : a.value + (b.value - a.value) * w;
  }
}

export function readIgc(text: string): ReadResult {
  const lines = text.split(/\r?\n/);
  const warnings = new Warnings();
  let midnightMs = Number.NaN;
  let extensions: Extension[] = [];
  let between: Extension[] = [];
  const slow: { line: string; fix: number }[] = [];
  const fixes: string[] = [];
  let bad = 0;
  for (const line of lines) {
    const kind = line[0];
    if (kind === 'B') {
      if (/^B\d{6}\d{7}[NS]\d{8}[EW][AV]/.test(line) && line.length >= 35) fixes.push(line);
      else bad++;
    } else if (kind === 'I' && /^I\d{2}/.test(line)) {
      extensions = extensionsOf(line, 35);
    } else if (kind === 'J' && /^J\d{2}/.test(line)) {
      between = extensionsOf(line, 7);
    } else if (kind === 'K' && /^K\d{6}/.test(line)) {
      slow.push({ line, fix: fixes.length });
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
    const s = clockS(b);
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
      const x = valueOf(b, e);
      if (!Number.isNaN(x)) (columns[known.channel] ??= nan())[i] = x;
    }
  });
  const fixS = ms.map((x) => x / 1000);
  for (const e of between) {
    const known = EXTENSIONS[e.code];
    // What every fix says is not said again.
    if (!known || columns[known.channel]) continue;
    const said = slow
      .map(({ line, fix }) => {
        // On the day of the fix beside it.
        const near = fixS[Math.min(fix, n - 1)] ?? 0;
        const s = clockS(line);
        return { s: s + Math.round((near - s) / DAY_S) * DAY_S, value: valueOf(line, e) };
      })
      .filter(({ s, value }) => Number.isFinite(s) && Number.isFinite(value))
      .sort((x, y) => x.s - y.s);
    if (said.length < 2) continue;
    slowly(said, fixS, known.factor === 1 && e.code !== 'RPM', (columns[known.channel] = nan()));
  }
  return assemble('igc', ms, columns, absolute, warnings);
}
