import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { type ArchiveProblem, fromZip, isGzip, isZip, textOfBytes } from '@/core/trace';
import { inData, syncFolder } from '../floor/data-folder';

/** Bytes beyond which a file is not taken, packed or not. */
export const MAX_BYTES = 120_000_000;
const pack = promisify(gzip);
const unpack = promisify(gunzip);
const folder = (): string => {
  const f = inData('traces');
  mkdirSync(f, { recursive: true, mode: 0o700 });
  return f;
};

/**
 * The plain bytes of a file that may be gzipped or in a zip archive (and gzipped in it). Throws with a sentence for the
 * user when it is too long, cut short, or holds no recording.
 */
export async function plainBytes(bytes: Buffer, opened = false): Promise<Buffer> {
  if (bytes.length > MAX_BYTES) throw new Error(TOO_LONG);
  if (isZip(bytes) && !opened) {
    const found = fromZip(bytes, MAX_BYTES);
    if (typeof found === 'string') throw new Error(ARCHIVE_WORDS[found]);
    return plainBytes(Buffer.from(found), true);
  }
  if (!isGzip(bytes)) return bytes;
  try {
    return await unpack(bytes, { maxOutputLength: MAX_BYTES });
  } catch (error) {
    throw new Error(
      (error as NodeJS.ErrnoException).code === 'ERR_BUFFER_TOO_LARGE'
        ? TOO_LONG
        : 'The file cannot be unpacked: it is cut short or is no gzip. Export it from the recorder again.',
      { cause: error },
    );
  }
}
const ARCHIVE_WORDS: Record<ArchiveProblem, string> = {
  'zip-broken': 'The archive cannot be opened: it is cut short or locked. Unpack it and choose the recording itself.',
  'zip-empty': 'The archive holds no recording: a CSV, GPX, IGC, KML or NMEA file is looked for.',
  'zip-too-long': 'The recording in the archive is too long: cut it to the flight.',
};
const TOO_LONG = `The file has more than ${MAX_BYTES / 1e6} MB: cut it to the flight.`;
export const textOf = (plain: Buffer): string => textOfBytes(plain);
export const hashOf = (plain: Buffer): string => createHash('sha256').update(plain).digest('hex');

/** Parts of a file whose writer was stopped half-way. */
export function cleanLeftovers(): void {
  for (const at of [folder(), inData('keys'), inData()])
    for (const name of readdirSync(at).filter((n) => n.endsWith('.part'))) rmSync(path.join(at, name));
}

/** Whole or not at all: written beside, then renamed. */
function put(name: string, data: Uint8Array): void {
  const file = path.join(folder(), name);
  if (existsSync(file)) return;
  const beside = `${file}.${process.pid}.part`;
  writeFileSync(beside, data, { mode: 0o600, flush: true });
  renameSync(beside, file);
  // Before the database names it: what is named must be found after a power cut.
  syncFolder(folder());
}
export async function keepFile(hash: string, plain: Buffer): Promise<void> {
  put(`${hash}.gz`, await pack(plain));
}
export const keptFile = async (hash: string): Promise<Buffer> =>
  unpack(readFileSync(path.join(folder(), `${hash}.gz`)));
/** What the drawing needs, made from the file; made again when it is gone. */
export const keepSeries = (traceId: string, series: Uint8Array): void => put(`${traceId}.series`, series);
export function keptSeries(traceId: string): Buffer | null {
  const file = path.join(folder(), `${traceId}.series`);
  return existsSync(file) ? readFileSync(file) : null;
}
