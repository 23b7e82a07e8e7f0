/** Three-component vectors as plain tuples. Lengths in mm. */
export type Vec3 = [number, number, number];

export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const sub = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale = (a: Vec3, k: number): Vec3 => [a[0] * k, a[1] * k, a[2] * k];
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
// Not by Math.hypot, which is ten times as slow.
export const length = (a: Vec3): number => Math.sqrt(a[0] * a[0] + a[1] * a[1] + a[2] * a[2]);
export function distance(a: Vec3, b: Vec3): number {
  const [x, y, z] = [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
  return Math.sqrt(x * x + y * y + z * z);
}
/** The point `a + k·d`. */
export const along = (a: Vec3, d: Vec3, k: number): Vec3 => [
  a[0] + k * d[0],
  a[1] + k * d[1],
  a[2] + k * d[2],
];

/** Unit vector in the direction of `a`; the zero vector stays zero. */
export function normalize(a: Vec3): Vec3 {
  const l = length(a);
  return l > 0 ? scale(a, 1 / l) : [0, 0, 0];
}

/** Any unit vector square to the unit vector `a`. */
export function anyPerpendicular(a: Vec3): Vec3 {
  const helper: Vec3 = Math.abs(a[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0];
  return normalize(cross(a, helper));
}

/** `a` without its part along the unit vector `d`. */
export const reject = (a: Vec3, d: Vec3): Vec3 => along(a, d, -dot(a, d));

/**
 * Two unit vectors whose cosine is this near to one have one direction, and two whose cosine is this near to nought stand square: within
 * 0.081°. Surfaces are recovered to a few hundredths of a degree, and directions are written to six digits.
 */
const SAME_COSINE = 1 - 1e-6;
const SQUARE_COSINE = Math.sqrt(1 - SAME_COSINE * SAME_COSINE);

/** Signed area of a closed run of points as seen against the unit vector `n`, counter-clockwise positive, mm². */
export function areaAbout(points: readonly Vec3[], n: Vec3): number {
  const [o] = points;
  if (!o) return 0;
  let twice = 0;
  for (let i = 1; i + 1 < points.length; i++) {
    const [a, b] = [points[i]!, points[i + 1]!];
    const [ux, uy, uz] = [a[0] - o[0], a[1] - o[1], a[2] - o[2]];
    const [vx, vy, vz] = [b[0] - o[0], b[1] - o[1], b[2] - o[2]];
    twice += n[0] * (uy * vz - uz * vy) + n[1] * (uz * vx - ux * vz) + n[2] * (ux * vy - uy * vx);
  }
  return twice / 2;
}

/** Two unit vectors have the same direction and sense. */
export const isAlong = (a: Vec3, b: Vec3): boolean => dot(a, b) > SAME_COSINE;
/** Two unit vectors have the same direction, in either sense. */
export const isParallel = (a: Vec3, b: Vec3): boolean => Math.abs(dot(a, b)) > SAME_COSINE;
/** Two unit vectors have opposite directions. */
export const isAgainst = (a: Vec3, b: Vec3): boolean => dot(a, b) < -SAME_COSINE;
/** Two unit vectors stand square to each other. */
export const isSquare = (a: Vec3, b: Vec3): boolean => Math.abs(dot(a, b)) < SQUARE_COSINE;
