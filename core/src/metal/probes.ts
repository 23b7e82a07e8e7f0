import { directionToFrame, toFrame, type Frame } from '../geometry/frame.ts';
import { along, type Vec3 } from '../geometry/vec.ts';
import type { PartMesh } from '../model/mesh.ts';
import type { Face } from '../model/solid-model.ts';
import { distanceToSurface, outwardNormal } from '../model/surface.ts';
import type { ToolBody } from './body.ts';
import { PlaceList } from './place-list.ts';
import type { Span, Way } from './sweep.ts';

/** Places on the part's exact faces, in the part file's frame; which of them have been cut free, by any setup. */
export class FacePoints {
  readonly at: Vec3[] = [];
  /** Away from the material. */
  readonly out: Vec3[] = [];
  readonly face: number[] = [];
  /** 1 where the metal just outside has been cut away. */
  readonly isFree: Uint8Array;

  constructor(mesh: PartMesh, faces: readonly Face[]) {
    const corner = (k: number): Vec3 => {
      const c = 3 * mesh.triangles[k]!;
      return [mesh.positions[c]!, mesh.positions[c + 1]!, mesh.positions[c + 2]!];
    };
    const count = mesh.triangles.length / 3;
    // Of a part with very many triangles fewer places on each.
    const most = Math.max(1, Math.min(MOST_EACH, Math.floor(MOST / Math.max(1, count))));
    for (let t = 0; t < count; t++) {
      const index = mesh.faceOf[t]!;
      const face = faces[index];
      if (!face || (face.surface.kind !== 'plane' && face.surface.kind !== 'cylinder')) continue;
      const [a, b, c] = [corner(3 * t), corner(3 * t + 1), corner(3 * t + 2)];
      for (const [u, v] of SPREAD.slice(0, most)) {
        const p: Vec3 = [0, 1, 2].map((k) => a[k]! + u * (b[k]! - a[k]!) + v * (c[k]! - a[k]!)) as Vec3;
        const n = outwardNormal(face, p);
        // From the triangle onto the face itself.
        const off = distanceToSurface(face.surface, p) * (face.reversed ? -1 : 1);
        this.at.push(along(p, n, -off));
        this.out.push(n);
        this.face.push(index);
      }
    }
    this.isFree = new Uint8Array(this.at.length);
  }
}

/** Places on all triangles, and on one. */
const MOST = 200_000;
const MOST_EACH = 6;
/** Where on a triangle, as shares of two of its sides: the first ones spread best. */
const SPREAD: readonly (readonly [number, number])[] = [
  [0.33, 0.33],
  [0.1, 0.1],
  [0.1, 0.8],
  [0.8, 0.1],
  [0.45, 0.45],
  [0.05, 0.45],
];

/** A wall that was cut into, or not cut free, at its worst place. Program coordinates, mm. */
export interface WallFinding {
  face: number;
  depth: number;
  at: [number, number, number];
  motion: number | null;
}

/** Deepest that a cut into a wall is followed, mm. */
const DEEPEST = 2;
const HALVINGS = 12;
/** Faces steeper than this stand upright. */
const UPRIGHT = 0.02;
const CELL = 4;

/**
 * The walls of the part as one setup's tools pass them. The grid sees what is wider than a cell; here a wall is asked a hair inside and a
 * hair outside of itself, exactly, so that a cut 0.02 mm beside its place is found.
 */
export class WallProbes {
  private readonly places = new PlaceList<number>(CELL);
  private readonly at: Float64Array;
  private readonly out: Float64Array;
  private readonly cut = new Map<number, WallFinding>();
  private readonly span: Span = { low: 0, high: 0 };

  constructor(
    private readonly points: FacePoints,
    frame: Frame,
    /** How far inside a wall must not be cut, and how far outside must be, mm. */
    private readonly tolerance: number,
    /** Whether metal at a place is meant to be cut. */
    private readonly isWanted: (x: number, y: number, z: number) => boolean,
  ) {
    const n = points.at.length;
    this.at = new Float64Array(3 * n);
    this.out = new Float64Array(2 * n);
    for (let k = 0; k < n; k++) {
      const d = directionToFrame(frame, points.out[k]!);
      if (Math.abs(d[2]) > UPRIGHT) continue;
      const p = toFrame(frame, points.at[k]!);
      this.at.set(p, 3 * k);
      this.out.set([d[0], d[1]], 2 * k);
      this.places.add(k, [p[0], p[1], p[0], p[1]]);
    }
  }

  /** Looks at the walls near a motion's ways; `bodies`: what cuts of its tool. */
  pass(ways: readonly Way[], bodies: readonly ToolBody[], motion: number): void {
    for (const way of ways)
      for (const body of bodies) {
        const r = body.radius + this.tolerance;
        const [x0, y0, x1, y1] = way.box;
        for (let x = x0 - r; ; x = Math.min(x + CELL, x1 + r)) {
          for (let y = y0 - r; ; y = Math.min(y + CELL, y1 + r)) {
            for (const k of this.places.at(x, y)) this.look(k, way, body, motion);
            if (y >= y1 + r) break;
          }
          if (x >= x1 + r) break;
        }
      }
  }

  private look(k: number, way: Way, body: ToolBody, motion: number): void {
    const z = this.at[3 * k + 2]!;
    if (way.lowest + body.low > z) return;
    const { isFree } = this.points;
    if (isFree[k] === 0 && this.isSwept(k, way, body, this.tolerance)) isFree[k] = 1;
    if (!this.isSwept(k, way, body, -this.tolerance)) return;
    const [x, y] = this.place(k, -this.tolerance);
    if (this.isWanted(x, y, z)) return;
    let [low, high] = [this.tolerance, DEEPEST];
    for (let n = 0; n < HALVINGS; n++) {
      const mid = (low + high) / 2;
      if (this.isSwept(k, way, body, -mid)) low = mid;
      else high = mid;
    }
    const face = this.points.face[k]!;
    const known = this.cut.get(face);
    if (known && known.depth >= low) return;
    this.cut.set(face, { face, depth: low, at: [this.at[3 * k]!, this.at[3 * k + 1]!, z], motion });
  }

  /** Whether a body on its way passes a place so far outside of a wall (inside: negative). */
  private isSwept(k: number, way: Way, body: ToolBody, outside: number): boolean {
    const [x, y] = this.place(k, outside);
    const z = this.at[3 * k + 2]!;
    return way.span(body, x, y, this.span) && z > this.span.low && z < this.span.high;
  }

  private place(k: number, outside: number): [number, number] {
    return [
      this.at[3 * k]! + outside * this.out[2 * k]!,
      this.at[3 * k + 1]! + outside * this.out[2 * k + 1]!,
    ];
  }

  /** Walls that were cut into, each at its worst. */
  get cuts(): WallFinding[] {
    return [...this.cut.values()];
  }

  /**
   * Walls that are not cut free: of the faces that are asked about, those with a place at which no tool passed as near as it should.
   * `isDue`: whether metal stood there and this or an earlier setup was to take it.
   */
  stuck(isDue: (face: number, x: number, y: number, z: number) => boolean): WallFinding[] {
    const out = new Map<number, WallFinding>();
    for (let k = 0; k < this.points.at.length; k++) {
      if (this.points.isFree[k] === 1 || (this.out[2 * k] === 0 && this.out[2 * k + 1] === 0)) continue;
      const face = this.points.face[k]!;
      if (out.has(face)) continue;
      const [x, y] = this.place(k, this.tolerance);
      const z = this.at[3 * k + 2]!;
      if (isDue(face, x, y, z)) out.set(face, { face, depth: this.tolerance, at: [x, y, z], motion: null });
    }
    return [...out.values()];
  }
}
