import type { Face, FreeformMesh } from './solid-model.ts';
import { outwardNormal } from './surface.ts';
import type { Flat } from './triangulate.ts';

/** Triangles of one face after another, in arrays that grow as they are needed: a large part has hundreds of thousands. */
export class MeshWriter {
  private positions: Float32Array;
  private normals: Float32Array;
  private triangles: Uint32Array;
  private faceOf: Uint32Array;
  private corners = 0;
  private sides = 0;
  /** Triangles whose face is known. */
  private ended = 0;

  /** `corners`: about how many there will be. */
  constructor(corners: number) {
    const n = Math.max(16, corners);
    this.positions = new Float32Array(3 * n);
    this.normals = new Float32Array(3 * n);
    this.triangles = new Uint32Array(3 * n);
    this.faceOf = new Uint32Array(n);
  }

  /** Triangles by places in `flat`, with the exact surface's normals. */
  addFace(face: Face, flat: readonly Flat[], triangles: readonly number[]): void {
    this.room(flat.length, triangles.length);
    this.addTriangles(triangles);
    const { positions, normals } = this;
    for (const { point } of flat) {
      const at = 3 * this.corners++;
      const normal = outwardNormal(face, point);
      for (let k = 0; k < 3; k++) {
        positions[at + k] = point[k]!;
        normals[at + k] = normal[k]!;
      }
    }
  }

  /** A free-form face's own triangles; false where it has none. */
  addFreeform({ positions, normals, triangles }: FreeformMesh): boolean {
    if (triangles.length === 0) return false;
    this.room(positions.length / 3, triangles.length);
    this.addTriangles(triangles);
    this.positions.set(positions, 3 * this.corners);
    this.normals.set(normals, 3 * this.corners);
    this.corners += positions.length / 3;
    return true;
  }

  /** What was added since the last call is of this face. */
  endFace(index: number): void {
    this.faceOf.fill(index, this.ended, this.sides / 3);
    this.ended = this.sides / 3;
  }
  mesh() {
    const { positions, normals, triangles, faceOf, corners, sides } = this;
    return {
      positions: positions.slice(0, 3 * corners),
      normals: normals.slice(0, 3 * corners),
      triangles: triangles.slice(0, sides),
      faceOf: faceOf.slice(0, sides / 3),
    };
  }

  private addTriangles(triangles: readonly number[]): void {
    const base = this.corners;
    for (let i = 0; i < triangles.length; i++) this.triangles[this.sides++] = base + triangles[i]!;
  }

  private room(corners: number, sides: number): void {
    const wanted = 3 * (this.corners + corners);
    if (wanted > this.positions.length) {
      this.positions = larger(this.positions, new Float32Array(2 * wanted));
      this.normals = larger(this.normals, new Float32Array(2 * wanted));
    }
    if (this.sides + sides > this.triangles.length) {
      this.triangles = larger(this.triangles, new Uint32Array(2 * (this.sides + sides)));
      this.faceOf = larger(this.faceOf, new Uint32Array(this.triangles.length / 3 + 1));
    }
  }
}

function larger<T extends Float32Array | Uint32Array>(old: T, made: T): T {
  made.set(old);
  return made;
}
