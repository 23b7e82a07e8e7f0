import { CELLS, cellOf, columnOf, copyOf, emptyTile, MOST, TILE, widen, type Tile } from './tile.ts';

/** Where columns stand: square cells, their middles at `x0 + (i + 0.5) · cell`. Program coordinates, mm. */
export interface GridPlace {
  x0: number;
  y0: number;
  cell: number;
  nx: number;
  ny: number;
}

/** What a fresh column holds: pairs of low and high, from low to high; `null` for nothing at all. */
export type Fill = (x: number, y: number, i: number, j: number) => readonly number[] | null;

/** Cuts away between two heights, and says how much was there, as a length, mm. */
export interface Taken {
  length: number;
  /** Lowest and highest place where there was metal. */
  low: number;
  high: number;
}

/**
 * Metal as intervals along Z over a grid of columns, in typed arrays. Tiles are made when a cut first touches them: metal that nothing
 * touches costs nothing. Undercuts are gaps between intervals.
 */
export class MetalGrid {
  private readonly tiles: (Tile | null)[];
  private readonly stock: Tile[] | null;
  readonly across: number;
  readonly down: number;
  private age = 0;
  /** Tiles that changed since they were last asked for. */
  private readonly changed = new Set<number>();
  private readonly unsettled = new Set<number>();
  private touched = -1;
  /** Cuts that were not kept because a column would fall into more pieces than it can hold. */
  lost = 0;
  /** What the last cut took of a column. */
  readonly taken: Taken = { length: 0, low: 0, high: 0 };

  constructor(
    readonly place: GridPlace,
    private readonly fill: Fill,
    /** No metal of the stock stands higher. */
    readonly top: number,
    /** Tiles are kept as they were before they were cut: for setups that begin with what this one leaves. */
    keepsStock = false,
  ) {
    this.stock = keepsStock ? [] : null;
    this.across = Math.ceil(place.nx / TILE);
    this.down = Math.ceil(place.ny / TILE);
    this.tiles = Array.from({ length: this.across * this.down }, () => null);
  }

  /** Metal of one column, as pairs of low and high, from low to high. */
  column(i: number, j: number): number[] {
    const tile = this.tiles[this.tileOf(i, j)];
    return tile ? columnOf(tile, cellOf(i, j)) : [...(this.fresh(i, j) ?? [])];
  }

  /** What stood in one column before anything was cut, in the same way. */
  stockColumn(i: number, j: number): readonly number[] {
    const tile = this.stock?.[this.tileOf(i, j)];
    return tile ? columnOf(tile, cellOf(i, j)) : (this.fresh(i, j) ?? []);
  }

  /** Whether a column's metal lies as a stretch of these heights says, to within `slack`: asked of every column, it makes nothing. */
  isAs(i: number, j: number, z: ArrayLike<number>, from: number, to: number, slack: number): boolean {
    const tile = this.tiles[this.tileOf(i, j)];
    if (!tile) return false;
    const c = cellOf(i, j);
    const n = 2 * tile.count[c]!;
    if (n !== to - from) return false;
    const start = 2 * c * tile.room;
    for (let k = 0; k < n; k++) if (Math.abs(tile.z[start + k]! - z[from + k]!) > slack) return false;
    return true;
  }

  /** Which cuts made the ends of a column's intervals, in the order of {@link column}; 0: the stock's own. */
  makers(i: number, j: number): number[] {
    const tile = this.tiles[this.tileOf(i, j)];
    if (!tile) return (this.fresh(i, j) ?? []).map(() => 0);
    const c = cellOf(i, j);
    const start = 2 * c * tile.room;
    return Array.from(tile.by.subarray(start, start + 2 * tile.count[c]!));
  }

  /** Whether anything was ever cut or asked for in this tile. */
  isTouched(tile: number): boolean {
    return this.tiles[tile] !== null;
  }

  /** Highest metal of a tile, or the stock's top where nothing has touched it. */
  topOf(tile: number): number {
    return this.tiles[tile]?.top ?? this.top;
  }

  tileOf(i: number, j: number): number {
    return Math.floor(j / TILE) * this.across + Math.floor(i / TILE);
  }

  /** Tiles that changed since this was last asked. */
  takeChanged(): number[] {
    const out = [...this.changed];
    this.changed.clear();
    this.touched = -1;
    return out;
  }

  /** The metal as it is now, to come back to: tiles are copied when they next change. */
  snapshot(): (Tile | null)[] {
    this.age++;
    return [...this.tiles];
  }

  /** Back to a snapshot. */
  restore(snapshot: readonly (Tile | null)[]): void {
    this.age++;
    snapshot.forEach((tile, k) => {
      if (this.tiles[k] === tile) return;
      this.tiles[k] = tile;
      this.changed.add(k);
    });
  }

  /**
   * Takes the metal of a column between two heights; `cut` false only looks. What was there is in {@link taken}. `maker` is remembered at
   * the new ends. True where there was any.
   */
  take(i: number, j: number, low: number, high: number, maker: number, cut = true): boolean {
    const k = this.tileOf(i, j);
    let tile = this.tiles[k] ?? null;
    const { taken } = this;
    taken.length = 0;
    if (low >= (tile?.top ?? this.top)) return false;
    if (!tile) tile = this.open(k);
    const c = cellOf(i, j);
    const count = tile.count[c]!;
    const start = 2 * c * tile.room;
    let [first, last] = [-1, -1];
    for (let n = 0; n < count; n++) {
      const [a, b] = [tile.z[start + 2 * n]!, tile.z[start + 2 * n + 1]!];
      if (b <= low || a >= high) continue;
      const [from, to] = [Math.max(a, low), Math.min(b, high)];
      if (first < 0) {
        first = n;
        taken.low = from;
      }
      last = n;
      taken.high = to;
      taken.length += to - from;
    }
    if (first < 0) return false;
    if (cut) this.carve(k, tile, c, first, last, low, high, maker);
    return true;
  }

  /**
   * Takes the metal between two heights from a run of columns of one row in one tile, `i` to `last`; gives how much was there in all, as a
   * length, mm. The same as {@link take} of each, without a word on where.
   */
  takeRun(i: number, last: number, j: number, low: number, high: number, maker: number): number {
    const k = this.tileOf(i, j);
    let tile = this.tiles[k] ?? null;
    if (low >= (tile?.top ?? this.top)) return 0;
    tile = this.own(k, tile ?? this.open(k));
    const { count } = tile;
    let length = 0;
    const first = cellOf(i, j);
    for (let c = first; c <= first + last - i; c++) {
      const n = count[c]!;
      if (n === 0) continue;
      if (n === 1) {
        // One piece, of which nothing, all, or the upper end goes: nearly always.
        const { z, by } = tile;
        const at = 2 * c * tile.room;
        const bottom = z[at]!;
        const top = z[at + 1]!;
        if (top <= low || bottom >= high) continue;
        if (top <= high) {
          length += top - Math.max(low, bottom);
          if (bottom >= low) count[c] = 0;
          else {
            z[at + 1] = low;
            by[at + 1] = maker;
          }
          this.touch(k);
          continue;
        }
      }
      if (this.take(i + c - first, j, low, high, maker)) length += this.taken.length;
    }
    return length;
  }

  private carve(
    k: number,
    shared: Tile,
    c: number,
    first: number,
    last: number,
    low: number,
    high: number,
    maker: number,
  ): void {
    const tile = this.own(k, shared);
    const count = tile.count[c]!;
    let start = 2 * c * tile.room;
    const below = tile.z[start + 2 * first]! < low;
    const above = tile.z[start + 2 * last + 1]! > high;
    const kept = (below ? 1 : 0) + (above ? 1 : 0);
    const shift = kept - (last - first + 1);
    if (count + shift > tile.room) {
      if (tile.room >= MOST) {
        this.lost++;
        return;
      }
      widen(tile);
      start = 2 * c * tile.room;
    }
    const { z, by } = tile;
    const [bottom, bottomBy] = [z[start + 2 * first]!, by[start + 2 * first]!];
    const [top, topBy] = [z[start + 2 * last + 1]!, by[start + 2 * last + 1]!];
    const tail = start + 2 * (last + 1);
    const end = start + 2 * count;
    if (shift !== 0 && tail < end) {
      z.copyWithin(tail + 2 * shift, tail, end);
      by.copyWithin(tail + 2 * shift, tail, end);
    }
    let at = start + 2 * first;
    if (below) {
      z[at] = bottom;
      z[at + 1] = low;
      by[at] = bottomBy;
      by[at + 1] = maker;
      at += 2;
    }
    if (above) {
      z[at] = high;
      z[at + 1] = top;
      by[at] = maker;
      by[at + 1] = topBy;
    }
    tile.count[c] = count + shift;
    this.touch(k);
  }

  /** A tile changed; told once for a run of cells in one tile. */
  private touch(k: number): void {
    if (this.touched === k) return;
    this.touched = k;
    this.changed.add(k);
    this.unsettled.add(k);
  }

  /** Lowers what is known of the highest metal of the tiles that changed; asked now and then, it spares looking into air. */
  settle(): void {
    for (const k of this.unsettled) {
      const tile = this.tiles[k];
      if (!tile) continue;
      let top = -Infinity;
      for (let c = 0; c < CELLS; c++) {
        const n = tile.count[c]!;
        if (n > 0) top = Math.max(top, tile.z[2 * c * tile.room + 2 * n - 1]!);
      }
      tile.top = top;
    }
    this.unsettled.clear();
    this.touched = -1;
  }

  /** Volume of the metal, mm³. */
  volume(): number {
    let sum = 0;
    for (let j = 0; j < this.place.ny; j++)
      for (let i = 0; i < this.place.nx; i++) {
        const c = this.column(i, j);
        for (let n = 0; n < c.length; n += 2) sum += c[n + 1]! - c[n]!;
      }
    return sum * this.place.cell ** 2;
  }

  private fresh(i: number, j: number): readonly number[] | null {
    const { x0, y0, cell, nx, ny } = this.place;
    if (i >= nx || j >= ny) return null;
    return this.fill(x0 + (i + 0.5) * cell, y0 + (j + 0.5) * cell, i, j);
  }

  /** A tile as the stock has it. */
  private open(k: number): Tile {
    const [i0, j0] = [(k % this.across) * TILE, Math.floor(k / this.across) * TILE];
    // One that is kept as it was is copied before it is first cut.
    const tile = emptyTile(this.stock ? -1 : this.age);
    for (let c = 0; c < CELLS; c++) {
      const column = this.fresh(i0 + (c % TILE), j0 + Math.floor(c / TILE));
      if (!column || column.length === 0) continue;
      const n = column.length;
      while (n > 2 * tile.room) widen(tile);
      tile.count[c] = n / 2;
      const start = 2 * c * tile.room;
      for (let m = 0; m < n; m++) tile.z[start + m] = column[m]!;
      if (column[n - 1]! > tile.top) tile.top = column[n - 1]!;
    }
    this.tiles[k] = tile;
    if (this.stock) this.stock[k] = tile;
    return tile;
  }

  /** The tile, copied where a snapshot still needs it as it was. */
  private own(k: number, tile: Tile): Tile {
    if (tile.age === this.age) return tile;
    const copy = copyOf(tile, this.age);
    this.tiles[k] = copy;
    return copy;
  }
}

export type MetalSnapshot = ReturnType<MetalGrid['snapshot']>;
