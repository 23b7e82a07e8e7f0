import { add, cross, dot, normalize, reject, scale, sub, type Vec3 } from './vec.ts';

/** A right-handed coordinate system: origin and three unit axes, given in the outer system. */
export interface Frame {
  origin: Vec3;
  x: Vec3;
  y: Vec3;
  z: Vec3;
}

/** Frame from origin, Z and a hint for X (made square to Z). */
export function frameFrom(origin: Vec3, z: Vec3, xHint: Vec3): Frame {
  const zu = normalize(z);
  const x = normalize(reject(xHint, zu));
  return { origin, x, y: cross(zu, x), z: zu };
}

/** A point of the outer system in the frame's own coordinates. */
export function toFrame(f: Frame, p: Vec3): Vec3 {
  const d = sub(p, f.origin);
  return [dot(d, f.x), dot(d, f.y), dot(d, f.z)];
}

/** A point given in the frame's coordinates, in the outer system. */
export function fromFrame(f: Frame, p: Vec3): Vec3 {
  return add(f.origin, directionFromFrame(f, p));
}

export const directionToFrame = (f: Frame, d: Vec3): Vec3 => [dot(d, f.x), dot(d, f.y), dot(d, f.z)];
export const directionFromFrame = (f: Frame, d: Vec3): Vec3 =>
  add(add(scale(f.x, d[0]), scale(f.y, d[1])), scale(f.z, d[2]));
