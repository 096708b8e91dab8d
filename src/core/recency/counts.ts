/**
 * Landings that count for their pilot's recent experience, by surface and kind. Sole manipulator only: help on the
 * controls and demonstrations do not count.
 */
export interface CountedLanding {
  pilotId: string;
  kind: 'full-stop' | 'touch-and-go' | 'go-around' | 'low-pass';
  demonstration: boolean;
  /** 0 to 3; null = not recorded, and not counted. */
  intervention: number | null;
  surface: 'land' | 'water';
}
export interface LandingCount {
  total: number;
  fullStop: number;
  touchAndGo: number;
  land: number;
  water: number;
  tailwheelFullStop: number;
  goArounds: number;
  notCounted: number;
}

/**
 * Counts of one pilot. A go-around or a low pass is no landing. A full stop in a tailwheel aeroplane on land counts for
 * tailwheel too.
 * `notCounted` are landings the pilot did not fly alone, or of which it is not recorded who did.
 * Source: 14 CFR 61.57 (sole manipulator), FCL.060.
 * @returns landings by kind, and how many did not count
 */
export function countLandings(landings: readonly CountedLanding[], pilotId: string, tailwheel: boolean): LandingCount {
  const count: LandingCount = {
    total: 0,
    fullStop: 0,
    touchAndGo: 0,
    land: 0,
    water: 0,
    tailwheelFullStop: 0,
    goArounds: 0,
    notCounted: 0,
  };
  for (const l of landings) {
    if (l.pilotId !== pilotId || l.kind === 'low-pass') continue;
    const sole = !l.demonstration && l.intervention !== null && l.intervention < 2;
    if (l.kind === 'go-around') {
      if (sole) count.goArounds++;
      continue;
    }
    if (!sole) {
      count.notCounted++;
      continue;
    }
    count.total++;
    count[l.surface]++;
    if (l.kind === 'full-stop') count.fullStop++;
    else count.touchAndGo++;
    if (l.kind === 'full-stop' && tailwheel && l.surface === 'land') count.tailwheelFullStop++;
  }
  return count;
}
