import { ATTRIBUTES, type AttributeKey } from '@/domain/handling';
import type { Airframe, TypeSheet } from '@/domain/sheet';
import type { AirframeFacts } from './goals';

/**
 * The type sheet as it holds for one registration: the airframe's own values put over the type's.
 * @returns a type sheet
 */
export function effectiveSheet(type: TypeSheet, airframe: Airframe): TypeSheet {
  // Airframes of before have no flows of their own.
  const flows = airframe.flows ?? [];
  return {
    ...type,
    dial: airframe.dialTable ? { ...type.dial, table: airframe.dialTable } : type.dial,
    masses: { ...type.masses, emptyKg: airframe.emptyKg ?? type.masses.emptyKg },
    loading: type.loading && airframe.emptyArmM ? { ...type.loading, emptyArmM: airframe.emptyArmM } : type.loading,
    equipment: [...type.equipment, ...airframe.equipment],
    flows: [
      ...type.flows.map((f) => flows.find((x) => x.name === f.name) ?? f),
      ...flows.filter((f) => !type.flows.some((x) => x.name === f.name)),
    ],
    goAroundFlow: airframe.goAroundFlow ?? type.goAroundFlow,
    electrical: airframe.electrical ?? type.electrical,
    attributes: type.attributes.map((a) => airframe.attributes.find((b) => b.key === a.key) ?? a),
    crosswind: {
      ...type.crosswind,
      flapTable: airframe.flapTable ?? type.crosswind.flapTable,
      flapTableSource: airframe.flapTable ? airframe.flapTableSource : type.crosswind.flapTableSource,
    },
  };
}

const FITTED_IS: Record<TypeSheet['features']['glass'], boolean | null> = { yes: true, no: false, 'not said': null };

/**
 * The facts of a sheet that decide what its pilot in command must hold. What the sheet does not say is null and stays
 * undecided; skis alone are no wheels forgotten, and are there only where the sheet says so.
 * @returns facts; null = the sheet does not say
 */
export function sheetFacts(sheet: TypeSheet): AirframeFacts {
  const f = sheet.features;
  return {
    glass: FITTED_IS[f.glass],
    turbocharged: FITTED_IS[f.turbocharged],
    pressurised: FITTED_IS[f.pressurised],
    singleLeverPower: FITTED_IS[f.singleLeverPower],
    // A constant-speed propeller settles what a digital engine control would.
    digitalEngineControl: sheet.engine.propeller === 'fixed' ? FITTED_IS[f.digitalEngineControl] : false,
    ceilingFt: f.ceilingFt?.value ?? null,
    skis: f.skis === 'yes',
    blindNose: sheet.attributes.some((a) => a.key === 'over-nose' && a.value === 'blind'),
    wheelLandings:
      sheet.gear.layout !== 'tailwheel' || sheet.landing.wheelLandings === 'not applicable'
        ? false
        : sheet.landing.wheelLandings === 'allowed',
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

/** Above it an engine is a powerful one: what the law of several countries calls high performance. */
const POWERFUL_HP = 200;

/**
 * Gear-and-mass group: crosswind experience counts only within one. Light to 750 kg, medium to 1200 kg, heavy above
 * (maximum take-off mass), the gear, and apart from those a nose that hides the runway and more than 200 hp an engine: a
 * blind aerobatic type proves nothing for a light trainer, nor the reverse.
 * @returns such as `light-tailwheel`, with what sets it apart added
 * @example gearMassGroup(lightTrainer) // 'light-tailwheel'
 * @example gearMassGroup(blindAerobatic) // 'light-tailwheel-blind-powerful'
 */
export function gearMassGroup(sheet: TypeSheet): string {
  const kg = sheet.masses.maxTakeoffKg.value;
  const blind = sheet.attributes.some((a) => a.key === 'over-nose' && a.value === 'blind');
  return [
    kg <= 750 ? 'light' : kg <= 1200 ? 'medium' : 'heavy',
    sheet.gear.layout,
    ...(blind ? ['blind'] : []),
    ...(sheet.engine.powerHp.value > POWERFUL_HP ? ['powerful'] : []),
  ].join('-');
}
/**
 * Mass and gear alone, as a school may set limits for all of them at once: `light-tailwheel`.
 * @returns such as `light-tailwheel`
 * @example broadGroup('light-tailwheel') // 'light-tailwheel'
 */
export const broadGroup = (group: string): string => group.split('-').slice(0, 2).join('-');

/**
 * Step of the pilot's crosswind ladder in a group, kt: 2 in the lightest, else 3.
 * @returns kt
 * @example ladderStepKt('light-tailwheel') // 2
 */
export const ladderStepKt = (group: string): number => (group.startsWith('light-') ? 2 : 3);

/**
 * What a school sets for a group: its own entry, else that of its mass and gear; undefined where there is neither.
 * @returns the entry
 */
export const ofGroup = <T>(entries: Readonly<Record<string, T>>, group: string): T | undefined =>
  entries[group] ?? entries[broadGroup(group)];

/**
 * The school's crosswind limit for a group. A group it has none for is not without a limit: the least of all its limits
 * holds, and `own` is false, until the chief sets one. Null only where the school has no crosswind limit at all.
 * @returns knots, and whether it is this group's own
 * @example schoolCrosswind({ 'light-tailwheel': 12 }, 'light-tailwheel-blind') // { kt: 12, own: true }
 */
export function schoolCrosswind(
  limits: Readonly<Record<string, number>>,
  group: string,
): { kt: number; own: boolean } | null {
  const own = ofGroup(limits, group);
  if (own !== undefined) return { kt: own, own: true };
  const all = Object.values(limits);
  return all.length === 0 ? null : { kt: Math.min(...all), own: false };
}

/**
 * Attributes as the schools of a checkout have them. What the handbook says stays: it locks the choice.
 * @returns attributes, locked ones unchanged
 */
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
