import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { along, cross, normalize, type Vec3 } from '../geometry/vec.ts';
import { recoverSurface, type SurfaceSample } from './recover-surface.ts';
import { angleBasis, distanceToSurface, surfaceNormal } from './surface.ts';
import type { Surface } from './solid-model.ts';

const unit = fc
  .tuple(
    fc.double({ min: -1, max: 1, noNaN: true }),
    fc.double({ min: -1, max: 1, noNaN: true }),
    fc.double({ min: 0.1, max: 1, noNaN: true }),
  )
  .map((v) => normalize(v as Vec3));
const place = fc
  .tuple(
    fc.double({ min: -300, max: 300, noNaN: true }),
    fc.double({ min: -300, max: 300, noNaN: true }),
    fc.double({ min: -300, max: 300, noNaN: true }),
  )
  .map((v) => v as Vec3);

/** Samples of a surface of revolution: radius as a function of height. */
function revolve(
  origin: Vec3,
  axis: Vec3,
  radius: (h: number) => number,
  surface: Surface,
  sweep = 2,
): SurfaceSample[] {
  const [x, y] = angleBasis(axis);
  const out: SurfaceSample[] = [];
  for (let i = 0; i <= 8; i++) {
    for (let j = 0; j <= 4; j++) {
      const [a, h] = [(sweep * i) / 8, j * 2];
      const point = along(
        along(along(origin, axis, h), x, radius(h) * Math.cos(a)),
        y,
        radius(h) * Math.sin(a),
      );
      out.push({ point, normal: surfaceNormal(surface, point) });
    }
  }
  return out;
}

describe('recoverSurface', () => {
  it('finds any cylinder from part of its wall', () => {
    fc.assert(
      fc.property(place, unit, fc.double({ min: 0.5, max: 60, noNaN: true }), (origin, axis, radius) => {
        const found = recoverSurface(
          revolve(origin, axis, () => radius, { kind: 'cylinder', origin, axis, radius }),
        );
        expect(found?.kind).toBe('cylinder');
        expect(found?.kind === 'cylinder' && found.radius).toBeCloseTo(radius, 4);
      }),
    );
  });

  it('finds any cone with its angle', () => {
    fc.assert(
      fc.property(place, unit, fc.double({ min: 0.1, max: 1.3, noNaN: true }), (origin, axis, semiAngle) => {
        const cone: Surface = { kind: 'cone', origin, axis, radius: 4, semiAngle };
        const found = recoverSurface(revolve(origin, axis, (h) => 4 + h * Math.tan(semiAngle), cone));
        expect(found?.kind).toBe('cone');
        expect(found?.kind === 'cone' && found.semiAngle).toBeCloseTo(semiAngle, 5);
      }),
    );
  });

  it('finds any torus from a quarter of its tube', () => {
    fc.assert(
      fc.property(
        place,
        unit,
        fc.double({ min: 4, max: 40, noNaN: true }),
        fc.double({ min: 0.5, max: 3.5, noNaN: true }),
        fc.integer({ min: 0, max: 3 }),
        (origin, axis, majorRadius, minorRadius, quarter) => {
          const torus: Surface = { kind: 'torus', origin, axis, majorRadius, minorRadius };
          const x = normalize(cross(axis, Math.abs(axis[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0]));
          const y = cross(axis, x);
          const samples = Array.from({ length: 45 }, (_, n) => {
            const [a, b] = [Math.floor(n / 5) * 0.2, (quarter + (n % 5) / 4) * (Math.PI / 2)];
            const r = majorRadius + minorRadius * Math.cos(b);
            const point = along(
              along(along(origin, axis, minorRadius * Math.sin(b)), x, r * Math.cos(a)),
              y,
              r * Math.sin(a),
            );
            return { point, normal: surfaceNormal(torus, point) };
          });
          const found = recoverSurface(samples);
          expect(found?.kind).toBe('torus');
          if (found?.kind !== 'torus') return;
          expect(found.majorRadius).toBeCloseTo(majorRadius, 4);
          expect(found.minorRadius).toBeCloseTo(minorRadius, 4);
        },
      ),
    );
  });

  it('finds planes and spheres', () => {
    const normal: Vec3 = normalize([1, 2, 3]);
    const x = normalize(cross(normal, [0, 0, 1]));
    const flat = Array.from({ length: 12 }, (_, i) => ({
      point: along(along([5, 5, 5], x, i), cross(normal, x), (i * 5) % 7),
      normal,
    }));
    expect(recoverSurface(flat)?.kind).toBe('plane');
    const sphere: Surface = { kind: 'sphere', origin: [1, 2, 3], radius: 7 };
    const round = [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
      [0.6, 0.8, 0],
      [0, 0.6, 0.8],
      [0.8, 0, 0.6],
      [0.36, 0.48, 0.8],
    ].map((d) => ({ point: along([1, 2, 3], d as Vec3, 7), normal: d as Vec3 }));
    const found = recoverSurface(round)!;
    expect(found.kind).toBe('sphere');
    expect(Math.abs(distanceToSurface(found, along(sphere.origin, [0, -1, 0], 7)))).toBeLessThan(1e-6);
  });

  it('leaves what is off by more than the tolerance alone', () => {
    const samples = revolve([0, 0, 0], [0, 0, 1], (h) => 5 + 0.01 * Math.sin(h), {
      kind: 'cylinder',
      origin: [0, 0, 0],
      axis: [0, 0, 1],
      radius: 5,
    });
    expect(recoverSurface(samples)).toBeNull();
    expect(recoverSurface(samples.slice(0, 3))).toBeNull();
  });
});
