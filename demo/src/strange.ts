import { drawCircle, makeSphere, type Shape3D } from 'replicad';
import {
  blind,
  box,
  capsule,
  counterbored,
  cutAll,
  prism,
  straight,
  sunk,
  turned,
  type Point,
} from './solids.ts';

/** A part that nobody made for a test of one thing: odd sizes, odd places, odd ways to stand. */
export interface Strange {
  name: string;
  unit: 'MM' | 'INCH';
  bodies(): Shape3D[];
}

const UP: Point = [0, 0, 1];
const at = (body: Shape3D, holes: [Point, ReturnType<typeof blind>, Point?][]): Shape3D =>
  cutAll(
    body,
    holes.map(([p, profile, axis = UP]) => turned(profile, p, axis)),
  );

/** Eleven parts unlike the samples: what a stranger drops on the list. */
export const STRANGE: readonly Strange[] = [
  {
    name: 'odd drill sizes',
    unit: 'MM',
    bodies: () => [
      at(box([0, 0, -18], [90, 60, 0]), [
        [[15, 15, 0], blind(7.35, 12)],
        [[40, 15, 0], blind(3.17, 9)],
        [[65, 40, 0], straight(11.3, 30)],
      ]),
    ],
  },
  {
    name: 'block under its lid',
    unit: 'MM',
    bodies: () => [
      at(box([0, 0, -30], [80, 50, 0]), [
        [[20, 25, 0], blind(6.8, 18)],
        [[60, 25, 0], blind(6.8, 18)],
      ]),
      at(box([0, 0, 0], [80, 50, 12]), [
        [[20, 25, 12], straight(9, 13)],
        [[60, 25, 12], straight(9, 13)],
      ]),
    ],
  },
  {
    name: 'inch bracket',
    unit: 'INCH',
    bodies: () => [
      at(box([0, 0, -12.7], [101.6, 50.8, 0]), [
        [[12.7, 12.7, 0], straight(0.257 * 25.4, 14)],
        [[88.9, 12.7, 0], straight(0.257 * 25.4, 14)],
        [[50.8, 25.4, 0], counterbored(straight(0.4062 * 25.4, 14), 0.625 * 25.4, 9.9)],
      ]),
    ],
  },
  {
    name: 'tilted block',
    unit: 'MM',
    bodies: () => [
      at(box([0, 0, -40], [70, 45, 0]), [
        [[15, 15, 0], blind(8.5, 22)],
        [[55, 30, 0], sunk(blind(5, 16), 7)],
      ])
        .rotate(33, [0, 0, 0], [1, 0.3, 0])
        .rotate(17, [0, 0, 0], [0, 0, 1]) as Shape3D,
    ],
  },
  {
    name: 'deep gun-drilled bar',
    unit: 'MM',
    bodies: () => [at(box([0, 0, -280], [40, 40, 0]), [[[20, 20, 0], blind(6, 250)]])],
  },
  {
    name: 'nozzle plate',
    unit: 'MM',
    bodies: () => [
      at(
        box([0, 0, -3], [20, 20, 0]),
        [4, 8, 12, 16].map((x): [Point, ReturnType<typeof blind>] => [[x, 10, 0], straight(0.7, 4)]),
      ),
    ],
  },
  {
    name: 'fork with a hole inside',
    unit: 'MM',
    bodies: () => [
      at(box([0, 0, -60], [60, 40, 0]).cut(box([20, -1, -45], [40, 41, 1])) as Shape3D, [
        // From inside one cheek into it, too near the other for any tool from there.
        [[20, 20, -25], blind(5, 8), [1, 0, 0]],
      ]),
    ],
  },
  {
    name: 'flange with radial ports',
    unit: 'MM',
    bodies: () => {
      const ring = prism(drawCircle(50).cut(drawCircle(22)), 0, -24);
      const bolts = Array.from({ length: 6 }, (_, i) => (i * Math.PI) / 3).map(
        (a): [Point, ReturnType<typeof blind>] => [
          [38 * Math.cos(a), 38 * Math.sin(a), 0],
          straight(6.6, 26),
        ],
      );
      const side = Math.SQRT1_2;
      return [at(ring, [...bolts, [[50 * side, 50 * side, -12], blind(8.5, 12), [side, side, 0]]])];
    },
  },
  {
    name: 'slots and no holes',
    unit: 'MM',
    bodies: () => [
      box([0, 0, -20], [100, 60, 0])
        .cut(prism(capsule(50, 8, [50, 20]), 1, -6))
        .cut(prism(capsule(30, 12, [50, 42], 15), 1, -21)) as Shape3D,
    ],
  },
  {
    name: 'large bore',
    unit: 'MM',
    bodies: () => [at(box([0, 0, -50], [120, 120, 0]), [[[60, 60, 0], straight(62, 52)]])],
  },
  {
    name: 'ball seat and a lone countersink',
    unit: 'MM',
    bodies: () => [
      at(box([0, 0, -25], [60, 40, 0]).cut(makeSphere(9).translate([42, 20, 0]) as Shape3D) as Shape3D, [
        [
          [16, 20, 0],
          [
            [0, 6],
            [6, 0],
          ],
        ],
      ]),
    ],
  },
];
