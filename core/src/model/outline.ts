import { cross2, sub2, type Vec2 } from '../geometry/path.ts';

/** The convex outline round points in a plane, counter-clockwise (Andrew's monotone chain). */
export function convexOutline(points: Vec2[]): Vec2[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: Vec2[]): Vec2[] => {
    const out: Vec2[] = [];
    for (const p of list) {
      while (
        out.length >= 2 &&
        cross2(sub2(out[out.length - 1]!, out[out.length - 2]!), sub2(p, out[out.length - 2]!)) <= 1e-12
      )
        out.pop();
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return sorted.length < 3 ? sorted : [...half(sorted), ...half([...sorted].reverse())];
}
