import { PACK_NAME } from '@/domain/words';
import type { Need } from '@/domain/assess-words';
import type { Programme, ProgrammeItem, ProgrammeSource } from '@/domain/programme';
import type { AirframeFacts } from './goals';

/**
 * The programme of one pack: the items the pack asks for, and on top those the house asks for.
 * For `house`: only where every item is the school's own. Null where the pack asks nothing.
 * @returns a programme, or null
 */
export function composeProgramme(source: ProgrammeSource, pack: Programme['pack']): Programme | null {
  const items = source.items.flatMap(({ citations, legal, confirm, ...item }) => {
    const fromPack = citations[pack];
    const citation = fromPack ?? citations.house;
    if (!citation) return [];
    return [
      {
        ...item,
        source: fromPack && pack !== 'house' ? ('pack' as const) : ('house' as const),
        citation,
        legal: pack !== 'house' && fromPack !== undefined && legal.includes(pack),
        confirm: confirm.includes(fromPack ? pack : 'house'),
      },
    ];
  });
  // A goal of the law has no programme of the school's alone: part of it would look like the whole.
  if (pack === 'house' && items.length < source.items.length) return null;
  if (!items.some((i) => pack === 'house' || i.source === 'pack')) return null;
  const names = { ...PACK_NAME, house: 'school' };
  return {
    schema: 'programme/1',
    key: `${source.goal}-${pack}`,
    goal: source.goal,
    pack,
    name: `${source.title}, ${names[pack]}`,
    note: source.note,
    minHours: source.minHours,
    offered: source.offered[pack] ?? source.offered.any ?? [],
    items,
  };
}

/** What an aeroplane has, by the facts of its sheet; null = the sheet does not say, and the item is asked. */
const HAS: Record<Need, (f: AirframeFacts) => boolean | null | undefined> = {
  retractable: (f) => f.retractable,
  'controllable-propeller': (f) =>
    f.constantSpeedProp === true ? true : (f.digitalEngineControl ?? f.constantSpeedProp),
  flaps: (f) => f.flaps,
  tailwheel: (f) => f.tailwheel,
  'wheel-landings': (f) => f.wheelLandings,
  amphibian: (f) => (f.surface === null ? null : f.surface === 'amphibian'),
  twin: (f) => (f.engines === null ? null : f.engines > 1),
  single: (f) => (f.engines === null ? null : f.engines === 1),
  glass: (f) => f.glass,
  turbocharged: (f) => f.turbocharged,
  pressurised: (f) => f.pressurised,
  'single-lever': (f) => f.singleLeverPower,
  'high-power': (f) => (f.powerHp === null ? null : f.powerHp > 200),
  'very-powerful': (f) => (f.powerHp === null ? null : f.powerHp >= 500),
  'blind-nose': (f) => f.blindNose ?? false,
  land: (f) => (f.surface === null ? null : f.surface !== 'sea'),
  water: (f) => (f.surface === null ? null : f.surface !== 'land'),
  skis: (f) => f.skis ?? false,
};
/**
 * Of what a programme asks, what the aeroplane has not: gear items on fixed gear, wheels against surface on straight
 * floats. Empty = it is asked. What the sheet does not say is asked.
 * @returns needs that are not met
 * @example missingNeeds({ needs: ['retractable'] }, sheetFacts(fixedGear)) // ['retractable']
 */
export const missingNeeds = (item: Pick<ProgrammeItem, 'needs'>, facts: AirframeFacts): Need[] =>
  item.needs.filter((n) => HAS[n](facts) === false);

/**
 * Can the goal of a programme be flown in this aeroplane? A fact the sheet leaves open rules nothing out.
 * @returns true where it can be flown
 * @example offeredFor({ offered: [['tailwheel']] }, sheetFacts(nosewheelTrainer)) // false
 */
export const offeredFor = (programme: Pick<Programme, 'offered'>, facts: AirframeFacts): boolean =>
  programme.offered.length === 0 || programme.offered.some((all) => all.every((n) => HAS[n](facts) !== false));

/**
 * A programme as this aeroplane is asked it, and what is not asked of it with why. A prerequisite that is not asked is
 * none.
 * @returns the programme, and what is left out of it with why by code
 */
export function programmeOn(
  programme: Programme,
  facts: AirframeFacts,
): { programme: Programme; notAsked: { id: string; title: string; needs: Need[] }[] } {
  const notAsked = programme.items.flatMap((i) => {
    const needs = missingNeeds(i, facts);
    return needs.length > 0 ? [{ id: i.id, title: i.title, needs }] : [];
  });
  if (notAsked.length === 0) return { programme, notAsked };
  const asked = programme.items.filter((i) => !notAsked.some((n) => n.id === i.id));
  const ids = new Set(asked.map((i) => i.id));
  return {
    programme: {
      ...programme,
      items: asked.map((i) => ({ ...i, prerequisites: i.prerequisites.filter((p) => ids.has(p)) })),
    },
    notAsked,
  };
}
