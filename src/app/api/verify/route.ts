import { NextResponse } from 'next/server';
import { tryOnce } from '@/server/auth/limiter';
import { may } from '@/server/auth/permissions';
import { currentUser } from '@/server/auth/session';
import { verifyCode, verifyFile } from '@/server/queries/verify';

/** What a stranger may send: an entry, or a book of some hundred. The staff may send a whole one. */
const STRANGER_BYTES = 3_000_000;
const STAFF_BYTES = 60_000_000;
const tooLarge = () =>
  answer(
    {
      message:
        'This file is too large to be checked here without an account. Check it away from here: npm run verify-ledger -- FILE.',
    },
    413,
  );
const answer = (body: object, status = 200) =>
  NextResponse.json(body, { status, headers: { 'cache-control': 'no-store' } });

/**
 * Checks a printed code (`e`, `h`) or a file, for anybody: no account is asked. Says nothing of an entry whose full
 * hash is not given.
 */
export async function POST(request: Request) {
  // Behind TLS a proxy of ours says who asks; without one nothing in the request can be believed.
  const address =
    process.env.JEITO_HTTPS === '1'
      ? (request.headers.get('x-forwarded-for')?.split(',').pop()?.trim() ?? 'here')
      : 'here';
  const wait = await tryOnce(`verify:${address}`);
  if (wait > 0) return answer({ message: `Too many checks from here. Wait ${wait} s, then try again.` }, 429);
  const stated = Number(request.headers.get('content-length') ?? '0');
  const user = await currentUser();
  const most = user && may.exportBook(user) ? STAFF_BYTES : STRANGER_BYTES;
  if (stated > most) return tooLarge();
  const q = new URL(request.url).searchParams;
  const [entry, hash] = [q.get('e'), q.get('h')];
  if (entry !== null || hash !== null) return answer(await verifyCode(entry ?? '', hash ?? ''));
  const bytes = Buffer.from(await request.arrayBuffer());
  if (stated > 0 && bytes.length !== stated)
    return answer({ message: 'The file came in cut short. Send it again.' }, 400);
  if (bytes.length === 0) return answer({ message: 'Choose a file, or type the code.' }, 400);
  return bytes.length > most ? tooLarge() : answer(await verifyFile(bytes));
}
