import { along, cross, normalize, type Vec3 } from '../geometry/vec.ts';
import { boundsOf, type Edge, type Face, type SolidModel } from '../model/solid-model.ts';

/** An edge by itself: what curve it is, and its samples. */
export type BareEdge = Pick<Edge, 'curve' | 'points'>;

/** A model of one open face: what is about a surface alone is tested on it. */
export function oneFace(
  { surface, loops, reversed = false }: Pick<Face, 'surface' | 'loops'> & { reversed?: boolean },
  edges: readonly BareEdge[],
): { model: SolidModel; face: Face } {
  const face: Face = { solid: 0, surface, reversed, loops };
  const model: SolidModel = {
    format: 'yellow-pin/solid-model@1',
    name: 'one face',
    sourceUnits: 'mm',
    solids: [{ name: 'one face', closed: false }],
    faces: [face],
    edges: edges.map((e) => ({ ...e, faces: [0], convexity: 'open', angle: 0 })),
    bounds: boundsOf(edges.flatMap((e) => e.points)),
    notes: [],
  };
  return { model, face };
}

/** A whole circle with so many samples, counter-clockwise about its axis from an angle on; 0 is where `x` points. */
export function circleEdge(
  centre: Vec3,
  axis: Vec3,
  radius: number,
  { n = 72, x = [1, 0, 0] as Vec3, from = 0 } = {},
): BareEdge {
  const y = cross(axis, normalize(x));
  const points = Array.from({ length: n + 1 }, (_, i): Vec3 => {
    const a = from + (2 * Math.PI * (i % n)) / n;
    return along(along(centre, x, radius * Math.cos(a)), y, radius * Math.sin(a));
  });
  return { curve: { kind: 'circle', centre, axis, radius }, points };
}
