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
  digitalEngineControl?: boolean | null;
  turbocharged?: boolean | null;
  pressurised?: boolean | null;
  glass?: boolean | null;
  singleLeverPower?: boolean | null;
  /** Service ceiling or maximum operating altitude, whichever is lower, ft. */
  ceilingFt?: number | null;
  skis?: boolean;
  /** A hull, not floats. */
  hull?: boolean;
  blindNose?: boolean;
  /** What the maker says of wheel landings: false = advised against, or no tailwheel. */
  wheelLandings?: boolean | null;
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
/** Facts a sheet may leave out altogether: then they are not there. Null = the sheet leaves it open. */
const OPEN_KEYS = [
  'digitalEngineControl',
  'turbocharged',
  'pressurised',
  'glass',
  'singleLeverPower',
  'ceilingFt',
] as const;
type OpenKey = (typeof OPEN_KEYS)[number];
/** Above it a pressurised aeroplane is a high-altitude one (14 CFR 61.31(g)), ft. */
const HIGH_ALTITUDE_FT = 25_000;
type SheetKey = (typeof SHEET_KEYS)[number];

/**
 * Class ratings and endorsements (us), variants needing differences training (eu) or design features (au) that an
 * airframe demands of its pilot in command. Three-valued: a null fact leaves a rule undecided unless the others settle
 * it; it is then left out of
 * `endorsements` and named in `unknown`. Type ratings and what the pilot already holds are not looked at.
 * Source: 14 CFR 61.31(d)–(i), 61.63(c); Part-FCL FCL.710, FCL.725; CASR 61.755, 61.760. Australia has no class of its
 * own for water.
 * @returns kinds demanded, and the facts that are not known
 */
export function goalsRequired(sheet: AirframeFacts, pack: Pack): Demands {
  const surface = sheet.surface !== null && SURFACES.includes(sheet.surface) ? sheet.surface : null;
  const is = (...words: string[]): Tri => (surface === null ? null : words.includes(surface));
  const unknown = new Set<SheetKey | OpenKey>();
  const known: Record<SheetKey, boolean> = {
    tailwheel: sheet.tailwheel !== null,
    powerHp: sheet.powerHp !== null,
    retractable: sheet.retractable !== null,
    constantSpeedProp: sheet.constantSpeedProp !== null,
    flaps: sheet.flaps !== null,
    surface: surface !== null,
    engines: sheet.engines !== null,
  };
  const undecided = (uses: (SheetKey | OpenKey)[]) =>
    uses
      .filter((k) => (k in known ? !known[k as SheetKey] : sheet[k as OpenKey] === null))
      .forEach((k) => unknown.add(k));
  const open = (flag: boolean | null | undefined): Tri => (flag === undefined ? false : flag);

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
  const rule = (name: string, holds: Tri, uses: (SheetKey | OpenKey)[]) => {
    if (holds === true) endorsements.push(name);
    if (holds === null) undecided(uses);
  };
  const tailwheelOnLand = all(sheet.tailwheel, is('land', 'amphibian'));
  if (pack === 'us') {
    rule('tailwheel', tailwheelOnLand, ['tailwheel', 'surface']);
    const controllable = any(sheet.constantSpeedProp, open(sheet.digitalEngineControl));
    rule('complex', all(sheet.flaps, controllable, any(sheet.retractable, is('sea', 'amphibian'))), [
      'flaps',
      'constantSpeedProp',
      'digitalEngineControl',
      'retractable',
      'surface',
    ]);
    rule('high-performance', sheet.powerHp === null ? null : sheet.powerHp > 200, ['powerHp']);
    const high: Tri =
      sheet.ceilingFt === undefined ? false : sheet.ceilingFt === null ? null : sheet.ceilingFt > HIGH_ALTITUDE_FT;
    rule('pressurised', all(open(sheet.pressurised), high), ['pressurised', 'ceilingFt']);
  } else if (pack === 'au') {
    rule('AU-tailwheel', tailwheelOnLand, ['tailwheel', 'surface']);
    rule('AU-retractable', all(sheet.retractable, is('land', 'amphibian')), ['retractable', 'surface']);
    rule('AU-propeller', sheet.constantSpeedProp, ['constantSpeedProp']);
    rule('AU-hull', all(is('sea', 'amphibian'), sheet.hull ?? false), ['surface']);
    rule('AU-floatplane', all(is('sea', 'amphibian'), not(sheet.hull ?? false)), ['surface']);
    rule('AU-pressurisation', open(sheet.pressurised), ['pressurised']);
    rule('AU-ski', sheet.skis ?? false, []);
  } else {
    const multi: Tri = sheet.engines === null ? null : sheet.engines > 1;
    const single = not(multi);
    rule('MEP-variant', multi, ['engines']);
    rule('TW', all(single, tailwheelOnLand), ['tailwheel', 'surface', 'engines']);
    rule('RU', all(single, sheet.retractable), ['retractable', 'engines']);
    rule('VP', all(single, sheet.constantSpeedProp), ['constantSpeedProp', 'engines']);
    const flags: [string, OpenKey & keyof AirframeFacts][] = [
      ['T', 'turbocharged'],
      ['P', 'pressurised'],
      ['EFIS', 'glass'],
      ['SLPC', 'singleLeverPower'],
    ];
    for (const [name, key] of flags)
      rule(name, all(single, open(sheet[key] as boolean | null | undefined)), ['engines', key]);
  }
  const testNeededFor =
    classRatings === null
      ? null
      : classRatings.filter((c) => c !== 'single-engine-land' && c !== 'single-engine-aeroplane');
  return {
    classRatings,
    endorsements,
    testNeededFor,
    unknown: [...SHEET_KEYS, ...OPEN_KEYS].filter((k) => unknown.has(k)),
  };
}

/**
 * The same as it is held: a twin variant is a variant of its own, so its kind names the type (`MEP-variant:planalto-p2`).
 * Source: Part-FCL FCL.710, differences training for each variant of the multi-engine piston class.
 * @returns kinds demanded, and the facts that are not known
 * @example demandsOf(sheetFacts(lightTwin), 'eu', 'planalto-p2').endorsements // ['MEP-variant:planalto-p2']
 */
export function demandsOf(facts: AirframeFacts, pack: Pack, typeCode: string): Demands {
  const demands = goalsRequired(facts, pack);
  return { ...demands, endorsements: demands.endorsements.map((k) => variantKind(k, typeCode)) };
}
const EACH_ALONE: ReadonlySet<string> = new Set(['MEP-variant']);
/**
 * A kind with the type it is held for, where it is held for each type alone.
 * @returns the kind, with `:type` where each type is held alone
 * @example variantKind('TW', 'x') // 'TW'
 */
export const variantKind = (kind: string, typeCode: string): string =>
  EACH_ALONE.has(kind) ? `${kind}:${typeCode}` : kind;
/**
 * The kind without the type it is held for.
 * @returns the kind
 * @example plainKind('TW') // 'TW'
 */
export const plainKind = (kind: string): string => kind.split(':')[0] ?? kind;

/** Facts of a sheet in words, for what is not known of it. */
export const FACT_WORDS: Readonly<Record<string, string>> = {
  tailwheel: 'the layout of the gear',
  powerHp: 'the power of an engine',
  retractable: 'whether the gear retracts',
  constantSpeedProp: 'the kind of propeller',
  flaps: 'the flap settings',
  surface: 'the surface',
  engines: 'the number of engines',
  digitalEngineControl: 'whether it has digital engine control',
  turbocharged: 'whether it is turbocharged or supercharged',
  pressurised: 'whether it is pressurised',
  glass: 'whether it has a glass cockpit',
  singleLeverPower: 'whether it has single-lever power',
  ceilingFt: 'its ceiling',
};
