/**
 * Tables of any sane shape: comma, semicolon, tab or bar; decimal point or comma; comments before the header; a units
 * row; quotes, with line ends in them. One pass over the text.
 */
import { type TimeRole, conversion, spokenHeader } from './columns';
import { type HeaderFound, findHeader } from './header';
import { usualUnit } from './tokens';
import { type AngleShape, angleAs, angleOfWords, unitsByValues } from './values';
import { clockMs, dateMs, instant, offsetMin, unwrapDays } from './time';
import { type Channel, type ColumnTold, type ReadResult, type Trace, Warnings, assemble, problem } from './trace';
import { odd, unreadable } from '../read-words';
import type { ColumnMapping } from './header';

const NL = 10;
const CR = 13;
/** A cell with line ends in it is no longer than this: beyond, a quote was left open. */
const QUOTED_MOST = 4000;

interface Plan {
  index: number;
  channel: Channel;
  factor: number;
  offset: number;
  words: boolean;
  angle: AngleShape | null;
}
const HOTTEST: ReadonlySet<Channel> = new Set(['cht', 'egt']);

/**
 * Which file columns feed which channel; of several that feed one, cylinder temperatures take the hottest and others
 * the one that is surest, the first of equals.
 */
function plan(
  header: HeaderFound,
  warnings: Warnings,
): { values: Plan[]; times: Map<TimeRole, number>; unknown: string[]; unsaid: Set<Channel>; told: ColumnTold[] } {
  const values: Plan[] = [];
  const times = new Map<TimeRole, number>();
  const unknown: string[] = [];
  const unsaid = new Set<Channel>();
  const chosen = new Map<Channel | TimeRole, number>();
  header.columns.forEach((c, index) => {
    if (!c) return;
    const key = 'time' in c.role ? c.role.time : c.role.channel;
    const before = header.columns[chosen.get(key) ?? -1];
    if (!before || c.confidence > before.confidence + 0.05) chosen.set(key, index);
  });
  // One engine, whatever its number.
  const alone = (channel: Channel): Channel => {
    const first = ({ rpm2: 'rpm', map2: 'map', fuelFlow2: 'fuelFlow' } as Partial<Record<Channel, Channel>>)[channel];
    return first && !chosen.has(first) ? first : channel;
  };
  const told = header.headers.map((text, index): ColumnTold => {
    const name = text.trim();
    const none = { header: name, as: null, by: null, confidence: null, unit: null, unitBy: null };
    const c = header.columns[index];
    if (!c) {
      if (name !== '') unknown.push(name);
      return none;
    }
    const key = 'time' in c.role ? c.role.time : c.role.channel;
    if (chosen.get(key) !== index && !('channel' in c.role && HOTTEST.has(c.role.channel))) {
      unknown.push(name);
      return none;
    }
    const as = { header: name, by: c.by, confidence: Math.round(c.confidence * 100) / 100 };
    if ('time' in c.role) {
      times.set(c.role.time, index);
      return { ...as, as: `time:${c.role.time}`, unit: null, unitBy: null };
    }
    const channel = alone(c.role.channel);
    const said = c.role.unit;
    const { factor, offset, known } = conversion(channel, said);
    if (!known) unsaid.add(channel);
    if (channel === 'headingMag' && !header.saysReference[index]) warnings.add(odd('heading-assumed-magnetic'));
    const angle = channel === 'lat' || channel === 'lon' ? (header.angles.get(index) ?? null) : null;
    values.push({ index, channel, factor, offset, words: channel === 'gear', angle });
    return {
      ...as,
      as: channel,
      unit: usualUnit(channel) === null ? null : known && said !== null ? said : usualUnit(channel),
      unitBy:
        usualUnit(channel) === null || (known && said === null)
          ? null
          : !known
            ? 'assumed'
            : c.by === 'said'
              ? 'said'
              : 'header',
    };
  });
  return { values, times, unknown, unsaid, told };
}
const UNIT_WORD: Record<string, string> = {
  ft: 'feet',
  m: 'metres',
  kt: 'knots',
  mph: 'miles an hour',
  'km/h': 'kilometres an hour',
  'm/s': 'metres a second',
  fpm: 'feet a minute',
  g: 'g',
  c: 'degrees Celsius',
  inhg: 'inches of mercury',
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
  const { values, times, unknown, unsaid, told } = plan(header, warnings);
  const missing = (['lat', 'lon'] as const).filter((c) => !values.some((v) => v.channel === c));
  if (missing.length > 0)
    return {
      ...problem('columns', unreadable('position-columns', { missing, line: header.line }), header.headers),
      ...(header.line > 0 ? { line: header.line } : {}),
    };
  if (times.size === 0 || (times.size === 1 && times.has('offset')))
    return {
      ...problem('columns', unreadable('time-column', { line: header.line }), header.headers),
      ...(header.line > 0 ? { line: header.line } : {}),
    };
  if (unknown.length > 0) warnings.add(odd('columns-unknown', { columns: unknown }), unknown.length);
  const width = header.headers.length;
  const ordered = [...values].sort((a, b) => a.index - b.index);
  const feeds = ordered.map((v) => ({
    index: v.index,
    factor: v.factor,
    offset: v.offset,
    same: v.factor === 1 && v.offset === 0,
    words: v.words,
    angle: v.angle === 'degrees' ? null : v.angle,
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
  const clock = timeReader(times, header.elapsedMs);
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
    let broke = -1;
    starts[0] = at;
    for (; i < length; i++) {
      const c = text.charCodeAt(i);
      if (c === 34) quoted = !quoted;
      else if (c === separator && !quoted) {
        if (n < width) starts[++n] = i + 1;
      } else if (c === NL) {
        // A line end within quotes belongs to the cell, unless the quote was left open.
        if (!quoted || n + 1 >= width) break;
        if (broke < 0) broke = i;
        if (i - at > QUOTED_MOST) break;
      }
    }
    if (broke >= 0 && (quoted || i - at > QUOTED_MOST)) i = broke;
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
          if (f.angle !== null) x = f.angle === 'words' ? angleOfWords(bare(cell(c))) : angleAs(f.angle, x);
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
  const read = assemble('csv', ms, cut, absolute, warnings);
  return read.ok ? { ok: true, trace: withUnits({ ...read.trace, columns: told }, unsaid) } : read;
}

/** Units nobody said: by what the file shows, else the usual one; and said that it was so. */
function withUnits(t: Trace, unsaid: ReadonlySet<Channel>): Trace {
  if (unsaid.size === 0) return t;
  const shown = unitsByValues(t, unsaid);
  const warnings = [...t.warnings];
  const columns = (t.columns ?? []).map((c): ColumnTold => {
    const channel = c.as as Channel;
    if (!unsaid.has(channel)) return c;
    const unit = shown.get(channel) ?? usualUnit(channel);
    if (unit === null) return c;
    const { factor, offset } = conversion(channel, unit);
    const x = t.channels[channel];
    if (x && (factor !== 1 || offset !== 0))
      for (let i = 0; i < x.length; i++) x[i] = (x[i] ?? Number.NaN) * factor + offset;
    const how = { channel, column: spokenHeader(c.header) || channel, unit: UNIT_WORD[unit] ?? unit };
    // That it is in its usual unit, and shows it, is nothing odd.
    if (!shown.has(channel)) warnings.push({ ...odd('unit-assumed', how), count: 1 });
    else if (unit !== usualUnit(channel)) warnings.push({ ...odd('unit-shown', how), count: 1 });
    const doubt = shown.has(channel) ? 0.05 : 0.2;
    return {
      ...c,
      unit,
      unitBy: shown.has(channel) ? 'values' : 'assumed',
      confidence: Math.max(0.1, Math.round(100 * ((c.confidence ?? 0) - doubt)) / 100),
    };
  });
  return { ...t, columns, warnings };
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
function timeReader(times: Map<TimeRole, number>, elapsedScale: number) {
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
      const text = bare(cell(epoch));
      const x = Number(decimalComma ? text.replace(',', '.') : text);
      return Number.isFinite(x) && text !== '' ? ofNumber(x) : Number.NaN;
    }
    if (elapsed !== undefined) {
      absolute = false;
      const text = bare(cell(elapsed));
      const x = Number(decimalComma ? text.replace(',', '.') : text);
      return text === '' ? Number.NaN : Number.isFinite(x) ? x * elapsedScale : clockMs(text);
    }
    return Number.NaN;
  };
  /** A bare number: ns, µs, ms or s since 1970 by its size, else a time of its own. */
  const ofNumber = (x: number): number => {
    if (divisor === 0) divisor = x > 1e17 ? 1e-6 : x > 1e14 ? 1e-3 : x > 1e11 ? 1 : x > 1e8 ? 1000 : elapsedScale;
    if (x <= 1e8) absolute = false;
    return x * divisor;
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
