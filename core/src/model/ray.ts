import type { Vec3 } from '../geometry/vec.ts';
import type { PartMesh } from './mesh.ts';

/** A bounding-volume tree over a mesh, for "what does this ray meet first". */
export interface RayCaster {
  /** Distance along the unit direction to the first triangle nearer than `limit`, or null. */
  firstHit(origin: Vec3, direction: Vec3, limit?: number): number | null;
}

const LEAF = 8;

/** Builds the tree: n log n in triangles. */
export function rayCaster(mesh: PartMesh): RayCaster {
  const { positions, triangles } = mesh;
  const count = triangles.length / 3;
  const order = Uint32Array.from({ length: count }, (_, i) => i);
  const low = new Float64Array(count * 3);
  const high = new Float64Array(count * 3);
  const centre = new Float64Array(count * 3);
  for (let t = 0; t < count; t++) {
    for (let k = 0; k < 3; k++) {
      const [a, b, c] = [0, 1, 2].map((i) => positions[3 * triangles[3 * t + i]! + k]!) as Vec3;
      low[3 * t + k] = Math.min(a, b, c);
      high[3 * t + k] = Math.max(a, b, c);
      centre[3 * t + k] = (a + b + c) / 3;
    }
  }
  const nodes: number[] = [];
  const build = (from: number, to: number): number => {
    const box = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
    for (let i = from; i < to; i++) {
      for (let k = 0; k < 3; k++) {
        box[k] = Math.min(box[k]!, low[3 * order[i]! + k]!);
        box[k + 3] = Math.max(box[k + 3]!, high[3 * order[i]! + k]!);
      }
    }
    const at = nodes.length;
    nodes.push(...box, from, to, 0);
    if (to - from <= LEAF) return at;
    const k = [0, 1, 2].sort((a, b) => box[b + 3]! - box[b]! - (box[a + 3]! - box[a]!))[0]!;
    order.subarray(from, to).sort((a, b) => centre[3 * a + k]! - centre[3 * b + k]!);
    const mid = (from + to) >> 1;
    build(from, mid);
    nodes[at + 8] = build(mid, to);
    return at;
  };
  if (count > 0) build(0, count);

  const meetsBox = (n: number, o: Vec3, inverse: Vec3, limit: number): boolean => {
    let near = 0;
    let far = limit;
    for (let k = 0; k < 3; k++) {
      const a = (nodes[n + k]! - 1e-7 - o[k]!) * inverse[k]!;
      const b = (nodes[n + k + 3]! + 1e-7 - o[k]!) * inverse[k]!;
      near = Math.max(near, Math.min(a, b));
      far = Math.min(far, Math.max(a, b));
    }
    return near <= far;
  };
  const meetsTriangle = (t: number, o: Vec3, d: Vec3): number => {
    const p = (i: number, k: number) => positions[3 * triangles[3 * t + i]! + k]!;
    const e1 = [p(1, 0) - p(0, 0), p(1, 1) - p(0, 1), p(1, 2) - p(0, 2)] as const;
    const e2 = [p(2, 0) - p(0, 0), p(2, 1) - p(0, 1), p(2, 2) - p(0, 2)] as const;
    const h = [d[1] * e2[2] - d[2] * e2[1], d[2] * e2[0] - d[0] * e2[2], d[0] * e2[1] - d[1] * e2[0]] as const;
    const det = e1[0] * h[0] + e1[1] * h[1] + e1[2] * h[2];
    if (Math.abs(det) < 1e-12) return Infinity;
    const s = [o[0] - p(0, 0), o[1] - p(0, 1), o[2] - p(0, 2)] as const;
    const u = (s[0] * h[0] + s[1] * h[1] + s[2] * h[2]) / det;
    if (u < 0 || u > 1) return Infinity;
    const q = [s[1] * e1[2] - s[2] * e1[1], s[2] * e1[0] - s[0] * e1[2], s[0] * e1[1] - s[1] * e1[0]] as const;
    const v = (d[0] * q[0] + d[1] * q[1] + d[2] * q[2]) / det;
    if (v < 0 || u + v > 1) return Infinity;
    return (e2[0] * q[0] + e2[1] * q[1] + e2[2] * q[2]) / det;
  };
  return {
    firstHit(origin, direction, limit = Infinity) {
      if (count === 0) return null;
      // A zero component would give 0·∞ on a box face; a tiny one does not.
      const inverse = direction.map((v) => 1 / (Math.abs(v) < 1e-12 ? 1e-12 : v)) as Vec3;
      let best = limit;
      const stack = [0];
      while (stack.length > 0) {
        const n = stack.pop()!;
        if (!meetsBox(n, origin, inverse, best)) continue;
        const right = nodes[n + 8]!;
        if (right > 0) {
          stack.push(right, n + 9);
          continue;
        }
        for (let i = nodes[n + 6]!; i < nodes[n + 7]!; i++) {
          const hit = meetsTriangle(order[i]!, origin, direction);
          if (hit > 1e-6 && hit < best) best = hit;
        }
      }
      return best < limit ? best : null;
    },
  };
}
