import { dot, sub, type Vec3 } from '../geometry/vec.ts';
import { isArcAbout, isClosedEdge } from './circle-edge.ts';
import type { Edge, Face, SolidModel, Surface } from './solid-model.ts';
import { angleBasis } from './surface.ts';
import type { Flat } from './triangulate.ts';

/** Rims whose places differ by less along the axis have nothing between them, mm. */
const FLAT = 1e-6;

/**
 * The triangles of a wall between two whole circles about its axis, as nearly every bore has one, with or without a seam: zipped together
 * without laying it out. Its corners are the samples of the lower rim and of the upper one, each begun and ended at one place. Null for any
 * other face.
 */
export function roundWall(model: SolidModel, face: Face): { flat: Flat[]; triangles: number[] } | null {
  const { surface } = face;
  if (surface.kind !== 'cylinder' && surface.kind !== 'cone') return null;
  const rims = rimsOf(model, face, surface);
  if (!rims) return null;
  const { origin, axis } = surface;
  const heights = rims.map(({ points }) => dot(sub(points[0]!, origin), axis));
  if (Math.abs(heights[0]! - heights[1]!) < FLAT) return null;
  const [low, high] = heights[0]! < heights[1]! ? [rims[0], rims[1]] : [rims[1], rims[0]];
  const basis = angleBasis(axis);
  const lower = ring(low, surface, basis, 0);
  const upper = ring(high, surface, basis, lower[0]!.u);
  return { flat: [...lower, ...upper], triangles: zipped(lower, upper) };
}

type Round = Extract<Surface, { kind: 'cylinder' | 'cone' }>;

/** The two rims, where the face has these and a seam at the most. */
function rimsOf(model: SolidModel, { loops }: Face, { origin, axis }: Round): [Edge, Edge] | null {
  const uses = loops.reduce((n, l) => n + l.length, 0);
  if (uses !== (loops.length === 1 ? 4 : 2) || loops.length > 2) return null;
  const rims: Edge[] = [];
  let seam = -1;
  for (const loop of loops)
    for (const { edge } of loop) {
      const e = model.edges[edge]!;
      if (isClosedEdge(e) && isArcAbout(e, origin, axis)) rims.push(e);
      else if (seam === -1) seam = edge;
      else if (seam !== edge) return null;
    }
  // Between the turns of a seam stands one rim each.
  const isSplit = loops.length === 2 ? loops.every((l) => l.length === 1) : isAlternate(model, loops[0]!);
  return rims.length === 2 && rims[0] !== rims[1] && isSplit ? [rims[0]!, rims[1]!] : null;
}

const isAlternate = (model: SolidModel, loop: Face['loops'][number]): boolean =>
  loop.every(
    ({ edge }, i) => isClosedEdge(model.edges[edge]!) === isClosedEdge(model.edges[loop[i % 2]!.edge]!),
  );

/** A rim's samples in the sense of the axis, with its angle in radians as `u`, begun at the sample that is nearest to an angle. */
function ring({ curve, points }: Edge, { origin, axis }: Round, [x, y]: [Vec3, Vec3], near: number): Flat[] {
  const n = points.length - 1;
  const isAlong = curve.kind === 'circle' && dot(curve.axis, axis) > 0;
  const d = sub(points[0]!, origin);
  const step = (2 * Math.PI) / n;
  // Samples of a whole circle stand at equal angles.
  const start = Math.atan2(dot(d, y), dot(d, x));
  const first = Math.round((near - start) / step);
  return Array.from({ length: n + 1 }, (_, k) => {
    const i = (((first + k) % n) + n) % n;
    return { u: start + (first + k) * step, v: 0, point: points[isAlong ? i : (n - i) % n]! };
  });
}

/** Triangles between two rings, counter-clockwise as seen from outside; the nearer corner next, so that they stay short. */
function zipped(lower: readonly Flat[], upper: readonly Flat[]): number[] {
  const out: number[] = [];
  const base = lower.length;
  let [i, j] = [0, 0];
  while (i + 1 < lower.length || j + 1 < upper.length) {
    const [a, b] = [lower[i + 1], upper[j + 1]];
    if (a && (!b || a.u <= b.u)) out.push(i, ++i, base + j);
    else out.push(i, base + j + 1, base + j++);
  }
  return out;
}
