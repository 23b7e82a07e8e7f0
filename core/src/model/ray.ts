import type { Vec3 } from '../geometry/vec.ts';
import type { PartMesh } from './mesh.ts';

/** A bounding-volume tree over a mesh, for "what does this ray meet first". */
export interface RayCaster {
  /** Distance along the unit direction to the first triangle nearer than `limit`, or null. */
  firstHit(origin: Vec3, direction: Vec3, limit?: number): number | null;
}

const LEAF = 4;
/** Numbers a node takes: box (6), first and last triangle, place of its right child (0: a leaf). */
const NODE = 9;

/** Builds the tree: n log n in triangles. */
export function rayCaster(mesh: PartMesh): RayCaster {
  return new Tree(mesh);
}

/** Plain loops over typed arrays throughout: a plate with 2,000 holes asks for some 100,000 rays. */
class Tree implements RayCaster {
  /** Per triangle, in tree order: first corner and the two edges from it. */
  private readonly corners: Float64Array;
  private readonly order: Uint32Array;
  private readonly box: Float64Array;
  private readonly nodes: Float64Array;
  private used = 0;
  private readonly stack = new Uint32Array(256);

  constructor({ positions, triangles }: PartMesh) {
    const count = triangles.length / 3;
    this.order = new Uint32Array(count);
    this.box = new Float64Array(6 * count);
    this.nodes = new Float64Array(NODE * Math.max(1, 2 * count));
    for (let t = 0; t < count; t++) {
      this.order[t] = t;
      for (let k = 0; k < 3; k++) {
        const a = positions[3 * triangles[3 * t]! + k]!;
        const b = positions[3 * triangles[3 * t + 1]! + k]!;
        const c = positions[3 * triangles[3 * t + 2]! + k]!;
        this.box[6 * t + k] = Math.min(a, b, c);
        this.box[6 * t + 3 + k] = Math.max(a, b, c);
      }
    }
    if (count > 0) this.build(0, count);
    this.corners = new Float64Array(9 * count);
    for (let i = 0; i < count; i++) {
      const t = 3 * this.order[i]!;
      for (let k = 0; k < 3; k++) {
        const a = positions[3 * triangles[t]! + k]!;
        this.corners[9 * i + k] = a;
        this.corners[9 * i + 3 + k] = positions[3 * triangles[t + 1]! + k]! - a;
        this.corners[9 * i + 6 + k] = positions[3 * triangles[t + 2]! + k]! - a;
      }
    }
  }

  private build(from: number, to: number): number {
    const { nodes, order, box } = this;
    const at = NODE * this.used++;
    for (let k = 0; k < 3; k++) {
      let low = Infinity;
      let high = -Infinity;
      for (let i = from; i < to; i++) {
        const t = 6 * order[i]!;
        if (box[t + k]! < low) low = box[t + k]!;
        if (box[t + 3 + k]! > high) high = box[t + 3 + k]!;
      }
      nodes[at + k] = low - 1e-7;
      nodes[at + 3 + k] = high + 1e-7;
    }
    nodes[at + 6] = from;
    nodes[at + 7] = to;
    if (to - from <= LEAF) return at;
    let axis = 0;
    for (let k = 1; k < 3; k++)
      if (nodes[at + 3 + k]! - nodes[at + k]! > nodes[at + 3 + axis]! - nodes[at + axis]!) axis = k;
    const middle = this.partition(from, to, axis, nodes[at + axis]! + nodes[at + 3 + axis]!);
    this.build(from, middle);
    nodes[at + 8] = this.build(middle, to);
    return at;
  }

  /** Triangles whose box is centred in the lower half first; halves the list where that puts all on one side. */
  private partition(from: number, to: number, axis: number, twice: number): number {
    const { order, box } = this;
    let i = from;
    for (let j = from; j < to; j++) {
      const t = order[j]!;
      if (box[6 * t + axis]! + box[6 * t + 3 + axis]! >= twice) continue;
      order[j] = order[i]!;
      order[i++] = t;
    }
    return i === from || i === to ? (from + to) >> 1 : i;
  }

  firstHit(origin: Vec3, direction: Vec3, limit = Infinity): number | null {
    if (this.used === 0) return null;
    const { nodes, stack } = this;
    const ox = origin[0];
    const oy = origin[1];
    const oz = origin[2];
    const dx = direction[0];
    const dy = direction[1];
    const dz = direction[2];
    // A zero component would give 0·∞ on a box face; a tiny one does not.
    const ix = 1 / (Math.abs(dx) < 1e-12 ? 1e-12 : dx);
    const iy = 1 / (Math.abs(dy) < 1e-12 ? 1e-12 : dy);
    const iz = 1 / (Math.abs(dz) < 1e-12 ? 1e-12 : dz);
    const sx = Math.abs(dx);
    const sy = Math.abs(dy);
    const sz = Math.abs(dz);
    const lead = sx >= sy && sx >= sz ? 0 : sy >= sz ? 1 : 2;
    const sense = lead === 0 ? dx : lead === 1 ? dy : dz;
    let best = limit;
    let depth = 0;
    stack[depth++] = 0;
    while (depth > 0) {
      const n = stack[--depth]!;
      let a = (nodes[n]! - ox) * ix;
      let b = (nodes[n + 3]! - ox) * ix;
      let near = Math.max(0, Math.min(a, b));
      let far = Math.min(best, Math.max(a, b));
      a = (nodes[n + 1]! - oy) * iy;
      b = (nodes[n + 4]! - oy) * iy;
      near = Math.max(near, Math.min(a, b));
      far = Math.min(far, Math.max(a, b));
      a = (nodes[n + 2]! - oz) * iz;
      b = (nodes[n + 5]! - oz) * iz;
      near = Math.max(near, Math.min(a, b));
      far = Math.min(far, Math.max(a, b));
      if (near > far) continue;
      const right = nodes[n + 8]!;
      if (right > 0) {
        // The nearer side first: what it meets cuts the other one short.
        const left = n + NODE;
        const isLeftNear =
          sense > 0
            ? nodes[left + lead]! <= nodes[right + lead]!
            : nodes[left + 3 + lead]! >= nodes[right + 3 + lead]!;
        stack[depth++] = isLeftNear ? right : left;
        stack[depth++] = isLeftNear ? left : right;
        continue;
      }
      for (let i = nodes[n + 6]!; i < nodes[n + 7]!; i++) {
        const hit = this.meet(9 * i, ox, oy, oz, dx, dy, dz);
        if (hit > 1e-6 && hit < best) best = hit;
      }
    }
    return best < limit ? best : null;
  }

  /** Distance to one triangle (Möller–Trumbore), or Infinity. */
  private meet(t: number, ox: number, oy: number, oz: number, dx: number, dy: number, dz: number): number {
    const c = this.corners;
    const e1x = c[t + 3]!;
    const e1y = c[t + 4]!;
    const e1z = c[t + 5]!;
    const e2x = c[t + 6]!;
    const e2y = c[t + 7]!;
    const e2z = c[t + 8]!;
    const hx = dy * e2z - dz * e2y;
    const hy = dz * e2x - dx * e2z;
    const hz = dx * e2y - dy * e2x;
    const det = e1x * hx + e1y * hy + e1z * hz;
    if (Math.abs(det) < 1e-12) return Infinity;
    const sx = ox - c[t]!;
    const sy = oy - c[t + 1]!;
    const sz = oz - c[t + 2]!;
    const u = (sx * hx + sy * hy + sz * hz) / det;
    if (u < 0 || u > 1) return Infinity;
    const qx = sy * e1z - sz * e1y;
    const qy = sz * e1x - sx * e1z;
    const qz = sx * e1y - sy * e1x;
    const v = (dx * qx + dy * qy + dz * qz) / det;
    if (v < 0 || u + v > 1) return Infinity;
    return (e2x * qx + e2y * qy + e2z * qz) / det;
  }
}
