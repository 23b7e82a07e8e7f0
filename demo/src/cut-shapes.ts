import { drawCircle, drawRoundedRectangle, type Drawing, type Shape3D } from 'replicad';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { outline, prism, type Plan } from './solids.ts';

export const rectangle = (w: number, d: number, r: number, x: number, y: number): Drawing =>
  drawRoundedRectangle(w, d, r).translate(x, y) as Drawing;
export const circle = (r: number, x: number, y: number): Drawing => drawCircle(r).translate(x, y) as Drawing;
export const ring = (outer: Drawing, inner: Drawing, depth: number): Shape3D =>
  prism(outer, 1, -depth).cut(prism(inner, 2, -depth - 1)) as Shape3D;
const around = (x: number, y: number, r: number, deg: number): Plan => [
  x + r * Math.cos((deg * Math.PI) / 180),
  y + r * Math.sin((deg * Math.PI) / 180),
];

/** An arc-shaped slot of 120° with round ends. */
export function bow(x: number, y: number, radius: number, width: number): Drawing {
  const [i, o] = [radius - width / 2, radius + width / 2];
  const end = (deg: number, out: number): Plan => {
    const [cx, cy] = around(x, y, radius, deg);
    return [
      cx + (width / 2) * Math.cos(((deg + out) * Math.PI) / 180),
      cy + (width / 2) * Math.sin(((deg + out) * Math.PI) / 180),
    ];
  };
  return outline(
    around(x, y, o, -60),
    { via: around(x, y, o, 0), to: around(x, y, o, 60) },
    { via: end(60, 90), to: around(x, y, i, 60) },
    { via: around(x, y, i, 0), to: around(x, y, i, -60) },
    { via: end(-60, -90), to: around(x, y, o, -60) },
  );
}

/** A quarter bend of centre radius `r` from the left side to the front. */
export const bend = (r: number, w: number): Drawing =>
  outline(
    [-5, 20 + r - w / 2],
    [20, 20 + r - w / 2],
    { via: around(20, 20, r - w / 2, 45), to: [20 + r - w / 2, 20] },
    [20 + r - w / 2, -5],
    [20 + r + w / 2, -5],
    [20 + r + w / 2, 20],
    { via: around(20, 20, r + w / 2, 45), to: [20, 20 + r + w / 2] },
    [-5, 20 + r + w / 2],
  );

/** A body with some of its edges broken. */
export const chamfered = (body: Shape3D, size: number | object, where: object): Shape3D =>
  (body as unknown as { chamfer(s: unknown, f: unknown): Shape3D }).chamfer(size, (e: never) =>
    edgeFilter(e, where),
  );
/** A body with some of its edges rounded. */
export const filleted = (body: Shape3D, radius: number, where: object): Shape3D =>
  (body as unknown as { fillet(s: unknown, f: unknown): Shape3D }).fillet(radius, (e: never) =>
    edgeFilter(e, where),
  );

/** `{ z }`: edges in that plane; `{ upright: true }`: along Z; `{ within }`: also inside a box; `{ at }`: through a point. */
export function edgeFilter(
  finder: never,
  where: { z?: number; upright?: boolean; within?: [Vec3, Vec3]; at?: Vec3 },
): never {
  let f = finder as unknown as {
    inPlane(p: string, o: number): never;
    inDirection(d: string): never;
    inBox(a: Vec3, b: Vec3): never;
    containsPoint(p: Vec3): never;
  };
  if (where.z !== undefined) f = f.inPlane('XY', where.z) as never;
  if (where.upright) f = f.inDirection('Z') as never;
  if (where.within) f = f.inBox(...where.within) as never;
  if (where.at) f = f.containsPoint(where.at) as never;
  return f as never;
}

export const tee = (mouth: Drawing, head: Drawing): Shape3D[] => [prism(mouth, 1, -8), prism(head, -8, -16)];
export const tongue = (w: number, y: number): Drawing =>
  outline([-5, y - w / 2], [40, y - w / 2], { via: [40 + w / 2, y], to: [40, y + w / 2] }, [-5, y + w / 2]);
