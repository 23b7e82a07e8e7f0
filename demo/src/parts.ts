import { drawCircle, drawRoundedRectangle, type Drawing, type Shape3D } from 'replicad';
import {
  blind,
  box,
  capsule,
  counterbored,
  cutAll,
  outline,
  prism,
  straight,
  sunk,
  turned,
  type Plan,
  type Point,
} from './solids.ts';

const UP: Point = [0, 0, 1];

/** Manifold block TW-114: ports on four sides, holes at three levels, two that cross, one broken by a slot. */
export function manifoldBlock(): Shape3D {
  const [w, d, h] = [150, 110, 76];
  let body = box([0, 0, -h], [w, d, 0]);
  // Two terraces: -10 on the right, -18 at the back right.
  body = body.cut(box([110, -1, -10], [w + 1, d + 1, 1])) as Shape3D;
  body = body.cut(box([110, 70, -18], [w + 1, d + 1, 1])) as Shape3D;
  const tools: Shape3D[] = [];
  const top = (x: number, y: number, z: number, profile: Parameters<typeof turned>[0], above?: number) =>
    tools.push(turned(profile, [x, y, z], UP, above));
  // M8 tap drill, three levels, with a modelled entry chamfer.
  for (const [x, y, z] of [
    [15, 15, 0],
    [15, 55, 0],
    [15, 95, 0],
    [130, 15, -10],
    [130, 40, -10],
    [130, 90, -18],
  ] as Point[]) {
    top(x, y, z, sunk(blind(6.8, 22.25), 8.6));
  }
  // M5 tap drill round a port.
  for (let i = 0; i < 6; i++) {
    const a = (i * Math.PI) / 3;
    top(60 + 22 * Math.cos(a), 55 + 22 * Math.sin(a), 0, blind(4.2, 14));
  }
  // Counterbored through holes for the base screws.
  for (const [x, y] of [
    [35, 12],
    [95, 12],
    [35, 98],
    [95, 98],
  ] as const)
    top(x, y, 0, counterbored(straight(6.6, h + 2), 11, 6.8));
  // Countersunk through holes.
  for (const [x, y] of [
    [88, 40],
    [88, 70],
  ] as const)
    top(x, y, 0, sunk(straight(5.5, h + 2), 10.4));
  // The main bore, stepped, blind; crossed by the left port.
  top(60, 55, 0, [
    [0, 11],
    [12, 11],
    [12, 8],
    [40, 8],
    [40 + 8 / Math.tan((59 * Math.PI) / 180), 0],
  ]);
  // Dowel holes, reamed size, flat bottom.
  top(25, 30, 0, straight(6, 12));
  top(103, 85, 0, straight(6, 12));
  // Side ports: left (crosses the main bore), right, front, back.
  tools.push(turned(blind(9, 52), [0, 55, -30], [-1, 0, 0]));
  tools.push(turned(blind(6.8, 20), [w, 55, -48], [1, 0, 0]));
  tools.push(turned(counterbored(blind(8.5, 26), 16, 2), [75, 0, -55], [0, -1, 0]));
  tools.push(turned(blind(8.4, 26), [40, d, -60], [0, 1, 0]));
  tools.push(turned(blind(8.4, 26), [110, d, -60], [0, 1, 0]));
  body = cutAll(body, tools);
  // A slot through the right terrace that breaks the hole at its side.
  return body
    .cut(box([126, 55.5, -16], [w + 1, 61.5, 1]))
    .cut(turned(blind(7, 24), [136, 58.5, -10], UP)) as Shape3D;
}

/** Vent cap TW-183: a boss with an outside thread, a quick thread of two starts through it, screw holes round both. */
export function ventCap(): Shape3D {
  const [w, t] = [84, 24];
  const boss = turned(
    [
      [0, 19],
      [1, 20],
      [21, 20],
    ],
    [w / 2, w / 2, 20],
    UP,
    0,
  );
  const body = prism(rounded(w, w, 12, [w / 2, w / 2]), 0, -t).fuse(boss) as Shape3D;
  const tools = [turned(sunk(straight(22, t + 22), 25), [w / 2, w / 2, 20], UP)];
  for (const x of [12, w - 12])
    for (const y of [12, w - 12])
      tools.push(turned(counterbored(straight(6.6, t + 2), 11, 6.8), [x, y, 0], UP));
  return cutAll(body, tools);
}

/** Adapter plate TW-207, drawn in inches; returned in millimetres. */
export function adapterPlate(): Shape3D {
  const inch = 25.4;
  const [w, d, t] = [6 * inch, 4 * inch, 0.75 * inch];
  const body = box([0, 0, -t], [w, d, 0]);
  const tools: Shape3D[] = [];
  const at = (x: number, y: number, profile: Parameters<typeof turned>[0]) =>
    tools.push(turned(profile, [x * inch, y * inch, 0], UP));
  for (const x of [0.5, 5.5]) for (const y of [0.5, 2, 3.5]) at(x, y, straight(0.201 * inch, t + 2));
  for (const x of [1.5, 4.5])
    for (const y of [0.75, 3.25])
      at(x, y, counterbored(straight(0.281 * inch, t + 2), 0.4375 * inch, 0.25 * inch));
  for (let i = 0; i < 8; i++) {
    const a = (i * Math.PI) / 4 + Math.PI / 8;
    at(3 + 1.1 * Math.cos(a), 2 + 1.1 * Math.sin(a), blind(0.159 * inch, 0.5 * inch));
  }
  at(3, 2, straight(1 * inch, t + 2));
  for (const x of [2, 4]) at(x, 0.4, straight(0.25 * inch, t + 2));
  return cutAll(body, tools);
}

const ring = (outer: Drawing, inner: Drawing, depth: number): Shape3D =>
  prism(outer, 1, -depth).cut(prism(inner, 2, -depth - 1)) as Shape3D;
const rounded = (w: number, d: number, r: number, [x, y]: Plan): Drawing =>
  drawRoundedRectangle(w, d, r).translate(x, y) as Drawing;
const disc = (diameter: number, [x, y]: Plan): Drawing => drawCircle(diameter / 2).translate(x, y) as Drawing;

type Finder = { inPlane(plane: string, at: number): Finder; inBox(a: Point, b: Point): Finder };
type Breakable = {
  chamfer(size: number, which: (e: Finder) => Finder): Shape3D;
  fillet(radius: number, which: (e: Finder) => Finder): Shape3D;
};
const breakable = (body: Shape3D): Breakable => body as unknown as Breakable;

/** Hatch cover TW-131: gasket groove like a racetrack, ring groove, countersunk holes, all rims of the top chamfered. */
export function hatchCover(): Shape3D {
  const [w, d, t] = [180, 120, 14];
  const plate = breakable(prism(rounded(w, d, 18, [w / 2, d / 2]), 0, -t)).chamfer(1.5, (e) =>
    e.inPlane('XY', 0),
  );
  const window = breakable(plate.cut(prism(capsule(48, 26, [w / 2, d / 2]), 1, -t - 1)) as Shape3D).chamfer(
    1,
    (e) => e.inPlane('XY', 0).inBox([60, 40, -1], [120, 80, 1]),
  );
  const tools: Shape3D[] = [
    ring(capsule(126, 78, [w / 2, d / 2]), capsule(116, 68, [w / 2, d / 2]), 3.6),
    ring(disc(22, [150, 20]), disc(16, [150, 20]), 2),
  ];
  for (const [x, y] of [
    [14, 30],
    [14, 90],
    [60, 10],
    [120, 110],
    [60, 110],
    [120, 10],
    [166, 60],
  ] as Plan[]) {
    tools.push(turned(sunk(straight(5.5, t + 2), 10.4), [x, y, 0], UP));
  }
  tools.push(turned(straight(8, t + 2), [150, 20, 0], UP));
  return cutAll(window, tools);
}

/** Mooring rail TW-152: T-slot from end to end, dovetail key way across, slots through and open, a groove in the front wall. */
export function mooringRail(): Shape3D {
  const [w, d, h] = [240, 60, 40];
  const lean = 7 / Math.tan(Math.PI / 3);
  const dovetail = prism(outline([-9, 0], [9, 0], [9 + lean, -7], [-9 - lean, -7]), d + 2, -1)
    .rotate(90, [0, 0, 0], [1, 0, 0])
    .translate(200, d + 1, 0) as Shape3D;
  const tongue = outline([-1, 24], [150, 24], { via: [156, 30], to: [150, 36] }, [-1, 36]);
  const head = outline([-1, 19.5], [150, 19.5], { via: [160.5, 30], to: [150, 40.5] }, [-1, 40.5]);
  const tools: Shape3D[] = [
    prism(tongue, 1, -9),
    prism(head, -9, -17),
    dovetail,
    box([-1, -1, -32], [w + 1, 5, -27]),
  ];
  for (const x of [30, 90]) for (const y of [9, 51]) tools.push(prism(capsule(20, 7, [x, y]), 1, -h - 1));
  tools.push(prism(outline([w + 1, 25], [222, 25], { via: [217, 30], to: [222, 35] }, [w + 1, 35]), 1, -12));
  for (const x of [60, 120])
    for (const y of [9, 51]) tools.push(turned(counterbored(straight(6.6, h + 2), 11, 6.8), [x, y, 0], UP));
  return cutAll(box([0, 0, -h], [w, d, 0]), tools);
}

/** Sensor carrier TW-168, made in two setups: bearing bores with grooves, a big fine thread bore, rounded edges on top. */
export function sensorCarrier(): Shape3D {
  const [w, d, h] = [120, 90, 46];
  const body = breakable(prism(rounded(w, d, 10, [w / 2, d / 2]), 0, -h)).fillet(3, (e) =>
    e.inPlane('XY', 0),
  );
  const tools: Shape3D[] = [
    // From above: seat for the sensor with a retaining-ring groove, bore of M48x1.5 below it.
    turned(
      [
        [0, 27.5],
        [16, 27.5],
        [16, 23.25],
        [h + 1, 23.25],
      ],
      [45, 45, 0],
      UP,
    ),
    turned(
      [
        [12, 29.25],
        [14.15, 29.25],
      ],
      [45, 45, 0],
      UP,
      -12,
    ),
    turned(blind(6.8, 20), [100, 20, 0], UP),
    turned(blind(6.8, 20), [100, 70, 0], UP),
    prism(capsule(34, 9, [100, 45], 90), 1, -11),
    // From below: bearing seat with its seal groove, screw holes and a ring groove round them all.
    turned(
      [
        [0, 15],
        [14, 15],
      ],
      [100, 45, -h],
      [0, 0, -1],
    ),
    turned(
      [
        [5, 17],
        [8.2, 17],
      ],
      [100, 45, -h],
      [0, 0, -1],
      -5,
    ),
    prism(disc(72, [45, 45]), -h + 2.4, -h - 1).cut(prism(disc(65, [45, 45]), -h + 4, -h - 2)) as Shape3D,
  ];
  for (let i = 0; i < 4; i++) {
    const a = Math.PI / 4 + (i * Math.PI) / 2;
    tools.push(turned(blind(4.2, 12), [45 + 39 * Math.cos(a), 45 + 39 * Math.sin(a), -h], [0, 0, -1]));
  }
  return cutAll(body, tools);
}
