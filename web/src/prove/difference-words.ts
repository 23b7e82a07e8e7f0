import type { DifferenceKind } from '@yellow-pin/core/metal/compare';

/** Kinds of difference between metal and part: the sign of each and its words. */
export const DIFFERENCES = [
  { kind: 'over-cut', sign: '▲', words: 'cut too deep' },
  { kind: 'left-over', sign: '■', words: 'left' },
  { kind: 'wanted', sign: '○', words: 'meant' },
] as const satisfies readonly { kind: DifferenceKind; sign: string; words: string }[];

export const differenceOf = (kind: DifferenceKind): (typeof DIFFERENCES)[number] =>
  DIFFERENCES.find((d) => d.kind === kind) ?? DIFFERENCES[0];
