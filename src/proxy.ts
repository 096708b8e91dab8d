import { type NextRequest, NextResponse } from 'next/server';
import { HSTS, pagePolicy } from '@/server/door/headers';

/**
 * What a page may load and run. Rendered pages get a nonce of their own with each answer; the cockpit's shell is one static
 * file and gets the hashes of what stands in it. Runs on pages alone: on the routes of the interface bodies are long, and a
 * proxy in front of them would hold them whole.
 */
export function proxy(request: NextRequest): NextResponse {
  const fixed = request.nextUrl.pathname === '/fly';
  const nonce = fixed ? null : Buffer.from(crypto.getRandomValues(new Uint8Array(18))).toString('base64');
  const policy = pagePolicy(nonce);
  const headers = new Headers(request.headers);
  // The renderer reads the nonce from here; one that came in from outside is none of ours.
  if (nonce === null) headers.delete('content-security-policy');
  else headers.set('content-security-policy', policy);
  const answer = NextResponse.next({ request: { headers } });
  answer.headers.set('content-security-policy', policy);
  if (process.env.JEITO_HTTPS === '1') answer.headers.set('strict-transport-security', HSTS);
  return answer;
}

export const config = {
  matcher: ['/((?!api/|_next/|.*\\.(?:js|css|map|woff2?|png|svg|ico|webmanifest|txt)$).*)'],
};
