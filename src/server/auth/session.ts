import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { type SessionOptions, getIronSession } from 'iron-session';
import { cookies, headers } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import { cache } from 'react';
import { ensureDataFolder, inData } from '../data-folder';
import { row } from '../db/connection';
import type { CurrentUser } from './permissions';
import { type UserRow, toUser } from './session-user';

/** The sealed cookie holds these two and nothing else: it cannot be revoked, so roles are read on every request. */
interface SessionData {
  userId?: string;
  sessionVersion?: number;
}

const WEEK_S = 7 * 24 * 3600;

function sessionOptions(): SessionOptions {
  const file = inData('keys', 'session.key');
  if (!existsSync(file)) {
    ensureDataFolder();
    writeFileSync(file, randomBytes(48).toString('base64url'), { mode: 0o600, flag: 'wx' });
  }
  return {
    cookieName: 'jeito_session',
    password: readFileSync(file, 'utf8'),
    ttl: WEEK_S,
    cookieOptions: { httpOnly: true, sameSite: 'lax', secure: process.env.JEITO_HTTPS === '1', path: '/' },
  };
}

export async function startSession(userId: string, sessionVersion: number): Promise<void> {
  const session = await getIronSession<SessionData>(await cookies(), sessionOptions());
  session.userId = userId;
  session.sessionVersion = sessionVersion;
  await session.save();
}

export async function endSession(): Promise<void> {
  const session = await getIronSession<SessionData>(await cookies(), sessionOptions());
  session.destroy();
}

/** The signed-in user, or null. Read once per request. */
export const currentUser = cache(async (): Promise<CurrentUser | null> => {
  const session = await getIronSession<SessionData>(await cookies(), sessionOptions());
  if (!session.userId) return null;
  const found = await row<UserRow>('SELECT * FROM users WHERE id = :id', { id: session.userId });
  return found && found.session_version === session.sessionVersion && !found.closed_at ? toUser(found) : null;
});

/** The signed-in user; sends everybody else to the sign-in page. */
export async function requireUser(): Promise<CurrentUser> {
  return (await currentUser()) ?? redirect('/sign-in');
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
