import { NextResponse } from 'next/server';
import { list } from '@/core/format';
import { say } from '@/domain/words';
import { may } from '@/server/auth/permissions';
import { currentUser } from '@/server/auth/session';
import { checkoutList } from '@/server/queries/lists';
import { hangar } from '@/server/queries/hangar';

/** Everything the finder knows, for this user. */
export async function GET() {
  const user = await currentUser();
  if (!user) return NextResponse.json({ message: 'There is nothing here for you.' }, { status: 404 });
  const pages = [
    { title: 'Board', line: 'what waits for you', href: '/board' }, { title: 'Checkouts', line: 'all of them', href: '/checkouts' },
    ...(may.openCheckouts(user) ? [{ title: 'New checkout', line: 'open one', href: '/checkouts/new' }] : []),
    { title: 'Hangar', line: 'type sheets', href: '/hangar' }, { title: 'Ledger', line: 'the book of sign-offs', href: '/ledger' }, { title: 'Lab', line: 'models to play with', href: '/lab' }, { title: 'Lab: picture over the nose', line: 'sight picture', href: '/lab/sight-picture' }, { title: 'Lab: pace and reach', line: 'circuit', href: '/lab/circuit' }, { title: 'Lab: taxi and the tail', line: 'ground', href: '/lab/ground' }, { title: 'Account', line: 'your flying, theme, tokens', href: '/account' }, { title: 'Verify', line: 'a code or a file', href: '/verify' }, ...(may.seeEverybody(user) ? [{ title: 'Rules and programmes', line: 'packs, programmes, standards, house', href: '/rules' }] : []),
  ];
  const checkouts = (await checkoutList(user)).map((c) => ({ title: c.pilotName, line: `${c.registration} · ${list(c.goals.map(say))} · ${c.status}`, href: `/checkouts/${c.id}` }));
  const types = (await hangar()).map((t) => ({ title: t.sheet.name, line: t.airframes.map((a) => a.registration).join(', '), href: `/hangar/${t.code}` }));
  return NextResponse.json([...pages, ...checkouts, ...types]);
}
