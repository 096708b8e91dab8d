import { randomUUID } from 'node:crypto';
import Bowser from 'bowser';
import { type SessionOptions, getIronSession } from 'iron-session';
import { cookies, headers } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import { cache } from 'react';
import { Op } from 'sequelize';
import { nowIso } from '../clock';
import { Sessions } from '../../account/tables';
import { write } from '../write';
import { installationSecret } from './keyed';
import { PAGE_HEADER } from './page-header';
import type { CurrentUser } from './permissions';
import { lacksFactor } from './second-factor';
import { USER, toUser } from './session-user';

/**
 * The sealed cookie holds these three and nothing else: it cannot be revoked, so whether the session still stands, and
 * the roles, are read on every request.
 */
interface SessionData {
  userId?: string;
  sessionVersion?: number;
  sessionId?: string;
}

const WEEK_S = 7 * 24 * 3600;

function sessionOptions(): SessionOptions {
  return {
    cookieName: 'jeito_session',
    password: installationSecret(),
    ttl: WEEK_S,
    cookieOptions: { httpOnly: true, sameSite: 'lax', secure: process.env.JEITO_HTTPS === '1', path: '/' },
  };
}

const cookieSession = async () => getIronSession<SessionData>(await cookies(), sessionOptions());

/** Starts a session in this browser; the one it had before ends. */
export async function startSession(userId: string, sessionVersion: number): Promise<void> {
  const session = await cookieSession();
  await endById(session.sessionId);
  const id = randomUUID();
  const device = deviceOf((await headers()).get('user-agent'));
  const old = new Date(Date.parse(nowIso()) - WEEK_S * 1000).toISOString();
  await write(async (t) => {
    await Sessions.delete({ madeAt: { [Op.lt]: old } }, t);
    await Sessions.insert({ id, userId: userId, madeAt: nowIso(), endedAt: null, device }, t);
  });
  session.userId = userId;
  session.sessionVersion = sessionVersion;
  session.sessionId = id;
  await session.save();
}

/** What somebody knows their device by: the browser and what it runs on. */
const deviceOf = (agent: string | null): string => {
  const { browser, os } = Bowser.parse(agent || '-');
  return [browser.name, os.name].filter(Boolean).join(' on ').slice(0, 80);
};

/** The session this browser has now; null = none. */
export const sessionId = async (): Promise<string | null> =>
  (await cookieSession().catch(() => null))?.sessionId ?? null;

export async function endSession(): Promise<void> {
  const session = await cookieSession();
  await endById(session.sessionId);
  session.destroy();
}
/** A copy of the cookie kept elsewhere ends with it. */
async function endById(id: string | undefined): Promise<void> {
  if (id === undefined) return;
  await write(async (t) => void (await Sessions.update({ endedAt: nowIso() }, { id, endedAt: null }, t)));
}

/** Who has signed in here, even before a second factor that their role requires is set up. Read once per request. */
export const signedInUser = cache(async (): Promise<CurrentUser | null> => {
  // A cookie that is none of ours is no session.
  const session = await cookieSession().catch(() => null);
  if (!session?.userId || !session.sessionId) return null;
  const found = await Sessions.first({
    where: { id: session.sessionId, userId: session.userId, endedAt: null },
    pick: [],
    with: { user: [...USER, 'sessionVersion', 'closedAt'] },
  });
  const user = found?.user;
  return user && user.sessionVersion === session.sessionVersion && !user.closedAt ? toUser(user) : null;
});

/** The signed-in user, or null: also for who has to set up a second factor first. */
export const currentUser = cache(async (): Promise<CurrentUser | null> => {
  const user = await signedInUser();
  return user && !(await lacksFactor(user)) ? user : null;
});

/** The signed-in user; sends everybody else to the sign-in page, which brings them back to the page they asked for. */
export async function requireUser(): Promise<CurrentUser> {
  const user = await currentUser();
  if (user) return user;
  if (await signedInUser()) redirect('/second-factor');
  const had = (await cookieSession().catch(() => null))?.sessionId !== undefined;
  const page = (await headers()).get(PAGE_HEADER);
  const asked = new URLSearchParams({
    ...(page !== null && page !== '/board' ? { back: page } : {}),
    ...(had ? { ended: '1' } : {}),
  });
  redirect(asked.size > 0 ? `/sign-in?${asked.toString()}` : '/sign-in');
}

/** Every denied route answers alike, whether or not the thing exists. */
export function denyUnless(allowed: boolean): asserts allowed {
  if (!allowed) notFound();
}

/** Refuses requests that another site made the browser send. Server actions have the same check from Next itself. */
export async function sameOrigin(): Promise<boolean> {
  const h = await headers();
  const site = h.get('sec-fetch-site');
  if (site !== null && site !== 'same-origin' && site !== 'none') return false;
  const origin = h.get('origin');
  return origin === null || URL.parse(origin)?.host === h.get('host');
}
