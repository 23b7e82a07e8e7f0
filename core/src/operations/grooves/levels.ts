/** In which order levels are cut. */
export const LEVEL_ORDERS = ['downward', 'upward', 'from the middle'] as const;
export type LevelOrder = (typeof LEVEL_ORDERS)[number];

/** Of a cutter's height, the most that its levels overlap. */
export const MOST_OVERLAP = 0.9;

/** How many levels a cutter of a height needs in a groove, each overlapping the next: ceil((H − o)/(h − o)) (handbook, T-slots). mm. */
export function levelCount(height: number, cutter: number, overlap: number): number {
  if (cutter >= height - 1e-6) return 1;
  if (overlap >= cutter) throw new RangeError('levels that overlap by the whole cutter come to no end');
  return Math.max(2, Math.ceil((height - overlap) / (cutter - overlap) - 1e-9));
}

/**
 * Z of the cutter's lower face at each level, spread evenly so that the first lies on the ceiling and the last on the floor, in the order in
 * which they are cut. mm.
 */
export function levelTips(
  ceiling: number,
  floor: number,
  cutter: number,
  overlap: number,
  order: LevelOrder,
): number[] {
  const n = levelCount(ceiling - floor, cutter, overlap);
  const highest = ceiling - cutter;
  const down = Array.from({ length: n }, (_, i) =>
    n === 1 ? floor : highest + ((floor - highest) * i) / (n - 1),
  );
  if (order === 'downward') return down;
  if (order === 'upward') return down.reverse();
  const middle = (highest + floor) / 2;
  return down.sort((a, b) => Math.abs(a - middle) - Math.abs(b - middle) || b - a);
}
