import type { TypeSheet } from '@/domain/sheet';
import { coder } from '@/domain/coded';
import { GROUND_NEEDS, SLIP_NEEDS, SLOW_NEEDS, TOUCH_NEEDS } from './dynamics';
import { GAP_WORDS, type SheetGap } from './gap-words';

const gap = coder(GAP_WORDS);
type Partly<T> = T extends readonly (infer U)[]
  ? Partly<U>[]
  : T extends object
    ? { [K in keyof T]?: Partly<T[K]> | null }
    : T;

/**
 * What is not on a sheet and what does not work without it. A gap is no fault: a sheet is used with it.
 * @param sheet whole or half filled
 * @returns one code a gap with the field it is about, in the order of the sheet
 * @example sheetGaps({ stalls: [] }).some((g) => g.code === 'loading') // true
 */
export function sheetGaps(sheet: unknown): SheetGap[] {
  const s = (sheet ?? {}) as Partly<TypeSheet>;
  const none = (list: unknown): boolean => !Array.isArray(list) || list.length === 0;
  const g = s.geometry ?? {};
  const flaps = (s.flapSteps ?? []).some((deg) => typeof deg === 'number' && deg > 0);
  const retracts = s.gear?.retractable === true;
  const twin = (s.engine?.count ?? 1) > 1;
  const lawful = ['glass', 'turbocharged', 'pressurised', 'singleLeverPower', 'digitalEngineControl', 'skis'] as const;
  const unsaid = lawful.some((k) => (s.features?.[k] ?? 'not said') === 'not said') || !s.features?.ceilingFt;
  const sizes = [g.lengthM, g.heightM, g.propDiameterM, g.groundPitchDeg, g.eyeHeightM];
  const modelled = [...GROUND_NEEDS, ...TOUCH_NEEDS, ...SLIP_NEEDS, ...SLOW_NEEDS];
  const found: [boolean, string, SheetGap['code']][] = [
    [unsaid, 'features', 'law-features'],
    [retracts && none(s.gear?.lamps), 'gear.lamps', 'gear-lamps'],
    [retracts && (!s.speeds?.vle || !s.speeds.vloExtend), 'speeds.vloExtend', 'gear-limits'],
    [flaps && none(s.speeds?.vfe), 'speeds.vfe', 'flap-limits'],
    [!s.crosswind?.limitationKt && !s.crosswind?.demonstratedKt, 'crosswind.demonstratedKt', 'crosswind'],
    [!s.crosswind?.tailwindLimitKt, 'crosswind.tailwindLimitKt', 'tailwind'],
    [none(s.afterLimit), 'afterLimit', 'after-limit'],
    [none(s.dial?.table), 'dial.table', 'dial-error'],
    [!s.speeds?.vr, 'speeds.vr', 'rotation-speed'],
    [twin && !s.twin, 'twin', 'one-engine'],
    [twin && s.twin !== null && s.twin !== undefined && none(s.twin.accelerateStop), 'twin', 'accelerate-stop'],
    [!s.landing?.touchdownM, 'landing.touchdownM', 'touchdown-point'],
    [!s.landing?.minWidthM, 'landing.minWidthM', 'runway-width'],
    [s.surface === 'amphibian' && !s.onLand, 'onLand', 'on-land'],
    [!s.distances || (none(s.distances.takeoff) && none(s.distances.landing)), 'distances', 'distances'],
    [!s.loading, 'loading', 'loading'],
    [Boolean(s.loading) && !s.loading?.trim, 'loading.trim', 'trim'],
    [none(s.powerTable), 'powerTable', 'powers'],
    [!s.electrical, 'electrical', 'electrics'],
    [sizes.some((x) => !x), 'geometry', 'dimensions'],
    [!s.sight, 'sight', 'sight'],
    [modelled.some((k) => !s.dynamics?.[k]), 'dynamics', 'dynamics'],
    [none(s.instructorSeat), 'instructorSeat', 'seat'],
    [none(s.flows), 'flows', 'flows'],
    [none(s.attributes), 'attributes', 'attributes'],
  ];
  return found.filter(([missing]) => missing).map(([, path, code]) => ({ ...gap(code), path }));
}
