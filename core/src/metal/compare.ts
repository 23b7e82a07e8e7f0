import type { Fill, MetalGrid } from './grid.ts';
import { TILE } from './tile.ts';
import { without } from './cavities.ts';
import type { PartColumn, PartColumns } from './part.ts';
import { blockSide, PaintBlocks } from './paint.ts';
import type { WantedCuts } from './wanted.ts';

export type DifferenceKind = 'over-cut' | 'left-over' | 'wanted';

/** Metal that differs from the model, at one face of it. Program coordinates, mm and mm³. */
export interface Difference {
  kind: DifferenceKind;
  /** The face of the model that it lies at; -1 where none is near. */
  face: number;
  /** Of metal that is left: the feature whose cavity it stands in; null where it stands in none. */
  cavity: string | null;
  /** How far the cut lies from the model's surface at the worst place, and where that is. */
  depth: number;
  at: [number, number, number];
  volume: number;
  /** Number of the motion that cut there, from 0; null where that is not known. */
  motion: number | null;
  /** Where all of it lies. */
  blocks: PaintBlocks;
}

/** What is shorter than this along a column is a rounding, mm. */
const LEAST = 5e-4;
/** Where it is this deep in the middle, one look is enough, mm. */
const DEEP = 0.5;
/** Looks for where a wanted cut ends in a column. */
const HALVINGS = 16;

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
  /** The feature whose cavity a place lies in; null for none. */
  cavityAt(x: number, y: number, z: number): string | null;
  /** Tiles to be looked at. */
  tiles: readonly number[];
  /** Columns of which nothing could be said. */
  skipped: { columns: number };
}

/** Compares metal with the model, column by column, judged by the exact surfaces; told after each tile. */
export function* compareTiles(input: CompareInput): Generator<number, Difference[]> {
  const found = new Map<string, Difference>();
  for (const [n, tile] of input.tiles.entries()) {
    compareTile(input, tile, found);
    yield n + 1;
  }
  return [...found.values()];
}

function compareTile(input: CompareInput, tile: number, found: Map<string, Difference>): void {
  const { grid, part } = input;
  const { x0, y0, cell, nx, ny } = grid.place;
  const [i0, j0] = [(tile % grid.across) * TILE, Math.floor(tile / grid.across) * TILE];
  // 1 where metal and part differ. Columns whose neighbours differ as well lie away from walls.
  const differs = new Uint8Array(TILE * TILE);
  for (let j = 0; j < Math.min(TILE, ny - j0); j++)
    for (let i = 0; i < Math.min(TILE, nx - i0); i++)
      if (!part.isIn(grid, i0 + i, j0 + j, LEAST)) differs[j * TILE + i] = 1;
  for (let n = 0; n < TILE * TILE; n++) {
    if (differs[n] !== 1) continue;
    const [i, j] = [i0 + (n % TILE), j0 + Math.floor(n / TILE)];
    const model = part.column(i, j);
    if (!model) {
      input.skipped.columns++;
      continue;
    }
    const column: Column = {
      i,
      j,
      x: x0 + (i + 0.5) * cell,
      y: y0 + (j + 0.5) * cell,
      model,
      differs,
      n,
    };
    const metal = grid.column(i, j);
    const gone = without(model.z, metal);
    // What was gone before this setup began is not its over-cut.
    const over =
      gone.length > 0 ? without(gone, without(gone, input.base(column.x, column.y, i, j) ?? [])) : gone;
    judge(input, 'over-cut', column, over, found);
    judge(input, 'left-over', column, without(metal, model.z), found);
  }
}

const NEIGHBOURS = [
  [-1, 0],
  [1, 0],
  [0, -1],
  [0, 1],
] as const;

/** Whether a column and all beside it, in its tile, differ in the same way at a height: then it is no sliver along a wall. */
function isAmong(
  { grid, part }: CompareInput,
  kind: 'over-cut' | 'left-over',
  { i, j, n, differs }: Column,
  z: number,
): boolean {
  const [own, row] = [n % TILE, Math.floor(n / TILE)];
  if (own === 0 || row === 0 || own === TILE - 1 || row === TILE - 1) return false;
  if (NEIGHBOURS.some(([di, dj]) => differs[n + di + TILE * dj] !== 1)) return false;
  return NEIGHBOURS.every(([di, dj]) => {
    const inModel = holds(part.column(i + di, j + dj)?.z ?? [], z);
    const inMetal = holds(grid.column(i + di, j + dj), z);
    return kind === 'over-cut' ? inModel && !inMetal : inMetal && !inModel;
  });
}

/** Whether a height lies in one of some intervals, from low to high. */
function holds(pairs: ArrayLike<number>, z: number): boolean {
  for (let n = 0; n + 1 < pairs.length; n += 2) if (z >= pairs[n]! && z <= pairs[n + 1]!) return true;
  return false;
}

interface Column {
  i: number;
  j: number;
  x: number;
  y: number;
  model: PartColumn;
  /** Its place in its tile, and which columns of that differ. */
  n: number;
  differs: Uint8Array;
}

function judge(
  input: CompareInput,
  kind: 'over-cut' | 'left-over',
  column: Column,
  pairs: readonly number[],
  found: Map<string, Difference>,
): void {
  const { grid, tolerance, reach } = input;
  const { i, j, x, y } = column;
  const area = grid.place.cell ** 2;
  for (let n = 0; n < pairs.length; n += 2) {
    let [low, high] = [pairs[n]!, pairs[n + 1]!];
    if (high - low <= LEAST) continue;
    if (kind === 'over-cut') {
      const beyond = beyondWanted(input, column, low, high);
      const volume = (high - low - (beyond ? beyond.high - beyond.low : 0)) * area;
      if (volume > 0) {
        const face = faceAt(column.model, low, high)?.face ?? -1;
        const blocks = add(found, blockSide(grid.place.cell), {
          kind: 'wanted',
          face,
          cavity: null,
          depth: 0,
          at: [x, y, low],
          volume,
          motion: null,
        });
        // A sliver along a wall is how a grid rounds it.
        if (isAmong(input, kind, column, (low + high) / 2))
          blocks.add(
            x,
            y,
            beyond && beyond.low === low ? beyond.high : low,
            beyond?.high === high ? beyond.low : high,
          );
      }
      if (!beyond || beyond.high - beyond.low <= LEAST) continue;
      ({ low, high } = beyond);
    }
    const volume = (high - low) * area;
    const worst = depthOf(input, kind, column, low, high);
    if (worst.depth <= tolerance) continue;
    const blocks = add(found, blockSide(grid.place.cell), {
      kind,
      face: worst.face,
      cavity: kind === 'left-over' ? input.cavityAt(x, y, (low + high) / 2) : null,
      depth: Math.min(worst.depth, reach),
      at: [x, y, worst.z],
      volume,
      motion: kind === 'over-cut' ? makerAt(grid, i, j, low, high) : null,
    });
    blocks.add(x, y, low, high);
  }
}

/** The stretch of a cut that is not wanted: what is wanted begins at one of its ends. Null where all of it is. */
function beyondWanted(
  { wanted }: CompareInput,
  { x, y }: Column,
  low: number,
  high: number,
): { low: number; high: number } | null {
  const [isLow, isHigh] = [wanted.at(x, y, low), wanted.at(x, y, high)];
  if (isLow && isHigh) return wanted.at(x, y, (low + high) / 2) ? null : { low, high };
  if (!isLow && !isHigh) return { low, high };
  let [within, without] = isHigh ? [high, low] : [low, high];
  for (let n = 0; n < HALVINGS; n++) {
    const z = (within + without) / 2;
    if (wanted.at(x, y, z)) within = z;
    else without = z;
  }
  return isHigh ? { low, high: without } : { low: without, high };
}

/** How deep a difference is at its worst, judged by the exact surfaces and by where a wanted cut ends. */
function depthOf(
  input: CompareInput,
  kind: 'over-cut' | 'left-over',
  column: Column,
  low: number,
  high: number,
): { depth: number; z: number; face: number } {
  const { part, reach } = input;
  const { x, y, model } = column;
  // Asked only where it tells something: its neighbours are looked into.
  let broad: boolean | null = null;
  const isBroad = (): boolean => (broad ??= isAmong(input, kind, column, (low + high) / 2));
  const end = faceAt(model, low, high);
  // The end that the part does not have lies farthest from its surface; over a level face its height says how far.
  const far = end && end.z === high ? low : high;
  const isOver = kind === 'over-cut';
  if (end && part.isLevel(end.face) && isBroad())
    return { depth: Math.min(reach, high - low), z: far, face: end.face };
  let worst = { depth: -Infinity, z: far, face: -1 };
  for (const z of [(low + high) / 2, far, low + high - far]) {
    const near = part.nearest(x, y, z);
    const depth = near ? (isOver ? -near.distance : near.distance) : reach;
    if (depth > worst.depth) worst = { depth, z, face: near?.face ?? -1 };
    if (depth > DEEP || (depth > 0 && isBroad())) break;
  }
  return worst;
}

/** The face of the part at one of two heights of a column, the lower first; null where neither is the part's own. */
function faceAt({ z, face }: PartColumn, low: number, high: number): { z: number; face: number } | null {
  for (const level of [low, high]) {
    const n = z.findIndex((v) => Math.abs(v - level) < LEAST);
    if (n >= 0) return { z: level, face: face[n]! };
  }
  return null;
}

/** Adds what one column shows to its face's difference, and gives the blocks of that. */
function add(found: Map<string, Difference>, side: number, d: Omit<Difference, 'blocks'>): PaintBlocks {
  const key = `${d.kind}/${d.cavity ?? d.face}`;
  const known = found.get(key);
  if (!known) {
    const blocks = new PaintBlocks(side);
    found.set(key, { ...d, blocks });
    return blocks;
  }
  known.volume += d.volume;
  if (d.depth > known.depth) {
    known.depth = d.depth;
    known.at = d.at;
    known.motion = d.motion ?? known.motion;
  }
  return known.blocks;
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
