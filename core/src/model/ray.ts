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
/** Cells along each axis that triangles are sorted by: as many as three of their numbers fit in a whole one. */
const CELLS = 1024;

/** Builds the tree, in time that grows as the triangles do. */
export function rayCaster(mesh: PartMesh): RayCaster {
  return new Tree(mesh);
}

/** Plain loops over typed arrays throughout: a plate with 2,000 holes asks for some 100,000 rays. */
class Tree implements RayCaster {
  /** Per triangle, in tree order: first corner and the two edges from it. */
  private readonly corners: Float64Array;
  /** Per triangle, in tree order: the cell of its middle along the curve that halves space over and over (Morton's). */
  private readonly codes: Uint32Array;
  private readonly nodes: Float64Array;
  private used = 0;
  private readonly stack = new Uint32Array(256);

  constructor({ positions, triangles }: PartMesh) {
    const count = triangles.length / 3;
    const { codes, order } = sortedByPlace(positions, triangles);
    this.codes = codes;
    this.corners = new Float64Array(9 * count);
    for (let i = 0; i < count; i++) {
      const t = 3 * order[i]!;
      const [p, q, r] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
      for (let k = 0; k < 3; k++) {
        const a = positions[p + k]!;
        this.corners[9 * i + k] = a;
        this.corners[9 * i + 3 + k] = positions[q + k]! - a;
        this.corners[9 * i + 6 + k] = positions[r + k]! - a;
      }
    }
    this.nodes = new Float64Array(NODE * Math.max(1, 2 * count));
    if (count > 0) this.build(0, count);
  }

  private build(from: number, to: number): number {
    const { nodes } = this;
    const at = NODE * this.used++;
    nodes[at + 6] = from;
    nodes[at + 7] = to;
    if (to - from <= LEAF) {
      this.boxOfLeaf(at, from, to);
      return at;
    }
    const middle = this.halved(from, to);
    const left = this.build(from, middle);
    const right = this.build(middle, to);
    nodes[at + 8] = right;
    for (let k = 0; k < 3; k++) {
      nodes[at + k] = Math.min(nodes[left + k]!, nodes[right + k]!);
      nodes[at + 3 + k] = Math.max(nodes[left + 3 + k]!, nodes[right + 3 + k]!);
    }
    return at;
  }

  private boxOfLeaf(at: number, from: number, to: number): void {
    const { nodes, corners } = this;
    for (let k = 0; k < 3; k++) {
      let low = Infinity;
      let high = -Infinity;
      for (let t = 9 * from + k; t < 9 * to; t += 9) {
        const a = corners[t]!;
        const b = a + corners[t + 3]!;
        const c = a + corners[t + 6]!;
        low = Math.min(low, a, b, c);
        high = Math.max(high, a, b, c);
      }
      nodes[at + k] = low - 1e-7;
      nodes[at + 3 + k] = high + 1e-7;
    }
  }

  /** Where the halving of space that tells the first triangle's cell from the last one's divides the stretch; its middle where both are in one. */
  private halved(from: number, to: number): number {
    const { codes } = this;
    const differs = codes[from]! ^ codes[to - 1]!;
    if (differs === 0) return (from + to) >> 1;
    const bit = 1 << (31 - Math.clz32(differs));
    let [low, high] = [from, to - 1];
    // The first with the bit is after `low`, and not after `high`.
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if ((codes[middle]! & bit) === 0) low = middle;
      else high = middle;
    }
    return high;
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

/** The triangles by the cells of their middles along Morton's curve. */
function sortedByPlace(
  positions: Float32Array,
  triangles: Uint32Array,
): { codes: Uint32Array; order: Uint32Array } {
  const count = triangles.length / 3;
  const low = [Infinity, Infinity, Infinity];
  let size = 0;
  for (let k = 0; k < 3; k++) {
    let high = -Infinity;
    for (let i = k; i < positions.length; i += 3) {
      low[k] = Math.min(low[k]!, positions[i]!);
      high = Math.max(high, positions[i]!);
    }
    size = Math.max(size, high - low[k]!);
  }
  // The middle is a third of the corners' sum.
  const scale = size > 0 ? (CELLS - 1) / (3 * size) : 0;
  const codes = new Uint32Array(count);
  for (let t = 0; t < count; t++) {
    const [a, b, c] = [3 * triangles[3 * t]!, 3 * triangles[3 * t + 1]!, 3 * triangles[3 * t + 2]!];
    for (let k = 0; k < 3; k++) {
      const sum = positions[a + k]! + positions[b + k]! + positions[c + k]! - 3 * low[k]!;
      codes[t]! |= spread(Math.max(0, sum * scale)) << k;
    }
  }
  return sortedBy(codes);
}

/** The ten bits of a whole number, two empty places between each and the next. */
function spread(n: number): number {
  let x = n | 0;
  x = (x | (x << 16)) & 0x030000ff;
  x = (x | (x << 8)) & 0x0300f00f;
  x = (x | (x << 4)) & 0x030c30c3;
  return (x | (x << 2)) & 0x09249249;
}

const RADIX_BITS = 11;

/** Numbers below 2³² in order, with the places they came from: a few bits at a time, from the lowest up. */
function sortedBy(codes: Uint32Array): { codes: Uint32Array; order: Uint32Array } {
  const n = codes.length;
  let from = codes.slice();
  let to = new Uint32Array(n);
  let order = new Uint32Array(n);
  for (let i = 0; i < n; i++) order[i] = i;
  let next = new Uint32Array(n);
  const mask = (1 << RADIX_BITS) - 1;
  for (let shift = 0; shift < 32; shift += RADIX_BITS) {
    const starts = new Uint32Array(mask + 2);
    for (let i = 0; i < n; i++) starts[((from[i]! >>> shift) & mask) + 1]!++;
    for (let i = 0; i < mask; i++) starts[i + 1]! += starts[i]!;
    for (let i = 0; i < n; i++) {
      const place = starts[(from[i]! >>> shift) & mask]!++;
      to[place] = from[i]!;
      next[place] = order[i]!;
    }
    [from, to] = [to, from];
    [order, next] = [next, order];
  }
  return { codes: from, order };
}
