import { expect, test } from 'vitest';
import { distance, type Vec3 } from '../geometry/vec.ts';
import { first } from '../lists.ts';
import { meshArea, meshModel } from '../model/mesh.ts';
import type { Face, SolidModel, Surface } from '../model/solid-model.ts';
import { circleEdge, oneFace } from '../testing/one-face.ts';
import { seamToPole } from './poles.ts';

/** A face that ends in one circle about Z at a height, run so that the face is on its left. */
function capOf(
  surface: Surface,
  radius: number,
  z: number,
  isFaceAbove: boolean,
): { model: SolidModel; face: Face } {
  const loops = [[{ edge: 0, reversed: !isFaceAbove }]];
  return oneFace({ surface, loops }, [circleEdge([0, 0, z], [0, 0, 1], radius)]);
}

const cone: Surface = {
  kind: 'cone',
  origin: [0, 0, 0],
  axis: [0, 0, 1],
  radius: 5,
  semiAngle: Math.atan2(5, 12),
};
const ball: Surface = { kind: 'sphere', origin: [0, 0, 0], radius: 10 };

test('a cone’s face that ends in one circle gets a seam to its tip, and has its area', () => {
  const { model, face } = capOf(cone, 5, 0, false);
  seamToPole(model, face, []);
  expect(model.edges).toHaveLength(2);
  const [circle, up, down] = first(face.loops);
  expect([circle?.edge, up?.edge, down?.edge]).toEqual([0, 1, 1]);
  expect(up?.reversed).not.toBe(down?.reversed);
  const { points } = model.edges[1]!;
  expect(distance(points[1]!, [0, 0, -12])).toBeLessThan(1e-9);
  // π · r · s, with s = 13.
  expect(Math.abs(meshArea(meshModel(model)) / (Math.PI * 5 * 13) - 1)).toBeLessThan(3e-3);
});

test('a ball’s face gets one only where the file has a pole', () => {
  const { model, face } = capOf(ball, 6, 8, true);
  seamToPole(model, face, []);
  expect(model.edges).toHaveLength(1);
  seamToPole(model, face, [[0, 0, 10]]);
  expect(model.edges).toHaveLength(2);
  const { points } = model.edges[1]!;
  for (const p of points) expect(distance(p, [0, 0, 0])).toBeCloseTo(10, 9);
  expect(points[points.length - 1]).toEqual([0, 0, 10]);
  // 2π · r · h, with h = 2.
  expect(Math.abs(meshArea(meshModel(model)) / (2 * Math.PI * 10 * 2) - 1)).toBeLessThan(0.01);
});

test('a pole that does not lie on the ball is none of it', () => {
  const { model, face } = capOf(ball, 6, 8, true);
  seamToPole(model, face, [[0, 0, 10.5]]);
  expect(model.edges).toHaveLength(1);
});

test('a hole in a cone’s side leads to no tip', () => {
  const { model, face } = capOf(cone, 5, 0, false);
  const edge = model.edges[0]!;
  // A small loop beside the axis.
  edge.points = edge.points.map(([x, y]): Vec3 => [4 + x / 20, y / 20, (4 + x / 20 - 5) * 2.4]);
  seamToPole(model, face, []);
  expect(model.edges).toHaveLength(1);
});
