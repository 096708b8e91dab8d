import type { BriefChoices } from '@/domain/brief';

export type Layout = BriefChoices['layout'];
export interface BlockMeta {
  id: string;
  title: string;
  wide: 'full' | 'two-thirds' | 'half' | 'third';
}

/** Blocks of a brief in the order a house starts from. */
export const BLOCKS: readonly BlockMeta[] = [
  { id: 'plan', title: 'The plan of this lesson', wide: 'full' },
  { id: 'path', title: 'Approach speeds today', wide: 'two-thirds' },
  { id: 'wind', title: 'Runway and wind', wide: 'third' },
  { id: 'habits', title: 'Habits to drop', wide: 'full' },
  { id: 'gates', title: 'Gate by gate', wide: 'two-thirds' },
  { id: 'limits', title: 'Governing limit', wide: 'third' },
  { id: 'runway', title: 'Runway needed', wide: 'two-thirds' },
  { id: 'air', title: 'Density altitude today', wide: 'third' },
  { id: 'one-engine', title: 'On one engine', wide: 'full' },
  { id: 'load', title: 'Mass and balance', wide: 'two-thirds' },
  { id: 'fuel', title: 'Fuel and time', wide: 'third' },
  { id: 'goaround', title: 'Go-around triggers', wide: 'third' },
  { id: 'control', title: 'Exchange of control', wide: 'third' },
  { id: 'failures', title: 'Simulated failures and exits', wide: 'third' },
  { id: 'engine', title: 'Power and temperatures', wide: 'two-thirds' },
  { id: 'flows', title: 'Checks and flows', wide: 'third' },
  { id: 'airspace', title: 'Airspace floors on departure', wide: 'two-thirds' },
  { id: 'electrics', title: 'Alternator failure', wide: 'third' },
  { id: 'schools', title: 'School procedures', wide: 'full' },
  { id: 'models', title: 'From the lab', wide: 'full' },
  { id: 'second', title: 'Two aeroplanes', wide: 'half' },
];

/** The layout with every block in it once: new blocks of an update go to the end, blocks that are gone are left out. */
export function completeLayout(layout: Layout): Layout {
  const known = [...BLOCKS.map((b) => b.id), ...layout.own.map((o) => o.id)];
  const kept = layout.order.filter((id, i) => known.includes(id) && layout.order.indexOf(id) === i);
  return { ...layout, order: [...kept, ...known.filter((id) => !kept.includes(id))] };
}

export const moved = (order: readonly string[], id: string, to: number): string[] => {
  const rest = order.filter((x) => x !== id);
  return [...rest.slice(0, Math.max(0, to)), id, ...rest.slice(Math.max(0, to))];
};
