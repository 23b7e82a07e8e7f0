import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cross2, sub2, type Vec2 } from '../geometry/path.ts';
import { boxModel } from '../testing/box-model.ts';
import { lookAt } from './look.ts';
import { convexOutline } from './outline.ts';

describe('looking at a part', () => {
  const box = boxModel([0, 0, 0], [40, 20, 10]);
  it('tells face, nearest edge and corner', () => {
    const top = box.faces.findIndex((f) => f.surface.kind === 'plane' && f.surface.normal[2] === 1);
    const look = lookAt(box, top, [30, 2, 10])!;
    expect(look).toMatchObject({ isPlane: true, normal: [0, 0, 1], round: null });
    expect(look.edge).toMatchObject({ away: 2, length: 40, middle: [20, 0, 10] });
    expect(Math.abs(look.edge!.direction![0])).toBe(1);
    expect(look.vertex!.point).toEqual([40, 0, 10]);
  });
  it('says nothing of a face that is not there', () => expect(lookAt(box, 99, [0, 0, 0])).toBeNull());
});

describe('the convex outline', () => {
  it('holds every point and turns one way', () => {
    const n = fc.integer({ min: -50, max: 50 });
    fc.assert(
      fc.property(fc.array(fc.tuple(n, n), { minLength: 3, maxLength: 40 }), (points) => {
        const hull = convexOutline(points as Vec2[]);
        hull.forEach((a, i) => {
          const b = hull[(i + 1) % hull.length]!;
          for (const p of points as Vec2[])
            expect(cross2(sub2(b, a), sub2(p, a))).toBeGreaterThanOrEqual(-1e-9);
        });
      }),
    );
  });
});
