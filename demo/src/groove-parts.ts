import type { Shape3D } from 'replicad';
import { bend, bow, circle, rectangle, ring, tee, tongue } from './cut-shapes.ts';
import { box, capsule, cutAll, outline, prism, turned } from './solids.ts';
import { type Fixture, UP } from './stored-parts.ts';

const lean = 10 / Math.tan(Math.PI / 3);

/** Parts with slots, grooves, channels and undercuts, and what is to be found in them. */
export const GROOVE_FIXTURES: Fixture[] = [
  {
    name: 'slots',
    splitX: 31,
    body: () =>
      cutAll(box([0, 0, -30], [160, 90, 0]), [
        prism(capsule(40, 10, [30, 20]), 1, -8),
        prism(capsule(30, 6, [80, 20], 30), 1, -40),
        prism(tongue(12, 56), 1, -10),
        box([146, -1, -6], [154, 91, 1]),
        prism(capsule(60, 8, [100, 60]), 1, -8),
        prism(capsule(50, 8, [100, 60], 90), 1, -5),
      ]),
    expected: [
      {
        family: 'slot',
        kind: 'closed',
        width: 10,
        length: 40,
        depth: 8,
        bottom: 'flat',
        centre: [30, 20, 0],
        direction: [1, 0, 0],
        axis: UP,
      },
      {
        family: 'slot',
        kind: 'closed',
        width: 6,
        length: 30,
        depth: 30,
        bottom: 'open',
        centre: [80, 20, 0],
        direction: [Math.cos(Math.PI / 6), 0.5, 0],
      },
      {
        family: 'slot',
        kind: 'open-one-end',
        width: 12,
        length: 46,
        depth: 10,
        bottom: 'flat',
        centre: [23, 56, 0],
      },
      {
        family: 'slot',
        kind: 'open-both-ends',
        width: 8,
        length: 90,
        depth: 6,
        centre: [150, 45, 0],
        direction: [0, 1, 0],
      },
      { family: 'slot', kind: 'closed', width: 8, length: 60, depth: 8, centre: [100, 60, 0] },
      {
        family: 'slot',
        kind: 'closed',
        width: 8,
        length: 50,
        depth: 5,
        centre: [100, 60, 0],
        direction: [0, 1, 0],
      },
    ],
  },
  {
    name: 'T-slots and a dovetail',
    splitX: 22,
    body: () => {
      const tail = prism(outline([-10, 0], [10, 0], [10 + lean, -10], [-10 - lean, -10]), 120, -1)
        .rotate(90, [0, 0, 0], [1, 0, 0])
        .translate(120, 119, 0) as Shape3D;
      return cutAll(box([0, 0, -40], [150, 100, 0]), [
        ...tee(
          outline([-1, 15], [99, 15], [99, 25], [-1, 25]),
          outline([-1, 11], [99, 11], [99, 29], [-1, 29]),
        ),
        ...tee(tongue(10, 60), tongue(18, 60)),
        tail,
      ]);
    },
    expected: [
      {
        family: 't-slot',
        mouthWidth: 10,
        mouthDepth: 8,
        headWidth: 18,
        headHeight: 8,
        length: 49,
        openEnds: 1,
        axis: UP,
        direction: [1, 0, 0],
        at: [24.5, 60, 0],
      },
      {
        family: 'dovetail',
        mouthWidth: 20,
        bottomWidth: 20 + 2 * lean,
        depth: 10,
        angle: 60,
        axis: UP,
        direction: [0, 1, 0],
        at: [120, 50, 0],
      },
    ],
  },
  {
    name: 'T-slots open at both ends',
    splitX: 22,
    body: () =>
      cutAll(
        box([0, 0, -40], [100, 50, 0]),
        tee(
          outline([-1, 15], [101, 15], [101, 25], [-1, 25]),
          outline([-1, 11], [101, 11], [101, 29], [-1, 29]),
        ),
      ),
    expected: [
      {
        family: 't-slot',
        mouthWidth: 10,
        mouthDepth: 8,
        headWidth: 18,
        headHeight: 8,
        length: 100,
        openEnds: 2,
        at: [50, 20, 0],
      },
    ],
  },
  {
    name: 'face grooves',
    splitX: 31,
    body: () =>
      cutAll(box([0, 0, -20], [220, 120, 0]), [
        ring(circle(20, 30, 30), circle(16, 30, 30), 3),
        ring(capsule(70, 40, [100, 30]), capsule(62, 32, [100, 30]), 4),
        ring(rectangle(60, 40, 10, 180, 30), rectangle(52, 32, 6, 180, 30), 4),
        // The inner wall's corners are sharp: the cutter's centre turns on the spot, or on a small arc.
        ring(rectangle(60, 40, 2, 40, 90), rectangle(52, 32, 0, 40, 90), 4),
        ring(rectangle(60, 40, 4, 110, 90), rectangle(52, 32, 0, 110, 90), 4),
      ]),
    expected: [
      {
        family: 'face-groove',
        shape: 'ring',
        width: 4,
        depth: 3,
        centrelineLength: 36 * Math.PI,
        centre: [30, 30, 0],
        innerDiameter: 32,
        outerDiameter: 40,
        axis: UP,
      },
      { family: 'face-groove', shape: 'racetrack', width: 4, depth: 4, centrelineLength: 60 + 36 * Math.PI },
      {
        family: 'face-groove',
        shape: 'path',
        width: 4,
        depth: 4,
        centrelineLength: 2 * (40 + 20) + 16 * Math.PI,
      },
      { family: 'face-groove', shape: 'path', width: 4, depth: 4, centrelineLength: 2 * (56 + 36) },
      {
        family: 'face-groove',
        shape: 'path',
        width: 4,
        depth: 4,
        centrelineLength: 2 * (52 + 32) + 4 * Math.PI,
      },
    ],
  },
  {
    name: 'channels',
    splitX: 31,
    body: () =>
      cutAll(box([0, 0, -20], [160, 100, 0]), [
        prism(bend(20, 6), 1, -5),
        prism(bow(80, 50, 25, 8), 1, -6),
        prism(bow(120, 50, 25, 8), 1, -26),
      ]),
    expected: [
      { family: 'channel', width: 6, depth: 5, centrelineLength: 40 + 10 * Math.PI, openEnds: 2, axis: UP },
      {
        family: 'channel',
        width: 8,
        depth: 6,
        centrelineLength: (50 * Math.PI) / 3,
        openEnds: 0,
        bottom: 'flat',
        at: [105, 50, 0],
      },
      {
        family: 'channel',
        width: 8,
        depth: 20,
        centrelineLength: (50 * Math.PI) / 3,
        openEnds: 0,
        bottom: 'open',
        at: [145, 50, 0],
      },
    ],
  },
  {
    name: 'bore grooves',
    splitX: 26,
    body: () =>
      cutAll(box([0, 0, -40], [120, 60, 0]), [
        turned(
          [
            [0, 12.5],
            [6, 12.5],
            [6, 14],
            [7.85, 14],
            [7.85, 12.5],
            [50, 12.5],
          ],
          [25, 30, 0],
          UP,
        ),
        turned(
          [
            [0, 10],
            [20, 10],
            [20, 11],
            [24, 11],
          ],
          [70, 30, 0],
          UP,
        ),
        turned(
          [
            [0, 10],
            [20, 10],
            [20, 11],
            [24, 11],
            [24, 6],
            [50, 6],
          ],
          [100, 30, 0],
          UP,
        ),
      ]),
    expected: [
      {
        family: 'hole',
        kind: 'through',
        depth: 40,
        stack: [{ shape: 'cylinder', diameter: 25, length: 40 }],
      },
      {
        family: 'hole',
        kind: 'blind',
        depth: 24,
        stack: [{ shape: 'cylinder', diameter: 20, length: 24 }],
        bottom: { shape: 'flat' },
      },
      { family: 'hole', kind: 'through', depth: 40, role: 'counterbored' },
      {
        family: 'bore-groove',
        centre: [25, 30, -6.925],
        boreDiameter: 25,
        grooveDiameter: 28,
        width: 1.85,
        axis: UP,
      },
      { family: 'bore-groove', centre: [70, 30, -22], boreDiameter: 20, grooveDiameter: 22, width: 4 },
      { family: 'bore-groove', centre: [100, 30, -22], boreDiameter: 20, grooveDiameter: 22, width: 4 },
    ],
  },
  {
    name: 'wall grooves',
    splitX: 33,
    body: () => {
      const block = box([0, 0, -40], [120, 80, 0]).cut(box([-1, -1, -20], [121, 4, -15])) as Shape3D;
      const pocketed = block
        .cut(prism(rectangle(50, 40, 8, 40, 45), 1, -30))
        .cut(prism(rectangle(56, 46, 11, 40, 45), -12, -17)) as Shape3D;
      const collar = prism(circle(16, 95, 40), 18, 14).cut(prism(circle(13, 95, 40), 19, 13)) as Shape3D;
      return pocketed.fuse(prism(circle(15, 95, 40), 30, 0).cut(collar)) as Shape3D;
    },
    expected: [
      {
        family: 'wall-groove',
        width: 4,
        depth: 2,
        loop: 'closed',
        length: 30 * Math.PI,
        side: 'outside',
        axis: UP,
      },
      {
        family: 'wall-groove',
        width: 5,
        depth: 3,
        loop: 'closed',
        length: 2 * (34 + 24) + 16 * Math.PI,
        side: 'inside',
        axis: UP,
      },
      { family: 'wall-groove', width: 5, depth: 4, loop: 'open', length: 120, side: 'outside', axis: UP },
    ],
  },
];
