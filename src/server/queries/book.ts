import type { SignOffBody } from '../commands/sign';
import { rows } from '../db/connection';
import { type CurrentUser, may } from '../auth/permissions';

export interface BookLine { seq: number; id: string; checkoutId: string; pilotId: string; signedAt: string; hash: string; body: SignOffBody; canonical: string }

/** Entries this user may see, newest first. */
export async function bookLines(user: CurrentUser, id?: string): Promise<BookLine[]> {
  const found = await rows<{ seq: number; id: string; checkout_id: string; pilot_id: string; signed_at: string; hash: string; canonical: string }>(
    `SELECT l.seq, l.id, l.checkout_id, c.pilot_id, l.signed_at, l.hash, l.canonical FROM ledger l JOIN checkouts c ON c.id = l.checkout_id
     WHERE 1 = 1 ${may.seeEverybody(user) ? '' : 'AND c.pilot_id = :pilotId'} ${id ? 'AND l.id = :id' : ''} ORDER BY l.seq DESC`,
    { pilotId: user.pilotId, id },
  );
  return found.map((l) => ({ seq: l.seq, id: l.id, checkoutId: l.checkout_id, pilotId: l.pilot_id, signedAt: l.signed_at, hash: l.hash, canonical: l.canonical, body: (JSON.parse(l.canonical) as { body: SignOffBody }).body }));
}
