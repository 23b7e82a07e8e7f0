import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance, dot, length, type Vec3 } from '../geometry/vec.ts';
import type { BrepCurve, BrepSurface, Placement } from './geometry.ts';
import { multiply34 } from './matrix34.ts';
import { curvePoint, domainNormal, sampleCurve, surfaceDomain, transformPoint } from './evaluate.ts';
import { exactSurface } from './exact-surface.ts';

const AT: Placement = { origin: [0, 0, 0], z: [0, 0, 1], x: [1, 0, 0], y: [0, 1, 0] };
const W = Math.SQRT1_2;
const RING: Vec3[] = [
  [1, 0, 0],
  [1, 1, 0],
  [0, 1, 0],
  [-1, 1, 0],
  [-1, 0, 0],
  [-1, -1, 0],
  [0, -1, 0],
  [1, -1, 0],
  [1, 0, 0],
];
const KNOTS = [0, 0, 0, 0.25, 0.25, 0.5, 0.5, 0.75, 0.75, 1, 1, 1];
const circle = (r: number, z = 0): Vec3[] => RING.map(([x, y]) => [r * x, r * y, z]);
const splineCircle = (r: number): BrepCurve => ({
  kind: 'nurbs',
  nurbs: { degree: 2, poles: circle(r), weights: RING.map((_, i) => (i % 2 ? W : 1)), knots: KNOTS },
});

describe('curves', () => {
  it('a rational spline circle is round', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        (u) => void expect(length(curvePoint(splineCircle(7), u))).toBeCloseTo(7, 9),
      ),
    );
  });

  it('samples begin and end where the curve does', () => {
    const points = sampleCurve(splineCircle(5), 0.1, 0.6);
    expect(distance(points[0]!, curvePoint(splineCircle(5), 0.1))).toBeLessThan(1e-9);
    expect(distance(points[points.length - 1]!, curvePoint(splineCircle(5), 0.6))).toBeLessThan(1e-9);
    expect(sampleCurve({ kind: 'line', origin: [0, 0, 0], direction: [1, 0, 0] }, 0, 9)).toHaveLength(2);
  });

  it('conics follow their equations', () => {
    const ellipse: BrepCurve = { kind: 'ellipse', at: AT, major: 6, minor: 3 };
    const parabola: BrepCurve = { kind: 'parabola', at: AT, focal: 2 };
    const hyperbola: BrepCurve = { kind: 'hyperbola', at: AT, major: 2, minor: 3 };
    for (const u of [-1.3, 0, 0.4, 2]) {
      const e = curvePoint(ellipse, u);
      expect((e[0] / 6) ** 2 + (e[1] / 3) ** 2).toBeCloseTo(1, 9);
      const p = curvePoint(parabola, u);
      expect(p[1] ** 2).toBeCloseTo(4 * 2 * p[0], 9);
      const h = curvePoint(hyperbola, u);
      expect((h[0] / 2) ** 2 - (h[1] / 3) ** 2).toBeCloseTo(1, 9);
    }
  });
});

describe('surfaces of other names are recovered', () => {
  const recovered = (s: BrepSurface) => exactSurface(s, null);

  it('a spline wall is a cylinder, outward as it was given', () => {
    const wall: BrepSurface = {
      kind: 'nurbs',
      nurbs: {
        degreeU: 2,
        degreeV: 1,
        poles: RING.map(
          ([x, y]) =>
            [
              [4 * x, 4 * y, 0],
              [4 * x, 4 * y, 10],
            ] as Vec3[],
        ),
        weights: RING.map((_, i) => (i % 2 ? [W, W] : [1, 1])),
        knotsU: KNOTS,
        knotsV: [0, 0, 1, 1],
      },
    };
    expect(recovered(wall)).toMatchObject({ recovered: true, flipped: false, surface: { kind: 'cylinder' } });
    const domain = surfaceDomain(wall)!;
    expect(dot(domainNormal(domain, 0.3, 0.5), domain.point(0.3, 0))).toBeGreaterThan(0);
  });

  it('an extruded circle is a cylinder', () => {
    const found = recovered({
      kind: 'extrusion',
      direction: [0, 0, 1],
      basis: { kind: 'circle', at: AT, radius: 3 },
    })!;
    expect(found.surface).toMatchObject({ kind: 'cylinder' });
    expect(found.surface.kind === 'cylinder' && found.surface.radius).toBeCloseTo(3, 6);
  });

  it('a turned line is a cylinder, a cone or a plane', () => {
    const turned = (origin: Vec3, direction: Vec3) =>
      recovered({
        kind: 'revolution',
        origin: [0, 0, 0],
        axis: [0, 0, 1],
        basis: { kind: 'line', origin, direction },
      })!.surface;
    expect(turned([5, 0, 0], [0, 0, 1])).toMatchObject({ kind: 'cylinder', radius: 5 });
    expect(turned([5, 0, 0], [1, 0, 0]).kind).toBe('plane');
    const cone = turned([5, 0, 0], [1, 0, 1]);
    expect(cone.kind === 'cone' && cone.semiAngle).toBeCloseTo(Math.PI / 4, 9);
  });

  it('half a circle turned about its middle is a ball, one half the right way out and the other inside out', () => {
    const upright: Placement = { origin: [0, 0, 0], z: [0, -1, 0], x: [1, 0, 0], y: [0, 0, 1] };
    const turned = (range: [number, number]) =>
      recovered({
        kind: 'revolution',
        origin: [0, 0, 0],
        axis: [0, 0, 1],
        basis: { kind: 'circle', at: upright, radius: 4 },
        range,
      })!;
    const half = Math.PI / 2;
    expect(turned([-half, half])).toMatchObject({ flipped: false, surface: { kind: 'sphere' } });
    expect(turned([half, 3 * half])).toMatchObject({ flipped: true, surface: { kind: 'sphere' } });
  });

  it('a left-handed placement turns the normal round', () => {
    const left: Placement = { ...AT, y: [0, -1, 0] };
    expect(recovered({ kind: 'cylinder', at: left, radius: 2 })!.flipped).toBe(true);
    expect(recovered({ kind: 'plane', at: left })!.surface).toMatchObject({ normal: [0, 0, -1] });
  });

  it('a cone given with a negative angle grows the other way', () => {
    expect(recovered({ kind: 'cone', at: AT, radius: 5, semiAngle: -0.5 })!.surface).toMatchObject({
      axis: [-0, -0, -1],
      semiAngle: 0.5,
    });
  });
});

describe('placements', () => {
  it('multiply as they are applied', () => {
    const turn = [0, -1, 0, 10, 1, 0, 0, 0, 0, 0, 1, 0];
    const shift = [1, 0, 0, 0, 0, 1, 0, 5, 0, 0, 1, 0];
    const p: Vec3 = [1, 2, 3];
    expect(transformPoint(multiply34(turn, shift), p)).toEqual(
      transformPoint(turn, transformPoint(shift, p)),
    );
    expect(multiply34(null, turn)).toBe(turn);
    expect(transformPoint(null, p)).toBe(p);
  });
});
