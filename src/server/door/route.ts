import { type Told, worded } from '../floor/sentences';
import { SCOPE_NAME, type Scope } from '@/domain/scopes';
import { told } from './sentences';
import { NextResponse } from 'next/server';
import { tokenUser } from '../account/commands/tokens';
import type { CurrentUser } from '../floor/auth/permissions';
import { currentUser, sameOrigin } from '../floor/auth/session';
import { diskProblem, log } from '../floor/log';
import { addressOf } from './address';
import { NOT_FOUND, problemAt } from '../floor/result';
import { BadBody, bodyBytes, bodyForm } from './body';
import { Busy, type Heavy, heavy } from '../floor/busy';
import { clean } from '../floor/clean';
import { stopping, underWay } from '../floor/under-way';
import { HSTS } from './headers';

/** Who may come in: anybody, who is signed in, or who is signed in or carries a token. */
export type Who = 'anyone' | 'signed-in' | 'caller';
type Rules<W extends Who> = Common & { who: W } & (W extends 'caller'
    ? {
        /** What a token must have been given; 'any' = it is asked within. */
        scope: Scope | 'any';
      }
    : { scope?: never });
interface Common {
  /** It changes something: a browser's request must come from this site. */
  writes?: boolean;
  /** The most that is read of a body. */
  mostBytes?: (user: CurrentUser | null) => number;
  /** It takes a core for a while: so many at a time. */
  heavy?: Heavy;
  /** What who is not signed in is told, where keeping it back would lose something. */
  signIn?: Told;
}
export interface Call<P, U> {
  request: Request;
  query: URLSearchParams;
  params: P;
  user: U;
  /** What the token was given; null = a person who is signed in. */
  scopes: readonly Scope[] | null;
  address: string;
  bytes: () => Promise<Buffer>;
  form: () => Promise<FormData>;
  /** The body as JSON, cleaned; undefined = it is none. */
  json: () => Promise<unknown>;
}
type Caller<W extends Who> = W extends 'anyone' ? CurrentUser | null : CurrentUser;

/** Denied and absent answer alike. */
export const nothingHere = (): NextResponse => NextResponse.json({ message: NOT_FOUND.message }, { status: 404 });
export const refusal = (status: number, what: Told, path = ''): NextResponse =>
  NextResponse.json({ ok: false, message: what.message, problems: [problemAt(path, what)] }, { status });

const JSON_BYTES = 2_000_000;

/**
 * The one door of the interface: who asks, from where, how much, how often, and what every answer carries. A handler
 * that gives null was asked for something that is not there, or not for this person.
 */
export function door<W extends Who, P extends Record<string, string> = Record<never, string>>(
  rules: Rules<W>,
  handle: (call: Call<P, Caller<W>>) => Promise<Response | null>,
) {
  return async (request: Request, context: { params: Promise<P> }): Promise<Response> => {
    const late = rules.who === 'anyone' ? null : stopping();
    if (late) {
      const soon = refusal(503, late);
      soon.headers.set('retry-after', '30');
      return dressed(soon);
    }
    return underWay(async () =>
      dressed(await enter(rules, handle, request, context).catch((error: unknown) => failed(error, request))),
    );
  };
}

async function enter<W extends Who, P extends Record<string, string>>(
  rules: Rules<W>,
  handle: (call: Call<P, Caller<W>>) => Promise<Response | null>,
  request: Request,
  context: { params: Promise<P> },
): Promise<Response> {
  const bearer = rules.who === 'caller' ? request.headers.get('authorization') : null;
  const token = bearer ? await tokenUser(bearer) : null;
  const user = bearer ? (token?.user ?? null) : await currentUser();
  if (!user && rules.who !== 'anyone') return rules.signIn ? refusal(401, rules.signIn) : nothingHere();
  // Said before anything is looked up: it tells of the token and of nothing else.
  const { scope } = rules;
  if (token && scope && scope !== 'any' && !token.scopes.includes(scope))
    return refusal(403, told('no-scope', { name: SCOPE_NAME[scope] }));
  // A token is sent by a program on purpose; a cookie is sent by whatever page asks for it.
  if (rules.writes && !bearer && !(await sameOrigin())) return nothingHere();
  const most = () => rules.mostBytes?.(user) ?? JSON_BYTES;
  const address = addressOf(request.headers);
  const bytes = () => bodyBytes(request, most());
  const call: Call<P, Caller<W>> = {
    request,
    query: new URL(request.url).searchParams,
    params: await context.params,
    user: user as Caller<W>,
    scopes: token?.scopes ?? null,
    address,
    bytes,
    form: () => bodyForm(request, most()),
    json: async () => {
      try {
        const cleaned = clean<unknown>(JSON.parse((await bytes()).toString('utf8')));
        return cleaned.ok ? cleaned.value : undefined;
      } catch (error) {
        if (error instanceof BadBody) throw error;
        return undefined;
      }
    },
  };
  const work = () => handle(call);
  const kind = rules.heavy;
  return (kind ? await heavy(kind, user?.id ?? address, work) : await work()) ?? nothingHere();
}

function failed(error: unknown, request: Request): NextResponse {
  if (error instanceof BadBody) return refusal(error.status, worded('body', error.message), 'file');
  if (error instanceof Busy) {
    const busy = refusal(429, told('busy-work'));
    busy.headers.set('retry-after', '60');
    return busy;
  }
  log.error(
    { err: error, method: request.method, path: new URL(request.url).pathname.slice(0, 120) },
    'request failed',
  );
  const full = diskProblem(error);
  return full ? refusal(507, full) : refusal(500, told('failed'));
}

/** What is about people is kept nowhere on the way, unless a handler says otherwise. */
function dressed(answer: Response): Response {
  if (!answer.headers.has('cache-control')) answer.headers.set('cache-control', 'private, no-store');
  if (process.env.JEITO_HTTPS === '1') answer.headers.set('strict-transport-security', HSTS);
  return answer;
}
/** A file to save or to look at. */
export const fileAnswer = (
  body: string | Uint8Array,
  of: { type: string; name: string; inline?: boolean },
): NextResponse =>
  new NextResponse(typeof body === 'string' ? body : new Uint8Array(body), {
    headers: {
      'content-type': of.type,
      'content-disposition': `${of.inline ? 'inline' : 'attachment'}; filename="${of.name.replace(/[^\w. -]/g, '_')}"`,
    },
  });
