import { type NextRequest, NextResponse } from 'next/server';
import { takeTry } from '@/server/floor/auth/limiter';
import { addressOf } from '@/server/door/address';
import { PAGE_HEADER } from '@/server/floor/auth/page-header';
import { HSTS, pagePolicy } from '@/server/door/headers';

/** Pages made at the build and kept on the device. */
const FIXED = ['/fly', '/offline'];

/**
 * What a page may load and run. Rendered pages get a nonce of their own with each answer; the cockpit's shell and the page
 * without a network are static files and get the hashes of what stands in them. Runs on pages alone: on the routes of the
 * interface bodies are long, and a proxy in front of them would hold them whole.
 */
export async function proxy(request: NextRequest): Promise<NextResponse> {
  if (request.method === 'POST' && request.nextUrl.pathname === '/sign-in') {
    const wait = await takeTry('sent', addressOf(request.headers));
    if (wait > 0)
      return new NextResponse(`Too many sign-ins from here. Wait ${wait} s, then try again.`, {
        status: 429,
        headers: { 'retry-after': String(wait) },
      });
  }
  const fixed = FIXED.includes(request.nextUrl.pathname);
  const nonce = fixed ? null : Buffer.from(crypto.getRandomValues(new Uint8Array(18))).toString('base64');
  const policy = pagePolicy(nonce);
  const headers = new Headers(request.headers);
  // The renderer reads the nonce from here; one that came in from outside is none of ours.
  if (nonce === null) headers.delete('content-security-policy');
  else headers.set('content-security-policy', policy);
  // Where somebody whose session has ended comes back to after signing in.
  headers.set(PAGE_HEADER, `${request.nextUrl.pathname}${request.nextUrl.search}`.slice(0, 500));
  const answer = NextResponse.next({ request: { headers } });
  answer.headers.set('content-security-policy', policy);
  if (process.env.JEITO_HTTPS === '1') answer.headers.set('strict-transport-security', HSTS);
  return answer;
}

export const config = {
  // Files that lie in public/ or are made at the build; anything else is a page, whatever its name ends with.
  matcher: ['/((?!api/|_next/|sw\\.js$|icon(?:-\\d+)?\\.(?:png|svg)$|favicon\\.ico$|manifest\\.webmanifest$).*)'],
};
