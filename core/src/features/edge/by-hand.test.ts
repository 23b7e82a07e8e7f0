import { describe, expect, it } from 'vitest';
import { dot, type Vec3 } from '../../geometry/vec.ts';
import { boxModel } from '../../testing/box-model.ts';
import { handMadeEdgeSchema } from '../../corrections/schema.ts';
import { runByHand } from './by-hand.ts';

const UP: Vec3 = [0, 0, 1];
const box = boxModel([0, 0, 0], [40, 30, 10]);
/** Edges all of whose points pass a test. */
const edgesWhere = (test: (p: Vec3) => boolean): number[] =>
  box.edges.flatMap((e, i) => (e.points.every(test) ? [i] : []));
const TOP = edgesWhere((p) => p[2] > 9.99);

describe('edges chosen by hand', () => {
  it('round a face are one closed run with its exact curve, whatever order they are chosen in', () => {
    expect(TOP).toHaveLength(4);
    const [a, b, c, d] = TOP;
    for (const order of [TOP, [c!, a!, d!, b!]]) {
      const run = runByHand(box, order, UP)!;
      expect(run).toMatchObject({ loop: 'closed', length: 140, axis: UP, lean: 0 });
      expect(run.upper).toHaveLength(4);
      // The face is on the left: counter-clockwise from above.
      const area = run.upper!.reduce((sum, s) => sum + (s.from[0] * s.to[1] - s.from[1] * s.to[0]) / 2, 0);
      expect(area).toBeCloseTo(1200, 6);
      expect(run.upper!.every((s) => Math.abs(dot(s.from, UP) - 10) < 1e-9)).toBe(true);
      expect(handMadeEdgeSchema.safeParse({ family: 'sharp-edge', ...run }).success).toBe(true);
    }
  });

  it('may be part of it, with two ends', () => {
    const run = runByHand(box, TOP.slice(0, 1), UP)!;
    expect(run.loop).toBe('open');
    expect(run.upper).toHaveLength(1);
    expect(run.beside).toHaveLength(2);
  });

  it('that make no level run are kept without one, and none of them is none', () => {
    const upright = edgesWhere((p) => p[0] < 0.01 && p[1] < 0.01);
    expect(runByHand(box, [...TOP.slice(0, 1), ...upright], UP)!.upper).toBeUndefined();
    expect(runByHand(box, upright, UP)!.upper).toBeUndefined();
    expect(runByHand(box, [], UP)).toBeNull();
    expect(runByHand(box, [9999], UP)).toBeNull();
  });
});
