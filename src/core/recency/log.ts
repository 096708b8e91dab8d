import type { RecencyEvent } from '@/domain/recency';
import type { TypedEvent } from './apply';

/** Flying as it is logged, or planned: one row of one type on one day. */
export interface LoggedFlying {
  id: string;
  date: string;
  takeoffs: number;
  landings: number;
  fullStops: number;
  night: boolean;
  surface: 'land' | 'water';
  /** The take-offs, where they were not where and when the landings were. */
  offNight?: boolean;
  offSurface?: 'land' | 'water';
}
/** What the rules look at of an aeroplane. `typeCode` empty = not in the hangar. */
export interface FlownIn {
  typeCode: string;
  engines: number;
  tailwheel: boolean;
}

/**
 * The class an aeroplane is flown in, by its engines and what it stood on.
 * @returns such as `single-engine-land`
 * @example classOf(2, 'land') // 'multi-engine-land'
 */
export const classOf = (engines: number, surface: 'land' | 'water'): string =>
  `${engines > 1 ? 'multi' : 'single'}-engine-${surface === 'water' ? 'sea' : 'land'}`;

/**
 * The same class by every pack's name for it: Australia has one for all single-engine and one for all multi-engine.
 * @returns names of classes
 * @example classNames('multi-engine-land') // ['multi-engine-land', 'multi-engine-aeroplane']
 */
export const classNames = (cls: string): string[] => [
  cls,
  `${cls.startsWith('multi') ? 'multi' : 'single'}-engine-aeroplane`,
];

/**
 * A logged row as recency counts it: full stops first, then the other landings, then the take-offs.
 * Source: 14 CFR 61.51, FCL.050.
 * @returns one event a landing and a take-off
 */
export function loggedEvents(flying: LoggedFlying, of: FlownIn): TypedEvent[] {
  const base: Omit<TypedEvent, 'id' | 'kind'> = {
    date: flying.date,
    typeCode: of.typeCode,
    class: classOf(of.engines, flying.surface),
    tailwheel: of.tailwheel,
    surface: flying.surface,
    night: flying.night,
    intervention: null,
    demonstration: false,
  };
  const row = (id: string, kind: RecencyEvent['kind'], times: number, fullStop?: boolean): TypedEvent[] =>
    times > 0 ? [{ ...base, id, kind, times, ...(fullStop === undefined ? {} : { fullStop }) }] : [];
  return [
    ...row(`${flying.id}:off`, 'takeoff', flying.takeoffs).map((e) => {
      const surface = flying.offSurface ?? flying.surface;
      return { ...e, surface, class: classOf(of.engines, surface), night: flying.offNight ?? flying.night };
    }),
    ...row(`${flying.id}:more`, 'landing', flying.landings - flying.fullStops, false),
    ...row(flying.id, 'landing', flying.fullStops, true),
  ];
}
