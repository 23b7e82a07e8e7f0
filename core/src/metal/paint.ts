import type { DifferenceKind } from './compare.ts';

/** Where metal and part differ, as upright blocks to be drawn. Program coordinates of its setup, mm. */
export interface Paint {
  setupId: string;
  kind: DifferenceKind;
  /** The row it belongs to; null where it is no feature's. */
  tag: string | null;
  /** Side of a block, mm. */
  side: number;
  /** Four numbers a block: X and Y of its middle, its lower and its upper end. */
  blocks: Float32Array;
}

/** A block is no smaller: finer ones are nothing to look at. mm. */
const LEAST_SIDE = 0.4;
/** Blocks of one difference, at most. */
const MOST = 20_000;

/** The side of the blocks for a grid, mm. */
export const blockSide = (cell: number): number => Math.max(cell, LEAST_SIDE);

/** Gathers the columns of one difference into blocks: each as high as the columns in it. */
export class PaintBlocks {
  private readonly ends = new Map<number, [low: number, high: number]>();

  constructor(private readonly side: number) {}

  add(x: number, y: number, low: number, high: number): void {
    const key = Math.floor(x / this.side) * KEYS + Math.floor(y / this.side);
    const known = this.ends.get(key);
    if (known) {
      if (low < known[0]) known[0] = low;
      if (high > known[1]) known[1] = high;
    } else if (this.ends.size < MOST) this.ends.set(key, [low, high]);
  }

  blocks(): Float32Array {
    const out = new Float32Array(4 * this.ends.size);
    let n = 0;
    for (const [key, [low, high]] of this.ends) {
      // Middle of the cell: rows below zero are negative numbers.
      const i = Math.round(key / KEYS);
      const j = key - i * KEYS;
      out.set([(i + 0.5) * this.side, (j + 0.5) * this.side, low, high], n);
      n += 4;
    }
    return out;
  }
}

/** More rows than any stock has blocks. */
const KEYS = 2 ** 22;
