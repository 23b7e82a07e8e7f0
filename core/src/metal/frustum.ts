import type { Vec3 } from '../geometry/vec.ts';

/** A piece of a round cavity along an axis: as wide as `r0` at `s0` from its origin, and `r1` at `s1`. mm. */
export interface Frustum {
  origin: Vec3;
  /** Unit vector. */
  axis: Vec3;
  s0: number;
  s1: number;
  r0: number;
  r1: number;
}

/**
 * Where the upright line over a place is inside of a frustum: low and high; null where it passes beside it. A frustum is convex, so there is
 * one stretch: between the roots of `ρ(z)² = r(s(z))²`, and between its two ends.
 */
export function alongZ(f: Frustum, x: number, y: number): [low: number, high: number] | null {
  const { origin, axis, s0, s1, r0, r1 } = f;
  const [dx, dy] = [x - origin[0], y - origin[1]];
  // s(z) = s + az·z is the place along the axis, counted from the origin's height; ρ² = dx² + dy² + z² − s².
  const s = dx * axis[0] + dy * axis[1];
  const az = axis[2];
  const k = (r1 - r0) / (s1 - s0);
  // r(z) = r + k·az·z.
  const r = r0 + k * (s - s0);
  const a = 1 - az * az - (k * az) ** 2;
  const b = -(s * az) - r * k * az;
  const c = dx * dx + dy * dy - s * s - r * r;
  let [low, high] = [-Infinity, Infinity];
  if (Math.abs(az) > 1e-12) {
    const ends = [(s0 - s) / az, (s1 - s) / az];
    [low, high] = [Math.min(ends[0]!, ends[1]!), Math.max(ends[0]!, ends[1]!)];
  } else if (s < s0 || s > s1) return null;
  const inside = within(a, b, c, low, high);
  return inside && inside[1] > inside[0] ? [origin[2] + inside[0], origin[2] + inside[1]] : null;
}

/** Where `a·z² + 2b·z + c ≤ 0` between two heights; one stretch, as for a convex body. */
function within(a: number, b: number, c: number, low: number, high: number): [number, number] | null {
  if (Math.abs(a) < 1e-12) {
    if (Math.abs(b) < 1e-12) return c <= 0 ? [low, high] : null;
    const root = -c / (2 * b);
    return b > 0 ? [low, Math.min(high, root)] : [Math.max(low, root), high];
  }
  const root2 = b * b - a * c;
  if (a > 0) {
    if (root2 <= 0) return null;
    const root = Math.sqrt(root2);
    return [Math.max(low, (-b - root) / a), Math.min(high, (-b + root) / a)];
  }
  // Steeper than the cone: inside are the two far stretches, of which one is the cone's other half beyond its tip.
  if (root2 <= 0) return [low, high];
  const root = Math.sqrt(root2);
  const [first, last] = [(-b + root) / a, (-b - root) / a];
  const below: [number, number] = [low, Math.min(high, first)];
  const above: [number, number] = [Math.max(low, last), high];
  return below[1] - below[0] > above[1] - above[0] ? below : above;
}
