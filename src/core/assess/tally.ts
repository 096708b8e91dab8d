/**
 * The paper tally, typed in: one landing a line, the ten columns of the card's back. A dash is *not seen*; an equals
 * sign repeats the line above.
 */
import type { CapturedLanding } from '@/domain/capture';
import type { AlongBand, Attitude, LandingKind, LateralBand, Meant } from '@/domain/words';
import { type TallyWrong, tallyWrong } from './tally-words';

export const TALLY_COLUMNS = [
  'kind',
  'meant',
  'touched',
  'along',
  'across',
  'drift',
  'crab',
  'swing',
  'bounce',
  'whose',
] as const;
export type TallyColumn = (typeof TALLY_COLUMNS)[number];
export type TallyLanding = Pick<
  CapturedLanding,
  | 'kind'
  | 'intended'
  | 'touched'
  | 'along'
  | 'lateral'
  | 'drift'
  | 'crab'
  | 'swing'
  | 'bounce'
  | 'intervention'
  | 'demonstration'
>;
export interface TallyLine {
  line: number;
  landing: TallyLanding | null;
  problem: TallyWrong | null;
}

const KINDS: Record<string, LandingKind> = { F: 'full-stop', T: 'touch-and-go', G: 'go-around', L: 'low-pass' };
const MEANT: Record<string, Meant> = { 3: 'three-point', W: 'mains-first' };
const TOUCHED: Record<string, Attitude> = {
  3: 'three-point',
  W: 'mains-first',
  T: 'tail-first',
  F: 'flat',
  N: 'nose-first',
};
const ALONG: Record<string, AlongBand> = { S: 'short', B: 'in-the-box', L: 'long', V: 'very-long' };
const ACROSS: Record<string, LateralBand> = {
  '2L': 'beyond-left',
  '1L': 'wheel-left',
  0: 'line',
  '1R': 'wheel-right',
  '2R': 'beyond-right',
};
const SIDE = { L: 'left', R: 'right' } as const;
const BANDS = { S: 'slight', M: 'marked' } as const;
const SWINGS = { S: 'small', T: 'late-correction', B: 'large' } as const;
const HANDLING = { H: 'held', P: 'power', X: 'pushed', G: 'went-around' } as const;

/** Codes a column takes, for a keypad. */
export const TALLY_CODES: Record<TallyColumn, string[]> = {
  kind: ['F', 'T', 'G', 'L'],
  meant: ['3', 'W', '-'],
  touched: ['3', 'W', 'T', 'F', 'N', '-'],
  along: ['S', 'B', 'L', 'V', '-'],
  across: ['2L', '1L', '0', '1R', '2R', '-'],
  drift: ['0', 'SL', 'SR', 'ML', 'MR', '-'],
  crab: ['0', 'SL', 'SR', 'ML', 'MR', '-'],
  swing: ['0', 'SL', 'SR', 'TL', 'TR', 'BL', 'BR', '-'],
  bounce: ['0', '1H', '1P', '1X', '2H', '2P', '2X', '1G', '-'],
  whose: ['0', '1', '2', '3', 'D', '-'],
};

function code<T>(table: Record<string, T>, text: string): T | null | undefined {
  return text === '-' ? null : table[text];
}
function sided<B extends Record<string, string>>(
  bands: B,
  text: string,
): { band: B[keyof B] | 'none'; side: 'left' | 'right' | null } | null | undefined {
  if (text === '-') return null;
  if (text === '0') return { band: 'none', side: null };
  const band = bands[text[0] ?? ''] as B[keyof B] | undefined;
  const side = SIDE[text[1] as 'L' | 'R'] as 'left' | 'right' | undefined;
  return text.length === 2 && band && side ? { band, side } : undefined;
}
function bounced(text: string): CapturedLanding['bounce'] | undefined {
  if (text === '-') return null;
  if (text === '0') return { count: 0, handling: null };
  const found = /^([1-9])([HPXG]?)$/.exec(text);
  return found ? { count: Number(found[1]), handling: found[2] ? HANDLING[found[2] as 'H'] : null } : undefined;
}

/**
 * Reads a tally. Small and large letters are the same. A go-around or a low pass may stop after its kind, with whose it
 * was last.
 * @returns one entry a line that is not empty, with the landing or the one thing to mend
 * @example
 * readTally('X 3 3 B 0 0 0 0 0 0')
 * // [{ line: 1, landing: null, problem: { code: 'no-kind', params: { written: 'X' } } }]
 */
export function readTally(text: string): TallyLine[] {
  let above: string[] = [];
  return text.split('\n').flatMap((raw, i): TallyLine[] => {
    const written = raw
      .trim()
      .toUpperCase()
      .split(/[\s,;]+/)
      .filter((x) => x !== '');
    if (written.length === 0) return [];
    const fail = (problem: TallyWrong): TallyLine[] => [{ line: i + 1, landing: null, problem }];
    const unclear = written.findIndex((x, c) => x === '=' && above[c] === undefined);
    if (unclear >= 0) return fail(tallyWrong('nothing-above', { column: TALLY_COLUMNS[unclear] ?? null }));
    let cells = written.map((x, c) => (x === '=' ? (above[c] ?? x) : x));
    const kind = KINDS[cells[0] ?? ''];
    if (!kind) return fail(tallyWrong('no-kind', { written: cells[0] ?? '' }));
    // A go-around has no touch: G 0 is a go-around of the pilot's own.
    if ((kind === 'go-around' || kind === 'low-pass') && cells.length <= 2)
      cells = [cells[0] ?? '', ...Array.from({ length: 8 }, () => '-'), cells[1] ?? '-'];
    if (cells.length !== TALLY_COLUMNS.length)
      return fail(tallyWrong('columns', { written: cells.length, of: TALLY_COLUMNS.length }));
    const [, meant, touched, along, across, drift, crab, swing, bounce, whose] = cells as [
      string,
      string,
      string,
      string,
      string,
      string,
      string,
      string,
      string,
      string,
    ];
    const read = {
      meant: code(MEANT, meant),
      touched: code(TOUCHED, touched),
      along: code(ALONG, along),
      across: code(ACROSS, across),
      drift: sided(BANDS, drift),
      crab: sided(BANDS, crab),
      swing: sided(SWINGS, swing),
      bounce: bounced(bounce),
      whose: whose === 'D' ? 0 : whose === '-' ? null : /^[0-3]$/.test(whose) ? Number(whose) : undefined,
    };
    const wrong = (Object.keys(read) as (keyof typeof read)[]).find((k) => read[k] === undefined);
    if (wrong)
      return fail(
        tallyWrong('no-code', {
          written: cells[TALLY_COLUMNS.indexOf(wrong)] ?? '',
          column: wrong,
          codes: TALLY_CODES[wrong],
        }),
      );
    if (kind === 'low-pass' && [read.touched, read.along, read.across, read.swing].some((x) => x != null))
      return fail(tallyWrong('low-pass-touched'));
    if (kind === 'low-pass' && (read.bounce?.count ?? 0) > 0) return fail(tallyWrong('low-pass-bounced'));
    above = cells;
    return [
      {
        line: i + 1,
        problem: null,
        landing: {
          kind,
          intended: read.meant ?? null,
          touched: read.touched ?? null,
          along: read.along ?? null,
          lateral: read.across ?? null,
          drift: read.drift ?? null,
          crab: read.crab ?? null,
          swing: read.swing ?? null,
          bounce: read.bounce ?? null,
          intervention: read.whose ?? null,
          demonstration: whose === 'D',
        },
      },
    ];
  });
}
