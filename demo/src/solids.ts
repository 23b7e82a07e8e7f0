import {
  cast,
  draw,
  exportSTEP,
  makeBaseBox,
  setOC,
  type Drawing,
  type Shape3D,
  type Sketch,
} from 'replicad';
import { openCascade } from '@yellow-pin/kernel/opencascade';

export type Point = [number, number, number];

/** Half-section of a hole from its top at 0 downward: [depth, radius] pairs; depth counts down, mm. */
export type Profile = [number, number][];

/** Prepares the modelling functions; must be awaited once. */
export async function prepare(): Promise<void> {
  setOC(await openCascade());
}

/** A box from `min` to `max`. */
export function box(min: Point, max: Point): Shape3D {
  return makeBaseBox(max[0] - min[0], max[1] - min[1], max[2] - min[2]).translate(
    (min[0] + max[0]) / 2,
    (min[1] + max[1]) / 2,
    min[2],
  ) as unknown as Shape3D;
}

/** How far a cutting body stands out above the face it enters. */
const ABOVE = 5;

/** The solid of revolution of a profile, entry at `at`, standing along `axis` (out of the material). */
export function turned(profile: Profile, at: Point, axis: Point, above = ABOVE): Shape3D {
  const first = profile[0]!;
  let pen = draw([0, above]).lineTo([first[1], above]);
  if (above !== -first[0]) pen = pen.lineTo([first[1], -first[0]]);
  for (const [depth, radius] of profile.slice(1)) pen = pen.lineTo([radius, -depth]);
  const last = profile[profile.length - 1]!;
  if (last[1] > 1e-9) pen = pen.lineTo([0, -last[0]]);
  const body = pen.close().sketchOnPlane('XZ').revolve() as unknown as Shape3D;
  return stand(body, axis).translate(at) as Shape3D;
}

/** Turns a body made along +Z so that it stands along `axis`. */
function stand(body: Shape3D, axis: Point): Shape3D {
  const [x, y, z] = axis;
  const l = Math.hypot(x, y, z);
  const angle = (Math.acos(z / l) * 180) / Math.PI;
  if (angle < 1e-9) return body;
  const about: Point = Math.hypot(x, y) < 1e-12 ? [1, 0, 0] : [-y, x, 0];
  return body.rotate(angle, [0, 0, 0], about) as Shape3D;
}

const tip = (radius: number, angleDeg: number): number => radius / Math.tan((angleDeg * Math.PI) / 360);

/** A drilled blind hole: full diameter to `depth`, then the drill's point. */
export const blind = (diameter: number, depth: number, angleDeg = 118): Profile => [
  [0, diameter / 2],
  [depth, diameter / 2],
  [depth + tip(diameter / 2, angleDeg), 0],
];

/** A straight hole with a flat end. */
export const straight = (diameter: number, depth: number): Profile => [
  [0, diameter / 2],
  [depth, diameter / 2],
];

/** A chamfer or countersink on top of another profile. */
export function sunk(profile: Profile, rimDiameter: number, angleDeg = 90): Profile {
  const r = profile[0]![1];
  const depth = tip(rimDiameter / 2, angleDeg) - tip(r, angleDeg);
  return [[0, rimDiameter / 2], [depth, r], ...profile.slice(1)];
}

/** A flat-bottomed counterbore on top of another profile. */
export const counterbored = (profile: Profile, diameter: number, depth: number): Profile => [
  [0, diameter / 2],
  [depth, diameter / 2],
  [depth, profile[0]![1]],
  ...profile.slice(1),
];

/** Cuts many bodies from one, in a single operation where that works. */
export function cutAll(body: Shape3D, tools: Shape3D[]): Shape3D {
  return tools.reduce((b, t) => b.cut(t) as Shape3D, body);
}

/** STEP text of bodies. */
export async function stepText(bodies: Shape3D[], name: string, unit: 'MM' | 'INCH' = 'MM'): Promise<string> {
  const blob = exportSTEP(
    bodies.map((shape, i) => ({ shape, name: bodies.length > 1 ? `${name} ${i + 1}` : name })),
    { unit, modelUnit: 'MM' },
  );
  return neutralHeader(await blob.text());
}

/** The writer puts its own name and the time of day into the header: made-up, fixed values keep the files the same from run to run. */
const neutralHeader = (text: string): string =>
  text
    .replace(/FILE_DESCRIPTION\([\s\S]*?\);/, "FILE_DESCRIPTION((''),'2;1');")
    .replace(/FILE_NAME\([\s\S]*?\);/, "FILE_NAME('part','2026-01-01T00:00:00',(''),(''),'','','');");

export type Plan = [number, number];

/** A closed outline: lines to points, and arcs `{ via, to }` through a point between. */
export function outline(start: Plan, ...steps: (Plan | { via: Plan; to: Plan })[]): Drawing {
  let pen = draw(start);
  for (const s of steps) pen = Array.isArray(s) ? pen.lineTo(s) : pen.threePointsArcTo(s.to, s.via);
  return pen.close();
}

/** Two half rounds joined by lines, `length` over all, along X about `centre`; turned by `angleDeg`. */
export function capsule(length: number, width: number, [x, y]: Plan, angleDeg = 0): Drawing {
  const [a, r] = [(length - width) / 2, width / 2];
  return outline([-a, -r], [a, -r], { via: [a + r, 0], to: [a, r] }, [-a, r], {
    via: [-a - r, 0],
    to: [-a, -r],
  })
    .rotate(angleDeg, [0, 0])
    .translate(x, y) as Drawing;
}

/** The body over an outline from `top` down to `bottom`. */
export const prism = (shape: Drawing, top: number, bottom: number): Shape3D =>
  (shape.sketchOnPlane('XY', [0, 0, bottom]) as Sketch).extrude(top - bottom) as unknown as Shape3D;

/** The same body with its faces cut in two along X = `at`, as some systems write them. */
export async function splitAt(body: Shape3D, at: number): Promise<Shape3D> {
  const oc = await openCascade();
  const big = 1e4;
  const half = (from: number, to: number) =>
    body.clone().intersect(box([from, -big, -big], [to, big, big])) as Shape3D;
  return cast(new oc.BRepAlgoAPI_Fuse(half(-big, at).wrapped, half(at, big).wrapped).Shape()) as Shape3D;
}
