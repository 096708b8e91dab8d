/** The catalogue of reading a logbook: why a row is refused, said after *Line 3*. */
import { type Coded, coder, sentence } from '@/domain/coded';
import { dateText } from '../format';

const quoted = (text: string): string => `\u201c${text}\u201d`;
export const ROW_WORDS = {
  ragged: ({ fields, header }: { fields: number; header: number }) =>
    `has ${fields} fields where the header has ${header}`,
  'no-date': () => 'has no date',
  'not-a-date': ({ written }: { written: string }) => `${quoted(written)} is not a date`,
  future: ({ date }: { date: string }) => `${dateText(date)} is in the future`,
  'no-type': () => 'has no type',
  'type-open': ({ written }: { written: string }) => `no type of the list is chosen for ${quoted(written)}`,
  'not-a-time': ({ written }: { written: readonly string[] }) =>
    `a time cannot be read: ${written.map(quoted).join(', ')}`,
  'not-a-count': ({ written, of }: { written: string; of: 'take-offs' | 'landings' }) =>
    `${quoted(written)} is not a number of ${of}`,
  'more-stops': ({ stops, landings }: { stops: number; landings: number }) =>
    `has ${stops} full stops and ${landings} landings`,
  'nothing-flown': () => 'has neither time nor landings',
} as const;
/** Why a row is refused. */
export type RowRefusal = Coded<typeof ROW_WORDS>;
export const rowRefusal = coder(ROW_WORDS);
/** Why a row is refused, as the end of a sentence about its line. */
export const rowWords = (why: RowRefusal): string => sentence(ROW_WORDS, why);
