import type { SortiePack } from '@/offline/protocol';

const ALL = ['eyes to the far end', 'hold it off', 'wait for it', 'feet, short and early', 'wing down, nose straight'];
const TAIL = ['stick all the way back', 'keep the aileron in'];
const NOSE = ['nose off, hold it off', 'brake late'];
const WATER = ['step attitude, power on', 'wheels: say it again'];

/** Cues to choose from: the brief's focus, the habits to watch in the air, then the short calls of the kind of aeroplane. */
export function cuesFor(pack: SortiePack): string[] {
  const water = pack.runways.some((r) => r.surface === 'water');
  const habits = (pack.cues ?? []).filter((c) => c.where === 'flight').map((c) => c.cue);
  const calls = [...(pack.tailwheel ? TAIL : NOSE), ...(water ? WATER : []), ...ALL];
  return [...new Set([pack.focus, ...habits.slice(0, 2), ...calls])]
    .filter((c) => c !== '' && c.length <= 80)
    .slice(0, 8);
}
