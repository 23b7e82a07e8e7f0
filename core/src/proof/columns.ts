import { length2 } from '../geometry/path.ts';
import type { Disc } from '../tools/profile.ts';

/** How much a tool may be wider, or stand lower, than what was cut, mm: rounding of the code and chords of a mesh. */
const SLACK = 0.05;
const CELL = 10;

interface Column {
  x: number;
  y: number;
  /** What was cut here: at least `r` wide from `z` up. */
  cuts: { r: number; z: number }[];
  widest: number;
}

/** What has been drilled so far, hole by hole: where a tool passes that is no wider, there is no metal any more. */
export class Columns {
  private readonly cells = new Map<string, Column[]>();
  private widest = 0;

  /** Cuts with a tool's cutting discs, tip at `tip`. */
  cut(discs: readonly Disc[], x: number, y: number, tip: number): void {
    const key = `${Math.floor(x / CELL)},${Math.floor(y / CELL)}`;
    const list = this.cells.get(key) ?? [];
    if (list.length === 0) this.cells.set(key, list);
    let column = list.find((c) => length2(c.x - x, c.y - y) < 0.005);
    if (!column) list.push((column = { x, y, cuts: [], widest: 0 }));
    for (const d of discs) {
      if (d.part !== 'cutting') continue;
      const z = tip + d.z;
      if (column.cuts.some((c) => c.r >= d.r && c.z <= z)) continue;
      column.cuts = column.cuts.filter((c) => c.r > d.r || c.z < z);
      column.cuts.push({ r: d.r, z });
      column.widest = Math.max(column.widest, d.r);
    }
    this.widest = Math.max(this.widest, column.widest);
  }

  /** Whether a disc of radius `r` at height `z` stands wholly in what was cut. */
  isFree(x: number, y: number, r: number, z: number): boolean {
    const reach = Math.max(0, this.widest - r) + SLACK;
    for (let i = Math.floor((x - reach) / CELL); i <= Math.floor((x + reach) / CELL); i++) {
      for (let k = Math.floor((y - reach) / CELL); k <= Math.floor((y + reach) / CELL); k++) {
        for (const c of this.cells.get(`${i},${k}`) ?? []) {
          const off = length2(c.x - x, c.y - y);
          if (c.cuts.some((cut) => off + r <= cut.r + SLACK && cut.z <= z + SLACK)) return true;
        }
      }
    }
    return false;
  }
}
