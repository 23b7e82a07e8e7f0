import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { normalize, type Vec3 } from '../geometry/vec.ts';
import { boxModel } from '../testing/box-model.ts';
import { isCircleAbout, segmentsPerTurn } from './circle-edge.ts';
import { edgeSegments, meshArea, meshModel, meshVolume } from './mesh.ts';
import { rayCaster } from './ray.ts';
import { boundsOf, facesOfSolid } from './solid-model.ts';
import { coneApex, distanceToSurface, surfaceNormal } from './surface.ts';

const box = boxModel([0, 0, 0], [40, 30, 20]);

describe('a box', () => {
  it('has twelve convex edges at right angles', () => {
    expect(box.edges).toHaveLength(12);
    for (const e of box.edges) {
      expect(e.convexity).toBe('convex');
      expect(e.angle).toBeCloseTo(Math.PI / 2, 9);
      expect(e.faces).toHaveLength(2);
    }
    expect(facesOfSolid(box, 0)).toHaveLength(6);
  });

  it('meshes to its own area and volume, facing outward', () => {
    const mesh = meshModel(box);
    expect(meshVolume(mesh)).toBeCloseTo(40 * 30 * 20, 3);
    expect(meshArea(mesh)).toBeCloseTo(2 * (1200 + 800 + 600), 3);
    expect(new Set(mesh.faceOf).size).toBe(6);
    expect(edgeSegments(box).positions).toHaveLength(12 * 6);
  });

  it('turned inside out has concave edges', () => {
    const hollow = structuredClone(box);
    for (const f of hollow.faces) {
      f.reversed = true;
      f.loops = f.loops.map((l) =>
        [...l].reverse().map(({ edge, reversed }) => ({ edge, reversed: !reversed })),
      );
    }
    expect(meshVolume(meshModel(hollow))).toBeCloseTo(-24000, 3);
  });

  it('stops rays where it stands, whatever the direction', () => {
    const rays = rayCaster(meshModel(box));
    expect(rays.firstHit([20, 15, 50], [0, 0, -1])).toBeCloseTo(30, 6);
    expect(rays.firstHit([20, 15, 50], [0, 0, 1])).toBeNull();
    expect(rays.firstHit([20, 15, 50], [0, 0, -1], 29)).toBeNull();
    const inside = fc.tuple(
      fc.double({ min: 1, max: 39, noNaN: true }),
      fc.double({ min: 1, max: 29, noNaN: true }),
      fc.double({ min: 1, max: 19, noNaN: true }),
    );
    const way = fc
      .tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true })))
      .filter((d) => Math.hypot(...(d as number[])) > 0.1);
    fc.assert(
      fc.property(inside, way, (p, d) => {
        const unit = normalize(d as Vec3);
        const hit = rays.firstHit(p as Vec3, unit)!;
        const expected = Math.min(
          ...[0, 1, 2].map((i) =>
            unit[i]! > 0
              ? ([40, 30, 20][i]! - p[i]!) / unit[i]!
              : unit[i]! < 0
                ? -p[i]! / unit[i]!
                : Infinity,
          ),
        );
        expect(hit).toBeCloseTo(expected, 4);
      }),
    );
  });
});

describe('surfaces', () => {
  it('measure distance outward', () => {
    expect(
      distanceToSurface({ kind: 'cylinder', origin: [0, 0, 0], axis: [0, 0, 1], radius: 5 }, [7, 0, 3]),
    ).toBeCloseTo(2);
    expect(distanceToSurface({ kind: 'sphere', origin: [0, 0, 0], radius: 5 }, [0, 3, 0])).toBeCloseTo(-2);
    expect(
      distanceToSurface(
        { kind: 'torus', origin: [0, 0, 0], axis: [0, 0, 1], majorRadius: 10, minorRadius: 2 },
        [10, 0, 3],
      ),
    ).toBeCloseTo(1);
    expect(
      distanceToSurface(
        { kind: 'cone', origin: [0, 0, 0], axis: [0, 0, 1], radius: 0, semiAngle: Math.PI / 4 },
        [0, 0, 1],
      ),
    ).toBeCloseTo(-Math.SQRT1_2);
  });
  it('normals stand on the surface', () => {
    expect(
      surfaceNormal(
        { kind: 'torus', origin: [0, 0, 0], axis: [0, 0, 1], majorRadius: 10, minorRadius: 2 },
        [10, 0, 2],
      ),
    ).toEqual([0, 0, 1]);
    expect(
      coneApex({ kind: 'cone', origin: [0, 0, 5], axis: [0, 0, 1], radius: 5, semiAngle: Math.PI / 4 })[2],
    ).toBeCloseTo(0, 9);
  });
});

describe('circles', () => {
  it('are cut finely enough for the tolerance', () => {
    for (const r of [0.5, 2, 10, 40]) {
      const n = segmentsPerTurn(r, 0.02);
      if (n < 120 && n > 24) expect(r * (1 - Math.cos(Math.PI / n))).toBeLessThanOrEqual(0.02);
    }
  });
  it('are known about their axis only', () => {
    const ring = Array.from({ length: 9 }, (_, i) => [3 * Math.cos(i), 3 * Math.sin(i), 1] as Vec3);
    expect(isCircleAbout(ring, [0, 0, 0], [0, 0, 1])).toBe(true);
    expect(isCircleAbout(ring, [0.1, 0, 0], [0, 0, 1])).toBe(false);
    expect(isCircleAbout([], [0, 0, 0], [0, 0, 1])).toBe(false);
  });
  it('bounds of nothing are an error', () => expect(() => boundsOf([])).toThrow(RangeError));
});
