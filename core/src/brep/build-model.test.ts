import { expect, test } from 'vitest';
import { distance, type Vec3 } from '../geometry/vec.ts';
import { first } from '../lists.ts';
import { loopEnd } from '../model/solid-model.ts';
import { buildModel } from './build-model.ts';
import type { BrepCurve, Placement } from './geometry.ts';
import type { BrepShape, ShapeRef } from './shapes.ts';

const at = (z: number): Placement => ({ origin: [0, 0, z], z: [0, 0, 1], x: [1, 0, 0], y: [0, 1, 0] });
const ellipse = (z: number): BrepCurve => ({ kind: 'ellipse', at: at(z), major: 25, minor: 12 });
const edge = (curve: BrepCurve, last: number, ends: [Vec3, Vec3]): BrepShape => ({
  type: 'edge',
  curve,
  location: null,
  first: 0,
  last,
  degenerate: false,
  children: [],
  ends,
});
const use = (shape: number, reversed = false): ShapeRef => ({ shape, reversed, location: null });
const [LOW, HIGH]: [Vec3, Vec3] = [
  [25, 0, 0],
  [25, 0, 10],
];

/** The wall of an elliptic bar: once round below, up the seam, round above, and down the seam. */
function wallOf(isTurned: boolean) {
  const shapes: BrepShape[] = [
    edge(ellipse(0), 2 * Math.PI, [LOW, LOW]),
    edge({ kind: 'line', origin: LOW, direction: [0, 0, 10] }, 1, [LOW, HIGH]),
    edge(ellipse(10), 2 * Math.PI, [HIGH, HIGH]),
    { type: 'wire', closed: true, children: [use(0), use(1), use(2, true), use(1, true)] },
    {
      type: 'face',
      surface: { kind: 'extrusion', basis: ellipse(0), direction: [0, 0, 1] },
      location: null,
      children: [use(3)],
    },
    { type: 'shell', closed: false, children: [use(4, isTurned)] },
  ];
  const facts = { name: 'wall', sourceUnits: 'mm' as const, schema: '' };
  return buildModel({ shapes, root: use(5) }, facts, () => ({ positions: [], normals: [], triangles: [] }));
}

test.each([false, true])(
  'a loop runs from edge to edge in order, its face turned round or not: %s',
  (isTurned) => {
    const model = wallOf(isTurned);
    const loop = first(first(model.faces).loops);
    expect(loop).toHaveLength(4);
    // Both closed edges end where they begin, so that places alone do not say which edge is next: the file's order does.
    const kinds = loop.map((l) => model.edges[l.edge]!.curve.kind);
    expect(kinds).toEqual(['ellipse', 'line', 'ellipse', 'line']);
    loop.forEach((l, i) => {
      const next = loop[(i + 1) % loop.length]!;
      expect(distance(loopEnd(model, l, 'end'), loopEnd(model, next, 'start'))).toBeLessThan(1e-9);
    });
    expect(loop[0]!.reversed).toBe(isTurned);
    expect(loop[2]!.reversed).toBe(!isTurned);
  },
);
