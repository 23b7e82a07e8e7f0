import { length, normalize, sub, type Vec3 } from '../geometry/vec.ts';
import { loopPoints, type SolidModel } from './solid-model.ts';
import { outwardNormal } from './surface.ts';

export type PickableKind = 'plane' | 'hollow' | 'straight-edge' | 'edge' | 'rim' | 'corner';

/** A place of the model that can be pointed at, for choosing it from a list: a face and a point on it. */
export interface Pickable {
  kind: PickableKind;
  face: number;
  point: Vec3;
  /** Area of a face about, mm²; length of an edge, diameter of a rim or hollow, mm; nothing for corners. */
  size: number;
  /** Where a face looks, or a straight edge runs. */
  direction: Vec3 | null;
}

const middleOf = (points: readonly Vec3[]): Vec3 =>
  [0, 1, 2].map((i) => points.reduce((s, p) => s + p[i]!, 0) / points.length) as Vec3;

/** Twice the area vector's half of a closed run of points: its length is the area where the run is flat. */
function areaOf(points: readonly Vec3[]): number {
  const sum: Vec3 = [0, 0, 0];
  const o = points[0]!;
  for (let i = 1; i + 1 < points.length; i++) {
    const [u, v] = [sub(points[i]!, o), sub(points[i + 1]!, o)];
    sum[0] += (u[1] * v[2] - u[2] * v[1]) / 2;
    sum[1] += (u[2] * v[0] - u[0] * v[2]) / 2;
    sum[2] += (u[0] * v[1] - u[1] * v[0]) / 2;
  }
  return length(sum);
}

/** Everything of those kinds that the model, or one of its solids, has; the largest first, corners as they come. */
export function pickables(
  model: SolidModel,
  kinds: readonly PickableKind[],
  solid: number | null = null,
): Pickable[] {
  const wanted = new Set(kinds);
  const isShown = (face: number): boolean => solid === null || model.faces[face]?.solid === solid;
  const out: Pickable[] = [];
  model.faces.forEach((f, face) => {
    if (!isShown(face)) return;
    const outline = f.loops[0] ? loopPoints(model, f.loops[0]) : [];
    if (outline.length < 2) return;
    const { surface } = f;
    if (surface.kind === 'plane' && wanted.has('plane')) {
      const point = middleOf(outline);
      out.push({ kind: 'plane', face, point, size: areaOf(outline), direction: outwardNormal(f, point) });
    }
    if (surface.kind === 'cylinder' && f.reversed && wanted.has('hollow'))
      out.push({
        kind: 'hollow',
        face,
        point: outline[0]!,
        size: 2 * surface.radius,
        direction: surface.axis,
      });
  });
  const corners = new Set<string>();
  for (const e of model.edges) {
    const face = e.faces.find(isShown);
    if (face === undefined || e.convexity === 'seam' || e.points.length < 2) continue;
    const ends = [e.points[0]!, e.points[e.points.length - 1]!] as const;
    const run = e.points.slice(1).reduce((n, p, i) => n + length(sub(p, e.points[i]!)), 0);
    const point = e.points.length === 2 ? middleOf(e.points) : e.points[Math.floor(e.points.length / 2)]!;
    const isLine = e.curve.kind === 'line';
    const direction = isLine && length(sub(ends[1], ends[0])) > 0 ? normalize(sub(ends[1], ends[0])) : null;
    if (wanted.has('edge')) out.push({ kind: 'edge', face, point, size: run, direction });
    else if (wanted.has('straight-edge') && direction)
      out.push({ kind: 'straight-edge', face, point, size: run, direction });
    if (e.curve.kind === 'circle' && wanted.has('rim'))
      out.push({ kind: 'rim', face, point, size: 2 * e.curve.radius, direction: e.curve.axis });
    if (wanted.has('corner'))
      for (const p of ends) {
        const key = p.map((v) => v.toFixed(3)).join();
        if (corners.has(key)) continue;
        corners.add(key);
        out.push({ kind: 'corner', face, point: p, size: 0, direction: null });
      }
  }
  return out.sort((a, b) => b.size - a.size);
}
