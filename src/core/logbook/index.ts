/**
 * A pilot’s logbook as CSV: columns found by their names, rows read under a mapping, the same flight known again.
 * Hours; dates ISO. Parsing of the text itself by papaparse.
 */
import Papa from 'papaparse';
import { type RowRefusal, rowRefusal } from './import-words';
import type { LogbookField, LogbookMapping, WrittenType } from '@/domain/people';

const BYTE_ORDER_MARK = 0xfeff;
export interface LogbookTable {
  header: string[];
  rows: string[][];
  /** Rows whose number of fields differs from the header’s, by line. */
  ragged: number[];
}
/**
 * The table of a CSV text; commas, semicolons or tabs. Empty lines are left out.
 * @returns header, rows and the lines that do not fit
 */
export function readTable(text: string): LogbookTable {
  const parsed = Papa.parse<string[]>(text.charCodeAt(0) === BYTE_ORDER_MARK ? text.slice(1) : text, {
    skipEmptyLines: 'greedy',
  });
  const [header = [], ...rows] = parsed.data;
  const names = header.map((h) => h.trim());
  return { header: names, rows, ragged: rows.flatMap((r, i) => (r.length === names.length ? [] : [i + 2])) };
}

const PATTERNS: [LogbookField, RegExp][] = [
  ['date', /^(flight )?date|^datum|^data$|^day$/i],
  ['registration', /regist|ident|tail ?number|^reg\b|matr[ií]cula/i],
  ['type', /type|make|model|aircraft$|aeroplane$/i],
  ['takeoffsNight', /take-?offs?.*night|night.*take-?off/i],
  ['takeoffsDay', /take-?offs?.*day|day.*take-?off/i],
  ['takeoffs', /take-?offs?/i],
  ['fullStops', /full.?stop/i],
  ['landingsNight', /(landings?|ldg).*night|night.*(landings?|ldg)/i],
  ['landingsDay', /(landings?|ldg).*day|day.*(landings?|ldg)/i],
  ['landings', /landings?|^ldg/i],
  ['pic', /pic\b|pilot in command|in command|^command/i],
  ['dual', /dual/i],
  ['night', /night/i],
  ['total', /total|block|^time$|^hours$|minutes|duration|flight time/i],
  ['remark', /remark|comment|notes?|route/i],
];
/**
 * Which column is what, by its name; a column serves once.
 * @returns names of columns by field; a field without one is absent
 * @example
 * guessColumns(['Date', 'Type', 'Total time', 'Landings'])
 * // { date: 'Date', type: 'Type', landings: 'Landings', total: 'Total time' }
 */
export function guessColumns(header: readonly string[]): Partial<Record<LogbookField, string>> {
  const found: Partial<Record<LogbookField, string>> = {};
  const used = new Set<string>();
  for (const [field, pattern] of PATTERNS) {
    const name = header.find((h) => !used.has(h) && pattern.test(h));
    if (name !== undefined) {
      found[field] = name;
      used.add(name);
    }
  }
  return found;
}
/**
 * How the dates of a column are written: by a year in front, by a day over 12, else day first.
 * @returns the order
 * @example guessDates(['2026-10-02']) // 'ymd'
 */
export function guessDates(values: readonly string[]): LogbookMapping['dates'] {
  const parts = values.map((v) =>
    v
      .trim()
      .split(/[^0-9]+/)
      .map(Number),
  );
  if (parts.some(([a]) => (a ?? 0) > 31)) return 'ymd';
  return parts.some(([, b]) => (b ?? 0) > 12) && !parts.some(([a]) => (a ?? 0) > 12) ? 'mdy' : 'dmy';
}

/**
 * An ISO date; null when it is none. Two-figure years are of this century.
 * @returns `2026-11-24`, or null
 * @example readDate('28/2/26', 'dmy') // '2026-02-28'
 */
export function readDate(text: string, order: LogbookMapping['dates']): string | null {
  const parts = /^(\d{1,4})[-/. ](\d{1,2})[-/. ](\d{1,4})/.exec(text.trim());
  if (!parts) return null;
  const [a, b, c] = [Number(parts[1]), Number(parts[2]), Number(parts[3])];
  const [y, m, d] =
    (parts[1]?.length ?? 0) === 4 || order === 'ymd' ? [a, b, c] : order === 'dmy' ? [c, b, a] : [c, a, b];
  const year = y < 100 ? 2000 + y : y;
  const iso = `${String(year).padStart(4, '0')}-${String(m).padStart(2, '0')}-${String(d).padStart(2, '0')}`;
  const back = new Date(`${iso}T00:00:00Z`);
  return Number.isNaN(back.getTime()) || back.toISOString().slice(0, 10) !== iso || year < 1940 ? null : iso;
}
/**
 * Hours of `1:30`, `1.5`, `1,5` or minutes of `90`; empty is 0; null when it is no time or over a day.
 * @returns hours to a thousandth
 * @example readHours('1', 'hours') // 1
 */
export function readHours(text: string, unit: LogbookMapping['time']): number | null {
  const t = text.trim();
  if (t === '' || t === '-') return 0;
  const clock = /^(\d{1,2})[:h](\d{2})$/.exec(t);
  const value = clock
    ? Number(clock[1]) + Number(clock[2]) / 60
    : Number(t.replace(',', '.')) / (unit === 'minutes' ? 60 : 1);
  return Number.isFinite(value) && value >= 0 && value <= 24 ? Math.round(value * 1000) / 1000 : null;
}
function readCount(text: string | undefined): number | null {
  const t = (text ?? '').trim();
  if (t === '' || t === '-') return 0;
  const n = Number(t);
  return Number.isInteger(n) && n >= 0 && n <= 99 ? n : null;
}

export interface LogbookFlight {
  line: number;
  flownOn: string;
  typeWritten: string;
  registration: string;
  type: WrittenType;
  hours: number;
  picHours: number | null;
  dual: boolean;
  takeoffsDay: number;
  takeoffsNight: number;
  landingsDay: number;
  landingsNight: number;
  fullStopsDay: number;
  fullStopsNight: number;
  remark: string;
  /** What the flight is, whatever file it stands in. */
  fingerprint: string;
}
export interface LogbookRead {
  flights: LogbookFlight[];
  refused: { line: number; why: RowRefusal }[];
  typesWritten: { name: string; flights: number }[];
}

/**
 * Rows under a mapping. What cannot be read is refused by line with the reason; nothing is guessed. A night without a
 * column of its own is told by night time covering the flight. Landings by day and night are the columns’ own, else all
 * of one or the other. Flights that agree in every part are told apart by how many stood before.
 * @returns flights, refused lines with their reason by code, and the types written
 */
export function readLogbook(table: LogbookTable, mapping: LogbookMapping, today: string): LogbookRead {
  const at = (field: LogbookField): number => {
    const name = mapping.columns[field];
    return name === undefined ? -1 : table.header.indexOf(name);
  };
  const index = Object.fromEntries((Object.keys(mapping.columns) as LogbookField[]).map((f) => [f, at(f)])) as Partial<
    Record<LogbookField, number>
  >;
  const said = new Set(mapping.stopLines);
  const flights: LogbookFlight[] = [];
  const refused: LogbookRead['refused'] = [];
  const written = new Map<string, number>();
  const before = new Map<string, number>();
  table.rows.forEach((row, i) => {
    const line = i + 2;
    const cell = (f: LogbookField): string =>
      index[f] === undefined || index[f] < 0 ? '' : (row[index[f]] ?? '').trim();
    const refuse = (why: RowRefusal) => refused.push({ line, why });
    if (table.ragged.includes(line))
      return refuse(rowRefusal('ragged', { fields: row.length, header: table.header.length }));
    const typeWritten = cell('type');
    const flownOn = readDate(cell('date'), mapping.dates);
    if (typeWritten !== '') written.set(typeWritten, (written.get(typeWritten) ?? 0) + 1);
    if (flownOn === null)
      return refuse(cell('date') === '' ? rowRefusal('no-date') : rowRefusal('not-a-date', { written: cell('date') }));
    if (flownOn > today) return refuse(rowRefusal('future', { date: flownOn }));
    const type = mapping.types[typeWritten];
    if (!type)
      return refuse(typeWritten === '' ? rowRefusal('no-type') : rowRefusal('type-open', { written: typeWritten }));
    const hours = readHours(cell('total'), mapping.time);
    const pic = readHours(cell('pic'), mapping.time);
    const dual = readHours(cell('dual'), mapping.time);
    const nightH = readHours(cell('night'), mapping.time);
    if (hours === null || pic === null || nightH === null)
      return refuse(rowRefusal('not-a-time', { written: [cell('total'), cell('pic'), cell('night')].filter(Boolean) }));
    const counts = (
      ['takeoffsDay', 'takeoffsNight', 'takeoffs', 'landingsDay', 'landingsNight', 'landings', 'fullStops'] as const
    ).map((f) => [f, readCount(cell(f))] as const);
    const bad = counts.find(([, n]) => n === null);
    if (bad)
      return refuse(
        rowRefusal('not-a-count', { written: cell(bad[0]), of: bad[0].startsWith('take') ? 'take-offs' : 'landings' }),
      );
    const n = Object.fromEntries(counts) as Record<(typeof counts)[number][0], number>;
    const allNight = nightH > 0 && hours > 0 && nightH >= hours - 0.05;
    const split = (total: number, day: number, night: number): [number, number] =>
      day + night > 0 ? [day, night] : allNight ? [0, total] : [total, 0];
    const [landingsDay, landingsNight] = split(n.landings, n.landingsDay, n.landingsNight);
    const [takeoffsDay, takeoffsNight] = split(
      n.takeoffs > 0 || n.takeoffsDay + n.takeoffsNight > 0 ? n.takeoffs : landingsDay + landingsNight,
      n.takeoffsDay,
      n.takeoffsNight,
    );
    const landings = landingsDay + landingsNight;
    const stops = index.fullStops !== undefined && index.fullStops >= 0 ? n.fullStops : said.has(line) ? landings : 0;
    if (stops > landings) return refuse(rowRefusal('more-stops', { stops, landings }));
    if (hours === 0 && landings === 0 && takeoffsDay + takeoffsNight === 0) return refuse(rowRefusal('nothing-flown'));
    const nightFirst = Math.min(stops, landingsNight);
    const yes = (text: string) => /^(y|yes|x|1|true)$/i.test(text);
    const base = [
      flownOn,
      typeWritten.toLowerCase(),
      cell('registration')
        .toUpperCase()
        .replace(/[^A-Z0-9]/g, ''),
      hours.toFixed(2),
      landings,
      landingsNight,
    ].join('|');
    const nth = (before.get(base) ?? 0) + 1;
    before.set(base, nth);
    flights.push({
      line,
      flownOn,
      typeWritten,
      registration: cell('registration').slice(0, 20),
      type,
      hours,
      picHours: mapping.columns.pic === undefined ? null : pic,
      dual: (dual ?? 0) > 0 || yes(cell('dual')),
      takeoffsDay,
      takeoffsNight,
      landingsDay,
      landingsNight,
      fullStopsDay: stops - nightFirst,
      fullStopsNight: nightFirst,
      remark: cell('remark').slice(0, 200),
      fingerprint: nth === 1 ? base : `${base}|${nth}`,
    });
  });
  return {
    flights,
    refused,
    typesWritten: [...written]
      .map(([name, count]) => ({ name, flights: count }))
      .sort((a, b) => b.flights - a.flights || a.name.localeCompare(b.name)),
  };
}
/**
 * A header, so that a file of the same form is known again.
 * @returns the header in small letters, joined
 */
export const headerKey = (header: readonly string[]): string => header.map((h) => h.trim().toLowerCase()).join('|');
export * from './import-words';
export * from './lines';
