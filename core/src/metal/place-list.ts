import type { Box2 } from '../geometry/box-grid.ts';

/** Cells are counted from here, so that numbers are never negative. */
const FROM = 1 << 20;
const NONE: readonly never[] = [];

/** Things by the boxes that they cover, looked up at a point without making anything: for questions asked of every column. */
export class PlaceList<T> {
  private readonly cells = new Map<number, T[]>();

  /** `cell`: mm; about half the size of most things. */
  constructor(private readonly cell: number) {}

  add(item: T, [x0, y0, x1, y1]: Box2): void {
    for (let i = this.index(x0); i <= this.index(x1); i++)
      for (let j = this.index(y0); j <= this.index(y1); j++) {
        const key = i * 2 * FROM + j;
        const list = this.cells.get(key);
        if (list) list.push(item);
        else this.cells.set(key, [item]);
      }
  }

  /** What may cover a point. */
  at(x: number, y: number): readonly T[] {
    return this.cells.get(this.index(x) * 2 * FROM + this.index(y)) ?? NONE;
  }

  private index(v: number): number {
    return Math.max(0, Math.min(2 * FROM - 1, Math.floor(v / this.cell) + FROM));
  }
}
