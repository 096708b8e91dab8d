/** Work that takes a core for seconds: so many at a time, few of each person, the rest waits its turn or is refused. */
export const HEAVY = {
  analysis: { atOnce: 2, waiting: 6, each: 2 },
  pdf: { atOnce: 2, waiting: 12, each: 3 },
  logbook: { atOnce: 1, waiting: 6, each: 2 },
  verify: { atOnce: 1, waiting: 4, each: 2 },
  password: { atOnce: 2, waiting: 16, each: 5 },
} as const;
export type Heavy = keyof typeof HEAVY;

export class Busy extends Error {}

interface Lane {
  running: number;
  waiting: (() => void)[];
  by: Map<string, number>;
}
declare global {
  var __jeitoLanes: Map<Heavy, Lane> | undefined;
}
const laneOf = (kind: Heavy): Lane => {
  const lanes = (globalThis.__jeitoLanes ??= new Map<Heavy, Lane>());
  const known = lanes.get(kind);
  if (known) return known;
  const made: Lane = { running: 0, waiting: [], by: new Map() };
  lanes.set(kind, made);
  return made;
};

/**
 * Runs work of one kind when its turn comes.
 * @param who the person, or the address of nobody in particular: so many of theirs run or wait
 * @throws {@link Busy} when there are too many before it
 */
export async function heavy<T>(kind: Heavy, who: string, work: () => Promise<T>): Promise<T> {
  const lane = laneOf(kind);
  const { atOnce, waiting, each } = HEAVY[kind];
  const mine = lane.by.get(who) ?? 0;
  if (mine >= each || (lane.running >= atOnce && lane.waiting.length >= waiting)) throw new Busy();
  lane.by.set(who, mine + 1);
  try {
    // The place of who is done is handed on, never given up between two.
    if (lane.running >= atOnce) await new Promise<void>((go) => lane.waiting.push(go));
    else lane.running++;
    try {
      return await work();
    } finally {
      const next = lane.waiting.shift();
      if (next) next();
      else lane.running--;
    }
  } finally {
    const left = (lane.by.get(who) ?? 1) - 1;
    if (left > 0) lane.by.set(who, left);
    else lane.by.delete(who);
  }
}
