import type { Transaction } from 'sequelize';
import { Airframe, TypeSheet } from '@/domain/sheet';
import { row } from '../floor/connection';

const sheets = new Map<string, TypeSheet>();
const frames = new Map<string, Airframe>();
/** Versions never change, so each is validated once per process. */
export function parsedSheet(id: string, text: string): TypeSheet {
  const known = sheets.get(id) ?? TypeSheet.parse(JSON.parse(text));
  sheets.set(id, known);
  return known;
}
export function parsedAirframe(id: string, text: string): Airframe {
  const known = frames.get(id) ?? Airframe.parse(JSON.parse(text));
  frames.set(id, known);
  return known;
}

/** The text of a version, read only when it is not parsed yet: sheets are large and never change. */
async function versionText(table: 'type_versions' | 'airframe_versions', id: string, t?: Transaction): Promise<string> {
  const found = await row<{ sheet: string }>(`SELECT sheet FROM ${table} WHERE id = :id`, { id }, t);
  if (!found) throw new Error(`no version ${id}`);
  return found.sheet;
}

/** The sheet of a type as that version of it says. */
export const typeVersion = async (id: string, t?: Transaction): Promise<TypeSheet> =>
  sheets.get(id) ?? parsedSheet(id, await versionText('type_versions', id, t));
/** The sheet of an airframe as that version of it says. */
export const airframeVersion = async (id: string, t?: Transaction): Promise<Airframe> =>
  frames.get(id) ?? parsedAirframe(id, await versionText('airframe_versions', id, t));
