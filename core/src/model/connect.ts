import { cross, dot, normalize, scale, sub, type Vec3 } from '../geometry/vec.ts';
import type { Convexity, Edge, Face, SolidModel } from './solid-model.ts';
import { outwardNormal } from './surface.ts';

/** Below this angle between outward normals two faces meet smoothly, radians. */
export const SMOOTH_ANGLE = 0.009;

/** Fills in each edge's faces, convexity and angle from the faces' loops. Changes the model in place. */
export function connect(model: SolidModel): void {
  const uses = model.edges.map((): { face: number; reversed: boolean }[] => []);
  model.faces.forEach((face, i) => {
    for (const loop of face.loops)
      for (const { edge, reversed } of loop) uses[edge]!.push({ face: i, reversed });
  });
  model.edges.forEach((edge, i) => {
    const list = uses[i]!;
    const [a, b] = list;
    edge.faces =
      a && b && list.length === 2 && a.face !== b.face
        ? [a.face, b.face]
        : [...new Set(list.map((u) => u.face))];
    if (!a || !b) [edge.convexity, edge.angle] = ['open', 0];
    else if (a.face === b.face) [edge.convexity, edge.angle] = ['seam', 0];
    else [edge.convexity, edge.angle] = fold(model.faces[a.face]!, a.reversed, model.faces[b.face]!, edge);
  });
}

/** Convexity and angle of an edge between `a` (which runs it `reversed` or not) and `b`, judged at its middle. */
function fold(a: Face, reversed: boolean, b: Face, edge: Edge): [Convexity, number] {
  const { points } = edge;
  const k = Math.max(1, Math.floor(points.length / 2));
  const [p, q] = [points[k - 1]!, points[k]!];
  // A two-point edge is straight: its middle lies on it. Otherwise a sample is exact where a chord's middle is not.
  const at: Vec3 = points.length === 2 ? [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2, (p[2] + q[2]) / 2] : q;
  const next = points[k + 1];
  const tangent = normalize(points.length === 2 || !next ? sub(q, p) : sub(next, p));
  const na = outwardNormal(a, at);
  const nb = outwardNormal(b, at);
  const angle = Math.acos(Math.max(-1, Math.min(1, dot(na, nb))));
  if (angle < SMOOTH_ANGLE) return ['smooth', angle];
  const inward = cross(na, scale(tangent, reversed ? -1 : 1));
  return [dot(nb, inward) < 0 ? 'convex' : 'concave', angle];
}
