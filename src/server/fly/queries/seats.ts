import { sharersOf } from '../../checkout/queries/lists';
import { checkoutHead } from '../../checkout/queries/head';
import { Sorties } from '../../checkout/tables';
import { Pilots } from '../../account/tables';
import { type CurrentUser, may } from '../../floor/auth/permissions';
import type { Seats } from '@/offline/protocol';

/** Who may swap seats in a flight, and who does; null when it is not this user's to record. */
export async function seatsOf(user: CurrentUser, sortieId: string): Promise<Seats | null> {
  const flight = await Sorties.first({
    where: { id: sortieId },
    pick: ['checkoutId', 'secondPilotId', 'secondCheckoutId', 'sharedWith'],
  });
  const head = flight && flight.sharedWith === null ? await checkoutHead(flight.checkoutId) : null;
  if (!flight || !head || !may.runCheckout(user, head)) return null;
  const id = flight.secondPilotId;
  const pilot = id === null ? null : await Pilots.first({ where: { id }, pick: ['name'] });
  return {
    pilots: await sharersOf(user, head),
    second:
      id !== null && pilot ? { pilotId: id, name: pilot.name, ownCheckout: flight.secondCheckoutId !== null } : null,
  };
}
