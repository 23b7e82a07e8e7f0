import { describe, expect, test } from 'vitest';
import { cross, distance, dot, length, sub, type Vec3 } from '../geometry/vec.ts';
import { at } from '../lists.ts';
import type { FreeformMesh } from '../model/solid-model.ts';
import { curvePoint, sampleCurve, surfaceDomain } from './evaluate.ts';
import { meshFreeform } from './freeform-mesh.ts';
import type { BrepCurve, BrepSurface, NurbsSurface, Placement } from './geometry.ts';

const AT: Placement = { origin: [0, 0, 0], z: [0, 0, 1], x: [1, 0, 0], y: [0, 1, 0] };

/** A sheet whose corners do not lie in one plane: u and v run over its sides, 20 and 10 mm apart. */
const SADDLE: NurbsSurface = {
  degreeU: 1,
  degreeV: 1,
  poles: [
    [
      [0, 0, 0],
      [0, 10, 4],
    ],
    [
      [20, 0, 4],
      [20, 10, 0],
    ],
  ],
  weights: null,
  knotsU: [0, 0, 1, 1],
  knotsV: [0, 0, 1, 1],
};
const saddle: BrepSurface = { kind: 'nurbs', nurbs: SADDLE };

/** Its border counter-clockwise as seen against its own normal, each side in steps. */
function border(steps: number): Vec3[] {
  const d = surfaceDomain(saddle)!;
  const run = (from: [number, number], to: [number, number]) =>
    Array.from({ length: steps }, (_, i) => {
      const t = i / steps;
      return d.point(from[0] + t * (to[0] - from[0]), from[1] + t * (to[1] - from[1]));
    });
  return [...run([0, 0], [1, 0]), ...run([1, 0], [1, 1]), ...run([1, 1], [0, 1]), ...run([0, 1], [0, 0])];
}

const cornersOf = (m: FreeformMesh): Vec3[] =>
  Array.from(
    { length: m.positions.length / 3 },
    (_, i) => [0, 1, 2].map((k) => at(m.positions, 3 * i + k)) as Vec3,
  );
function areaOf(m: FreeformMesh): number {
  const p = cornersOf(m);
  let area = 0;
  for (let t = 0; t < m.triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => at(p, at(m.triangles, t + k))) as [Vec3, Vec3, Vec3];
    area += length(cross(sub(b, a), sub(c, a))) / 2;
  }
  return area;
}
/** Area of a sheet by its own slopes, in fine steps. */
function trueArea(surface: BrepSurface, n = 200): number {
  const d = surfaceDomain(surface)!;
  const [u, v] = [(d.u[1] - d.u[0]) / n, (d.v[1] - d.v[0]) / n];
  let area = 0;
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      const [a, b] = [d.u[0] + i * u, d.v[0] + j * v];
      const p = d.point(a, b);
      area += length(cross(sub(d.point(a + u, b), p), sub(d.point(a, b + v), p)));
    }
  return area;
}

describe('triangles of a free-form face', () => {
  test('have its area, lie on it, and have its border’s points and no others there', () => {
    const points = border(8);
    const mesh = meshFreeform({
      index: 0,
      surface: saddle,
      location: null,
      reversed: false,
      loops: [points],
    })!;
    expect(areaOf(mesh)).toBeCloseTo(trueArea(saddle), 0);
    expect(Math.abs(areaOf(mesh) / trueArea(saddle) - 1)).toBeLessThan(2e-3);
    const corners = cornersOf(mesh);
    for (const p of points) expect(corners.some((c) => distance(c, p) < 1e-12)).toBe(true);
    // z = 4·(u + v − 2uv) all over it.
    for (const [x, y, z] of corners) expect(z).toBeCloseTo(4 * (x / 20 + y / 10 - (2 * x * y) / 200), 6);
    const onBorder = corners.filter(([x, y]) => Math.min(x, y, 20 - x, 10 - y) < 1e-6);
    expect(onBorder).toHaveLength(points.length);
  });

  test('face outward, as their normals do', () => {
    for (const reversed of [false, true]) {
      const loop = reversed ? border(6).reverse() : border(6);
      const mesh = meshFreeform({ index: 0, surface: saddle, location: null, reversed, loops: [loop] })!;
      const p = cornersOf(mesh);
      for (let t = 0; t < mesh.triangles.length; t += 3) {
        const [a, b, c] = [0, 1, 2].map((k) => at(p, at(mesh.triangles, t + k))) as [Vec3, Vec3, Vec3];
        const up = cross(sub(b, a), sub(c, a))[2];
        expect(Math.sign(up)).toBe(reversed ? -1 : 1);
      }
      for (let i = 2; i < mesh.normals.length; i += 3)
        expect(Math.sign(at(mesh.normals, i))).toBe(reversed ? -1 : 1);
    }
  });

  test('stand where the face does', () => {
    const move = [0, -1, 0, 100, 1, 0, 0, 50, 0, 0, 1, -7] as const;
    const placed = border(6).map(([x, y, z]): Vec3 => [100 - y, 50 + x, z - 7]);
    const mesh = meshFreeform({
      index: 0,
      surface: saddle,
      location: [...move],
      reversed: false,
      loops: [placed],
    })!;
    expect(Math.abs(areaOf(mesh) / trueArea(saddle) - 1)).toBeLessThan(2e-3);
    for (const [x, y, z] of cornersOf(mesh)) {
      const [u, v] = [(y - 50) / 20, (100 - x) / 10];
      expect(z + 7).toBeCloseTo(4 * (u + v - 2 * u * v), 6);
    }
  });

  test('go round a surface that has no seam, between two rims', () => {
    const profile: BrepCurve = {
      kind: 'ellipse',
      at: { origin: [0, 0, 0], z: [0, -1, 0], x: [1, 0, 0], y: [0, 0, 1] },
      major: 12,
      minor: 30,
    };
    const barrel: BrepSurface = {
      kind: 'revolution',
      origin: [0, 0, 0],
      axis: [0, 0, 1],
      basis: profile,
      range: [-Math.PI / 2, Math.PI / 2],
    };
    const rim = (angle: number, sense: 1 | -1): Vec3[] => {
      const [r, , z] = curvePoint(profile, angle);
      const circle: BrepCurve = { kind: 'circle', at: { ...AT, origin: [0, 0, z] }, radius: r };
      const points = sampleCurve(circle, 0, 2 * Math.PI).slice(0, -1);
      return sense === 1 ? points : points.reverse();
    };
    // The face is on the left of both: above the lower one, below the upper one.
    const loops = [rim(-0.6, 1), rim(0.6, -1)];
    const mesh = meshFreeform({ index: 0, surface: barrel, location: null, reversed: false, loops })!;
    expect(mesh).not.toBeNull();
    // Pappus and Guldin: the sum over the profile of its length times the way of its radius.
    let area = 0;
    const n = 4000;
    for (let i = 0; i < n; i++) {
      const [a, b] = [-0.6 + (1.2 * i) / n, -0.6 + (1.2 * (i + 1)) / n];
      const [p, q] = [curvePoint(profile, a), curvePoint(profile, b)];
      area += Math.PI * (p[0] + q[0]) * distance(p, q);
    }
    expect(Math.abs(areaOf(mesh) / area - 1)).toBeLessThan(0.01);
    const p = cornersOf(mesh);
    for (let t = 0; t < mesh.triangles.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => at(p, at(mesh.triangles, t + k))) as [Vec3, Vec3, Vec3];
      expect(dot(cross(sub(b, a), sub(c, a)), [a[0], a[1], 0])).toBeGreaterThan(0);
    }
  });

  test('do not cut the bend short where a high wall bends in one way only', () => {
    const ellipse: BrepCurve = { kind: 'ellipse', at: AT, major: 25, minor: 12 };
    const wall: BrepSurface = { kind: 'extrusion', basis: ellipse, direction: [0, 0, 1] };
    const low = sampleCurve(ellipse, 0, Math.PI);
    // A notch in its upper border, with few points of its own.
    const notched = [...low].reverse().flatMap(([x, y], i): Vec3[] => {
      if (i < 12 || i > 24) return [[x, y, 60]];
      return i === 12 || i === 24
        ? ([
            [x, y, 60],
            [x, y, 20],
          ].sort((a, b) => (i === 12 ? b[2]! - a[2]! : a[2]! - b[2]!)) as Vec3[])
        : [[x, y, 20]];
    });
    const loop = [...low, ...notched];
    const mesh = meshFreeform({ index: 0, surface: wall, location: null, reversed: false, loops: [loop] })!;
    const p = cornersOf(mesh);
    for (let t = 0; t < mesh.triangles.length; t += 3) {
      const corners = [0, 1, 2].map((k) => at(p, at(mesh.triangles, t + k)));
      const [x, y] = [0, 1].map((k) => corners.reduce((sum, c) => sum + at(c, k), 0) / 3);
      // How far the middle lies within the ellipse, as a share.
      expect(1 - Math.hypot(x! / 25, y! / 12)).toBeLessThan(0.008);
    }
  });

  test('are none where the border does not lie on the surface', () => {
    const off = border(4).map(([x, y, z]): Vec3 => [x, y, z + 0.3]);
    expect(
      meshFreeform({ index: 0, surface: saddle, location: null, reversed: false, loops: [off] }),
    ).toBeNull();
    expect(
      meshFreeform({ index: 0, surface: saddle, location: null, reversed: false, loops: [] }),
    ).toBeNull();
  });
});
