import { describe, expect, it } from 'vitest';
import { boxModel } from '../testing/box-model.ts';
import { assembled } from '../testing/turn-model.ts';
import { lookAt } from './look.ts';
import { pickables } from './pickable.ts';

const box = boxModel([0, 0, 0], [40, 20, 10]);

describe('places to choose from a list', () => {
  it('are the faces of a box, the largest first, each looking outward', () => {
    const planes = pickables(box, ['plane']);
    expect(planes.map((p) => p.size)).toEqual([800, 800, 400, 400, 200, 200]);
    for (const p of planes) {
      const seen = lookAt(box, p.face, p.point)!;
      expect(seen.isPlane).toBe(true);
      expect(p.direction).toEqual(seen.normal);
      // Outward: away from the box's middle.
      const out = p.point.map((v, i) => v - [20, 10, 5][i]!).reduce((s, v, i) => s + v * p.direction![i]!, 0);
      expect(out).toBeGreaterThan(0);
    }
  });
  it('are its edges and its corners, each once', () => {
    expect(pickables(box, ['straight-edge'])).toHaveLength(12);
    const corners = pickables(box, ['corner']);
    expect(new Set(corners.map((c) => c.point.join())).size).toBe(8);
    expect(corners).toHaveLength(8);
    for (const c of corners) expect(lookAt(box, c.face, c.point)!.vertex!.away).toBe(0);
  });
  it('are of one solid where one is asked for', () => {
    const two = assembled([box, boxModel([100, 0, 0], [110, 5, 5])]);
    expect(pickables(two, ['plane'], 1).every((p) => two.faces[p.face]!.solid === 1)).toBe(true);
    expect(pickables(two, ['edge'], 1)).toHaveLength(12);
    expect(pickables(two, ['edge'])).toHaveLength(24);
  });
});
