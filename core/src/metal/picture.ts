import { without } from './cavities.ts';
import type { MetalGrid } from './grid.ts';

/** Metal as triangles, program coordinates, mm: quads of two triangles each, four corners a quad. */
export interface MetalMesh {
  positions: Float32Array;
  normals: Float32Array;
  /** For each corner the number of the tool that cut its surface; 0: the stock's own. */
  tools: Uint16Array;
}

/** A rectangle of cells: from the first to before the second. */
export interface CellBox {
  i0: number;
  j0: number;
  i1: number;
  j1: number;
}

/** Cells round a wall that tell which way it looks. */
const AROUND = 2;
/** Heights closer than this are one level, mm. */
const LEVEL = 1e-3;

/** The surface of the metal over a rectangle of cells; walls to the cells beside it on its high sides are its own. */
export function meshMetal(grid: MetalGrid, box: CellBox, toolOf: (maker: number) => number): MetalMesh {
  return new Mesher(grid, box, toolOf).mesh();
}

interface Run {
  from: number;
  last: number;
  /** Row in which it began. */
  start: number;
  row: number;
  z: number;
  tool: number;
  isTop: boolean;
}

class Mesher {
  private readonly positions: number[] = [];
  private readonly normals: number[] = [];
  private readonly tools: number[] = [];
  private readonly columns = new Map<number, number[]>();

  constructor(
    private readonly grid: MetalGrid,
    private readonly box: CellBox,
    private readonly toolOf: (maker: number) => number,
  ) {}

  mesh(): MetalMesh {
    this.levels();
    const { i0, i1, j0, j1 } = this.box;
    for (let j = j0; j < j1; j++) for (let i = i0 - (i0 === 0 ? 1 : 0); i < i1; i++) this.wall(i, j, 1, 0);
    for (let j = j0 - (j0 === 0 ? 1 : 0); j < j1; j++) for (let i = i0; i < i1; i++) this.wall(i, j, 0, 1);
    return {
      positions: Float32Array.from(this.positions),
      normals: Float32Array.from(this.normals),
      tools: Uint16Array.from(this.tools),
    };
  }

  private column(i: number, j: number): number[] {
    const { nx, ny } = this.grid.place;
    if (i < 0 || j < 0 || i >= nx || j >= ny) return [];
    const key = j * nx + i;
    let c = this.columns.get(key);
    if (!c) this.columns.set(key, (c = this.grid.column(i, j)));
    return c;
  }

  /** Tops and undersides: equal neighbours in a row are one, and equal rows are one. */
  private levels(): void {
    const { i0, i1, j0, j1 } = this.box;
    let open = new Map<string, Run>();
    for (let j = j0; j < j1; j++) {
      const row: Run[] = [];
      let before = new Map<string, Run>();
      for (let i = i0; i < i1; i++) {
        const here = new Map<string, Run>();
        const column = this.column(i, j);
        const makers = column.length > 0 ? this.grid.makers(i, j) : [];
        for (const [n, z] of column.entries()) {
          const isTop = n % 2 === 1;
          const tool = this.toolOf(makers[n]!);
          const key = `${Math.round(z / LEVEL)}/${tool}/${isTop}`;
          const run = before.get(key);
          if (run) {
            run.last = i;
            here.set(key, run);
          } else {
            const fresh: Run = { from: i, last: i, start: j, row: j, z, tool, isTop };
            row.push(fresh);
            here.set(key, fresh);
          }
        }
        before = here;
      }
      const next = new Map<string, Run>();
      for (const r of row) {
        const key = `${Math.round(r.z / LEVEL)}/${r.tool}/${r.isTop}/${r.from}/${r.last}`;
        const above = open.get(key);
        if (above) {
          above.row = j;
          next.set(key, above);
          open.delete(key);
        } else next.set(key, r);
      }
      for (const r of open.values()) this.level(r);
      open = next;
    }
    for (const r of open.values()) this.level(r);
  }

  private level({ from, last, start, row, z, tool, isTop }: Run): void {
    const { x0, y0, cell } = this.grid.place;
    const [xa, xb] = [x0 + from * cell, x0 + (last + 1) * cell];
    const [ya, yb] = [y0 + start * cell, y0 + (row + 1) * cell];
    const corners = isTop
      ? [xa, ya, z, xb, ya, z, xb, yb, z, xa, yb, z]
      : [xa, yb, z, xb, yb, z, xb, ya, z, xa, ya, z];
    this.quad(corners, 0, 0, isTop ? 1 : -1, tool);
  }

  /** The wall between a cell and the next along X or Y. */
  private wall(i: number, j: number, di: number, dj: number): void {
    const [a, b] = [this.column(i, j), this.column(i + di, j + dj)];
    if (a.length === 0 && b.length === 0) return;
    const solid = without(a, b);
    const hollow = without(b, a);
    for (let n = 0; n < solid.length; n += 2) this.face(i, j, di, dj, solid[n]!, solid[n + 1]!, 1);
    for (let n = 0; n < hollow.length; n += 2) this.face(i, j, di, dj, hollow[n]!, hollow[n + 1]!, -1);
  }

  private face(i: number, j: number, di: number, dj: number, low: number, high: number, sign: number): void {
    if (high - low < LEVEL) return;
    const { x0, y0, cell } = this.grid.place;
    const [x, y] = [x0 + (i + di) * cell, y0 + (j + dj) * cell];
    const [ax, ay] = [x, y];
    const [bx, by] = di === 1 ? [x, y + cell] : [x + cell, y];
    // Seen from the open side it goes round counter-clockwise.
    const isAhead = (di === 1) === sign > 0;
    const corners = isAhead
      ? [ax, ay, low, bx, by, low, bx, by, high, ax, ay, high]
      : [bx, by, low, ax, ay, low, ax, ay, high, bx, by, high];
    const [ni, nj] = sign > 0 ? [i, j] : [i + di, j + dj];
    const [nx, ny] = this.looks(ni, nj, (low + high) / 2, di * sign, dj * sign);
    this.quad(
      corners,
      nx,
      ny,
      0,
      this.cutAt(ni, nj, i + di + (sign > 0 ? 0 : -di), j + dj + (sign > 0 ? 0 : -dj)),
    );
  }

  /** The tool that made a wall: whoever cut the open cell beside it. */
  private cutAt(i: number, j: number, oi: number, oj: number): number {
    const { nx, ny } = this.grid.place;
    if (oi < 0 || oj < 0 || oi >= nx || oj >= ny) return 0;
    const open = this.grid.makers(oi, oj).find((m) => m > 0);
    if (open !== undefined) return this.toolOf(open);
    // Cut right through: its neighbours in the metal may still tell.
    const own = this.grid.makers(i, j).find((m) => m > 0);
    return own === undefined ? 0 : this.toolOf(own);
  }

  /** Which way a wall looks: away from the metal round it, so that round walls look round. */
  private looks(i: number, j: number, z: number, fallbackX: number, fallbackY: number): [number, number] {
    let [x, y] = [0, 0];
    for (let dj = -AROUND; dj <= AROUND; dj++)
      for (let di = -AROUND; di <= AROUND; di++) {
        if (isSolid(this.column(i + di, j + dj), z)) continue;
        x += di;
        y += dj;
      }
    const length = Math.hypot(x, y);
    return length < 1e-9 ? [fallbackX, fallbackY] : [x / length, y / length];
  }

  private quad(corners: readonly number[], nx: number, ny: number, nz: number, tool: number): void {
    for (const v of corners) this.positions.push(v);
    for (let k = 0; k < 4; k++) {
      this.normals.push(nx, ny, nz);
      this.tools.push(tool);
    }
  }
}

function isSolid(column: readonly number[], z: number): boolean {
  for (let n = 0; n < column.length; n += 2) if (z > column[n]! && z < column[n + 1]!) return true;
  return false;
}
