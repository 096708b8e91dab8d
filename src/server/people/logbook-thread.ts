import { type LogbookRead, readLogbook, readTable } from '@/core/logbook';
import type { LogbookMapping } from '@/domain/people';
import { inThread } from '../floor/thread';

export interface LogbookJob {
  text: string;
  /** How to read the rows; null = only look at the table. */
  mapping: LogbookMapping | null;
  today: string;
}
/** A table without its rows: they stay in the thread. */
export interface TablePeek {
  header: string[];
  rows: number;
  /** The first rows, for guesses and a look. */
  sample: string[][];
  /** By column: what is written in it, where that is no more than a fleet. */
  written: Record<string, string[]>;
  read: LogbookRead | null;
}
const MOST_WRITTEN = 400;
const SAMPLE = 200;

export function logbookWork({ text, mapping, today }: LogbookJob): TablePeek | null {
  const table = readTable(text);
  const written = table.header.map((name, i): [string, string[]] => {
    const values = new Set<string>();
    for (const r of table.rows) {
      const v = (r[i] ?? '').trim();
      if (v !== '') values.add(v);
      if (values.size > MOST_WRITTEN) return [name, []];
    }
    return [name, [...values]];
  });
  return {
    header: table.header,
    rows: table.rows.length,
    sample: table.rows.slice(0, SAMPLE),
    written: Object.fromEntries(written),
    read: mapping ? readLogbook(table, mapping, today) : null,
  };
}

/** Reads a logbook in a thread of its own; null when it took too long. */
export const readLogbookText = (job: LogbookJob): Promise<TablePeek | null> =>
  inThread('logbook', job, logbookWork, { limitMs: 20_000, memoryMb: 500, tooMuch: null });
