import { NextResponse } from 'next/server';
import { door, refusal } from '@/server/door/route';
import { told } from '@/server/door/sentences';
import { ChangesQuery } from '@/server/interface/paths';
import { changesRead } from '@/server/interface/queries/changes';
import { asked } from '@/server/interface/reads';

export const GET = door({ who: 'caller', scope: 'any' }, async ({ user, scopes, query }) => {
  const q = asked(query, ChangesQuery);
  if (!q.ok) return q.refusal;
  const found = await changesRead(user, scopes, q.value);
  return found ? NextResponse.json(found) : refusal(410, told('read-again'), 'since');
});
