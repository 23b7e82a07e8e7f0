import { TILE } from './tile.ts';

const CELLS = TILE * TILE;

/** The part's columns of a tile, one after the other. */
export interface PartTile {
  /** Where each column's crossings begin; one more than there are columns. */
  start: Uint32Array;
  z: Float64Array;
  face: Int32Array;
  /** Columns that the mesh does not close over: nothing is known of them. */
  open: Uint8Array;
}

/** Ends this near each other are one: bodies or faces that touch, mm. */
const TOUCHING = 1e-6;

/** Where the columns of one tile cross the part's surface, as they are found; used again for each tile. */
export class Crossings {
  private readonly head = new Int32Array(CELLS).fill(-1);
  private next = new Int32Array(4 * CELLS);
  private z = new Float64Array(4 * CELLS);
  private face = new Int32Array(4 * CELLS);
  private up = new Int8Array(4 * CELLS);
  private count = 0;
  /** One column in order: the first so many. */
  private order = new Int32Array(64);
  private length = 0;

  clear(): void {
    this.head.fill(-1);
    this.count = 0;
  }

  /** `up`: 1 where the surface looks up, and the column leaves the metal; else -1. */
  add(cell: number, z: number, face: number, up: number): void {
    if (this.count === this.z.length) this.grow();
    const n = this.count++;
    this.next[n] = this.head[cell]!;
    this.head[cell] = n;
    this.z[n] = z;
    this.face[n] = face;
    this.up[n] = up;
  }

  private grow(): void {
    const wider = <T extends Int32Array | Float64Array | Int8Array>(old: T, fresh: T): T => {
      fresh.set(old);
      return fresh;
    };
    const room = 2 * this.z.length;
    this.next = wider(this.next, new Int32Array(room));
    this.z = wider(this.z, new Float64Array(room));
    this.face = wider(this.face, new Int32Array(room));
    this.up = wider(this.up, new Int8Array(room));
  }

  /** From crossings to what lies between them: in through faces that look down, out through those that look up. */
  pack(): PartTile {
    const out: PartTile = {
      start: new Uint32Array(CELLS + 1),
      z: new Float64Array(this.count),
      face: new Int32Array(this.count),
      open: new Uint8Array(CELLS),
    };
    let at = 0;
    for (let c = 0; c < CELLS; c++) {
      const from = at;
      this.sort(c);
      let depth = 0;
      for (let k = 0; k < this.length; k++) {
        const n = this.order[k]!;
        const before = depth;
        depth -= this.up[n]!;
        if (before === 0 && depth === 1 && at > from && this.z[n]! - out.z[at - 1]! < TOUCHING) at--;
        else if ((before === 0 && depth === 1) || (before === 1 && depth === 0)) {
          out.z[at] = this.z[n]!;
          out.face[at++] = this.face[n]!;
        }
      }
      if (depth !== 0 || (at - from) % 2 !== 0) {
        out.open[c] = 1;
        at = from;
      }
      out.start[c + 1] = at;
    }
    return { ...out, z: out.z.slice(0, at), face: out.face.slice(0, at) };
  }

  /** The crossings of a column from low to high; of two at one height the way out first. */
  private sort(cell: number): void {
    const { z, up } = this;
    let { order } = this;
    let length = 0;
    for (let n = this.head[cell]!; n >= 0; n = this.next[n]!) {
      if (length === order.length) {
        order = new Int32Array(2 * length);
        order.set(this.order);
        this.order = order;
      }
      let k = length++;
      while (k > 0 && isBefore(z, up, n, order[k - 1]!)) {
        order[k] = order[k - 1]!;
        k--;
      }
      order[k] = n;
    }
    this.length = length;
  }
}

const isBefore = (z: Float64Array, up: Int8Array, a: number, b: number): boolean =>
  z[a]! < z[b]! || (z[a] === z[b] && up[a]! > up[b]!);
