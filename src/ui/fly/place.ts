import type { LoggedWind } from '@/domain/capture';
import { say } from '@/domain/words';
import type { SortiePack } from '@/offline/protocol';

/** What the runway and the wind of a landing leave to be asked, and in which words. */
export interface Place {
  water: boolean;
  /** Tailwheel words and rows: none on water. */
  tailwheel: boolean;
  swing: string;
  threshold: string;
  runwayEnd: string;
  /** Of this landing; null = none logged. */
  wind: LoggedWind | null;
}

export function placeOf(pack: SortiePack, runwayEnd: string, wind: LoggedWind | null): Place {
  const water = pack.runways.find((r) => r.ident === runwayEnd)?.surface === 'water';
  return {
    water,
    tailwheel: pack.tailwheel && !water,
    swing: water ? 'Yaw on the run-out' : 'Swing in the roll-out',
    threshold: water ? 'At the round-out' : 'At the threshold',
    runwayEnd,
    wind,
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
