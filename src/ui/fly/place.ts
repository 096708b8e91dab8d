import { components } from '@/core/wind';
import { NO_CROSSWIND_KT } from '@/domain/touch';
import type { LoggedWind } from '@/domain/capture';
import { say } from '@/domain/words';
import type { SortiePack } from '@/offline/protocol';

/** What the runway and the wind of a landing leave to be asked, and in which words. */
export interface Place {
  water: boolean;
  /** Tailwheel words and rows: none on water. */
  tailwheel: boolean;
  /** There is wind across, or it is not known that there is none. */
  across: boolean;
  swing: string;
  threshold: string;
}

/** @param wind the wind of this landing; null = none logged, and so there may be any */
export function placeOf(pack: SortiePack, runwayEnd: string, wind: LoggedWind | null): Place {
  const end = pack.runways.find((r) => r.ident === runwayEnd);
  const water = end?.surface === 'water';
  const c = wind && end ? components(wind.fromDegMag, wind.kt, wind.gustKt, end.magneticDeg) : null;
  return {
    water,
    tailwheel: pack.tailwheel && !water,
    across: c === null || Math.max(Math.abs(c.crosswindKt), Math.abs(c.gustCrosswindKt ?? 0)) >= NO_CROSSWIND_KT,
    swing: water ? 'Yaw on the run-out' : 'Swing in the roll-out',
    threshold: water ? 'At the round-out' : 'At the threshold',
  };
}

const ON_WATER: Record<string, string> = {
  'mains-first': 'step',
  'tail-first': 'heels first',
  'nose-first': 'bow first',
  'wheel-left': 'left of the line',
  'wheel-right': 'right of the line',
  'beyond-left': 'far left',
  'beyond-right': 'far right',
};
/** How a touch or a place is called, on land and on water. */
export const touchName = (w: string, water = false): string =>
  (water ? ON_WATER[w] : w === 'mains-first' ? 'mains first' : undefined) ?? say(w);
