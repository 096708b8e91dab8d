import { randomUUID } from 'node:crypto';
import type { Transaction } from 'sequelize';
import type { CurrentUser } from '../../floor/auth/permissions';
import { nowIso } from '../../floor/clock';
import type { Row } from '../../floor/table';
import type { CheckoutHead } from '../queries/head';
import { CheckoutMoves } from '../tables';

type Moved = Pick<Row<typeof CheckoutMoves>, 'typeTo' | 'airframeTo' | 'fromAirframeId' | 'toAirframeId'>;

/** Notes that a checkout goes on under something else, by whom and why; what is not named stays as it was. */
export async function noteMove(
  user: CurrentUser,
  head: CheckoutHead,
  reason: string,
  t: Transaction,
  to: Partial<Moved> = {},
): Promise<void> {
  await CheckoutMoves.insert(
    {
      id: randomUUID(),
      checkoutId: head.id,
      typeFrom: head.typeVersion,
      typeTo: head.typeVersion,
      airframeFrom: head.airframeVersion,
      airframeTo: head.airframeVersion,
      movedBy: user.id,
      movedAt: nowIso(),
      reason,
      fromAirframeId: null,
      toAirframeId: null,
      ...to,
    },
    t,
  );
}
