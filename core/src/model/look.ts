import { distance, dot, normalize, sub, type Vec3 } from '../geometry/vec.ts';
import type { Face, SolidModel } from './solid-model.ts';
import { outwardNormal } from './surface.ts';

/** What is at a point that was pointed at on a part. */
export interface Look {
  point: Vec3;
  face: number;
  /** Away from the material, at the point. */
  normal: Vec3;
  isPlane: boolean;
  /** Axis, origin and radius of a round face, and how far it reaches along the axis from the origin. */
  round: { axis: Vec3; origin: Vec3; radius: number; hollow: boolean; low: number; high: number } | null;
  /** The nearest edge of the face. */
  edge: {
    edge: number;
    away: number;
    length: number;
    middle: Vec3;
    direction: Vec3 | null;
    centre: Vec3 | null;
  } | null;
  /** The nearest end of an edge. */
  vertex: { point: Vec3; away: number } | null;
}

/** Looks at a face of the model at a point: its normal, its nearest edge and corner. */
export function lookAt(model: SolidModel, face: number, point: Vec3): Look | null {
  const f = model.faces[face];
  if (!f) return null;
  const s = f.surface;
  let edge: Look['edge'] = null;
  let vertex: Look['vertex'] = null;
  for (const index of new Set(f.loops.flat().map((l) => l.edge))) {
    const e = model.edges[index]!;
    let [away, length] = [Infinity, 0];
    for (let i = 1; i < e.points.length; i++) {
      away = Math.min(away, toSegment(point, e.points[i - 1]!, e.points[i]!));
      length += distance(e.points[i - 1]!, e.points[i]!);
    }
    const [first, last] = [e.points[0]!, e.points[e.points.length - 1]!];
    if (e.convexity !== 'seam' && (!edge || away < edge.away)) {
      const middle =
        e.points.length === 2
          ? ([0, 1, 2].map((i) => (first[i]! + last[i]!) / 2) as Vec3)
          : e.points[Math.floor(e.points.length / 2)]!;
      edge = {
        edge: index,
        away,
        length,
        middle,
        direction: e.curve.kind === 'line' ? normalize(sub(last, first)) : null,
        centre: e.curve.kind === 'circle' ? e.curve.centre : null,
      };
    }
    for (const p of [first, last])
      if (!vertex || distance(p, point) < vertex.away) vertex = { point: p, away: distance(p, point) };
  }
  return {
    point,
    face,
    normal: outwardNormal(f, point),
    isPlane: s.kind === 'plane',
    round:
      s.kind === 'cylinder'
        ? {
            axis: s.axis,
            origin: s.origin,
            radius: s.radius,
            hollow: f.reversed,
            ...reach(model, f, s.axis, s.origin),
          }
        : null,
    edge,
    vertex,
  };
}

function reach(model: SolidModel, f: Face, axis: Vec3, origin: Vec3): { low: number; high: number } {
  const heights = f.loops
    .flat()
    .flatMap((l) => model.edges[l.edge]!.points.map((p) => dot(sub(p, origin), axis)));
  return { low: Math.min(...heights), high: Math.max(...heights) };
}

function toSegment(p: Vec3, a: Vec3, b: Vec3): number {
  const d = sub(b, a);
  const l = dot(d, d);
  const k = l > 0 ? Math.max(0, Math.min(1, dot(sub(p, a), d) / l)) : 0;
  return distance(p, [a[0] + k * d[0], a[1] + k * d[1], a[2] + k * d[2]]);
}
