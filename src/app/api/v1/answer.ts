import { NextResponse } from 'next/server';
import { tokenUser } from '@/server/api/tokens';
import type { CurrentUser } from '@/server/auth/permissions';
import { currentUser } from '@/server/auth/session';

/** The caller: by personal token, or by the browser's session. */
export async function caller(request: Request): Promise<CurrentUser | null> {
  const header = request.headers.get('authorization');
  return header ? tokenUser(header) : currentUser();
}

/** Denied and absent answer alike. */
export const nothingHere = () => NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
