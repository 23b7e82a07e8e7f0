import { expect, test } from 'vitest';
import { orientLoops } from '../brep/orient-loops.ts';
import { connect } from '../model/connect.ts';
import { meshModel, meshVolume } from '../model/mesh.ts';
import type { Loop, SolidModel } from '../model/solid-model.ts';
import { boxModel } from '../testing/box-model.ts';
import { faultOf } from './health.ts';

const box = (): SolidModel => structuredClone(boxModel([0, 0, 0], [40, 30, 20]));
const backwards = (loop: Loop): Loop =>
  [...loop].reverse().map(({ edge, reversed }) => ({ edge, reversed: !reversed }));

test('a box is sound, an open one too: it says so itself', () => {
  expect(faultOf(box())).toBeNull();
  const open = box();
  open.faces.pop();
  open.solids[0]!.closed = false;
  connect(open);
  expect(faultOf(open)).toBeNull();
});

test('a loop that does not close is named by its face', () => {
  const model = box();
  model.faces[4]!.loops[0]!.pop();
  expect(faultOf(model)).toBe('a loop of face 4 does not close');
});

test('a face without triangles, a solid inside out, and one larger than its box are no sound parts', () => {
  const empty = box();
  empty.faces[2]!.loops = [];
  expect(faultOf(empty)).toBe('face 2 cannot be meshed');
  const inside = box();
  for (const f of inside.faces) {
    f.reversed = !f.reversed;
    f.loops = f.loops.map(backwards);
  }
  expect(faultOf(inside)).toBe('the volume of solid 1 is not positive');
  const small = box();
  small.bounds = { min: [0, 0, 0], max: [40, 30, 10] };
  expect(faultOf(small)).toBe('solid 1 is larger than the box round it');
});

test('loops that a program wrote with the face on their right are turned round', () => {
  const model = box();
  for (const i of [1, 4]) model.faces[i]!.loops = model.faces[i]!.loops.map(backwards);
  connect(model);
  expect(orientLoops(model)).toBe(true);
  expect(model.edges.every((e) => e.convexity === 'convex')).toBe(true);
  expect(meshVolume(meshModel(model))).toBeCloseTo(24_000, 3);
  // Each edge is run once each way.
  const ways = model.edges.map(() => new Set<boolean>());
  for (const { edge, reversed } of model.faces.flatMap((f) => f.loops.flat())) ways[edge]!.add(reversed);
  expect(ways.every((w) => w.size === 2)).toBe(true);
});

test('loops that are right are left alone', () => {
  const model = box();
  const before = structuredClone(model.faces);
  expect(orientLoops(model)).toBe(true);
  expect(model.faces).toEqual(before);
});
