import { describe, expect, test } from 'vitest';
import type { Vec3 } from '../geometry/vec.ts';
import { boxModel } from '../testing/box-model.ts';
import { borderPoints, extentAlong, isWall, patchGraph, planeNormal } from './patches.ts';
import { GrowingBox } from './solid-model.ts';

const box = boxModel([0, 0, 0], [40, 30, 10]);
const graph = patchGraph(box);

describe('the patches of a box', () => {
  test('are its faces, each with one outline of four sharp edges', () => {
    expect(graph.patches.map((p) => p.faces)).toEqual(box.faces.map((_, i) => [i]));
    for (const { loops } of graph.patches) {
      expect(loops).toHaveLength(1);
      expect(loops[0]!.map((b) => b.convexity)).toEqual(['convex', 'convex', 'convex', 'convex']);
    }
  });

  test('know each other over every edge, which both run the other way', () => {
    graph.patches.forEach((patch, i) => {
      for (const border of patch.loops.flat()) {
        const back = graph.patches[border.other]!.loops.flat().filter((b) => b.edge === border.edge);
        expect(back).toEqual([{ ...border, reversed: !border.reversed, other: i }]);
      }
    });
  });

  test('have outlines whose borders follow each other', () => {
    for (const { loops } of graph.patches)
      for (const loop of loops)
        loop.forEach((b, i) => {
          const points = borderPoints(box, b);
          const next = borderPoints(box, loop[(i + 1) % loop.length]!);
          expect(points[points.length - 1]).toEqual(next[0]);
        });
  });

  test('look away from the metal, stand up or lie, and reach as far as they do', () => {
    const up: Vec3 = [0, 0, 1];
    const top = graph.patches.find((p) => planeNormal(p)![2] > 0.99)!;
    expect(extentAlong(box, top, up)).toEqual([10, 10]);
    expect(extentAlong(box, top, [1, 0, 0])).toEqual([0, 40]);
    expect(isWall(top, up)).toBe(false);
    expect(graph.patches.filter((p) => isWall(p, up))).toHaveLength(4);
  });
});

test('an edge that one face alone has leads nowhere', () => {
  const open = boxModel([0, 0, 0], [40, 30, 10]);
  const faces = open.faces.slice(0, 1);
  const edges = open.edges.map((e) => ({ ...e, faces: e.faces.filter((f) => f === 0) }));
  const [patch] = patchGraph({ ...open, faces, edges }).patches;
  expect(patch!.loops.flat().map((b) => b.other)).toEqual([-1, -1, -1, -1]);
});

test('a box grows by points, and without any there is none', () => {
  const growing = new GrowingBox();
  expect(growing.bounds()).toBeNull();
  growing.add([]).add([[1, 2, 3]]);
  const first = growing.bounds();
  expect(first).toEqual({ min: [1, 2, 3], max: [1, 2, 3] });
  growing.add([
    [0, 5, 3],
    [4, -1, 3],
  ]);
  expect(growing.bounds()).toEqual({ min: [0, -1, 3], max: [4, 5, 3] });
  // What was given out before stays as it was.
  expect(first).toEqual({ min: [1, 2, 3], max: [1, 2, 3] });
});
