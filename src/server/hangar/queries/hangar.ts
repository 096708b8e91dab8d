import { effectiveSheet } from '@/core/plan';
import type { Airframe, TypeSheet } from '@/domain/sheet';
import { parsedAirframe, parsedSheet } from '../sheets';
import * as ask from '../../floor/statements/hangar';
import { AirframeVersions, TypeVersions } from '../tables';

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
  const types = await ask.hangar.all();
  const frames = await ask.hangarAirframes.all();
  return types.map((t) => {
    const sheet = parsedSheet(t.versionId, t.sheet);
    return {
      code: t.code,
      version: t.version,
      author: t.author,
      reason: t.reason,
      createdAt: t.createdAt,
      sheet,
      airframes: frames
        .filter((f) => f.typeId === t.id)
        .map((f) => {
          const airframe = parsedAirframe(f.versionId, f.sheet);
          return {
            id: f.id,
            registration: f.registration,
            versionId: f.versionId,
            version: f.version,
            airframe,
            typeVersionId: t.versionId,
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
  const found = await TypeVersions.find({ with: { type: { pick: [], where: { code } } }, order: ['-version'] });
  return found.map((v) => ({
    id: v.id,
    version: v.version,
    author: v.author,
    reason: v.reason,
    createdAt: v.createdAt,
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
  const found = await AirframeVersions.find({
    with: { airframe: { pick: [], where: { registration } } },
    order: ['-version'],
  });
  return found.map((v) => ({
    id: v.id,
    version: v.version,
    author: v.author,
    reason: v.reason,
    createdAt: v.createdAt,
    airframe: parsedAirframe(v.id, v.sheet),
  }));
}
