import { dot, type Vec3 } from '../geometry/vec.ts';
import { fromFrame, toFrame } from '../geometry/frame.ts';
import type { SetupFrame, StockBody } from '../setup/setup-frame.ts';
import { Cavities, union, without } from './cavities.ts';
import { TILE, type Fill, type GridPlace, type MetalGrid } from './grid.ts';
import type { PartColumns } from './part.ts';

/** What a setup before has taken away: its metal now, and what it began with. */
export interface Before {
  grid: MetalGrid;
  base: Fill;
  frame: SetupFrame;
}

/** Where the part's outline is looked for round a place, for stock that stands wider than it. */
const ROUND = 16;

/** What a setup's stock has in each column before anything is cut in it. Program coordinates, mm. */
export function stockFill(
  { body, part: box }: SetupFrame,
  part: PartColumns | null,
  cavities: Cavities,
  margin: number,
): Fill {
  if (!body.standsProud && part)
    return (x, y, i, j) => {
      const own = part.column(i, j)?.z ?? [];
      // An open end of a slot is open to the air beside the part.
      const isBeside = x < box.min[0] || x > box.max[0] || y < box.min[1] || y > box.max[1];
      const filled = isBeside ? [] : cavities.at(x, y);
      return filled.length === 0 ? own : union([...own, ...filled]);
    };
  switch (body.shape) {
    case 'cylinder':
      return barFill(body);
    case 'outline':
      return part ? outlineFill(body, part, margin) : boxFill(body);
    default:
      return boxFill(body);
  }
}

const boxFill =
  ({ box }: StockBody): Fill =>
  (x, y) =>
    x >= box.min[0] && x <= box.max[0] && y >= box.min[1] && y <= box.max[1]
      ? [box.min[2], box.max[2]]
      : null;

function barFill({ box, along, radius }: StockBody): Fill {
  const middle = (k: 0 | 1 | 2): number => (box.min[k] + box.max[k]) / 2;
  const inside = (v: number, k: 0 | 1 | 2): boolean => v >= box.min[k] && v <= box.max[k];
  if (along === 'z')
    return (x, y) => (Math.hypot(x - middle(0), y - middle(1)) <= radius ? [box.min[2], box.max[2]] : null);
  return (x, y) => {
    const aside = along === 'x' ? y - middle(1) : x - middle(0);
    if (Math.abs(aside) > radius || !inside(along === 'x' ? x : y, along === 'x' ? 0 : 1)) return null;
    const half = Math.sqrt(radius * radius - aside * aside);
    return [middle(2) - half, middle(2) + half];
  };
}

function outlineFill({ box }: StockBody, part: PartColumns, margin: number): Fill {
  const { x0, y0, cell } = part.place;
  const isPart = (x: number, y: number): boolean =>
    part.column(Math.floor((x - x0) / cell), Math.floor((y - y0) / cell))?.z.length !== 0;
  return (x, y) => {
    const near = Array.from({ length: margin > 0 ? ROUND : 0 }, (_, k) => (2 * Math.PI * k) / ROUND);
    const isOver =
      isPart(x, y) || near.some((a) => isPart(x + margin * Math.cos(a), y + margin * Math.sin(a)));
    return isOver ? [box.min[2], box.max[2]] : null;
  };
}

/** Metal of a setup less what the one before has cut away, however the part was turned between them. */
export function leftBy(before: Before, base: Fill, now: SetupFrame): Fill {
  const [old, to] = [before.frame.frame, now.frame];
  const column = takenColumns(before);
  // A step along this setup's Z, and its origin, in the coordinates of the setup before.
  const d: Vec3 = [dot(to.z, old.x), dot(to.z, old.y), dot(to.z, old.z)];
  const at = (x: number, y: number): Vec3 => toFrame(old, fromFrame(to, [x, y, 0]));
  const [low, high] = [now.body.box.min[2], now.body.box.max[2]];
  return (x, y, i, j) => {
    const own = base(x, y, i, j);
    if (!own || own.length === 0) return own;
    const p = at(x, y);
    const taken =
      Math.abs(d[2]) > 0.999999
        ? turned(column(p[0], p[1]), p[2], d[2])
        : across(before.grid, column, p, d, low, high);
    return taken.length > 0 ? without(own, taken) : own;
  };
}

type Taken = (x: number, y: number) => readonly number[];

/** What was cut away over a place of the setup before. */
function takenColumns({ grid, base }: Before): Taken {
  const { x0, y0, cell, nx, ny } = grid.place;
  const seen = new Map<number, readonly number[]>();
  return (x, y) => {
    const [i, j] = [Math.floor((x - x0) / cell), Math.floor((y - y0) / cell)];
    if (i < 0 || j < 0 || i >= nx || j >= ny || !grid.isTouched(grid.tileOf(i, j))) return [];
    const key = j * nx + i;
    let taken = seen.get(key);
    if (!taken) {
      const whole = base(x0 + (i + 0.5) * cell, y0 + (j + 0.5) * cell, i, j) ?? [];
      seen.set(key, (taken = without(whole, grid.column(i, j))));
    }
    return taken;
  };
}

/** The same line seen from above or from below: exact. */
function turned(taken: readonly number[], origin: number, share: number): number[] {
  const z = taken.map((v) => (v - origin) / share);
  return share > 0 ? z : z.reverse();
}

/**
 * A line across the columns: each cell that it passes is metal or not at its height; ends are right to half a cell. Tiles in which nothing
 * was cut are passed in one step.
 */
function across(grid: MetalGrid, column: Taken, p: Vec3, d: Vec3, low: number, high: number): number[] {
  const out: number[] = [];
  const { x0, y0, cell } = grid.place;
  const side = TILE * cell;
  for (let k = 0; ; k++) {
    const t = low + (k + 0.5) * cell;
    if (t >= high) return out;
    const [x, y] = [p[0] + t * d[0], p[1] + t * d[1]];
    const [ti, tj] = [Math.floor((x - x0) / side), Math.floor((y - y0) / side)];
    const isInside = ti >= 0 && tj >= 0 && ti < grid.across && tj < grid.down;
    if (!isInside || !grid.isTouched(tj * grid.across + ti)) {
      const exit = Math.min(leaves(x, d[0], x0, side), leaves(y, d[1], y0, side));
      k += Math.max(0, Math.floor(exit / cell));
      continue;
    }
    const taken = column(x, y);
    const z = p[2] + t * d[2];
    for (let n = 0; n < taken.length; n += 2)
      if (z > taken[n]! && z < taken[n + 1]!) {
        const end = out[out.length - 1];
        if (end !== undefined && t - cell / 2 <= end + 1e-9) out[out.length - 1] = t + cell / 2;
        else out.push(t - cell / 2, t + cell / 2);
      }
  }
}

/** How far a line goes on before it leaves the tile that it is in, along one axis. */
function leaves(v: number, share: number, from: number, side: number): number {
  if (Math.abs(share) < 1e-12) return Infinity;
  const border = from + (Math.floor((v - from) / side) + (share > 0 ? 1 : 0)) * side;
  return Math.abs((border - v) / share);
}

/** A grid over a setup's stock and part, its cells counted from the part file's origin: setups of one job share their borders. */
export function gridPlace({ frame, stock, part }: SetupFrame, cell: number): GridPlace {
  const origin = toFrame(frame, [0, 0, 0]);
  const from = (k: 0 | 1): number =>
    origin[k] + cell * (Math.floor((Math.min(stock.min[k], part.min[k]) - origin[k]) / cell - 1e-9) - 1);
  const [x0, y0] = [from(0), from(1)];
  const count = (k: 0 | 1, start: number): number =>
    Math.ceil((Math.max(stock.max[k], part.max[k]) - start) / cell) + 1;
  return { x0, y0, cell, nx: count(0, x0), ny: count(1, y0) };
}
