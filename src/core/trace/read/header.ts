/**
 * The header of a table: which line it is, what separates its cells, what each column is by its words and by the values
 * under it.
 */
import { type Recognised, type TimeRole, looksLikeUnit, recognise } from './columns';
import { headerWords, unitNamed } from './tokens';
import { type AngleShape, type Sample, angleShape, packedClock, placeColumns, timeShape } from './values';
import type { Channel } from './trace';

/** What somebody has said of columns that the header does not tell: header as written, to its role. */
export type ColumnMapping = Record<string, { channel: Channel | `time:${TimeRole}` | 'none'; unit: string | null }>;
const HEADER_WITHIN = 120;
const SEPARATORS = [',', ';', '\t', '|'] as const;
const SAMPLES = 160;

export interface HeaderFound {
  separator: string;
  headers: string[];
  units: string[] | null;
  /** Line the header stands on, from 1; null = the table has none, and its columns are numbered. */
  line: number;
  /** Index in the text of the first row of values. */
  dataAt: number;
  columns: (Recognised | null)[];
  /** How latitudes and longitudes are written, by column. */
  angles: Map<number, AngleShape>;
  /** Does a heading say whether it is true or magnetic? */
  saysReference: boolean[];
  decimalComma: boolean;
  /** Milliseconds in one of an elapsed time. */
  elapsedMs: number;
}

/** Cells of one line; quotes may hold the separator. */
export function cells(line: string, separator: string): string[] {
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

/** A line, with those that a quote left open ties to it. */
function lineAt(text: string, from: number): { line: string; next: number } {
  let end = text.indexOf('\n', from);
  for (let k = 0; k < 4 && end >= 0; k++) {
    const open = (text.slice(from, end).split('"').length - 1) % 2 === 1;
    if (!open) break;
    end = text.indexOf('\n', end + 1);
  }
  const stop = end < 0 ? text.length : end;
  return { line: text.slice(from, stop).replace(/\r$/, ''), next: end < 0 ? text.length : end + 1 };
}
/** A mark that makes a line a comment, unless it is what separates the cells. */
const uncommented = (line: string, separator: string): string =>
  line.replace(separator === ';' ? /^[#%!]+\s*/ : /^[#%;!]+\s*/, '');

function said(header: string, mapping: ColumnMapping | null): Recognised | null | undefined {
  const found = mapping?.[header.trim()];
  if (!found) return undefined;
  if (found.channel === 'none') return null;
  return {
    role: found.channel.startsWith('time:')
      ? { time: found.channel.slice(5) as TimeRole }
      : { channel: found.channel as Channel, unit: found.unit },
    by: 'said',
    confidence: 1,
  };
}

/** Rows spread over the table, cut into cells. */
function sampled(text: string, dataAt: number, separator: string): string[][] {
  const out: string[][] = [];
  let at = dataAt;
  for (let k = 0; k < SAMPLES && at < text.length; k++) {
    const end = text.indexOf('\n', at);
    const line = text.slice(at, end < 0 ? text.length : end).replace(/\r$/, '');
    if (line !== '' && !line.startsWith('#')) out.push(cells(line, separator));
    // The first as they stand, the rest over the whole file.
    const next =
      k < 30
        ? end < 0
          ? text.length
          : end + 1
        : dataAt + Math.floor(((text.length - dataAt) * (k - 29)) / (SAMPLES - 29));
    if (k < 30) at = next;
    else {
      const begin = text.indexOf('\n', Math.max(at, next));
      at = begin < 0 ? text.length : begin + 1;
    }
  }
  return out;
}

/** The line among the first whose cells are known best. */
function bestLine(
  text: string,
  mapping: ColumnMapping | null,
): { separator: string; headers: string[]; at: number; next: number; line: number } | null {
  let best: { separator: string; headers: string[]; at: number; next: number; line: number; score: number } | null =
    null;
  let from = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  for (let n = 0; n < HEADER_WITHIN && from < text.length; n++) {
    const { line, next } = lineAt(text, from);
    if (line.length < 20_000)
      for (const separator of SEPARATORS) {
        const headers = cells(uncommented(line, separator), separator);
        if (headers.length < 3 || headers.length > 600) continue;
        let score = 0;
        let known = 0;
        for (const h of headers) {
          const r = said(h, mapping) ?? recognise(h, null);
          if (r) {
            score += r.confidence;
            known++;
          }
        }
        if (known >= 2 && score > (best?.score ?? 0)) best = { separator, headers, at: from, next, line: n + 1, score };
      }
    from = next;
  }
  return best;
}

/**
 * A header in words nobody knows: a line of words, and rows of numbers as long below it. What its columns are, their
 * values tell, or nobody.
 */
function strangeHeader(
  text: string,
): { separator: string; headers: string[]; at: number; next: number; line: number } | null {
  let from = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  for (let n = 0; n < HEADER_WITHIN && from < text.length; n++) {
    const { line, next } = lineAt(text, from);
    if (line.length < 20_000)
      for (const separator of SEPARATORS) {
        const headers = cells(uncommented(line, separator), separator).map((h) => h.trim());
        if (headers.length < 3 || headers.length > 600) continue;
        if (headers.some((h) => !/\p{L}/u.test(h)) || new Set(headers).size < headers.length) continue;
        let at = next;
        let rows = 0;
        for (; rows < 3 && at < text.length; rows++) {
          const row = lineAt(text, at);
          const c = cells(row.line, separator);
          if (c.length !== headers.length || c.filter((x) => /^\s*"?[-+]?\d/.test(x)).length < 3) break;
          at = row.next;
        }
        if (rows === 3) return { separator, headers, at: from, next, line: n + 1 };
      }
    from = next;
  }
  return null;
}

/** Without a header: the first line of numbers, and those after it as long. */
function noHeader(
  text: string,
): { separator: string; headers: string[]; at: number; next: number; line: number } | null {
  const from = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  const lines = text
    .slice(from, from + 4000)
    .split(/\r?\n/)
    .slice(0, 12);
  for (const separator of SEPARATORS) {
    const rows = lines.slice(0, -1).map((l) => cells(l, separator));
    const width = rows[0]?.length ?? 0;
    if (width < 3 || rows.length < 3 || rows.some((r) => r.length !== width)) continue;
    if ((rows[0] ?? []).filter((c) => /\d/.test(c)).length < 3) continue;
    return {
      separator,
      headers: Array.from({ length: width }, (_, i) => `column ${i + 1}`),
      at: from,
      next: from,
      line: 0,
    };
  }
  return null;
}

/**
 * The header, and what each of its columns is. Null when no line has two cells that are known and the values tell
 * nothing either.
 * @param mapping what was said of columns by hand: it wins over words and values
 * @returns where the header stands, its cells with what each is, and the separator
 */
export function findHeader(text: string, mapping: ColumnMapping | null = null): HeaderFound | null {
  const best = bestLine(text, mapping) ?? strangeHeader(text) ?? noHeader(text);
  if (!best) return null;
  const { separator, headers } = best;
  let dataAt = best.next;
  // A units row may stand below the header, or above it.
  const isUnits = (row: readonly string[]) =>
    row.length > 1 && row.every(looksLikeUnit) && row.some((c) => c.trim() !== '' && unitNamed(c) !== null);
  const below = lineAt(text, dataAt);
  const belowCells = cells(uncommented(below.line, separator), separator);
  let units: string[] | null = null;
  if (best.line > 0 && isUnits(belowCells)) {
    units = belowCells;
    dataAt = below.next;
  } else if (best.at > 1) {
    const aboveStart = text.lastIndexOf('\n', best.at - 2) + 1;
    const above = cells(uncommented(text.slice(aboveStart, best.at - 1).replace(/\r$/, ''), separator), separator);
    if (above.length === headers.length && isUnits(above)) units = above;
  }
  const rows = sampled(text, dataAt, separator);
  const decimalComma = separator !== ',' && rows.some((r) => r.some((c) => /^\s*"?-?\d+,\d+"?\s*$/.test(c)));
  const samples = headers.map((_, i): Sample => rows.map((r) => (r[i] ?? '').replace(/"/g, '').trim()));
  const columns = headers.map((h, i): Recognised | null => {
    const told = said(h, mapping);
    if (told !== undefined) return told;
    const named = best.line > 0 ? recognise(h, units?.[i] ?? null) : null;
    return named && 'time' in named.role ? timeBy(named, samples[i] ?? [], decimalComma) : named;
  });
  byValues(columns, samples, decimalComma);
  const angles = new Map<number, AngleShape>();
  columns.forEach((c, i) => {
    if (!c || !('channel' in c.role) || (c.role.channel !== 'lat' && c.role.channel !== 'lon')) return;
    const shape = angleShape(samples[i] ?? [], decimalComma, c.role.channel === 'lat' ? 90 : 180);
    if (shape !== null) angles.set(i, shape);
  });
  const elapsedAt = columns.findIndex((c) => c !== null && 'time' in c.role && c.role.time === 'elapsed');
  return {
    separator,
    headers,
    units,
    line: best.line,
    dataAt,
    columns,
    angles,
    saysReference: headers.map((h, i) => /mag|true|degm|degt|\u00b0[tm]\b/i.test(`${h} ${units?.[i] ?? ''}`)),
    decimalComma,
    elapsedMs:
      elapsedAt < 0 ? 1000 : elapsedMs(headers[elapsedAt] ?? '', units?.[elapsedAt] ?? null, samples[elapsedAt] ?? []),
  };
}

/** A column called a time is the time its values are. */
function timeBy(named: Recognised, s: Sample, decimalComma: boolean): Recognised | null {
  if (!('time' in named.role)) return named;
  const { time } = named.role;
  if (time === 'offset' || s.every((c) => c === '')) return named;
  if ((time === 'clock' || time === 'instant') && packedClock(s)) return { ...named, role: { time: 'clock' } };
  const shape = timeShape(s, decimalComma);
  if (shape === null) return s.length < 3 || time === 'elapsed' || time === 'epoch' ? named : null;
  // A date in a column called a time goes with a clock beside it.
  return shape === time
    ? named
    : { ...named, role: { time: shape }, confidence: Math.max(0.5, named.confidence - 0.08) };
}

/** What no header tells: a time and a place, where the values leave no doubt. */
function byValues(columns: (Recognised | null)[], samples: readonly Sample[], decimalComma: boolean): void {
  const has = (of: (r: Recognised) => boolean) => columns.some((c) => c !== null && of(c));
  if (!has((r) => 'time' in r.role && r.role.time !== 'offset' && r.role.time !== 'date'))
    for (const wanted of ['instant', 'clock', 'epoch', 'elapsed'] as const) {
      const at = samples.findIndex(
        (s, i) =>
          columns[i] === null &&
          s.filter((c) => c !== '').length >= 3 &&
          timeShape(s, decimalComma) === wanted &&
          (wanted !== 'elapsed' || new Set(s).size === s.length),
      );
      if (at < 0) continue;
      columns[at] = { role: { time: wanted }, by: 'values', confidence: wanted === 'elapsed' ? 0.4 : 0.7 };
      break;
    }
  const place = (c: Channel) => has((r) => 'channel' in r.role && r.role.channel === c);
  if (place('lat') || place('lon')) return;
  const found = placeColumns(
    samples,
    columns.map((c) => c !== null),
    decimalComma,
  );
  if (!found) return;
  columns[found.lat] = { role: { channel: 'lat', unit: null }, by: 'values', confidence: 0.45 };
  columns[found.lon] = { role: { channel: 'lon', unit: null }, by: 'values', confidence: 0.45 };
}

const MS: Record<string, number> = { s: 1000, ms: 1, us: 0.001, ns: 1e-6, min: 60_000 };
/** Milliseconds in one of an elapsed time: by its unit, else by its steps: no recorder writes a row in twenty seconds. */
function elapsedMs(header: string, unitCell: string | null, s: Sample): number {
  const h = headerWords(header);
  const unit = (unitCell === null ? null : unitNamed(unitCell)) ?? h.unit ?? (h.words.includes('ms') ? 'ms' : null);
  const said = unit === null ? undefined : MS[unit];
  if (said !== undefined) return said;
  const x = s
    .slice(0, 20)
    .map((c) => Number(c.replace(',', '.')))
    .filter(Number.isFinite);
  const steps = x
    .slice(1)
    .map((v, i) => v - (x[i] ?? 0))
    .filter((v) => v > 0)
    .sort((a, b) => a - b);
  const step = steps[steps.length >> 1] ?? 1;
  return step >= 20_000 ? 0.001 : step >= 20 ? 1 : 1000;
}
