import type { Fill, MetalGrid } from './grid.ts';
import { TILE } from './grid.ts';
import { without } from './cavities.ts';
import type { PartColumns } from './part.ts';
import type { WantedCuts } from './wanted.ts';

export type DifferenceKind = 'over-cut' | 'left-over' | 'wanted';

/** Metal that differs from the model, at one face of it. Program coordinates, mm and mm³. */
export interface Difference {
  kind: DifferenceKind;
  /** The face of the model that it lies at; -1 where none is near. */
  face: number;
  /** How far the cut lies from the model's surface at the worst place, and where that is. */
  depth: number;
  at: [number, number, number];
  volume: number;
  /** Number of the motion that cut there, from 0; null where that is not known. */
  motion: number | null;
}

/** What is shorter than this along a column is a rounding, mm. */
const LEAST = 5e-4;
/** Where it is this deep in the middle, one look is enough, mm. */
const DEEP = 0.5;

export interface CompareInput {
  grid: MetalGrid;
  part: PartColumns;
  /** What stood there before this setup cut anything: what was gone then is not its over-cut. */
  base: Fill;
  wanted: WantedCuts;
  /** Differences no deeper than this are none, mm. */
  tolerance: number;
  /** How far a difference is looked into: what is deeper is said to be this deep, mm. */
  reach: number;
  /** Tiles to be looked at. */
  tiles: readonly number[];
}

/** Compares metal with the model, column by column, judged by the exact surfaces; told after each tile. */
export function* compareTiles(input: CompareInput): Generator<number, Difference[]> {
  const found = new Map<string, Difference>();
  for (const [n, tile] of input.tiles.entries()) {
    compareTile(input, tile, found);
    input.part.forget(tile);
    yield n + 1;
  }
  return [...found.values()];
}

function compareTile(input: CompareInput, tile: number, found: Map<string, Difference>): void {
  const { grid, part } = input;
  const { x0, y0, cell, nx, ny } = grid.place;
  const [i0, j0] = [(tile % grid.across) * TILE, Math.floor(tile / grid.across) * TILE];
  for (let j = j0; j < Math.min(ny, j0 + TILE); j++)
    for (let i = i0; i < Math.min(nx, i0 + TILE); i++) {
      const model = part.column(i, j);
      if (model.z.length === 1) continue;
      if (grid.isAs(i, j, model.z, LEAST)) continue;
      const metal = grid.column(i, j);
      const [x, y] = [x0 + (i + 0.5) * cell, y0 + (j + 0.5) * cell];
      const gone = without(model.z, metal);
      const over = gone.length > 0 ? without(gone, without(gone, input.base(x, y, i, j) ?? [])) : gone;
      const left = without(metal, model.z);
      for (let n = 0; n < over.length; n += 2)
        if (over[n + 1]! - over[n]! > LEAST)
          judge(input, 'over-cut', i, j, x, y, over[n]!, over[n + 1]!, found);
      for (let n = 0; n < left.length; n += 2)
        if (left[n + 1]! - left[n]! > LEAST)
          judge(input, 'left-over', i, j, x, y, left[n]!, left[n + 1]!, found);
    }
}

function judge(
  input: CompareInput,
  kind: 'over-cut' | 'left-over',
  i: number,
  j: number,
  x: number,
  y: number,
  low: number,
  high: number,
  found: Map<string, Difference>,
): void {
  const { grid, part, wanted, tolerance, reach } = input;
  const inward = kind === 'over-cut' ? -1 : 1;
  let worst: { depth: number; z: number; face: number } | null = null;
  for (const share of [0.5, 0, 1, 0.25, 0.75]) {
    const z = low + share * (high - low);
    if (kind === 'over-cut' && wanted.at(x, y, z)) continue;
    const near = part.nearest(x, y, z);
    const depth = near ? inward * near.distance : reach;
    if (!worst || depth > worst.depth) worst = { depth, z, face: near?.face ?? -1 };
    if (share === 0.5 && depth > DEEP) break;
  }
  const volume = (high - low) * grid.place.cell ** 2;
  if (!worst) {
    add(found, 'wanted', part.nearest(x, y, (low + high) / 2)?.face ?? -1, 0, [x, y, low], volume, null);
    return;
  }
  if (worst.depth <= tolerance) return;
  const maker = kind === 'over-cut' ? makerAt(grid, i, j, low, high) : null;
  add(found, kind, worst.face, Math.min(worst.depth, reach), [x, y, worst.z], volume, maker);
}

function add(
  found: Map<string, Difference>,
  kind: DifferenceKind,
  face: number,
  depth: number,
  at: [number, number, number],
  volume: number,
  motion: number | null,
): void {
  const key = `${kind}/${face}`;
  const known = found.get(key);
  if (!known) {
    found.set(key, { kind, face, depth, at, volume, motion });
    return;
  }
  known.volume += volume;
  if (depth <= known.depth) return;
  known.depth = depth;
  known.at = at;
  known.motion = motion ?? known.motion;
}

/** The motion that made an end of the gap between two heights; null where nothing of the column is left to tell. */
function makerAt(grid: MetalGrid, i: number, j: number, low: number, high: number): number | null {
  const z = grid.column(i, j);
  const by = grid.makers(i, j);
  let best: number | null = null;
  let away = Infinity;
  for (const [n, v] of z.entries()) {
    const d = Math.min(Math.abs(v - low), Math.abs(v - high));
    if (by[n]! > 0 && d < away) [best, away] = [by[n]! - 1, d];
  }
  return best;
}
