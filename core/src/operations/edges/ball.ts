import type { RisePoint } from '../../features/edge/shape.ts';
import type { Tool } from '../../tools/schema.ts';
import { add, along, dot, normalize, scale, sub, type Vec3 } from '../../geometry/vec.ts';

/** A mill is a ball where its corner is half of it, within that, mm. */
const SAME = 1e-3;

/** Whether the end of a tool is a ball. */
export const isBall = (t: Tool): boolean =>
  t.kind === 'lollipop' || (t.kind === 'end-mill' && Math.abs((t.cornerRadius ?? 0) - t.diameter / 2) < SAME);

/** Half the chord that a break of a width leaves between two faces, and the way out of the part on the middle of it. */
function chordAt({ at, up, out }: RisePoint, width: number): { middle: Vec3; half: number; way: Vec3 } {
  const k = dot(up, out);
  // Inward in the face above, and down the wall: both square to the edge.
  const inward = normalize(sub(scale(up, k), out));
  const down = normalize(sub(scale(out, k), up));
  const [a, b] = [along(at, inward, width), along(at, down, width)];
  const d = sub(b, a);
  return {
    middle: scale(add(a, b), 0.5),
    half: Math.hypot(...d) / 2,
    way: normalize(scale(add(inward, down), -1)),
  };
}

/** How deep the hollow is that a ball leaves, against the flat of the same width, mm: the sagitta `R − √(R² − s²/4)` of a chord s in a circle. */
export function hollowOf(p: RisePoint, width: number, radius: number): number {
  const { half } = chordAt(p, width);
  return half >= radius ? Infinity : radius - Math.sqrt(radius * radius - half * half);
}

/** The middle of a ball that breaks an edge by a width on both its faces; null where the ball is too small for that. */
export function ballAt(p: RisePoint, width: number, radius: number): Vec3 | null {
  const { middle, half, way } = chordAt(p, width);
  return half >= radius ? null : along(middle, way, Math.sqrt(radius * radius - half * half));
}

/** The points of a chain that it needs so that the others lie within a tolerance of it, mm (Douglas and Peucker 1973). */
export function thinned(points: readonly Vec3[], tolerance: number): Vec3[] {
  const keep = new Set([0, points.length - 1]);
  const stack: [number, number][] = [[0, points.length - 1]];
  for (let next = stack.pop(); next; next = stack.pop()) {
    const [i, k] = next;
    let [worst, off] = [-1, tolerance];
    for (let n = i + 1; n < k; n++) {
      const d = besideLine(points[n] ?? [0, 0, 0], points[i] ?? [0, 0, 0], points[k] ?? [0, 0, 0]);
      if (d > off) [worst, off] = [n, d];
    }
    if (worst < 0) continue;
    keep.add(worst);
    stack.push([i, worst], [worst, k]);
  }
  return points.filter((_, i) => keep.has(i));
}

/** How far a place is from a straight stretch, mm. */
export function besideLine(p: Vec3, a: Vec3, b: Vec3): number {
  const d = sub(b, a);
  const l2 = dot(d, d);
  const t = l2 < 1e-18 ? 0 : Math.min(1, Math.max(0, dot(sub(p, a), d) / l2));
  return Math.hypot(...sub(p, along(a, d, t)));
}
