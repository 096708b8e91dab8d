import { NextResponse } from 'next/server';
import { tryOnce } from '@/server/auth/limiter';
import { verifyCode, verifyFile } from '@/server/queries/verify';

const MAX_BYTES = 30_000_000;
const answer = (body: object, status = 200) => NextResponse.json(body, { status, headers: { 'cache-control': 'no-store' } });

/** Checks a printed code (`e`, `h`) or a file, for anybody: no account is asked. Says nothing of an entry whose full hash is not given. */
export async function POST(request: Request) {
  const address = request.headers.get('x-forwarded-for')?.split(',')[0]?.trim() ?? 'here';
  const wait = await tryOnce(`verify:${address}`);
  if (wait > 0) return answer({ message: `Too many checks from here. Wait ${wait} s, then try again.` }, 429);
  const stated = Number(request.headers.get('content-length') ?? '0');
  if (stated > MAX_BYTES) return answer({ message: 'The file is larger than 30 MB: check it with npm run verify-ledger.' }, 413);
  const q = new URL(request.url).searchParams;
  const [entry, hash] = [q.get('e'), q.get('h')];
  if (entry !== null || hash !== null) return answer(await verifyCode(entry ?? '', hash ?? ''));
  const bytes = Buffer.from(await request.arrayBuffer());
  if (stated > 0 && bytes.length !== stated) return answer({ message: 'The file came in cut short. Send it again.' }, 400);
  if (bytes.length === 0) return answer({ message: 'Choose a file, or type the code.' }, 400);
  return bytes.length > MAX_BYTES ? answer({ message: 'The file is larger than 30 MB: check it with npm run verify-ledger.' }, 413) : answer(await verifyFile(bytes));
}
