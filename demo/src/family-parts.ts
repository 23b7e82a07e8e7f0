import { drawCircle, drawRoundedRectangle, type Drawing, type Shape3D } from 'replicad';
import type { FamilyName, FeatureOf } from '@yellow-pin/core/features/family';
import type { Frame } from '@yellow-pin/core/geometry/frame';
import type { Vec3 } from '@yellow-pin/core/geometry/vec';
import { asSplines } from './as-splines.ts';
import {
  box,
  capsule,
  cutAll,
  outline,
  prism,
  splitAt,
  stepText,
  straight,
  sunk,
  turned,
  type Plan,
} from './solids.ts';

export const UP: [number, number, number] = [0, 0, 1];
export const PLACE: Frame = {
  origin: [900, -400, 250],
  x: [0.8, -0.6, 0],
  y: [0.48, 0.64, -0.6],
  z: [0.36, 0.48, 0.8],
};
export const HOME: Frame = { origin: [0, 0, 0], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };

/** The ways in which files store one part: as modelled, cut in two, as splines, tilted in inches. */
export const WAYS = ['as modelled', 'faces split', 'as splines', 'tilted, in inches'] as const;
export type Way = (typeof WAYS)[number];

/** A part as STEP text, stored in one of the ways. */
export async function stored(body: Shape3D, way: Way, splitX: number): Promise<string> {
  let shape = body.clone() as Shape3D;
  if (way === 'faces split') shape = await splitAt(shape, splitX);
  // About an axis and angle that carry the file's axes to those of PLACE.
  if (way === 'tilted, in inches') shape = tilted(shape);
  const text = await stepText([shape], 'fixture', way === 'tilted, in inches' ? 'INCH' : 'MM');
  return way === 'as splines' ? asSplines(text) : text;
}

function tilted(shape: Shape3D): Shape3D {
  const { x, y, z } = PLACE;
  const angle = Math.acos((x[0] + y[1] + z[2] - 1) / 2);
  const axis: Vec3 = [y[2] - z[1], z[0] - x[2], x[1] - y[0]];
  return shape.rotate((angle * 180) / Math.PI, [0, 0, 0], axis).translate(PLACE.origin) as Shape3D;
}

export type Expected = { [N in FamilyName]: Partial<FeatureOf<N>> & { family: N } }[FamilyName];

/** A part with features of a family or two, and what is to be found in it. */
export interface Fixture {
  name: string;
  body(): Shape3D;
  expected: Expected[];
  splitX: number;
}

export const rectangle = (w: number, d: number, r: number, x: number, y: number): Drawing =>
  drawRoundedRectangle(w, d, r).translate(x, y) as Drawing;
export const circle = (r: number, x: number, y: number): Drawing => drawCircle(r).translate(x, y) as Drawing;
export const ring = (outer: Drawing, inner: Drawing, depth: number): Shape3D =>
  prism(outer, 1, -depth).cut(prism(inner, 2, -depth - 1)) as Shape3D;
const around = (x: number, y: number, r: number, deg: number): Plan => [
  x + r * Math.cos((deg * Math.PI) / 180),
  y + r * Math.sin((deg * Math.PI) / 180),
];

/** An arc-shaped slot of 120° with round ends. */
export function bow(x: number, y: number, radius: number, width: number): Drawing {
  const [i, o] = [radius - width / 2, radius + width / 2];
  const end = (deg: number, out: number): Plan => {
    const [cx, cy] = around(x, y, radius, deg);
    return [
      cx + (width / 2) * Math.cos(((deg + out) * Math.PI) / 180),
      cy + (width / 2) * Math.sin(((deg + out) * Math.PI) / 180),
    ];
  };
  return outline(
    around(x, y, o, -60),
    { via: around(x, y, o, 0), to: around(x, y, o, 60) },
    { via: end(60, 90), to: around(x, y, i, 60) },
    { via: around(x, y, i, 0), to: around(x, y, i, -60) },
    { via: end(-60, -90), to: around(x, y, o, -60) },
  );
}

/** A quarter bend of centre radius `r` from the left side to the front. */
export const bend = (r: number, w: number): Drawing =>
  outline(
    [-5, 20 + r - w / 2],
    [20, 20 + r - w / 2],
    { via: around(20, 20, r - w / 2, 45), to: [20 + r - w / 2, 20] },
    [20 + r - w / 2, -5],
    [20 + r + w / 2, -5],
    [20 + r + w / 2, 20],
    { via: around(20, 20, r + w / 2, 45), to: [20, 20 + r + w / 2] },
    [-5, 20 + r + w / 2],
  );

const chamfered = (body: Shape3D, size: number | object, where: object): Shape3D =>
  (body as unknown as { chamfer(s: unknown, f: unknown): Shape3D }).chamfer(size, (e: never) =>
    edgeFilter(e, where),
  );
const filleted = (body: Shape3D, radius: number, where: object): Shape3D =>
  (body as unknown as { fillet(s: unknown, f: unknown): Shape3D }).fillet(radius, (e: never) =>
    edgeFilter(e, where),
  );

/** `{ z }`: edges in that plane; `{ upright: true }`: along Z; `{ within }`: also inside a box; `{ at }`: through a point. */
function edgeFilter(
  finder: never,
  where: { z?: number; upright?: boolean; within?: [Vec3, Vec3]; at?: Vec3 },
): never {
  let f = finder as unknown as {
    inPlane(p: string, o: number): never;
    inDirection(d: string): never;
    inBox(a: Vec3, b: Vec3): never;
    containsPoint(p: Vec3): never;
  };
  if (where.z !== undefined) f = f.inPlane('XY', where.z) as never;
  if (where.upright) f = f.inDirection('Z') as never;
  if (where.within) f = f.inBox(...where.within) as never;
  if (where.at) f = f.containsPoint(where.at) as never;
  return f as never;
}

export const tee = (mouth: Drawing, head: Drawing): Shape3D[] => [prism(mouth, 1, -8), prism(head, -8, -16)];
export const tongue = (w: number, y: number): Drawing =>
  outline([-5, y - w / 2], [40, y - w / 2], { via: [40 + w / 2, y], to: [40, y + w / 2] }, [-5, y + w / 2]);
const lean = 10 / Math.tan(Math.PI / 3);

export const FIXTURES: Fixture[] = [
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
