/** A triangle is a line where the square of its sine is no more. */
const NEEDLE = 1e-10;

/** Square of the distance from a point to a triangle; anything not less than `best` where its box is farther away. */
export function squareToTriangle(
  p: Float64Array,
  a: number,
  b: number,
  c: number,
  x: number,
  y: number,
  z: number,
  best: number,
): number {
  const far =
    boxAway(p[a + 2]!, p[b + 2]!, p[c + 2]!, z) ** 2 +
    boxAway(p[a]!, p[b]!, p[c]!, x) ** 2 +
    boxAway(p[a + 1]!, p[b + 1]!, p[c + 1]!, y) ** 2;
  if (far >= best) return best;
  const ux = p[b]! - p[a]!;
  const uy = p[b + 1]! - p[a + 1]!;
  const uz = p[b + 2]! - p[a + 2]!;
  const vx = p[c]! - p[a]!;
  const vy = p[c + 1]! - p[a + 1]!;
  const vz = p[c + 2]! - p[a + 2]!;
  const wx = x - p[a]!;
  const wy = y - p[a + 1]!;
  const wz = z - p[a + 2]!;
  const nx = uy * vz - uz * vy;
  const ny = uz * vx - ux * vz;
  const nz = ux * vy - uy * vx;
  const uu = ux * ux + uy * uy + uz * uz;
  const vv = vx * vx + vy * vy + vz * vz;
  if (nx * nx + ny * ny + nz * nz <= NEEDLE * uu * vv)
    // As good as a line: the regions of its corners and sides cannot be told apart.
    return Math.min(
      squareToSide(ux, uy, uz, wx, wy, wz),
      squareToSide(vx, vy, vz, wx, wy, wz),
      squareToSide(vx - ux, vy - uy, vz - uz, wx - ux, wy - uy, wz - uz),
    );
  // The nearest point of the triangle is `a + s·ab + t·ac`: by the regions of its corners, sides (that have length) and inside.
  let s = 0;
  let t = 0;
  const d1 = ux * wx + uy * wy + uz * wz;
  const d2 = vx * wx + vy * wy + vz * wz;
  if (d1 > 0 || d2 > 0) {
    const e1 = uu;
    const e2 = ux * vx + uy * vy + uz * vz;
    const e3 = vv;
    const d3 = d1 - e1;
    const d4 = d2 - e2;
    const d5 = d1 - e2;
    const d6 = d2 - e3;
    const vc = d1 * d4 - d3 * d2;
    const vb = d5 * d2 - d1 * d6;
    const va = d3 * d6 - d5 * d4;
    if (d3 >= 0 && d4 <= d3) s = 1;
    else if (d6 >= 0 && d5 <= d6) t = 1;
    else if (vc <= 0 && d1 >= 0 && d3 <= 0 && d3 < d1) s = d1 / (d1 - d3);
    else if (vb <= 0 && d2 >= 0 && d6 <= 0 && d6 < d2) t = d2 / (d2 - d6);
    else if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0 && d4 - d3 + (d5 - d6) > 0) {
      t = (d4 - d3) / (d4 - d3 + (d5 - d6));
      s = 1 - t;
    } else if (va + vb + vc !== 0) {
      s = vb / (va + vb + vc);
      t = vc / (va + vb + vc);
    }
  }
  const dx = wx - s * ux - t * vx;
  const dy = wy - s * uy - t * vy;
  const dz = wz - s * uz - t * vz;
  return dx * dx + dy * dy + dz * dz;
}

/** Square of the distance to a side from the origin to `u`, of a point at `w`. */
function squareToSide(ux: number, uy: number, uz: number, wx: number, wy: number, wz: number): number {
  const uu = ux * ux + uy * uy + uz * uz;
  const t = uu > 0 ? Math.max(0, Math.min(1, (ux * wx + uy * wy + uz * wz) / uu)) : 0;
  const [x, y, z] = [wx - t * ux, wy - t * uy, wz - t * uz];
  return x * x + y * y + z * z;
}

const boxAway = (a: number, b: number, c: number, v: number): number =>
  Math.max(0, Math.min(a, b, c) - v, v - Math.max(a, b, c));
