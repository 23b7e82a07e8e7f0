import { dot, type Vec3 } from '../geometry/vec.ts';
import { fromFrame, toFrame, type Frame } from '../geometry/frame.ts';
import type { Bounds } from '../model/solid-model.ts';
import type { SetupFrame } from '../setup/setup-frame.ts';
import { without } from './cavities.ts';
import type { Fill, MetalGrid } from './grid.ts';
import { TILE } from './tile.ts';

/** A setup before, with what it has taken away: its grid keeps its stock. */
export interface Before {
  grid: MetalGrid;
  frame: SetupFrame;
}

/** What a setup before has cut away, as those after it ask. */
export class TakenBefore {
  private readonly taken: TakenTiles;
  private readonly frame: Frame;

  constructor({ grid, frame }: Before) {
    this.taken = new TakenTiles(grid, frame.body.box);
    this.frame = frame.frame;
  }

  /** Whether metal at a place of the part file's frame was cut away. */
  hadAt(p: Vec3): boolean {
    const [x, y, z] = toFrame(this.frame, p);
    const gone = this.taken.over(x, y);
    for (let n = 0; n < gone.length; n += 2) if (z > gone[n]! && z < gone[n + 1]!) return true;
    return false;
  }

  /** Metal of a later setup less what was cut away, however the part was turned between them. */
  leaves(base: Fill, now: SetupFrame): Fill {
    const { taken, frame: old } = this;
    const to = now.frame;
    // A step along that setup's Z, in the coordinates of this one.
    const d: Vec3 = [dot(to.z, old.x), dot(to.z, old.y), dot(to.z, old.z)];
    const isUpright = Math.abs(d[2]) > 0.999999;
    const [low, high] = [now.body.box.min[2], now.body.box.max[2]];
    return (x, y, i, j) => {
      const own = base(x, y, i, j);
      if (!own || own.length === 0) return own;
      const p = toFrame(old, fromFrame(to, [x, y, 0]));
      const gone = isUpright ? turned(taken.over(p[0], p[1]), p[2], d[2]) : across(taken, p, d, low, high);
      return gone.length > 0 ? without(own, gone) : own;
    };
  }
}

/** What was cut away in one tile, column by column. */
interface TakenTile {
  /** Where each column's pairs begin; one more than there are columns. */
  start: Uint32Array;
  z: Float64Array;
  /** Nothing was taken below and above. */
  low: number;
  high: number;
}

const NOTHING: readonly number[] = [];

/** What was cut away of a setup's stock, worked out tile by tile as it is asked for. */
class TakenTiles {
  private readonly tiles: (TakenTile | null | undefined)[] = [];

  constructor(
    readonly grid: MetalGrid,
    private readonly box: Bounds,
  ) {}

  /** A coordinate of a place in the stock, where columns have their middles in it: those on its rim have theirs outside, and no metal. */
  within(v: number, k: 0 | 1): number {
    const [low, high] = [this.box.min[k]!, this.box.max[k]!];
    const half = Math.min(this.grid.place.cell, high - low) / 2;
    return v < low || v > high ? v : Math.min(high - half, Math.max(low + half, v));
  }

  /** What was cut away over a place, pairs from low to high. */
  over(x: number, y: number): readonly number[] {
    const { x0, y0, cell, nx, ny } = this.grid.place;
    const [i, j] = [Math.floor((this.within(x, 0) - x0) / cell), Math.floor((this.within(y, 1) - y0) / cell)];
    if (i < 0 || j < 0 || i >= nx || j >= ny) return NOTHING;
    const tile = this.at(this.grid.tileOf(i, j));
    if (!tile) return NOTHING;
    const c = (j % TILE) * TILE + (i % TILE);
    const [from, to] = [tile.start[c]!, tile.start[c + 1]!];
    return from === to ? NOTHING : Array.from(tile.z.subarray(from, to));
  }

  /** A tile by its number; null where nothing was taken. */
  at(k: number): TakenTile | null {
    const known = this.tiles[k];
    if (known !== undefined) return known;
    return (this.tiles[k] = this.grid.isTouched(k) ? this.look(k) : null);
  }

  private look(k: number): TakenTile | null {
    const { grid } = this;
    const [i0, j0] = [(k % grid.across) * TILE, Math.floor(k / grid.across) * TILE];
    const start = new Uint32Array(TILE * TILE + 1);
    const z: number[] = [];
    for (let c = 0; c < TILE * TILE; c++) {
      const [i, j] = [i0 + (c % TILE), j0 + Math.floor(c / TILE)];
      const stock = grid.stockColumn(i, j);
      if (stock.length > 0) for (const v of without(stock, grid.column(i, j))) z.push(v);
      start[c + 1] = z.length;
    }
    if (z.length === 0) return null;
    let [low, high] = [Infinity, -Infinity];
    for (const v of z) {
      if (v < low) low = v;
      if (v > high) high = v;
    }
    return { start, z: Float64Array.from(z), low, high };
  }
}

/** The same line seen from above or from below: exact. */
function turned(taken: readonly number[], origin: number, share: number): readonly number[] {
  if (taken.length === 0) return taken;
  const z = taken.map((v) => (v - origin) / share);
  return share > 0 ? z : z.reverse();
}

/**
 * A line across the columns: each cell that it passes is metal or not at its height; ends are right to half a cell. Tiles in which nothing
 * was cut at its height are passed in one step.
 */
function across(taken: TakenTiles, p: Vec3, d: Vec3, low: number, high: number): number[] {
  const out: number[] = [];
  const { grid } = taken;
  const { x0, y0, cell, nx, ny } = grid.place;
  const side = TILE * cell;
  const isLevel = Math.abs(d[2]) < 1e-9;
  let number = -1;
  let tile: TakenTile | null = null;
  for (let k = 0; ; k++) {
    const from = low + k * cell;
    if (from >= high - 1e-9) return out;
    // The last may be less than a whole one.
    const to = Math.min(high, from + cell);
    const t = (from + to) / 2;
    const x = taken.within(p[0] + t * d[0], 0);
    const y = taken.within(p[1] + t * d[1], 1);
    const i = Math.floor((x - x0) / cell);
    const j = Math.floor((y - y0) / cell);
    const here = i < 0 || j < 0 || i >= nx || j >= ny ? -1 : grid.tileOf(i, j);
    if (here !== number || here < 0) {
      number = here;
      tile = here < 0 ? null : taken.at(here);
      if (tile && isLevel && (p[2] <= tile.low || p[2] >= tile.high)) tile = null;
    }
    if (!tile) {
      const exit = Math.min(leaves(x, d[0], x0, side), leaves(y, d[1], y0, side));
      k += Math.max(0, Math.floor(exit / cell));
      number = -1;
      continue;
    }
    const c = (j % TILE) * TILE + (i % TILE);
    const z = p[2] + t * d[2];
    for (let n = tile.start[c]!; n < tile.start[c + 1]!; n += 2)
      if (z > tile.z[n]! && z < tile.z[n + 1]!) {
        const end = out[out.length - 1];
        if (end !== undefined && from <= end + 1e-9) out[out.length - 1] = to;
        else out.push(from, to);
      }
  }
}

/** How far a line goes on before it leaves the tile that it is in, along one axis. */
function leaves(v: number, share: number, from: number, side: number): number {
  if (Math.abs(share) < 1e-12) return Infinity;
  const border = from + (Math.floor((v - from) / side) + (share > 0 ? 1 : 0)) * side;
  return Math.abs((border - v) / share);
}
