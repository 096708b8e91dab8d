/** Reading recorded tracks: tables, GPX, KML, IGC, NMEA. The kind is told from the text itself, never from the file's name. */
import { readCsv } from './csv';
import { type ColumnMapping, findHeader } from './header';
import { readGpx } from './gpx';
import { readIgc } from './igc';
import { readKml } from './kml';
import { isNmea, readNmea } from './nmea';
import { type ReadResult, problem } from './trace';
import { unreadable } from '../read-words';

export {
  CHANNELS,
  GAP_S,
  type Channel,
  type ColumnTold,
  type Gap,
  type ReadProblem,
  type ReadResult,
  type Trace,
} from './trace';
export { type ColumnMapping, findHeader };
export * from './bytes';

/** Characters beyond which a file is refused unread. */
export const MAX_TEXT = 120_000_000;

const BYTE_ORDER_MARK = 0xfeff;

/**
 * Reads whatever it is. @param progress called now and then with the share of the text read, 0 to 1 @returns a trace
 * with what was odd in it, or the reason why it cannot be read and what to do
 * @example readTrace('') // { ok: false, code: 'empty', why: { code: 'empty-file' } }
 */
export function readTrace(
  text: string,
  mapping: ColumnMapping | null = null,
  progress: (share: number) => void = () => undefined,
): ReadResult {
  if (text.length > MAX_TEXT) return problem('too-large', unreadable('too-long', { millions: MAX_TEXT / 1e6 }));
  const start = text.slice(text.charCodeAt(0) === BYTE_ORDER_MARK ? 1 : 0, 4000).trimStart();
  if (start === '') return problem('empty', unreadable('empty-file'));
  if (start.startsWith('<')) return /<(?:\w+:)?kml[\s>]/i.test(start) ? readKml(text) : readGpx(text);
  if (isNmea(start)) return readNmea(text);
  if (/^A[A-Z0-9]{3}|^HF[A-Z]{3}/.test(start) && /^B\d{6}/m.test(text)) return readIgc(text);
  return readCsv(text, mapping, progress);
}
