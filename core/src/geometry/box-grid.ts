/** A thing over more cells than this is looked at always: there are few so large. */
const MOST_CELLS = 400;

/** Beyond this a number is no longer told from the next: stepping from cell to cell would never end. */
const LAST_CELL = 2 ** 50;

export type Box2 = readonly [x0: number, y0: number, x1: number, y1: number];

/** Things by their boxes in a plane: those that a point or a small box may meet, without looking at all of them. */
export class BoxGrid<T> {
  private readonly cells = new Map<string, T[]>();
  private readonly large: T[] = [];

  /** `cell`: width of a cell, about that of most things. */
  constructor(private readonly cell: number) {}

  add(item: T, box: Box2): void {
    const [i0, k0, i1, k1] = box.map((v) => this.cellOf(v)) as [number, number, number, number];
    if (!((i1 - i0 + 1) * (k1 - k0 + 1) <= MOST_CELLS)) {
      this.large.push(item);
      return;
    }
    for (let i = i0; i <= i1; i++) {
      for (let k = k0; k <= k1; k++) {
        const list = this.cells.get(`${i},${k}`);
        if (list) list.push(item);
        else this.cells.set(`${i},${k}`, [item]);
      }
    }
  }

  /** What may come within `r` of a point, each once. */
  near(x: number, y: number, r: number): T[] {
    const found = new Set<T>(this.large);
    for (let i = this.cellOf(x - r); i <= this.cellOf(x + r); i++)
      for (let k = this.cellOf(y - r); k <= this.cellOf(y + r); k++)
        for (const item of this.cells.get(`${i},${k}`) ?? []) found.add(item);
    return [...found];
  }

  private cellOf(v: number): number {
    return Math.max(-LAST_CELL, Math.min(LAST_CELL, Math.floor(v / this.cell)));
  }
}
