import { length2, type Segment, type Vec2 } from './path.ts';

/** The arc through three points, or the line where they lie on one. */
export function arcThrough(a: Vec2, m: Vec2, b: Vec2): Segment {
  const [bx, by] = [m[0] - a[0], m[1] - a[1]];
  const [cx, cy] = [b[0] - a[0], b[1] - a[1]];
  const d = 2 * (bx * cy - by * cx);
  const chord = length2(cx, cy);
  if (Math.abs(d) < 1e-9 * (chord * chord + 1)) return { kind: 'line', from: a, to: b };
  const ux = (cy * (bx * bx + by * by) - by * (cx * cx + cy * cy)) / d;
  const uy = (bx * (cx * cx + cy * cy) - cx * (bx * bx + by * by)) / d;
  const centre: Vec2 = [a[0] + ux, a[1] + uy];
  const radius = length2(ux, uy);
  if (radius > 1e5) return { kind: 'line', from: a, to: b };
  const angle = (p: Vec2): number => Math.atan2(p[1] - centre[1], p[0] - centre[0]);
  const full = 2 * Math.PI;
  const ahead = (t: number): number => ((t % full) + full) % full;
  const turn = ahead(angle(b) - angle(a));
  const isForward = ahead(angle(m) - angle(a)) < turn;
  return { kind: 'arc', from: a, to: b, centre, radius, turn: isForward ? turn : turn - full };
}
