/**
 * Lanes for blocks that stand beside each other in one column: each gets the first lane free at its start; a group that
 * touches shares one width.
 */
export function lanes<B extends { fromMin: number; toMin: number }>(
  blocks: readonly B[],
): { block: B; lane: number; of: number }[] {
  const sorted = [...blocks].sort((a, b) => a.fromMin - b.fromMin || b.toMin - a.toMin);
  const placed: { block: B; lane: number; of: number }[] = [];
  let group: { block: B; lane: number; of: number }[] = [];
  let ends: number[] = [];
  const close = () => {
    for (const g of group) g.of = ends.length;
    placed.push(...group);
    group = [];
    ends = [];
  };
  for (const block of sorted) {
    if (group.length > 0 && ends.every((e) => e <= block.fromMin)) close();
    const free = ends.findIndex((e) => e <= block.fromMin);
    const lane = free < 0 ? ends.length : free;
    ends[lane] = block.toMin;
    group.push({ block, lane, of: 1 });
  }
  close();
  return placed;
}
