import { ATTRIBUTES, type AttributeKey } from '@/domain/handling';
import type { Airframe, TypeSheet } from '@/domain/sheet';
import type { AirframeFacts } from './goals';

/** The type sheet as it holds for one registration: the airframe's own values put over the type's. */
export function effectiveSheet(type: TypeSheet, airframe: Airframe): TypeSheet {
  return {
    ...type,
    dial: airframe.dialTable ? { ...type.dial, table: airframe.dialTable } : type.dial,
    masses: { ...type.masses, emptyKg: airframe.emptyKg ?? type.masses.emptyKg },
    loading: type.loading && airframe.emptyArmM ? { ...type.loading, emptyArmM: airframe.emptyArmM } : type.loading,
    equipment: [...type.equipment, ...airframe.equipment],
    attributes: type.attributes.map((a) => airframe.attributes.find((b) => b.key === a.key) ?? a),
    crosswind: {
      ...type.crosswind,
      flapTable: airframe.flapTable ?? type.crosswind.flapTable,
      flapTableSource: airframe.flapTable ? airframe.flapTableSource : type.crosswind.flapTableSource,
    },
  };
}

/** The facts of a sheet that decide what its pilot in command must hold. */
export function sheetFacts(sheet: TypeSheet): AirframeFacts {
  return {
    tailwheel: sheet.gear.layout === 'tailwheel',
    powerHp: sheet.engine.powerHp.value,
    retractable: sheet.gear.retractable,
    constantSpeedProp: sheet.engine.propeller === 'constant-speed',
    flaps: sheet.flapSteps.some((deg) => deg > 0),
    surface: sheet.surface,
    engines: sheet.engine.count,
    hull: sheet.gear.layout === 'hull',
  };
}

/**
 * Gear-and-mass group: crosswind experience counts only within one. Light to 750 kg, medium to 1200 kg, heavy above
 * (maximum take-off mass); light nosewheel wind proves nothing in a light tailwheel.
 */
export function gearMassGroup(sheet: TypeSheet): string {
  const kg = sheet.masses.maxTakeoffKg.value;
  return `${kg <= 750 ? 'light' : kg <= 1200 ? 'medium' : 'heavy'}-${sheet.gear.layout}`;
}

/** Step of the pilot's crosswind ladder, kt: 2 for the lightest class (to 600 kg), else 3. */
export const ladderStepKt = (sheet: TypeSheet): number => (sheet.masses.maxTakeoffKg.value <= 600 ? 2 : 3);

/** Attributes as the schools of a checkout have them. What the handbook says stays: it locks the choice. */
export function attributesBySchool(
  attributes: TypeSheet['attributes'],
  schools: Readonly<Record<string, string>>,
): TypeSheet['attributes'] {
  return attributes.map((a) => {
    const value = SCHOOL_VALUES[a.key]?.[schools[SCHOOL_OF[a.key] ?? ''] ?? ''];
    return value === undefined || a.source === 'handbook' || a.value === value
      ? a
      : { ...a, value, source: 'house', ref: 'school chosen on this checkout' };
  });
}
const SCHOOL_OF: Partial<Record<AttributeKey, string>> = { 'wing-drop': 'wing-drop', 'speed-school': 'approach-speed' };
const SCHOOL_VALUES: Partial<Record<AttributeKey, Record<string, string>>> = {
  'wing-drop': { rudder: ATTRIBUTES['wing-drop'].values[0], together: ATTRIBUTES['wing-drop'].values[1] },
  'speed-school': { constant: ATTRIBUTES['speed-school'].values[0], reducing: ATTRIBUTES['speed-school'].values[1] },
};
