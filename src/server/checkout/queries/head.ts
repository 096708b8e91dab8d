import type { Transaction } from 'sequelize';
import { effectiveSheet, type Opening } from '@/core/plan';
import type { Airframe, TypeSheet } from '@/domain/sheet';
import type { CheckoutStatus, Goal, PackId } from '@/domain/words';
import { airframeVersion, parsedAirframe, parsedSheet, typeVersion } from '../../hangar/sheets';
import { row } from '../../floor/connection';

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

interface HeadRow {
  id: string;
  pilot_id: string;
  pilot_name: string;
  pilot_mass: number;
  instructor_id: string;
  instructor_name: string;
  registration: string;
  type_version_id: string;
  airframe_version_id: string;
  pack: PackId;
  goals: string;
  status: CheckoutStatus;
  signed_ledger_id: string | null;
  created_at: string;
  note: string;
  schools: string;
  opening: string;
  programme_ids: string;
  standard_id: string;
  pack_id: string;
  house_id: string;
  type_version: number;
  airframe_version: number;
}

/** A checkout with the versions it runs under; null when there is none. */
export async function checkoutHead(id: string, t?: Transaction): Promise<CheckoutHead | null> {
  const r = await row<HeadRow>(
    `SELECT c.*, p.name AS pilot_name, p.mass_kg AS pilot_mass, u.name AS instructor_name, a.registration, tv.version AS type_version, av.version AS airframe_version
     FROM checkouts c JOIN pilots p ON p.id = c.pilot_id JOIN users u ON u.id = c.instructor_id JOIN airframes a ON a.id = c.airframe_id
     JOIN type_versions tv ON tv.id = c.type_version_id JOIN airframe_versions av ON av.id = c.airframe_version_id WHERE c.id = :id`,
    { id },
    t,
  );
  if (!r) return null;
  const [type, airframe] = [await typeVersion(r.type_version_id, t), await airframeVersion(r.airframe_version_id, t)];
  return {
    id: r.id,
    pilotId: r.pilot_id,
    pilotName: r.pilot_name,
    pilotMassKg: r.pilot_mass,
    instructorId: r.instructor_id,
    instructorName: r.instructor_name,
    registration: r.registration,
    typeName: type.name,
    typeCode: type.code,
    pack: r.pack,
    goals: JSON.parse(r.goals) as Goal[],
    status: r.status,
    signedLedgerId: r.signed_ledger_id,
    createdAt: r.created_at,
    note: r.note,
    schools: JSON.parse(r.schools) as Record<string, string>,
    opening: JSON.parse(r.opening) as Opening,
    programmeIds: JSON.parse(r.programme_ids) as string[],
    standardId: r.standard_id,
    packId: r.pack_id,
    houseId: r.house_id,
    sheet: effectiveSheet(type, airframe),
    airframe,
    typeVersion: r.type_version,
    airframeVersion: r.airframe_version,
    typeVersionId: r.type_version_id,
    airframeVersionId: r.airframe_version_id,
  };
}

/** The sheets a checkout is pinned to, as they stand (not put together). */
export async function pinnedSheets(id: string): Promise<{ type: TypeSheet; airframe: Airframe } | null> {
  const r = await row<{ tid: string; aid: string; type_sheet: string; airframe_sheet: string }>(
    'SELECT tv.id AS tid, av.id AS aid, tv.sheet AS type_sheet, av.sheet AS airframe_sheet FROM checkouts c JOIN type_versions tv ON tv.id = c.type_version_id JOIN airframe_versions av ON av.id = c.airframe_version_id WHERE c.id = :id',
    { id },
  );
  return r ? { type: parsedSheet(r.tid, r.type_sheet), airframe: parsedAirframe(r.aid, r.airframe_sheet) } : null;
}
