/**
 * Tables of any sane shape: comma, semicolon or tab; decimal point or comma; comments before the header; a units row;
 * quotes. One pass over the text.
 */
import { type Role, type TimeRole, conversion, looksLikeUnit, roleOf, splitHeader } from './columns';
import { clockMs, dateMs, instant, offsetMin, unwrapDays } from './time';
import { type Channel, type ReadResult, Warnings, assemble, problem } from './trace';
import { odd, unreadable } from '../read-words';

/** What somebody has said of columns that the header does not tell: header as written, to its role. */
export type ColumnMapping = Record<string, { channel: Channel | `time:${TimeRole}`; unit: string | null }>;
const HEADER_WITHIN = 60;
const NL = 10;
const CR = 13;

/** Cells of one line; quotes may hold the separator. */
function cells(line: string, separator: string): string[] {
  if (!line.includes('"')) return line.split(separator);
  const out: string[] = [];
  let at = '';
  let quoted = false;
  for (let i = 0; i < line.length; i++) {
    const c = line[i] ?? '';
    if (quoted && c === '"' && line[i + 1] === '"') {
      at += '"';
      i++;
    } else if (c === '"') quoted = !quoted;
    else if (c === separator && !quoted) {
      out.push(at);
      at = '';
    } else at += c;
  }
  return [...out, at];
}

export interface HeaderFound {
  separator: string;
  headers: string[];
  units: string[] | null;
  /** Index in the text of the first row of values. */
  dataAt: number;
  roles: (Role | null)[];
  decimalComma: boolean;
}

function mapped(header: string, mapping: ColumnMapping | null): Role | null {
  const said = mapping?.[header.trim()];
  if (!said) return null;
  return said.channel.startsWith('time:')
    ? { time: said.channel.slice(5) as TimeRole }
    : { channel: said.channel as Channel, unit: said.unit };
}

/**
 * The header: the line among the first sixty whose cells are known best. Null when no line has two known cells.
 * @returns where the header stands, its cells with what each is, and the separator
 */
export function findHeader(text: string, mapping: ColumnMapping | null = null): HeaderFound | null {
  let best: (HeaderFound & { score: number }) | null = null;
  let from = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  for (let n = 0; n < HEADER_WITHIN && from < text.length; n++) {
    const end = text.indexOf('\n', from);
    const line = text.slice(from, end < 0 ? text.length : end).replace(/\r$/, '');
    const next = end < 0 ? text.length : end + 1;
    for (const separator of [',', ';', '\t']) {
      const headers = cells(line.replace(/^#+\s*/, ''), separator);
      if (headers.length < 3) continue;
      const roles = headers.map((h) => mapped(h, mapping) ?? roleOf(h, null));
      const score = roles.filter((r) => r !== null).length;
      if (score >= 2 && score > (best?.score ?? 0))
        best = { separator, headers, units: null, dataAt: next, roles, decimalComma: false, score };
    }
    from = next;
  }
  if (!best) return null;
  // A units row may stand below the header, or above it.
  const end = text.indexOf('\n', best.dataAt);
  const below = cells(
    text
      .slice(best.dataAt, end < 0 ? text.length : end)
      .replace(/\r$/, '')
      .replace(/^#+\s*/, ''),
    best.separator,
  );
  if (below.length > 1 && below.every(looksLikeUnit) && below.some((c) => c.trim() !== '')) {
    best.units = below;
    best.dataAt = end < 0 ? text.length : end + 1;
  } else {
    const headerEnd = best.dataAt - 1;
    const headerStart = text.lastIndexOf('\n', headerEnd - 1) + 1;
    const aboveStart = headerStart > 0 ? text.lastIndexOf('\n', headerStart - 2) + 1 : 0;
    const above =
      headerStart > 0
        ? cells(
            text
              .slice(aboveStart, headerStart - 1)
              .replace(/\r$/, '')
              .replace(/^#+\s*/, ''),
            best.separator,
          )
        : [];
    if (above.length === best.headers.length && above.every(looksLikeUnit) && above.some((c) => c.trim() !== ''))
      best.units = above;
  }
  const { units } = best;
  best.roles = best.headers.map((h, i) => mapped(h, mapping) ?? roleOf(h, units?.[i] ?? null));
  if (best.separator !== ',')
    best.decimalComma = /(^|[;\t])\s*-?\d+,\d+\s*([;\t]|$)/m.test(text.slice(best.dataAt, best.dataAt + 4000));
  return best;
}

interface Plan {
  index: number;
  channel: Channel;
  factor: number;
  offset: number;
  words: boolean;
}

/**
 * Which file columns feed which channel; of several that feed one, cylinder temperatures take the hottest and others
 * the first.
 */
function plan(
  header: HeaderFound,
  warnings: Warnings,
): { values: Plan[]; times: Map<TimeRole, number>; unknown: string[] } {
  const values: Plan[] = [];
  const times = new Map<TimeRole, number>();
  const unknown: string[] = [];
  header.roles.forEach((role, index) => {
    if (!role) {
      if ((header.headers[index] ?? '').trim() !== '') unknown.push((header.headers[index] ?? '').trim());
      return;
    }
    if ('time' in role) {
      if (!times.has(role.time)) times.set(role.time, index);
      return;
    }
    if (role.channel !== 'cht' && role.channel !== 'egt' && values.some((v) => v.channel === role.channel)) return;
    const c = conversion(role.channel, role.unit);
    if (!c.known && ASSUMED[role.channel])
      warnings.add(
        odd('unit-assumed', {
          channel: role.channel,
          column: splitHeader(header.headers[index] ?? '').words || role.channel,
          unit: ASSUMED[role.channel] ?? '',
        }),
      );
    if (role.channel === 'headingMag' && !/mag/i.test(header.headers[index] ?? '') && role.unit !== 'degm')
      warnings.add(odd('heading-assumed-magnetic'));
    values.push({ index, channel: role.channel, factor: c.factor, offset: c.offset, words: role.channel === 'gear' });
  });
  return { values, times, unknown };
}
const ASSUMED: Partial<Record<Channel, string>> = {
  altGps: 'feet',
  altPressure: 'feet',
  altMsl: 'feet',
  altEllipsoid: 'feet',
  ias: 'knots',
  tas: 'knots',
  gs: 'knots',
  vs: 'feet a minute',
  cht: 'degrees Celsius',
  map: 'inches of mercury',
};

/** A number in a cell of the text, without making a string of it; NaN when there is none. */
function numberIn(text: string, from: number, to: number, decimalComma: boolean): number {
  let i = from;
  while (i < to && (text.charCodeAt(i) === 32 || text.charCodeAt(i) === 34)) i++;
  let sign = 1;
  if (text.charCodeAt(i) === 45) {
    sign = -1;
    i++;
  } else if (text.charCodeAt(i) === 43) i++;
  let whole = 0;
  let digits = 0;
  let scale = 0;
  for (; i < to; i++) {
    const c = text.charCodeAt(i);
    if (c >= 48 && c <= 57) {
      whole = whole * 10 + (c - 48);
      digits++;
      if (scale > 0) scale *= 10;
    } else if ((c === 46 || (decimalComma && c === 44)) && scale === 0) scale = 1;
    else if (c === 32 || c === 34 || c === 13) break;
    // Exponents and words: the slow way decides.
    else
      return digits > 0 && (c === 101 || c === 69)
        ? Number(text.slice(from, to).trim().replace(/"/g, '').replace(',', '.'))
        : Number.NaN;
  }
  if (digits === 0) return Number.NaN;
  // Beyond 15 digits the sum is no longer exact: let the engine read it.
  if (digits > 15) return Number(text.slice(from, to).trim().replace(/"/g, '').replace(',', '.'));
  return (sign * whole) / (scale > 0 ? scale : 1);
}

/**
 * Reads a table into a trace. Rows with too few cells are counted and left out.
 * @param mapping what was said of columns by hand; it wins over the header's words
 */
export function readCsv(
  text: string,
  mapping: ColumnMapping | null = null,
  progress: (share: number) => void = () => undefined,
): ReadResult {
  const header = findHeader(text, mapping);
  if (!header) return problem('not-a-trace', unreadable('no-header'));
  const warnings = new Warnings();
  const { values, times, unknown } = plan(header, warnings);
  if (!values.some((v) => v.channel === 'lat') || !values.some((v) => v.channel === 'lon'))
    return problem('columns', unreadable('position-columns'), header.headers);
  if (times.size === 0) return problem('columns', unreadable('time-column'), header.headers);
  if (unknown.length > 0) warnings.add(odd('columns-unknown', { columns: unknown }), unknown.length);
  const width = header.headers.length;
  const ordered = [...values].sort((a, b) => a.index - b.index);
  const feeds = ordered.map((v) => ({
    index: v.index,
    factor: v.factor,
    offset: v.offset,
    same: v.factor === 1 && v.offset === 0,
    words: v.words,
    channel: v.channel,
    column: new Float64Array(0),
  }));
  const timeAt = new Set(times.values());
  const wanted = Math.max(
    values.find((v) => v.channel === 'lat')?.index ?? 0,
    values.find((v) => v.channel === 'lon')?.index ?? 0,
    ...timeAt,
  );
  let capacity = 4096;
  const columns: Partial<Record<Channel, Float64Array<ArrayBuffer>>> = {};
  const share = () => {
    for (const f of feeds) f.column = columns[f.channel] ?? f.column;
  };
  for (const v of values) columns[v.channel] = new Float64Array(capacity).fill(Number.NaN);
  share();
  let timeMs = new Float64Array(capacity);
  const clock = timeReader(times);
  const separator = header.separator.charCodeAt(0);
  const starts = new Int32Array(width + 1);
  let row = 0;
  let short = 0;
  let at = header.dataAt;
  const { length } = text;
  // Of the line in hand; one function for all lines.
  let end = 0;
  let count = 0;
  const cell = (index: number): string =>
    text.slice(starts[index] ?? end, index + 1 < count ? (starts[index + 1] ?? end + 1) - 1 : end);
  while (at < length) {
    // One line: note where each cell begins.
    let n = 0;
    let quoted = false;
    let i = at;
    starts[0] = at;
    for (; i < length; i++) {
      const c = text.charCodeAt(i);
      if (c === 34) quoted = !quoted;
      else if (c === separator && !quoted) {
        if (n < width) starts[++n] = i + 1;
      } else if (c === NL) break;
    }
    end = i > at && text.charCodeAt(i - 1) === CR ? i - 1 : i;
    count = n + 1;
    const first = text.charCodeAt(at);
    if (end > at && first !== 35) {
      if (count <= wanted) short++;
      else {
        if (row === capacity) {
          capacity *= 2;
          timeMs = grown(timeMs, capacity);
          for (const channel of new Set(values.map((v) => v.channel)))
            columns[channel] = grown(columns[channel] ?? new Float64Array(0), capacity);
          share();
        }
        timeMs[row] = clock.read(cell, header.decimalComma);
        for (const f of feeds) {
          const c = f.index;
          if (c >= count) break;
          let x = numberIn(
            text,
            starts[c] ?? 0,
            c + 1 < count ? (starts[c + 1] ?? end + 1) - 1 : end,
            header.decimalComma,
          );
          if (x !== x) {
            if (!f.words) continue;
            x = gearWord(cell(c));
            if (x !== x) continue;
          }
          if (!f.same) x = x * f.factor + f.offset;
          // Several cylinders: the hottest counts.
          if (!(f.column[row]! >= x)) f.column[row] = x; // eslint-disable-line @typescript-eslint/no-non-null-assertion -- within its length
        }
        row++;
        if ((row & 8191) === 0) progress(i / length);
      }
    }
    at = i + 1;
  }
  if (short > 0) warnings.add(odd('row-short'), short);
  if (row === 0) return problem('empty', unreadable('header-only'));
  const cut: Partial<Record<Channel, Float64Array>> = {};
  for (const v of values) cut[v.channel] = (columns[v.channel] ?? new Float64Array(0)).subarray(0, row);
  const ms = timeMs.subarray(0, row);
  const { absolute } = clock.finish(ms, warnings);
  return assemble('csv', ms, cut, absolute, warnings);
}

function grown(from: Float64Array, capacity: number): Float64Array<ArrayBuffer> {
  const out = new Float64Array(capacity).fill(Number.NaN);
  out.set(from);
  return out;
}
/** `HH:MM:SS` with or without a fraction, by its digits; null for any other shape. */
function plainClock(t: string): number | null {
  if (t.length < 8 || t.charCodeAt(2) !== 58 || t.charCodeAt(5) !== 58) return null;
  let ms = 0;
  for (const [at, unit] of CLOCK_DIGITS) {
    const d = t.charCodeAt(at) - 48;
    if (!(d >= 0 && d <= (at === 3 || at === 6 ? 5 : 9))) return null;
    ms += d * unit;
  }
  if (t.length > 8) {
    if (t.charCodeAt(8) !== 46) return null;
    for (let i = 9, unit = 100; i < t.length; i++, unit /= 10) {
      const d = t.charCodeAt(i) - 48;
      if (!(d >= 0 && d <= 9)) return null;
      ms += d * unit;
    }
  }
  return ms < 86_401_000 ? ms : null;
}
const CLOCK_DIGITS = [
  [0, 36_000_000],
  [1, 3_600_000],
  [3, 600_000],
  [4, 60_000],
  [6, 10_000],
  [7, 1000],
] as const;
const gearWord = (text: string): number =>
  /^"?\s*(down|dn|extended|locked|true|yes|on)\s*"?$/i.test(text)
    ? 1
    : /^"?\s*(up|retracted|false|no|off)\s*"?$/i.test(text)
      ? 0
      : Number.NaN;
const bare = (text: string): string => text.replace(/"/g, '').trim();

/** Puts the time columns of a row together; a clock without a date runs on past midnight. */
function timeReader(times: Map<TimeRole, number>) {
  const date = times.get('date');
  const clock = times.get('clock') ?? (date !== undefined ? times.get('instant') : undefined);
  const whole = times.get('instant');
  const elapsed = times.get('elapsed');
  const epoch = times.get('epoch');
  const offset = times.get('offset');
  let absolute = true;
  let undated = false;
  let unzoned = false;
  let divisor = 0;
  const lately = { date: '', dateMs: 0, zone: '', shift: 0 };
  const read = (cell: (i: number) => string, decimalComma: boolean): number => {
    // Dates and offsets stand the same for thousands of rows: they are read again only when they change.
    if (offset !== undefined) {
      const text = cell(offset);
      if (text !== lately.zone) {
        const zone = offsetMin(bare(text));
        lately.zone = text;
        lately.shift = Number.isNaN(zone) ? 0 : zone * 60_000;
      }
    }
    const { shift } = lately;
    if (date !== undefined && clock !== undefined) {
      const text = cell(date);
      if (text !== lately.date) {
        lately.date = text;
        lately.dateMs = dateMs(bare(text));
      }
      if (offset === undefined) unzoned = true;
      const said = cell(clock);
      return lately.dateMs + (plainClock(said) ?? clockMs(bare(said))) - shift;
    }
    const inOne = whole ?? times.get('clock');
    if (inOne !== undefined) {
      const text = bare(cell(inOne));
      const found = instant(text);
      if (found) {
        if (!found.dated) undated = true;
        else if (!found.zoned && offset === undefined) unzoned = true;
        return found.ms - (found.zoned ? 0 : shift);
      }
      const x = Number(decimalComma ? text.replace(',', '.') : text);
      if (text === '' || !Number.isFinite(x)) return Number.NaN;
      return ofNumber(x);
    }
    if (epoch !== undefined) {
      const x = Number(bare(cell(epoch)));
      return Number.isFinite(x) && bare(cell(epoch)) !== '' ? ofNumber(x) : Number.NaN;
    }
    if (elapsed !== undefined) {
      absolute = false;
      const text = bare(cell(elapsed));
      const x = Number(decimalComma ? text.replace(',', '.') : text);
      return text === '' ? Number.NaN : Number.isFinite(x) ? x * 1000 : clockMs(text);
    }
    return Number.NaN;
  };
  /** A bare number: ms or s since 1970 by its size, else seconds of its own. */
  const ofNumber = (x: number): number => {
    if (divisor === 0) divisor = x > 1e11 ? 1 : x > 1e8 ? 2 : 3;
    if (divisor === 3) absolute = false;
    return divisor === 1 ? x : x * 1000;
  };
  const finish = (ms: Float64Array, warnings: Warnings): { absolute: boolean } => {
    if (undated) {
      absolute = false;
      const crossed = unwrapDays(ms);
      if (crossed > 0) warnings.add(odd('midnight'), crossed);
    }
    if (unzoned) warnings.add(odd('zone-not-said'));
    return { absolute };
  };
  return { read, finish };
}
