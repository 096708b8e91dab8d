import type { Transaction } from 'sequelize';
import { Airframe, TypeSheet } from '@/domain/sheet';
import { AirframeVersions, TypeVersions } from './tables';

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

const there = (id: string, found: { sheet: string } | null): string => {
  if (!found) throw new Error(`no version ${id}`);
  return found.sheet;
};
/** The sheet of a type as that version of it says. Sheets are large: the text is read only when it is not parsed yet. */
export const typeVersion = async (id: string, t?: Transaction): Promise<TypeSheet> =>
  sheets.get(id) ?? parsedSheet(id, there(id, await TypeVersions.first({ where: { id }, pick: ['sheet'] }, t)));
/** The sheet of an airframe as that version of it says. */
export const airframeVersion = async (id: string, t?: Transaction): Promise<Airframe> =>
  frames.get(id) ?? parsedAirframe(id, there(id, await AirframeVersions.first({ where: { id }, pick: ['sheet'] }, t)));
