import { fromFrame, toFrame, type Frame } from '../geometry/frame.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { PartMesh } from '../model/mesh.ts';
import type { Face } from '../model/solid-model.ts';
import { distanceToSurface } from '../model/surface.ts';
import { TILE, type GridPlace } from './grid.ts';

/** Metal of the finished part in one column: where a line along Z enters and leaves it, and through which faces. */
export interface PartColumn {
  /** Pairs of low and high, from low to high. */
  z: number[];
  /** Face of each. */
  face: number[];
}

const NOTHING: PartColumn = { z: [], face: [] };

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
  private readonly tiles = new Map<number, PartColumn[]>();
  private readonly across: number;
  /** Columns that the mesh does not close over: they are not compared. */
  open = 0;

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

  /** The part in one column. */
  column(i: number, j: number): PartColumn {
    const { nx, ny } = this.place;
    if (i < 0 || j < 0 || i >= nx || j >= ny) return NOTHING;
    const tile = Math.floor(j / TILE) * this.across + Math.floor(i / TILE);
    let columns = this.tiles.get(tile);
    if (!columns) this.tiles.set(tile, (columns = this.look(tile)));
    return columns[(j % TILE) * TILE + (i % TILE)] ?? NOTHING;
  }

  /** Forgets what a tile's columns were: what is compared once need not be kept. */
  forget(tile: number): void {
    this.tiles.delete(tile);
  }

  private look(tile: number): PartColumn[] {
    const { x0, y0, cell } = this.place;
    const [i0, j0] = [(tile % this.across) * TILE, Math.floor(tile / this.across) * TILE];
    const z: number[][] = [];
    const face: number[][] = [];
    const up: number[][] = [];
    const { points } = this;
    const { triangles: t, faceOf } = this.mesh;
    for (const k of this.bins[tile] ?? []) {
      const [a, b, c] = [3 * t[k]!, 3 * t[k + 1]!, 3 * t[k + 2]!];
      const [ax, ay, az] = [points[a]!, points[a + 1]!, points[a + 2]!];
      const [bx, by, bz] = [points[b]!, points[b + 1]!, points[b + 2]!];
      const [cx, cy, cz] = [points[c]!, points[c + 1]!, points[c + 2]!];
      const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
      if (Math.abs(area) < 1e-12) continue;
      const from = Math.max(0, Math.ceil((Math.min(ax, bx, cx) - x0) / cell - 0.5) - i0);
      const to = Math.min(TILE - 1, Math.floor((Math.max(ax, bx, cx) - x0) / cell - 0.5) - i0);
      const low = Math.max(0, Math.ceil((Math.min(ay, by, cy) - y0) / cell - 0.5) - j0);
      const high = Math.min(TILE - 1, Math.floor((Math.max(ay, by, cy) - y0) / cell - 0.5) - j0);
      for (let j = low; j <= high; j++)
        for (let i = from; i <= to; i++) {
          const [x, y] = [x0 + (i0 + i + 0.5) * cell, y0 + (j0 + j + 0.5) * cell];
          const [p, q, r] = [
            sideOf(ax, ay, bx, by, x, y),
            sideOf(bx, by, cx, cy, x, y),
            sideOf(cx, cy, ax, ay, x, y),
          ];
          if (!(area > 0 ? p >= 0 && q >= 0 && r >= 0 : p <= 0 && q <= 0 && r <= 0)) continue;
          // A place on a border belongs to the triangle on one side of it alone.
          if ((p === 0 && !isOwn(ax, ay, bx, by, area)) || (q === 0 && !isOwn(bx, by, cx, cy, area)))
            continue;
          if (r === 0 && !isOwn(cx, cy, ax, ay, area)) continue;
          const n = j * TILE + i;
          const height = (az * q + bz * r + cz * p) / (p + q + r);
          (z[n] ??= []).push(this.exact(faceOf[k / 3]!, x, y, height));
          (face[n] ??= []).push(faceOf[k / 3]!);
          (up[n] ??= []).push(area > 0 ? 1 : -1);
        }
    }
    return Array.from({ length: TILE * TILE }, (_, n) => this.inside(z[n], face[n], up[n]));
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

  /** From crossings to what lies between them: in through faces that look down, out through those that look up. */
  private inside(z: number[] | undefined, face: number[] | undefined, up: number[] | undefined): PartColumn {
    if (!z || !face || !up) return NOTHING;
    const order = z.map((_, n) => n).sort((a, b) => z[a]! - z[b]! || up[b]! - up[a]!);
    const out: PartColumn = { z: [], face: [] };
    let depth = 0;
    for (const n of order) {
      const before = depth;
      depth -= up[n]!;
      if (before === 0 && depth === 1) {
        const last = out.z.length - 1;
        // Two bodies or faces that touch are one piece of metal.
        if (last > 0 && z[n]! - out.z[last]! < 1e-6) {
          out.z.pop();
          out.face.pop();
          continue;
        }
        out.z.push(z[n]!);
        out.face.push(face[n]!);
      } else if (before === 1 && depth === 0) {
        out.z.push(z[n]!);
        out.face.push(face[n]!);
      }
    }
    if (depth === 0 && out.z.length % 2 === 0) return out;
    this.open++;
    return { z: [NaN], face: [-1] };
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
      // Beyond the face's border its surface goes on; then the border is what is near.
      if (Math.abs(Math.abs(exact) - away) < Math.max(0.05, 0.2 * away)) return exact;
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

const isOwn = (ax: number, ay: number, bx: number, by: number, area: number): boolean =>
  area > 0 ? ay > by || (ay === by && ax < bx) : by > ay || (ay === by && bx < ax);

/** Square of the distance from a point to a triangle; anything not less than `best` where its box is farther away. */
function squareToTriangle(
  p: Float64Array,
  a: number,
  b: number,
  c: number,
  x: number,
  y: number,
  z: number,
  best: number,
): number {
  const far =
    boxAway(p[a + 2]!, p[b + 2]!, p[c + 2]!, z) ** 2 +
    boxAway(p[a]!, p[b]!, p[c]!, x) ** 2 +
    boxAway(p[a + 1]!, p[b + 1]!, p[c + 1]!, y) ** 2;
  if (far >= best) return best;
  const ab = [p[b]! - p[a]!, p[b + 1]! - p[a + 1]!, p[b + 2]! - p[a + 2]!] as const;
  const ac = [p[c]! - p[a]!, p[c + 1]! - p[a + 1]!, p[c + 2]! - p[a + 2]!] as const;
  const ap = [x - p[a]!, y - p[a + 1]!, z - p[a + 2]!] as const;
  const [d1, d2] = [dot3(ab, ap), dot3(ac, ap)];
  const at = (v: number, w: number): number => {
    const [dx, dy, dz] = [
      ap[0] - v * ab[0] - w * ac[0],
      ap[1] - v * ab[1] - w * ac[1],
      ap[2] - v * ab[2] - w * ac[2],
    ];
    return dx * dx + dy * dy + dz * dz;
  };
  if (d1 <= 0 && d2 <= 0) return at(0, 0);
  const [e1, e2, e3] = [dot3(ab, ab), dot3(ab, ac), dot3(ac, ac)];
  const [d3, d4] = [d1 - e1, d2 - e2];
  if (d3 >= 0 && d4 <= d3) return at(1, 0);
  const vc = d1 * d4 - d3 * d2;
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return at(d1 / (d1 - d3), 0);
  const [d5, d6] = [d1 - e2, d2 - e3];
  if (d6 >= 0 && d5 <= d6) return at(0, 1);
  const vb = d5 * d2 - d1 * d6;
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return at(0, d2 / (d2 - d6));
  const va = d3 * d6 - d5 * d4;
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
    const w = (d4 - d3) / (d4 - d3 + (d5 - d6));
    return at(1 - w, w);
  }
  const sum = va + vb + vc;
  return sum === 0 ? at(0, 0) : at(vb / sum, vc / sum);
}

const dot3 = (a: readonly [number, number, number], b: readonly [number, number, number]): number =>
  a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

const boxAway = (a: number, b: number, c: number, v: number): number =>
  Math.max(0, Math.min(a, b, c) - v, v - Math.max(a, b, c));
