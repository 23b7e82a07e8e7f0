import type { Ink } from '../look/palette.ts';

/** Colours of what tools have cut, in the order in which they are given out. */
export const CUTS = [
  'cut-1',
  'cut-2',
  'cut-3',
  'cut-4',
  'cut-5',
  'cut-6',
  'cut-7',
  'cut-8',
] as const satisfies readonly Ink[];

export const cutInk = (n: number): Ink => CUTS[n % CUTS.length] ?? CUTS[0];
