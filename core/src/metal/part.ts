import { fromFrame, toFrame, type Frame } from '../geometry/frame.ts';
import { isParallel, type Vec3 } from '../geometry/vec.ts';
import type { PartMesh } from '../model/mesh.ts';
import type { Face } from '../model/solid-model.ts';
import { distanceToSurface } from '../model/surface.ts';
import { Crossings, type PartTile } from './crossings.ts';
import { squareToTriangle } from './triangle.ts';
import type { GridPlace, MetalGrid } from './grid.ts';
import { TILE } from './tile.ts';

/** Metal of the finished part in one column: where a line along Z enters and leaves it, and through which faces. */
export interface PartColumn {
  /** Pairs of low and high, from low to high. */
  z: number[];
  /** Face of each. */
  face: number[];
}

const NOTHING: PartColumn = { z: [], face: [] };

/** Tiles that are kept: they are made again when they are asked for again. */
const KEPT = 48;

/** How far the exact surface may lie from the mesh along a column before the mesh is believed, mm. */
const OFF_MESH = 0.2;
/** Surfaces steeper than this against a column are taken as the mesh has them. */
const STEEP = 0.08;

/** A point of the part's surface, and how far away it is. */
export interface NearFace {
  face: number;
  /** Signed, mm: positive outside of the part's material. */
  distance: number;
}

/**
 * The finished part as columns of one setup's grid: triangles say which faces a column passes, the exact surfaces where. Program
 * coordinates, mm.
 */
export class PartColumns {
  private readonly points: Float64Array;
  /** Triangles over each tile, those of upright faces included. */
  private readonly bins: (number[] | undefined)[] = [];
  private readonly tiles = new Map<number, PartTile>();
  private readonly across: number;
  private readonly found = new Crossings();

  constructor(
    private readonly mesh: PartMesh,
    /** Exact surfaces by face number; null: the mesh alone is known. */
    private readonly faces: readonly Face[] | null,
    private readonly frame: Frame,
    readonly place: GridPlace,
    /** Triangles this near a tile belong to it as well, mm: how far a difference is looked into. */
    private readonly reach: number,
  ) {
    const { positions } = mesh;
    this.points = new Float64Array(positions.length);
    for (let i = 0; i < positions.length; i += 3)
      this.points.set(toFrame(frame, [positions[i]!, positions[i + 1]!, positions[i + 2]!]), i);
    this.across = Math.ceil(place.nx / TILE);
    this.bin();
  }

  private bin(): void {
    const { x0, y0, cell, nx, ny } = this.place;
    const side = TILE * cell;
    const down = Math.ceil(ny / TILE);
    const { points, reach } = this;
    const t = this.mesh.triangles;
    const clampX = (v: number): number =>
      Math.max(0, Math.min(Math.ceil(nx / TILE) - 1, Math.floor((v - x0) / side)));
    const clampY = (v: number): number => Math.max(0, Math.min(down - 1, Math.floor((v - y0) / side)));
    for (let k = 0; k < t.length; k += 3) {
      const [a, b, c] = [3 * t[k]!, 3 * t[k + 1]!, 3 * t[k + 2]!];
      const [ax, bx, cx] = [points[a]!, points[b]!, points[c]!];
      const [ay, by, cy] = [points[a + 1]!, points[b + 1]!, points[c + 1]!];
      const [i0, i1] = [clampX(Math.min(ax, bx, cx) - reach), clampX(Math.max(ax, bx, cx) + reach)];
      const [j0, j1] = [clampY(Math.min(ay, by, cy) - reach), clampY(Math.max(ay, by, cy) + reach)];
      for (let j = j0; j <= j1; j++)
        for (let i = i0; i <= i1; i++) (this.bins[j * this.across + i] ??= []).push(k);
    }
  }

  /** The part in one column; null where the mesh does not close over it. */
  column(i: number, j: number): PartColumn | null {
    const { nx, ny } = this.place;
    if (i < 0 || j < 0 || i >= nx || j >= ny) return NOTHING;
    const tile = this.tile(Math.floor(j / TILE) * this.across + Math.floor(i / TILE));
    const n = (j % TILE) * TILE + (i % TILE);
    if (tile.open[n] === 1) return null;
    const [from, to] = [tile.start[n]!, tile.start[n + 1]!];
    if (from === to) return NOTHING;
    const out: PartColumn = { z: [], face: [] };
    for (let k = from; k < to; k++) {
      out.z.push(tile.z[k]!);
      out.face.push(tile.face[k]!);
    }
    return out;
  }

  /** Where the part begins and ends in one column, from low to high; nothing where the mesh does not close over it. */
  heights(i: number, j: number): readonly number[] {
    const { nx, ny } = this.place;
    if (i < 0 || j < 0 || i >= nx || j >= ny) return NOTHING.z;
    const tile = this.tile(Math.floor(j / TILE) * this.across + Math.floor(i / TILE));
    const n = (j % TILE) * TILE + (i % TILE);
    const from = tile.start[n]!;
    const count = tile.start[n + 1]! - from;
    // Nearly all columns are one piece.
    if (count === 2) return [tile.z[from]!, tile.z[from + 1]!];
    if (count === 0) return NOTHING.z;
    return Array.from(tile.z.subarray(from, from + count));
  }

  /** Whether a grid's metal in a column is the part's, to within `slack`. */
  isIn(grid: MetalGrid, i: number, j: number, slack: number): boolean {
    const tile = this.tile(Math.floor(j / TILE) * this.across + Math.floor(i / TILE));
    const n = (j % TILE) * TILE + (i % TILE);
    return tile.open[n] !== 1 && grid.isAs(i, j, tile.z, tile.start[n]!, tile.start[n + 1]!, slack);
  }

  private tile(k: number): PartTile {
    let tile = this.tiles.get(k);
    if (tile) return tile;
    tile = this.look(k);
    if (this.tiles.size >= KEPT)
      for (const oldest of this.tiles.keys()) {
        this.tiles.delete(oldest);
        break;
      }
    this.tiles.set(k, tile);
    return tile;
  }

  /** Whether a face is level in this setup: its distance from a point over it is the height between them. */
  isLevel(face: number): boolean {
    const surface = this.faces?.[face]?.surface;
    return surface?.kind === 'plane' && isParallel(surface.normal, this.frame.z);
  }

  private look(tile: number): PartTile {
    const { x0, y0, cell } = this.place;
    const [i0, j0] = [(tile % this.across) * TILE, Math.floor(tile / this.across) * TILE];
    const { points, found } = this;
    const { triangles: t, faceOf } = this.mesh;
    found.clear();
    for (const k of this.bins[tile] ?? []) {
      const [a, b, c] = [3 * t[k]!, 3 * t[k + 1]!, 3 * t[k + 2]!];
      const ax = points[a]!;
      const ay = points[a + 1]!;
      const az = points[a + 2]!;
      const bx = points[b]!;
      const by = points[b + 1]!;
      const bz = points[b + 2]!;
      const cx = points[c]!;
      const cy = points[c + 1]!;
      const cz = points[c + 2]!;
      const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
      if (Math.abs(area) < 1e-12) continue;
      const from = Math.max(0, Math.ceil((Math.min(ax, bx, cx) - x0) / cell - 0.5) - i0);
      const to = Math.min(TILE - 1, Math.floor((Math.max(ax, bx, cx) - x0) / cell - 0.5) - i0);
      const low = Math.max(0, Math.ceil((Math.min(ay, by, cy) - y0) / cell - 0.5) - j0);
      const high = Math.min(TILE - 1, Math.floor((Math.max(ay, by, cy) - y0) / cell - 0.5) - j0);
      const face = faceOf[k / 3]!;
      const isFlat = az === bz && bz === cz;
      const up = area > 0 ? 1 : -1;
      for (let j = low; j <= high; j++) {
        const y = y0 + (j0 + j + 0.5) * cell;
        // Of a long thin triangle only the stretch of this row that it covers, and a cell more.
        const ab = crossAt(ax, ay, bx, by, y);
        const bc = crossAt(bx, by, cx, cy, y);
        const ca = crossAt(cx, cy, ax, ay, y);
        const first = Math.min(ab ?? Infinity, bc ?? Infinity, ca ?? Infinity);
        const last = Math.max(ab ?? -Infinity, bc ?? -Infinity, ca ?? -Infinity);
        const left = Math.max(from, Math.floor((first - x0) / cell - 0.5) - i0);
        const right = Math.min(to, Math.ceil((last - x0) / cell - 0.5) - i0);
        for (let i = left; i <= right; i++) {
          const x = x0 + (i0 + i + 0.5) * cell;
          const p = sideOf(ax, ay, bx, by, x, y);
          if (up * p < 0) continue;
          const q = sideOf(bx, by, cx, cy, x, y);
          if (up * q < 0) continue;
          const r = sideOf(cx, cy, ax, ay, x, y);
          if (up * r < 0) continue;
          // A place on a border belongs to the triangle on one side of it alone.
          if (p === 0 && !isOwn(ax, ay, bx, by, area)) continue;
          if (q === 0 && !isOwn(bx, by, cx, cy, area)) continue;
          if (r === 0 && !isOwn(cx, cy, ax, ay, area)) continue;
          const z = isFlat ? az : this.exact(face, x, y, (az * q + bz * r + cz * p) / (p + q + r));
          found.add(j * TILE + i, z, face, up);
        }
      }
    }
    return found.pack();
  }

  /** Where the exact surface of a face lies in a column, near where the mesh has it. */
  private exact(face: number, x: number, y: number, height: number): number {
    const surface = this.faces?.[face]?.surface;
    if (!surface || surface.kind === 'freeform' || surface.kind === 'plane') return height;
    const f = (z: number): number => distanceToSurface(surface, fromFrame(this.frame, [x, y, z]));
    let z = height;
    for (let n = 0; n < 6; n++) {
      const here = f(z);
      const slope = (f(z + 1e-4) - f(z - 1e-4)) / 2e-4;
      if (Math.abs(slope) < STEEP) return height;
      z -= here / slope;
      if (Math.abs(z - height) > OFF_MESH) return height;
      if (Math.abs(here) < 1e-9) break;
    }
    return z;
  }

  /**
   * The nearest face to a point and the exact signed distance from it; null where none is within reach. The nearest triangle says which
   * face it is, its surface how far.
   */
  nearest(x: number, y: number, z: number): NearFace | null {
    const { x0, y0, cell } = this.place;
    const side = TILE * cell;
    const tile =
      Math.max(0, Math.floor((y - y0) / side)) * this.across +
      Math.max(0, Math.min(this.across - 1, Math.floor((x - x0) / side)));
    let best = this.reach * this.reach;
    let found = -1;
    const { points } = this;
    const t = this.mesh.triangles;
    for (const k of this.bins[tile] ?? []) {
      const d = squareToTriangle(points, 3 * t[k]!, 3 * t[k + 1]!, 3 * t[k + 2]!, x, y, z, best);
      if (d >= best) continue;
      best = d;
      found = k;
    }
    if (found < 0) return null;
    return { face: this.mesh.faceOf[found / 3]!, distance: this.signed(found, x, y, z, Math.sqrt(best)) };
  }

  private signed(k: number, x: number, y: number, z: number, away: number): number {
    const face = this.faces?.[this.mesh.faceOf[k / 3]!];
    if (face && face.surface.kind !== 'freeform') {
      const d = distanceToSurface(face.surface, fromFrame(this.frame, [x, y, z]));
      const exact = face.reversed ? -d : d;
      // Beyond the face's border its surface goes on; then the border is what is near. Facets of what is curved both ways lie farther off it.
      const isDouble = face.surface.kind === 'torus' || face.surface.kind === 'sphere';
      if (Math.abs(Math.abs(exact) - away) < Math.max(isDouble ? 0.25 : 0.05, 0.2 * away)) return exact;
    }
    const { points } = this;
    const [a, b, c] = [0, 1, 2].map((n) => 3 * this.mesh.triangles[k + n]!) as [number, number, number];
    const u: Vec3 = [
      points[b]! - points[a]!,
      points[b + 1]! - points[a + 1]!,
      points[b + 2]! - points[a + 2]!,
    ];
    const v: Vec3 = [
      points[c]! - points[a]!,
      points[c + 1]! - points[a + 1]!,
      points[c + 2]! - points[a + 2]!,
    ];
    const n: Vec3 = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const side = n[0] * (x - points[a]!) + n[1] * (y - points[a + 1]!) + n[2] * (z - points[a + 2]!);
    return side < 0 ? -away : away;
  }
}

/** Which side of a border a place lies on; the same figure for both triangles that share it. */
function sideOf(ax: number, ay: number, bx: number, by: number, x: number, y: number): number {
  const isTurned = ax > bx || (ax === bx && ay > by);
  return isTurned
    ? -((ax - bx) * (y - by) - (ay - by) * (x - bx))
    : (bx - ax) * (y - ay) - (by - ay) * (x - ax);
}

/** Where a border crosses a row; null where it does not, or lies along it. */
const crossAt = (ax: number, ay: number, bx: number, by: number, y: number): number | null =>
  (ay <= y && by >= y) || (by <= y && ay >= y)
    ? ay === by
      ? Math.min(ax, bx)
      : ax + ((y - ay) / (by - ay)) * (bx - ax)
    : null;

const isOwn = (ax: number, ay: number, bx: number, by: number, area: number): boolean =>
  area > 0 ? ay > by || (ay === by && ax < bx) : by > ay || (ay === by && bx < ax);
