/** The catalogue of reading a recording: why a file cannot be read, and what was odd in one that can. */
import { type Coded, coder, sentence } from '@/domain/coded';
import type { TraceWarning } from '@/domain/trace';

const inLine = (line: number): string => (line > 0 ? ` in line ${line}` : '');
/** Why a file cannot be read, and what to do. */
export const UNREADABLE_WORDS = {
  'too-long': ({ millions }: { millions: number }) =>
    `The file has more than ${millions} million characters. Cut it to the flight.`,
  'empty-file': () => 'The file is empty.',
  'document-types': () => 'The file declares document types or entities, which a track never needs. It was not read.',
  'gpx-broken': ({ detail }: { detail: string }) => `The GPX file is broken: ${detail}.`,
  'kml-broken': ({ detail }: { detail: string }) => `The KML file is broken: ${detail}.`,
  'kml-no-times': () =>
    'The KML file draws a line without times: nothing can be measured on it. Export it from the recorder as GPX, IGC or CSV.',
  'not-gpx': () => 'This is XML, but neither GPX nor KML.',
  'no-track-points': () => 'The file has no track points.',
  'fixes-unreadable': () => 'None of the fixes can be read.',
  'no-fixes': () => 'The file has no fixes.',
  'no-header': () => 'No header row was found. A table needs a row that names at least time, latitude and longitude.',
  'position-columns': ({ missing, line }: { missing: readonly ('lat' | 'lon')[]; line: number }) =>
    `No column for ${missing.map((m) => (m === 'lat' ? 'latitude' : 'longitude')).join(' and ')} was recognised${inLine(line)}. Choose it below.`,
  'time-column': ({ line }: { line: number }) =>
    `No column with a time was recognised${inLine(line)}. Choose it below.`,
  'header-only': () => 'The table has a header but no rows.',
  'no-position-columns': () => 'No latitude and longitude were found. Name the columns that hold them.',
  'no-positions': () => 'Latitude and longitude are empty in every row.',
  'few-rows': () => 'Fewer than two usable rows: there is nothing to analyse.',
} as const;
export type Unreadable = Coded<typeof UNREADABLE_WORDS>;
export const unreadable = coder(UNREADABLE_WORDS);
/** Why a file cannot be read, as a sentence. */
export const unreadableWords = (why: Unreadable): string => sentence(UNREADABLE_WORDS, why);

/** Why two recordings cannot be joined, and what to do. */
export const APART_WORDS = {
  'no-overlap': () => 'The two recordings have less than two minutes of flight in common: there is nothing to join.',
  'not-one-flight': () => 'The two recordings are not of one flight: their tracks fit each other at no time.',
  'not-plain': () =>
    'The two recordings fit each other at more than one time, and their clocks do not tell which: they cannot be joined.',
} as const;
export type Apart = Coded<typeof APART_WORDS>;
/** Why two recordings cannot be joined, as a sentence. */
export const apartWords = (why: Apart): string => sentence(APART_WORDS, why);

/** What was odd in a recording that can be read. */
export const ODD_WORDS = {
  'record-broken': () => 'Fixes that cannot be read were left out.',
  'date-missing': () => 'The file gives no date.',
  midnight: () => 'The time passes midnight: the next day was assumed.',
  'zone-not-said': () => 'The time gives no zone: UTC was assumed.',
  'unit-assumed': ({ column, unit }: { channel: string; column: string; unit: string }) =>
    `${column}: no unit is given, ${unit} assumed.`,
  'unit-shown': ({ column, unit }: { channel: string; column: string; unit: string }) =>
    `${column}: no unit is given; its values are in ${unit}.`,
  'heading-assumed-magnetic': () => 'The heading is not marked true or magnetic: magnetic was assumed.',
  'columns-unknown': ({ columns }: { columns: readonly string[] }) =>
    `Columns not used: ${columns.slice(0, 12).join(', ')}${columns.length > 12 ? ' and more' : ''}.`,
  'row-short': () => 'Rows with too few columns were left out.',
  'position-impossible': () => 'Impossible positions were left out.',
  'time-impossible': () => 'Rows days away from the rest of the file were left out.',
  'time-missing': () => 'Rows without a readable time were left out.',
  'time-repeated': () => 'Rows that repeat a time were left out.',
  'time-back': () => 'Rows whose time goes back were left out.',
  gap: ({ seconds }: { seconds: number }) =>
    `Stretches without a sample for more than ${seconds} s: nothing is invented across them.`,
  'ground-speed-derived': () => 'No ground speed in the file: derived from the positions.',
  'height-missing': () => 'No height in the file.',
  'height-not-calibrated': () => 'No ground run to set the height by: heights are as recorded.',
  'flown-elsewhere': ({ at, briefed }: { at: string; briefed: string }) =>
    `Flown at ${at}; the lesson was briefed for ${briefed}.`,
  'far-from-field': () => 'The track never comes within 20 km of this aerodrome.',
} as const;
export type OddCode = Coded<typeof ODD_WORDS>;
/** What was odd, and how often. */
export type Oddity = OddCode & { count: number };
export const odd = coder(ODD_WORDS);
/** What was odd, as an analysis keeps it: with its words, so that it reads the same for as long as it is kept. */
export const warningOf = (o: Oddity): TraceWarning => ({
  code: o.code === 'unit-assumed' || o.code === 'unit-shown' ? `${o.code}-${o.params.channel}` : o.code,
  message: sentence(ODD_WORDS, o),
  count: o.count,
});
