import { got } from '../lists.ts';
import { BoxGrid, type Box2 } from '../geometry/box-grid.ts';
import type { Vec2 } from '../geometry/path.ts';

/** Closed outlines by place: those whose box holds a point. */
export class OutlineIndex<T extends { polygon: Vec2[] }> {
  private readonly boxes: Map<T, Box2>;
  private readonly grid: BoxGrid<T>;

  constructor(outlines: readonly T[]) {
    this.boxes = new Map(outlines.map((o) => [o, boxOf(o.polygon)]));
    const widths = [...this.boxes.values()]
      .map((b) => Math.max(b[2] - b[0], b[3] - b[1]))
      .sort((a, b) => a - b);
    // Cells of a middling outline's size, so that most lie in one to four.
    this.grid = new BoxGrid(Math.max(1e-6, widths[widths.length >> 1] ?? 1));
    for (const [o, box] of this.boxes) this.grid.add(o, box);
  }

  around([x, y]: Vec2): T[] {
    return this.grid.near(x, y, 0).filter((o) => {
      const [x0, y0, x1, y1] = got(this.boxes, o);
      return x >= x0 && x <= x1 && y >= y0 && y <= y1;
    });
  }
}

function boxOf(polygon: readonly Vec2[]): Box2 {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const [x, y] of polygon)
    [x0, y0, x1, y1] = [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)];
  return [x0, y0, x1, y1];
}
