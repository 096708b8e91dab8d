/**
 * From the bytes of a file to its text: zip archives opened, byte orders and old code pages told. Gzip is unpacked by
 * whoever holds the bytes, who can do so as a stream.
 */
import { unzipSync } from 'fflate';

/** An archive that cannot be used, as a code. */
export type ArchiveProblem = 'zip-broken' | 'zip-empty' | 'zip-too-long';
export const isZip = (b: Uint8Array): boolean => b[0] === 0x50 && b[1] === 0x4b && b[2] === 0x03 && b[3] === 0x04;
export const isGzip = (b: Uint8Array): boolean => b[0] === 0x1f && b[1] === 0x8b;

/** Names a recording may have in an archive, the most telling first. */
const RECORDINGS = [/\.(csv|tsv|gpx|igc|kml|nmea)$/i, /\.(txt|log|dat|gz)$/i];

/**
 * The recording in a zip archive: the largest file with the name of one. Nothing longer than allowed is unpacked.
 * @param mostBytes longest that is unpacked
 * @returns its bytes, or why there is none
 * @example fromZip(new Uint8Array([80, 75, 3, 4]), 1e6) // 'zip-broken'
 */
export function fromZip(bytes: Uint8Array, mostBytes: number): Uint8Array | ArchiveProblem {
  const found: { name: string; size: number }[] = [];
  try {
    unzipSync(bytes, {
      filter: (f) => {
        if (f.originalSize > 0 && !f.name.includes('__MACOSX')) found.push({ name: f.name, size: f.originalSize });
        return false;
      },
    });
    for (const like of RECORDINGS) {
      const [best] = found.filter((f) => like.test(f.name)).sort((a, b) => b.size - a.size);
      if (!best) continue;
      if (best.size > mostBytes) return 'zip-too-long';
      return unzipSync(bytes, { filter: (f) => f.name === best.name })[best.name] ?? 'zip-broken';
    }
    return 'zip-empty';
  } catch {
    return 'zip-broken';
  }
}

/**
 * The text of a file: UTF-8, UTF-16 of either order with or without its mark, else the old western code page.
 * @returns the text, without a byte-order mark
 * @example textOfBytes(new Uint8Array([0xff, 0xfe, 0x61, 0])) // 'a'
 */
export function textOfBytes(b: Uint8Array): string {
  if (b[0] === 0xff && b[1] === 0xfe) return new TextDecoder('utf-16le').decode(b);
  if (b[0] === 0xfe && b[1] === 0xff) return new TextDecoder('utf-16be').decode(b);
  // Every other byte nought: two bytes a letter, and no mark to say so.
  const head = b.subarray(0, 400);
  const nought = (odd: number) => head.filter((v, i) => i % 2 === odd && v === 0).length;
  if (head.length >= 8 && nought(1) > 0.4 * (head.length / 2) && nought(0) === 0)
    return new TextDecoder('utf-16le').decode(b);
  if (head.length >= 8 && nought(0) > 0.4 * (head.length / 2) && nought(1) === 0)
    return new TextDecoder('utf-16be').decode(b);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(b);
  } catch {
    return new TextDecoder('windows-1252').decode(b);
  }
}
