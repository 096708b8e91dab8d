import type { Transaction } from 'sequelize';
import { effectiveSheet, type Opening } from '@/core/plan';
import type { Airframe, TypeSheet } from '@/domain/sheet';
import type { CheckoutStatus, Goal, PackId } from '@/domain/words';
import { airframeVersion, parsedAirframe, parsedSheet, typeVersion } from '../../hangar/sheets';
import { Checkouts } from '../tables';

export interface CheckoutHead {
  id: string;
  pilotId: string;
  pilotName: string;
  pilotMassKg: number;
  instructorId: string;
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
  const r = await Checkouts.first(
    {
      where: { id },
      pick: [
        'id',
        'pilotId',
        'instructorId',
        'airframeVersionId',
        'typeVersionId',
        'pack',
        'goals',
        'programmeIds',
        'standardId',
        'packId',
        'houseId',
        'schools',
        'opening',
        'note',
        'status',
        'signedLedgerId',
        'createdAt',
      ],
      with: {
        pilot: ['name', 'massKg'],
        instructor: ['name'],
        airframe: ['registration'],
        typeVersion: ['version'],
        airframeVersion: ['version'],
      },
    },
    t,
  );
  if (!r) return null;
  const [type, airframe] = [await typeVersion(r.typeVersionId, t), await airframeVersion(r.airframeVersionId, t)];
  return {
    id: r.id,
    pilotId: r.pilotId,
    pilotName: r.pilot.name,
    pilotMassKg: r.pilot.massKg,
    instructorId: r.instructorId,
    instructorName: r.instructor.name,
    registration: r.airframe.registration,
    typeName: type.name,
    typeCode: type.code,
    pack: r.pack,
    goals: r.goals,
    status: r.status,
    signedLedgerId: r.signedLedgerId,
    createdAt: r.createdAt,
    note: r.note,
    schools: r.schools,
    opening: r.opening,
    programmeIds: r.programmeIds,
    standardId: r.standardId,
    packId: r.packId,
    houseId: r.houseId,
    sheet: effectiveSheet(type, airframe),
    airframe,
    typeVersion: r.typeVersion.version,
    airframeVersion: r.airframeVersion.version,
    typeVersionId: r.typeVersionId,
    airframeVersionId: r.airframeVersionId,
  };
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
