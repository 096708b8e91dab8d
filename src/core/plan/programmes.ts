import type { Programme, ProgrammeSource } from '@/domain/programme';

/**
 * The programme of one pack: the items the pack asks for, and on top those the house asks for.
 * For `house`: every item the house's own programme holds. An empty programme is not returned (null).
 */
export function composeProgramme(source: ProgrammeSource, pack: Programme['pack']): Programme | null {
  const items = source.items.flatMap(({ citations, ...item }) => {
    const fromPack = citations[pack];
    const citation = fromPack ?? citations.house;
    return citation
      ? [{ ...item, source: fromPack && pack !== 'house' ? ('pack' as const) : ('house' as const), citation }]
      : [];
  });
  if (!items.some((i) => pack === 'house' || i.source === 'pack')) return null;
  const names = { us: 'United States', eu: 'Europe', au: 'Australia', house: 'house' };
  return {
    schema: 'programme/1',
    key: `${source.goal}-${pack}`,
    goal: source.goal,
    pack,
    name: `${source.title}, ${names[pack]}`,
    note: source.note,
    minHours: source.minHours,
    items,
  };
}
