import type { Shape3D } from 'replicad';
import { blind, box, counterbored, cutAll, straight, sunk, turned, type Point } from './solids.ts';

const UP: Point = [0, 0, 1];

/** Manifold block TW-114: ports on four sides, holes at three levels, two that cross, one broken by a slot. */
export function manifoldBlock(): Shape3D {
  const [w, d, h] = [150, 110, 76];
  let body = box([0, 0, -h], [w, d, 0]);
  // Two terraces: -10 on the right, -18 at the back right.
  body = body.cut(box([110, -1, -10], [w + 1, d + 1, 1])) as Shape3D;
  body = body.cut(box([110, 70, -18], [w + 1, d + 1, 1])) as Shape3D;
  const tools: Shape3D[] = [];
  const top = (x: number, y: number, z: number, profile: Parameters<typeof turned>[0], above?: number) => tools.push(turned(profile, [x, y, z], UP, above));
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
  tools.push(turned(blind(8.5, 26), [40, d, -60], [0, 1, 0]));
  tools.push(turned(blind(8.5, 26), [110, d, -60], [0, 1, 0]));
  body = cutAll(body, tools);
  // A slot through the right terrace that breaks the hole at its side.
  return body.cut(box([126, 55.5, -16], [w + 1, 61.5, 1])).cut(turned(blind(7, 24), [136, 58.5, -10], UP)) as Shape3D;
}

/** Adapter plate TW-207, drawn in inches; returned in millimetres. */
export function adapterPlate(): Shape3D {
  const inch = 25.4;
  const [w, d, t] = [6 * inch, 4 * inch, 0.75 * inch];
  const body = box([0, 0, -t], [w, d, 0]);
  const tools: Shape3D[] = [];
  const at = (x: number, y: number, profile: Parameters<typeof turned>[0]) => tools.push(turned(profile, [x * inch, y * inch, 0], UP));
  for (const x of [0.5, 5.5]) for (const y of [0.5, 2, 3.5]) at(x, y, straight(0.201 * inch, t + 2));
  for (const x of [1.5, 4.5]) for (const y of [0.75, 3.25]) at(x, y, counterbored(straight(0.281 * inch, t + 2), 0.4375 * inch, 0.25 * inch));
  for (let i = 0; i < 8; i++) {
    const a = (i * Math.PI) / 4 + Math.PI / 8;
    at(3 + 1.1 * Math.cos(a), 2 + 1.1 * Math.sin(a), blind(0.159 * inch, 0.5 * inch));
  }
  at(3, 2, straight(1 * inch, t + 2));
  for (const x of [2, 4]) at(x, 0.4, straight(0.25 * inch, t + 2));
  return cutAll(body, tools);
}
