import { add, along, cross, dot, length, normalize, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { angleBasis, distanceToSurface, surfaceNormal } from './surface.ts';
import type { Surface } from './solid-model.ts';

export interface SurfaceSample {
  point: Vec3;
  normal: Vec3;
}

/** Largest distance from a recovered surface, mm. */
export const RECOVERY_TOLERANCE = 1e-3;
/** Largest angle between given and recovered normals, radians (about 0.05°). */
export const RECOVERY_ANGLE = 9e-4;

/**
 * The exact plane, cylinder, cone, sphere or torus that all samples (points with unit normals, mm) lie on within
 * {@link RECOVERY_TOLERANCE} and {@link RECOVERY_ANGLE}; null where none does. The simplest kind wins.
 */
export function recoverSurface(samples: SurfaceSample[]): Surface | null {
  if (samples.length < 6) return null;
  for (const fit of [fitPlane, fitCylinder, fitCone, fitSphere, fitTorus]) {
    const surface = fit(samples);
    if (surface && agrees(surface, samples)) return surface;
  }
  return null;
}

function agrees(surface: Surface, samples: SurfaceSample[]): boolean {
  const cosLimit = Math.cos(RECOVERY_ANGLE);
  return samples.every(
    ({ point, normal }) =>
      Math.abs(distanceToSurface(surface, point)) <= RECOVERY_TOLERANCE &&
      Math.abs(dot(surfaceNormal(surface, point), normal)) >= cosLimit,
  );
}

const mean = (vs: Vec3[]): Vec3 => scale(vs.reduce(add, [0, 0, 0] as Vec3), 1 / vs.length);

function fitPlane(samples: SurfaceSample[]): Surface {
  return {
    kind: 'plane',
    origin: mean(samples.map((s) => s.point)),
    normal: normalize(mean(samples.map((s) => s.normal))),
  };
}

function fitCylinder(samples: SurfaceSample[]): Surface | null {
  const axis = leastSpread(
    samples.map((s) => s.normal),
    [0, 0, 0],
  );
  const circle = fitCircle(
    samples.map((s) => s.point),
    axis,
  );
  return circle && { kind: 'cylinder', origin: circle.centre, axis, radius: circle.radius };
}

function fitCone(samples: SurfaceSample[]): Surface | null {
  const normals = samples.map((s) => s.normal);
  const centre = mean(normals);
  let axis = leastSpread(normals, centre);
  const c = dot(centre, axis);
  if (Math.abs(c) < 1e-6 || Math.abs(c) > 1 - 1e-9) return null;
  const apex = solve3(samples.map(({ point, normal }) => ({ row: normal, value: dot(normal, point) })));
  if (!apex) return null;
  const m = mean(samples.map((s) => s.point));
  if (dot(sub(m, apex), axis) < 0) axis = scale(axis, -1);
  const height = dot(sub(m, apex), axis);
  const semiAngle = Math.asin(Math.abs(c));
  return {
    kind: 'cone',
    origin: along(apex, axis, height),
    axis,
    radius: height * Math.tan(semiAngle),
    semiAngle,
  };
}

function fitSphere(samples: SurfaceSample[]): Surface | null {
  const p = mean(samples.map((s) => s.point));
  const n = mean(samples.map((s) => s.normal));
  let num = 0;
  let den = 0;
  for (const s of samples) {
    const dn = sub(s.normal, n);
    num += dot(sub(s.point, p), dn);
    den += dot(dn, dn);
  }
  if (den < 1e-9) return null;
  const r = num / den;
  return { kind: 'sphere', origin: along(p, n, -r), radius: Math.abs(r) };
}

/** Least-squares circle through points projected along `axis`. */
function fitCircle(points: Vec3[], axis: Vec3): { centre: Vec3; radius: number } | null {
  const o = mean(points);
  const [ex, ey] = angleBasis(axis);
  const rows = points.map((p) => {
    const d = sub(p, o);
    const [x, y] = [dot(d, ex), dot(d, ey)];
    return { row: [2 * x, 2 * y, 1] as Vec3, value: x * x + y * y };
  });
  const k = solve3(rows);
  if (!k) return null;
  const centre = add(o, add(scale(ex, k[0]), scale(ey, k[1])));
  const radius = Math.sqrt(Math.max(0, k[2] + k[0] * k[0] + k[1] * k[1]));
  return radius > 1e-6 && radius < 1e5 ? { centre, radius } : null;
}

/**
 * Normals of a torus all meet its axis: the line whose reciprocal product with every normal line is nought (line geometry, Plücker
 * coordinates). In the half-plane through the axis the points then lie on one circle.
 */
function fitTorus(samples: SurfaceSample[]): Surface | null {
  const middle = mean(samples.map((s) => s.point));
  const size = Math.max(...samples.map((s) => length(sub(s.point, middle)))) || 1;
  const m = Array.from({ length: 6 }, () => [0, 0, 0, 0, 0, 0]);
  for (const { point, normal } of samples) {
    const p = scale(sub(point, middle), 1 / size);
    const row = [...cross(p, normal), ...normal];
    for (let i = 0; i < 6; i++) for (let j = 0; j < 6; j++) m[i]![j]! += row[i]! * row[j]!;
  }
  const [ax, ay, az, mx, my, mz] = smallestEigenvector(m) as [number, number, number, number, number, number];
  const direction: Vec3 = [ax, ay, az];
  const l = length(direction);
  if (l < 1e-3) return null;
  const axis = scale(direction, 1 / l);
  const foot = along(middle, scale(cross(direction, [mx, my, mz]), 1 / (l * l)), size);
  const rows = samples.map(({ point }) => {
    const d = sub(point, foot);
    const h = dot(d, axis);
    const r = length(sub(d, scale(axis, h)));
    return { row: [2 * r, 2 * h, 1] as Vec3, value: r * r + h * h };
  });
  const k = solve3(rows);
  if (!k) return null;
  const [majorRadius, h] = k;
  const minorRadius = Math.sqrt(Math.max(0, k[2] + majorRadius * majorRadius + h * h));
  if (!(minorRadius > 1e-6 && minorRadius < 1e5 && majorRadius > minorRadius * 1e-3)) return null;
  return { kind: 'torus', origin: along(foot, axis, h), axis, majorRadius, minorRadius };
}

/** Unit direction in which the vectors spread least about `centre`. */
function leastSpread(vectors: Vec3[], centre: Vec3): Vec3 {
  const a = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (const v of vectors) {
    const d = sub(v, centre);
    for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) a[i]![j]! += d[i]! * d[j]!;
  }
  return normalize(smallestEigenvector(a) as Vec3);
}

/** Eigenvector of the smallest eigenvalue of a symmetric matrix (cyclic Jacobi). */
function smallestEigenvector(symmetric: number[][]): number[] {
  const n = symmetric.length;
  const a = symmetric.map((row) => [...row]);
  const e: number[][] = a.map((_, i) => a.map((__, j) => (i === j ? 1 : 0)));
  for (let sweep = 0; sweep < 40; sweep++) {
    for (let p = 0; p < n; p++) {
      for (let q = p + 1; q < n; q++) {
        if (Math.abs(a[p]![q]!) < 1e-18) continue;
        const theta = (a[q]![q]! - a[p]![p]!) / (2 * a[p]![q]!);
        const t = Math.sign(theta || 1) / (Math.abs(theta) + Math.hypot(theta, 1));
        const c = 1 / Math.hypot(t, 1);
        const s = t * c;
        for (let k = 0; k < n; k++)
          [a[k]![p], a[k]![q]] = [c * a[k]![p]! - s * a[k]![q]!, s * a[k]![p]! + c * a[k]![q]!];
        for (let k = 0; k < n; k++)
          [a[p]![k], a[q]![k]] = [c * a[p]![k]! - s * a[q]![k]!, s * a[p]![k]! + c * a[q]![k]!];
        for (let k = 0; k < n; k++)
          [e[k]![p], e[k]![q]] = [c * e[k]![p]! - s * e[k]![q]!, s * e[k]![p]! + c * e[k]![q]!];
      }
    }
  }
  let least = 0;
  for (let i = 1; i < n; i++) if (a[i]![i]! < a[least]![least]!) least = i;
  return e.map((row) => row[least]!);
}

/** Least-squares solution of rows·x = values in three unknowns; null when they do not determine it. */
function solve3(rows: { row: Vec3; value: number }[]): Vec3 | null {
  const m = [
    [0, 0, 0, 0],
    [0, 0, 0, 0],
    [0, 0, 0, 0],
  ];
  for (const { row, value } of rows) {
    for (let i = 0; i < 3; i++) {
      for (let j = 0; j < 3; j++) m[i]![j]! += row[i]! * row[j]!;
      m[i]![3]! += row[i]! * value;
    }
  }
  for (let c = 0; c < 3; c++) {
    const pivot = [c, c + 1, c + 2]
      .filter((r) => r < 3)
      .sort((x, y) => Math.abs(m[y]![c]!) - Math.abs(m[x]![c]!))[0]!;
    if (Math.abs(m[pivot]![c]!) < 1e-12) return null;
    [m[c], m[pivot]] = [m[pivot]!, m[c]!];
    for (let r = 0; r < 3; r++) {
      if (r === c) continue;
      const k = m[r]![c]! / m[c]![c]!;
      for (let j = c; j < 4; j++) m[r]![j]! -= k * m[c]![j]!;
    }
  }
  return [m[0]![3]! / m[0]![0]!, m[1]![3]! / m[1]![1]!, m[2]![3]! / m[2]![2]!];
}
