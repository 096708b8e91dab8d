import type { Transaction } from 'sequelize';
import { effectiveSheet, type Opening } from '@/core/plan';
import type { Airframe, TypeSheet } from '@/domain/sheet';
import type { CheckoutStatus, Goal, PackId } from '@/domain/words';
import { airframeVersion, parsedAirframe, parsedSheet, typeVersion } from '../../hangar/sheets';
import * as ask from '../../floor/statements/checkout';
import { Checkouts } from '../tables';

export interface CheckoutHead {
  id: string;
  pilotId: string;
  pilotName: string;
  pilotMassKg: number;
  instructorId: string;
  /** The aeroplane the checkout goes on in. */
  airframeId: string;
  instructorName: string;
  registration: string;
  typeName: string;
  typeCode: string;
  pack: PackId;
  goals: Goal[];
  status: CheckoutStatus;
  signedLedgerId: string | null;
  createdAt: string;
  note: string;
  schools: Record<string, string>;
  opening: Opening;
  programmeIds: string[];
  standardId: string;
  packId: string;
  houseId: string;
  sheet: TypeSheet;
  airframe: Airframe;
  typeVersion: number;
  airframeVersion: number;
  typeVersionId: string;
  airframeVersionId: string;
}

/** A checkout with the versions it runs under; null when there is none. */
export async function checkoutHead(id: string, t?: Transaction): Promise<CheckoutHead | null> {
  const r = await ask.checkoutHead.one({ id }, t);
  if (!r) return null;
  const [type, airframe] = [await typeVersion(r.typeVersionId, t), await airframeVersion(r.airframeVersionId, t)];
  return { ...r, typeName: type.name, typeCode: type.code, sheet: effectiveSheet(type, airframe), airframe };
}

/** The sheets a checkout is pinned to, as they stand (not put together). */
export async function pinnedSheets(id: string): Promise<{ type: TypeSheet; airframe: Airframe } | null> {
  const r = await Checkouts.first({
    where: { id },
    pick: ['id'],
    with: { typeVersion: ['id', 'sheet'], airframeVersion: ['id', 'sheet'] },
  });
  return r
    ? {
        type: parsedSheet(r.typeVersion.id, r.typeVersion.sheet),
        airframe: parsedAirframe(r.airframeVersion.id, r.airframeVersion.sheet),
      }
    : null;
}
