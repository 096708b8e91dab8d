import { effectiveSheet } from '@/core/plan';
import type { Airframe, TypeSheet } from '@/domain/sheet';
import { rows } from '../../floor/connection';
import { parsedAirframe, parsedSheet } from '../sheets';

export interface HangarAirframe {
  id: string;
  registration: string;
  versionId: string;
  version: number;
  airframe: Airframe;
  typeVersionId: string;
  type: TypeSheet;
  effective: TypeSheet;
}
export interface HangarType {
  code: string;
  version: number;
  author: string;
  reason: string;
  createdAt: string;
  sheet: TypeSheet;
  airframes: HangarAirframe[];
}

/** Every type with its airframes, each at its newest version. */
export async function hangar(): Promise<HangarType[]> {
  const types = await rows<{
    id: string;
    code: string;
    version_id: string;
    version: number;
    sheet: string;
    author: string;
    reason: string;
    created_at: string;
  }>(
    `SELECT t.id, t.code, v.id AS version_id, v.version, v.sheet, v.author, v.reason, v.created_at FROM types t
     JOIN type_versions v ON v.type_id = t.id AND v.version = (SELECT MAX(version) FROM type_versions WHERE type_id = t.id) ORDER BY t.name`,
  );
  const frames = await rows<{
    id: string;
    registration: string;
    type_id: string;
    version_id: string;
    version: number;
    sheet: string;
  }>(
    `SELECT a.id, a.registration, a.type_id, v.id AS version_id, v.version, v.sheet FROM airframes a
     JOIN airframe_versions v ON v.airframe_id = a.id AND v.version = (SELECT MAX(version) FROM airframe_versions WHERE airframe_id = a.id) ORDER BY a.registration`,
  );
  return types.map((t) => {
    const sheet = parsedSheet(t.version_id, t.sheet);
    return {
      code: t.code,
      version: t.version,
      author: t.author,
      reason: t.reason,
      createdAt: t.created_at,
      sheet,
      airframes: frames
        .filter((f) => f.type_id === t.id)
        .map((f) => {
          const airframe = parsedAirframe(f.version_id, f.sheet);
          return {
            id: f.id,
            registration: f.registration,
            versionId: f.version_id,
            version: f.version,
            airframe,
            typeVersionId: t.version_id,
            type: sheet,
            effective: effectiveSheet(sheet, airframe),
          };
        }),
    };
  });
}

export interface SheetVersion {
  id: string;
  version: number;
  author: string;
  reason: string;
  createdAt: string;
  sheet: TypeSheet;
}
/** Every version of a type sheet, newest first. */
export async function typeVersions(code: string): Promise<SheetVersion[]> {
  const found = await rows<{
    id: string;
    version: number;
    author: string;
    reason: string;
    created_at: string;
    sheet: string;
  }>('SELECT v.* FROM type_versions v JOIN types t ON t.id = v.type_id WHERE t.code = :code ORDER BY v.version DESC', {
    code,
  });
  return found.map((v) => ({
    id: v.id,
    version: v.version,
    author: v.author,
    reason: v.reason,
    createdAt: v.created_at,
    sheet: parsedSheet(v.id, v.sheet),
  }));
}

export interface AirframeVersion {
  id: string;
  version: number;
  author: string;
  reason: string;
  createdAt: string;
  airframe: Airframe;
}
export async function airframeVersions(registration: string): Promise<AirframeVersion[]> {
  const found = await rows<{
    id: string;
    version: number;
    author: string;
    reason: string;
    created_at: string;
    sheet: string;
  }>(
    'SELECT v.* FROM airframe_versions v JOIN airframes a ON a.id = v.airframe_id WHERE a.registration = :registration ORDER BY v.version DESC',
    { registration },
  );
  return found.map((v) => ({
    id: v.id,
    version: v.version,
    author: v.author,
    reason: v.reason,
    createdAt: v.created_at,
    airframe: parsedAirframe(v.id, v.sheet),
  }));
}
