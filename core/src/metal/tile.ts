/** Cells along one side of a tile. */
export const TILE = 32;
export const CELLS = TILE * TILE;

/** Pieces that a column may fall into. */
export const MOST = 120;

/** Intervals of the columns of one tile. */
export interface Tile {
  /** How many intervals each column has. */
  count: Uint8Array;
  /** Low and high of each interval, `room` intervals a column. */
  z: Float32Array;
  /** Which cut made each of these ends; 0: the stock's own. */
  by: Uint32Array;
  room: number;
  /** No metal stands higher. */
  top: number;
  /** The snapshot it was last copied for. */
  age: number;
}

/** A tile without metal, with room for two pieces a column. */
export const emptyTile = (age: number): Tile => ({
  count: new Uint8Array(CELLS),
  z: new Float32Array(4 * CELLS),
  by: new Uint32Array(4 * CELLS),
  room: 2,
  top: -Infinity,
  age,
});

/** A tile that may be changed while the other stays. */
export const copyOf = (tile: Tile, age: number): Tile => ({
  ...tile,
  count: tile.count.slice(),
  z: tile.z.slice(),
  by: tile.by.slice(),
  age,
});

/** A cell's number in its tile. */
export const cellOf = (i: number, j: number): number => (j % TILE) * TILE + (i % TILE);

/** The metal of one cell's column. */
export function columnOf(tile: Tile, c: number): number[] {
  const start = 2 * c * tile.room;
  const out: number[] = [];
  for (let k = start; k < start + 2 * tile.count[c]!; k++) out.push(tile.z[k]!);
  return out;
}

/** Twice the room for intervals. */
export function widen(tile: Tile): void {
  const room = 2 * tile.room;
  const [z, by] = [new Float32Array(2 * CELLS * room), new Uint32Array(2 * CELLS * room)];
  for (let c = 0; c < CELLS; c++) {
    const from = 2 * c * tile.room;
    z.set(tile.z.subarray(from, from + 2 * tile.room), 2 * c * room);
    by.set(tile.by.subarray(from, from + 2 * tile.room), 2 * c * room);
  }
  tile.z = z;
  tile.by = by;
  tile.room = room;
}
