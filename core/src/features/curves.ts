import { add, cross, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { angleBasis } from '../model/surface.ts';
import type { CurvePiece } from './base.ts';

/** A circle about an axis, as a line of points every 7.5°. */
export function circlePoints(centre: Vec3, axis: Vec3, radius: number): Vec3[] {
  const [x, y] = angleBasis(axis);
  const at = (a: number): Vec3 =>
    add(centre, add(scale(x, radius * Math.cos(a)), scale(y, radius * Math.sin(a))));
  return Array.from({ length: 49 }, (_, i) => at((i * Math.PI) / 24));
}

/** Both ends of a straight run about its middle. */
export const straightRun = (middle: Vec3, direction: Vec3, length: number): Vec3[] => [
  add(middle, scale(direction, -length / 2)),
  add(middle, scale(direction, length / 2)),
];

/** Points along an exact piece; arcs every 5°. */
export function piecePoints(p: CurvePiece, axis: Vec3): Vec3[] {
  if (p.kind === 'line') return [p.from, p.to];
  const x = sub(p.from, p.centre);
  const y = cross(axis, x);
  const n = Math.max(2, Math.ceil(Math.abs(p.turn) / (Math.PI / 36)));
  return Array.from({ length: n + 1 }, (_, i) => {
    const a = (p.turn * i) / n;
    return add(p.centre, add(scale(x, Math.cos(a)), scale(y, Math.sin(a))));
  });
}
