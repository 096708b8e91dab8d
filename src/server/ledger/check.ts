import { inThread } from '../floor/thread';
import { attachedJson } from './attached';
import { type Checked, checkDocument, unreadable } from './verify';

export interface CheckJob {
  bytes: Uint8Array;
  trusted: Record<string, string>;
  mostEntries: number;
}
export type CheckDone = { attached: false } | { attached: true; checked: Checked };

/** What the thread does: takes the JSON out of a file and checks it against the keys given. */
export function checkWork({ bytes, trusted, mostEntries }: CheckJob): CheckDone {
  const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const json = buffer.subarray(0, 5).toString() === '%PDF-' ? attachedJson(buffer) : buffer.toString('utf8');
  return json === null ? { attached: false } : { attached: true, checked: checkDocument(json, trusted, mostEntries) };
}

/** The same off the main thread: anybody may send a file, and a file can be made to take long. */
export const checkInThread = (job: CheckJob, limitMs: number): Promise<CheckDone> =>
  inThread('check', job, checkWork, {
    limitMs,
    memoryMb: 400,
    tooMuch: {
      attached: true,
      checked: unreadable(
        'This file takes too long to check here. Check it away from here: npm run verify-ledger -- FILE.',
      ),
    },
  });
