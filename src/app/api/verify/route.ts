import { told } from '@/server/door/sentences';
import { NextResponse } from 'next/server';
import { takeTry } from '@/server/floor/auth/limiter';
import { may } from '@/server/floor/auth/permissions';
import { door, refusal } from '@/server/door/route';
import { verifyCode, verifyFile } from '@/server/ledger/queries/verify';

/** What a stranger may send: an entry, or a book of some hundred. The staff may send a whole one. */
const STRANGER = { bytes: 3_000_000, limitMs: 8_000, mostEntries: 2_000 };
const STAFF = { bytes: 60_000_000, limitMs: 60_000, mostEntries: 200_000 };

/**
 * Checks a printed code (`e`, `h`) or a file, for anybody: no account is asked. Says nothing of an entry whose full
 * hash is not given. Files are counted as they stream in, read in a thread with a time limit, one at a time.
 */
export const POST = door(
  { who: 'anyone', heavy: 'verify', mostBytes: (user) => (user && may.exportBook(user) ? STAFF : STRANGER).bytes },
  async ({ user, address, query, bytes }) => {
    const wait = await takeTry('open', `verify ${address}`);
    if (wait > 0) return refusal(429, told('too-many-checks', { seconds: wait }));
    const [entry, hash] = [query.get('e'), query.get('h')];
    if (entry !== null || hash !== null) return NextResponse.json(await verifyCode(entry ?? '', hash ?? ''));
    const file = await bytes();
    if (file.length === 0) return refusal(400, told('file-or-code'));
    return NextResponse.json(await verifyFile(file, user && may.exportBook(user) ? STAFF : STRANGER));
  },
);
