import { constants, inflateSync } from 'node:zlib';

/** Longest text taken out of a PDF: a small file may unpack to a very large one. */
const MAX_ATTACHED = 4_000_000;
/** Our own PDFs carry one attachment. Looked at are the first few of a file, within a short way of their mark. */
const MOST_ATTACHED = 8;
const HEADER = 2000;
const MARK = '/EmbeddedFile';

/**
 * The text of the JSON attached to a PDF; null when there is none. Read from the bytes of the embedded file alone:
 * anybody may send a file here, and a general reader unpacks whatever it is given. Every byte is passed at most twice,
 * and at most {@link MOST_ATTACHED} attachments are unpacked.
 */
export function attachedJson(bytes: Uint8Array): string | null {
  const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let looked = 0;
  let at = buffer.indexOf(MARK, 0, 'latin1');
  while (at >= 0 && looked < MOST_ATTACHED) {
    const next = at + MARK.length;
    const follows = String.fromCharCode(buffer[next] ?? 0);
    if (!/[A-Za-z]/.test(follows)) {
      looked++;
      const begins = buffer.subarray(at, at + HEADER).indexOf('stream', 0, 'latin1');
      const from = begins < 0 ? -1 : at + begins + 6 + (buffer[at + begins + 6] === 0x0d ? 2 : 1);
      const until = from < 0 ? -1 : buffer.indexOf('endstream', from, 'latin1');
      if (until >= 0) {
        const text = unpacked(buffer, at, begins, buffer.subarray(from, until));
        if (text !== null) return text;
        // What lies inside an attachment is no mark of another.
        at = buffer.indexOf(MARK, until, 'latin1');
        continue;
      }
      if (from >= 0) return null;
    }
    at = buffer.indexOf(MARK, next, 'latin1');
  }
  return null;
}

function unpacked(buffer: Buffer, at: number, begins: number, data: Buffer): string | null {
  const before = buffer.subarray(Math.max(0, at - HEADER), at + begins).toString('latin1');
  const header = before.slice(Math.max(0, before.lastIndexOf(' obj', HEADER)));
  try {
    const plain = header.includes('/FlateDecode')
      ? inflateSync(data, { maxOutputLength: MAX_ATTACHED, finishFlush: constants.Z_SYNC_FLUSH })
      : data;
    return plain[0] === 0x7b && plain.length <= MAX_ATTACHED * 20 ? plain.toString('utf8').trimEnd() : null;
  } catch {
    return null;
  }
}
