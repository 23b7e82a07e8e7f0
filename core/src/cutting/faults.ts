import type { Material } from './material.ts';

/** What is wrong with a material's rows, by their place: a range without anything in it, or a row for no kind of tool. */
export function rowFaults({ cutting }: Pick<Material, 'cutting'>): string[] {
  return cutting.flatMap((r, i) => [
    ...(r.kinds.length === 0 ? [`Row ${i + 1} is for no kind of tool.`] : []),
    ...(r.from !== undefined && r.below !== undefined && r.from >= r.below
      ? [`Row ${i + 1} goes from ${r.from} to below ${r.below}: nothing lies between.`]
      : []),
  ]);
}
