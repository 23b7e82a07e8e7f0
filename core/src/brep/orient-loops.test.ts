import fc from 'fast-check';
import { expect, test } from 'vitest';
import { connect } from '../model/connect.ts';
import type { Loop, SolidModel } from '../model/solid-model.ts';
import { boxModel } from '../testing/box-model.ts';
import { orientLoops } from './orient-loops.ts';

const back = (loop: Loop): Loop => [...loop].reverse().map((l) => ({ ...l, reversed: !l.reversed }));
const box = (): SolidModel => structuredClone(boxModel([0, 0, 0], [40, 30, 10]));
/** The edges of a face's loops, and which way each is run. */
const ways = (model: SolidModel) =>
  model.faces.map((f) => f.loops.flatMap((l) => l.map((e) => `${e.edge}${e.reversed ? '-' : '+'}`)).sort());

/** A box whose faces tell no area of their own, some of them with their loops the wrong way round. */
function turned(faces: readonly number[]): SolidModel {
  const model = box();
  for (const face of model.faces)
    face.surface = { kind: 'freeform', mesh: { positions: [], normals: [], triangles: [] } };
  for (const f of faces) model.faces[f]!.loops = model.faces[f]!.loops.map(back);
  return model;
}

test('loops that run their edges both ways stay as they are', () => {
  const model = box();
  expect(orientLoops(model)).toBe(true);
  expect(ways(model)).toEqual(ways(box()));
});

test('a flat face with its loop the wrong way round is turned by its own area', () => {
  const model = box();
  model.faces[2]!.loops = model.faces[2]!.loops.map(back);
  connect(model);
  expect(orientLoops(model)).toBe(true);
  expect(ways(model)).toEqual(ways(box()));
});

test('where no area tells, the few are turned to agree with the many', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 5 }), { maxLength: 2 }), (faces) => {
      const model = turned(faces);
      connect(model);
      expect(orientLoops(model)).toBe(true);
      expect(ways(model)).toEqual(ways(box()));
    }),
  );
});

test('faces that cannot agree are said', () => {
  const model = turned([]);
  // One edge is run by both of its faces the same way, and their loops hang together by the others.
  const loop = model.faces[0]!.loops[0]!;
  loop[0] = { ...loop[0]!, reversed: !loop[0]!.reversed };
  connect(model);
  expect(orientLoops(model)).toBe(false);
});
