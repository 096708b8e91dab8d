/** Facts of an airframe that decide what its pilot in command must hold; null = not on the sheet. */
export interface AirframeFacts {
  tailwheel: boolean | null;
  /** Per engine. */
  powerHp: number | null;
  retractable: boolean | null;
  constantSpeedProp: boolean | null;
  flaps: boolean | null;
  surface: string | null;
  engines: number | null;
  digitalEngineControl?: boolean;
  turbocharged?: boolean;
  pressurised?: boolean;
  glass?: boolean;
  singleLeverPower?: boolean;
  /** A hull, not floats. */
  hull?: boolean;
}
export type Pack = 'us' | 'eu' | 'au';
export interface Demands {
  classRatings: string[] | null;
  endorsements: string[];
  testNeededFor: string[] | null;
  unknown: string[];
}

/** true, false, or null = cannot tell. */
type Tri = boolean | null;
const not = (a: Tri): Tri => (a === null ? null : !a);
const all = (...xs: Tri[]): Tri => (xs.includes(false) ? false : xs.includes(null) ? null : true);
const any = (...xs: Tri[]): Tri => not(all(...xs.map(not)));

const SURFACES = ['land', 'sea', 'amphibian'];
const SHEET_KEYS = ['tailwheel', 'powerHp', 'retractable', 'constantSpeedProp', 'flaps', 'surface', 'engines'] as const;
type SheetKey = (typeof SHEET_KEYS)[number];

/**
 * Class ratings and endorsements (us), variants needing differences training (eu) or design features (au) that an
 * airframe demands of its pilot in command. Three-valued: a null fact leaves a rule undecided unless the others settle
 * it; it is then left out of
 * `endorsements` and named in `unknown`. Type ratings and what the pilot already holds are not looked at.
 * Source: 14 CFR 61.31(d)–(i), 61.63(c); Part-FCL FCL.710, FCL.725; CASR 61.755, 61.760. Australia has no class of its
 * own for water.
 */
export function goalsRequired(sheet: AirframeFacts, pack: Pack): Demands {
  const surface = sheet.surface !== null && SURFACES.includes(sheet.surface) ? sheet.surface : null;
  const is = (...words: string[]): Tri => (surface === null ? null : words.includes(surface));
  const unknown = new Set<SheetKey>();
  const known: Record<SheetKey, boolean> = {
    tailwheel: sheet.tailwheel !== null,
    powerHp: sheet.powerHp !== null,
    retractable: sheet.retractable !== null,
    constantSpeedProp: sheet.constantSpeedProp !== null,
    flaps: sheet.flaps !== null,
    surface: surface !== null,
    engines: sheet.engines !== null,
  };
  const undecided = (uses: SheetKey[]) => uses.filter((k) => !known[k]).forEach((k) => unknown.add(k));

  let classRatings: string[] | null = null;
  if (pack === 'au') {
    if (sheet.engines === null) undecided(['engines']);
    else classRatings = [sheet.engines > 1 ? 'multi-engine-aeroplane' : 'single-engine-aeroplane'];
  } else if (surface === null || sheet.engines === null) undecided(['surface', 'engines']);
  else {
    const engines = sheet.engines > 1 ? 'multi-engine' : 'single-engine';
    classRatings = [
      ...(surface === 'sea' ? [] : [`${engines}-land`]),
      ...(surface === 'land' ? [] : [`${engines}-sea`]),
    ];
  }

  const endorsements: string[] = [];
  const rule = (name: string, holds: Tri, uses: SheetKey[]) => {
    if (holds === true) endorsements.push(name);
    if (holds === null) undecided(uses);
  };
  const tailwheelOnLand = all(sheet.tailwheel, is('land', 'amphibian'));
  if (pack === 'us') {
    rule('tailwheel', tailwheelOnLand, ['tailwheel', 'surface']);
    const controllable = any(sheet.constantSpeedProp, sheet.digitalEngineControl ?? false);
    rule('complex', all(sheet.flaps, controllable, any(sheet.retractable, is('sea', 'amphibian'))), [
      'flaps',
      'constantSpeedProp',
      'retractable',
      'surface',
    ]);
    rule('high-performance', sheet.powerHp === null ? null : sheet.powerHp > 200, ['powerHp']);
  } else if (pack === 'au') {
    rule('AU-tailwheel', tailwheelOnLand, ['tailwheel', 'surface']);
    rule('AU-retractable', all(sheet.retractable, is('land', 'amphibian')), ['retractable', 'surface']);
    rule('AU-propeller', sheet.constantSpeedProp, ['constantSpeedProp']);
    rule('AU-hull', all(is('sea', 'amphibian'), sheet.hull ?? false), ['surface']);
    rule('AU-floatplane', all(is('sea', 'amphibian'), not(sheet.hull ?? false)), ['surface']);
    rule('AU-pressurisation', sheet.pressurised ?? false, []);
  } else {
    const multi: Tri = sheet.engines === null ? null : sheet.engines > 1;
    const single = not(multi);
    rule('MEP-variant', multi, ['engines']);
    rule('TW', all(single, tailwheelOnLand), ['tailwheel', 'surface', 'engines']);
    rule('RU', all(single, sheet.retractable), ['retractable', 'engines']);
    rule('VP', all(single, sheet.constantSpeedProp), ['constantSpeedProp', 'engines']);
    const flags: [string, boolean | undefined][] = [
      ['T', sheet.turbocharged],
      ['P', sheet.pressurised],
      ['EFIS', sheet.glass],
      ['SLPC', sheet.singleLeverPower],
    ];
    for (const [name, flag] of flags) rule(name, all(single, flag ?? false), ['engines']);
  }
  const testNeededFor =
    classRatings === null
      ? null
      : classRatings.filter((c) => c !== 'single-engine-land' && c !== 'single-engine-aeroplane');
  return { classRatings, endorsements, testNeededFor, unknown: SHEET_KEYS.filter((k) => unknown.has(k)) };
}
