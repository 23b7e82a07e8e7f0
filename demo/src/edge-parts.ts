import type { Shape3D } from 'replicad';
import { chamfered, circle, filleted, rectangle, ring, edgeFilter } from './cut-shapes.ts';
import { box, capsule, cutAll, prism, straight, sunk, turned } from './solids.ts';
import { type Fixture, UP } from './stored-parts.ts';

/** Parts with broken and rounded edges, and with what is easily taken for something else. */
export const EDGE_FIXTURES: Fixture[] = [
  {
    name: 'chamfers',
    splitX: 47,
    body: () => {
      const plate = chamfered(prism(rectangle(120, 80, 12, 60, 40), 0, -20), 1.5, { z: 0 });
      const slotted = chamfered(
        plate.cut(prism(capsule(40, 10, [40, 40]), 1, -8)) as Shape3D,
        { distances: [1, 0.5], selectedFace: (f: never) => edgeFilter(f, { z: 0 }) },
        {
          z: 0,
          within: [
            [15, 30, -1],
            [65, 50, 1],
          ],
        },
      );
      const drilled = slotted.cut(turned(sunk(straight(8, 12), 9), [95, 60, 0], UP)) as Shape3D;
      return drilled.fuse(chamfered(prism(circle(10, 95, 25), 8, 0), 1, { z: 8 })) as Shape3D;
    },
    expected: [
      // The entry chamfer belongs to the hole.
      {
        family: 'hole',
        kind: 'blind',
        depth: 12,
        role: 'plain',
        bottom: { shape: 'flat' },
        entry: [95, 60, 0],
      },
      { family: 'slot', kind: 'closed', width: 10, length: 40, depth: 8, centre: [40, 40, 0] },
      {
        family: 'chamfer',
        kind: 'circular',
        width: 1,
        angle: 45,
        loop: 'closed',
        length: 18 * Math.PI,
        side: 'outside',
        axis: UP,
      },
      {
        family: 'chamfer',
        kind: 'mixed',
        width: 1,
        angle: (Math.atan(0.5) * 180) / Math.PI,
        loop: 'closed',
        length: 60 + 12 * Math.PI,
        side: 'inside',
      },
      {
        family: 'chamfer',
        kind: 'mixed',
        width: 1.5,
        angle: 45,
        loop: 'closed',
        length: 2 * (96 + 56) + 21 * Math.PI,
        side: 'outside',
      },
    ],
  },
  {
    name: 'rounded edges',
    splitX: 47,
    body: () =>
      chamfered(filleted(filleted(box([0, 0, -25], [90, 60, 0]), 6, { upright: true }), 2, { z: 0 }), 1, {
        z: -25,
      }),
    expected: [
      {
        family: 'rounded-edge',
        kind: 'mixed',
        radius: 2,
        loop: 'closed',
        length: 2 * (78 + 48) + 8 * Math.PI,
        side: 'outside',
        axis: UP,
      },
      { family: 'chamfer', kind: 'mixed', width: 1, angle: 45, loop: 'closed', axis: [0, 0, -1] },
    ],
  },
  {
    name: 'open runs of chamfer and round',
    splitX: 47,
    body: () =>
      filleted(chamfered(box([0, 0, -25], [90, 60, 0]), 2, { at: [45, 0, 0] }), 3, { at: [45, 60, 0] }),
    expected: [
      {
        family: 'chamfer',
        kind: 'straight',
        width: 2,
        angle: 45,
        loop: 'open',
        length: 90,
        side: 'outside',
        axis: UP,
      },
      { family: 'rounded-edge', kind: 'straight', radius: 3, loop: 'open', length: 90, axis: UP },
    ],
  },
  {
    name: 'false friends: pockets, windows, bosses, fillets, notches, a groove with square corners, a wedge',
    splitX: 47,
    body: () => {
      const cut = cutAll(box([0, 0, -30], [200, 120, 0]), [
        prism(rectangle(40, 24, 5, 30, 25), 1, -10),
        prism(rectangle(40, 24, 5, 150, 30), 1, -31),
        prism(rectangle(40, 24, 0, 150, 80), 1, -12),
        turned(straight(12, 40), [0, 60, 0], UP),
        box([90, 100, -31], [110, 121, 1]),
        box([-1, 100, -10], [20, 121, 1]),
        ring(rectangle(40, 30, 0, 90, 40), rectangle(32, 22, 0, 90, 40), 4),
        box([-60, -10, 0], [60, 130, 60]).rotate(35, [0, 0, 0], [0, 1, 0]).translate(175, 0, -10) as Shape3D,
      ]);
      const raised = cut
        .fuse(prism(circle(8, 60, 80), 10, 0))
        .fuse(prism(rectangle(30, 12, 0, 60, 105), 10, 0)) as Shape3D;
      return filleted(raised, 2, {
        z: -10,
        within: [
          [9, 12, -11],
          [51, 38, -9],
        ],
      });
    },
    expected: [],
  },
];
