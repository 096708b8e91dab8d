/** The page's worker for traces: unpacks, shows the columns, analyses with progress. Cancelling ends the worker. */
import { expose } from 'comlink';
import {
  type ColumnMapping,
  type ColumnTold,
  type TraceDone,
  findHeader,
  fromZip,
  isGzip,
  isZip,
  textOfBytes,
  traceWork,
} from '@/core/trace';
import type { TraceContext } from '@/domain/trace';

/** Bytes beyond which nothing is unpacked. */
const MOST_BYTES = 120_000_000;
/** Text of a file, unpacked when it is gzipped or in an archive. Throws when it cannot be. */
async function textOf(file: Blob, opened = false): Promise<string> {
  const head = new Uint8Array(await file.slice(0, 4).arrayBuffer());
  if (isZip(head) && !opened) {
    const found = fromZip(new Uint8Array(await file.arrayBuffer()), MOST_BYTES);
    if (typeof found === 'string') throw new Error(found);
    return textOf(new Blob([found as Uint8Array<ArrayBuffer>]), true);
  }
  const plain = isGzip(head)
    ? await new Response(file.stream().pipeThrough(new DecompressionStream('gzip'))).arrayBuffer()
    : await file.arrayBuffer();
  return textOfBytes(new Uint8Array(plain));
}
export interface Preview {
  headers: string[];
  /** What each column is taken for before it is read whole. */
  columns: ColumnTold[];
  rows: string[][];
}
const unknown = (header: string): ColumnTold => ({
  header,
  as: null,
  by: null,
  confidence: null,
  unit: null,
  unitBy: null,
});

export const tracing = {
  /** The header as found with what is known of each column, and some rows below it. Null when the file is no table. */
  preview: async (file: Blob, mapping: ColumnMapping | null): Promise<Preview | null> => {
    const text = (await textOf(file).catch(() => '')).slice(0, 60_000);
    if (/^\s*[<$]/.test(text) || text === '') return null;
    const found = findHeader(text, mapping);
    if (found) {
      const rows = text
        .slice(found.dataAt)
        .split(/\r?\n/)
        .slice(0, 5)
        .map((l) => l.split(found.separator));
      return {
        headers: found.headers.map((h) => h.trim()),
        columns: found.columns.map((c, i): ColumnTold => {
          const header = (found.headers[i] ?? '').trim();
          if (c === null) return unknown(header);
          const unit = 'time' in c.role ? null : c.role.unit;
          return {
            header,
            as: 'time' in c.role ? `time:${c.role.time}` : c.role.channel,
            by: c.by,
            confidence: c.confidence,
            unit,
            unitBy: unit === null ? null : 'header',
          };
        }),
        rows,
      };
    }
    // Nothing known in it: the first line with the most cells is offered as the header.
    const lines = text.split(/\r?\n/).slice(0, 40);
    const separator = [',', ';', '\t'].reduce(
      (a, b) =>
        lines.filter((l) => l.split(b).length > 2).length > lines.filter((l) => l.split(a).length > 2).length ? b : a,
      ',',
    );
    const width = Math.max(...lines.map((l) => l.split(separator).length));
    const at = lines.findIndex((l) => l.split(separator).length === width);
    return width < 3
      ? null
      : {
          headers: (lines[at] ?? '').split(separator).map((h) => h.trim()),
          columns: (lines[at] ?? '').split(separator).map((h) => unknown(h.trim())),
          rows: lines.slice(at + 1, at + 6).map((l) => l.split(separator)),
        };
  },
  analyse: async (
    file: Blob,
    mapping: ColumnMapping | null,
    context: TraceContext,
    elsewhere: TraceContext['aerodrome'][],
    progress: (share: number) => void,
  ): Promise<TraceDone> => {
    let text: string;
    try {
      text = await textOf(file);
    } catch {
      return {
        ok: false,
        code: 'not-a-trace',
        message: 'The file cannot be unpacked: it is cut short, locked, or holds no recording.',
      };
    }
    let said = 0;
    return traceWork({ text, mapping, context, elsewhere }, (share) => {
      if (share - said > 0.02) {
        said = share;
        progress(share);
      }
    });
  },
};
export type Tracing = typeof tracing;
expose(tracing);
