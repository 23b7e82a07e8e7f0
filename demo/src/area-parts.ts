import type { Shape3D } from 'replicad';
import { circle, filleted, rectangle } from './cut-shapes.ts';
import { UP, type Fixture } from './stored-parts.ts';
import { box, capsule, cutAll, outline, prism, straight, turned } from './solids.ts';

const DOWN: [number, number, number] = [0, 0, -1];
/** A plate of 170 by 110 by 32, its corners rounded. */
const plate = (): Shape3D => prism(rectangle(170, 110, 9, 85, 55), 0, -32);

/** Parts with pockets, steps, outlines and faces, and what is to be found in them. */
export const AREA_FIXTURES: Fixture[] = [
  {
    // Round: whatever cuts into it, its outline is as wide as the whole.
    name: 'a disc with a flat',
    splitX: 11,
    body: () =>
      cutAll(prism(circle(50, 0, 0), 0, -20), [
        prism(rectangle(36, 20, 4.2, 0, -15), 1, -11),
        prism(rectangle(120, 16, 3, 0, 52), 1, -6),
      ]),
    expected: [
      { family: 'pocket', axis: UP, depth: 11, cornerRadius: 4.2, length: 36, width: 20 },
      { family: 'outline', height: 20, length: 2 * Math.PI * 50, cornerRadius: null },
      { family: 'step', axis: UP, depth: 6, walls: 1 },
      { family: 'face', axis: UP },
      { family: 'face', axis: DOWN },
    ],
  },
  {
    name: 'a pocket with a fillet at its foot',
    splitX: 31,
    body: () =>
      filleted(
        cutAll(prism(rectangle(100, 70, 8, 50, 35), 0, -22), [prism(rectangle(70, 44, 8.2, 50, 35), 1, -12)]),
        2,
        { z: -12 },
      ),
    expected: [
      {
        family: 'pocket',
        axis: UP,
        bottom: 'flat',
        depth: 12,
        cornerRadius: 8.2,
        floorRadius: 2,
      },
      { family: 'outline', height: 22, cornerRadius: null },
      { family: 'face', axis: UP },
      { family: 'face', axis: DOWN },
    ],
  },
  {
    name: 'pockets',
    splitX: 41,
    body: () => {
      const island = prism(rectangle(14, 10, 2, 52, 36), -11, -3.5);
      const deep = prism(rectangle(26, 21, 5.5, 28, 42), -10, -19.3);
      return (
        cutAll(plate(), [
          prism(rectangle(70, 44, 6.2, 48, 38), 1, -11),
          prism(rectangle(36, 28, 4, 130, 80), 1, -40),
          turned(straight(9, 40), [130, 30, 0], UP),
          prism(capsule(30, 8, [60, 90]), 1, -6),
        ]).fuse(island) as Shape3D
      ).cut(deep) as Shape3D;
    },
    expected: [
      {
        family: 'pocket',
        axis: UP,
        bottom: 'flat',
        depth: 11,
        cornerRadius: 6.2,
        floorRadius: 0,
        length: 70,
        width: 44,
        islands: 1,
      },
      {
        family: 'pocket',
        axis: UP,
        bottom: 'flat',
        depth: 8.3,
        cornerRadius: 5.5,
        length: 26,
        width: 21,
        islands: 0,
      },
      { family: 'pocket', bottom: 'open', depth: 32, cornerRadius: 4, length: 36, width: 28, islands: 0 },
      {
        family: 'outline',
        height: 32,
        length: 2 * (170 + 110) - 8 * 9 + 2 * Math.PI * 9,
        cornerRadius: null,
      },
      { family: 'face', axis: UP, length: 170, width: 110 },
      // The island's top lies lower, with nothing that rises from it.
      { family: 'face', axis: UP, length: 14, width: 10 },
      { family: 'face', axis: DOWN, length: 170, width: 110 },
    ],
  },
  {
    name: 'steps',
    splitX: 37,
    body: () =>
      cutAll(box([0, 0, -40], [150, 90, 0]), [
        box([-1, -1, -7], [32, 91, 1]),
        box([-1, -1, -15.5], [18, 91, 0]),
        prism(outline([110, 60], [151, 60], [151, 91], [110, 91]), 1, -12),
        prism(rectangle(40, 60, 8, 84, 0), 1, -9),
      ]),
    expected: [
      { family: 'step', axis: UP, depth: 7, walls: 1, cornerRadius: null },
      { family: 'step', axis: UP, depth: 8.5, walls: 1, cornerRadius: null },
      { family: 'step', axis: UP, depth: 12, walls: 2, cornerRadius: 0 },
      { family: 'step', axis: UP, depth: 9, walls: 3, cornerRadius: 8 },
      { family: 'outline', length: 480, height: 40, cornerRadius: null },
      { family: 'face', axis: UP, length: 118, width: 90 },
      { family: 'face', axis: DOWN, length: 150, width: 90 },
    ],
  },
  {
    name: 'a flange, and a notch in its outline',
    splitX: 60,
    body: () =>
      (prism(circle(50, 60, 60), 0, -14) as Shape3D)
        .fuse(prism(rectangle(44, 36, 3, 60, 60), 21, 0))
        .cut(prism(rectangle(24, 40, 7, 60, 4), 30, -20)) as Shape3D,
    expected: [
      { family: 'step', axis: UP, depth: 21, walls: 4, cornerRadius: null },
      { family: 'outline', height: 14, cornerRadius: 7 },
      { family: 'face', axis: UP, length: 44, width: 36 },
      { family: 'face', axis: DOWN, length: 100 },
    ],
  },
];
